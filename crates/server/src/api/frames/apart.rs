//! Two frames of one place: the light that is there and the flash apart, and mixed anew.

use std::sync::Arc;

use actix_web::http::header::CACHE_CONTROL;
use actix_web::web::{Data, Path, Query};
use actix_web::{HttpResponse, get, post};
use serde::{Deserialize, Serialize};
use tolva_core::frame::Parted;
use tolva_core::scale::Stops;
use tolva_format::{Kit, Setup, TakenFrame};
use tolva_planner::frames::Mix;
use tolva_store::{KeptFrame, Store};
use tolva_wording::Said;
use utoipa::{IntoParams, ToSchema};

use crate::api::body::Body;
use crate::api::problem::{ApiError, within};
use crate::api::work::{long_worked_out, worked_out};
use crate::edge::known;
use crate::frames::{Apart, FrameError, Frames, WithAndWithout, used};

/// What two frames say of a region.
#[derive(Debug, Serialize, ToSchema)]
pub struct RegionApart {
    /// Its id.
    region_id: String,
    /// What it is called.
    name: String,
    /// The light that is there; null where it is black.
    ambient: Option<Said>,
    /// The flash; null where it is so small a part that it cannot be told.
    flash: Option<Said>,
    /// Both together, in the frame with flash.
    together: Option<Said>,
    /// How much of it is flash, in percent.
    flash_percent: f64,
    /// In words, where it cannot be told well.
    trouble: Option<&'static str>,
}

/// Two frames apart.
#[derive(Debug, Serialize, ToSchema)]
pub struct FramesApart {
    /// Each region that has a mark in the frame with flash.
    regions: Vec<RegionApart>,
    /// How much of the frame is flash, on average, in percent.
    flash_percent: f64,
    /// How much of the frame can be told, in percent.
    told_percent: f64,
}

/// How the two lights are mixed against how they came.
#[derive(Clone, Copy, Debug, Deserialize, IntoParams, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Mixture {
    /// So much more of the light that is there, in stops: −6 to 6.
    #[serde(default)]
    #[schema(minimum = -6, maximum = 6, default = 0)]
    #[param(minimum = -6, maximum = 6)]
    ambient_stops: f64,
    /// So much more of the flash, in stops: −6 to 6.
    #[serde(default)]
    #[schema(minimum = -6, maximum = 6, default = 0)]
    #[param(minimum = -6, maximum = 6)]
    flash_stops: f64,
    /// A gel over the flash, −200 to 200 mired: positive is warmer.
    #[serde(default)]
    #[schema(minimum = -200, maximum = 200, default = 0)]
    #[param(minimum = -200, maximum = 200)]
    gel_mired: f64,
    /// What the camera is set to, 1500 to 20 000 K; left out for as it was.
    #[serde(default)]
    #[schema(minimum = 1500, maximum = 20_000)]
    #[param(minimum = 1500, maximum = 20_000)]
    kelvin: Option<f64>,
}

impl Mixture {
    fn known(self) -> Result<Mix, ApiError> {
        within("/ambient_stops", self.ambient_stops, -6.0, 6.0, "stops")?;
        within("/flash_stops", self.flash_stops, -6.0, 6.0, "stops")?;
        within("/gel_mired", self.gel_mired, -200.0, 200.0, "mired")?;
        if let Some(kelvin) = self.kelvin {
            within("/kelvin", kelvin, 1500.0, 20_000.0, "K")?;
        }
        let Self { ambient_stops, flash_stops, gel_mired, kelvin } = self;
        Ok(Mix { ambient: Stops(ambient_stops), flash: Stops(flash_stops), gel_mired, kelvin })
    }
}

/// A pair of kept frames.
struct Two {
    with: KeptFrame,
    without: KeptFrame,
    kit: Kit,
}

/// The pair that is asked for.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Path)]
pub struct Asked {
    /// The frame with flash.
    id: String,
    /// The one without.
    without: String,
}

async fn two(store: &Store, asked: Asked) -> Result<Two, ApiError> {
    let (with, without) = (store.frame(&asked.id).await?, store.frame(&asked.without).await?);
    let kit = super::kit_of(store, &with).await?;
    Ok(Two { with, without, kit })
}

impl Two {
    /// The two apart. What was found is kept by what they are called and by what may change of them.
    fn apart(&self, store: &Store, frames: &Frames) -> Result<Arc<Apart>, FrameError> {
        let (with, without) = (&self.with.frame, &self.without.frame);
        let of = |frame: &TakenFrame| serde_json::json!([frame.id, frame.marks, frame.settings]).to_string();
        let named = format!("{} {}", of(with), of(without));
        frames.apart(&named, WithAndWithout { with, without }, |frame| frames.photo(store, frame, &self.kit))
    }
}

