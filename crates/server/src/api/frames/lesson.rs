//! What a frame says of its plan, what it teaches, and what the stand-in camera had hidden.

use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::frame::{Mark, Photo, Shape};
use tolva_devices::SimulatedCamera;
use tolva_format::{Kit, Setup, TakenFrame};
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;
use tolva_store::Store;
use tolva_wording::{BeliefSaid, FrameReport, Hidden, Lesson, Revealed, Show, beliefs, frame_report, lesson, revealed};
use utoipa::ToSchema;

use crate::api::body::Body;
use crate::api::problem::{ApiError, within};
use crate::api::work::worked_out;
use crate::edge::{known, write};
use crate::frames::{FrameError, Frames, came_of, mark_of, marks};

/// The setup as it is now.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LessonRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
}

/// What a frame says.
#[derive(Debug, Serialize, ToSchema)]
pub struct LessonOfFrame {
    /// What came against the plan it was taken by.
    report: FrameReport,
    /// What it teaches, and what to turn; null where it can tell nothing.
    lesson: Option<Lesson>,
    /// How many pixels stand at which level, in the whole frame and under each mark. Empty where the picture is missing.
    histograms: Vec<FrameHistogram>,
}

/// How many pixels stand at which level.
#[derive(Debug, Serialize, ToSchema)]
pub struct FrameHistogram {
    /// The region under whose mark; null for the whole frame.
    region_id: Option<String>,
    /// In 64 steps of four levels: luminance, red, green, blue.
    counted: Vec<Vec<u32>>,
    /// How much of it is full, in percent.
    clipped_percent: f64,
}

/// Of the whole frame, and under each mark.
fn histograms(photo: &Photo, frame: &TakenFrame) -> Vec<FrameHistogram> {
    let of = |region_id: Option<&str>, mark: Mark| FrameHistogram {
        region_id: region_id.map(str::to_owned),
        counted: photo.part(mark).histogram().map(Vec::from).into(),
        clipped_percent: photo.measured(mark).clipped * 100.0,
    };
    let whole = Mark { left: 0.0, top: 0.0, width: 1.0, height: 1.0, shape: Shape::Box };
    let marks = frame.marks.iter().map(|mark| of(Some(&mark.region_id), mark_of(mark)));
    std::iter::once(of(None, whole)).chain(marks).collect()
}

/// Holds a frame against its plan, and says what it teaches the setup as it is now.
#[utoipa::path(
    operation_id = "lesson_of_frame",
    request_body = LessonRequest,
    responses((status = OK, description = "What it says", body = LessonOfFrame)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/{id}/lesson")]
pub async fn lesson_of(
    id: Path<String>,
    body: Body<LessonRequest>,
    store: Data<Store>,
    frames: Data<Frames>,
) -> Result<HttpResponse, ApiError> {
    let frame = store.frame(&id).await?.frame;
    let LessonRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let photo = frames.photo(&store, &frame, &kit).ok();
        let histograms = photo.map_or_else(Vec::new, |photo| histograms(&photo, &frame));
        let (now, kit) = known(setup, kit)?;
        let all = marks(&frame);
        let then = frame.setup.clone().into();
        let report = frame_report(&then, &kit, came_of(&frame, &all))?;
        let lesson = lesson((&frame.id, &then), &now, &kit, came_of(&frame, &all), show, &write)?;
        Ok::<_, FrameError>(LessonOfFrame { report, lesson, histograms })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// What is believed of what nobody knows.
#[derive(Debug, Serialize, ToSchema)]
pub struct BeliefsSaid {
    /// Each: by the figures alone, and by what frames have taught.
    beliefs: Vec<BeliefSaid>,
    /// From how many frames of this setup.
    frames: u32,
}

/// What frames have taught of a setup, beside what its figures say.
#[utoipa::path(
    operation_id = "beliefs",
    request_body = LessonRequest,
    responses((status = OK, description = "What is believed", body = BeliefsSaid)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/beliefs")]
pub async fn believed(body: Body<LessonRequest>) -> Result<HttpResponse, ApiError> {
    let LessonRequest { setup, kit, .. } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        let frames = setup.learnt.as_ref().map_or(0, |learnt| learnt.frames);
        Ok::<_, FrameError>(BeliefsSaid { beliefs: beliefs(&setup, &kit)?, frames })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// Which stand-in camera.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RevealRequest {
    /// The setup, with what was learnt.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// Its number, 0 to 1 000 000.
    #[schema(minimum = 0, maximum = 1_000_000)]
    seed: u32,
}

/// What it had hidden.
#[derive(Debug, Serialize, ToSchema)]
pub struct RevealedAll {
    /// Each, beside what was learnt of it.
    hidden: Vec<Revealed>,
}

/// Shows what the stand-in camera has hidden in a setup, and how near what was learnt comes to it.
#[utoipa::path(
    operation_id = "reveal_stand_in",
    request_body = RevealRequest,
    responses((status = OK, description = "What it has hidden", body = RevealedAll)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/stand-in/reveal")]
pub async fn reveal(body: Body<RevealRequest>) -> Result<HttpResponse, ApiError> {
    let RevealRequest { setup, kit, seed } = body.0;
    within("/seed", f64::from(seed), 0.0, 1_000_000.0, "")?;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        let camera = SimulatedCamera { seed: u64::from(seed) };
        let prepared = Prepared::new(&setup, &kit)?;
        let hidden = camera.hidden(&prepared, &Outcome::of(&prepared)).into_iter();
        let hidden: Vec<Hidden> = hidden.map(|(what, more)| Hidden { what, more }).collect();
        Ok::<_, FrameError>(RevealedAll { hidden: revealed(&setup, &kit, &hidden) })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}
