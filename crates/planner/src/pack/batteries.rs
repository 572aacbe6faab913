//! Batteries: for the pops that the frames take, and for lamps while they burn.

use std::collections::BTreeMap;

use super::{PackWhy, SPARE, frames_of};
use crate::lighting::Prepared;
use crate::setup::{FlashOutput, Kit, Light, Setup};
use crate::solver::Outcome;

/// What the units of the kit give over a job, each kind by its id.
#[derive(Debug, Default)]
pub(super) struct Batteries<'a>(BTreeMap<&'a str, Spent>);

/// What the units of one kind give over the job.
#[derive(Debug, Default)]
struct Spent {
    /// Each unit: full pops, or minutes at full power of a lamp.
    units: Vec<f64>,
    /// Whether the number of frames of a setup is not known.
    unsaid: bool,
}

impl Spent {
    /// Adds a setup's units: the one that works hardest is the one that has worked least so far.
    fn add(&mut self, mut setup: Vec<f64>) {
        setup.sort_by(|a, b| b.total_cmp(a));
        self.units.resize(self.units.len().max(setup.len()), 0.0);
        self.units.sort_by(f64::total_cmp);
        for (unit, spent) in self.units.iter_mut().zip(setup) {
            *unit += spent;
        }
    }

    /// Number of batteries, given what one gives. Every unit has at least one.
    fn batteries(&self, a_battery: f64) -> u32 {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "some batteries")]
        let each = |spent: &f64| (spent / a_battery).ceil().max(1.0) as u32;
        self.units.iter().map(each).sum()
    }
}

