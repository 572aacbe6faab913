//! Files of the watched folder that ended Tolva when they were read: they are put aside, so that it does not end again at every
//! start.

use std::io::Write as _;
use std::path::{Path, PathBuf};

/// What was being read, and what was put aside: a line each, its size and its path.
pub struct Aside {
    folder: PathBuf,
    lines: Vec<String>,
}

/// The file that is being read is written down here for as long as it takes.
const READING: &str = "reading.txt";
/// What was put aside.
const ASIDE: &str = "aside.txt";

fn line(path: &Path, bytes: u64) -> String {
    format!("{bytes} {}", path.display())
}

impl Aside {
    /// What was put aside, and what was being read when Tolva ended last.
    pub fn of(folder: PathBuf) -> Self {
        let read = |name: &str| std::fs::read_to_string(folder.join(name)).unwrap_or_default();
        let mut lines: Vec<String> = read(ASIDE).lines().map(str::to_owned).collect();
        let reading = read(READING);
        if let Some(ended) = reading.lines().next().filter(|ended| !lines.iter().any(|line| line == ended)) {
            lines.push(ended.to_owned());
            // Where it cannot be written down, it is known until this Tolva ends.
            let _ = std::fs::write(folder.join(ASIDE), lines.join("\n"));
        }
        let _ = std::fs::remove_file(folder.join(READING));
        Self { folder, lines }
    }

    /// Whether a file was put aside as it is.
    pub fn holds(&self, path: &Path, bytes: u64) -> bool {
        self.lines.contains(&line(path, bytes))
    }

    /// A file is being read from now on. It must be on the disk before the file is opened.
    pub fn begins(&self, path: &Path, bytes: u64) {
        let written = std::fs::create_dir_all(&self.folder)
            .and_then(|()| std::fs::File::create(self.folder.join(READING)))
            .and_then(|mut file| file.write_all(line(path, bytes).as_bytes()).and_then(|()| file.sync_all()));
        // A full disk is told of by what is kept next.
        let _ = written;
    }

    /// It was read, whatever came of it.
    pub fn ends(&self) {
        let _ = std::fs::remove_file(self.folder.join(READING));
    }
}

impl Drop for Aside {
    /// Tolva ends as it is told to: what was being read has nothing to do with it.
    fn drop(&mut self) {
        self.ends();
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A file that was being read when the process ended is put aside as it was; saved anew it is tried again.
    #[test]
    fn what_ended_it_is_put_aside() {
        let folder = tempfile::tempdir().expect("a folder");
        let of = || Aside::of(folder.path().to_owned());
        let (bad, good) = (Path::new("/tether/bad.png"), Path::new("/tether/good.png"));
        let before = of();
        before.begins(good, 10);
        before.ends();
        before.begins(bad, 20);
        // Killed here: nothing is cleared away.
        std::mem::forget(before);
        for _ in 0..3 {
            let after = of();
            assert!(after.holds(bad, 20) && !after.holds(bad, 21) && !after.holds(good, 10));
        }
        // Told to end while it reads another: that one is read again.
        of().begins(good, 10);
        assert!(!of().holds(good, 10));
    }
}
