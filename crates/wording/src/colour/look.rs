//! One look over several setups, in words.

use serde::Serialize;
use utoipa::ToSchema;

use tolva_core::colour::WhiteBalance;
use tolva_planner::colour::{Look, NoLook, one_look as looks};
use tolva_planner::setup::{Kit, Setup};

use super::{balance_label, mired_label};
use crate::casts::{CAST_SEEN_MIRED, cast_words};
use crate::document::{Document, Write};

/// The setups of a job against one of them.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OneLook {
    /// In a sentence: `Two of four setups stand at another white balance.`
    pub says: String,
    /// The setups, in their order.
    pub lines: Vec<LookLine>,
}

/// One setup.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    pub held: Option<Document>,
}

/// The setups of a job against the white balance of one of them.
///
/// # Errors
/// A setup that is not there, or one that cannot be planned, with its place in the list.
pub fn one_look(setups: &[Setup], kit: &Kit, of: &str, write: &Write<'_>) -> Result<OneLook, NoLook> {
    let lines: Vec<LookLine> = looks(setups, kit, of)?.iter().map(|look| line(look, write)).collect();
    let others = lines.iter().filter(|line| !line.same).count();
    let says = match (others, lines.len()) {
        (_, 1) => "This is the only setup of the job.".to_owned(),
        (0, all) => format!("All {all} setups hold one white balance."),
        (1, all) => format!("One of {all} setups stands at another white balance."),
        (others, all) => format!("{others} of {all} setups stand at another white balance."),
    };
    Ok(OneLook { says, lines })
}

fn line(look: &Look<'_>, write: &Write<'_>) -> LookLine {
    let (balance, face) = (&look.balance, look.face);
    LookLine {
        setup_id: look.setup.id.clone(),
        name: look.setup.name.clone(),
        balance: match look.setup.white_balance {
            WhiteBalance::Preset(_) | WhiteBalance::Measured => {
                format!("{}, {}", balance_label(balance), balance.dial.kelvin().label())
            }
            _ => balance_label(balance),
        },
        differs_mired: look.differs_mired,
        differs: if look.same { "the same".to_owned() } else { differs_words(look.differs_mired) },
        same: look.same,
        face: cast_words(face.mired().0 - balance.dial.mired().0, face.tint_duv() - balance.dial.tint_duv()),
        held: look.held.as_ref().map(write),
    }
}

fn differs_words(mired: f64) -> String {
    if mired.abs() < 1.0 {
        return "another tint".to_owned();
    }
    let way = if mired > 0.0 { "warmer" } else { "cooler" };
    let seen = if mired.abs() < CAST_SEEN_MIRED { ", hardly seen" } else { "" };
    format!("{} {way}{seen}", mired_label(mired.abs()).trim_start_matches('+'))
}
