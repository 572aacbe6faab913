//! Stored jobs: list, add, save, undo, bin, export.

use actix_web::web::{Data, Path, Query};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put};
use serde::{Deserialize, Serialize};
use tolva_core::scale::LengthUnit;
use tolva_format::{Edit, Job, Problems, as_one_line, edited, is_one_line};
use tolva_store::{Act, JobSummary, Listing, Page, Revision, Rights, SavedJob, Sort, Store};
use utoipa::{IntoParams, ToSchema};

use super::answer::{Key, as_file, is_conditional, made_on, marked, marked_for};
use super::begin::created;
use super::body::{Body, Bytes};
use super::job_body::JobBody;
use super::problem::{ApiError, ProblemDocument};
use super::work::worked_out;
use crate::live::Live;
use crate::phones::Caller;

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
    /// Whether it can be read. One that cannot is exported as it is, or set back to an earlier revision.
    readable: bool,
}

impl From<JobSummary> for JobLine {
    fn from(summary: JobSummary) -> Self {
        let JobSummary { id, name, client, place, date, setups, saved_at, readable } = summary;
        Self { id, name, client, place, date, setups, saved_at, readable }
    }
}

/// A page of the list.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobList {
    /// The jobs, the last saved first.
    jobs: Vec<JobLine>,
    /// What to ask the next page with, as `after`; null on the last.
    next: Option<String>,
    /// How many there are on all pages.
    total: u64,
    /// So many days a job stays in the bin.
    bin_days: i64,
}

impl From<Page> for JobList {
    fn from(page: Page) -> Self {
        let Page { jobs, next, total } = page;
        Self { jobs: jobs.into_iter().map(Into::into).collect(), next, total, bin_days: tolva_store::BIN_DAYS }
    }
}

const fn usual_limit() -> u32 {
    50
}

/// In which order jobs are listed.
#[derive(Clone, Copy, Debug, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobSort {
    /// The last saved first.
    #[default]
    Saved,
    /// By their days, those without one last.
    Day,
    /// By their names.
    Name,
}

impl From<JobSort> for Sort {
    fn from(sort: JobSort) -> Self {
        match sort {
            JobSort::Saved => Self::Saved,
            JobSort::Day => Self::Day,
            JobSort::Name => Self::Name,
        }
    }
}

/// Which jobs.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Which {
    /// Those in the bin instead.
    #[serde(default)]
    binned: bool,
    /// Only those with words that begin so, in their names, clients, places, days and setups.
    #[serde(default)]
    #[param(max_length = 200)]
    search: String,
    /// In which order.
    #[serde(default)]
    #[param(inline)]
    sort: JobSort,
    /// What the page before gave as `next`.
    #[serde(default)]
    #[param(max_length = 60)]
    after: Option<String>,
    /// How many at most, 1 to 200.
    #[serde(default = "usual_limit")]
    #[param(minimum = 1, maximum = 200)]
    limit: u32,
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

/// What a change was, in words, as far as it is kept.
pub fn in_words(change: &str) -> String {
    as_one_line(change).chars().take(200).collect()
}

/// A page of the stored jobs, the last saved first.
#[utoipa::path(
    operation_id = "list_jobs",
    params(Which),
    responses((status = OK, description = "The jobs", body = JobList)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs")]
pub async fn list(which: Query<Which>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let Which { binned, search, sort, after, limit } = which.into_inner();
    if !(1..=200).contains(&limit) {
        return Err(Problems::one("/limit", format!("{limit} is not allowed here: it must be from 1 to 200")).into());
    }
    let search = search.chars().take(200).collect();
    let page = store.jobs(&Listing { binned, search, after, limit, sort: sort.into() }).await?;
    Ok(HttpResponse::Ok().json(JobList::from(page)))
}

/// Adds a job: a new one, or an exported file.
#[utoipa::path(
    operation_id = "add_job",
    request_body = Job,
    responses((status = CREATED, description = "Added; `Location` says where", body = JobBody)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs")]
pub async fn add(body: Bytes, key: Key, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = worked_out(move || Job::from_json(&body.0)).await?;
    let saved = store.add(&job, "New job", key.0.as_deref()).await?;
    Ok(created(saved))
}

/// A job document of any version that is known, as one of this version. Nothing is stored.
#[utoipa::path(
    operation_id = "upgrade_job",
    request_body = Job,
    responses((status = OK, description = "The same job", body = Job)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/upgrade")]
pub async fn upgrade(body: Bytes) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(worked_out(move || Job::from_json(&body.0)).await?))
}

/// A job in which one number is changed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EditJob {
    /// The job.
    job: Job,
    /// What was typed into it, or stepped.
    edit: Edit,
}

