//! One look over several setups: which of them stand at another white balance, and by how much.

use tolva_core::colour::{BalanceReason, Illuminant, WhiteBalance};

use super::{Balance, InColour};
use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, Setup};
use crate::solver::Outcome;

/// A setup against the one whose white balance counts.
#[derive(Clone)]
pub struct Look<'a> {
    /// The setup.
    pub setup: &'a Setup,
    /// What it is balanced for.
    pub balance: Balance,
    /// The light on its lit side.
    pub face: Illuminant,
    /// Against the one that counts, in mired: warmer pictures are positive.
    pub differs_mired: f64,
    /// Whether it holds the same balance.
    pub same: bool,
    /// The setup with this look held; nothing where it is as it is.
    pub held: Option<Setup>,
}

/// Why there is no look over several setups.
#[derive(Clone, Debug, PartialEq)]
pub struct NoLook {
    /// The setup that is to blame, by its place in the list; nothing where none is.
    pub setup: Option<usize>,
    /// What is wrong with it.
    pub refused: Box<Refused>,
}

impl NoLook {
    fn of(setup: Option<usize>, refused: Refused) -> Self {
        Self { setup, refused: Box::new(refused) }
    }
}

/// The setups of a job against the white balance of one of them, in their order.
///
/// # Errors
/// [`Refused::NoSuchSetup`], or a setup that cannot be planned, with its place in the list.
pub fn one_look<'a>(setups: &'a [Setup], kit: &Kit, of: &str) -> Result<Vec<Look<'a>>, NoLook> {
    let mut found = Vec::new();
    for (index, setup) in setups.iter().enumerate() {
        let prepared = Prepared::new(setup, kit).map_err(|refused| NoLook::of(Some(index), refused))?;
        let InColour { colours, balance } = InColour::of(&prepared, &Outcome::of(&prepared));
        found.push((setup, balance, colours.mixes[prepared.lit].light));
    }
    let Some((_, reference, _)) = found.iter().find(|(setup, ..)| setup.id == of) else {
        return Err(NoLook::of(None, Refused::NoSuchSetup(of.to_owned())));
    };
    let (kelvin, tint_duv) = (reference.dial.kelvin(), reference.dial.tint_duv());
    // A number that every camera can hold, to ten kelvin.
    let held = WhiteBalance::Kelvin { kelvin: (kelvin.0 / 10.0).round() * 10.0, tint_duv, reason: BalanceReason::Look };
    let looks = found.into_iter().map(|(setup, balance, face)| {
        // A camera balanced for a cooler light makes everything warmer.
        let differs_mired = kelvin.mired().0 - balance.dial.mired().0;
        let same = differs_mired.abs() < 1.0 && (balance.dial.tint_duv() - tint_duv).abs() < 5e-4;
        let held = (!same).then(|| Setup { white_balance: held, ..setup.clone() });
        Look { setup, balance, face, differs_mired, same, held }
    });
    Ok(looks.collect())
}
