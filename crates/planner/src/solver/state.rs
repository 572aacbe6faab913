//! What stands on camera and flashes.

use super::{DialledLight, Outcome};
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Metres, Power};

/// What stands on camera and flash.
#[derive(Clone, Debug, PartialEq)]
pub struct State {
    /// What stands on the camera.
    pub settings: CameraSettings,
    /// Each flash's distance and power, in the setup's order; nothing where one is off.
    pub flashes: Vec<Option<(Metres, Power)>>,
}

impl State {
    /// These settings, and these lights as they are dialled.
    pub fn new(settings: CameraSettings, lights: &[Option<DialledLight>]) -> Self {
        let flashes = lights.iter().map(|light| light.map(|light| (light.distance, light.power))).collect();
        Self { settings, flashes }
    }

    /// What a plan sets.
    pub fn of(outcome: &Outcome) -> Self {
        Self::new(outcome.settings, &outcome.lights)
    }
}
