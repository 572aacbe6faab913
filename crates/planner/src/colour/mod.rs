//! Colour in a plan: what falls on each region, what the camera is balanced for, the gels that bring lights together, and
//! one look over several setups.

mod conventions;
mod gels;
mod look;
mod mix;
mod on_camera;

pub use conventions::{
    BalanceOption, GelOption, balance_code, balance_options, every_balance, gel_options, nearest_preset,
};
pub use gels::{ColourGrip, Colouring, colour_to, gels_to};
pub use look::{Look, NoLook, one_look};
pub use mix::{Colours, Mix, Part, PartKind};
pub use on_camera::{Balance, OnDial};

use crate::lighting::Prepared;
use crate::solver::Outcome;

/// A setup with its colours worked out.
#[derive(Clone)]
pub struct InColour {
    /// What falls on each region.
    pub colours: Colours,
    /// What the camera is balanced for.
    pub balance: Balance,
}

impl InColour {
    /// The colours of a setup as it came out.
    pub fn of(setup: &Prepared<'_>, outcome: &Outcome) -> Self {
        let colours = Colours::of(setup, outcome);
        let balance = Balance::of(setup, outcome, &colours);
        Self { colours, balance }
    }
}
