//! What to carry: everything the setups of a job use, each as often as the setup that uses most of it, with ballast for the
//! wind, and batteries and memory for the frames.

mod batteries;

use std::collections::{BTreeMap, BTreeSet};

use crate::lighting::Prepared;
use crate::set::{SetNotice, distances_of, notices};
use crate::setup::{CardKind, Kit, Light, Setup};
use crate::solver::Outcome;
use crate::staging::Thing;
use batteries::Batteries;

/// Of batteries and memory one more than is asked for. Common practice, no source.
const SPARE: u32 = 1;
/// A raw file and a JPEG beside it come to so many megabytes a megapixel. Common practice, no source.
const MEGABYTES_A_MEGAPIXEL: f64 = 2.0;

/// What kind of thing is carried.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum PackKind {
    /// A camera.
    Camera,
    /// A lens.
    Lens,
    /// A filter for it.
    Filter,
    /// A flash unit or a lamp.
    Flash,
    /// A battery for one.
    Battery,
    /// A radio trigger.
    Trigger,
    /// A modifier.
    Modifier,
    /// A gel.
    Gel,
    /// A stand.
    Stand,
    /// A boom.
    Boom,
    /// A card, a flag or a diffuser.
    Card,
    /// A clamp to hold one with.
    Clamp,
    /// Sandbags or water: kilograms of it.
    Ballast,
    /// A meter.
    Meter,
    /// A memory card.
    Memory,
}

impl PackKind {
    /// What kind it is, as a word that stays.
    pub fn code(self) -> &'static str {
        match self {
            Self::Camera => "camera",
            Self::Lens => "lens",
            Self::Filter => "filter",
            Self::Flash => "flash",
            Self::Battery => "battery",
            Self::Trigger => "trigger",
            Self::Modifier => "modifier",
            Self::Gel => "gel",
            Self::Stand => "stand",
            Self::Boom => "boom",
            Self::Card => "card",
            Self::Clamp => "clamp",
            Self::Ballast => "ballast",
            Self::Meter => "meter",
            Self::Memory => "memory",
        }
    }
}

/// Why there are so many of something.
#[derive(Clone, Debug, PartialEq)]
pub enum PackWhy {
    /// The setup that uses most of it uses so many.
    Used,
    /// For a lamp that burns so long, from batteries that last so long; with a spare.
    Burning {
        /// How long it burns while the setups are shot, in minutes at full power.
        full_min: f64,
        /// How long one battery lasts at full power, in minutes.
        a_battery_min: f64,
    },
    /// For so many pops, in full ones, from batteries of so many; with a spare.
    Pops {
        /// What the frames take, in full pops; nothing where nobody has said how many frames.
        full_pops: Option<f64>,
        /// What one battery gives.
        a_battery: f64,
    },
    /// So that the stands of the setup that is caught most stay in the wind.
    Wind,
    /// For so many frames of so many megabytes.
    Frames {
        /// How many.
        frames: u32,
        /// Each, raw and JPEG.
        megabytes: f64,
    },
}

/// Something to carry.
#[derive(Clone, Debug, PartialEq)]
pub struct PackItem {
    /// What kind.
    pub kind: PackKind,
    /// What it is by: its id in the kit, or what makes it another one. Unique among its kind.
    pub id: String,
    /// What it is called; empty where its kind says it.
    pub name: String,
    /// How many, or how many kilograms.
    pub count: u32,
    /// What one weighs, where that is known.
    pub weight_kg: Option<f64>,
    /// The setups that use it, by their places in the job.
    pub setups: Vec<usize>,
    /// Why so many.
    pub why: PackWhy,
}

/// What a job takes along.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PackList {
    /// By kind, and by name.
    pub items: Vec<PackItem>,
    /// What is weighed of it comes to so many kilograms.
    pub weighed_kg: f64,
    /// So many things of it nobody has weighed.
    pub unweighed: u32,
    /// Setups that cannot be planned, by their places in the job: only what they name is in the list.
    pub unplanned: Vec<usize>,
}

/// How many frames a setup takes at least: by its shots, else by what is said of its pace; nothing where nobody has said.
pub fn frames_of(setup: &Setup) -> Option<u32> {
    let shots: u32 = setup.shots.iter().map(|shot| shot.frames).sum();
    let said = setup.pace.as_ref().map(|pace| pace.frames).filter(|frames| *frames > 0);
    if setup.shots.is_empty() { said } else { Some(shots.max(said.unwrap_or(0))) }
}

