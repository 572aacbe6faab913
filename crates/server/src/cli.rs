//! The command line.

use std::io::{BufRead as _, Write as _};
use std::net::IpAddr;
use std::path::{Path, PathBuf};

use clap::{Args, Parser, Subcommand};
use serde::Serialize;
use thiserror::Error;
use tolva_format::{Job, Problem, Problems, Setup, read_json};
use tolva_planner::setup as domain;
use tolva_store::{Store, StoreError};
use tolva_wording::{
    self as wording, ColourOptions, ColourPlan, DayTimeline, Plan, Show, SunReport, Timetable, colour_options, day_of,
};

use crate::edge::{known, refused, write};
use crate::serve::{ServeError, Serving};
use crate::{api, data_file, demo, serve, timetable};

/// Blends flash with the light that is already there.
#[derive(Debug, Parser)]
#[command(name = "tolva", version)]
pub struct Tolva {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serves Tolva with your own data file.
    Serve(Serve),
    /// Serves Tolva with demo data in a data file that is thrown away.
    Demo(Demo),
    /// Reads a job file and writes the plan of each setup as JSON.
    Solve(Solve),
    /// Reads a job file and writes the light of each setup's hour and day as JSON.
    Light(OfSetups),
    /// Reads a job file and writes the timetable of each setup's falling light.
    Falling(Falling),
    /// Reads a job file and writes every school of white balance for each setup, with what becomes of its colours.
    Colour(OfSetups),
    /// A single computation: reads one JSON object a line from standard input and writes one a line.
    Sum(Sum),
    /// Writes a job from the data file as a job file.
    Export(Export),
    /// Reads job files into the data file.
    Import(Import),
    /// Writes the OpenAPI document of the API.
    Openapi,
    /// Writes the JSON Schema of the job format.
    Schema,
    /// Writes the range and the unit of every number of the job format as JSON.
    Ranges,
}

#[derive(Debug, Args)]
struct Serve {
    /// The address to listen on.
    #[arg(long, default_value = "127.0.0.1")]
    address: IpAddr,
    /// The port to listen on; 0 takes a free one.
    #[arg(long, default_value_t = 8465)]
    port: u16,
    #[command(flatten)]
    data: Data,
    /// A further name this Tolva is reached by, such as `studio.local`. May be given again.
    #[arg(long = "allow-host", value_name = "NAME")]
    allow_hosts: Vec<String>,
}

#[derive(Debug, Args)]
struct Demo {
    /// The port to listen on; by default a free one.
    #[arg(long, default_value_t = 0)]
    port: u16,
}

#[derive(Debug, Args)]
struct Data {
    /// The data file; by default one in your own data folder.
    #[arg(long, value_name = "FILE")]
    data: Option<PathBuf>,
}

#[derive(Debug, Args)]
struct Solve {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// Write the workings as well.
    #[arg(long)]
    workings: bool,
}

#[derive(Debug, Args)]
struct OfSetups {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// Only the setup with this id.
    #[arg(long, value_name = "ID")]
    setup: Option<String>,
}

