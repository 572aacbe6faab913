//! Stored jobs: list, add, save, undo, bin, export.

use actix_web::http::header::CONTENT_DISPOSITION;
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpResponse, delete, get, post, put};
use serde::{Deserialize, Serialize};
use tolva_format::Job;
use tolva_store::{JobSummary, SavedJob, Store};
use utoipa::{IntoParams, ToSchema};

use super::body::{Body, Bytes};
use super::job_body::JobBody;
use super::problem::{ApiError, ProblemDocument};

/// A job in the list.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobLine {
    /// Its id.
    id: String,
    /// What it is called.
    name: String,
    /// Who it is for.
    client: String,
    /// Where it is.
    place: String,
    /// The day.
    date: String,
    /// What its setups are called.
    setups: Vec<String>,
    /// When it was saved (RFC 3339).
    saved_at: String,
}

impl From<JobSummary> for JobLine {
    fn from(summary: JobSummary) -> Self {
        let JobSummary { id, name, client, place, date, setups, saved_at } = summary;
        Self { id, name, client, place, date, setups, saved_at }
    }
}

/// Which jobs.
#[derive(Debug, Deserialize, IntoParams)]
pub struct Which {
    /// Those in the bin instead.
    #[serde(default)]
    binned: bool,
}

/// A change to save.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Save {
    /// The revision it was made on.
    based_on: i64,
    /// What was done, in words, for undo.
    #[schema(max_length = 200)]
    change: String,
    /// The whole document.
    job: Job,
}

/// Where to undo or redo from.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Since {
    /// The revision that is shown.
    pub based_on: i64,
}

/// The stored jobs, the last saved first.
#[utoipa::path(operation_id = "list_jobs", params(Which), responses((status = OK, description = "The jobs", body = Vec<JobLine>)))]
#[get("/api/jobs")]
pub async fn list(which: Query<Which>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let jobs: Vec<JobLine> = store.jobs(which.binned).await?.into_iter().map(Into::into).collect();
    Ok(HttpResponse::Ok().json(jobs))
}

/// Adds a job: a new one, or an exported file.
#[utoipa::path(
    operation_id = "add_job",
    request_body = Job,
    responses(
        (status = CREATED, description = "Added", body = JobBody),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/jobs")]
pub async fn add(body: Bytes, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let owned = store.owned().await?;
    let job = Job::from_json(&body.0)?.apart_from(&owned).taking(&owned);
    let saved = store.add(&job, "New job").await?;
    Ok(HttpResponse::Created().json(JobBody::from(saved)))
}

/// A job document of any version that is known, as one of this version. Nothing is stored.
#[utoipa::path(
    operation_id = "upgrade_job",
    request_body = Job,
    responses(
        (status = OK, description = "The same job", body = Job),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/upgrade")]
pub async fn upgrade(body: Bytes) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(Job::from_json(&body.0)?))
}

/// A stored job.
#[utoipa::path(
    operation_id = "get_job",
    responses(
        (status = OK, description = "The job", body = JobBody),
        (status = NOT_FOUND, description = "No such job", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[get("/api/jobs/{id}")]
pub async fn get(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(JobBody::from(with_kit(&store, store.job(&id).await?).await?)))
}

/// A saved job with the kit as it is now.
async fn with_kit(store: &Store, mut saved: SavedJob) -> Result<SavedJob, ApiError> {
    saved.document = saved.document.taking(&store.owned().await?);
    Ok(saved)
}

/// Saves a change as a new revision.
#[utoipa::path(
    operation_id = "save_job",
    request_body = Save,
    responses(
        (status = OK, description = "Saved", body = JobBody),
        (status = NOT_FOUND, description = "No such job", body = ProblemDocument, content_type = "application/problem+json"),
        (status = CONFLICT, description = "Changed elsewhere: both versions", body = ProblemDocument, content_type = "application/problem+json"),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
        (status = INSUFFICIENT_STORAGE, description = "The disk is full", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[put("/api/jobs/{id}")]
pub async fn save(id: Path<String>, body: Body<Save>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let Save { based_on, change, job } = body.0;
    let job = job.taking(&store.owned().await?);
    job.check().map_err(|problems| problems.within("/job"))?;
    let change: String = change.chars().take(200).collect();
    match store.save(&id, based_on, &change, &job).await {
        Ok(saved) => Ok(HttpResponse::Ok().json(JobBody::from(saved))),
        Err(error) => Err(ApiError::saving(error, job)),
    }
}

/// Goes back to the revision before.
#[utoipa::path(
    operation_id = "undo",
    request_body = Since,
    responses(
        (status = OK, description = "Undone", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to undo", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/jobs/{id}/undo")]
pub async fn undo_job(id: Path<String>, body: Body<Since>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(JobBody::from(with_kit(&store, store.undo(&id, body.0.based_on).await?).await?)))
}

/// Goes forward again.
#[utoipa::path(
    operation_id = "redo",
    request_body = Since,
    responses(
        (status = OK, description = "Redone", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to redo", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/jobs/{id}/redo")]
pub async fn redo_job(id: Path<String>, body: Body<Since>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(JobBody::from(with_kit(&store, store.redo(&id, body.0.based_on).await?).await?)))
}

/// Puts a job into the bin.
#[utoipa::path(operation_id = "bin_job", responses((status = NO_CONTENT, description = "In the bin")))]
#[delete("/api/jobs/{id}")]
pub async fn bin(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    store.bin(&id, true).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Takes a job out of the bin.
#[utoipa::path(operation_id = "restore_job", responses((status = NO_CONTENT, description = "Out of the bin")))]
#[post("/api/jobs/{id}/restore")]
pub async fn restore(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    store.bin(&id, false).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The job as a file to keep or to import elsewhere.
#[utoipa::path(operation_id = "export_job", responses((status = OK, description = "The job file", body = Job)))]
#[get("/api/jobs/{id}/file")]
pub async fn file(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = with_kit(&store, store.job(&id).await?).await?.document;
    let name: String =
        job.name.chars().map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' }).collect();
    let attachment = format!("attachment; filename=\"{}.tolva.json\"", name.trim_matches('-'));
    Ok(HttpResponse::Ok()
        .content_type("application/json")
        .insert_header((CONTENT_DISPOSITION, attachment))
        .body(job.to_json()))
}
