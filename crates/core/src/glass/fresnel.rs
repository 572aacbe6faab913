//! How much a pane mirrors and lets through. Source: Fresnel's equations; the sums over all bounces between the faces are
//! geometric series (Born and Wolf, Principles of Optics, §1.5 and §1.6, from memory).

use crate::scale::Stops;

/// The refractive index of window glass. Source: handbook value for soda-lime glass.
pub const INDEX: f64 = 1.52;

/// A good mirror gives back so much at every angle: silvered glass, handbook value.
const MIRROR: f64 = 0.9;

/// What a pane is made of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Glazing {
    /// One sheet of glass.
    Single,
    /// Two sheets with air between.
    Double,
    /// A mirror.
    Mirror,
}

impl Glazing {
    /// The part of unpolarised light it mirrors, by the angle from straight on in degrees: 0 to 90.
    ///
    /// ```
    /// use tolva_core::glass::Glazing;
    /// // set.md: 8.17 % face on, 9.75 % at 45°, 15.7 % at 60°.
    /// assert!((Glazing::Single.reflectance(0.0) - 0.0817).abs() < 5e-5);
    /// assert!((Glazing::Single.reflectance(45.0) - 0.0975).abs() < 5e-5);
    /// assert!((Glazing::Single.reflectance(60.0) - 0.157).abs() < 5e-4);
    /// ```
    pub fn reflectance(self, incidence_deg: f64) -> f64 {
        let (across, along) = self.polarised(incidence_deg);
        f64::midpoint(across, along)
    }

    /// The same for each half of the light: swinging across the plane of incidence, and along it. A polariser takes the
    /// first away at best.
    pub fn polarised(self, incidence_deg: f64) -> (f64, f64) {
        if self == Self::Mirror {
            return (MIRROR, MIRROR);
        }
        let (s, p) = face(incidence_deg);
        let sheet = |r: f64| 2.0 * r / (1.0 + r);
        match self {
            Self::Double => (sheet(sheet(s)), sheet(sheet(p))),
            _ => (sheet(s), sheet(p)),
        }
    }

    /// What goes through is less by so much. What the glass itself swallows is not counted: it is little in clear glass.
    /// Nothing goes through a mirror.
    pub fn loss(self, incidence_deg: f64) -> Option<Stops> {
        (self != Self::Mirror).then(|| Stops(-(1.0 - self.reflectance(incidence_deg)).log2()))
    }
}

/// What one face of glass in air mirrors: across and along the plane of incidence.
fn face(incidence_deg: f64) -> (f64, f64) {
    let incidence = incidence_deg.abs().min(90.0).to_radians();
    let (sin, cos) = incidence.sin_cos();
    let inside = (1.0 - (sin / INDEX).powi(2)).sqrt();
    let s = (cos - INDEX * inside) / (cos + INDEX * inside);
    let p = (inside - INDEX * cos) / (inside + INDEX * cos);
    (s * s, p * p)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// At Brewster's angle, atan(1.52), what is mirrored swings one way only.
    #[test]
    fn brewster() {
        let (across, along) = Glazing::Single.polarised(INDEX.atan().to_degrees());
        assert!(along < 1e-12 && across > 0.2);
    }

    /// Two sheets: 4·r/(1 + 3·r) of one face's r = 4.26 %, face on.
    #[test]
    fn two_panes_mirror_nearly_twice() {
        let r = ((INDEX - 1.0) / (INDEX + 1.0)).powi(2);
        assert!((Glazing::Double.reflectance(0.0) - 4.0 * r / (1.0 + 3.0 * r)).abs() < 1e-12);
        assert!((Glazing::Single.loss(0.0).expect("clear").0 - 0.1229).abs() < 1e-3);
        assert!(Glazing::Double.loss(0.0) > Glazing::Single.loss(0.0) && Glazing::Mirror.loss(0.0).is_none());
        assert!((Glazing::Mirror.reflectance(70.0) - 0.9).abs() < 1e-12);
    }

    proptest! {
        #[test]
        fn flatter_mirrors_more(a in 0.0..90.0_f64, b in 0.0..90.0_f64) {
            let (low, high) = (a.min(b), a.max(b));
            for glazing in [Glazing::Single, Glazing::Double] {
                prop_assert!(glazing.reflectance(low) <= glazing.reflectance(high) + 1e-6);
                prop_assert!((0.08..=1.0).contains(&glazing.reflectance(high)));
            }
        }
    }
}
