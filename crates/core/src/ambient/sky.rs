//! How much light sun and sky give, from the sun's height and the cloud.
//!
//! By day: the IES daylight availability model (IES Lighting Handbook; constants from memory). Low sun and twilight: the
//! total horizontal illuminance of Janiczek and DeYoung 1987, US Naval Observatory Circular 171 (from memory). Air mass:
//! Kasten and Young 1989. All illuminances in lux.

use super::Sun;

/// What sun and sky give at an instant, in lux.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Daylight {
    /// From the sun's disc, on a plane that faces it.
    pub direct_normal_lux: f64,
    /// From the disc, on the level ground.
    pub direct_level_lux: f64,
    /// From the whole sky, on the level ground.
    pub sky_lux: f64,
}

impl Daylight {
    /// Sun and sky together on the level ground.
    pub fn total_lux(self) -> f64 {
        self.direct_level_lux + self.sky_lux
    }

    /// With the sun's disc hidden, by a cloud or a hill; the sky stays.
    #[must_use]
    pub fn without_sun(self) -> Self {
        Self { direct_normal_lux: 0.0, direct_level_lux: 0.0, ..self }
    }
}

/// Relative air mass of an apparent height in degrees. Source: Kasten and Young 1989, Applied Optics 28, 4735.
pub fn air_mass(apparent_altitude_deg: f64) -> f64 {
    let h = apparent_altitude_deg.max(0.0);
    1.0 / (h.to_radians().sin() + 0.505_72 * (h + 6.079_95).powf(-1.6364))
}

/// The sun's light outside the air, in lux. Source: IES Lighting Handbook (from memory).
const SOLAR_LUX: f64 = 127_500.0;

/// A sky of the IES model: extinction of the direct light, and A + B·sin^q of the sky's, in kilolux.
struct Condition {
    extinction: Option<f64>,
    a: f64,
    b: f64,
    q: f64,
}

const CLEAR: Condition = Condition { extinction: Some(0.21), a: 0.8, b: 15.5, q: 0.5 };
const PARTLY: Condition = Condition { extinction: Some(0.80), a: 0.3, b: 45.0, q: 1.0 };
const OVERCAST: Condition = Condition { extinction: None, a: 0.3, b: 21.0, q: 1.0 };

impl Condition {
    fn direct_normal(&self, apparent_deg: f64) -> f64 {
        self.extinction.map_or(0.0, |c| SOLAR_LUX * (-c * air_mass(apparent_deg)).exp())
    }

    fn sky(&self, apparent_deg: f64) -> f64 {
        1000.0 * (self.a + self.b * apparent_deg.max(0.0).to_radians().sin().powf(self.q))
    }
}

/// The total on level ground under a clear, moonless sky, by the sun's true height in degrees. Below −18° it no longer
/// falls. Source: Janiczek and DeYoung 1987, USNO Circular 171 (from memory).
pub fn clear_total_lux(true_altitude_deg: f64) -> f64 {
    const PARTS: [(f64, [f64; 4]); 6] = [
        (20.0, [3.74, 3.97, -4.07, 1.47]),
        (5.0, [3.05, 13.28, -45.98, 64.33]),
        (-0.8, [2.88, 22.26, -207.64, 1034.30]),
        (-5.0, [2.88, 21.81, -258.11, -858.36]),
        (-12.0, [2.70, 12.17, -431.69, -1899.83]),
        (-18.0, [13.84, 262.72, 1447.42, 2797.93]),
    ];
    let h = true_altitude_deg.clamp(-18.0, 90.0);
    let x = h / 90.0;
    let [a, b, c, d] = PARTS.iter().find(|(from, _)| h >= *from).map_or(PARTS[5].1, |part| part.1);
    10f64.powf(a + x * (b + x * (c + x * d)))
}

/// The heights between which the low sun's model gives way to the IES one.
const LOW_DEG: f64 = 5.0;
const HIGH_DEG: f64 = 15.0;
/// The disc gives light until its upper edge is under the horizon: 16′ of radius.
const DISC_DEG: f64 = 0.2667;

