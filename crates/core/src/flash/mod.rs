//! Flash: how strong a unit is, and what the shutter does to it.
//!
//! Flash exposure does not depend on the shutter up to the sync speed, and ambient does not depend on flash power or
//! distance; aperture, ISO and filters move both (common practice, no source).

mod guide_number;
mod sync;

pub use guide_number::{FlashStrength, GuideNumber};
pub use sync::dark_band;
