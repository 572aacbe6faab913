//! How long a test takes, for the list of the slowest that `cargo verify` ends with. The server's own tests use this file, too.

use std::fs::OpenOptions;
use std::io::Write as _;
use std::path::PathBuf;
use std::time::Instant;

/// Where `cargo verify` has the times written; without it nothing is.
const TIMES: &str = "TOLVA_TEST_TIMES";

/// Part of a test, from here until this is dropped. The test is known by its thread's name.
#[derive(Debug)]
pub struct Timed(Instant);

impl Timed {
    /// Begins now.
    pub fn begin() -> Self {
        Self(Instant::now())
    }
}

impl Drop for Timed {
    fn drop(&mut self) {
        let Some(file) = std::env::var_os(TIMES).map(PathBuf::from) else { return };
        let line =
            format!("{:.1} {}\n", self.0.elapsed().as_secs_f64(), std::thread::current().name().unwrap_or_default());
        // Several programs write to it: one line is one act.
        if let Ok(mut file) = OpenOptions::new().create(true).append(true).open(file) {
            let _ = file.write_all(line.as_bytes());
        }
    }
}
