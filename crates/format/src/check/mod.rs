//! Checking every value of a document: all that is wrong, each with the path to its field.

use std::collections::HashSet;

mod camera;
mod kit;
mod light;
mod scene;

pub(crate) use self::kit::kit;
use camera::{filters, lens, optics, sync};
use light::{gels, light};
use scene::local_time;

use tolva_core::colour::{KELVIN, TINT};
use tolva_core::exposure::ranges as reading_range;
use tolva_core::scale::parsing::range;
use tolva_core::time::date_of;
use tolva_planner::setup as domain;

use crate::job::Job;
use crate::kit::Kit;
use crate::leaf::{Reading, SaidColour, Taken, WhiteBalance};
use crate::problems::{Checker, Problems};
use crate::scene::Role;
use crate::setup::Setup;
use crate::version::{FORMAT, FORMAT_VERSION};

/// At most so many lights.
const MOST_LIGHTS: usize = 8;
const FOCAL_MM: std::ops::RangeInclusive<f64> = 4.0..=1200.0;
const DISTANCE_M: std::ops::RangeInclusive<f64> = 0.1..=50.0;
const POWER: std::ops::RangeInclusive<f64> = -12.0..=0.0;
const SIZE_M: std::ops::RangeInclusive<f64> = 0.02..=10.0;

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
        if self.format_version != FORMAT_VERSION {
            c.wrong("format_version", format!("version {} is not {FORMAT_VERSION}", self.format_version));
        }
        c.text("name", &self.name, 1, 120);
        c.text("client", &self.client, 0, 120);
        c.text("place", &self.place, 0, 120);
        c.text("notes", &self.notes, 0, 4000);
        if !self.date.is_empty() && date_of(&self.date).is_err() {
            c.wrong("date", format!("“{}” is not a day: write 2026-08-29, or leave it empty", self.date));
        }
        c.within("kit", |c| kit(c, &self.kit));
        if self.setups.len() > 60 {
            c.wrong("setups", format!("{} setups are too many: at most 60", self.setups.len()));
        }
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
    c.within("kit", |c| kit(c, of));
    c.within("setup", |c| setup(c, one, of));
    c.done()
}

fn unique<'a>(c: &mut Checker, seen: &mut HashSet<&'a str>, id: &'a str) {
    c.text("id", id, 1, 60);
    if !seen.insert(id) {
        c.wrong("id", format!("“{id}” is there twice: each id must be unique"));
    }
}

/// The thing with an id, or a note of which ids there are.
fn found<'a, T>(c: &mut Checker, field: &str, id: &str, all: &'a [T], id_of: impl Fn(&T) -> &str) -> Option<&'a T> {
    let thing = all.iter().find(|thing| id_of(thing) == id);
    if thing.is_none() {
        let known: Vec<&str> = all.iter().map(&id_of).collect();
        c.wrong(field, format!("“{id}” is not there; there is {}", known.join(", ")));
    }
    thing
}

fn setup(c: &mut Checker, setup: &Setup, kit: &Kit) {
    c.text("name", &setup.name, 1, 120);
    c.text("notes", &setup.notes, 0, 4000);
    regions(c, setup);
    films(c, setup, kit);
    white_balance(c, setup);
    let blend = domain::Blend::from(setup.blend);
    c.within("blend", |c| {
        c.within(blend.kind(), |c| {
            for of in blend.numbers() {
                c.number(of.field, of.value, &(of.least..=of.most), "stops");
            }
        });
    });
    filters(c, setup, kit);
    optics(c, setup);
    let camera = found(c, "camera_id", &setup.camera_id, &kit.cameras, |camera| &camera.id);
    lens(c, setup, kit);
    if setup.lights.len() > MOST_LIGHTS {
        c.wrong("lights", format!("{} lights are too many: at most {MOST_LIGHTS}", setup.lights.len()));
    }
    let mut ids = HashSet::new();
    c.each("lights", &setup.lights, |c, one| {
        unique(c, &mut ids, &one.id);
        light(c, one, setup, kit);
    });
    if let Some(one) = &setup.scene {
        c.within("scene", |c| scene::scene(c, one));
    }
    if let Some(camera) = camera {
        sync(c, setup, camera);
    }
}

