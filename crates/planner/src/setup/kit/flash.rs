//! Flash units and lamps of the kit.

use tolva_core::colour::{Illuminant, Kelvin};
use tolva_core::flash::{Duration, Recycling, ZoomGuideNumber};
use tolva_core::scale::PowerStep;

/// A flash unit.
#[derive(Clone, Debug, PartialEq)]
pub struct Flash {
    /// Unique in the kit.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How strong it is.
    pub output: FlashOutput,
    /// Its power dial.
    pub power: PowerRange,
    /// From empty to ready after a full pop, in seconds; 0 for a continuous lamp.
    pub recycle_full_s: f64,
    /// Full pops from a battery; null on mains.
    pub pops_full: Option<f64>,
    /// When its head must rest; null where its maker says nothing.
    pub duty: Option<Duty>,
    /// What it loses in high-speed sync at the sync speed, in stops; null where it has none.
    pub high_speed_loss_stops: Option<f64>,
    /// Whether the camera can meter it.
    pub ttl: bool,
    /// The colour of its light at full power, in kelvin.
    pub kelvin: f64,
    /// Its tint against the usual white of that temperature, in Duv: positive is green.
    pub tint_duv: f64,
    /// How well a lamp renders colours, 0 to 100 (Ra); null where it is not known, and for flash.
    pub rendering: Option<f64>,
    /// How long it burns over its power; empty where it is not known.
    pub durations: Vec<Duration>,
    /// What it weighs, in kilograms; nothing where nobody has weighed it.
    pub weight_kg: Option<f64>,
    /// What frames have taught of it through a modifier, kept for every job.
    pub tuned: Vec<TunedThrough>,
}

/// What frames have taught of a unit through one modifier.
#[derive(Clone, Debug, PartialEq)]
pub struct TunedThrough {
    /// The modifier; nothing for the bare unit.
    pub modifier_id: Option<String>,
    /// How much more it gives than its figures say, in stops.
    pub more_stops: f64,
    /// One standard deviation of that, in stops, over nothing.
    pub sure_stops: f64,
}

impl Flash {
    /// What is kept of it through a modifier, or bare.
    pub fn tuned_through(&self, modifier_id: Option<&str>) -> Option<&TunedThrough> {
        self.tuned.iter().find(|one| one.modifier_id.as_deref() == modifier_id)
    }

    /// Whether it is a lamp that burns on, and no flash.
    pub fn burns_on(&self) -> bool {
        matches!(self.output, FlashOutput::Continuous(_))
    }

    /// The colour of its light.
    pub fn light(&self) -> Illuminant {
        Illuminant::new(Kelvin(self.kelvin), self.tint_duv)
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
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Duty {
    /// So many full pops, each as soon as it is ready.
    pub full_pops: f64,
    /// Then it rests for so long, in seconds.
    pub rest_s: f64,
}

/// How strong a flash is: its guide number, or better, a reading of it.
#[derive(Clone, Debug, PartialEq)]
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
#[derive(Clone, Debug, PartialEq)]
pub struct GuideNumberZoom {
    /// One line a zoom. 1 to 20.
    pub table: Vec<ZoomGuideNumber>,
}

/// A continuous lamp.
#[derive(Clone, Debug, PartialEq)]
pub struct ContinuousOutput {
    /// What a luxmeter reads a metre away, at full power, without a modifier.
    pub lux_at_1_m: f64,
    /// How long a battery lasts at full power, in minutes; nothing on mains.
    pub battery_full_min: Option<f64>,
}

/// A guide number in metres.
#[derive(Clone, Debug, PartialEq)]
pub struct GuideNumberMetres {
    /// In metres at ISO 100.
    pub guide_number_m: f64,
    /// The zoom or reflector it holds for: "35 mm", "standard reflector".
    pub holds_for: String,
}

/// A guide number in feet.
#[derive(Clone, Debug, PartialEq)]
pub struct GuideNumberFeet {
    /// In feet at ISO 100.
    pub guide_number_ft: f64,
    /// The zoom or reflector it holds for.
    pub holds_for: String,
}

/// A flash-meter reading: this f-number, so far away, at this power, through this modifier.
#[derive(Clone, Debug, PartialEq)]
pub struct MeasuredOutput {
    /// What the meter said.
    pub f_number: f64,
    /// The ISO the meter was set to.
    pub iso: f64,
    /// From the light's surface to the meter, in metres.
    pub distance_m: f64,
    /// The power in stops under full: −12 to 0.
    pub power_stops: f64,
    /// The modifier it was read through; none for a bare head.
    pub modifier_id: Option<String>,
}

/// A power dial.
#[derive(Clone, Debug, PartialEq)]
pub struct PowerRange {
    /// The lowest power in stops under full: −7 is 1/128.
    pub lowest_stops: f64,
    /// One click.
    pub step: PowerStep,
}
