//! What can hurt: wind on stands, what a fall reaches, edges, roads, lines overhead, cables, bare tubes, heat. Always an
//! estimate: local rules and licensed practice come first. Distances are common practice, no source.

use tolva_core::ambient::Surroundings;
use tolva_core::scale::Metres;
use tolva_core::set::{Point, Vector, ballast_kg, between_deg, wind_force_n};

use super::{BoomLoad, Looked, SetNotice};
use crate::setup::{Boom, Flash, Hazard, HazardKind, LightIndex, ModifierSurface, Person, Support};
use crate::staging::Thing;

/// Outdoors, where nobody has said the wind, so much is reckoned with, in m/s: leaves and thin branches move.
const ASSUMED_WIND_M_S: f64 = 6.0;
/// A stand whose footprint nobody has said, in metres.
const FOOTPRINT_M: f64 = 0.4;
/// Nearer than this to an edge, a road or water, somebody may step into it, in metres.
const NEAR_M: f64 = 1.5;
/// Nothing comes nearer than this to a line overhead, in metres; local rules ask for more under high voltage.
const LINE_M: f64 = 3.0;
/// Nearer than this a bare tube hurts eyes that look at it, in metres.
const EYES_M: f64 = 1.0;
/// Eyes look at it within so many degrees.
const LOOKS_DEG: f64 = 50.0;

fn apart(a: Point, b: Point) -> f64 {
    (a - b).truncate().length()
}

/// How near a point on the floor comes to a run from end to end.
fn to_run(hazard: &Hazard, point: Point) -> f64 {
    let from = Vector::new(hazard.from_x_m, hazard.from_y_m, 0.0);
    let run = Vector::new(hazard.to_x_m, hazard.to_y_m, 0.0) - from;
    let flat = Vector::new(point.x, point.y, 0.0);
    let t = ((flat - from).dot(run) / run.length_squared().max(1e-12)).clamp(0.0, 1.0);
    apart(flat, from + run * t)
}

