//! Radio triggers: powers are sent to the units' receivers, and each reports back.

use std::collections::HashMap;

use rand_distr::{Distribution as _, Uniform};
use serde::{Deserialize, Serialize};
use tolva_core::flash::Recycling;
use tolva_core::scale::{Power, Stops};
use utoipa::ToSchema;

use crate::dice;

/// What is sent to one unit.
#[derive(Clone, Debug, PartialEq)]
pub struct Sent {
    /// The unit: the letter of its light.
    pub light_id: String,
    /// The group it listens to.
    pub group: u8,
    /// From the camera, in metres.
    pub away_m: f64,
    /// The power in stops under full; none where it is to be off.
    pub power_stops: Option<f64>,
    /// What its store and battery can do.
    pub recycling: Recycling,
}

/// How a unit is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UnitState {
    /// It has its power and is ready.
    Ready,
    /// It is to be off.
    Off,
    /// It is filling up again.
    Recycling,
    /// It does not hear the trigger.
    OutOfReach,
    /// Its battery is empty.
    Empty,
    /// Its head is too hot.
    Overheated,
}

/// What a unit reports.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Heard {
    /// The unit.
    pub light_id: String,
    /// Its group.
    pub group: u8,
    /// How it is.
    pub state: UnitState,
    /// The power that stands on it, in stops under full; null where it did not answer.
    pub power_stops: Option<f64>,
    /// The same in a sentence.
    pub says: String,
    /// Whether it flashed, where a frame was taken.
    pub flashed: bool,
}

/// A trigger on the camera. Time is passed in, in seconds.
pub trait Trigger {
    /// Sends each unit its power, and listens.
    fn send(&mut self, channel: u8, units: &[Sent], now_s: f64) -> Vec<Heard>;
    /// Takes a frame: each unit that is ready flashes.
    fn fire(&mut self, channel: u8, units: &[Sent], now_s: f64) -> Vec<Heard>;
}

/// A stand-in for a set of receivers: each has its own reach and the charge it came with; its store refills, its battery
/// empties, its head warms and cools. The same for the same seed and the same doings.
#[derive(Debug, Default)]
pub struct SimulatedTrigger {
    /// Another seed is another set of receivers.
    pub seed: u64,
    units: HashMap<(u8, String), Unit>,
}

#[derive(Clone, Copy, Debug)]
struct Unit {
    reach_m: f64,
    /// Full pops left.
    charge: f64,
    store: f64,
    /// Full pops of heat.
    heat: f64,
    /// Too hot until it has cooled to half.
    resting: bool,
    seen_s: f64,
}

/// As far as receivers hear, in metres: common practice, no source. People and walls make it less.
const REACH_M: (f64, f64) = (25.0, 45.0);
/// A battery on the set is seldom full.
const CHARGE: (f64, f64) = (0.35, 1.0);

impl SimulatedTrigger {
    fn unit(&mut self, channel: u8, sent: &Sent, now_s: f64) -> &mut Unit {
        let seed = self.seed.to_string();
        let unit = self.units.entry((channel, sent.light_id.clone())).or_insert_with(|| {
            let mut dice = dice(&["trigger", &seed, &sent.light_id]);
            let mut between = |(least, most): (f64, f64)| {
                Uniform::new(least, most).map_or(least, |uniform| uniform.sample(&mut dice))
            };
            let charge = sent.recycling.pops_full.map_or(f64::INFINITY, |pops| pops * between(CHARGE));
            Unit { reach_m: between(REACH_M), charge, store: 1.0, heat: 0.0, resting: false, seen_s: now_s }
        });
        let passed = (now_s - unit.seen_s).max(0.0);
        unit.seen_s = now_s;
        if sent.recycling.full_s > 0.0 {
            unit.store = (unit.store + passed / sent.recycling.full_s).min(1.0);
        }
        if let Some(limit) = sent.recycling.rest_after {
            let cooled = if sent.recycling.rest_s > 0.0 { limit / sent.recycling.rest_s * passed } else { limit };
            unit.heat = (unit.heat - cooled).max(0.0);
            unit.resting = if unit.resting { unit.heat > limit / 2.0 } else { unit.heat >= limit };
        }
        unit
    }
}

impl Unit {
    fn state(&self, sent: &Sent) -> UnitState {
        let Some(power) = sent.power_stops else { return UnitState::Off };
        let takes = power.exp2();
        match () {
            () if sent.away_m > self.reach_m => UnitState::OutOfReach,
            () if self.charge < takes => UnitState::Empty,
            () if self.resting => UnitState::Overheated,
            () if self.store + 1e-9 < takes => UnitState::Recycling,
            () => UnitState::Ready,
        }
    }

