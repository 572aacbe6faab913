//! The jobs: kept by their revisions, listed by what their rows say of them, binned and given back.

use sqlx::SqliteConnection;
use tolva_format::{Deed, DeedKind, FORMAT_VERSION, Job, OwnedKit};
use uuid::Uuid;

use crate::Store;
use crate::documents::{
    Document as _, Head, Sent, append, done, done_before, done_to, head, insert, now, read, rfc3339, summarise,
};
use crate::error::StoreError;
use crate::kit::owned;
use crate::log::write_down;
use crate::revisions::stale;
use crate::saved::{Act, SavedJob};

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
    /// Whether it can be read: one that cannot is exported as it is, or set back.
    pub readable: bool,
}

/// In which order.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Sort {
    /// The last saved first.
    #[default]
    Saved,
    /// By their days, the first first; those without one last.
    Day,
    /// By their names.
    Name,
}

/// Which jobs to list.
#[derive(Clone, Debug)]
pub struct Listing {
    /// Those in the bin instead.
    pub binned: bool,
    /// Only those that have words beginning so; all of them for an empty text.
    pub search: String,
    /// Where the page before ended.
    pub after: Option<String>,
    /// How many at most.
    pub limit: u32,
    /// In which order.
    pub sort: Sort,
}

impl Default for Listing {
    fn default() -> Self {
        Self { binned: false, search: String::new(), after: None, limit: 50, sort: Sort::Saved }
    }
}

/// A page of a list.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Page {
    /// The jobs, the last saved first.
    pub jobs: Vec<JobSummary>,
    /// Where it ends, to go on from; nothing at the end of the list.
    pub next: Option<String>,
    /// How many there are on all pages.
    pub total: u64,
}

struct Row {
    place_in_list: i64,
    id: String,
    name: String,
    client: String,
    place: String,
    date: String,
    setups: String,
    saved_at: i64,
    read_as: i64,
}

impl Row {
    /// Where a page that ends with it ends.
    fn mark(&self, sort: Sort) -> String {
        match sort {
            Sort::Saved => format!("{}.{}", self.saved_at, self.place_in_list),
            Sort::Day | Sort::Name => self.place_in_list.to_string(),
        }
    }

    fn summary(self) -> JobSummary {
        JobSummary {
            id: self.id,
            name: self.name,
            client: self.client,
            place: self.place,
            date: self.date,
            setups: serde_json::from_str(&self.setups).unwrap_or_default(),
            saved_at: rfc3339(self.saved_at),
            readable: self.read_as == i64::from(FORMAT_VERSION),
        }
    }
}

/// The words of a search, each as the beginning of one, in FTS5's language (<https://sqlite.org/fts5.html>, 3).
fn beginnings(search: &str) -> String {
    let words = search.split(|letter: char| !letter.is_alphanumeric()).filter(|word| !word.is_empty());
    words.map(|word| format!("\"{word}\"*")).collect::<Vec<_>>().join(" ")
}

/// A page of the jobs by day or by name, and how many there are.
async fn sorted(
    work: &mut SqliteConnection,
    asked: &Listing,
    words: String,
    limit: i64,
) -> Result<(Vec<Row>, i64), StoreError> {
    let by_name = asked.sort == Sort::Name;
    let after = asked.after.as_deref().and_then(|row| row.parse::<i64>().ok());
    // A search for nothing finds all: it is not looked for.
    let (all, words) = (words.is_empty(), if words.is_empty() { "none".to_owned() } else { words });
    let rows = sqlx::query_as!(
            Row,
            r#"WITH listed AS (
                 SELECT row, CASE WHEN ?1 THEN lower(name) WHEN first_day = '' THEN '~' ELSE first_day END AS key
                 FROM documents
                 WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?2
                   AND (?3 OR row IN (SELECT rowid FROM words WHERE words MATCH ?4)))
               SELECT d.row AS "place_in_list!: i64", d.id, d.name, d.client, d.place, d.date, d.setups, d.saved_at, d.read_as
               FROM listed JOIN documents d ON d.row = listed.row
               WHERE ?5 IS NULL OR (key, listed.row) > (SELECT key, row FROM listed WHERE row = ?5)
               ORDER BY key, listed.row LIMIT ?6"#,
            by_name,
            asked.binned,
            all,
            words,
            after,
            limit
        )
        .fetch_all(&mut *work)
        .await?;
    let total = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM documents WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?1
             AND (?2 OR row IN (SELECT rowid FROM words WHERE words MATCH ?3))",
        asked.binned,
        all,
        words
    )
    .fetch_one(&mut *work)
    .await?;
    Ok((rows, total))
}

/// A job from somewhere else, so that its things stay its own.
pub(crate) fn apart(job: Job, owned: &OwnedKit) -> Job {
    job.apart_from(owned, || Uuid::new_v4().to_string())
}

impl Store {
    /// Adds a job, from here or from elsewhere: what its setups use and the kit here does not have as just that is kept
    /// with it.
    ///
    /// # Errors
    /// A job that is not good beside this kit, a full disk, or the database's.
    pub async fn add(&self, job: &Job, change: &str, key: Option<&str>) -> Result<SavedJob, StoreError> {
        self.add_made(job, change, (key, &job.written())).await
    }

