//! What was done to a job from one document of it to the next, as a code; and the words a job is found by.

use std::collections::BTreeSet;

use serde::Serialize;
use serde_json::Value;

use crate::job::Job;
use crate::setup::Setup;

/// What kind of deed it was.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DeedKind {
    /// The job was made, or came as a file.
    Made,
    /// Something was changed.
    Change,
    /// A frame was ticked off, or a tick taken back.
    Tick,
    /// Light was read.
    Reading,
    /// Something was packed.
    Packed,
    /// A frame came.
    Frame,
    /// Tolva learnt from a frame.
    Learnt,
    /// Something was noted.
    Note,
    /// A change was taken back.
    Undone,
    /// It was done again.
    Redone,
    /// An earlier state was brought back.
    SetBack,
}

impl DeedKind {
    /// All of them.
    pub const ALL: [Self; 11] = [
        Self::Made,
        Self::Change,
        Self::Tick,
        Self::Reading,
        Self::Packed,
        Self::Frame,
        Self::Learnt,
        Self::Note,
        Self::Undone,
        Self::Redone,
        Self::SetBack,
    ];

    /// Its code.
    pub fn code(self) -> &'static str {
        match self {
            Self::Made => "made",
            Self::Change => "change",
            Self::Tick => "tick",
            Self::Reading => "reading",
            Self::Packed => "packed",
            Self::Frame => "frame",
            Self::Learnt => "learnt",
            Self::Note => "note",
            Self::Undone => "undone",
            Self::Redone => "redone",
            Self::SetBack => "set_back",
        }
    }
}

/// What was done, and to which setup; to none where it was done to the job.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Deed {
    /// What kind.
    pub kind: DeedKind,
    /// The setup it is about.
    pub setup_id: Option<String>,
}

impl Deed {
    /// A deed to a whole job.
    pub fn of_job(kind: DeedKind) -> Self {
        Self { kind, setup_id: None }
    }

    /// What was done from one document of a job to the next.
    pub fn between(before: &Job, after: &Job) -> Self {
        if before.packed != after.packed {
            return Self::of_job(DeedKind::Packed);
        }
        let was = |setup: &Setup| before.setups.iter().find(|one| one.id == setup.id);
        let mut changed = after.setups.iter().filter(|setup| was(setup).is_none_or(|was| was != *setup));
        let (Some(setup), None) = (changed.next(), changed.next()) else { return Self::of_job(DeedKind::Change) };
        let kind = was(setup).map_or(DeedKind::Change, |was| of_setup(was, setup));
        Self { kind, setup_id: Some(setup.id.clone()) }
    }
}

impl Job {
    /// Whether nothing but ticks differs: frames of shots that are taken, and what is packed.
    pub fn differs_by_ticks_only(&self, after: &Self) -> bool {
        let mut ticked = self.clone();
        ticked.packed = after.packed.clone();
        for (setup, now) in ticked.setups.iter_mut().zip(&after.setups) {
            for (shot, now) in setup.shots.iter_mut().zip(&now.shots) {
                shot.taken = now.taken;
            }
        }
        ticked == *after
    }
}

fn of_setup(before: &Setup, after: &Setup) -> DeedKind {
    let ticks = |setup: &Setup| setup.shots.iter().map(|shot| (shot.id.clone(), shot.taken)).collect::<Vec<_>>();
    let readings = |setup: &Setup| -> usize { setup.regions.iter().map(|region| region.ambient.readings.len()).sum() };
    let last = |setup: &Setup| -> Vec<_> {
        setup.regions.iter().map(|region| region.ambient.readings.last().cloned()).collect()
    };
    if before.shots.len() == after.shots.len() && ticks(before) != ticks(after) {
        DeedKind::Tick
    } else if before.learnt != after.learnt {
        DeedKind::Learnt
    } else if readings(before) < readings(after)
        || (last(before) != last(after) && before.regions.len() == after.regions.len())
    {
        DeedKind::Reading
    } else {
        DeedKind::Change
    }
}

impl Job {
    /// The first and the last day it is on, `2026-08-29`: what is written on it, and its setups. Nothing where nothing says it.
    pub fn days(&self) -> Option<(String, String)> {
        let of_setups = self.setups.iter().filter_map(|setup| setup.scene.as_ref()).map(|scene| scene.at.date.as_str());
        let all = || of_setups.clone().chain(Some(self.date.as_str())).filter(|date| !date.is_empty());
        Some((all().min()?.to_owned(), all().max()?.to_owned()))
    }

    /// The words a job is found by beside its own: what its setups use of the kit, their blends, and the light they are in.
    pub fn found_by(&self) -> String {
        let mut words = BTreeSet::new();
        for setup in &self.setups {
            words.extend(codes(&setup.blend));
            if let Some(scene) = &setup.scene {
                words.insert(scene.site.name.clone());
                words.extend(codes(&scene.surroundings));
            }
            for region in &setup.regions {
                words.extend(codes(&region.ambient.colour));
            }
            self.things_of(setup, &mut words);
        }
        words.into_iter().filter(|word| !word.is_empty()).collect::<Vec<_>>().join(" / ")
    }

