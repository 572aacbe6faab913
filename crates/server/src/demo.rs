//! The demo data: job files in the open format, loaded through the ordinary reading of a job.

use std::path::Path;

use thiserror::Error;
use tolva_format::{Job, Kit, Problems};
use tolva_store::{OpenError, Store, StoreError};

/// The job files, the one that is opened first last, since the newest stands on top.
const JOBS: [&str; 6] = [
    include_str!("../../../demo/weir-lane.json"),
    include_str!("../../../demo/guild-days.json"),
    include_str!("../../../demo/bindery-evening.json"),
    include_str!("../../../demo/foundry-band.json"),
    include_str!("../../../demo/harvest-supper.json"),
    include_str!("../../../demo/ropeworks-open-day.json"),
];

/// Why there is no demo data.
#[derive(Debug, Error)]
pub enum NoDemo {
    #[error("the demo data: {0}")]
    Wrong(#[from] Problems),
    #[error(transparent)]
    Open(#[from] OpenError),
    #[error(transparent)]
    Store(#[from] StoreError),
}

/// A data file with the demo data, and the kit its jobs use.
pub async fn open(file: &Path) -> Result<Store, NoDemo> {
    let jobs: Vec<Job> = JOBS.iter().map(|text| Job::from_json(text.as_bytes())).collect::<Result<_, _>>()?;
    let kit = jobs.iter().rev().fold(Kit::default(), |kit, job| kit.with(&job.kit)).with(&Kit::starter());
    let store = Store::open_with_kit(file, kit).await?;
    store.add_all(&jobs, "Demo data").await?;
    Ok(store)
}
