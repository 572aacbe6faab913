//! Solving: a setup and its kit in, the plan out. Nothing is stored.

use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::ambient::DayStrip;
use tolva_core::scale::{Dial, Engraved};
use tolva_planner::blend::{
    Alternatives, ColourWays, Colouring, OneLook, Placing, Plan, SchoolMatter, Show, alternatives, at_minute,
    colour_to, colour_ways, day_of, one_look, place, plan, schools,
};
use tolva_planner::job::{Camera, Kit, Lens, Setup};
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};

/// A setup to solve.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SolveRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
    /// A mark on the rail that is moved first.
    #[serde(default)]
    place: Option<Placing>,
    /// A mark on the colour line that is moved first.
    #[serde(default)]
    colour: Option<Colouring>,
    /// The minute of its day, from midnight, that the setup is moved to first.
    #[serde(default)]
    minute: Option<f64>,
}

/// A setup and its plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct SolveResponse {
    /// The setup, with the mark moved.
    setup: Setup,
    /// Its plan.
    plan: Plan,
}

/// Computes the plan of a setup; with a mark or an hour to move, moves it first.
#[utoipa::path(
    request_body = SolveRequest,
    responses(
        (status = OK, description = "The plan", body = SolveResponse),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/solve")]
pub async fn solve(body: Body<SolveRequest>) -> Result<HttpResponse, ApiError> {
    let SolveRequest { setup, kit, show, place: placing, colour, minute } = body.0;
    let setup = match placing {
        Some(placing) => place(&setup, &kit, &placing)?,
        None => setup,
    };
    let setup = match colour {
        Some(colour) => colour_to(&setup, &kit, &colour)?,
        None => setup,
    };
    let setup = match minute {
        Some(minute) => at_minute(&setup, &kit, minute)?,
        None => setup,
    };
    let plan = plan(&setup, &kit, show)?;
    Ok(HttpResponse::Ok().json(SolveResponse { setup, plan }))
}

/// A setup whose day is asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DayRequest {
    /// The setup, with its place and hour.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// From one point of the strip to the next, in minutes, 1 to 60.
    #[schema(minimum = 1, maximum = 60)]
    step_min: f64,
}

/// The light of a setup's day: lit side, shadow side and behind from midnight to midnight.
#[utoipa::path(
    operation_id = "day",
    request_body = DayRequest,
    responses(
        (status = OK, description = "The day", body = DayStrip),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/day")]
pub async fn day(body: Body<DayRequest>) -> Result<HttpResponse, ApiError> {
    let DayRequest { setup, kit, step_min } = body.0;
    Ok(HttpResponse::Ok().json(day_of(&setup, &kit, step_min)?))
}

/// One setting of a dial.
#[derive(Debug, Serialize, ToSchema)]
pub struct DialSetting {
    /// The nominal value: seconds, f-number or ISO.
    nominal: f64,
    /// As on the dial.
    label: String,
}

/// The settings a camera offers.
#[derive(Debug, Serialize, ToSchema)]
pub struct Dials {
    /// Shutter times, slowest first.
    shutter: Vec<DialSetting>,
    /// Apertures, widest first.
    aperture: Vec<DialSetting>,
    /// Sensitivities, lowest first.
    iso: Vec<DialSetting>,
}

/// A setup to look at from other sides.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetupRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
}

/// A few truly different ways to the same wish, with what each costs and why the first is first.
#[utoipa::path(
    operation_id = "alternatives",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The ways", body = Alternatives),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/alternatives")]
pub async fn ways(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    Ok(HttpResponse::Ok().json(alternatives(&setup, &kit, show)?))
}

/// What each school would set.
#[utoipa::path(
    operation_id = "schools",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The matters and their schools", body = Vec<SchoolMatter>),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/schools")]
pub async fn all_schools(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    Ok(HttpResponse::Ok().json(schools(&setup, &kit, show)?))
}

/// Every school of white balance for a setup, with what becomes of its colours, and the gels that match its lights.
#[utoipa::path(
    operation_id = "colour",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The schools and the gels", body = ColourWays),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/colour")]
pub async fn colours(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    Ok(HttpResponse::Ok().json(colour_ways(&setup, &kit, show)?))
}

/// The setups of a job, to be held to one look.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LookRequest {
    /// The setups.
    setups: Vec<Setup>,
    /// The kit they refer to.
    kit: Kit,
    /// The one whose white balance counts.
    of: String,
}

/// Which setups stand at another white balance than one of them, and by how much.
#[utoipa::path(
    operation_id = "look",
    request_body = LookRequest,
    responses(
        (status = OK, description = "The look", body = OneLook),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/look")]
pub async fn look(body: Body<LookRequest>) -> Result<HttpResponse, ApiError> {
    let LookRequest { setups, kit, of } = body.0;
    Ok(HttpResponse::Ok().json(one_look(&setups, &kit, &of)?))
}

/// A camera with a lens on it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DialsRequest {
    /// The camera.
    camera: Camera,
    /// The lens.
    lens: Lens,
}

/// Lists the settings on the dials of a camera.
#[utoipa::path(
    request_body = DialsRequest,
    responses(
        (status = OK, description = "The dials", body = Dials),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/dials")]
pub async fn dials(body: Body<DialsRequest>) -> Result<HttpResponse, ApiError> {
    let DialsRequest { camera, lens } = body.0;
    let kit = Kit { cameras: vec![camera.clone()], lenses: vec![lens.clone()], ..Kit::starter() };
    kit.check().map_err(|wrong| wrong.under("/kit/cameras/0", "/camera").under("/kit/lenses/0", "/lens"))?;
    Ok(HttpResponse::Ok().json(Dials {
        shutter: settings(&Dial::<tolva_core::scale::Shutter>::new(
            camera.shutter.step,
            camera.shutter.slowest_s,
            camera.shutter.fastest_s,
        )),
        aperture: settings(&Dial::<tolva_core::scale::Aperture>::new(
            camera.aperture_step,
            lens.widest_f_number,
            lens.smallest_f_number,
        )),
        iso: settings(&Dial::<tolva_core::scale::Iso>::new(
            camera.iso.step,
            camera.iso.base_iso,
            camera.iso.highest_iso,
        )),
    }))
}

fn settings<E: Engraved>(dial: &Dial<E>) -> Vec<DialSetting> {
    dial.settings().map(|setting| DialSetting { nominal: setting.nominal, label: setting.label() }).collect()
}
