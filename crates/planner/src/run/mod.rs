//! On the set: what somebody says of a frame goes into the right dial, and what is moved from one setup to the next.

mod looked;
mod moves;

pub use looked::{Looked, can_look, looked};
pub use moves::{LightOn, SetupMove, moves_between};
