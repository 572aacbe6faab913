//! Where the sun stands, and when it comes and goes.

use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::problem::Problems;
use crate::table::Values;
use tolva_core::ambient::GeographicPoint;
use tolva_core::time::LocalTime;

/// What `sun-position` is asked.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SunPositionAsked {
    /// The instant, as `2026-08-29T16:46:00Z`, from 1900 to 2199.
    #[schema(value_type = String, format = DateTime, example = "2026-08-29T16:46:00Z")]
    pub utc: Timestamp,
    /// North is positive.
    #[schema(minimum = -90, maximum = 90)]
    pub latitude_deg: f64,
    /// East is positive.
    #[schema(minimum = -180, maximum = 180)]
    pub longitude_deg: f64,
    /// Over the sea, in metres.
    #[serde(default)]
    #[schema(minimum = -500, maximum = 9000)]
    pub elevation_m: f64,
}

/// Where the sun stands.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SunPosition {
    /// The height of its centre without refraction.
    pub true_altitude_deg: f64,
    /// The same as it is seen, in air of 1013.25 hPa and 12 °C.
    pub apparent_altitude_deg: f64,
    /// Its bearing, clockwise from true north.
    pub azimuth_deg: f64,
}

/// What `sun-times` is asked.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SunTimesAsked {
    /// The UTC date, as `2026-08-29`, from 1900 to 2199.
    #[schema(example = "2026-08-29")]
    pub utc_date: String,
    /// North is positive.
    #[schema(minimum = -90, maximum = 90)]
    pub latitude_deg: f64,
    /// East is positive.
    #[schema(minimum = -180, maximum = 180)]
    pub longitude_deg: f64,
}

/// The sun's times of the day whose transit falls on the UTC date, to a second.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct SunTimesFound {
    /// Its upper edge comes over a level horizon (centre at −0.8333°); null where it does not.
    pub sunrise_utc: Option<String>,
    /// It passes the meridian.
    pub transit_utc: Option<String>,
    /// Its upper edge goes under; null where it does not.
    pub sunset_utc: Option<String>,
}

fn spot(latitude_deg: f64, longitude_deg: f64, elevation_m: f64) -> Result<GeographicPoint, Problems> {
    let mut wrong = Vec::new();
    for (field, value, least, most, unit) in [
        ("latitude_deg", latitude_deg, -90.0, 90.0, "degrees"),
        ("longitude_deg", longitude_deg, -180.0, 180.0, "degrees"),
        ("elevation_m", elevation_m, -500.0, 9000.0, "m"),
    ] {
        if !(least..=most).contains(&value) {
            let message = format!("{value} is not allowed here: it must be from {least} to {most} {unit}");
            wrong.extend(Problems::one(format!("/{field}"), message).0);
        }
    }
    if wrong.is_empty() {
        Ok(GeographicPoint { latitude_deg, longitude_deg, elevation_m })
    } else {
        Err(Problems(wrong))
    }
}

fn midnight(date: &str) -> Result<Timestamp, Problems> {
    let at = LocalTime { date: date.to_owned(), time: "00:00".to_owned(), second_time: false };
    at.instant(&jiff::tz::TimeZone::UTC).map_err(|wrong| Problems::one("/utc_date", wrong.to_string()))
}

/// Where the sun stands.
///
/// # Errors
/// An instant outside 1900 to 2199, or a place that is none.
pub fn sun_position(asked: &SunPositionAsked) -> Result<SunPosition, Problems> {
    let spot = spot(asked.latitude_deg, asked.longitude_deg, asked.elevation_m)?;
    let year = asked.utc.strftime("%Y").to_string();
    if !(1900..=2199).contains(&year.parse::<i32>().unwrap_or(0)) {
        return Err(Problems::one("/utc", format!("{} is not allowed here: it must be from 1900 to 2199", asked.utc)));
    }
    let sun = spot.sun(asked.utc);
    Ok(SunPosition {
        true_altitude_deg: sun.true_altitude_deg,
        apparent_altitude_deg: sun.apparent_altitude_deg,
        azimuth_deg: sun.azimuth_deg,
    })
}

/// When the sun rises, passes the meridian and sets.
///
/// # Errors
/// A date outside 1900 to 2199, or a place that is none.
pub fn sun_times(asked: &SunTimesAsked) -> Result<SunTimesFound, Problems> {
    let spot = spot(asked.latitude_deg, asked.longitude_deg, 0.0)?;
    let begin = midnight(&asked.utc_date)?;
    let times = spot.times(begin, begin + SignedDuration::from_hours(24));
    let second = |at: Option<Timestamp>| at.map(|at| at.strftime("%Y-%m-%dT%H:%M:%SZ").to_string());
    Ok(SunTimesFound {
        sunrise_utc: second(times.sunrise),
        transit_utc: second(times.transit),
        sunset_utc: second(times.sunset),
    })
}

/// The same, from what was read by its table.
pub(super) fn position(values: &Values) -> Result<serde_json::Value, Problems> {
    let text = values.text("utc");
    let utc = text
        .parse::<Timestamp>()
        .map_err(|_| Problems::one("/utc", format!("“{text}” is no instant: write 2026-08-29T16:46:00Z")))?;
    let found = sun_position(&SunPositionAsked {
        utc,
        latitude_deg: values.get("latitude_deg"),
        longitude_deg: values.get("longitude_deg"),
        elevation_m: values.maybe("elevation_m").unwrap_or_default(),
    })?;
    Ok(serde_json::json!(found))
}

/// The same, from what was read by its table.
pub(super) fn times(values: &Values) -> Result<serde_json::Value, Problems> {
    let found = sun_times(&SunTimesAsked {
        utc_date: values.text("utc_date").to_owned(),
        latitude_deg: values.get("latitude_deg"),
        longitude_deg: values.get("longitude_deg"),
    })?;
    Ok(serde_json::json!(found))
}
