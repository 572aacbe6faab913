//! Frames that came: listed, shown, marked, put into the bin.

mod apart;
mod arriving;
mod lesson;
mod log;
mod nearest;
mod plates;
mod tuning;

use std::collections::HashMap;

use actix_web::http::StatusCode;
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put};
use serde::{Deserialize, Serialize};
use tolva_core::scale::Stops;
use tolva_format::{
    FrameCame, FrameEdit, FrameSummary, Job, Kit, MarksBy, ProblemCode, Problems, TakenFrame, shortened,
};
use tolva_store::{Copied, FrameListing, KeptFrame, Store, UnreadableFrame};
use tolva_wording::{PlateSaid, SameSaid, frame_says, frame_settings};
use utoipa::{IntoParams, ToSchema};

use super::answer::{FOREVER, had, picture_named};
use super::body::Body;
use super::problem::{ApiError, ProblemDocument, within};
use super::work::worked_out;
use crate::frames::{FrameError, Frames, dials, expected, judge};
use crate::proofs::Proofs;

pub use apart::{map, mix, take_apart, use_mix};
pub(super) use arriving::{PICTURE, spooled_and_read};
pub use arriving::{add, events, stand_in, unwatch, watch, watched};
pub use lesson::{believed, lesson_of, reveal};
pub use log::{add_whole, lines, table, whole};
pub use nearest::that_worked;
pub use tuning::{curve, sunset, target, target_in_picture};

/// A frame in a list.
#[derive(Debug, Serialize, ToSchema)]
pub struct FrameLine {
    /// Its id.
    id: String,
    /// The setup it was taken of.
    setup_id: String,
    /// Which of its shots it is of; null where nobody has said it.
    shot_id: Option<String>,
    /// Whether it came at the settings of its picture; null where it is not to.
    same: Option<SameSaid>,
    /// What its file is called.
    name: String,
    /// When it came, RFC 3339.
    added_at: String,
    /// When it was taken, by the camera's clock; null where its file does not say.
    at: Option<String>,
    /// The camera, as it names itself; null where it does not.
    camera: Option<String>,
    /// What it was taken with, in a line.
    settings: String,
    /// What came against the plan, in a sentence.
    says: String,
    /// Whether the flash fired; null where it is not known.
    flash: Option<bool>,
    /// Whether the stand-in camera made it.
    simulated: bool,
    /// Whether it is the picture a raw file carries.
    raw_preview: bool,
    /// How its marks came to be where they are.
    marks_by: MarksBy,
    /// What came of each region.
    came: Vec<FrameCame>,
    /// What there is to say of it.
    note: String,
    /// What was changed after it.
    changed: Vec<String>,
    /// What its file says that cannot be.
    wrong: Vec<String>,
    /// Whether the copy of its picture is gone.
    missing: bool,
}

impl FrameLine {
    fn of(frame: FrameSummary, store: &Store) -> Self {
        let settings = dials(&frame.settings);
        let off = |came: &FrameCame| came.off_stops.map(Stops);
        let says = frame_says(settings.is_some(), frame.came.iter().map(|came| (came.name.as_str(), off(came))));
        Self {
            settings: frame_settings(settings, frame.settings.flash),
            flash: frame.settings.flash,
            says,
            missing: !store.frame_picture(&frame.id, Copied::Measured).exists(),
            id: frame.id,
            setup_id: frame.setup_id,
            shot_id: frame.shot_id,
            same: None,
            name: frame.name,
            added_at: frame.added_at,
            at: frame.at,
            camera: frame.camera,
            simulated: frame.simulated,
            raw_preview: frame.raw_preview,
            marks_by: frame.marks_by,
            came: frame.came,
            note: frame.note,
            changed: frame.changed,
            wrong: frame.wrong,
        }
    }
}

/// The frames of a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct FrameList {
    /// In the order they came: the last ones, or the last before where the page was to end.
    frames: Vec<FrameLine>,
    /// What to ask the page before with, as `before`; null where this one begins with the first.
    earlier: Option<i64>,
    /// How many there are on all pages.
    total: i64,
    /// The shots that are to be at the settings of the picture, where frames of them came or should have.
    plates: Vec<PlateSaid>,
    /// Those that cannot be read.
    unreadable: Vec<UnreadableLine>,
}

