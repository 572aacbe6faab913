//! Several lights: every one reaches every region, and their powers are found together.
//!
//! In linear light a region gets a + A·p, with p the powers (0 to 1) and A what each light gives it at full power. The
//! powers are the non-negative least squares of what is missing, each region weighted so that its error counts in
//! stops; what a light cannot do is held at its end, and the others are found again. Source: Lawson and Hanson,
//! *Solving Least Squares Problems*, the problem; it is solved by going round the coordinates, which for a convex sum
//! of squares within bounds ends at its one lowest value.

use super::search::{flash_in_frame, flash_needed};
use super::wish::FlashWish;
use crate::exposure::CameraSettings;
use crate::flash::high_speed_loss;
use crate::job::{CheckedLight, CheckedSetup, LightWish, Sync};
use crate::scale::{Metres, Power, Setting, Shutter, Stops};

/// The least and the most a light can give its region.
#[derive(Clone, Copy, Debug)]
pub(super) struct FlashRange {
    pub least: Stops,
    pub most: Stops,
}

/// A light with its power on the dial.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct DialledLight {
    pub distance: Metres,
    /// What would give exactly what is wanted.
    pub exact: Power,
    /// What stands on the dial.
    pub power: Power,
}

impl CheckedLight<'_> {
    /// What the light gives its region from a distance at a power: see [`crate::flash::FlashStrength`].
    pub(super) fn gives(&self, distance: Metres, power: Power) -> Stops {
        self.guide_number.strength(distance, self.surface, self.loss).at(power)
    }

    /// The nearest and farthest Tolva would put a light by itself (common practice, no source).
    pub(super) fn free_distances(&self) -> (Metres, Metres) {
        (Metres((self.surface.largest().0 / 2.0).max(0.4)), Metres(6.0))
    }

    /// Where Tolva puts a light when nothing is fixed: one and a half times the modifier's size away, 2 m for a bare
    /// head (common practice, no source).
    pub(super) fn usual_distance(&self) -> Metres {
        let size = self.surface.largest().0;
        Metres(if size == 0.0 { 2.0 } else { (size * 1.5).clamp(0.7, 3.0) })
    }

    pub(super) fn range(&self) -> FlashRange {
        let (near, far) = self.distance.map_or_else(|| self.free_distances(), |fixed| (fixed, fixed));
        let (low, full) = self.power.map_or((self.lowest, Power::FULL), |fixed| (fixed, fixed));
        FlashRange { least: self.gives(far, low), most: self.gives(near, full) }
    }

    /// Where the light stands to give its region so much by itself.
    fn distance_for(&self, wanted: Stops) -> Metres {
        let solve = |power: Power| {
            self.guide_number.distance_for(wanted, power, self.surface, self.loss, self.free_distances())
        };
        match (self.distance, self.power) {
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
        }
    }

    /// An exact power put on the dial.
    fn on_dial(&self, exact: Power) -> Power {
        self.power.unwrap_or_else(|| Power(Stops(self.step.nearest(exact).0.0.clamp(self.lowest.0.0, 0.0))))
    }

    /// What high-speed sync takes at a shutter; nothing where it is not used.
    pub(super) fn high_speed(&self, setup: &CheckedSetup<'_>, shutter: Setting<Shutter>) -> Stops {
        if setup.setup.sync != Sync::HighSpeed {
            return Stops::ZERO;
        }
        let fixed = self.flash.high_speed_loss_stops.map(Stops);
        fixed.and_then(|fixed| high_speed_loss(shutter, setup.sync_safe, fixed)).unwrap_or(Stops::ZERO)
    }
}

/// A distance is shown to the centimetre, so it is computed with to the centimetre.
fn to_centimetre(distance: Metres) -> Metres {
    Metres((distance.0 * 100.0).round() / 100.0)
}

/// Where a light stands in the frame, in the region it is aimed at.
pub(super) fn in_frame(
    setup: &CheckedSetup<'_>,
    light: &CheckedLight<'_>,
    at: (Metres, Power),
    settings: CameraSettings,
) -> Stops {
    flash_in_frame(light.gives(at.0, at.1), settings, setup.filter) - light.high_speed(setup, settings.shutter)
}

