//! The proof of a setup: its set as a scene for the core, its lights as layers, and what the plan makes of them as weights.
//! Geometry makes layers; everything that stands on a dial only weighs them.

mod standing;
mod weights;

pub use standing::Staged;
pub use weights::{Behind, Layers, Moves, Share, Weights};

use std::sync::Arc;

use tolva_core::proof::{Fineness, Shape, Size, Source, Work, layers};

use crate::lighting::{Prepared, on_sensor};
use crate::solver::Outcome;

/// A setup's proof, before anything is rendered.
#[derive(Clone, Debug, PartialEq)]
pub struct Proof {
    /// What stands before the lens, and its lights.
    pub staged: Staged,
    /// What the plan makes of them.
    pub weights: Weights,
    /// The frame's width over its height.
    pub proportion: f64,
    /// The sensitivity.
    pub iso: f64,
    /// How long the shutter is open, in seconds.
    pub shutter_s: f64,
    /// The f-number.
    pub f_number: f64,
    /// How far people move while the shutter is open.
    pub moves: Moves,
}

/// The places that are of somebody.
fn of_people(staged: &Staged) -> Vec<usize> {
    let is_somebody = |thing: &u32| matches!(staged.scene.things[*thing as usize].shape, Shape::Figure(_));
    let places = staged.there.places.iter().enumerate();
    places.filter(|(_, place)| place.things.iter().any(is_somebody)).map(|(index, _)| index).collect()
}

impl Proof {
    /// Of a setup as it came out.
    pub fn of(prepared: &Prepared<'_>, outcome: &Outcome, kit: &crate::setup::Kit) -> Self {
        let staged = Staged::of(prepared, outcome, kit);
        let weights = Weights::of(prepared, outcome, &staged);
        let view = &staged.scene.view;
        let sensor = prepared.camera.sensor;
        let speed = prepared.setup.speed.movement.metres_per_s() * outcome.settings.shutter.exact;
        let wide_mm = if prepared.stage.as_ref().is_some_and(|stage| stage.laid.set.camera.portrait) {
            sensor.height_mm
        } else {
            sensor.width_mm
        };
        Self {
            proportion: view.half_width / view.half_height,
            iso: outcome.settings.iso.nominal,
            shutter_s: outcome.settings.shutter.nominal,
            f_number: outcome.settings.aperture.nominal,
            moves: Moves { by: speed * 1000.0 * on_sensor(prepared) / wide_mm, places: of_people(&staged) },
            staged,
            weights,
        }
    }

    /// Every layer of it, rendered at once; nothing where it was stopped.
    pub fn layers(&self, size: Size, fineness: Fineness, work: &Work) -> Option<Layers> {
        let Staged { scene, sources, there, .. } = &self.staged;
        let lit: Vec<&Source> = sources.iter().flatten().collect();
        let (lights, places) = layers(scene, size, (&lit, Some(there)), fineness, work)?;
        let mut lights = lights.into_iter();
        let of_light = |source: &Option<Source>| source.as_ref().and_then(|_| lights.next()).map(Arc::new);
        Some(Layers { lights: sources.iter().map(of_light).collect(), places: places.into() })
    }
}
