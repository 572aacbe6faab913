//! What the chosen settings give each region, and what is missing from the wish.

use super::gap::{Gap, gaps};
use super::lights::{DialledLight, dialled, in_frame};
use super::search::search;
use super::wish::FlashWish;
use crate::job::CheckedSetup;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Power, Stops};

/// One region in the frame: what ambient and flash give it, in stops from mid grey.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct RegionOutcome {
    pub ambient: Stops,
    /// What each light gives, in the setup's order.
    pub each: Vec<Stops>,
    /// What all lights give.
    pub flash: Stops,
    pub together: Stops,
}

impl RegionOutcome {
    pub fn new(ambient: Stops, each: Vec<Stops>) -> Self {
        let flash = each.iter().fold(Stops::NOTHING, |sum, one| sum.and(*one));
        Self { ambient, each, flash, together: ambient.and(flash) }
    }

    /// The part of the light that is flash, 0 to 1.
    pub fn flash_share(&self) -> f64 {
        self.share(self.flash)
    }

    /// The part of the light that some of it makes, 0 to 1.
    pub fn share(&self, of: Stops) -> f64 {
        if of.0.is_finite() { (of - self.together).ratio() } else { 0.0 }
    }
}

/// A setup with its settings, before it is put into words.
#[derive(Clone, Debug)]
pub(super) struct Outcome {
    pub settings: CameraSettings,
    /// What is asked of the flashes in each region.
    pub wishes: Vec<FlashWish>,
    /// Where each region is to end, where anything says so.
    pub targets: Vec<Option<Stops>>,
    /// The flashes with their power on the dial, in the setup's order; none where one is off.
    pub lights: Vec<Option<DialledLight>>,
    pub regions: Vec<RegionOutcome>,
    pub gaps: Vec<Gap>,
}

impl Outcome {
    pub fn of(setup: &CheckedSetup<'_>) -> Self {
        Self::under(setup, search(setup))
    }

    /// With camera settings that were chosen elsewhere.
    pub fn under(setup: &CheckedSetup<'_>, settings: CameraSettings) -> Self {
        let camera = settings.ev100() + setup.filter;
        let ambient: Vec<Stops> = setup.ambient.iter().map(|&ev| ev - camera).collect();
        let blend = setup.setup.blend;
        let wishes: Vec<FlashWish> =
            ambient.iter().enumerate().map(|(region, ambient)| blend.flash_wish(setup, region, *ambient)).collect();
        let targets: Vec<Option<Stops>> =
            ambient.iter().enumerate().map(|(region, ambient)| blend.target(setup, region, *ambient)).collect();
        let lights = dialled(setup, settings, (&ambient, &wishes, &targets), None);
        let regions = regions(setup, settings, &ambient, &lights);
        let mut outcome = Self { settings, wishes, targets, lights, regions, gaps: Vec::new() };
        outcome.gaps = gaps(setup, &outcome);
        outcome
    }

    /// Whether any flash is on.
    pub fn flashes(&self) -> bool {
        self.lights.iter().any(Option::is_some)
    }

    /// The flashes that are on, each by its letter with its power.
    pub fn lights_on(&self, setup: &CheckedSetup<'_>) -> Vec<(String, Power)> {
        let lights = setup.lights.iter().zip(&self.lights);
        lights.filter_map(|(light, at)| at.map(|at| (light.light.id.clone(), at.power))).collect()
    }

    /// How far the plan is from the wish, in stops, all gaps together.
    pub fn missing(&self) -> f64 {
        self.gaps.iter().map(|gap| gap.missing_stops).sum()
    }
}

/// What every region gets.
pub(super) fn regions(
    setup: &CheckedSetup<'_>,
    settings: CameraSettings,
    ambient: &[Stops],
    lights: &[Option<DialledLight>],
) -> Vec<RegionOutcome> {
    let on_axis: Vec<Stops> = setup
        .lights
        .iter()
        .zip(lights)
        .map(|(light, at)| at.map_or(Stops::NOTHING, |at| in_frame(setup, light, (at.distance, at.power), settings)))
        .collect();
    let one = |(region, &ambient): (usize, &Stops)| {
        let each = setup.lights.iter().zip(&on_axis).map(|(light, on_axis)| *on_axis + light.reaches[region]);
        RegionOutcome::new(ambient, each.collect())
    };
    ambient.iter().enumerate().map(one).collect()
}
