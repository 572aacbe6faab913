//! How far each light stands: as it is said, or as the plan has put it.

use std::ops::Index;

use crate::lighting::Prepared;
use crate::setup::{Kit, Light, LightIndex, Setup};
use crate::solver::Outcome;
use crate::staging::Laid;

/// How far each light of a setup stands from its aim, in metres, in the setup's order: continuous lights too, which are not
/// among a plan's flashes.
#[derive(Clone, Debug, PartialEq)]
pub struct LightDistances(Vec<f64>);

impl LightDistances {
    /// One for each light of a setup.
    pub fn of(setup: &Setup, each: impl Fn(LightIndex, &Light) -> f64) -> Self {
        Self(setup.each_light().map(|(index, light)| each(index, light)).collect())
    }

    /// Each light with how far it stands.
    pub fn each(&self) -> impl Iterator<Item = (LightIndex, f64)> {
        self.0.iter().enumerate().map(|(at, away)| (LightIndex(at), *away))
    }
}

impl Index<LightIndex> for LightDistances {
    type Output = f64;

    fn index(&self, at: LightIndex) -> &f64 {
        &self.0[at.0]
    }
}

/// How far each light stands from its aim: as it is said, or as the plan has put it.
pub fn distances(setup: &Setup, kit: &Kit) -> LightDistances {
    let free = setup.lights.iter().any(|light| light.distance_m.is_none() && !light.on_camera);
    match free.then(|| Prepared::new(setup, kit).ok()).flatten() {
        Some(prepared) => distances_of(&prepared, Some(&Outcome::of(&prepared))),
        None => said(setup, |_| setup.camera_distance_m.min(3.0)),
    }
}

/// The same of a setup that is planned; without what comes of it, where Tolva would put a light at first.
pub fn distances_of(prepared: &Prepared<'_>, outcome: Option<&Outcome>) -> LightDistances {
    said(prepared.setup, |index| {
        let Some(at) = prepared.flash_of(index) else {
            return prepared.setup.camera_distance_m.min(3.0);
        };
        let light = &prepared.lights[at];
        let stands = outcome.and_then(|outcome| outcome.lights[at]).map(|at| at.distance).or(light.distance);
        stands.unwrap_or_else(|| light.usual_distance()).0
    })
}

/// Distances as they are said; the others are left to Tolva.
fn said(setup: &Setup, free: impl Fn(LightIndex) -> f64) -> LightDistances {
    let laid = Laid::of(setup);
    LightDistances::of(setup, |index, light| match light.distance_m {
        _ if light.on_camera => laid.light(setup, index, 1.0).distance(laid.aim(setup, index)),
        Some(distance) => distance,
        None => free(index),
    })
}
