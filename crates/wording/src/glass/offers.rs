//! What clears a reflection, and what that costs, in words.

use tolva_core::scale::{LengthUnit, Metres, Stops};
use tolva_planner::glass::{Cost, Move, Remedies, Remedy, Shown};
use tolva_planner::setup::{FeatherTo, Setup};
use tolva_planner::staging::{Stage, Thing};

use super::names::{called, named};
use super::types::{GlassOffer, GlassRemedies};
use crate::document::Write;
use crate::set::called as thing_called;
use crate::words::lower_first;

/// What there is to do about one thing.
pub(super) fn remedies(
    of: &Remedies,
    setup: &Setup,
    stage: &Stage,
    unit: LengthUnit,
    write: &Write<'_>,
) -> GlassRemedies {
    let (what, name) = (named(setup, &of.what), called(setup, stage, &of.what));
    let offers: Vec<GlassOffer> = of.all.iter().map(|one| offer(one, setup, stage, unit, write)).collect();
    let says = match (offers.first(), &of.what) {
        (Some(first), _) if first.codes.len() == 1 => {
            format!("The least that clears it: {}.", lower_first(&first.does))
        }
        (Some(first), _) if offers.iter().any(|one| one.codes.len() == 1) => {
            format!("Two moves together cost the least: {}.", lower_first(&first.does))
        }
        (Some(first), _) => format!("No single move clears it. Two together do: {}.", lower_first(&first.does)),
        (None, Shown::Light(_)) => "No move within reach clears it: take a clean plate without it.".to_owned(),
        (None, _) => "No move within reach clears it: make it darker, or take a clean plate.".to_owned(),
    };
    let (lights_off, people_out) = match &of.what {
        Shown::Light(light) => (vec![setup.lights[*light].id.clone()], false),
        // What shows is lit by the flashes: without them the plate is clean, and the picture keeps its people.
        Shown::Photographer | Shown::Surroundings(_) => {
            (setup.lights.iter().map(|light| light.id.clone()).collect(), true)
        }
    };
    GlassRemedies {
        what: what.into(),
        name,
        says,
        offers,
        outside: outside(of),
        plate_says: plate(&lights_off, people_out),
        plate_lights_off: lights_off,
        plate_people_out: people_out,
    }
}

/// What to call the picture and a clean plate.
pub fn plate_names(lights_off: &[String], people_out: bool) -> (String, String) {
    let without = match (lights_off, people_out) {
        ([], true) => "without people".to_owned(),
        ([], false) => "as it is".to_owned(),
        (lights, true) => format!("without {} and people", lights.join(", ")),
        (lights, false) => format!("without {}", lights.join(", ")),
    };
    ("The picture".to_owned(), format!("Clean plate, {without}"))
}

fn plate(lights_off: &[String], people_out: bool) -> String {
    let off = if lights_off.is_empty() { "nothing".to_owned() } else { lights_off.join(", ") };
    let people = if people_out { ", and with nobody in the frame" } else { "" };
    format!(
        "From a tripod, focus and white balance held: first the picture, then at exactly the same settings a frame with \
         {off} off{people}. The glass is taken from that one."
    )
}

fn outside(of: &Remedies) -> Vec<String> {
    let mut all = Vec::new();
    if let Some(darker) = of.darker.filter(|darker| darker.0 > 0.0) {
        all.push(match of.what {
            Shown::Photographer => format!(
                "Dark clothes: what you wear must give back {} less. Or step aside and release by remote; the tripod still \
                 shows.",
                darker.amount()
            ),
            _ => format!("A dark cloth before it, or less flash onto it: {} less of it is not seen.", darker.amount()),
        });
    }
    all
}

fn offer(one: &Remedy, setup: &Setup, stage: &Stage, unit: LengthUnit, write: &Write<'_>) -> GlassOffer {
    let does: Vec<String> = one.moves.iter().map(|step| does(step, setup, stage, unit)).collect();
    GlassOffer {
        codes: one.moves.iter().map(Move::code).collect(),
        does: match does.as_slice() {
            [first, second] => format!("{first}, and {}", lower_first(second)),
            all => all.join(", "),
        },
        costs: costs(one, setup),
        setup: write(&one.setup),
    }
}

