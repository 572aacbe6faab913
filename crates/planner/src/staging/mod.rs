//! The set as geometry: who and what stands where, laid out from what is known where nobody has drawn it, and what lights,
//! windows and cards give each place from there. It knows setups and the rules, and nothing of plans.

mod ambient;
mod bearings;
mod body;
mod glazed;
mod lamp;
mod layout;
mod outdoors;
mod photographer;
mod reached;
mod stage;
mod surfaces;

pub use ambient::{SetAmbient, card_along, on_regions};
pub use bearings::{on_set_deg, towards_sun};
pub use body::SIDE_DEG;
pub use lamp::{Lamp, exponent_of, shape};
pub use layout::{Laid, SHOULDER_M, aimed_at, circle, product, rows, somebody};
pub use outdoors::{CardsOnRegion, CardsOutdoors, DaylightOnSet};
pub use photographer::Photographer;
pub use reached::Reached;
pub use stage::{Given, OnStage, Stage, Standing, Thing};
pub use surfaces::MIRROR_FINISH;
