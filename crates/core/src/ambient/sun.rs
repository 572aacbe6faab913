//! Where the sun stands, and when it rises and sets.
//!
//! By the Solar Position Algorithm (Reda and Andreas 2004, NREL/TP-560-34302), through the crate `solar-positioning`.
//! Bearings run clockwise from true north.

use jiff::Timestamp;
use solar_positioning::time::JulianDate;
use solar_positioning::{Horizon, Location, SolarEvents, SolarPositions, delta_t};

/// Where the sun stands.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sun {
    /// The height of its centre over the horizon without refraction, in degrees.
    pub true_altitude_deg: f64,
    /// The height it is seen at, lifted by refraction, in degrees. The same as the true one well below the horizon.
    pub apparent_altitude_deg: f64,
    /// Its bearing, in degrees clockwise from true north, 0 to 360.
    pub azimuth_deg: f64,
}

/// How far under the horizon refraction is still reckoned with: the sun's radius and the refraction at the horizon.
const REFRACTED_DEG: f64 = -(0.26667 + 0.5667);

impl Sun {
    /// Whether its upper edge is over a level horizon.
    pub fn is_up(self) -> bool {
        self.true_altitude_deg > RISE_DEG
    }

    /// The sun at a true height and a bearing, lifted by the refraction of some air. Source: NREL/TP-560-34302,
    /// equation 42.
    pub fn seen_in(true_altitude_deg: f64, azimuth_deg: f64, air: Air) -> Self {
        let h = true_altitude_deg;
        let lift = if h < REFRACTED_DEG {
            0.0
        } else {
            let thin = air.pressure_hpa / 1010.0 * 283.0 / (273.0 + air.temperature_c);
            thin * 1.02 / (60.0 * (h + 10.3 / (h + 5.11)).to_radians().tan())
        };
        Self { true_altitude_deg: h, apparent_altitude_deg: h + lift, azimuth_deg }
    }

    /// The same in standard air.
    pub fn seen(true_altitude_deg: f64, azimuth_deg: f64) -> Self {
        Self::seen_in(true_altitude_deg, azimuth_deg, Air::default())
    }
}

/// A point on the ground.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct GeographicPoint {
    /// North is positive, −90 to 90.
    pub latitude_deg: f64,
    /// East is positive, −180 to 180.
    pub longitude_deg: f64,
    /// Over the sea, in metres.
    pub elevation_m: f64,
}

/// The air that bends the light: pressure in hectopascal, temperature in degrees Celsius.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Air {
    /// In hectopascal, 1 to 2000.
    pub pressure_hpa: f64,
    /// In degrees Celsius, −150 to 150.
    pub temperature_c: f64,
}

impl Default for Air {
    /// The standard air the check values were made with: 1013.25 hPa, 12 °C.
    fn default() -> Self {
        Self { pressure_hpa: 1013.25, temperature_c: 12.0 }
    }
}

const DAY_S: f64 = 86_400.0;
/// The Julian date of 1970-01-01T00:00Z.
const EPOCH_JD: f64 = 2_440_587.5;
/// The upper limb on the horizon, with 34′ of refraction and 16′ of radius: the usual definition of sunrise.
pub(super) const RISE_DEG: f64 = -0.8333;

fn julian(instant: Timestamp) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "seconds of a few centuries")]
    let seconds = instant.as_second() as f64 + f64::from(instant.subsec_nanosecond()) * 1e-9;
    seconds / DAY_S + EPOCH_JD
}

fn instant(julian: f64) -> Option<Timestamp> {
    #[expect(clippy::cast_possible_truncation, reason = "milliseconds of a few centuries")]
    let milliseconds = ((julian - EPOCH_JD) * DAY_S * 1000.0).round() as i64;
    Timestamp::from_millisecond(milliseconds).ok()
}

/// Terrestrial time less universal time, in seconds, estimated for a year.
fn delta_t_of(julian: f64) -> f64 {
    delta_t::estimate(2000.0 + (julian - 2_451_545.0) / 365.25).unwrap_or(69.0)
}

