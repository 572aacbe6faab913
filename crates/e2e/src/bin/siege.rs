//! `cargo xtask siege`: the campaign against the server, part after part, round after round, until its time is over.

use std::process::ExitCode;
use std::time::{Duration, Instant};

use clap::Parser;
use tolva_e2e::siege::{
    Report, devices, documented, full_disk, heaviest_requests, hostile_files, kills, many_frames, many_jobs,
    many_previews, many_solves, plans_beside_previews, races, watched_folder,
};

/// The campaign against the server.
#[derive(Parser)]
struct Siege {
    /// How long, in minutes.
    #[arg(long, default_value_t = 5)]
    minutes: u64,
    /// What is drawn is drawn from this.
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// Also holds the numbers that only a release build reaches: with so many jobs.
    #[arg(long, default_value_t = 0)]
    jobs: usize,
}

/// No request takes longer, in a release build.
const SLOWEST: Duration = Duration::from_secs(2);

#[tokio::main]
async fn main() -> ExitCode {
    let Siege { minutes, seed, jobs } = Siege::parse();
    let until = Instant::now() + Duration::from_secs(minutes * 60);
    let mut held = true;
    let mut tell = |report: &Report| {
        print!("{report}");
        held &= report.faults.is_empty();
    };
    if jobs > 0 {
        tell(&many_jobs(jobs).await);
        tell(&many_solves(20_000).await);
        tell(&many_frames(2000).await);
        tell(&plans_beside_previews().await);
        tell(&many_previews().await);
    }
    tell(&heaviest_requests((jobs > 0).then_some(SLOWEST)).await);
    let mut round = seed;
    while Instant::now() < until {
        println!("seed {round}");
        tell(&kills(round, 25).await);
        tell(&races(16, 10).await);
        match full_disk(round, 2).await {
            Some(report) => tell(&report),
            None => println!("full disk: not tried, since this machine lets no small file system be mounted"),
        }
        tell(&hostile_files(round, 60).await);
        tell(&watched_folder(round).await);
        tell(&devices(round, 300).await);
        tell(&documented(round, 1000, (jobs > 0).then_some(SLOWEST)).await);
        round += 1;
    }
    if held { ExitCode::SUCCESS } else { ExitCode::FAILURE }
}