fn regions(c: &mut Checker, setup: &Setup) {
    let mut ids = HashSet::new();
    if setup.regions.len() > 12 {
        c.wrong("regions", format!("{} regions are too many: at most 12", setup.regions.len()));
    }
    c.each("regions", &setup.regions, |c, region| {
        unique(c, &mut ids, &region.id);
        c.text("name", &region.name, 1, 120);
        c.within("ambient", |c| {
            c.number("guess_ev100", region.ambient.guess_ev100, &reading_range::EV, "");
            if region.ambient.readings.len() > 60 {
                c.wrong("readings", format!("{} readings are too many: at most 60", region.ambient.readings.len()));
            }
            c.each("readings", &region.ambient.readings, taken);
        });
    });
    for (role, called) in [(Role::Behind, "behind"), (Role::LitSide, "lit_side")] {
        if !setup.regions.iter().any(|region| region.role == role) {
            c.wrong("regions", format!("one region must have the role “{called}”"));
        }
    }
}

/// The colour of each region's light, and the film it comes through.
fn films(c: &mut Checker, setup: &Setup, kit: &Kit) {
    c.each("regions", &setup.regions, |c, region| {
        c.within("ambient", |c| {
            c.within("colour", |c| colour(c, region.ambient.colour));
            gels(c, "film_ids", &region.ambient.film_ids, kit);
        });
    });
}

/// What was said of a light's colour.
fn colour(c: &mut Checker, said: SaidColour) {
    match said {
        SaidColour::FromPlace | SaidColour::Named(_) => {}
        SaidColour::Kelvin { kelvin, tint_duv } => c.within("kelvin", |c| {
            c.number("kelvin", kelvin, &KELVIN, "K");
            c.number("tint_duv", tint_duv, &TINT, "");
        }),
        SaidColour::Meter { kelvin, duv } => c.within("meter", |c| {
            c.number("kelvin", kelvin, &KELVIN, "K");
            c.number("duv", duv, &TINT, "");
        }),
        SaidColour::GreyPatch { red, green, blue, kelvin, tint_duv } => c.within("grey_patch", |c| {
            let before = c.count();
            for (field, value) in [("red", red), ("green", green), ("blue", blue)] {
                c.number(field, value, &(0.0..=255.0), "");
            }
            c.number("kelvin", kelvin, &KELVIN, "K");
            c.number("tint_duv", tint_duv, &TINT, "");
            if c.count() == before
                && let Err(nothing) = tolva_core::colour::SaidColour::from(said).light()
            {
                c.wrong("", nothing.to_string());
            }
        }),
    }
}

fn white_balance(c: &mut Checker, setup: &Setup) {
    if let WhiteBalance::Kelvin { kelvin, tint_duv, .. } = setup.white_balance {
        c.within("white_balance", |c| {
            c.within("kelvin", |c| {
                c.number("kelvin", kelvin, &KELVIN, "K");
                c.number("tint_duv", tint_duv, &TINT, "");
            });
        });
    }
}

fn taken(c: &mut Checker, taken: &Taken) {
    c.number("surface_stops", taken.surface_stops, &reading_range::SURFACE, "stops");
    c.text("place", &taken.place, 0, 120);
    if let Some(at) = &taken.at {
        c.within("at", |c| local_time(c, at));
    }
    c.within("reading", |c| match &taken.reading {
        Reading::Ev(read) => c.within("ev", |c| c.number("ev100", read.ev100, &reading_range::EV, "")),
        Reading::Lux(read) => c.within("lux", |c| {
            c.number("illuminance_lux", read.illuminance_lux, &reading_range::LUX, "lx");
        }),
        Reading::Camera(said) => c.within("camera", |c| {
            c.number("shutter_s", said.shutter_s, &range::SHUTTER_S, "s");
            c.number("f_number", said.f_number, &range::F_NUMBER, "");
            c.number("iso", said.iso, &range::ISO, "");
            c.number("compensation_stops", said.compensation_stops, &reading_range::COMPENSATION, "stops");
        }),
    });
}
