//! One look over several setups: which of them stand at another white balance, and by how much.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{InColour, mired_label};
use crate::blend::outcome::Outcome;
use crate::job::{CheckedSetup, Kit, Problems, Setup};
use tolva_core::colour::{CAST_SEEN_MIRED, WhiteBalance, Why, cast_words};

/// The setups of a job against one of them.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OneLook {
    /// In a sentence: `Two of four setups stand at another white balance.`
    pub says: String,
    /// The setups, in their order.
    pub lines: Vec<LookLine>,
}

/// One setup.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LookLine {
    /// Its id.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// What it is balanced for: `5600 K`, `Shade, 7500 K`.
    pub balance: String,
    /// Against the one the look is taken from, in mired: warmer pictures are positive.
    pub differs_mired: f64,
    /// The same in words: `as here`, `89 mired warmer`.
    pub differs: String,
    /// Whether it holds the same balance.
    pub same: bool,
    /// What becomes of its lit side: `neutral`.
    pub face: String,
    /// The setup with this look held; null where it is as it is.
    pub held: Option<Setup>,
}

/// The setups of a job against the white balance of one of them.
///
/// # Errors
/// A setup that is not there, or anything wrong with one of them; pointers begin with `/setups/0`.
pub fn one_look(setups: &[Setup], kit: &Kit, of: &str) -> Result<OneLook, Problems> {
    let mut found = Vec::new();
    for (index, setup) in setups.iter().enumerate() {
        let moved = |problems: Problems| problems.under("/setup", &format!("/setups/{index}"));
        let checked = CheckedSetup::new(setup, kit).map_err(moved)?;
        let outcome = Outcome::of(&checked);
        let InColour { colours, balance } = InColour::of(&checked, &outcome);
        let mix = colours.mixes[checked.lit].light;
        let face = cast_words(mix.mired().0 - balance.dial.mired().0, mix.tint_duv() - balance.dial.tint_duv());
        found.push((setup, balance, face));
    }
    let Some((_, reference, _)) = found.iter().find(|(setup, ..)| setup.id == of) else {
        return Err(Problems::one("/of", format!("there is no setup “{of}”")));
    };
    let (kelvin, tint_duv) = (reference.dial.kelvin(), reference.dial.tint_duv());
    // A number that every camera can hold, to ten kelvin.
    let held = WhiteBalance::Kelvin { kelvin: (kelvin.0 / 10.0).round() * 10.0, tint_duv, why: Why::Look };
    let lines: Vec<LookLine> = found
        .iter()
        .map(|(setup, balance, face)| {
            // A camera balanced for a cooler light makes everything warmer.
            let differs = kelvin.mired().0 - balance.dial.mired().0;
            let same = differs.abs() < 1.0 && (balance.dial.tint_duv() - tint_duv).abs() < 5e-4;
            LookLine {
                setup_id: setup.id.clone(),
                name: setup.name.clone(),
                balance: match setup.white_balance {
                    WhiteBalance::Preset(_) | WhiteBalance::Measured => {
                        format!("{}, {}", balance.label, balance.dial.kelvin().label())
                    }
                    _ => balance.label.clone(),
                },
                differs_mired: differs,
                differs: if same { "the same".to_owned() } else { differs_words(differs) },
                same,
                face: face.clone(),
                held: (!same).then(|| Setup { white_balance: held, ..(*setup).clone() }),
            }
        })
        .collect();
    let others = lines.iter().filter(|line| !line.same).count();
    let says = match (others, lines.len()) {
        (_, 1) => "This is the only setup of the job.".to_owned(),
        (0, all) => format!("All {all} setups hold one white balance."),
        (1, all) => format!("One of {all} setups stands at another white balance."),
        (others, all) => format!("{others} of {all} setups stand at another white balance."),
    };
    Ok(OneLook { says, lines })
}

fn differs_words(mired: f64) -> String {
    if mired.abs() < 1.0 {
        return "another tint".to_owned();
    }
    let way = if mired > 0.0 { "warmer" } else { "cooler" };
    let seen = if mired.abs() < CAST_SEEN_MIRED { ", hardly seen" } else { "" };
    format!("{} {way}{seen}", mired_label(mired.abs()).trim_start_matches('+'))
}