impl<'a> Batteries<'a> {
    /// Adds what a setup takes, as it is planned.
    pub fn add(&mut self, setup: &Setup, prepared: &Prepared<'a>, outcome: &Outcome) {
        let frames = frames_of(setup);
        let mut spent: BTreeMap<&str, Vec<f64>> = BTreeMap::new();
        let mut each_unit = |light: &'a Light, gives: f64| {
            let units = usize::from(light.units.max(1));
            spent.entry(light.flash_id.as_str()).or_default().extend(std::iter::repeat_n(gives, units));
        };
        for (light, dialled) in prepared.lights.iter().zip(&outcome.lights) {
            let Some(dialled) = dialled else { continue };
            each_unit(light.light, f64::from(frames.unwrap_or(0)) * dialled.power.0.ratio());
            self.0.entry(light.light.flash_id.as_str()).or_default().unsaid |= frames.is_none();
        }
        for lamp in &prepared.lamps {
            let Some(power) = lamp.power else { continue };
            each_unit(lamp.light, f64::from(setup.schedule.shoot_min) * power.0.ratio());
        }
        for (id, spent) in spent {
            self.0.entry(id).or_default().add(spent);
        }
    }

    /// How many batteries each kind of unit takes that runs on some, and why.
    pub fn asked_for(&self, kit: &'a Kit) -> Vec<(&'a str, u32, PackWhy)> {
        let of_unit = |(id, spent): (&&str, &Spent)| {
            let flash = kit.flashes.iter().find(|flash| flash.id == **id)?;
            let all: f64 = spent.units.iter().sum();
            let (a_battery, why) = if let FlashOutput::Continuous(lamp) = &flash.output {
                let a_battery_min = lamp.battery_full_min?;
                (a_battery_min, PackWhy::Burning { full_min: all, a_battery_min })
            } else {
                let (a_battery, full_pops) = (flash.pops_full?, (!spent.unsaid).then_some(all));
                (a_battery, PackWhy::Pops { full_pops, a_battery })
            };
            Some((flash.id.as_str(), spent.batteries(a_battery) + SPARE, why))
        };
        self.0.iter().filter_map(of_unit).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::{PackKind, PackList, pack_list};
    use super::*;
    use crate::setup::{Shot, ShotKind};

    fn of_batteries(list: PackList) -> Option<(u32, PackWhy)> {
        let item = list.items.into_iter().find(|item| item.kind == PackKind::Battery)?;
        Some((item.count, item.why))
    }

    /// Batteries by the pops the frames take: at 1/4 a pop is a quarter of a full one, and one more is carried.
    #[test]
    fn batteries_are_for_the_frames() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.lights[0].power_stops = Some(-2.0);
        let batteries = |setup: &Setup| {
            let list = pack_list(std::slice::from_ref(setup), &kit);
            let item = list.items.iter().find(|item| item.kind == PackKind::Battery).cloned().expect("a battery");
            (item.count, item.why)
        };
        let a_battery = 450.0;
        assert_eq!(
            batteries(&setup),
            (2, PackWhy::Pops { full_pops: None, a_battery }),
            "the number of frames is not known"
        );
        setup.shots = vec![
            Shot { frames: 1000, ..Shot::new("a") },
            Shot { frames: 1000, kind: ShotKind::Bracket, ..Shot::new("b") },
        ];
        assert_eq!(batteries(&setup), (3, PackWhy::Pops { full_pops: Some(500.0), a_battery }));
    }

    /// Two lights of 100 full pops each, 150 a battery: one battery each and a spare. Two units on one light count as two.
    #[test]
    fn each_unit_has_its_own_batteries() {
        let mut kit = Kit::starter();
        for flash in &mut kit.flashes {
            flash.pops_full = Some(150.0);
        }
        let mut setup = Setup::new("one", &kit);
        setup.lights[0].power_stops = Some(0.0);
        setup.shots = vec![Shot { frames: 100, ..Shot::new("a") }];
        let batteries = |setup: &Setup| {
            let list = pack_list(std::slice::from_ref(setup), &kit);
            list.items.into_iter().find(|item| item.kind == PackKind::Battery).map_or(0, |item| item.count)
        };
        assert_eq!(batteries(&setup), 1 + SPARE);
        let mut two_units = setup.clone();
        two_units.lights[0].units = 2;
        assert_eq!(batteries(&two_units), 2 + SPARE);
        let mut two_lights = setup.clone();
        two_lights.lights.push(Light { id: "B".into(), ..setup.lights[0].clone() });
        assert_eq!(batteries(&two_lights), 2 + SPARE);
        two_lights.lights.swap(0, 1);
        assert_eq!(batteries(&two_lights), 2 + SPARE);
        // 200 pops each over two such setups: two batteries each.
        let both = pack_list(&[two_lights.clone(), two_lights], &kit);
        assert_eq!(
            both.items.iter().find(|item| item.kind == PackKind::Battery).map(|item| item.count),
            Some(4 + SPARE)
        );
    }

    /// A lamp burns while its setups are shot, dimmed as planned: half an hour at a quarter is 7.5 minutes at full power. On
    /// mains it takes no battery.
    #[test]
    fn a_lamp_burns_while_it_is_shot() {
        let mut kit = Kit::starter();
        let lamp = kit.flashes.iter_mut().find(|one| one.burns_on()).expect("one");
        let id = lamp.id.clone();
        let mut setup = Setup::new("one", &kit);
        setup.lights[0].flash_id.clone_from(&id);
        setup.lights[0].power_stops = Some(-2.0);
        setup.schedule.shoot_min = 30;
        assert_eq!(of_batteries(pack_list(std::slice::from_ref(&setup), &kit)), None, "on mains");
        let with = |minutes: f64| {
            let mut kit = kit.clone();
            for flash in &mut kit.flashes {
                if let FlashOutput::Continuous(lamp) = &mut flash.output {
                    lamp.battery_full_min = Some(minutes);
                }
            }
            of_batteries(pack_list(std::slice::from_ref(&setup), &kit))
        };
        assert_eq!(with(60.0), Some((1 + SPARE, PackWhy::Burning { full_min: 7.5, a_battery_min: 60.0 })));
        assert_eq!(with(5.0), Some((2 + SPARE, PackWhy::Burning { full_min: 7.5, a_battery_min: 5.0 })));
    }
}
