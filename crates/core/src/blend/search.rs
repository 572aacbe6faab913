//! The search over the dials: all combinations that keep the limits, the cheapest first.
//!
//! The order of preference is common practice, no source: keep the ISO low, then the shutter at the fastest that is
//! safe with flash (so that the aperture can be wide and the flash weak), then the flash under full power. Without
//! flash, keep the ISO low, the shutter quick and the aperture near f/5.6.

use super::wish::FlashWish;
use crate::exposure::CameraSettings;
use crate::job::{CheckedLight, CheckedSetup};
use crate::scale::{Dial, DialEnd, Engraved, Metres, Power, Setting, Shutter, Step, Stops};

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
        setup.aperture.is_none().then_some(setup.camera.aperture.step),
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
}

/// The least and the most a light can give the subject, and with what power it is dialled.
#[derive(Clone, Copy, Debug)]
pub(super) struct FlashRange {
    pub least: Stops,
    pub most: Stops,
}

impl CheckedLight<'_> {
    /// What the light gives the subject from a distance at a power.
    pub(super) fn gives(&self, distance: Metres, power: Power) -> Stops {
        self.guide_number.strength(distance, self.surface, self.loss).at(power)
    }

    /// The nearest and farthest Tolva would put a light by itself (common practice, no source).
    pub(super) fn free_distances(&self) -> (Metres, Metres) {
        (Metres((self.surface.largest().0 / 2.0).max(0.4)), Metres(6.0))
    }

    /// Where Tolva puts a light when nothing is fixed: one and a half times the modifier's size away, 2 m for a bare
    /// head (common practice, no source).
    fn usual_distance(&self) -> Metres {
        let size = self.surface.largest().0;
        Metres(if size == 0.0 { 2.0 } else { (size * 1.5).clamp(0.7, 3.0) })
    }

    pub(super) fn range(&self) -> FlashRange {
        let (near, far) = self.distance.map_or_else(|| self.free_distances(), |fixed| (fixed, fixed));
        let (low, full) = self.power.map_or((self.lowest, Power::FULL), |fixed| (fixed, fixed));
        FlashRange { least: self.gives(far, low), most: self.gives(near, full) }
    }

    /// The power and distance that give so much, as near as the light can come, on its dial. Also the exact power.
    pub(super) fn dialled(&self, wanted: Stops) -> DialledLight {
        let solve = |power: Power| {
            self.guide_number.distance_for(wanted, power, self.surface, self.loss, self.free_distances())
        };
        let distance = match (self.distance, self.power) {
            (Some(fixed), _) => fixed,
            (None, Some(power)) => to_centimetre(solve(power)),
            (None, None) => {
                let usual = self.usual_distance();
                if self.gives(usual, Power::FULL) < wanted {
                    to_centimetre(solve(Power::FULL))
                } else if self.gives(usual, self.lowest) > wanted {
                    to_centimetre(solve(self.lowest))
                } else {
                    usual
                }
            }
        };
        let exact = self.guide_number.strength(distance, self.surface, self.loss).power_for(wanted);
        let power = self.power.unwrap_or_else(|| {
            let nearest = self.step.nearest(exact);
            Power(Stops(nearest.0.0.clamp(self.lowest.0.0, 0.0)))
        });
        DialledLight { distance, exact, power, gives: self.gives(distance, power) }
    }
}

/// A distance is shown to the centimetre, so it is computed with to the centimetre.
fn to_centimetre(distance: Metres) -> Metres {
    Metres((distance.0 * 100.0).round() / 100.0)
}

/// A light with its power on the dial.
#[derive(Clone, Copy, Debug)]
pub(super) struct DialledLight {
    pub distance: Metres,
    /// What would give exactly what is wanted.
    pub exact: Power,
    /// What stands on the dial.
    pub power: Power,
    /// What it gives the lit side: see [`crate::flash::FlashStrength`].
    pub gives: Stops,
}

/// The shutters that may be chosen: not slower than the floor, and with flash not faster than the safe sync. Where
/// the two leave nothing, the sync wins.
fn shutters(setup: &CheckedSetup<'_>, with_flash: bool) -> Vec<Setting<Shutter>> {
    if let Some(fixed) = setup.shutter {
        return vec![fixed];
    }
    let floor = setup.slowest.position().0 - 1e-6;
    let ceiling = if with_flash { setup.sync_safe.position().0 + 1e-6 } else { f64::INFINITY };
    let allowed: Vec<_> = setup.shutters.settings().filter(|s| (floor..=ceiling).contains(&s.position().0)).collect();
    if allowed.is_empty() {
        let target = if with_flash { setup.sync_safe } else { setup.slowest };
        return vec![setup.shutters.nearest(target.position())];
    }
    allowed
}

/// What a dial may be set to: the setting that is fixed, or all of them.
pub(super) fn fixed_or_all<E: Engraved>(fixed: Option<Setting<E>>, dial: Dial<E>) -> Vec<Setting<E>> {
    fixed.map_or_else(|| dial.settings().collect(), |fixed| vec![fixed])
}

/// The settings that cost least.
pub(super) fn search(setup: &CheckedSetup<'_>) -> CameraSettings {
    let blend = setup.setup.blend;
    let with_flash = blend.uses_flash() && setup.light.is_some();
    let wanted = blend.camera_ev(setup) - setup.filter;
    let flash = setup.light.as_ref().map(CheckedLight::range);
    let lit = setup.ambient[setup.lit];

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
            points += cost::ISO * (iso.position() - base).0.max(0.0);
            if with_flash {
                points += cost::SLOWER_THAN_SYNC * (setup.sync_safe.position() - shutter.position()).0.max(0.0);
                points += cost::SMALLER_THAN_F11 * (aperture.position().0 - 7.0).max(0.0);
                let ambient = lit - settings.ev100() - setup.filter;
                if let (FlashWish::Wanted(flash_stops), Some(range)) = (blend.flash_wish(ambient), flash) {
                    let needed = flash_needed(flash_stops, settings, setup.filter);
                    points += cost::FLASH_OFF * (needed - range.most).0.max((range.least - needed).0).max(0.0);
                    points += cost::OVER_HALF_POWER * (1.0 - (range.most - needed).0).max(0.0);
                }
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

/// What the flash must give (on the scale of [`crate::flash::FlashStrength`]) to stand at so many stops in the frame.
pub(super) fn flash_needed(stops: Stops, settings: CameraSettings, filter: Stops) -> Stops {
    stops + settings.aperture.position() - settings.iso.position() + filter
}

/// Where a flash that gives so much stands in the frame.
pub(super) fn flash_in_frame(gives: Stops, settings: CameraSettings, filter: Stops) -> Stops {
    gives - settings.aperture.position() + settings.iso.position() - filter
}
