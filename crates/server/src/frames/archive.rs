//! A job with its frames as one file: a ZIP with the job file, the log of its frames as JSON and CSV, and the copies of
//! their pictures. Written, and read again on any machine.

use std::collections::{HashMap, HashSet};
use std::io::{Cursor, Read as _, Seek, Write as _};
use std::marker::PhantomData;
use std::path::PathBuf;
use std::time::{Duration, Instant};

use serde::de::{Error as _, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer};
use serde_json::json;
use serde_json::value::RawValue;
use sha2::{Digest as _, Sha256};
use tolva_format::{Job, Problems, TakenFrame};
use tolva_pictures::{Unreadable, read};
use tolva_store::{Copied, SavedJob, Store, StoreError, WithPictures};
use zip::write::{SimpleFileOptions, ZipWriter};
use zip::{CompressionMethod, ZipArchive};

use super::taking::small_copy;

/// So much of pictures an archive holds at most, in bytes: what would be more is left out and named in it.
const MOST: usize = 300_000_000;
/// With the job and the log, and what a ZIP has around them.
pub const MOST_WHOLE: usize = MOST + 100_000_000;
/// The largest job file, and the largest log.
const MOST_JOB: u64 = 8_000_000;
const MOST_LOG: u64 = 80_000_000;

const JOB: &str = "job.tolva.json";
const LOG: &str = "frames.json";
const TABLE: &str = "frames.csv";

fn picture_of(id: &str) -> String {
    format!("frames/{id}.jpg")
}

/// A job with its frames, as one file.
pub fn packed(
    job: &Job,
    table: &str,
    frames: &[TakenFrame],
    picture: impl Fn(&str) -> PathBuf,
) -> Result<Vec<u8>, Box<dyn std::error::Error>> {
    let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
    // Pictures are packed already.
    let plain = SimpleFileOptions::default().compression_method(CompressionMethod::Stored);
    let mut put = |name: &str, bytes: &[u8]| -> Result<(), Box<dyn std::error::Error>> {
        zip.start_file(name, plain)?;
        Ok(zip.write_all(bytes)?)
    };
    put(JOB, job.to_json().as_bytes())?;
    put(TABLE, table.as_bytes())?;
    let (mut bytes, mut left_out) = (0, Vec::new());
    for frame in frames {
        match std::fs::read(picture(&frame.id)) {
            Ok(picture) if bytes + picture.len() <= MOST => {
                bytes += picture.len();
                put(&picture_of(&frame.id), &picture)?;
            }
            _ => left_out.push(frame.id.as_str()),
        }
    }
    let log = json!({ "format": "tolva-frames", "frames": frames, "without_picture": left_out });
    put(LOG, serde_json::to_string_pretty(&log)?.as_bytes())?;
    Ok(zip.finish()?.into_inner())
}

/// Why a file is no job with its frames.
#[derive(Debug, thiserror::Error)]
pub enum NoArchive {
    /// Another kind of file, or a part of one.
    #[error("it is no ZIP that can be read: {0}")]
    Zip(String),
    /// A ZIP of something else.
    #[error("it holds no {JOB}: only a ZIP of a job with its frames can be imported")]
    NoJob,
    /// A part that is larger than such a part can be.
    #[error("“{0}” in it is too large: at most {1} bytes of it are read")]
    TooLarge(String, u64),
    /// A part cannot be unpacked.
    #[error("“{0}” in it cannot be unpacked: {1}")]
    Damaged(String, String),
    /// A picture is none.
    #[error("“{0}” in it cannot be read as a picture: {1}")]
    Picture(String, Unreadable),
    /// It would take too long, or nobody waits for it any more.
    #[error("it takes too long: fewer frames, or smaller pictures, are read")]
    TooLong,
    /// What is wrong in the job file, or in the log.
    #[error("the job file in it, or the log of frames, is wrong")]
    Wrong(Problems),
}

/// Whether somebody still waits for what is read.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Go {
    /// Yes.
    On,
    /// No.
    Away,
}

/// A job with its frames, read.
#[derive(Debug)]
pub struct Archive {
    /// The job.
    pub job: Job,
    /// Its frames in the order they came, each with the pictures that are kept of it.
    frames: Vec<WithPictures>,
}

/// The log, each frame as it stands: how many there are is known before any of them is made something of.
#[derive(Default, Deserialize)]
struct Log<'a> {
    #[serde(borrow, default)]
    frames: Frames<'a>,
}

