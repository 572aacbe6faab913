//! The log of a job: what was done, frame by frame and change by change, who did it, and out as files.

use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, get, post};
use serde::{Deserialize, Serialize};
use tolva_format::{Deed, DeedKind, Problems};
use tolva_store::Store;
use utoipa::ToSchema;

use super::answer::{Key, as_file, marked, table_as_file};
use super::body::Body;
use super::job_body::JobBody;
use super::problem::ApiError;
use crate::phones::Caller;
use crate::record::{self, LogEntry, entries};

/// A job's log.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobLog {
    /// What was done, the oldest first.
    entries: Vec<LogEntry>,
}

/// What was done to a job, the oldest first: frames, ticks, readings, changes, notes.
#[utoipa::path(
    operation_id = "job_log",
    responses((status = OK, description = "The log", body = JobLog)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/log")]
pub async fn list(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (entries, _) = entries(&id, &store).await?;
    Ok(HttpResponse::Ok().json(JobLog { entries }))
}

/// The same as a table.
#[utoipa::path(
    operation_id = "job_log_table",
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/log.csv")]
pub async fn as_table(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (entries, job) = entries(&id, &store).await?;
    Ok(table_as_file(&format!("{} log", job.name), record::csv(&entries)))
}

/// The same as JSON, to keep.
#[utoipa::path(
    operation_id = "job_log_file",
    responses((status = OK, description = "JSON", body = JobLog)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/log.json")]
pub async fn as_json(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (entries, job) = entries(&id, &store).await?;
    let file = as_file(&format!("{} log", job.name), ".json");
    Ok(HttpResponse::Ok().insert_header(file).json(record::json(&job.name, &entries)))
}

/// Something to note.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NoteRequest {
    /// What. 1 to 1000 characters.
    #[schema(min_length = 1, max_length = 1000)]
    says: String,
    /// The setup it is about; left out, the job.
    #[serde(default)]
    #[schema(max_length = 60)]
    setup_id: Option<String>,
}

/// Notes something in a job's log. Sent again under the same `Idempotency-Key` it is the same note.
#[utoipa::path(
    operation_id = "note",
    request_body = NoteRequest,
    responses((status = CREATED, description = "Noted", body = JobLog)),
    extensions(("x-rights" = json!("tick"))),
)]
#[post("/api/v1/jobs/{id}/log")]
pub async fn note(
    id: Path<String>,
    body: Body<NoteRequest>,
    (key, caller): (Key, Caller),
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let NoteRequest { says, setup_id } = body.0;
    let says = says.trim();
    if !(1..=1000).contains(&says.chars().count()) {
        return Err(Problems::one("/says", "a note has 1 to 1000 characters").into());
    }
    if let Some(wanted) = &setup_id {
        let job = store.job(&id).await?.document;
        if !job.setups.iter().any(|setup| &setup.id == wanted) {
            let says = format!("there is no setup “{wanted}” in this job");
            return Err(Problems::one("/setup_id", says).coded(tolva_format::ProblemCode::NotThere).into());
        }
    }
    let deed = Deed { kind: DeedKind::Note, setup_id };
    store.note(&id, &caller.name, (&deed, says), key.0.as_deref()).await?;
    let (entries, _) = entries(&id, &store).await?;
    Ok(HttpResponse::Created().json(JobLog { entries }))
}

/// On which day.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgainRequest {
    /// The day, as `2026-08-29`; left out where it is not known yet.
    #[serde(default)]
    #[schema(max_length = 10)]
    date: Option<String>,
}

/// Makes a new job from an old one, with what was learnt: without its ticks, readings and what was packed.
#[utoipa::path(
    operation_id = "do_again",
    request_body = AgainRequest,
    responses((status = CREATED, description = "Added", body = JobBody)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/again")]
pub async fn again(
    id: Path<String>,
    body: Body<AgainRequest>,
    key: Key,
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let old = store.job(&id).await?.document;
    let job = old.again(body.0.date.as_deref().filter(|date| !date.is_empty()))?;
    let said = format!("{id} again {}", body.0.date.unwrap_or_default());
    let change = format!("Made from “{}”", old.name);
    let saved = store.add_made(&job, &change, (key.0.as_deref(), &said)).await?;
    Ok(marked(HttpResponse::Created(), &JobBody::from(saved)))
}
