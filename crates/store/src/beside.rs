//! What belongs to a data file and lies beside it: the folder of its frames' pictures, its copies. Their names carry the file's
//! name and its id. By its name alone, a file that was put in another's place would sweep the other's pictures away; by its id
//! alone, a file that was copied within its folder would share them with its twin.

use std::io::ErrorKind;
use std::path::{Path, PathBuf};

use crate::Store;
use crate::connection::Connections;
use crate::error::StoreError;

/// The folder of copies, which all data files of a folder share.
const COPIES: &str = "backups";

/// What a data file is called in the names of what belongs to it: `tolva` for `tolva.sqlite`. One with another ending keeps
/// it, so that `work.sqlite` and `work.db` share nothing.
pub(crate) fn short_name(file: &Path) -> String {
    let usual = file.extension().is_none_or(|ending| ending == "sqlite");
    let name = if usual { file.file_stem() } else { file.file_name() };
    name.unwrap_or_default().to_string_lossy().into_owned()
}

/// Whether a copy is a day's, by its name.
pub(crate) fn is_a_day(name: &str) -> bool {
    name.parse::<jiff::civil::Date>().is_ok()
}

impl Store {
    /// The store of a data file whose connections are open.
    pub(crate) async fn over(connections: Connections, file: &Path) -> Result<Self, StoreError> {
        // Given when its tables were made.
        let id = sqlx::query_scalar!("SELECT id FROM own").fetch_one(&connections.readers).await?;
        Ok(Self { connections, file: file.to_owned(), id })
    }

    /// A file or folder beside the data file: `tolva.4f2c9a1b.frames` for `tolva.sqlite`.
    pub(crate) fn beside(&self, what: &str) -> PathBuf {
        self.file.with_file_name(format!("{}.{what}", self.own_name()))
    }

    /// How the names of files and folders that belong to the data file begin: with its name and its id.
    pub(crate) fn own_name(&self) -> String {
        format!("{}.{}", short_name(&self.file), self.id)
    }

    /// The folder of its copies.
    pub(crate) fn copies(&self) -> PathBuf {
        self.file.with_file_name(COPIES)
    }

    /// Renames what a Tolva of before, which knew no ids, kept for this file under its name alone.
    pub(crate) async fn claim(&self) -> Result<(), StoreError> {
        if sqlx::query_scalar!("SELECT claimed FROM own").fetch_one(&self.connections.readers).await? != 0 {
            return Ok(());
        }
        let name = short_name(&self.file);
        rename(&self.file.with_file_name(format!("{name}.frames")), &self.frames_folder())?;
        for entry in std::fs::read_dir(self.copies()).into_iter().flatten().flatten() {
            let Ok(copy) = entry.file_name().into_string() else { continue };
            let Some(rest) = copy.strip_prefix(&format!("{name}.")) else { continue };
            // Copies begin with their day; another file's name may begin as this one's.
            if rest.get(..10).is_some_and(is_a_day) {
                rename(&entry.path(), &self.copies().join(format!("{}.{rest}", self.own_name())))?;
            }
        }
        let mut work = self.connections.writing().await?;
        sqlx::query!("UPDATE own SET claimed = 1").execute(&mut *work).await?;
        work.commit().await
    }
}

/// Renames what is there; nothing is done where nothing is.
fn rename(from: &Path, to: &Path) -> Result<(), StoreError> {
    match std::fs::rename(from, to) {
        Err(error) if error.kind() != ErrorKind::NotFound => Err(StoreError::Picture(from.to_owned(), error)),
        _ => Ok(()),
    }
}
