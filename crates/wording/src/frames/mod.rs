//! Frames that came, in words: what each region was to be and is, what a frame teaches, what to turn after it.

mod lesson;
mod report;
mod revealed;
mod same;
mod types;

pub use lesson::{beliefs, lesson};
pub use report::{frame_report, frame_says, frame_settings};
pub use revealed::revealed;
pub(crate) use same::kept_called;
pub use same::{FrameOfShot, PlateSaid, SameSaid, held_to_pictures};
pub use types::{
    BeliefSaid, CameOf, CorrectionSaid, DialSaid, FrameRegion, FrameReport, Hidden, Lesson, MarkMeasured, OfKit,
    Revealed, SurfaceSaid,
};

use tolva_core::scale::Power;
use tolva_planner::frames::Turned;
use tolva_planner::setup::{Kit, Setup, Unknown};
use tolva_planner::solver::Outcome;

use crate::shown::Show;
use crate::words::lower_first;

/// What fired when a frame was taken: the plan's lights, unless the flash did not.
fn fired(outcome: Outcome, flash: Option<bool>) -> Outcome {
    if flash == Some(false) { outcome.without_flash() } else { outcome }
}

/// What an unknown is called.
pub(crate) fn called(what: &Unknown, setup: &Setup, kit: &Kit) -> String {
    let region = |id: &String| {
        let found = setup.regions.iter().find(|region| &region.id == id);
        found.map_or_else(|| id.clone(), |region| format!("“{}”", region.name))
    };
    match what {
        Unknown::Camera { lens_id, .. } => {
            let lens = kit.lenses.iter().find(|lens| &lens.id == lens_id);
            format!("Camera with {}", lens.map_or(lens_id.as_str(), |lens| lens.name.as_str()))
        }
        Unknown::Meter { meter_id } => {
            let meter = kit.meters.iter().find(|one| &one.id == meter_id);
            meter.map_or_else(|| meter_id.clone(), |meter| meter.name.clone())
        }
        Unknown::Ambient { region_id } => format!("Light that is there on {}", region(region_id)),
        Unknown::Light { light_id, flash_id, modifier_id } => {
            let unit = kit.flashes.iter().find(|one| &one.id == flash_id);
            let unit = unit.map_or(flash_id.as_str(), |unit| unit.name.as_str());
            let through = modifier_id.as_ref().and_then(|id| kit.modifiers.iter().find(|one| &one.id == id));
            let through = through.map_or_else(String::new, |one| format!(", {}", lower_first(&one.name)));
            format!("Flash {light_id}: {}{through}", lower_first(unit))
        }
        Unknown::Spill { light_id, region_id } => format!("What {light_id} gives {}", region(region_id)),
    }
}

/// A dial that is turned, in words.
pub(crate) fn dial_said(of: &Turned, show: Show) -> DialSaid {
    let said = |name: &str, from: String, to: String| DialSaid { name: name.to_owned(), from, to };
    let power = |at: &Option<Power>| at.map_or_else(|| "off".to_owned(), |power| power.label(show.power()));
    match of {
        Turned::Shutter(from, to) => said("Shutter", from.label(), to.label()),
        Turned::Aperture(from, to) => said("Aperture", from.label(), to.label()),
        Turned::Iso(from, to) => said("ISO", from.label(), to.label()),
        Turned::Power(id, from, to) => said(&format!("Power of {id}"), power(from), power(to)),
        Turned::Distance(id, from, to) => {
            said(&format!("Distance of {id}"), from.label(show.metres()), to.label(show.metres()))
        }
    }
}
