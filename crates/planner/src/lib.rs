//! From a reading and a wish to a plan: what falls on each region, the search over the dials, what is missing and what
//! would mend it, and how all of it goes on as the light falls. The rules it keeps to are [`tolva_core`]'s.
//!
//! | module | what it holds |
//! |---|---|
//! | [`blend`] | the wish, the search over the dials, the nearest answer, certainty, workings |
//! | [`job`] | the open format: one document a job, checked with the path to each wrong field |
//! | [`sums`] | single computations that anyone can check from outside |
//!
//! ```
//! use tolva_planner::{blend::{plan, Show}, job::{Job, Kit, Setup}};
//!
//! let kit = Kit::starter();
//! let setup = Setup::new("doorway", &kit);
//! let plan = plan(&setup, &kit, Show::default())?;
//! assert!(plan.possible);
//! assert_eq!(plan.dial_card.iso.label, "ISO 100");
//! # Ok::<(), tolva_planner::job::Problems>(())
//! ```

pub mod blend;
pub mod job;
pub mod sums;
mod wording;
