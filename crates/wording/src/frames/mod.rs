//! Frames that came, in words: what each region was to be and is, what a frame teaches, what to turn after it.

mod lesson;
mod report;
mod revealed;
mod types;

pub use lesson::{beliefs, lesson};
pub use report::{frame_report, frame_says, frame_settings};
pub use revealed::revealed;
pub use types::{
    BeliefSaid, CameOf, CorrectionSaid, DialSaid, FrameRegion, FrameReport, Hidden, Lesson, MarkMeasured, OfKit,
    Revealed, SurfaceSaid,
};

use tolva_planner::setup::{Kit, Setup, Unknown};
use tolva_planner::solver::Outcome;

use crate::words::lower_first;

/// What fired when a frame was taken: the plan's lights, unless the flash did not.
fn fired(outcome: Outcome, flash: Option<bool>) -> Outcome {
    if flash == Some(false) { outcome.without_flash() } else { outcome }
}

/// What an unknown is called.
fn called(what: &Unknown, setup: &Setup, kit: &Kit) -> String {
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
