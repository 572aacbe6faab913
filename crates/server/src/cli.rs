//! The command line.

use std::io::{BufRead as _, Write as _};
use std::net::IpAddr;
use std::path::{Path, PathBuf};

use clap::{Args, Parser, Subcommand};
use serde::Serialize;
use thiserror::Error;
use tolva_format::{Job, Problem, Problems, Setup, read_json};
use tolva_planner::setup as domain;
use tolva_store::{Listing, OpenError, Store, StoreError};
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
    /// Copies the data file as it is now, while it is used.
    Backup(CopyOf),
    /// Brings back everything as it stands in a copy of the data file; what is there now is copied first.
    Restore(CopyOf),
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
    /// A further name this Tolva is reached by, such as `studio.local`, or `studio.local:8080` where another program
    /// hands requests on from that port. May be given again.
    #[arg(long = "allow-host", value_name = "NAME[:PORT]")]
    allow_hosts: Vec<String>,
    /// Make no backup of each day beside the data file.
    #[arg(long)]
    no_backups: bool,
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

#[derive(Debug, Args)]
struct CopyOf {
    /// The copy.
    file: PathBuf,
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
    Open(#[from] OpenError),
    #[error(transparent)]
    Demo(#[from] demo::NoDemo),
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
            let Serve { address, port, allow_hosts, no_backups, .. } = serve;
            let read_only = store.read_only();
            let serving = Serving { address, port, allow_hosts, backups: !no_backups && !read_only };
            Ok(serve::serve(store, serving, |url| {
                tell(&format!("Tolva is at {url}\nIts data file is {}", file.display()));
                if read_only {
                    tell("It cannot be written to: everything can be looked at, and nothing can be saved.");
                }
                if !address.is_loopback() {
                    tell(FROM_ELSEWHERE);
                }
            })
            .await?)
        }
        Command::Demo(Demo { port }) => {
            serve::log();
            let folder = tempfile::tempdir()?;
            let store = demo::open(&folder.path().join("demo.sqlite")).await?;
            let serving = Serving { address: [127, 0, 0, 1].into(), port, allow_hosts: Vec::new(), backups: false };
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
            let document = exported(&store, &export.job).await?;
            match export.out {
                Some(file) => std::fs::write(&file, document).map_err(|error| CliError::File(file, error)),
                None => Ok(std::io::stdout().write_all(&document)?),
            }
        }
        Command::Import(import) => {
            // All files are read before the first is kept: a wrong one leaves the data file as it was.
            let jobs: Vec<Job> = import.files.iter().map(|file| read_job(file)).collect::<Result<_, _>>()?;
            let store = Store::open(&data_file::of(import.data.data)?).await?;
            for saved in store.add_all(&jobs, "Import").await? {
                tell(&format!("{} {}", saved.id, printed(&saved.document.name)));
            }
            store.close().await;
            Ok(())
        }
        Command::Backup(CopyOf { file, data }) => {
            let store = Store::open(&data_file::of(data.data)?).await?;
            store.backup(&file).await?;
            tell(&format!("{} is a copy of {}", file.display(), store.file().display()));
            store.close().await;
            Ok(())
        }
        Command::Restore(CopyOf { file, data }) => {
            let store = Store::open(&data_file::of(data.data)?).await?;
            store.restore(&file).await?;
            let jobs = store.jobs(&Listing::default()).await?.total;
            let to = store.file().display();
            tell(&format!(
                "{to} is as it was in {}: {jobs} jobs. What was there before is a copy in backups",
                file.display()
            ));
            store.close().await;
            Ok(())
        }
        Command::Openapi => print(&api::openapi()),
        Command::Schema => print(&tolva_format::json_schema()),
        Command::Ranges => print(&tolva_format::field_ranges()),
    }
}

/// What it means to be reached from elsewhere, said where it is so.
const FROM_ELSEWHERE: &str = "\
Everyone on the networks this machine is on can now open it: see every job with its client and place, change and bin
them, change the kit, and bring back backups. There is no password. Nothing is encrypted: who can listen can read along.
Use it on a network of your own, and stop it when the job is done.";

/// A name as it is printed: a terminal obeys control characters.
fn printed(name: &str) -> String {
    name.chars().map(|letter| if letter.is_control() { '\u{fffd}' } else { letter }).collect()
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

async fn exported(store: &Store, wanted: &str) -> Result<Vec<u8>, CliError> {
    let mut listing = Listing { limit: 200, ..Listing::default() };
    let (mut named, mut all) = (Vec::new(), Vec::new());
    loop {
        let page = store.jobs(&listing).await?;
        named.extend(page.jobs.iter().filter(|job| job.id == wanted || job.name == wanted).cloned());
        all.extend(page.jobs.iter().take(20).map(|job| format!("  {} {}", job.id, printed(&job.name))));
        listing.after = page.next;
        if listing.after.is_none() {
            break;
        }
    }
    match named.as_slice() {
        [one] => match store.job(&one.id).await {
            // One that cannot be read is given as it stands: better than nothing.
            Err(StoreError::Unreadable { .. }) => Ok(store.raw(&one.id).await?),
            found => Ok(found?.document.to_json().into_bytes()),
        },
        _ if all.is_empty() => Err(CliError::NoSuchJob(wanted.to_owned(), "  nothing".to_owned())),
        _ => Err(CliError::NoSuchJob(wanted.to_owned(), all.join("\n"))),
    }
}
