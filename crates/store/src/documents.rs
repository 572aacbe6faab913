//! Documents by their revisions: what jobs and the kit have in common.

use jiff::Timestamp;
use sha2::{Digest as _, Sha256};
use sqlx::SqliteConnection;
use tolva_format::{FORMAT_VERSION, Job, KitFile, OwnedKit, Problems};

use crate::content::{pack, unpack};
use crate::error::StoreError;
use crate::saved::Saved;
use crate::thinning::{self, DAY_MS};

/// The kit's row.
pub(crate) const KIT: &str = "kit";

/// What is kept by its revisions.
pub(crate) trait Document: Sized {
    /// The kind of its row.
    const KIND: &'static str;
    /// What it looks like from outside, where the kit it goes with counts.
    fn read(json: &[u8], owned: &OwnedKit) -> Result<Self, Problems>;
    /// Compact. Documents hold strings, lists and finite numbers, so this cannot fail; an empty text would be refused
    /// when it is read back.
    fn written(&self) -> String;
    /// What lists show of it.
    fn summary(&self, owned: &OwnedKit) -> Summary;
}

/// What lists show of a document.
#[derive(Default)]
pub(crate) struct Summary {
    pub name: String,
    pub client: String,
    pub place: String,
    pub date: String,
    /// The names of its setups, as a JSON list.
    pub setups: String,
    /// What its setups use: kit, blends, light.
    pub used: String,
    /// The first and the last day it is on; empty where nothing says it.
    pub days: (String, String),
}

impl Document for Job {
    const KIND: &'static str = "job";
    fn read(json: &[u8], owned: &OwnedKit) -> Result<Self, Problems> {
        Self::stored(json).map(|job| job.taking(owned))
    }
    fn written(&self) -> String {
        serde_json::to_string(self).unwrap_or_default()
    }
    fn summary(&self, owned: &OwnedKit) -> Summary {
        let setups: Vec<&str> = self.setups.iter().map(|setup| setup.name.as_str()).collect();
        Summary {
            name: self.name.clone(),
            client: self.client.clone(),
            place: self.place.clone(),
            date: self.date.clone(),
            setups: serde_json::to_string(&setups).unwrap_or_default(),
            used: self.clone().taking(owned).found_by(),
            days: self.days().unwrap_or_default(),
        }
    }
}

impl Document for KitFile {
    const KIND: &'static str = KIT;
    fn read(json: &[u8], _: &OwnedKit) -> Result<Self, Problems> {
        Self::from_json(json)
    }
    fn written(&self) -> String {
        serde_json::to_string(self).unwrap_or_default()
    }
    fn summary(&self, _: &OwnedKit) -> Summary {
        Summary { setups: "[]".to_owned(), ..Summary::default() }
    }
}

/// A revision that is shown, as it is stored.
pub(crate) struct Head {
    pub revision: i64,
    pub parent: Option<i64>,
    pub saved_at: i64,
    pub change: String,
    pub content: Vec<u8>,
}

impl Head {
    /// Its document as JSON.
    pub fn json(&self, id: &str) -> Result<Vec<u8>, StoreError> {
        unpack(&self.content).map_err(|problem| unreadable(id, &problem))
    }
}

fn unreadable(id: &str, problem: &impl ToString) -> StoreError {
    StoreError::Unreadable { job: id.to_owned(), problem: problem.to_string() }
}

/// Now, in whole milliseconds since 1970.
pub(crate) fn now() -> i64 {
    Timestamp::now().as_millisecond()
}

/// RFC 3339, always to the millisecond.
pub(crate) fn rfc3339(milliseconds: i64) -> String {
    Timestamp::from_millisecond(milliseconds).map_or_else(|_| String::new(), |at| format!("{at:.3}"))
}

/// The revision of a document that is shown.
pub(crate) async fn head<T: Document>(work: &mut SqliteConnection, id: &str) -> Result<Head, StoreError> {
    sqlx::query_as!(
        Head,
        r#"SELECT r.number AS revision, r.parent, r.saved_at, r.change, r.content
           FROM documents d JOIN revisions r ON r.document_id = d.id AND r.number = d.head
           WHERE d.id = ? AND d.kind = ?"#,
        id,
        T::KIND
    )
    .fetch_optional(work)
    .await?
    .ok_or_else(|| StoreError::NoSuchJob(id.to_owned()))
}

/// A document as it stands now.
pub(crate) async fn read<T: Document>(
    work: &mut SqliteConnection,
    id: &str,
    owned: &OwnedKit,
) -> Result<Saved<T>, StoreError> {
    let head = head::<T>(work, id).await?;
    let document = T::read(&head.json(id)?, owned).map_err(|problems| unreadable(id, &problems))?;
    let redo = sqlx::query_scalar!(
        "SELECT change FROM revisions WHERE document_id = ? AND parent = ? ORDER BY number DESC LIMIT 1",
        id,
        head.revision
    )
    .fetch_optional(work)
    .await?;
    Ok(Saved {
        id: id.to_owned(),
        revision: head.revision,
        saved_at: rfc3339(head.saved_at),
        undo: head.parent.map(|_| head.change),
        redo,
        document,
    })
}

/// Adds a document with its first revision.
pub(crate) async fn insert<T: Document>(
    work: &mut SqliteConnection,
    id: &str,
    (document, owned): (&T, &OwnedKit),
    change: &str,
) -> Result<(), StoreError> {
    let (now, content) = (now(), pack(&document.written()));
    sqlx::query!(
        "INSERT INTO documents (id, kind, head, created_at, saved_at) VALUES (?1, ?2, 1, ?3, ?3)",
        id,
        T::KIND,
        now
    )
    .execute(&mut *work)
    .await?;
    sqlx::query!(
        "INSERT INTO revisions (document_id, number, saved_at, change, content) VALUES (?, 1, ?, ?, ?)",
        id,
        now,
        change,
        content
    )
    .execute(&mut *work)
    .await?;
    summarise(work, id, document, owned).await
}

