//! Proofs: rendered, kept for a while, and written as pictures.
//!
//! A layer is kept by what it depends on, the scene and its own light, so that a dial that is turned renders nothing and a
//! light that is moved renders one layer. What was asked for longest ago goes first.

mod kept;
mod pictures;

pub use kept::{Asked, Kept, Proofs, Superseded};
pub use pictures::{Taken, clipped, jpeg, png};
