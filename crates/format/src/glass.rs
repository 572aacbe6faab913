//! What mirrors on the set, and the frames that are taken for it.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// A pane: a window, a glazed door, a mirror, the glass of a picture, a table, a car's side.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pane {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What it is of.
    #[serde(default)]
    pub glazing: PaneGlazing,
    /// To the right of the origin, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 2, extensions(("x-step" = json!(0.05))))]
    pub y_m: f64,
    /// Over the floor, to its middle: 0 to 30 m.
    #[schema(minimum = 0, maximum = 30, default = 1.5, extensions(("x-step" = json!(0.05))))]
    pub z_m: f64,
    /// The way it looks, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(1))))]
    pub facing_deg: f64,
    /// Up from the level, −90 to 90.
    #[serde(default)]
    #[schema(minimum = -90, maximum = 90, default = 0, extensions(("x-step" = json!(1))))]
    pub tilt_deg: f64,
    /// From side to side, 0.02 to 20 m.
    #[schema(minimum = 0.02, maximum = 20, default = 1.4, extensions(("x-step" = json!(0.05))))]
    pub width_m: f64,
    /// How high, 0.02 to 20 m.
    #[schema(minimum = 0.02, maximum = 20, default = 1.4, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
    /// Whether it can be turned on the set, as a door can.
    #[serde(default)]
    pub turns: bool,
}

/// What a pane is of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaneGlazing {
    /// One sheet of glass.
    #[default]
    Single,
    /// Two sheets with air between.
    Double,
    /// A mirror.
    Mirror,
}

/// Spectacles that somebody wears.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spectacles {
    /// How far the glasses look down, 0 to 30°: the temples raised behind the ears make it more.
    #[schema(minimum = 0, maximum = 30, default = 8, extensions(("x-step" = json!(1))))]
    pub tilt_deg: f64,
}
