//! The active limit: what, if it gave, would change the plan first.

use tolva_core::scale::{DialEnd, Power};

use crate::depth::Sharp;
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::setup::{FlashIndex, Sync};

/// What holds a plan.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ActiveLimit {
    /// The first of its shortfalls.
    Shortfall,
    /// A light stands at full power: its place among the flashes.
    FullPower(FlashIndex),
    /// The aperture is just small enough for the depth.
    Depth,
    /// The shutter is as fast as the flash follows.
    Sync,
    /// The shutter is as slow as is allowed.
    SlowestShutter,
    /// The aperture is as wide as the lens goes.
    WidestAperture,
}

/// The active limit; nothing where the plan lies inside all of them.
pub fn active_limit(setup: &Prepared<'_>, plan: &Plan) -> Option<ActiveLimit> {
    let outcome = &plan.outcome;
    let settings = outcome.settings;
    if !plan.shortfalls.is_empty() {
        return Some(ActiveLimit::Shortfall);
    }
    if let Some(full) = outcome.lights.iter().position(|at| at.is_some_and(|at| at.power == Power::FULL)) {
        return Some(ActiveLimit::FullPower(FlashIndex(full)));
    }
    let sharp = Sharp::of(setup);
    if sharp.least.is_some_and(|least| (settings.aperture.position() - least).0.abs() < 0.35) {
        return Some(ActiveLimit::Depth);
    }
    let at_sync = (settings.shutter.position() - setup.sync_safe.position()).0.abs() < 1e-6;
    if setup.with_flash() && setup.setup.sync != Sync::HighSpeed && at_sync && setup.shutter.is_none() {
        return Some(ActiveLimit::Sync);
    }
    if (settings.shutter.position() - setup.slowest.position()).0.abs() < 1e-6 {
        return Some(ActiveLimit::SlowestShutter);
    }
    (setup.apertures.end_of(settings.aperture) == Some(DialEnd::Low)).then_some(ActiveLimit::WidestAperture)
}