struct Gathered<'a> {
    kit: &'a Kit,
    items: BTreeMap<(PackKind, String), PackItem>,
}

impl Gathered<'_> {
    /// So many of something in a setup: the setup that uses most of it counts.
    fn used(&mut self, setup: usize, kind: PackKind, id: &str, name: &str, count: u32, weight_kg: Option<f64>) {
        if count == 0 {
            return;
        }
        let item = self.items.entry((kind, id.to_owned())).or_insert_with(|| PackItem {
            kind,
            id: id.to_owned(),
            name: name.to_owned(),
            count: 0,
            weight_kg,
            setups: Vec::new(),
            why: PackWhy::Used,
        });
        item.count = item.count.max(count);
        if item.setups.last() != Some(&setup) {
            item.setups.push(setup);
        }
    }

    /// What a setup takes of the kit: its camera, and the lights that `is_used` says are lit.
    fn named(&mut self, at: usize, setup: &Setup, is_used: impl Fn(&Light) -> bool) {
        let kit = self.kit;
        macro_rules! thing {
            ($kind:ident, $list:ident, $id:expr, $count:expr, $weight:expr) => {
                if let Some(thing) = kit.$list.iter().find(|one| one.id == *$id) {
                    let weight: Option<f64> = $weight(thing);
                    self.used(at, PackKind::$kind, &thing.id, &thing.name, $count, weight);
                }
            };
        }
        thing!(Camera, cameras, &setup.camera_id, 1, |one: &crate::setup::Camera| one.weight_kg);
        thing!(Lens, lenses, &setup.lens_id, 1, |one: &crate::setup::Lens| one.weight_kg);
        for id in &setup.filter_ids {
            thing!(Filter, filters, id, 1, |_| None);
        }
        let mut counts: BTreeMap<(PackKind, &str), u32> = BTreeMap::new();
        for light in setup.lights.iter().filter(|light| is_used(light)) {
            let units = u32::from(light.units.max(1));
            *counts.entry((PackKind::Flash, light.flash_id.as_str())).or_default() += units;
            if let Some(id) = &light.modifier_id {
                *counts.entry((PackKind::Modifier, id)).or_default() += 1;
            }
            if let Some(id) = &light.stand_id {
                *counts.entry((PackKind::Stand, id)).or_default() += 1;
            }
            if let Some(id) = &light.boom_id {
                *counts.entry((PackKind::Boom, id)).or_default() += 1;
            }
            for id in &light.gel_ids {
                *counts.entry((PackKind::Gel, id)).or_default() += units;
            }
        }
        for region in &setup.regions {
            for id in &region.ambient.film_ids {
                *counts.entry((PackKind::Gel, id)).or_default() += 1;
            }
            if let Some(id) = region.ambient.last().and_then(|taken| taken.meter_id.as_ref()) {
                counts.insert((PackKind::Meter, id), 1);
            }
        }
        for ((kind, id), count) in counts {
            match kind {
                PackKind::Flash => thing!(Flash, flashes, id, count, |one: &crate::setup::Flash| one.weight_kg),
                PackKind::Modifier => {
                    thing!(Modifier, modifiers, id, count, |one: &crate::setup::Modifier| Some(one.weight_kg));
                }
                PackKind::Stand => thing!(Stand, stands, id, count, |one: &crate::setup::Stand| Some(one.weight_kg)),
                PackKind::Boom => thing!(Boom, booms, id, count, |one: &crate::setup::Boom| Some(one.weight_kg)),
                PackKind::Gel => thing!(Gel, gels, id, count, |_| None),
                _ => thing!(Meter, meters, id, count, |_| None),
            }
        }
        // A flash that is not on the camera is fired by radio.
        let is_flash = |light: &Light| !kit.flashes.iter().any(|one| one.id == light.flash_id && one.burns_on());
        if setup.lights.iter().any(|light| !light.on_camera && is_used(light) && is_flash(light))
            && let Some(trigger) = kit.triggers.first()
        {
            self.used(at, PackKind::Trigger, &trigger.id, &trigger.name, 1, None);
        }
    }

    /// What stands on a set beside the lights, and what keeps it there.
    fn on_the_set(&mut self, at: usize, plan: (&Prepared<'_>, &Outcome), used: &BTreeSet<&str>) {
        let (prepared, outcome) = plan;
        let setup = prepared.setup;
        let (Some(set), Some(stage)) = (&setup.set, &prepared.stage) else { return };
        let mut cards: BTreeMap<String, (String, u32)> = BTreeMap::new();
        for card in set.cards.iter().filter(|card| card.kind != CardKind::Mirror) {
            let id = format!("{:?}-{:.2}-{:.2}", card.kind, card.width_m, card.height_m).to_lowercase();
            cards.entry(id).or_insert_with(|| (card.name.clone(), 0)).1 += 1;
        }
        let all: u32 = cards.values().map(|(_, count)| count).sum();
        for (id, (name, count)) in &cards {
            self.used(at, PackKind::Card, id, name, *count, None);
        }
        self.used(at, PackKind::Clamp, "clamp", "", all, None);
        let distances = distances_of(prepared, Some(outcome));
        let caught = notices(prepared, (self.kit, stage), &distances).into_iter().map(|notice| match notice {
            SetNotice::Wind { light: Thing::Light(id), ballast_kg, .. } if used.contains(id.as_str()) => ballast_kg,
            _ => 0.0,
        });
        let kilograms: f64 = caught.sum();
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "some kilograms")]
        self.used(at, PackKind::Ballast, "ballast", "", kilograms.ceil() as u32, Some(1.0));
        if let Some(item) = self.items.get_mut(&(PackKind::Ballast, "ballast".to_owned())) {
            item.why = PackWhy::Wind;
        }
    }
}

