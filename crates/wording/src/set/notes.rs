//! What there is to say of a set, in words. What can hurt is said with the usual caution: an estimate, local rules first.

use tolva_core::scale::{LengthUnit, Metres};
use tolva_core::set::signed_deg;
use tolva_planner::set::{BoomLoad, Part, SetNotice};
use tolva_planner::setup::{HazardKind, Setup};
use tolva_planner::staging::{Stage, Thing};

use super::outlines::hazard_name;
use super::types::SetNote;
use crate::depth_lane::Distance;
use crate::words::{lower_first, upper_first};

/// The usual caution.
const LOCAL: &str = "An estimate; local rules first.";

/// What a thing is called, in the middle of a sentence.
pub(crate) fn called(setup: &Setup, stage: &Stage, thing: &Thing) -> String {
    let set = &stage.laid.set;
    let name = |found: Option<&String>| found.cloned().unwrap_or_else(|| "it".to_owned());
    match thing {
        Thing::Light(id) => id.clone(),
        Thing::Camera => "the camera".to_owned(),
        Thing::Ceiling => "the ceiling".to_owned(),
        Thing::Floor => "the floor".to_owned(),
        Thing::Person(id) => name(set.people.iter().find(|one| &one.id == id).map(|one| &one.name)),
        Thing::Product(id) => name(set.products.iter().find(|one| &one.id == id).map(|one| &one.name)),
        Thing::Card(id) => {
            let found = set.cards.iter().find(|one| &one.id == id);
            found.map_or_else(|| "the card".to_owned(), |one| format!("the {}", lower_first(&one.name)))
        }
        Thing::Wall(id) => name(set.walls.iter().find(|one| &one.id == id).map(|one| &one.name)),
        Thing::Opening(id) => name(set.openings.iter().find(|one| &one.id == id).map(|one| &one.name)),
        Thing::Pane(id) => {
            let found = set.panes.iter().find(|one| &one.id == id);
            found.map_or_else(|| "the pane".to_owned(), |one| format!("the {}", lower_first(&one.name)))
        }
        Thing::Hazard(id) => {
            let found = set.hazards.iter().find(|one| &one.id == id);
            found.map_or("it", |one| hazard_name(one.kind).0).to_lowercase()
        }
        Thing::Region(id) => name(setup.regions.iter().find(|one| &one.id == id).map(|one| &one.name)),
    }
}

fn hazard(kind: HazardKind) -> &'static str {
    match kind {
        HazardKind::Edge => "the edge",
        HazardKind::Road => "the road",
        HazardKind::Water => "the water",
        HazardKind::Crowd => "people passing",
        HazardKind::OverheadLine => "the line overhead",
        HazardKind::Cable => "the cable",
    }
}

