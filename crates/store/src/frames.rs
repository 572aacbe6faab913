//! Frames that were taken: a row each, and a small copy of each picture as a file beside the data file.

use std::collections::HashMap;
use std::path::{Path, PathBuf};
use std::time::Duration;

use sqlx::SqliteConnection;
use tolva_format::{Job, TakenFrame};
use uuid::Uuid;

use crate::Store;
use crate::content::{pack, unpack};
use crate::documents::{done, done_to, head, now, read};
use crate::error::StoreError;
use crate::jobs::apart;
use crate::kit::owned;
use crate::saved::SavedJob;
use crate::upkeep::BIN_DAYS;

/// A frame of so many a job at most.
const MOST_FRAMES: i64 = 20_000;

/// So long a picture that belongs to no frame is kept.
const KEPT: Duration = Duration::from_hours(24 * BIN_DAYS.unsigned_abs());

/// The pictures of a frame that are kept.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Copied {
    /// What everything is measured on: at most two million pixels.
    Measured,
    /// For lists.
    Small,
}

/// A frame in the data file.
#[derive(Clone, Debug, PartialEq)]
pub struct KeptFrame {
    /// Its job.
    pub job_id: String,
    /// Whether it is in the bin.
    pub binned: bool,
    /// What is kept of it.
    pub frame: TakenFrame,
}

/// A frame from somewhere else, with the pictures that are kept of it.
pub type WithPictures = (TakenFrame, Vec<(Copied, Vec<u8>)>);

/// Which folder's pictures become frames of which setup.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Watched {
    /// The folder.
    pub folder: PathBuf,
    /// The job.
    pub job_id: String,
    /// The setup.
    pub setup_id: String,
}

struct Row {
    id: String,
    job_id: String,
    binned_at: Option<i64>,
    content: Vec<u8>,
}

impl Row {
    fn kept(self) -> Result<KeptFrame, StoreError> {
        let unreadable = |problem: String| StoreError::Unreadable { job: self.id.clone(), problem };
        let json = unpack(&self.content).map_err(|error| unreadable(error.to_string()))?;
        let frame = TakenFrame::stored(&json).map_err(|problems| unreadable(problems.to_string()))?;
        Ok(KeptFrame { job_id: self.job_id, binned: self.binned_at.is_some(), frame })
    }
}

fn written(frame: &TakenFrame) -> Vec<u8> {
    // A document holds strings, finite numbers and lists only, so writing it cannot fail.
    pack(&serde_json::to_string(frame).unwrap_or_default())
}

async fn insert(work: &mut SqliteConnection, job_id: &str, frame: &TakenFrame) -> Result<(), StoreError> {
    let (now, content) = (now(), written(frame));
    sqlx::query!(
        "INSERT INTO frames (id, job_id, setup_id, hash, added_at, content) VALUES (?, ?, ?, ?, ?, ?)",
        frame.id,
        job_id,
        frame.setup_id,
        frame.hash,
        now,
        content
    )
    .execute(work)
    .await?;
    Ok(())
}

impl Store {
    /// The folder of the frames' pictures.
    pub fn frames_folder(&self) -> PathBuf {
        self.file().with_extension("frames")
    }

    /// Where a picture of a frame is, or would be.
    pub fn frame_picture(&self, id: &str, copied: Copied) -> PathBuf {
        let ending = match copied {
            Copied::Measured => "jpg",
            Copied::Small => "small.jpg",
        };
        self.frames_folder().join(format!("{id}.{ending}"))
    }

    /// The frame of a job that came from this file, in the bin or not.
    ///
    /// # Errors
    /// The database's.
    pub async fn frame_of_file(&self, job_id: &str, hash: &str) -> Result<Option<KeptFrame>, StoreError> {
        let row = sqlx::query_as!(
            Row,
            "SELECT id, job_id, binned_at, content FROM frames WHERE job_id = ? AND hash = ?",
            job_id,
            hash
        );
        row.fetch_optional(&self.connections.readers).await?.map(Row::kept).transpose()
    }

