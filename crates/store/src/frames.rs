//! Frames that were taken: a row each, and a small copy of each picture as a file beside the data file.

use std::collections::HashMap;
use std::path::PathBuf;

use sqlx::SqliteConnection;
use tolva_format::{Job, Problems, TakenFrame};
use uuid::Uuid;

use crate::Store;
use crate::content::{pack, unpack};
use crate::documents::{Document as _, Sent, done, done_to, head, now, read};
use crate::error::StoreError;
use crate::frame_pictures::{Copied, write_whole};
use crate::jobs::apart;
use crate::kit::owned;
use crate::saved::SavedJob;

/// A frame of so many a job at most.
const MOST_FRAMES: i64 = 20_000;

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

pub(crate) struct Row {
    pub id: String,
    pub job_id: String,
    pub binned_at: Option<i64>,
    pub content: Vec<u8>,
}

impl Row {
    pub fn kept(self) -> Result<KeptFrame, StoreError> {
        let unreadable = |problem: String| StoreError::Unreadable { job: self.id.clone(), problem };
        let json = unpack(&self.content).map_err(|error| unreadable(error.to_string()))?;
        let frame = TakenFrame::stored(&json).map_err(|problems| unreadable(problems.to_string()))?;
        Ok(KeptFrame { job_id: self.job_id, binned: self.binned_at.is_some(), frame })
    }
}

/// A frame as it is kept.
///
/// # Errors
/// More than could be read again.
fn written(frame: &TakenFrame) -> Result<Vec<u8>, StoreError> {
    // A document holds strings, finite numbers and lists only, so writing it cannot fail.
    let json = serde_json::to_string(frame).unwrap_or_default();
    if json.len() > MOST_OF_A_FRAME {
        let says = format!("what is to be kept of it is {} bytes long: at most {MOST_OF_A_FRAME}", json.len());
        return Err(StoreError::Wrong(Problems::one("", says)));
    }
    Ok(pack(&json))
}

/// So many bytes are kept of a frame beside its pictures: a setup with everything in it takes a tenth.
const MOST_OF_A_FRAME: usize = 4 * 1024 * 1024;

/// What is written down of a frame for lists.
fn summary(frame: &TakenFrame) -> String {
    // Strings, finite numbers and lists: writing it cannot fail.
    serde_json::to_string(&frame.summary()).unwrap_or_default()
}

async fn insert(work: &mut SqliteConnection, job_id: &str, frame: &TakenFrame) -> Result<(), StoreError> {
    let (now, content, summary) = (now(), written(frame)?, summary(frame));
    sqlx::query!(
        "INSERT INTO frames (id, job_id, setup_id, hash, added_at, content, summary) VALUES (?, ?, ?, ?, ?, ?, ?)",
        frame.id,
        job_id,
        frame.setup_id,
        frame.hash,
        now,
        content,
        summary
    )
    .execute(work)
    .await?;
    Ok(())
}

