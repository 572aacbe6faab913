//! A set to practise on with the stand-in camera: dials, frames, what they tell, and what was hidden.

use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse, get, post};
use jiff::civil::DateTime;
use serde::{Deserialize, Serialize};
use tolva_core::proof::{Fineness, Work};
use tolva_core::scale::Stops;
use tolva_devices::{Camera as _, Scene, SimulatedCamera};
use tolva_format::Problems;
use tolva_planner::drills::{Level, OnSet, OnSetFrame};
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;
use tolva_store::Store;
use tolva_wording::{OnSetSaid, Show, on_set_said, proof_of};
use utoipa::{IntoParams, ToSchema};

use super::{day_of, kept, level, within};
use crate::api::answer::{Key, had, picture_named};
use crate::api::body::Body;
use crate::api::preferences::shown;
use crate::api::problem::ApiError;
use crate::api::work::{long_worked_out, worked_out};
use crate::edge::refused;
use crate::phones::Caller;
use crate::proofs::{Asked as Pictured, Proofs};

/// What a set is kept as among the answers: its frames are the answer.
pub(super) const ON_SET: &str = "on_set";
/// Nobody takes more frames of a set.
const MOST_FRAMES: usize = 60;
/// So many pixels the longer side of a frame has.
const FRAME: u32 = 480;

/// The dials of a frame, by their places.
#[derive(Clone, Copy, Debug, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnSetDials {
    /// The shutter's place on its dial.
    shutter: usize,
    /// The aperture's.
    aperture: usize,
    /// The ISO's.
    iso: usize,
    /// The power's.
    power: usize,
}

impl From<OnSetDials> for OnSetFrame {
    fn from(OnSetDials { shutter, aperture, iso, power }: OnSetDials) -> Self {
        Self { shutter, aperture, iso, power }
    }
}

/// A set, and the frames that were taken of it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnSetRequest {
    /// The level, 1 to 3.
    #[schema(minimum = 1, maximum = 3)]
    level: u8,
    /// What the set is drawn with.
    #[schema(maximum = 9_007_199_254_740_992_u64)]
    seed: u64,
    /// The frames, in the order they were taken; at most 60.
    #[serde(default)]
    #[schema(max_items = 60)]
    frames: Vec<OnSetDials>,
    /// Whether it is given up, and what was hidden is to be shown.
    #[serde(default)]
    give_up: bool,
    /// The day it is where somebody practises; left out, the one it is in UTC.
    #[serde(default)]
    #[schema(max_length = 10)]
    today: Option<String>,
}

/// The set of a level and a seed, with what the stand-in camera hides in it.
fn set(level: Level, seed: u64) -> Result<OnSet, Problems> {
    let camera = SimulatedCamera { seed };
    OnSet::drawn(level, seed, |prepared, outcome| camera.hidden(prepared, outcome))
        .ok_or_else(|| Problems::one("/seed", format!("no set comes of {seed}: take another number")))
}

fn off_the_dials() -> Problems {
    Problems::one("/frames", "a frame stands where a dial does not go: places are counted from 0 along its options")
}

/// A set to practise on: what is known, what each of these frames tells, and once it is reached what was hidden. A set that
/// ends is kept among the answers, once under its `Idempotency-Key`.
#[utoipa::path(
    operation_id = "practise_on_set",
    request_body = OnSetRequest,
    responses((status = OK, description = "The set", body = OnSetSaid)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/drills/set")]
pub async fn practise(
    body: Body<OnSetRequest>,
    (key, caller): (Key, Caller),
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let OnSetRequest { level: number, seed, frames, give_up, today } = body.0;
    let level = level(number)?;
    within(seed, 1)?;
    let day = day_of(today.as_deref())?;
    if frames.len() > MOST_FRAMES {
        let says = format!("{} frames of one set: at most {MOST_FRAMES}", frames.len());
        return Err(Problems::one("/frames", says).into());
    }
    let show = shown(&store).await?;
    let (said, off) = worked_out(move || {
        let set = set(level, seed)?;
        let frames: Vec<OnSetFrame> = frames.into_iter().map(Into::into).collect();
        let said = on_set_said(&set, &frames, give_up, show).ok_or_else(off_the_dials)?;
        let last = frames.last().and_then(|at| set.off(*at));
        let most = |off: [Stops; 2]| off.into_iter().max_by(|a, b| a.0.abs().total_cmp(&b.0.abs()));
        let off = last.and_then(most).map(|off| off.0);
        Ok::<_, ApiError>((said, off))
    })
    .await?;
    if said.end.is_some() {
        let reached = said.frames.iter().any(|one| one.reached);
        let one = kept(&caller, day, (ON_SET, level, seed), (said.frames.len(), reached, off));
        store.keep_attempt(&one, key.0.as_deref()).await?;
    }
    Ok(HttpResponse::Ok().json(said))
}

/// Which frame of which set.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichFrame {
    /// The level, 1 to 3.
    #[param(minimum = 1, maximum = 3)]
    level: u8,
    /// What the set is drawn with.
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: u64,
    /// The shutter's place on its dial.
    shutter: usize,
    /// The aperture's.
    aperture: usize,
    /// The ISO's.
    iso: usize,
    /// The power's.
    power: usize,
}

/// A frame of a set to practise on, as the stand-in camera takes it.
#[utoipa::path(
    operation_id = "frame_of_set",
    params(WhichFrame),
    responses((status = OK, description = "JPEG", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/set.jpg")]
pub async fn frame_of_set(
    which: Query<WhichFrame>,
    proofs: Data<Proofs>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let WhichFrame { level: number, seed, shutter, aperture, iso, power } = which.into_inner();
    let level = level(number)?;
    within(seed, 1)?;
    let at = OnSetFrame { shutter, aperture, iso, power };
    let proofs = proofs.into_inner();
    let id = format!("set-{number}-{seed}-{shutter}-{aperture}-{iso}-{power}");
    if let Some(had) = had(&request, &id) {
        return Ok(had);
    }
    let taken = long_worked_out(move || frame(&set(level, seed)?, seed, at, &proofs));
    Ok(picture_named(&id, ("image/jpeg", "no-cache"), taken.await?))
}

/// Takes it. The set stands still from frame to frame, so that its light is rendered once.
fn frame(set: &OnSet, seed: u64, at: OnSetFrame, proofs: &Proofs) -> Result<Vec<u8>, ApiError> {
    let setup = set.setup(at).ok_or_else(off_the_dials)?;
    let (proof, report) = proof_of(&setup, set.kit(), Show::default()).map_err(refused)?;
    let wanted = Pictured { longest: FRAME, fineness: Fineness::Fine, grain: false, movement: false, behind: None };
    let rendered =
        proofs.picture(&format!("set {seed} {at:?}"), (&setup, &proof, &report), &wanted, &Work::default())?;
    let prepared = Prepared::new(&setup, set.kit()).map_err(refused)?;
    let scene = Scene {
        prepared: &prepared,
        outcome: &Outcome::of(&prepared),
        proof: &proof,
        layers: &rendered.layers,
        size: rendered.size,
        flash: true,
        // A frame of practice has no hour: the same dials are the same file.
        at: DateTime::constant(2000, 1, 1, 12, 0, 0, 0),
        number: 1,
    };
    let camera = SimulatedCamera { seed };
    camera.take(&scene).map_err(|error| Problems::one("/seed", error.to_string()).into())
}
