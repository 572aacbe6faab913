//! Sums: single computations that anyone can check from outside.

use actix_web::http::StatusCode;
use actix_web::web::Path;
use actix_web::{HttpResponse, get, post};
use tolva_calculators::{
    CalculatorOffer, SunPosition, SunPositionAsked, SunTimesAsked, SunTimesFound, offered, sum, sun_position, sun_times,
};

use tolva_format::read_json;

use super::body::{Body, Bytes};
use super::problem::{ApiError, ProblemDocument};

/// Where the sun stands (Solar Position Algorithm, NREL/TP-560-34302).
#[utoipa::path(
    operation_id = "sum_sun_position",
    request_body = SunPositionAsked,
    responses(
        (status = OK, description = "The sum", body = SunPosition),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/calculators/sun-position")]
pub async fn position(body: Body<SunPositionAsked>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(sun_position(&body.0)?))
}

/// When the sun rises, passes the meridian and sets, on the day whose transit falls on a UTC date.
#[utoipa::path(
    operation_id = "sum_sun_times",
    request_body = SunTimesAsked,
    responses(
        (status = OK, description = "The sum", body = SunTimesFound),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/calculators/sun-times")]
pub async fn times(body: Body<SunTimesAsked>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(sun_times(&body.0)?))
}

/// Every sum, with what it is asked and what it gives.
#[utoipa::path(
    operation_id = "list_sums",
    responses((status = OK, description = "The sums", body = Vec<CalculatorOffer>)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/calculators")]
pub async fn list() -> HttpResponse {
    HttpResponse::Ok().json(offered())
}

/// Any other sum by its name: what it is asked and what it gives is listed by `GET /api/v1/calculators`. All units stand in the
/// names of the fields.
#[utoipa::path(
    operation_id = "sum",
    request_body = serde_json::Value,
    responses(
        (status = OK, description = "The sum, with its workings", body = serde_json::Value),
        (status = NOT_FOUND, description = "No such sum: says which there are", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/calculators/{name}")]
pub async fn any(name: Path<String>, body: Bytes) -> Result<HttpResponse, ApiError> {
    let Some(found) = sum(&name, &read_json(&body.0)?) else {
        let names: Vec<String> = offered().into_iter().map(|offer| offer.name).collect();
        let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "no_such_sum", "No such sum");
        return Err(problem.saying(format!("there is no sum “{name}”; there is {}", names.join(", "))).into());
    };
    Ok(HttpResponse::Ok().json(found?))
}
