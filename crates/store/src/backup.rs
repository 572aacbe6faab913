//! Copies of the data file: made while it is used, one kept for each of the last days, and read back.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{AssertSqlSafe, SqliteConnection};

use crate::Store;
use crate::beside::is_a_day;
use crate::documents::{now, rfc3339};
use crate::error::{NotOpened, OpenError, StoreError};
use crate::jobs::{JobSummary, Listing};
use crate::opening::{self, copy_into};

/// Of so many days a copy is kept.
pub const DAYS: usize = 7;
/// How the copy of what was there before a restore ends.
const BEFORE_RESTORE: &str = "-before-restore";
/// The tables that are read back.
pub(crate) const TABLES: [&str; 10] =
    ["documents", "revisions", "retired", "acts", "preference", "words", "frames", "watched", "log", "attempts"];
/// Those that stay as they are here: who may come in, which of this folder's pictures nobody refers to, what the file is known
/// by, and how far the tables were brought up to date.
#[cfg(test)]
pub(crate) const LEFT: [&str; 4] = ["devices", "litter", "own", "_sqlx_migrations"];

/// A copy in the folder of copies.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Backup {
    /// What it is called: `2026-08-29`, or what came before a restore.
    pub name: String,
    /// How large it is, in bytes.
    pub bytes: u64,
}

/// What a backup would bring back.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Difference {
    /// Jobs that are only in the backup.
    pub back: Vec<JobSummary>,
    /// Jobs that are otherwise in the backup, or in the bin there and not here, as they are there.
    pub changed: Vec<JobSummary>,
    /// Jobs that are only here, and would be gone.
    pub gone: Vec<JobSummary>,
}

impl Store {
    /// Copies the data file as it is now, while it is used.
    ///
    /// # Errors
    /// A file that is there already, a full disk, or the database's.
    pub async fn backup(&self, to: &Path) -> Result<(), StoreError> {
        if to.exists() {
            let says = format!("{} is there already: name another file", to.display());
            return Err(std::io::Error::new(std::io::ErrorKind::AlreadyExists, says).into());
        }
        // A reader copies: nobody has to wait for it.
        let mut reader = self.connections.readers.acquire().await?;
        // Beside it under a name of its own, which is nobody else's file: what is there under the copy's is whole.
        let folder = to.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
        let part = tempfile::Builder::new().prefix(".tolva-").suffix(".part").tempfile_in(folder)?.into_temp_path();
        copy_into(&mut reader, &part).await?;
        part.persist_noclobber(to).map_err(|error| error.error.into())
    }

    fn in_folder(&self, name: &str) -> PathBuf {
        self.copies().join(format!("{}.{name}.sqlite", self.own_name()))
    }

    /// Makes today's copy in the folder `backups` beside the data file where there is none, and removes the oldest
    /// beyond [`DAYS`], of the days' and of those before a restore.
    ///
    /// # Errors
    /// A folder that cannot be made, a full disk, or the database's.
    pub async fn backup_of_the_day(&self) -> Result<(), StoreError> {
        let today = self.in_folder(&today());
        if !today.exists() {
            std::fs::create_dir_all(self.copies())?;
            self.backup(&today).await?;
        }
        let (days, restores): (Vec<_>, Vec<_>) = self.backups().into_iter().partition(|backup| is_a_day(&backup.name));
        for old in days.iter().skip(DAYS).chain(restores.iter().skip(DAYS)) {
            let _ = std::fs::remove_file(self.in_folder(&old.name));
        }
        Ok(())
    }

    /// The copies in the folder, the newest first.
    pub fn backups(&self) -> Vec<Backup> {
        let stem = format!("{}.", self.own_name());
        let entries = std::fs::read_dir(self.copies()).into_iter().flatten().flatten();
        let mut all: Vec<Backup> = entries
            .filter_map(|entry| {
                let file = entry.file_name().into_string().ok()?;
                let name = file.strip_prefix(&stem)?.strip_suffix(".sqlite")?.to_owned();
                // Another data file's name may begin as this one's.
                let ours = is_a_day(&name) || name.get(..10).is_some_and(is_a_day) && name.ends_with(BEFORE_RESTORE);
                if !ours {
                    return None;
                }
                Some(Backup { name, bytes: entry.metadata().ok()?.len() })
            })
            .collect();
        all.sort_by(|a, b| b.name.cmp(&a.name));
        all
    }

    fn backup_named(&self, name: &str) -> Result<PathBuf, StoreError> {
        // Only what is listed: a name is no path.
        let known = self.backups().into_iter().any(|backup| backup.name == name);
        if known { Ok(self.in_folder(name)) } else { Err(StoreError::NoSuchBackup(name.to_owned())) }
    }

