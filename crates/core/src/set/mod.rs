//! The set: where things stand, what each light gives each place, what comes back from walls and cards, what stands in
//! the frame, where shadows fall, and what the wind does.

mod bounce;
mod frame;
mod mirror;
mod place;
mod reach;
mod shape;
mod solid;
mod space;
mod sun;
mod wind;

pub use bounce::{Lustre, Matt, Patch, came_back, form_factor, patches, ratio_by_way_of};
pub use frame::{FLARE_DEG, InFrame, View};
pub use mirror::Mirror;
pub use place::{Direction, Point, Vector, between_deg, sides, signed_deg};
pub use reach::{Glow, Receptor, Weighing};
pub use shape::{area_within, cut, hull, oval};
pub use solid::{Panel, Solid, stopped};
pub use space::Space;
pub use sun::{SUN_DEG, mirrored, shadow_edge_m, shadow_length_m, shadow_on};
pub use wind::{ballast_kg, wind_force_n};