impl GeographicPoint {
    fn location(self) -> Location {
        Location { latitude: self.latitude_deg.clamp(-90.0, 90.0), longitude: self.longitude_deg.clamp(-180.0, 180.0) }
    }

    /// Where the sun stands at an instant, in standard air.
    ///
    /// ```
    /// use tolva_core::ambient::GeographicPoint;
    /// let spot = GeographicPoint { latitude_deg: 60.0, longitude_deg: 25.0, elevation_m: 0.0 };
    /// let noon = spot.sun("2026-06-21T10:22:00Z".parse().unwrap());
    /// assert!((noon.true_altitude_deg - 53.44).abs() < 0.05 && (noon.azimuth_deg - 180.0).abs() < 0.5);
    /// ```
    pub fn sun(self, at: Timestamp) -> Sun {
        self.sun_in(at, Air::default(), delta_t_of(julian(at)))
    }

    /// The same in given air, with the difference of terrestrial and universal time in seconds.
    pub fn sun_in(self, at: Timestamp, air: Air, delta_t_s: f64) -> Sun {
        let found = JulianDate::new(julian(at), delta_t_s)
            .and_then(|time| SolarPositions::new().at_from_julian(time, self.location(), self.elevation_m, None));
        // Days are kept within 1900 to 2199 and places within the globe, which the algorithm covers: it cannot refuse.
        found.map_or(Sun::seen(-90.0, 0.0), |sun| Sun::seen_in(sun.elevation_angle(), sun.azimuth(), air))
    }

    /// The sun's rising, its transit of the meridian and its setting, of the day whose transit falls between two
    /// instants. Each is missing where there is none.
    pub fn times(self, from: Timestamp, to: Timestamp) -> SunTimes {
        let (begin, end) = (julian(from), julian(to));
        let delta_t = delta_t_of(begin);
        let location = self.location();
        let events = SolarEvents::new();
        // A search finds what lies after its start; the first instant itself counts too.
        let tick = 0.001 / DAY_S;
        let found = events.next_transit_from_julian(begin - tick, end - tick, location.longitude, delta_t);
        let Ok(Some(transit)) = found else { return SunTimes::default() };
        let horizon = Horizon::Custom(RISE_DEG);
        let half = 0.5 + 60.0 / DAY_S;
        let rise = events.next_rise_from_julian(transit - half, transit, location, delta_t, horizon);
        let set = events.next_set_from_julian(transit, transit + half, location, delta_t, horizon);
        SunTimes {
            sunrise: rise.ok().flatten().and_then(instant),
            transit: instant(transit),
            sunset: set.ok().flatten().and_then(instant),
        }
    }
}

