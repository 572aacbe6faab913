//! Modifiers of the kit: what shapes the flash.

/// A modifier: what shapes the flash.
#[derive(Clone, Debug, PartialEq)]
pub struct Modifier {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its glowing surface.
    pub surface: ModifierSurface,
    /// What it takes from the flash on its axis, in stops: 0 to 8. Negative where a reflector gathers the light.
    pub loss_stops: f64,
    /// How it falls off to its sides: the exponent of the cosine, 1 for an open diffuser, more for recessed faces.
    pub exponent: f64,
    /// With a grid, the half angle at which it has lost a stop, in degrees; null without one.
    pub grid_half_angle_deg: Option<f64>,
    /// What it weighs, in kilograms.
    pub weight_kg: f64,
    /// What the wind sees of it, in square metres.
    pub area_m2: f64,
}

/// The shape and size of a glowing surface.
#[derive(Clone, Debug, PartialEq)]
pub enum ModifierSurface {
    /// No surface of its own: a bare head or a reflector, small enough to be a point.
    Bare(BareSurface),
    /// Round or octagonal.
    Disc(DiscSurface),
    /// Square, rectangular or a strip.
    Rectangle(RectangleSurface),
}

/// A point.
#[derive(Clone, Debug, PartialEq)]
pub struct BareSurface {}

/// A disc.
#[derive(Clone, Debug, PartialEq)]
pub struct DiscSurface {
    /// From edge to edge, in metres.
    pub diameter_m: f64,
}

/// A rectangle.
#[derive(Clone, Debug, PartialEq)]
pub struct RectangleSurface {
    /// One side, in metres.
    pub width_m: f64,
    /// The other, in metres.
    pub height_m: f64,
}
