//! Checking every value of a document, and turning a setup into typed quantities to compute with.

use std::collections::HashSet;

mod camera;
pub(super) mod kit;
mod light;
mod scene;

pub(in crate::job) use self::kit::kit;
use camera::{filters, lens, optics, syncs};
pub(crate) use light::{CheckedLamp, CheckedLight};
use light::{CheckedLightKind, gels, light};
pub(crate) use scene::CheckedScene;
use scene::local_time;

use super::Role;
use super::kit::{Camera, Gel, Kit, Lens};
use super::problems::{Checker, Problems};
use super::setup::{Depth, Setup};
use super::{FORMAT, FORMAT_VERSION, Job};
pub(crate) use tolva_core::ambient::Known;
use tolva_core::ambient::{Follower, Lights, RegionLight, date_of};
use tolva_core::colour::{KELVIN, SaidColour, Shift, TINT, WhiteBalance};
use tolva_core::exposure::{Ev, Reading, Taken, ranges as reading_range};
use tolva_core::optics::CloseUp;
use tolva_core::scale::parsing::range;
use tolva_core::scale::{Aperture, Dial, Iso, Millimetres, Setting, Shutter, Stops};

/// A setup whose every value was found good, as quantities.
#[derive(Clone, Debug)]
pub struct CheckedSetup<'a> {
    pub(crate) setup: &'a Setup,
    pub(crate) camera: &'a Camera,
    pub(crate) lens: &'a Lens,
    /// Where and when, where it was said.
    pub(crate) scene: Option<CheckedScene<'a>>,
    /// The light of each region over time.
    pub(crate) light: Vec<RegionLight>,
    /// The light that is there at the setup's hour, lamps and all, one a region.
    pub(crate) ambient: Vec<Ev>,
    /// The same without lamps, through film where there is some.
    pub(crate) there: Vec<Ev>,
    /// What film on a window does to it, one a region.
    pub(crate) films: Vec<Shift>,
    /// What it rests on, one a region.
    pub(crate) known: Vec<Known>,
    pub(crate) behind: usize,
    pub(crate) lit: usize,
    pub(crate) shadow: Option<usize>,
    pub(crate) shutters: Dial<Shutter>,
    pub(crate) apertures: Dial<Aperture>,
    pub(crate) isos: Dial<Iso>,
    /// What is fixed, each as the nearest setting there is of it.
    pub(crate) shutter: Option<Setting<Shutter>>,
    pub(crate) aperture: Option<Setting<Aperture>>,
    pub(crate) iso: Option<Setting<Iso>>,
    /// The slowest shutter that may be chosen: as somebody said it, or from hand and movement.
    pub(crate) slowest: Setting<Shutter>,
    pub(crate) sync_rated: Setting<Shutter>,
    pub(crate) sync_safe: Setting<Shutter>,
    /// What the filters on the lens take.
    pub(crate) density: Stops,
    /// What flash and ambient both lose on their way through the lens: filters, and the extension close up.
    pub(crate) filter: Stops,
    /// The largest blur that counts as sharp.
    pub(crate) circle: Millimetres,
    /// The lens at its magnification, where the setup works by that.
    pub(crate) close_up: Option<CloseUp>,
    /// The flashes. Continuous lamps are in the ambient.
    pub(crate) lights: Vec<CheckedLight<'a>>,
    pub(crate) lamps: Vec<CheckedLamp<'a>>,
}

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
            let _ = setup(c, one, &self.kit);
        });
        c.done(Some(()))
    }
}

impl<'a> CheckedSetup<'a> {
    /// Checks a kit and a setup. Pointers begin with `/kit` and `/setup`.
    ///
    /// # Errors
    /// All that is wrong, each with a pointer to its field.
    pub fn new(one: &'a Setup, of: &'a Kit) -> Result<Self, Problems> {
        let mut c = Checker::default();
        c.within("kit", |c| kit(c, of));
        let checked = c.within("setup", |c| setup(c, one, of));
        c.done(checked)
    }

    /// The setup.
    pub fn setup(&self) -> &'a Setup {
        self.setup
    }

    /// The light on a region before anything was read: the scene's, or the guess where there is no scene. Nothing where
    /// there is no such region.
    pub fn modelled(&self, region_id: &str) -> Option<Ev> {
        let region = self.setup.regions.iter().find(|region| region.id == region_id)?;
        let guess = Ev(region.ambient.guess_ev100);
        Some(self.scene.as_ref().map_or(guess, |scene| scene.now.of(region.role)))
    }
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

