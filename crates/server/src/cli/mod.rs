//! The command line.

mod day;
mod drill;
mod error;
mod field;
mod frames;
mod learn;
mod of_files;
mod proof;
mod stand_in;

use std::io::Write as _;
use std::net::IpAddr;
use std::path::PathBuf;

use clap::{Args, Parser, Subcommand};
use tolva_format::Job;
use tolva_store::{Listing, Store, StoreError};

use day::{Day, Pack, day, pack};
use drill::{DrillAsked, drills};
pub use error::CliError;
use field::{Card, card};
use frames::{Bracket, Measure, Separate, TargetIn, curve, measure, separate, target};
use learn::{Learn, learn};
use of_files::{
    Falling, OfSetups, OnTheSet, Solve, Sum, bytes_of, colour, light, print, solved, sums, write_falling, write_glass,
    write_set,
};
use proof::{ProofFile, write_proof};
use stand_in::{StandIn, stand_in};

use crate::frames::Archive;
use crate::serve::Serving;
use crate::{api, data_file, demo, record, serve};

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
    /// Reads a job file and writes its day: when each setup has its light, and the order they are shot in.
    Day(Day),
    /// Reads a job file and writes what it takes along: units, modifiers, stands, ballast, batteries, memory.
    Pack(Pack),
    /// Reads a job file and writes the field card of a setup: one HTML file, a sheet of paper or a page on a phone.
    Card(Card),
    /// Reads a job file and writes the timetable of each setup's falling light.
    Falling(Falling),
    /// Reads a job file and writes every school of white balance for each setup, with what becomes of its colours.
    Colour(OfSetups),
    /// Reads a job file and writes the set of each setup in words, or of one as a drawing to scale.
    Set(OnTheSet),
    /// Reads a job file and writes what shows in the glass of each set that is used, with the least that clears it.
    Glass(OfSetups),
    /// Reads a job file and writes the proof of one setup as a picture: PNG, or JPEG with its settings in EXIF.
    Proof(ProofFile),
    /// Takes a frame of a setup with the stand-in camera, whose kit and light have faults that nobody knows.
    StandIn(StandIn),
    /// Reads frames and writes what each was taken with and what came in each patch, one JSON object a line.
    Measure(Measure),
    /// Takes a frame without flash and one with it apart: ambient and flash of each patch, one JSON object a line.
    Separate(Separate),
    /// Finds a two-tone target in a frame: how far the exposure is off, and the white balance.
    Target(TargetIn),
    /// Recovers a camera's own curve from a bracket of one still scene.
    Curve(Bracket),
    /// Sets a frame against the plan it was taken by: what is off, what it teaches, what to change. Writes the job with it.
    Learn(Learn),
    /// Writes drills by seed and level, one JSON object a line, or as a sheet to print.
    Drill(DrillAsked),
    /// A single computation: reads one JSON object a line from standard input and writes one a line.
    Sum(Sum),
    /// Writes a job from the data file as a job file.
    Export(Export),
    /// Writes the log of a job from the data file: frames, ticks, readings, changes, notes.
    Log(Log),
    /// Reads job files into the data file.
    Import(Import),
    /// Copies the data file as it is now, while it is used.
    Backup(CopyOf),
    /// Brings back everything as it stands in a copy of the data file; what is there now is copied first.
    Restore(CopyOf),
    /// Writes the OpenAPI document of the API.
    Openapi,
    /// Writes who may ask for which route, as a Markdown table.
    Rights,
    /// Writes the JSON Schema of the job format.
    Schema,
    /// Writes the catalogue of fields as JSON: name, range, unit, step and default of every number of the format.
    Fields {
        /// Only those that stand in setups, or only those of the kit and of a job's days.
        #[arg(long, value_enum)]
        part: Option<FieldsPart>,
    },
}

