//! How frames come: sent by a browser, taken by the stand-in camera, written into a folder that is watched. And what tells
//! the screens that they have.

use std::io::Write as _;
use std::path::PathBuf;
use std::time::Duration;

use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Payload, Query};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put};
use serde::{Deserialize, Serialize};
use serde_json::json;
use tempfile::NamedTempFile;
use tolva_format::{Kit, Problems, Setup};
use tolva_pictures::MOST_BYTES;
use tolva_store::{Store, Watched, no_room};
use utoipa::{IntoParams, ToSchema};

use super::FrameLine;
use crate::api::body::{Body, is_sent_as, next_part, too_large};
use crate::api::events::{event, events as told_as_events};
use crate::api::problem::{ApiError, ProblemDocument, within};
use crate::api::work::{long_worked_out, worked_out};
use crate::frames::{Arrived, FrameError, Frames, Sent, no_such_setup, simulated, take_in};
use crate::live::{Live, What};
use crate::phones::{Caller, Phones};
use crate::proofs::Proofs;

/// So long the next part of a picture is waited for.
const PATIENCE: Duration = Duration::from_secs(20);

/// What a picture is called.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Called {
    /// The name of its file.
    #[serde(default)]
    name: String,
}

/// What is sent as a picture is called so, and has at most so many bytes.
pub const PICTURE: (&str, usize) = ("picture", MOST_BYTES);

/// Writes what comes to the disk as it comes, and reads it when it is all there.
pub async fn spooled(
    request: &HttpRequest,
    payload: Payload,
    (what, most): (&str, usize),
) -> Result<NamedTempFile, ApiError> {
    is_sent_as(request, "application/octet-stream")?;
    let full = |error: std::io::Error| -> ApiError {
        if no_room(&error) {
            return tolva_store::StoreError::DiskFull.into();
        }
        let says = format!("{} cannot be written to: {error}", std::env::temp_dir().display());
        let title = "No room for what is sent";
        ProblemDocument::new(StatusCode::INTERNAL_SERVER_ERROR, "no_room", title).saying(says).into()
    };
    let mut payload = payload.into_inner();
    let mut file = NamedTempFile::new().map_err(full)?;
    let mut bytes = 0;
    while let Some(part) = next_part(&mut payload, PATIENCE, what).await? {
        bytes += part.len();
        if bytes > most {
            return Err(too_large(format!("the {what} has more than {} MB, which is the most", most / 1_000_000)));
        }
        file.write_all(&part).map_err(full)?;
    }
    Ok(file)
}

/// The same, read: for what is looked at once it is there.
pub async fn spooled_and_read(
    request: &HttpRequest,
    payload: Payload,
    what: (&str, usize),
) -> Result<Vec<u8>, ApiError> {
    let file = spooled(request, payload, what).await?;
    worked_out(move || std::fs::read(file.path()).map_err(|_| FrameError::Stopped)).await
}

/// Takes a picture in as a frame of a setup: JPEG, PNG, TIFF, or a raw file by the preview it carries. The same file comes
/// once.
#[utoipa::path(
    operation_id = "add_frame",
    params(Called),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = CREATED, description = "It is a frame now", body = FrameLine),
        (status = OK, description = "It was there before", body = FrameLine),
        (status = CONFLICT, description = "The job has as many frames as it can", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/setups/{setup}/frames")]
pub async fn add(
    at: Path<(String, String)>,
    called: Query<Called>,
    request: HttpRequest,
    payload: Payload,
    store: Data<Store>,
    (frames, proofs): (Data<Frames>, Data<Proofs>),
) -> Result<HttpResponse, ApiError> {
    let (id, setup_id) = at.into_inner();
    // Before anything is sent in vain.
    let job = store.job(&id).await?.document;
    if !job.setups.iter().any(|setup| setup.id == setup_id) {
        return Err(no_such_setup(&setup_id).into());
    }
    let file = Sent::Spooled(spooled(&request, payload, PICTURE).await?);
    let arrived = Arrived { name: called.into_inner().name, file, by_hand: true, setup: None };
    let (frames, proofs) = (frames.into_inner(), proofs.into_inner());
    let (kept, new) = take_in((&store, &frames, &proofs), (&id, &setup_id), arrived).await?;
    let status = if new { StatusCode::CREATED } else { StatusCode::OK };
    Ok(HttpResponse::build(status).json(FrameLine::of(kept.frame.summary(), &store)))
}

/// What the stand-in camera is to take.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StandInRequest {
    /// The setup, with its plan's dials.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// Which camera and which set: another number hides other faults, 0 to 1 000 000.
    #[schema(minimum = 0, maximum = 1_000_000)]
    seed: u32,
    /// Whether the flashes fire.
    flash: bool,
}

