//! What a person owns, and what a job takes along of it.

use std::collections::{HashMap, HashSet};

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
        $run!(booms);
        $run!(boards);
        $run!(backdrops);
        $run!(meters);
    };
}

/// What a person owns, and what they owned before: things retire, they do not leave, so that a job goes on with each as
/// it last was.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct OwnedKit {
    /// What is owned now.
    pub kit: Kit,
    /// What has retired, each as it was when it did.
    pub retired: Kit,
}

impl From<Kit> for OwnedKit {
    fn from(kit: Kit) -> Self {
        Self { kit, retired: Kit::default() }
    }
}

impl OwnedKit {
    /// What is known here by its id: what is owned, and behind it what has retired.
    pub(crate) fn known(&self) -> Kit {
        self.kit.with(&self.retired)
    }
}

impl Kit {
    /// What is here and not in the other kit.
    #[must_use]
    pub fn beyond(&self, other: &Self) -> Self {
        let mut all = self.clone();
        macro_rules! keep {
            ($kind:ident) => {
                let there: HashSet<&str> = other.$kind.iter().map(|thing| thing.id.as_str()).collect();
                all.$kind.retain(|thing| !there.contains(thing.id.as_str()));
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
                let mut places: HashMap<String, usize> =
                    (all.$kind.iter().enumerate()).map(|(index, thing)| (thing.id.clone(), index)).collect();
                for thing in &other.$kind {
                    match places.get(&thing.id) {
                        Some(&index) => all.$kind[index].clone_from(thing),
                        None => {
                            places.insert(thing.id.clone(), all.$kind.len());
                            all.$kind.push(thing.clone());
                        }
                    }
                }
            };
        }
        each_kind!(replace);
        all
    }

    /// Only what is used.
    pub(crate) fn only(&self, used: &Used<'_>) -> Self {
        let mut all = self.clone();
        macro_rules! keep {
            ($kind:ident) => {
                all.$kind.retain(|thing| used.$kind.contains(thing.id.as_str()));
            };
        }
        each_kind!(keep);
        all
    }

    /// How many things there are of each kind.
    pub(crate) fn counts(&self) -> Vec<(&'static str, usize)> {
        let mut counts = Vec::new();
        macro_rules! add {
            ($kind:ident) => {
                counts.push((stringify!($kind), self.$kind.len()));
            };
        }
        each_kind!(add);
        counts
    }

    /// How many things there are.
    pub fn count(&self) -> usize {
        self.counts().into_iter().map(|(_, count)| count).sum()
    }

    /// The kit as far as there is room for it in one of one's own.
    #[must_use]
    pub fn as_far_as_owned(mut self) -> Self {
        macro_rules! shorten {
            ($kind:ident) => {
                self.$kind.truncate(Self::most_owned(stringify!($kind)));
            };
        }
        each_kind!(shorten);
        self
    }
}

/// The ids that setups refer to, kind by kind.
#[derive(Default)]
pub(crate) struct Used<'a> {
    cameras: HashSet<&'a str>,
    lenses: HashSet<&'a str>,
    flashes: HashSet<&'a str>,
    modifiers: HashSet<&'a str>,
    gels: HashSet<&'a str>,
    filters: HashSet<&'a str>,
    stands: HashSet<&'a str>,
    triggers: HashSet<&'a str>,
    booms: HashSet<&'a str>,
    // Cards and backdrops are put onto a set as copies: no setup refers to one.
    boards: HashSet<&'a str>,
    backdrops: HashSet<&'a str>,
    meters: HashSet<&'a str>,
}