/// A frame that cannot be read: it can be put into the bin.
#[derive(Debug, Serialize, ToSchema)]
pub struct UnreadableLine {
    /// Its id.
    id: String,
    /// Why.
    says: String,
}

/// Which frames.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct WhichFrames {
    /// Of this setup only.
    #[serde(default)]
    setup: Option<String>,
    /// Those in the bin instead.
    #[serde(default)]
    binned: bool,
    /// Only what came before this: what a page gave as `earlier`.
    #[serde(default)]
    before: Option<i64>,
    /// How many at most.
    #[serde(default = "usual_limit")]
    #[param(minimum = 1, maximum = 200, default = 200)]
    limit: u32,
}

const fn usual_limit() -> u32 {
    200
}

impl From<FrameError> for ApiError {
    fn from(error: FrameError) -> Self {
        match error {
            FrameError::Store(error) => error.into(),
            FrameError::Wrong(problems) => problems.into(),
            FrameError::TooLong(_) => {
                let problem = ProblemDocument::new(StatusCode::SERVICE_UNAVAILABLE, "too_long", "It takes too long");
                problem.saying(error.says()).into()
            }
            FrameError::Unreadable(why) => {
                let problem = ProblemDocument::new(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "unreadable_picture",
                    "It cannot be read as a picture",
                );
                problem.saying(why.to_string()).into()
            }
            FrameError::Missing => {
                let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "picture_missing", "The picture is missing");
                let says =
                    "the copy of this frame’s picture is no longer beside the data file; what was measured of it stays";
                problem.saying(says).into()
            }
            FrameError::Stopped => ProblemDocument::broken().into(),
        }
    }
}

/// The frames of a job, in the order they came, a page at a time from the last.
#[utoipa::path(
    operation_id = "frames",
    params(WhichFrames),
    responses((status = OK, description = "The frames", body = FrameList)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames")]
pub async fn list(id: Path<String>, which: Query<WhichFrames>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let WhichFrames { setup, binned, before, limit } = which.into_inner();
    within("/limit", f64::from(limit), 1.0, 200.0, "")?;
    let job = store.job(&id).await?.document;
    let page = FrameListing { setup_id: setup.clone(), binned, before, limit: Some(limit) };
    let found = store.frame_list(&id, &page).await?;
    // What one is held to may be on another page.
    let all = if found.total > i64::from(limit) && !binned && plates::is_any(&job, setup.as_deref()) {
        store.frames_as_taken(&id, setup.as_deref()).await?
    } else {
        found.frames.iter().map(FrameSummary::as_taken).collect()
    };
    let told = |frame: UnreadableFrame| UnreadableLine { id: frame.id, says: frame.says };
    let unreadable = found.unreadable.into_iter().map(told).collect();
    let listed = worked_out(move || {
        let (same, plates) = plates::held(&job, &all);
        let mut same: HashMap<&str, SameSaid> =
            (all.iter().zip(same)).filter_map(|(frame, same)| Some((frame.id.as_str(), same?))).collect();
        let line = |frame: FrameSummary| {
            let same = same.remove(frame.id.as_str());
            FrameLine { same, ..FrameLine::of(frame, &store) }
        };
        let frames = found.frames.into_iter().map(line).collect();
        Ok::<_, ApiError>(FrameList { frames, earlier: found.earlier, total: found.total, plates, unreadable })
    });
    Ok(HttpResponse::Ok().json(listed.await?))
}

/// A frame, with the setup as it stood when it came.
#[utoipa::path(
    operation_id = "frame",
    responses((status = OK, description = "The frame", body = TakenFrame)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}")]
pub async fn one(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(store.frame(&id).await?.frame))
}

/// The kit of a frame's job.
async fn kit_of(store: &Store, kept: &KeptFrame) -> Result<Kit, ApiError> {
    Ok(store.job(&kept.job_id).await?.document.kit)
}

/// A shot is one of those the setup has now, which may be listed after the frame came.
fn check_shot(job: &Job, setup_id: &str, shot_id: Option<&str>) -> Result<(), Problems> {
    let shots = job.setups.iter().filter(|setup| setup.id == setup_id).flat_map(|setup| &setup.shots);
    match shot_id {
        Some(wanted) if !shots.into_iter().any(|shot| shot.id == wanted) => {
            let says = format!("there is no shot “{}” in its setup", shortened(wanted));
            Err(Problems::one("/shot_id", says).coded(ProblemCode::NotThere))
        }
        _ => Ok(()),
    }
}

