//! What is computed from a job file, or from lines of JSON, without a data file.

use std::io::{BufRead as _, Read as _, Write as _};
use std::path::{Path, PathBuf};

use clap::Args;
use serde::Serialize;
use tolva_format::{Job, Problems, Setup, read_json};
use tolva_planner::setup as domain;
use tolva_wording::{
    self as wording, ColourOptions, ColourPlan, DayTimeline, GlassReport, MapAsked, Plan, Show, SunReport, Timetable,
    colour_options, day_of,
};

use super::error::CliError;
use crate::edge::{known, refused, write};
use crate::timetable;

#[derive(Debug, Args)]
pub struct Solve {
    /// The job file; `-` for standard input.
    pub file: PathBuf,
    /// Write the workings as well.
    #[arg(long)]
    workings: bool,
}

#[derive(Debug, Args)]
pub struct OfSetups {
    /// The job file; `-` for standard input.
    pub file: PathBuf,
    /// Only the setup with this id.
    #[arg(long, value_name = "ID")]
    setup: Option<String>,
}

#[derive(Debug, Args)]
pub struct Falling {
    #[command(flatten)]
    of: OfSetups,
    /// As a table (RFC 4180), of one setup.
    #[arg(long, requires = "setup", conflicts_with = "ics")]
    csv: bool,
    /// As a calendar with alarms (RFC 5545), of one setup.
    #[arg(long, requires = "setup")]
    ics: bool,
}

#[derive(Debug, Args)]
pub struct OnTheSet {
    #[command(flatten)]
    of: OfSetups,
    /// As a drawing to scale with its measures (SVG), of one setup.
    #[arg(long, requires = "setup")]
    svg: bool,
}

#[derive(Debug, Args)]
pub struct Sum {
    /// Which: sun-position or sun-times.
    pub name: String,
}

#[derive(Serialize)]
struct GlassFound {
    glass: Option<GlassReport>,
}

#[derive(Serialize)]
pub struct Plans {
    job: String,
    plans: Vec<SetupPlan>,
}

#[derive(Serialize)]
struct SetupPlan {
    setup_id: String,
    name: String,
    plan: Plan,
}

pub fn read_job(file: &Path) -> Result<Job, CliError> {
    Job::from_json(&bytes_of(file)?).map_err(|problems| CliError::Job(file.to_owned(), problems))
}

/// What is in a file; of standard input, where it is `-`.
pub fn bytes_of(file: &Path) -> Result<Vec<u8>, CliError> {
    let bytes = if file.as_os_str() == "-" {
        let mut bytes = Vec::new();
        std::io::stdin().read_to_end(&mut bytes).map(|_| bytes)
    } else {
        std::fs::read(file)
    };
    bytes.map_err(|error| CliError::File(file.to_owned(), error))
}

fn plan(setup: &domain::Setup, kit: &domain::Kit) -> Result<Plan, Problems> {
    wording::plan(setup, kit, Show::default(), &write).map_err(refused)
}

pub fn solved(solve: &Solve) -> Result<Plans, CliError> {
    let job = read_job(&solve.file)?;
    let plans = job.setups.iter().map(|setup| {
        let plan = known(setup.clone(), job.kit.clone()).and_then(|(setup, kit)| plan(&setup, &kit));
        let mut plan = plan.map_err(|problems| CliError::Job(solve.file.clone(), problems))?;
        if !solve.workings {
            plan.workings.clear();
        }
        Ok(SetupPlan { setup_id: setup.id.clone(), name: setup.name.clone(), plan })
    });
    Ok(Plans { plans: plans.collect::<Result<_, CliError>>()?, job: job.name.clone() })
}

#[derive(Serialize)]
struct OfSetup<T> {
    setup_id: String,
    name: String,
    #[serde(flatten)]
    found: T,
}

#[derive(Serialize)]
struct LightFound {
    sun_report: Option<SunReport>,
    day: DayTimeline,
}

#[derive(Serialize)]
struct ColourFound {
    colour: ColourPlan,
    #[serde(flatten)]
    options: ColourOptions,
}

#[derive(Serialize)]
struct SetFound {
    moves: Vec<String>,
    #[serde(skip)]
    drawing: String,
}

#[derive(Serialize)]
struct FallingFound {
    falling: Timetable,
}

/// Something worked out for each setup that has what it needs, or for the one that is asked for.
fn of_setups<T>(
    of: &OfSetups,
    has: impl Fn(&Setup) -> bool,
    work: impl Fn(&domain::Setup, &domain::Kit) -> Result<T, Problems>,
) -> Result<(Job, Vec<OfSetup<T>>), CliError> {
    let job = read_job(&of.file)?;
    let wanted = |setup: &&Setup| has(setup) && of.setup.as_ref().is_none_or(|id| *id == setup.id);
    let mut all = Vec::new();
    for setup in job.setups.iter().filter(wanted) {
        let found = known(setup.clone(), job.kit.clone()).and_then(|(setup, kit)| work(&setup, &kit));
        let found = found.map_err(|problems| CliError::Job(of.file.clone(), problems))?;
        all.push(OfSetup { setup_id: setup.id.clone(), name: setup.name.clone(), found });
    }
    if let (true, Some(id)) = (all.is_empty(), &of.setup) {
        let there = job.setups.iter().filter(|setup| has(setup)).map(|setup| setup.id.as_str());
        let there = there.collect::<Vec<_>>().join(", ");
        return Err(CliError::NoSuchSetup(id.clone(), of.file.clone(), there));
    }
    Ok((job, all))
}

