//! Checking every value of a document, and turning a setup into typed quantities to compute with.

use std::collections::HashSet;

mod kit;
mod scene;

use kit::kit;
pub(crate) use scene::CheckedScene;
use scene::local_time;

use super::kit::{Camera, Flash, FlashOutput, Kit, Modifier, ModifierSurface};
use super::problems::{Checker, Problems};
use super::setup::{Light, Role, Setup};
use super::{FORMAT, FORMAT_VERSION, Job};
pub(crate) use crate::ambient::Known;
use crate::ambient::{Follower, date_of};
use crate::exposure::{Ev, Reading, Taken, ranges as reading_range};
use crate::flash::GuideNumber;
use crate::modifier::Surface;
use crate::scale::parsing::range;
use crate::scale::{Aperture, Dial, Iso, Metres, Power, PowerStep, Setting, Shutter, Stops};

/// A setup whose every value was found good, as quantities.
#[derive(Clone, Debug)]
pub struct CheckedSetup<'a> {
    pub(crate) setup: &'a Setup,
    pub(crate) camera: &'a Camera,
    /// Where and when, where it was said.
    pub(crate) scene: Option<CheckedScene<'a>>,
    /// The light that is there, one a region.
    pub(crate) ambient: Vec<Ev>,
    /// What it rests on, one a region.
    pub(crate) known: Vec<Known>,
    pub(crate) behind: usize,
    pub(crate) lit: usize,
    pub(crate) shadow: Option<usize>,
    pub(crate) shutters: Dial<Shutter>,
    pub(crate) apertures: Dial<Aperture>,
    pub(crate) isos: Dial<Iso>,
    pub(crate) shutter: Option<Setting<Shutter>>,
    pub(crate) aperture: Option<Setting<Aperture>>,
    pub(crate) iso: Option<Setting<Iso>>,
    pub(crate) slowest: Setting<Shutter>,
    pub(crate) sync_rated: Setting<Shutter>,
    pub(crate) sync_safe: Setting<Shutter>,
    pub(crate) filter: Stops,
    pub(crate) light: Option<CheckedLight<'a>>,
}

/// A light as quantities.
#[derive(Clone, Debug)]
pub(crate) struct CheckedLight<'a> {
    pub light: &'a Light,
    pub flash: &'a Flash,
    pub modifier: Option<&'a Modifier>,
    pub guide_number: GuideNumber,
    pub surface: Surface,
    pub loss: Stops,
    pub distance: Option<Metres>,
    pub power: Option<Power>,
    pub lowest: Power,
    pub step: PowerStep,
    /// Against the lit side, one a region; nothing where it does not reach.
    pub reaches: Vec<Stops>,
}

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
    c.within("blend", |c| {
        c.within(setup.blend.kind(), |c| {
            for of in setup.blend.fields() {
                c.number(of.field, of.value, &(of.least..=of.most), "stops");
            }
        });
    });
    c.within("fixed", |c| {
        for (field, value, allowed, unit) in [
            ("shutter_s", setup.fixed.shutter_s, &range::SHUTTER_S, "s"),
            ("f_number", setup.fixed.f_number, &range::F_NUMBER, ""),
            ("iso", setup.fixed.iso, &range::ISO, ""),
        ] {
            if let Some(value) = value {
                c.number(field, value, allowed, unit);
            }
        }
    });
    c.number("filter_stops", setup.filter_stops, &(0.0..=15.0), "stops");
    c.number("slowest_shutter_s", setup.slowest_shutter_s, &range::SHUTTER_S, "s");
    let camera = found(c, "camera_id", &setup.camera_id, &kit.cameras, |camera| &camera.id);
    if setup.lights.len() > 1 {
        c.wrong("lights", format!("{} lights are too many: this version of the format knows one", setup.lights.len()));
    }
    let mut light_found = None;
    c.each("lights", &setup.lights, |c, one| light_found = light(c, one, setup, kit));
    let scene = match &setup.scene {
        Some(one) => Some(c.within("scene", |c| scene::scene(c, one))?),
        None => None,
    };
    let (behind, lit, camera) = (behind?, lit?, camera?);
    let followers = followers(setup, scene.as_ref());
    let (at, now) = (scene.as_ref().map(|scene| scene.light.at), scene.as_ref().map(|scene| scene.now));
    Some(CheckedSetup {
        setup,
        camera,
        ambient: followers.iter().map(|follower| follower.ev(now.as_ref())).collect(),
        known: followers.iter().map(|follower| follower.known(at, now.as_ref())).collect(),
        scene,
        behind,
        lit,
        shadow,
        shutters: Dial::new(camera.shutter.step, camera.shutter.slowest_s, camera.shutter.fastest_s),
        apertures: Dial::new(camera.aperture.step, camera.aperture.widest_f_number, camera.aperture.smallest_f_number),
        isos: Dial::new(camera.iso.step, camera.iso.base_iso, camera.iso.highest_iso),
        shutter: setup.fixed.shutter_s.map(Setting::of),
        aperture: setup.fixed.f_number.map(Setting::of),
        iso: setup.fixed.iso.map(Setting::of),
        slowest: Setting::of(setup.slowest_shutter_s),
        sync_rated: Setting::of(camera.sync_rated_s),
        sync_safe: Setting::of(camera.sync_safe_s),
        filter: Stops(setup.filter_stops),
        light: light_found,
    })
}

