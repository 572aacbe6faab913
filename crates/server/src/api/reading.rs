//! Understanding what a person typed.

use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_format::{Meant, Problems, Reading};
use tolva_wording::LengthUnit;
use utoipa::ToSchema;

use super::body::Body;
use super::problem::ApiError;

/// What was typed, and what it is meant to be.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Typed {
    /// What it is meant to be.
    r#as: Meant,
    /// What was typed.
    #[schema(max_length = 200)]
    text: String,
    /// The unit of a bare number that is a length.
    #[serde(default)]
    length: LengthUnit,
}

/// A number to be shown.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Shown {
    /// What it is.
    r#as: Meant,
    /// The number: EV at ISO 100, stops, metres, seconds, f-number or ISO.
    value: f64,
    /// The unit lengths are shown in.
    #[serde(default)]
    length: LengthUnit,
}

/// What was understood.
#[derive(Debug, Serialize, ToSchema)]
pub struct Understood {
    /// The number: EV at ISO 100, stops, metres, seconds, f-number or ISO (nominal).
    value: f64,
    /// The same, as it is shown.
    label: String,
    /// The reading, where it is one.
    reading: Option<Reading>,
}

/// Understands what a person typed, in any usual notation.
#[utoipa::path(
    request_body = Typed,
    responses(
        (status = OK, description = "Understood", body = Understood),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/read")]
pub async fn read(body: Body<Typed>) -> Result<HttpResponse, ApiError> {
    let Typed { r#as, text, length } = body.0;
    let understood = r#as.read(&text, length.into()).map_err(|error| Problems::one("/text", error.to_string()))?;
    let tolva_format::Understood { value, label, reading } = understood;
    Ok(HttpResponse::Ok().json(Understood { value, label, reading }))
}

/// Writes a number the way photographers do: `−1⅓`, `1/250`, `5 ft 1 in`.
#[utoipa::path(
    request_body = Shown,
    responses(
        (status = OK, description = "The number and its label", body = Understood),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/say")]
pub async fn say(body: Body<Shown>) -> Result<HttpResponse, ApiError> {
    let Shown { r#as, value, length } = body.0;
    let (least, most) = r#as.sayable();
    if !(least..=most).contains(&value) {
        let message = format!("{value:?} is not allowed here: it must be from {least} to {most}");
        return Err(Problems::one("/value", message).into());
    }
    let label = r#as.label(value, length.into());
    Ok(HttpResponse::Ok().json(Understood { value, label, reading: None }))
}
