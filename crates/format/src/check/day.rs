//! What a job says of its days, and a setup of its shots.

use std::collections::HashSet;

use tolva_core::time::minute_of;

use super::scene::local_time;
use super::unique;
use crate::problems::Checker;
use crate::schedule::{JobDay, Schedule, Shot, ShotKind};

pub(super) fn day(c: &mut Checker, day: &JobDay) {
    hour(c, "begin", &day.begin);
    hour(c, "end", &day.end);
    let mut ids = HashSet::new();
    c.each("people", &day.people, |c, one| {
        unique(c, &mut ids, &one.id);
        hour(c, "at", &one.at);
    });
    let mut ids = HashSet::new();
    c.each("ways", &day.ways, |c, one| unique(c, &mut ids, &one.id));
}

fn hour(c: &mut Checker, field: &str, says: &str) {
    if minute_of(says).is_none() {
        c.wrong(field, format!("“{says}” is not an hour: write 07:30"));
    }
}

pub(super) fn schedule(c: &mut Checker, schedule: &Schedule) {
    if let Some(pinned) = &schedule.pinned {
        c.within("pinned", |c| local_time(c, pinned));
    }
}

pub(super) fn shot<'a>(c: &mut Checker, shot: &'a Shot, ids: &mut HashSet<&'a str>) {
    unique(c, ids, &shot.id);
    let parts = &shot.parts;
    if !parts.iter().all(|part| part.is_finite() && (0.001..=1000.0).contains(part)) {
        c.wrong("parts", "each part of the light is from 0.001 to 1000 of the others");
    }
    if !parts.is_empty() && shot.kind == ShotKind::MultipleExposure && parts.len() != shot.frames as usize {
        c.wrong("parts", format!("{} parts for {} exposures: one each, or none", parts.len(), shot.frames));
    }
}
