//! The least move that clears something from glass, with what it costs. Each is tried on the set itself; what counts is
//! where things stand, not how bright they are, so that a plan that comes out brighter shows nothing again.

use tolva_core::scale::Stops;

use super::cost::{Cost, dear};
use super::families::Family;
use super::least::least;
use super::moves::Move;
use super::showing::{By, Finding, LEAST_SHOWN, Look, Shown};
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::set::{Part, SetNotice, distances_of, notices};
use crate::setup::{Kit, Setup};
use crate::solver::Outcome;
use crate::staging::{Stage, Thing};

/// At most so many are told of each thing.
const MOST: usize = 6;

/// A way to clear something.
#[derive(Clone, Debug, PartialEq)]
pub struct Remedy {
    /// What is done: one move, or two.
    pub moves: Vec<Move>,
    /// The setup with it.
    pub setup: Setup,
    /// What it costs.
    pub cost: Cost,
}

/// What there is to do about one thing that shows.
#[derive(Clone, Debug, PartialEq)]
pub struct Remedies {
    /// What shows.
    pub what: Shown,
    /// The moves that clear it from all glass, the cheapest first.
    pub all: Vec<Remedy>,
    /// How much darker what shows would have to be, by dark clothes or a dark cloth; nothing for a light.
    pub darker: Option<Stops>,
}

/// What there is to do about each thing that shows. Bounded: each move is looked for in a few dozen tries.
pub fn remedies(prepared: &Prepared<'_>, outcome: &Outcome, kit: &Kit, findings: &[Finding]) -> Vec<Remedies> {
    let mut of: Vec<Shown> = Vec::new();
    for finding in findings.iter().filter(|one| one.shows()) {
        if !of.contains(&finding.what) {
            of.push(finding.what.clone());
        }
    }
    let away = distances_of(prepared, Some(outcome));
    let mut tries = Tries::new(prepared, outcome, kit, away);
    tries.visible = findings.iter().filter(|one| one.shows()).map(|one| (one.by.clone(), one.what.clone())).collect();
    of.into_iter().map(|what| tries.of(what, findings)).collect()
}

/// What every try goes by.
pub(super) struct Tries<'a> {
    pub prepared: &'a Prepared<'a>,
    pub kit: &'a Kit,
    pub outcome: &'a Outcome,
    /// The setup with every distance said, so that a try needs no plan.
    pub pinned: Setup,
    pub away: Vec<f64>,
    pub stage: Stage,
    before: Vec<(By, Shown)>,
    /// What is seen now.
    visible: Vec<(By, Shown)>,
    noticed: Vec<SetNotice>,
    pub missing: f64,
}

impl<'a> Tries<'a> {
    fn new(prepared: &'a Prepared<'a>, outcome: &'a Outcome, kit: &'a Kit, away: Vec<f64>) -> Self {
        let mut pinned = prepared.setup.clone();
        pinned.use_set();
        for (light, away) in pinned.lights.iter_mut().zip(&away) {
            light.distance_m.get_or_insert((away * 1000.0).round() / 1000.0);
        }
        let stage = Stage::of(&pinned, kit);
        let before = Look::new(&stage, &away).places();
        let noticed = notices(prepared, (kit, &stage), &away);
        let missing = Plan::of(prepared).missing();
        Self { prepared, kit, outcome, pinned, away, stage, before, visible: Vec::new(), noticed, missing }
    }

    fn of(&self, what: Shown, findings: &[Finding]) -> Remedies {
        let families = self.families(&what, findings);
        let mut all: Vec<Remedy> = families.iter().filter_map(|family| self.least_of(&[], family, &what)).collect();
        all.extend(self.bounces(&what).into_iter().filter_map(|one| self.worth(vec![one], &what)));
        all.extend(self.drowned(&what, findings));
        let dear = |remedy: &Remedy| dear(&remedy.cost, &remedy.moves);
        // Where nothing alone does it, or only what nobody would do, two together may.
        let cheapest = all.iter().map(&dear).fold(f64::INFINITY, f64::min);
        if cheapest > TOO_DEAR {
            all.extend(self.in_two(&families, &what).into_iter().filter(|two| dear(two) < cheapest));
        }
        all.sort_by(|a, b| dear(a).total_cmp(&dear(b)));
        // Of one kind, to either side, the cheaper is enough.
        let mut codes: Vec<Vec<&'static str>> = Vec::new();
        all.retain(|remedy| {
            let code: Vec<&'static str> = remedy.moves.iter().map(Move::code).collect();
            let new = !codes.contains(&code);
            codes.push(code);
            new
        });
        all.truncate(MOST);
        let over = findings.iter().filter(|one| one.what == what).map(|one| one.over.0).fold(f64::MIN, f64::max);
        let darker = (!matches!(what, Shown::Light(_))).then_some(Stops(over - LEAST_SHOWN.0));
        Remedies { what, all, darker }
    }

    fn changed(&self, moves: &[Move]) -> Setup {
        let mut setup = self.pinned.clone();
        for one in moves {
            one.apply(&mut setup, self.kit, &self.away);
        }
        setup
    }

    fn clear(&self, moves: &[Move], what: &Shown) -> bool {
        let setup = self.changed(moves);
        let away = said(&setup, &self.away);
        let stage = Stage::of(&setup, self.kit);
        Look::new(&stage, &away).clears(&self.before, what)
    }

    fn least_of(&self, first: &[Move], family: &Family, what: &Shown) -> Option<Remedy> {
        let with = |amount: f64| {
            let mut moves = first.to_vec();
            moves.push((family.make)(amount));
            moves
        };
        let amount = least(family.most, family.grain, |amount| self.clear(&with(amount), what))?;
        self.worth(with(amount), what)
    }

