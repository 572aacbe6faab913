//! The stand-in camera: frames of a setup with faults that nobody knows, to practise and to test with.

use std::io::Write as _;
use std::path::PathBuf;

use clap::Args;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde_json::json;
use tolva_core::proof::{Fineness, Size, Work};
use tolva_devices::{Camera as _, Scene, SimulatedCamera};
use tolva_planner::lighting::Prepared;
use tolva_planner::proof::Proof;
use tolva_planner::solver::Outcome;

use super::error::CliError;
use super::learn::named;
use super::proof::setup_of;

/// What to take a frame of.
#[derive(Debug, Args)]
pub struct StandIn {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// The setup with this id.
    #[arg(long, value_name = "ID")]
    setup: String,
    /// Where to write the frame, a JPEG.
    #[arg(short, long, value_name = "FILE")]
    out: PathBuf,
    /// Which camera and which set: another seed hides other faults.
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// Which frame it is: another one has other noise.
    #[arg(long, default_value_t = 1)]
    number: u32,
    /// With the flashes off.
    #[arg(long)]
    without_flash: bool,
    /// Says what is hidden, one JSON object a line.
    #[arg(long)]
    reveal: bool,
    /// The longer side of the frame, in pixels.
    #[arg(long, default_value_t = 1280, value_parser = clap::value_parser!(u32).range(32..=4096))]
    longest: u32,
}

/// Takes it.
pub fn stand_in(asked: &StandIn) -> Result<(), CliError> {
    let (setup, kit) = setup_of(&asked.file, &asked.setup)?;
    let wrong = |said: String| CliError::Frame(asked.file.clone(), said);
    let prepared = Prepared::new(&setup, &kit).map_err(|refused| wrong(refused.to_string()))?;
    let outcome = Outcome::of(&prepared);
    let proof = Proof::of(&prepared, &outcome, &kit);
    let size = Size::of_frame(asked.longest, proof.proportion);
    // Nobody stops it here.
    let Some(layers) = proof.layers(size, Fineness::Fine, &Work::default()) else { return Ok(()) };
    let camera = SimulatedCamera { seed: asked.seed };
    let scene = Scene {
        prepared: &prepared,
        outcome: &outcome,
        proof: &proof,
        layers: &layers,
        size,
        flash: !asked.without_flash,
        at: TimeZone::UTC.to_datetime(Timestamp::now()),
        number: asked.number,
    };
    let frame = camera.take(&scene).map_err(|error| wrong(error.to_string()))?;
    std::fs::write(&asked.out, frame).map_err(|error| CliError::File(asked.out.clone(), error))?;
    if !asked.reveal {
        return Ok(());
    }
    let mut out = std::io::stdout().lock();
    for (what, more) in camera.hidden(&prepared, &outcome) {
        let (code, of) = named(&what);
        writeln!(out, "{}", json!({ "hidden": code, "of": of, "more_stops": more.0 }))?;
    }
    Ok(writeln!(out, "{}", json!({ "hidden": "contrast", "times": camera.contrast() }))?)
}
