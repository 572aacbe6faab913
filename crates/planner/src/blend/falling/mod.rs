//! Falling light: when to change what, so that a blend stays as it is wished while the light goes.
//!
//! From the plan at the setup's hour on, minute by minute, settings stay while every wish is met within a third of a
//! stop. When one no longer is, the settings that will hold longest come next: for light that only falls, that is the
//! least number of changes there can be (an interval is covered by the fewest pieces when each reaches as far as it can).

mod says;
mod walk;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::plan::{Said, Show};
use crate::job::{CheckedSetup, Kit, Problems, Setup};

/// What gives way first as the light falls.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FallingOrder {
    /// The shutter down to its floor; then ISO up and the flash down by as much.
    #[default]
    ShutterFirst,
    /// ISO up and the flash down by as much; then the shutter down to its floor. For what moves.
    IsoFirst,
    /// The aperture open and the flash down by as much; then the shutter, then ISO. For one head, or a tripod in wind.
    ApertureFirst,
}

impl FallingOrder {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 3] = [Self::ShutterFirst, Self::IsoFirst, Self::ApertureFirst];

    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            Self::ShutterFirst => "Shutter first",
            Self::IsoFirst => "ISO first",
            Self::ApertureFirst => "Aperture first",
        }
    }

    /// What it does.
    pub fn meaning(self) -> &'static str {
        match self {
            Self::ShutterFirst => "The shutter slows to its floor, then ISO rises and the flash goes down as much.",
            Self::IsoFirst => "ISO rises and the flash goes down as much, then the shutter slows to its floor.",
            Self::ApertureFirst => "The aperture opens and the flash goes down as much, then the shutter, then ISO.",
        }
    }
}

/// The timetable of a setup's falling light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Timetable {
    /// In a sentence: how many changes, and until when.
    pub says: String,
    /// What gives way first.
    pub order: FallingOrder,
    /// The time zone its clocks keep.
    pub time_zone: String,
    /// The settings to begin with, then every change. Never empty.
    pub steps: Vec<FallingStep>,
    /// The last minute the wish can be had; null where the light lasts for the day that was looked at.
    pub last: Option<LastMinute>,
    /// Whether cloud or a reading in it is made up by a stand-in.
    pub simulated: bool,
}

/// One change.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FallingStep {
    /// When, in UTC.
    pub utc: String,
    /// When, on the clocks of the place: `19:58`.
    pub clock: String,
    /// Minutes after the first step.
    pub minute: f64,
    /// What to do: `Shutter 1/200 to 1/125`. The first says what to begin with.
    pub does: Vec<String>,
    /// The shutter: `1/125`.
    pub shutter: String,
    /// The aperture: `f/9`.
    pub aperture: String,
    /// The sensitivity: `ISO 100`.
    pub iso: String,
    /// The flash: `A at 1/8, 1.5 m`; `A off`; null without one.
    pub flash: Option<String>,
    /// For how long it holds, in minutes.
    pub holds_min: f64,
    /// The same, as said: `9 min`.
    pub holds: String,
    /// Where each region comes out when the step begins.
    pub regions: Vec<RegionThen>,
    /// What to know: `The shutter is at its floor.`
    pub notes: Vec<String>,
}

/// Where a region comes out.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RegionThen {
    /// What it is called.
    pub name: String,
    /// Ambient and flash together.
    pub together: Said,
    /// Its light: `EV 11.2`.
    pub ev: String,
}

/// The end of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LastMinute {
    /// When, in UTC.
    pub utc: String,
    /// On the clocks of the place.
    pub clock: String,
    /// Minutes after the first step.
    pub minute: f64,
    /// Why: which limits are reached, and that waiting no longer helps.
    pub says: String,
}

/// The timetable of a setup, from its hour to the last usable minute, a day at most.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, and `/setup/scene` where it has no place and hour.
pub fn falling(setup: &Setup, kit: &Kit, show: Show) -> Result<Timetable, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let Some(scene) = &checked.scene else {
        return Err(Problems::one("/setup/scene", "falling light needs a place and an hour: give them first"));
    };
    let walk = walk::Walk::new(&checked, scene);
    Ok(says::timetable(&checked, scene, &walk, show))
}

#[cfg(test)]
mod tests;