/// No more frames than a job holds.
#[derive(Default)]
struct Frames<'a>(Vec<&'a RawValue>);

/// So many frames an archive holds at most: as a job.
const MOST_FRAMES: usize = 20_000;
/// So many bytes a frame takes at most in the log.
const MOST_FRAME: usize = 4_000_000;
/// So long an archive is worked on.
const WORKED_ON: Duration = Duration::from_secs(if cfg!(debug_assertions) { 1200 } else { 120 });

impl<'de: 'a, 'a> Deserialize<'de> for Frames<'a> {
    fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
        struct Each<'a>(PhantomData<&'a ()>);
        impl<'de: 'a, 'a> Visitor<'de> for Each<'a> {
            type Value = Frames<'a>;

            fn expecting(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str("a list of frames")
            }

            fn visit_seq<A: SeqAccess<'de>>(self, mut all: A) -> Result<Self::Value, A::Error> {
                let mut frames = Vec::new();
                while let Some(frame) = all.next_element::<&RawValue>()? {
                    if frames.len() == MOST_FRAMES || frame.get().len() > MOST_FRAME {
                        let says = format!("at most {MOST_FRAMES} frames of {MOST_FRAME} bytes each are read");
                        return Err(A::Error::custom(says));
                    }
                    frames.push(frame);
                }
                Ok(Frames(frames))
            }
        }
        from.deserialize_seq(Each(PhantomData))
    }
}

impl Archive {
    /// Whether a file begins as a ZIP does.
    pub fn is_one(file: &[u8]) -> bool {
        file.starts_with(b"PK\x03\x04")
    }

    /// Reads one. Everything in it is looked at before anything is kept.
    ///
    /// # Errors
    /// What is wrong with it, and where.
    pub fn read(file: &[u8]) -> Result<Self, NoArchive> {
        Self::read_while(file, || Go::On)
    }

    /// The same, as long as somebody waits for it.
    ///
    /// # Errors
    /// As [`Self::read`], and where nobody waits any more.
    pub fn read_while(file: &[u8], goes_on: impl Fn() -> Go) -> Result<Self, NoArchive> {
        Self::within(file, MOST, goes_on)
    }

    /// With so much of pictures at most: what is packed small may be large.
    fn within(file: &[u8], most: usize, goes_on: impl Fn() -> Go) -> Result<Self, NoArchive> {
        let mut zip = ZipArchive::new(Cursor::new(file)).map_err(|error| NoArchive::Zip(error.to_string()))?;
        let job = part(&mut zip, JOB, MOST_JOB)?.ok_or(NoArchive::NoJob)?;
        let job = Job::from_json(&job).map_err(NoArchive::Wrong)?;
        let log = part(&mut zip, LOG, MOST_LOG)?;
        let log = log.unwrap_or_else(|| b"{}".to_vec());
        let unreadable = |error: serde_json::Error| NoArchive::Damaged(LOG.to_owned(), error.to_string());
        let log: Log<'_> = serde_json::from_slice(&log).map_err(unreadable)?;
        let begun = Instant::now();
        // Frames may share a picture: it is read once.
        let mut smalls: HashMap<[u8; 32], Vec<u8>> = HashMap::new();
        let (mut frames, mut files, mut left) = (Vec::new(), HashSet::new(), most);
        for (at, frame) in log.frames.0.iter().enumerate() {
            if begun.elapsed() > WORKED_ON || goes_on() == Go::Away {
                return Err(NoArchive::TooLong);
            }
            let frame = TakenFrame::from_elsewhere(frame.get().as_bytes())
                .map_err(|wrong| NoArchive::Wrong(wrong.within(&format!("/frames/{at}"))))?;
            // The same file is one frame of a job.
            if !files.insert(frame.hash.clone()) {
                continue;
            }
            let name = picture_of(&frame.id);
            let pictures = match part(&mut zip, &name, left as u64)? {
                Some(copy) => {
                    left -= copy.len();
                    let hash: [u8; 32] = Sha256::digest(&copy).into();
                    let small = if let Some(small) = smalls.get(&hash) {
                        small.clone()
                    } else {
                        let photo = read(&copy, None).map_err(|why| NoArchive::Picture(name.clone(), why))?.photo;
                        let small = small_copy(&photo.picture);
                        smalls
                            .entry(hash)
                            .or_insert(small.map_err(|why| NoArchive::Damaged(name, why.to_string()))?)
                            .clone()
                    };
                    vec![(Copied::Measured, copy), (Copied::Small, small)]
                }
                None => Vec::new(),
            };
            frames.push((frame, pictures));
        }
        Ok(Self { job, frames })
    }

