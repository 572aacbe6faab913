//! Flash: how strong a unit is, how long it burns, what the shutter does to it, and how it recycles.
//!
//! Flash exposure does not depend on the shutter up to the sync speed, and ambient does not depend on flash power or
//! distance; aperture, ISO and filters move both (common practice, no source).

mod duration;
mod guide_number;
mod high_speed;
mod recycle;
mod sync;

pub use duration::{Duration, part_within, t01_from_t05, t01_s, tail_loss};
pub use guide_number::{FlashStrength, GuideNumber, ZoomGuideNumber, f_number_for, flash_asked};
pub use high_speed::high_speed_loss;
pub use recycle::{Burst, Recycling};
pub use sync::dark_band;
