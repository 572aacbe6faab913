//! The kit: cameras, lenses, lights, and what goes before, on and under them.

mod flash;
mod modifier;

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

pub use flash::{
    ContinuousOutput, Duty, Flash, FlashOutput, GuideNumberFeet, GuideNumberMetres, GuideNumberZoom, MeasuredOutput,
    PowerRange, TunedThrough,
};
pub use modifier::{BareSurface, DiscSurface, Modifier, ModifierSurface, RectangleSurface};

use crate::leaf::{Sensor, Step, SurfaceColour};
use crate::set::CardKind;

/// What setups are made of. Each thing once, referred to by its id. A kit of one's own holds a tenth of what is allowed
/// here at most: a job's kit holds beside that what its setups use and what that kit no longer or never had.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Kit {
    /// Cameras. 1 to 400.
    #[schema(min_items = 1, max_items = 400)]
    pub cameras: Vec<Camera>,
    /// Lenses. 1 to 800.
    #[schema(min_items = 1, max_items = 800)]
    pub lenses: Vec<Lens>,
    /// Flash units and continuous lamps. At most 400.
    #[schema(max_items = 400)]
    pub flashes: Vec<Flash>,
    /// Modifiers. At most 800.
    #[schema(max_items = 800)]
    pub modifiers: Vec<Modifier>,
    /// Gels. At most 800.
    #[schema(max_items = 800)]
    pub gels: Vec<Gel>,
    /// Neutral density filters. At most 400.
    #[schema(max_items = 400)]
    pub filters: Vec<Filter>,
    /// Stands. At most 400.
    #[schema(max_items = 400)]
    pub stands: Vec<Stand>,
    /// Radio triggers. At most 200.
    #[schema(max_items = 200)]
    pub triggers: Vec<Trigger>,
    /// Booms. At most 200. Like the two lists after it, it came with version 6: a document of before has none.
    #[serde(default)]
    #[schema(required = true, max_items = 200)]
    pub booms: Vec<Boom>,
    /// Cards, flags and diffusers, each of its size. At most 400.
    #[serde(default)]
    #[schema(required = true, max_items = 400)]
    pub boards: Vec<Board>,
    /// Backdrops: rolls, cloths, boards to stand before. At most 200.
    #[serde(default)]
    #[schema(required = true, max_items = 200)]
    pub backdrops: Vec<Backdrop>,
    /// Meters. At most 200. It came with version 10: a document of before has none.
    #[serde(default)]
    #[schema(required = true, max_items = 200)]
    pub meters: Vec<Meter>,
}

/// A lens.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lens {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Its shortest focal length, 4 to 1200 mm.
    #[schema(minimum = 4, maximum = 1200)]
    pub shortest_mm: f64,
    /// Its longest; the same for a lens that does not zoom.
    #[schema(minimum = 4, maximum = 1200)]
    pub longest_mm: f64,
    /// The widest f-number.
    #[schema(minimum = 0.7, maximum = 128)]
    pub widest_f_number: f64,
    /// The smallest aperture's f-number.
    #[schema(minimum = 0.7, maximum = 128)]
    pub smallest_f_number: f64,
    /// What its stabilisation is good for, in stops: 0 without, to 9.
    #[schema(minimum = 0, maximum = 9)]
    pub stabilisation_stops: f64,
    /// The nearest it focuses, from the sensor, in metres.
    #[schema(minimum = 0.02, maximum = 20)]
    pub closest_focus_m: f64,
    /// How large the subject is on the sensor there: 1 is life size.
    #[schema(minimum = 0.01, maximum = 10)]
    pub largest_magnification: f64,
    /// Exit pupil over entrance pupil: 1 for a symmetrical lens.
    #[schema(minimum = 0.1, maximum = 10)]
    pub pupil_ratio: f64,
    /// What it weighs, in kilograms; null where nobody has weighed it.
    #[serde(default)]
    #[schema(minimum = 0.01, maximum = 100)]
    pub weight_kg: Option<f64>,
}

/// A gel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Gel {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What it shifts a light by, in mired: warmer is positive.
    #[schema(minimum = -500, maximum = 500)]
    pub shift_mired: f64,
    /// What it does to the tint, in Duv: greener is positive, so a plus-green gel is.
    #[serde(default)]
    #[schema(minimum = -0.05, maximum = 0.05)]
    pub shift_duv: f64,
    /// What it takes of the light, in stops.
    #[schema(minimum = 0, maximum = 8)]
    pub loss_stops: f64,
}

/// A neutral density filter for the lens.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Filter {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Its density in stops.
    #[schema(minimum = 0.1, maximum = 15)]
    pub density_stops: f64,
}

/// A stand.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stand {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// As high as it goes, in metres.
    #[schema(minimum = 0.1, maximum = 8)]
    pub highest_m: f64,
    /// What it may carry, by its maker, in kilograms.
    #[schema(minimum = 0.1, maximum = 100)]
    pub carries_kg: f64,
    /// From its middle to the line between two feet, in metres.
    #[schema(minimum = 0.05, maximum = 3)]
    pub footprint_m: f64,
    /// What it weighs, in kilograms.
    #[schema(minimum = 0.1, maximum = 60)]
    pub weight_kg: f64,
}

