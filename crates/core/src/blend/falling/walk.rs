//! The walk through the minutes.

use jiff::{SignedDuration, Timestamp};

use super::FallingOrder;
use crate::blend::outcome::Outcome;
use crate::blend::search::{fixed_or_all, flash_in_frame, flash_needed};
use crate::exposure::{CameraSettings, Ev};
use crate::flash::GuideNumber;
use crate::job::{CheckedScene, CheckedSetup};
use crate::scale::{DialEnd, Metres, Power, Setting, Shutter, Stops};

/// Within this every wish counts as met.
const TOLERANCE: f64 = 1.0 / 3.0 + 1e-6;
/// How long is looked ahead: a day.
const MINUTES: i64 = 24 * 60;
/// Of two that hold as long, the one with fewer controls to touch: a second one is worth less than a minute.
const SECOND_CONTROL_MIN: f64 = 0.5;
/// As far as a light is moved back.
const FARTHEST: Metres = Metres(12.0);

/// What stands on camera and flash.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct State {
    pub settings: CameraSettings,
    /// The flash's distance and power; nothing where it is off or there is none.
    pub flash: Option<(Metres, Power)>,
}

/// One stretch of the walk, and what stands in it.
#[derive(Clone, Copy, Debug)]
pub(super) struct Leg {
    pub from: usize,
    pub to: usize,
    pub state: State,
    /// Whether every wish is met.
    pub met: bool,
}

/// Why it ends.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum End {
    /// A day is over and it still goes.
    Lasts,
    /// The camera cannot be set brighter.
    TooDark,
    /// The flash cannot keep up.
    Flash,
}

pub(super) struct Walk<'a> {
    setup: &'a CheckedSetup<'a>,
    pub begin: Timestamp,
    /// Each region's light, minute by minute.
    pub light: Vec<Vec<Ev>>,
    pub legs: Vec<Leg>,
    pub end: End,
    pub order: FallingOrder,
}

impl<'a> Walk<'a> {
    pub fn new(setup: &'a CheckedSetup<'a>, scene: &'a CheckedScene<'a>) -> Self {
        let followers = crate::job::followers(setup.setup, Some(scene));
        let begin = scene.light.at;
        let track = scene.light.spot.track(begin, begin + SignedDuration::from_mins(MINUTES));
        let light = (0..=MINUTES).map(|minute| {
            let at = begin + SignedDuration::from_mins(minute);
            let now = scene.light.under(track.sun(at), at);
            followers.iter().map(|follower| follower.ev(Some(&now))).collect()
        });
        let order = setup.setup.falling_order;
        let mut walk = Self { setup, begin, light: light.collect(), legs: Vec::new(), end: End::Lasts, order };
        walk.go();
        walk
    }

    fn go(&mut self) {
        let outcome = Outcome::of(self.setup);
        let flash = outcome.light.map(|light| (light.distance, light.power));
        let mut state = State { settings: outcome.settings, flash };
        let mut at = 0;
        if !self.met(&state, 0)
            && let Some(better) = self.next(&state, 0)
        {
            state = better;
        }
        let last = self.light.len() - 1;
        loop {
            let met = self.met(&state, at);
            let to = if met { self.holds(&state, at) } else { self.waits(&state, at) };
            self.legs.push(Leg { from: at, to, state, met });
            if to >= last {
                // What was never met is no answer that lasts.
                self.end = if met { End::Lasts } else { self.why(&state, at) };
                return;
            }
            match self.next(&state, to + 1) {
                Some(better) => state = better,
                None if self.ambient_off(&state, to + 1).0 > 0.0 => {}
                None => {
                    self.end = self.why(&state, to + 1);
                    return;
                }
            }
            at = to + 1;
        }
    }

    fn why(&self, state: &State, minute: usize) -> End {
        if self.ambient_off(state, minute).0 < -TOLERANCE { End::TooDark } else { End::Flash }
    }

    /// How far the region the camera is set for lies over its place.
    fn ambient_off(&self, state: &State, minute: usize) -> Stops {
        let (region, place) = self.setup.setup.blend.ambient_place(self.setup);
        self.light[minute][region] - state.settings.ev100() - self.setup.filter - place
    }