/// All lights of a setup on their dials, for what is wished of the flashes in each region. A light that has nothing to
/// do is off. Distances that are given are kept.
pub(super) fn dialled(
    setup: &CheckedSetup<'_>,
    settings: CameraSettings,
    wishes: &[FlashWish],
    distances: Option<&[Metres]>,
) -> Vec<Option<DialledLight>> {
    if !setup.setup.blend.uses_flash() {
        return vec![None; setup.lights.len()];
    }
    let wanted: Vec<Option<f64>> = wishes
        .iter()
        .map(|wish| match wish {
            FlashWish::Unused => None,
            FlashWish::Wanted(stops) => Some(stops.ratio()),
            FlashWish::AmbientOver(_) => Some(0.0),
        })
        .collect();
    let stands: Vec<Metres> = (setup.lights.iter().enumerate())
        .map(|(index, light)| match (distances, wishes[light.aim]) {
            (Some(given), _) => given[index],
            (None, FlashWish::Wanted(stops)) => {
                let through = flash_needed(stops, settings, setup.filter) + light.high_speed(setup, settings.shutter);
                light.distance_for(through)
            }
            (None, _) => light.distance.unwrap_or_else(|| light.usual_distance()),
        })
        .collect();
    let full: Vec<f64> = setup
        .lights
        .iter()
        .zip(&stands)
        .map(|(light, distance)| in_frame(setup, light, (*distance, Power::FULL), settings).ratio())
        .collect();
    let mut exact: Vec<Option<f64>> = vec![None; setup.lights.len()];
    // Where nothing is asked of a light, it is off, whatever its power was fixed at.
    let asked = |light: &CheckedLight<'_>| matches!(wishes[light.aim], FlashWish::Wanted(_));
    let mut held: Vec<Option<f64>> = setup
        .lights
        .iter()
        .map(|light| if asked(light) { light.power.map(|power| power.0.ratio()) } else { Some(0.0) })
        .collect();
    loop {
        let powers = least_squares(setup, &wanted, &full, &held);
        let mut moved = false;
        for (index, light) in setup.lights.iter().enumerate() {
            if held[index].is_some() {
                continue;
            }
            exact[index] = Some(powers[index]);
            let lowest = light.lowest.0.ratio();
            let key = light.light.wish == LightWish::Key;
            let end = match powers[index] {
                power if power > 1.0 + 1e-9 => 1.0,
                // A light that would have to give less than half of its least is better off, but for the key.
                power if power < lowest / 2.0 && (!key || power < 1e-9) => 0.0,
                power if power < lowest - 1e-12 => lowest,
                _ => continue,
            };
            held[index] = Some(end);
            moved = true;
        }
        if !moved {
            break;
        }
    }
    (setup.lights.iter().enumerate())
        .map(|(index, light)| {
            let FlashWish::Wanted(wanted) = wishes[light.aim] else { return None };
            let exact = match (light.power, exact[index]) {
                // A fixed power is measured against what its region wants of it alone.
                (Some(_), _) => Power(wanted - in_frame(setup, light, (stands[index], Power::FULL), settings)),
                (None, Some(power)) if held[index] != Some(0.0) => Power(Stops::of_ratio(power)),
                (None, _) => return None,
            };
            Some(DialledLight { distance: stands[index], exact, power: light.on_dial(exact) })
        })
        .collect()
}

/// The powers, from 0 up, that come nearest to what is wanted; those that are held stay.
fn least_squares(setup: &CheckedSetup<'_>, wanted: &[Option<f64>], full: &[f64], held: &[Option<f64>]) -> Vec<f64> {
    let gives = |region: usize, light: usize| full[light] * setup.lights[light].reaches[region].ratio();
    let rows: Vec<(usize, f64, f64)> = wanted
        .iter()
        .enumerate()
        .filter(|(region, _)| setup.lights.iter().any(|light| light.aim == *region))
        // An error counts by its part of what is wanted; where nothing is, by a small part of mid grey.
        .filter_map(|(region, wanted)| {
            let counts = if region == setup.lit { LIT_COUNTS } else { 1.0 };
            wanted.map(|wanted| (region, wanted, counts / wanted.max(1.0 / 64.0).powi(2)))
        })
        .collect();
    let mut powers: Vec<f64> = (0..full.len())
        .map(|light| {
            held[light].unwrap_or_else(|| {
                // Lights that share a region share its work to begin with.
                let aim = setup.lights[light].aim;
                #[expect(clippy::cast_precision_loss, reason = "at most eight")]
                let share = setup.lights.iter().filter(|other| other.aim == aim).count() as f64;
                wanted[aim].unwrap_or(0.0) / gives(aim, light).max(1e-12) / share
            })
        })
        .collect();
    for _ in 0..ROUNDS {
        let mut most = 0.0_f64;
        for light in (0..full.len()).filter(|light| held[*light].is_none()) {
            let (mut above, mut below) = (0.0, 0.0);
            for &(region, wanted, weight) in &rows {
                let mine = gives(region, light);
                let others: f64 = (0..full.len())
                    .filter(|other| *other != light)
                    .map(|other| gives(region, other) * powers[other])
                    .sum();
                above += weight * mine * (wanted - others);
                below += weight * mine * mine;
            }
            let to = if below > 0.0 { (above / below).max(0.0) } else { 0.0 };
            most = most.max((to - powers[light]).abs() / to.max(1e-6));
            powers[light] = to;
        }
        if most < 1e-10 {
            break;
        }
    }
    powers
}

/// Where not all can be had, the face comes first.
pub(super) const LIT_COUNTS: f64 = 100.0;
/// Rounds after which nothing more is to be gained on a dial.
const ROUNDS: u32 = 400;
