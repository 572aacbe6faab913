//! A setup: one lighting arrangement for one kind of picture.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::blend::Blend;
use crate::leaf::{
    Ambient, AutomaticConvention, Bounce, CircleOfConfusion, ExposureConvention, FallingOrder, HandheldRule, Movement,
    Preference, WhiteBalance,
};
use crate::learnt::Learnt;
use crate::places::{LightPlace, RegionPlace};
use crate::scene::{Role, Scene};
use crate::schedule::{Schedule, Shot};
use crate::set::Set;

/// One lighting arrangement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Setup {
    /// Unique in the job.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Anything else. May be empty.
    #[serde(default)]
    #[schema(max_length = 4000)]
    pub notes: String,
    /// Where and when; left out while nobody has said it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scene: Option<Scene>,
    /// The parts of the picture that get their own exposure. One at least is behind, one the lit side.
    #[schema(min_items = 2, max_items = 12)]
    pub regions: Vec<Region>,
    /// The wish.
    pub blend: Blend,
    /// The camera, from the kit.
    pub camera_id: String,
    /// The lens, from the kit.
    pub lens_id: String,
    /// The focal length it is used at, 4 to 1200 mm.
    #[schema(minimum = 4, maximum = 1200)]
    pub focal_length_mm: f64,
    /// From the camera's sensor to the nearest of the subject, 0.05 to 200 m.
    #[schema(minimum = 0.05, maximum = 200)]
    pub camera_distance_m: f64,
    /// What is fixed on the camera; the rest is Tolva's to choose.
    #[serde(default)]
    pub fixed: Fixed,
    /// The neutral density filters on the lens, from the kit. At most 3.
    #[serde(default)]
    #[schema(max_items = 3)]
    pub filter_ids: Vec<String>,
    /// How flash and shutter go together.
    #[serde(default)]
    pub sync: Sync,
    /// What is to be sharp.
    #[serde(default)]
    pub depth: Depth,
    /// What counts as sharp.
    #[serde(default)]
    pub circle_of_confusion: CircleOfConfusion,
    /// What keeps the camera still, and what moves before it.
    #[serde(default)]
    pub speed: Speed,
    /// What the job asks of the flashes in time; left out where nobody has said it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace: Option<Pace>,
    /// How an exposure is judged.
    #[serde(default)]
    pub exposure: ExposureConvention,
    /// What the camera may set by itself.
    #[serde(default)]
    pub automatic_exposure: AutomaticConvention,
    /// What the camera is balanced for.
    #[serde(default)]
    pub white_balance: WhiteBalance,
    /// What is kept first where not everything can be had; left out, the person's own order.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_items = 5)]
    pub preferences: Option<Vec<Preference>>,
    /// What gives way first as the light falls.
    #[serde(default)]
    pub falling_order: FallingOrder,
    /// The lights. At most 8.
    #[schema(max_items = 8)]
    pub lights: Vec<Light>,
    /// What stands on the set, to scale; left out while nobody has used it: what lights reach is then as it was typed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub set: Option<Set>,
    /// The shots that are taken, in order. At most 40.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub shots: Vec<Shot>,
    /// What it asks of its day; left out where nobody has said anything of it.
    #[serde(default, skip_serializing_if = "Schedule::is_usual")]
    pub schedule: Schedule,
    /// What frames that came have taught; left out where none was measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub learnt: Option<Learnt>,
}

/// How flash and shutter go together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sync {
    /// Up to the safe sync of the mechanical shutter.
    #[default]
    Ordinary,
    /// A train of pulses: any shutter, for less light.
    HighSpeed,
    /// The electronic shutter with its own, slower sync.
    Electronic,
}

/// What is to be sharp.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Depth {
    /// Whatever the light gives.
    #[default]
    Free,
    /// One head, what lies behind soft: as wide as the lens goes, f/2.8 at most (common practice, no source).
    OneHead,
    /// People in rows, the first at the camera's distance.
    Rows {
        /// How many, 1 to 20.
        #[schema(minimum = 1, maximum = 20, default = 2)]
        rows: u8,
        /// From one row to the next, 0.1 to 5 m.
        #[schema(minimum = 0.1, maximum = 5, default = 0.8)]
        apart_m: f64,
    },
    /// A subject so deep, from the camera's distance on: 0.001 to 100 m.
    Deep {
        /// How deep.
        #[schema(minimum = 0.001, maximum = 100, default = 0.5)]
        depth_m: f64,
    },
    /// By magnification: the lens stands where that puts it.
    CloseUp {
        /// On the sensor over in truth, 0.05 to 10: 1 is life size.
        #[schema(minimum = 0.05, maximum = 10, default = 0.5)]
        magnification: f64,
        /// How deep the subject is, 0.01 to 200 mm.
        #[schema(minimum = 0.01, maximum = 200, default = 10)]
        depth_mm: f64,
        /// Whether it is taken as a stack of frames instead of by one small aperture.
        stacked: bool,
        /// How far each frame of a stack overlaps the next: 0 to 0.9.
        #[schema(minimum = 0, maximum = 0.9, default = 0.3)]
        overlap: f64,
    },
}

/// What keeps the camera still, and what moves before it.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Speed {
    /// The slowest shutter that may be chosen, in seconds, as somebody said it; null where it follows from the rest.
    #[serde(default)]
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub slowest_shutter_s: Option<f64>,
    /// Whether the camera stands on a tripod.
    pub tripod: bool,
    /// The rule for the hand.
    pub school: HandheldRule,
    /// What the subject does.
    pub movement: Movement,
    /// How many pixels of blur are allowed, 0.5 to 100.
    #[schema(minimum = 0.5, maximum = 100, default = 3)]
    pub blur_px: f64,
}

