//! The set in words: where each thing stands, as one would tell a helper.

use std::fmt::Write as _;

use tolva_core::modifier::penumbra;
use tolva_core::scale::{LengthUnit, Metres};
use tolva_core::set::{Direction, Point, Vector, signed_deg};
use tolva_planner::set::nearest_out_of_frame;
use tolva_planner::setup::{FeatherTo, LightIndex, RegionPlace, Setup, Support};
use tolva_planner::staging::Stage;

use super::notes::called;
use super::types::SetLight;
use crate::shown::Fact;
use crate::words::softness_word;

/// How many degrees are as good as none.
const STRAIGHT_DEG: f64 = 1.0;
/// A nose stands so far before the cheek, in metres. From memory.
const NOSE_M: f64 = 0.03;

/// What a light is aimed at: what it is called, the way it looks, and whether it is a face.
struct Aim {
    name: &'static str,
    own: bool,
    faces_deg: f64,
    eyes: bool,
}

fn aim_of(stage: &Stage, region: usize) -> Aim {
    let faces_deg = stage.laid.faces_deg(region);
    let (name, own, eyes) = match &stage.laid.regions[region] {
        RegionPlace::Face { .. } => ("the face", true, true),
        RegionPlace::Product { .. } => ("the product", true, false),
        RegionPlace::Wall { .. } => ("the wall", false, false),
        RegionPlace::Point { .. } => ("its spot", false, false),
    };
    Aim { name, own, faces_deg, eyes }
}

/// Round what it is aimed at: `40° to its right`.
fn round(aim: &Aim, direction_deg: f64) -> String {
    let turned = signed_deg(direction_deg - aim.faces_deg);
    let side = if turned > 0.0 { "right" } else { "left" };
    let whose = if aim.own { "its " } else { "the " };
    match turned.abs() {
        angle if angle < STRAIGHT_DEG => "straight before it".to_owned(),
        angle if angle > 180.0 - STRAIGHT_DEG => "straight behind it".to_owned(),
        angle => format!("{angle:.0}° to {whose}{side}"),
    }
}

/// Over what it is aimed at: `0.51 m over the eyes`.
fn over(aim: &Aim, over_m: f64, unit: LengthUnit) -> String {
    let what = if aim.eyes { "the eyes" } else { "it" };
    match over_m {
        none if none.abs() < 0.02 => format!("level with {what}"),
        up if up > 0.0 => format!("{} over {what}", Metres(up).label(unit)),
        down => format!("{} under {what}", Metres(-down).label(unit)),
    }
}

/// A light in words, for the list and for a helper.
pub(super) fn light(
    setup: &Setup,
    stage: &Stage,
    index: LightIndex,
    away_m: f64,
    unit: LengthUnit,
) -> (SetLight, String) {
    let light = &setup.lights[index];
    let region = tolva_planner::staging::aimed_at(setup, light);
    let aim = aim_of(stage, region);
    let place = stage.laid.lights[index];
    let distance = Metres(away_m);
    let at = stage.at(index, distance);
    let target = stage.aim(index);
    let over_m = at.z - target.z;
    let direction_deg = Direction::of(at - target).azimuth_deg;
    let (round, over) = (round(&aim, direction_deg), over(&aim, over_m, unit));
    let mut says = format!("{}: {} from {}, {round}, {over}", light.id, distance.label(unit), aim.name);
    if light.on_camera {
        says = format!("{}: on the camera, {} from {}", light.id, distance.label(unit), aim.name);
    }
    if let Some(head) = place.head {
        let thing = stage.turned_to(index, distance).cloned();
        let to =
            thing.map_or_else(|| "past everything".to_owned(), |thing| format!("to {}", called(setup, stage, &thing)));
        says.push_str(&turned(head.elevation_deg, &to));
    } else if light.feather_deg > 0.0 {
        let _ = write!(says, ", turned {:.0}° {}", light.feather_deg, way(place.feather_to));
    }
    if !light.on_camera {
        says.push_str(&held_by(place.support, unit));
    }
    if place.roll_deg.abs() >= 45.0 {
        says += ", lying";
    }
    let mut facts = facts(stage, index, away_m, region, unit);
    if light.on_camera {
        facts.retain(|fact| fact.code != "nearest");
    }
    let listed = SetLight {
        light_id: light.id.clone(),
        aim: [target.x, target.y, target.z],
        distance: distance.label(unit),
        free: light.distance_m.is_none() && !light.on_camera,
        round,
        over,
        over_m: (over_m * 1000.0).round() / 1000.0,
        facts,
    };
    (listed, says)
}

