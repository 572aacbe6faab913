//! What the chosen settings give each region, and what is missing from the wish.

use super::gap::{Gap, gaps};
use super::search::{DialledLight, flash_in_frame, flash_needed, search};
use super::wish::FlashWish;
use crate::exposure::CameraSettings;
use crate::job::CheckedSetup;
use crate::scale::Stops;

/// One region in the frame: what ambient and flash give it, in stops from mid grey.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct RegionOutcome {
    pub ambient: Stops,
    pub flash: Stops,
    pub together: Stops,
}

impl RegionOutcome {
    /// The part of the light that is flash, 0 to 1.
    pub fn flash_share(self) -> f64 {
        if self.flash.0.is_finite() { (self.flash - self.together).ratio() } else { 0.0 }
    }
}

/// A setup with its settings, before it is put into words.
#[derive(Clone, Debug)]
pub(super) struct Outcome {
    pub settings: CameraSettings,
    pub wish: FlashWish,
    /// The flash with its power on the dial; none where it is not used.
    pub light: Option<DialledLight>,
    pub regions: Vec<RegionOutcome>,
    pub gaps: Vec<Gap>,
}

impl Outcome {
    pub fn of(setup: &CheckedSetup<'_>) -> Self {
        let settings = search(setup);
        let camera = settings.ev100() + setup.filter;
        let ambient: Vec<Stops> = setup.ambient.iter().map(|&ev| ev - camera).collect();
        let wish = setup.setup.blend.flash_wish(ambient[setup.lit]);
        let light = match (wish, &setup.light) {
            (FlashWish::Wanted(stops), Some(light)) => Some(light.dialled(flash_needed(stops, settings, setup.filter))),
            _ => None,
        };
        let on_axis = light.map_or(Stops::NOTHING, |light| flash_in_frame(light.gives, settings, setup.filter));
        let regions = ambient
            .iter()
            .enumerate()
            .map(|(region, &ambient)| {
                let reach = setup.light.as_ref().map_or(Stops::NOTHING, |light| light.reaches[region]);
                let flash = on_axis + reach;
                RegionOutcome { ambient, flash, together: ambient.and(flash) }
            })
            .collect();
        let mut outcome = Self { settings, wish, light, regions, gaps: Vec::new() };
        outcome.gaps = gaps(setup, &outcome);
        outcome
    }

    /// How far the plan is from the wish, in stops, all gaps together.
    pub fn missing(&self) -> f64 {
        self.gaps.iter().map(|gap| gap.missing_stops).sum()
    }
}
