//! The demo data: job files in the open format, loaded through the ordinary reading of a job.

use tolva_format::Job;
use tolva_store::{Store, StoreError};

/// The job files, the one that is opened first last, since the newest stands on top.
const JOBS: [&str; 4] = [
    include_str!("../../../demo/bindery-evening.json"),
    include_str!("../../../demo/foundry-band.json"),
    include_str!("../../../demo/harvest-supper.json"),
    include_str!("../../../demo/ropeworks-open-day.json"),
];

/// Loads the demo data.
pub async fn fill(store: &Store) -> Result<(), StoreError> {
    for text in JOBS {
        let job = Job::from_json(text.as_bytes())
            .map_err(|problems| StoreError::Unreadable { job: "demo".to_owned(), problem: problems.to_string() })?;
        store.add(&job, "Demo data").await?;
    }
    Ok(())
}
