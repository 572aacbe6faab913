//! Falling light: when to change what, so that a blend stays as it is wished while the light goes.
//!
//! From the plan at the setup's hour on, minute by minute, settings stay while every wish is met within a third of a
//! stop. When one no longer is, the settings that will hold longest come next: for light that only falls, that is the
//! least number of changes there can be (an interval is covered by the fewest pieces when each reaches as far as it can).

use jiff::{SignedDuration, Timestamp};

use crate::cautions::READ_AGAIN;
use crate::lighting::{AmbientSource, FlashWish, Prepared, PreparedLight, PreparedScene};
use crate::setup::{FallingOrder, Sync};
use crate::solver::{DialledLight, Outcome, State, dialled, fixed_or_all, in_frame};
use tolva_core::exposure::{CameraSettings, Ev};
use tolva_core::scale::{DialEnd, Metres, Power, Setting, Shutter, Stops};

/// Within this every wish counts as met.
const TOLERANCE: f64 = 1.0 / 3.0 + 1e-6;
/// How long is looked ahead: a day.
const MINUTES: i64 = 24 * 60;
/// Of two that hold as long, the one with fewer controls to touch: a second one is worth less than a minute.
const SECOND_CONTROL_MIN: f64 = 0.5;
/// As far as a light is moved back.
const FARTHEST: Metres = Metres(12.0);

/// One stretch of the walk, and what stands in it.
#[derive(Clone, Debug)]
pub struct Leg {
    /// Its first minute.
    pub from: usize,
    /// Its last minute.
    pub to: usize,
    /// What stands in it.
    pub state: State,
    /// Whether every wish is met.
    pub met: bool,
}

/// Why it ends.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum End {
    /// A day is over and it still goes.
    Lasts,
    /// The camera cannot be set brighter.
    TooDark,
    /// The flash cannot keep up.
    Flash,
}

/// The walk through the minutes from the setup’s hour on.
pub struct Walk<'a> {
    setup: &'a Prepared<'a>,
    /// When it begins.
    pub begin: Timestamp,
    /// Each region's light, minute by minute.
    pub light: Vec<Vec<Ev>>,
    /// Its stretches, in order; never empty.
    pub legs: Vec<Leg>,
    /// Why it ends.
    pub end: End,
    /// What gives way first.
    pub order: FallingOrder,
    /// How far each region was from its wish in the plan it begins with.
    begun: Vec<f64>,
}

impl<'a> Walk<'a> {
    /// The walk of a setup from its hour on.
    pub fn new(setup: &'a Prepared<'a>, scene: &'a PreparedScene<'a>) -> Self {
        let begin = scene.light.at;
        let track = scene.light.spot.track(begin, begin + SignedDuration::from_mins(MINUTES));
        let light = (0..=MINUTES).map(|minute| {
            let at = begin + SignedDuration::from_mins(minute);
            let now = scene.light.under(track.sun(at), at);
            setup.light.iter().map(|light| light.all(Some(&now))).collect()
        });
        let order = setup.setup.falling_order;
        let mut walk =
            Self { setup, begin, light: light.collect(), legs: Vec::new(), end: End::Lasts, order, begun: Vec::new() };
        walk.go();
        walk
    }

    fn go(&mut self) {
        let outcome = Outcome::of(self.setup);
        let mut state = State::of(&outcome);
        self.begun = (0..outcome.regions.len())
            .map(|region| {
                let wish = self.wish(state.settings, 0, region);
                wish.map_or(0.0, |wish| (self.together(&state, 0, region) - wish).0.abs())
            })
            .collect();
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
            self.legs.push(Leg { from: at, to, state: state.clone(), met });
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
        let placed = self.setup.setup.blend.placed(self.setup);
        if placed.ambient_alone {
            self.light[minute][placed.region] - state.settings.ev100() - self.setup.filter - placed.place
        } else {
            self.together(state, minute, placed.region) - placed.place
        }
    }

