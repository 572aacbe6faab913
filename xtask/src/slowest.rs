//! The tests that take longest, at the end of each run: of those that start a server or a browser, which are the slow ones.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf};

use crate::root;

/// Tells tests where to write what they take.
pub const TIMES: &str = "TOLVA_TEST_TIMES";
/// So many are told.
const MOST: usize = 10;

/// An empty list of times.
pub fn begin() -> Result<PathBuf, String> {
    let folder = root().join("target");
    let folder = folder.canonicalize().map_err(|error| format!("{}: {error}", folder.display()))?;
    let file = folder.join("test-times");
    fs::write(&file, "").map_err(|error| format!("{}: {error}", file.display()))?;
    Ok(file)
}

/// Tells which took longest.
pub fn tell(times: &Path) {
    let written = fs::read_to_string(times).unwrap_or_default();
    println!("\nThe slowest, in seconds:");
    for (seconds, test) in slowest(&written) {
        println!("{seconds:6.1}  {test}");
    }
}

/// The slowest of lines such as `4.2 rail::a_mark_is_dragged`; a test that had several browsers counts by the longest.
fn slowest(lines: &str) -> Vec<(f64, &str)> {
    let mut longest: BTreeMap<&str, f64> = BTreeMap::new();
    for (seconds, test) in lines.lines().filter_map(|line| line.split_once(' ')) {
        let Ok(seconds) = seconds.parse::<f64>() else { continue };
        let known = longest.entry(test).or_default();
        *known = known.max(seconds);
    }
    let mut all: Vec<(f64, &str)> = longest.into_iter().map(|(test, seconds)| (seconds, test)).collect();
    all.sort_by(|a, b| b.0.total_cmp(&a.0));
    all.truncate(MOST);
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_counts_by_its_longest_and_only_some_are_told() {
        let lines = "1.0 a\n3.5 b\nnone c\n2.0 a\n\n";
        assert_eq!(slowest(lines), [(3.5, "b"), (2.0, "a")]);
        let many: Vec<String> = (0..40).map(|number| format!("{number}.0 test {number}")).collect();
        let all = many.join("\n");
        assert_eq!((slowest(&all).len(), slowest(&all)[0]), (MOST, (39.0, "test 39")));
    }
}
