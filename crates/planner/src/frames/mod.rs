//! What came against what was planned, and what it teaches.
//!
//! Every frame is evidence about what is not known. It says what some unknowns add up to in a region, each by its share of
//! the light there: in stops that is linear nearly enough, and is made linear anew at every look, where the last has taken it.

mod correct;
mod marks;
mod mix;
mod really;

pub use correct::{Correction, Turned, corrections, turned, with_free};
pub use marks::Expected;
pub use mix::{Mix, mix_weights, mixed_into};
pub use really::really;

use tolva_core::exposure::CameraSettings;
use tolva_core::frame::{Belief, Evidence, Measured};
use tolva_core::scale::Stops;

use crate::lighting::Prepared;
use crate::setup::Learnt;
use crate::solver::Outcome;
use crate::uncertainty::{Known, known_now, weights, with_more};

/// What came in a region of a frame.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Came {
    /// Stops from mid grey.
    pub stops: Stops,
    /// How well it was measured: one standard deviation, over nothing.
    pub sure: Stops,
}

/// How surely a region is measured: by where the mark is put, and what lies in it. Chosen.
const MEASURED: f64 = 0.03;

impl Came {
    /// What was measured on a surface that is so much brighter than mid grey in the same light: 0 for a grey card, about 1 for
    /// pale skin (common practice, no source). Nothing where it is too bright or too dark to tell.
    pub fn of(measured: &Measured, surface: Stops) -> Option<Self> {
        let told = !measured.is_clipped() && !measured.is_dark();
        measured.stops().filter(|_| told).map(|stops| Self { stops: stops - surface, sure: Stops(MEASURED) })
    }
}

/// A region of a frame against its plan.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct OffBy {
    /// What was to come, by what was known then.
    pub planned: Stops,
    /// What came; nothing where it could not be told.
    pub came: Option<Stops>,
    /// How much brighter it came.
    pub off: Option<Stops>,
    /// How far it may be off by all that is not known: one standard deviation.
    pub expected: Stops,
}

/// So often is a frame looked at. Four are enough where an unknown is a stop off.
const LOOKS: usize = 4;

/// Each region of a frame against the plan it was taken by. Where the frame was taken at other settings than the plan's, what
/// was to come is worked out for those.
pub fn off_by(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    settings: CameraSettings,
    came: &[Option<Came>],
) -> Vec<OffBy> {
    let taken = outcome.taken_at(prepared, settings);
    let known = known_now(prepared, &taken);
    (0..taken.regions.len())
        .map(|region| {
            let planned = taken.regions[region].together;
            let came = came.get(region).copied().flatten().map(|came| came.stops);
            let expected = known.belief.sum(&weights(prepared, &taken.regions[region], region, &known.of)).sure;
            OffBy { planned, came, off: came.map(|came| came - planned), expected }
        })
        .collect()
}

/// What is known after a frame: what was known before, moved no further by it than its certainty allows. A frame in which
/// nothing could be told teaches nothing.
pub fn taught(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    settings: CameraSettings,
    came: &[Option<Came>],
) -> Option<Learnt> {
    let taken = outcome.taken_at(prepared, settings);
    let Known { of: unknowns, belief: before, frames } = known_now(prepared, &taken);
    let at = |belief: &Belief| -> Vec<f64> { (0..unknowns.len()).map(|unknown| belief.of(unknown).more.0).collect() };
    let stood = at(&before);
    let (mut belief, mut told) = (before.clone(), false);
    // How much of each unknown shows depends on what they are: looked at anew where the last look has taken them.
    for _ in 0..LOOKS {
        let found = at(&belief);
        let more: Vec<f64> = found.iter().zip(&stood).map(|(found, stood)| found - stood).collect();
        belief = before.clone();
        for (region, came) in came.iter().enumerate().take(taken.regions.len()) {
            let Some(came) = came else { continue };
            let here = with_more(prepared, &taken.regions[region], region, (&unknowns, &more));
            let of = weights(prepared, &here, region, &unknowns);
            let from: f64 = of.iter().zip(&found).map(|(of, found)| of * found).sum();
            let says = came.stops - here.together + Stops(from);
            if let Ok(taught) = belief.with(&Evidence { of, says, sure: came.sure }) {
                belief = taught;
                told = true;
            }
        }
    }
    let from = prepared.setup.learnt.as_ref().map(|learnt| learnt.from.clone()).unwrap_or_default();
    told.then(|| Learnt::of_belief(unknowns, &belief, frames + 1, from))
}
