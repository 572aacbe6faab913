//! A job's day: windows of light, the order of its setups, what is carried there, and as files.

use actix_web::web::{Data, Path, Query};
use actix_web::{HttpResponse, get, post};
use serde::Deserialize;
use tolva_format::{Job, ProblemCode, Problems};
use tolva_planner::refused::Refused;
use tolva_store::Store;
use tolva_wording::{DayPlan, HourOfDay, PackList, SlotBefore, day_plan, hour_on_day};
use utoipa::{IntoParams, ToSchema};

use super::answer::{as_file, table_as_file};
use super::body::Body;
use super::problem::ApiError;
use super::work::worked_out;
use crate::day_files;
use crate::edge::{KnownJob, refused};

/// A job whose day is asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JobDayRequest {
    /// The job, as it is on screen.
    job: Job,
    /// Which of its days; left out, the one that is written on it, or the first.
    #[serde(default)]
    date: Option<String>,
    /// The plan that is looked at: what moved against it is told. At most 60.
    #[serde(default)]
    #[schema(max_items = 60)]
    before: Vec<SlotBefore>,
}

/// Where in a day something is put.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourRequest {
    /// The job, as it is on screen.
    job: Job,
    /// Which of its days.
    #[serde(default)]
    date: Option<String>,
    /// The setup.
    setup_id: String,
    /// Minutes from where the day begins.
    minute: u32,
}

/// Which day.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WhichDay {
    /// As `2026-08-29`; left out, the one that is written on the job, or the first.
    #[serde(default)]
    date: Option<String>,
}

/// What was refused of a day: a job that is checked has no wrong hours, so that it is about the day that was asked for.
fn of_day(wrong: Refused) -> Problems {
    match wrong {
        Refused::Time(wrong) => Problems::one("/date", wrong.to_string()),
        Refused::NoSuchSetup(_) => Problems::one("/setup_id", wrong.to_string()).coded(ProblemCode::NotThere),
        other => refused(other),
    }
}

/// A day of a job: when the wish of each setup can be had, the order they are shot in, what does not fit and what would make
/// it.
#[utoipa::path(
    operation_id = "day_plan",
    request_body = JobDayRequest,
    responses((status = OK, description = "The day", body = DayPlan)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/day-plan")]
pub async fn planned(body: Body<JobDayRequest>) -> Result<HttpResponse, ApiError> {
    let JobDayRequest { job, date, before } = body.0;
    let found = worked_out(move || {
        let known = KnownJob::of(job).map_err(|problems| problems.under("", "/job"))?;
        day_plan(known.days(), date.as_deref(), &before).map_err(of_day)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// What clocks at a setup's place show at a minute of a day: what it is pinned to when it is dragged there.
#[utoipa::path(
    operation_id = "hour_of_day",
    request_body = HourRequest,
    responses((status = OK, description = "The hour", body = HourOfDay)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/day-plan/hour")]
pub async fn hour(body: Body<HourRequest>) -> Result<HttpResponse, ApiError> {
    let HourRequest { job, date, setup_id, minute } = body.0;
    let found = worked_out(move || {
        let known = KnownJob::of(job).map_err(|problems| problems.under("", "/job"))?;
        hour_on_day(known.days(), date.as_deref(), &setup_id, minute).map_err(of_day)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// A job whose pack list is asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PackRequest {
    /// The job, as it is on screen.
    job: Job,
}

/// What a job takes along: everything its setups use, with ballast, batteries and memory.
#[utoipa::path(
    operation_id = "pack_list",
    request_body = PackRequest,
    responses((status = OK, description = "The list", body = PackList)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/pack")]
pub async fn pack(body: Body<PackRequest>) -> Result<HttpResponse, ApiError> {
    let found = worked_out(move || {
        let known = KnownJob::of(body.0.job).map_err(|problems| problems.under("", "/job"))?;
        Ok::<_, Problems>(known.pack())
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// The pack list of a job that is kept, as a table.
#[utoipa::path(
    operation_id = "pack_table",
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/pack.csv")]
pub async fn pack_table(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    let name = format!("{} pack list", job.name);
    let body = worked_out(move || Ok::<_, Problems>(day_files::pack_csv(&KnownJob::of(job)?.pack()))).await?;
    Ok(table_as_file(&name, body))
}

/// A day of a job that is kept, with its name.
async fn of_kept(id: &str, date: Option<String>, store: &Store) -> Result<(DayPlan, String), ApiError> {
    let job = store.job(id).await?.document;
    let name = job.name.clone();
    let found = worked_out(move || day_plan(KnownJob::of(job)?.days(), date.as_deref(), &[]).map_err(of_day));
    Ok((found.await?, name))
}

/// A day of a job that is kept, as a calendar with alarms.
#[utoipa::path(
    operation_id = "day_calendar",
    params(WhichDay),
    responses((status = OK, description = "iCalendar (RFC 5545)", body = String, content_type = "text/calendar")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/day.ics")]
pub async fn calendar(id: Path<String>, which: Query<WhichDay>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (day, name) = of_kept(&id, which.into_inner().date, &store).await?;
    let written = day_files::calendar(&day, &name, jiff::Timestamp::now());
    let file = as_file(&format!("{name} day"), ".ics");
    Ok(HttpResponse::Ok().content_type("text/calendar; charset=utf-8").insert_header(file).body(written))
}

/// A day of a job that is kept, as a table.
#[utoipa::path(
    operation_id = "day_table",
    params(WhichDay),
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/day.csv")]
pub async fn table(id: Path<String>, which: Query<WhichDay>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (day, name) = of_kept(&id, which.into_inner().date, &store).await?;
    Ok(table_as_file(&format!("{name} day"), day_files::csv(&day)))
}
