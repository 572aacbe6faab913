//! What can go wrong with a data file.

use std::path::PathBuf;

use thiserror::Error;
use tolva_format::Problems;

use crate::saved::Stale;

/// Whether a file could not be written since its disk takes nothing more.
pub fn no_room(error: &std::io::Error) -> bool {
    use std::io::ErrorKind::{QuotaExceeded, ReadOnlyFilesystem, StorageFull};
    matches!(error.kind(), StorageFull | QuotaExceeded | ReadOnlyFilesystem)
}

/// Why the store did not do what it was asked.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No job has this id.
    #[error("there is no job {0}")]
    NoSuchJob(String),
    /// No frame has this id.
    #[error("there is no frame {0}")]
    NoSuchFrame(String),
    /// A job has as many frames as it can have.
    #[error("a job has {0} frames at most: empty some of them into the bin")]
    TooManyFrames(i64),
    /// A picture could not be kept.
    #[error("the picture could not be written to {}: {_1}", _0.display())]
    Picture(PathBuf, std::io::Error),
    /// The job has no such revision.
    #[error("there is no revision {0} of this job: it may have been thinned out")]
    NoSuchRevision(i64),
    /// No backup has this name.
    #[error("there is no backup {0}")]
    NoSuchBackup(String),
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
    /// Something else was sent under the same key before.
    #[error("something else was sent under this idempotency key before: nothing was changed")]
    KeyUsed,
    /// Who may only tick changed something else.
    #[error("this device may tick and note, and change nothing else")]
    TicksOnly,
    /// There is nothing to undo or redo.
    #[error("there is nothing to {0}")]
    NothingTo(&'static str),
    /// What was to be saved is not good.
    #[error("{0}")]
    Wrong(Problems),
    /// A stored document is not readable by this version.
    #[error("what stands in the data file for it ({job}) cannot be read: {problem}")]
    Unreadable {
        /// The job.
        job: String,
        /// What is wrong with it.
        problem: String,
    },
    /// The disk is full, or takes no more writing; nothing was changed.
    #[error("the disk is full or cannot be written to: nothing was saved, and nothing that was saved before is lost")]
    DiskFull,
    /// Another program holds the file.
    #[error("the data file is locked by another program, such as another Tolva or a backup: try again in a moment")]
    Locked,
    /// The file was opened for reading.
    #[error("the data file was opened for reading only: nothing can be saved to it")]
    ReadOnly,
    /// The file is damaged.
    #[error("the data file is damaged: {0}")]
    Damaged(String),
    /// The tables could not be brought up to date.
    #[error("the data file cannot be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
    /// Anything else the database says.
    #[error("the data file: {0}")]
    Database(sqlx::Error),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        let code = error.as_database_error().and_then(|error| error.code()?.parse::<u32>().ok());
        // SQLite's extended result codes; the last eight bits are the kind (https://sqlite.org/rescode.html).
        match code {
            // FULL, and the IOERRs of writing, synchronising, truncating and sharing memory.
            Some(13 | 778 | 1034 | 1546 | 4874 | 5386) => Self::DiskFull,
            Some(code) if matches!(code & 255, 5 | 6) => Self::Locked,
            Some(code) if code & 255 == 8 => Self::ReadOnly,
            Some(code) if matches!(code & 255, 11 | 26) => Self::Damaged(error.to_string()),
            _ => Self::Database(error),
        }
    }
}

impl From<std::io::Error> for StoreError {
    fn from(error: std::io::Error) -> Self {
        sqlx::Error::Io(error).into()
    }
}

impl From<NotOpened> for StoreError {
    fn from(why: NotOpened) -> Self {
        match why {
            NotOpened::Store(error) => error,
            other => Self::Damaged(other.to_string()),
        }
    }
}

/// Why a data file was not opened.
#[derive(Debug, Error)]
#[error("{}: {why}", file.display())]
pub struct OpenError {
    /// The file.
    pub file: PathBuf,
    /// What is the matter.
    pub why: NotOpened,
}

/// What is the matter with a file that was not opened.
#[derive(Debug, Error)]
pub enum NotOpened {
    /// The system does not let it be read or made.
    #[error("{0}")]
    Io(#[from] std::io::Error),
    /// No SQLite file, or another program's.
    #[error("this is not a data file of Tolva: nothing was written to it. Name another with --data FILE")]
    NotTolva,
    /// There is none.
    #[error("there is no such data file: name one that is there with --data FILE")]
    NotThere,
    /// There is nothing in it.
    #[error("there is nothing in it: it is no copy of a data file")]
    Empty,
    /// It is a folder, a pipe or a device.
    #[error("this is no file")]
    NoFile,
    /// A newer Tolva has written it.
    #[error("this data file was made by a newer Tolva: open it with that one. Nothing was written to it")]
    Newer,
    /// It is damaged.
    #[error(
        "this data file is damaged ({0}). Nothing was written to it. Move it somewhere else, and `tolva restore BACKUP` \
         reads a backup into a new one: those of the last days stand in the folder “backups” beside it"
    )]
    Damaged(String),
    /// It must be brought up to date, and cannot be written.
    #[error("this data file was made by an older Tolva and cannot be written to: it can only be opened where it can")]
    OlderAndReadOnly,
    /// Anything else.
    #[error("{0}")]
    Store(StoreError),
}

impl From<StoreError> for NotOpened {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::Damaged(how) => Self::Damaged(how),
            other => Self::Store(other),
        }
    }
}

impl From<sqlx::Error> for NotOpened {
    fn from(error: sqlx::Error) -> Self {
        StoreError::from(error).into()
    }
}
