//! The colour of one light: its temperature, its tint, and what gels make of it.

use super::chromaticity::{Xy, Xyz};
use super::locus::{camera_spectrum, camera_white, daylight_part, tinted};
use super::mired::{Kelvin, Mired};
use super::tables::BANDS;

/// The temperatures a light may have.
pub const KELVIN: std::ops::RangeInclusive<f64> = 1000.0..=40_000.0;
/// The tints a light may have, in Duv.
pub const TINT: std::ops::RangeInclusive<f64> = -0.05..=0.05;

/// The colour of a light. Tint counts from the usual white of its temperature (daylight from 4200 K, a black body
/// up to 3800 K, between them in between), in Duv: positive is green, negative magenta.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Illuminant {
    kelvin: Kelvin,
    tint_duv: f64,
    xy: Xy,
}

/// One of several lights together.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LightShare {
    /// Its part of the brightness; any measure that is the same for all of them.
    pub share: f64,
    /// Its colour.
    pub light: Illuminant,
}

impl Illuminant {
    /// A light of a temperature and a tint, each held within what a light may have.
    pub fn new(kelvin: Kelvin, tint_duv: f64) -> Self {
        let kelvin = Kelvin(kelvin.0.clamp(*KELVIN.start(), *KELVIN.end()));
        let tint_duv = tint_duv.clamp(*TINT.start(), *TINT.end());
        Self { kelvin, tint_duv, xy: tinted(camera_white(kelvin), kelvin, tint_duv) }
    }

    /// A light as a colour meter says it: its Duv counts from the black body, not from daylight.
    ///
    /// ```
    /// use tolva_core::colour::{Kelvin, Illuminant};
    /// // Noon daylight reads a little green of the black body, and has no tint to speak of.
    /// assert!(Illuminant::metered(Kelvin(5600.0), 0.0033).tint_duv().abs() < 0.0003);
    /// ```
    pub fn metered(kelvin: Kelvin, duv: f64) -> Self {
        Self::new(kelvin, duv - usual_duv(kelvin))
    }

    /// A light by its chromaticity; nothing where that has no temperature.
    pub fn of_xy(xy: Xy) -> Option<Self> {
        let found = xy.temperature().filter(|found| KELVIN.contains(&found.kelvin.0))?;
        Some(Self { kelvin: found.kelvin, tint_duv: found.duv - usual_duv(found.kelvin), xy })
    }

    /// Its temperature.
    pub fn kelvin(self) -> Kelvin {
        self.kelvin
    }

    /// The same in mired.
    pub fn mired(self) -> Mired {
        self.kelvin.mired()
    }

    /// Its tint in Duv, from the usual white of its temperature.
    pub fn tint_duv(self) -> f64 {
        self.tint_duv
    }

    /// Its chromaticity.
    pub fn xy(self) -> Xy {
        self.xy
    }

    /// The light through something that shifts it: a gel, a film on a window, a coloured wall. A shift in mired is the
    /// same for every light; the tint adds.
    #[must_use]
    pub fn shifted(self, by: Shift) -> Self {
        // What would go beyond the warmest or coolest light stays there.
        let mired = (self.mired().0 + by.mired).clamp(1e6 / KELVIN.end(), 1e6 / KELVIN.start());
        Self::new(Mired(mired).kelvin(), self.tint_duv + by.tint_duv)
    }

    /// Several lights together, each by its share of the brightness. The first one where nothing is of any share.
    pub fn mixed(shares: &[LightShare]) -> Option<Self> {
        // One light, however often it is named, is itself.
        let mut there = shares.iter().filter(|one| one.share > 0.0).map(|one| one.light);
        if let Some(first) = there.next()
            && there.all(|light| light == first)
        {
            return Some(first);
        }
        let sum = shares.iter().fold(Xyz([0.0; 3]), |sum, one| sum.and(one.light.xy.xyz().times(one.share)));
        if sum.0[1] <= 0.0 {
            return shares.first().map(|one| one.light);
        }
        Self::of_xy(sum.xy())
    }

