//! What a lens takes in.

use crate::scale::Millimetres;

/// The angle a side of the sensor takes in, in degrees, focused far away: 2·atan(w/2f), from the definition.
///
/// ```
/// use tolva_core::{optics::angle_of_view_deg, scale::Millimetres};
/// // 36 mm behind 50 mm: 39.6°.
/// assert!((angle_of_view_deg(Millimetres(36.0), Millimetres(50.0)) - 39.598).abs() < 0.001);
/// ```
pub fn angle_of_view_deg(side: Millimetres, focal: Millimetres) -> f64 {
    2.0 * (side.0 / 2.0 / focal.0).atan().to_degrees()
}
