//! Tasks for one's own camera: frames are measured, and held against what was asked for. No frame is kept.

use actix_web::web::{Data, Path, Payload, Query};
use actix_web::{HttpRequest, HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::frame::{Mark, Measured, Shape};
use tolva_format::{ProblemCode, Problems, shortened};
use tolva_pictures::read;
use tolva_planner::drills::{Level, TaskFrame};
use tolva_planner::shots::AsTaken;
use tolva_store::Store;
use tolva_wording::{TaskFound, task_found, task_of};
use utoipa::{IntoParams, ToSchema};

use super::{day_of, kept};
use crate::api::answer::Key;
use crate::api::body::Body;
use crate::api::frames::{PICTURE, spooled_and_read};
use crate::api::problem::ApiError;
use crate::api::work::worked_out;
use crate::frames::FrameError;
use crate::phones::Caller;

/// What a task is kept as among the answers begins with this.
pub(super) const TASK: &str = "task_";
/// The middle of a frame: a fifth of its width and height.
const MIDDLE: Mark = Mark { left: 0.4, top: 0.4, width: 0.2, height: 0.2, shape: Shape::Ellipse };
/// Nobody drops more at once.
const MOST_FRAMES: usize = 20;

/// A frame of a task, measured.
#[derive(Clone, Debug, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasuredFrame {
    /// What its file is called.
    #[schema(max_length = 200)]
    name: String,
    /// When it was taken, by the camera's clock; null where the file does not say.
    at: Option<String>,
    /// Exposure time in seconds; null where the file does not say.
    shutter_s: Option<f64>,
    /// F-number; null where the file does not say.
    f_number: Option<f64>,
    /// ISO; null where the file does not say.
    iso: Option<f64>,
    /// Focal length in millimetres; null where the file does not say.
    focal_length_mm: Option<f64>,
    /// Whether the flash fired; null where the file does not say.
    flash: Option<bool>,
    /// Its width, upright, in pixels.
    wide: u32,
    /// Its height.
    high: u32,
    /// The mean of its middle in linear sRGB.
    mean: [f64; 3],
    /// How much of its middle is full, 0 to 1.
    clipped: f64,
}

impl From<&MeasuredFrame> for TaskFrame {
    fn from(of: &MeasuredFrame) -> Self {
        Self {
            taken: AsTaken {
                shutter_s: of.shutter_s,
                f_number: of.f_number,
                iso: of.iso,
                focal_length_mm: of.focal_length_mm,
                flash: of.flash,
                size: (of.wide, of.high),
            },
            middle: Measured { mean: of.mean, clipped: of.clipped, varies: 0.0, pixels: 1 },
        }
    }
}

/// What a picture is called.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct NamedFrame {
    /// The name of its file.
    #[serde(default)]
    #[param(max_length = 200)]
    name: String,
}

/// Measures the middle of a frame: JPEG, PNG, TIFF, or a raw file by the preview it carries. It is not kept.
#[utoipa::path(
    operation_id = "measure_task_frame",
    params(NamedFrame),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = OK, description = "What came in its middle", body = MeasuredFrame)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/drills/tasks/frames")]
pub async fn measure(
    named: Query<NamedFrame>,
    request: HttpRequest,
    payload: Payload,
) -> Result<HttpResponse, ApiError> {
    let bytes = spooled_and_read(&request, payload, PICTURE).await?;
    let name: String = named.into_inner().name.chars().take(200).collect();
    let measured = worked_out(move || {
        let frame = read(&bytes, None)?;
        let middle = frame.photo.measured(MIDDLE);
        let pixels = |count: usize| u32::try_from(count).unwrap_or(u32::MAX);
        Ok::<_, FrameError>(MeasuredFrame {
            name,
            at: frame.taken.at.map(|at| at.to_string()),
            shutter_s: frame.taken.shutter_s,
            f_number: frame.taken.f_number,
            iso: frame.taken.iso,
            focal_length_mm: frame.taken.focal_length_mm,
            flash: frame.taken.flash,
            wide: pixels(frame.size.wide),
            high: pixels(frame.size.high),
            mean: middle.mean,
            clipped: middle.clipped,
        })
    });
    Ok(HttpResponse::Ok().json(measured.await?))
}

/// Frames of a task.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TaskFrames {
    /// The frames, in the order they were taken, as they were measured; at most 20.
    #[schema(max_items = 20)]
    frames: Vec<MeasuredFrame>,
    /// The day it is where somebody practises; left out, the one it is in UTC.
    #[serde(default)]
    #[schema(max_length = 10)]
    today: Option<String>,
}

/// Holds measured frames against a task, and keeps how it went once all have come. Sent again under the same `Idempotency-Key` it is the same.
#[utoipa::path(
    operation_id = "judge_task",
    request_body = TaskFrames,
    responses((status = OK, description = "What was found", body = TaskFound)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/drills/tasks/{task}")]
pub async fn judge(
    task: Path<String>,
    body: Body<TaskFrames>,
    (key, caller): (Key, Caller),
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let TaskFrames { frames, today } = body.0;
    let of = task_of(&task).ok_or_else(|| {
        Problems::one("/task", format!("there is no task “{}”", shortened(&task))).coded(ProblemCode::NotThere)
    })?;
    let day = day_of(today.as_deref())?;
    if frames.len() > MOST_FRAMES {
        let says = format!("{} frames for one task: at most {MOST_FRAMES}", frames.len());
        return Err(Problems::one("/frames", says).into());
    }
    for (at, frame) in frames.iter().enumerate() {
        let numbers = frame.mean.iter().chain([&frame.clipped]);
        if numbers.into_iter().any(|one| !(0.0..=100.0).contains(one)) {
            let says = "what was measured is light from 0 to 100, and a part from 0 to 1: send it as it was answered";
            return Err(Problems::one(format!("/frames/{at}"), says).into());
        }
    }
    let count = frames.len();
    let frames: Vec<TaskFrame> = frames.iter().map(Into::into).collect();
    let found = task_found(of, &frames);
    // Frames that are still to come say nothing of whoever takes them.
    if count != of.flashes().len() {
        return Ok(HttpResponse::Ok().json(found));
    }
    let code = format!("{TASK}{}", task.as_str());
    let one = kept(&caller, day, (&code, Level::First, 0), (count, found.good, found.off_stops));
    store.keep_attempt(&one, key.0.as_deref()).await?;
    Ok(HttpResponse::Ok().json(found))
}