/// When the sun rises, stands highest over the meridian, and sets.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct SunTimes {
    /// Its upper limb comes over a level horizon.
    pub sunrise: Option<Timestamp>,
    /// It passes the meridian.
    pub transit: Option<Timestamp>,
    /// Its upper limb goes under a level horizon.
    pub sunset: Option<Timestamp>,
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde::Deserialize;

    /// The worked example of NREL/TP-560-34302, appendix A.5.
    #[test]
    fn the_worked_example_of_the_report() {
        let golden = GeographicPoint { latitude_deg: 39.742_476, longitude_deg: -105.1786, elevation_m: 1830.14 };
        let air = Air { pressure_hpa: 820.0, temperature_c: 11.0 };
        let sun = golden.sun_in("2003-10-17T19:30:30Z".parse().expect("an instant"), air, 67.0);
        assert!((90.0 - sun.apparent_altitude_deg - 50.11162).abs() < 0.0001, "{sun:?}");
        assert!((sun.azimuth_deg - 194.34024).abs() < 0.0001, "{sun:?}");
    }

    #[derive(Deserialize)]
    struct Position {
        utc: Timestamp,
        latitude_deg: f64,
        longitude_deg: f64,
        elevation_m: f64,
        true_altitude_deg: f64,
        apparent_altitude_deg: f64,
        azimuth_deg: f64,
    }

    /// Forty positions made with pvlib 0.16.1 (`spa_python`, 1013.25 hPa, 12 °C), within 0.01°.
    #[test]
    fn positions_of_a_reference_library() {
        let mut table = csv::Reader::from_reader(include_bytes!("../../tests/data/sun_position.csv").as_slice());
        let mut seen = 0;
        for row in table.deserialize::<Position>() {
            let row = row.expect("a row");
            let spot = GeographicPoint {
                latitude_deg: row.latitude_deg,
                longitude_deg: row.longitude_deg,
                elevation_m: row.elevation_m,
            };
            let sun = spot.sun(row.utc);
            let around = (sun.azimuth_deg - row.azimuth_deg + 180.0).rem_euclid(360.0) - 180.0;
            assert!((sun.true_altitude_deg - row.true_altitude_deg).abs() < 0.01, "{} {sun:?}", row.utc);
            assert!((sun.apparent_altitude_deg - row.apparent_altitude_deg).abs() < 0.01, "{} {sun:?}", row.utc);
            assert!(around.abs() < 0.01, "{} {sun:?}", row.utc);
            seen += 1;
        }
        assert_eq!(seen, 40);
    }

    #[derive(Deserialize)]
    struct Times {
        utc_date: String,
        latitude_deg: f64,
        longitude_deg: f64,
        sunrise_utc: Option<Timestamp>,
        transit_utc: Option<Timestamp>,
        sunset_utc: Option<Timestamp>,
    }

    /// Thirty days made with pvlib 0.16.1 (`sun_rise_set_transit_spa`, upper limb, 0.8333°; where the event falls on the
    /// day before or after, by bisection of its position algorithm), within 30 s.
    #[test]
    fn times_of_a_reference_library() {
        let mut table = csv::Reader::from_reader(include_bytes!("../../tests/data/sun_rise_set.csv").as_slice());
        let mut seen = 0;
        for row in table.deserialize::<Times>() {
            let row = row.expect("a row");
            let spot =
                GeographicPoint { latitude_deg: row.latitude_deg, longitude_deg: row.longitude_deg, elevation_m: 0.0 };
            let midnight: Timestamp = format!("{}T00:00:00Z", row.utc_date).parse().expect("a midnight");
            let ours = spot.times(midnight, midnight + jiff::SignedDuration::from_hours(24));
            for (ours, theirs) in
                [(ours.sunrise, row.sunrise_utc), (ours.transit, row.transit_utc), (ours.sunset, row.sunset_utc)]
            {
                let apart = ours.zip(theirs).map(|(ours, theirs)| (ours - theirs).as_secs_f64());
                assert!(apart.is_none_or(|apart| apart.abs() < 30.0), "{} {apart:?} s", row.utc_date);
                assert_eq!(ours.is_some(), theirs.is_some(), "{} {ours:?}", row.utc_date);
            }
            seen += 1;
        }
        assert_eq!(seen, 30);
    }

    #[test]
    fn polar_day_and_night_and_the_poles_answer() {
        let day = |latitude_deg: f64, date: &str| {
            let spot = GeographicPoint { latitude_deg, longitude_deg: 180.0, elevation_m: 0.0 };
            let midnight: Timestamp = format!("{date}T00:00:00Z").parse().expect("a midnight");
            spot.times(midnight, midnight + jiff::SignedDuration::from_hours(24))
        };
        for (latitude, date) in
            [(78.0, "2026-06-21"), (78.0, "2026-12-21"), (90.0, "2026-06-21"), (-90.0, "2026-06-21")]
        {
            let times = day(latitude, date);
            assert!(times.sunrise.is_none() && times.sunset.is_none() && times.transit.is_some(), "{latitude} {date}");
        }
    }
}