/// Takes two frames of one place apart: one without flash and one with it. Their exposures may differ.
#[utoipa::path(
    operation_id = "frames_apart",
    params(Asked),
    responses((status = OK, description = "What each light is", body = FramesApart)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}/without/{without}")]
pub async fn take_apart(at: Path<Asked>, store: Data<Store>, frames: Data<Frames>) -> Result<HttpResponse, ApiError> {
    let two = two(&store, at.into_inner()).await?;
    let found = long_worked_out(move || {
        let apart = two.apart(&store, &frames)?;
        let named = |(id, parted): &(String, Parted)| {
            let region = two.with.frame.setup.regions.iter().find(|region| &region.id == id);
            said(id.clone(), region.map_or_else(|| id.clone(), |region| region.name.clone()), parted)
        };
        Ok::<_, FrameError>(FramesApart {
            regions: apart.regions.iter().map(named).collect(),
            flash_percent: apart.share * 100.0,
            told_percent: apart.told * 100.0,
        })
    });
    Ok(HttpResponse::Ok().json(found.await?))
}

fn said(region_id: String, name: String, of: &Parted) -> RegionApart {
    let trouble = match (of.clipped, of.too_dark, of.flash) {
        (true, ..) => Some("clipped in one of the frames"),
        (_, true, _) => Some("too dark in one of the frames"),
        (.., None) => Some("so little flash that it cannot be told from noise"),
        _ => None,
    };
    RegionApart {
        region_id,
        name,
        ambient: of.ambient.map(Into::into),
        flash: of.flash.map(Into::into),
        together: of.together.map(Into::into),
        flash_percent: of.flash_share * 100.0,
        trouble,
    }
}

/// The share of flash at every place of the frame with flash, as a map with a line at every quarter, PNG.
#[utoipa::path(
    operation_id = "flash_map",
    params(Asked),
    responses((status = OK, description = "The map", content_type = "image/png")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}/without/{without}/map")]
pub async fn map(at: Path<Asked>, store: Data<Store>, frames: Data<Frames>) -> Result<HttpResponse, ApiError> {
    let two = two(&store, at.into_inner()).await?;
    let map = long_worked_out(move || Ok::<_, FrameError>(two.apart(&store, &frames)?.map.clone())).await?;
    Ok(HttpResponse::Ok().insert_header((CACHE_CONTROL, "no-cache")).content_type("image/png").body(map))
}

/// The picture as it would have been taken under another mixture of the two lights, as JPEG.
#[utoipa::path(
    operation_id = "mix_frames",
    params(Asked, Mixture),
    responses((status = OK, description = "The picture", content_type = "image/jpeg")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/frames/{id}/without/{without}/mix")]
pub async fn mix(
    at: Path<Asked>,
    mixture: Query<Mixture>,
    store: Data<Store>,
    frames: Data<Frames>,
) -> Result<HttpResponse, ApiError> {
    let mixed = mixture.into_inner().known()?;
    let two = two(&store, at.into_inner()).await?;
    let picture = long_worked_out(move || {
        let apart = two.apart(&store, &frames)?;
        let (setup, kit) = (two.with.frame.setup.clone().into(), two.kit.clone().into());
        apart.mixed(&setup, &kit, mixed)
    });
    let bytes = picture.await?;
    Ok(HttpResponse::Ok().insert_header((CACHE_CONTROL, "no-cache")).content_type("image/jpeg").body(bytes))
}

/// A mixture to be taken so.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UseMixture {
    /// The setup as it is now.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// How the lights are mixed.
    mixture: Mixture,
}

/// A setup with a mixture on its dials.
#[derive(Debug, Serialize, ToSchema)]
pub struct SetupAsMixed {
    /// The setup.
    setup: Setup,
}

/// Puts a mixture onto the dials of a setup: shutter, powers and white balance as it would have to be taken.
#[utoipa::path(
    operation_id = "use_mix",
    request_body = UseMixture,
    responses((status = OK, description = "The setup", body = SetupAsMixed)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/frames/{id}/mixed")]
pub async fn use_mix(id: Path<String>, body: Body<UseMixture>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let frame = store.frame(&id).await?.frame;
    let UseMixture { setup, kit, mixture } = body.0;
    let mixed = mixture.known()?;
    let done = worked_out(move || {
        let plain = kit.clone();
        let (now, _) = known(setup, kit)?;
        let setup = used(&frame, &now, &plain, mixed)?;
        Ok::<_, FrameError>(SetupAsMixed { setup: setup.into() })
    });
    Ok(HttpResponse::Ok().json(done.await?))
}
