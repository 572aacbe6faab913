//! The set, to scale: where things stand.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::glass::{Pane, Spectacles};
use crate::leaf::SurfaceColour;

/// What stands on the set, in metres. The origin is on the floor under the main subject's eyes as the set was begun, x to
/// the right and y forwards as first seen from the camera; azimuths are clockwise from +y.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Set {
    /// The people; the first is the main one. At most 30.
    #[serde(default)]
    #[schema(max_items = 30)]
    pub people: Vec<Person>,
    /// The products. At most 8.
    #[serde(default)]
    #[schema(max_items = 8)]
    pub products: Vec<Product>,
    /// Where the camera stands.
    pub camera: CameraPlace,
    /// Cards, flags and mirrors. At most 16.
    #[serde(default)]
    #[schema(max_items = 16)]
    pub cards: Vec<Card>,
    /// Walls and backdrops. At most 12.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub walls: Vec<Wall>,
    /// The ceiling; none outdoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ceiling: Option<Ceiling>,
    /// The floor, as a surface that gives light back; none where it is left out of account.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor: Option<Floor>,
    /// Windows and doorways: the light that is there. At most 6.
    #[serde(default)]
    #[schema(max_items = 6)]
    pub openings: Vec<Opening>,
    /// Panes and mirrors. At most 12.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub panes: Vec<Pane>,
    /// What can hurt. At most 12.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub hazards: Vec<Hazard>,
    /// The wind, 0 to 40 m/s; left out where nobody has said it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 40, extensions(("x-step" = json!(1))))]
    pub wind_m_s: Option<f64>,
}

/// A person.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Person {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub y_m: f64,
    /// Standing, 0.4 to 2.5 m.
    #[schema(minimum = 0.4, maximum = 2.5, default = 1.7, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
    /// Whether they sit.
    #[serde(default)]
    pub seated: bool,
    /// The way it looks, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(5))))]
    pub facing_deg: f64,
    /// The spectacles they wear; left out where they wear none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spectacles: Option<Spectacles>,
    /// How deep their skin is, for the proof.
    #[serde(default)]
    pub skin: Skin,
    /// How bright what they wear is, for the proof.
    #[serde(default)]
    pub clothes: Clothes,
}

/// How deep a skin is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Skin {
    /// Pale: about a stop over mid grey.
    Pale,
    /// In between: about a third of a stop over mid grey.
    #[default]
    Medium,
    /// Dark: about two thirds of a stop under mid grey.
    Dark,
}

/// How bright clothes are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Clothes {
    /// White or nearly.
    Pale,
    /// In between.
    #[default]
    Middling,
    /// Black or nearly.
    Dark,
}

/// Something that is photographed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Product {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub y_m: f64,
    /// What it stands on is so high, 0 to 3 m.
    #[schema(minimum = 0, maximum = 3, default = 0.75, extensions(("x-step" = json!(0.05))))]
    pub table_m: f64,
    /// Its shape and size.
    pub shape: ProductShape,
    /// The way it looks, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(5))))]
    pub facing_deg: f64,
    /// How it gives light back.
    #[serde(default)]
    pub finish: Finish,
}

/// The shape and size of a product.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum ProductShape {
    /// A box.
    Box {
        /// From side to side, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.3, extensions(("x-step" = json!(0.05))))]
        width_m: f64,
        /// From front to back, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.2, extensions(("x-step" = json!(0.05))))]
        depth_m: f64,
        /// How high, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.3, extensions(("x-step" = json!(0.05))))]
        height_m: f64,
    },
    /// Upright and round.
    Cylinder {
        /// From side to side, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.1, extensions(("x-step" = json!(0.05))))]
        diameter_m: f64,
        /// How high, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.3, extensions(("x-step" = json!(0.05))))]
        height_m: f64,
    },
    /// Round.
    Ball {
        /// From side to side, 0.005 to 10 m.
        #[schema(minimum = 0.005, maximum = 10, default = 0.2, extensions(("x-step" = json!(0.05))))]
        diameter_m: f64,
    },
}

/// How a product gives light back.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Finish {
    /// To every side.
    #[default]
    Matt,
    /// More the mirrored way.
    Satin,
    /// Like a mirror.
    Mirror,
}

/// Where the camera stands: its distance is the setup's own.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CameraPlace {
    /// From the main subject to it, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(5))))]
    pub direction_deg: f64,
    /// Over the main subject's eyes, as an angle: −80 to 80.
    #[schema(minimum = -80, maximum = 80, default = 0, extensions(("x-step" = json!(1))))]
    pub elevation_deg: f64,
    /// Whether its frame is upright.
    #[serde(default)]
    pub portrait: bool,
    /// What it looks at.
    #[serde(default)]
    pub aim: CameraAim,
}

/// What the camera looks at.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum CameraAim {
    /// The middle of the people, or of the product.
    #[default]
    Subject,
    /// A point.
    Point {
        /// To the right of the origin, −100 to 100 m.
        #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
        x_m: f64,
        /// Forwards from it, −100 to 100 m.
        #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
        y_m: f64,
        /// Over the floor, to its middle: 0 to 30 m.
        #[schema(minimum = 0, maximum = 30, default = 1.5, extensions(("x-step" = json!(0.05))))]
        z_m: f64,
    },
}

