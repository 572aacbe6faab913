//! Understanding what a person typed.

use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::exposure::{Reading, parse_reading};
use tolva_core::job::Problems;
use tolva_core::scale::{LengthUnit, ParseError, parse_aperture, parse_iso, parse_length, parse_shutter, parse_stops};
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};

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

/// What a text is meant to be.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Meant {
    /// A reading of the light: EV, lux, or settings.
    Light,
    /// A number of stops.
    Stops,
    /// A distance or size.
    Length,
    /// A shutter time.
    Shutter,
    /// An aperture.
    Aperture,
    /// A sensitivity.
    Iso,
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
        (status = UNPROCESSABLE_ENTITY, description = "Not understood: says what is allowed", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/read")]
pub async fn read(body: Body<Typed>) -> Result<HttpResponse, ApiError> {
    let understood = understand(&body.0).map_err(|error| Problems::one("/text", error.to_string()))?;
    Ok(HttpResponse::Ok().json(understood))
}

fn understand(typed: &Typed) -> Result<Understood, ParseError> {
    let text = typed.text.as_str();
    let plain = |value: f64, label: String| Understood { value, label, reading: None };
    Ok(match typed.r#as {
        Meant::Light => {
            let reading = parse_reading(text)?;
            Understood { value: reading.ev100().0, label: reading.label(), reading: Some(reading) }
        }
        Meant::Stops => parse_stops(text).map(|stops| plain(stops.0, stops.thirds()))?,
        Meant::Length => parse_length(text, typed.length).map(|metres| plain(metres.0, metres.label(typed.length)))?,
        Meant::Shutter => parse_shutter(text).map(|setting| plain(setting.nominal, setting.label()))?,
        Meant::Aperture => parse_aperture(text).map(|setting| plain(setting.nominal, setting.label()))?,
        Meant::Iso => parse_iso(text).map(|setting| plain(setting.nominal, setting.label()))?,
    })
}