impl Default for Speed {
    /// By hand at one over the focal length, somebody who holds a pose, three pixels of blur.
    fn default() -> Self {
        Self {
            slowest_shutter_s: None,
            tripod: false,
            school: HandheldRule::default(),
            movement: Movement::HeldPose,
            blur_px: 3.0,
        }
    }
}

/// What the job asks of the flashes in time.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pace {
    /// Seconds from one picture (or burst) to the next, 0.1 to 3600.
    #[schema(minimum = 0.1, maximum = 3600, default = 3)]
    pub every_s: f64,
    /// Frames in a burst; 1 where there is none. 1 to 1000.
    #[schema(minimum = 1, maximum = 1000, default = 1)]
    pub burst_frames: u32,
    /// Frames in all, 1 to 100 000.
    #[schema(minimum = 1, maximum = 100_000, default = 100)]
    pub frames: u32,
}

/// A part of the picture with its own exposure.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Region {
    /// Unique in the setup.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called on the rail.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Its part in the picture.
    pub role: Role,
    /// The light that is there.
    pub ambient: Ambient,
    /// Where it is on the set; left out, where its role usually is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<RegionPlace>,
}

/// What the photographer has fixed on the camera. What is missing is left to Tolva.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fixed {
    /// In seconds.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub shutter_s: Option<f64>,
    /// The f-number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.7, maximum = 128)]
    pub f_number: Option<f64>,
    /// ISO.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub iso: Option<f64>,
}

/// How a flash is controlled.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Control {
    /// Power set by hand.
    #[default]
    Manual,
    /// The camera meters the flash; the compensation is set by hand.
    Ttl,
}

/// What a light is there for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum LightWish {
    /// It brings the lit side to where the blend wants it.
    #[default]
    Key,
    /// It leaves its region so far under the lit side.
    Fill {
        /// Lit side over its region, 0 to 6 stops.
        #[schema(minimum = 0, maximum = 6, default = 1, extensions(("x-step" = json!(1.0 / 3.0))))]
        ratio_stops: f64,
    },
    /// It brings its region so far over the lit side.
    Rim {
        /// Its region over the lit side, −3 to 4 stops.
        #[schema(minimum = -3, maximum = 4, default = json!(1.0 / 3.0), extensions(("x-step" = json!(1.0 / 3.0))))]
        over_stops: f64,
    },
    /// It brings its region to a place of its own: a background, a row, a product's face.
    Place {
        /// Stops from mid grey.
        #[schema(minimum = -6, maximum = 3, default = json!(-1), extensions(("x-step" = json!(1.0 / 3.0))))]
        stops: f64,
    },
}

/// One light of a setup: a flash, several of one kind as one, or a continuous lamp.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Light {
    /// The letter it is called by, unique in the setup.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// The unit, from the kit.
    pub flash_id: String,
    /// So many of these units side by side as one, 1 to 6.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 6, default = 1, extensions(("x-step" = json!(1))))]
    pub units: u8,
    /// What is on it, from the kit; none for the bare head.
    #[serde(default)]
    pub modifier_id: Option<String>,
    /// Gels over it, from the kit. At most 4.
    #[serde(default)]
    #[schema(max_items = 4)]
    pub gel_ids: Vec<String>,
    /// What it stands on, from the kit; none where it is on the camera or held.
    #[serde(default)]
    pub stand_id: Option<String>,
    /// The boom on its stand, from the kit; counts where a boom holds it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub boom_id: Option<String>,
    /// The group it listens to on its trigger, 1 to 16.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 16, default = 1)]
    pub group: u8,
    /// The zoom of its head; left out, the widest its table knows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 8, maximum = 400)]
    pub zoom_mm: Option<f64>,
    /// Turned to a ceiling or wall instead of the subject; left out where it is not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bounce: Option<Bounce>,
    /// How far it is turned away from what it is aimed at, in degrees: 0 to 85.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 85, default = 0, extensions(("x-step" = json!(5))))]
    pub feather_deg: f64,
    /// Whether it sits on the camera.
    #[serde(default)]
    pub on_camera: bool,
    /// What it is there for.
    #[serde(default)]
    pub wish: LightWish,
    /// The region it is aimed at; left out, the lit side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub aimed_at: Option<String>,
    /// Manual or automatic.
    #[serde(default)]
    pub control: Control,
    /// From its surface to what it is aimed at, in metres; left out, Tolva chooses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 50, extensions(("x-step" = json!(0.05))))]
    pub distance_m: Option<f64>,
    /// Fixed power in stops under full; left out, Tolva chooses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -12, maximum = 0, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub power_stops: Option<f64>,
    /// What it gives other regions than the one it is aimed at, as it was typed. A region that is not named gets nothing.
    /// Where the set is used, this is worked out from it instead.
    #[serde(default)]
    #[schema(max_items = 12)]
    pub spill: Vec<Spill>,
    /// Where it stands on the set; left out, where such a light usually stands.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<LightPlace>,
}

fn one() -> u8 {
    1
}

/// What a light gives a region it is not aimed at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spill {
    /// The region.
    pub region_id: String,
    /// Against what its own region gets, in stops: 0 where it gets as much, −2 where it gets a quarter. An estimate
    /// until it is measured.
    #[schema(minimum = -12, maximum = 4, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub stops: f64,
}
