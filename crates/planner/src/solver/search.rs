//! The search over the dials: of all settings of this camera and lens that keep the limits, those whose frame lands
//! nearest to the wish, and of those the ones that cost least ([`super::weights`]).
//!
//! The usual order of preference is common practice, no source: keep the ISO low, then the shutter at the fastest that is
//! safe with flash (so that the aperture can be wide and the flash weak), then the flash under full power. Without
//! flash, keep the ISO low, the shutter quick and the aperture near f/5.6.
//!
//! Every combination has a cost that no light can change; a combination whose part of that is already dearer than the
//! best found is not looked at any further, so the search is whole and still quick.

use super::clicks::{HALF_CLICK, rounding};
use super::least_squares::MOST;
use super::powers::{Bounds, Landing, Landings, face_first, weight};
use super::preference::Weights;
use super::weights;
use crate::depth::Sharp;
use crate::lighting::{FlashWish, Placed, Prepared, PreparedLight};
use crate::setup::{Preference, Sync};
use std::collections::HashMap;

use tolva_core::exposure::{CameraSettings, Ev};
use tolva_core::scale::{Dial, DialEnd, Engraved, Power, Setting, Shutter, Stops};

/// The shutters that may be chosen: not slower than the floor, and with flash not faster than the safe sync. Where
/// the two leave nothing, the sync wins.
fn shutters(setup: &Prepared<'_>, with_flash: bool) -> Vec<Setting<Shutter>> {
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
pub fn fixed_or_all<E: Engraved>(fixed: Option<Setting<E>>, dial: &Dial<E>) -> Vec<Setting<E>> {
    fixed.map_or_else(|| dial.settings().collect(), |fixed| vec![fixed])
}

/// The settings that cost least.
pub fn search(setup: &Prepared<'_>) -> CameraSettings {
    let mut search = Search::of(setup);
    let isos = fixed_or_all(setup.iso, &setup.isos);
    let apertures = fixed_or_all(setup.aperture, &setup.apertures);
    let shutters = shutters(setup, search.flash);
    let wanted = setup.setup.blend.camera_ev(setup) - setup.filter;
    let nearest = |shutter: Setting<Shutter>, iso: Setting<_>| {
        let ideal = Stops(wanted.0) - shutter.position() + iso.position();
        if apertures.len() == 1 { 0 } else { setup.apertures.nearest_index(ideal) }
    };
    // First the combination that would be cheapest if the lights did all that is asked of them: few are better.
    let mut begin = None::<(f64, CameraSettings)>;
    for &shutter in &shutters {
        for &iso in &isos {
            let settings = CameraSettings { shutter, aperture: apertures[nearest(shutter, iso)], iso };
            let least = search.least(settings);
            if begin.is_none_or(|(other, _)| least < other) {
                begin = Some((least, settings));
            }
        }
    }
    // Every dial has at least one setting, so there is always a first one; the fallback keeps this free of panics.
    let Some((_, settings)) = begin else {
        return CameraSettings { shutter: setup.sync_safe, aperture: Setting::of(8.0), iso: Setting::of(100.0) };
    };
    let mut best = (search.cost(settings), settings);
    let mut try_one = |settings: CameraSettings| {
        // What costs as much is no reason to change: the first stays.
        let least = search.least(settings);
        if least >= best.0 - 1e-9 {
            return false;
        }
        let cost = search.cost(settings);
        if cost < best.0 - 1e-9 {
            best = (cost, settings);
        }
        true
    };
    for &shutter in &shutters {
        for &iso in &isos {
            let middle = nearest(shutter, iso);
            let at = |aperture: usize| CameraSettings { shutter, aperture: apertures[aperture], iso };
            try_one(at(middle));
            // Outwards from there, as long as the ambient alone leaves room for something better.
            for wider in (0..middle).rev() {
                if !try_one(at(wider)) {
                    break;
                }
            }
            for smaller in middle + 1..apertures.len() {
                if !try_one(at(smaller)) {
                    break;
                }
            }
        }
    }
    best.1
}

/// What is worked out once for all combinations.
struct Search<'a> {
    setup: &'a Prepared<'a>,
    flash: bool,
    placed: Placed,
    rounding: f64,
    weights: Weights<'a>,
    sharp: Sharp,
    base_iso: Stops,
    /// Whether any flash reaches the region the camera is set for.
    flash_on_placed: bool,
    /// Whether the face comes before a background, or an ambient, that ends too dark.
    face_first: bool,
    lights: Vec<LightTerm>,
    /// What [`Search::of_lights`] found, by shutter and by ISO less aperture, in millionths of a stop.
    of_lights: HashMap<[i64; 2], f64>,
    /// What [`Search::wanted`] found, by the camera's EV.
    wanted: HashMap<i64, Wanted>,
}