    /// Keeps a frame with its pictures. One whose file came before is given as it is, and out of the bin.
    ///
    /// # Errors
    /// No such job, too many frames, a full disk, or the database's.
    pub async fn keep_frame(
        &self,
        job_id: &str,
        frame: &TakenFrame,
        pictures: [(Copied, &[u8]); 2],
    ) -> Result<KeptFrame, StoreError> {
        if let Some(before) = self.frame_of_file(job_id, &frame.hash).await? {
            return if before.binned { self.bin_frame(&before.frame.id, false).await } else { Ok(before) };
        }
        if self.read_only() {
            return Err(StoreError::ReadOnly);
        }
        let mut reader = self.connections.readers.acquire().await?;
        head::<Job>(&mut reader, job_id).await?;
        let count =
            sqlx::query_scalar!("SELECT COUNT(*) FROM frames WHERE job_id = ?", job_id).fetch_one(&mut *reader).await?;
        drop(reader);
        if count >= MOST_FRAMES {
            return Err(StoreError::TooManyFrames(MOST_FRAMES));
        }
        // The pictures first: a row without its picture would be a frame that nobody can look at, a picture without a row is
        // only litter, which is swept away.
        for (copied, bytes) in pictures {
            write_whole(&self.frame_picture(&frame.id, copied), bytes)?;
        }
        let mut work = self.connections.writing().await?;
        head::<Job>(&mut work, job_id).await?;
        insert(&mut work, job_id, frame).await?;
        work.commit().await?;
        Ok(KeptFrame { job_id: job_id.to_owned(), binned: false, frame: frame.clone() })
    }

    /// Keeps a job from somewhere else with its frames: all of them, or nothing. The job and the frames get ids of their own;
    /// what the frames' setups use is set apart from what is owned here as what the job's do.
    ///
    /// # Errors
    /// Too many frames, one that is there twice, a full disk, or the database's.
    pub async fn add_with_frames(
        &self,
        job: Job,
        (change, key): (&str, Option<&str>),
        frames: Vec<WithPictures>,
    ) -> Result<SavedJob, StoreError> {
        if frames.len() > usize::try_from(MOST_FRAMES).unwrap_or(usize::MAX) {
            return Err(StoreError::TooManyFrames(MOST_FRAMES));
        }
        if self.read_only() {
            return Err(StoreError::ReadOnly);
        }
        let (mut kept, mut with_theirs) = (Vec::with_capacity(frames.len()), job);
        let mut names = HashMap::new();
        let own = with_theirs.setups.len();
        for (frame, pictures) in frames {
            let was = frame.id.clone();
            let frame = TakenFrame { id: Uuid::new_v4().to_string(), ..frame };
            names.insert(was, frame.id.clone());
            for (copied, bytes) in pictures {
                write_whole(&self.frame_picture(&frame.id, copied), &bytes)?;
            }
            with_theirs.setups.push(frame.setup.clone());
            kept.push(frame);
        }
        // What was learnt of a frame stays so: it does not teach the same again.
        let learnt = with_theirs.setups.iter_mut().filter_map(|setup| setup.learnt.as_mut());
        for id in learnt.flat_map(|learnt| &mut learnt.from) {
            if let Some(now) = names.get(id) {
                id.clone_from(now);
            }
        }
        let mut work = self.connections.writing().await?;
        let owned = owned(&mut work).await?;
        if let Some(id) = done_to(&mut work, key).await? {
            return read(&mut work, &id, &owned).await;
        }
        let mut job = apart(with_theirs, &owned);
        let theirs = job.setups.split_off(own);
        let id = self.add_within(&mut work, &owned, job, change).await?;
        for (frame, setup) in kept.into_iter().zip(theirs) {
            insert(&mut work, &id, &TakenFrame { setup, ..frame }).await?;
        }
        done(&mut work, key, &id).await?;
        let saved = read(&mut work, &id, &owned).await?;
        work.commit().await?;
        Ok(saved)
    }

    /// The frames of a job, or of one setup of it, in the order they came; those in the bin instead where asked.
    ///
    /// # Errors
    /// A frame that cannot be read, or the database's.
    pub async fn frames(
        &self,
        job_id: &str,
        setup_id: Option<&str>,
        binned: bool,
    ) -> Result<Vec<TakenFrame>, StoreError> {
        let rows = sqlx::query_as!(
            Row,
            "SELECT id, job_id, binned_at, content FROM frames
             WHERE job_id = ?1 AND (?2 IS NULL OR setup_id = ?2) AND (binned_at IS NOT NULL) = ?3 ORDER BY row",
            job_id,
            setup_id,
            binned
        )
        .fetch_all(&self.connections.readers)
        .await?;
        rows.into_iter().map(|row| Ok(row.kept()?.frame)).collect()
    }

    /// The job that frames came of last; nothing where none has any.
    ///
    /// # Errors
    /// The database's.
    pub async fn last_job_with_frames(&self) -> Result<Option<String>, StoreError> {
        Ok(sqlx::query_scalar!("SELECT job_id FROM frames WHERE binned_at IS NULL ORDER BY row DESC LIMIT 1")
            .fetch_optional(&self.connections.readers)
            .await?)
    }

