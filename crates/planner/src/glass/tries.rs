//! What every try of a move goes by: the setup with all distances said, what stood in glass before, and whether a move
//! clears it.

use super::moves::Move;
use super::showing::{By, Look, Shown};
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::set::{LightDistances, Part, SetNotice, notices, thousandth};
use crate::setup::{Kit, Setup};
use crate::solver::Outcome;
use crate::staging::Stage;

/// What every try goes by.
pub(super) struct Tries<'a> {
    pub prepared: &'a Prepared<'a>,
    pub kit: &'a Kit,
    pub outcome: &'a Outcome,
    /// The setup with every distance said, so that a try needs no plan.
    pub pinned: Setup,
    pub away: LightDistances,
    pub stage: Stage,
    pub before: Vec<(By, Shown)>,
    /// What is seen now.
    pub visible: Vec<(By, Shown)>,
    pub noticed: Vec<SetNotice>,
    pub missing: f64,
}

impl<'a> Tries<'a> {
    pub fn new(prepared: &'a Prepared<'a>, outcome: &'a Outcome, kit: &'a Kit, away: LightDistances) -> Self {
        let pinned = pinned(prepared.setup, &away);
        let stage = Stage::of(&pinned, kit);
        let before = Look::new(&stage, &away).places();
        let noticed = notices(prepared, (kit, &stage), &away);
        let missing = Plan::of(prepared).missing();
        Self { prepared, kit, outcome, pinned, away, stage, before, visible: Vec::new(), noticed, missing }
    }

    /// The setup with moves carried out.
    pub fn changed(&self, moves: &[Move]) -> Setup {
        let mut setup = self.pinned.clone();
        for one in moves {
            one.apply(&mut setup, self.kit, &self.away);
        }
        setup
    }

    /// Whether moves clear a thing from all glass.
    pub fn clear(&self, moves: &[Move], what: &Shown) -> bool {
        let setup = self.changed(moves);
        let away = said(&setup, &self.away);
        let stage = Stage::of(&setup, self.kit);
        Look::new(&stage, &away).clears(&self.before, what)
    }
}

/// What nobody wants in exchange for a clean pane.
pub(super) fn spoils(notice: &SetNotice) -> bool {
    matches!(
        notice,
        SetNotice::InFrame { part: Part::Face | Part::Whole, .. }
            | SetNotice::Inside { .. }
            | SetNotice::NothingArrives { .. }
            | SetNotice::OutOfTheRoom(_)
            | SetNotice::StandTooLow { .. }
            | SetNotice::InOnePlace(..)
    )
}

/// How far lights stand where all distances are said.
pub(super) fn said(setup: &Setup, away: &LightDistances) -> LightDistances {
    LightDistances::of(setup, |index, light| {
        let before = away[index];
        if light.on_camera { before } else { light.distance_m.unwrap_or(before) }
    })
}

/// A setup whose set is used and whose distances are all said, as the lights stand.
pub(super) fn pinned(setup: &Setup, away: &LightDistances) -> Setup {
    let mut pinned = setup.clone();
    pinned.use_set();
    for (light, away) in away.each() {
        pinned.lights[light].distance_m.get_or_insert(thousandth(away));
    }
    pinned
}
