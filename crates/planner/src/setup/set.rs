//! What stands on the set: people, products, the camera, lights, cards, walls, openings, and what can hurt.

use tolva_core::modifier::SurfaceColour;
pub use tolva_core::proof::{Clothes, Skin};

use super::glass::{Pane, Spectacles};

/// What stands on the set, in metres. The origin is on the floor under the main subject's eyes as the set was begun, x to
/// the right and y forwards as first seen from the camera; azimuths are clockwise from +y.
#[derive(Clone, Debug, PartialEq)]
pub struct Set {
    /// The people; the first is the main one. At most 30.
    pub people: Vec<Person>,
    /// The products. At most 8.
    pub products: Vec<Product>,
    /// Where the camera stands.
    pub camera: CameraPlace,
    /// Cards, flags and mirrors. At most 16.
    pub cards: Vec<Card>,
    /// Walls and backdrops. At most 12.
    pub walls: Vec<Wall>,
    /// The ceiling; none outdoors.
    pub ceiling: Option<Ceiling>,
    /// The floor, as a surface that gives light back; none where it is left out of account.
    pub floor: Option<Floor>,
    /// Windows and doorways: the light that is there. At most 6.
    pub openings: Vec<Opening>,
    /// Panes and mirrors. At most 12.
    pub panes: Vec<Pane>,
    /// What can hurt. At most 12.
    pub hazards: Vec<Hazard>,
    /// The wind, 0 to 40 m/s; left out where nobody has said it.
    pub wind_m_s: Option<f64>,
}

/// A person.
#[derive(Clone, Debug, PartialEq)]
pub struct Person {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    pub y_m: f64,
    /// Standing, 0.4 to 2.5 m.
    pub height_m: f64,
    /// Whether they sit.
    pub seated: bool,
    /// The way it looks, clockwise from +y: 0 to 360.
    pub facing_deg: f64,
    /// The spectacles they wear.
    pub spectacles: Option<Spectacles>,
    /// How deep their skin is.
    pub skin: Skin,
    /// How bright what they wear is.
    pub clothes: Clothes,
}

/// Something that is photographed.
#[derive(Clone, Debug, PartialEq)]
pub struct Product {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    pub y_m: f64,
    /// What it stands on is so high, 0 to 3 m.
    pub table_m: f64,
    /// Its shape and size.
    pub shape: ProductShape,
    /// The way it looks, clockwise from +y: 0 to 360.
    pub facing_deg: f64,
    /// How it gives light back.
    pub finish: Finish,
}

/// The shape and size of a product.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum ProductShape {
    /// A box.
    Box {
        /// From side to side, 0.005 to 10 m.
        width_m: f64,
        /// From front to back, 0.005 to 10 m.
        depth_m: f64,
        /// How high, 0.005 to 10 m.
        height_m: f64,
    },
    /// Upright and round.
    Cylinder {
        /// From side to side, 0.005 to 10 m.
        diameter_m: f64,
        /// How high, 0.005 to 10 m.
        height_m: f64,
    },
    /// Round.
    Ball {
        /// From side to side, 0.005 to 10 m.
        diameter_m: f64,
    },
}

/// How a product gives light back.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
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
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CameraPlace {
    /// From the main subject to it, clockwise from +y: 0 to 360.
    pub direction_deg: f64,
    /// Over the main subject's eyes, as an angle: −80 to 80.
    pub elevation_deg: f64,
    /// Whether its frame is upright.
    pub portrait: bool,
    /// What it looks at.
    pub aim: CameraAim,
}

/// What the camera looks at.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum CameraAim {
    /// The middle of the people, or of the product.
    #[default]
    Subject,
    /// A point.
    Point {
        /// To the right of the origin, −100 to 100 m.
        x_m: f64,
        /// Forwards from it, −100 to 100 m.
        y_m: f64,
        /// Over the floor, to its middle: 0 to 30 m.
        z_m: f64,
    },
}

/// A card: something flat that gives light back, keeps it off or lets it through.
#[derive(Clone, Debug, PartialEq)]
pub struct Card {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is of.
    pub kind: CardKind,
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
    /// From side to side, 0.02 to 10 m.
    pub width_m: f64,
    /// How high, 0.02 to 10 m.
    pub height_m: f64,
}

/// What a card is of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
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
#[derive(Clone, Debug, PartialEq)]
pub struct Wall {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Where it begins, to the right of the origin.
    pub from_x_m: f64,
    /// Where it begins, forwards.
    pub from_y_m: f64,
    /// Where it ends, to the right of the origin.
    pub to_x_m: f64,
    /// Where it ends, forwards.
    pub to_y_m: f64,
    /// How high, 0.2 to 30 m.
    pub height_m: f64,
    /// The part of the light it gives back, 0.02 to 0.95.
    pub reflectance: f64,
    /// Its colour, which the light takes on.
    pub colour: SurfaceColour,
}