    fn things_of(&self, setup: &Setup, words: &mut BTreeSet<String>) {
        let kit = &self.kit;
        macro_rules! named {
            ($list:ident, $id:expr) => {
                words.extend(kit.$list.iter().filter(|one| one.id == *$id).map(|one| one.name.clone()))
            };
        }
        named!(cameras, &setup.camera_id);
        named!(lenses, &setup.lens_id);
        for id in &setup.filter_ids {
            named!(filters, id);
        }
        for light in &setup.lights {
            named!(flashes, &light.flash_id);
            if let Some(id) = &light.modifier_id {
                named!(modifiers, id);
            }
            for id in &light.gel_ids {
                named!(gels, id);
            }
        }
    }
}

/// The names of the variants something is, outermost first: `artificial`, then the lamp it says.
fn codes(of: &impl Serialize) -> Vec<String> {
    let mut all = Vec::new();
    // Numbers and lists say nothing here, and writing a document's part cannot fail.
    gather(&serde_json::to_value(of).unwrap_or_default(), &mut all);
    all
}

fn gather(value: &Value, all: &mut Vec<String>) {
    match value {
        Value::String(code) => all.push(code.clone()),
        Value::Object(parts) => {
            for (key, part) in parts {
                if part.is_object() {
                    all.push(key.clone());
                }
                gather(part, all);
            }
        }
        _ => {}
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{Blend, Shot};
    use rstest::rstest;
    use serde_json::json;

    fn shot() -> Shot {
        serde_json::from_value(json!({ "id": "a", "name": "It" })).expect("a shot")
    }

    fn job() -> Job {
        let mut job = Job::new("It");
        job.setups[0].shots = vec![shot()];
        job
    }

    #[rstest]
    #[case::ticked(|job: &mut Job| job.setups[0].shots[0].taken = 1, DeedKind::Tick, true)]
    #[case::shot_added(|job: &mut Job| job.setups[0].shots.push(Shot { id: "b".into(), ..shot() }), DeedKind::Change, true)]
    #[case::packed(|job: &mut Job| job.packed.out.push("stand/a".into()), DeedKind::Packed, false)]
    #[case::renamed(|job: &mut Job| job.name.push('!'), DeedKind::Change, false)]
    #[case::blend(|job: &mut Job| job.setups[0].blend = Blend::from(tolva_planner::setup::Blend::OFFERED[3]), DeedKind::Change, true)]
    #[case::read(
        |job: &mut Job| job.setups[0].regions[0].ambient.readings.push(
            tolva_core::exposure::MeterReading::of(tolva_core::exposure::Reading::Ev(
                tolva_core::exposure::EvReading { ev100: 11.0 })).into()),
        DeedKind::Reading,
        true
    )]
    fn what_was_done_is_known(#[case] change: fn(&mut Job), #[case] kind: DeedKind, #[case] of_setup: bool) {
        let (before, mut after) = (job(), job());
        change(&mut after);
        let deed = Deed::between(&before, &after);
        assert_eq!((deed.kind, deed.setup_id.is_some()), (kind, of_setup));
    }

    #[test]
    fn ticks_are_told_from_changes() {
        let (before, mut after) = (job(), job());
        after.setups[0].shots[0].taken = 3;
        after.packed.home.push("stand/a".to_owned());
        assert!(before.differs_by_ticks_only(&after) && before.differs_by_ticks_only(&before));
        for change in [|job: &mut Job| job.name.push('!'), |job: &mut Job| job.setups[0].shots.clear()] {
            let mut changed = after.clone();
            change(&mut changed);
            assert!(!before.differs_by_ticks_only(&changed));
        }
    }

    #[test]
    fn a_job_is_on_the_days_of_its_setups() {
        let mut job = Job::from_json(include_bytes!("../../../demo/ropeworks-open-day.json")).expect("the demo's");
        assert_eq!(job.days(), Some(("2026-08-29".to_owned(), "2026-08-29".to_owned())));
        "2026-08-27".clone_into(&mut job.date);
        assert_eq!(job.days().map(|(first, _)| first), Some("2026-08-27".to_owned()));
        assert_eq!(Job::new("It").days(), None);
    }

    #[test]
    fn a_job_is_found_by_what_it_uses() {
        let words = job().found_by();
        for word in ["Octagon, 90 cm", "Medium head, 200 Ws", "Full frame", "lift"] {
            assert!(words.contains(word), "{word} is not in {words}");
        }
        assert!(!words.contains("Strip"), "{words}");
    }
}
