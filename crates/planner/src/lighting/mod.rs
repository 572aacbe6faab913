//! What falls on each region at an instant: the light that is there by model and readings, film on windows, lamps that burn
//! on, and what each flash can add. The one source for plan, day, timetable and colour.

mod dimmers;
mod prepared_light;
mod prepared_scene;
mod region_light;
mod slowest;
mod wish;

pub use prepared_light::{FlashRange, PreparedLamp, PreparedLight};
pub use prepared_scene::PreparedScene;
pub use region_light::RegionLight;
pub use slowest::{Floors, GHOST_SHARE, REAR_CURTAIN_S, on_sensor, slowest_shutter};
pub use wish::{A_LITTLE, FlashWish, KEPT_UNDER, Placed};

use std::sync::Arc;

pub use tolva_core::ambient::AmbientSource;
use tolva_core::ambient::{CalibratedAmbient, Lights, Role};
use tolva_core::colour::Shift;
use tolva_core::exposure::Ev;
use tolva_core::optics::CloseUp;
use tolva_core::scale::{Aperture, Dial, Engraved, Iso, Millimetres, Setting, Shutter, Stops};

use crate::refused::Refused;
use crate::setup::{
    Camera, Depth, FlashIndex, Gel, Kit, Lens, LightIndex, Meter, Setup, Sync, camera_more, meter_more,
};
use crate::staging::{CardsOutdoors, SetAmbient, Stage, on_regions};
use prepared_light::Either;

/// A setup as quantities to compute with, and what falls on each of its regions.
#[derive(Clone, Debug)]
pub struct Prepared<'a> {
    /// The setup.
    pub setup: &'a Setup,
    /// Its camera.
    pub camera: &'a Camera,
    /// Its lens.
    pub lens: &'a Lens,
    /// Where and when, where it was said.
    pub scene: Option<PreparedScene<'a>>,
    /// The light of each region over time.
    pub light: Vec<RegionLight>,
    /// The light that is there at the setup's hour, lamps and all, one a region.
    pub ambient: Vec<Ev>,
    /// The same without lamps, through film where there is some.
    pub there: Vec<Ev>,
    /// What film on a window does to it, one a region.
    pub films: Vec<Shift>,
    /// What it rests on, one a region.
    pub known: Vec<AmbientSource>,
    /// The meter of the kit it was read with, one a region; nothing where that was not said.
    pub meters: Vec<Option<&'a Meter>>,
    /// The region that lies behind the subject.
    pub background: usize,
    /// The side of the subject that the ambient lights more.
    pub lit: usize,
    /// The side it lights less, where the setup has one.
    pub shadow: Option<usize>,
    /// The shutter dial.
    pub shutters: Dial<Shutter>,
    /// The aperture dial.
    pub apertures: Dial<Aperture>,
    /// The sensitivities.
    pub isos: Dial<Iso>,
    /// What is fixed, each as the nearest setting there is of it.
    pub shutter: Option<Setting<Shutter>>,
    /// The same for the aperture.
    pub aperture: Option<Setting<Aperture>>,
    /// The same for the ISO.
    pub iso: Option<Setting<Iso>>,
    /// The slowest shutter that may be chosen: as somebody said it, or from hand and movement.
    pub slowest: Setting<Shutter>,
    /// The sync speed by the maker.
    pub sync_rated: Setting<Shutter>,
    /// The sync speed to trust.
    pub sync_safe: Setting<Shutter>,
    /// What the filters on the lens take.
    pub density: Stops,
    /// What flash and ambient both lose on their way through the lens: filters, the extension close up, and panes between
    /// the lens and the subject.
    pub filter: Stops,
    /// The largest blur that counts as sharp.
    pub circle_of_confusion: Millimetres,
    /// The lens at its magnification, where the setup works by that.
    pub close_up: Option<CloseUp>,
    /// The set as geometry, where it is used.
    pub stage: Option<Arc<Stage>>,
    /// What the set makes of the light that is there, one a region.
    pub set_ambient: Vec<SetAmbient>,
    /// The flashes. Continuous lamps are in the ambient.
    pub lights: Vec<PreparedLight<'a>>,
    /// The lamps that burn on.
    pub lamps: Vec<PreparedLamp<'a>>,
}

