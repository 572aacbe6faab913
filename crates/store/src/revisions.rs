//! The revisions of a job: stepping along them, going back to one, and keeping one under a name.

use sqlx::SqliteConnection;
use tolva_format::{Deed, DeedKind, Job, OwnedKit};

use crate::Store;
use crate::documents::{Head, Sent, done, done_before, head, move_head, read, rfc3339, step, summarise};
use crate::error::StoreError;
use crate::kit::owned;
use crate::log::write_down;
use crate::saved::{Act, SavedJob, Stale};

/// A revision of a job.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Revision {
    /// Its number.
    pub number: i64,
    /// When it was saved (RFC 3339).
    pub saved_at: String,
    /// What was done, in words.
    pub change: String,
    /// Its name, where it has one; it is then kept for ever.
    pub point: Option<String>,
    /// Whether it is the one that is shown.
    pub shown: bool,
}

impl Store {
    /// Goes back to the revision before, or forward again to the newest made from this one.
    ///
    /// # Errors
    /// [`StoreError::NothingTo`] at the first revision or where nothing was undone; otherwise as [`Store::save`].
    pub async fn step(&self, id: &str, act: &Act<'_>, back: bool) -> Result<SavedJob, StoreError> {
        let kind = if back { DeedKind::Undone } else { DeedKind::Redone };
        self.show(id, act, kind, async |work, head| step(work, id, head, back).await).await
    }

    /// Goes back to one of its revisions, such as the last that can be read; none is lost.
    ///
    /// # Errors
    /// [`StoreError::NoSuchRevision`]; otherwise as [`Store::save`].
    pub async fn set_back(&self, id: &str, act: &Act<'_>, to: i64) -> Result<SavedJob, StoreError> {
        self.show(id, act, DeedKind::SetBack, async |work, _| {
            let there =
                sqlx::query_scalar!("SELECT number FROM revisions WHERE document_id = ? AND number = ?", id, to)
                    .fetch_optional(work)
                    .await?;
            there.ok_or(StoreError::NoSuchRevision(to))
        })
        .await
    }

    /// Shows another revision.
    async fn show(
        &self,
        id: &str,
        act: &Act<'_>,
        kind: DeedKind,
        to: impl AsyncFnOnce(&mut SqliteConnection, &Head) -> Result<i64, StoreError>,
    ) -> Result<SavedJob, StoreError> {
        let mut work = self.connections.writing().await?;
        let owned = owned(&mut work).await?;
        let sent = Sent::of(act.key, &format!("{kind:?} of {}", act.based_on));
        if done_before(&mut work, &sent, id).await? {
            return read(&mut work, id, &owned).await;
        }
        let head = head::<Job>(&mut work, id).await?;
        if head.revision != act.based_on {
            return Err(stale(&mut work, id, act.based_on, &owned, None).await?);
        }
        let before = head.change.clone();
        let to = to(&mut work, &head).await?;
        move_head(&mut work, id, to).await?;
        // Undo names what it took back; what comes again names itself.
        let says = match kind {
            DeedKind::Undone => before,
            _ => {
                sqlx::query_scalar!("SELECT change FROM revisions WHERE document_id = ? AND number = ?", id, to)
                    .fetch_one(&mut *work)
                    .await?
            }
        };
        write_down(&mut work, id, act.who, (&Deed::of_job(kind), &says)).await?;
        done(&mut work, &sent, id).await?;
        let saved = read::<Job>(&mut work, id, &owned).await?;
        summarise(&mut work, id, &saved.document, &owned).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// The revisions of a job, the newest first.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn revisions(&self, id: &str) -> Result<Vec<Revision>, StoreError> {
        let mut work = self.connections.readers.begin().await?;
        let head = head::<Job>(&mut work, id).await?.revision;
        let rows = sqlx::query!(
            "SELECT number, saved_at, change, point FROM revisions WHERE document_id = ? ORDER BY number DESC",
            id
        )
        .fetch_all(&mut *work)
        .await?;
        let revision = |row: (i64, i64, String, Option<String>)| Revision {
            number: row.0,
            saved_at: rfc3339(row.1),
            change: row.2,
            point: row.3,
            shown: row.0 == head,
        };
        Ok(rows.into_iter().map(|row| revision((row.number, row.saved_at, row.change, row.point))).collect())
    }

    /// Gives a revision a name, with which it is kept for ever; with none, it may thin out again.
    ///
    /// # Errors
    /// [`StoreError::NoSuchRevision`], or the database's.
    pub async fn name_point(&self, id: &str, number: i64, name: Option<&str>) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        head::<Job>(&mut work, id).await?;
        let done =
            sqlx::query!("UPDATE revisions SET point = ? WHERE document_id = ? AND number = ?", name, id, number)
                .execute(&mut *work)
                .await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::NoSuchRevision(number));
        }
        work.commit().await
    }
}

/// What is there now, for whoever edited another revision.
pub(crate) async fn stale(
    work: &mut SqliteConnection,
    id: &str,
    based_on: i64,
    owned: &OwnedKit,
    yours: Option<Job>,
) -> Result<StoreError, StoreError> {
    let now = read(work, id, owned).await?;
    Ok(StoreError::Stale(Box::new(Stale { based_on, now, yours })))
}
