//! A stored job as it is sent.

use actix_web::HttpResponse;
use actix_web::http::header::LOCATION;
use serde::Serialize;
use tolva_format::Job;
use tolva_store::SavedJob;
use utoipa::ToSchema;

use super::answer::marked;

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

/// A job that was just made, and where it is.
pub fn created(saved: SavedJob) -> HttpResponse {
    let mut response = HttpResponse::Created();
    response.insert_header((LOCATION, format!("/api/v1/jobs/{}", saved.id)));
    marked(response, &JobBody::from(saved))
}
