//! The one limit that binds: what, if it gave, would change the plan first.

use super::outcome::Outcome;
use super::search::with_flash;
use super::sharpness::Sharp;
use crate::job::{CheckedSetup, Sync};
use tolva_core::scale::{DialEnd, Power};

/// The limit that binds, in a sentence; nothing where the plan lies inside all of them.
pub(super) fn binds(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Option<String> {
    let settings = outcome.settings;
    if let Some(gap) = outcome.gaps.first() {
        return Some(gap.says.clone());
    }
    let full = setup.lights.iter().zip(&outcome.lights).find(|(_, at)| at.is_some_and(|at| at.power == Power::FULL));
    if let Some((light, _)) = full {
        return Some(format!("{} stands at full power.", light.light.id));
    }
    let sharp = Sharp::of(setup);
    if sharp.least.is_some_and(|least| (settings.aperture.position() - least).0.abs() < 0.35) {
        return Some(format!("The depth: {} is just small enough.", settings.aperture.label()));
    }
    let at_sync = (settings.shutter.position() - setup.sync_safe.position()).0.abs() < 1e-6;
    if with_flash(setup) && setup.setup.sync != Sync::HighSpeed && at_sync && setup.shutter.is_none() {
        return Some(format!("The sync speed: {} is as fast as the flash follows.", settings.shutter.label()));
    }
    if (settings.shutter.position() - setup.slowest.position()).0.abs() < 1e-6 {
        return Some(format!("The slowest shutter: {}.", settings.shutter.label()));
    }
    (setup.apertures.end_of(settings.aperture) == Some(DialEnd::Low))
        .then(|| format!("The lens: {} is as wide as it goes.", settings.aperture.label()))
}
