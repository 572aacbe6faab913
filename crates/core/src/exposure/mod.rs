//! Exposure values: from settings, from lux, and from what a meter or camera said.

mod ev;
mod meter;
mod metering_method;
mod reading;

pub use ev::Ev;
pub use meter::{IncidentReceptor, reflected_over};
pub use metering_method::MeteringMethod;
pub use reading::ranges;
pub use reading::{Ambient, CameraReading, EvReading, LuxReading, MeterReading, Reading, parse_reading};

use crate::scale::{Aperture, Iso, Setting, Shutter};

/// What stands on the camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CameraSettings {
    /// The shutter.
    pub shutter: Setting<Shutter>,
    /// The aperture.
    pub aperture: Setting<Aperture>,
    /// The sensitivity.
    pub iso: Setting<Iso>,
}

impl CameraSettings {
    /// The exposure value at ISO 100 these settings are right for, from their exact values:
    /// EV₁₀₀ = log₂(N²/t) − log₂(S/100). Source: ISO 2720, APEX.
    ///
    /// ```
    /// use tolva_core::{exposure::CameraSettings, scale::Setting};
    /// let sunny = CameraSettings {
    ///     shutter: Setting::of(1.0 / 125.0),
    ///     aperture: Setting::of(16.0),
    ///     iso: Setting::of(100.0),
    /// };
    /// assert_eq!(sunny.ev100().0, 15.0);
    /// ```
    pub fn ev100(self) -> Ev {
        // The same as `Ev::of_values` of the exact values, whose logarithms the dials' positions are.
        Ev((self.aperture.position() + self.shutter.position() - self.iso.position()).0)
    }

    /// As said aloud: `1/125, f/16, ISO 100`.
    pub fn label(self) -> String {
        format!("{}, {}, {}", self.shutter.label(), self.aperture.label(), self.iso.label())
    }
}
