//! A scene with its light.

use tolva_core::ambient::{LightNow, Scene, SceneLight};
use tolva_core::time::WrongTime;

use crate::staging::DaylightOnSet;

/// A scene, and its light.
#[derive(Clone, Debug)]
pub struct PreparedScene<'a> {
    /// The scene.
    pub scene: &'a Scene,
    /// Its light over time.
    pub light: SceneLight,
    /// Its light at its hour.
    pub now: LightNow,
}

impl<'a> PreparedScene<'a> {
    /// A scene with its light.
    ///
    /// # Errors
    /// An hour that is none, in a zone that is known or not.
    pub fn new(scene: &'a Scene) -> Result<Self, WrongTime> {
        let light = SceneLight::new(scene)?;
        let now = light.at(light.at);
        Ok(Self { scene, light, now })
    }

    /// Its daylight, as a set needs it.
    pub fn on_set(&self) -> DaylightOnSet<'_> {
        DaylightOnSet { scene: self.scene, light: &self.light, now: &self.now }
    }
}