    /// A move that clears, as it comes out; nothing where it puts something into the frame or into something, where the
    /// plan that follows has it show again, or something else instead.
    fn worth(&self, moves: Vec<Move>, what: &Shown) -> Option<Remedy> {
        let mut setup = self.prepared.setup.clone();
        for one in &moves {
            one.apply(&mut setup, self.kit, &self.away);
        }
        let prepared = Prepared::new(&setup, self.kit).ok()?;
        let plan = Plan::of(&prepared);
        let away = distances_of(&prepared, Some(&plan.outcome));
        let stage = Stage::of(&setup, self.kit);
        let look = Look::new(&stage, &away);
        // Another light on you, or on a wall, may have them show instead.
        let comes_to_show = |found: &Finding| {
            found.shows() && !self.visible.iter().any(|(by, what)| *by == found.by && *what == found.what)
        };
        if !look.clears(&self.before, what) || look.findings(&prepared, &plan.outcome).iter().any(comes_to_show) {
            return None;
        }
        let spoils = |notice: &SetNotice| {
            let bad = matches!(
                notice,
                SetNotice::InFrame { part: Part::Face | Part::Whole, .. }
                    | SetNotice::Inside { .. }
                    | SetNotice::NothingArrives { .. }
                    | SetNotice::OutOfTheRoom(_)
                    | SetNotice::StandTooLow { .. }
                    | SetNotice::InOnePlace(..)
            );
            bad && !self.noticed.iter().any(|one| one.code() == notice.code() && one.about() == notice.about())
        };
        if notices(&prepared, (self.kit, &stage), &away).iter().any(spoils) || self.leaves_the_frame(&stage) {
            return None;
        }
        let cost = self.cost(&moves, what, &setup, (&prepared, &plan), &stage, &away);
        drop(prepared);
        Some(Remedy { moves, setup, cost })
    }

    /// Whether the subject is no longer in the frame as it was.
    fn leaves_the_frame(&self, stage: &Stage) -> bool {
        let inside = |stage: &Stage| {
            stage.view.project(stage.laid.anchor()).is_some_and(|at| at.right.abs() < 0.42 && at.up.abs() < 0.45)
        };
        inside(&self.stage) && !inside(stage)
    }

    /// A light by way of the ceiling, a wall or a white card that stands.
    fn bounces(&self, what: &Shown) -> Vec<Move> {
        let Shown::Light(light) = what else { return Vec::new() };
        let light_id = &self.pinned.lights[*light].id;
        let off = self
            .stage
            .surfaces
            .iter()
            .filter(|(thing, matt, _)| matches!(thing, Thing::Wall(_) | Thing::Ceiling) && matt.reflectance > 0.3);
        let all = off.map(|(off, ..)| Move::Bounce { light_id: light_id.clone(), off: off.clone() });
        all.filter(|one| self.clear(std::slice::from_ref(one), what)).collect()
    }

    /// More of the light that is there, until it drowns: by thirds, up to three stops.
    fn drowned(&self, what: &Shown, findings: &[Finding]) -> Option<Remedy> {
        let over = findings.iter().filter(|one| one.what == *what).map(|one| one.over.0).fold(f64::MIN, f64::max);
        let least = ((over - LEAST_SHOWN.0) * 3.0).ceil() / 3.0;
        let shows_after = |stops: f64| {
            let mut setup = self.prepared.setup.clone();
            let one = Move::RaiseAmbient { stops };
            one.apply(&mut setup, self.kit, &self.away);
            if setup.blend == self.prepared.setup.blend {
                return None;
            }
            let prepared = Prepared::new(&setup, self.kit).ok()?;
            let plan = Plan::of(&prepared);
            let away = distances_of(&prepared, Some(&plan.outcome));
            let stage = Stage::of(&setup, self.kit);
            let found = Look::new(&stage, &away).findings(&prepared, &plan.outcome);
            let shows = found.iter().any(|one| one.shows() && one.what == *what);
            let cost = self.cost(std::slice::from_ref(&one), what, &setup, (&prepared, &plan), &stage, &away);
            drop(prepared);
            Some((shows, Remedy { moves: vec![one], setup, cost }))
        };
        let steps = (0..4).map(|step| least + f64::from(step) / 3.0).filter(|stops| (0.3..=3.01).contains(stops));
        let (stops, found) =
            steps.filter_map(|stops| Some((stops, shows_after(stops)?))).find(|(_, (shows, _))| !shows)?;
        // Half of it does not do.
        shows_after(stops / 2.0).is_some_and(|(shows, _)| shows).then_some(found.1)
    }

    /// Where no single move is enough: a first one as far as it is usual, then the least of a second.
    fn in_two(&self, families: &[Family], what: &Shown) -> Vec<Remedy> {
        let part = |family: &Family| (family.make)((family.most * 0.4 / family.grain).round() * family.grain);
        let mut all = Vec::new();
        for (index, first) in families.iter().enumerate().take(MOST_FIRST) {
            let first = part(first);
            for second in families.iter().skip(index + 1).take(MOST_SECOND) {
                if (second.make)(second.grain).code() != first.code() {
                    all.extend(self.least_of(std::slice::from_ref(&first), second, what));
                }
            }
            if all.len() >= 3 {
                break;
            }
        }
        all
    }
}

/// Dearer than this, two moves together are looked for as well. Chosen.
const TOO_DEAR: f64 = 2.5;
/// So many first and second moves are put together where one is not enough.
const MOST_FIRST: usize = 6;
const MOST_SECOND: usize = 10;

/// How far lights stand where all distances are said.
fn said(setup: &Setup, away: &[f64]) -> Vec<f64> {
    setup
        .lights
        .iter()
        .zip(away)
        .map(|(light, away)| if light.on_camera { *away } else { light.distance_m.unwrap_or(*away) })
        .collect()
}
