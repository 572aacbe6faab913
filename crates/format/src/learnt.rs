//! What frames that came have taught about a setup.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// What frames that came have taught: how much more light there is than the figures say.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Learnt {
    /// What is believed of each unknown. At most 60.
    #[schema(max_items = 60)]
    pub of: Vec<Believed>,
    /// How they are bound to each other: correlations, −1 to 1, of each with those before it, one after the other. A frame
    /// that shows a sum knows it better than its parts.
    #[serde(default)]
    #[schema(max_items = 1770)]
    pub bound: Vec<f64>,
    /// From how many frames: 1 to 100 000.
    #[schema(minimum = 1, maximum = 100_000)]
    pub frames: u32,
    /// Which of those that are kept, by their ids; empty where they are not. At most 1000.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 1000)]
    pub from: Vec<String>,
}

/// What is believed of one unknown.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Believed {
    /// What.
    pub what: Unknown,
    /// How much more of it there is than its figures say, −12 to 12 stops.
    #[schema(minimum = -12, maximum = 12, default = 0)]
    pub more_stops: f64,
    /// One standard deviation of that, 0.0001 to 12 stops.
    #[schema(minimum = 0.0001, maximum = 12, default = 0.33)]
    pub sure_stops: f64,
}

/// Something that is not known of a setup and shows in its frames. One that names what has gone since is kept and not used.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Unknown {
    /// The camera with its lens: how much brighter its frames come than its settings say.
    Camera {
        /// The camera.
        #[schema(min_length = 1, max_length = 60)]
        camera_id: String,
        /// Its lens.
        #[schema(min_length = 1, max_length = 60)]
        lens_id: String,
    },
    /// A meter that the light there was read with.
    Meter {
        /// The meter.
        #[schema(min_length = 1, max_length = 60)]
        meter_id: String,
    },
    /// The light that is there, on a region.
    Ambient {
        /// The region.
        #[schema(min_length = 1, max_length = 60)]
        region_id: String,
    },
    /// What a light gives where it is aimed: its unit, what is before it, how far it stands.
    Light {
        /// The light.
        #[schema(min_length = 1, max_length = 60)]
        light_id: String,
        /// Its unit.
        #[schema(min_length = 1, max_length = 60)]
        flash_id: String,
        /// What is before it; left out for a bare one.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        modifier_id: Option<String>,
    },
    /// What a light gives a region it is not aimed at, beside what it gives where it is aimed.
    Spill {
        /// The light.
        #[schema(min_length = 1, max_length = 60)]
        light_id: String,
        /// The region.
        #[schema(min_length = 1, max_length = 60)]
        region_id: String,
    },
}
