//! The sensor, what counts as sharp, the hand and what moves.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// What counts as sharp.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum CircleOfConfusion {
    /// A circle of the sensor's diagonal over 1500: a small print, a screen (common practice, no source).
    #[default]
    SensorDiagonal,
    /// Two pixels: sharp at full size.
    TwoPixels,
    /// A print with so long a side, looked at from 25 cm, where the eye parts 0.2 mm (common practice, no source).
    Print {
        /// In centimetres, 5 to 500.
        #[schema(minimum = 5, maximum = 500, default = 40)]
        long_side_cm: f64,
    },
}

/// A sensor.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sensor {
    /// Its long side, 4 to 100 mm.
    #[schema(minimum = 4, maximum = 100)]
    pub width_mm: f64,
    /// Its short side, 3 to 100 mm.
    #[schema(minimum = 3, maximum = 100)]
    pub height_mm: f64,
    /// Pixels along its long side, 500 to 30 000.
    #[schema(minimum = 500, maximum = 30_000)]
    pub width_px: f64,
}

/// How fast the subject moves, across the view.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
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
        #[schema(minimum = 0, maximum = 100, default = 1)]
        metres_per_s: f64,
    },
}

/// Which rule of thumb is kept for the slowest shutter by hand.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HandheldRule {
    /// One over the focal length.
    #[default]
    OneOverFocal,
    /// One over twice the focal length.
    OneOverTwiceFocal,
    /// One over the focal length, slower by the stops of stabilisation.
    Stabilised,
    /// One over the focal length, quicker on sensors with more than 6000 pixels along the long side.
    DenseSensor,
}