impl<'a> Used<'a> {
    /// What setups use, each thing being the first of these kits that has it: a reading of a unit names the modifier it
    /// was taken through, which is used with it.
    pub(crate) fn by(setups: &'a [Setup], kits: [&'a Kit; 3]) -> Self {
        let mut used = Self::default();
        for setup in setups {
            used.cameras.insert(&setup.camera_id);
            used.lenses.insert(&setup.lens_id);
            used.filters.extend(setup.filter_ids.iter().map(String::as_str));
            used.gels.extend(setup.regions.iter().flat_map(|region| &region.ambient.film_ids).map(String::as_str));
            let readings = setup.regions.iter().flat_map(|region| &region.ambient.readings);
            used.meters.extend(readings.filter_map(|taken| taken.meter_id.as_deref()));
            for light in &setup.lights {
                used.flashes.insert(&light.flash_id);
                used.modifiers.extend(light.modifier_id.as_deref());
                used.stands.extend(light.stand_id.as_deref());
                used.booms.extend(light.boom_id.as_deref());
                used.gels.extend(light.gel_ids.iter().map(String::as_str));
            }
        }
        let mut seen = HashSet::new();
        for flash in kits.iter().flat_map(|kit| &kit.flashes) {
            if seen.insert(flash.id.as_str())
                && used.flashes.contains(flash.id.as_str())
                && let FlashOutput::Measured(read) = &flash.output
            {
                used.modifiers.extend(read.modifier_id.as_deref());
            }
        }
        used
    }
}

/// How many different things of each kind setups use.
pub(crate) fn used_by(setups: &[Setup], kit: &Kit) -> Vec<(&'static str, usize)> {
    let none = Kit::default();
    let used = Used::by(setups, [kit, &none, &none]);
    let mut counts = Vec::new();
    macro_rules! add {
        ($kind:ident) => {
            counts.push((stringify!($kind), used.$kind.len()));
        };
    }
    each_kind!(add);
    counts
}

impl Job {
    /// The job as it is worked with: with what a person owns now, and behind it what its setups use and that kit no
    /// longer or never had.
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
            let used = Used::by(&self.setups, [&owned.kit, &owned.retired, &self.kit]);
            owned.kit.with(&owned.retired.only(&used)).with(&self.kit.only(&used))
        };
        self.kit = kit;
        self
    }

    /// The job as it is stored: it refers to what is known here by its id, and carries only what is its own.
    #[must_use]
    pub fn leaving(mut self, owned: &OwnedKit) -> Self {
        let kit = {
            let used = Used::by(&self.setups, [&owned.kit, &owned.retired, &self.kit]);
            self.kit.only(&used).beyond(&owned.kit).beyond(&owned.retired)
        };
        self.kit = kit;
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

    /// A unit was read through a modifier, and both are gone: the job still knows both.
    #[test]
    fn what_a_reading_was_taken_through_stays_with_the_unit() {
        let mut owned = Kit::starter();
        owned.flashes[1].output = FlashOutput::Measured(crate::MeasuredOutput {
            f_number: 8.0,
            iso: 100.0,
            distance_m: 2.0,
            power_stops: 0.0,
            modifier_id: Some(owned.modifiers[1].id.clone()),
        });
        let mut job = Job::new("A job").taking(&owned.clone().into());
        job.setups[0].lights[0].modifier_id = None;
        let stored = job.leaving(&owned.clone().into());
        assert_eq!(stored.kit.count(), 0, "all of it is known by its id");
        let mut kit = owned.clone();
        kit.flashes.remove(1);
        kit.modifiers.clear();
        let retired = owned.beyond(&kit);
        let taken = stored.taking(&OwnedKit { kit, retired });
        assert!(taken.check().is_ok(), "{:?}", taken.check());
        assert_eq!((taken.kit.flashes.len(), taken.kit.modifiers.len()), (4, 1));
    }

    /// A thing that was changed and then removed stays as it was when it left, though the job was not saved since.
    #[test]
    fn what_has_left_counts_as_it_was_when_it_left() {
        let job = Job::new("A job");
        let mut before = Kit::starter();
        before.flashes[1].name = "Changed, then sold".to_owned();
        let mut kit = before.clone();
        kit.flashes.remove(1);
        let retired = before.beyond(&kit);
        assert_eq!(retired.count(), 1);
        let taken = job.taking(&OwnedKit { kit, retired });
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
