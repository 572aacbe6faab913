//! Solving: a setup and its kit in, the plan out. Nothing is stored.

use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::scale::{Dial, Engraved};
use tolva_format::{Camera, Kit, Lens, ProblemCode, Problems, Setup, Sync, check};
use tolva_planner::setup;
use tolva_wording::{
    Alternatives, ColourOptions, ConventionMatter, DayTimeline, DrawnAs, FloorPart, MapAsked, Named as _, OneLook,
    Plan, Show, alternatives, colour_options, conventions_of, day_of, one_look, plan, plan_with_set, set_drawing,
    set_moves,
};
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, within};
use super::work::worked_out;
use crate::edge::{Command, known, refused, write};

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
    /// What is done to it first.
    #[serde(default)]
    command: Option<Command>,
    /// What map of light is drawn of its set; without it the plan leaves its set out.
    #[serde(default)]
    map: Option<MapAsked>,
}

/// A setup and its plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct SolveResponse {
    /// The setup, with the command carried out.
    setup: Setup,
    /// Its plan.
    plan: Plan,
}

/// Computes the plan of a setup; with something to do to it, does that first.
#[utoipa::path(
    request_body = SolveRequest,
    responses(
        (status = OK, description = "The plan", body = SolveResponse),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/solve")]
pub async fn solve(body: Body<SolveRequest>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(worked_out(move || solved(body.0)).await?))
}

fn solved(asked: SolveRequest) -> Result<SolveResponse, Problems> {
    let SolveRequest { setup, kit, show, command, map } = asked;
    let setup = match command {
        Some(command) => command.carried_out(setup, &kit, show.length)?,
        None => setup,
    };
    let (setup, kit) = known(setup, kit)?;
    let plan = match map {
        Some(asked) => {
            within_reach(&asked)?;
            plan_with_set(&setup, &kit, show, &write, &asked)
        }
        None => plan(&setup, &kit, show, &write),
    };
    let plan = plan.map_err(refused)?;
    Ok(SolveResponse { setup: setup.into(), plan })
}

/// A part of the floor that has a width and lies within what may be drawn.
fn within_reach(asked: &MapAsked) -> Result<(), Problems> {
    let Some(part) = asked.part else { return Ok(()) };
    let FloorPart { left_m, near_m, right_m, far_m } = part;
    let ends = [("left_m", left_m), ("near_m", near_m), ("right_m", right_m), ("far_m", far_m)];
    for (field, end) in ends {
        within(&format!("/map/part/{field}"), end, -200.0, 200.0, "m")?;
    }
    if right_m - left_m < 0.1 || far_m - near_m < 0.1 {
        return Err(Problems::one("/map/part", "this has no width: it must be 0.1 m at least, both ways"));
    }
    Ok(())
}

/// The set of a setup as it is carried onto the floor.
#[derive(Debug, Serialize, ToSchema)]
pub struct SetOnPaper {
    /// In words, one move a line.
    moves: Vec<String>,
    /// From above, to scale, with its measures: an SVG.
    drawing: String,
}

/// The set of a setup in words and as a drawing to scale, for a helper and for paper.
#[utoipa::path(
    operation_id = "set",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The set", body = SetOnPaper),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/set")]
pub async fn set_on_paper(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        let moves = set_moves(&setup, &kit, show).map_err(refused)?;
        Ok::<_, Problems>(SetOnPaper {
            moves,
            drawing: set_drawing(&setup, &kit, show, DrawnAs::Sheet).map_err(refused)?,
        })
    });
    Ok(HttpResponse::Ok().json(found.await?))
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
        (status = OK, description = "The day", body = DayTimeline),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/day")]
pub async fn day(body: Body<DayRequest>) -> Result<HttpResponse, ApiError> {
    let DayRequest { setup, kit, step_min } = body.0;
    let day = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        day_of(&setup, &kit, step_min).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(day.await?))
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
    /// How flash and shutter can go together on this camera.
    sync: Vec<SyncOffer>,
}

