//! The kit: what a person owns, and what has retired from it. A change of the kit and what retires by it are one act.

use sqlx::SqliteConnection;
use tolva_format::{Job, Kit, KitFile, OwnedKit};

use crate::Store;
use crate::connection::Writing;
use crate::content::{pack, unpack};
use crate::documents::{
    Document as _, Head, KIT, Sent, append, done, done_before, head, insert, move_head, read, step,
};
use crate::error::StoreError;
use crate::saved::{Act, SavedKit};

/// What is owned, and what was owned before.
pub(crate) async fn owned(work: &mut SqliteConnection) -> Result<OwnedKit, StoreError> {
    let kit = kit(work).await?.document.kit;
    let retired = retired(work).await?;
    Ok(OwnedKit { kit, retired })
}

async fn kit(work: &mut SqliteConnection) -> Result<SavedKit, StoreError> {
    read(work, KIT, &OwnedKit::default()).await
}

async fn retired(work: &mut SqliteConnection) -> Result<Kit, StoreError> {
    let content = sqlx::query_scalar!("SELECT content FROM retired WHERE id = 1").fetch_optional(work).await?;
    let Some(content) = content else { return Ok(Kit::default()) };
    let unreadable =
        |problem: String| StoreError::Unreadable { job: "what has retired from the kit".to_owned(), problem };
    let json = unpack(&content).map_err(|problem| unreadable(problem.to_string()))?;
    Ok(KitFile::stored(&json).map_err(|problems| unreadable(problems.to_string()))?.kit)
}

/// Keeps each thing that is no longer in the kit as it was, for the jobs that refer to it.
async fn retire(work: &mut SqliteConnection, before: &Kit, now: &Kit) -> Result<(), StoreError> {
    let gone = before.beyond(now);
    if gone.count() == 0 {
        return Ok(());
    }
    let all = KitFile::new(retired(work).await?.updated_by(&gone));
    let content = pack(&serde_json::to_string(&all).unwrap_or_default());
    sqlx::query!(
        "INSERT INTO retired (id, content) VALUES (1, ?) ON CONFLICT (id) DO UPDATE SET content = excluded.content",
        content
    )
    .execute(work)
    .await?;
    Ok(())
}

/// Makes sure that there is a kit. Where nobody has one yet: what the jobs there brought along, the newest first, and
/// the generic one after it, as far as there is room.
pub(crate) async fn begin(work: &mut SqliteConnection, first: Option<Kit>) -> Result<(), StoreError> {
    if !matches!(head::<KitFile>(work, KIT).await, Err(StoreError::NoSuchJob(_))) {
        return Ok(());
    }
    let kit = match first {
        Some(kit) => kit,
        None => of_the_jobs(work).await?,
    };
    insert(work, KIT, (&KitFile::new(kit), &OwnedKit::default()), "Generic kit").await
}

async fn of_the_jobs(work: &mut SqliteConnection) -> Result<Kit, StoreError> {
    let rows = sqlx::query!(
        "SELECT d.id, r.content FROM documents d JOIN revisions r ON r.document_id = d.id AND r.number = d.head
         WHERE d.kind = 'job' AND d.binned_at IS NULL ORDER BY d.saved_at DESC, d.row DESC"
    )
    .fetch_all(work)
    .await?;
    let mut all = Kit::default();
    for row in rows {
        // A job that cannot be read brings nothing along; it is told where it is asked for.
        if let Some(job) = unpack(&row.content).ok().and_then(|json| Job::stored(&json).ok()) {
            all = all.with(&job.kit);
        }
    }
    Ok(all.with(&Kit::starter()).as_far_as_owned())
}

impl Store {
    /// The kit.
    ///
    /// # Errors
    /// The database's.
    pub async fn kit(&self) -> Result<SavedKit, StoreError> {
        kit(&mut *self.connections.readers.begin().await?).await
    }

    /// What is owned, and what was owned before.
    ///
    /// # Errors
    /// The database's.
    pub async fn owned(&self) -> Result<OwnedKit, StoreError> {
        owned(&mut *self.connections.readers.begin().await?).await
    }

    /// Saves the kit as a new revision: as [`Store::save`].
    ///
    /// # Errors
    /// [`StoreError::KitStale`], a kit that is not good, a full disk, or the database's.
    pub async fn save_kit(&self, act: &Act<'_>, kit: &Kit) -> Result<SavedKit, StoreError> {
        self.change_kit(act, kit, |_| kit.clone()).await
    }

    /// Puts the things of another kit into this one: what has the same id is replaced, what has not is added.
    ///
    /// # Errors
    /// As [`Store::save_kit`].
    pub async fn add_to_kit(&self, act: &Act<'_>, things: &Kit) -> Result<SavedKit, StoreError> {
        self.change_kit(act, things, |before| before.updated_by(things)).await
    }

    async fn change_kit(
        &self,
        act: &Act<'_>,
        sent: &Kit,
        changed: impl FnOnce(&Kit) -> Kit,
    ) -> Result<SavedKit, StoreError> {
        let sent = Sent::of(act.key, &KitFile::new(sent.clone()).written());
        let Some((mut work, before, head)) = self.kit_at(&sent).await? else { return self.kit().await };
        let file = KitFile::new(changed(&before.document.kit));
        file.kit.check().map_err(StoreError::Wrong)?;
        // Sent again since the answer was lost: made from the same revision, by the same change, with the same content.
        let again = head.parent == Some(act.based_on) && head.change == act.change && before.document == file;
        if again {
            return Ok(before);
        }
        current(&head, act)?;
        append(&mut work, KIT, &head, (&file, &OwnedKit::default()), act.change).await?;
        self.kit_changed(work, &sent, &before).await
    }

    /// Takes back the last change of the kit, or brings it back: as [`Store::step`].
    ///
    /// # Errors
    /// As its.
    pub async fn step_kit(&self, act: &Act<'_>, back: bool) -> Result<SavedKit, StoreError> {
        let sent = Sent::of(act.key, &format!("{back} of {}", act.based_on));
        let Some((mut work, before, head)) = self.kit_at(&sent).await? else { return self.kit().await };
        current(&head, act)?;
        let to = step(&mut work, KIT, &head, back).await?;
        move_head(&mut work, KIT, to).await?;
        self.kit_changed(work, &sent, &before).await
    }

    /// The kit as an act finds it; nothing where the act was done before.
    async fn kit_at(&self, sent: &Sent<'_>) -> Result<Option<(Writing, SavedKit, Head)>, StoreError> {
        let mut work = self.connections.writing().await?;
        if done_before(&mut work, sent, KIT).await? {
            return Ok(None);
        }
        let before = kit(&mut work).await?;
        let head = head::<KitFile>(&mut work, KIT).await?;
        Ok(Some((work, before, head)))
    }

    async fn kit_changed(&self, mut work: Writing, sent: &Sent<'_>, before: &SavedKit) -> Result<SavedKit, StoreError> {
        let saved = kit(&mut work).await?;
        retire(&mut work, &before.document.kit, &saved.document.kit).await?;
        done(&mut work, sent, KIT).await?;
        work.commit().await?;
        Ok(saved)
    }
}

fn current(head: &Head, act: &Act<'_>) -> Result<(), StoreError> {
    let (based_on, now) = (act.based_on, head.revision);
    if now == based_on { Ok(()) } else { Err(StoreError::KitStale { based_on, now }) }
}
