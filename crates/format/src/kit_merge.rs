//! What a person owns, and what a job takes along of it.

use std::collections::HashSet;

use super::{FlashOutput, Job, Kit, Setup};

/// The things of another list that are not in one, by their ids.
fn more<'a, T>(one: &[T], other: &'a [T], id: impl Fn(&T) -> &str) -> Vec<&'a T> {
    let known: HashSet<&str> = one.iter().map(&id).collect();
    other.iter().filter(|thing| !known.contains(id(thing))).collect()
}

macro_rules! each_kind {
    ($run:ident) => {
        $run!(cameras);
        $run!(lenses);
        $run!(flashes);
        $run!(modifiers);
        $run!(gels);
        $run!(filters);
        $run!(stands);
        $run!(triggers);
    };
}

/// What a person owns, and what was owned before: so that a job goes on with a thing as it last was.
#[derive(Clone, Debug, PartialEq)]
pub struct OwnedKit {
    /// What is owned now.
    pub kit: Kit,
    /// What has left the kit, each as it was when it left.
    pub left: Kit,
}

impl From<Kit> for OwnedKit {
    fn from(kit: Kit) -> Self {
        Self { kit, left: Kit::default() }
    }
}

impl Kit {
    /// What is here and not in the other kit.
    #[must_use]
    pub fn beyond(&self, other: &Self) -> Self {
        let mut all = self.clone();
        macro_rules! keep {
            ($kind:ident) => {
                all.$kind.retain(|thing| !other.$kind.iter().any(|one| one.id == thing.id));
            };
        }
        each_kind!(keep);
        all
    }

    /// This kit, and after it what only the other one has.
    #[must_use]
    pub fn with(&self, other: &Self) -> Self {
        let mut all = self.clone();
        macro_rules! add {
            ($kind:ident) => {
                all.$kind.extend(more(&self.$kind, &other.$kind, |thing| &thing.id).into_iter().cloned());
            };
        }
        each_kind!(add);
        all
    }

    /// This kit with the other's things in it: what has the same id is replaced, what has not is added.
    #[must_use]
    pub fn updated_by(&self, other: &Self) -> Self {
        let mut all = self.clone();
        macro_rules! replace {
            ($kind:ident) => {
                for thing in &other.$kind {
                    match all.$kind.iter_mut().find(|one| one.id == thing.id) {
                        Some(one) => one.clone_from(thing),
                        None => all.$kind.push(thing.clone()),
                    }
                }
            };
        }
        each_kind!(replace);
        all
    }

    /// Only what has one of these ids.
    fn only(&self, ids: &HashSet<&str>) -> Self {
        let mut all = self.clone();
        macro_rules! keep {
            ($kind:ident) => {
                all.$kind.retain(|thing| ids.contains(thing.id.as_str()));
            };
        }
        each_kind!(keep);
        all
    }

    /// How many things there are.
    pub fn count(&self) -> usize {
        let mut count = 0;
        macro_rules! add {
            ($kind:ident) => {
                count += self.$kind.len();
            };
        }
        each_kind!(add);
        count
    }
}

/// The ids a setup refers to.
fn used<'a>(setup: &'a Setup, ids: &mut HashSet<&'a str>) {
    ids.extend([setup.camera_id.as_str(), setup.lens_id.as_str()]);
    ids.extend(setup.filter_ids.iter().map(String::as_str));
    ids.extend(setup.regions.iter().flat_map(|region| &region.ambient.film_ids).map(String::as_str));
    for light in &setup.lights {
        ids.insert(light.flash_id.as_str());
        ids.extend(light.modifier_id.iter().chain(&light.stand_id).chain(&light.gel_ids).map(String::as_str));
    }
}

impl Job {
    /// The job with what a person owns now: each thing as it stands in that kit, and what is no longer there, but used
    /// by a setup, as it was when it left, or as the job last knew it. So a setup goes on working when a thing leaves
    /// the kit.
    ///
    /// ```
    /// use tolva_format::{Job, Kit};
    /// let job = Job::new("A job");
    /// let mut owned = Kit::starter();
    /// owned.flashes.clear();
    /// let job = job.taking(&owned.into());
    /// assert_eq!(job.kit.flashes.len(), 1);
    /// assert!(job.check().is_ok());
    /// ```
    #[must_use]
    pub fn taking(mut self, owned: &OwnedKit) -> Self {
        let kit = {
            let mut ids = HashSet::new();
            self.setups.iter().for_each(|setup| used(setup, &mut ids));
            // A reading of a unit names the modifier it was taken through.
            for flash in &self.kit.flashes {
                if let (true, FlashOutput::Measured(read)) = (ids.contains(flash.id.as_str()), &flash.output) {
                    ids.extend(read.modifier_id.as_deref());
                }
            }
            owned.kit.with(&owned.left.only(&ids)).with(&self.kit.only(&ids))
        };
        self.kit = kit;
        self
    }
}

