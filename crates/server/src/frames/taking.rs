//! A picture becomes a frame of a setup: read, copied, marked where its regions are, measured, kept.

use std::path::Path;
use std::sync::Arc;
use std::time::Duration;

use sha2::{Digest as _, Sha256};
use tempfile::NamedTempFile;
use tolva_core::frame::{Photo, moved};
use tolva_core::proof::Picture;
use tolva_format::{FORMAT_VERSION, FrameMark, FrameSettings, Job, Kit, MarksBy, Setup, TakenFrame};
use tolva_pictures::{Frame, Taken, jpeg, read, small_jpeg};
use tolva_store::{Copied, KeptFrame, Store};

use super::expected::{expected, proposed};
use super::judged::judge;
use super::opened::Opened;
use super::{FrameError, Frames, curve_of, no_such_setup};
use crate::proofs::Proofs;

/// The copy is written so finely that its levels are those of the file.
const QUALITY: u8 = 97;
/// The longest a picture's work may take. The largest that is accepted needs a tenth of it; a development build takes many
/// times as long.
const MEASURING_LIMIT: Duration = Duration::from_secs(if cfg!(debug_assertions) { 180 } else { 20 });
/// The longer side of a picture in a list, in pixels, and how finely it is written.
const SMALL: (u32, u8) = (264, 85);
/// A file that was sent. What waits for its turn lies on the disk.
#[derive(Debug)]
pub enum Sent {
    /// In memory.
    Here(Vec<u8>),
    /// In a file of its own, which goes with it.
    Spooled(NamedTempFile),
}

impl Sent {
    fn bytes(self) -> Result<Vec<u8>, FrameError> {
        match self {
            Self::Here(bytes) => Ok(bytes),
            Self::Spooled(file) => std::fs::read(file.path()).map_err(|_| FrameError::Stopped),
        }
    }
}

/// A picture that has come.
#[derive(Debug)]
pub struct Arrived {
    /// What its file is called.
    pub name: String,
    /// The file.
    pub file: Sent,
    /// Somebody has sent it: it comes back out of the bin. What only lies in a folder stays there.
    pub by_hand: bool,
    /// The setup as it stood, where whoever sends it knows better than what is stored.
    pub setup: Option<Setup>,
}

/// Takes a picture in as a frame of a setup as it is stored. Whether it is new: the same file comes once.
///
/// # Errors
/// No picture, no such setup, a full disk.
pub async fn take_in(
    (store, frames, proofs): (&Store, &Arc<Frames>, &Arc<Proofs>),
    (job_id, setup_id): (&str, &str),
    arrived: Arrived,
) -> Result<(KeptFrame, bool), FrameError> {
    let Some(_turn) = frames.turn().await else { return Err(FrameError::Stopped) };
    let Arrived { name, file, by_hand, setup: sent_setup } = arrived;
    let read = elsewhere(move || {
        let bytes = file.bytes()?;
        Ok((format!("{:x}", Sha256::digest(&bytes)), bytes))
    });
    let (hash, bytes) = read.await?;
    if let Some(before) = store.frame_of_file(job_id, &hash).await? {
        let back = before.binned && by_hand;
        if back {
            store.bin_frame(&before.frame.id, false).await?;
        }
        return Ok((KeptFrame { binned: before.binned && !back, ..before }, false));
    }
    let Job { setups, kit, .. } = store.job(job_id).await?.document;
    let stored = setups.into_iter().find(|one| one.id == setup_id).ok_or_else(|| no_such_setup(setup_id))?;
    let setup = sent_setup.unwrap_or(stored);
    let before = store.last_frame(job_id, setup_id).await?;
    let before = before.map(|frame| {
        let picture = store.frame_picture(&frame.id, Copied::Measured);
        (frame, picture)
    });
    let (again, proofs) = (Arc::clone(frames), Arc::clone(proofs));
    let made = move || {
        made(
            (&name, &bytes),
            hash,
            (setup, &kit),
            before.as_ref().map(|(f, p)| (f, p.as_path())),
            &again.opened,
            &proofs,
        )
    };
    let (frame, copy, small) = limited(MEASURING_LIMIT, made).await?;
    let kept = store.keep_frame(job_id, &frame, [(Copied::Measured, &copy), (Copied::Small, &small)]).await?;
    frames.tell(job_id, None);
    Ok((kept, true))
}

/// Work that takes a while, away from the threads that talk to the network.
async fn elsewhere<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, FrameError> + Send + 'static,
) -> Result<T, FrameError> {
    tokio::task::spawn_blocking(work).await.map_err(|_| FrameError::Stopped)?
}

/// Work on one picture, waited for only so long: the next picture gets its turn whatever becomes of this one.
async fn limited<T: Send + 'static>(
    limit: Duration,
    work: impl FnOnce() -> Result<T, FrameError> + Send + 'static,
) -> Result<T, FrameError> {
    tokio::time::timeout(limit, elsewhere(work)).await.map_err(|_| FrameError::TooLong(limit))?
}

/// The copy as it is kept: what was full in the file is full in it.
fn copied(photo: &Photo) -> Picture {
    let full =
        |(pixel, clipped): (&[f32; 3], &u8)| if *clipped >= 128 { pixel.map(|part| part.max(1.0)) } else { *pixel };
    let pixels = photo.picture.pixels.iter().zip(&photo.clipped).map(full).collect();
    Picture { size: photo.picture.size, pixels }
}

