//! How a light falls off to its sides.

use crate::scale::Stops;

/// What is lost so far off the axis: cosⁿ of the angle. n ≈ 1 for an open diffuser, more for recessed faces.
/// Beyond a right angle there is nothing.
pub fn off_axis(angle_deg: f64, exponent: f64) -> Stops {
    let cos = angle_deg.to_radians().cos();
    if cos <= 0.0 { Stops::NOTHING } else { Stops(exponent * cos.log2()) }
}

/// The exponent of a grid by the half angle at which it has lost a stop: n = ln ½ / ln cos θ½.
///
/// ```
/// use tolva_core::modifier::{grid_exponent, off_axis};
/// assert!((off_axis(20.0, grid_exponent(20.0)).0 - -1.0).abs() < 1e-12);
/// ```
pub fn grid_exponent(half_angle_deg: f64) -> f64 {
    0.5_f64.ln() / half_angle_deg.to_radians().cos().ln()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_open_diffuser_loses_a_stop_at_sixty_degrees() {
        assert!((off_axis(60.0, 1.0).0 - -1.0).abs() < 1e-12);
        assert_eq!(off_axis(95.0, 1.0), Stops::NOTHING);
        assert!((off_axis(0.0, 8.0).0).abs() < 1e-12);
    }
}
