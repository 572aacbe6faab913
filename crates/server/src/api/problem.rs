//! Errors as problem documents (RFC 9457).

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use serde::Serialize;
use tolva_format::{Job, Problem, ProblemCode, Problems};
use tolva_store::StoreError;
use utoipa::ToSchema;

use super::job_body::JobBody;

/// What went wrong.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProblemDocument {
    /// In a few words.
    title: String,
    /// The HTTP status.
    status: u16,
    /// In a sentence.
    #[serde(skip_serializing_if = "Option::is_none")]
    detail: Option<String>,
    /// Each wrong field.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    errors: Vec<Problem>,
    /// Where a save was stale: what is there now.
    #[serde(skip_serializing_if = "Option::is_none")]
    theirs: Option<Box<JobBody>>,
    /// Where a save was stale: what was to be saved.
    #[serde(skip_serializing_if = "Option::is_none")]
    yours: Option<Box<Job>>,
}

impl ProblemDocument {
    pub fn new(status: StatusCode, title: &str) -> Self {
        let title = title.to_owned();
        Self { title, status: status.as_u16(), detail: None, errors: Vec::new(), theirs: None, yours: None }
    }

    pub fn saying(mut self, detail: impl Into<String>) -> Self {
        self.detail = Some(detail.into());
        self
    }

    pub fn response(&self) -> HttpResponse {
        HttpResponse::build(self.status_code()).content_type("application/problem+json").json(self)
    }

    /// The wrong fields of what was sent.
    pub fn wrong_fields(problems: Problems) -> Self {
        let mut document = Self::new(StatusCode::UNPROCESSABLE_ENTITY, "A field is wrong").saying(problems.to_string());
        document.errors = problems.0;
        document
    }
}

/// Any error of the API, and the job that was to be saved where there was one.
#[derive(Debug)]
pub struct ApiError(Box<ProblemDocument>);

impl ApiError {
    /// A store's error while a job was being saved.
    pub fn saving(error: StoreError, yours: Job) -> Self {
        let stale = matches!(error, StoreError::Stale(_));
        let mut api = Self::from(error);
        if stale {
            api.0.yours = Some(Box::new(yours));
        }
        api
    }
}

impl std::fmt::Display for ApiError {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{}: {}", self.0.title, self.0.detail.as_deref().unwrap_or(""))
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        self.0.status_code()
    }

    fn error_response(&self) -> HttpResponse {
        self.0.response()
    }
}

impl ProblemDocument {
    fn status_code(&self) -> StatusCode {
        StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR)
    }
}

impl From<ProblemDocument> for ApiError {
    fn from(document: ProblemDocument) -> Self {
        Self(Box::new(document))
    }
}

impl From<Problems> for ApiError {
    fn from(problems: Problems) -> Self {
        ProblemDocument::wrong_fields(problems).into()
    }
}

impl From<tolva_calculators::Problems> for ApiError {
    fn from(problems: tolva_calculators::Problems) -> Self {
        let wrong = problems.0.into_iter().map(|one| Problem::new(one.pointer, ProblemCode::NotAllowed, one.message));
        Problems(wrong.collect()).into()
    }
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        let (status, title) = match &error {
            StoreError::NoSuchJob(_) => (StatusCode::NOT_FOUND, "No such job"),
            StoreError::Stale(_) | StoreError::KitStale { .. } => (StatusCode::CONFLICT, "Changed elsewhere"),
            StoreError::NothingTo(_) => (StatusCode::CONFLICT, "Nothing there"),
            StoreError::DiskFull => (StatusCode::INSUFFICIENT_STORAGE, "The disk is full"),
            StoreError::Unreadable { .. } | StoreError::Migration(_) | StoreError::Database(_) => {
                tracing::error!(%error, "the data file");
                (StatusCode::INTERNAL_SERVER_ERROR, "The data file")
            }
        };
        let mut document = ProblemDocument::new(status, title).saying(error.to_string());
        if let StoreError::Stale(stale) = error {
            document.theirs = Some(Box::new(stale.now.into()));
        }
        document.into()
    }
}
