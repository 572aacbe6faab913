//! Fixes, in words.

use std::collections::BTreeMap;

use tolva_planner::fixes::{Fix as Code, FixKind, Outside};
use tolva_planner::solved::Solved;

use crate::changes::{Names, all_do, guide_number};
use crate::document::Write;
use crate::leaf;
use crate::plan::Fix;
use crate::shortfalls::Whose;
use crate::words::lights_at;
use tolva_core::scale::PowerNotation;

/// A fix as it is sent.
pub(crate) fn fix(fix: Code, names: Names<'_>, write: &Write<'_>) -> Fix {
    match fix.what {
        FixKind::Changes(solved) => {
            let says = came_of(&solved, names);
            let Solved { changes, setup, .. } = *solved;
            let does = all_do(&changes, names);
            let changes = changes.into_iter().map(leaf::Change::from).collect();
            Fix {
                does,
                says,
                closes: fix.closes,
                changes,
                outside: None,
                numbers: BTreeMap::new(),
                setup: Some(write(&setup)),
            }
        }
        FixKind::Outside(outside) => {
            let (does, says) = done_outside(&outside, names);
            Fix {
                does,
                says,
                closes: fix.closes,
                changes: Vec::new(),
                outside: Some(outside.code()),
                numbers: numbers(&outside),
                setup: None,
            }
        }
    }
}

fn came_of(solved: &Solved, names: Names<'_>) -> String {
    let camera = solved.settings.label();
    match &solved.shortfall {
        Some(shortfall) => {
            let whose = Whose { setup: &solved.setup, kit: names.kit, settings: solved.settings };
            format!("{camera}. Nearer, not there: {}", whose.says(shortfall))
        }
        None => format!("{camera}{}.", lights_at(&solved.lights, PowerNotation::Fraction)),
    }
}

/// The numbers of something to do outside Tolva.
fn numbers(outside: &Outside) -> BTreeMap<&'static str, f64> {
    match outside {
        Outside::ShadeSubject(stops) | Outside::DarkenSubject(stops) | Outside::DenserFilter(stops) => {
            BTreeMap::from([("stops", stops.0)])
        }
        Outside::NeutralGel { stops, .. } | Outside::Bounce { stops, .. } => BTreeMap::from([("stops", stops.0)]),
        Outside::KeepSpillOff(_) => BTreeMap::new(),
        Outside::StrongerUnit { short, guide_number_m, side_by_side } => {
            BTreeMap::from([("stops", short.0), ("guide_number_m", *guide_number_m), ("units", *side_by_side)])
        }
        Outside::HigherIso { to, highest } => BTreeMap::from([("iso", to.exact), ("highest_iso", highest.exact)]),
    }
}

/// What to do, and what it gives.
fn done_outside(outside: &Outside, names: Names<'_>) -> (String, String) {
    let says = |does: String, says: &str| (does, says.to_owned());
    match outside {
        Outside::ShadeSubject(over) => says(
            format!("Take {} of ambient off the subject", over.amount()),
            "Turn it out of the light, shade it, or hold something black on its lit side.",
        ),
        Outside::DarkenSubject(over) => says(
            format!("Take {} off the subject", over.amount()),
            "Turn it away from the light, shade it, or find something brighter behind it.",
        ),
        Outside::KeepSpillOff(region) => says(
            format!("Keep what spills off “{}”", names.setup.regions[*region].name),
            "Turn the other lights, put a grid or a flag on them, or bring them nearer.",
        ),
        Outside::StrongerUnit { short, guide_number_m, side_by_side } => (
            format!("Use {} more power", short.amount()),
            format!(
                "A unit with guide number {} or more, or {side_by_side:.0} of these side by side.",
                guide_number(*guide_number_m, names.show.metres())
            ),
        ),
        Outside::DenserFilter(missing) => says(
            format!("Put a {:.0}-stop neutral density filter on the lens", (missing.0 - 1e-6).ceil()),
            "None in the kit is dense enough.",
        ),
        Outside::HigherIso { to, highest } => {
            (format!("Accept {}", to.label()), format!("The kit's highest acceptable is {}.", highest.label()))
        }
        Outside::NeutralGel { light_id, stops } => says(
            format!("Put {} of neutral gel on {light_id}", stops.amount()),
            "The kit has none that dense: tissue or a white cloth does too, and makes it softer. Nothing that burns near \
             a hot head.",
        ),
        Outside::Bounce { light_id, stops } => (
            format!("Bounce {light_id} off a ceiling or wall"),
            format!("A white one takes two to three stops of the {} there are too many.", stops.amount()),
        ),
    }
}