/// What the lights are to give at an EV of the camera.
struct Wanted {
    /// The lights that have something to do.
    asked: Vec<bool>,
    /// What each gives the region it is aimed at, in linear light, were there no ends to its power.
    gives: [f64; MOST],
    /// What is missed even so, in points.
    misses: f64,
    /// The regions, with what each light gives them of what it gives its own.
    landings: Landings,
}

fn millionths(of: Stops) -> i64 {
    #[expect(clippy::cast_possible_truncation, reason = "some tens of stops")]
    let millionths = (of.0 * 1e6).round() as i64;
    millionths
}

/// A light as the search sees it.
struct LightTerm {
    /// What it gives its region at full power from where it would stand, on the scale of EV, as a ratio.
    full: f64,
    bounds: Bounds,
    /// What it gives each region of that.
    spill: Vec<f64>,
}

impl LightTerm {
    fn of(light: &PreparedLight<'_>, regions: usize) -> Self {
        let range = light.range();
        // Where the distance is free, it is a second dial of power.
        let stands = light.distance.unwrap_or_else(|| light.usual_distance());
        let full = light.gives(stands, Power::FULL);
        let spill: Vec<f64> = (0..regions).map(|region| light.spill(region, stands).ratio()).collect();
        if !full.0.is_finite() {
            // On the set it looks or stands where nothing of it arrives.
            return Self { full: 0.0, bounds: Bounds::OFF, spill };
        }
        let bounds = match light.power.filter(|_| light.distance.is_some()) {
            Some(fixed) => Bounds { low: fixed.0.ratio(), high: fixed.0.ratio(), may_be_off: false },
            None => Bounds {
                low: (range.least - full).ratio(),
                high: (range.most - full).ratio(),
                may_be_off: light.power.is_none(),
            },
        };
        Self { full: full.ratio(), bounds, spill }
    }
}

impl<'a> Search<'a> {
    fn of(setup: &'a Prepared<'a>) -> Self {
        let placed = setup.setup.blend.placed(setup);
        let flash = setup.with_flash();
        Self {
            setup,
            flash,
            placed,
            rounding: rounding(setup),
            weights: Weights::of(setup.setup),
            sharp: Sharp::of(setup),
            base_iso: setup.isos.end(DialEnd::Low).position(),
            face_first: face_first(setup),
            flash_on_placed: flash && setup.lights.iter().any(|light| light.reaches(placed.region)),
            lights: setup.lights.iter().map(|light| LightTerm::of(light, setup.light.len())).collect(),
            of_lights: HashMap::new(),
            wanted: HashMap::new(),
        }
    }

    /// Cost of the region that the camera is set for, given how far off target it ends, in stops.
    fn placed_miss(&self, off: f64) -> f64 {
        if off >= 0.0 || !self.face_first {
            return self.miss(weights::PLACED, off);
        }
        let over = (off.abs() - self.rounding).max(0.0);
        let a_bit = over.min(weights::A_BIT_DARK);
        weights::PLACED_A_BIT_DARK * a_bit + weights::PLACED_DARK * (over - a_bit) + weights::ROUNDING * off.abs()
    }

    /// What being off costs: nothing to speak of within what rounding does, much beyond.
    fn miss(&self, weight: f64, off: f64) -> f64 {
        weight * (off.abs() - self.rounding).max(0.0) + weights::ROUNDING * off.abs()
    }

    /// What a combination costs at least, whatever the lights do.
    fn least(&self, settings: CameraSettings) -> f64 {
        let off = self.setup.ambient[self.placed.region] - settings.ev100() - self.setup.filter - self.placed.place;
        // Light that is missing may come from a flash, where the wish is about all of it.
        let may_be_mended = off.0 < 0.0 && self.flash_on_placed && !self.placed.ambient_alone;
        let placed = if may_be_mended { 0.0 } else { self.placed_miss(off.0) };
        placed + self.of_camera(settings)
    }

