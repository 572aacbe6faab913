//! What else a frame can say: of a two-tone target, of a camera's own curve, of a sunset.

use actix_web::web::{Data, Path, Payload};
use actix_web::{HttpRequest, HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::exposure::Ev;
use tolva_core::frame::{Exposed, Mark, Shape, Target, TwoTone, Warned, found, just_gone, recovered};
use tolva_core::scale::Stops;
use tolva_format::{Kit, Problems, StatedColour, TakenFrame};
use tolva_pictures::{levels, read};
use tolva_planner::colour::InColour;
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;
use tolva_store::{Copied, Store};
use tolva_wording::Said;
use utoipa::ToSchema;

use super::arriving::{PICTURE, spooled_and_read};
use crate::api::body::Body;
use crate::api::problem::{ApiError, ProblemDocument, within};
use crate::api::work::worked_out;
use crate::frames::{FrameError, Frames, exposure_of};

/// A part of a frame, in parts of its width and height.
#[derive(Clone, Copy, Debug, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameBox {
    /// From the left, 0 to 1.
    #[schema(minimum = 0, maximum = 1)]
    left: f64,
    /// From the top, 0 to 1.
    #[schema(minimum = 0, maximum = 1)]
    top: f64,
    /// 0 to 1.
    #[schema(minimum = 0, maximum = 1)]
    width: f64,
    /// 0 to 1.
    #[schema(minimum = 0, maximum = 1)]
    height: f64,
}

impl From<Mark> for FrameBox {
    fn from(Mark { left, top, width, height, .. }: Mark) -> Self {
        Self { left, top, width, height }
    }
}

/// Where a target is.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TargetRequest {
    /// A box round both halves; left out, it is looked for.
    #[serde(default)]
    within: Option<FrameBox>,
}

/// A two-tone target.
#[derive(Debug, Serialize, ToSchema)]
pub struct TargetSaid {
    /// Where it is, both halves.
    at: FrameBox,
    /// Where its light half is measured.
    light_at: FrameBox,
    /// How much brighter than mid grey its light half is, in stops.
    light_surface_stops: f64,
    /// How far over the right exposure the frame is.
    off: Said,
    /// In words, with what makes it unsure.
    says: String,
    /// The colour of the light on it, as a grey patch for the light’s colour.
    colour: StatedColour,
    /// `red 1.04, blue 0.93 of green`.
    balance: String,
}

/// What was looked for.
#[derive(Debug, Serialize, ToSchema)]
pub struct TargetFound {
    /// The target; null where there is none.
    target: Option<TargetSaid>,
}

