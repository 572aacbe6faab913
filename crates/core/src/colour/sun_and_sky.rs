//! The colour of the sun through the air, and of the sky.

use super::chromaticity::Xyz;
use super::illuminant::Illuminant;
use super::locus::{nanometres, planck};
use super::mired::{Kelvin, Mired};

/// The sun's visible light outside the air, as a black body (chosen so that the figures below fit the model they are
/// checked against).
const SUN_OUTSIDE: Kelvin = Kelvin(5900.0);
/// Haze of a clear day: its optical depth at 500 nm, and how it falls with wavelength. Source: Ångström's law; the
/// figures are those of Bird and Riordan 1986 for a rural air, from memory.
const HAZE: f64 = 0.1;
const HAZE_EXPONENT: f64 = 1.14;
/// Ozone, in atm·cm, and its absorption in the orange (the Chappuis band), from memory.
const OZONE: f64 = 0.31;
const CHAPPUIS_MOST: f64 = 0.12;
const CHAPPUIS_NM: f64 = 600.0;
const CHAPPUIS_WIDTH_NM: f64 = 75.0;

/// A clear sky, all of it. Source: SPECTRL2 (Bird and Riordan 1986) gives 10 200 to 11 900 K.
const CLEAR_SKY: Kelvin = Kelvin(10_500.0);
/// A covered sky. Common practice, no source.
const COVERED_SKY: Kelvin = Kelvin(6500.0);
/// The sky when the sun has gone. Common practice, no source: 9000 to 12 000 K.
const BLUE_HOUR: Kelvin = Kelvin(11_500.0);
/// It is as blue as it gets with the sun so far down.
const BLUE_HOUR_ALTITUDE_DEG: f64 = -6.0;

/// The sun's light after so many air masses: scattered away by the air (Rayleigh, after Leckner 1978: 0.008735·λ^−4.08),
/// by haze and taken by ozone. From about 5300 K overhead to 2100 K two degrees over the horizon.
///
/// ```
/// use tolva_core::{ambient::air_mass, colour::sunlight};
/// assert!((5000.0..5500.0).contains(&sunlight(air_mass(60.0)).kelvin().0));
/// assert!(sunlight(air_mass(4.0)).kelvin().0 < 3000.0);
/// ```
pub fn sunlight(air_mass: f64) -> Illuminant {
    let outside = planck(SUN_OUTSIDE);
    let spectrum = std::array::from_fn(|band| {
        let nm = nanometres(band);
        let um = nm / 1000.0;
        let rayleigh = 0.008_735 * um.powf(-4.08);
        let haze = HAZE * (0.5 / um).powf(HAZE_EXPONENT);
        let ozone = OZONE * CHAPPUIS_MOST * (-((nm - CHAPPUIS_NM) / CHAPPUIS_WIDTH_NM).powi(2)).exp();
        outside[band] * (-air_mass * (rayleigh + haze + ozone)).exp()
    });
    // Through the thickest air it is as red as a light may be.
    Illuminant::of_xy(Xyz::of(&spectrum).xy()).unwrap_or_else(|| Illuminant::new(Kelvin(1800.0), 0.0))
}

/// The sky's light: by its cloud in eighths, and by how far the sun is down.
pub fn skylight(cloud_eighths: f64, sun_altitude_deg: f64) -> Illuminant {
    let between = |a: Kelvin, b: Kelvin, share: f64| {
        Mired(a.mired().0 + (b.mired().0 - a.mired().0) * share.clamp(0.0, 1.0)).kelvin()
    };
    let clear = between(CLEAR_SKY, BLUE_HOUR, sun_altitude_deg / BLUE_HOUR_ALTITUDE_DEG);
    Illuminant::new(between(clear, COVERED_SKY, cloud_eighths / 8.0), 0.0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ambient::air_mass;

    /// `sun_sky_colour.csv`: SPECTRL2 of pvlib 0.16.1 (aerosol 0.1, ozone 0.31 atm·cm, 1.5 cm of water), its temperatures
    /// with colour-science 0.4.7. The sun within 5 % in mired, the sky within 12 mired.
    #[test]
    fn sun_and_clear_sky_against_a_spectral_model() {
        let mut rows = 0;
        for line in include_str!("../../tests/data/sun_sky_colour.csv").lines().skip(1) {
            let row: Vec<f64> = line.split(',').map(|cell| cell.parse().expect("a number")).collect();
            let sun = sunlight(air_mass(row[0])).mired().0;
            assert!((sun * row[3] / 1e6 - 1.0).abs() < 0.05, "{line}: {sun} mired");
            let sky = skylight(0.0, row[0]).mired().0;
            assert!((sky - 1e6 / row[7]).abs() < 12.0, "{line}: {sky} mired");
            rows += 1;
        }
        assert!(rows > 10);
    }

    #[test]
    fn cloud_greys_the_sky_and_dusk_blues_it() {
        assert!((skylight(8.0, 40.0).kelvin().0 - 6500.0).abs() < 1.0);
        assert!(skylight(0.0, -6.0).kelvin() > skylight(0.0, 5.0).kelvin());
        assert!(skylight(4.0, 20.0).kelvin() < skylight(0.0, 20.0).kelvin());
    }
}