    /// What the camera's settings cost by themselves.
    fn of_camera(&self, settings: CameraSettings) -> f64 {
        let setup = self.setup;
        let over_base = (settings.iso.position() - self.base_iso).0.max(0.0);
        let mut points = weights::ISO * self.weights.get(Preference::LowIso) * over_base;
        let aperture = settings.aperture.position();
        let depth = self.weights.get(Preference::Depth);
        points += weights::DIFFRACTION * (aperture - self.sharp.ceiling).0.max(0.0);
        if let Some(least) = self.sharp.least {
            points += weights::DEPTH_SHORT * depth * ((least - aperture).0 - HALF_CLICK).max(0.0);
            points += weights::DEPTH_MORE * depth * (aperture - least).0.max(0.0);
        }
        if let Some(target) = self.sharp.target {
            points += weights::AWAY_FROM_TARGET * depth * (aperture - target).0.abs();
        }
        if self.flash {
            points += weights::SLOWER_THAN_SYNC * (setup.sync_safe.position() - settings.shutter.position()).0.max(0.0);
            if self.sharp.least.is_none() {
                points += weights::SMALLER_THAN_F11 * (aperture.0 - 7.0).max(0.0);
            }
            if setup.setup.sync == Sync::HighSpeed {
                points += weights::HIGH_SPEED * (settings.shutter.position() - setup.sync_safe.position()).0.max(0.0);
            }
        } else {
            points += weights::AWAY_FROM_F5_6 * (aperture.0 - 5.0).abs();
            points += weights::SLOWER_THAN_125TH * (7.0 - settings.shutter.position().0).max(0.0);
        }
        points
    }

    /// What a combination costs with the lights at the powers that land nearest.
    fn cost(&mut self, settings: CameraSettings) -> f64 {
        let mut points = self.of_camera(settings);
        if self.placed.ambient_alone || !self.flash {
            let off = self.setup.ambient[self.placed.region] - settings.ev100() - self.setup.filter - self.placed.place;
            points += self.placed_miss(off.0);
        }
        if !self.flash {
            return points;
        }
        // To flash and ambient, an ISO up and an aperture down by as much are one and the same.
        let through = settings.iso.position() - settings.aperture.position() - self.setup.filter;
        let key = [millionths(settings.shutter.position()), millionths(through)];
        if let Some(known) = self.of_lights.get(&key) {
            return points + known;
        }
        let of_lights = self.of_lights(settings.shutter, through);
        self.of_lights.insert(key, of_lights);
        points + of_lights
    }

    /// What the frame costs where the lights land nearest, and what their powers do.
    fn of_lights(&mut self, shutter: Setting<Shutter>, through: Stops) -> f64 {
        // What is wished of the lights hangs on how the ambient lands alone: on the camera's EV, not on how it comes about.
        let camera = Ev((shutter.position() - through).0);
        let key = millionths(Stops(camera.0));
        if !self.wanted.contains_key(&key) {
            let wanted = self.wanted(camera);
            self.wanted.insert(key, wanted);
        }
        let wanted = &self.wanted[&key];
        let (found, misses) = match self.within_reach(wanted, shutter, through) {
            Some(found) => (found, wanted.misses),
            None => self.nearest(wanted, shutter, through),
        };
        let lights = self.lights.iter().zip(&self.setup.lights).zip(found).take(MOST);
        let on = lights.filter(|(_, found)| *found > 0.0);
        misses
            + on.map(|((term, light), found)| self.of_power(light, Stops::of_ratio(found / term.bounds.high)))
                .sum::<f64>()
    }

