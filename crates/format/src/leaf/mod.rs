//! The small parts a document is made of, by what they belong to.

mod colour;
mod conventions;
mod exposure;
mod flash;
mod modifier;
mod optics;
mod scale;

pub use colour::{NamedLight, Preset, SaidColour, WhiteBalance, Why};
pub use conventions::{AutomaticSchool, ExposureSchool, FallingOrder, Preference};
pub use exposure::{Ambient, CameraSaid, EvReading, How, IncidentReceptor, LuxReading, Reading, Taken};
pub use flash::{Duration, ZoomGuideNumber};
pub use modifier::{Bounce, BounceOff, SurfaceColour};
pub use optics::{Circle, HandheldSchool, Movement, Sensor};
pub use scale::{PowerStep, Step};
