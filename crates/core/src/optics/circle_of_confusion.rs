//! How large a blur still counts as sharp.

use crate::scale::Millimetres;

/// What counts as sharp.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum CircleOfConfusion {
    /// A circle of the sensor's diagonal over 1500: a small print, a screen (common practice, no source).
    #[default]
    SensorDiagonal,
    /// Two pixels: sharp at full size.
    TwoPixels,
    /// A print with so long a side, looked at from 25 cm, where the eye parts 0.2 mm (common practice, no source).
    Print {
        /// In centimetres, 5 to 500.
        long_side_cm: f64,
    },
}

/// What a reader's eye parts on a print at 25 cm, in millimetres. Common practice, no source.
const SEEN_ON_PRINT_MM: f64 = 0.2;

/// A sensor.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sensor {
    /// Its long side, 4 to 100 mm.
    pub width_mm: f64,
    /// Its short side, 3 to 100 mm.
    pub height_mm: f64,
    /// Pixels along its long side, 500 to 30 000.
    pub width_px: f64,
}

impl Sensor {
    /// The usual full frame with 24 million pixels.
    pub const FULL_FRAME: Self = Self { width_mm: 36.0, height_mm: 24.0, width_px: 6000.0 };

    /// From corner to corner.
    pub fn diagonal(self) -> Millimetres {
        Millimetres(self.width_mm.hypot(self.height_mm))
    }

    /// From one pixel to the next.
    pub fn pitch(self) -> Millimetres {
        Millimetres(self.width_mm / self.width_px)
    }

    /// How much smaller than a full frame it is, by its diagonal: 1.5 for a sensor of 24 × 16 mm.
    pub fn crop(self) -> f64 {
        Self::FULL_FRAME.diagonal().0 / self.diagonal().0
    }

    /// The largest blur on it that still counts as sharp.
    ///
    /// ```
    /// use tolva_core::optics::{CircleOfConfusion, Sensor};
    /// let circle = Sensor::FULL_FRAME.circle(CircleOfConfusion::SensorDiagonal);
    /// assert!((circle.0 - 0.0288).abs() < 0.0001);
    /// ```
    pub fn circle(self, wanted: CircleOfConfusion) -> Millimetres {
        match wanted {
            CircleOfConfusion::SensorDiagonal => Millimetres(self.diagonal().0 / 1500.0),
            CircleOfConfusion::TwoPixels => Millimetres(2.0 * self.pitch().0),
            CircleOfConfusion::Print { long_side_cm } => {
                Millimetres(SEEN_ON_PRINT_MM * self.width_mm / (long_side_cm * 10.0))
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(CircleOfConfusion::SensorDiagonal, 0.02884)]
    #[case(CircleOfConfusion::TwoPixels, 0.012)]
    #[case(CircleOfConfusion::Print { long_side_cm: 30.0 }, 0.024)]
    fn on_a_full_frame(#[case] wanted: CircleOfConfusion, #[case] mm: f64) {
        assert!((Sensor::FULL_FRAME.circle(wanted).0 - mm).abs() < 1e-4);
    }

    #[test]
    fn a_smaller_sensor_asks_for_less_blur() {
        let small = Sensor { width_mm: 24.0, height_mm: 16.0, width_px: 6000.0 };
        assert!((small.crop() - 1.5).abs() < 1e-12);
        for wanted in [
            CircleOfConfusion::SensorDiagonal,
            CircleOfConfusion::TwoPixels,
            CircleOfConfusion::Print { long_side_cm: 60.0 },
        ] {
            assert!((Sensor::FULL_FRAME.circle(wanted).0 / small.circle(wanted).0 - 1.5).abs() < 1e-9);
        }
    }
}