/// The ids of the lights that are lit in a plan.
fn lit<'a>(prepared: &Prepared<'a>, outcome: &Outcome) -> BTreeSet<&'a str> {
    let flashes = prepared.lights.iter().zip(&outcome.lights).filter(|(_, dialled)| dialled.is_some());
    let flashes = flashes.map(|(light, _)| light.light.id.as_str());
    let lamps = prepared.lamps.iter().filter(|lamp| lamp.power.is_some());
    flashes.chain(lamps.map(|lamp| lamp.light.id.as_str())).collect()
}

/// What the setups of a job take along.
pub fn pack_list(setups: &[Setup], kit: &Kit) -> PackList {
    let mut gathered = Gathered { kit, items: BTreeMap::new() };
    let mut list = PackList::default();
    let mut batteries = Batteries::default();
    let (mut frames, mut megapixels) = (0, 0.0f64);
    for (at, setup) in setups.iter().enumerate() {
        let taken = frames_of(setup);
        frames += taken.unwrap_or(0);
        if let Some(camera) = kit.cameras.iter().find(|camera| camera.id == setup.camera_id) {
            let sensor = &camera.sensor;
            let high_px = sensor.width_px * sensor.height_mm / sensor.width_mm;
            megapixels = megapixels.max(sensor.width_px * high_px / 1e6);
        }
        let Ok(prepared) = Prepared::new(setup, kit) else {
            gathered.named(at, setup, |_| true);
            list.unplanned.push(at);
            continue;
        };
        let outcome = Outcome::of(&prepared);
        let used = lit(&prepared, &outcome);
        gathered.named(at, setup, |light| used.contains(light.id.as_str()));
        gathered.on_the_set(at, (&prepared, &outcome), &used);
        batteries.add(setup, &prepared, &outcome);
    }
    let mut items = gathered.items;
    for (id, count, why) in batteries.asked_for(kit) {
        let key = (PackKind::Flash, id.to_owned());
        let unit = items.get(&key).map(|item| (item.name.clone(), item.setups.clone())).unwrap_or_default();
        let battery = PackItem {
            kind: PackKind::Battery,
            id: id.to_owned(),
            name: unit.0,
            count,
            weight_kg: None,
            setups: unit.1,
            why,
        };
        items.insert((PackKind::Battery, id.to_owned()), battery);
    }
    if !setups.is_empty() {
        let memory = PackItem {
            kind: PackKind::Memory,
            id: "memory".to_owned(),
            name: String::new(),
            count: 1 + SPARE,
            weight_kg: None,
            setups: (0..setups.len()).collect(),
            why: PackWhy::Frames { frames, megabytes: megapixels * MEGABYTES_A_MEGAPIXEL },
        };
        items.insert((PackKind::Memory, "memory".to_owned()), memory);
    }
    list.items = items.into_values().collect();
    for item in &list.items {
        match item.weight_kg {
            Some(one) => list.weighed_kg += one * f64::from(item.count),
            None => list.unweighed += item.count,
        }
    }
    list
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Blend, Light, Shot, ShotKind};

    fn count(list: &PackList, kind: PackKind, id: &str) -> u32 {
        list.items.iter().find(|item| item.kind == kind && item.id == id).map_or(0, |item| item.count)
    }

    /// What two setups share is carried once; the one that uses most of it counts.
    #[test]
    fn what_is_used_twice_is_carried_once() {
        let kit = Kit::starter();
        let mut one = Setup::new("one", &kit);
        one.lights[0].stand_id = Some("light".into());
        let mut other = Setup::new("other", &kit);
        let second = Light { modifier_id: Some("octagon-90".into()), ..Light::new("B", &one.lights[0].flash_id) };
        other.lights.push(second);
        other.lights[0].gel_ids = vec!["warm-half".into()];
        other.lights[0].units = 2;
        let list = pack_list(&[one, other], &kit);
        assert_eq!((count(&list, PackKind::Flash, "medium"), count(&list, PackKind::Modifier, "octagon-90")), (3, 2));
        assert_eq!((count(&list, PackKind::Gel, "warm-half"), count(&list, PackKind::Stand, "light")), (2, 1));
        assert_eq!((count(&list, PackKind::Camera, "full-frame"), count(&list, PackKind::Trigger, "radio")), (1, 1));
        let octagon = kit.modifiers.iter().find(|one| one.id == "octagon-90").expect("it").weight_kg;
        let stand = kit.stands[0].weight_kg;
        let weighed =
            [kit.cameras[0].weight_kg, kit.lenses[0].weight_kg, kit.flashes[1].weight_kg.map(|one| 3.0 * one)];
        let weighed: f64 = weighed.into_iter().flatten().sum();
        assert!((list.weighed_kg - 2.0 * octagon - stand - weighed).abs() < 1e-9, "{}", list.weighed_kg);
        let octagons = list.items.iter().find(|item| item.id == "octagon-90").expect("it");
        assert_eq!(octagons.setups, [0, 1]);
    }

    /// Memory for the frames that the shots of all setups take.
    #[test]
    fn memory_is_for_the_frames() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.shots = vec![
            Shot { frames: 1000, ..Shot::new("a") },
            Shot { frames: 1000, kind: ShotKind::Bracket, ..Shot::new("b") },
        ];
        let list = pack_list(std::slice::from_ref(&setup), &kit);
        let memory = list.items.iter().find(|item| item.kind == PackKind::Memory).expect("memory");
        assert_eq!(memory.why, PackWhy::Frames { frames: 2000, megabytes: 48.0 }, "24 megapixels");
    }

    /// A drawn set with a continuous light is packed, whichever of its lights that is.
    #[test]
    fn a_set_with_a_continuous_light_is_packed() {
        let kit = Kit::starter();
        let led = kit.flashes.iter().find(|one| one.burns_on()).expect("one").id.clone();
        for continuous in 0..2 {
            let mut setup = Setup::new("one", &kit);
            setup.add_light(&kit).expect("room");
            setup.lights[continuous].flash_id.clone_from(&led);
            setup.use_set();
            let list = pack_list(std::slice::from_ref(&setup), &kit);
            assert_eq!((list.unplanned.len(), count(&list, PackKind::Flash, &led)), (0, 1));
        }
    }

    #[test]
    fn what_the_plan_leaves_off_stays_at_home() {
        let kit = Kit::starter();
        let setup = Setup { blend: Blend::AmbientOnly { subject_stops: 0.0 }, ..Setup::new("one", &kit) };
        let list = pack_list(&[setup], &kit);
        let kinds: Vec<PackKind> = list.items.iter().map(|item| item.kind).collect();
        assert_eq!(kinds, [PackKind::Camera, PackKind::Lens, PackKind::Memory]);
    }

    #[test]
    fn one_that_cannot_be_planned_is_carried_as_it_is_named() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.camera_id = "gone".into();
        let list = pack_list(&[setup], &kit);
        assert_eq!((list.unplanned.as_slice(), count(&list, PackKind::Flash, "medium")), ([0].as_slice(), 1));
        assert_eq!(pack_list(&[], &kit), PackList::default());
    }
}
