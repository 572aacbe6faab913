//! The wedge of greys over the stop rail: how bright each stop renders in an sRGB picture.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use tolva_core::scale::Stops;

/// Full white of an 8-bit sRGB rendering lies 2.47 stops over mid grey: 0.18·2^2.47 = 1.
pub const FULL_WHITE: Stops = Stops(2.473_931_188_332_412);

/// One step of the wedge.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Grey {
    /// From mid grey, in stops.
    pub stops: f64,
    /// The level it renders to in 8-bit sRGB, 0 to 255.
    pub level: u8,
}

/// Steps of a third from −6 to +4 stops. Source: IEC 61966-2-1 (sRGB transfer function).
///
/// ```
/// let grey = tolva_planner::blend::wedge().into_iter().find(|g| g.stops == 0.0).unwrap();
/// assert_eq!(grey.level, 118);
/// ```
pub fn wedge() -> Vec<Grey> {
    (-18..=12)
        .map(|third| {
            let stops = f64::from(third) / 3.0;
            Grey { stops, level: level(Stops(stops)) }
        })
        .collect()
}

fn level(stops: Stops) -> u8 {
    let linear = (0.18 * stops.ratio()).clamp(0.0, 1.0);
    let encoded = if linear <= 0.003_130_8 { 12.92 * linear } else { 1.055 * linear.powf(1.0 / 2.4) - 0.055 };
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 255 after the clamp")]
    let level = (encoded * 255.0).round() as u8;
    level
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
