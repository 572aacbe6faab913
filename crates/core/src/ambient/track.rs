//! The sun's way over a stretch of time, for whoever asks at every minute.
//!
//! The Solar Position Algorithm is asked once a day, at midnight UTC. Between, what a day does is taken out: the sun is
//! put where the earth's centre sees it, 8.8″ higher at the horizon, and turned back about the celestial pole by 15° an
//! hour. What is left, a degree a day, is interpolated by the cubic through the four midnights around. That is within
//! 0.0001°, for the most part because the sun's distance, and with it the parallax, changes by 1.7 % over a year.
//!
//! Seen from the earth's centre a midnight's sun is the same for every place: each thread remembers the latest of them,
//! since whoever drags a mark asks for the same few days at every frame.

use std::cell::Cell;
use std::f64::consts::TAU;

use jiff::{SignedDuration, Timestamp};

use super::{GeographicPoint, Sun};

const DAY_SECONDS: i64 = 86_400;
const DAY_S: f64 = 86_400.0;
/// The sun's parallax at the horizon in radians: 8.794″, the earth's radius over the astronomical unit.
const PARALLAX: f64 = 8.794 / 3600.0 * std::f64::consts::PI / 180.0;

/// The sun's way over a place.
#[derive(Clone, Debug)]
pub struct SunTrack {
    from: Timestamp,
    to: Timestamp,
    place: Place,
    /// The midnight of the second direction: one lies before the stretch and at least one behind it.
    midnight: Timestamp,
    /// Where the earth's centre sees the sun at each midnight.
    directions: Vec<Direction>,
}

/// Towards the meridian of Greenwich, towards its west, and along the pole.
type Direction = [f64; 3];

impl GeographicPoint {
    /// The sun's way from one instant to another.
    ///
    /// ```
    /// use tolva_core::ambient::GeographicPoint;
    /// let spot = GeographicPoint { latitude_deg: 60.0, longitude_deg: 25.0, elevation_m: 0.0 };
    /// let (from, to) = ("2026-06-21T00:00:00Z".parse().unwrap(), "2026-06-22T00:00:00Z".parse().unwrap());
    /// let noon = "2026-06-21T10:22:30Z".parse().unwrap();
    /// let apart = spot.track(from, to).sun(noon).true_altitude_deg - spot.sun(noon).true_altitude_deg;
    /// assert!(apart.abs() < 0.0001);
    /// ```
    pub fn track(self, from: Timestamp, to: Timestamp) -> SunTrack {
        let day = |at: Timestamp| at.as_second().div_euclid(DAY_SECONDS);
        let first = day(from);
        // Days are kept within 1900 to 2199, so that a midnight is an instant.
        let midnight = Timestamp::from_second(first * DAY_SECONDS).unwrap_or(from);
        let directions = (first - 1..=day(to) + 2).map(at_midnight).collect();
        SunTrack { from, to, place: Place::at(self), midnight, directions }
    }
}

/// How many midnights a thread remembers: more than a season, whichever days are asked for.
const REMEMBERED: usize = 128;

thread_local! {
    static MIDNIGHTS: [Cell<Option<(i64, Direction)>>; REMEMBERED] = const { [const { Cell::new(None) }; REMEMBERED] };
}

/// Where the earth's centre sees the sun at the midnight (UTC) a day begins with, counted from 1970; days before all
/// share one place among what is remembered.
fn at_midnight(day: i64) -> Direction {
    MIDNIGHTS.with(|remembered| {
        let slot = &remembered[usize::try_from(day).unwrap_or_default() % REMEMBERED];
        match slot.get() {
            Some((known, direction)) if known == day => direction,
            _ => {
                let direction = Timestamp::from_second(day * DAY_SECONDS).map_or([0.0, 0.0, 1.0], geocentric);
                slot.set(Some((day, direction)));
                direction
            }
        }
    })
}

/// Where the earth's centre sees the sun: from the pole, where a bearing is an hour angle and a height a declination.
fn geocentric(at: Timestamp) -> Direction {
    let pole = GeographicPoint { latitude_deg: 90.0, longitude_deg: 0.0, elevation_m: 0.0 };
    let sun = pole.sun(at);
    let (up, level) = sun.true_altitude_deg.to_radians().sin_cos();
    let (east, north) = sun.azimuth_deg.to_radians().sin_cos();
    [-level * north, -level * east, up + PARALLAX]
}

/// How a place on the earth turns: about an axis as high over the north point as the place is north.
#[derive(Clone, Copy, Debug)]
struct Place {
    sin_latitude: f64,
    cos_latitude: f64,
    longitude: f64,
}

impl Place {
    fn at(point: GeographicPoint) -> Self {
        let (sin_latitude, cos_latitude) = point.latitude_deg.to_radians().sin_cos();
        Self { sin_latitude, cos_latitude, longitude: point.longitude_deg.to_radians() }
    }

