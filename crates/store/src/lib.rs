//! Where jobs are kept: one SQLite file, through SQLx.
//!
//! Every save is a new revision with the one it was based on; a stale save is refused with what is there now. Undo and
//! redo move the head along the revisions and lose none. Deleting goes to a bin. What was acknowledged is on the disk:
//! write-ahead log, full synchronisation at each commit.

mod error;
mod jobs;
mod preferences;
mod saved;
#[cfg(test)]
mod tests;

pub use error::StoreError;
pub use jobs::JobSummary;
pub use saved::{Saved, SavedJob, SavedKit, Stale};

use std::path::Path;
use std::time::Duration;

use sqlx::SqlitePool;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};

/// An open data file.
#[derive(Clone, Debug)]
pub struct Store {
    pool: SqlitePool,
}

impl Store {
    /// Opens a data file, makes it where there is none, and brings its tables up to date.
    ///
    /// # Errors
    /// A file that cannot be opened, is no database, or was written by a newer Tolva.
    pub async fn open(file: &Path) -> Result<Self, StoreError> {
        Self::open_with(SqliteConnectOptions::new().filename(file)).await
    }

    async fn open_with(options: SqliteConnectOptions) -> Result<Self, StoreError> {
        let options = options
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .synchronous(SqliteSynchronous::Full)
            .foreign_keys(true)
            .busy_timeout(Duration::from_secs(5));
        let pool = SqlitePoolOptions::new().max_connections(4).connect_with(options).await?;
        sqlx::migrate!().run(&pool).await?;
        Ok(Self { pool })
    }

    /// Waits for what is under way and closes the file.
    pub async fn close(self) {
        self.pool.close().await;
    }
}
