//! A frame against the plan it was taken by: what is off, what it teaches, what to change.

use std::io::{BufWriter, Write as _};
use std::path::{Path, PathBuf};

use clap::Args;
use serde::Deserialize;
use serde_json::{Value, json};
use tolva_core::scale::{LengthUnit, Power, PowerNotation, Stops};
use tolva_format::{Job, Problems};
use tolva_planner::frames::{Came, Turned, off_by, taught, turned};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::{Learnt, Setup, Unknown};
use tolva_planner::solver::{Outcome, State};

use super::error::CliError;
use super::frames::{Patch, frame, lacks};
use super::of_files::read_job;
use super::proof::setup_of;

/// What to learn from.
#[derive(Debug, Args)]
pub struct Learn {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// The frame that was taken by the plan.
    frame: PathBuf,
    /// The setup with this id.
    #[arg(long, value_name = "ID")]
    setup: String,
    /// A table with the columns region, left, top, width, height, in pixels of the frame: where each region is. With a column
    /// `surface_stops`, how much brighter than mid grey what is measured is in the same light: 0 for a grey card, about 1 for
    /// pale skin.
    #[arg(long, value_name = "CSV")]
    marks: PathBuf,
    /// Where to write the job with what was learnt.
    #[arg(short, long, value_name = "FILE")]
    out: Option<PathBuf>,
}

/// Where a region is in the frame.
#[derive(Debug, Deserialize)]
struct Mark {
    region: String,
    left: f64,
    top: f64,
    width: f64,
    height: f64,
    #[serde(default)]
    surface_stops: f64,
}

fn marks(file: &Path, setup: &Setup) -> Result<Vec<(usize, Patch, Stops)>, CliError> {
    let wrong = |said: String| CliError::Frame(file.to_owned(), said);
    let mut reader =
        csv::ReaderBuilder::new().trim(csv::Trim::All).from_path(file).map_err(|e| wrong(e.to_string()))?;
    let mut all = Vec::new();
    for row in reader.deserialize() {
        let Mark { region, left, top, width, height, surface_stops } =
            row.map_err(|error: csv::Error| wrong(error.to_string()))?;
        let at = setup.regions.iter().position(|one| one.id == region).ok_or_else(|| {
            let ids: Vec<&str> = setup.regions.iter().map(|one| one.id.as_str()).collect();
            wrong(format!("there is no region “{region}”: there are {}", ids.join(", ")))
        })?;
        all.push((at, Patch { left, top, width, height }, Stops(surface_stops)));
    }
    Ok(all)
}

/// Says what is off, what it teaches and what to change, one JSON object a line; writes the job with what was learnt.
pub fn learn(asked: &Learn) -> Result<(), CliError> {
    let (mut setup, kit) = setup_of(&asked.file, &asked.setup)?;
    let wrong = |said: String| CliError::Frame(asked.frame.clone(), said);
    let read = frame(&asked.frame)?;
    let settings =
        read.taken.settings().map_err(|all| wrong(format!("its EXIF does not say {}", lacks(&all).join(", "))))?;
    let mut came = vec![None; setup.regions.len()];
    for (region, patch, surface) in marks(&asked.marks, &setup)? {
        came[region] = Came::of(&read.photo.measured(patch.within(read.size, &asked.frame)?), surface);
    }
    let mut out = BufWriter::new(std::io::stdout().lock());
    let refused = |refused: tolva_planner::refused::Refused| wrong(refused.to_string());
    let prepared = Prepared::new(&setup, &kit).map_err(refused)?;
    let before = Outcome::of(&prepared);
    // A frame without flash is one of the light that is there.
    let fired = if read.taken.flash == Some(false) { before.clone().without_flash() } else { before.clone() };
    for (region, off) in setup.regions.iter().zip(off_by(&prepared, &fired, settings, &came)) {
        let line = json!({
            "region": region.id, "planned_stops": off.planned.0, "came_stops": off.came.map(|one| one.0),
            "off_stops": off.off.map(|one| one.0), "expected_stops": off.expected.0,
        });
        writeln!(out, "{line}")?;
    }
    let learnt = taught(&prepared, &fired, settings, &came)
        .ok_or_else(|| wrong("no region could be told: each is too bright or too dark, or has no mark".to_owned()))?;
    drop(prepared);
    for one in &learnt.of {
        let (code, of) = named(&one.what);
        writeln!(
            out,
            "{}",
            json!({ "believed": code, "of": of, "more_stops": one.more_stops, "sure_stops": one.sure_stops })
        )?;
    }
    setup.learnt = Some(learnt.clone());
    let prepared = Prepared::new(&setup, &kit).map_err(refused)?;
    for line in changes(&prepared, &before, &Outcome::of(&prepared)) {
        writeln!(out, "{line}")?;
    }
    out.flush()?;
    match &asked.out {
        Some(file) => write(file, &asked.file, &asked.setup, learnt),
        None => Ok(()),
    }
}

/// What an unknown is, and of what.
pub(super) fn named(what: &Unknown) -> (&'static str, String) {
    let of = match what {
        Unknown::Camera { camera_id, .. } => camera_id.clone(),
        Unknown::Meter { meter_id } => meter_id.clone(),
        Unknown::Ambient { region_id } => region_id.clone(),
        Unknown::Light { light_id, .. } => light_id.clone(),
        Unknown::Spill { light_id, region_id } => format!("{light_id} on {region_id}"),
    };
    (what.code(), of)
}

/// What stands differently on the dials.
fn changes(prepared: &Prepared<'_>, before: &Outcome, after: &Outcome) -> Vec<Value> {
    let line = |(of, from, to): (&str, String, String)| json!({ "change": of, "from": from, "to": to });
    let of_light =
        |of: &str, id: String, from: String, to: String| json!({ "change": of, "of": id, "from": from, "to": to });
    let power = |at: Option<Power>| at.map_or_else(|| "off".to_owned(), |at| at.label(PowerNotation::Fraction));
    turned(prepared, &State::of(before), &State::of(after))
        .into_iter()
        .map(|one| match one {
            Turned::Shutter(from, to) => line(("shutter", from.label(), to.label())),
            Turned::Aperture(from, to) => line(("aperture", from.label(), to.label())),
            Turned::Iso(from, to) => line(("iso", from.label(), to.label())),
            Turned::Power(id, from, to) => of_light("power", id, power(from), power(to)),
            Turned::Distance(id, from, to) => {
                of_light("distance", id, from.label(LengthUnit::Metres), to.label(LengthUnit::Metres))
            }
        })
        .collect()
}

fn write(to: &Path, from: &Path, id: &str, learnt: Learnt) -> Result<(), CliError> {
    let mut job: Job = read_job(from)?;
    if let Some(setup) = job.setups.iter_mut().find(|setup| setup.id == id) {
        setup.learnt = Some(learnt.into());
    }
    job.check().map_err(|problems: Problems| CliError::Job(from.to_owned(), problems))?;
    std::fs::write(to, job.to_json()).map_err(|error| CliError::File(to.to_owned(), error))
}
