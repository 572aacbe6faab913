//! The kit a job uses: cameras, flashes, modifiers.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::scale::{PowerStep, Step};

/// What the setups of a job are made of. Each thing once, referred to by its id.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Kit {
    /// Cameras, each with the lens's apertures. 1 to 40.
    #[schema(min_items = 1, max_items = 40)]
    pub cameras: Vec<Camera>,
    /// Flash units. At most 40.
    #[schema(max_items = 40)]
    pub flashes: Vec<Flash>,
    /// Modifiers. At most 80.
    #[schema(max_items = 80)]
    pub modifiers: Vec<Modifier>,
}

/// A camera with its lens: the settings it offers and the shutter it can sync flash at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Camera {
    /// Unique in the kit.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// The shutter dial.
    pub shutter: ShutterRange,
    /// The aperture dial, of the lens that is on it.
    pub aperture: ApertureRange,
    /// The sensitivities.
    pub iso: IsoRange,
    /// The rated sync speed in seconds.
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub sync_rated_s: f64,
    /// The sync speed to trust with radio triggers, in seconds: a third of a stop under the rated one or more (common
    /// practice, no source).
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub sync_safe_s: f64,
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

/// An aperture dial.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ApertureRange {
    /// The widest f-number.
    #[schema(minimum = 0.7, maximum = 128)]
    pub widest_f_number: f64,
    /// The smallest aperture's f-number.
    #[schema(minimum = 0.7, maximum = 128)]
    pub smallest_f_number: f64,
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
}

/// How strong a flash is: its guide number, or better, a reading of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FlashOutput {
    /// A guide number in metres, ISO 100, full power, without a modifier.
    GuideNumberMetres(GuideNumberMetres),
    /// A guide number in feet, ISO 100, full power, without a modifier.
    GuideNumberFeet(GuideNumberFeet),
    /// A flash-meter reading.
    Measured(MeasuredOutput),
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