/// A ceiling over everything.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ceiling {
    /// How high, 1.5 to 30 m.
    pub height_m: f64,
    /// The part of the light it gives back, 0.02 to 0.95.
    pub reflectance: f64,
    /// Its colour.
    pub colour: SurfaceColour,
}

/// The floor, as a surface.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Floor {
    /// The part of the light it gives back, 0.02 to 0.95.
    pub reflectance: f64,
    /// Its colour.
    pub colour: SurfaceColour,
}

/// A window, a doorway, a lit opening: a glowing rectangle of the light that is there.
#[derive(Clone, Debug, PartialEq)]
pub struct Opening {
    /// Unique among its kind.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// To the right of the origin, −100 to 100 m.
    pub x_m: f64,
    /// Forwards from it, −100 to 100 m.
    pub y_m: f64,
    /// Over the floor, to its middle: 0 to 30 m.
    pub z_m: f64,
    /// The way it looks, clockwise from +y: 0 to 360.
    pub facing_deg: f64,
    /// From side to side, 0.1 to 20 m.
    pub width_m: f64,
    /// How high, 0.1 to 20 m.
    pub height_m: f64,
}

/// Something that can hurt.
#[derive(Clone, Debug, PartialEq)]
pub struct Hazard {
    /// Unique among its kind.
    pub id: String,
    /// What it is.
    pub kind: HazardKind,
    /// Where it begins, to the right of the origin.
    pub from_x_m: f64,
    /// Where it begins, forwards.
    pub from_y_m: f64,
    /// Where it ends, to the right of the origin.
    pub to_x_m: f64,
    /// Where it ends, forwards.
    pub to_y_m: f64,
    /// How high an overhead line hangs, 0 to 30 m.
    pub height_m: f64,
}

/// What can hurt.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
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

/// Where a light stands: its distance is the light's own, along this line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LightPlace {
    /// From what it is aimed at to it, clockwise from +y: 0 to 360.
    pub direction_deg: f64,
    /// Over what it is aimed at, as an angle: −85 to 90.
    pub elevation_deg: f64,
    /// The way it is turned off its aim, where it is.
    pub feather_to: FeatherTo,
    /// Turned about its own axis, −90 to 90.
    pub roll_deg: f64,
    /// Where its head looks instead of at its aim: at a wall or a ceiling; left out, at its aim.
    pub head: Option<Head>,
    /// What holds it.
    pub support: Support,
}

/// The way a light is turned off its aim.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum FeatherTo {
    /// Towards the camera.
    #[default]
    Camera,
    /// Away from the camera.
    Away,
    /// Upwards.
    Up,
    /// Downwards.
    Down,
}

/// The way a head looks.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Head {
    /// Clockwise from +y: 0 to 360.
    pub azimuth_deg: f64,
    /// Up from the level, −90 to 90.
    pub elevation_deg: f64,
}

/// What holds a light.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum Support {
    /// Its stand.
    #[default]
    Stand,
    /// A boom on its stand, reaching out so far.
    Boom {
        /// From the stand to the light, 0.3 to 4 m.
        arm_m: f64,
    },
    /// A helper's hand.
    Held,
    /// A clamp on something that stands.
    Clamped,
}

/// Where a part of the picture is on the set.
#[derive(Clone, Debug, PartialEq)]
pub enum RegionPlace {
    /// On a person's face.
    Face {
        /// Whose.
        person_id: String,
        /// Which side of it.
        side: Side,
    },
    /// On a product.
    Product {
        /// Which.
        product_id: String,
        /// Which side of it.
        side: Side,
    },
    /// The middle of a wall, at eye height.
    Wall {
        /// Which.
        wall_id: String,
    },
    /// A point that looks somewhere.
    Point {
        /// To the right of the origin, −100 to 100 m.
        x_m: f64,
        /// Forwards from it, −100 to 100 m.
        y_m: f64,
        /// Over the floor, to its middle: 0 to 30 m.
        z_m: f64,
        /// The way it looks, clockwise from +y: 0 to 360.
        azimuth_deg: f64,
        /// Up from the level, −90 to 90.
        elevation_deg: f64,
    },
}

/// A side of a face or a product.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Side {
    /// Its own left: turned 45° that way.
    Left,
    /// Its own right: turned 45° that way.
    Right,
    /// Straight on.
    #[default]
    Front,
    /// From above.
    Top,
}