fn setup<'a>(c: &mut Checker, setup: &'a Setup, kit: &'a Kit) -> Option<CheckedSetup<'a>> {
    c.text("name", &setup.name, 1, 120);
    c.text("notes", &setup.notes, 0, 4000);
    let (behind, lit, shadow) = regions(c, setup);
    let films = films(c, setup, kit);
    white_balance(c, setup);
    c.within("blend", |c| {
        c.within(setup.blend.kind(), |c| {
            for of in setup.blend.fields() {
                c.number(of.field, of.value, &(of.least..=of.most), "stops");
            }
        });
    });
    let density = filters(c, setup, kit);
    optics(c, setup);
    let camera = found(c, "camera_id", &setup.camera_id, &kit.cameras, |camera| &camera.id);
    let lens = lens(c, setup, kit);
    if setup.lights.len() > MOST_LIGHTS {
        c.wrong("lights", format!("{} lights are too many: at most {MOST_LIGHTS}", setup.lights.len()));
    }
    let mut lights = Vec::new();
    let mut lamps = Vec::new();
    let mut ids = HashSet::new();
    let mut index = 0;
    c.each("lights", &setup.lights, |c, one| {
        unique(c, &mut ids, &one.id);
        match light(c, index, one, setup, kit, lit) {
            Some(CheckedLightKind::Flash(light)) => lights.push(*light),
            Some(CheckedLightKind::Lamp(lamp)) => lamps.push(lamp),
            None => {}
        }
        index += 1;
    });
    let scene = match &setup.scene {
        Some(one) => Some(c.within("scene", |c| scene::scene(c, one))?),
        None => None,
    };
    let (behind, lit, camera, lens) = (behind?, lit?, camera?, lens?);
    let close_up = match setup.depth {
        Depth::CloseUp { magnification, .. } => {
            Some(CloseUp { magnification, focal: Millimetres(setup.focal_length_mm), pupil_ratio: lens.pupil_ratio })
        }
        _ => None,
    };
    let (sync_safe_s, sync_rated_s) = syncs(c, setup, camera)?;
    let mut lights_there = scene.as_ref().map(|scene| Lights::of(&scene.light, scene.now));
    let (at, now) = (scene.as_ref().map(|scene| scene.light.at), scene.as_ref().map(|scene| scene.now));
    let light: Vec<RegionLight> = (setup.regions.iter().zip(&films).enumerate())
        .map(|(index, (region, film))| RegionLight {
            follower: Follower::new(&region.ambient, region.role, lights_there.as_mut()),
            film: film.iter().map(|gel| Stops(gel.loss_stops)).sum(),
            lamps: lamps.iter().fold(Stops::NOTHING, |sum, lamp: &CheckedLamp<'_>| sum.and(lamp.gives[index])),
        })
        .collect();
    let shutters = Dial::new(camera.shutter.step, camera.shutter.slowest_s, camera.shutter.fastest_s);
    let apertures = Dial::new(camera.aperture_step, lens.widest_f_number, lens.smallest_f_number);
    let isos = Dial::new(camera.iso.step, camera.iso.base_iso, camera.iso.highest_iso);
    let mut checked = CheckedSetup {
        setup,
        camera,
        lens,
        ambient: light.iter().map(|light| light.all(now.as_ref())).collect(),
        there: light.iter().map(|light| light.there(now.as_ref())).collect(),
        films: films.iter().map(|film| film.iter().map(|gel| gel.shift()).sum()).collect(),
        known: light.iter().map(|light| light.follower.known(at, now.as_ref())).collect(),
        light,
        scene,
        behind,
        lit,
        shadow,
        shutter: setup.fixed.shutter_s.map(|asked| on_dial(&shutters, asked)),
        aperture: setup.fixed.f_number.map(|asked| on_dial(&apertures, asked)),
        iso: setup.fixed.iso.map(|asked| on_dial(&isos, asked)),
        shutters,
        apertures,
        isos,
        slowest: Setting::of(camera.shutter.slowest_s),
        sync_rated: Setting::of(sync_rated_s),
        sync_safe: Setting::of(sync_safe_s),
        density,
        filter: density + close_up.map_or(Stops::ZERO, CloseUp::loss),
        circle: camera.sensor.circle(setup.circle),
        close_up,
        lights,
        lamps,
    };
    checked.slowest = crate::blend::slowest_shutter(&checked);
    Some(checked)
}

/// What is fixed, or the nearest setting there is of it: a lens may have left the kit, or another camera been chosen.
fn on_dial<E: tolva_core::scale::Engraved>(dial: &Dial<E>, asked: f64) -> Setting<E> {
    dial.nearest(Setting::<E>::of(asked).position())
}

type RegionsFound = (Option<usize>, Option<usize>, Option<usize>);

fn regions(c: &mut Checker, setup: &Setup) -> RegionsFound {
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
    let role = |role| setup.regions.iter().position(|region| region.role == role);
    let (behind, lit) = (role(Role::Behind), role(Role::LitSide));
    for (found, called) in [(behind, "behind"), (lit, "lit_side")] {
        if found.is_none() {
            c.wrong("regions", format!("one region must have the role “{called}”"));
        }
    }
    (behind, lit, role(Role::ShadowSide))
}

/// The colour of each region's light, and the film it comes through.
fn films<'a>(c: &mut Checker, setup: &Setup, kit: &'a Kit) -> Vec<Vec<&'a Gel>> {
    let mut all = Vec::new();
    c.each("regions", &setup.regions, |c, region| {
        c.within("ambient", |c| {
            c.within("colour", |c| colour(c, region.ambient.colour));
            all.push(gels(c, "film_ids", &region.ambient.film_ids, kit));
        });
    });
    all
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
                && let Err(nothing) = said.light()
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
