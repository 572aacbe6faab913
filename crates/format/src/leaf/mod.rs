//! The small parts a document is made of, by what they belong to.

mod colour;
mod conventions;
mod exposure;
mod flash;
mod modifier;
mod optics;
mod scale;

pub use colour::{BalanceReason, NamedLight, Preset, StatedColour, WhiteBalance};
pub use conventions::{AutomaticConvention, ExposureConvention, FallingOrder, Preference};
pub use exposure::{
    Ambient, CameraReading, EvReading, IncidentReceptor, LuxReading, MeterReading, MeteringMethod, Reading,
};
pub use flash::{Duration, ZoomGuideNumber};
pub use modifier::{Bounce, BounceOff, SurfaceColour};
pub use optics::{CircleOfConfusion, HandheldRule, Movement, Sensor};
pub use scale::{PowerStep, Step};
