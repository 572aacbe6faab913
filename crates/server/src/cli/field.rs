//! What is taken onto the set and brought back: the card of a setup, the log of a job.

use std::io::Write as _;
use std::path::PathBuf;

use clap::Args;
use tolva_planner::refused::Refused;
use tolva_wording::{LengthUnit, Paper, Show, field_card};

use super::error::CliError;
use super::of_files::read_job;
use crate::edge::{KnownJob, refused};

/// The field card of a setup.
#[derive(Debug, Args)]
pub struct Card {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// The setup with this id.
    #[arg(long, value_name = "ID")]
    setup: String,
    /// For a sheet of A4 instead of A5.
    #[arg(long)]
    a4: bool,
    /// Distances in feet and inches.
    #[arg(long)]
    feet: bool,
    /// The file to write; left out, standard output.
    #[arg(short, long, value_name = "FILE")]
    output: Option<PathBuf>,
}

/// Writes it.
pub fn card(asked: &Card) -> Result<(), CliError> {
    let job = read_job(&asked.file)?;
    let (name, place) = (job.name.clone(), job.place.clone());
    let wrong = |problems| CliError::Job(asked.file.clone(), problems);
    let known = KnownJob::of(job).map_err(wrong)?;
    let length = if asked.feet { LengthUnit::FeetAndInches } else { LengthUnit::Metres };
    let show = Show { length, ..Show::default() };
    let paper = if asked.a4 { Paper::A4 } else { Paper::A5 };
    let card = field_card(known.days(), (&name, &place), &asked.setup, show, paper);
    let card = card.map_err(|error: Refused| wrong(refused(error)))?;
    match &asked.output {
        Some(file) => std::fs::write(file, card).map_err(|error| CliError::File(file.clone(), error)),
        None => Ok(write!(std::io::stdout(), "{card}")?),
    }
}
