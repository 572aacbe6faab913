//! The campaign against the server: killed at any moment, raced, its disk filled, sent whatever nobody should send, asked by devices that may not. Each
//! part is drawn from a seed and counts what it did and what did not hold.

mod client;
mod devices;
mod documented;
mod files;
mod full_disk;
mod heaviest;
mod kills;
mod many;
mod memory;
mod previews;
mod races;
mod requests;
mod watched;

pub use devices::devices;
pub use documented::documented;
pub use files::hostile_files;
pub use full_disk::full_disk;
pub use heaviest::heaviest_requests;
pub use kills::kills;
pub use many::{many_frames, many_jobs, many_solves};
pub use previews::{many_previews, plans_beside_previews};
pub use races::races;
pub use watched::watched_folder;

use std::fmt;

/// What a part of the campaign did, and what did not hold.
#[derive(Debug, Default)]
pub struct Report {
    /// What was done, with counts.
    pub done: String,
    /// What did not hold; empty where all did.
    pub faults: Vec<String>,
}

impl Report {
    fn of(done: impl Into<String>, faults: Vec<String>) -> Self {
        Self { done: done.into(), faults }
    }
}

impl fmt::Display for Report {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        writeln!(f, "{}: {}", self.done, if self.faults.is_empty() { "all held" } else { "NOT ALL HELD" })?;
        // The first say enough: the rest is most often the same.
        self.faults.iter().take(10).try_for_each(|fault| writeln!(f, "  {fault}"))
    }
}
