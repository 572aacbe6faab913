//! Documents as they stand in the data file, and what is done to them.

use tolva_format::{Job, KitFile};

/// A document as it stands now.
#[derive(Clone, Debug, PartialEq)]
pub struct Saved<T> {
    /// Its id.
    pub id: String,
    /// The revision that is shown.
    pub revision: i64,
    /// When that revision was saved (RFC 3339).
    pub saved_at: String,
    /// What undo would take back, in words; none where there is nothing.
    pub undo: Option<String>,
    /// What redo would bring back, in words; none where there is nothing.
    pub redo: Option<String>,
    /// The document.
    pub document: T,
}

/// A job as it stands now, with the kit as it is now.
pub type SavedJob = Saved<Job>;
/// The kit as it stands now.
pub type SavedKit = Saved<KitFile>;

/// A save that was refused, since the job was changed elsewhere.
#[derive(Clone, Debug, PartialEq)]
pub struct Stale {
    /// The revision the save was based on.
    pub based_on: i64,
    /// What is there now.
    pub now: SavedJob,
    /// What was to be saved, with the kit as it is now; none where it was an undo or the like.
    pub yours: Option<Job>,
}

/// Where an act begins, and under which key it is done: a second one with the same key is answered with what is there,
/// and not carried out again.
#[derive(Clone, Copy, Debug)]
pub struct Act<'a> {
    /// The revision that was edited.
    pub based_on: i64,
    /// What was done, in words.
    pub change: &'a str,
    /// The key of the request; none where it has none.
    pub key: Option<&'a str>,
    /// Which device did it; empty for the machine Tolva runs on.
    pub who: &'a str,
    /// Whether it may tick and change nothing else.
    pub ticks_only: bool,
}

impl<'a> Act<'a> {
    /// An act without a key.
    pub fn on(based_on: i64, change: &'a str) -> Self {
        Self { based_on, change, key: None, who: "", ticks_only: false }
    }
}
