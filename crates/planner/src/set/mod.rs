//! The set: where things stand, made from what is known where nobody has drawn it, and what follows from where they stand.

mod additions;
mod ambient;
mod body;
mod checks;
mod distances;
mod edits;
mod even;
mod layout;
mod lights;
mod map;
mod reached;
mod snap;
mod stage;
mod sunlight;
mod surfaces;

pub use additions::{Addition, Arrangement, MOST_PEOPLE};
pub use ambient::{SetAmbient, card_along, on_regions};
pub use body::SIDE_DEG;
pub use checks::{Part, SetNotice, nearest_out_of_frame, notices, support_outline};
pub use distances::{distances, distances_of};
pub use edits::To;
pub use even::{EVEN, EvenPlace, Evenness, even_pair, even_place, evenness};
pub use layout::{Laid, SHOULDER_M, aimed_at, circle, product, rows, somebody};
pub use map::{DARKEST, Grid, Whose, map};
pub use reached::Reached;
pub use stage::{Given, Lamp, Stage, Standing, Thing};
pub use sunlight::{Shadow, Thrown, on_set_deg, shadows, thrown, towards_sun};