/// The picture for lists.
pub(super) fn small_copy(picture: &Picture) -> image::ImageResult<Vec<u8>> {
    small_jpeg(picture, SMALL.0, SMALL.1)
}

#[expect(clippy::needless_pass_by_value, reason = "it maps errors")]
fn broken(error: image::ImageError) -> FrameError {
    tracing::error!(%error, "a copy could not be written");
    FrameError::Missing
}

type Made = (TakenFrame, Vec<u8>, Vec<u8>);

fn made(
    (name, bytes): (&str, &[u8]),
    hash: String,
    (setup, kit): (Setup, &Kit),
    before: Option<(&TakenFrame, &Path)>,
    opened: &Opened,
    proofs: &Proofs,
) -> Result<Made, FrameError> {
    // As the file has it: a camera's curve is undone whenever the copy is measured.
    let Frame { photo, taken, size, preview } = read(bytes, None)?;
    let picture = copied(&photo);
    let copy = jpeg(&picture, QUALITY, None).map_err(broken)?;
    let small = small_copy(&picture).map_err(broken)?;
    let curve = curve_of(kit, &setup.camera_id);
    // Measured on what is kept, so that it is the same when it is measured again.
    let photo = read(&copy, curve.as_ref())?.photo;
    let (marks, marks_by) = match before {
        Some((before, file)) if !before.marks.is_empty() => {
            followed(before, opened.photo(&before.id, file, curve.as_ref()).ok().as_deref(), &photo)
        }
        _ => (Vec::new(), MarksBy::Found),
    };
    let number = |pixels: usize| u32::try_from(pixels).unwrap_or(u32::MAX);
    let mut wrong = taken.wrong.clone();
    let settings = settings(&taken, &mut wrong);
    wrong.truncate(20);
    let mut frame = TakenFrame {
        shot_id: None,
        id: uuid::Uuid::new_v4().to_string(),
        format_version: FORMAT_VERSION,
        setup_id: setup.id.clone(),
        name: cut(name, 255),
        hash,
        added_at: format!("{:.3}", jiff::Timestamp::now()),
        width: number(size.wide),
        height: number(size.high),
        settings,
        at: taken.at.map(|at| at.to_string()),
        camera: taken.camera,
        wrong,
        raw_preview: preview,
        simulated: taken.simulated,
        marks,
        marks_by,
        came: Vec::new(),
        note: String::new(),
        changed: Vec::new(),
        setup,
    };
    let expected = expected(&frame, kit, proofs);
    if frame.marks.is_empty()
        && let Some(expected) = &expected
    {
        frame.marks = proposed(&frame, expected);
    }
    judge(&mut frame, (&photo, expected.as_ref()), kit)?;
    Ok((frame, copy, small))
}

fn cut(name: &str, most: usize) -> String {
    let plain: String = name.chars().filter(|letter| !letter.is_control()).take(most).collect();
    if plain.trim().is_empty() { "picture".to_owned() } else { plain }
}

/// What the file says it was taken with, as far as it can be.
fn settings(taken: &Taken, wrong: &mut Vec<String>) -> FrameSettings {
    let mut within = |name: &str, value: Option<f64>, least: f64, most: f64| {
        let good = value.filter(|value| (least..=most).contains(value));
        if let (Some(value), None) = (value, good) {
            wrong.push(format!("{name} {value}"));
        }
        good
    };
    FrameSettings {
        shutter_s: within("ExposureTime", taken.shutter_s, 0.000_01, 3600.0),
        f_number: within("FNumber", taken.f_number, 0.5, 128.0),
        iso: within("PhotographicSensitivity", taken.iso, 3.0, 10_000_000.0),
        focal_length_mm: within("FocalLength", taken.focal_length_mm, 1.0, 3000.0),
        flash: taken.flash,
    }
}

/// The marks of the frame before, moved as the picture has; and whether it could not be told how it has.
fn followed(before: &TakenFrame, then: Option<&Photo>, now: &Photo) -> (Vec<FrameMark>, MarksBy) {
    let by = then.and_then(|then| moved(then, now)).filter(|by| by.is_sure());
    let (right, down) = by.map_or((0.0, 0.0), |by| (by.right, by.down));
    let within = |mark: &FrameMark| FrameMark {
        left: (mark.left + right).clamp(0.0, 1.0 - mark.width),
        top: (mark.top + down).clamp(0.0, 1.0 - mark.height),
        measured: None,
        ..mark.clone()
    };
    (before.marks.iter().map(within).collect(), if by.is_none() { MarksBy::Lost } else { MarksBy::Found })
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Work without an end is given up, and its thread is not waited for.
    #[tokio::test]
    async fn work_on_a_picture_has_a_limit() {
        let (done, waits) = std::sync::mpsc::channel::<()>();
        let work = move || waits.recv().map_err(|_| FrameError::Stopped);
        assert!(matches!(limited(Duration::ZERO, work).await, Err(FrameError::TooLong(_))));
        drop(done);
        assert_eq!(limited(MEASURING_LIMIT, || Ok(7)).await.ok(), Some(7));
    }
}