    /// A frame, in the bin or not.
    ///
    /// # Errors
    /// No such frame, one that cannot be read, or the database's.
    pub async fn frame(&self, id: &str) -> Result<KeptFrame, StoreError> {
        let row = sqlx::query_as!(Row, "SELECT id, job_id, binned_at, content FROM frames WHERE id = ?", id)
            .fetch_optional(&self.connections.readers)
            .await?;
        row.ok_or_else(|| StoreError::NoSuchFrame(id.to_owned()))?.kept()
    }

    /// Keeps what was changed of a frame.
    ///
    /// # Errors
    /// No such frame, a full disk, or the database's.
    pub async fn change_frame(&self, frame: &TakenFrame) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        let content = written(frame);
        let done =
            sqlx::query!("UPDATE frames SET content = ? WHERE id = ?", content, frame.id).execute(&mut *work).await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::NoSuchFrame(frame.id.clone()));
        }
        work.commit().await
    }

    /// Puts a frame into the bin, or gives it back.
    ///
    /// # Errors
    /// No such frame, a full disk, or the database's.
    pub async fn bin_frame(&self, id: &str, binned: bool) -> Result<KeptFrame, StoreError> {
        let mut work = self.connections.writing().await?;
        let at = binned.then(now);
        sqlx::query!("UPDATE frames SET binned_at = ? WHERE id = ?", at, id).execute(&mut *work).await?;
        work.commit().await?;
        self.frame(id).await
    }

    /// Which folder's pictures become frames.
    ///
    /// # Errors
    /// The database's.
    pub async fn watched(&self) -> Result<Option<Watched>, StoreError> {
        let row = sqlx::query!("SELECT folder, job_id, setup_id FROM watched WHERE id = 1")
            .fetch_optional(&self.connections.readers)
            .await?;
        Ok(row.map(|row| Watched { folder: row.folder.into(), job_id: row.job_id, setup_id: row.setup_id }))
    }

    /// Has a folder's pictures become frames of a setup from now on, or no folder's.
    ///
    /// # Errors
    /// No such job, a full disk, or the database's.
    pub async fn watch(&self, watched: Option<&Watched>) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!("DELETE FROM watched").execute(&mut *work).await?;
        if let Some(Watched { folder, job_id, setup_id }) = watched {
            head::<Job>(&mut work, job_id).await?;
            let folder = folder.to_string_lossy().into_owned();
            sqlx::query!(
                "INSERT INTO watched (id, folder, job_id, setup_id) VALUES (1, ?, ?, ?)",
                folder,
                job_id,
                setup_id
            )
            .execute(&mut *work)
            .await?;
        }
        work.commit().await
    }

    /// Removes for ever the frames that were put into the bin before an instant, and pictures that belong to no frame.
    pub(crate) async fn sweep_frames(&self, before: i64) -> Result<(), StoreError> {
        let mut work = self.connections.writing().await?;
        sqlx::query!("DELETE FROM frames WHERE binned_at < ?", before).execute(&mut *work).await?;
        let there = sqlx::query_scalar!("SELECT id FROM frames").fetch_all(&mut *work).await?;
        work.commit().await?;
        let there: std::collections::HashSet<String> = there.into_iter().collect();
        for entry in std::fs::read_dir(self.frames_folder()).into_iter().flatten().flatten() {
            let name = entry.file_name().to_string_lossy().into_owned();
            let id = name.split('.').next().unwrap_or_default();
            // A restored backup may know again what this file has forgotten.
            let age = entry.metadata().and_then(|about| about.modified()).ok().and_then(|at| at.elapsed().ok());
            let old = age.is_some_and(|age| age > KEPT);
            if old && !there.contains(id) {
                // Where it cannot be removed now, it is tried again.
                let _ = std::fs::remove_file(entry.path());
            }
        }
        Ok(())
    }
}

/// Writes a file so that it is there as a whole or not at all.
fn write_whole(file: &Path, bytes: &[u8]) -> Result<(), StoreError> {
    let full = |error: std::io::Error| match error.kind() {
        std::io::ErrorKind::StorageFull
        | std::io::ErrorKind::QuotaExceeded
        | std::io::ErrorKind::ReadOnlyFilesystem => StoreError::DiskFull,
        _ => StoreError::Picture(file.to_owned(), error),
    };
    let folder = file.parent().unwrap_or_else(|| Path::new("."));
    std::fs::create_dir_all(folder).map_err(full)?;
    let mut part = tempfile::NamedTempFile::new_in(folder).map_err(full)?;
    std::io::Write::write_all(&mut part, bytes).map_err(full)?;
    part.as_file().sync_all().map_err(full)?;
    part.persist(file).map_err(|error| full(error.error))?;
    Ok(())
}
