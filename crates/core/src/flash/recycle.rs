//! Recycling, batteries and heat. A pop takes its energy from a store that refills at a steady rate; energy is in
//! full pops. Common practice, no source; the real unit's times go into the kit.

use crate::scale::Power;

/// What a unit's store and battery can do.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Recycling {
    /// From empty to ready after a full pop, in seconds.
    pub full_s: f64,
    /// Full pops from a battery; none on mains.
    pub pops_full: Option<f64>,
    /// Full pops, one as soon as the other is ready, before the head must rest; none where nothing is known.
    pub rest_after: Option<f64>,
    /// For how long it then rests, in seconds.
    pub rest_s: f64,
}

/// What a burst comes to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Burst {
    /// It goes on for as long as the battery.
    ForEver,
    /// So many frames are flashed before one is not.
    RunsDryAfter(u32),
}

/// A burst this long that never ran dry never will: the store has settled by then.
const SETTLED: u32 = 20_000;

impl Recycling {
    /// Nothing is known of it: always ready, from mains.
    pub const MAINS: Self = Self { full_s: 0.0, pops_full: None, rest_after: None, rest_s: 0.0 };

    /// The energy of a pop, in full ones.
    fn energy(power: Power) -> f64 {
        power.0.ratio()
    }

    /// From one pop to the next at a power, in seconds.
    pub fn time_s(&self, power: Power) -> f64 {
        self.full_s * Self::energy(power)
    }

    /// A burst at so many frames a second, frame by frame: each takes its energy from the store, which refills
    /// between.
    ///
    /// ```
    /// use tolva_core::{flash::{Burst, Recycling}, scale::{Power, Stops}};
    /// let unit = Recycling { full_s: 1.5, pops_full: None, rest_after: None, rest_s: 0.0 };
    /// assert_eq!(unit.burst(Power(Stops(-4.0)), 10.0), Burst::ForEver);
    /// assert!(matches!(unit.burst(Power(Stops(-3.0)), 10.0), Burst::RunsDryAfter(14..=17)));
    /// ```
    pub fn burst(&self, power: Power, frames_per_s: f64) -> Burst {
        let store = self.stores(power, frames_per_s, SETTLED);
        u32::try_from(store.len()).map_or(Burst::ForEver, |flashed| {
            if flashed < SETTLED { Burst::RunsDryAfter(flashed) } else { Burst::ForEver }
        })
    }

    /// What is left in the store after each frame that was flashed, 0 to 1: as long as the burst, or shorter where it
    /// ran dry.
    pub fn stores(&self, power: Power, frames_per_s: f64, frames: u32) -> Vec<f64> {
        let takes = Self::energy(power);
        let refills = 1.0 / (self.full_s * frames_per_s);
        let mut left = 1.0_f64;
        let mut all = Vec::new();
        for _ in 0..frames {
            if left + 1e-9 < takes {
                break;
            }
            left -= takes;
            all.push(left.max(0.0));
            left = (left + refills).min(1.0);
        }
        all
    }

    /// Frames until the battery is empty; none on mains.
    pub fn frames_in_battery(&self, power: Power) -> Option<f64> {
        self.pops_full.map(|pops| (pops / Self::energy(power)).floor())
    }

    /// Frames, each as soon as the one before allows or `every_s` where that is longer, until the head must rest; none
    /// where it never must, or nothing is known. Heat goes away as fast as the limit and its rest say.
    pub fn frames_until_rest(&self, power: Power, every_s: f64) -> Option<f64> {
        let limit = self.rest_after?;
        let takes = Self::energy(power);
        let gap = every_s.max(self.time_s(power));
        let cools = if self.rest_s > 0.0 { limit / self.rest_s * gap } else { 0.0 };
        (takes > cools + 1e-12).then(|| ((limit - takes) / (takes - cools)).max(0.0).floor() + 1.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scale::Stops;
    use proptest::prelude::*;
    use rstest::rstest;

    fn unit() -> Recycling {
        Recycling { full_s: 1.5, pops_full: Some(200.0), rest_after: Some(30.0), rest_s: 600.0 }
    }

    /// The check value: full recycle 1.5 s, 10 frames a second.
    #[rstest]
    #[case(-6.0, None)]
    #[case(-4.0, None)]
    #[case(-3.0, Some(15))]
    #[case(0.0, Some(1))]
    fn bursts(#[case] power: f64, #[case] about: Option<u32>) {
        match (unit().burst(Power(Stops(power)), 10.0), about) {
            (Burst::ForEver, None) => {}
            (Burst::RunsDryAfter(frames), Some(about)) => assert!(frames.abs_diff(about) <= 2, "{frames}"),
            other => panic!("{other:?}"),
        }
    }

    #[test]
    fn one_sixteenth_is_only_just_enough() {
        let slower = Recycling { full_s: 1.7, ..unit() };
        assert!(matches!(slower.burst(Power(Stops(-4.0)), 10.0), Burst::RunsDryAfter(_)));
    }

    #[test]
    fn battery_and_heat() {
        assert_eq!(unit().frames_in_battery(Power(Stops(-4.0))), Some(3200.0));
        assert_eq!(Recycling { pops_full: None, ..unit() }.frames_in_battery(Power::FULL), None);
        // At full power, as fast as it goes, a little more than the limit, since it cools a little on the way.
        let hot = unit().frames_until_rest(Power::FULL, 0.0).expect("a limit");
        assert!((30.0..36.0).contains(&hot), "{hot}");
        assert_eq!(unit().frames_until_rest(Power(Stops(-6.0)), 5.0), None);
    }

    proptest! {
        /// The closed form: each frame takes e and brings r, so n frames last while n·e − (n − 1)·r ≤ 1.
        #[test]
        fn the_simulation_agrees_with_its_closed_form(power in -5.0..-0.1_f64, fps in 1.0..20.0_f64) {
            let (e, r) = (power.exp2(), 1.0 / (1.5 * fps));
            let expected = if e <= r { None } else { Some(((1.0 - r) / (e - r)).floor()) };
            match (unit().burst(Power(Stops(power)), fps), expected) {
                (Burst::ForEver, None) => {}
                (Burst::RunsDryAfter(n), Some(m)) => prop_assert!((f64::from(n) - m).abs() <= 1.0, "{n} {m}"),
                (Burst::ForEver, Some(m)) => prop_assert!(m > 19_000.0),
                (dry, None) => prop_assert!(false, "{dry:?}"),
            }
        }

        #[test]
        fn less_power_never_lasts_shorter(power in -6.0..0.0_f64, fps in 1.0..20.0_f64) {
            let frames = |power: f64| unit().stores(Power(Stops(power)), fps, 500).len();
            prop_assert!(frames(power - 0.5) >= frames(power));
        }
    }
}