    /// What a backup in the folder would bring back, and what would be gone.
    ///
    /// # Errors
    /// [`StoreError::NoSuchBackup`], one that cannot be read, or the database's.
    pub async fn compare(&self, name: &str) -> Result<Difference, StoreError> {
        let there = whole(&Readable::of(&self.backup_named(name)?).await?.store).await?;
        let here = whole(self).await?;
        let mut difference = Difference::default();
        for (id, (job, binned)) in &there {
            match here.get(id) {
                None => difference.back.push(job.clone()),
                Some((now, is)) if now.saved_at != job.saved_at || is != binned => difference.changed.push(job.clone()),
                Some(_) => {}
            }
        }
        let gone = here.into_iter().filter(|(id, _)| !there.contains_key(id));
        difference.gone = gone.map(|(_, (job, _))| job).collect();
        Ok(difference)
    }

    /// Brings back a backup of the folder.
    ///
    /// # Errors
    /// As [`Store::restore`].
    pub async fn restore_named(&self, name: &str) -> Result<(), StoreError> {
        self.restore(&self.backup_named(name)?).await.map_err(|error| error.why.into())
    }

    /// Brings back everything as it stands in a copy, in one act; what is there now is copied first, into the folder.
    ///
    /// # Errors
    /// A copy that cannot be read, a full disk, or the database's.
    pub async fn restore(&self, from: &Path) -> Result<(), OpenError> {
        let here = |why: NotOpened| OpenError { file: self.file.clone(), why };
        if self.read_only() {
            return Err(here(StoreError::ReadOnly.into()));
        }
        let readable = Readable::of(from).await.map_err(|why| OpenError { file: from.to_owned(), why: why.into() })?;
        let io = |error: std::io::Error| here(error.into());
        std::fs::create_dir_all(self.copies()).map_err(io)?;
        let now = format!("{}{BEFORE_RESTORE}", rfc3339(now()).replace(':', ""));
        self.backup(&self.in_folder(&now)).await.map_err(|error| here(error.into()))?;
        self.take_over(&readable.file).await.map_err(|error| here(error.into()))
    }

    async fn take_over(&self, from: &Path) -> Result<(), StoreError> {
        let (mut connection, mut slot) = self.connections.writer().await?;
        sqlx::query("ATTACH ? AS other").bind(from.to_string_lossy().into_owned()).execute(&mut connection).await?;
        copy_tables(&mut connection).await?;
        sqlx::query("DETACH other").execute(&mut connection).await?;
        *slot = Some(connection);
        Ok(())
    }
}

async fn copy_tables(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    sqlx::query("BEGIN IMMEDIATE").execute(&mut *connection).await?;
    for table in TABLES {
        sqlx::query(AssertSqlSafe(format!("DELETE FROM main.{table}"))).execute(&mut *connection).await?;
    }
    for table in TABLES {
        // The row it is found by is no column of its own.
        let found_by = "rowid, name, client, place, date, setups, used";
        let columns = if table == "words" { found_by } else { "*" };
        let into = if table == "words" { format!("words ({found_by})") } else { table.to_owned() };
        let copy = format!("INSERT INTO main.{into} SELECT {columns} FROM other.{table}");
        sqlx::query(AssertSqlSafe(copy)).execute(&mut *connection).await?;
    }
    sqlx::query("COMMIT").execute(connection).await?;
    Ok(())
}

/// The day in UTC: a data file knows no place.
fn today() -> String {
    rfc3339(now()).chars().take(10).collect()
}

/// A copy of a copy, brought up to date, so that the copy itself stays as it is. It goes when this does.
struct Readable {
    store: Store,
    file: PathBuf,
    _folder: tempfile::TempDir,
}

impl Readable {
    async fn of(backup: &Path) -> Result<Self, StoreError> {
        let folder = tempfile::tempdir()?;
        opening::is_data_file(backup).await?;
        let file = folder.path().join("backup.sqlite");
        std::fs::copy(backup, &file)?;
        let connections = opening::open(&file, SqliteConnectOptions::new()).await?;
        Ok(Self { store: Store::over(connections, &file).await?, file, _folder: folder })
    }
}

/// All jobs of a data file by their ids, each with whether it is in the bin.
async fn whole(store: &Store) -> Result<BTreeMap<String, (JobSummary, bool)>, StoreError> {
    let mut all = BTreeMap::new();
    for binned in [false, true] {
        let mut after = None;
        loop {
            let page = store.jobs(&Listing { binned, after, limit: 1000, ..Listing::default() }).await?;
            all.extend(page.jobs.into_iter().map(|job| (job.id.clone(), (job, binned))));
            after = page.next;
            if after.is_none() {
                break;
            }
        }
    }
    Ok(all)
}
