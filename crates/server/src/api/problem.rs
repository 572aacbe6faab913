//! Errors as problem documents (RFC 9457).

use actix_web::http::StatusCode;
use actix_web::http::header::RETRY_AFTER;
use actix_web::{HttpResponse, ResponseError};
use serde::Serialize;
use tolva_format::{Job, Problem, ProblemCode, Problems, catalogue};
use tolva_store::StoreError;
use utoipa::ToSchema;

use super::job_body::JobBody;

/// What went wrong.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct ProblemDocument {
    /// What kind of problem it is, as a URI: `urn:tolva:problem:wrong_field`.
    r#type: String,
    /// The same as a word that stays: `wrong_field`.
    code: &'static str,
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
    pub fn new(status: StatusCode, code: &'static str, title: &str) -> Self {
        Self {
            r#type: format!("urn:tolva:problem:{code}"),
            code,
            title: title.to_owned(),
            status: status.as_u16(),
            detail: None,
            errors: Vec::new(),
            theirs: None,
            yours: None,
        }
    }

    /// What should never happen: where it does, the server goes on.
    pub fn broken() -> Self {
        let problem = Self::new(StatusCode::INTERNAL_SERVER_ERROR, "broken", "A fault of Tolva’s own");
        problem.saying("something went wrong inside; nothing that was saved is lost")
    }

    pub fn saying(mut self, detail: impl Into<String>) -> Self {
        self.detail = Some(detail.into());
        self
    }

    pub fn response(&self) -> HttpResponse {
        let mut response = HttpResponse::build(self.status_code());
        if self.status_code() == StatusCode::SERVICE_UNAVAILABLE {
            response.insert_header((RETRY_AFTER, "1"));
        }
        response.content_type("application/problem+json").json(self)
    }

    /// The wrong fields of what was sent.
    pub fn wrong_fields(problems: Problems) -> Self {
        let mut document =
            Self::new(StatusCode::UNPROCESSABLE_ENTITY, "wrong_field", "A field is wrong").saying(problems.to_string());
        let said = |problem: Problem| {
            let field = catalogue().said(&problem.pointer).unwrap_or(problem.field);
            Problem { field, ..problem }
        };
        document.errors = problems.0.into_iter().map(said).collect();
        document
    }
}

/// Any error of the API.
#[derive(Debug)]
pub struct ApiError(Box<ProblemDocument>);

impl ApiError {
    /// A store's error while a job was being saved: what is wrong stands in the job there.
    pub fn saving(error: StoreError) -> Self {
        match error {
            StoreError::Wrong(problems) => problems.within("/job").into(),
            other => other.into(),
        }
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
        Problems::at_most(wrong).into()
    }
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        let (status, code, title) = match &error {
            StoreError::NoSuchJob(_) => (StatusCode::NOT_FOUND, "no_such_job", "No such job"),
            StoreError::NoSuchRevision(_) => (StatusCode::NOT_FOUND, "no_such_revision", "No such revision"),
            StoreError::NoSuchFrame(_) => (StatusCode::NOT_FOUND, "no_such_frame", "No such frame"),
            StoreError::TooManyFrames(_) => (StatusCode::CONFLICT, "too_many", "Too many frames"),
            StoreError::NoSuchBackup(_) => (StatusCode::NOT_FOUND, "no_such_backup", "No such backup"),
            StoreError::Stale(_) | StoreError::KitStale { .. } => {
                (StatusCode::CONFLICT, "changed_elsewhere", "Changed elsewhere")
            }
            StoreError::NothingTo(_) => (StatusCode::CONFLICT, "nothing_there", "Nothing there"),
            StoreError::KeyUsed => {
                (StatusCode::UNPROCESSABLE_ENTITY, "key_used", "The key was used for something else")
            }
            StoreError::TicksOnly => (StatusCode::FORBIDDEN, "not_allowed", "Not allowed on this device"),
            StoreError::DiskFull => (StatusCode::INSUFFICIENT_STORAGE, "disk_full", "The disk is full"),
            StoreError::Locked => (StatusCode::SERVICE_UNAVAILABLE, "locked", "The data file is locked"),
            StoreError::ReadOnly => (StatusCode::FORBIDDEN, "read_only", "Opened for reading only"),
            StoreError::Unreadable { .. } => (StatusCode::INTERNAL_SERVER_ERROR, "unreadable", "Cannot be read"),
            StoreError::Wrong(_) => (StatusCode::UNPROCESSABLE_ENTITY, "wrong_field", "A field is wrong"),
            StoreError::Damaged(_) | StoreError::Migration(_) | StoreError::Database(_) | StoreError::Picture(..) => {
                (StatusCode::INTERNAL_SERVER_ERROR, "data_file", "The data file")
            }
        };
        if status == StatusCode::INTERNAL_SERVER_ERROR {
            tracing::error!(%error, "the data file");
        }
        let error = match error {
            StoreError::Wrong(problems) => return problems.into(),
            other => other,
        };
        let mut document = ProblemDocument::new(status, code, title).saying(error.to_string());
        if let StoreError::Stale(stale) = error {
            document.theirs = Some(Box::new(stale.now.into()));
            document.yours = stale.yours.map(Box::new);
        }
        document.into()
    }
}

/// Refuses a number that is out of its range.
pub fn within(pointer: &str, value: f64, least: f64, most: f64, unit: &str) -> Result<(), Problems> {
    if (least..=most).contains(&value) {
        return Ok(());
    }
    let says = format!("{value} is not allowed here: it must be from {least} to {most} {unit}");
    Err(Problems::one(pointer, says).coded(ProblemCode::OutOfRange))
}
