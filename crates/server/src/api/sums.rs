//! Sums: single computations that anyone can check from outside.

use actix_web::http::StatusCode;
use actix_web::web::Path;
use actix_web::{HttpResponse, post};
use tolva_core::sums::{NAMES, SunPosition, SunPositionAsked, SunTimesAsked, SunTimesFound, sun_position, sun_times};

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};

/// Where the sun stands (Solar Position Algorithm, NREL/TP-560-34302).
#[utoipa::path(
    operation_id = "sum_sun_position",
    request_body = SunPositionAsked,
    responses(
        (status = OK, description = "The sum", body = SunPosition),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/sums/sun-position")]
pub async fn position(body: Body<SunPositionAsked>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(sun_position(&body.0)?))
}

/// When the sun rises, passes the meridian and sets, on the day whose transit falls on a UTC date.
#[utoipa::path(
    operation_id = "sum_sun_times",
    request_body = SunTimesAsked,
    responses(
        (status = OK, description = "The sum", body = SunTimesFound),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/sums/sun-times")]
pub async fn times(body: Body<SunTimesAsked>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(sun_times(&body.0)?))
}

/// A sum that is not there.
#[utoipa::path(
    operation_id = "sum_unknown",
    responses((status = NOT_FOUND, description = "No such sum: says which there are", body = ProblemDocument, content_type = "application/problem+json"))
)]
#[post("/api/sums/{name}")]
pub async fn unknown(name: Path<String>) -> Result<HttpResponse, ApiError> {
    let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "No such sum");
    Err(problem.saying(format!("there is no sum “{name}”; there is {}", NAMES.join(", "))).into())
}
