//! `tolva`: the web application and its command line.

mod api;
mod assets;
mod class;
mod cli;
mod data_file;
mod day_files;
mod demo;
mod edge;
mod frames;
mod gone;
mod guard;
mod live;
mod phones;
mod policy;
mod practised;
mod proofs;
mod record;
mod rights;
mod serve;
mod table;
mod timetable;

use std::process::ExitCode;

use clap::Parser as _;

/// A plan is some thousand short-lived strings.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

#[actix_web::main]
async fn main() -> ExitCode {
    match cli::run(cli::Tolva::parse()).await {
        Ok(()) => ExitCode::SUCCESS,
        Err(problem) => {
            eprintln!("tolva: {problem}");
            ExitCode::FAILURE
        }
    }
}
