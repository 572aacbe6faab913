//! Pictures that belong to drills.

use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse, get};
use serde::Deserialize;
use tolva_core::proof::{Fineness, Work};
use tolva_format::{ProblemCode, Problems};
use tolva_pictures::jpeg;
use tolva_planner::drills::drill;
use tolva_store::Store;
use tolva_wording::{Show, proof_of};
use utoipa::IntoParams;

use super::{level, own, skill, within};
use crate::api::problem::ApiError;
use crate::api::proof::sent as sent_picture;
use crate::api::work::long_worked_out;
use crate::edge::refused;
use crate::proofs::{Asked as Pictured, Proofs};

/// Which picture of which drill.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichPicture {
    /// The skill, by its code.
    #[param(max_length = 40)]
    skill: String,
    /// The level, 1 to 3.
    #[param(minimum = 1, maximum = 3)]
    level: u8,
    /// What the drill was drawn with.
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: u64,
    /// Which of its pictures, counted from 0.
    of: usize,
}

/// So many pixels the longer side of a drill's picture has.
const PICTURE: u32 = 480;

/// A picture that belongs to a drill, computed as the proof is.
#[utoipa::path(
    operation_id = "drill_picture",
    params(WhichPicture),
    responses((status = OK, description = "JPEG", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/picture.jpg")]
pub async fn of_drill(
    which: Query<WhichPicture>,
    store: Data<Store>,
    proofs: Data<Proofs>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let which = which.into_inner();
    let (skill, level) = (skill(&which.skill)?, level(which.level)?);
    within(which.seed, 1)?;
    // What is to be seen in a picture is the same on every dial.
    let own = own(&store, None).await?;
    let proofs = proofs.into_inner();
    let kept = long_worked_out(move || {
        let one = drill(skill, level, which.seed, &own);
        let of = one.asked.pictures().and_then(|(scene, all)| scene.setup(all.get(which.of)?));
        let none =
            || Problems::one("/of", format!("this drill has no picture {}", which.of)).coded(ProblemCode::NotThere);
        let (setup, kit) = of.ok_or_else(none)?;
        let (proof, report) = proof_of(&setup, &kit, Show::default()).map_err(refused)?;
        let wanted =
            Pictured { longest: PICTURE, fineness: Fineness::Fine, grain: false, movement: false, behind: None };
        let words = format!("{:?} {}", one.asked, which.of);
        Ok::<_, ApiError>(proofs.picture(&words, (&setup, &proof, &report), &wanted, &Work::default())?)
    });
    let kept = kept.await?;
    sent_picture(&request, &kept.id, ("image/jpeg", "no-cache"), || jpeg(&kept.picture, 88, None))
}