/// A boom: an arm on a stand.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Boom {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// From its stand to the light at its longest, in metres.
    #[schema(minimum = 0.3, maximum = 4)]
    pub reach_m: f64,
    /// What it may carry at its end, by its maker, in kilograms.
    #[schema(minimum = 0.1, maximum = 40)]
    pub carries_kg: f64,
    /// What it weighs, in kilograms.
    #[schema(minimum = 0.1, maximum = 40)]
    pub weight_kg: f64,
}

/// A card, a flag or a diffuser of a size: it gives light back, keeps it off or lets it through.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Board {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What it is of.
    pub kind: CardKind,
    /// From side to side, 0.02 to 10 m.
    #[schema(minimum = 0.02, maximum = 10)]
    pub width_m: f64,
    /// How high, 0.02 to 10 m.
    #[schema(minimum = 0.02, maximum = 10)]
    pub height_m: f64,
}

/// A backdrop.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Backdrop {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// From side to side, 0.2 to 20 m.
    #[schema(minimum = 0.2, maximum = 20)]
    pub width_m: f64,
    /// How high it hangs, 0.2 to 10 m.
    #[schema(minimum = 0.2, maximum = 10)]
    pub height_m: f64,
    /// What it gives back of the light, 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub reflectance: f64,
    /// Its colour.
    pub colour: SurfaceColour,
}

/// A meter of one's own: what it reads, less what it is off by, is the light that is there.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Meter {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// How much more light there is than it says, −3 to 3 stops: by frames, or by another meter beside it.
    #[serde(default)]
    #[schema(minimum = -3, maximum = 3, default = 0)]
    pub more_stops: f64,
    /// One standard deviation of that, 0.01 to 3 stops. 0.15 for a meter that nobody has checked (common practice, no
    /// source).
    #[serde(default = "unchecked_meter")]
    #[schema(minimum = 0.01, maximum = 3, default = 0.15)]
    pub sure_stops: f64,
}

fn unchecked_meter() -> f64 {
    tolva_planner::setup::Meter::UNCHECKED_STOPS
}

/// A radio trigger: one on the camera, and what the units listen on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Trigger {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// How many channels it has.
    #[schema(minimum = 1, maximum = 64)]
    pub channels: u8,
    /// How many groups it commands.
    #[schema(minimum = 1, maximum = 16)]
    pub groups: u8,
}

/// A camera: the settings it offers, its sensor, and the shutters it can sync flash at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Camera {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// The sensor.
    pub sensor: Sensor,
    /// The shutter dial.
    pub shutter: ShutterRange,
    /// One click of the aperture dial; its ends are the lens's.
    pub aperture_step: Step,
    /// The sensitivities.
    pub iso: IsoRange,
    /// The rated sync speed in seconds.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub sync_rated_s: f64,
    /// The sync speed to trust with radio triggers, in seconds: a third of a stop under the rated one or more (common
    /// practice, no source).
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub sync_safe_s: f64,
    /// The sync speed of its electronic shutter, in seconds; null where it has none that syncs.
    #[serde(default)]
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub sync_electronic_s: Option<f64>,
    /// With flash and an automatic shutter it goes no slower than this, in seconds.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub slow_sync_floor_s: f64,
    /// What its stabilisation is good for, in stops: 0 without, to 9.
    #[schema(minimum = 0, maximum = 9)]
    pub stabilisation_stops: f64,
    /// Frames a second in a burst.
    #[schema(minimum = 0.1, maximum = 240)]
    pub frames_per_s: f64,
    /// What it weighs, in kilograms; null where nobody has weighed it.
    #[serde(default)]
    #[schema(minimum = 0.01, maximum = 100)]
    pub weight_kg: Option<f64>,
    /// What frames have taught of it, lens by lens, kept for every job. At most 40.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub tuned: Vec<TunedLens>,
    /// Its own curve, found from a bracket: the level of a grey, 0 to 255, at each quarter of a stop from −5 to +2.5; empty
    /// where it is taken for sRGB's.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 31)]
    pub curve: Vec<f64>,
}

/// What frames have taught of a camera with one lens.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TunedLens {
    /// The lens.
    #[schema(min_length = 1, max_length = 60)]
    pub lens_id: String,
    /// How much brighter frames come than the settings say, −12 to 12 stops.
    #[schema(minimum = -12, maximum = 12, default = 0)]
    pub more_stops: f64,
    /// One standard deviation of that, 0.0001 to 12 stops.
    #[schema(minimum = 0.0001, maximum = 12, default = 0.33)]
    pub sure_stops: f64,
}

/// A shutter dial.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShutterRange {
    /// The slowest time, in seconds.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub slowest_s: f64,
    /// The fastest time, in seconds.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub fastest_s: f64,
    /// One click.
    pub step: Step,
}

/// The sensitivities of a camera.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct IsoRange {
    /// The lowest.
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub base_iso: f64,
    /// The highest that is acceptable.
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub highest_iso: f64,
    /// One click.
    pub step: Step,
}