/// The ids of one list that another uses for something else, each with one that neither uses.
fn renamed<T: PartialEq>(mine: &[T], owned: &[T], id: impl Fn(&T) -> &str) -> Vec<(String, String)> {
    let taken = |name: &str| mine.iter().chain(owned).any(|thing| id(thing) == name);
    let differs = |thing: &&T| owned.iter().any(|other| id(other) == id(thing) && other != *thing);
    let fresh = |thing: &T| {
        let base: String = id(thing).chars().take(50).collect();
        // Of one name more than there are things, one is free.
        let mut names = (2..=mine.len() + owned.len() + 2).map(|number| format!("{base}-{number}"));
        let name = names.find(|name| !taken(name)).unwrap_or_default();
        (id(thing).to_owned(), name)
    };
    mine.iter().filter(differs).map(fresh).collect()
}

fn rename(id: &mut String, names: &[(String, String)]) {
    if let Some((_, to)) = names.iter().find(|(from, _)| from == id) {
        id.clone_from(to);
    }
}

impl Job {
    /// The job from somewhere else, so that its things stay its own: where the kit here has the same id for something
    /// else, the job's thing gets another id, in its kit and in its setups.
    #[must_use]
    pub fn apart_from(mut self, owned: &OwnedKit) -> Self {
        let owned = owned.kit.with(&owned.left);
        macro_rules! apart {
            ($kind:ident) => {{
                let names = renamed(&self.kit.$kind, &owned.$kind, |thing| &thing.id);
                self.kit.$kind.iter_mut().for_each(|thing| rename(&mut thing.id, &names));
                names
            }};
        }
        let (cameras, lenses, flashes) = (apart!(cameras), apart!(lenses), apart!(flashes));
        let (modifiers, gels, filters, stands) = (apart!(modifiers), apart!(gels), apart!(filters), apart!(stands));
        for flash in &mut self.kit.flashes {
            if let FlashOutput::Measured(read) = &mut flash.output {
                read.modifier_id.iter_mut().for_each(|id| rename(id, &modifiers));
            }
        }
        for setup in &mut self.setups {
            rename(&mut setup.camera_id, &cameras);
            rename(&mut setup.lens_id, &lenses);
            setup.filter_ids.iter_mut().for_each(|id| rename(id, &filters));
            setup.regions.iter_mut().flat_map(|region| &mut region.ambient.film_ids).for_each(|id| rename(id, &gels));
            for light in &mut setup.lights {
                rename(&mut light.flash_id, &flashes);
                light.modifier_id.iter_mut().for_each(|id| rename(id, &modifiers));
                light.stand_id.iter_mut().for_each(|id| rename(id, &stands));
                light.gel_ids.iter_mut().for_each(|id| rename(id, &gels));
            }
        }
        self
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::tests::set;

    #[test]
    fn what_is_owned_counts_as_it_is_now() {
        let job = Job::new("A job");
        let mut owned = Kit::starter();
        owned.cameras[0].name = "Renamed".to_owned();
        owned.gels.clear();
        let taken = job.clone().taking(&owned.into());
        assert_eq!(taken.kit.cameras[0].name, "Renamed");
        assert!(taken.kit.gels.is_empty(), "unused, so nothing is kept of them");
        assert_eq!(taken.setups, job.setups);
    }

    #[test]
    fn what_is_used_stays_when_it_leaves_the_kit() {
        let mut job = Job::new("A job");
        job.setups[0].lights[0].gel_ids = vec!["warm-full".to_owned()];
        let before = set(&job.setups[0], &job.kit);
        let mut owned = Kit::starter();
        owned.flashes.clear();
        owned.modifiers.clear();
        owned.gels.clear();
        owned.lenses.remove(0);
        let taken = job.taking(&owned.into());
        let after = set(&taken.setups[0], &taken.kit);
        assert_eq!(before, after);
        assert_eq!((taken.kit.flashes.len(), taken.kit.modifiers.len(), taken.kit.gels.len()), (1, 1, 1));
        assert_eq!(taken.kit.lenses.len(), 3);
    }

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
        let here = job.apart_from(&owned).taking(&owned);
        assert!(here.check().is_ok());
        assert_eq!(here.setups[0].lights[0].flash_id, "medium-2");
        assert_eq!(set(&here.setups[0], &here.kit), before);
        assert_eq!(here.kit.flashes.len(), owned.kit.flashes.len() + 1);
        let same = Job::new("Of this kit").apart_from(&Kit::starter().into());
        assert_eq!(same.setups[0].lights[0].flash_id, "medium", "what is the same stays the same");
    }

    /// A thing that was changed and then removed stays as it was when it left, though the job was not saved since.
    #[test]
    fn what_has_left_counts_as_it_was_when_it_left() {
        let job = Job::new("A job");
        let mut before = Kit::starter();
        before.flashes[1].name = "Changed, then sold".to_owned();
        let mut kit = before.clone();
        kit.flashes.remove(1);
        let left = before.beyond(&kit);
        assert_eq!(left.count(), 1);
        let taken = job.taking(&OwnedKit { kit, left });
        assert!(taken.kit.flashes.iter().any(|flash| flash.name == "Changed, then sold"));
    }

    #[test]
    fn updating_replaces_by_id_and_adds_the_rest() {
        let mut other = Kit::starter();
        other.flashes.truncate(1);
        other.flashes[0].name = "Mine".to_owned();
        other.stands[0].id = "third".to_owned();
        let updated = Kit::starter().updated_by(&other);
        assert_eq!(updated.flashes[0].name, "Mine");
        assert_eq!((updated.flashes.len(), updated.stands.len()), (4, 3));
        assert_eq!(updated.count(), Kit::starter().count() + 1);
    }
}
