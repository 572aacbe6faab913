//! Modifiers: glowing surfaces. Far away they obey the inverse square; near, they give less than it says.

mod near_field;

pub use near_field::Surface;
