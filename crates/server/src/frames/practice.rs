//! Frames of the stand-in camera: of a setup as its proof shows it, with faults that nobody knows.

use jiff::Timestamp;
use jiff::tz::TimeZone;
use tolva_core::proof::{Fineness, Size, Work};
use tolva_devices::{Camera as _, Scene, SimulatedCamera};
use tolva_format::{Kit, Problems, Setup};
use tolva_planner::lighting::Prepared;
use tolva_planner::proof::Proof;
use tolva_planner::solver::Outcome;

use super::FrameError;
use crate::edge::known;

/// The longer side of a frame of the stand-in camera, in pixels: enough to judge, and there in a second or two.
const LONGEST: u32 = 720;

/// Takes a frame: what its file is called, and the file.
pub fn simulated(
    setup: Setup,
    kit: Kit,
    (seed, flash): (u32, bool),
    number: usize,
) -> Result<(String, Vec<u8>), FrameError> {
    let (setup, kit) = known(setup, kit)?;
    let prepared = Prepared::new(&setup, &kit)?;
    let outcome = Outcome::of(&prepared);
    let proof = Proof::of(&prepared, &outcome, &kit);
    let size = Size::of_frame(LONGEST, proof.proportion);
    let layers = proof.layers(size, Fineness::Fine, &Work::default()).ok_or(FrameError::Stopped)?;
    let scene = Scene {
        prepared: &prepared,
        outcome: &outcome,
        proof: &proof,
        layers: &layers,
        size,
        flash,
        at: TimeZone::UTC.to_datetime(Timestamp::now()),
        number: u32::try_from(number).unwrap_or(u32::MAX),
    };
    let camera = SimulatedCamera { seed: u64::from(seed) };
    let file = camera.take(&scene).map_err(|error| Problems::one("/setup", error.to_string()))?;
    Ok((format!("stand-in-{seed}-{number:04}.jpg"), file))
}
