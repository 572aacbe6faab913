//! Documents and their revisions: the jobs, and the kit.

use jiff::Timestamp;
use sqlx::{Sqlite, Transaction};
use tolva_format::{Job, Kit, KitFile, OwnedKit, Problems, read_json};
use uuid::Uuid;

use crate::Store;
use crate::error::StoreError;
use crate::saved::{Saved, SavedJob, SavedKit, Stale};

/// The kit's row.
const KIT: &str = "kit";

/// The row of what has left the kit.
const LEFT: &str = "left";

/// What has left the kit.
struct Left(Kit);

/// What is kept by its revisions.
trait Document: Sized {
    /// The kind of its row.
    const KIND: &'static str;
    fn parsed(json: &[u8]) -> Result<Self, Problems>;
    /// Compact. Documents hold strings, lists and finite numbers, so this cannot fail; an empty text would be refused
    /// when it is read back.
    fn written(&self) -> String;
    fn stale(based_on: i64, now: Saved<Self>) -> StoreError;
}

impl Document for Job {
    const KIND: &'static str = "job";
    fn parsed(json: &[u8]) -> Result<Self, Problems> {
        Self::from_json(json)
    }
    fn written(&self) -> String {
        serde_json::to_string(self).unwrap_or_default()
    }
    fn stale(based_on: i64, now: Saved<Self>) -> StoreError {
        StoreError::Stale(Box::new(Stale { based_on, now }))
    }
}

impl Document for KitFile {
    const KIND: &'static str = KIT;
    fn parsed(json: &[u8]) -> Result<Self, Problems> {
        Self::from_json(json)
    }
    fn written(&self) -> String {
        serde_json::to_string(self).unwrap_or_default()
    }
    fn stale(based_on: i64, now: Saved<Self>) -> StoreError {
        StoreError::KitStale { based_on, now: now.revision }
    }
}

impl Document for Left {
    const KIND: &'static str = LEFT;
    fn parsed(json: &[u8]) -> Result<Self, Problems> {
        // Anything may be missing from it: it is no kit to work with.
        read_json(json).map(Self)
    }
    fn written(&self) -> String {
        serde_json::to_string(&self.0).unwrap_or_default()
    }
    fn stale(based_on: i64, now: Saved<Self>) -> StoreError {
        StoreError::KitStale { based_on, now: now.revision }
    }
}

/// A job in a list.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct JobSummary {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Who it is for.
    pub client: String,
    /// Where it is.
    pub place: String,
    /// The day.
    pub date: String,
    /// What its setups are called.
    pub setups: Vec<String>,
    /// When it was last saved (RFC 3339).
    pub saved_at: String,
}

struct Row {
    revision: i64,
    parent: Option<i64>,
    saved_at: String,
    change: String,
    document: String,
}

impl Store {
    /// Adds a job.
    ///
    /// # Errors
    /// The database's.
    pub async fn add(&self, job: &Job, change: &str) -> Result<SavedJob, StoreError> {
        self.insert(&Uuid::new_v4().to_string(), job, change).await
    }