    /// What ambient and flash give a region.
    pub fn together(&self, state: &State, minute: usize, region: usize) -> Stops {
        let ambient = self.light[minute][region] - state.settings.ev100() - self.setup.filter;
        let lights = self.setup.lights.iter().zip(&state.flashes);
        lights.fold(ambient, |sum, (light, at)| match at {
            Some(at) => sum.and(in_frame(self.setup, light, *at, state.settings) + light.spill(region, at.0)),
            None => sum,
        })
    }

    /// Where flash and ambient together are to put a region; nothing where no flash is wished, or where the ambient
    /// alone is over it.
    fn wish(&self, settings: CameraSettings, minute: usize, region: usize) -> Option<Stops> {
        let blend = self.setup.setup.blend;
        if !self.setup.lights.iter().any(|light| light.aimed_at == region && self.setup.fires(light)) {
            return None;
        }
        let wish = blend.region_wish(self.setup, region)?;
        let ambient = self.light[minute][region] - settings.ev100() - self.setup.filter;
        (ambient < wish).then_some(wish)
    }

    fn met(&self, state: &State, minute: usize) -> bool {
        if self.ambient_off(state, minute).0.abs() > TOLERANCE {
            return false;
        }
        (0..self.light[minute].len()).all(|region| match self.wish(state.settings, minute, region) {
            Some(wish) => {
                let off = self.together(state, minute, region) - wish;
                // Where several lights meet, what was never quite had is no reason to stop.
                let allowed = if region == self.setup.lit { TOLERANCE } else { TOLERANCE.max(self.begun_off(region)) };
                off.0.abs() <= allowed
            }
            None => true,
        })
    }