    /// The same of a job that was made here of something else, such as another job: `said` is what was sent under the key. What
    /// is made of it may be another when it is sent again.
    ///
    /// # Errors
    /// As [`Store::add`].
    pub async fn add_made(
        &self,
        job: &Job,
        change: &str,
        (key, said): (Option<&str>, &str),
    ) -> Result<SavedJob, StoreError> {
        let mut work = self.connections.writing().await?;
        let owned = owned(&mut work).await?;
        let sent = Sent::of(key, said);
        if let Some(id) = done_to(&mut work, &sent).await? {
            return read(&mut work, &id, &owned).await;
        }
        let id = self.add_within(&mut work, &owned, apart(job.clone(), &owned), change).await?;
        done(&mut work, &sent, &id).await?;
        let saved = read(&mut work, &id, &owned).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// Adds several, or none of them.
    ///
    /// # Errors
    /// As [`Store::add`].
    pub async fn add_all(&self, jobs: &[Job], change: &str) -> Result<Vec<SavedJob>, StoreError> {
        let mut work = self.connections.writing().await?;
        let owned = owned(&mut work).await?;
        let mut all = Vec::new();
        for job in jobs {
            let id = self.add_within(&mut work, &owned, apart(job.clone(), &owned), change).await?;
            all.push(read(&mut work, &id, &owned).await?);
        }
        work.commit().await?;
        Ok(all)
    }

    /// Keeps a job as a new one, after it was set apart from what is owned here.
    pub(crate) async fn add_within(
        &self,
        work: &mut SqliteConnection,
        owned: &OwnedKit,
        job: Job,
        change: &str,
    ) -> Result<String, StoreError> {
        let job = job.taking(owned);
        job.check().map_err(StoreError::Wrong)?;
        let id = Uuid::new_v4().to_string();
        insert(work, &id, (&job.leaving(owned), owned), change).await?;
        write_down(work, &id, "", (&Deed::of_job(DeedKind::Made), change)).await?;
        Ok(id)
    }

    /// The job with an id, in the bin or not.
    ///
    /// # Errors
    /// No such job, one that cannot be read, or the database's.
    pub async fn job(&self, id: &str) -> Result<SavedJob, StoreError> {
        let mut work = self.connections.readers.begin().await?;
        let owned = owned(&mut work).await?;
        let found = read(&mut work, id, &owned).await;
        drop(work);
        if matches!(found, Err(StoreError::Unreadable { .. })) {
            // Lists find out by themselves where this cannot be written down.
            let _ = self.mark_unreadable(id).await;
        }
        found
    }

    /// Lists say from now on that it cannot be read.
    async fn mark_unreadable(&self, id: &str) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!("UPDATE documents SET read_as = 0 WHERE id = ?", id).execute(&mut *work).await?;
        work.commit().await
    }