/// A way for flash and shutter to go together.
#[derive(Debug, Serialize, ToSchema)]
pub struct SyncOffer {
    /// Its name in the format.
    sync: Sync,
    /// What it is called.
    name: &'static str,
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
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/alternatives")]
pub async fn ways(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        alternatives(&setup, &kit, show, &write).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// What each school would set.
#[utoipa::path(
    operation_id = "conventions",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The matters and their schools", body = Vec<ConventionMatter>),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/conventions")]
pub async fn all_conventions(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        conventions_of(&setup, &kit, show, &write).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// Every school of white balance for a setup, with what becomes of its colours, and the gels that match its lights.
#[utoipa::path(
    operation_id = "colour",
    request_body = SetupRequest,
    responses(
        (status = OK, description = "The schools and the gels", body = ColourOptions),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/colour")]
pub async fn colours(body: Body<SetupRequest>) -> Result<HttpResponse, ApiError> {
    let SetupRequest { setup, kit, show } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        colour_options(&setup, &kit, show, &write).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// The setups of a job, to be held to one look.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LookRequest {
    /// The setups. At most 60.
    #[schema(max_items = 60)]
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
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/look")]
pub async fn look(body: Body<LookRequest>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(worked_out(move || looked_at(body.0)).await?))
}

/// As many setups as a job has at most.
const MOST_SETUPS: usize = 60;

fn looked_at(asked: LookRequest) -> Result<OneLook, Problems> {
    let LookRequest { setups, kit, of } = asked;
    if setups.len() > MOST_SETUPS {
        let says = format!("{} are too many: at most {MOST_SETUPS}", setups.len());
        return Err(Problems::one("/setups", says).coded(ProblemCode::Count));
    }
    for (index, setup) in setups.iter().enumerate() {
        check(setup, &kit).map_err(|problems| problems.under("/setup", &format!("/setups/{index}")))?;
    }
    let setups: Vec<_> = setups.into_iter().map(Into::into).collect();
    one_look(&setups, &kit.into(), &of, &write).map_err(|none| {
        let wrong = refused(*none.refused);
        none.setup.map_or(wrong.clone(), |index| wrong.under("/setup", &format!("/setups/{index}")))
    })
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
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/dials")]
pub async fn dials(body: Body<DialsRequest>) -> Result<HttpResponse, ApiError> {
    let DialsRequest { camera, lens } = body.0;
    let kit = Kit { cameras: vec![camera.clone()], lenses: vec![lens.clone()], ..Kit::starter() };
    kit.check().map_err(|wrong| wrong.under("/kit/cameras/0", "/camera").under("/kit/lenses/0", "/lens"))?;
    let electronic = camera.sync_electronic_s.is_some();
    let syncs = [setup::Sync::Ordinary, setup::Sync::HighSpeed, setup::Sync::Electronic].into_iter();
    let syncs = syncs.filter(|sync| electronic || *sync != setup::Sync::Electronic);
    Ok(HttpResponse::Ok().json(Dials {
        sync: syncs.map(|sync| SyncOffer { sync: sync.into(), name: sync.name() }).collect(),
        shutter: settings(&Dial::<tolva_core::scale::Shutter>::new(
            camera.shutter.step.into(),
            camera.shutter.slowest_s,
            camera.shutter.fastest_s,
        )),
        aperture: settings(&Dial::<tolva_core::scale::Aperture>::new(
            camera.aperture_step.into(),
            lens.widest_f_number,
            lens.smallest_f_number,
        )),
        iso: settings(&Dial::<tolva_core::scale::Iso>::new(
            camera.iso.step.into(),
            camera.iso.base_iso,
            camera.iso.highest_iso,
        )),
    }))
}

fn settings<E: Engraved>(dial: &Dial<E>) -> Vec<DialSetting> {
    dial.settings().map(|setting| DialSetting { nominal: setting.nominal, label: setting.label() }).collect()
}