    fn heard(&self, sent: &Sent, flashed: bool) -> Heard {
        let state = self.state(sent);
        let id = &sent.light_id;
        let says = match (state, sent.power_stops) {
            (UnitState::Ready, Some(_)) => format!("{id} is ready."),
            (UnitState::Recycling, Some(power)) => {
                let left = ((power.exp2() - self.store) * sent.recycling.full_s).max(0.1);
                format!("{id} is recycling: ready in {left:.1} s.")
            }
            (UnitState::OutOfReach, _) => {
                format!("{id} does not hear the trigger at {:.0} m. Bring it nearer, or in sight.", sent.away_m)
            }
            (UnitState::Empty, _) => format!("{id}: its battery is empty. Change it."),
            (UnitState::Overheated, _) => {
                format!(
                    "{id} is too hot. Let its head rest, about {:.0} min by its maker.",
                    sent.recycling.rest_s / 60.0
                )
            }
            (UnitState::Off | UnitState::Ready | UnitState::Recycling, _) => format!("{id} is off."),
        };
        Heard {
            light_id: id.clone(),
            group: sent.group,
            state,
            power_stops: sent.power_stops.filter(|_| state != UnitState::OutOfReach),
            says,
            flashed,
        }
    }
}

impl Trigger for SimulatedTrigger {
    fn send(&mut self, channel: u8, units: &[Sent], now_s: f64) -> Vec<Heard> {
        units.iter().map(|sent| self.unit(channel, sent, now_s).heard(sent, false)).collect()
    }

    fn fire(&mut self, channel: u8, units: &[Sent], now_s: f64) -> Vec<Heard> {
        let one = |sent: &Sent| {
            let unit = self.unit(channel, sent, now_s);
            let flashes = unit.state(sent) == UnitState::Ready;
            if let (true, Some(power)) = (flashes, sent.power_stops) {
                let takes = Power(Stops(power)).0.ratio();
                unit.store -= takes;
                unit.charge -= takes;
                unit.heat += takes;
                unit.resting |= sent.recycling.rest_after.is_some_and(|limit| unit.heat >= limit);
            }
            unit.heard(sent, flashes)
        };
        units.iter().map(one).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sent(power: f64) -> Sent {
        Sent {
            light_id: "A".to_owned(),
            group: 1,
            away_m: 3.0,
            power_stops: Some(power),
            recycling: Recycling { full_s: 2.0, pops_full: Some(100.0), rest_after: Some(20.0), rest_s: 300.0 },
        }
    }

    fn states(heard: &[Heard]) -> Vec<UnitState> {
        heard.iter().map(|heard| heard.state).collect()
    }

    #[test]
    fn powers_are_sent_and_reported_back() {
        let mut trigger = SimulatedTrigger::default();
        let off = Sent { light_id: "B".to_owned(), power_stops: None, ..sent(0.0) };
        let heard = trigger.send(1, &[sent(-3.0), off], 0.0);
        assert_eq!(states(&heard), [UnitState::Ready, UnitState::Off]);
        assert_eq!((heard[0].power_stops, heard[1].power_stops), (Some(-3.0), None));
    }

    #[test]
    fn a_full_pop_recycles_and_is_ready_again() {
        let mut trigger = SimulatedTrigger::default();
        let heard = trigger.fire(1, &[sent(0.0)], 0.0);
        assert!(heard[0].flashed && heard[0].state == UnitState::Recycling, "{heard:?}");
        assert!(heard[0].says.contains("ready in 2.0 s"));
        let early = trigger.fire(1, &[sent(0.0)], 1.0);
        assert!(!early[0].flashed, "shown, never silently ignored");
        assert_eq!(states(&trigger.send(1, &[sent(0.0)], 2.1)), [UnitState::Ready]);
    }

    #[test]
    fn far_away_it_does_not_hear() {
        let heard = SimulatedTrigger::default().send(1, &[Sent { away_m: 60.0, ..sent(-2.0) }], 0.0);
        assert_eq!((heard[0].state, heard[0].power_stops), (UnitState::OutOfReach, None));
    }

    #[test]
    fn fired_without_rest_it_is_too_hot_and_cools_again() {
        let mut trigger = SimulatedTrigger::default();
        let mut now = 0.0;
        while trigger.fire(1, &[sent(0.0)], now)[0].state != UnitState::Overheated {
            now += 2.1;
            assert!(now < 100.0, "never too hot");
        }
        assert!(now > 30.0);
        assert_eq!(states(&trigger.send(1, &[sent(0.0)], now + 5.0)), [UnitState::Overheated]);
        assert_eq!(states(&trigger.send(1, &[sent(0.0)], now + 200.0)), [UnitState::Ready]);
    }

    #[test]
    fn a_battery_runs_empty() {
        let mut trigger = SimulatedTrigger::default();
        let mut flashed = 0;
        let cool = Recycling { rest_after: None, ..sent(0.0).recycling };
        for frame in 0..200 {
            let heard = trigger.fire(1, &[Sent { recycling: cool, ..sent(0.0) }], f64::from(frame) * 3.0);
            flashed += u32::from(heard[0].flashed);
        }
        assert!((35..=100).contains(&flashed), "{flashed}");
        assert_eq!(states(&trigger.send(1, &[sent(0.0)], 1e6)), [UnitState::Empty]);
    }

    #[test]
    fn the_same_doings_are_the_same_again() {
        let run = || {
            let mut trigger = SimulatedTrigger { seed: 7, ..SimulatedTrigger::default() };
            (0..50).map(|frame| trigger.fire(1, &[sent(-0.5)], f64::from(frame))).collect::<Vec<_>>()
        };
        assert_eq!(run(), run());
    }
}
