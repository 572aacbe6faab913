//! The proof: the frame before it is taken. A picture is asked for by its setup and fetched by its id, which is the same for
//! the same setup.

use std::sync::Arc;

use actix_web::http::StatusCode;
use actix_web::http::header::CONTENT_DISPOSITION;
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpRequest, HttpResponse, delete, get, post};
use serde::{Deserialize, Serialize};
use tolva_core::proof::{Fineness, Size, Work};
use tolva_format::{Kit, ProblemCode, Problems, Setup};
use tolva_pictures::{clipped, jpeg, png};
use tolva_planner::proof::Proof;
use tolva_planner::setup;
use tolva_store::Store;
use tolva_wording::{ProofReport, Show, proof_of, proof_reading};
use utoipa::{IntoParams, ToSchema};

use super::answer::{FOREVER, had, picture_named};
use super::body::Body;
use super::problem::{ApiError, ProblemDocument, within};
use super::work::{long_worked_out, worked_out};
use crate::edge::{known, refused};
use crate::frames::{Frames, photo_behind};
use crate::gone::Gone;
use crate::proofs::{Asked, Kept, PhotoBehind, Proofs, Superseded};

/// What is rendered coarsely is so many times smaller.
const COARSER: u32 = 4;
/// The longer side of a small picture, in pixels.
const SMALL: u32 = 176;

/// A setup whose proof is asked for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ProofRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How numbers are shown.
    #[serde(default)]
    show: Show,
    /// The longer side of the picture, in pixels: 32 to 1920. What is rendered coarsely is a quarter of it.
    #[schema(minimum = 32, maximum = 1920)]
    longest: u32,
    /// Finely, as when everything rests; otherwise coarsely, as while something moves, unless nothing need be rendered.
    #[serde(default)]
    fine: bool,
    /// With the grain of its ISO, as one sees it at full size.
    #[serde(default)]
    grain: bool,
    /// With what moves smeared as far as it goes while the shutter is open, under the light that is there.
    #[serde(default)]
    movement: bool,
    /// A frame of this Tolva, taken without flash, as the photo of the place behind; left out where it is computed.
    #[serde(default)]
    behind: Option<String>,
    /// Who asks: a window. What it asked for before is given up.
    #[schema(min_length = 1, max_length = 60)]
    asker: String,
}

/// A proof that is ready.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProofReady {
    /// What it is fetched by.
    id: String,
    /// Whether it is as fine as it gets.
    fine: bool,
    /// In pixels.
    width: u32,
    /// In pixels.
    height: u32,
    /// How many pixels stand at which level, in 64 steps of four levels each: luminance, red, green, blue.
    histogram: Vec<Vec<u32>>,
    /// How much of it is clipped, in percent.
    clipped_percent: f64,
    /// What is said of it.
    report: ProofReport,
}

/// A place of a proof.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct PlaceInFrame {
    /// From the left of the frame, 0 to 1.
    left: f32,
    /// From its top, 0 to 1.
    down: f32,
}

/// Who asked.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Asker {
    /// The window.
    asker: String,
}

/// How far a proof has come.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProofProgress {
    /// In percent; null where nothing is asked for.
    percent: Option<f64>,
}