/// A part of the catalogue of fields.
#[derive(Clone, Copy, Debug, clap::ValueEnum)]
enum FieldsPart {
    /// What stands in setups.
    Setups,
    /// What stands in the kit and in a job's days.
    Beside,
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
struct Log {
    /// The job's id, or its name where only one job has it.
    job: String,
    /// As a table instead of JSON.
    #[arg(long)]
    csv: bool,
    #[command(flatten)]
    data: Data,
}

#[derive(Debug, Args)]
struct Import {
    /// The job files, or the ZIPs of jobs with their frames.
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
        Command::Day(asked) => day(&asked),
        Command::Pack(asked) => pack(&asked),
        Command::Card(asked) => card(&asked),
        Command::Log(asked) => log(asked).await,
        Command::Falling(falling) => write_falling(&falling),
        Command::Set(set) => write_set(&set),
        Command::Glass(of) => write_glass(&of),
        Command::Proof(proof) => write_proof(&proof),
        Command::StandIn(asked) => stand_in(&asked),
        Command::Measure(asked) => measure(&asked),
        Command::Separate(asked) => separate(&asked),
        Command::Target(asked) => target(&asked),
        Command::Curve(asked) => curve(&asked),
        Command::Learn(asked) => learn(&asked),
        Command::Drill(asked) => drills(&asked),
        Command::Sum(sum) => sums(&sum.name),
        Command::Export(export) => {
            let store = Store::open_there(&data_file::of(export.data.data)?).await?;
            let document = exported(&store, &export.job).await?;
            match export.out {
                Some(file) => std::fs::write(&file, document).map_err(|error| CliError::File(file, error)),
                None => Ok(std::io::stdout().write_all(&document)?),
            }
        }
        Command::Import(asked) => import(asked).await,
        Command::Backup(CopyOf { file, data }) => {
            let store = Store::open_there(&data_file::of(data.data)?).await?;
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
        Command::Rights => Ok(write!(std::io::stdout(), "{}", crate::rights::table())?),
        Command::Schema => print(&tolva_format::json_schema()),
        Command::Fields { part } => print_fields(part),
    }
}

async fn import(asked: Import) -> Result<(), CliError> {
    // All files are read before the first is kept: a wrong one leaves the data file as it was.
    let (mut jobs, mut archives) = (Vec::new(), Vec::new());
    for file in &asked.files {
        let bytes = bytes_of(file)?;
        if Archive::is_one(&bytes) {
            archives.push(Archive::read(&bytes).map_err(|why| CliError::Job(file.clone(), why.into()))?);
        } else {
            jobs.push(Job::from_json(&bytes).map_err(|problems| CliError::Job(file.clone(), problems))?);
        }
    }
    let store = Store::open(&data_file::of(asked.data.data)?).await?;
    let mut kept = store.add_all(&jobs, "Import").await?;
    for archive in archives {
        kept.push(archive.kept(&store, None).await?);
    }
    for saved in kept {
        tell(&format!("{} {}", saved.id, printed(&saved.document.name)));
    }
    store.close().await;
    Ok(())
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

/// The id of a job that is named by it, or by its name where only one has it.
async fn job_called(store: &Store, wanted: &str) -> Result<String, CliError> {
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
        [one] => Ok(one.id.clone()),
        _ if all.is_empty() => Err(CliError::NoSuchJob(wanted.to_owned(), "  nothing".to_owned())),
        _ => Err(CliError::NoSuchJob(wanted.to_owned(), all.join("\n"))),
    }
}

async fn exported(store: &Store, wanted: &str) -> Result<Vec<u8>, CliError> {
    let id = job_called(store, wanted).await?;
    match store.job(&id).await {
        // One that cannot be read is given as it stands: better than nothing.
        Err(StoreError::Unreadable { .. }) => Ok(store.raw(&id).await?),
        found => Ok(found?.document.to_json().into_bytes()),
    }
}

async fn log(asked: Log) -> Result<(), CliError> {
    let store = Store::open_there(&data_file::of(asked.data.data)?).await?;
    let (entries, job) = record::entries(&job_called(&store, &asked.job).await?, &store).await?;
    store.close().await;
    if asked.csv {
        Ok(write!(std::io::stdout(), "{}", record::csv(&entries))?)
    } else {
        print(&record::json(&job.name, &entries))
    }
}

fn print_fields(part: Option<FieldsPart>) -> Result<(), CliError> {
    let catalogue = tolva_format::catalogue();
    let beside = catalogue.beside_setups();
    match part {
        None => print(catalogue),
        Some(FieldsPart::Beside) => print(&beside),
        Some(FieldsPart::Setups) => {
            let (lists, kinds) = (&catalogue.lists, &catalogue.kinds);
            let fields = catalogue.fields.iter().filter(|(path, _)| !beside.contains_key(path.as_str()));
            let fields: std::collections::BTreeMap<_, _> = fields.collect();
            print(&serde_json::json!({ "fields": fields, "lists": lists, "kinds": kinds }))
        }
    }
}