/// The two-tone target in a frame, found by itself or in a box: how far the exposure is off, and the colour of the light.
#[utoipa::path(
    operation_id = "target_in_frame",
    request_body = TargetRequest,
    responses((status = OK, description = "The target", body = TargetFound)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/{id}/target")]
pub async fn target(
    id: Path<String>,
    body: Body<TargetRequest>,
    store: Data<Store>,
    frames: Data<Frames>,
) -> Result<HttpResponse, ApiError> {
    let kept = store.frame(&id).await?;
    let kit = super::kit_of(&store, &kept).await?;
    if let Some(FrameBox { left, top, width, height }) = body.0.within {
        for (pointer, value) in [("left", left), ("top", top), ("width", width), ("height", height)] {
            within(&format!("/within/{pointer}"), value, 0.0, 1.0, "of the frame")?;
        }
    }
    let found = worked_out(move || {
        let frame = kept.frame;
        let photo = frames.photo(&store, &frame, &kit)?;
        let tones = TwoTone::default();
        let target = match body.0.within {
            Some(FrameBox { left, top, width, height }) => {
                Target::within(&photo, Mark { left, top, width, height, shape: Shape::Box }, tones)
            }
            None => found(&photo, tones),
        };
        let target = target.map(|target| said(&frame, &kit, tones, &target)).transpose()?;
        Ok::<_, FrameError>(TargetFound { target })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// A two-tone target read in a picture that belongs to no setup.
#[derive(Debug, Serialize, ToSchema)]
pub struct TargetRead {
    /// Whether there is one.
    found: bool,
    /// How far over the right exposure the picture is; null where there is no target.
    off: Option<Said>,
    /// In words, with what makes it unsure, or what to do where there is none.
    says: String,
    /// `red 1.04, blue 0.93 of green`; null where there is no target.
    balance: Option<String>,
}

/// The two-tone target in any picture, by its own levels as sRGB: how far the exposure is off. Nothing is kept.
#[utoipa::path(
    operation_id = "sum_two_tone_target",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = OK, description = "The target", body = TargetRead)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/calculators/two-tone-target")]
pub async fn target_in_picture(request: HttpRequest, payload: Payload) -> Result<HttpResponse, ApiError> {
    let bytes = spooled_and_read(&request, payload, PICTURE).await?;
    let read = worked_out(move || {
        let photo = read(&bytes, None)?.photo;
        let tones = found(&photo, TwoTone::default());
        let none = "No two-tone target found: half white (90%), half black (3.5%), side by side, evenly lit.";
        Ok::<_, FrameError>(TargetRead {
            found: tones.is_some(),
            says: tones.as_ref().map_or_else(|| none.to_owned(), in_words),
            balance: tones.as_ref().map(balance),
            off: tones.map(|tones| tones.off.into()),
        })
    });
    Ok(HttpResponse::Ok().json(read.await?))
}

/// How far off the exposure is, and what makes that unsure.
fn in_words(of: &Target) -> String {
    let mut says = if of.off.0.abs() < 0.05 {
        "Exposure right to a tenth of a stop.".to_owned()
    } else {
        let which = if of.off.0 > 0.0 { "over" } else { "under" };
        format!("{:.1} stop {which} the right exposure.", of.off.0.abs())
    };
    if of.clipped {
        says.push_str(" Its light half is clipped: over by at least so much.");
    }
    if of.stray > 0.05 {
        says.push_str(" Stray light on it: keep the sun off the lens and the shine off the target.");
    }
    says
}

fn balance(of: &Target) -> String {
    match (of.light.red_over_green(), of.light.blue_over_green()) {
        (Some(red), Some(blue)) => format!("red {red:.2}, blue {blue:.2} of green"),
        _ => "black".to_owned(),
    }
}

fn said(frame: &TakenFrame, kit: &Kit, tones: TwoTone, of: &Target) -> Result<TargetSaid, FrameError> {
    let (setup, kit) = (frame.setup.clone().into(), kit.clone().into());
    let prepared = Prepared::new(&setup, &kit)?;
    let white = InColour::of(&prepared, &Outcome::of(&prepared)).balance.dial;
    let [red, green, blue] = of.light.levels().map(|level| (level * 10.0).round() / 10.0);
    Ok(TargetSaid {
        at: of.at.into(),
        light_at: of.light_at.into(),
        light_surface_stops: (tones.light / 0.18).log2(),
        off: Said::from(of.off),
        says: in_words(of),
        colour: StatedColour::GreyPatch { red, green, blue, kelvin: white.kelvin().0, tint_duv: white.tint_duv() },
        balance: balance(of),
    })
}

/// Some frames of a job.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SomeFrames {
    /// Their ids: 2 to 11.
    #[schema(min_items = 2, max_items = 11)]
    frames: Vec<String>,
}

async fn all_of(store: &Store, ids: Vec<String>) -> Result<Vec<TakenFrame>, ApiError> {
    if !(2..=11).contains(&ids.len()) {
        let says = format!("these are {} frames: it takes 2 to 11", ids.len());
        return Err(Problems::one("/frames", says).coded(tolva_format::ProblemCode::Count).into());
    }
    let mut all = Vec::new();
    for id in ids {
        all.push(store.frame(&id).await?.frame);
    }
    Ok(all)
}

fn exposure(frame: &TakenFrame) -> Result<Ev, Problems> {
    exposure_of(&frame.settings).ok_or_else(|| {
        let says = format!("what {} was taken with is not known: say its shutter, aperture and ISO first", frame.name);
        Problems::one("/frames", says)
    })
}

/// A camera’s own curve.
#[derive(Debug, Serialize, ToSchema)]
pub struct CurveFound {
    /// The level of a grey, 0 to 255, at each quarter of a stop from −5 to +2.5: as a camera of the kit keeps it.
    levels: Vec<f64>,
    /// How well the frames agree with it, in stops: one standard deviation.
    off_stops: f64,
    /// In words.
    says: String,
}

/// Finds a camera’s own curve from a bracket of one still scene: three to eleven frames about a stop apart.
#[utoipa::path(
    operation_id = "curve_of_frames",
    request_body = SomeFrames,
    responses(
        (status = OK, description = "The curve", body = CurveFound),
        (status = NOT_FOUND, description = "There is no such frame, or its picture is missing", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/curve")]
pub async fn curve(body: Body<SomeFrames>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let all = all_of(&store, body.0.frames).await?;
    let found = worked_out(move || {
        let of = |frame: &TakenFrame| {
            let bytes =
                std::fs::read(store.frame_picture(&frame.id, Copied::Measured)).map_err(|_| FrameError::Missing)?;
            Ok::<_, FrameError>(Exposed::of(&levels(&bytes, None)?.raster, -exposure(frame)?.0))
        };
        let bracket: Vec<Exposed> = all.iter().map(of).collect::<Result<_, _>>()?;
        let found = recovered(&bracket).map_err(|wrong| Problems::one("/frames", wrong.to_string()))?;
        let says = format!(
            "Found from {} frames, which agree to ±{:.2} stop. Between levels {:.0} and {:.0} it was seen; beyond, it is drawn on.",
            bracket.len(),
            found.off.0,
            found.known.0,
            found.known.1
        );
        let levels = found.curve().quarters().into_iter().map(|level| (level * 100.0).round() / 100.0).collect();
        Ok::<_, FrameError>(CurveFound { levels, off_stops: found.off.0, says })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// Which frames of a sunset, and where in them it is.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SunsetRequest {
    /// Two or three frames, some with the warning on the sky and some without: their ids.
    #[schema(min_items = 2, max_items = 11)]
    frames: Vec<String>,
    /// The region that is to keep its colour.
    region_id: String,
}

/// A sunset, read.
#[derive(Debug, Serialize, ToSchema)]
pub struct SunsetRead {
    /// The light there, as a reading: EV at ISO 100.
    ev100: f64,
    /// How far that may be off, in stops.
    sure_stops: f64,
    /// In words.
    says: String,
}

/// What is full lies so far over mid grey: 1 over 0.18.
const FULL: Stops = Stops(2.474);
/// More of a mark than this clipped, and the warning shows.
const WARNS: f64 = 0.02;

/// Reads a sunset by the clipping warning: the largest exposure at which it has just gone from a region.
#[utoipa::path(
    operation_id = "sunset_of_frames",
    request_body = SunsetRequest,
    responses(
        (status = OK, description = "The reading", body = SunsetRead),
        (status = NOT_FOUND, description = "There is no such frame", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/sunset")]
pub async fn sunset(body: Body<SunsetRequest>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let SunsetRequest { frames, region_id } = body.0;
    let all = all_of(&store, frames).await?;
    let warned = |frame: &TakenFrame| {
        let mark = frame.marks.iter().find(|mark| mark.region_id == region_id).and_then(|mark| mark.measured);
        let mark = mark.ok_or_else(|| {
            Problems::one("/region_id", format!("{} has no mark there: put one onto the sky first", frame.name))
        })?;
        Ok::<_, Problems>(Warned { at: exposure(frame)?, clipped: mark.clipped > WARNS })
    };
    let warned: Vec<Warned> = all.iter().map(warned).collect::<Result<_, _>>()?;
    let (at, sure) = just_gone(&warned).map_err(|wrong| Problems::one("/frames", wrong.to_string()))?;
    let ev100 = ((at.0 + FULL.0) * 100.0).round() / 100.0;
    let says = format!(
        "The warning has just gone at EV {:.1}, ±{:.1}: the brightest of it is at EV {ev100:.1}, and at that exposure it is as bright as it \
         can be with its colour.",
        at.0, sure.0
    );
    Ok(HttpResponse::Ok().json(SunsetRead { ev100, sure_stops: sure.0, says }))
}
