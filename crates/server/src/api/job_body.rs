//! A stored job as it is sent.

use serde::Serialize;
use tolva_format::Job;
use tolva_store::SavedJob;
use utoipa::ToSchema;

/// A stored job.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct JobBody {
    /// Its id.
    id: String,
    /// The revision that is shown.
    revision: i64,
    /// When it was saved (RFC 3339).
    saved_at: String,
    /// What undo would take back; null where there is nothing.
    undo: Option<String>,
    /// What redo would bring back; null where there is nothing.
    redo: Option<String>,
    /// The document.
    job: Job,
}

impl From<SavedJob> for JobBody {
    fn from(saved: SavedJob) -> Self {
        let SavedJob { id, revision, saved_at, undo, redo, document: job } = saved;
        Self { id, revision, saved_at, undo, redo, job }
    }
}
