//! The search over the dials: all combinations that keep the limits, the cheapest first.
//!
//! The usual order of preference is common practice, no source: keep the ISO low, then the shutter at the fastest that is
//! safe with flash (so that the aperture can be wide and the flash weak), then the flash under full power. Without
//! flash, keep the ISO low, the shutter quick and the aperture near f/5.6.

use super::lights::FlashRange;
use super::preference::{Preference, Weights};
use super::sharpness::Sharp;
use super::wish::FlashWish;
use crate::exposure::CameraSettings;
use crate::job::{CheckedLight, CheckedSetup, Sync};
use crate::scale::{Dial, DialEnd, Engraved, Setting, Shutter, Step, Stops};

/// Half a click of a dial in thirds: what rounding alone can do.
pub(super) const HALF_CLICK: f64 = 1.0 / 6.0 + 1e-6;

/// What rounding alone can do with the finest dial that is free to move; beyond it, a dial is at its end.
pub(super) fn rounding(setup: &CheckedSetup<'_>) -> f64 {
    let half = |step: Step| match step {
        Step::Third => HALF_CLICK,
        Step::Half => 0.25 + 1e-6,
        Step::Whole => 0.5 + 1e-6,
    };
    let free = [
        setup.aperture.is_none().then_some(setup.camera.aperture_step),
        setup.iso.is_none().then_some(setup.camera.iso.step),
        setup.shutter.is_none().then_some(setup.camera.shutter.step),
    ];
    free.into_iter().flatten().map(half).reduce(f64::min).unwrap_or(HALF_CLICK)
}

/// The costs of what a plan gives up, in points a stop. Missing the wish weighs most, and the place of the ambient
/// more than the strength of the flash, since the camera is set for the ambient first.
mod cost {
    pub const AMBIENT_OFF: f64 = 1000.0;
    pub const FLASH_OFF: f64 = 100.0;
    pub const ROUNDING: f64 = 0.5;
    pub const ISO: f64 = 1.0;
    pub const SLOWER_THAN_SYNC: f64 = 0.35;
    pub const SMALLER_THAN_F11: f64 = 0.3;
    pub const OVER_HALF_POWER: f64 = 0.2;
    pub const AWAY_FROM_F5_6: f64 = 0.25;
    pub const SLOWER_THAN_125TH: f64 = 0.35;
    /// Depth that is missing gives way before the flash does, and after the ISO.
    pub const DEPTH_SHORT: f64 = 30.0;
    pub const DEPTH_MORE: f64 = 0.4;
    pub const AWAY_FROM_TARGET: f64 = 0.9;
    pub const DIFFRACTION: f64 = 1.5;
    pub const HIGH_SPEED: f64 = 0.2;
    /// Where low power or pace come first in the person's order, any power costs.
    pub const POWER: f64 = 0.15;
    pub const OVER_PACE: f64 = 1.0;
}

/// The shutters that may be chosen: not slower than the floor, and with flash not faster than the safe sync. Where
/// the two leave nothing, the sync wins.
fn shutters(setup: &CheckedSetup<'_>, with_flash: bool) -> Vec<Setting<Shutter>> {
    if let Some(fixed) = setup.shutter {
        return vec![fixed];
    }
    let floor = setup.slowest.position().0 - 1e-6;
    let synced = with_flash && setup.setup.sync != Sync::HighSpeed;
    let ceiling = if synced { setup.sync_safe.position().0 + 1e-6 } else { f64::INFINITY };
    let allowed: Vec<_> = setup.shutters.settings().filter(|s| (floor..=ceiling).contains(&s.position().0)).collect();
    if allowed.is_empty() {
        let target = if synced { setup.sync_safe } else { setup.slowest };
        return vec![setup.shutters.nearest(target.position())];
    }
    allowed
}

/// What a dial may be set to: the setting that is fixed, or all of them.
pub(super) fn fixed_or_all<E: Engraved>(fixed: Option<Setting<E>>, dial: Dial<E>) -> Vec<Setting<E>> {
    fixed.map_or_else(|| dial.settings().collect(), |fixed| vec![fixed])
}

/// Whether flashes have a part in a setup.
pub(super) fn with_flash(setup: &CheckedSetup<'_>) -> bool {
    setup.setup.blend.uses_flash() && !setup.lights.is_empty()
}

