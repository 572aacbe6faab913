//! The sun against the subject and the lens: which side it lights, where shadows fall, and whether it flares.

use super::{Sun, bearing_apart};
use crate::optics::angle_of_view_deg;
use crate::scale::Millimetres;

/// Where the sun stands, seen from the way the subject faces.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SunSide {
    /// Before the subject: behind the camera.
    InFront,
    /// Beside it.
    Beside,
    /// Behind it: before the camera.
    Background,
}

/// Which side the sun stands on, from its bearing and the subject's: within 60° of where it faces in front, within 60°
/// of its back behind, else beside. Common practice, no source.
pub fn sun_side(sun: Sun, facing_deg: f64) -> SunSide {
    match bearing_apart(sun.azimuth_deg, facing_deg).abs() {
        apart if apart <= 60.0 => SunSide::InFront,
        apart if apart >= 120.0 => SunSide::Background,
        _ => SunSide::Beside,
    }
}

/// The length of the shadow of something upright on level ground, in metres: height / tan(altitude). Nothing where the
/// sun is not up.
///
/// ```
/// use tolva_core::ambient::{Sun, shadow_length_m};
/// let low = Sun { true_altitude_deg: 9.36, apparent_altitude_deg: 9.46, azimuth_deg: 284.0 };
/// assert!((shadow_length_m(low, 1.8).unwrap() - 10.8).abs() < 0.01);
/// ```
pub fn shadow_length_m(sun: Sun, height_m: f64) -> Option<f64> {
    (sun.apparent_altitude_deg > 0.0).then(|| height_m / sun.apparent_altitude_deg.to_radians().tan())
}

/// How near the sun stands to a lens that looks level along a bearing.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LensAndSun {
    /// From the lens's axis to the sun, in degrees.
    pub off_axis_deg: f64,
    /// From the axis to the corner of the frame, in degrees.
    pub corner_deg: f64,
    /// How far to turn the camera, in degrees, until the sun stands clear of the glass; positive is clockwise. Nothing
    /// where it stands clear, or where no turn would help because it stands overhead.
    pub turn_deg: Option<f64>,
}

/// The diagonal of a full frame, 36 × 24 mm.
const DIAGONAL: Millimetres = Millimetres(43.27);
/// Within so far of the frame's corner the sun shines onto the glass of a lens with a usual hood. Common practice.
const GLASS_DEG: f64 = 25.0;

impl LensAndSun {
    /// A lens of a focal length in full-frame millimetres that looks along a bearing.
    pub fn new(sun: Sun, looks_deg: f64, lens_mm: f64) -> Self {
        let apart = bearing_apart(sun.azimuth_deg, looks_deg);
        let up = sun.apparent_altitude_deg.to_radians();
        let off_axis_deg = (up.cos() * apart.to_radians().cos()).clamp(-1.0, 1.0).acos().to_degrees();
        let corner_deg = angle_of_view_deg(DIAGONAL, Millimetres(lens_mm)) / 2.0;
        let clear = (corner_deg + GLASS_DEG).min(89.0);
        let turn_deg = (off_axis_deg < clear).then(|| {
            // The sun at the same height stands `clear` off the axis when it is this far round.
            let round = (clear.to_radians().cos() / up.cos()).clamp(-1.0, 1.0).acos().to_degrees();
            // Away from the sun: it stays on the side it is on.
            if apart >= 0.0 { apart - round } else { apart + round }
        });
        Self { off_axis_deg, corner_deg, turn_deg }
    }

    /// Whether the sun stands in the frame.
    pub fn in_frame(self) -> bool {
        self.off_axis_deg < self.corner_deg
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn sun(azimuth_deg: f64, altitude_deg: f64) -> Sun {
        Sun { true_altitude_deg: altitude_deg, apparent_altitude_deg: altitude_deg, azimuth_deg }
    }

    #[rstest]
    #[case(250.0, SunSide::InFront)]
    #[case(350.0, SunSide::Beside)]
    #[case(150.0, SunSide::Beside)]
    #[case(40.0, SunSide::Background)]
    #[case(90.0, SunSide::Background)]
    fn sides(#[case] azimuth: f64, #[case] side: SunSide) {
        assert_eq!(sun_side(sun(azimuth, 20.0), 250.0), side);
    }

    /// physics.md §8: height / tan(altitude).
    #[rstest]
    #[case(9.46, Some(10.80))]
    #[case(45.0, Some(1.80))]
    #[case(-0.1, None)]
    fn shadows(#[case] altitude: f64, #[case] length: Option<f64>) {
        let found = shadow_length_m(sun(0.0, altitude), 1.8);
        assert_eq!(found.map(|m| (m * 100.0).round()), length.map(|m| (m * 100.0).round()));
    }

    #[test]
    fn a_lens_towards_the_sun_is_turned_away_from_it() {
        // The sun 10° high, 20° right of where an 85 mm lens looks: its corner is at 14.3°.
        let near = LensAndSun::new(sun(20.0, 10.0), 0.0, 85.0);
        assert!((near.corner_deg - 14.28).abs() < 0.01 && !near.in_frame());
        let turn = near.turn_deg.expect("it flares");
        assert!(turn < 0.0, "away from the sun: {turn}");
        let turned = LensAndSun::new(sun(20.0, 10.0), turn - 0.001, 85.0);
        assert!(turned.turn_deg.is_none() && (turned.off_axis_deg - 39.28).abs() < 0.02, "{turned:?}");
        assert!(LensAndSun::new(sun(5.0, 5.0), 0.0, 85.0).in_frame());
        assert!(LensAndSun::new(sun(180.0, 10.0), 0.0, 85.0).turn_deg.is_none());
    }
}
