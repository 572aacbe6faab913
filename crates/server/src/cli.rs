//! The command line.

use std::io::Write as _;
use std::net::IpAddr;
use std::path::{Path, PathBuf};

use clap::{Args, Parser, Subcommand};
use serde::Serialize;
use thiserror::Error;
use tolva_core::blend::{Plan, Show, plan};
use tolva_core::job::{Job, Problems};
use tolva_store::{Store, StoreError};

use crate::serve::{ServeError, Serving};
use crate::{api, data_file, demo, serve};

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
    /// Writes a job from the data file as a job file.
    Export(Export),
    /// Reads job files into the data file.
    Import(Import),
    /// Writes the OpenAPI document of the API.
    Openapi,
    /// Writes the JSON Schema of the job format.
    Schema,
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
    #[error(transparent)]
    DataFile(#[from] data_file::NoDataFolder),
}

fn list(problems: &Problems) -> String {
    let line = |p: &tolva_core::job::Problem| {
        format!("  {}: {}", if p.pointer.is_empty() { "the document" } else { &p.pointer }, p.message)
    };
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
            for job in &jobs {
                let saved = store.add(job, "Import").await?;
                println!("{} {}", saved.id, saved.job.name);
            }
            store.close().await;
            Ok(())
        }
        Command::Openapi => print(&api::openapi()),
        Command::Schema => print(&tolva_core::job::json_schema()),
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

fn solved(solve: &Solve) -> Result<Plans, CliError> {
    let job = read_job(&solve.file)?;
    let plans = job.setups.iter().map(|setup| {
        let mut plan =
            plan(setup, &job.kit, Show::default()).map_err(|problems| CliError::Job(solve.file.clone(), problems))?;
        if !solve.workings {
            plan.workings.clear();
        }
        Ok(SetupPlan { setup_id: setup.id.clone(), name: setup.name.clone(), plan })
    });
    Ok(Plans { plans: plans.collect::<Result<_, CliError>>()?, job: job.name.clone() })
}

async fn exported(store: &Store, wanted: &str) -> Result<Job, CliError> {
    let jobs = store.jobs(false).await?;
    let named: Vec<_> = jobs.iter().filter(|job| job.id == wanted || job.name == wanted).collect();
    if let [one] = named.as_slice() {
        return Ok(store.job(&one.id).await?.job);
    }
    let all: Vec<String> = jobs.iter().map(|job| format!("  {} {}", job.id, job.name)).collect();
    Err(CliError::NoSuchJob(wanted.to_owned(), if all.is_empty() { "  nothing".to_owned() } else { all.join("\n") }))
}
