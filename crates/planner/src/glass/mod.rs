//! Glass on the set: what shows in panes, mirrors and spectacles, how strongly, the least move that clears it, and what a
//! shiny product mirrors.

mod best;
mod bright;
mod cost;
mod families;
mod gloss;
mod least;
mod moves;
mod plates;
mod remedies;
mod shot_through;
mod showing;
mod tries;

pub use best::{BestPlace, best_place};
pub use cost::Cost;
pub use gloss::{Gloss, gloss};
pub use moves::Move;
pub use plates::clean_plate;
pub use remedies::{Remedies, Remedy, remedies};
pub use shot_through::{ShotThrough, shot_through};
pub use showing::{By, Finding, LEAST_SHOWN, Look, Shown};
