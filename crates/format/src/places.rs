//! Where lights stand on the set, what holds them, and where the parts of the picture are.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// Where a light stands: its distance is the light's own, along this line.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LightPlace {
    /// From what it is aimed at to it, clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 220, extensions(("x-step" = json!(5))))]
    pub direction_deg: f64,
    /// Over what it is aimed at, as an angle: −85 to 90.
    #[schema(minimum = -85, maximum = 90, default = 20, extensions(("x-step" = json!(1))))]
    pub elevation_deg: f64,
    /// The way it is turned off its aim, where it is.
    #[serde(default)]
    pub feather_to: FeatherTo,
    /// Turned about its own axis, −90 to 90.
    #[serde(default)]
    #[schema(minimum = -90, maximum = 90, default = 0, extensions(("x-step" = json!(5))))]
    pub roll_deg: f64,
    /// Where its head looks instead of at its aim: at a wall or a ceiling; left out, at its aim.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub head: Option<Head>,
    /// What holds it.
    #[serde(default)]
    pub support: Support,
}

/// The way a light is turned off its aim.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
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
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Head {
    /// Clockwise from +y: 0 to 360.
    #[schema(minimum = 0, maximum = 360, default = 0, extensions(("x-step" = json!(5))))]
    pub azimuth_deg: f64,
    /// Up from the level, −90 to 90.
    #[schema(minimum = -90, maximum = 90, default = 0, extensions(("x-step" = json!(5))))]
    pub elevation_deg: f64,
}

/// What holds a light.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Support {
    /// Its stand.
    #[default]
    Stand,
    /// A boom on its stand, reaching out so far.
    Boom {
        /// From the stand to the light, 0.3 to 4 m.
        #[schema(minimum = 0.3, maximum = 4, default = 1.2, extensions(("x-step" = json!(0.05))))]
        arm_m: f64,
    },
    /// A helper's hand.
    Held,
    /// A clamp on something that stands.
    Clamped,
}

/// Where a part of the picture is on the set.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum RegionPlace {
    /// On a person's face.
    Face {
        /// Whose.
        #[schema(min_length = 1, max_length = 60)]
        person_id: String,
        /// Which side of it.
        side: Side,
    },
    /// On a product.
    Product {
        /// Which.
        #[schema(min_length = 1, max_length = 60)]
        product_id: String,
        /// Which side of it.
        side: Side,
    },
    /// The middle of a wall, at eye height.
    Wall {
        /// Which.
        #[schema(min_length = 1, max_length = 60)]
        wall_id: String,
    },
    /// A point that looks somewhere.
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
        /// The way it looks, clockwise from +y: 0 to 360.
        #[schema(minimum = 0, maximum = 360, default = 180, extensions(("x-step" = json!(5))))]
        azimuth_deg: f64,
        /// Up from the level, −90 to 90.
        #[schema(minimum = -90, maximum = 90, default = 0, extensions(("x-step" = json!(5))))]
        elevation_deg: f64,
    },
}

/// A side of a face or a product.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
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
