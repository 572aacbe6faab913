//! Outside devices and services: the stand-ins that ship. What they give is marked as simulated.

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, post};
use jiff::SignedDuration;
use serde::Deserialize;
use tolva_core::ambient::{Spot, day, zone};
use tolva_core::exposure::Taken;
use tolva_core::job::{CheckedSetup, ForecastCloud, Kit, Problems, Setup, Site};
use tolva_devices::{DeviceError, Forecast as _, Meter as _, SimulatedForecast, SimulatedMeter};
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};

/// Where and for which day a forecast is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ForecastRequest {
    /// The place.
    site: Site,
    /// The day there.
    date: String,
}

/// From the midnight the day begins with to the middle of the next, so that an evening's light is covered.
const HOURS: u16 = 37;

/// The cloud over a place on a day, hour by hour: simulated.
#[utoipa::path(
    request_body = ForecastRequest,
    responses(
        (status = OK, description = "The cloud", body = ForecastCloud),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/forecast")]
pub async fn forecast(body: Body<ForecastRequest>) -> Result<HttpResponse, ApiError> {
    let ForecastRequest { site, date } = body.0;
    let zone = zone(&site.time_zone).map_err(|wrong| Problems::one("/site/time_zone", wrong.to_string()))?;
    let (begin, _) = day(&date, &zone).map_err(|wrong| Problems::one("/date", wrong.to_string()))?;
    let spot =
        Spot { latitude_deg: site.latitude_deg, longitude_deg: site.longitude_deg, elevation_m: site.elevation_m };
    let hour = begin - SignedDuration::from_secs(begin.as_second().rem_euclid(3600));
    Ok(HttpResponse::Ok().json(SimulatedForecast::default().cloud(spot, hour, HOURS)?))
}

/// What is to be read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeterRequest {
    /// The setup, at the hour of the reading.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// The region.
    region_id: String,
}

/// A reading where no meter is at hand: simulated.
#[utoipa::path(
    request_body = MeterRequest,
    responses(
        (status = OK, description = "The reading", body = Taken),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/meter")]
pub async fn meter(body: Body<MeterRequest>) -> Result<HttpResponse, ApiError> {
    let MeterRequest { setup, kit, region_id } = body.0;
    let checked = CheckedSetup::new(&setup, &kit)?;
    let Some(region) = setup.regions.iter().find(|region| region.id == region_id) else {
        return Err(Problems::one("/region_id", format!("there is no region “{region_id}”")).into());
    };
    Ok(HttpResponse::Ok().json(SimulatedMeter::default().read(&checked, region)?))
}

impl From<DeviceError> for ApiError {
    fn from(error: DeviceError) -> Self {
        ProblemDocument::new(StatusCode::BAD_GATEWAY, "A device").saying(error.to_string()).into()
    }
}
