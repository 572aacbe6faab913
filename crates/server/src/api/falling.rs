//! Falling light: the timetable of a setup, and as files.

use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, get, post};
use serde::Deserialize;
use tolva_format::{Job, Kit, Setup};
use tolva_store::Store;
use tolva_wording::{Show, Timetable, falling};
use utoipa::ToSchema;

use super::answer::as_file;
use super::body::Body;
use super::preferences::shown;
use super::problem::{ApiError, ProblemDocument};
use super::work::worked_out;
use crate::edge::{known, refused};
use crate::timetable as files;

/// A setup whose timetable is asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FallingRequest {
    /// The setup, with its place and hour.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
}

/// When to change what as the light falls, so that the blend stays as it is wished.
#[utoipa::path(
    operation_id = "falling",
    request_body = FallingRequest,
    responses(
        (status = OK, description = "The timetable", body = Timetable),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/falling")]
pub async fn timetable(body: Body<FallingRequest>) -> Result<HttpResponse, ApiError> {
    let FallingRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        falling(&setup, &kit, show).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// The timetable of a setup that is kept, as a calendar with alarms.
#[utoipa::path(
    operation_id = "falling_calendar",
    responses((status = OK, description = "iCalendar (RFC 5545)", body = String, content_type = "text/calendar")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/setups/{setup}/falling.ics")]
pub async fn calendar(at: Path<(String, String)>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (found, title) = of_kept(&at, &store).await?;
    Ok(file("text/calendar; charset=utf-8", ".ics", files::calendar(&found, &title, jiff::Timestamp::now())))
}

/// The timetable of a setup that is kept, as a table.
#[utoipa::path(
    operation_id = "falling_table",
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/setups/{setup}/falling.csv")]
pub async fn table(at: Path<(String, String)>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let (found, _) = of_kept(&at, &store).await?;
    Ok(file("text/csv; charset=utf-8", ".csv", files::csv(&found)))
}

/// A setup of a job that is kept.
pub(super) fn setup_of<'a>(job: &'a Job, wanted: &str) -> Result<&'a Setup, ApiError> {
    job.setups.iter().find(|setup| setup.id == wanted).ok_or_else(|| {
        let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "no_such_setup", "No such setup");
        problem.saying(format!("there is no setup “{wanted}” in this job")).into()
    })
}

async fn of_kept(at: &(String, String), store: &Store) -> Result<(Timetable, String), ApiError> {
    let (id, wanted) = at;
    let job = store.job(id).await?.document;
    let setup = setup_of(&job, wanted)?;
    let title = format!("{}: {}", job.name, setup.name);
    let (setup, show) = (setup.clone(), shown(store).await?);
    let found = worked_out(move || {
        let (setup, kit) = known(setup, job.kit)?;
        falling(&setup, &kit, show).map_err(refused)
    });
    Ok((found.await?, title))
}

fn file(kind: &str, ending: &str, body: String) -> HttpResponse {
    HttpResponse::Ok().content_type(kind).insert_header(as_file("falling light", ending)).body(body)
}
