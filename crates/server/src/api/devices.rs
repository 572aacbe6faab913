//! Outside devices and services: the stand-ins that ship. What they give is marked as simulated.

use std::sync::Mutex;
use std::time::Instant;

use actix_web::http::StatusCode;
use actix_web::web::Data;
use actix_web::{HttpResponse, post};
use jiff::SignedDuration;
use serde::Deserialize;
use tolva_core::ambient::GeographicPoint;
use tolva_core::time::{day, zone};
use tolva_devices::{
    DeviceError, Forecast as _, Heard, Meter as _, Sent, SimulatedForecast, SimulatedMeter, SimulatedTrigger,
    Trigger as _,
};
use tolva_format::{ForecastCloud, Kit, MeterReading, Problems, Setup, Site};
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};
use crate::edge::{known, refused};

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
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/forecast")]
pub async fn forecast(body: Body<ForecastRequest>) -> Result<HttpResponse, ApiError> {
    let ForecastRequest { site, date } = body.0;
    let zone = zone(&site.time_zone).map_err(|wrong| Problems::one("/site/time_zone", wrong.to_string()))?;
    let (begin, _) = day(&date, &zone).map_err(|wrong| Problems::one("/date", wrong.to_string()))?;
    let spot = GeographicPoint {
        latitude_deg: site.latitude_deg,
        longitude_deg: site.longitude_deg,
        elevation_m: site.elevation_m,
    };
    let hour = begin - SignedDuration::from_secs(begin.as_second().rem_euclid(3600));
    Ok(HttpResponse::Ok().json(ForecastCloud::from(SimulatedForecast::default().cloud(spot, hour, HOURS)?)))
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
        (status = OK, description = "The reading", body = MeterReading),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/meter")]
pub async fn meter(body: Body<MeterRequest>) -> Result<HttpResponse, ApiError> {
    let MeterRequest { setup, kit, region_id } = body.0;
    let (setup, kit) = known(setup, kit)?;
    let prepared = Prepared::new(&setup, &kit).map_err(refused)?;
    let Some(region) = setup.regions.iter().find(|region| region.id == region_id) else {
        return Err(Problems::one("/region_id", format!("there is no region “{region_id}”")).into());
    };
    Ok(HttpResponse::Ok().json(MeterReading::from(SimulatedMeter::default().read(&prepared, region)?)))
}

/// What the trigger is to do.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TriggerDoes {
    /// Send each unit the power of the plan, and listen.
    Send,
    /// Take a frame, so that each unit that is ready flashes.
    Fire,
}

/// What is sent to the units of a setup.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TriggerRequest {
    /// The setup.
    setup: Setup,
    /// The kit it refers to.
    kit: Kit,
    /// What to do.
    does: TriggerDoes,
    /// The channel, 1 to 64.
    #[schema(minimum = 1, maximum = 64)]
    channel: u8,
}

/// The receivers of this run, and when it began.
pub struct Receivers {
    trigger: Mutex<SimulatedTrigger>,
    began: Instant,
}

impl Default for Receivers {
    fn default() -> Self {
        Self { trigger: Mutex::default(), began: Instant::now() }
    }
}

/// Sends the powers of the plan to the units, or takes a frame; each unit reports back: simulated.
#[utoipa::path(
    request_body = TriggerRequest,
    responses(
        (status = OK, description = "What each unit reports", body = Vec<Heard>),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/trigger")]
pub async fn trigger(body: Body<TriggerRequest>, receivers: Data<Receivers>) -> Result<HttpResponse, ApiError> {
    let TriggerRequest { setup, kit, does, channel } = body.0;
    let (setup, kit) = known(setup, kit)?;
    let prepared = Prepared::new(&setup, &kit).map_err(refused)?;
    let outcome = Outcome::of(&prepared);
    let units: Vec<Sent> = (prepared.lights.iter().zip(&outcome.lights))
        .map(|(light, at)| Sent {
            light_id: light.light.id.clone(),
            group: light.light.group,
            // The camera stands on one side of the subject, the light on any other.
            away_m: setup.camera_distance_m + at.map_or(0.0, |at| at.distance.0),
            power_stops: at.map(|at| at.power.0.0),
            recycling: light.recycling,
        })
        .collect();
    let now = receivers.began.elapsed().as_secs_f64();
    let silent =
        || ProblemDocument::new(StatusCode::BAD_GATEWAY, "device", "A device").saying("the trigger does not answer");
    let mut trigger = receivers.trigger.lock().map_err(|_| silent())?;
    let heard = match does {
        TriggerDoes::Send => trigger.send(channel, &units, now),
        TriggerDoes::Fire => trigger.fire(channel, &units, now),
    };
    drop(trigger);
    Ok(HttpResponse::Ok().json(heard))
}

impl From<DeviceError> for ApiError {
    fn from(error: DeviceError) -> Self {
        ProblemDocument::new(StatusCode::BAD_GATEWAY, "device", "A device").saying(error.to_string()).into()
    }
}
