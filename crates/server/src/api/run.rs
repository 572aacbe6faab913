//! A setup on the set: what to set now, what turns when a frame looked too dark, its shots, its card.

use actix_web::http::header::{CONTENT_DISPOSITION, CONTENT_SECURITY_POLICY, ContentDisposition, DispositionType};
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpResponse, get, post};
use jiff::Timestamp;
use serde::Deserialize;
use tolva_format::{Job, Kit, Problems, Setup};
use tolva_planner::refused::Refused;
use tolva_store::Store;
use tolva_wording::{
    LengthUnit, LookedSaid, Paper, RunSheet, ShotList, Show, field_card, looked_said, run_sheet, shot_list,
};
use utoipa::{IntoParams, ToSchema};

use super::answer::as_file;
use super::body::Body;
use super::falling::setup_of;
use super::preferences::shown;
use super::problem::ApiError;
use super::work::worked_out;
use crate::edge::{KnownJob, known, refused, write};
use crate::policy::policy;

/// A setup of a job that is on the set.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RunRequest {
    /// The job, as it is on screen.
    job: Job,
    /// The setup.
    setup_id: String,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
}

/// What is wrong with a setup that is asked for by its id.
fn of_setup(wrong: Refused) -> Problems {
    match wrong {
        Refused::NoSuchSetup(_) => {
            Problems::one("/setup_id", wrong.to_string()).coded(tolva_format::ProblemCode::NotThere)
        }
        other => refused(other),
    }
}

/// A setup on the set: what to set now and when to change what, its shots, what is moved for the next setup. The hour is
/// that of the machine Tolva runs on.
#[utoipa::path(
    operation_id = "run_sheet",
    request_body = RunRequest,
    responses((status = OK, description = "The sheet", body = RunSheet)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/run")]
pub async fn sheet(body: Body<RunRequest>) -> Result<HttpResponse, ApiError> {
    let RunRequest { job, setup_id, show } = body.0;
    let found = worked_out(move || {
        let known = KnownJob::of(job).map_err(|problems| problems.under("", "/job"))?;
        run_sheet(known.days(), &setup_id, Timestamp::now(), show, &write).map_err(of_setup)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// A frame that looked too dark or too bright in a region.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LookedRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// The region.
    region_id: String,
    /// By so many thirds of a stop it is to come out brighter, −9 to 9.
    #[schema(minimum = -9, maximum = 9)]
    thirds: i32,
    /// The instant it was taken at, in UTC: what stands on the dials then is turned. Left out, the setup's hour.
    #[serde(default)]
    #[schema(max_length = 40)]
    at: Option<String>,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
}

/// What turns when a frame looked too dark or too bright, and why that dial. Nothing is stored.
#[utoipa::path(
    operation_id = "frame_looked",
    request_body = LookedRequest,
    responses((status = OK, description = "What turns", body = LookedSaid)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/run/looked")]
pub async fn looked(body: Body<LookedRequest>) -> Result<HttpResponse, ApiError> {
    let LookedRequest { setup, kit, region_id, thirds, at, show } = body.0;
    let found = worked_out(move || {
        let at = at.map(|at| {
            at.parse::<Timestamp>()
                .map_err(|_| Problems::one("/at", format!("“{at}” is no instant: write 2026-08-29T17:36:00Z")))
        });
        let at = at.transpose()?;
        let (setup, kit) = known(setup, kit)?;
        looked_said(&setup, &kit, (&region_id, thirds), at, show, &write).map_err(|wrong| match wrong {
            Refused::NoSuchRegion(_) => {
                Problems::one("/region_id", wrong.to_string()).coded(tolva_format::ProblemCode::NotThere)
            }
            Refused::NothingPlaces(_) | Refused::AtItsEnd(_) => Problems::one("/region_id", wrong.to_string()),
            Refused::OutOfRange { what: "thirds", .. } => Problems::one("/thirds", wrong.to_string()),
            other => refused(other),
        })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// A setup whose shots are asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShotsRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
}

/// The shots of a setup in words: how each is taken, what each exposure is given, what keeps together.
#[utoipa::path(
    operation_id = "shot_list",
    request_body = ShotsRequest,
    responses((status = OK, description = "The shots", body = ShotList)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/shots")]
pub async fn shots(body: Body<ShotsRequest>) -> Result<HttpResponse, ApiError> {
    let ShotsRequest { setup, kit } = body.0;
    let found = worked_out(move || {
        let (setup, kit) = known(setup, kit)?;
        shot_list(&setup, &kit, &write).map_err(refused)
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

/// What a card is printed on.
#[derive(Clone, Copy, Debug, Default, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum PaperSize {
    /// 148 × 210 mm.
    #[default]
    A5,
    /// 210 × 297 mm.
    A4,
}

impl From<PaperSize> for Paper {
    fn from(size: PaperSize) -> Self {
        match size {
            PaperSize::A5 => Self::A5,
            PaperSize::A4 => Self::A4,
        }
    }
}

/// How a card is made.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct CardAsked {
    /// What it is printed on.
    #[serde(default)]
    #[param(inline)]
    paper: PaperSize,
    /// The unit of its distances; left out, the person's own.
    #[serde(default)]
    #[param(inline)]
    length: Option<LengthUnit>,
    /// Whether it comes as a file to keep instead of a page to look at.
    #[serde(default)]
    keep: bool,
}

/// The field card of a setup that is kept: one self-contained HTML file, a sheet of paper or a page on a phone.
#[utoipa::path(
    operation_id = "field_card",
    params(CardAsked),
    responses((status = OK, description = "HTML", body = String, content_type = "text/html")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/setups/{setup}/card.html")]
pub async fn card(
    at: Path<(String, String)>,
    asked: Query<CardAsked>,
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let (id, setup_id) = at.into_inner();
    let CardAsked { paper, length, keep } = asked.into_inner();
    let job = store.job(&id).await?.document;
    let show = shown(&store).await?;
    let show = Show { length: length.unwrap_or(show.length), ..show };
    let file = setup_of(&job, &setup_id)?.name.clone();
    let html = worked_out(move || {
        let words = (job.name.clone(), job.place.clone());
        field_card(KnownJob::of(job)?.days(), (&words.0, &words.1), &setup_id, show, paper.into()).map_err(of_setup)
    });
    let mut response = HttpResponse::Ok();
    response.content_type("text/html; charset=utf-8");
    // Its own styles stand in it, and nothing else does.
    response.insert_header((CONTENT_SECURITY_POLICY, policy("'unsafe-inline'")));
    if keep {
        response.insert_header(as_file(&format!("{file} card"), ".html"));
    } else {
        let shown = ContentDisposition { disposition: DispositionType::Inline, parameters: Vec::new() };
        response.insert_header((CONTENT_DISPOSITION, shown.to_string()));
    }
    Ok(response.body(html.await?))
}
