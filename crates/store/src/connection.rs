//! One writer with a queue, and readers of their own, which a write-ahead log lets read meanwhile.
//!
//! A connection on which anything went wrong is closed and never handed on: closing it takes back what was begun, for
//! certain, whatever state a full disk or a lock has left it in.

use std::ops::{Deref, DerefMut};
use std::sync::Arc;
use std::time::Duration;

use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use sqlx::{ConnectOptions as _, SqliteConnection, SqlitePool};
use tokio::sync::{Mutex, OwnedMutexGuard};

use crate::error::StoreError;

/// How long another program's lock is waited for.
const PATIENCE: Duration = Duration::from_millis(1500);
/// So many read at once.
const READERS: u32 = 4;

/// The connections to one data file.
#[derive(Clone, Debug)]
pub(crate) struct Connections {
    options: SqliteConnectOptions,
    writer: Option<Arc<Mutex<Option<SqliteConnection>>>>,
    pub readers: SqlitePool,
}

/// An act: a transaction that holds the file's write lock from its start, so that two savers never both see the same
/// head. What is not committed is taken back.
pub(crate) struct Writing {
    connection: SqliteConnection,
    slot: OwnedMutexGuard<Option<SqliteConnection>>,
}

/// How a data file is written: what was acknowledged is on the disk.
pub(crate) fn to_write(options: SqliteConnectOptions) -> SqliteConnectOptions {
    options
        .journal_mode(SqliteJournalMode::Wal)
        .synchronous(SqliteSynchronous::Full)
        .foreign_keys(true)
        .busy_timeout(PATIENCE)
}

impl Connections {
    /// To a file that is there and up to date. Without a writer nothing can be saved.
    pub async fn new(options: SqliteConnectOptions, read_only: bool) -> Result<Self, StoreError> {
        let reading = options.clone().read_only(true).create_if_missing(false).busy_timeout(PATIENCE);
        let writer = if read_only {
            None
        } else {
            // The writer opens first: the readers lean on the files it makes.
            let writer = to_write(options.clone()).connect().await?;
            Some(Arc::new(Mutex::new(Some(writer))))
        };
        let readers = SqlitePoolOptions::new().max_connections(READERS).connect_with(reading).await?;
        Ok(Self { options: to_write(options), writer, readers })
    }

    pub fn read_only(&self) -> bool {
        self.writer.is_none()
    }

    /// Begins an act when those before it are done: first come, first served.
    pub async fn writing(&self) -> Result<Writing, StoreError> {
        let (connection, slot) = self.writer().await?;
        let mut writing = Writing { connection, slot };
        sqlx::query("BEGIN IMMEDIATE").execute(&mut *writing).await?;
        Ok(writing)
    }

    /// The writer by itself, for what cannot be done in a transaction.
    pub async fn writer(&self) -> Result<(SqliteConnection, OwnedMutexGuard<Option<SqliteConnection>>), StoreError> {
        let writer = self.writer.clone().ok_or(StoreError::ReadOnly)?;
        let mut slot = writer.lock_owned().await;
        // Taken out for as long as it is used: whatever goes wrong, or whoever goes away, it does not come back.
        let connection = match slot.take() {
            Some(connection) => connection,
            None => self.options.connect().await?,
        };
        Ok((connection, slot))
    }

    /// Writes otherwise from the next connection on.
    #[cfg(test)]
    pub fn reopen_with(&mut self, file: &std::path::Path, options: SqliteConnectOptions) {
        self.options = to_write(options.filename(file));
    }

    pub async fn close(self) {
        self.readers.close().await;
        if let Some(writer) = self.writer
            && let Some(connection) = writer.lock().await.take()
        {
            // What was committed is on the disk, whether closing goes well or not.
            let _ = sqlx::Connection::close(connection).await;
        }
    }
}

impl Writing {
    /// Makes it so, and lets the next one write.
    pub async fn commit(self) -> Result<(), StoreError> {
        let Self { mut connection, mut slot } = self;
        sqlx::query("COMMIT").execute(&mut connection).await?;
        *slot = Some(connection);
        Ok(())
    }
}

impl Deref for Writing {
    type Target = SqliteConnection;

    fn deref(&self) -> &SqliteConnection {
        &self.connection
    }
}

impl DerefMut for Writing {
    fn deref_mut(&mut self) -> &mut SqliteConnection {
        &mut self.connection
    }
}