    /// What ambient and flash give a region.
    pub fn together(&self, state: &State, minute: usize, region: usize) -> Stops {
        let ambient = self.light[minute][region] - state.settings.ev100() - self.setup.filter;
        let (Some(light), Some((distance, power))) = (&self.setup.light, state.flash) else { return ambient };
        let flash = flash_in_frame(light.gives(distance, power), state.settings, self.setup.filter);
        ambient.and(flash + light.reaches[region])
    }

    /// Where flash and ambient together are to put the lit side; nothing where no flash is wished, or where the ambient
    /// alone is over it.
    fn lit_wish(&self, settings: CameraSettings, minute: usize) -> Option<Stops> {
        let blend = self.setup.setup.blend;
        let wish = blend.region_wish(self.setup, self.setup.lit).filter(|_| blend.uses_flash())?;
        let ambient = self.light[minute][self.setup.lit] - settings.ev100() - self.setup.filter;
        (self.setup.light.is_some() && ambient < wish).then_some(wish)
    }

    fn met(&self, state: &State, minute: usize) -> bool {
        if self.ambient_off(state, minute).0.abs() > TOLERANCE {
            return false;
        }
        let near = |wish: Stops| (self.together(state, minute, self.setup.lit) - wish).0.abs() <= TOLERANCE;
        match self.lit_wish(state.settings, minute) {
            Some(wish) => near(wish),
            None => true,
        }
    }

    /// The last minute a state that is met at one still is.
    fn holds(&self, state: &State, from: usize) -> usize {
        (from + 1..self.light.len()).find(|minute| !self.met(state, *minute)).unwrap_or(self.light.len()) - 1
    }

    /// The last minute before one at which something better is to be had, or the state itself is met.
    fn waits(&self, state: &State, from: usize) -> usize {
        let better = |minute: &usize| {
            self.met(state, *minute)
                || self.next(state, *minute).is_some()
                || self.ambient_off(state, *minute).0 < -TOLERANCE
        };
        (from + 1..self.light.len()).find(better).unwrap_or(self.light.len()) - 1
    }

    /// The state that holds longest from a minute on.
    fn next(&self, now: &State, minute: usize) -> Option<State> {
        self.stages(now).into_iter().find_map(|cameras| {
            let mut best: Option<(f64, f64, State)> = None;
            for settings in cameras {
                for state in self.flashes(now, settings, minute) {
                    if !self.met(&state, minute) {
                        continue;
                    }
                    #[expect(clippy::cast_precision_loss, reason = "at most 1440")]
                    let holds = (self.holds(&state, minute) - minute) as f64;
                    let worth = holds - SECOND_CONTROL_MIN * f64::from(changes(now, &state).saturating_sub(1));
                    let off = self.ambient_off(&state, minute).0.abs();
                    let better = |(most, least, _): &(f64, f64, State)| {
                        worth > *most + 1e-9 || (worth > *most - 1e-9 && off < *least - 1e-9)
                    };
                    if best.as_ref().is_none_or(better) {
                        best = Some((worth, off, state));
                    }
                }
            }
            best.map(|(_, _, state)| state)
        })
    }

    /// The camera settings of each stage of the order: the first that has one that will do is taken.
    fn stages(&self, now: &State) -> Vec<Vec<CameraSettings>> {
        let with_flash = self.setup.setup.blend.uses_flash() && self.setup.light.is_some();
        let floor = self.setup.slowest.position().0.min(now.settings.shutter.position().0) - 1e-6;
        let ceiling = if with_flash { self.setup.sync_safe.position().0 + 1e-6 } else { f64::INFINITY };
        let shutters: Vec<Setting<Shutter>> = match self.setup.shutter {
            Some(fixed) => vec![fixed],
            None => self
                .setup
                .shutters
                .settings()
                .filter(|shutter| (floor..=ceiling).contains(&shutter.position().0))
                .collect(),
        };
        let slowest = shutters.first().copied().unwrap_or(now.settings.shutter);
        let isos = fixed_or_all(self.setup.iso, self.setup.isos);
        let highest = isos.last().copied().unwrap_or(now.settings.iso);
        let apertures = fixed_or_all(self.setup.aperture, self.setup.apertures);
        let widest = apertures.first().copied().unwrap_or(now.settings.aperture);
        let at = |shutter, aperture, iso| CameraSettings { shutter, aperture, iso };
        let CameraSettings { shutter, aperture, iso } = now.settings;
        let by_shutter = |aperture, iso| shutters.iter().map(|one| at(*one, aperture, iso)).collect::<Vec<_>>();
        let by_iso = |shutter, aperture| isos.iter().map(|one| at(shutter, aperture, *one)).collect::<Vec<_>>();
        match self.order {
            FallingOrder::ShutterFirst => vec![by_shutter(aperture, iso), by_iso(slowest, aperture)],
            FallingOrder::IsoFirst => vec![by_iso(shutter, aperture), by_shutter(aperture, highest)],
            FallingOrder::ApertureFirst => {
                let by_aperture = apertures.iter().map(|one| at(shutter, *one, iso)).collect();
                vec![by_aperture, by_shutter(widest, iso), by_iso(slowest, widest)]
            }
        }
    }

