//! Flash units and lamps of the kit.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::leaf::{Duration, PowerStep, ZoomGuideNumber};

/// A flash unit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Flash {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// How strong it is.
    pub output: FlashOutput,
    /// Its power dial.
    pub power: PowerRange,
    /// From empty to ready after a full pop, in seconds; 0 for a continuous lamp.
    #[schema(minimum = 0, maximum = 60)]
    pub recycle_full_s: f64,
    /// Full pops from a battery; null on mains.
    #[serde(default)]
    #[schema(minimum = 1, maximum = 100_000)]
    pub pops_full: Option<f64>,
    /// When its head must rest; null where its maker says nothing.
    #[serde(default)]
    pub duty: Option<Duty>,
    /// What it loses in high-speed sync at the sync speed, in stops; null where it has none.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 6)]
    pub high_speed_loss_stops: Option<f64>,
    /// Whether the camera can meter it.
    // A kit that was being changed in a browser while Tolva was renewed has the name of before.
    #[serde(alias = "automatic")]
    pub ttl: bool,
    /// The colour of its light at full power, in kelvin.
    #[serde(default = "flash_kelvin")]
    #[schema(minimum = 1000, maximum = 40_000, default = 5600)]
    pub kelvin: f64,
    /// Its tint against the usual white of that temperature, in Duv: positive is green.
    #[serde(default)]
    #[schema(minimum = -0.05, maximum = 0.05, default = 0)]
    pub tint_duv: f64,
    /// How well a lamp renders colours, 0 to 100 (Ra); null where it is not known, and for flash.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 100)]
    pub rendering: Option<f64>,
    /// How long it burns over its power; empty where it is not known.
    #[serde(default)]
    #[schema(max_items = 20)]
    pub durations: Vec<Duration>,
    /// What it weighs, in kilograms; null where nobody has weighed it.
    #[serde(default)]
    #[schema(minimum = 0.01, maximum = 100)]
    pub weight_kg: Option<f64>,
    /// What frames have taught of it, modifier by modifier, kept for every job. At most 40.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub tuned: Vec<TunedThrough>,
}

/// What frames have taught of a unit through one modifier.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TunedThrough {
    /// The modifier; left out for the bare unit.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub modifier_id: Option<String>,
    /// How much more it gives than its figures say, −12 to 12 stops.
    #[schema(minimum = -12, maximum = 12, default = 0)]
    pub more_stops: f64,
    /// One standard deviation of that, 0.0001 to 12 stops.
    #[schema(minimum = 0.0001, maximum = 12, default = 0.33)]
    pub sure_stops: f64,
}

/// What flashes usually are. Common practice, no source: 5000 to 5600 K.
fn flash_kelvin() -> f64 {
    5600.0
}

/// A duty limit: full pops one after the other, and the rest they ask for.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Duty {
    /// So many full pops, each as soon as it is ready.
    #[schema(minimum = 1, maximum = 10_000, default = 30)]
    pub full_pops: f64,
    /// Then it rests for so long, in seconds.
    #[schema(minimum = 0, maximum = 7200, default = 600)]
    pub rest_s: f64,
}

/// How strong a flash is: its guide number, or better, a reading of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FlashOutput {
    /// A guide number in metres, ISO 100, full power, without a modifier.
    GuideNumberMetres(GuideNumberMetres),
    /// A guide number in feet, ISO 100, full power, without a modifier.
    GuideNumberFeet(GuideNumberFeet),
    /// Guide numbers over the zoom of its head.
    GuideNumberZoom(GuideNumberZoom),
    /// A flash-meter reading.
    Measured(MeasuredOutput),
    /// A lamp that burns on: it counts as ambient.
    Continuous(ContinuousOutput),
}

/// Guide numbers over the zoom.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberZoom {
    /// One line a zoom. 1 to 20.
    #[schema(min_items = 1, max_items = 20)]
    pub table: Vec<ZoomGuideNumber>,
}

/// A continuous lamp.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ContinuousOutput {
    /// What a luxmeter reads a metre away, at full power, without a modifier.
    #[schema(minimum = 1, maximum = 1_000_000, default = 5000)]
    pub lux_at_1_m: f64,
    /// How long a battery lasts at full power, in minutes; null on mains.
    #[serde(default)]
    #[schema(minimum = 1, maximum = 10_000)]
    pub battery_full_min: Option<f64>,
}

/// A guide number in metres.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberMetres {
    /// In metres at ISO 100.
    #[schema(minimum = 1, maximum = 1000, default = 40, extensions(("x-step" = json!(1))))]
    pub guide_number_m: f64,
    /// The zoom or reflector it holds for: "35 mm", "standard reflector".
    #[serde(default)]
    #[schema(max_length = 120)]
    pub holds_for: String,
}

/// A guide number in feet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberFeet {
    /// In feet at ISO 100.
    #[schema(minimum = 3, maximum = 3300, default = 130, extensions(("x-step" = json!(1))))]
    pub guide_number_ft: f64,
    /// The zoom or reflector it holds for.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub holds_for: String,
}

/// A flash-meter reading: this f-number, so far away, at this power, through this modifier.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasuredOutput {
    /// What the meter said.
    #[schema(minimum = 0.7, maximum = 128, default = 8)]
    pub f_number: f64,
    /// The ISO the meter was set to.
    #[schema(minimum = 3, maximum = 10_000_000, default = 100)]
    pub iso: f64,
    /// From the light's surface to the meter, in metres.
    #[schema(minimum = 0.1, maximum = 50, default = 2)]
    pub distance_m: f64,
    /// The power in stops under full: −12 to 0.
    #[schema(minimum = -12, maximum = 0, default = 0, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub power_stops: f64,
    /// The modifier it was read through; none for a bare head.
    #[serde(default)]
    pub modifier_id: Option<String>,
}

/// A power dial.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PowerRange {
    /// The lowest power in stops under full: −7 is 1/128.
    #[schema(minimum = -12, maximum = 0, extensions(("x-step" = json!(1))))]
    pub lowest_stops: f64,
    /// One click.
    pub step: PowerStep,
}
