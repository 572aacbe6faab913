//! Wind on a modifier. Always an estimate: gusts are stronger than a forecast's mean, and local rules come first.

/// Air at 15 °C at the sea, in kg/m³ (ISO 2533).
const AIR_KG_M3: f64 = 1.225;
/// The drag of a flat plate across the wind (from memory).
const DRAG_FLAT: f64 = 1.2;
/// The resisting moment is to be so many times the overturning one. Common practice, no source.
const SAFETY: f64 = 1.5;
/// Standard gravity (ISO 80000-3).
const GRAVITY: f64 = 9.806_65;

/// The force of the wind on a flat surface across it, in newtons: `½·ρ·v²·C_d·A`.
///
/// ```
/// assert!((tolva_core::set::wind_force_n(0.81, 10.0) - 59.5).abs() < 0.1);
/// ```
pub fn wind_force_n(area_m2: f64, wind_m_s: f64) -> f64 {
    0.5 * AIR_KG_M3 * wind_m_s * wind_m_s * DRAG_FLAT * area_m2
}

/// The ballast that keeps a stand up, in kilograms, hung in its middle: 1.5 times the overturning moment about the
/// nearest leg, less what head and stand weigh. `footprint_m` is from the middle to the line between two feet. Never
/// negative.
pub fn ballast_kg(area_m2: f64, wind_m_s: f64, height_m: f64, footprint_m: f64, weight_kg: f64) -> f64 {
    let overturning = SAFETY * wind_force_n(area_m2, wind_m_s) * height_m;
    (overturning / (GRAVITY * footprint_m) - weight_kg).max(0.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moments_balance() {
        let ballast = ballast_kg(0.81, 10.0, 2.0, 0.5, 5.0);
        let resisting = (ballast + 5.0) * GRAVITY * 0.5;
        assert!((resisting - 1.5 * 59.535 * 2.0).abs() < 1e-9, "{ballast}");
        assert!(ballast_kg(0.81, 0.0, 2.0, 0.5, 5.0).abs() < 1e-12);
    }

    #[test]
    fn twice_the_wind_is_four_times_the_force() {
        assert!((wind_force_n(1.0, 16.0) / wind_force_n(1.0, 8.0) - 4.0).abs() < 1e-12);
    }
}
