//! Forecasts of cloud.

use jiff::{SignedDuration, Timestamp};
use rand::Rng as _;
use tolva_core::ambient::{CloudHour, ForecastCloud, GeographicPoint};

use crate::{DeviceError, dice};

/// Says how much cloud there will be.
pub trait Forecast {
    /// The cloud over a place, hour by hour from one instant for so many hours.
    ///
    /// # Errors
    /// The service does not answer, or not for so long ahead.
    fn cloud(&self, over: GeographicPoint, from: Timestamp, hours: u16) -> Result<ForecastCloud, DeviceError>;
}

/// A stand-in: plausible cloud that drifts from hour to hour, the same for the same place, day and seed.
#[derive(Clone, Copy, Debug, Default)]
pub struct SimulatedForecast {
    /// Another seed is other weather.
    pub seed: u64,
}

/// As far ahead as a forecast goes: sixteen days.
const MOST_HOURS: u16 = 384;

impl Forecast for SimulatedForecast {
    fn cloud(&self, over: GeographicPoint, from: Timestamp, hours: u16) -> Result<ForecastCloud, DeviceError> {
        if !(1..=MOST_HOURS).contains(&hours) {
            let message = format!("{hours} hours are not allowed: a forecast goes from 1 to {MOST_HOURS} hours ahead");
            return Err(DeviceError::Asked(message));
        }
        let place = format!("{:.1} {:.1}", over.latitude_deg, over.longitude_deg);
        let day = from.strftime("%Y-%m-%d").to_string();
        let mut dice = dice(&["cloud", &self.seed.to_string(), &place, &day]);
        // A day has a character, clear or grey, and drifts about it.
        let character: f64 = dice.random_range(0.0..8.0);
        let mut cloud = character;
        let hours = (0..i64::from(hours)).map(|hour| {
            let utc = from + SignedDuration::from_hours(hour);
            let eighths = (cloud * 2.0).round() / 2.0;
            cloud = (cloud + 0.2 * (character - cloud) + dice.random_range(-1.2..1.2)).clamp(0.0, 8.0);
            CloudHour { utc: utc.to_string(), cloud_eighths: eighths }
        });
        Ok(ForecastCloud { source: "Simulated forecast".to_owned(), simulated: true, hours: hours.collect() })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const QUAY: GeographicPoint = GeographicPoint { latitude_deg: 60.47, longitude_deg: 26.95, elevation_m: 0.0 };

    fn from(utc: &str) -> Timestamp {
        utc.parse().expect("an instant")
    }

    #[test]
    fn the_same_place_and_day_have_the_same_weather() {
        let one = SimulatedForecast::default();
        let first = one.cloud(QUAY, from("2026-08-28T21:00:00Z"), 30).expect("a forecast");
        assert_eq!(one.cloud(QUAY, from("2026-08-28T21:00:00Z"), 30), Ok(first.clone()));
        assert_ne!(SimulatedForecast { seed: 7 }.cloud(QUAY, from("2026-08-28T21:00:00Z"), 30), Ok(first.clone()));
        assert_ne!(one.cloud(QUAY, from("2026-08-29T21:00:00Z"), 30).expect("another").hours[0], first.hours[0]);
        assert!(first.simulated && first.source.contains("Simulated"));
    }

    #[test]
    fn cloud_is_plausible_over_a_year() {
        let mut all = Vec::new();
        for day in 0..365 {
            let begin = from("2026-01-01T00:00:00Z") + SignedDuration::from_hours(24 * day);
            let hours = SimulatedForecast::default().cloud(QUAY, begin, 24).expect("a forecast").hours;
            assert!(hours.windows(2).all(|pair| (pair[0].cloud_eighths - pair[1].cloud_eighths).abs() <= 3.5));
            all.extend(hours.into_iter().map(|hour| hour.cloud_eighths));
        }
        assert!(all.iter().all(|eighths| (0.0..=8.0).contains(eighths)));
        let share = |is: fn(&f64) -> bool| all.iter().filter(|eighths| is(eighths)).count() * 100 / all.len();
        assert!(share(|eighths| *eighths <= 2.0) > 10 && share(|eighths| *eighths >= 6.0) > 10);
    }

    #[test]
    fn not_for_ever_ahead() {
        let wrong = SimulatedForecast::default().cloud(QUAY, from("2026-08-28T21:00:00Z"), 1000);
        assert!(wrong.expect_err("too long").to_string().contains("from 1 to 384"));
    }
}
