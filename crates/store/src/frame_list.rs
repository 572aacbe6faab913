//! Lists of frames: read from what was written down of each for them, a page at a time.

use tolva_format::{FrameAsTaken, FrameSummary};

use crate::Store;
use crate::error::StoreError;
use crate::frames::Row;

/// Which frames of a job are listed.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct FrameListing {
    /// Of this setup only.
    pub setup_id: Option<String>,
    /// Those in the bin instead.
    pub binned: bool,
    /// Only what came before this, which is what a page gave as `earlier`.
    pub before: Option<i64>,
    /// How many at most; all of them where nothing is said.
    pub limit: Option<u32>,
}

/// The frames there are of a job.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FramesFound {
    /// In the order they came: the last ones before where the page begins.
    pub frames: Vec<FrameSummary>,
    /// Those of the same page that cannot be read.
    pub unreadable: Vec<UnreadableFrame>,
    /// Where the page before this one goes on; nothing where it begins with the first.
    pub earlier: Option<i64>,
    /// How many there are on all pages.
    pub total: i64,
}

/// A frame that cannot be read.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct UnreadableFrame {
    /// Its id.
    pub id: String,
    /// Why.
    pub says: String,
}

/// So many rows are filled in one act, so that nobody waits long for the writer.
const AT_ONCE: i64 = 200;

struct Listed {
    row: i64,
    id: String,
    summary: String,
    /// Where nothing was written down for lists.
    content: Option<Vec<u8>>,
}

impl Listed {
    fn read(self) -> Result<FrameSummary, UnreadableFrame> {
        if let Ok(summary) = serde_json::from_str(&self.summary) {
            return Ok(summary);
        }
        let whole = Row {
            id: self.id.clone(),
            job_id: String::new(),
            binned_at: None,
            content: self.content.unwrap_or_default(),
        };
        match whole.kept() {
            Ok(kept) => Ok(kept.frame.summary()),
            Err(error) => Err(UnreadableFrame { id: self.id, says: error.to_string() }),
        }
    }
}

impl Store {
    /// The frames of a job as lists show them. One that cannot be read leaves the others; it is listed as such.
    ///
    /// # Errors
    /// The database's.
    pub async fn frame_list(&self, job_id: &str, which: &FrameListing) -> Result<FramesFound, StoreError> {
        let FrameListing { setup_id, binned, before, limit } = which;
        let most = limit.map_or(i64::MAX, i64::from);
        // One more than asked for tells whether there is an earlier page.
        let asked = most.saturating_add(1);
        let mut rows = sqlx::query_as!(
            Listed,
            r#"SELECT row AS "row!", id, summary, CASE WHEN summary = '' THEN content END AS "content: Vec<u8>" FROM frames
               WHERE job_id = ?1 AND (?2 IS NULL OR setup_id = ?2) AND (binned_at IS NOT NULL) = ?3
                 AND (?4 IS NULL OR row < ?4) ORDER BY row DESC LIMIT ?5"#,
            job_id,
            setup_id,
            binned,
            before,
            asked
        )
        .fetch_all(&self.connections.readers)
        .await?;
        let total = sqlx::query_scalar!(
            "SELECT COUNT(*) FROM frames
             WHERE job_id = ?1 AND (?2 IS NULL OR setup_id = ?2) AND (binned_at IS NOT NULL) = ?3",
            job_id,
            setup_id,
            binned
        )
        .fetch_one(&self.connections.readers)
        .await?;
        let more = i64::try_from(rows.len()).unwrap_or(i64::MAX) > most;
        if more {
            rows.pop();
        }
        let earlier = rows.last().filter(|_| more).map(|row| row.row);
        // Away from the threads that talk to the network: of thousands it takes a while.
        let read = move || {
            let mut found = FramesFound { earlier, total, ..FramesFound::default() };
            for row in rows.into_iter().rev() {
                match row.read() {
                    Ok(summary) => found.frames.push(summary),
                    Err(unreadable) => found.unreadable.push(unreadable),
                }
            }
            found
        };
        tokio::task::spawn_blocking(read).await.map_err(|error| std::io::Error::other(error).into())
    }

    /// How each frame of a job outside the bin was taken, or of one setup of it, in the order they came. Of thousands, too, it
    /// takes a moment only: nothing else is read.
    ///
    /// # Errors
    /// The database's.
    pub async fn frames_as_taken(&self, job_id: &str, setup_id: Option<&str>) -> Result<Vec<FrameAsTaken>, StoreError> {
        let rows = sqlx::query!(
            r#"SELECT id, setup_id,
                      CASE WHEN summary <> '' THEN json_array(
                          summary ->> '$.shot_id', summary ->> '$.name', summary ->> '$.width', summary ->> '$.height', summary -> '$.settings'
                      ) END AS "taken: String"
               FROM frames
               WHERE job_id = ?1 AND (?2 IS NULL OR setup_id = ?2) AND binned_at IS NULL ORDER BY row"#,
            job_id,
            setup_id
        )
        .fetch_all(&self.connections.readers)
        .await?;
        let read = rows.into_iter().filter_map(|row| {
            let (shot_id, name, width, height, settings): (_, _, _, _, Option<_>) =
                serde_json::from_str(&row.taken?).ok()?;
            let settings = settings.unwrap_or_default();
            Some(FrameAsTaken { id: row.id, setup_id: row.setup_id, shot_id, name, width, height, settings })
        });
        Ok(read.collect())
    }

    /// Writes down for lists what a Tolva of before did not.
    pub(crate) async fn fill_frame_summaries(&self) -> Result<(), StoreError> {
        let mut after = 0;
        loop {
            let rows = sqlx::query_as!(
                Listed,
                r#"SELECT row AS "row!", id, summary, content AS "content: Vec<u8>" FROM frames
                   WHERE summary = '' AND row > ? ORDER BY row LIMIT ?"#,
                after,
                AT_ONCE
            )
            .fetch_all(&self.connections.readers)
            .await?;
            let Some(last) = rows.last() else { return Ok(()) };
            after = last.row;
            let mut work = self.connections.writing().await?;
            for row in rows {
                let number = row.row;
                // What cannot be read stays as it is, and is listed as such.
                if let Ok(found) = row.read() {
                    let summary = serde_json::to_string(&found).unwrap_or_default();
                    sqlx::query!("UPDATE frames SET summary = ? WHERE row = ?", summary, number)
                        .execute(&mut *work)
                        .await?;
                }
            }
            work.commit().await?;
        }
    }
}