fn does(one: &Move, setup: &Setup, stage: &Stage, unit: LengthUnit) -> String {
    let m = |metres: f64| Metres(metres.abs()).label(unit);
    let deg = |degrees: f64| format!("{:.0}°", degrees.abs().ceil());
    let hand = |degrees: f64| if degrees > 0.0 { "right" } else { "left" };
    let person = |id: &String| thing_called(setup, stage, &Thing::Person(id.clone()));
    match one {
        Move::Raise { light_id, by_m } => format!("Raise {light_id} by {}", m(*by_m)),
        // From above, clockwise round the subject is to the left as the camera sees a light before the subject.
        Move::Round { light_id, by_deg } => {
            format!("Move {light_id} {} round to the {}", deg(*by_deg), hand(-by_deg))
        }
        Move::Nearer { light_id, by_m } => format!("Bring {light_id} {} nearer", m(*by_m)),
        Move::Feather { light_id, to, to_deg } => {
            let way = match to {
                FeatherTo::Camera => "towards the camera",
                FeatherTo::Away => "away from the camera",
                FeatherTo::Up => "upwards",
                FeatherTo::Down => "downwards",
            };
            format!("Feather {light_id} {way}, {} off its aim", deg(*to_deg))
        }
        Move::Bounce { light_id, off } => {
            format!("Bounce {light_id} off {}", lower_first(&thing_called(setup, stage, off)))
        }
        Move::CameraHeight { by_m } if *by_m > 0.0 => format!("Raise the camera by {}, and shoot downwards", m(*by_m)),
        Move::CameraHeight { by_m } => format!("Lower the camera by {}", m(*by_m)),
        Move::CameraRound { by_deg } => format!("Go {} round the subject to your {}", deg(*by_deg), hand(-by_deg)),
        Move::CameraTurn { by_deg } => {
            format!("Turn the camera {:.1}° to the {}: the subject stands off the middle", by_deg.abs(), hand(*by_deg))
        }
        Move::LongerLens { lens_id, focal_length_mm, camera_distance_m } => {
            let lens = if *lens_id == setup.lens_id { "" } else { " with the longer lens" };
            format!("The same framing at {focal_length_mm:.0} mm{lens} from {}", m(*camera_distance_m))
        }
        Move::StandBefore { person_id, by_m: (x, y) } => {
            let right = stage.view.right.x * x + stage.view.right.y * y;
            format!("Have {} stand {} to the {}, before it", person(person_id), m(x.hypot(*y)), hand(right))
        }
        Move::TurnPane { pane_id, by_deg } => {
            let name = lower_first(&thing_called(setup, stage, &Thing::Pane(pane_id.clone())));
            let way = if *by_deg > 0.0 { "clockwise" } else { "anticlockwise" };
            format!("Turn {name} by {} {way}", deg(*by_deg))
        }
        Move::RaiseAmbient { stops } => format!("Let in {} more of the light that is there", Stops(*stops).amount()),
        Move::LowerPower { light_id, by_stops, .. } => {
            format!("Take {light_id} down by {}, and fix it there", Stops(*by_stops).amount())
        }
        Move::TiltSpectacles { person_id, by_deg } => {
            format!("Raise the temples of {}’s spectacles: tilt the glasses {} down", person(person_id), deg(*by_deg))
        }
        Move::TurnHead { person_id, by_deg } => {
            // Clockwise from above is to the right of who looks at the camera as the camera sees it turned.
            format!("Have {} turn {} to their {}", person(person_id), deg(*by_deg), hand(*by_deg))
        }
    }
}

fn costs(one: &Remedy, setup: &Setup) -> String {
    let Cost { power, direction_deg, softness_deg: (was, is), perspective, short } = one.cost;
    let mut all = Vec::new();
    if power.0 > 0.17 {
        all.push(format!("{} of light, which the plan makes up for", power.amount()));
    } else if power.0 < -0.17 {
        all.push(format!("{} more light, which the plan takes off", power.amount()));
    }
    all.extend(one.moves.iter().filter_map(|step| match step {
        Move::CameraRound { by_deg } => {
            Some(format!("the face is seen from {:.0}° farther round", by_deg.abs().ceil()))
        }
        Move::CameraHeight { by_m } => {
            let from = (by_m / setup.camera_distance_m).atan().to_degrees();
            Some(format!(
                "the face is seen from {:.0}° farther {}",
                from.abs(),
                if *by_m > 0.0 { "up" } else { "down" }
            ))
        }
        Move::CameraTurn { .. } => Some("the subject off the middle; crop, or mind the space".to_owned()),
        Move::StandBefore { .. } => Some("the group stands differently".to_owned()),
        Move::RaiseAmbient { .. } => Some("what lies behind gets brighter by as much".to_owned()),
        Move::TurnHead { .. } => Some("the face turns".to_owned()),
        _ => None,
    }));
    if direction_deg > 1.5 {
        all.push(format!("the light comes {direction_deg:.0}° from where it did"));
    }
    if was > 0.1 && (is / was - 1.0).abs() > 0.08 {
        let how = if is > was { "softer" } else { "harder" };
        all.push(format!("{how}: {is:.0}° instead of {was:.0}°"));
    }
    if (perspective - 1.0).abs() > 0.07 {
        all.push(format!("perspective of {perspective:.1} times the distance"));
    }
    if short.0 > 0.05 {
        all.push(format!("{} short of the wish", short.amount()));
    }
    if one.setup.lights.iter().zip(&setup.lights).any(|(new, old)| old.distance_m.is_none() && new.distance_m.is_some())
    {
        all.push("its distance is fixed from then on".to_owned());
    }
    if all.is_empty() { "Costs next to nothing.".to_owned() } else { format!("Costs: {}.", all.join("; ")) }
}
