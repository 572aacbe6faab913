//! What lens and sensor do: depth, diffraction, shake, movement, and working close up.

mod angle_of_view;
mod circle_of_confusion;
mod close_up;
mod depth;
mod diffraction;
mod movement;
mod shake;

pub use angle_of_view::angle_of_view_deg;
pub use circle_of_confusion::{CircleOfConfusion, Sensor};
pub use close_up::{CloseUp, Stack};
pub use depth::{DepthOfField, GroupDepth, depth_of_field, group_depth};
pub use diffraction::{airy_diameter, diffraction_f_number};
pub use movement::{Movement, SWAYING, blur_px, magnification};
pub use shake::{HandheldRule, shake_floor_s};
