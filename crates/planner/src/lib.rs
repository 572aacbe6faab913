//! From a setup as quantities to a plan as quantities: what falls on each region, the search over the dials, what is
//! missing and what would mend it, and how all of it goes on as the light falls. The rules it keeps to are
//! [`tolva_core`]'s. It knows no documents and says no sentences: what there is to say is a code with its numbers.
//!
//! | module | what it holds |
//! |---|---|
//! | [`setup`] | the domain: what a setup is, once it is known to be good, and its kit |
//! | [`staging`], [`set`] | where things stand and what lights give from there; what is done to a set and said of it |
//! | [`lighting`] | what falls on each region at an instant, and what is wished there |
//! | [`solver`] | the search over the dials, powers by least squares, what comes of them |
//! | [`plan`] | the settings, what they give and what is missing |
//! | [`shortfall`], [`active_limit`], [`cautions`], [`uncertainty`] | what there is to know of a plan |
//! | [`change`], [`fixes`], [`options`], [`conventions`] | what else could be done |
//! | [`place`], [`hour`] | a setup with a mark, or its hour, moved |
//! | [`edit`] | changes of a setup that need the rules |
//! | [`colour`] | white balance, gels, mixtures |
//! | [`proof`] | the set as a scene to render, and what the plan makes of its lights |
//! | [`frames`] | what came against the plan, and what it teaches |
//! | [`day`], [`timetable`] | the light of a day, and when to change what as it falls |
//! | [`drills`] | exercises from the same rules, and what comes back when |
//! | [`shots`], [`run`], [`pack`] | how shots are taken, what is done on the set, what is carried there |
//!
//! ```
//! use tolva_planner::{lighting::Prepared, plan::Plan, setup::{Kit, Setup}};
//!
//! let kit = Kit::starter();
//! let setup = Setup::new("doorway", &kit);
//! let plan = Plan::of(&Prepared::new(&setup, &kit)?);
//! assert!(plan.possible());
//! # Ok::<(), tolva_planner::refused::Refused>(())
//! ```

pub mod active_limit;
pub mod automatic;
pub mod cautions;
pub mod change;
pub mod colour;
pub mod conventions;
pub mod day;
pub mod depth;
pub mod drills;
pub mod edit;
pub mod fixes;
pub mod frames;
pub mod glass;
pub mod hour;
pub mod lighting;
pub mod options;
pub mod pack;
pub mod place;
pub mod plan;
pub mod proof;
pub mod refused;
pub mod run;
pub mod set;
pub mod setup;
pub mod shortfall;
pub mod shots;
pub mod solved;
pub mod solver;
pub mod staging;
pub mod timetable;
pub mod uncertainty;