impl Store {
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
            if before.binned {
                self.bin_frame(&before.frame.id, false).await?;
            }
            return Ok(KeptFrame { binned: false, ..before });
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
        // The pictures first, into a folder for what is coming: a row without its picture would be a frame that nobody can
        // look at. What is left there by a process that was killed is moved when the file is opened, or swept away.
        for (copied, bytes) in pictures {
            write_whole(&self.coming(&frame.id, copied), bytes)?;
        }
        let mut work = self.connections.writing().await?;
        head::<Job>(&mut work, job_id).await?;
        insert(&mut work, job_id, frame).await?;
        work.commit().await?;
        self.arrived(&frame.id)?;
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
        let sent = Sent::of(key, &frames.iter().fold(job.written(), |said, (frame, _)| said + &frame.hash));
        {
            // Sent again, nothing is written once more.
            let mut work = self.connections.writing().await?;
            if let Some(id) = done_to(&mut work, &sent).await? {
                let owned = owned(&mut work).await?;
                return read(&mut work, &id, &owned).await;
            }
        }
        let (mut kept, mut with_theirs) = (Vec::with_capacity(frames.len()), job);
        let mut names = HashMap::new();
        let own = with_theirs.setups.len();
        for (frame, pictures) in frames {
            let was = frame.id.clone();
            let frame = TakenFrame { id: Uuid::new_v4().to_string(), ..frame };
            names.insert(was, frame.id.clone());
            for (copied, bytes) in pictures {
                write_whole(&self.coming(&frame.id, copied), &bytes)?;
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
        // The same may have been sent twice at once; the pictures of the second are swept away.
        if let Some(id) = done_to(&mut work, &sent).await? {
            return read(&mut work, &id, &owned).await;
        }
        let mut job = apart(with_theirs, &owned);
        let theirs = job.setups.split_off(own);
        let id = self.add_within(&mut work, &owned, job, change).await?;
        let mut came = Vec::with_capacity(kept.len());
        for (frame, setup) in kept.into_iter().zip(theirs) {
            came.push(frame.id.clone());
            insert(&mut work, &id, &TakenFrame { setup, ..frame }).await?;
        }
        done(&mut work, &sent, &id).await?;
        let saved = read(&mut work, &id, &owned).await?;
        work.commit().await?;
        for id in came {
            self.arrived(&id)?;
        }
        Ok(saved)
    }

    /// The frames of a job that are not in the bin, with their setups as they stood, in the order they came, as far as they
    /// can be read. For what takes everything out; lists read [`Store::frame_list`].
    ///
    /// # Errors
    /// The database's.
    pub async fn frames(&self, job_id: &str) -> Result<Vec<TakenFrame>, StoreError> {
        let rows = sqlx::query_as!(
            Row,
            "SELECT id, job_id, binned_at, content FROM frames WHERE job_id = ? AND binned_at IS NULL ORDER BY row",
            job_id
        )
        .fetch_all(&self.connections.readers)
        .await?;
        // Away from the threads that talk to the network: of thousands it takes a while.
        let kept = move || rows.into_iter().filter_map(|row| Some(row.kept().ok()?.frame)).collect();
        tokio::task::spawn_blocking(kept).await.map_err(|error| std::io::Error::other(error).into())
    }

    /// The last frame of a setup that came and is not in the bin.
    ///
    /// # Errors
    /// The database's.
    pub async fn last_frame(&self, job_id: &str, setup_id: &str) -> Result<Option<TakenFrame>, StoreError> {
        let row = sqlx::query_as!(
            Row,
            "SELECT id, job_id, binned_at, content FROM frames
             WHERE job_id = ? AND setup_id = ? AND binned_at IS NULL ORDER BY row DESC LIMIT 1",
            job_id,
            setup_id
        )
        .fetch_optional(&self.connections.readers)
        .await?;
        // One that cannot be read is followed by nothing.
        Ok(row.and_then(|row| row.kept().ok()).map(|kept| kept.frame))
    }

    /// How many frames of a setup there are outside the bin.
    ///
    /// # Errors
    /// The database's.
    pub async fn count_frames(&self, job_id: &str, setup_id: &str) -> Result<usize, StoreError> {
        let count = sqlx::query_scalar!(
            "SELECT COUNT(*) FROM frames WHERE job_id = ? AND setup_id = ? AND binned_at IS NULL",
            job_id,
            setup_id
        );
        Ok(usize::try_from(count.fetch_one(&self.connections.readers).await?).unwrap_or_default())
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
        let (content, summary) = (written(frame)?, summary(frame));
        let done = sqlx::query!("UPDATE frames SET content = ?, summary = ? WHERE id = ?", content, summary, frame.id)
            .execute(&mut *work)
            .await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::NoSuchFrame(frame.id.clone()));
        }
        work.commit().await
    }

    /// Puts a frame into the bin, or gives it back, whether it can be read or not: its job.
    ///
    /// # Errors
    /// No such frame, a full disk, or the database's.
    pub async fn bin_frame(&self, id: &str, binned: bool) -> Result<String, StoreError> {
        let mut work = self.connections.writing().await?;
        let at = binned.then(now);
        let job_id = sqlx::query_scalar!("UPDATE frames SET binned_at = ? WHERE id = ? RETURNING job_id", at, id)
            .fetch_optional(&mut *work)
            .await?;
        work.commit().await?;
        job_id.ok_or_else(|| StoreError::NoSuchFrame(id.to_owned()))
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
}
