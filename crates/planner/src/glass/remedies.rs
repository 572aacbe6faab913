//! The least move that clears something from glass, with what it costs. Each is tried on the set itself; what counts is
//! where things stand, not how bright they are, so that a plan that comes out brighter shows nothing again.

use rayon::prelude::*;
use tolva_core::scale::Stops;

use super::cost::{Cost, dear};
use super::families::Family;
use super::least::least;
use super::moves::Move;
use super::showing::{Finding, LEAST_SHOWN, Look, Shown};
use super::tries::{Tries, said, spoils};
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::set::{SetNotice, distances_of, notices};
use crate::setup::{Kit, Setup};
use crate::solver::Outcome;
use crate::staging::{Stage, Thing};

/// What there is to do is looked for of the strongest things only; the others have their turn when these are gone.
const MOST_THINGS: usize = 4;
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

/// What there is to do about each thing that shows, of the strongest four. Bounded: each move is looked for in a few dozen tries.
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
    of.truncate(MOST_THINGS);
    of.into_par_iter().map(|what| tries.of(what, findings)).collect()
}

impl Tries<'_> {
    fn of(&self, what: Shown, findings: &[Finding]) -> Remedies {
        let families = self.families(&what, findings);
        let singles = families.iter().filter_map(|family| self.least_of(&[], family, &what));
        let moves: Vec<Vec<Move>> = singles.chain(self.bounces(&what).into_iter().map(|one| vec![one])).collect();
        let mut all = self.best_of(moves, &what);
        all.extend(self.drowned(&what, findings));
        let dear = |remedy: &Remedy| dear(&remedy.cost, &remedy.moves);
        // Where nothing alone does it, or only what nobody would do, two together may.
        let cheapest = all.iter().map(&dear).fold(f64::INFINITY, f64::min);
        if cheapest > TOO_DEAR {
            let two = self.best_of(self.in_two(&families, &what), &what);
            all.extend(two.into_iter().filter(|two| dear(two) < cheapest));
        }
        all.sort_by(|a, b| dear(a).total_cmp(&dear(b)));
        all.truncate(MOST);
        let over = findings.iter().filter(|one| one.what == what).map(|one| one.over.0).fold(f64::MIN, f64::max);
        let darker = (!matches!(what, Shown::Light(_))).then_some(Stops(over - LEAST_SHOWN.0));
        Remedies { what, all, darker }
    }

    /// After a first move, or none, the least of another that clears.
    fn least_of(&self, first: &[Move], family: &Family, what: &Shown) -> Option<Vec<Move>> {
        let with = |amount: f64| {
            let mut moves = first.to_vec();
            moves.push((family.make)(amount));
            moves
        };
        least(family.most, family.grain, |amount| self.clear(&with(amount), what)).map(with)
    }

    /// The best of moves that clear, as they come out. What can be told of them without a plan says which are planned first;
    /// of one kind, to either side, one is enough.
    fn best_of(&self, moves: Vec<Vec<Move>>, what: &Shown) -> Vec<Remedy> {
        let mut by_geometry: Vec<(f64, Vec<Move>)> = moves
            .into_iter()
            .map(|moves| {
                let setup = self.changed(&moves);
                let stage = Stage::of(&setup, self.kit);
                let cost = self.geometric(&moves, what, &setup, (&stage, &said(&setup, &self.away)));
                (dear(&cost, &moves), moves)
            })
            .collect();
        by_geometry.sort_by(|a, b| a.0.total_cmp(&b.0));
        let mut all: Vec<Remedy> = Vec::new();
        let codes = |moves: &[Move]| moves.iter().map(Move::code).collect::<Vec<_>>();
        for (_, moves) in by_geometry {
            if all.len() >= MOST {
                break;
            }
            if !all.iter().any(|one| codes(&one.moves) == codes(&moves)) {
                all.extend(self.worth(moves, what));
            }
        }
        all
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
        let stage = prepared.stage.clone()?;
        let look = Look::new(&stage, &away);
        // Another light on you, or on a wall, may have them show instead.
        let comes_to_show = |found: &Finding| {
            found.shows() && !self.visible.iter().any(|(by, what)| *by == found.by && *what == found.what)
        };
        if !look.clears(&self.before, what) || look.findings(&prepared, &plan.outcome).iter().any(comes_to_show) {
            return None;
        }
        let comes = |notice: &SetNotice| {
            spoils(notice)
                && !self.noticed.iter().any(|one| one.code() == notice.code() && one.about() == notice.about())
        };
        if notices(&prepared, (self.kit, &stage), &away).iter().any(comes) || self.leaves_the_frame(&stage) {
            return None;
        }
        let cost = self.cost(&moves, what, &setup, (&prepared, &plan), (&stage, &away));
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

    /// More of the light that is there, or less of the light that shows, until it drowns: by thirds, up to three stops.
    fn drowned(&self, what: &Shown, findings: &[Finding]) -> Vec<Remedy> {
        let over = findings.iter().filter(|one| one.what == *what).map(|one| one.over.0).fold(f64::MIN, f64::max);
        let least = (((over - LEAST_SHOWN.0) * 3.0).ceil() / 3.0).max(1.0 / 3.0);
        let ambient = self.least_drowning(least, what, &|stops| Some(Move::RaiseAmbient { stops }));
        let power = self.least_drowning(least, what, &|stops| self.lower_power(what, stops));
        ambient.into_iter().chain(power).collect()
    }

    /// The first third from the least on at which what shows drowns, where half of it does not do.
    fn least_drowning(&self, least: f64, what: &Shown, make: &dyn Fn(f64) -> Option<Move>) -> Option<Remedy> {
        let steps = (0..4).map(|step| least + f64::from(step) / 3.0).filter(|stops| *stops <= MOST_DROWNED);
        let drowns = |stops: f64| make(stops).and_then(|one| self.as_it_drowns(one, what));
        let (stops, found) = steps.filter_map(|stops| Some((stops, drowns(stops)?))).find(|(_, (shows, _))| !shows)?;
        drowns(stops / 2.0).is_some_and(|(shows, _)| shows).then_some(found.1)
    }

    /// A move that changes how bright things are and nothing else: whether the thing still shows, and what comes of it;
    /// nothing where it changes nothing.
    fn as_it_drowns(&self, one: Move, what: &Shown) -> Option<(bool, Remedy)> {
        let mut setup = self.prepared.setup.clone();
        one.apply(&mut setup, self.kit, &self.away);
        if setup.blend == self.prepared.setup.blend && setup.lights == self.prepared.setup.lights {
            return None;
        }
        let prepared = Prepared::new(&setup, self.kit).ok()?;
        let plan = Plan::of(&prepared);
        let away = distances_of(&prepared, Some(&plan.outcome));
        let stage = prepared.stage.clone()?;
        let found = Look::new(&stage, &away).findings(&prepared, &plan.outcome);
        let shows = found.iter().any(|one| one.shows() && one.what == *what);
        let cost = self.cost(std::slice::from_ref(&one), what, &setup, (&prepared, &plan), (&stage, &away));
        drop(prepared);
        Some((shows, Remedy { moves: vec![one], setup, cost }))
    }

    /// A light's power fixed so much under where the plan has it, as far as its unit goes.
    fn lower_power(&self, what: &Shown, by_stops: f64) -> Option<Move> {
        let Shown::Light(light) = what else { return None };
        let at = self.prepared.flash_of(*light)?;
        let (flash, power) = (&self.prepared.lights[at], self.outcome.lights[at]?);
        let to_stops = power.power.0.0 - by_stops;
        let id = &self.prepared.setup.lights[*light].id;
        (to_stops >= flash.lowest.0.0 - 1e-9).then(|| Move::LowerPower { light_id: id.clone(), by_stops, to_stops })
    }

    /// Where no single move is enough: a first one as far as it is usual, then the least of a second.
    fn in_two(&self, families: &[Family], what: &Shown) -> Vec<Vec<Move>> {
        let part = |family: &Family| (family.make)((family.most * 0.4 / family.grain).round() * family.grain);
        let mut all = Vec::new();
        for (index, first) in families.iter().enumerate().take(MOST_FIRST) {
            let first = part(first);
            for second in families.iter().skip(index + 1).take(MOST_SECOND) {
                if (second.make)(second.grain).code() != first.code() {
                    all.extend(self.least_of(std::slice::from_ref(&first), second, what));
                }
            }
        }
        all
    }
}

/// By more than so many stops nothing is drowned. Chosen.
const MOST_DROWNED: f64 = 3.01;
/// Dearer than this, two moves together are looked for as well. Chosen.
const TOO_DEAR: f64 = 2.5;
/// So many first and second moves are put together where one is not enough.
const MOST_FIRST: usize = 4;
const MOST_SECOND: usize = 9;
