//! The folder a tethered camera writes into: its pictures become frames by themselves, in the order they were written, also
//! those that were written while Tolva was off.

use std::collections::HashMap;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::{Duration, Instant, SystemTime};

use notify::{RecursiveMode, Watcher as _};
use tolva_store::{Store, Watched};

use super::aside::Aside;
use super::{Arrived, FrameError, Frames, Sent, take_in};
use crate::proofs::Proofs;

/// A folder is looked at so often at least: some systems tell of nothing, such as drives on a network.
const BETWEEN: Duration = Duration::from_secs(2);
/// A file that has been as it is for so long is whole.
const QUIET: Duration = Duration::from_secs(2);
/// What could not be kept is tried again after so long.
const PAUSE: Duration = Duration::from_secs(30);
/// What pictures are called by. What is called otherwise is one where it begins as TIFF does, as raw files do.
const ENDINGS: [&str; 6] = ["jpg", "jpeg", "png", "tif", "tiff", "dng"];

/// What a file is like: as long as that is the same it is whole.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Stamp {
    bytes: u64,
    written: SystemTime,
}

/// How far a file of the folder has come.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum State {
    /// Somebody may still be writing to it: it has been as it is since then.
    Growing(Instant),
    /// It was taken in, or refused, as it is.
    Done,
    /// It could not be kept, as where the disk is full: it is tried again then.
    Again(Instant),
}

/// A file of the folder.
struct Seen {
    stamp: Stamp,
    state: State,
}

/// Whether a file begins as TIFF does. Source: TIFF 6.0, section 2.
fn is_tiff(path: &Path) -> bool {
    let mut first = [0; 4];
    let read = std::fs::File::open(path).and_then(|mut file| std::io::Read::read_exact(&mut file, &mut first));
    read.is_ok() && (first == *b"II*\0" || first == *b"MM\0*")
}

/// The pictures in a folder, in the order they were written.
fn pictures(folder: &Path) -> std::io::Result<Vec<(PathBuf, Stamp)>> {
    let mut all = Vec::new();
    for entry in std::fs::read_dir(folder)?.flatten() {
        let path = entry.path();
        let ending = path.extension().map(|ending| ending.to_string_lossy().to_ascii_lowercase());
        let hidden = entry.file_name().to_string_lossy().starts_with('.');
        let Ok(about) = entry.metadata() else { continue };
        let named = ending.is_some_and(|ending| ENDINGS.contains(&ending.as_str()));
        if about.is_file() && !hidden && (named || is_tiff(&path)) {
            let written = about.modified().unwrap_or(SystemTime::UNIX_EPOCH);
            all.push((path, Stamp { bytes: about.len(), written }));
        }
    }
    all.sort_by(|a, b| (a.1.written, &a.0).cmp(&(b.1.written, &b.0)));
    Ok(all)
}

/// Watches whichever folder is to be watched, for as long as the server runs.
pub async fn watch(store: Store, frames: Arc<Frames>, proofs: Arc<Proofs>) {
    let mut seen: HashMap<PathBuf, Seen> = HashMap::new();
    let mut folder: Option<PathBuf> = None;
    let mut told_gone = false;
    let mut aside = Aside::of(store.frames_folder().join("watched"));
    // It only says that it is time to look: what is there is read from the folder itself.
    let mut watcher = None;
    loop {
        let watched = store.watched().await.ok().flatten();
        let wanted = watched.as_ref().map(|one| one.folder.clone());
        if wanted != folder {
            seen.clear();
            told_gone = false;
            watcher = wanted.as_deref().and_then(|folder| waking(folder, &frames));
            folder = wanted;
        }
        if let Some(watched) = &watched {
            let gone = look(watched, &mut seen, &mut aside, (&store, &frames, &proofs)).await;
            if gone && !told_gone {
                let says = format!("the watched folder {} is not there", watched.folder.display());
                frames.tell(&watched.job_id, Some(says));
            }
            if told_gone && !gone {
                watcher = waking(&watched.folder, &frames);
            }
            told_gone = gone;
        }
        let _ = &watcher;
        let growing = seen.values().any(|one| matches!(one.state, State::Growing(_)));
        let until = if growing { Duration::from_millis(250) } else { BETWEEN };
        // Woken, or after a while.
        let _ = tokio::time::timeout(until, frames.woken()).await;
    }
}

fn waking(folder: &Path, frames: &Arc<Frames>) -> Option<notify::RecommendedWatcher> {
    let frames = Arc::clone(frames);
    // What is only opened or read has not changed: looking itself opens the folder.
    let wakes = move |event: notify::Result<notify::Event>| {
        if event.is_ok_and(|event| !event.kind.is_access()) {
            frames.look_again();
        }
    };
    let mut watcher = notify::recommended_watcher(wakes).ok()?;
    watcher.watch(folder, RecursiveMode::NonRecursive).ok()?;
    Some(watcher)
}

/// Looks at the folder once, and takes in what is whole and new. Whether the folder is gone.
async fn look(
    watched: &Watched,
    seen: &mut HashMap<PathBuf, Seen>,
    aside: &mut Aside,
    (store, frames, proofs): (&Store, &Arc<Frames>, &Arc<Proofs>),
) -> bool {
    let Ok(all) = pictures(&watched.folder) else { return true };
    for (path, stamp) in all {
        match seen.get_mut(&path) {
            Some(one) if one.stamp == stamp => match one.state {
                State::Done => continue,
                State::Again(then) if Instant::now() < then => continue,
                // A camera that writes slowly pauses between two parts.
                State::Growing(since) if since.elapsed() < QUIET => continue,
                // As it was for a while: nobody writes to it any more.
                State::Growing(_) | State::Again(_) => one.state = State::Done,
            },
            _ => {
                seen.insert(path, Seen { stamp, state: State::Growing(Instant::now()) });
                continue;
            }
        }
        // Another folder, or none, may be watched by now.
        if store.watched().await.ok().flatten().as_ref() != Some(watched) {
            return false;
        }
        let name = path.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
        if aside.holds(&path, stamp.bytes) {
            let says = "Tolva ended when it read this file last time: it is put aside. Save it anew, or under another name, \
                        and it is tried again";
            frames.tell(&watched.job_id, Some(format!("{name}: {says}")));
            continue;
        }
        let read = path.clone();
        let bytes = tokio::task::spawn_blocking(move || {
            if stamp.bytes > tolva_pictures::MOST_BYTES as u64 {
                return Err(std::io::Error::other("it is larger than a picture may be"));
            }
            std::fs::read(read)
        });
        let bytes = match bytes.await {
            Ok(Ok(bytes)) => bytes,
            Ok(Err(error)) => {
                frames.tell(&watched.job_id, Some(format!("{name}: {error}")));
                continue;
            }
            Err(_) => continue,
        };
        let arrived = Arrived { name: name.clone(), file: Sent::Here(bytes), by_hand: false, setup: None };
        aside.begins(&path, stamp.bytes);
        let taken = take_in((store, frames, proofs), (&watched.job_id, &watched.setup_id), arrived).await;
        aside.ends();
        match taken {
            Ok(_) => {}
            Err(error) => {
                // A full disk may have room again.
                if let FrameError::Store(_) = error
                    && let Some(one) = seen.get_mut(&path)
                {
                    one.state = State::Again(Instant::now() + PAUSE);
                }
                frames.tell(&watched.job_id, Some(format!("{name}: {}", error.says())));
            }
        }
    }
    seen.retain(|path, _| path.exists());
    false
}
