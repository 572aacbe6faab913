//! Modifiers: glowing surfaces. Far away they obey the inverse square; near, they give less than it says.

mod bounce;
mod card;
mod direction;
mod falloff;
mod near_field;
mod softness;

pub use bounce::{Bounce, BounceOff, Bounced, SurfaceColour};
pub use card::card_fill;
pub use direction::{grid_exponent, off_axis};
pub use falloff::{falloff, step_back};
pub use near_field::Surface;
pub use softness::{angle_deg, penumbra};