/// The settings that cost least.
pub(super) fn search(setup: &CheckedSetup<'_>) -> CameraSettings {
    let blend = setup.setup.blend;
    let with_flash = with_flash(setup);
    let wanted = blend.camera_ev(setup) - setup.filter;
    let costs = Costs::of(setup);
    let rounding = rounding(setup);
    let base = setup.isos.end(DialEnd::Low).position();
    let mut best: Option<(f64, CameraSettings)> = None;
    let isos = fixed_or_all(setup.iso, setup.isos);
    for shutter in shutters(setup, with_flash) {
        for &iso in &isos {
            // With the other two given, one aperture comes nearest.
            let ideal = Stops(wanted.0) - shutter.position() + iso.position();
            let aperture = setup.aperture.unwrap_or_else(|| setup.apertures.nearest(ideal));
            let settings = CameraSettings { shutter, aperture, iso };
            let off = (aperture.position() - ideal).0.abs();
            let mut points = cost::AMBIENT_OFF * (off - rounding).max(0.0) + cost::ROUNDING * off;
            points += cost::ISO * costs.weights.get(Preference::LowIso) * (iso.position() - base).0.max(0.0);
            points += costs.of_depth(settings);
            if with_flash {
                points += cost::SLOWER_THAN_SYNC * (setup.sync_safe.position() - shutter.position()).0.max(0.0);
                points += costs.of_flash(settings);
            } else {
                points += cost::AWAY_FROM_F5_6 * (aperture.position().0 - 5.0).abs();
                points += cost::SLOWER_THAN_125TH * (7.0 - shutter.position().0).max(0.0);
            }
            if best.is_none_or(|(least, _)| points < least - 1e-9) {
                best = Some((points, settings));
            }
        }
    }
    // Every dial has at least one setting, so there is always a best one; the fallback keeps this free of panics.
    best.map_or(
        CameraSettings { shutter: setup.sync_safe, aperture: Setting::of(8.0), iso: Setting::of(100.0) },
        |(_, settings)| settings,
    )
}

/// What settings cost in depth and in flash.
struct Costs<'a> {
    setup: &'a CheckedSetup<'a>,
    weights: Weights<'a>,
    sharp: Sharp,
    ranges: Vec<FlashRange>,
}

impl<'a> Costs<'a> {
    fn of(setup: &'a CheckedSetup<'a>) -> Self {
        Self {
            setup,
            weights: Weights::of(setup.setup),
            sharp: Sharp::of(setup),
            ranges: setup.lights.iter().map(CheckedLight::range).collect(),
        }
    }

    fn of_depth(&self, settings: CameraSettings) -> f64 {
        let aperture = settings.aperture.position();
        let weight = self.weights.get(Preference::Depth);
        let mut points = cost::DIFFRACTION * (aperture - self.sharp.ceiling).0.max(0.0);
        if let Some(least) = self.sharp.least {
            points += cost::DEPTH_SHORT * weight * ((least - aperture).0 - HALF_CLICK).max(0.0);
            points += cost::DEPTH_MORE * weight * (aperture - least).0.max(0.0);
        }
        if let Some(target) = self.sharp.target {
            points += cost::AWAY_FROM_TARGET * weight * (aperture - target).0.abs();
        }
        points
    }

    fn of_flash(&self, settings: CameraSettings) -> f64 {
        let setup = self.setup;
        let blend = setup.setup.blend;
        let mut points = 0.0;
        if self.sharp.least.is_none() {
            points += cost::SMALLER_THAN_F11 * (settings.aperture.position().0 - 7.0).max(0.0);
        }
        if setup.setup.sync == Sync::HighSpeed {
            points += cost::HIGH_SPEED * (settings.shutter.position() - setup.sync_safe.position()).0.max(0.0);
        }
        let chosen = |of: Preference| (self.weights.get(of) - 1.0).max(0.0);
        for (light, range) in setup.lights.iter().zip(&self.ranges) {
            let ambient = setup.ambient[light.aim] - settings.ev100() - setup.filter;
            let FlashWish::Wanted(flash) = blend.flash_wish(setup, light.aim, ambient) else { continue };
            let needed = flash_needed(flash, settings, setup.filter) + light.high_speed(setup, settings.shutter);
            points += cost::FLASH_OFF * (needed - range.most).0.max((range.least - needed).0).max(0.0);
            let weight = self.weights.get(Preference::LowPower);
            points += cost::OVER_HALF_POWER * weight * (1.0 - (range.most - needed).0).max(0.0);
            let power = (needed - range.most).0.min(0.0);
            points += cost::POWER * (chosen(Preference::LowPower) + chosen(Preference::Pace)) * (power + 8.0).max(0.0);
            if let Some(pace) = setup.setup.pace
                && light.recycling.full_s > 0.0
            {
                // How many stops the power lies over what recycles in the time there is.
                let over = power - (pace.every_s / light.recycling.full_s).log2();
                points += cost::OVER_PACE * self.weights.get(Preference::Pace) * over.max(0.0);
            }
        }
        points
    }
}

/// What the flash must give (on the scale of [`crate::flash::FlashStrength`]) to stand at so many stops in the frame.
pub(super) fn flash_needed(stops: Stops, settings: CameraSettings, filter: Stops) -> Stops {
    stops + settings.aperture.position() - settings.iso.position() + filter
}

/// Where a flash that gives so much stands in the frame.
pub(super) fn flash_in_frame(gives: Stops, settings: CameraSettings, filter: Stops) -> Stops {
    gives - settings.aperture.position() + settings.iso.position() - filter
}
