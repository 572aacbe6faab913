//! The kit: cameras, lenses, lights, and what goes before, on and under them.

mod flash;
mod modifier;

pub use flash::{
    ContinuousOutput, Duty, Flash, FlashOutput, GuideNumberFeet, GuideNumberMetres, GuideNumberZoom, MeasuredOutput,
    PowerRange, TunedThrough,
};
pub use modifier::{BareSurface, DiscSurface, Modifier, ModifierSurface, RectangleSurface};

use tolva_core::colour::Shift;
use tolva_core::modifier::SurfaceColour;
use tolva_core::optics::Sensor;
use tolva_core::scale::Step;

use super::CardKind;

/// What setups are made of. Each thing once, referred to by its id.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Kit {
    /// Cameras. 1 to 40.
    pub cameras: Vec<Camera>,
    /// Lenses. 1 to 80.
    pub lenses: Vec<Lens>,
    /// Flash units and continuous lamps. At most 40.
    pub flashes: Vec<Flash>,
    /// Modifiers. At most 80.
    pub modifiers: Vec<Modifier>,
    /// Gels. At most 80.
    pub gels: Vec<Gel>,
    /// Neutral density filters. At most 40.
    pub filters: Vec<Filter>,
    /// Stands. At most 40.
    pub stands: Vec<Stand>,
    /// Radio triggers. At most 20.
    pub triggers: Vec<Trigger>,
    /// Booms. At most 20.
    pub booms: Vec<Boom>,
    /// Cards, flags and diffusers, each of its size. At most 40.
    pub boards: Vec<Board>,
    /// Backdrops. At most 20.
    pub backdrops: Vec<Backdrop>,
    /// Meters. At most 20.
    pub meters: Vec<Meter>,
}

/// A lens.
#[derive(Clone, Debug, PartialEq)]
pub struct Lens {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its shortest focal length, 4 to 1200 mm.
    pub shortest_mm: f64,
    /// Its longest; the same for a lens that does not zoom.
    pub longest_mm: f64,
    /// The widest f-number.
    pub widest_f_number: f64,
    /// The smallest aperture's f-number.
    pub smallest_f_number: f64,
    /// What its stabilisation is good for, in stops: 0 without, to 9.
    pub stabilisation_stops: f64,
    /// The nearest it focuses, from the sensor, in metres.
    pub closest_focus_m: f64,
    /// How large the subject is on the sensor there: 1 is life size.
    pub largest_magnification: f64,
    /// Exit pupil over entrance pupil: 1 for a symmetrical lens.
    pub pupil_ratio: f64,
    /// What it weighs, in kilograms; nothing where nobody has weighed it.
    pub weight_kg: Option<f64>,
}

/// A gel.
#[derive(Clone, Debug, PartialEq)]
pub struct Gel {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it shifts a light by, in mired: warmer is positive.
    pub shift_mired: f64,
    /// What it does to the tint, in Duv: greener is positive, so a plus-green gel is.
    pub shift_duv: f64,
    /// What it takes of the light, in stops.
    pub loss_stops: f64,
}

impl Gel {
    /// What it does to a light's colour.
    pub fn shift(&self) -> Shift {
        Shift { mired: self.shift_mired, tint_duv: self.shift_duv }
    }

    /// Whether it takes light and leaves its colour, near enough not to be seen.
    pub fn is_neutral(&self) -> bool {
        self.shift_mired.abs() < 1.0 && self.shift_duv.abs() < 5e-4
    }
}

/// A neutral density filter for the lens.
#[derive(Clone, Debug, PartialEq)]
pub struct Filter {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its density in stops.
    pub density_stops: f64,
}

/// A stand.
#[derive(Clone, Debug, PartialEq)]
pub struct Stand {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// As high as it goes, in metres.
    pub highest_m: f64,
    /// What it may carry, by its maker, in kilograms.
    pub carries_kg: f64,
    /// From its middle to the line between two feet, in metres.
    pub footprint_m: f64,
    /// What it weighs, in kilograms.
    pub weight_kg: f64,
}

