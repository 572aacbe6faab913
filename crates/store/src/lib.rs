//! Where jobs are kept: one SQLite file, through SQLx.
//!
//! Every save is a new revision with the one it was based on; a stale save is refused with what is there now. Undo and
//! redo move the head along the revisions. Deleting goes to a bin. Whatever belongs together is one transaction, and what
//! was acknowledged is on the disk: write-ahead log, full synchronisation at each commit. Whether the disk keeps what it
//! says it has is the disk's word.

mod attempts;
mod backup;
mod beside;
mod connection;
mod content;
mod devices;
mod documents;
mod error;
mod frame_list;
mod frame_pictures;
mod frames;
mod jobs;
mod kit;
mod log;
mod opening;
mod preferences;
mod revisions;
mod saved;
#[cfg(test)]
mod tests;
mod thinning;
mod upkeep;

pub use attempts::KeptAttempt;
pub use backup::{Backup, DAYS as BACKUP_DAYS, Difference};
pub use devices::{Device, Rights};
pub use error::{NotOpened, OpenError, StoreError, no_room};
pub use frame_list::{FrameListing, FramesFound, UnreadableFrame};
pub use frame_pictures::Copied;
pub use frames::{KeptFrame, Watched, WithPictures};
pub use jobs::{JobSummary, Listing, Page, Sort};
pub use log::LogLine;
pub use revisions::Revision;
pub use saved::{Act, Saved, SavedJob, SavedKit, Stale};
pub use upkeep::BIN_DAYS;

use std::path::{Path, PathBuf};

use sqlx::sqlite::SqliteConnectOptions;
use tolva_format::Kit;

use connection::Connections;

/// An open data file.
#[derive(Clone, Debug)]
pub struct Store {
    connections: Connections,
    file: PathBuf,
    id: String,
}

impl Store {
    /// Opens a data file, makes it where there is none, and brings its tables up to date, after copying it. One that
    /// cannot be written to is opened for reading.
    ///
    /// # Errors
    /// A file that cannot be opened, is damaged or another program's, or was written by a newer Tolva.
    pub async fn open(file: &Path) -> Result<Self, OpenError> {
        Self::open_with(file, SqliteConnectOptions::new(), None).await
    }

    /// The same with a kit for a file that has none yet.
    ///
    /// # Errors
    /// As [`Store::open`].
    pub async fn open_with_kit(file: &Path, kit: Kit) -> Result<Self, OpenError> {
        Self::open_with(file, SqliteConnectOptions::new(), Some(kit)).await
    }

    async fn open_with(file: &Path, options: SqliteConnectOptions, kit: Option<Kit>) -> Result<Self, OpenError> {
        let told = |why: NotOpened| OpenError { file: file.to_owned(), why };
        let connections = opening::open(file, options).await.map_err(told)?;
        let store = Self::over(connections, file).await.map_err(|error| told(error.into()))?;
        store.begin(kit).await.map_err(|error| told(error.into()))?;
        Ok(store)
    }

    async fn begin(&self, first: Option<Kit>) -> Result<(), StoreError> {
        if self.connections.read_only() {
            return Ok(());
        }
        let mut work = self.connections.writing().await?;
        kit::begin(&mut work, first).await?;
        work.commit().await?;
        self.claim().await?;
        self.fill_frame_summaries().await?;
        self.settle_frames().await
    }

    /// Opens a data file that is there: what only reads never makes one.
    ///
    /// # Errors
    /// As [`Store::open`], and a file that is not there.
    pub async fn open_there(file: &Path) -> Result<Self, OpenError> {
        if !file.exists() {
            return Err(OpenError { file: file.to_owned(), why: NotOpened::NotThere });
        }
        Self::open(file).await
    }

    /// Whether nothing can be saved to it.
    pub fn read_only(&self) -> bool {
        self.connections.read_only()
    }

    /// The file.
    pub fn file(&self) -> &Path {
        &self.file
    }

    /// Waits for what is under way and closes the file.
    pub async fn close(self) {
        self.connections.close().await;
    }
}