impl<'a> Prepared<'a> {
    /// A setup with the things of its kit.
    ///
    /// # Errors
    /// Something the setup refers to is not there, or its hour is none. Numbers are taken as they are: a document's are
    /// checked where it is read.
    pub fn new(setup: &'a Setup, kit: &'a Kit) -> Result<Self, Refused> {
        let role = |role| setup.regions.iter().position(|region| region.role == role);
        let background = role(Role::Background).ok_or(Refused::NoRegion(Role::Background))?;
        let lit = role(Role::LitSide).ok_or(Refused::NoRegion(Role::LitSide))?;
        let films: Vec<Vec<&Gel>> =
            setup.regions.iter().map(|region| gels(&region.ambient.film_ids, kit)).collect::<Result<_, _>>()?;
        let density = setup
            .filter_ids
            .iter()
            .map(|id| Ok(Stops(found("filter", id, &kit.filters, |filter| &filter.id)?.density_stops)))
            .sum::<Result<Stops, Refused>>()?;
        let camera = found("camera", &setup.camera_id, &kit.cameras, |camera| &camera.id)?;
        let lens = found("lens", &setup.lens_id, &kit.lenses, |lens| &lens.id)?;
        let mut meters = meters(setup, kit)?;
        let stage = setup.set.as_ref().map(|_| Arc::new(Stage::of(setup, kit)));
        let mut lights = Vec::new();
        let mut lamps = Vec::new();
        for (index, one) in setup.each_light() {
            match prepared_light::prepared(index, one, setup, kit, lit, stage.as_ref())? {
                Either::Flash(light) => lights.push(*light),
                Either::Lamp(lamp) => lamps.push(*lamp),
            }
        }
        let scene = setup.scene.as_ref().map(PreparedScene::new).transpose()?;
        let close_up = match setup.depth {
            Depth::CloseUp { magnification, .. } => Some(CloseUp {
                magnification,
                focal: Millimetres(setup.focal_length_mm),
                pupil_ratio: lens.pupil_ratio,
            }),
            _ => None,
        };
        let (sync_safe_s, sync_rated_s) = syncs(setup.sync, camera)?;
        let mut lights_there = scene.as_ref().map(|scene| Lights::of(&scene.light, scene.now));
        let (at, now) = (scene.as_ref().map(|scene| scene.light.at), scene.as_ref().map(|scene| scene.now));
        let mut light: Vec<RegionLight> = (setup.regions.iter().zip(&films).enumerate())
            .map(|(index, (region, film))| RegionLight {
                follower: CalibratedAmbient::new(&region.ambient, region.role, lights_there.as_mut()),
                film: film.iter().map(|gel| Stops(gel.loss_stops)).sum(),
                cards: None,
                lamps: lamps.iter().fold(Stops::NOTHING, |sum, lamp: &PreparedLamp<'_>| sum.and(lamp.gives(index))),
            })
            .collect();
        let set_ambient = match &stage {
            Some(stage) => {
                let there: Vec<f64> = light.iter().map(|light| light.there(now.as_ref()).0.exp2()).collect();
                on_regions(setup, stage, &there, scene.as_ref().map(PreparedScene::on_set))
            }
            None => vec![SetAmbient::UNCHANGED; light.len()],
        };
        for (index, by) in set_ambient.iter().enumerate() {
            if by.follows_lit {
                (light[index].follower, light[index].film) = (light[lit].follower, light[lit].film);
                meters[index] = meters[lit];
            }
        }
        for ((light, region), meter) in light.iter_mut().zip(&setup.regions).zip(&meters) {
            light.film = light.film - ambient_more(setup, &region.id, *meter);
        }
        // What follows the lit side is taken from it before a card is put there.
        past_cards(&mut light, &set_ambient, setup, (stage.as_deref(), scene.as_ref()));
        let shutters = Dial::new(camera.shutter.step, camera.shutter.slowest_s, camera.shutter.fastest_s);
        let apertures = Dial::new(camera.aperture_step, lens.widest_f_number, lens.smallest_f_number);
        let isos = Dial::new(camera.iso.step, camera.iso.base_iso, camera.iso.highest_iso);
        let mut prepared = Self {
            setup,
            camera,
            lens,
            ambient: light.iter().map(|light| light.all(now.as_ref())).collect(),
            there: light.iter().map(|light| light.there(now.as_ref())).collect(),
            films: films.iter().map(|film| film.iter().map(|gel| gel.shift()).sum()).collect(),
            known: light.iter().map(|light| light.follower.known(at, now.as_ref())).collect(),
            light,
            meters,
            scene,
            background,
            lit,
            shadow: role(Role::ShadowSide),
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
            filter: density - camera_more(setup, camera)
                + close_up.map_or(Stops::ZERO, CloseUp::loss)
                + stage.as_ref().map_or(Stops::ZERO, |stage| stage.lens_loss()),
            circle_of_confusion: camera.sensor.circle(setup.circle_of_confusion),
            close_up,
            stage,
            set_ambient,
            lights,
            lamps,
        };
        prepared.dim();
        prepared.slowest = slowest_shutter(&prepared);
        Ok(prepared)
    }

    /// The light on a region before anything was read: the scene's, or the guess where there is no scene. Nothing where
    /// there is no such region.
    pub fn modelled(&self, region_id: &str) -> Option<Ev> {
        let region = self.setup.regions.iter().find(|region| region.id == region_id)?;
        let guess = Ev(region.ambient.guess_ev100);
        Some(self.scene.as_ref().map_or(guess, |scene| scene.now.of(region.role)))
    }

    /// Which of its flashes a light of the setup is; nothing where it is continuous.
    pub fn flash_of(&self, light: LightIndex) -> Option<FlashIndex> {
        self.lights.iter().position(|one| one.index == light).map(FlashIndex)
    }

    /// Whether any flash has a part in it.
    pub fn with_flash(&self) -> bool {
        self.lights.iter().any(|light| self.fires(light))
    }

    /// Whether a flash has a part in it: its role has one in the blend, and in a silhouette it is not on the face.
    pub fn fires(&self, light: &PreparedLight<'_>) -> bool {
        let blend = self.setup.blend;
        blend.fires(light.light.wish) && (blend.uses_flash() || light.aimed_at != self.lit)
    }
}

/// What the cards of a set do to each region's light: to daylight at any instant, to anything else always alike.
fn past_cards(
    light: &mut [RegionLight],
    set_ambient: &[SetAmbient],
    setup: &Setup,
    (stage, scene): (Option<&Stage>, Option<&PreparedScene<'_>>),
) {
    let outdoors = stage.zip(scene).and_then(|(stage, scene)| CardsOutdoors::of(stage, scene.scene, &scene.light));
    for (index, (light, by)) in light.iter_mut().zip(set_ambient).enumerate() {
        match (&outdoors, stage) {
            // Daylight on a card changes with the sun.
            (Some(cards), Some(stage)) => {
                light.cards = Some(cards.on_region(setup.regions[index].role, stage.receptors[index]));
            }
            _ => light.film = light.film - by.by,
        }
    }
}

/// A thing of the kit by its id.
fn found<'a, T>(what: &'static str, id: &str, all: &'a [T], id_of: impl Fn(&T) -> &str) -> Result<&'a T, Refused> {
    all.iter().find(|thing| id_of(thing) == id).ok_or_else(|| Refused::NotInKit { what, id: id.to_owned() })
}

/// The meter of the kit that each region was read with.
fn meters<'a>(setup: &Setup, kit: &'a Kit) -> Result<Vec<Option<&'a Meter>>, Refused> {
    let last = setup.regions.iter().map(|region| region.ambient.last().and_then(|taken| taken.meter_id.as_ref()));
    last.map(|id| id.map(|id| found("meter", id, &kit.meters, |meter| &meter.id)).transpose()).collect()
}