/// The way a head looks that is turned elsewhere.
fn turned(elevation_deg: f64, to: &str) -> String {
    match elevation_deg {
        up if up > 75.0 => format!(", its head straight up {to}"),
        up if up.abs() < 3.0 => format!(", its head turned {to}"),
        up if up > 0.0 => format!(", its head turned {to}, {up:.0}° up"),
        down => format!(", its head turned {to}, {:.0}° down", -down),
    }
}

fn way(feather_to: FeatherTo) -> &'static str {
    match feather_to {
        FeatherTo::Camera => "towards the camera",
        FeatherTo::Away => "away from the camera",
        FeatherTo::Up => "up",
        FeatherTo::Down => "down",
    }
}

fn held_by(support: Support, unit: LengthUnit) -> String {
    match support {
        Support::Stand => String::new(),
        Support::Boom { arm_m } => format!(", on a boom of {}", Metres(arm_m).label(unit)),
        Support::Held => ", held by a helper".to_owned(),
        Support::Clamped => ", clamped".to_owned(),
    }
}

/// What there is to know of where a light stands.
fn facts(stage: &Stage, index: LightIndex, away_m: f64, region: usize, unit: LengthUnit) -> Vec<Fact> {
    let distance = Metres(away_m);
    let glow = stage.glow(index, distance);
    let receptor = stage.receptors[region];
    let mut all = Vec::new();
    let width = glow.size_m().0.max(glow.size_m().1);
    if stage.laid.lights[index].head.is_none() {
        let angle = glow.angle_deg(receptor.at);
        let edge = penumbra(Metres(width), distance, Metres(NOSE_M));
        let soft = format!(
            "fills {angle:.0}° of its view: {}; the nose’s shadow has an edge of {:.0} mm",
            softness_word(angle),
            edge.0 * 1000.0
        );
        all.push(Fact::new("softness", "Softness", soft).with("angle_deg", angle).with("edge_m", edge.0));
        if let RegionPlace::Face { .. } = stage.laid.regions[region] {
            all.push(catchlight(stage, glow.centre, receptor.at, region));
        }
    } else {
        let angle = stage.bounced_angle_deg(index, distance, region);
        let says = format!("what comes back fills {angle:.0}° of its view: {}", softness_word(angle));
        all.push(Fact::new("softness", "Softness", says).with("angle_deg", angle));
        let given = stage.to_regions(index, distance)[region];
        let straight = -2.0 * away_m.log2();
        let costs = straight - given.reach().0;
        if costs.is_finite() {
            let says = format!("costs {costs:.1} stops against the head aimed straight, without what is on it");
            all.push(Fact::new("bounce", "Bounce", says).with("loss_stops", costs));
        }
        let shift = given.shift;
        if shift.mired.abs() >= 1.0 || shift.tint_duv.abs() >= 0.0005 {
            let warm = if shift.mired >= 0.0 { "warmer" } else { "cooler" };
            let tint = match shift.tint_duv {
                green if green > 0.0005 => format!(", greener by {green:.3} Duv"),
                magenta if magenta < -0.0005 => format!(", less green by {:.3} Duv", -magenta),
                _ => String::new(),
            };
            let says = format!("comes back {:.0} mired {warm}{tint}: chosen, measure it there", shift.mired.abs());
            all.push(Fact::new("bounce_colour", "Colour of the bounce", says).with("shift_mired", shift.mired));
        }
    }
    match nearest_out_of_frame(stage, index, away_m) {
        Some(nearest) if nearest < away_m + 1e-6 => {
            let says = format!("out of the frame from {} on, along its line", Metres(nearest).label(unit));
            all.push(Fact::new("nearest", "Nearest", says).with("nearest_m", nearest));
        }
        Some(nearest) => {
            let says = format!("in the frame: out of it from {} on", Metres(nearest).label(unit));
            all.push(Fact::new("nearest", "Nearest", says).with("nearest_m", nearest));
        }
        None => all.push(Fact::new("nearest", "Nearest", "in the frame all along its line")),
    }
    all
}

