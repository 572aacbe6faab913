//! What the stand-in camera has hidden, beside what was learnt of it.

use tolva_core::scale::Stops;
use tolva_planner::setup::{Kit, Setup};

use super::called;
use super::types::{Hidden, Revealed};

/// So near is near: what a frame can tell.
const NEAR: f64 = 0.15;

/// What was hidden, and how near what was learnt came.
pub fn revealed(setup: &Setup, kit: &Kit, hidden: &[Hidden]) -> Vec<Revealed> {
    hidden
        .iter()
        .map(|Hidden { what, more }| {
            let learnt = setup.learnt.as_ref().and_then(|learnt| learnt.of.iter().find(|one| one.what == *what));
            let says = match learnt {
                None => "nothing was learnt of it".to_owned(),
                Some(one) => {
                    let off = (one.more_stops - more.0).abs();
                    let sure = if off <= one.sure_stops { "within" } else { "outside" };
                    let near = if off <= NEAR { "near" } else { "off" };
                    format!("{near}: {off:.2} stop, {sure} its ±{:.2}", one.sure_stops)
                }
            };
            Revealed {
                name: called(what, setup, kit),
                really: (*more).into(),
                learnt: learnt.map(|one| Stops(one.more_stops).into()),
                says,
            }
        })
        .collect()
}
