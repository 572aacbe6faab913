//! Glass and mirrors: what shows in a pane, where in the frame, how strongly, and what gloss and spectacles show.
//!
//! A pane shows the world mirrored in it. What shows is the mirrored outline as the lens sees it, within the frame and the
//! pane, less what stands between.

mod fresnel;
mod gloss;
mod image;
mod lens;

pub use fresnel::{Glazing, INDEX};
pub use gloss::{Card, Cylinder, cylinder_card, flat_card, most_of_a_cylinder};
pub use image::{Pane, Reflection, reflection};
pub use lens::{Eyeglass, LENS_RADIUS_M};
