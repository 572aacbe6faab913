//! Proofs: rendered and kept for a while.
//!
//! A layer is kept by what it depends on, the scene and its own light, so that a dial that is turned renders nothing and a
//! light that is moved renders one layer. What was asked for longest ago goes first.

mod kept;

pub use kept::{Asked, Kept, PhotoBehind, Proofs, Superseded};

use tolva_pictures::Taken;
use tolva_planner::proof::Proof;
use tolva_planner::setup::Setup;

/// What a proof would be taken with.
pub fn taken(proof: &Proof, setup: &Setup) -> Taken {
    Taken {
        shutter_s: Some(proof.shutter_s),
        f_number: Some(proof.f_number),
        iso: Some(proof.iso),
        focal_length_mm: Some(setup.focal_length_mm),
        ..Taken::default()
    }
}
