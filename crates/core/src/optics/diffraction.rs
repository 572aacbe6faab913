//! Diffraction: how far stopping down still helps.

use crate::scale::Millimetres;

/// Green light, in millimetres.
const WAVELENGTH_MM: f64 = 0.000_55;

/// The diameter of the Airy disc: 2.44·λ·N, with N the effective f-number. Source: Airy's formula for a round opening.
pub fn airy_diameter(effective_f_number: f64) -> Millimetres {
    Millimetres(2.44 * WAVELENGTH_MM * effective_f_number)
}

/// The f-number at which the Airy disc is as large as what still counts as sharp: beyond it more depth is no gain
/// anywhere.
pub fn diffraction_f_number(circle: Millimetres) -> f64 {
    circle.0 / (2.44 * WAVELENGTH_MM)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// physics.md §6: 21.5 µm at f/16.
    #[test]
    fn airy_at_f16() {
        assert!((airy_diameter(16.0).0 * 1000.0 - 21.5).abs() < 0.05);
        let back = diffraction_f_number(airy_diameter(11.0));
        assert!((back - 11.0).abs() < 1e-9);
    }
}