/// What sun and sky give, with so many eighths of cloud: 0 clear, 4 partly cloudy, 8 overcast, and between them by their
/// share. Without a cloud the total keeps to the Circular's within half a stop; with cloud, twilight is dimmed as much
/// as the same cloud dims a sun of 15°.
///
/// ```
/// use tolva_core::ambient::{Sun, daylight};
/// let high = Sun { true_altitude_deg: 60.0, apparent_altitude_deg: 60.01, azimuth_deg: 180.0 };
/// assert!((daylight(high, 0.0).direct_normal_lux / 100_000.0 - 1.0).abs() < 0.01);
/// assert!(daylight(high, 8.0).direct_normal_lux < 1e-9);
/// ```
pub fn daylight(sun: Sun, cloud_eighths: f64) -> Daylight {
    let cloud = cloud_eighths.clamp(0.0, 8.0);
    let (from, to, share) =
        if cloud <= 4.0 { (&CLEAR, &PARTLY, cloud / 4.0) } else { (&PARTLY, &OVERCAST, (cloud - 4.0) / 4.0) };
    let mix = |of: &dyn Fn(&Condition) -> f64| of(from) * (1.0 - share) + of(to) * share;
    let total = |condition: &Condition, h: f64| condition.direct_normal(h) * h.to_radians().sin() + condition.sky(h);
    let h = sun.apparent_altitude_deg;
    let risen = ((h + DISC_DEG) / (2.0 * DISC_DEG)).clamp(0.0, 1.0);
    let direct_normal_lux = risen * mix(&|condition| condition.direct_normal(h));
    let direct_level_lux = direct_normal_lux * h.max(0.0).to_radians().sin();
    let dimmed = mix(&|condition| total(condition, HIGH_DEG)) / total(&CLEAR, HIGH_DEG);
    let whole = clear_total_lux(sun.true_altitude_deg) * dimmed;
    // The low sun's sky is what the total leaves; never nothing, since the sky is always there.
    let low = (whole - direct_level_lux).max(0.1 * whole);
    let high = mix(&|condition| condition.sky(h));
    let share = ((h - LOW_DEG) / (HIGH_DEG - LOW_DEG)).clamp(0.0, 1.0);
    let sky_lux = (low.ln() * (1.0 - share) + high.ln() * share).exp();
    Daylight { direct_normal_lux, direct_level_lux, sky_lux }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;
    use serde::Deserialize;

    fn sun(altitude_deg: f64) -> Sun {
        // Refraction near the horizon, roughly: Bennett 1982, in minutes of arc.
        let lift = 1.0 / (altitude_deg + 7.31 / (altitude_deg + 4.4)).to_radians().tan() / 60.0;
        let lift = if altitude_deg > -0.9 { lift } else { 0.0 };
        Sun { true_altitude_deg: altitude_deg, apparent_altitude_deg: altitude_deg + lift, azimuth_deg: 180.0 }
    }

    /// Kasten and Young's own table (1989): 1 at the zenith, 5.6 at 10°, 38 at the horizon.
    #[rstest]
    #[case(90.0, 1.0, 0.001)]
    #[case(30.0, 1.994, 0.002)]
    #[case(10.0, 5.586, 0.01)]
    #[case(0.0, 37.92, 0.3)]
    fn air_masses(#[case] altitude: f64, #[case] mass: f64, #[case] within: f64) {
        assert!((air_mass(altitude) - mass).abs() < within, "{}", air_mass(altitude));
    }

    /// The Circular's figures at the ends of civil and nautical twilight, as physics.md gives them.
    #[rstest]
    #[case(-6.0, 3.4, 0.1)]
    #[case(-12.0, 0.008, 0.001)]
    fn twilight_of_the_circular(#[case] altitude: f64, #[case] lux: f64, #[case] within: f64) {
        assert!((clear_total_lux(altitude) - lux).abs() < within, "{}", clear_total_lux(altitude));
        assert!((daylight(sun(altitude), 0.0).total_lux() / clear_total_lux(altitude) - 1.0).abs() < 1e-9);
    }

    #[test]
    fn the_total_keeps_to_the_circular_within_half_a_stop() {
        for tenth in -180..=900 {
            let altitude = f64::from(tenth) / 10.0;
            let apart = (daylight(sun(altitude), 0.0).total_lux() / clear_total_lux(altitude)).log2();
            assert!(apart.abs() < 0.5, "{altitude}°: {apart}");
        }
    }

    #[derive(Deserialize)]
    struct ClearSky {
        apparent_altitude_deg: f64,
        global_horizontal_w_m2: f64,
    }

    /// pvlib 0.16.1, clear sky after Ineichen and Perez with a Linke turbidity of 3 at sea level, times 105 lm/W (the
    /// efficacy of daylight, common practice): within half a stop from 10° up. `tests/data/clear_sky.csv` tells how.
    #[test]
    fn the_total_keeps_to_a_reference_librarys_clear_sky() {
        let mut table = csv::ReaderBuilder::new()
            .comment(Some(b'#'))
            .from_reader(include_bytes!("../../tests/data/clear_sky.csv").as_slice());
        let mut seen = 0;
        for row in table.deserialize::<ClearSky>() {
            let row = row.expect("a row");
            let h = row.apparent_altitude_deg;
            let ours = daylight(Sun { true_altitude_deg: h, apparent_altitude_deg: h, azimuth_deg: 0.0 }, 0.0);
            let apart = (ours.total_lux() / (row.global_horizontal_w_m2 * 105.0)).log2();
            assert!(apart.abs() < 0.5, "{h}°: {apart}");
            seen += 1;
        }
        assert!(seen >= 17, "{seen} rows");
    }

    /// Hard sun at 60°, facing it: EV 15.3, which is f/16 at 1/ISO (handbook, ANSI PH2.7, from memory).
    #[test]
    fn hard_sun() {
        let lux = daylight(sun(60.0), 0.0).direct_normal_lux;
        assert!(((lux / 2.5).log2() - 15.3).abs() < 0.05);
    }

    proptest! {
        #[test]
        fn more_sun_is_more_light_and_cloud_never_adds_to_the_disc(
            altitude in -20.0..89.0_f64, more in 0.1..1.0_f64, cloud in 0.0..8.0_f64
        ) {
            let (low, high) = (daylight(sun(altitude), cloud), daylight(sun(altitude + more), cloud));
            // The pieces of the Circular meet within a hundredth or so of their logarithm; falling light is smooth.
            prop_assert!(high.total_lux() >= low.total_lux() * 0.97, "{altitude} {cloud}: {low:?} {high:?}");
            prop_assert!(daylight(sun(altitude), cloud).direct_normal_lux <= daylight(sun(altitude), 0.0).direct_normal_lux);
            prop_assert!(low.sky_lux > 0.0 && low.total_lux().is_finite());
        }
    }
}
