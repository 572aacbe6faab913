//! Documents as they stand in the data file.

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

/// A job as it stands now.
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
}