/// Where the catchlight sits in the eye, as on a clock seen from the camera.
fn catchlight(stage: &Stage, light: Point, face: Point, region: usize) -> Fact {
    // An eye mirrors: what is half way between light and lens is where it shines.
    let half = ((light - face).normalize_or_zero() + (stage.camera() - face).normalize_or_zero()).normalize_or_zero();
    let looks = aim_of(stage, region).faces_deg;
    let faces = Direction::new(looks, 0.0).vector();
    let says = if half.dot(faces) <= 0.3 {
        "none: the light stands too far round".to_owned()
    } else {
        let right = stage.view.right.dot(half);
        let up = stage.view.up.dot(half);
        let clock = (right.atan2(up).to_degrees() / 30.0).round().rem_euclid(12.0);
        let clock = if clock == 0.0 { 12.0 } else { clock };
        if Vector::new(right, up, 0.0).length() < 0.08 {
            "in the middle of the eye".to_owned()
        } else {
            format!("at {clock:.0} o’clock in the eye")
        }
    };
    Fact::new("catchlight", "Catchlight", says)
}

/// Everything else that is carried onto the set, a move a line.
pub(super) fn others(setup: &Setup, stage: &Stage, unit: LengthUnit) -> Vec<String> {
    let m = |metres: f64| Metres(metres).label(unit);
    let anchor = stage.laid.anchor();
    let set = &stage.laid.set;
    let whose = if set.people.is_empty() { "the product" } else { "the face" };
    let from = |at: Point| {
        let way = at - anchor;
        let side = match way.x {
            x if x > 0.05 => format!("{} to the camera’s right", m(x)),
            x if x < -0.05 => format!("{} to the camera’s left", m(-x)),
            _ => "in line with it".to_owned(),
        };
        let depth = match way.y {
            y if y > 0.05 => format!("{} behind {whose}", m(y)),
            y if y < -0.05 => format!("{} before {whose}", m(-y)),
            _ => format!("beside {whose}"),
        };
        format!("{depth}, {side}")
    };
    let mut all = vec![format!(
        "Camera: {} from {whose}, the lens {} over the floor, {} mm",
        m(setup.camera_distance_m),
        m(stage.camera().z),
        setup.focal_length_mm
    )];
    for person in set.people.iter().skip(1) {
        all.push(format!("{}: {}{}", person.name, from(person.eyes()), if person.seated { ", seated" } else { "" }));
    }
    for card in &set.cards {
        let panel = card.panel();
        let size = format!("{} × {}", m(card.width_m), m(card.height_m));
        let away = panel.centre.distance(anchor);
        all.push(format!("{} ({size}): {}, {} from {whose}", card.name, from(panel.centre), m(away)));
    }
    for wall in &set.walls {
        let centre = wall.panel(anchor).centre;
        let floor = Point::new(centre.x, centre.y, anchor.z);
        all.push(format!("{}: {}, gives back {:.0} %", wall.name, from(floor), wall.reflectance * 100.0));
    }
    for opening in &set.openings {
        all.push(format!("{}: {}", opening.name, from(opening.panel().centre)));
    }
    for pane in &set.panes {
        let size = format!("{} × {}", m(pane.width_m), m(pane.height_m));
        all.push(format!("{} ({size}): {}", pane.name, from(pane.panel().centre)));
    }
    all
}