    /// What the lights are to give at an EV of the camera, as if every power could be had.
    fn wanted(&self, camera: Ev) -> Wanted {
        let setup = self.setup;
        let blend = setup.setup.blend;
        let placed = if self.placed.ambient_alone { usize::MAX } else { self.placed.region };
        let asked = |light: &PreparedLight<'_>| {
            let wish = blend.flash_wish(setup, light.aimed_at, setup.ambient[light.aimed_at] - camera);
            setup.fires(light) && matches!(wish, FlashWish::Wanted(_))
        };
        let asked: Vec<bool> = setup.lights.iter().map(asked).collect();
        let mut landings = Landings::new(self.lights.len());
        for region in 0..setup.ambient.len() {
            let ambient = setup.ambient[region] - camera;
            let Some(target) = blend.target(setup, region, ambient) else { continue };
            let given = std::array::from_fn(|i| self.lights.get(i).map_or(0.0, |term| term.spill[region]));
            let weight = weight(setup, placed, region, ambient - target);
            landings.add(Landing { weight, ambient: ambient.ratio(), target: target.ratio(), given });
        }
        let any = Bounds { low: 0.0, high: f64::INFINITY, may_be_off: true };
        let bounds: Vec<Bounds> = asked.iter().map(|asked| if *asked { any } else { Bounds::OFF }).collect();
        let gives = landings.powers(&bounds);
        Wanted { asked, misses: self.misses(&landings, &gives), gives, landings }
    }

    /// The powers that give what is wanted, where every light can.
    fn within_reach(&self, wanted: &Wanted, shutter: Setting<Shutter>, through: Stops) -> Option<[f64; MOST]> {
        let mut found = [0.0; MOST];
        for (index, (term, light)) in self.lights.iter().zip(&self.setup.lights).enumerate().take(MOST) {
            let gives = wanted.gives[index];
            if gives > 0.0 {
                let power = |loss: Stops| gives / (term.full * (through - loss).ratio());
                let loss = self.loss(light, 1.0, shutter);
                let first = power(loss);
                let exact = if self.cuts(loss) { power(self.loss(light, first, shutter)) } else { first };
                if !(term.bounds.low..=term.bounds.high).contains(&exact) {
                    return None;
                }
                found[index] = exact;
            } else if wanted.asked[index] && !term.bounds.may_be_off {
                return None;
            }
        }
        Some(found)
    }

    /// The powers within their bounds that land nearest to what is wanted, and what is missed by them.
    fn nearest(&self, wanted: &Wanted, shutter: Setting<Shutter>, through: Stops) -> ([f64; MOST], f64) {
        let bounds: Vec<Bounds> = (self.lights.iter().zip(&wanted.asked))
            .map(|(term, asked)| if *asked { term.bounds } else { Bounds::OFF })
            .collect();
        let mut found = [1.0_f64; MOST];
        let mut landings = Landings::new(0);
        // How long a flash burns hangs on its power, so what the shutter cuts off is found again with what came out.
        for _ in 0..2 {
            let mut full = [0.0; MOST];
            let mut cut = false;
            for (index, (term, light)) in self.lights.iter().zip(&self.setup.lights).enumerate().take(MOST) {
                let loss = self.loss(light, found[index], shutter);
                full[index] = term.full * (through - loss).ratio();
                cut |= self.cuts(loss);
            }
            landings = wanted.landings.with(&full);
            found = landings.powers(&bounds);
            if !cut {
                break;
            }
        }
        let misses = self.misses(&landings, &found);
        (found, misses)
    }

    /// What the frame is off by, in points.
    fn misses(&self, landings: &Landings, found: &[f64; MOST]) -> f64 {
        let of_region = |region: &Landing| {
            let off = region.off(found);
            // Of the region that the camera is set for, what ends too dark counts less than what ends too bright.
            let of = |weight: f64| (region.weight - weight).abs() < 0.5;
            let is_placed = of(weights::PLACED) || of(weights::PLACED_DARK);
            if is_placed { self.placed_miss(off) } else { self.miss(region.weight, off) }
        };
        landings.regions().iter().map(of_region).sum()
    }

    /// What the shutter takes of a light at a part of its full power, where that is not fixed.
    fn loss(&self, light: &PreparedLight<'_>, part: f64, shutter: Setting<Shutter>) -> Stops {
        let free = Power(Stops::of_ratio(part.clamp(1e-4, 1.0)));
        light.shutter_loss(self.setup, light.power.unwrap_or(free), shutter)
    }

    /// Whether such a loss hangs on the power enough to count.
    fn cuts(&self, loss: Stops) -> bool {
        self.setup.setup.sync != Sync::HighSpeed && loss.0 > 0.01
    }

    /// What a light's power costs, so far under the most it can give.
    fn of_power(&self, light: &PreparedLight<'_>, under: Stops) -> f64 {
        let low_power = self.weights.get(Preference::LowPower);
        let mut points = weights::OVER_HALF_POWER * low_power * (1.0 + under.0).max(0.0);
        let chosen = |of: Preference| (self.weights.get(of) - 1.0).max(0.0);
        let power = under.0.min(0.0);
        points += weights::POWER * (chosen(Preference::LowPower) + chosen(Preference::Pace)) * (power + 8.0).max(0.0);
        if let Some(pace) = self.setup.setup.pace
            && light.recycling.full_s > 0.0
        {
            // How many stops the power lies over what recycles in the time there is.
            let over = power - (pace.every_s / light.recycling.full_s).log2();
            points += weights::OVER_PACE * self.weights.get(Preference::Pace) * over.max(0.0);
        }
        points
    }
}