/// A card: something flat that gives light back, keeps it off or lets it through.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Card {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What it is of.
    pub kind: CardKind,
    /// To the right of the origin, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub y_m: f64,
    /// Over the floor, to its middle: 0 to 30 m.
    #[schema(minimum = 0, maximum = 30, default = 1.4, extensions(("x-step" = json!(0.05))))]
    pub z_m: f64,
    /// The way it looks, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(5))))]
    pub facing_deg: f64,
    /// Up from the level, −90 to 90.
    #[serde(default)]
    #[schema(minimum = -90, maximum = 90, default = 0, extensions(("x-step" = json!(5))))]
    pub tilt_deg: f64,
    /// From side to side, 0.02 to 10 m.
    #[schema(minimum = 0.02, maximum = 10, default = 0.8, extensions(("x-step" = json!(0.05))))]
    pub width_m: f64,
    /// How high, 0.02 to 10 m.
    #[schema(minimum = 0.02, maximum = 10, default = 1.2, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
}

/// What a card is of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CardKind {
    /// White.
    #[default]
    White,
    /// Silver: it throws light the mirrored way.
    Silver,
    /// Gold: the same, warmer.
    Gold,
    /// Black: it takes light away, or keeps it off.
    Black,
    /// Cloth that lets light through, softened.
    Diffuser,
    /// A mirror.
    Mirror,
}

/// A wall or a backdrop, upright from the floor.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wall {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Where it begins, to the right of the origin.
    #[schema(minimum = -100, maximum = 100, default = json!(-2), extensions(("x-step" = json!(0.05))))]
    pub from_x_m: f64,
    /// Where it begins, forwards.
    #[schema(minimum = -100, maximum = 100, default = 3, extensions(("x-step" = json!(0.05))))]
    pub from_y_m: f64,
    /// Where it ends, to the right of the origin.
    #[schema(minimum = -100, maximum = 100, default = 2, extensions(("x-step" = json!(0.05))))]
    pub to_x_m: f64,
    /// Where it ends, forwards.
    #[schema(minimum = -100, maximum = 100, default = 3, extensions(("x-step" = json!(0.05))))]
    pub to_y_m: f64,
    /// How high, 0.2 to 30 m.
    #[schema(minimum = 0.2, maximum = 30, default = 2.7, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
    /// The part of the light it gives back, 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95, default = 0.6, extensions(("x-step" = json!(0.05))))]
    pub reflectance: f64,
    /// Its colour, which the light takes on.
    #[serde(default)]
    pub colour: SurfaceColour,
}

/// A ceiling over everything.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ceiling {
    /// How high, 1.5 to 30 m.
    #[schema(minimum = 1.5, maximum = 30, default = 2.7, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
    /// The part of the light it gives back, 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95, default = 0.8, extensions(("x-step" = json!(0.05))))]
    pub reflectance: f64,
    /// Its colour.
    #[serde(default)]
    pub colour: SurfaceColour,
}

/// The floor, as a surface.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Floor {
    /// The part of the light it gives back, 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95, default = 0.3, extensions(("x-step" = json!(0.05))))]
    pub reflectance: f64,
    /// Its colour.
    #[serde(default)]
    pub colour: SurfaceColour,
}

/// A window, a doorway, a lit opening: a glowing rectangle of the light that is there.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Opening {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    #[schema(minimum = -100, maximum = 100, default = 0, extensions(("x-step" = json!(0.05))))]
    pub y_m: f64,
    /// Over the floor, to its middle: 0 to 30 m.
    #[schema(minimum = 0, maximum = 30, default = 1.5, extensions(("x-step" = json!(0.05))))]
    pub z_m: f64,
    /// The way it looks, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 90, extensions(("x-step" = json!(5))))]
    pub facing_deg: f64,
    /// From side to side, 0.1 to 20 m.
    #[schema(minimum = 0.1, maximum = 20, default = 1.2, extensions(("x-step" = json!(0.05))))]
    pub width_m: f64,
    /// How high, 0.1 to 20 m.
    #[schema(minimum = 0.1, maximum = 20, default = 1.4, extensions(("x-step" = json!(0.05))))]
    pub height_m: f64,
}

/// Something that can hurt.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Hazard {
    /// Unique among its kind.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is.
    pub kind: HazardKind,
    /// Where it begins, to the right of the origin.
    #[schema(minimum = -100, maximum = 100, default = json!(-2), extensions(("x-step" = json!(0.05))))]
    pub from_x_m: f64,
    /// Where it begins, forwards.
    #[schema(minimum = -100, maximum = 100, default = json!(-3), extensions(("x-step" = json!(0.05))))]
    pub from_y_m: f64,
    /// Where it ends, to the right of the origin.
    #[schema(minimum = -100, maximum = 100, default = 2, extensions(("x-step" = json!(0.05))))]
    pub to_x_m: f64,
    /// Where it ends, forwards.
    #[schema(minimum = -100, maximum = 100, default = json!(-3), extensions(("x-step" = json!(0.05))))]
    pub to_y_m: f64,
    /// How high an overhead line hangs, 0 to 30 m.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 30, default = 5, extensions(("x-step" = json!(0.5))))]
    pub height_m: f64,
}

/// What can hurt.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HazardKind {
    /// An edge one can fall from.
    #[default]
    Edge,
    /// A road.
    Road,
    /// Water.
    Water,
    /// People passing.
    Crowd,
    /// A line overhead.
    OverheadLine,
    /// A run of cable across the floor.
    Cable,
}