/// Saves a document as a new revision under the head; what is already there is no change.
pub(crate) async fn append<T: Document>(
    work: &mut SqliteConnection,
    id: &str,
    head: &Head,
    (document, owned): (&T, &OwnedKit),
    change: &str,
) -> Result<(), StoreError> {
    let written = document.written();
    if head.json(id).is_ok_and(|before| before == written.as_bytes()) {
        return Ok(());
    }
    let (now, content) = (now(), pack(&written));
    let number = sqlx::query_scalar!(
        r#"INSERT INTO revisions (document_id, number, parent, saved_at, change, content)
           SELECT ?1, MAX(number) + 1, ?2, ?3, ?4, ?5 FROM revisions WHERE document_id = ?1
           RETURNING number AS "number!: i64""#,
        id,
        head.revision,
        now,
        change,
        content
    )
    .fetch_one(&mut *work)
    .await?;
    move_head(work, id, number).await?;
    summarise(work, id, document, owned).await?;
    thinning::thin_out(work, id, number, now).await
}

/// Where undo leads from a revision, or redo: to the newest revision made from it.
pub(crate) async fn step(work: &mut SqliteConnection, id: &str, head: &Head, back: bool) -> Result<i64, StoreError> {
    if back {
        return head.parent.ok_or(StoreError::NothingTo("undo"));
    }
    let newest = sqlx::query_scalar!(
        r#"SELECT MAX(number) AS "number: i64" FROM revisions WHERE document_id = ? AND parent = ?"#,
        id,
        head.revision
    )
    .fetch_one(work)
    .await?;
    newest.ok_or(StoreError::NothingTo("redo"))
}

/// Shows another revision.
pub(crate) async fn move_head(work: &mut SqliteConnection, id: &str, to: i64) -> Result<(), StoreError> {
    let now = now();
    sqlx::query!("UPDATE documents SET head = ?, saved_at = ? WHERE id = ?", to, now, id).execute(work).await?;
    Ok(())
}

/// Keeps what lists show of a document, and the words it is found by.
pub(crate) async fn summarise<T: Document>(
    work: &mut SqliteConnection,
    id: &str,
    document: &T,
    owned: &OwnedKit,
) -> Result<(), StoreError> {
    let Summary { name, client, place, date, setups, used, days: (first_day, last_day) } = document.summary(owned);
    let row = sqlx::query_scalar!(
        r#"UPDATE documents SET name = ?2, client = ?3, place = ?4, date = ?5, setups = ?6, read_as = ?7, used = ?8,
           first_day = ?9, last_day = ?10 WHERE id = ?1
           RETURNING row AS "row!: i64""#,
        id,
        name,
        client,
        place,
        date,
        setups,
        FORMAT_VERSION,
        used,
        first_day,
        last_day
    )
    .fetch_one(&mut *work)
    .await?;
    if T::KIND == KIT {
        return Ok(());
    }
    sqlx::query!("DELETE FROM words WHERE rowid = ?", row).execute(&mut *work).await?;
    sqlx::query!(
        "INSERT INTO words (rowid, name, client, place, date, setups, used) VALUES (?, ?, ?, ?, ?, ?, ?)",
        row,
        name,
        client,
        place,
        date,
        setups,
        used
    )
    .execute(work)
    .await?;
    Ok(())
}

/// What is sent under a key: sent again, it is the same act.
pub(crate) struct Sent<'a> {
    key: Option<&'a str>,
    /// A hash of it.
    said: String,
}

impl<'a> Sent<'a> {
    pub fn of(key: Option<&'a str>, said: &str) -> Self {
        let said = if key.is_some() { format!("{:x}", Sha256::digest(said.as_bytes())) } else { String::new() };
        Self { key, said }
    }
}

/// The document that was done to before what is sent again.
///
/// # Errors
/// Something else was sent under the same key, or the database's.
pub(crate) async fn done_to(work: &mut SqliteConnection, sent: &Sent<'_>) -> Result<Option<String>, StoreError> {
    let Some(key) = sent.key else { return Ok(None) };
    let row = sqlx::query!("SELECT document_id, said FROM acts WHERE key = ?", key).fetch_optional(work).await?;
    let Some(row) = row else { return Ok(None) };
    // What a Tolva of before did is known by its key alone.
    if !row.said.is_empty() && row.said != sent.said {
        return Err(StoreError::KeyUsed);
    }
    Ok(Some(row.document_id))
}

/// Whether what is sent was done to a document before.
///
/// # Errors
/// As [`done_to`].
pub(crate) async fn done_before(work: &mut SqliteConnection, sent: &Sent<'_>, id: &str) -> Result<bool, StoreError> {
    match done_to(work, sent).await? {
        Some(before) if before != id => Err(StoreError::KeyUsed),
        before => Ok(before.is_some()),
    }
}

/// Remembers that an act was done. What was done a day ago is not sent again.
pub(crate) async fn done(work: &mut SqliteConnection, sent: &Sent<'_>, id: &str) -> Result<(), StoreError> {
    let Some(key) = sent.key else { return Ok(()) };
    let (now, before) = (now(), now() - DAY_MS);
    sqlx::query!("DELETE FROM acts WHERE done_at < ?", before).execute(&mut *work).await?;
    sqlx::query!(
        "INSERT OR REPLACE INTO acts (key, document_id, done_at, said) VALUES (?, ?, ?, ?)",
        key,
        id,
        now,
        sent.said
    )
    .execute(work)
    .await?;
    Ok(())
}
