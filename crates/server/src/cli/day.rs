//! A job's day and what is carried there, from the command line.

use std::io::Write as _;
use std::path::PathBuf;

use clap::Args;
use tolva_wording::day_plan;

use super::error::CliError;
use super::of_files::{print, read_job};
use crate::day_files;
use crate::edge::{KnownJob, refused};

/// A job's day.
#[derive(Debug, Args)]
pub struct Day {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// Which of its days, as 2026-08-29; left out, the one that is written on it, or the first.
    #[arg(long)]
    date: Option<String>,
    /// As a table instead of JSON.
    #[arg(long, conflicts_with = "ics")]
    csv: bool,
    /// As a calendar instead of JSON.
    #[arg(long)]
    ics: bool,
}

/// Writes when each setup has its light, and the order they are shot in.
pub fn day(asked: &Day) -> Result<(), CliError> {
    let job = read_job(&asked.file)?;
    let name = job.name.clone();
    let wrong = |problems| CliError::Job(asked.file.clone(), problems);
    let known = KnownJob::of(job).map_err(wrong)?;
    let day = day_plan(known.days(), asked.date.as_deref(), &[]).map_err(|error| wrong(refused(error)))?;
    if asked.csv {
        Ok(write!(std::io::stdout(), "{}", day_files::csv(&day))?)
    } else if asked.ics {
        Ok(write!(std::io::stdout(), "{}", day_files::calendar(&day, &name, jiff::Timestamp::now()))?)
    } else {
        print(&day)
    }
}

/// What a job takes along.
#[derive(Debug, Args)]
pub struct Pack {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// As a table instead of JSON.
    #[arg(long)]
    csv: bool,
}

/// Writes it.
pub fn pack(asked: &Pack) -> Result<(), CliError> {
    let job = read_job(&asked.file)?;
    let known = KnownJob::of(job).map_err(|problems| CliError::Job(asked.file.clone(), problems))?;
    let list = known.pack();
    if asked.csv { Ok(write!(std::io::stdout(), "{}", day_files::pack_csv(&list))?) } else { print(&list) }
}
