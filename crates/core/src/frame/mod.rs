//! Frames: what came. Levels back into linear light, patches in stops, two frames taken apart, targets, the camera's own
//! curve, and what frames teach about a kit.
//!
//! Pictures are handed in as buffers of levels ([`Raster`]); nothing here opens a file.

mod belief;
mod curve;
mod measure;
mod photo;
mod recover;
mod register;
mod separate;
mod sunset;
mod target;

pub use belief::{Belief, Estimate, Evidence, NotABelief};
pub use curve::{NotACurve, ToneCurve};
pub use measure::{Mark, Measured, Shape};
pub use photo::{Encoding, Extent, NoRaster, Photo, Raster, Samples, Turned};
pub use recover::{Exposed, NoBracket, Recovered, recovered};
pub use register::{Moved, moved};
pub use separate::{Pair, Parted, Separated, Unlike};
pub use sunset::{NoSunset, Warned, just_gone};
pub use target::{Target, TwoTone, found};