    /// What surfaces that give back so much of each wavelength send on, under this light of brightness 1. The light's
    /// spectrum is the usual white's; what tint is left goes on by Bradford adaptation from that white to this one
    /// (an approximation: a tint has no spectrum of its own).
    pub(super) fn on<const N: usize>(self, reflectances: [&[f64; BANDS]; N]) -> [Xyz; N] {
        let spectrum = camera_spectrum(self.kelvin);
        let whole = Xyz::of(&spectrum);
        let seen = reflectances.map(|reflectance| {
            let sent = std::array::from_fn(|band| spectrum[band] * reflectance[band]);
            Xyz::of(&sent).times(1.0 / whole.0[1])
        });
        super::render::adapted(seen, whole.xy(), self.xy)
    }

    /// What a matt surface of these linear red, green and blue parts sends on under this light: as it would look under
    /// D65, brought over by Bradford adaptation.
    pub fn of_surface(self, rgb: [f64; 3]) -> Xyz {
        super::render::surface(rgb, self.xy)
    }
}

/// How far the usual white of a temperature lies off the black body's locus.
fn usual_duv(kelvin: Kelvin) -> f64 {
    // A black body lies on its own locus.
    if daylight_part(kelvin) <= 0.0 { 0.0 } else { camera_white(kelvin).temperature().map_or(0.0, |found| found.duv) }
}

/// What a gel, a film or a coloured surface does to a light.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Shift {
    /// Warmer is positive.
    pub mired: f64,
    /// Greener is positive, in Duv.
    pub tint_duv: f64,
}

impl std::iter::Sum for Shift {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::default(), |sum, one| Self {
            mired: sum.mired + one.mired,
            tint_duv: sum.tint_duv + one.tint_duv,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn equal_parts_of_two_lights_lie_between_them() {
        let half = |light| LightShare { share: 0.5, light };
        let (flash, lamp) = (Illuminant::new(Kelvin(5600.0), 0.0), Illuminant::new(Kelvin(2900.0), 0.0));
        let mixed = Illuminant::mixed(&[half(flash), half(lamp)]).expect("a light");
        assert!((3600.0..4200.0).contains(&mixed.kelvin().0), "{mixed:?}");
        assert!(mixed.tint_duv() < 0.0, "the straight line between two whites runs on the magenta side: {mixed:?}");
        assert_eq!(
            Illuminant::mixed(&[LightShare { share: 0.0, light: lamp }]).map(Illuminant::kelvin),
            Some(Kelvin(2900.0))
        );
        assert_eq!(Illuminant::mixed(&[]), None);
    }

    #[test]
    fn a_gel_beyond_the_warmest_stays_there() {
        let candle = Illuminant::new(Kelvin(1900.0), 0.0).shifted(Shift { mired: 900.0, tint_duv: 0.0 });
        assert_eq!(candle.kelvin(), Kelvin(1000.0));
    }

    proptest! {
        /// A light is found again by its chromaticity.
        #[test]
        fn by_its_chromaticity(kelvin in 1500.0..20_000.0_f64, tint in -0.015..0.015_f64) {
            let light = Illuminant::new(Kelvin(kelvin), tint);
            let found = Illuminant::of_xy(light.xy()).expect("a light");
            prop_assert!((found.kelvin().0 / kelvin - 1.0).abs() < 0.005, "{found:?}");
            prop_assert!((found.tint_duv() - tint).abs() < 0.0004, "{found:?}");
        }

        /// Gels one after the other add up, and take each other back.
        #[test]
        fn gels_add(kelvin in 2500.0..8000.0_f64, a in -80.0..150.0_f64) {
            let light = Illuminant::new(Kelvin(kelvin), 0.0);
            let back = light.shifted(Shift { mired: a, tint_duv: 0.01 }).shifted(Shift { mired: -a, tint_duv: -0.01 });
            prop_assert!((back.kelvin().0 - kelvin).abs() < 1e-6 && back.tint_duv().abs() < 1e-12);
        }
    }
}