    /// The sun in a direction, so many seconds after midnight.
    fn sees(self, [meridian, west, pole]: Direction, seconds: f64) -> Sun {
        let (sin, cos) = (TAU * seconds / DAY_S + self.longitude).sin_cos();
        let (meridian, west) = (cos * meridian - sin * west, sin * meridian + cos * west);
        let up = self.cos_latitude * meridian + self.sin_latitude * pole - PARALLAX;
        let north = self.cos_latitude * pole - self.sin_latitude * meridian;
        Sun::seen(up.atan2(west.hypot(north)).to_degrees(), (-west).atan2(north).to_degrees().rem_euclid(360.0))
    }
}

impl SunTrack {
    /// Where the sun stands at an instant of the stretch; beyond its ends, where it stands there.
    pub fn sun(&self, at: Timestamp) -> Sun {
        let seconds = (at.clamp(self.from, self.to) - self.midnight).as_secs_f64();
        let steps = seconds / DAY_S;
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "not negative, and within the list"
        )]
        let index = (steps.floor() as usize).min(self.directions.len().saturating_sub(4));
        #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
        let x = steps - index as f64;
        // Lagrange's cubic through positions at −1, 0, 1 and 2.
        let weights = [
            -x * (x - 1.0) * (x - 2.0) / 6.0,
            (x + 1.0) * (x - 1.0) * (x - 2.0) / 2.0,
            -(x + 1.0) * x * (x - 2.0) / 2.0,
            (x + 1.0) * x * (x - 1.0) / 6.0,
        ];
        let mut sum = [0.0; 3];
        for (weight, direction) in weights.iter().zip(&self.directions[index..]) {
            for (sum, part) in sum.iter_mut().zip(direction) {
                *sum += weight * part;
            }
        }
        self.place.sees(sum, seconds)
    }

    /// Every crossing of a height by the sun's true centre: up, then down. Found to a tenth of a second; a sun that
    /// comes and goes within a minute is missed.
    pub fn crossings(&self, altitude_deg: f64) -> (Vec<Timestamp>, Vec<Timestamp>) {
        let over = |at: Timestamp| self.sun(at).true_altitude_deg >= altitude_deg;
        let (mut rises, mut sets) = (Vec::new(), Vec::new());
        let mut before = self.from;
        let mut was = over(before);
        while before < self.to {
            let after = (before + SignedDuration::from_mins(1)).min(self.to);
            let is = over(after);
            if is != was {
                let at = when(before, after, |at| over(at) == was);
                if is { rises.push(at) } else { sets.push(at) }
            }
            (before, was) = (after, is);
        }
        (rises, sets)
    }
}

/// The instant, to a tenth of a second, from which on something is no longer as it was.
pub(super) fn when(mut from: Timestamp, mut to: Timestamp, as_before: impl Fn(Timestamp) -> bool) -> Timestamp {
    while (to - from).as_millis() > 100 {
        let middle = from + (to - from) / 2;
        if as_before(middle) { from = middle } else { to = middle }
    }
    to
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn instant(second: i64) -> Timestamp {
        Timestamp::from_second(second).expect("an instant")
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]
        #[test]
        fn between_its_positions_it_is_as_the_algorithm_says(
            latitude_deg in -90.0..90.0_f64, longitude_deg in -180.0..180.0_f64,
            begin in 0i64..4_000_000_000, after in 0i64..86_400
        ) {
            let spot = GeographicPoint { latitude_deg, longitude_deg, elevation_m: 0.0 };
            let track = spot.track(instant(begin), instant(begin + 86_400));
            let (ours, exact) = (track.sun(instant(begin + after)), spot.sun(instant(begin + after)));
            prop_assert!((ours.true_altitude_deg - exact.true_altitude_deg).abs() < 0.0001);
            // Both apparent heights come from the true one by the same formula, but for the edge where it sets in.
            prop_assert!((ours.apparent_altitude_deg - exact.apparent_altitude_deg).abs() < 0.002
                || exact.true_altitude_deg.abs() < 1.0);
            let round = (ours.azimuth_deg - exact.azimuth_deg + 180.0).rem_euclid(360.0) - 180.0;
            let level = exact.true_altitude_deg.to_radians().cos();
            prop_assert!((round * level).abs() < 0.0001);
        }
    }

    #[test]
    fn crossings_are_where_the_crates_own_search_finds_them() {
        let spot = GeographicPoint { latitude_deg: 60.47, longitude_deg: 26.95, elevation_m: 0.0 };
        let begin: Timestamp = "2026-08-28T21:00:00Z".parse().expect("midnight there");
        let end = begin + SignedDuration::from_hours(24);
        let (rises, sets) = spot.track(begin, end).crossings(-0.8333);
        let times = spot.times(begin, end);
        for (ours, theirs) in [(rises, times.sunrise), (sets, times.sunset)] {
            let apart = (ours[0] - theirs.expect("it comes")).as_secs_f64();
            assert!(ours.len() == 1 && apart.abs() < 1.0, "{apart}");
        }
    }
}
