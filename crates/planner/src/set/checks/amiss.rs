//! What cannot stand so: told at the thing, and drawn all the same.

use tolva_core::ambient::Role;
use tolva_core::set::{Point, Solid};

use super::{Looked, SetNotice};
use crate::setup::{LightWish, Support};
use crate::staging::Thing;

/// Nearer than this to the face of a wall, something is in it, in metres.
const IN_WALL_M: f64 = 0.08;
/// Two people so near each other are one.
const APART_M: f64 = 0.2;

/// Whether a point lies inside a solid.
fn holds(solid: &Solid, point: Point) -> bool {
    match *solid {
        Solid::Ball { centre, radius_m } => point.distance(centre) < radius_m,
        Solid::Column { foot, radius_m, height_m } => {
            let off = point - foot;
            off.x.hypot(off.y) < radius_m && (0.0..height_m).contains(&off.z)
        }
        Solid::Crate { centre, halves } => {
            let off = point - centre;
            halves.iter().all(|half| off.dot(*half).abs() < half.length_squared())
        }
        Solid::Panel(panel) => {
            let off = point - panel.centre;
            off.dot(panel.normal).abs() < IN_WALL_M
                && off.dot(panel.right).abs() < panel.right.length_squared()
                && off.dot(panel.up).abs() < panel.up.length_squared()
        }
    }
}

pub(super) fn amiss(looked: &Looked<'_>) -> Vec<SetNotice> {
    let stage = looked.stage;
    let set = &stage.laid.set;
    let mut all = Vec::new();
    let lights = || looked.setup.each_light().map(|(index, _)| (index, looked.light(index), looked.at(index)));
    let mut points: Vec<Point> = lights().map(|(_, _, at)| at).collect();
    points.push(stage.camera());
    points.extend(set.people.iter().map(crate::setup::Person::eyes));
    let one_point = points.len() > 2 && points.iter().all(|point| point.distance(points[0]) < APART_M);
    if one_point {
        all.push(SetNotice::AllAtOnePoint);
    }
    let stands = lights().map(|(_, thing, at)| (thing, at)).chain([(Thing::Camera, stage.camera())]);
    for (what, at) in stands {
        if let Some(of) = stage.standing.iter().find(|one| holds(&one.solid, at)) {
            all.push(SetNotice::Inside { what, of: of.thing.clone() });
        }
    }
    for (index, one) in set.people.iter().enumerate() {
        let same = |other: &&crate::setup::Person| (one.x_m - other.x_m).hypot(one.y_m - other.y_m) < APART_M;
        if let Some(other) = set.people[index + 1..].iter().find(same) {
            all.push(SetNotice::InOnePlace(Thing::Person(one.id.clone()), Thing::Person(other.id.clone())));
        }
    }
    for (index, thing, at) in lights() {
        let light = &looked.setup.lights[index];
        if at.z < 0.0 || set.ceiling.is_some_and(|ceiling| at.z > ceiling.height_m) {
            all.push(SetNotice::OutOfTheRoom(thing.clone()));
        }
        let support = stage.laid.lights[index].support;
        let boom = looked.kit.booms.iter().find(|boom| Some(&boom.id) == light.boom_id.as_ref());
        if let (Support::Boom { arm_m }, false, Some(boom)) = (support, light.on_camera, boom)
            && arm_m > boom.reach_m + 0.005
        {
            all.push(SetNotice::BoomTooShort { light: thing.clone(), arm_m, reach_m: boom.reach_m });
        }
        let stand = looked.kit.stands.iter().find(|stand| Some(&stand.id) == light.stand_id.as_ref());
        if let (Support::Stand | Support::Boom { .. }, false, Some(stand)) = (support, light.on_camera, stand) {
            // An arm that rises from its stand adds what it can.
            let arm = if let Support::Boom { arm_m } = support { arm_m * 0.7 } else { 0.0 };
            if at.z > stand.highest_m + arm + 0.005 {
                all.push(SetNotice::StandTooLow {
                    light: thing.clone(),
                    needed_m: at.z,
                    highest_m: stand.highest_m + arm,
                });
            }
        }
        let Some(flash) = looked.prepared.lights.iter().find(|one| one.index == index) else { continue };
        let normal = stage.receptors[flash.aimed_at].normal;
        let behind = normal.dot(at - stage.receptors[flash.aimed_at].at) <= 0.0;
        let given = stage.to_regions(index, tolva_core::scale::Metres(looked.distances[index]));
        let own = given[flash.aimed_at];
        if own.straight + own.bounced <= 0.0 {
            all.push(SetNotice::NothingArrives { light: thing, region: flash.aimed_at, behind });
        } else if let (LightWish::Key, Some(shadow)) = (light.wish, looked.prepared.shadow)
            && looked.setup.regions[flash.aimed_at].role == Role::LitSide
            && given[shadow].straight + given[shadow].bounced > own.straight + own.bounced
        {
            all.push(SetNotice::OtherSideLit(thing));
        }
    }
    all
}