/// Renders the proof of a setup. What has not changed since is not rendered again.
#[utoipa::path(
    operation_id = "proof",
    request_body = ProofRequest,
    responses(
        (status = OK, description = "It is ready to be fetched", body = ProofReady),
(status = NOT_FOUND, description = "There is no such frame for the place behind, or its picture is missing", body = ProblemDocument, content_type = "application/problem+json"),
        (status = CONFLICT, description = "The same window has asked for a newer one", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/proof")]
pub async fn render(
    body: Body<ProofRequest>,
    proofs: Data<Proofs>,
    (store, frames): (Data<Store>, Data<Frames>),
    gone: Gone,
) -> Result<HttpResponse, ApiError> {
    let asked = body.0;
    let behind = match &asked.behind {
        Some(id) => Some(store.frame(id).await?.frame),
        None => None,
    };
    let (longest, asker) = (asked.longest, asked.asker.chars().count());
    within("/longest", f64::from(longest), 32.0, 1920.0, "pixels")?;
    if !(1..=60).contains(&asker) {
        return Err(Problems::one("/asker", "this must have 1 to 60 characters").coded(ProblemCode::Count).into());
    }
    let (proofs, plain_kit) = (proofs.into_inner(), asked.kit.clone());
    let (all, window) = (Arc::clone(&proofs), asked.asker.clone());
    // What the same window asked for before stops here, and does not keep this one waiting.
    let begun = worked_out(move || Begun::of(asked, &all)).await?;
    let _leaving = Leaving { proofs: Arc::clone(&proofs), asker: window, work: Arc::clone(&begun.work) };
    let found = long_worked_out(move || {
        let photo = behind.map(|frame| photo_behind(&frame, &plain_kit, &store, &frames)).transpose()?;
        begun.rendered(photo, &proofs)
    });
    tokio::select! {
        found = found => Ok(HttpResponse::Ok().json(found?)),
        // The line is closed: no answer would arrive.
        () = gone.comes() => Err(Superseded.into()),
    }
}

/// Stops a preview when whoever asked for it has gone or has it: when it is dropped.
struct Leaving {
    proofs: Arc<Proofs>,
    asker: String,
    work: Arc<Work>,
}

impl Drop for Leaving {
    fn drop(&mut self) {
        self.proofs.leaves(&self.asker, &self.work);
    }
}

/// A preview whose turn has not come yet.
struct Begun {
    words: String,
    setup: setup::Setup,
    proof: Proof,
    report: ProofReport,
    fine: bool,
    wanted: Asked,
    work: Arc<Work>,
}

impl Begun {
    fn of(asked: ProofRequest, proofs: &Proofs) -> Result<Self, ApiError> {
        let words = serde_json::json!([asked.setup, asked.kit, asked.show]).to_string();
        let ProofRequest { setup, kit, show, longest, fine, grain, movement, asker, .. } = asked;
        let (setup, kit) = known(setup, kit)?;
        let (proof, report) = proof_of(&setup, &kit, show).map_err(refused)?;
        let fine = fine || proofs.is_rendered(&proof, longest);
        let (longest, fineness) =
            if fine { (longest, Fineness::Fine) } else { ((longest / COARSER).max(32), Fineness::Coarse) };
        let wanted = Asked { longest, fineness, grain, movement, behind: None };
        // A spot a pixel and light, and about a tenth more at edges.
        let layers = proof.staged.sources.iter().flatten().count() + 1;
        let steps = Size::of_frame(longest, proof.proportion).count() * layers * 11 / 10;
        let work = proofs.asks(&asker, steps);
        Ok(Self { words, setup, proof, report, fine, wanted, work })
    }

    fn rendered(self, behind: Option<PhotoBehind>, proofs: &Proofs) -> Result<ProofReady, ApiError> {
        let Self { words, setup, proof, report, fine, wanted, work } = self;
        let wanted = Asked { behind, ..wanted };
        let kept = proofs.picture(&words, (&setup, &proof, &report), &wanted, &work)?;
        Ok(ready(&kept, fine, report))
    }
}

fn ready(kept: &Kept, fine: bool, report: ProofReport) -> ProofReady {
    let count = kept.picture.clipped().filter(|clipped| *clipped).count();
    #[expect(clippy::cast_precision_loss, reason = "a few million")]
    let clipped_percent = count as f64 * 100.0 / kept.size.count().max(1) as f64;
    ProofReady {
        id: kept.id.clone(),
        fine,
        width: kept.size.width,
        height: kept.size.height,
        histogram: kept.picture.histogram().map(Vec::from).into(),
        clipped_percent,
        report,
    }
}

fn kept(proofs: &Proofs, id: &str) -> Result<Arc<Kept>, ApiError> {
    proofs.kept(id).ok_or_else(|| {
        let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "not_there", "It is not there");
        problem.saying("this proof is no longer kept: ask for it again").into()
    })
}

/// A picture under its own name: who has it already is told so.
pub(super) fn sent(
    request: &HttpRequest,
    id: &str,
    (kind, caching): (&'static str, &'static str),
    bytes: impl FnOnce() -> image::ImageResult<Vec<u8>>,
) -> Result<HttpResponse, ApiError> {
    if let Some(had) = had(request, id) {
        return Ok(had);
    }
    let bytes = bytes().map_err(|_| ProblemDocument::broken())?;
    Ok(picture_named(id, (kind, caching), bytes))
}

/// A proof for the screen, as JPEG.
#[utoipa::path(
    operation_id = "proof_picture",
    responses((status = OK, description = "The picture", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/proof/{id}/picture")]
pub async fn fetch(id: Path<String>, proofs: Data<Proofs>, request: HttpRequest) -> Result<HttpResponse, ApiError> {
    let kept = kept(&proofs, &id)?;
    sent(&request, &kept.id, ("image/jpeg", FOREVER), || jpeg(&kept.picture, 92, None))
}

/// What of a proof is clipped, hatched on nothing, as PNG.
#[utoipa::path(
    operation_id = "proof_clipped",
    responses((status = OK, description = "The hatch", content_type = "image/png")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/proof/{id}/clipped")]
pub async fn clipped_parts(
    id: Path<String>,
    proofs: Data<Proofs>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let kept = kept(&proofs, &id)?;
    sent(&request, &format!("{}-clipped", kept.id), ("image/png", FOREVER), || clipped(&kept.picture))
}

/// In which format a picture is taken out.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum FileKind {
    /// JPEG, with its settings in EXIF.
    Jpeg,
    /// PNG.
    Png,
}

/// A proof as a file of its own, with its settings and caption where the format has room for them.
#[utoipa::path(
    operation_id = "proof_file",
    responses((status = OK, description = "The file", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/proof/{id}/file/{kind}")]
pub async fn file(at: Path<(String, FileKind)>, proofs: Data<Proofs>) -> Result<HttpResponse, ApiError> {
    let (id, kind) = at.into_inner();
    let kept = kept(&proofs, &id)?;
    let caption = format!("{} {}", kept.caption, kept.settings);
    let (bytes, content, ending) = match kind {
        FileKind::Jpeg => (jpeg(&kept.picture, 95, Some((&kept.taken, &caption))), "image/jpeg", "jpg"),
        FileKind::Png => (png(&kept.picture), "image/png", "png"),
    };
    let bytes = bytes.map_err(|_| ProblemDocument::broken())?;
    let name = format!("attachment; filename=\"proof-{}.{ending}\"", kept.id);
    Ok(HttpResponse::Ok().insert_header((CONTENT_DISPOSITION, name)).content_type(content).body(bytes))
}

/// How bright a place of a proof is, and what each light has in it.
#[utoipa::path(
    operation_id = "proof_reading",
    params(PlaceInFrame),
    responses((status = OK, description = "The reading", body = tolva_wording::ProofReading)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/proof/{id}/reading")]
pub async fn reading(
    id: Path<String>,
    at: Query<PlaceInFrame>,
    proofs: Data<Proofs>,
) -> Result<HttpResponse, ApiError> {
    let kept = kept(&proofs, &id)?;
    let (stops, shares) = kept.layers.read_at(&kept.weights, [at.left, at.down]);
    Ok(HttpResponse::Ok().json(proof_reading(&kept.setup, stops, &shares)))
}

/// How far the proof has come that a window asked for.
#[utoipa::path(
    operation_id = "proof_progress",
    params(Asker),
    responses((status = OK, body = ProofProgress)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/proof/progress")]
pub async fn progress(asker: Query<Asker>, proofs: Data<Proofs>) -> HttpResponse {
    HttpResponse::Ok().json(ProofProgress { percent: proofs.come(&asker.asker) })
}

/// Gives up the proof that a window asked for.
#[utoipa::path(
    operation_id = "stop_proof",
    params(Asker),
    responses((status = NO_CONTENT, description = "It is given up")),
    extensions(("x-rights" = json!("all"))),
)]
#[delete("/api/v1/proof")]
pub async fn stop(asker: Query<Asker>, proofs: Data<Proofs>) -> HttpResponse {
    proofs.stop(&asker.asker);
    HttpResponse::NoContent().finish()
}

/// What a picture in a list goes by.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Small {
    /// Which revision of the job a page shows: another number asks anew.
    #[serde(default)]
    #[expect(dead_code, reason = "it is for the browser, which keeps pictures by their whole address")]
    revision: Option<String>,
}

/// The small picture of a stored setup, for lists; `first` is the job's first. As long as the setup is the same, so is its
/// `ETag`.
#[utoipa::path(
    operation_id = "small_proof",
    params(Small),
    responses((status = OK, description = "The picture", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/setups/{setup}/proof")]
pub async fn small(
    at: Path<(String, String)>,
    _shown: Query<Small>,
    store: Data<Store>,
    proofs: Data<Proofs>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let (id, setup_id) = at.into_inner();
    let job = store.job(&id).await?.document;
    let mut setups = job.setups.into_iter();
    let found = setups.find(|setup| setup_id == "first" || setup.id == setup_id);
    let setup = found.ok_or_else(|| ProblemDocument::new(StatusCode::NOT_FOUND, "not_there", "It is not there"))?;
    let (proofs, kit) = (proofs.into_inner(), job.kit);
    let kept = long_worked_out(move || {
        let words = serde_json::json!([setup, kit]).to_string();
        let (setup, kit) = known(setup, kit)?;
        let (proof, report) = proof_of(&setup, &kit, Show::default()).map_err(refused)?;
        let wanted = Asked { longest: SMALL, fineness: Fineness::Fine, grain: false, movement: false, behind: None };
        Ok::<_, ApiError>(proofs.picture(&words, (&setup, &proof, &report), &wanted, &Work::default())?)
    });
    let kept = kept.await?;
    // The job may change: it is asked again each time, and told that it is the same.
    sent(&request, &kept.id, ("image/jpeg", "no-cache"), || jpeg(&kept.picture, 88, None))
}

impl From<Superseded> for ApiError {
    fn from(_: Superseded) -> Self {
        let problem = ProblemDocument::new(StatusCode::CONFLICT, "superseded", "It was given up");
        problem.saying("a newer proof was asked for, or this one was stopped").into()
    }
}
