//! A step wedge of greys: how bright each stop renders in an sRGB picture.

use palette::{LinLuma, SrgbLuma};

use crate::scale::Stops;

/// Full white of an 8-bit sRGB rendering lies 2.47 stops over mid grey: 0.18·2^2.47 = 1.
pub const FULL_WHITE: Stops = Stops(2.473_931_188_332_412);

/// A step wedge: from −6 to +4 stops from mid grey by thirds, each with the level it renders to in 8-bit sRGB. Source:
/// IEC 61966-2-1 (sRGB transfer function), by palette.
///
/// ```
/// use tolva_core::{colour::step_wedge, scale::Stops};
/// let grey = step_wedge().find(|(stops, _)| stops.0 == 0.0).unwrap();
/// assert_eq!(grey, (Stops(0.0), 118));
/// ```
pub fn step_wedge() -> impl Iterator<Item = (Stops, u8)> {
    (-18..=12).map(|third| {
        let stops = Stops(f64::from(third) / 3.0);
        (stops, level(stops))
    })
}

fn level(stops: Stops) -> u8 {
    let linear: LinLuma<palette::white_point::D65, f64> = LinLuma::new((0.18 * stops.ratio()).clamp(0.0, 1.0));
    SrgbLuma::<u8>::from_linear(linear).luma
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// IEC 61966-2-1: 18 % grey is 118; white clips 2.47 stops over it.
    #[rstest]
    #[case(0.0, 118)]
    #[case(2.474, 255)]
    #[case(2.4, 249)]
    #[case(4.0, 255)]
    #[case(f64::NEG_INFINITY, 0)]
    fn levels(#[case] stops: f64, #[case] expected: u8) {
        assert_eq!(level(Stops(stops)), expected);
    }

    #[test]
    fn full_white_is_where_the_wedge_clips() {
        assert!((0.18 * FULL_WHITE.ratio() - 1.0).abs() < 1e-12);
    }
}
