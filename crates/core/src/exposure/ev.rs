//! The exposure value, always at ISO 100.

use std::ops::{Add, Sub};

use crate::scale::Stops;

/// An exposure value at ISO 100: how bright a region is, or what the camera's settings are right for.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Ev(pub f64);

impl Ev {
    /// EV₁₀₀ = log₂(N²/t) − log₂(S/100) of exact values. Source: ISO 2720, APEX.
    pub fn of_values(shutter_s: f64, f_number: f64, iso: f64) -> Self {
        Self((f_number * f_number / shutter_s).log2() - (iso / 100.0).log2())
    }

    /// From an incident reading in lux with a meter constant C: E = (C/100)·2^EV. Source: ISO 2720.
    pub fn from_lux(lux: f64, c: f64) -> Self {
        Self((lux * 100.0 / c).log2())
    }

    /// In lux, with a meter constant C.
    pub fn lux(self, c: f64) -> f64 {
        c / 100.0 * self.0.exp2()
    }

    /// As shown: `EV 12.6`.
    pub fn label(self) -> String {
        format!("EV {:.1}", self.0).replace('-', "−")
    }

    /// As the workings print it: `EV 12.60`.
    pub fn exact_label(self) -> String {
        format!("EV {:.2}", self.0).replace('-', "−")
    }
}

impl Sub for Ev {
    type Output = Stops;
    fn sub(self, other: Self) -> Stops {
        Stops(self.0 - other.0)
    }
}

impl Add<Stops> for Ev {
    type Output = Self;
    fn add(self, stops: Stops) -> Self {
        Self(self.0 + stops.0)
    }
}

impl Sub<Stops> for Ev {
    type Output = Self;
    fn sub(self, stops: Stops) -> Self {
        Self(self.0 - stops.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics.md §1, worked from ISO 2720's definition.
    #[rstest]
    #[case(1.0 / 128.0, 16.0, 100.0, 15.0)]
    #[case(1.0 / 125.0, 16.0, 100.0, 14.966)]
    #[case(1.0, 1.0, 100.0, 0.0)]
    #[case(1.0, 1.0, 800.0, -3.0)]
    fn of_values(#[case] t: f64, #[case] n: f64, #[case] s: f64, #[case] ev: f64) {
        assert!((Ev::of_values(t, n, s).0 - ev).abs() < 0.001);
    }

    /// E = 2.5·2^EV for C = 250: EV 15 is 81 920 lx (ISO 2720).
    #[test]
    fn lux_of_a_flat_receptor() {
        assert!((Ev(15.0).lux(250.0) - 81_920.0).abs() < 1e-6);
        assert!((Ev::from_lux(2.5, 250.0).0).abs() < 1e-12);
    }

    proptest! {
        #[test]
        fn lux_goes_there_and_back(ev in -8.0..22.0_f64, c in 200.0..400.0_f64) {
            prop_assert!((Ev::from_lux(Ev(ev).lux(c), c).0 - ev).abs() < 1e-9);
        }

        #[test]
        fn a_stop_of_anything_is_a_stop(t in 0.0001..10.0_f64, n in 1.0..32.0_f64, s in 25.0..6400.0_f64) {
            let ev = Ev::of_values(t, n, s);
            prop_assert!(((Ev::of_values(t / 2.0, n, s) - ev).0 - 1.0).abs() < 1e-9);
            prop_assert!(((Ev::of_values(t, n * 2f64.sqrt(), s) - ev).0 - 1.0).abs() < 1e-9);
            prop_assert!(((Ev::of_values(t, n, s * 2.0) - ev).0 + 1.0).abs() < 1e-9);
        }
    }
}