    /// What stands in the file for a job, whether it can be read or not.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn raw(&self, id: &str) -> Result<Vec<u8>, StoreError> {
        let mut work = self.connections.readers.acquire().await?;
        let head = head::<Job>(&mut work, id).await?;
        // What cannot even be unpacked is given as it stands.
        Ok(head.json(id).unwrap_or(head.content))
    }

    /// A page of the jobs outside the bin, or in it, the last saved first.
    ///
    /// # Errors
    /// The database's.
    pub async fn jobs(&self, asked: &Listing) -> Result<Page, StoreError> {
        let mut work = self.connections.readers.begin().await?;
        let mark = asked.after.as_deref().and_then(|mark| mark.split_once('.'));
        let (at, row): (i64, i64) =
            mark.and_then(|(at, row)| Some((at.parse().ok()?, row.parse().ok()?))).unwrap_or((i64::MAX, i64::MAX));
        let limit = i64::from(asked.limit) + 1;
        let words = beginnings(&asked.search);
        let (mut rows, total) = if asked.sort != Sort::Saved {
            sorted(&mut work, asked, words, limit).await?
        } else if words.is_empty() {
            let rows = sqlx::query_as!(
                Row,
                r#"SELECT row AS "place_in_list!: i64", id, name, client, place, date, setups, saved_at, read_as FROM documents
                   WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?1 AND (saved_at, row) < (?2, ?3)
                   ORDER BY saved_at DESC, row DESC LIMIT ?4"#,
                asked.binned,
                at,
                row,
                limit
            )
            .fetch_all(&mut *work)
            .await?;
            let total = sqlx::query_scalar!(
                "SELECT COUNT(*) FROM documents WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?",
                asked.binned
            )
            .fetch_one(&mut *work)
            .await?;
            (rows, total)
        } else {
            let rows = sqlx::query_as!(
                Row,
                r#"SELECT row AS "place_in_list!: i64", id, name, client, place, date, setups, saved_at, read_as FROM documents
                   WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?1 AND (saved_at, row) < (?2, ?3)
                     AND row IN (SELECT rowid FROM words WHERE words MATCH ?5)
                   ORDER BY saved_at DESC, row DESC LIMIT ?4"#,
                asked.binned,
                at,
                row,
                limit,
                words
            )
            .fetch_all(&mut *work)
            .await?;
            let total = sqlx::query_scalar!(
                "SELECT COUNT(*) FROM documents WHERE kind = 'job' AND (binned_at IS NOT NULL) = ?1
                 AND row IN (SELECT rowid FROM words WHERE words MATCH ?2)",
                asked.binned,
                words
            )
            .fetch_one(&mut *work)
            .await?;
            (rows, total)
        };
        drop(work);
        let more = rows.len() > asked.limit as usize;
        rows.truncate(asked.limit as usize);
        let next = rows.last().filter(|_| more).map(|row| row.mark(asked.sort));
        let mut jobs = Vec::new();
        for row in rows {
            let known = row.read_as == i64::from(FORMAT_VERSION);
            let mut job = row.summary();
            if !known {
                job.readable = self.reads_again(&job.id).await?;
            }
            jobs.push(job);
        }
        Ok(Page { jobs, next, total: u64::try_from(total).unwrap_or_default() })
    }

    /// The job that comes next: the first of those outside the bin whose last day is this one, `2026-08-29`, or later.
    /// Nothing where none is.
    ///
    /// # Errors
    /// The database's.
    pub async fn next_job(&self, today: &str) -> Result<Option<String>, StoreError> {
        Ok(sqlx::query_scalar!(
            "SELECT id FROM documents WHERE kind = 'job' AND binned_at IS NULL AND last_day >= ? ORDER BY first_day, row LIMIT 1",
            today
        )
        .fetch_optional(&self.connections.readers)
        .await?)
    }

    /// Whether a job of which that is not known can be read; if so, it is known from then on.
    async fn reads_again(&self, id: &str) -> Result<bool, StoreError> {
        let mut work = self.connections.readers.begin().await?;
        let owned = owned(&mut work).await?;
        let found = read::<Job>(&mut work, id, &owned).await;
        drop(work);
        match found {
            Ok(saved) if self.connections.read_only() => Ok(saved.id == id),
            Ok(saved) => {
                let mut work = self.connections.writing().await?;
                summarise(&mut work, id, &saved.document, &owned).await?;
                work.commit().await?;
                Ok(true)
            }
            Err(StoreError::Unreadable { .. }) => Ok(false),
            Err(other) => Err(other),
        }
    }

    /// Saves a job as a new revision, based on the one that was edited. A save sent again, since its answer was lost, is
    /// the same save.
    ///
    /// # Errors
    /// [`StoreError::Stale`] with what is there now, a job that is not good, no such job, a full disk, or the database's.
    pub async fn save(&self, id: &str, act: &Act<'_>, job: &Job) -> Result<SavedJob, StoreError> {
        let mut work = self.connections.writing().await?;
        let owned = owned(&mut work).await?;
        let sent = Sent::of(act.key, &job.written());
        if done_before(&mut work, &sent, id).await? {
            return read(&mut work, id, &owned).await;
        }
        let job = job.clone().taking(&owned);
        job.check().map_err(StoreError::Wrong)?;
        let job = job.leaving(&owned);
        let head = head::<Job>(&mut work, id).await?;
        if head.revision != act.based_on {
            if said_again(&head, id, act, &job) {
                return read(&mut work, id, &owned).await;
            }
            return Err(stale(&mut work, id, act.based_on, &owned, Some(job.taking(&owned))).await?);
        }
        // Here, where nobody else can write: before, it might be held against a version that is gone by now.
        if act.ticks_only {
            let there: SavedJob = read(&mut work, id, &owned).await?;
            if !there.document.differs_by_ticks_only(&job.clone().taking(&owned)) {
                return Err(StoreError::TicksOnly);
            }
        }
        append(&mut work, id, &head, (&job, &owned), act.change).await?;
        // What was there may be of a version nobody reads any more: then something was changed.
        let before = head.json(id).ok().and_then(|json| Job::stored(&json).ok());
        if before.as_ref() != Some(&job) {
            let deed = before.map_or(Deed::of_job(DeedKind::Change), |before| Deed::between(&before, &job));
            write_down(&mut work, id, act.who, (&deed, act.change)).await?;
        }
        done(&mut work, &sent, id).await?;
        let saved = read(&mut work, id, &owned).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// Puts a job into the bin, or takes it out.
    ///
    /// # Errors
    /// No such job, or the database's.
    pub async fn bin(&self, id: &str, binned: bool) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        let when = binned.then(now);
        let done = sqlx::query!("UPDATE documents SET binned_at = ? WHERE id = ? AND kind = ?", when, id, Job::KIND)
            .execute(&mut *work)
            .await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::NoSuchJob(id.to_owned()));
        }
        work.commit().await
    }
}

/// Whether the head is just this save: made from the same revision, by the same change, with the same content.
fn said_again(head: &Head, id: &str, act: &Act<'_>, job: &Job) -> bool {
    head.parent == Some(act.based_on)
        && head.change == act.change
        && head.json(id).is_ok_and(|there| there == job.written().as_bytes())
}
