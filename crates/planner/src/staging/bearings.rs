//! Bearings of the world on the set: which way the sun is.

use tolva_core::ambient::Sun;
use tolva_core::set::{Direction, Vector};

/// The azimuth of the set's main subject as it was begun: it looked at the camera.
const FACED_DEG: f64 = 180.0;

/// A bearing of the world as an azimuth of the set: `facing_deg` is the bearing the subject faced as it was begun.
pub fn on_set_deg(bearing_deg: f64, facing_deg: f64) -> f64 {
    (bearing_deg - facing_deg + FACED_DEG).rem_euclid(360.0)
}

/// From the set towards the sun.
pub fn towards_sun(sun: Sun, facing_deg: f64) -> Vector {
    Direction::new(on_set_deg(sun.azimuth_deg, facing_deg), sun.apparent_altitude_deg).vector()
}
