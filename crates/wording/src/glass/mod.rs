//! Glass on a set in words: what shows in what, how strongly, the least that helps, and what it costs.

mod names;
mod offers;
mod said;
mod types;

pub use offers::plate_names;
pub(crate) use said::glass_report;
pub use types::{GlassFinding, GlassOffer, GlassRemedies, GlassReport, GlossSaid};
