//! What mirrors on the set.

/// A pane: a window, a glazed door, a mirror, the glass of a picture, a table, a car's side.
#[derive(Clone, Debug, PartialEq)]
pub struct Pane {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is of.
    pub glazing: PaneGlazing,
    /// To the right of the origin, −100 to 100 m.
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    pub y_m: f64,
    /// Over the floor, to its middle: 0 to 30 m.
    pub z_m: f64,
    /// The way it looks, clockwise from +y: 0 to 360.
    pub facing_deg: f64,
    /// Up from the level, −90 to 90.
    pub tilt_deg: f64,
    /// From side to side, 0.02 to 20 m.
    pub width_m: f64,
    /// How high, 0.02 to 20 m.
    pub height_m: f64,
    /// Whether it can be turned on the set, as a door can.
    pub turns: bool,
}

/// What a pane is of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
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
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Spectacles {
    /// How far the glasses look down, 0 to 30°: the temples raised behind the ears make it more.
    pub tilt_deg: f64,
}
