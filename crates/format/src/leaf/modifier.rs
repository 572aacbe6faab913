//! Bounced light.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// What the head is turned to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BounceOff {
    /// The ceiling, over the camera or a little before it.
    Ceiling,
    /// A wall beside the camera, the head a little forward.
    #[serde(rename = "wall")]
    SideWall,
    /// A wall behind the camera, the head straight at it.
    BackWall,
}

/// A bounce.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bounce {
    /// Off what.
    pub off: BounceOff,
    /// From the head to the surface, straight: 0.3 to 20 m.
    #[schema(minimum = 0.3, maximum = 20, default = 1.2)]
    pub away_m: f64,
    /// How much of the light it gives back: 0.8 white paint, 0.5 pale wood, 0.2 dark. 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95, default = 0.8)]
    pub reflectance: f64,
    /// Its colour, which the light takes on.
    #[serde(default)]
    pub colour: SurfaceColour,
}

/// The colour of a ceiling or wall. What each does to a light is chosen; measure it there.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SurfaceColour {
    /// White or grey.
    #[default]
    White,
    /// Cream, aged white paint.
    Cream,
    /// Pale wood.
    Wood,
    /// Brick, red cloth.
    Brick,
    /// Green.
    Green,
    /// Blue.
    Blue,
}
