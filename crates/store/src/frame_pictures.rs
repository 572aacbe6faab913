//! The pictures of frames: files beside the data file. They come into a folder of their own, go to their place when their
//! frame is in the data file, and are swept away when nothing has referred to them for long.

use std::collections::{HashMap, HashSet};
use std::path::{Path, PathBuf};
use std::time::Duration;

use crate::Store;
use crate::documents::now;
use crate::error::{StoreError, no_room};

/// The pictures of a frame that are kept.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Copied {
    /// What everything is measured on: at most two million pixels.
    Measured,
    /// For lists.
    Small,
}

impl Store {
    /// The folder of the frames' pictures.
    pub fn frames_folder(&self) -> PathBuf {
        self.beside("frames")
    }

    /// Where a picture of a frame is, or would be.
    pub fn frame_picture(&self, id: &str, copied: Copied) -> PathBuf {
        let ending = match copied {
            Copied::Measured => "jpg",
            Copied::Small => "small.jpg",
        };
        self.frames_folder().join(format!("{id}.{ending}"))
    }

    /// Where a picture waits until its frame is in the data file.
    pub(crate) fn coming(&self, id: &str, copied: Copied) -> PathBuf {
        let place = self.frame_picture(id, copied);
        self.coming_folder().join(place.file_name().unwrap_or_default())
    }

    fn coming_folder(&self) -> PathBuf {
        self.frames_folder().join("coming")
    }

    /// The pictures of a frame that is in the data file now go to their place.
    pub(crate) fn arrived(&self, id: &str) -> Result<(), StoreError> {
        for copied in [Copied::Measured, Copied::Small] {
            let (from, to) = (self.coming(id, copied), self.frame_picture(id, copied));
            match std::fs::rename(&from, &to) {
                Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
                    return Err(StoreError::Picture(to, error));
                }
                _ => {}
            }
        }
        Ok(())
    }

    /// Puts into their place the pictures of frames whose coming was broken off after they were in the data file.
    pub(crate) async fn settle_frames(&self) -> Result<(), StoreError> {
        let waiting = names_in(&self.coming_folder());
        if waiting.is_empty() {
            return Ok(());
        }
        let there = self.frame_ids().await?;
        for name in waiting {
            let id = id_of(&name);
            if there.contains(id) {
                self.arrived(id)?;
            }
        }
        Ok(())
    }

    async fn frame_ids(&self) -> Result<HashSet<String>, StoreError> {
        let all = sqlx::query_scalar!("SELECT id FROM frames").fetch_all(&self.connections.readers).await?;
        Ok(all.into_iter().collect())
    }

    /// Removes for ever the frames that were put into the bin before an instant, the pictures that no frame has referred to
    /// since before it, and what was left behind by what was broken off a day ago.
    pub(crate) async fn sweep_frames(&self, before: i64) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!("DELETE FROM frames WHERE binned_at < ?", before).execute(&mut *work).await?;
        work.commit().await?;
        let there = self.frame_ids().await?;
        let mut work = self.connections.writing().await?;
        let (now, mut gone) = (now(), Vec::new());
        let found = names_in(&self.frames_folder());
        let known = sqlx::query!("SELECT name, since FROM litter").fetch_all(&mut *work).await?;
        let known: HashMap<String, i64> = known.into_iter().map(|row| (row.name, row.since)).collect();
        for name in &found {
            let since = known.get(name);
            if there.contains(id_of(name)) {
                if since.is_some() {
                    sqlx::query!("DELETE FROM litter WHERE name = ?", name).execute(&mut *work).await?;
                }
                continue;
            }
            match since {
                None => {
                    sqlx::query!("INSERT INTO litter (name, since) VALUES (?, ?)", name, now)
                        .execute(&mut *work)
                        .await?;
                }
                Some(since) if *since < before => gone.push(name),
                Some(_) => {}
            }
        }
        for name in known.keys().filter(|name| !found.contains(*name) || gone.contains(name)) {
            sqlx::query!("DELETE FROM litter WHERE name = ?", name).execute(&mut *work).await?;
        }
        work.commit().await?;
        // Where something cannot be removed now, it is noticed again.
        for name in gone {
            let _ = std::fs::remove_file(self.frames_folder().join(name));
        }
        for folder in [self.coming_folder(), self.frames_folder()] {
            for name in names_in(&folder).into_iter().filter(|name| !there.contains(id_of(name))) {
                let is_part = folder == self.coming_folder() || name.starts_with('.');
                let file = folder.join(&name);
                if is_part && is_older(&file, BROKEN_OFF) {
                    let _ = std::fs::remove_file(file);
                }
            }
        }
        Ok(())
    }
}

/// So long after it was written, what was broken off is known to be no longer under way.
const BROKEN_OFF: Duration = Duration::from_hours(24);

fn is_older(file: &Path, than: Duration) -> bool {
    let at = file.metadata().and_then(|about| about.modified()).ok();
    at.and_then(|at| at.elapsed().ok()).is_some_and(|age| age > than)
}

/// The files in a folder, by their names.
fn names_in(folder: &Path) -> HashSet<String> {
    let entries = std::fs::read_dir(folder).into_iter().flatten().flatten();
    let files = entries.filter(|entry| entry.file_type().is_ok_and(|kind| kind.is_file()));
    files.map(|entry| entry.file_name().to_string_lossy().into_owned()).collect()
}

/// The frame that a picture is of, by the picture's name.
fn id_of(name: &str) -> &str {
    name.split('.').next().unwrap_or_default()
}

/// Writes a file so that it is there as a whole or not at all.
pub(crate) fn write_whole(file: &Path, bytes: &[u8]) -> Result<(), StoreError> {
    let full = |error: std::io::Error| {
        if no_room(&error) { StoreError::DiskFull } else { StoreError::Picture(file.to_owned(), error) }
    };
    let folder = file.parent().unwrap_or_else(|| Path::new("."));
    std::fs::create_dir_all(folder).map_err(full)?;
    let mut part = tempfile::NamedTempFile::new_in(folder).map_err(full)?;
    std::io::Write::write_all(&mut part, bytes).map_err(full)?;
    part.as_file().sync_all().map_err(full)?;
    part.persist(file).map_err(|error| full(error.error))?;
    Ok(())
}
