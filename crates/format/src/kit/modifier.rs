//! Modifiers of the kit: what shapes the flash.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// A modifier: what shapes the flash.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Modifier {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Its glowing surface.
    pub surface: ModifierSurface,
    /// What it takes from the flash on its axis, in stops: 0 to 8. Negative where a reflector gathers the light.
    #[schema(minimum = -3, maximum = 8, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub loss_stops: f64,
    /// How it falls off to its sides: the exponent of the cosine, 1 for an open diffuser, more for recessed faces.
    #[schema(minimum = 0, maximum = 400)]
    pub exponent: f64,
    /// With a grid, the half angle at which it has lost a stop, in degrees; null without one.
    #[serde(default)]
    #[schema(minimum = 2, maximum = 80)]
    pub grid_half_angle_deg: Option<f64>,
    /// What it weighs, in kilograms.
    #[schema(minimum = 0, maximum = 30)]
    pub weight_kg: f64,
    /// What the wind sees of it, in square metres.
    #[schema(minimum = 0, maximum = 20)]
    pub area_m2: f64,
}

/// The shape and size of a glowing surface.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ModifierSurface {
    /// No surface of its own: a bare head or a reflector, small enough to be a point.
    Bare(BareSurface),
    /// Round or octagonal.
    Disc(DiscSurface),
    /// Square, rectangular or a strip.
    Rectangle(RectangleSurface),
}

/// A point.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BareSurface {}

/// A disc.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiscSurface {
    /// From edge to edge, in metres.
    #[schema(minimum = 0.02, maximum = 10, default = 0.9)]
    pub diameter_m: f64,
}

/// A rectangle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RectangleSurface {
    /// One side, in metres.
    #[schema(minimum = 0.02, maximum = 10, default = 0.6)]
    pub width_m: f64,
    /// The other, in metres.
    #[schema(minimum = 0.02, maximum = 10, default = 0.9)]
    pub height_m: f64,
}
