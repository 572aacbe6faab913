//! What is done now and then: the bin is emptied, old revisions thin out and are compressed.

use crate::Store;
use crate::content::{is_packed, pack};
use crate::documents::now;
use crate::error::StoreError;
use crate::thinning::{DAY_MS, thin_out_now};

/// So long a job stays in the bin, in days.
pub const BIN_DAYS: i64 = 60;
/// So many revisions are compressed in one act, so that nobody waits long for the writer.
const AT_ONCE: i64 = 200;
/// A document with fewer revisions that are older than a day is left as it is.
const WORTH_IT: i64 = 24;

impl Store {
    /// Empties the bin of what has lain in it for [`BIN_DAYS`], thins out and compresses what is old.
    ///
    /// # Errors
    /// A full disk, or the database's.
    pub async fn upkeep(&self) -> Result<(), StoreError> {
        self.empty_bin(now() - BIN_DAYS * DAY_MS).await?;
        self.sweep_frames(now() - BIN_DAYS * DAY_MS).await?;
        let before = now() - DAY_MS;
        let long = sqlx::query_scalar!(
            "SELECT document_id FROM revisions WHERE saved_at < ? GROUP BY document_id HAVING COUNT(*) > ?",
            before,
            WORTH_IT
        )
        .fetch_all(&self.connections.readers)
        .await?;
        for id in long {
            let mut work = self.connections.writing().await?;
            thin_out_now(&mut work, &id, now()).await?;
            work.commit().await?;
        }
        while self.compress_some().await? {}
        Ok(())
    }

    /// Removes for ever what was put into the bin before an instant.
    async fn empty_bin(&self, before: i64) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!("DELETE FROM words WHERE rowid IN (SELECT row FROM documents WHERE binned_at < ?)", before)
            .execute(&mut *work)
            .await?;
        sqlx::query!("DELETE FROM documents WHERE binned_at < ?", before).execute(&mut *work).await?;
        work.commit().await
    }

    /// Compresses some of what Tolvas of before wrote as text; false where nothing is left.
    async fn compress_some(&self) -> Result<bool, StoreError> {
        let mut work = self.connections.writing().await?;
        let rows = sqlx::query!(
            r#"SELECT document_id, number, content FROM revisions
               WHERE length(content) > 512 AND substr(content, 1, 1) = x'7b' LIMIT ?"#,
            AT_ONCE
        )
        .fetch_all(&mut *work)
        .await?;
        let mut any = false;
        for row in rows {
            let Ok(text) = std::str::from_utf8(&row.content) else { continue };
            let packed = pack(text);
            any |= is_packed(&packed);
            sqlx::query!(
                "UPDATE revisions SET content = ? WHERE document_id = ? AND number = ?",
                packed,
                row.document_id,
                row.number
            )
            .execute(&mut *work)
            .await?;
        }
        work.commit().await?;
        Ok(any)
    }
}
