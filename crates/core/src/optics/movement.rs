//! Movement of the subject: how far it goes on the sensor while the shutter is open.

use crate::optics::Sensor;
use crate::scale::{Metres, Millimetres};

/// How fast the subject moves, across the view.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum Movement {
    /// Nothing moves: a product.
    #[default]
    Still,
    /// Somebody who holds a pose.
    HeldPose,
    /// Easy posing.
    Posing,
    /// Children who play.
    Children,
    /// Walking.
    Walking,
    /// Dancing.
    Dancing,
    /// Running.
    Running,
    /// A small bird's wing.
    Wing,
    /// As it was measured or guessed.
    Speed {
        /// In metres a second, 0 to 100.
        metres_per_s: f64,
    },
}

impl Movement {
    /// The presets, slowest first.
    pub const OFFERED: [Self; 8] = [
        Self::Still,
        Self::HeldPose,
        Self::Posing,
        Self::Children,
        Self::Walking,
        Self::Dancing,
        Self::Running,
        Self::Wing,
    ];

    /// Its speed in metres a second. The presets are from memory.
    pub fn metres_per_s(self) -> f64 {
        match self {
            Self::Still => 0.0,
            Self::HeldPose => 0.02,
            Self::Posing => 0.1,
            Self::Children => 0.4,
            Self::Walking => 1.4,
            Self::Dancing => 2.0,
            Self::Running => 6.0,
            Self::Wing => 10.0,
            Self::Speed { metres_per_s } => metres_per_s,
        }
    }
}

/// While something sways: the shutter, and how many frames to take so that one is still. Common practice, no source.
pub const SWAYING: [(f64, u32); 3] = [(1.0 / 250.0, 10), (1.0 / 125.0, 20), (1.0 / 60.0, 40)];

/// How large the subject is on the sensor: f/(s − f), with s from the lens.
pub fn magnification(focal: Millimetres, distance: Metres) -> f64 {
    let f = focal.metres().0;
    f / (distance.0 - f).max(f / 10.0)
}

/// How many pixels a subject that moves across the view goes while the shutter is open:
/// speed × time × magnification / pitch.
///
/// ```
/// use tolva_core::optics::{Movement, Sensor, blur_px};
/// let walking = blur_px(Movement::Walking, 1.0 / 125.0, 0.02, Sensor::FULL_FRAME);
/// assert!((walking - 37.3).abs() < 0.1);
/// ```
pub fn blur_px(movement: Movement, shutter_s: f64, magnification: f64, sensor: Sensor) -> f64 {
    movement.metres_per_s() * shutter_s * magnification / sensor.pitch().metres().0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn faster_is_more_and_still_is_nothing() {
        let blur = |movement| blur_px(movement, 1.0 / 60.0, 0.03, Sensor::FULL_FRAME);
        assert!(blur(Movement::Still).abs() < 1e-12);
        assert!(Movement::OFFERED.windows(2).all(|pair| blur(pair[0]) < blur(pair[1])));
        assert!((blur(Movement::Speed { metres_per_s: 2.0 }) - blur(Movement::Dancing)).abs() < 1e-12);
    }

    /// At 1:1 the lens stands at twice its focal length.
    #[test]
    fn magnification_from_distance() {
        assert!((magnification(Millimetres(100.0), Metres(0.2)) - 1.0).abs() < 1e-12);
        assert!((magnification(Millimetres(50.0), Metres(5.05)) - 0.01).abs() < 1e-12);
    }

    /// Common practice, no source: half the speed, double the frames.
    #[test]
    fn swaying_doubles() {
        assert!(SWAYING.windows(2).all(|pair| pair[1].1 == 2 * pair[0].1 && pair[1].0 > 1.9 * pair[0].0));
    }
}
