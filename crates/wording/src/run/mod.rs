//! A setup on the set: what to set now, what changes next, which shots, what is moved for the next setup.

mod looked;
mod moves;
mod sheet;

pub use looked::{LookedSaid, looked_said};
pub use sheet::{LightThen, NextSetup, RunDials, RunReading, RunRegion, RunSheet, RunStep, run_sheet};
