//! Kelvin and mired: a gel shifts every light by the same number of mired. Source: the definition, M = 10⁶/K.

use std::ops::{Add, Sub};

/// A colour temperature.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Kelvin(pub f64);

/// A reciprocal colour temperature, or a shift of it: warmer is more.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Mired(pub f64);

impl Kelvin {
    /// As it is said: to ten kelvin, from 10 000 K up to a hundred.
    ///
    /// ```
    /// use tolva_core::colour::Kelvin;
    /// assert_eq!((Kelvin(2962.4).label(), Kelvin(11_540.0).label()), ("2960 K".to_owned(), "11500 K".to_owned()));
    /// ```
    pub fn label(self) -> String {
        let step = if self.0 < 10_000.0 { 10.0 } else { 100.0 };
        format!("{:.0} K", (self.0 / step).round() * step)
    }

    /// In mired.
    ///
    /// ```
    /// use tolva_core::colour::{Kelvin, Mired};
    /// // A full warm gel on a flash.
    /// let gelled = (Kelvin(5600.0).mired() + Mired(159.0)).kelvin();
    /// assert!((gelled.0 - 2962.0).abs() < 0.5);
    /// ```
    pub fn mired(self) -> Mired {
        Mired(1e6 / self.0)
    }
}

impl Mired {
    /// In kelvin.
    pub fn kelvin(self) -> Kelvin {
        Kelvin(1e6 / self.0)
    }
}

impl Add for Mired {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl Sub for Mired {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// physics.md §7.
    #[test]
    fn a_cool_gel_on_a_lamp() {
        assert!(((Kelvin(3200.0).mired() + Mired(-137.0)).kelvin().0 - 5698.0).abs() < 0.5);
        assert!(((Kelvin(5600.0).mired() - Kelvin(3200.0).mired()).0 - -133.9).abs() < 0.1);
    }
}