/// Has the stand-in camera take a frame of a setup, through its proof, with faults of its own that nobody knows.
#[utoipa::path(
    operation_id = "stand_in_frame",
    request_body = StandInRequest,
    responses(
        (status = CREATED, description = "The frame", body = FrameLine),
        (status = CONFLICT, description = "The job has as many frames as it can", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/jobs/{id}/setups/{setup}/frames/stand-in")]
pub async fn stand_in(
    at: Path<(String, String)>,
    body: Body<StandInRequest>,
    store: Data<Store>,
    (frames, proofs): (Data<Frames>, Data<Proofs>),
) -> Result<HttpResponse, ApiError> {
    let (id, setup_id) = at.into_inner();
    let StandInRequest { setup, kit, seed, flash } = body.0;
    within("/seed", f64::from(seed), 0.0, 1_000_000.0, "")?;
    if setup.id != setup_id {
        return Err(Problems::one("/setup/id", format!("this is not the setup {setup_id}")).into());
    }
    let number = store.count_frames(&id, &setup_id).await? + 1;
    let stood = setup.clone();
    let taken = long_worked_out(move || simulated(setup, kit, (seed, flash), number)).await?;
    let arrived = Arrived { name: taken.0, file: Sent::Here(taken.1), by_hand: true, setup: Some(stood) };
    let (frames, proofs) = (frames.into_inner(), proofs.into_inner());
    let (kept, _) = take_in((&store, &frames, &proofs), (&id, &setup_id), arrived).await?;
    Ok(HttpResponse::Created().json(FrameLine::of(kept.frame.summary(), &store)))
}

/// Which folder is watched.
#[derive(Debug, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WatchedFolder {
    /// The folder on the machine Tolva runs on.
    #[schema(min_length = 1, max_length = 1000)]
    folder: String,
    /// The job its pictures belong to.
    job_id: String,
    /// The setup they become frames of.
    setup_id: String,
}

/// A folder that is watched, and how that goes.
#[derive(Debug, Serialize, ToSchema)]
pub struct Watching {
    /// Which; null where none is.
    watched: Option<WatchedFolder>,
    /// Whether the folder is there.
    there: bool,
}

async fn watching(store: &Store) -> Result<Watching, ApiError> {
    let kept = store.watched().await?;
    let there = kept.as_ref().is_some_and(|one| one.folder.is_dir());
    let said = |Watched { folder, job_id, setup_id }| WatchedFolder {
        folder: folder.to_string_lossy().into_owned(),
        job_id,
        setup_id,
    };
    Ok(Watching { watched: kept.map(said), there })
}

/// Which folder’s pictures become frames.
#[utoipa::path(
    operation_id = "watched_folder",
    responses((status = OK, description = "The folder", body = Watching)),
    extensions(("x-rights" = json!("machine"))),
)]
#[get("/api/v1/watched")]
pub async fn watched(store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(watching(&store).await?))
}

/// Has the pictures in a folder, those that are there and those that come, become frames of a setup.
#[utoipa::path(
    operation_id = "watch_folder",
    request_body = WatchedFolder,
    responses(
        (status = OK, description = "It is watched", body = Watching),
        (status = NOT_FOUND, description = "There is no such job", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("machine"))),
)]
#[put("/api/v1/watched")]
pub async fn watch(
    body: Body<WatchedFolder>,
    store: Data<Store>,
    frames: Data<Frames>,
) -> Result<HttpResponse, ApiError> {
    let WatchedFolder { folder, job_id, setup_id } = body.0;
    let job = store.job(&job_id).await?.document;
    if !job.setups.iter().any(|setup| setup.id == setup_id) {
        return Err(no_such_setup(&setup_id).into());
    }
    let folder = PathBuf::from(folder);
    if !folder.is_absolute() {
        let says = "give the whole path of the folder, from the root of the disk";
        return Err(Problems::one("/folder", says).into());
    }
    if !folder.is_dir() {
        let says = format!("there is no folder {} on the machine Tolva runs on", folder.display());
        return Err(Problems::one("/folder", says).into());
    }
    store.watch(Some(&Watched { folder, job_id, setup_id })).await?;
    frames.look_again();
    Ok(HttpResponse::Ok().json(watching(&store).await?))
}

/// Watches no folder any more. The frames that came stay.
#[utoipa::path(
    operation_id = "unwatch_folder",
    responses((status = NO_CONTENT, description = "No folder is watched")),
    extensions(("x-rights" = json!("machine"))),
)]
#[delete("/api/v1/watched")]
pub async fn unwatch(store: Data<Store>, frames: Data<Frames>) -> Result<HttpResponse, ApiError> {
    store.watch(None).await?;
    frames.look_again();
    Ok(HttpResponse::NoContent().finish())
}

/// Tells when the frames of a job are others now, or what went wrong with one, as server-sent events.
#[utoipa::path(
    operation_id = "frame_events",
    responses((status = OK, description = "Events, as they come", content_type = "text/event-stream")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames/events")]
pub async fn events(
    id: Path<String>,
    store: Data<Store>,
    (live, phones): (Data<Live>, Data<Phones>),
    caller: Caller,
) -> Result<HttpResponse, ApiError> {
    store.job(&id).await?;
    let others = || event("frames", &json!({}));
    let may = move || phones.is_in(&caller);
    let lines = (": here\n\n".to_owned(), others());
    Ok(told_as_events(live.listen(), id.into_inner(), lines, may, move |what| match what {
        What::Frames => Some(others()),
        What::Wrong(says) => Some(event("wrong", &json!({ "says": says }))),
        What::Saved | What::Present | What::PutOut | What::Over => None,
    }))
}
