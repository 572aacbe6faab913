//! What stands in the frame and how far back it must go; what shines on the front glass and where a flag goes.

use tolva_core::scale::Metres;
use tolva_core::set::{FLARE_DEG, Point, Solid, Vector, View, stopped};

use super::{Looked, Part, SetNotice};
use crate::set::additions::flag;
use crate::setup::{HazardKind, LightIndex, Support};
use crate::staging::{Stage, Thing, towards_sun};

/// A light is moved along its line in steps so long to see where it is out of the frame, up to so far, in metres.
const STEP_M: f64 = 0.05;
const FARTHEST_M: f64 = 12.0;
/// A helper is so tall, and stands so far behind what is held, in metres.
const HELPER_M: f64 = 1.75;
const HELPER_BEHIND_M: f64 = 0.45;
/// A stand shows so wide, in metres.
const POLE_M: f64 = 0.04;

/// The outline of what a light stands on, or of who holds it, with which of the two it is; nothing where it is clamped or on
/// the camera.
pub fn support_outline(stage: &Stage, light: LightIndex, at: Point, on_camera: bool) -> Option<(Part, Vec<Point>)> {
    let away = (at - stage.aim(light)) * Vector::new(1.0, 1.0, 0.0);
    let away = away.normalize_or(Vector::Y);
    let upright = |foot: Point, half: f64, top: f64| {
        let side = (stage.camera() - foot).cross(Vector::Z).normalize_or(Vector::X) * half;
        let up = Vector::Z * top;
        vec![foot - side, foot + side, foot + side + up, foot - side + up]
    };
    let floor = |point: Point| Point::new(point.x, point.y, 0.0);
    match stage.laid.lights[light].support {
        _ if on_camera => None,
        Support::Clamped => None,
        Support::Stand => Some((Part::Stand, upright(floor(at), POLE_M / 2.0, at.z.max(0.0)))),
        Support::Boom { arm_m } => {
            let drop = arm_m * 0.3;
            Some((Part::Stand, upright(floor(at + away * arm_m), POLE_M / 2.0, (at.z - drop).max(0.5))))
        }
        Support::Held => Some((Part::Helper, upright(floor(at + away * HELPER_BEHIND_M), 0.22, HELPER_M))),
    }
}

/// Whether an outline shows: it stands in the frame, and no wall hides its middle.
fn shows(view: &View, outline: &[Point], walls: &[Solid]) -> bool {
    #[expect(clippy::cast_precision_loss, reason = "a few corners")]
    let middle = outline.iter().sum::<Point>() / outline.len().max(1) as f64;
    view.shows(outline) && !stopped(walls, view.at, middle)
}

fn walls(stage: &Stage) -> Vec<Solid> {
    stage.standing.iter().filter(|one| matches!(one.thing, Thing::Wall(_))).map(|one| one.solid).collect()
}

/// The nearest a light can stand to its aim, along its line, with its face out of the frame: from where it is inwards, or
/// outwards where it is in the frame now. Nothing where it is in the frame all along.
pub fn nearest_out_of_frame(stage: &Stage, light: LightIndex, now_m: f64) -> Option<f64> {
    let walls = walls(stage);
    let out = |distance: f64| !shows(&stage.view, &stage.glow(light, Metres(distance)).outline(), &walls);
    let mut at = now_m;
    if out(at) {
        while at - STEP_M >= 0.1 && out(at - STEP_M) {
            at -= STEP_M;
        }
        return Some(at);
    }
    while at <= FARTHEST_M {
        at += STEP_M;
        if out(at) {
            return Some(at);
        }
    }
    None
}

/// The least height at which a light's face is out of the frame, straight up from where it stands and still aimed at what
/// it is aimed at; nothing up to [`HIGHEST_M`].
fn height_out_of_frame(stage: &Stage, light: LightIndex, distance: Metres) -> Option<f64> {
    let walls = walls(stage);
    let now = stage.glow(light, distance);
    let steps = ((HIGHEST_M - now.centre.z) / STEP_M).max(0.0);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few dozen")]
    let steps = steps as u32;
    (1..=steps).map(|step| now.centre.z + f64::from(step) * STEP_M).find(|z| {
        let centre = Point::new(now.centre.x, now.centre.y, *z);
        let axis = (stage.aim(light) - centre).normalize_or(Vector::Y);
        let raised = tolva_core::set::Glow::new(centre, axis, 0.0, now.surface, now.exponent);
        !shows(&stage.view, &raised.outline(), &walls)
    })
}

/// A light is raised so high at most to see where it is out of the frame, in metres.
const HIGHEST_M: f64 = 4.0;

pub(super) fn framing(looked: &Looked<'_>) -> Vec<SetNotice> {
    let (stage, view) = (looked.stage, &looked.stage.view);
    let walls = walls(stage);
    let mut all = Vec::new();
    for (index, light) in looked.setup.each_light() {
        if light.on_camera {
            continue;
        }
        let (at, what) = (looked.at(index), looked.light(index));
        let glow = stage.glow(index, Metres(looked.distances[index]));
        if shows(view, &glow.outline(), &walls) {
            let from_m = nearest_out_of_frame(stage, index, looked.distances[index]);
            let up_m = height_out_of_frame(stage, index, Metres(looked.distances[index]));
            all.push(SetNotice::InFrame { what: what.clone(), part: Part::Face, from_m, up_m });
        } else if let Some((part, outline)) = support_outline(stage, index, at, light.on_camera)
            && shows(view, &outline, &walls)
        {
            all.push(SetNotice::InFrame { what: what.clone(), part, from_m: None, up_m: None });
        }
        let way = glow.centre - view.at;
        let shines = glow.axis.dot(way) < 0.0 && !stopped(stage.solids(), glow.centre, view.at);
        let angle_deg = view.off_axis_deg(glow.centre);
        if shines && angle_deg < FLARE_DEG {
            all.push(SetNotice::Flare { light: Some(what), angle_deg, flag: flag(view, way).map(|one| one.centre) });
        }
    }
    for card in &stage.laid.set.cards {
        if shows(view, &card.panel().corners(), &walls) {
            all.push(SetNotice::InFrame {
                what: Thing::Card(card.id.clone()),
                part: Part::Whole,
                from_m: None,
                up_m: None,
            });
        }
    }
    for hazard in stage.laid.set.hazards.iter().filter(|hazard| hazard.kind == HazardKind::Cable) {
        let ends = [Point::new(hazard.from_x_m, hazard.from_y_m, 0.0), Point::new(hazard.to_x_m, hazard.to_y_m, 0.0)];
        if shows(view, &ends, &walls) {
            all.push(SetNotice::InFrame {
                what: Thing::Hazard(hazard.id.clone()),
                part: Part::Whole,
                from_m: None,
                up_m: None,
            });
        }
    }
    if let Some((sun, facing)) = looked.sun() {
        let towards = towards_sun(sun, facing);
        let angle_deg = tolva_core::set::between_deg(view.forward, towards);
        if angle_deg < FLARE_DEG && !stopped(stage.solids(), view.at + towards * 40.0, view.at) {
            all.push(SetNotice::Flare { light: None, angle_deg, flag: flag(view, towards).map(|one| one.centre) });
        }
    }
    all
}
