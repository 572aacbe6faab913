//! The colour of a light without its brightness: chromaticity. Source: CIE 015:2018.

use super::tables::{BANDS, X_BAR, Y_BAR, Z_BAR};

/// What an eye of the CIE 1931 2° observer takes in.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Xyz(pub [f64; 3]);

/// A chromaticity in x and y of 1931.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Xy {
    /// Towards red.
    pub x: f64,
    /// Towards green.
    pub y: f64,
}

/// A chromaticity in u and v of 1960, in which colour temperature is defined.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Uv {
    pub u: f64,
    pub v: f64,
}

impl Xyz {
    /// What a spectrum gives, in any unit.
    pub(super) fn of(spectrum: &[f64; BANDS]) -> Self {
        let sum = |bar: &[f64; BANDS]| bar.iter().zip(spectrum).map(|(bar, power)| bar * power).sum();
        Self([sum(&X_BAR), sum(&Y_BAR), sum(&Z_BAR)])
    }

    /// Its chromaticity.
    pub fn xy(self) -> Xy {
        let [x, y, z] = self.0;
        Xy { x: x / (x + y + z), y: y / (x + y + z) }
    }

    /// So much of it.
    #[must_use]
    pub fn times(self, by: f64) -> Self {
        Self(self.0.map(|one| one * by))
    }

    /// The two together: lights add.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(std::array::from_fn(|at| self.0[at] + other.0[at]))
    }
}

impl Xy {
    /// A light of this chromaticity and of brightness 1.
    pub fn xyz(self) -> Xyz {
        Xyz([self.x / self.y, 1.0, (1.0 - self.x - self.y) / self.y])
    }

    pub(super) fn uv(self) -> Uv {
        let below = -2.0 * self.x + 12.0 * self.y + 3.0;
        Uv { u: 4.0 * self.x / below, v: 6.0 * self.y / below }
    }

    /// How far two chromaticities are apart to the eye: Δu′v′ of 1976. 0.004 is just seen side by side (from memory).
    ///
    /// ```
    /// use tolva_core::colour::Xy;
    /// let (d65, lamp) = (Xy { x: 0.3127, y: 0.3290 }, Xy { x: 0.4476, y: 0.4074 });
    /// // By hand: u′, v′ of D65 are 0.1978, 0.4683, of illuminant A 0.2560, 0.5243.
    /// assert!((d65.apart(lamp) - 0.0808).abs() < 0.0002);
    /// ```
    pub fn apart(self, other: Self) -> f64 {
        let (a, b) = (self.uv(), other.uv());
        // v′ is one and a half times v.
        (a.u - b.u).hypot(1.5 * (a.v - b.v))
    }
}

impl Uv {
    pub fn xy(self) -> Xy {
        let below = 2.0 * self.u - 8.0 * self.v + 4.0;
        Xy { x: 3.0 * self.u / below, y: 2.0 * self.v / below }
    }

    pub fn apart(self, other: Self) -> f64 {
        (self.u - other.u).hypot(self.v - other.v)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn there_and_back(x in 0.2..0.6_f64, y in 0.2..0.5_f64) {
            let back = Xy { x, y }.uv().xy();
            prop_assert!((back.x - x).abs() < 1e-12 && (back.y - y).abs() < 1e-12);
            let back = Xy { x, y }.xyz().xy();
            prop_assert!((back.x - x).abs() < 1e-12 && (back.y - y).abs() < 1e-12);
        }
    }
}
