//! Why a command was not carried out, in words for whoever typed it.

use std::path::PathBuf;

use thiserror::Error;
use tolva_format::{Problem, Problems};
use tolva_store::{OpenError, StoreError};

use crate::serve::ServeError;
use crate::{data_file, demo};

/// Why a command was not carried out.
#[derive(Debug, Error)]
pub enum CliError {
    #[error("{}: {}", .0.display(), .1)]
    File(PathBuf, std::io::Error),
    #[error("{} is not a good job file:\n{}", .0.display(), list(.1))]
    Job(PathBuf, Problems),
    #[error("{}: {}", .0.display(), .1)]
    Frame(PathBuf, String),
    #[error("{0} of the files could not be read: see each one's error")]
    FramesWrong(usize),
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
    #[error("there is no skill “{0}”; there is {1}")]
    NoSuchSkill(String, String),
    #[error("no class comes of this:\n{}", list(.0))]
    Class(Problems),
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
