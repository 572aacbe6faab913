//! What would close a shortfall: each fix is tried by solving the setup with it done.

mod candidates;

use super::change::Change;
use super::outcome::Outcome;
use super::search::HALF_CLICK;
use super::solved::Solved;
use crate::job::{CheckedSetup, Kit, Setup};
use candidates::Candidates;
pub(super) use candidates::strength_with;
use tolva_core::scale::{Iso, Setting, Stops};

/// At most so many are shown.
const MOST: usize = 6;
/// Where no single step is enough, so many first steps are followed by a second.
const MOST_FIRST_STEPS: usize = 3;
/// A way to close a shortfall.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Fix {
    pub what: FixKind,
    /// Whether the wish can be had then.
    pub closes: bool,
}

/// What a fix is.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum FixKind {
    /// Changes to the setup, solved.
    Changes(Box<Solved>),
    /// Something to do outside Tolva.
    Outside(Outside),
}

/// Something to do outside Tolva.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum Outside {
    /// The subject is shaded or turned.
    ShadeSubject(Stops),
    /// Take light off the subject for a silhouette.
    DarkenSubject(Stops),
    /// What spills onto a region is kept off.
    KeepSpillOff(usize),
    /// A stronger unit than any in the kit.
    StrongerUnit { short: Stops, guide_number_m: f64, side_by_side: f64 },
    /// A denser filter than any in the kit.
    DenserFilter(Stops),
    /// More ISO than the kit's highest acceptable.
    HigherIso { to: Setting<Iso>, highest: Setting<Iso> },
    /// Neutral gel that is not in the kit.
    NeutralGel { light_id: String, stops: Stops },
    /// A ceiling or wall to bounce off.
    Bounce { light_id: String, stops: Stops },
}

pub(super) fn fixes(setup: &CheckedSetup<'_>, outcome: &Outcome, kit: &Kit) -> Vec<Fix> {
    if outcome.gaps.is_empty() {
        return Vec::new();
    }
    let Candidates { changes, outside, .. } = Candidates::of(setup, outcome, kit);
    let missing = outcome.missing();
    let mut tried: Vec<Solved> =
        changes.into_iter().filter_map(|change| attempt(setup.setup, change, missing, kit)).collect();
    // What is fixed is let go last: somebody wanted it so.
    let lets_go = |solved: &Solved| solved.changes.iter().any(Change::lets_go);
    tried.sort_by(|a, b| lets_go(a).cmp(&lets_go(b)).then(a.measures.missing.total_cmp(&b.measures.missing)));
    // Of one kind the best is enough: the others are in the kit too.
    let mut kinds = Vec::new();
    tried.retain(|solved| {
        let kind = solved.changes.first().map(std::mem::discriminant);
        let new = !kinds.contains(&kind) || lets_go(solved);
        kinds.push(kind);
        new
    });
    let (closing, nearer): (Vec<Solved>, Vec<Solved>) =
        tried.into_iter().partition(|solved| solved.shortfall.is_none());
    let mut in_two_steps: Vec<Solved> = if closing.is_empty() {
        let mut first: Vec<&Solved> = nearer.iter().collect();
        first.sort_by(|a, b| a.measures.missing.total_cmp(&b.measures.missing));
        first.into_iter().take(MOST_FIRST_STEPS).flat_map(|first| second_steps(first, kit)).collect()
    } else {
        Vec::new()
    };
    in_two_steps.sort_by_key(lets_go);
    let solved = |one: Solved| Fix { closes: one.shortfall.is_none(), what: FixKind::Changes(Box::new(one)) };
    // What lies outside Tolva comes before what does not close the gap, and is never crowded out.
    let room = MOST.saturating_sub(outside.len());
    let inside = closing.into_iter().chain(in_two_steps).map(solved).take(room);
    let mut all: Vec<Fix> = Vec::new();
    for fix in inside.chain(outside).chain(nearer.into_iter().map(solved)) {
        let same = |other: &Fix| match (&other.what, &fix.what) {
            (FixKind::Changes(one), FixKind::Changes(other)) => one.changes == other.changes,
            (one, other) => one == other,
        };
        if !all.iter().any(same) {
            all.push(fix);
        }
    }
    all.truncate(MOST);
    all
}

/// Where one step is not enough: what closes the gap after a first one, two at most.
fn second_steps(first: &Solved, kit: &Kit) -> Vec<Solved> {
    let Ok(checked) = CheckedSetup::new(&first.setup, kit) else { return Vec::new() };
    let outcome = Outcome::of(&checked);
    let closing = Candidates::of(&checked, &outcome, kit).changes.into_iter().filter_map(|second| {
        let solved = attempt(&first.setup, second, outcome.missing(), kit)?;
        let changes = first.changes.iter().cloned().chain(solved.changes.clone()).collect();
        Some(Solved { changes, ..solved })
    });
    closing.filter(|solved| solved.shortfall.is_none()).take(2).collect()
}

/// Solves the setup with a change done; nothing where it does not help by a sixth of a stop at least.
fn attempt(setup: &Setup, change: Change, missing_before: f64, kit: &Kit) -> Option<Solved> {
    Solved::of(setup, vec![change], kit).filter(|solved| solved.measures.missing <= missing_before - HALF_CLICK)
}