/// A job with one number changed. Nothing is stored.
#[utoipa::path(
    operation_id = "edit_job",
    request_body = EditJob,
    responses((status = OK, description = "The job", body = Job)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/edit-job")]
pub async fn edit(body: Body<EditJob>) -> Result<HttpResponse, ApiError> {
    let EditJob { job, edit } = body.0;
    let changed = worked_out(move || -> Result<Job, Problems> {
        let job = edited("Job", &job, &edit, LengthUnit::Metres).map_err(|wrong| wrong.within("/edit"))?;
        job.check()?;
        Ok(job)
    });
    Ok(HttpResponse::Ok().json(changed.await?))
}

/// A stored job, with the kit as it is now.
#[utoipa::path(
    operation_id = "get_job",
    responses(
        (status = OK, description = "The job, with its mark as `ETag`", body = JobBody),
        (status = NOT_MODIFIED, description = "It is still what `If-None-Match` names"),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}")]
pub async fn get(id: Path<String>, request: HttpRequest, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(marked_for(&request, &JobBody::from(store.job(&id).await?)))
}

/// Where a request names what it was made on, that must be what is there.
async fn held_to(request: &HttpRequest, id: &str, store: &Store) -> Result<(), ApiError> {
    if is_conditional(request) { made_on(request, &JobBody::from(store.job(id).await?)) } else { Ok(()) }
}

fn shown(saved: SavedJob) -> HttpResponse {
    marked(HttpResponse::Ok(), &JobBody::from(saved))
}

/// Saves a change as a new revision. Sent again under the same `Idempotency-Key`, or as it was, it is the same save.
#[utoipa::path(
    operation_id = "save_job",
    request_body = Save,
    responses(
        (status = OK, description = "Saved", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere: both versions", body = ProblemDocument, content_type = "application/problem+json"),
        (status = PRECONDITION_FAILED, description = "It is not what `If-Match` names", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("tick"))),
)]
#[put("/api/v1/jobs/{id}")]
pub async fn save(
    id: Path<String>,
    body: Body<Save>,
    (key, caller): (Key, Caller),
    request: HttpRequest,
    (store, live): (Data<Store>, Data<Live>),
) -> Result<HttpResponse, ApiError> {
    let Save { based_on, change, job } = body.0;
    held_to(&request, &id, &store).await?;
    let change = in_words(&change);
    // Of an older version, what differs may be what others did: that is a conflict, theirs to bring together and send again.
    let ticks_only = caller.rights != Rights::All;
    let act = Act { key: key.0.as_deref(), who: &caller.name, ticks_only, ..Act::on(based_on, &change) };
    let saved = store.save(&id, &act, &job).await.map_err(ApiError::saving)?;
    live.saved(&id);
    Ok(shown(saved))
}

/// Goes back to the revision before.
#[utoipa::path(
    operation_id = "undo",
    request_body = Since,
    responses(
        (status = OK, description = "Undone", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to undo", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/undo")]
pub async fn undo_job(
    id: Path<String>,
    body: Body<Since>,
    (key, caller): (Key, Caller),
    (store, live): (Data<Store>, Data<Live>),
) -> Result<HttpResponse, ApiError> {
    let act = Act { key: key.0.as_deref(), who: &caller.name, ..Act::on(body.0.based_on, "Undo") };
    let saved = store.step(&id, &act, true).await?;
    live.saved(&id);
    Ok(shown(saved))
}

/// Goes forward again.
#[utoipa::path(
    operation_id = "redo",
    request_body = Since,
    responses(
        (status = OK, description = "Redone", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to redo", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/redo")]
pub async fn redo_job(
    id: Path<String>,
    body: Body<Since>,
    (key, caller): (Key, Caller),
    (store, live): (Data<Store>, Data<Live>),
) -> Result<HttpResponse, ApiError> {
    let act = Act { key: key.0.as_deref(), who: &caller.name, ..Act::on(body.0.based_on, "Redo") };
    let saved = store.step(&id, &act, false).await?;
    live.saved(&id);
    Ok(shown(saved))
}

