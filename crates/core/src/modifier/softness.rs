//! How soft a light is: by the angle it fills.

use crate::scale::Metres;

/// The angle a source so wide fills from so far away, in degrees: 2·atan(w/2d).
pub fn angle_deg(width: Metres, distance: Metres) -> f64 {
    2.0 * (width.0 / 2.0 / distance.0).atan().to_degrees()
}

/// The width of the soft edge of a shadow: source × (occluder to surface)/(source to occluder). Similar triangles.
///
/// ```
/// use tolva_core::{modifier::penumbra, scale::Metres};
/// // A nose 3 cm before the cheek, an octagon of 0.9 m at 1.5 m.
/// assert!((penumbra(Metres(0.9), Metres(1.5), Metres(0.03)).0 - 0.018).abs() < 1e-9);
/// ```
pub fn penumbra(source: Metres, to_occluder: Metres, occluder_to_surface: Metres) -> Metres {
    Metres(source.0 * occluder_to_surface.0 / to_occluder.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn as_wide_as_it_is_far() {
        assert!((angle_deg(Metres(1.0), Metres(1.0)) - 53.13).abs() < 0.01);
    }
}
