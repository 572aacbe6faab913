//! The log of a job's frames, taken out: a table, or everything with the pictures, which is read again, too.

use std::collections::BTreeSet;

use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse, get, post};
use serde_json::json;
use tolva_format::{FrameSummary, Job, TakenFrame};
use tolva_store::{Copied, FrameListing, Store};

use super::arriving::spooled;
use crate::api::answer::{Key, as_file, table_as_file};
use crate::api::begin::created;
use crate::api::job_body::JobBody;
use crate::api::problem::{ApiError, ProblemDocument};
use crate::api::work::long_worked_out;
use crate::frames::{Archive, FrameError, Go, MOST_WHOLE, packed};
use crate::gone::Gone;
use crate::table::csv;

/// What the shot a frame is of is called; empty where nobody has said it.
fn shot_of<'a>(job: &'a Job, frame: &FrameSummary) -> &'a str {
    let shots = job.setups.iter().filter(|setup| setup.id == frame.setup_id).flat_map(|setup| &setup.shots);
    let found = shots.into_iter().find(|shot| Some(&shot.id) == frame.shot_id.as_ref());
    found.map_or("", |shot| &shot.name)
}

/// A row a frame. Each region has three columns of its own.
fn written(job: &Job, frames: &[FrameSummary]) -> String {
    let regions: BTreeSet<&str> =
        frames.iter().flat_map(|frame| frame.came.iter().map(|came| came.region_id.as_str())).collect();
    let mut head: Vec<String> = [
        "frame",
        "setup",
        "shot",
        "at",
        "added_at",
        "shutter_s",
        "f_number",
        "iso",
        "focal_length_mm",
        "flash",
        "simulated",
        "changed",
        "note",
    ]
    .map(str::to_owned)
    .into();
    for region in &regions {
        head.extend(["planned_stops", "came_stops", "off_stops"].map(|what| format!("{region} {what}")));
    }
    let number = |value: Option<f64>| value.map_or_else(String::new, |value| format!("{value}"));
    let hundredths = |value: Option<f64>| value.map_or_else(String::new, |value| format!("{value:.2}"));
    let row = |frame: &FrameSummary| {
        let of = &frame.settings;
        let mut row = vec![
            frame.name.clone(),
            frame.setup_name.clone(),
            shot_of(job, frame).to_owned(),
            frame.at.clone().unwrap_or_default(),
            frame.added_at.clone(),
            number(of.shutter_s),
            number(of.f_number),
            number(of.iso),
            number(of.focal_length_mm),
            of.flash.map_or_else(String::new, |flash| flash.to_string()),
            frame.simulated.to_string(),
            frame.changed.join("; "),
            frame.note.clone(),
        ];
        for region in &regions {
            let came = frame.came.iter().find(|came| came.region_id == *region);
            row.push(hundredths(came.and_then(|came| came.planned_stops)));
            row.push(hundredths(came.and_then(|came| came.came_stops)));
            row.push(hundredths(came.and_then(|came| came.off_stops)));
        }
        row
    };
    csv(std::iter::once(head).chain(frames.iter().map(row)))
}

/// The log of a job’s frames as a table (CSV, RFC 4180), a row a frame.
#[utoipa::path(
    operation_id = "frame_table",
    responses((status = OK, description = "The table", content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames/log.csv")]
pub async fn table(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    let frames = store.frame_list(&id, &FrameListing::default()).await?.frames;
    Ok(table_as_file(&format!("{} frames", job.name), written(&job, &frames)))
}

/// The log of a job’s frames as JSON: everything that is kept of each, with the setup as it stood.
#[utoipa::path(
    operation_id = "frame_log",
    responses((status = OK, description = "The log", content_type = "application/json")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames/log.json")]
pub async fn lines(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    let frames = store.frames(&id).await?;
    let name = as_file(&format!("{} frames", job.name), ".json");
    Ok(HttpResponse::Ok().insert_header(name).json(json!({ "format": "tolva-frames", "frames": frames })))
}

/// A job with its frames: one ZIP with the job file, the log as JSON and CSV, and the copies of the pictures.
#[utoipa::path(
    operation_id = "job_with_frames",
    responses((status = OK, description = "The archive", content_type = "application/zip")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames/archive.zip")]
pub async fn whole(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    let frames = store.frames(&id).await?;
    let name = as_file(&format!("{} with frames", job.name), ".zip");
    let made = long_worked_out(move || {
        let picture = |id: &str| store.frame_picture(id, Copied::Measured);
        let summaries: Vec<FrameSummary> = frames.iter().map(TakenFrame::summary).collect();
        packed(&job, &written(&job, &summaries), &frames, picture)
            .map_err(|_| ApiError::from(ProblemDocument::broken()))
    });
    Ok(HttpResponse::Ok().insert_header(name).content_type("application/zip").body(made.await?))
}

/// Adds a job with its frames from the ZIP that such a job is taken out as. Everything in it is read before anything is kept.
#[utoipa::path(
    operation_id = "add_job_with_frames",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = CREATED, description = "Added; `Location` says where", body = JobBody)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/archive")]
pub async fn add_whole(
    request: HttpRequest,
    payload: Payload,
    (key, gone): (Key, Gone),
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let file = spooled(&request, payload, ("archive", MOST_WHOLE)).await?;
    // Whoever sent it may go away: then it is not read on.
    let goes_on = move || if gone.by_now() { Go::Away } else { Go::On };
    let archive = long_worked_out(move || {
        let bytes = std::fs::read(file.path()).map_err(|_| FrameError::Stopped)?;
        Archive::read_while(&bytes, goes_on).map_err(|why| FrameError::Wrong(why.into()))
    });
    let archive = archive.await?;
    let saved = archive.kept(&store, key.0.as_deref()).await?;
    Ok(created(saved))
}
