//! What is done to a set, what there is to say of it, and what is drawn of it. Where things stand and what lights give from
//! there is [`crate::staging`].

mod additions;
mod checks;
mod distances;
mod edits;
mod even;
mod lights;
mod map;
mod people;
mod pieces;
mod snap;
mod sunlight;

pub use additions::Addition;
pub use checks::{BoomLoad, Part, SetNotice, nearest_out_of_frame, notices, support_outline};
pub use distances::{LightDistances, distances, distances_of};
pub use edits::To;
pub(crate) use edits::thousandth;
pub use even::{EVEN, EvenPlace, Evenness, Stand, even_pair, even_place, evenness};
pub(crate) use map::in_the_frame;
pub use map::{DARKEST, Grid, Whose, map};
pub use people::{Arrangement, MOST_PEOPLE};
pub use pieces::PaneUse;
pub use sunlight::{Shadow, Thrown, shadows, thrown};
