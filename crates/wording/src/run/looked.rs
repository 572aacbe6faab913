//! What turns when a frame looked too dark or too bright, and why that dial.

use jiff::Timestamp;
use serde::Serialize;
use tolva_planner::frames::Turned;
use tolva_planner::refused::Refused;
use tolva_planner::run::{Looked, looked};
use tolva_planner::setup::{Kit, Setup};
use utoipa::ToSchema;

use crate::document::{Document, Write};
use crate::frames::{DialSaid, dial_said};
use crate::shown::{Said, Show};
use crate::words::in_a_row;

/// What turns.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LookedSaid {
    /// In a line: `Power of A from 1/8 to 1/8 +⅓`.
    pub does: String,
    /// Each dial.
    pub dials: Vec<DialSaid>,
    /// Why that dial.
    pub why: String,
    /// What it is called among what was done: `Face, lit side: +⅓`.
    pub change: String,
    /// By how much the region comes out brighter.
    pub by: Said,
    /// The setup with it done.
    pub setup: Document,
}

/// A region of a setup that came out too dark or too bright, and what turns for it: see [`looked`].
///
/// # Errors
/// What [`looked`] refuses.
pub fn looked_said(
    setup: &Setup,
    kit: &Kit,
    (region_id, thirds): (&str, i32),
    at: Option<Timestamp>,
    show: Show,
    write: &Write<'_>,
) -> Result<LookedSaid, Refused> {
    let found = looked(setup, kit, (region_id, thirds), at)?;
    let dials: Vec<DialSaid> = found.turned.iter().map(|one| dial_said(one, show)).collect();
    let lines = dials.iter().map(|one| format!("{} from {} to {}", one.name, one.from, one.to));
    let region = setup.regions.iter().find(|region| region.id == region_id);
    let name = region.map_or(region_id, |region| region.name.as_str());
    Ok(LookedSaid {
        does: in_a_row(lines),
        why: why(&found, name),
        change: format!("{name}: {}", found.by.thirds()),
        by: found.by.into(),
        setup: write(&found.setup),
        dials,
    })
}

fn why(found: &Looked, region: &str) -> String {
    let has = |of: &dyn Fn(&Turned) -> bool| found.turned.iter().any(of);
    let power = has(&|one| matches!(one, Turned::Power(..) | Turned::Distance(..)));
    let shutter = has(&|one| matches!(one, Turned::Shutter(..)));
    let both = has(&|one| matches!(one, Turned::Iso(..) | Turned::Aperture(..)));
    let share = found.flash_share * 100.0;
    match (power, shutter, both) {
        (true, false, false) => {
            format!("{share:.0} % of the light on “{region}” is flash: its power moves that, and leaves the rest.")
        }
        (false, true, false) => {
            let flash = if share < 1.0 { "" } else { ", and the flash stays as it is" };
            format!("The shutter moves the light that is there{flash}.")
        }
        (true, true, false) => {
            "The shutter moves the light that is there; the power keeps the rest where it was.".to_owned()
        }
        (_, _, true) => {
            "The shutter alone does not go so far, so the other dials of the camera take it; what they would \
                         move besides is put back."
                .to_owned()
        }
        (false, false, false) => "Nothing turns.".to_owned(),
    }
}