/// Changes what somebody may change of a frame, and measures it anew.
#[utoipa::path(
    operation_id = "edit_frame",
    request_body = FrameEdit,
    responses((status = OK, description = "The frame", body = TakenFrame)),
    extensions(("x-rights" = json!("all"))),
)]
#[put("/api/v1/frames/{id}")]
pub async fn edit(
    id: Path<String>,
    body: Body<FrameEdit>,
    store: Data<Store>,
    (frames, proofs): (Data<Frames>, Data<Proofs>),
) -> Result<HttpResponse, ApiError> {
    let kept = store.frame(&id).await?;
    let job = store.job(&kept.job_id).await?.document;
    let edit = body.0;
    if edit.shot_id != kept.frame.shot_id {
        check_shot(&job, &kept.frame.setup_id, edit.shot_id.as_deref())?;
    }
    let kit = job.kit;
    let mut frame = kept.frame.edited(edit)?;
    let (of, opener) = (store.clone(), frames.clone().into_inner());
    let measured = worked_out(move || {
        let photo = opener.photo(&of, &frame, &kit)?;
        let by_proof = frame.marks.iter().any(|mark| mark.by_proof);
        let expected = by_proof.then(|| expected(&frame, &kit, &proofs)).flatten();
        judge(&mut frame, (&photo, expected.as_ref()), &kit)?;
        Ok::<_, FrameError>(frame)
    });
    let frame = measured.await?;
    store.change_frame(&frame).await?;
    frames.tell(&kept.job_id, None);
    Ok(HttpResponse::Ok().json(frame))
}

/// Puts a frame into the bin. Its picture stays for sixty days.
#[utoipa::path(
    operation_id = "bin_frame",
    responses((status = NO_CONTENT, description = "It is in the bin")),
    extensions(("x-rights" = json!("all"))),
)]
#[delete("/api/v1/frames/{id}")]
pub async fn bin(id: Path<String>, store: Data<Store>, frames: Data<Frames>) -> Result<HttpResponse, ApiError> {
    let job_id = store.bin_frame(&id, true).await?;
    frames.tell(&job_id, None);
    Ok(HttpResponse::NoContent().finish())
}

/// Gives a frame back out of the bin.
#[utoipa::path(
    operation_id = "restore_frame",
    responses((status = OK, description = "It is back", body = FrameLine)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/{id}/restore")]
pub async fn restore(id: Path<String>, store: Data<Store>, frames: Data<Frames>) -> Result<HttpResponse, ApiError> {
    let job_id = store.bin_frame(&id, false).await?;
    frames.tell(&job_id, None);
    Ok(HttpResponse::Ok().json(FrameLine::of(store.frame(&id).await?.frame.summary(), &store)))
}

async fn sent(request: &HttpRequest, id: &str, copied: Copied, store: &Store) -> Result<HttpResponse, ApiError> {
    let kept = store.frame(id).await?;
    let name = format!("{}-{copied:?}", kept.frame.id);
    if let Some(had) = had(request, &name) {
        return Ok(had);
    }
    let file = store.frame_picture(&kept.frame.id, copied);
    let bytes = worked_out(move || std::fs::read(file).map_err(|_| FrameError::Missing)).await?;
    Ok(picture_named(&name, ("image/jpeg", FOREVER), bytes))
}

/// The copy of a frame's picture, as JPEG.
#[utoipa::path(
    operation_id = "frame_picture",
    responses((status = OK, description = "The picture", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}/picture")]
pub async fn picture(id: Path<String>, store: Data<Store>, request: HttpRequest) -> Result<HttpResponse, ApiError> {
    sent(&request, &id, Copied::Measured, &store).await
}

/// A frame's small picture, for lists, as JPEG.
#[utoipa::path(
    operation_id = "small_frame",
    responses((status = OK, description = "The picture", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}/small")]
pub async fn small(id: Path<String>, store: Data<Store>, request: HttpRequest) -> Result<HttpResponse, ApiError> {
    sent(&request, &id, Copied::Small, &store).await
}