/// A revision of a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct RevisionLine {
    /// Its number.
    number: i64,
    /// When it was saved (RFC 3339).
    saved_at: String,
    /// What was done, in words.
    change: String,
    /// Its name, with which it is kept for ever; null where it has none.
    point: Option<String>,
    /// Whether it is the one that is shown.
    shown: bool,
}

impl From<Revision> for RevisionLine {
    fn from(revision: Revision) -> Self {
        let Revision { number, saved_at, change, point, shown } = revision;
        Self { number, saved_at, change, point, shown }
    }
}

/// The revisions of a job, the newest first: all of the last day, one an hour for a week, one a day after, and those
/// with a name.
#[utoipa::path(
    operation_id = "list_revisions",
    responses((status = OK, description = "The revisions", body = Vec<RevisionLine>)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/revisions")]
pub async fn revisions(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let all: Vec<RevisionLine> = store.revisions(&id).await?.into_iter().map(Into::into).collect();
    Ok(HttpResponse::Ok().json(all))
}

/// Where to go back to.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetBack {
    /// The revision that is shown.
    based_on: i64,
    /// The revision to show.
    revision: i64,
}

/// Goes back to one of its revisions. None is lost by that.
#[utoipa::path(
    operation_id = "set_back",
    request_body = SetBack,
    responses(
        (status = OK, description = "Set back", body = JobBody),
        (status = CONFLICT, description = "Changed elsewhere", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/set-back")]
pub async fn set_back(
    id: Path<String>,
    body: Body<SetBack>,
    (key, caller): (Key, Caller),
    (store, live): (Data<Store>, Data<Live>),
) -> Result<HttpResponse, ApiError> {
    let act = Act { key: key.0.as_deref(), who: &caller.name, ..Act::on(body.0.based_on, "Set back") };
    let saved = store.set_back(&id, &act, body.0.revision).await?;
    live.saved(&id);
    Ok(shown(saved))
}

/// What a revision is called.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Point {
    /// The name; null takes it away.
    #[schema(min_length = 1, max_length = 120)]
    name: Option<String>,
}

/// Gives a revision a name, with which it is kept for ever.
#[utoipa::path(
    operation_id = "name_revision",
    request_body = Point,
    responses((status = NO_CONTENT, description = "Named")),
    extensions(("x-rights" = json!("all"))),
)]
#[put("/api/v1/jobs/{id}/revisions/{number}/point")]
pub async fn name_point(
    at: Path<(String, i64)>,
    body: Body<Point>,
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let name = body.0.name.as_deref().map(str::trim);
    if name.is_some_and(|name| !(1..=120).contains(&name.chars().count()) || !is_one_line(name)) {
        return Err(Problems::one("/name", "a name has 1 to 120 characters on one line").into());
    }
    store.name_point(&at.0, at.1, name).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a job into the bin, where it stays for 60 days.
#[utoipa::path(
    operation_id = "bin_job",
    responses((status = NO_CONTENT, description = "In the bin")),
    extensions(("x-rights" = json!("all"))),
)]
#[delete("/api/v1/jobs/{id}")]
pub async fn bin(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    store.bin(&id, true).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Takes a job out of the bin.
#[utoipa::path(
    operation_id = "restore_job",
    responses((status = NO_CONTENT, description = "Out of the bin")),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/restore")]
pub async fn restore(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    store.bin(&id, false).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The job as a file to keep or to import elsewhere.
#[utoipa::path(
    operation_id = "export_job",
    responses((status = OK, description = "The job file", body = Job)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/file")]
pub async fn file(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    Ok(HttpResponse::Ok()
        .content_type("application/json")
        .insert_header(as_file(&job.name, ".tolva.json"))
        .body(job.to_json()))
}

/// What stands in the data file for a job, whether it can be read or not.
#[utoipa::path(
    operation_id = "export_raw_job",
    responses((status = OK, description = "As it stands", body = Vec<u8>, content_type = "application/octet-stream")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/raw")]
pub async fn raw(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let content = store.raw(&id).await?;
    Ok(HttpResponse::Ok()
        .content_type("application/octet-stream")
        .insert_header(as_file("job as it stands", ".json"))
        .body(content))
}
