//! What would close a shortfall: each fix is tried by solving the setup with it done.

mod candidates;

use crate::change::Change;
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::setup::{Kit, Setup};
use crate::solved::Solved;
use crate::solver::HALF_CLICK;
use candidates::Candidates;
pub use candidates::strength_with;
use tolva_core::scale::{Iso, Setting, Stops};

/// At most so many are shown.
const MOST: usize = 6;
/// Where no single step is enough, so many first steps are followed by a second.
const MOST_FIRST_STEPS: usize = 3;

/// A way to close a shortfall.
#[derive(Clone, Debug, PartialEq)]
pub struct Fix {
    /// What to do.
    pub what: FixKind,
    /// Whether the wish can be had then.
    pub closes: bool,
}

/// What a fix is.
#[derive(Clone, Debug, PartialEq)]
pub enum FixKind {
    /// Changes to the setup, solved.
    Changes(Box<Solved>),
    /// Something to do outside Tolva.
    Outside(Outside),
}

/// Something to do outside Tolva.
#[derive(Clone, Debug, PartialEq)]
pub enum Outside {
    /// The subject is shaded or turned.
    ShadeSubject(Stops),
    /// Take light off the subject for a silhouette.
    DarkenSubject(Stops),
    /// What spills onto a region is kept off.
    KeepSpillOff(usize),
    /// A stronger unit than any in the kit.
    StrongerUnit {
        /// How much is missing.
        short: Stops,
        /// The guide number it would need, in metres.
        guide_number_m: f64,
        /// Or so many of these side by side.
        side_by_side: f64,
    },
    /// A denser filter than any in the kit.
    DenserFilter(Stops),
    /// More ISO than the kit's highest acceptable.
    HigherIso {
        /// The ISO it would take.
        to: Setting<Iso>,
        /// The highest that is acceptable.
        highest: Setting<Iso>,
    },
    /// Neutral gel that is not in the kit.
    NeutralGel {
        /// The light's letter.
        light_id: String,
        /// How dense.
        stops: Stops,
    },
    /// A ceiling or wall to bounce off.
    Bounce {
        /// The light's letter.
        light_id: String,
        /// How much it gives too much.
        stops: Stops,
    },
}

impl Outside {
    /// Its code: stable, for whoever reads plans by machine.
    pub fn code(&self) -> &'static str {
        match self {
            Self::ShadeSubject(_) => "shade_subject",
            Self::DarkenSubject(_) => "darken_subject",
            Self::KeepSpillOff(_) => "keep_spill_off",
            Self::StrongerUnit { .. } => "stronger_unit",
            Self::DenserFilter(_) => "denser_filter",
            Self::HigherIso { .. } => "higher_iso",
            Self::NeutralGel { .. } => "neutral_gel",
            Self::Bounce { .. } => "bounce",
        }
    }
}

/// What would close the shortfalls of a plan, the best first; nothing where there are none.
pub fn fixes(setup: &Prepared<'_>, plan: &Plan, kit: &Kit) -> Vec<Fix> {
    if plan.possible() {
        return Vec::new();
    }
    let Candidates { changes, outside, .. } = Candidates::of(setup, plan, kit);
    let missing = plan.missing();
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
    // What lies outside Tolva comes before what does not close the shortfall, and is never crowded out.
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

/// Where one step is not enough: what closes the shortfall after a first one, two at most.
fn second_steps(first: &Solved, kit: &Kit) -> Vec<Solved> {
    let Ok(prepared) = Prepared::new(&first.setup, kit) else { return Vec::new() };
    let plan = Plan::of(&prepared);
    // One thing is not moved twice.
    let done: Vec<_> = first.changes.iter().map(std::mem::discriminant).collect();
    let candidates = Candidates::of(&prepared, &plan, kit).changes.into_iter();
    let another = candidates.filter(|second| !done.contains(&std::mem::discriminant(second)));
    let closing = another.filter_map(|second| {
        let solved = attempt(&first.setup, second, plan.missing(), kit)?;
        let changes = first.changes.iter().cloned().chain(solved.changes.clone()).collect();
        Some(Solved { changes, ..solved })
    });
    closing.filter(|solved| solved.shortfall.is_none()).take(2).collect()
}

/// Solves the setup with a change done; nothing where it does not help by a sixth of a stop at least.
fn attempt(setup: &Setup, change: Change, missing_before: f64, kit: &Kit) -> Option<Solved> {
    Solved::of(setup, vec![change], kit).filter(|solved| solved.measures.missing <= missing_before - HALF_CLICK)
}
