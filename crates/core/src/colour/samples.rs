//! What is shown under each light: a grey, a white shirt, and skins.

use super::chromaticity::Xyz;
use super::illuminant::Illuminant;
use super::tables::{DARK_SKIN, MEDIUM_SKIN, PALE_SKIN};

/// What a swatch is of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Sample {
    /// A card of 18 %.
    Grey,
    /// White cloth of 85 %, even over all wavelengths (chosen: real cloth is bleached a little blue).
    Shirt,
    /// Published: test colour 13 of CIE 13.3-1995.
    PaleSkin,
    /// Published: test colour 15 of JIS Z 8726, as colour-science keeps it (“CIE 2024”).
    MediumSkin,
    /// Published: the dark skin patch measured by Ohta 1997.
    DarkSkin,
}

impl Sample {
    /// All, in the order they are shown.
    pub const ALL: [Self; 5] = [Self::Grey, Self::Shirt, Self::PaleSkin, Self::MediumSkin, Self::DarkSkin];

    /// What each sends on under a light of brightness 1, in the order of [`Sample::ALL`].
    pub fn under(light: Illuminant) -> [Xyz; Self::ALL.len()] {
        let white = light.xy().xyz();
        let [pale, medium, dark] = light.on([&PALE_SKIN, &MEDIUM_SKIN, &DARK_SKIN]);
        [white.times(GREY), white.times(SHIRT), pale, medium, dark]
    }
}

/// What a grey card and white cloth give back.
const GREY: f64 = 0.18;
const SHIRT: f64 = 0.85;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::colour::{Balanced, Kelvin};
    use rstest::rstest;

    /// The skins under D65, with colour-science 0.4.7 (`sd_to_XYZ`).
    #[rstest]
    #[case(2, [0.588_8, 0.571_1, 0.412_9])]
    #[case(3, [0.349_9, 0.326_7, 0.245_1])]
    #[case(4, [0.109_7, 0.097_0, 0.060_6])]
    fn skins_under_daylight(#[case] skin: usize, #[case] wanted: [f64; 3]) {
        let found = Sample::under(Illuminant::new(Kelvin(6504.0), 0.0))[skin];
        for (found, wanted) in found.0.iter().zip(wanted) {
            assert!((found - wanted).abs() < 0.002, "{:?} {found:?}", Sample::ALL[skin]);
        }
    }

    /// A lamp's skin, balanced for the lamp, is redder than daylight's: what adaptation does not mend.
    #[test]
    fn a_tint_is_carried_on() {
        let green = Illuminant::new(Kelvin(5600.0), 0.01);
        let seen = Balanced::on(Illuminant::new(Kelvin(5600.0), 0.0).xy()).renders(Sample::under(green)[2]);
        let plain = Balanced::on(green.xy()).renders(Sample::under(green)[2]);
        assert!(seen.0[1] / seen.0[0] > plain.0[1] / plain.0[0]);
    }
}
