//! What automatics would do as clothes change, and why fixed settings hold a series together. Common practice, no
//! source; the clothes' reflectances are chosen.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::outcome::Outcome;
use super::plan::Fact;
use crate::job::CheckedSetup;
use tolva_core::scale::Stops;

/// What may be automatic on the camera: schools.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AutomaticSchool {
    /// Nothing: with flash, all three by hand.
    #[default]
    Nothing,
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
}

impl AutomaticSchool {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 4] = [Self::Nothing, Self::Shutter, Self::Aperture, Self::Iso];

    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            Self::Nothing => "Nothing automatic",
            Self::Shutter => "Automatic shutter",
            Self::Aperture => "Automatic aperture",
            Self::Iso => "Automatic ISO",
        }
    }
}

/// Clothes that fill half of what is metered: red, green and blue of what they give back.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Clothes([f64; 3]);

/// A dark blue suit.
const DARK: Clothes = Clothes([0.03, 0.035, 0.06]);
/// A cream dress.
const PALE: Clothes = Clothes([0.85, 0.78, 0.62]);
/// The rest of the frame.
const REST: f64 = 0.18;

impl Clothes {
    /// The mean of the frame in each colour.
    fn mean(self) -> [f64; 3] {
        self.0.map(|one| f64::midpoint(one, REST))
    }

    /// How far a meter that wants mid grey moves the exposure.
    fn exposure(self) -> Stops {
        Stops::of_ratio(REST / self.mean()[1])
    }

    /// How far a balance that wants the mean grey moves blue against red.
    fn balance(self) -> Stops {
        let mean = self.mean();
        Stops::of_ratio(mean[0] / mean[2])
    }
}

/// How far automatic exposure moves from the pale clothes to the dark.
pub(super) fn exposure_spread() -> Stops {
    DARK.exposure() - PALE.exposure()
}

/// What each automatic would do, in words.
pub(super) fn facts(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Fact> {
    let both = |of: &dyn Fn(Clothes) -> Stops| {
        format!("{} for a dark suit, {} for a pale dress", of(DARK).decimals(), of(PALE).decimals())
    };
    let mut all = vec![Fact::new(
        "Automatic exposure",
        format!("{} stops: the same face {} apart", both(&Clothes::exposure), exposure_spread().amount()),
    )];
    let lit = &outcome.regions[setup.lit];
    if lit.flash.0.is_finite() {
        // Only the flash moves with the clothes; the ambient stays where the dials put it.
        let face = |clothes: Clothes| lit.ambient.and(lit.flash + clothes.exposure()) - lit.together;
        all.push(Fact::new("Automatic flash", format!("{} stops on the face, the ambient held", both(&face))));
    }
    all.push(Fact::new(
        "Automatic white balance",
        format!("{} stops of blue against red: skin turns with every coat", both(&Clothes::balance)),
    ));
    all.push(Fact::new("Fixed settings", "the same face in every frame: one correction fits the whole series"));
    all
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
