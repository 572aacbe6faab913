//! A plan: what to set, what it gives, and what is missing from the wish.

use crate::lighting::Prepared;
use crate::shortfall::{Shortfall, shortfalls};
use crate::solver::Outcome;

/// The plan of a setup, as quantities.
#[derive(Clone, Debug)]
pub struct Plan {
    /// What to set and what it gives each region.
    pub outcome: Outcome,
    /// What is missing from the wish; empty where it can be had.
    pub shortfalls: Vec<Shortfall>,
}

impl Plan {
    /// The plan of a setup: the settings that land nearest to its wish, and of those the ones that cost least.
    ///
    /// ```
    /// use tolva_planner::{lighting::Prepared, plan::Plan, setup::{Kit, Setup}};
    ///
    /// let kit = Kit::starter();
    /// let setup = Setup::new("doorway", &kit);
    /// let plan = Plan::of(&Prepared::new(&setup, &kit)?);
    /// assert!(plan.shortfalls.is_empty());
    /// assert_eq!(plan.outcome.settings.iso.label(), "ISO 100");
    /// # Ok::<(), tolva_planner::refused::Refused>(())
    /// ```
    pub fn of(setup: &Prepared<'_>) -> Self {
        let outcome = Outcome::of(setup);
        let shortfalls = shortfalls(setup, &outcome);
        Self { outcome, shortfalls }
    }

    /// Whether the wish can be had.
    pub fn possible(&self) -> bool {
        self.shortfalls.is_empty()
    }

    /// How far it is from the wish, in stops, all shortfalls together.
    pub fn missing(&self) -> f64 {
        self.shortfalls.iter().map(|shortfall| shortfall.missing.0).sum()
    }
}