/// How each region's light goes on from what is known of it.
pub(crate) fn followers(setup: &Setup, scene: Option<&CheckedScene<'_>>) -> Vec<Follower> {
    let light = scene.map(|scene| &scene.light);
    setup.regions.iter().map(|region| Follower::new(&region.ambient, region.role, light)).collect()
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

fn light<'a>(c: &mut Checker, light: &'a Light, setup: &'a Setup, kit: &'a Kit) -> Option<CheckedLight<'a>> {
    c.text("id", &light.id, 1, 60);
    let flash = found(c, "flash_id", &light.flash_id, &kit.flashes, |flash| &flash.id);
    let modifier = light.modifier_id.as_ref().map(|id| found(c, "modifier_id", id, &kit.modifiers, |m| &m.id));
    if let Some(distance) = light.distance_m {
        c.number("distance_m", distance, &DISTANCE_M, "m");
    }
    if let Some(power) = light.power_stops {
        c.number("power_stops", power, &POWER, "stops");
    }
    let mut reaches = vec![Stops::NOTHING; setup.regions.len()];
    for (region, stops) in setup.regions.iter().zip(&mut reaches) {
        if region.role == Role::LitSide {
            *stops = Stops::ZERO;
        }
    }
    c.each("reaches", &light.reaches, |c, reach| {
        c.number("stops", reach.stops, &(-12.0..=4.0), "stops");
        if found(c, "region_id", &reach.region_id, &setup.regions, |region| &region.id).is_some() {
            for (region, stops) in setup.regions.iter().zip(&mut reaches) {
                if region.id == reach.region_id {
                    *stops = Stops(reach.stops);
                }
            }
        }
    });
    let (flash, modifier) = match (flash?, modifier) {
        (flash, None) => (flash, None),
        (flash, Some(found)) => (flash, Some(found?)),
    };
    let (surface, loss) = shape(modifier);
    let lowest = Power(Stops(flash.power.lowest_stops));
    if let Some(power) = light.power_stops
        && power < lowest.0.0 - 1e-9
    {
        c.wrong("power_stops", format!("{power} is below the lowest power of {}: {}", flash.name, lowest.0.0));
    }
    Some(CheckedLight {
        light,
        flash,
        modifier,
        guide_number: guide_number(flash, kit),
        surface,
        loss,
        distance: light.distance_m.map(Metres),
        power: light.power_stops.map(|stops| Power(Stops(stops))),
        lowest,
        step: flash.power.step,
        reaches,
    })
}

/// The surface and the loss of a modifier, or of the bare head.
fn shape(modifier: Option<&Modifier>) -> (Surface, Stops) {
    let Some(modifier) = modifier else { return (Surface::Bare, Stops::ZERO) };
    let surface = match &modifier.surface {
        ModifierSurface::Bare(_) => Surface::Bare,
        ModifierSurface::Disc(disc) => Surface::Disc { diameter: Metres(disc.diameter_m) },
        ModifierSurface::Rectangle(rectangle) => {
            Surface::Rectangle { width: Metres(rectangle.width_m), height: Metres(rectangle.height_m) }
        }
    };
    (surface, Stops(modifier.loss_stops))
}

/// The bare unit's guide number in metres, whichever way its output is known.
fn guide_number(flash: &Flash, kit: &Kit) -> GuideNumber {
    match &flash.output {
        FlashOutput::GuideNumberMetres(gn) => GuideNumber(gn.guide_number_m),
        FlashOutput::GuideNumberFeet(gn) => GuideNumber::from_feet(gn.guide_number_ft),
        FlashOutput::Measured(read) => {
            let through = read.modifier_id.as_ref().and_then(|id| kit.modifiers.iter().find(|m| &m.id == id));
            let (surface, loss) = shape(through);
            let power = Power(Stops(read.power_stops));
            GuideNumber::from_reading(read.f_number, read.iso, Metres(read.distance_m), power, surface, loss)
        }
    }
}