    /// How far a region other than the lit side was from its wish to begin with.
    fn begun_off(&self, region: usize) -> f64 {
        self.begun.get(region).copied().unwrap_or_default() + 1e-6
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
        let synced = self.setup.with_flash() && self.setup.setup.sync != Sync::HighSpeed;
        let floor = self.setup.slowest.position().0.min(now.settings.shutter.position().0) - 1e-6;
        let ceiling = if synced { self.setup.sync_safe.position().0 + 1e-6 } else { f64::INFINITY };
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
        let isos = fixed_or_all(self.setup.iso, &self.setup.isos);
        let highest = isos.last().copied().unwrap_or(now.settings.iso);
        let apertures = fixed_or_all(self.setup.aperture, &self.setup.apertures);
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

    /// What the flashes can do under some camera settings: as they stand, off, on their dials around what is needed, or
    /// moved back where their lowest power is too strong.
    fn flashes(&self, now: &State, settings: CameraSettings, minute: usize) -> Vec<State> {
        let as_it_is = State { settings, flashes: now.flashes.clone() };
        let setup = self.setup;
        let off = vec![None; setup.lights.len()];
        let wished = (0..self.light[minute].len()).any(|region| self.wish(settings, minute, region).is_some());
        if setup.lights.is_empty() || !wished {
            return vec![as_it_is, State { settings, flashes: off }];
        }
        let mut found = vec![as_it_is];
        let distances: Vec<Metres> = (setup.lights.iter().zip(&now.flashes))
            .map(|(light, at)| {
                let begun = at.map(|(distance, _)| distance);
                begun.or(light.distance).unwrap_or_else(|| light.usual_distance())
            })
            .collect();
        let ambient: Vec<Stops> = self.light[minute].iter().map(|ev| *ev - settings.ev100() - setup.filter).collect();
        // From a third over the wish to a third under it: what comes out over holds longer as the ambient goes.
        for sixth in -2..=2 {
            let aim = Stops(f64::from(sixth) / 6.0);
            // The lights beside the key are aimed at their wish itself.
            let targets: Vec<Option<Stops>> = (0..ambient.len())
                .map(|region| {
                    let wish = self.wish(settings, minute, region);
                    wish.map(|wish| if region == setup.lit { wish + aim } else { wish })
                })
                .collect();
            let wishes: Vec<FlashWish> = (ambient.iter().zip(&targets))
                .map(|(ambient, target)| FlashWish::completing(*ambient, *target))
                .collect();
            let lights = dialled(setup, settings, (&ambient, &wishes, &targets), Some(&distances));
            let State { flashes, .. } = State::new(settings, &lights);
            let back: Vec<Option<(Metres, Power)>> =
                (setup.lights.iter().zip(&lights)).map(|(light, at)| at.map(|at| Self::back(light, at))).collect();
            let moved = back != flashes;
            found.push(State { settings, flashes });
            if moved {
                found.push(State { settings, flashes: back });
            }
        }
        found
    }

    /// Where a light stands whose lowest power is too strong: back, to the decimetre, until it gives what is wanted.
    fn back(light: &PreparedLight<'_>, at: DialledLight) -> (Metres, Power) {
        if light.power.is_some() || light.step.nearest(at.exact).0 >= light.lowest.0 || light.bounced.is_some() {
            return (at.distance, at.power);
        }
        let wanted = light.gives(at.distance, at.exact);
        let bounds = at.distance..=FARTHEST;
        let exact = light.distance_giving(wanted, light.lowest, bounds);
        (Metres((exact.0 * 10.0).round() / 10.0), light.lowest)
    }

    /// The whole minute of the walk at an instant, held to it.
    pub fn minute(&self, instant: Timestamp) -> usize {
        let minute = tolva_core::time::minutes_between(self.begin, instant).floor();
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "held to the walk")]
        let minute = minute.max(0.0) as usize;
        minute.min(self.light.len() - 1)
    }

    /// What stands at an instant: before the walk begins what it begins with, after its end what it ended with.
    pub fn at(&self, instant: Timestamp) -> &State {
        let minute = self.minute(instant);
        let leg = self.legs.iter().rev().find(|leg| leg.from <= minute);
        &leg.unwrap_or(&self.legs[0]).state
    }

    /// The first minute at which the light on a region has moved so far since it was read that it is to be read again;
    /// nothing where it was not read, or does not move so far.
    pub fn read_again(&self, region: usize) -> Option<usize> {
        let AmbientSource::Read { moved, .. } = self.setup.known[region] else { return None };
        let begun = self.light[0][region];
        let is_old = |light: &Vec<Ev>| ((light[region] - begun) + moved).0.abs() > READ_AGAIN;
        self.light.iter().position(is_old)
    }

    /// Which limits a state stands at: shutter floor, highest ISO, lowest power.
    pub fn at_floor(&self, state: &State) -> bool {
        state.settings.shutter.position().0 <= self.setup.slowest.position().0 + 1e-6
    }

    /// Whether the ISO stands at its end, or cannot be changed.
    pub fn at_highest_iso(&self, state: &State) -> bool {
        self.setup.iso.is_some() || self.setup.isos.end_of(state.settings.iso) == Some(DialEnd::High)
    }

    /// The first flash that stands at its lowest power.
    pub fn at_lowest_power(&self, state: &State) -> Option<&PreparedLight<'_>> {
        let mut lights = self.setup.lights.iter().zip(&state.flashes);
        let lowest = |light: &PreparedLight<'_>, at: &(Metres, Power)| at.1.0.0 <= light.lowest.0.0 + 1e-6;
        lights.find(|(light, at)| at.as_ref().is_some_and(|at| lowest(light, at))).map(|(light, _)| light)
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
    let flashes = a.flashes.iter().zip(&b.flashes).map(|pair| match pair {
        (Some((d, p)), Some((e, q))) => u32::from(!same(d.0, e.0)) * 3 + u32::from(!same(p.0.0, q.0.0)),
        (None, None) => 0,
        _ => 1,
    });
    flashes.sum::<u32>() + settings.iter().map(|same| u32::from(!same)).sum::<u32>()
}
