//! Guide numbers: distance times f-number, at ISO 100 and full power.

use std::ops::RangeInclusive;

use crate::modifier::Surface;
use crate::scale::interpolated;
use crate::scale::{Metres, Power, Stops};

/// A guide number in metres at ISO 100 and full power, without a modifier.
///
/// N·d = GN·√(S/100)·2^((p + m)/2), with p the power and m the modifier's loss, both in stops and 0 or less.
/// Source: the definition of the guide number (ISO 1230); the inverse-square law.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct GuideNumber(pub f64);

/// What a flash gives at the subject, on the same scale as EV₁₀₀: the flash is at 0 stops on a region where this
/// equals log₂(N²) − log₂(S/100). The shutter has no part in it.
///
/// ```
/// use tolva_core::{flash::GuideNumber, modifier::Surface, scale::{Metres, Power, Stops}};
/// // Guide number 40 at f/8 reaches 5 m.
/// let at_five = GuideNumber(40.0).strength(Metres(5.0), Surface::Bare, Stops(0.0)).at(Power::FULL);
/// assert!((at_five.0 - 2.0 * 8f64.log2()).abs() < 1e-12);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FlashStrength {
    at_full: Stops,
}

impl FlashStrength {
    /// At a power.
    pub fn at(self, power: Power) -> Stops {
        self.at_full + power.0
    }

    /// The exact power that gives so much; over full where the unit is too weak.
    pub fn power_for(self, wanted: Stops) -> Power {
        Power(wanted - self.at_full)
    }
}

/// What an exact f-number at an exact ISO asks of a flash, on the scale of [`FlashStrength`]: 2·log₂N − log₂(S/100).
pub fn flash_asked(f_number: f64, iso: f64) -> Stops {
    Stops(2.0 * f_number.log2() - (iso / 100.0).log2())
}

/// The f-number at which a flash that gives so much is right, at an ISO: the other way round.
pub fn f_number_for(gives: Stops, iso: f64) -> f64 {
    f64::midpoint(gives.0, (iso / 100.0).log2()).exp2()
}

/// One line of a unit's table: at this zoom, this guide number.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ZoomGuideNumber {
    /// The zoom of the head, as a focal length on a full frame: 8 to 400 mm.
    pub zoom_mm: f64,
    /// The guide number there, in metres at ISO 100.
    pub guide_number_m: f64,
}

impl GuideNumber {
    /// From a table over the zoom: between two lines by the logarithms of both (a beam half as wide is about twice as
    /// strong at its middle), beyond the ends as at the end. Nothing without a table.
    ///
    /// ```
    /// use tolva_core::flash::{GuideNumber, ZoomGuideNumber};
    /// let table = [(24.0, 28.0), (105.0, 58.0)].map(|(zoom_mm, guide_number_m)| ZoomGuideNumber { zoom_mm, guide_number_m });
    /// let at_50 = GuideNumber::at_zoom(&table, 50.0).unwrap();
    /// assert!((at_50.0 - 40.2).abs() < 0.1);
    /// ```
    pub fn at_zoom(table: &[ZoomGuideNumber], zoom_mm: f64) -> Option<Self> {
        let points = table.iter().map(|line| (line.zoom_mm.ln(), line.guide_number_m.ln()));
        interpolated(points, zoom_mm.ln()).map(|gn| Self(gn.exp()))
    }

    /// From a guide number in feet.
    pub fn from_feet(feet: f64) -> Self {
        Self(Metres::from_feet(feet).0)
    }

    /// From a flash-meter reading: this f-number at ISO S, this far from this surface, at this power. The modifier's
    /// loss and near field are taken out again, so that the unit can be used with others.
    pub fn from_reading(f_number: f64, iso: f64, at: Metres, power: Power, surface: Surface, loss: Stops) -> Self {
        let given_up = power.0 - loss + surface.near_field(at);
        Self(((flash_asked(f_number, iso) - given_up).0 / 2.0).exp2() * at.0)
    }

