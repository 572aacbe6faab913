//! The log of a job: what was done, line by line. It is kept apart from the revisions, which thin out.

use sqlx::SqliteConnection;
use tolva_format::{Deed, Job};
use uuid::Uuid;

use crate::Store;
use crate::documents::{Sent, done, done_before, head, now, rfc3339};
use crate::error::StoreError;

/// So many lines of a job are kept: a few weeks of hard work. The oldest go first.
const MOST_LINES: i64 = 20_000;

/// A line of a job's log.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LogLine {
    /// Its number: later lines have higher ones.
    pub number: i64,
    /// When (RFC 3339).
    pub at: String,
    /// Which device; empty for the machine Tolva runs on.
    pub who: String,
    /// What kind of deed, as its code.
    pub kind: String,
    /// The setup it is about.
    pub setup_id: Option<String>,
    /// What was done, in words.
    pub says: String,
}

/// Writes a line down, in whatever act it belongs to.
pub(crate) async fn write_down(
    work: &mut SqliteConnection,
    job_id: &str,
    who: &str,
    (deed, says): (&Deed, &str),
) -> Result<(), StoreError> {
    let (at, kind) = (now(), deed.kind.code());
    let row = sqlx::query_scalar!(
        r#"INSERT INTO log (job_id, at, who, kind, setup_id, says) VALUES (?, ?, ?, ?, ?, ?) RETURNING row AS "row!: i64""#,
        job_id,
        at,
        who,
        kind,
        deed.setup_id,
        says
    )
    .fetch_one(&mut *work)
    .await?;
    // Looked at now and then only: counting is no work for every tick.
    if row % 256 == 0 {
        sqlx::query!(
            "DELETE FROM log WHERE job_id = ?1 AND row <= (SELECT row FROM log WHERE job_id = ?1 ORDER BY row DESC LIMIT 1 OFFSET ?2)",
            job_id,
            MOST_LINES
        )
        .execute(work)
        .await?;
    }
    Ok(())
}

impl Store {
    /// The lines of a job's log, the oldest first.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn log(&self, job_id: &str) -> Result<Vec<LogLine>, StoreError> {
        let mut work = self.connections.readers.begin().await?;
        head::<Job>(&mut work, job_id).await?;
        let rows = sqlx::query!(
            r#"SELECT row AS "number!: i64", at, who, kind, setup_id, says FROM log WHERE job_id = ? ORDER BY row"#,
            job_id
        )
        .fetch_all(&mut *work)
        .await?;
        let line = |row: (i64, i64, String, String, Option<String>, String)| LogLine {
            number: row.0,
            at: rfc3339(row.1),
            who: row.2,
            kind: row.3,
            setup_id: row.4,
            says: row.5,
        };
        Ok(rows.into_iter().map(|row| line((row.number, row.at, row.who, row.kind, row.setup_id, row.says))).collect())
    }

    /// Writes a line down by itself: a note, or something that changed no document. Sent again under its key it is the same
    /// line.
    ///
    /// # Errors
    /// No such job, a full disk, or the database's.
    pub async fn note(
        &self,
        job_id: &str,
        who: &str,
        (deed, says): (&Deed, &str),
        key: Option<&str>,
    ) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        head::<Job>(&mut work, job_id).await?;
        // Without a key every note is one by itself.
        let own = Uuid::new_v4().to_string();
        let key = key.unwrap_or(&own);
        let sent = Sent::of(Some(key), says);
        if done_before(&mut work, &sent, job_id).await? {
            return Ok(());
        }
        write_down(&mut work, job_id, who, (deed, says)).await?;
        done(&mut work, &sent, job_id).await?;
        work.commit().await
    }
}