    async fn insert<T: Document>(&self, id: &str, document: &T, change: &str) -> Result<Saved<T>, StoreError> {
        let now = Timestamp::now().to_string();
        let document = document.written();
        let mut work = self.writing().await?;
        sqlx::query!("INSERT INTO job (id, kind, head, created_at) VALUES (?, ?, 1, ?)", id, T::KIND, now)
            .execute(&mut *work)
            .await?;
        sqlx::query!(
            "INSERT INTO revision (job_id, number, parent, saved_at, change, document) VALUES (?, 1, NULL, ?, ?, ?)",
            id,
            now,
            change,
            document
        )
        .execute(&mut *work)
        .await?;
        let saved = read(&mut work, id).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// The kit. Where nobody has one yet, what the jobs there are brought along, and the generic one to start with.
    ///
    /// # Errors
    /// The database's.
    pub async fn kit(&self) -> Result<SavedKit, StoreError> {
        let mut work = self.pool.begin().await?;
        let found = read(&mut work, KIT).await;
        drop(work);
        match found {
            Err(StoreError::NoSuchJob(_)) => {
                match self.insert(KIT, &KitFile::new(self.first_kit().await?), "Generic kit").await {
                    // Two who ask at once: the other one made it.
                    Err(_) => read(&mut self.pool.begin().await?, KIT).await,
                    made => made,
                }
            }
            found => found,
        }
    }

    /// A kit where there was none: what the jobs brought along, the newest first, and the generic one after it.
    async fn first_kit(&self) -> Result<Kit, StoreError> {
        let mut all: Option<Kit> = None;
        for job in self.jobs(false).await? {
            let kit = self.job(&job.id).await?.document.kit;
            all = Some(all.map_or(kit.clone(), |all| all.with(&kit)));
        }
        Ok(all.map_or_else(Kit::starter, |all| all.with(&Kit::starter())))
    }

    /// Saves the kit as a new revision: as [`Store::save`].
    ///
    /// # Errors
    /// [`StoreError::KitStale`], a full disk, or the database's.
    pub async fn save_kit(&self, based_on: i64, change: &str, kit: &KitFile) -> Result<SavedKit, StoreError> {
        let before = self.kit().await?.document.kit;
        let saved = self.save_as(KIT, based_on, change, kit).await?;
        self.keep_what_left(&before, &saved.document.kit).await?;
        Ok(saved)
    }

    /// Takes back the last change of the kit, or brings it back: as [`Store::undo`] and [`Store::redo`].
    ///
    /// # Errors
    /// As theirs.
    pub async fn step_kit(&self, based_on: i64, back: bool) -> Result<SavedKit, StoreError> {
        let before = self.kit().await?.document.kit;
        let saved: SavedKit = if back { self.back(KIT, based_on).await? } else { self.forward(KIT, based_on).await? };
        self.keep_what_left(&before, &saved.document.kit).await?;
        Ok(saved)
    }

    /// What is owned, and what was owned before.
    ///
    /// # Errors
    /// The database's.
    pub async fn owned(&self) -> Result<OwnedKit, StoreError> {
        let kit = self.kit().await?.document.kit;
        let left = self.left().await?.map_or_else(Kit::default, |left| left.document.0);
        Ok(OwnedKit { kit, left })
    }

    async fn left(&self) -> Result<Option<Saved<Left>>, StoreError> {
        match read(&mut self.pool.begin().await?, LEFT).await {
            Err(StoreError::NoSuchJob(_)) => Ok(None),
            found => found.map(Some),
        }
    }

    /// Keeps each thing that has left the kit as it was, for the setups that go on with it.
    async fn keep_what_left(&self, before: &Kit, now: &Kit) -> Result<(), StoreError> {
        let gone = before.beyond(now);
        if gone.count() == 0 {
            return Ok(());
        }
        match self.left().await? {
            None => drop(self.insert(LEFT, &Left(gone), "Left the kit").await?),
            Some(left) => {
                let all = Left(left.document.0.updated_by(&gone));
                self.save_as(LEFT, left.revision, "Left the kit", &all).await?;
            }
        }
        Ok(())
    }

    /// The job with an id, in the bin or not.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn job(&self, id: &str) -> Result<SavedJob, StoreError> {
        let mut work = self.pool.begin().await?;
        read(&mut work, id).await
    }

    /// All jobs outside the bin (or in it), the last saved first.
    ///
    /// # Errors
    /// The database's.
    pub async fn jobs(&self, binned: bool) -> Result<Vec<JobSummary>, StoreError> {
        let rows = sqlx::query!(
            r#"SELECT j.id, r.saved_at, r.document
               FROM job j JOIN revision r ON r.job_id = j.id AND r.number = j.head
               WHERE j.kind = 'job' AND (j.binned_at IS NOT NULL) = ? ORDER BY r.saved_at DESC, j.id"#,
            binned
        )
        .fetch_all(&self.pool)
        .await?;
        rows.into_iter()
            .map(|row| {
                let job: Job = parsed(&row.id, &row.document)?;
                Ok(JobSummary {
                    id: row.id,
                    name: job.name,
                    client: job.client,
                    place: job.place,
                    date: job.date,
                    setups: job.setups.into_iter().map(|setup| setup.name).collect(),
                    saved_at: row.saved_at,
                })
            })
            .collect()
    }

    /// Saves a job as a new revision, based on the one that was edited. `change` says in words what was done.
    ///
    /// # Errors
    /// [`StoreError::Stale`] with what is there now, no such job, a full disk, or the database's.
    pub async fn save(&self, id: &str, based_on: i64, change: &str, job: &Job) -> Result<SavedJob, StoreError> {
        self.save_as(id, based_on, change, job).await
    }

