//! What a front end needs once, at its start.

use actix_web::{HttpResponse, get};
use serde::Serialize;
use tolva_core::blend::{FULL_WHITE, Grey, wedge};
use tolva_core::job::{Blend, BlendField, Job};
use utoipa::ToSchema;

/// What a front end needs once.
#[derive(Debug, Serialize, ToSchema)]
pub struct Start {
    /// The wedge of greys over the rail.
    wedge: Vec<Grey>,
    /// Where white clips, in stops over mid grey.
    full_white_stops: f64,
    /// The blends, in the order they are offered.
    blends: Vec<BlendOffer>,
    /// A new job, with the starter kit and one setup.
    new_job: Job,
}

/// One blend.
#[derive(Debug, Serialize, ToSchema)]
pub struct BlendOffer {
    /// Its name in the format.
    kind: String,
    /// What it is called.
    name: String,
    /// What it does.
    meaning: String,
    /// The blend as it is first offered.
    blend: Blend,
    /// Its numbers.
    fields: Vec<BlendField>,
}

/// What a front end needs once, at its start.
#[utoipa::path(responses((status = OK, description = "The start", body = Start)))]
#[get("/api/start")]
pub async fn start() -> HttpResponse {
    let offer = |blend: Blend| BlendOffer {
        kind: blend.kind().to_owned(),
        name: blend.name().to_owned(),
        meaning: blend.meaning().to_owned(),
        blend,
        fields: blend.fields(),
    };
    HttpResponse::Ok().json(Start {
        wedge: wedge(),
        full_white_stops: FULL_WHITE.0,
        blends: Blend::OFFERED.into_iter().map(offer).collect(),
        new_job: Job::new("New job"),
    })
}