#[derive(Debug, Args)]
struct Falling {
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
struct Sum {
    /// Which: sun-position or sun-times.
    name: String,
}

#[derive(Debug, Args)]
struct Export {
    /// The job's id, or its name where only one job has it.
    job: String,
    /// Where to write it; standard output by default.
    #[arg(long, value_name = "FILE")]
    out: Option<PathBuf>,
    #[command(flatten)]
    data: Data,
}

#[derive(Debug, Args)]
struct Import {
    /// The job files.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    #[command(flatten)]
    data: Data,
}

/// Why a command was not carried out.
#[derive(Debug, Error)]
pub enum CliError {
    #[error("{}: {}", .0.display(), .1)]
    File(PathBuf, std::io::Error),
    #[error("{} is not a good job file:\n{}", .0.display(), list(.1))]
    Job(PathBuf, Problems),
    #[error("there is no job “{0}” in the data file; there is:\n{1}")]
    NoSuchJob(String, String),
    #[error(transparent)]
    Store(#[from] StoreError),
    #[error(transparent)]
    Serve(#[from] ServeError),
    #[error("cannot write: {0}")]
    Output(#[from] std::io::Error),
    #[error("there is no setup “{0}” with a place and an hour in {file}; there is: {2}", file = .1.display())]
    NoSuchSetup(String, PathBuf, String),
    #[error("there is no sum “{0}”; there is {1}")]
    NoSuchSum(String, String),
    #[error("{0} of the lines could not be worked out: see each line's problems")]
    SumsWrong(usize),
    #[error(transparent)]
    DataFile(#[from] data_file::NoDataFolder),
}

fn list(problems: &Problems) -> String {
    let line =
        |p: &Problem| format!("  {}: {}", if p.pointer.is_empty() { "the document" } else { &p.pointer }, p.message);
    problems.0.iter().map(line).collect::<Vec<_>>().join("\n")
}

#[derive(Serialize)]
struct Plans {
    job: String,
    plans: Vec<SetupPlan>,
}

#[derive(Serialize)]
struct SetupPlan {
    setup_id: String,
    name: String,
    plan: Plan,
}

/// Carries out a command.
pub async fn run(tolva: Tolva) -> Result<(), CliError> {
    match tolva.command {
        Command::Serve(serve) => {
            serve::log();
            let file = data_file::of(serve.data.data)?;
            let store = Store::open(&file).await?;
            let serving = Serving { address: serve.address, port: serve.port, allow_hosts: serve.allow_hosts };
            Ok(serve::serve(store, serving, |url| {
                tell(&format!("Tolva is at {url}\nIts data file is {}", file.display()));
            })
            .await?)
        }
        Command::Demo(Demo { port }) => {
            serve::log();
            let folder = tempfile::tempdir()?;
            let store = Store::open(&folder.path().join("demo.sqlite")).await?;
            demo::fill(&store).await?;
            let serving = Serving { address: [127, 0, 0, 1].into(), port, allow_hosts: Vec::new() };
            Ok(serve::serve(store, serving, |url| {
                tell(&format!("Tolva is at {url} with demo data, which is thrown away when it stops (Ctrl C)."));
            })
            .await?)
        }
        Command::Solve(solve) => print(&solved(&solve)?),
        Command::Colour(of) => print(&colour(&of)?),
        Command::Light(of) => print(&light(&of)?),
        Command::Falling(falling) => write_falling(&falling),
        Command::Sum(sum) => sums(&sum.name),
        Command::Export(export) => {
            let store = Store::open(&data_file::of(export.data.data)?).await?;
            let document = exported(&store, &export.job).await?.to_json();
            match export.out {
                Some(file) => std::fs::write(&file, document).map_err(|error| CliError::File(file, error)),
                None => Ok(std::io::stdout().write_all(document.as_bytes())?),
            }
        }
        Command::Import(import) => {
            // All files are read before the first is kept: a wrong one leaves the data file as it was.
            let jobs: Vec<Job> = import.files.iter().map(|file| read_job(file)).collect::<Result<_, _>>()?;
            let store = Store::open(&data_file::of(import.data.data)?).await?;
            for job in jobs {
                let owned = store.owned().await?;
                let saved = store.add(&job.apart_from(&owned).taking(&owned), "Import").await?;
                println!("{} {}", saved.id, saved.document.name);
            }
            store.close().await;
            Ok(())
        }
        Command::Openapi => print(&api::openapi()),
        Command::Schema => print(&tolva_format::json_schema()),
        Command::Ranges => print(&tolva_format::field_ranges()),
    }
}

/// Tells where the server is. Nobody need be listening: a server whose output was closed goes on serving.
fn tell(text: &str) {
    let _ = writeln!(std::io::stdout(), "{text}");
}

fn print(value: &impl Serialize) -> Result<(), CliError> {
    let text = serde_json::to_string_pretty(value).map_err(std::io::Error::other)?;
    Ok(writeln!(std::io::stdout(), "{text}")?)
}

fn read_job(file: &Path) -> Result<Job, CliError> {
    let bytes = if file.as_os_str() == "-" {
        std::io::read_to_string(std::io::stdin()).map(String::into_bytes)
    } else {
        std::fs::read(file)
    };
    let bytes = bytes.map_err(|error| CliError::File(file.to_owned(), error))?;
    Job::from_json(&bytes).map_err(|problems| CliError::Job(file.to_owned(), problems))
}

fn plan(setup: &domain::Setup, kit: &domain::Kit) -> Result<Plan, Problems> {
    wording::plan(setup, kit, Show::default(), &write).map_err(refused)
}

fn solved(solve: &Solve) -> Result<Plans, CliError> {
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

fn colour(of: &OfSetups) -> Result<serde_json::Value, CliError> {
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

fn light(of: &OfSetups) -> Result<serde_json::Value, CliError> {
    let (job, setups) = of_setups(of, has_scene, |setup, kit| {
        Ok(LightFound { sun_report: plan(setup, kit)?.sun_report, day: day_of(setup, kit, STEP_MIN).map_err(refused)? })
    })?;
    Ok(serde_json::json!({ "job": job.name, "setups": setups }))
}

fn write_falling(falling: &Falling) -> Result<(), CliError> {
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

/// One JSON object a line in, one a line out. A line that is wrong gives an object with its `errors`, and the others are
/// worked out all the same; the command then fails at its end.
fn sums(name: &str) -> Result<(), CliError> {
    let names: Vec<String> = tolva_calculators::offered().into_iter().map(|offer| offer.name).collect();
    if !names.iter().any(|known| known == name) {
        return Err(CliError::NoSuchSum(name.to_owned(), names.join(", ")));
    }
    let mut out = std::io::BufWriter::new(std::io::stdout().lock());
    let mut wrong = 0;
    for line in std::io::stdin().lock().lines() {
        let line = line?;
        if line.trim().is_empty() {
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
fn worked(name: &str, line: &str) -> Result<serde_json::Value, serde_json::Value> {
    let asked = read_json(line.as_bytes()).map_err(|problems| serde_json::json!(problems.0))?;
    let found = tolva_calculators::sum(name, &asked).unwrap_or_else(|| Ok(serde_json::Value::Null));
    found.map_err(|problems| serde_json::json!(problems.0))
}

async fn exported(store: &Store, wanted: &str) -> Result<Job, CliError> {
    let jobs = store.jobs(false).await?;
    let named: Vec<_> = jobs.iter().filter(|job| job.id == wanted || job.name == wanted).collect();
    if let [one] = named.as_slice() {
        return Ok(store.job(&one.id).await?.document.taking(&store.owned().await?));
    }
    let all: Vec<String> = jobs.iter().map(|job| format!("  {} {}", job.id, job.name)).collect();
    Err(CliError::NoSuchJob(wanted.to_owned(), if all.is_empty() { "  nothing".to_owned() } else { all.join("\n") }))
}
