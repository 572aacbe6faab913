//! A setup with changes done, solved: what fixes and alternatives are told by and compared by.

use super::change::{Change, changed};
use super::gap::Gap;
use super::outcome::Outcome;
use super::sharpness::Sharp;
use crate::job::{CheckedSetup, Kit, Setup, Sync};
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{DialEnd, Power};

/// A setup with changes done, and what comes of it.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Solved {
    pub changes: Vec<Change>,
    pub setup: Setup,
    pub settings: CameraSettings,
    /// The flashes that are on, each with its power.
    pub lights: Vec<(String, Power)>,
    /// The first thing that is still missing; none where the wish can be had.
    pub shortfall: Option<Gap>,
    pub measures: Measures,
}

impl Solved {
    /// Does changes to a setup and solves it; nothing where it is no setup any more then.
    pub(super) fn of(setup: &Setup, changes: Vec<Change>, kit: &Kit) -> Option<Self> {
        let setup = changed(setup, &changes, kit);
        let checked = CheckedSetup::new(&setup, kit).ok()?;
        let outcome = Outcome::of(&checked);
        Some(Self { changes, ..Self::as_it_is(&checked, &outcome) })
    }

    /// A setup that is solved already, with nothing done to it.
    pub(super) fn as_it_is(checked: &CheckedSetup<'_>, outcome: &Outcome) -> Self {
        Self {
            changes: Vec::new(),
            setup: checked.setup.clone(),
            settings: outcome.settings,
            lights: outcome.lights_on(checked),
            shortfall: outcome.gaps.first().cloned(),
            measures: Measures::of(checked, outcome),
        }
    }
}

/// What counts in a comparison.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Measures {
    pub missing: f64,
    pub iso: f64,
    /// The highest power of any light, in stops under full.
    pub power: f64,
    pub recycle_s: f64,
    pub battery: f64,
    pub aperture: f64,
    /// How far the aperture is from what the depth asks for, in stops.
    pub depth_off: f64,
    pub filter: f64,
    pub high_speed: bool,
    pub units: f64,
}

impl Measures {
    fn of(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Self {
        let on = || setup.lights.iter().zip(&outcome.lights).filter_map(|(light, at)| at.map(|at| (light, at)));
        let sharp = Sharp::of(setup);
        let aperture = outcome.settings.aperture.position();
        let short = sharp.least.map_or(0.0, |least| (least - aperture).0.max(0.0));
        let away = sharp.target.map_or(0.0, |target| (target - aperture).0.abs());
        Self {
            missing: outcome.missing(),
            iso: (outcome.settings.iso.position() - setup.isos.end(DialEnd::Low).position()).0,
            power: on().map(|(_, at)| at.power.0.0).fold(-12.0, f64::max),
            recycle_s: on().map(|(light, at)| light.recycling.time_s(at.power)).fold(0.0, f64::max),
            battery: on()
                .filter_map(|(light, at)| light.recycling.frames_in_battery(at.power))
                .fold(f64::INFINITY, f64::min),
            aperture: aperture.0,
            depth_off: short.max(away),
            filter: setup.density.0,
            high_speed: setup.setup.sync == Sync::HighSpeed,
            units: setup.lights.iter().map(|light| light.guide_number.0).sum(),
        }
    }
}
