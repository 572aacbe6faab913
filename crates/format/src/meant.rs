//! What a typed text is meant to be: how it is read, and how a number is written again.

use serde::{Deserialize, Serialize};
use tolva_core::exposure::{Ev, parse_reading};
use tolva_core::scale::{
    Aperture, Iso, LengthUnit, Metres, ParseError, Setting, Shutter, Stops, parse_aperture, parse_iso, parse_length,
    parse_number, parse_shutter, parse_stops,
};
use utoipa::ToSchema;

use crate::leaf::Reading;

/// What a text is meant to be.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
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

/// What was understood of a text.
#[derive(Clone, Debug, PartialEq)]
pub struct Understood {
    /// The number: EV at ISO 100, stops, metres, seconds, f-number or ISO (nominal).
    pub value: f64,
    /// The same, as it is shown.
    pub label: String,
    /// The reading, where it is one.
    pub reading: Option<Reading>,
}

impl Meant {
    /// Understands a text in any usual notation. A bare number that is a length is in the unit.
    ///
    /// # Errors
    /// A text that is not what it is meant to be, with what is allowed.
    pub fn read(self, text: &str, unit: LengthUnit) -> Result<Understood, ParseError> {
        let reading = (self == Self::Light).then(|| parse_reading(text)).transpose()?;
        let value = match self {
            Self::Light => reading.as_ref().map_or(0.0, |reading| reading.ev100().0),
            Self::Stops => parse_stops(text)?.0,
            Self::Length => parse_length(text, unit)?.0,
            Self::Shutter => parse_shutter(text)?.nominal,
            Self::Aperture => parse_aperture(text)?.nominal,
            Self::Iso => parse_iso(text)?.nominal,
            Self::Number | Self::Coordinate => parse_number(text)?,
        };
        let label = reading.as_ref().map_or_else(|| self.label(value, unit), tolva_core::exposure::Reading::label);
        Ok(Understood { value, label, reading: reading.map(Into::into) })
    }

    /// Writes a number the way photographers do: `−1⅓`, `1/250`, `5 ft 1 in`.
    ///
    /// ```
    /// use tolva_core::scale::LengthUnit;
    /// use tolva_format::Meant;
    ///
    /// assert_eq!(Meant::Shutter.label(0.004, LengthUnit::Metres), "1/250");
    /// assert_eq!(Meant::Number.label(-2.5, LengthUnit::Metres), "−2.5");
    /// ```
    pub fn label(self, value: f64, unit: LengthUnit) -> String {
        match self {
            Self::Light => Ev(value).label(),
            Self::Stops => Stops(value).as_given(),
            Self::Length => Metres(value).label(unit),
            Self::Shutter => Setting::<Shutter>::of(value).label(),
            Self::Aperture => Setting::<Aperture>::of(value).label(),
            Self::Iso => Setting::<Iso>::of(value).label(),
            Self::Number => number_label(value, if value.abs() < 0.1 { 4 } else { 2 }),
            Self::Coordinate => number_label(value, 5),
        }
    }

    /// Between what a label means anything, far beyond what any field allows: a label has room for no more.
    pub const fn sayable(self) -> (f64, f64) {
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

/// At most so many decimals, and no noughts at their end.
fn number_label(value: f64, decimals: usize) -> String {
    let text = format!("{value:.decimals$}");
    let text = if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.') } else { &text };
    if text == "-0" { "0".to_owned() } else { text.replace('-', "−") }
}
