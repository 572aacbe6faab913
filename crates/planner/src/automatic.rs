//! What automatics would do as clothes change, and why fixed settings hold a series together. Common practice, no
//! source; the clothes' reflectances are chosen.

use tolva_core::scale::Stops;

/// Clothes that fill half of what is metered: red, green and blue of what they give back.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Clothes([f64; 3]);

/// A dark blue suit.
pub const DARK: Clothes = Clothes([0.03, 0.035, 0.06]);
/// A cream dress.
pub const PALE: Clothes = Clothes([0.85, 0.78, 0.62]);
/// The rest of the frame.
const REST: f64 = 0.18;

impl Clothes {
    /// The mean of the frame in each colour.
    fn mean(self) -> [f64; 3] {
        self.0.map(|one| f64::midpoint(one, REST))
    }

    /// How far a meter that wants mid grey moves the exposure.
    pub fn exposure(self) -> Stops {
        Stops::of_ratio(REST / self.mean()[1])
    }

    /// How far a balance that wants the mean grey moves blue against red.
    pub fn balance(self) -> Stops {
        let mean = self.mean();
        Stops::of_ratio(mean[0] / mean[2])
    }
}

/// How far automatic exposure moves from the pale clothes to the dark.
pub fn exposure_spread() -> Stops {
    DARK.exposure() - PALE.exposure()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn dark_clothes_are_given_more_and_pale_ones_less() {
        assert!(DARK.exposure().0 > 0.5 && PALE.exposure().0 < -1.0);
        assert!((exposure_spread().0 - 2.0).abs() < 0.5, "{:?}", exposure_spread());
        let grey = Clothes([REST; 3]);
        assert!(grey.exposure().0.abs() < 1e-12 && grey.balance().0.abs() < 1e-12);
        assert!(DARK.balance().0 < 0.0, "a blue suit is answered with less blue");
        assert!(PALE.balance().0 > 0.0);
    }
}