    /// What the flash can do under some camera settings: as it stands, off, on its dial around what is needed, or moved
    /// back where its lowest power is too strong.
    fn flashes(&self, now: &State, settings: CameraSettings, minute: usize) -> Vec<State> {
        let as_it_is = State { settings, flash: now.flash };
        let (Some(light), Some(wish)) = (&self.setup.light, self.lit_wish(settings, minute)) else {
            return vec![as_it_is, State { settings, flash: None }];
        };
        let ambient = self.light[minute][self.setup.lit] - settings.ev100() - self.setup.filter;
        let mut found = vec![as_it_is];
        let begun = now.flash.map(|(distance, _)| distance);
        let distance = begun.or(light.distance).unwrap_or_else(|| light.dialled(Stops::ZERO).distance);
        let strength = light.guide_number.strength(distance, light.surface, light.loss);
        // From a third over the wish to a third under it: what comes out over holds longer as the ambient goes.
        for sixth in -2..=2 {
            let aim = wish + Stops(f64::from(sixth) / 6.0);
            let Some(missing) = ambient.missing_to(aim) else { continue };
            let needed = flash_needed(missing, settings, self.setup.filter);
            let exact = strength.power_for(needed);
            if let Some(fixed) = light.power {
                found.push(State { settings, flash: Some((distance, fixed)) });
                continue;
            }
            let power = light.step.nearest(exact);
            let held = Power(Stops(power.0.0.clamp(light.lowest.0.0, 0.0)));
            found.push(State { settings, flash: Some((distance, held)) });
            if power.0 < light.lowest.0 {
                found.push(State { settings, flash: Some((Self::back(light, needed, distance), light.lowest)) });
            }
        }
        found
    }

    /// The distance at which the lowest power gives so much, to the decimetre.
    fn back(light: &crate::job::CheckedLight<'_>, needed: Stops, from: Metres) -> Metres {
        let gn: GuideNumber = light.guide_number;
        let exact = gn.distance_for(needed, light.lowest, light.surface, light.loss, (from, FARTHEST));
        Metres((exact.0 * 10.0).round() / 10.0)
    }

    /// Which limits a state stands at: shutter floor, highest ISO, lowest power.
    pub fn at_floor(&self, state: &State) -> bool {
        state.settings.shutter.position().0 <= self.setup.slowest.position().0 + 1e-6
    }

    /// Whether the ISO stands at its end, or cannot be changed.
    pub fn at_highest_iso(&self, state: &State) -> bool {
        self.setup.iso.is_some() || self.setup.isos.end_of(state.settings.iso) == Some(DialEnd::High)
    }

    /// Whether the flash stands at its lowest power.
    pub fn at_lowest_power(&self, state: &State) -> bool {
        let lowest = self.setup.light.as_ref().map(|light| light.lowest.0);
        state.flash.zip(lowest).is_some_and(|((_, power), lowest)| power.0.0 <= lowest.0 + 1e-6)
    }
}

/// How many controls differ.
fn changes(a: &State, b: &State) -> u32 {
    let same = |x: f64, y: f64| (x - y).abs() < 1e-9;
    let settings = [
        same(a.settings.shutter.position().0, b.settings.shutter.position().0),
        same(a.settings.aperture.position().0, b.settings.aperture.position().0),
        same(a.settings.iso.position().0, b.settings.iso.position().0),
    ];
    let flash = match (a.flash, b.flash) {
        (Some((d, p)), Some((e, q))) => u32::from(!same(d.0, e.0)) * 3 + u32::from(!same(p.0.0, q.0.0)),
        (None, None) => 0,
        _ => 1,
    };
    flash + settings.iter().map(|same| u32::from(!same)).sum::<u32>()
}