    async fn save_as<T: Document>(
        &self,
        id: &str,
        based_on: i64,
        change: &str,
        document: &T,
    ) -> Result<Saved<T>, StoreError> {
        let document = document.written();
        let now = Timestamp::now().to_string();
        let mut work = self.writing().await?;
        let head = at::<T>(&mut work, id, based_on).await?;
        // Saving what is already there is no change: the same save sent twice makes one revision.
        if head.document == document {
            return read(&mut work, id).await;
        }
        sqlx::query!(
            r#"INSERT INTO revision (job_id, number, parent, saved_at, change, document)
               SELECT ?1, MAX(number) + 1, ?2, ?3, ?4, ?5 FROM revision WHERE job_id = ?1"#,
            id,
            based_on,
            now,
            change,
            document
        )
        .execute(&mut *work)
        .await?;
        sqlx::query!("UPDATE job SET head = (SELECT MAX(number) FROM revision WHERE job_id = ?1) WHERE id = ?1", id)
            .execute(&mut *work)
            .await?;
        let saved = read(&mut work, id).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// Goes back to the revision before.
    ///
    /// # Errors
    /// [`StoreError::NothingTo`] at the first revision; otherwise as [`Store::save`].
    pub async fn undo(&self, id: &str, based_on: i64) -> Result<SavedJob, StoreError> {
        self.back(id, based_on).await
    }

    async fn back<T: Document>(&self, id: &str, based_on: i64) -> Result<Saved<T>, StoreError> {
        let mut work = self.writing().await?;
        let head = at::<T>(&mut work, id, based_on).await?;
        let to = head.parent.ok_or(StoreError::NothingTo("undo"))?;
        move_head(work, id, to).await
    }

    /// Goes forward again to the newest revision made from this one.
    ///
    /// # Errors
    /// [`StoreError::NothingTo`] where nothing was undone; otherwise as [`Store::save`].
    pub async fn redo(&self, id: &str, based_on: i64) -> Result<SavedJob, StoreError> {
        self.forward(id, based_on).await
    }

    async fn forward<T: Document>(&self, id: &str, based_on: i64) -> Result<Saved<T>, StoreError> {
        let mut work = self.writing().await?;
        let head = at::<T>(&mut work, id, based_on).await?;
        let to = sqlx::query_scalar!(
            r#"SELECT MAX(number) AS "number: i64" FROM revision WHERE job_id = ? AND parent = ?"#,
            id,
            head.revision
        )
        .fetch_one(&mut *work)
        .await?;
        move_head(work, id, to.ok_or(StoreError::NothingTo("redo"))?).await
    }

    /// Puts a job into the bin, or takes it out.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn bin(&self, id: &str, binned: bool) -> Result<(), StoreError> {
        let when = binned.then(|| Timestamp::now().to_string());
        let done = sqlx::query!("UPDATE job SET binned_at = ? WHERE id = ?", when, id).execute(&self.pool).await?;
        if done.rows_affected() == 0 { Err(StoreError::NoSuchJob(id.to_owned())) } else { Ok(()) }
    }

    /// A transaction that holds the write lock from its start, so that two savers never both see the same head.
    async fn writing(&self) -> Result<Transaction<'static, Sqlite>, StoreError> {
        Ok(self.pool.begin_with("BEGIN IMMEDIATE").await?)
    }
}

fn parsed<T: Document>(id: &str, document: &str) -> Result<T, StoreError> {
    T::parsed(document.as_bytes())
        .map_err(|problems| StoreError::Unreadable { job: id.to_owned(), problem: problems.to_string() })
}

async fn head(work: &mut Transaction<'_, Sqlite>, id: &str, kind: &str) -> Result<Row, StoreError> {
    sqlx::query_as!(
        Row,
        r#"SELECT r.number AS revision, r.parent, r.saved_at, r.change, r.document
           FROM job j JOIN revision r ON r.job_id = j.id AND r.number = j.head WHERE j.id = ? AND j.kind = ?"#,
        id,
        kind
    )
    .fetch_optional(&mut **work)
    .await?
    .ok_or_else(|| StoreError::NoSuchJob(id.to_owned()))
}

/// The head, where it is the revision that was expected.
async fn at<T: Document>(work: &mut Transaction<'_, Sqlite>, id: &str, based_on: i64) -> Result<Row, StoreError> {
    let row = head(work, id, T::KIND).await?;
    if row.revision == based_on {
        return Ok(row);
    }
    Err(T::stale(based_on, read(work, id).await?))
}

async fn read<T: Document>(work: &mut Transaction<'_, Sqlite>, id: &str) -> Result<Saved<T>, StoreError> {
    let row = head(work, id, T::KIND).await?;
    let redo = sqlx::query_scalar!(
        "SELECT change FROM revision WHERE job_id = ? AND parent = ? ORDER BY number DESC LIMIT 1",
        id,
        row.revision
    )
    .fetch_optional(&mut **work)
    .await?;
    Ok(Saved {
        id: id.to_owned(),
        revision: row.revision,
        saved_at: row.saved_at,
        undo: row.parent.map(|_| row.change),
        redo,
        document: parsed(id, &row.document)?,
    })
}

async fn move_head<T: Document>(mut work: Transaction<'_, Sqlite>, id: &str, to: i64) -> Result<Saved<T>, StoreError> {
    sqlx::query!("UPDATE job SET head = ? WHERE id = ?", to, id).execute(&mut *work).await?;
    let saved = read(&mut work, id).await?;
    work.commit().await?;
    Ok(saved)
}
