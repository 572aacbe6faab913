//! A job from somewhere else beside the kit here: its things stay its own.

use std::collections::HashMap;

use crate::job::Job;
use crate::kit::FlashOutput;
use crate::kit_merge::{OwnedKit, Used};
use crate::learnt::Unknown;

/// Another id for each of these things that is not known as just this.
fn renamed<'a, T: PartialEq>(
    mine: &'a [T],
    known: &[T],
    id: impl Fn(&T) -> &str,
    fresh: &mut impl FnMut() -> String,
) -> HashMap<String, String> {
    let known: HashMap<&str, &T> = known.iter().map(|thing| (id(thing), thing)).collect();
    let strange = |thing: &&'a T| known.get(id(thing)) != Some(thing);
    mine.iter().filter(strange).map(|thing| (id(thing).to_owned(), fresh())).collect()
}

fn rename(id: &mut String, names: &HashMap<String, String>) {
    if let Some(to) = names.get(id) {
        id.clone_from(to);
    }
}

impl Job {
    /// The job from somewhere else, so that its things stay its own: whatever its setups use and is not known here as
    /// just that gets an id of its own, in its kit and in its setups. `fresh` makes ids that nothing has.
    #[must_use]
    pub fn apart_from(mut self, owned: &OwnedKit, mut fresh: impl FnMut() -> String) -> Self {
        let known = owned.known();
        self.kit = {
            let used = Used::by(&self.setups, [&self.kit, &owned.kit, &owned.retired]);
            self.kit.only(&used)
        };
        macro_rules! apart {
            ($kind:ident) => {{
                let names = renamed(&self.kit.$kind, &known.$kind, |thing| &thing.id, &mut fresh);
                self.kit.$kind.iter_mut().for_each(|thing| rename(&mut thing.id, &names));
                names
            }};
        }
        let (cameras, lenses, modifiers) = (apart!(cameras), apart!(lenses), apart!(modifiers));
        // A unit that was read through a modifier which is another here is another unit here.
        for flash in &mut self.kit.flashes {
            if let FlashOutput::Measured(read) = &mut flash.output {
                read.modifier_id.iter_mut().for_each(|id| rename(id, &modifiers));
            }
            flash.tuned.iter_mut().filter_map(|one| one.modifier_id.as_mut()).for_each(|id| rename(id, &modifiers));
        }
        for camera in &mut self.kit.cameras {
            camera.tuned.iter_mut().for_each(|one| rename(&mut one.lens_id, &lenses));
        }
        let (flashes, gels, filters) = (apart!(flashes), apart!(gels), apart!(filters));
        let (stands, booms, meters) = (apart!(stands), apart!(booms), apart!(meters));
        for setup in &mut self.setups {
            rename(&mut setup.camera_id, &cameras);
            rename(&mut setup.lens_id, &lenses);
            setup.filter_ids.iter_mut().for_each(|id| rename(id, &filters));
            setup.regions.iter_mut().flat_map(|region| &mut region.ambient.film_ids).for_each(|id| rename(id, &gels));
            let readings = setup.regions.iter_mut().flat_map(|region| &mut region.ambient.readings);
            readings.filter_map(|taken| taken.meter_id.as_mut()).for_each(|id| rename(id, &meters));
            for light in &mut setup.lights {
                rename(&mut light.flash_id, &flashes);
                light.modifier_id.iter_mut().for_each(|id| rename(id, &modifiers));
                light.stand_id.iter_mut().for_each(|id| rename(id, &stands));
                light.boom_id.iter_mut().for_each(|id| rename(id, &booms));
                light.gel_ids.iter_mut().for_each(|id| rename(id, &gels));
            }
            for known in setup.learnt.iter_mut().flat_map(|learnt| &mut learnt.of) {
                match &mut known.what {
                    Unknown::Camera { camera_id, lens_id } => {
                        rename(camera_id, &cameras);
                        rename(lens_id, &lenses);
                    }
                    Unknown::Meter { meter_id } => rename(meter_id, &meters),
                    Unknown::Light { flash_id, modifier_id, .. } => {
                        rename(flash_id, &flashes);
                        if let Some(id) = modifier_id {
                            rename(id, &modifiers);
                        }
                    }
                    Unknown::Ambient { .. } | Unknown::Spill { .. } => {}
                }
            }
        }
        self
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::set;
    use crate::{Believed, Kit, Learnt, Light};

    /// A job from elsewhere means the same here, though the kit here calls other things by the same ids.
    #[test]
    fn what_comes_from_elsewhere_stays_what_it_was() {
        let job = Job::new("From elsewhere");
        let mut owned = Kit::starter();
        owned.flashes[1].power.lowest_stops = -3.0;
        owned.modifiers[0].loss_stops = 4.0;
        owned.lenses[0].widest_f_number = 5.6;
        let before = set(&job.setups[0], &job.kit);
        let owned = OwnedKit::from(owned);
        let here = job.apart_from(&owned, numbered()).taking(&owned);
        assert!(here.check().is_ok());
        assert!(here.setups[0].lights[0].flash_id.starts_with("its-own-"));
        assert_eq!(set(&here.setups[0], &here.kit), before);
        assert_eq!(here.kit.flashes.len(), owned.kit.flashes.len() + 1);
        let same = Job::new("Of this kit").apart_from(&Kit::starter().into(), numbered());
        assert_eq!(same.setups[0].lights[0].flash_id, "medium", "what is the same stays the same");
    }

    fn numbered() -> impl FnMut() -> String {
        let mut number = 0;
        move || {
            number += 1;
            format!("its-own-{number}")
        }
    }

    /// What a job has learnt of its things it goes on knowing of them.
    #[test]
    fn what_was_learnt_is_of_its_own_things() {
        let mut job = Job::new("From elsewhere");
        let light = job.setups[0].lights[0].clone();
        let setup = &mut job.setups[0];
        let of = |what| Believed { what, more_stops: 0.2, sure_stops: 0.1 };
        let [camera_id, lens_id] = [&setup.camera_id, &setup.lens_id].map(Clone::clone);
        let Light { id: light_id, flash_id, modifier_id, .. } = light;
        let known = [
            Unknown::Camera { camera_id, lens_id },
            Unknown::Light { light_id, flash_id, modifier_id },
            Unknown::Meter { meter_id: "hand".to_owned() },
            Unknown::Ambient { region_id: "lit".to_owned() },
        ];
        let reading = setup.regions.iter_mut().find_map(|region| region.ambient.readings.first_mut());
        if let Some(taken) = reading {
            taken.meter_id = Some("hand".to_owned());
        }
        setup.learnt = Some(Learnt { of: known.map(of).to_vec(), bound: Vec::new(), frames: 1, from: Vec::new() });
        let mut owned = Kit::starter();
        owned.cameras.iter_mut().for_each(|camera| camera.name.push('!'));
        owned.lenses.iter_mut().for_each(|lens| lens.name.push('!'));
        owned.flashes.iter_mut().for_each(|flash| flash.name.push('!'));
        owned.modifiers.iter_mut().for_each(|modifier| modifier.name.push('!'));
        let here = job.apart_from(&owned.into(), numbered());
        let setup = &here.setups[0];
        let learnt = setup.learnt.as_ref().expect("it knows");
        let Unknown::Camera { camera_id, lens_id } = &learnt.of[0].what else { panic!("{learnt:?}") };
        assert_eq!((camera_id, lens_id), (&setup.camera_id, &setup.lens_id));
        let Unknown::Light { flash_id, modifier_id, .. } = &learnt.of[1].what else { panic!("{learnt:?}") };
        assert_eq!((flash_id, modifier_id), (&setup.lights[0].flash_id, &setup.lights[0].modifier_id));
        assert!(flash_id.starts_with("its-own-") && camera_id.starts_with("its-own-"));
        assert_eq!(learnt.of[3].what, Unknown::Ambient { region_id: "lit".to_owned() });
    }

    /// Ids that are the same for 50 characters and more are still two.
    #[test]
    fn long_ids_do_not_collide() {
        let mut job = Job::new("From elsewhere");
        let long = "x".repeat(59);
        for (index, end) in ["a", "b"].iter().enumerate() {
            job.kit.flashes[index].id = format!("{long}{end}");
            let mut light = job.setups[0].lights[0].clone();
            (light.id, light.flash_id) = (format!("{index}"), format!("{long}{end}"));
            job.setups[0].lights.push(light);
        }
        job.setups[0].lights.remove(0);
        let mut owned = OwnedKit::from(job.kit.clone());
        owned.kit.flashes.iter_mut().for_each(|flash| flash.name.push('!'));
        let here = job.apart_from(&owned, numbered()).taking(&owned);
        assert!(here.check().is_ok(), "{:?}", here.check());
        assert_ne!(here.setups[0].lights[0].flash_id, here.setups[0].lights[1].flash_id);
    }
}
