//! The kit: cameras, lenses, lights, and what goes before, on and under them.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::colour::{Kelvin, Light, Shift};
use crate::flash::{Duration, Recycling, ZoomGuideNumber};
use crate::optics::Sensor;
use crate::scale::{PowerStep, Step};

/// What setups are made of. Each thing once, referred to by its id.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Kit {
    /// Cameras. 1 to 40.
    #[schema(min_items = 1, max_items = 40)]
    pub cameras: Vec<Camera>,
    /// Lenses. 1 to 80.
    #[schema(min_items = 1, max_items = 80)]
    pub lenses: Vec<Lens>,
    /// Flash units and continuous lamps. At most 40.
    #[schema(max_items = 40)]
    pub flashes: Vec<Flash>,
    /// Modifiers. At most 80.
    #[schema(max_items = 80)]
    pub modifiers: Vec<Modifier>,
    /// Gels. At most 80.
    #[schema(max_items = 80)]
    pub gels: Vec<Gel>,
    /// Neutral density filters. At most 40.
    #[schema(max_items = 40)]
    pub filters: Vec<Filter>,
    /// Stands. At most 40.
    #[schema(max_items = 40)]
    pub stands: Vec<Stand>,
    /// Radio triggers. At most 20.
    #[schema(max_items = 20)]
    pub triggers: Vec<Trigger>,
}

/// A lens.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
}

/// A gel.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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

impl Gel {
    /// What it does to a light's colour.
    pub fn shift(&self) -> Shift {
        Shift { mired: self.shift_mired, tint_duv: self.shift_duv }
    }
}

/// A neutral density filter for the lens.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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

/// A radio trigger: one on the camera, and what the units listen on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
}

/// A shutter dial.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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

/// A flash unit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
    pub automatic: bool,
    /// The colour of its light at full power, in kelvin.
    #[serde(default = "flash_kelvin")]
    #[schema(minimum = 1000, maximum = 40_000)]
    pub kelvin: f64,
    /// Its tint against the usual white of that temperature, in Duv: positive is green.
    #[serde(default)]
    #[schema(minimum = -0.05, maximum = 0.05)]
    pub tint_duv: f64,
    /// How well a lamp renders colours, 0 to 100 (Ra); null where it is not known, and for flash.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 100)]
    pub rendering: Option<f64>,
    /// How long it burns over its power; empty where it is not known.
    #[serde(default)]
    #[schema(max_items = 20)]
    pub durations: Vec<Duration>,
}

/// What flashes usually are. Common practice, no source: 5000 to 5600 K.
fn flash_kelvin() -> f64 {
    5600.0
}

impl Flash {
    /// The colour of its light.
    pub fn light(&self) -> Light {
        Light::new(Kelvin(self.kelvin), self.tint_duv)
    }

    /// What its store and battery can do.
    pub fn recycling(&self) -> Recycling {
        Recycling {
            full_s: self.recycle_full_s,
            pops_full: self.pops_full,
            rest_after: self.duty.map(|duty| duty.full_pops),
            rest_s: self.duty.map_or(0.0, |duty| duty.rest_s),
        }
    }
}

/// A duty limit: full pops one after the other, and the rest they ask for.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Duty {
    /// So many full pops, each as soon as it is ready.
    #[schema(minimum = 1, maximum = 10_000)]
    pub full_pops: f64,
    /// Then it rests for so long, in seconds.
    #[schema(minimum = 0, maximum = 7200)]
    pub rest_s: f64,
}

/// How strong a flash is: its guide number, or better, a reading of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberZoom {
    /// One line a zoom. 1 to 20.
    #[schema(min_items = 1, max_items = 20)]
    pub table: Vec<ZoomGuideNumber>,
}

/// A continuous lamp.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ContinuousOutput {
    /// What a luxmeter reads a metre away, at full power, without a modifier.
    #[schema(minimum = 1, maximum = 1_000_000)]
    pub lux_at_1_m: f64,
}

/// A guide number in metres.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberMetres {
    /// In metres at ISO 100.
    #[schema(minimum = 1, maximum = 1000)]
    pub guide_number_m: f64,
    /// The zoom or reflector it holds for: "35 mm", "standard reflector".
    #[serde(default)]
    #[schema(max_length = 120)]
    pub holds_for: String,
}

/// A guide number in feet.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GuideNumberFeet {
    /// In feet at ISO 100.
    #[schema(minimum = 3, maximum = 3300)]
    pub guide_number_ft: f64,
    /// The zoom or reflector it holds for.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub holds_for: String,
}

/// A flash-meter reading: this f-number, so far away, at this power, through this modifier.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasuredOutput {
    /// What the meter said.
    #[schema(minimum = 0.7, maximum = 128)]
    pub f_number: f64,
    /// The ISO the meter was set to.
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub iso: f64,
    /// From the light's surface to the meter, in metres.
    #[schema(minimum = 0.1, maximum = 50)]
    pub distance_m: f64,
    /// The power in stops under full: −12 to 0.
    #[schema(minimum = -12, maximum = 0)]
    pub power_stops: f64,
    /// The modifier it was read through; none for a bare head.
    #[serde(default)]
    pub modifier_id: Option<String>,
}

/// A power dial.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PowerRange {
    /// The lowest power in stops under full: −7 is 1/128.
    #[schema(minimum = -12, maximum = 0)]
    pub lowest_stops: f64,
    /// One click.
    pub step: PowerStep,
}

/// A modifier: what shapes the flash.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
    #[schema(minimum = -3, maximum = 8)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BareSurface {}

/// A disc.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiscSurface {
    /// From edge to edge, in metres.
    #[schema(minimum = 0.02, maximum = 10)]
    pub diameter_m: f64,
}

/// A rectangle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RectangleSurface {
    /// One side, in metres.
    #[schema(minimum = 0.02, maximum = 10)]
    pub width_m: f64,
    /// The other, in metres.
    #[schema(minimum = 0.02, maximum = 10)]
    pub height_m: f64,
}
