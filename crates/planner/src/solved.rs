//! A setup with changes done, solved: what fixes and alternatives are told by and compared by.

use crate::change::{Change, changed};
use crate::depth::Sharp;
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::setup::{Kit, Setup, Sync};
use crate::shortfall::Shortfall;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{DialEnd, Power};

/// A setup with changes done, and what comes of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Solved {
    /// What is done, in order.
    pub changes: Vec<Change>,
    /// The setup with it.
    pub setup: Setup,
    /// The camera.
    pub settings: CameraSettings,
    /// The flashes that are on, each with its power.
    pub lights: Vec<(String, Power)>,
    /// The first thing that is still missing; none where the wish can be had.
    pub shortfall: Option<Shortfall>,
    /// What it is compared by.
    pub measures: Measures,
}

impl Solved {
    /// Does changes to a setup and solves it; nothing where it is no setup any more then.
    pub fn of(setup: &Setup, changes: Vec<Change>, kit: &Kit) -> Option<Self> {
        let setup = changed(setup, &changes, kit);
        let prepared = Prepared::new(&setup, kit).ok()?;
        let plan = Plan::of(&prepared);
        Some(Self { changes, ..Self::as_it_is(&prepared, &plan) })
    }

    /// A setup that is solved already, with nothing done to it.
    pub fn as_it_is(prepared: &Prepared<'_>, plan: &Plan) -> Self {
        Self {
            changes: Vec::new(),
            setup: prepared.setup.clone(),
            settings: plan.outcome.settings,
            lights: plan.outcome.lights_on(prepared),
            shortfall: plan.shortfalls.first().cloned(),
            measures: Measures::of(prepared, plan),
        }
    }
}

/// What counts in a comparison.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Measures {
    /// How far it is from the wish, in stops.
    pub missing: f64,
    /// How far over the lowest ISO, in stops.
    pub iso: f64,
    /// The highest power of any light, in stops under full.
    pub power: f64,
    /// The longest any flash takes to be ready, in seconds.
    pub recycle_s: f64,
    /// The fewest frames in any battery; infinite on mains.
    pub battery: f64,
    /// The aperture, in stops from f/1.
    pub aperture: f64,
    /// How far the aperture is from what the depth asks for, in stops.
    pub depth_off: f64,
    /// What is on the lens, in stops.
    pub filter: f64,
    /// Whether it works in high-speed sync.
    pub high_speed: bool,
    /// What the flashes add up to, as guide numbers.
    pub units: f64,
}

impl Measures {
    fn of(setup: &Prepared<'_>, plan: &Plan) -> Self {
        let outcome = &plan.outcome;
        let on = || setup.lights.iter().zip(&outcome.lights).filter_map(|(light, at)| at.map(|at| (light, at)));
        let sharp = Sharp::of(setup);
        let aperture = outcome.settings.aperture.position();
        let short = sharp.least.map_or(0.0, |least| (least - aperture).0.max(0.0));
        let away = sharp.target.map_or(0.0, |target| (target - aperture).0.abs());
        Self {
            missing: plan.missing(),
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
