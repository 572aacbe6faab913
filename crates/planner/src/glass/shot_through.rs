//! Photographing through glass: what it takes of the light, which lights stand on the wrong side, what a polariser does.

use crate::setup::LightIndex;
use tolva_core::scale::{Metres, Stops};

use super::showing::Look;
use crate::set::LightDistances;
use crate::staging::Stage;

/// A pane between the lens and the subject.
#[derive(Clone, Debug, PartialEq)]
pub struct ShotThrough {
    /// Which, by its index.
    pub pane: usize,
    /// How far from straight on the lens looks through it, in degrees.
    pub incidence_deg: f64,
    /// What it takes of everything behind it.
    pub loss: Stops,
    /// What a polariser takes of its reflections against what it takes of the rest, at best.
    pub polariser: Stops,
    /// The lights on the camera's side, by their indices: they show in it.
    pub wrong_side: Vec<LightIndex>,
}

/// The panes between the lens and the subject.
pub fn shot_through(stage: &Stage, distances: &LightDistances) -> Vec<ShotThrough> {
    let (lens, subject) = (stage.view.at, stage.laid.anchor());
    let mut all = Vec::new();
    let look = Look::new(stage, distances);
    for (index, pane) in look.panes.iter().enumerate().filter(|(index, _)| look.is_shot_through(*index)) {
        let incidence_deg = pane.incidence_deg(subject - lens);
        let (across, along) = pane.glazing.polarised(incidence_deg);
        let side = pane.before(lens).signum();
        let is_before = |(light, away)| pane.before(stage.at(light, Metres(away))) * side > 0.0;
        let wrong_side = distances.each().filter(|one| is_before(*one)).map(|(light, _)| light).collect();
        all.push(ShotThrough {
            pane: index,
            incidence_deg,
            loss: pane.glazing.loss(incidence_deg).unwrap_or(Stops::ZERO),
            polariser: Stops((f64::midpoint(across, along) / along.max(1e-4)).log2().min(4.0)),
            wrong_side,
        });
    }
    all
}
