//! What the chosen settings give each region, and what is missing from the wish.

use super::powers::{DialledLight, dialled, in_frame};
use super::search::search;
use crate::lighting::{FlashWish, Prepared};
use crate::setup::FlashIndex;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Power, Stops};

/// One region in the frame: what ambient and flash give it, in stops from mid grey.
#[derive(Clone, Debug, PartialEq)]
pub struct RegionOutcome {
    /// What the ambient gives it.
    pub ambient: Stops,
    /// What each light gives, in the setup's order.
    pub each: Vec<Stops>,
    /// What all lights give.
    pub flash: Stops,
    /// What ambient and flash come to.
    pub together: Stops,
}

impl RegionOutcome {
    /// What ambient and each light come to.
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
pub struct Outcome {
    /// What stands on the camera.
    pub settings: CameraSettings,
    /// What is asked of the flashes in each region.
    pub wishes: Vec<FlashWish>,
    /// Where each region is to end, where anything says so.
    pub targets: Vec<Option<Stops>>,
    /// The flashes with their power on the dial, in the setup's order; none where one is off.
    pub lights: Vec<Option<DialledLight>>,
    /// What comes out, one a region.
    pub regions: Vec<RegionOutcome>,
}

impl Outcome {
    /// A setup with the settings that land nearest to its wish, and of those the ones that cost least.
    pub fn of(setup: &Prepared<'_>) -> Self {
        Self::under(setup, search(setup))
    }

    /// With camera settings that were chosen elsewhere.
    pub fn under(setup: &Prepared<'_>, settings: CameraSettings) -> Self {
        let ambient = ambient(setup, settings);
        let blend = setup.setup.blend;
        let wishes: Vec<FlashWish> =
            ambient.iter().enumerate().map(|(region, ambient)| blend.flash_wish(setup, region, *ambient)).collect();
        let targets: Vec<Option<Stops>> =
            ambient.iter().enumerate().map(|(region, ambient)| blend.target(setup, region, *ambient)).collect();
        let lights = dialled(setup, settings, (&ambient, &wishes, &targets), None);
        let regions = regions(setup, settings, &ambient, &lights);
        Self { settings, wishes, targets, lights, regions }
    }

    /// The same lights as they stand, under camera settings that may be others, by what a setup's figures say now.
    #[must_use]
    pub fn taken_at(&self, setup: &Prepared<'_>, settings: CameraSettings) -> Self {
        let regions = regions(setup, settings, &ambient(setup, settings), &self.lights);
        Self { settings, regions, ..self.clone() }
    }

    /// The same dials with the flashes off: a frame of the light that is there. What comes of it is worked out by
    /// [`Outcome::taken_at`].
    #[must_use]
    pub fn without_flash(mut self) -> Self {
        self.lights.iter_mut().for_each(|light| *light = None);
        self
    }

    /// How far the region that the camera is set for lands from where it is to: of the light that counts there.
    pub fn placed_off(&self, setup: &Prepared<'_>) -> Stops {
        let placed = setup.setup.blend.placed(setup);
        let region = &self.regions[placed.region];
        (if placed.ambient_alone { region.ambient } else { region.together }) - placed.place
    }

    /// Whether any flash is on.
    pub fn flashes(&self) -> bool {
        self.lights.iter().any(Option::is_some)
    }

    /// The flash that counts for the colour: the first that is on and aimed at the lit side, or the first that is on. Its
    /// place among the flashes.
    pub fn key(&self, setup: &Prepared<'_>) -> Option<FlashIndex> {
        let on = || (0..self.lights.len()).map(FlashIndex).filter(|light| self.lights[*light].is_some());
        on().find(|light| setup.lights[*light].aimed_at == setup.lit).or_else(|| on().next())
    }

    /// The flashes that are on, each by its letter with its power.
    pub fn lights_on(&self, setup: &Prepared<'_>) -> Vec<(String, Power)> {
        let lights = setup.lights.iter().zip(&self.lights);
        lights.filter_map(|(light, at)| at.map(|at| (light.light.id.clone(), at.power))).collect()
    }
}

/// What the light that is there gives each region, in stops from mid grey.
fn ambient(setup: &Prepared<'_>, settings: CameraSettings) -> Vec<Stops> {
    let camera = settings.ev100() + setup.filter;
    setup.ambient.iter().map(|&ev| ev - camera).collect()
}

/// What every region gets.
pub fn regions(
    setup: &Prepared<'_>,
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
        let each =
            setup.lights.iter().zip(&on_axis).zip(lights).map(|((light, on_axis), at)| {
                at.map_or(Stops::NOTHING, |at| *on_axis + light.spill(region, at.distance))
            });
        RegionOutcome::new(ambient, each.collect())
    };
    ambient.iter().enumerate().map(one).collect()
}
