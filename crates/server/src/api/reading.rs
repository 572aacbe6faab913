//! Understanding what a person typed.

use actix_web::{HttpResponse, post};
use serde::{Deserialize, Serialize};
use tolva_core::exposure::{Ev, parse_reading};
use tolva_core::scale::{
    Aperture, Iso, Metres, ParseError, Setting, Shutter, Stops, parse_aperture, parse_iso, parse_length, parse_number,
    parse_shutter, parse_stops,
};
use tolva_format::{Problems, Reading};
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
    /// A plain number, such as a guide number.
    Number,
    /// Degrees of latitude or longitude, shown to a metre or so.
    Coordinate,
}

impl Meant {
    /// Between what a label means anything, far beyond what any field allows: a label has room for no more.
    const fn sayable(self) -> (f64, f64) {
        match self {
            Self::Light | Self::Stops => (-100.0, 100.0),
            Self::Length => (-1e6, 1e6),
            Self::Shutter => (1e-6, 1e6),
            Self::Aperture => (0.1, 1e4),
            Self::Iso => (0.1, 1e9),
            Self::Number | Self::Coordinate => (-1e9, 1e9),
        }
    }
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
    )
)]
#[post("/api/v1/read")]
pub async fn read(body: Body<Typed>) -> Result<HttpResponse, ApiError> {
    let understood = understand(&body.0).map_err(|error| Problems::one("/text", error.to_string()))?;
    Ok(HttpResponse::Ok().json(understood))
}

/// Writes a number the way photographers do: `−1⅓`, `1/250`, `5 ft 1 in`.
#[utoipa::path(
    request_body = Shown,
    responses(
        (status = OK, description = "The number and its label", body = Understood),
    )
)]
#[post("/api/v1/say")]
pub async fn say(body: Body<Shown>) -> Result<HttpResponse, ApiError> {
    let Shown { r#as, value, length } = body.0;
    let (least, most) = r#as.sayable();
    if !(least..=most).contains(&value) {
        let message = format!("{value:?} is not allowed here: it must be from {least} to {most}");
        return Err(Problems::one("/value", message).into());
    }
    let label = match r#as {
        Meant::Light => Ev(value).label(),
        Meant::Stops => Stops(value).as_given(),
        Meant::Length => Metres(value).label(length.into()),
        Meant::Shutter => Setting::<Shutter>::of(value).label(),
        Meant::Aperture => Setting::<Aperture>::of(value).label(),
        Meant::Iso => Setting::<Iso>::of(value).label(),
        Meant::Number => number_label(value, 2),
        Meant::Coordinate => number_label(value, 5),
    };
    Ok(HttpResponse::Ok().json(Understood { value, label, reading: None }))
}

/// At most so many decimals, and no noughts at their end.
fn number_label(value: f64, decimals: usize) -> String {
    let text = format!("{value:.decimals$}");
    text.trim_end_matches('0').trim_end_matches('.').replace('-', "−")
}

fn understand(typed: &Typed) -> Result<Understood, ParseError> {
    let text = typed.text.as_str();
    let plain = |value: f64, label: String| Understood { value, label, reading: None };
    Ok(match typed.r#as {
        Meant::Light => {
            let reading = parse_reading(text)?;
            Understood { value: reading.ev100().0, label: reading.label(), reading: Some(reading.into()) }
        }
        Meant::Stops => parse_stops(text).map(|stops| plain(stops.0, stops.as_given()))?,
        Meant::Length => {
            let unit = typed.length.into();
            parse_length(text, unit).map(|metres| plain(metres.0, metres.label(unit)))?
        }
        Meant::Shutter => parse_shutter(text).map(|setting| plain(setting.nominal, setting.label()))?,
        Meant::Aperture => parse_aperture(text).map(|setting| plain(setting.nominal, setting.label()))?,
        Meant::Iso => parse_iso(text).map(|setting| plain(setting.nominal, setting.label()))?,
        Meant::Number => parse_number(text).map(|value| plain(value, number_label(value, 2)))?,
        Meant::Coordinate => parse_number(text).map(|value| plain(value, number_label(value, 5)))?,
    })
}