/// A boom: an arm on a stand.
#[derive(Clone, Debug, PartialEq)]
pub struct Boom {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// From its stand to the light at its longest, in metres.
    pub reach_m: f64,
    /// What it may carry at its end, by its maker, in kilograms.
    pub carries_kg: f64,
    /// What it weighs, in kilograms.
    pub weight_kg: f64,
}

/// A card, a flag or a diffuser of a size.
#[derive(Clone, Debug, PartialEq)]
pub struct Board {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is of.
    pub kind: CardKind,
    /// From side to side, in metres.
    pub width_m: f64,
    /// How high, in metres.
    pub height_m: f64,
}

/// A backdrop.
#[derive(Clone, Debug, PartialEq)]
pub struct Backdrop {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// From side to side, in metres.
    pub width_m: f64,
    /// How high it hangs, in metres.
    pub height_m: f64,
    /// What it gives back of the light, 0 to 1.
    pub reflectance: f64,
    /// Its colour.
    pub colour: SurfaceColour,
}

/// A radio trigger: one on the camera, and what the units listen on.
#[derive(Clone, Debug, PartialEq)]
pub struct Trigger {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How many channels it has.
    pub channels: u8,
    /// How many groups it commands.
    pub groups: u8,
}

/// A meter of one's own.
#[derive(Clone, Debug, PartialEq)]
pub struct Meter {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How much more light there is than it says, in stops.
    pub more_stops: f64,
    /// One standard deviation of that, in stops.
    pub sure_stops: f64,
}

impl Meter {
    /// How surely a meter says what light there is that nobody has checked: one standard deviation, in stops. Common
    /// practice, no source.
    pub const UNCHECKED_STOPS: f64 = 0.15;
}

/// A camera: the settings it offers, its sensor, and the shutters it can sync flash at.
#[derive(Clone, Debug, PartialEq)]
pub struct Camera {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
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
    pub sync_rated_s: f64,
    /// The sync speed to trust with radio triggers, in seconds: a third of a stop under the rated one or more (common
    /// practice, no source).
    pub sync_safe_s: f64,
    /// The sync speed of its electronic shutter, in seconds; null where it has none that syncs.
    pub sync_electronic_s: Option<f64>,
    /// With flash and an automatic shutter it goes no slower than this, in seconds.
    pub slow_sync_floor_s: f64,
    /// What its stabilisation is good for, in stops: 0 without, to 9.
    pub stabilisation_stops: f64,
    /// Frames a second in a burst.
    pub frames_per_s: f64,
    /// What it weighs, in kilograms; nothing where nobody has weighed it.
    pub weight_kg: Option<f64>,
    /// What frames have taught of it with a lens, kept for every job.
    pub tuned: Vec<TunedLens>,
    /// Its own curve: the level of a grey at each quarter of a stop from −5 to +2.5; empty where it is taken for sRGB's.
    pub curve: Vec<f64>,
}

/// What frames have taught of a camera with one lens.
#[derive(Clone, Debug, PartialEq)]
pub struct TunedLens {
    /// The lens.
    pub lens_id: String,
    /// How much brighter frames come than the settings say, in stops.
    pub more_stops: f64,
    /// One standard deviation of that, in stops, over nothing.
    pub sure_stops: f64,
}

impl Camera {
    /// What is kept of it with a lens.
    pub fn tuned_with(&self, lens_id: &str) -> Option<&TunedLens> {
        self.tuned.iter().find(|one| one.lens_id == lens_id)
    }
}

/// A shutter dial.
#[derive(Clone, Debug, PartialEq)]
pub struct ShutterRange {
    /// The slowest time, in seconds.
    pub slowest_s: f64,
    /// The fastest time, in seconds.
    pub fastest_s: f64,
    /// One click.
    pub step: Step,
}

/// The sensitivities of a camera.
#[derive(Clone, Debug, PartialEq)]
pub struct IsoRange {
    /// The lowest.
    pub base_iso: f64,
    /// The highest that is acceptable.
    pub highest_iso: f64,
    /// One click.
    pub step: Step,
}