fn has_scene(setup: &Setup) -> bool {
    setup.scene.is_some()
}

pub fn colour(of: &OfSetups) -> Result<serde_json::Value, CliError> {
    let (job, setups) = of_setups(
        of,
        |_| true,
        |setup, kit| {
            let found = ColourFound {
                colour: plan(setup, kit)?.colour,
                options: colour_options(setup, kit, Show::default(), &write).map_err(refused)?,
            };
            Ok(found)
        },
    )?;
    Ok(serde_json::json!({ "job": job.name, "setups": setups }))
}

/// From one point of a day's strip to the next.
const STEP_MIN: f64 = 5.0;

pub fn light(of: &OfSetups) -> Result<serde_json::Value, CliError> {
    let (job, setups) = of_setups(of, has_scene, |setup, kit| {
        Ok(LightFound { sun_report: plan(setup, kit)?.sun_report, day: day_of(setup, kit, STEP_MIN).map_err(refused)? })
    })?;
    Ok(serde_json::json!({ "job": job.name, "setups": setups }))
}

pub fn write_falling(falling: &Falling) -> Result<(), CliError> {
    let (job, setups) = of_setups(&falling.of, has_scene, |setup, kit| {
        Ok(FallingFound { falling: wording::falling(setup, kit, Show::default()).map_err(refused)? })
    })?;
    match setups.first() {
        Some(one) if falling.csv => Ok(write!(std::io::stdout(), "{}", timetable::csv(&one.found.falling))?),
        Some(one) if falling.ics => {
            let title = format!("{}: {}", job.name, one.name);
            let made = jiff::Timestamp::now();
            Ok(write!(std::io::stdout(), "{}", timetable::calendar(&one.found.falling, &title, made))?)
        }
        _ => print(&serde_json::json!({ "job": job.name, "setups": setups })),
    }
}

/// The set of each setup in words, or of one as a drawing.
pub fn write_set(set: &OnTheSet) -> Result<(), CliError> {
    let (job, setups) = of_setups(
        &set.of,
        |_| true,
        |setup, kit| {
            let show = Show::default();
            let moves = wording::set_moves(setup, kit, show).map_err(refused)?;
            Ok(SetFound {
                moves,
                drawing: wording::set_drawing(setup, kit, show, wording::DrawnAs::Sheet).map_err(refused)?,
            })
        },
    )?;
    match setups.first() {
        Some(one) if set.svg => Ok(write!(std::io::stdout(), "{}", one.found.drawing)?),
        _ => print(&serde_json::json!({ "job": job.name, "setups": setups })),
    }
}

/// What shows in the glass of each setup's set, and what clears it.
pub fn write_glass(of: &OfSetups) -> Result<(), CliError> {
    let (job, setups) = of_setups(
        of,
        |setup| setup.set.is_some(),
        |setup, kit| {
            let asked = MapAsked { remedies: true, ..MapAsked::default() };
            let plan = wording::plan_with_set(setup, kit, Show::default(), &write, &asked).map_err(refused)?;
            Ok(GlassFound { glass: plan.glass })
        },
    )?;
    print(&serde_json::json!({ "job": job.name, "setups": setups }))
}

/// One JSON object a line in, one a line out. A line that is wrong gives an object with its `errors`, and the others are
/// worked out all the same; the command then fails at its end.
pub fn sums(name: &str) -> Result<(), CliError> {
    let names: Vec<String> = tolva_calculators::offered().into_iter().map(|offer| offer.name).collect();
    if !names.iter().any(|known| known == name) {
        return Err(CliError::NoSuchSum(name.to_owned(), names.join(", ")));
    }
    let mut out = std::io::BufWriter::new(std::io::stdout().lock());
    let mut wrong = 0;
    for line in std::io::stdin().lock().split(b'\n') {
        let line = line?;
        if line.trim_ascii().is_empty() {
            continue;
        }
        let object = worked(name, &line).unwrap_or_else(|errors| {
            wrong += 1;
            serde_json::json!({ "errors": errors })
        });
        writeln!(out, "{object}")?;
        out.flush()?;
    }
    if wrong == 0 { Ok(()) } else { Err(CliError::SumsWrong(wrong)) }
}

/// One line worked out, or what is wrong with it.
fn worked(name: &str, line: &[u8]) -> Result<serde_json::Value, serde_json::Value> {
    let asked = read_json(line).map_err(|problems| serde_json::json!(problems.0))?;
    let found = tolva_calculators::sum(name, &asked).unwrap_or_else(|| Ok(serde_json::Value::Null));
    found.map_err(|problems| serde_json::json!(problems.0))
}

/// Writes a value as JSON.
pub fn print(value: &impl Serialize) -> Result<(), CliError> {
    let text = serde_json::to_string_pretty(value).map_err(std::io::Error::other)?;
    Ok(writeln!(std::io::stdout(), "{text}")?)
}