/// Whether two runs on the floor cross.
fn cross(hazard: &Hazard, a: Point, b: Point) -> bool {
    let (c, d) = (Vector::new(hazard.from_x_m, hazard.from_y_m, 0.0), Vector::new(hazard.to_x_m, hazard.to_y_m, 0.0));
    let side = |p: Vector, q: Vector, r: Vector| (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
    side(a, b, c) * side(a, b, d) < 0.0 && side(c, d, a) * side(c, d, b) < 0.0
}

pub(super) fn safety(looked: &Looked<'_>) -> Vec<SetNotice> {
    let set = &looked.stage.laid.set;
    let mut all = Vec::new();
    for (index, _) in looked.setup.each_light() {
        all.extend(of_light(looked, index));
    }
    let edges = [HazardKind::Edge, HazardKind::Road, HazardKind::Water];
    for hazard in set.hazards.iter().filter(|hazard| edges.contains(&hazard.kind)) {
        let people = set.people.iter().map(|one| (Thing::Person(one.id.clone()), one.eyes()));
        let near = people.chain([(Thing::Camera, looked.stage.camera())]);
        let near = near.map(|(what, at)| (what, to_run(hazard, at))).filter(|(_, away)| *away < NEAR_M);
        if let Some((what, away_m)) = near.min_by(|a, b| a.1.total_cmp(&b.1)) {
            all.push(SetNotice::Near { what, away_m, hazard: hazard.kind });
        }
    }
    let (camera, anchor) = (looked.stage.camera(), looked.stage.laid.anchor());
    if set.hazards.iter().any(|hazard| hazard.kind == HazardKind::Cable && cross(hazard, camera, anchor)) {
        all.push(SetNotice::CableAcross);
    }
    all
}

fn of_light(looked: &Looked<'_>, index: LightIndex) -> Vec<SetNotice> {
    let (light, set) = (&looked.setup.lights[index], &looked.stage.laid.set);
    let (thing, at) = (looked.light(index), looked.at(index));
    let modifier = looked.kit.modifiers.iter().find(|one| Some(&one.id) == light.modifier_id.as_ref());
    let stand = looked.kit.stands.iter().find(|one| Some(&one.id) == light.stand_id.as_ref());
    let support = looked.stage.laid.lights[index].support;
    let stands = !light.on_camera && matches!(support, Support::Stand | Support::Boom { .. });
    let mut all = Vec::new();
    let outdoors =
        looked.setup.scene.as_ref().is_some_and(|scene| !matches!(scene.surroundings, Surroundings::Artificial(_)));
    let largest = looked.stage.glow(index, Metres(looked.distances[index])).size_m();
    // Tipped over, it lies as far as it stood high.
    let reach_m = at.z.max(0.0) + largest.0.max(largest.1) / 2.0;
    let wind = set.wind_m_s.or(outdoors.then_some(ASSUMED_WIND_M_S));
    if let (true, Some(wind_m_s), Some(modifier)) = (stands, wind, modifier) {
        let (area_m2, height_m) = (modifier.area_m2, at.z.max(0.1));
        let weight = modifier.weight_kg + stand.map_or(1.5, |stand| stand.weight_kg);
        let footprint = stand.map_or(FOOTPRINT_M, |stand| stand.footprint_m);
        let ballast_kg = ballast_kg(area_m2, wind_m_s, height_m, footprint, weight);
        if ballast_kg > 0.5 {
            let (assumed, force_n) = (set.wind_m_s.is_none(), wind_force_n(area_m2, wind_m_s));
            let nearest = set.people.iter().map(|one| (one, apart(at, one.eyes()))).min_by(|a, b| a.1.total_cmp(&b.1));
            let reaches = nearest.filter(|(_, away)| *away < reach_m).map(|(one, _)| Thing::Person(one.id.clone()));
            all.push(SetNotice::Wind {
                light: thing.clone(),
                wind_m_s,
                assumed,
                area_m2,
                height_m,
                force_n,
                ballast_kg,
                reaches,
            });
        }
    }
    if stands {
        let below = [HazardKind::Edge, HazardKind::Road, HazardKind::Water, HazardKind::Crowd];
        for hazard in set.hazards.iter().filter(|hazard| below.contains(&hazard.kind)) {
            if to_run(hazard, at) < reach_m {
                all.push(SetNotice::Falls { light: thing.clone(), reach_m, on: hazard.kind });
            }
        }
    }
    for hazard in set.hazards.iter().filter(|hazard| hazard.kind == HazardKind::OverheadLine) {
        let away_m = to_run(hazard, at).hypot((hazard.height_m - at.z).max(0.0));
        if away_m < LINE_M {
            all.push(SetNotice::UnderLine { light: thing.clone(), away_m });
        }
    }
    if modifier.is_none_or(|one| matches!(one.surface, ModifierSurface::Bare(_))) && !light.on_camera {
        let eyes = |one: &&Person| {
            let way = at - one.eyes();
            way.length() < EYES_M && between_deg(one.looks(), way) < LOOKS_DEG
        };
        if let Some(one) = set.people.iter().find(eyes) {
            let away_m = at.distance(one.eyes());
            all.push(SetNotice::BareNearEyes { light: thing.clone(), person: Thing::Person(one.id.clone()), away_m });
        }
    }
    let flash = looked.kit.flashes.iter().find(|one| one.id == light.flash_id);
    let closed = modifier.is_some_and(|one| !matches!(one.surface, ModifierSurface::Bare(_)));
    if closed && flash.is_some_and(Flash::burns_on) {
        all.push(SetNotice::Heat(thing.clone()));
    }
    if stands && matches!(support, Support::Boom { .. }) {
        let boom = looked.kit.booms.iter().find(|one| Some(&one.id) == light.boom_id.as_ref());
        // Where the unit was never weighed, what is on it alone may be too much.
        let unit_kg = flash.and_then(|flash| flash.weight_kg);
        let hangs_kg =
            modifier.map_or(0.0, |one| one.weight_kg) + unit_kg.unwrap_or(0.0) * f64::from(light.units.max(1));
        let load = |boom: &Boom| BoomLoad { hangs_kg, carries_kg: boom.carries_kg, unit_weighed: unit_kg.is_some() };
        let over = boom.filter(|boom| hangs_kg > boom.carries_kg).map(load);
        all.push(SetNotice::Boom { light: thing, over });
    }
    all
}
