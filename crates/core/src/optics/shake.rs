//! Camera shake: the slowest shutter that can be held by hand. Every rule here is common practice, no source.

use crate::optics::Sensor;
use crate::scale::Millimetres;

/// Which rule of thumb is kept for the slowest shutter by hand.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HandheldRule {
    /// One over the focal length.
    #[default]
    OneOverFocal,
    /// One over twice the focal length.
    OneOverTwiceFocal,
    /// One over the focal length, slower by the stops of stabilisation.
    Stabilised,
    /// One over the focal length, quicker on sensors with more than 6000 pixels along the long side.
    DenseSensor,
}

impl HandheldRule {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 4] = [Self::OneOverFocal, Self::OneOverTwiceFocal, Self::Stabilised, Self::DenseSensor];
}

/// The slowest shutter by hand, in seconds. The focal length counts as on a full frame.
///
/// ```
/// use tolva_core::{optics::{HandheldRule, Sensor, shake_floor_s}, scale::Millimetres};
/// let floor = |school| shake_floor_s(Millimetres(50.0), Sensor::FULL_FRAME, school, 3.0);
/// assert!((floor(HandheldRule::OneOverFocal) - 1.0 / 50.0).abs() < 1e-12);
/// assert!((floor(HandheldRule::OneOverTwiceFocal) - 1.0 / 100.0).abs() < 1e-12);
/// ```
pub fn shake_floor_s(focal: Millimetres, sensor: Sensor, school: HandheldRule, stabilisation_stops: f64) -> f64 {
    let one_over = 1.0 / (focal.0 * sensor.crop());
    match school {
        HandheldRule::OneOverFocal => one_over,
        HandheldRule::OneOverTwiceFocal => one_over / 2.0,
        HandheldRule::Stabilised => one_over * stabilisation_stops.exp2(),
        HandheldRule::DenseSensor => one_over * (Sensor::FULL_FRAME.width_px / sensor.width_px).min(1.0),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// physics.md §6 (common practice, no source).
    #[rstest]
    #[case(85.0, HandheldRule::OneOverFocal, 85.0)]
    #[case(85.0, HandheldRule::OneOverTwiceFocal, 170.0)]
    #[case(80.0, HandheldRule::Stabilised, 10.0)]
    #[case(85.0, HandheldRule::DenseSensor, 127.5)]
    fn floors(#[case] mm: f64, #[case] school: HandheldRule, #[case] one_over: f64) {
        let dense = Sensor { width_px: 9000.0, ..Sensor::FULL_FRAME };
        let floor = shake_floor_s(Millimetres(mm), dense, school, 3.0);
        assert!((1.0 / floor - one_over).abs() < 1e-9, "1/{}", 1.0 / floor);
    }

    #[test]
    fn a_small_sensor_makes_a_lens_longer() {
        let small = Sensor { width_mm: 24.0, height_mm: 16.0, width_px: 6000.0 };
        let floor = shake_floor_s(Millimetres(50.0), small, HandheldRule::OneOverFocal, 0.0);
        assert!((1.0 / floor - 75.0).abs() < 1e-9);
    }
}