    /// Keeps it as a job of its own: all of it, or nothing.
    ///
    /// # Errors
    /// The store's: a full disk, a data file that can only be read.
    pub async fn kept(self, store: &Store, key: Option<&str>) -> Result<SavedJob, StoreError> {
        store.add_with_frames(self.job, ("Import", key), self.frames).await
    }
}

/// A part by its name; nothing where it is not there.
fn part<R: std::io::Read + Seek>(zip: &mut ZipArchive<R>, name: &str, most: u64) -> Result<Option<Vec<u8>>, NoArchive> {
    let damaged = |error: &dyn std::fmt::Display| NoArchive::Damaged(name.to_owned(), error.to_string());
    let file = match zip.by_name(name) {
        Ok(file) => file,
        Err(zip::result::ZipError::FileNotFound) => return Ok(None),
        Err(error) => return Err(damaged(&error)),
    };
    let mut bytes = Vec::new();
    // What a ZIP says of a part's size is not to be trusted.
    file.take(most + 1).read_to_end(&mut bytes).map_err(|error| damaged(&error))?;
    if bytes.len() as u64 > most {
        return Err(NoArchive::TooLarge(name.to_owned(), most));
    }
    Ok(Some(bytes))
}

impl From<NoArchive> for Problems {
    fn from(why: NoArchive) -> Self {
        match why {
            NoArchive::Wrong(problems) => problems,
            why => Self::one("", why.to_string()),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn zipped(log: &str) -> Vec<u8> {
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let packed = SimpleFileOptions::default();
        for (name, text) in [(JOB, Job::new("Quarry").to_json().as_str()), (LOG, log)] {
            zip.start_file(name, packed).expect("begun");
            zip.write_all(text.as_bytes()).expect("written");
        }
        zip.finish().expect("a ZIP").into_inner()
    }

    /// A log of millions of small things is refused by their number, before anything is made of them.
    #[test]
    fn a_log_of_too_many_is_refused_by_its_count() {
        let many = zipped(&format!("{{\"frames\":[{}[]]}}", "[],".repeat(3_000_000)));
        assert!(many.len() < 100_000, "{}", many.len());
        let Err(NoArchive::Damaged(name, why)) = Archive::read(&many) else { panic!("too many") };
        assert!(name == LOG && why.contains("at most 20000 frames"), "{name} {why}");
        let long = zipped(&format!("{{\"frames\":[[{}[]]]}}", "[],".repeat(3_000_000)));
        assert!(matches!(Archive::read(&long), Err(NoArchive::Damaged(..))));
        assert_eq!(Archive::read(&zipped("{}")).expect("none").frames.len(), 0);
    }

    /// What nobody waits for any more is not read on.
    #[test]
    fn it_stops_with_whoever_sent_it() {
        let log = zipped("{\"frames\":[{},{}]}");
        assert!(matches!(Archive::read_while(&log, || Go::Away), Err(NoArchive::TooLong)));
    }

    /// Of all pictures together no more is unpacked than an archive holds, however small they are packed.
    #[test]
    fn pictures_are_held_to_what_an_archive_holds() {
        let job = Job::new("Quarry");
        let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../pictures/tests/data");
        let file = folder.join("hall-with.jpg");
        let frame = |id: &str, hash: &str| {
            let known = json!({ "id": id, "format_version": tolva_format::FORMAT_VERSION, "setup_id": job.setups[0].id,
                "name": "one.jpg", "hash": hash.repeat(64), "added_at": "2026-11-26T15:30:00Z", "width": 6, "height": 4,
                "settings": {}, "setup": job.setups[0] });
            TakenFrame::from_elsewhere(known.to_string().as_bytes()).expect("a frame")
        };
        let zip = packed(&job, "", &[frame("a", "0"), frame("b", "1")], |_| file.clone()).expect("a ZIP");
        let one = std::fs::read(&file).expect("a picture").len();
        assert_eq!(Archive::within(&zip, 2 * one, || Go::On).expect("all of it").frames.len(), 2);
        let Err(NoArchive::TooLarge(name, most)) = Archive::within(&zip, 2 * one - 1, || Go::On) else {
            panic!("one too many")
        };
        assert_eq!((name.as_str(), most), ("frames/b.jpg", one as u64 - 1));
    }
}
