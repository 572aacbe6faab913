//! Checking a document: every value against the range its type declares ([`crate::ranged`]), and what one part says of
//! another. All that is wrong is told, each with the path to its field.

use std::collections::HashSet;

mod camera;
mod day;
mod kit;
mod lights;
mod scene;
mod set;

pub(crate) use self::kit::kit;
use camera::{lens, sync};
use day::{day, schedule, shot};
use lights::{gels, light};
use scene::local_time;

use tolva_core::time::date_of;

use crate::job::Job;
use crate::kit::Kit;
use crate::kit_merge::used_by;
use crate::leaf::StatedColour;
use crate::problems::{Checker, ProblemCode, Problems, listed, shortened};
use crate::scene::Role;
use crate::setup::Setup;
use crate::version::FORMAT;

impl Job {
    /// Checks every value.
    ///
    /// # Errors
    /// All that is wrong, each with a pointer to its field.
    pub fn check(&self) -> Result<(), Problems> {
        let mut c = Checker::default();
        if self.format != FORMAT {
            c.wrong("format", format!("“{}” is not a format Tolva reads: it must be “{FORMAT}”", self.format));
        }
        if !self.date.is_empty() && date_of(&self.date).is_err() {
            c.wrong("date", format!("“{}” is not a day: write 2026-08-29, or leave it empty", self.date));
        }
        self.ranges(&mut c);
        if c.too_many() {
            return c.done();
        }
        for (kind, count) in used_by(&self.setups, &self.kit) {
            if count > Kit::most_used(kind) {
                let most = Kit::most_used(kind);
                c.coded("setups", ProblemCode::Count, format!("they use {count} different {kind}: at most {most}"));
            }
        }
        c.within("day", |c| day(c, &self.day));
        c.within("kit", |c| kit(c, &self.kit));
        let mut ids = HashSet::new();
        c.each("setups", &self.setups, |c, one| {
            unique(c, &mut ids, &one.id);
            setup(c, one, &self.kit);
        });
        c.done()
    }
}

/// Checks a kit and a setup. Pointers begin with `/kit` and `/setup`.
///
/// # Errors
/// All that is wrong, each with a pointer to its field.
pub fn check(one: &Setup, of: &Kit) -> Result<(), Problems> {
    let mut c = Checker::default();
    c.within("kit", |c| of.ranges(c));
    c.within("setup", |c| one.ranges(c));
    if !c.too_many() {
        c.within("kit", |c| kit(c, of));
        c.within("setup", |c| setup(c, one, of));
    }
    c.done()
}

fn unique<'a>(c: &mut Checker, seen: &mut HashSet<&'a str>, id: &'a str) {
    if !seen.insert(id) {
        c.coded("id", ProblemCode::Twice, format!("“{}” is there twice: each id must be unique", shortened(id)));
    }
}

/// The thing with an id, or a note of which ids there are.
fn found<'a, T>(c: &mut Checker, field: &str, id: &str, all: &'a [T], id_of: impl Fn(&T) -> &str) -> Option<&'a T> {
    let thing = all.iter().find(|thing| id_of(thing) == id);
    if thing.is_none() {
        // What is only counted needs no words.
        let known = if c.is_full() { String::new() } else { listed(all.iter().map(&id_of)) };
        c.coded(field, ProblemCode::NotThere, format!("“{}” is not there; there is {known}", shortened(id)));
    }
    thing
}

/// What the parts of a setup say of each other, of the kit, and of place and hour.
fn setup(c: &mut Checker, setup: &Setup, kit: &Kit) {
    regions(c, setup, kit);
    c.each("filter_ids", &setup.filter_ids, |c, id| {
        found(c, "", id, &kit.filters, |filter| &filter.id);
    });
    if let Some(preferences) = &setup.preferences {
        let mut seen = HashSet::new();
        for preference in preferences {
            if !seen.insert(preference) {
                let says = format!("{} is there twice: each once", serde_json::json!(preference));
                c.coded("preferences", ProblemCode::Twice, says);
            }
        }
    }
    let camera = found(c, "camera_id", &setup.camera_id, &kit.cameras, |camera| &camera.id);
    lens(c, setup, kit);
    let mut ids = HashSet::new();
    c.each("lights", &setup.lights, |c, one| {
        unique(c, &mut ids, &one.id);
        light(c, one, setup, kit);
    });
    c.within("schedule", |c| schedule(c, &setup.schedule));
    // A shot may name a light that has gone since: it is off for every one.
    let mut ids = HashSet::new();
    c.each("shots", &setup.shots, |c, one| shot(c, one, &mut ids));
    // How they are bound is no range: together they are numbers that unknowns can have, or not.
    if let Some(one) = setup.learnt.clone()
        && let Err(wrong) = tolva_planner::setup::Learnt::from(one).belief()
    {
        c.within("learnt", |c| c.wrong("bound", wrong.to_string()));
    }
    if let Some(one) = &setup.set {
        c.within("set", |c| set::set(c, one));
    }
    if let Some(one) = &setup.scene {
        c.within("scene", |c| scene::scene(c, one));
    }
    if let Some(camera) = camera {
        sync(c, setup, camera);
    }
}

fn regions(c: &mut Checker, setup: &Setup, kit: &Kit) {
    let mut ids = HashSet::new();
    c.each("regions", &setup.regions, |c, region| {
        unique(c, &mut ids, &region.id);
        c.within("ambient", |c| {
            c.each("readings", &region.ambient.readings, |c, taken| {
                if let Some(at) = &taken.at {
                    c.within("at", |c| local_time(c, at));
                }
                if let Some(id) = &taken.meter_id {
                    found(c, "meter_id", id, &kit.meters, |meter| &meter.id);
                }
            });
            c.within("colour", |c| colour(c, region.ambient.colour));
            gels(c, "film_ids", &region.ambient.film_ids, kit);
        });
    });
    for (role, called) in [(Role::Background, "background"), (Role::LitSide, "lit_side")] {
        if !setup.regions.iter().any(|region| region.role == role) {
            c.wrong("regions", format!("one region must have the role “{called}”"));
        }
    }
}

/// A grey patch that is none.
fn colour(c: &mut Checker, said: StatedColour) {
    if let StatedColour::GreyPatch { red, green, blue, .. } = said
        && [red, green, blue].iter().all(|value| (0.0..=255.0).contains(value))
        && let Err(nothing) = tolva_core::colour::StatedColour::from(said).light()
    {
        c.within("grey_patch", |c| c.wrong("", nothing.to_string()));
    }
}
