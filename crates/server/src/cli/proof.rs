//! The proof of a setup as a file.

use std::path::{Path, PathBuf};

use clap::Args;
use tolva_core::proof::{Fineness, Size, Work};
use tolva_format::Problems;
use tolva_pictures::{jpeg, png};
use tolva_planner::proof::Moves;
use tolva_planner::setup::{Kit, Setup};
use tolva_wording::{Show, proof_of};

use super::error::CliError;
use super::of_files::read_job;
use crate::edge::{known, refused};
use crate::proofs::taken;

/// What to write.
#[derive(Debug, Args)]
pub struct ProofFile {
    /// The job file; `-` for standard input.
    file: PathBuf,
    /// The setup with this id.
    #[arg(long, value_name = "ID")]
    setup: String,
    /// Where to write it: what ends in .jpg is JPEG, everything else PNG.
    #[arg(short, long, value_name = "FILE")]
    out: PathBuf,
    /// The longer side of the picture, in pixels.
    #[arg(long, default_value_t = 1280, value_parser = clap::value_parser!(u32).range(32..=4096))]
    longest: u32,
}

/// One setup of a job file, with the kit.
pub(super) fn setup_of(file: &Path, id: &str) -> Result<(Setup, Kit), CliError> {
    let job = read_job(file)?;
    let setup = job.setups.iter().find(|setup| setup.id == id).cloned();
    let wrong = |problems: Problems| CliError::Job(file.to_owned(), problems);
    let setup = setup.ok_or_else(|| {
        let ids: Vec<&str> = job.setups.iter().map(|setup| setup.id.as_str()).collect();
        wrong(Problems::one("/setups", format!("there is no setup “{id}”: there are {}", ids.join(", "))))
    })?;
    known(setup, job.kit).map_err(wrong)
}

/// Renders it and writes it.
pub fn write_proof(asked: &ProofFile) -> Result<(), CliError> {
    let (setup, kit) = setup_of(&asked.file, &asked.setup)?;
    let wrong = |problems: Problems| CliError::Job(asked.file.clone(), problems);
    let (proof, report) = proof_of(&setup, &kit, Show::default()).map_err(refused).map_err(wrong)?;
    let size = Size::of_frame(asked.longest, proof.proportion);
    // Nobody stops it here.
    let Some(layers) = proof.layers(size, Fineness::Fine, &Work::default()) else { return Ok(()) };
    let picture = layers.developed(size, &proof.weights, &Moves::default());
    let ending = asked.out.extension().map(std::ffi::OsStr::to_ascii_lowercase);
    let bytes = if ending.is_some_and(|ending| ending == "jpg" || ending == "jpeg") {
        jpeg(&picture, 95, Some((&taken(&proof, &setup), &format!("{} {}", report.caption, report.settings))))
    } else {
        png(&picture)
    };
    let bytes = bytes.map_err(|error| CliError::File(asked.out.clone(), std::io::Error::other(error)))?;
    std::fs::write(&asked.out, bytes).map_err(|error| CliError::File(asked.out.clone(), error))
}