/// How much more light there is on a region than was read or taken for it, by what frames have taught.
fn ambient_more(setup: &Setup, region_id: &str, meter: Option<&Meter>) -> Stops {
    let learnt = setup.learnt.as_ref().map_or(Stops::ZERO, |learnt| learnt.ambient(region_id));
    learnt + meter.map_or(Stops::ZERO, |meter| meter_more(setup, meter))
}

/// Gels of the kit by their ids.
fn gels<'a>(ids: &[String], kit: &'a Kit) -> Result<Vec<&'a Gel>, Refused> {
    ids.iter().map(|id| found("gel", id, &kit.gels, |gel| &gel.id)).collect()
}

/// What is fixed, or the nearest setting there is of it: a lens may have left the kit, or another camera been chosen.
fn on_dial<E: Engraved>(dial: &Dial<E>, asked: f64) -> Setting<E> {
    dial.nearest(Setting::<E>::of(asked).position())
}

/// The safe and the rated sync, in seconds.
fn syncs(sync: Sync, camera: &Camera) -> Result<(f64, f64), Refused> {
    match (sync, camera.sync_electronic_s) {
        (Sync::Electronic, Some(electronic)) => Ok((electronic, electronic)),
        (Sync::Electronic, None) => Err(Refused::NoElectronicSync(camera.name.clone())),
        (Sync::Ordinary | Sync::HighSpeed, _) => Ok((camera.sync_safe_s, camera.sync_rated_s)),
    }
}
