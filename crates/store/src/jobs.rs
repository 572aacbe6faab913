//! Jobs and their revisions.

use jiff::Timestamp;
use sqlx::{Sqlite, Transaction};
use tolva_core::job::Job;
use uuid::Uuid;

use crate::{Store, StoreError};

/// A job as it stands now.
#[derive(Clone, Debug, PartialEq)]
pub struct SavedJob {
    /// Its id.
    pub id: String,
    /// The revision that is shown.
    pub revision: i64,
    /// When that revision was saved (RFC 3339).
    pub saved_at: String,
    /// What undo would take back, in words; none where there is nothing.
    pub undo: Option<String>,
    /// What redo would bring back, in words; none where there is nothing.
    pub redo: Option<String>,
    /// The document.
    pub job: Job,
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

/// A save that was refused, since the job was changed elsewhere.
#[derive(Clone, Debug, PartialEq)]
pub struct Stale {
    /// The revision the save was based on.
    pub based_on: i64,
    /// What is there now.
    pub now: SavedJob,
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
        let id = Uuid::new_v4().to_string();
        let now = Timestamp::now().to_string();
        let document = written(job);
        let mut work = self.pool.begin().await?;
        sqlx::query!("INSERT INTO job (id, head, created_at) VALUES (?, 1, ?)", id, now).execute(&mut *work).await?;
        sqlx::query!(
            "INSERT INTO revision (job_id, number, parent, saved_at, change, document) VALUES (?, 1, NULL, ?, ?, ?)",
            id,
            now,
            change,
            document
        )
        .execute(&mut *work)
        .await?;
        let saved = read(&mut work, &id).await?;
        work.commit().await?;
        Ok(saved)
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
               WHERE (j.binned_at IS NOT NULL) = ? ORDER BY r.saved_at DESC, j.id"#,
            binned
        )
        .fetch_all(&self.pool)
        .await?;
        rows.into_iter()
            .map(|row| {
                let job = parsed(&row.id, &row.document)?;
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
        let document = written(job);
        let now = Timestamp::now().to_string();
        let mut work = self.writing().await?;
        let head = at(&mut work, id, based_on).await?;
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
        let mut work = self.writing().await?;
        let head = at(&mut work, id, based_on).await?;
        let to = head.parent.ok_or(StoreError::NothingTo("undo"))?;
        move_head(work, id, to).await
    }

    /// Goes forward again to the newest revision made from this one.
    ///
    /// # Errors
    /// [`StoreError::NothingTo`] where nothing was undone; otherwise as [`Store::save`].
    pub async fn redo(&self, id: &str, based_on: i64) -> Result<SavedJob, StoreError> {
        let mut work = self.writing().await?;
        let head = at(&mut work, id, based_on).await?;
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

fn written(job: &Job) -> String {
    // Compact: a job holds strings, lists and finite numbers, so this cannot fail; an empty text would be refused when
    // it is read back.
    serde_json::to_string(job).unwrap_or_default()
}

fn parsed(id: &str, document: &str) -> Result<Job, StoreError> {
    Job::from_json(document.as_bytes())
        .map_err(|problems| StoreError::Unreadable { job: id.to_owned(), problem: problems.to_string() })
}

async fn head(work: &mut Transaction<'_, Sqlite>, id: &str) -> Result<Row, StoreError> {
    sqlx::query_as!(
        Row,
        r#"SELECT r.number AS revision, r.parent, r.saved_at, r.change, r.document
           FROM job j JOIN revision r ON r.job_id = j.id AND r.number = j.head WHERE j.id = ?"#,
        id
    )
    .fetch_optional(&mut **work)
    .await?
    .ok_or_else(|| StoreError::NoSuchJob(id.to_owned()))
}

/// The head, where it is the revision that was expected.
async fn at(work: &mut Transaction<'_, Sqlite>, id: &str, based_on: i64) -> Result<Row, StoreError> {
    let row = head(work, id).await?;
    if row.revision == based_on {
        return Ok(row);
    }
    let now = read(work, id).await?;
    Err(StoreError::Stale(Box::new(Stale { based_on, now })))
}

async fn read(work: &mut Transaction<'_, Sqlite>, id: &str) -> Result<SavedJob, StoreError> {
    let row = head(work, id).await?;
    let redo = sqlx::query_scalar!(
        "SELECT change FROM revision WHERE job_id = ? AND parent = ? ORDER BY number DESC LIMIT 1",
        id,
        row.revision
    )
    .fetch_optional(&mut **work)
    .await?;
    Ok(SavedJob {
        id: id.to_owned(),
        revision: row.revision,
        saved_at: row.saved_at,
        undo: row.parent.map(|_| row.change),
        redo,
        job: parsed(id, &row.document)?,
    })
}

async fn move_head(mut work: Transaction<'_, Sqlite>, id: &str, to: i64) -> Result<SavedJob, StoreError> {
    sqlx::query!("UPDATE job SET head = ? WHERE id = ?", to, id).execute(&mut *work).await?;
    let saved = read(&mut work, id).await?;
    work.commit().await?;
    Ok(saved)
}
