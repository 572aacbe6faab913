//! What can go wrong with a data file.

use thiserror::Error;

use crate::saved::Stale;

/// Why the store did not do what it was asked.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No job has this id.
    #[error("there is no job {0}")]
    NoSuchJob(String),
    /// The job was changed since the revision this was based on.
    #[error("the job was changed elsewhere: it is at revision {}, not {}", .0.now.revision, .0.based_on)]
    Stale(Box<Stale>),
    /// The kit was changed since the revision this was based on.
    #[error("the kit was changed elsewhere: it is at revision {now}, not {based_on}")]
    KitStale {
        /// The revision the save was based on.
        based_on: i64,
        /// The revision that is there.
        now: i64,
    },
    /// There is nothing to undo or redo.
    #[error("there is nothing to {0}")]
    NothingTo(&'static str),
    /// A stored document is not readable by this version.
    #[error("the stored document of job {job} cannot be read: {problem}")]
    Unreadable {
        /// The job.
        job: String,
        /// What is wrong with it.
        problem: String,
    },
    /// The disk is full; nothing was changed.
    #[error("the disk is full: nothing was saved, and nothing that was saved before is lost")]
    DiskFull,
    /// The tables could not be brought up to date.
    #[error("the data file cannot be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
    /// Anything else the database says.
    #[error("the data file: {0}")]
    Database(sqlx::Error),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        // SQLITE_FULL is 13; its text is the same on every platform.
        let full = error.as_database_error().is_some_and(|e| e.code().as_deref() == Some("13"));
        if full { Self::DiskFull } else { Self::Database(error) }
    }
}