    /// What the unit gives this far away through a modifier with a loss on axis (a positive number of stops).
    pub fn strength(self, distance: Metres, surface: Surface, loss: Stops) -> FlashStrength {
        let inverse_square = Stops(2.0 * (self.0 / distance.0).log2());
        FlashStrength { at_full: inverse_square - loss + surface.near_field(distance) }
    }

    /// The distance at which the bare unit gives so much at a power with some loss: by the inverse square alone.
    pub fn bare_distance(self, wanted: Stops, power: Power, loss: Stops) -> Metres {
        Metres(self.0 * ((power.0 - loss - wanted).0 / 2.0).exp2())
    }

    /// The distance at which the unit gives so much at a power, between two bounds, and clamped to them.
    pub fn distance_for(
        self,
        wanted: Stops,
        power: Power,
        surface: Surface,
        loss: Stops,
        bounds: RangeInclusive<Metres>,
    ) -> Metres {
        let (mut near, mut far) = (bounds.start().0, bounds.end().0);
        // Strength falls steadily with distance, so halving the interval finds the one place; 60 halvings are beyond
        // the precision of a double.
        for _ in 0..60 {
            let middle = f64::midpoint(near, far);
            if self.strength(Metres(middle), surface, loss).at(power) > wanted {
                near = middle;
            } else {
                far = middle;
            }
        }
        Metres(f64::midpoint(near, far))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics.md §3: half the power is one stop; twice the distance is two.
    #[rstest]
    #[case(Power(Stops(-1.0)), 5.0, -1.0)]
    #[case(Power::FULL, 10.0, -2.0)]
    fn laws_of_the_guide_number(#[case] power: Power, #[case] metres: f64, #[case] change: f64) {
        let at = |power, metres| GuideNumber(40.0).strength(Metres(metres), Surface::Bare, Stops(0.0)).at(power);
        assert!(((at(power, metres) - at(Power::FULL, 5.0)).0 - change).abs() < 1e-12);
    }

    /// The first slice's worked example: GN 60, 0.9 m disc at 1.5 m, −1.5 on axis.
    #[test]
    fn the_worked_example() {
        let surface = Surface::Disc { diameter: Metres(0.9) };
        let strength = GuideNumber(60.0).strength(Metres(1.5), surface, Stops(1.5));
        let wanted = Stops(-0.193 + 19.0 / 3.0);
        assert!((strength.power_for(wanted).0.0 - -2.88).abs() < 0.01);
    }

    #[test]
    fn feet() {
        assert!((GuideNumber::from_feet(131.2336).0 - 40.0).abs() < 1e-4);
    }

    proptest! {
        #[test]
        fn a_reading_gives_the_unit_back(
            gn in 5.0..150.0_f64, d in 0.3..8.0_f64, p in -8.0..0.0_f64, loss in 0.0..4.0_f64, size in 0.05..2.0_f64,
        ) {
            let surface = Surface::Rectangle { width: Metres(size), height: Metres(size * 1.5) };
            let strength = GuideNumber(gn).strength(Metres(d), surface, Stops(loss)).at(Power(Stops(p)));
            let f_number = (strength.0 / 2.0).exp2();
            let again = GuideNumber::from_reading(f_number, 100.0, Metres(d), Power(Stops(p)), surface, Stops(loss));
            prop_assert!((again.0 / gn - 1.0).abs() < 1e-9);
        }

        #[test]
        fn the_distance_found_gives_what_was_wanted(gn in 20.0..120.0_f64, d in 0.4..5.0_f64, size in 0.1..1.5_f64) {
            let surface = Surface::Disc { diameter: Metres(size) };
            let unit = GuideNumber(gn);
            let wanted = unit.strength(Metres(d), surface, Stops(1.0)).at(Power::FULL);
            let found = unit.distance_for(wanted, Power::FULL, surface, Stops(1.0), Metres(0.2)..=Metres(10.0));
            prop_assert!((found.0 - d).abs() < 1e-6);
        }
    }
}
