//! The rules of blending flash with the light that is already there.
//!
//! Everything here is computed from what is passed in: no files, no clock, no randomness. The same input gives the
//! same plan, bit for bit. Stops are base-2 logarithms and positive is brighter; a *setting* lies on a dial, a *value*
//! is exact. Each formula names its source; "common practice, no source" marks a rule of the trade, and "from memory"
//! a figure that was not looked up.
//!
//! | module | what it holds |
//! |---|---|
//! | [`scale`] | stops, the dials with their nominal and exact values, printing and parsing |
//! | [`ambient`] | sun, sky, horizon and typical lights: the light that is there, over the day |
//! | [`exposure`] | exposure values, meters, readings |
//! | [`flash`] | guide numbers, power, sync, high speed, duration, recycling |
//! | [`modifier`] | glowing surfaces, what they lose, how they fall off close by, bounce and cards |
//! | [`optics`] | depth, diffraction, shake, movement, close up |
//! | [`colour`] | colour temperature and mired |
//! | [`set`] | wind on what stands on the set |
//! | [`blend`] | the wish, the search over the dials, the nearest answer, certainty, workings |
//! | [`job`] | the open format: one document a job, checked with the path to each wrong field |
//! | [`sums`] | single computations that anyone can check from outside |
//!
//! ```
//! use tolva_core::{blend::{plan, Show}, job::{Job, Kit, Setup}};
//!
//! let kit = Kit::starter();
//! let setup = Setup::new("doorway", &kit);
//! let plan = plan(&setup, &kit, Show::default())?;
//! assert!(plan.possible);
//! assert_eq!(plan.dial_card.iso.label, "ISO 100");
//! # Ok::<(), tolva_core::job::Problems>(())
//! ```

pub mod ambient;
pub mod blend;
pub mod colour;
pub mod exposure;
pub mod flash;
pub mod job;
pub mod modifier;
pub mod optics;
pub mod scale;
pub mod set;
pub mod sums;
mod wording;