/// A notice in words.
#[expect(clippy::too_many_lines, reason = "a sentence or two for each")]
pub(super) fn note(setup: &Setup, stage: &Stage, notice: &SetNotice, unit: LengthUnit) -> SetNote {
    let m = |metres: f64| Metres(metres).label(unit);
    let named = |thing: &Thing| called(setup, stage, thing);
    let (heading, says) = match notice {
        SetNotice::Inside { what, of } => (
            format!("{} is in something", upper_first(&named(what))),
            format!("It stands inside {}: move it out.", named(of)),
        ),
        SetNotice::InOnePlace(one, other) => {
            ("Two in one place".to_owned(), format!("{} and {} stand in one place.", named(one), named(other)))
        }
        SetNotice::AllAtOnePoint => (
            "Everything at one point".to_owned(),
            "People, camera and lights stand in one place: move them apart.".to_owned(),
        ),
        SetNotice::OutOfTheRoom(light) => {
            (format!("{} is out of the room", named(light)), "It is under the floor or over the ceiling.".to_owned())
        }
        SetNotice::StandTooLow { light, needed_m, highest_m } => (
            format!("Stand of {} too low", named(light)),
            format!(
                "It reaches {}, and {} is needed: lower the light, or take a higher stand.",
                m(*highest_m),
                m(*needed_m)
            ),
        ),
        SetNotice::NothingArrives { light, region, behind } => {
            let region = &setup.regions[*region].name;
            let why = if *behind {
                "it stands behind what it is aimed at"
            } else {
                "it looks elsewhere, or something stands between"
            };
            (format!("{} does not arrive", named(light)), format!("Nothing of it falls on “{region}”: {why}."))
        }
        SetNotice::OtherSideLit(light) => (
            format!("{} lights the other side", named(light)),
            "The shadow side gets more of it than the lit side: bring it round, or let the other side be the lit one."
                .to_owned(),
        ),
        SetNotice::InFrame { what, part, from_m, up_m } => {
            let name = upper_first(&named(what));
            let what = match part {
                Part::Face | Part::Whole => format!("{name} stands in the frame"),
                Part::Stand => format!("The stand of {name} stands in the frame"),
                Part::Helper => format!("The helper with {name} stands in the frame"),
            };
            let says = match (part, from_m) {
                (_, Some(from)) => {
                    let up = up_m.map_or_else(String::new, |up| format!(" Straight up, from {} on.", m(up)));
                    format!("From {} on, along its line, its face is out of it.{up}", m(*from))
                }
                (Part::Face, None) if up_m.is_some() => {
                    format!(
                        "Along its line it stays in it: straight up it is out of it from {} on.",
                        m(up_m.unwrap_or_default())
                    )
                }
                (Part::Face, None) => "Along its line it stays in it: raise it, or move it to the side.".to_owned(),
                (Part::Stand, None) => "Take it to the side, or put the light on a boom.".to_owned(),
                (Part::Helper, None) => "Let them kneel, step aside, or take a stand.".to_owned(),
                (Part::Whole, None) => "Move it out, or crop it off.".to_owned(),
            };
            (what, says)
        }
        SetNotice::Flare { light, angle_deg, flag: None } => {
            let from = light.as_ref().map_or_else(|| "The sun".to_owned(), named);
            let caution = if light.is_none() { " Never look at the sun through an optical viewfinder." } else { "" };
            let says = format!(
                "{from} shines on the front glass, {angle_deg:.0}° off axis. A flag would be in the picture: move the \
                 light or the camera.{caution}"
            );
            ("Flare".to_owned(), says)
        }
        SetNotice::Flare { light, angle_deg, flag: Some(flag) } => {
            let from = light.as_ref().map_or_else(|| "The sun".to_owned(), named);
            let direction = tolva_core::set::Direction::of(*flag - stage.view.at);
            let looks = tolva_core::set::Direction::of(stage.view.forward);
            let round = signed_deg(direction.azimuth_deg - looks.azimuth_deg);
            let side = if round < 0.0 { "left" } else { "right" };
            let up = direction.elevation_deg - looks.elevation_deg;
            let high = match up {
                level if level.abs() < 3.0 => String::new(),
                up if up > 0.0 => format!(" and {up:.0}° up"),
                down => format!(" and {:.0}° down", -down),
            };
            let caution = if light.is_none() { " Never look at the sun through an optical viewfinder." } else { "" };
            (
                "Flare".to_owned(),
                format!(
                    "{from} shines on the front glass, {angle_deg:.0}° off its axis: a flag {} before the lens, {:.0}° to \
                     the {side}{high}, keeps it off.{caution}",
                    m(flag.distance(stage.view.at)),
                    round.abs()
                ),
            )
        }
        SetNotice::Wind { light, wind_m_s, assumed, area_m2, height_m, force_n, ballast_kg, reaches } => {
            let falls =
                reaches.as_ref().map_or_else(String::new, |who| format!(" If it tips, it reaches {}.", named(who)));
            let said = if *assumed { "reckoned with, as nobody has said it" } else { "said" };
            (
                format!("Wind on {}", named(light)),
                format!(
                    "{wind_m_s:.0} m/s ({said}) on {area_m2:.2} m² at {} is {force_n:.0} N: {ballast_kg:.0} kg of ballast on \
                     the stand, its leg to the wind, and a helper’s hand on it in gusts; as they grow, the modifier comes down.{falls} {LOCAL}",
                    m(*height_m)
                ),
            )
        }
        SetNotice::Falls { light, reach_m, on } => (
            format!("{} could fall", named(light)),
            format!(
                "If its stand tips it reaches {}, as far as {}: ballast, a safety line, or farther off{}. {LOCAL}",
                m(*reach_m),
                hazard(*on),
                if *on == HazardKind::Edge { ", and somebody’s hand on it on the side of the edge" } else { "" }
            ),
        ),
        SetNotice::Near { what, away_m, hazard: kind } => (
            format!("{} near {}", upper_first(&named(what)), hazard(*kind)),
            format!(
                "{} off: somebody who steps back with an eye to a finder does not see it. Bar it off, or have it watched. {LOCAL}",
                m(*away_m)
            ),
        ),
        SetNotice::UnderLine { light, away_m } => (
            format!("{} near a line overhead", named(light)),
            format!(
                "{} off: stands are raised well away from lines, whatever they carry. Ask whose line it is; local rules first.",
                m(*away_m)
            ),
        ),
        SetNotice::CableAcross => (
            "Cable across the way".to_owned(),
            format!("It lies between the camera and the people: tape it down, or lead it round. {LOCAL}"),
        ),
        SetNotice::BareNearEyes { light, person, away_m } => (
            "Bare tube near eyes".to_owned(),
            format!(
                "{} flashes bare {} from the eyes of {}: farther off, or something over it.",
                named(light),
                m(*away_m),
                named(person)
            ),
        ),
        SetNotice::Heat(light) => (
            format!("Heat in {}", named(light)),
            format!(
                "A lamp that burns on warms closed cloth: as many watts as its maker allows, air round it, and nothing that burns near it. {LOCAL}"
            ),
        ),
        SetNotice::Boom { light, over } => (
            format!("{} on an arm", named(light)),
            format!(
                "{}Its weight pulls to one side: a counterweight, one leg under the arm, nobody under it. {LOCAL}",
                over.map_or_else(String::new, |BoomLoad { hangs_kg, carries_kg, unit_weighed }| {
                    let without = if unit_weighed { "" } else { " without the unit" };
                    format!("{hangs_kg:.1} kg{without}, and the boom carries {carries_kg:.1} kg: take it off. ")
                })
            ),
        ),
        SetNotice::BoomTooShort { light, arm_m, reach_m } => (
            "The boom does not reach so far".to_owned(),
            format!("{} hangs {} from its stand; the boom reaches {}.", named(light), m(*arm_m), m(*reach_m)),
        ),
    };
    SetNote {
        code: notice.code(),
        about: notice.about().cloned().map(Into::into),
        heading,
        says,
        can_hurt: notice.can_hurt(),
        away: match notice {
            SetNotice::InFrame { from_m, .. } => from_m.map(|from| to_do(from, unit)),
            _ => None,
        },
        up: match notice {
            SetNotice::InFrame { up_m, .. } => up_m.map(|up| to_do(up, unit)),
            _ => None,
        },
    }
}

fn to_do(at_m: f64, unit: LengthUnit) -> Distance {
    Distance { at_m: (at_m * 1000.0).round() / 1000.0, label: Metres(at_m).label(unit) }
}
