//! Finding a place, and what an hour there is.

use actix_web::web::Query;
use actix_web::{HttpResponse, get, post};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use tolva_core::time::{self, zone};
use tolva_format::{LocalTime, Problems};
use tolva_places::Place;
use utoipa::{IntoParams, ToSchema};

use super::body::{Body, File};
use super::problem::ApiError;
use super::work::worked_out;

/// What was typed.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Typed {
    /// The beginning of a name (`Kotka`, `Springfield, IL`), or coordinates in any usual notation.
    #[param(max_length = 200)]
    text: String,
}

/// The places that were found, the most likely first.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlacesFound {
    /// The places.
    places: Vec<Place>,
}

const MOST: usize = 8;
/// Nobody types more; the rest is not looked at.
const LONGEST: usize = 200;

/// Finds a place by name or coordinates, offline. The towns are those of GeoNames (CC BY 4.0), the outlines of the time
/// zones those of OpenStreetMap (ODbL).
#[utoipa::path(
    operation_id = "find_place",
    params(Typed),
    responses(
        (status = OK, description = "The places", body = PlacesFound),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/places")]
pub async fn find(typed: Query<Typed>) -> Result<HttpResponse, ApiError> {
    let text: String = typed.into_inner().text.chars().take(LONGEST).collect();
    let found =
        worked_out(move || tolva_places::find(&text, MOST).map_err(|wrong| Problems::one("/text", wrong.to_string())));
    Ok(HttpResponse::Ok().json(PlacesFound { places: found.await? }))
}

/// The positions in a file: a GPX, a GeoJSON, or a photo (its first 4 MiB will do).
#[utoipa::path(
    operation_id = "places_of_file",
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = OK, description = "The places", body = PlacesFound),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/places/file")]
pub async fn of_file(bytes: File) -> Result<HttpResponse, ApiError> {
    let found = worked_out(move || {
        tolva_places::points_of_file(&bytes.0).map_err(|wrong| Problems::one("", wrong.to_string()))
    });
    Ok(HttpResponse::Ok().json(PlacesFound { places: found.await? }))
}

/// A day and an hour in a zone; without them, now.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MomentRequest {
    /// The zone by its IANA name.
    time_zone: String,
    /// The day and the hour; left out for now.
    #[serde(default)]
    at: Option<LocalTime>,
    /// Instead of an hour, a day somebody has in mind: today it is now, on another day noon. May be empty.
    #[serde(default)]
    on: String,
}

/// What an hour is.
#[derive(Debug, Serialize, ToSchema)]
pub struct Moment {
    /// The day and the hour.
    at: LocalTime,
    /// The instant in UTC.
    utc: String,
    /// Whether clocks show this hour twice.
    comes_twice: bool,
}

/// Says what instant an hour at a place is, or what is wrong with it; without an hour, what clocks there show now.
#[utoipa::path(
    request_body = MomentRequest,
    responses(
        (status = OK, description = "The moment", body = Moment),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/moment")]
pub async fn moment(body: Body<MomentRequest>) -> Result<HttpResponse, ApiError> {
    let MomentRequest { time_zone, at, on } = body.0;
    let zone = zone(&time_zone).map_err(|wrong| Problems::one("/time_zone", wrong.to_string()))?;
    let now = time::LocalTime::of(Timestamp::now(), &zone);
    let noon = || time::LocalTime { date: on.clone(), time: "12:00".to_owned(), second_time: false };
    let meant = if on.is_empty() || on == now.date { now } else { noon() };
    let at = at.map_or(meant, Into::into);
    let instant =
        at.instant(&zone).map_err(|wrong| Problems::one(format!("/at/{}", wrong.field()), wrong.to_string()))?;
    Ok(HttpResponse::Ok().json(Moment { comes_twice: at.comes_twice(&zone), utc: instant.to_string(), at: at.into() }))
}
