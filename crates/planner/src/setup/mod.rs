//! What a setup is, once it is known to be good: one lighting arrangement for one kind of picture, and the kit it is made
//! of. The documents it is read from are another crate's.

mod blend;
mod conventions;
mod glass;
mod kit;
mod learnt;
mod places;
mod schedule;
mod set;
mod starter;

pub use blend::{Blend, BlendNumber, LOWEST_PLACE};
pub use conventions::{AutomaticConvention, ExposureConvention, FallingOrder, Preference};
pub use glass::{Pane, PaneGlazing, Spectacles};
pub use kit::{
    Backdrop, BareSurface, Board, Boom, Camera, ContinuousOutput, DiscSurface, Duty, Filter, Flash, FlashOutput, Gel,
    GuideNumberFeet, GuideNumberMetres, GuideNumberZoom, IsoRange, Kit, Lens, MeasuredOutput, Meter, Modifier,
    ModifierSurface, PowerRange, RectangleSurface, ShutterRange, Stand, Trigger, TunedLens, TunedThrough,
};
pub use learnt::{Believed, Learnt, Unknown, camera_more, light_more, meter_more};
pub(crate) use places::indexed;
pub use places::{FlashIndex, LightIndex};
pub use schedule::{Arrival, JobDay, Schedule, Shot, ShotKind, Way};
pub use set::{
    CameraAim, CameraPlace, Card, CardKind, Ceiling, Clothes, FeatherTo, Finish, Floor, Hazard, HazardKind, Head,
    LightPlace, Opening, Person, Product, ProductShape, RegionPlace, Set, Side, Skin, Support, Wall,
};

use tolva_core::ambient::{Role, Scene};
use tolva_core::colour::WhiteBalance;
use tolva_core::exposure::Ambient;
use tolva_core::modifier::Bounce;
use tolva_core::optics::{CircleOfConfusion, HandheldRule, Movement};

/// One lighting arrangement.
#[derive(Clone, Debug, PartialEq)]
pub struct Setup {
    /// Unique in the job.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Anything else. May be empty.
    pub notes: String,
    /// Where and when; left out while nobody has said it.
    pub scene: Option<Scene>,
    /// The parts of the picture that get their own exposure. One at least is behind, one the lit side.
    pub regions: Vec<Region>,
    /// The wish.
    pub blend: Blend,
    /// The camera, from the kit.
    pub camera_id: String,
    /// The lens, from the kit.
    pub lens_id: String,
    /// The focal length it is used at, 4 to 1200 mm.
    pub focal_length_mm: f64,
    /// From the sensor of the camera to the nearest of the subject, 0.05 to 200 m.
    pub camera_distance_m: f64,
    /// What is fixed on the camera; the rest is Tolva's to choose.
    pub fixed: Fixed,
    /// The neutral density filters on the lens, from the kit. At most 3.
    pub filter_ids: Vec<String>,
    /// How flash and shutter go together.
    pub sync: Sync,
    /// What is to be sharp.
    pub depth: Depth,
    /// What counts as sharp.
    pub circle_of_confusion: CircleOfConfusion,
    /// What keeps the camera still, and what moves before it.
    pub speed: Speed,
    /// What the job asks of the flashes in time; left out where nobody has said it.
    pub pace: Option<Pace>,
    /// How an exposure is judged.
    pub exposure: ExposureConvention,
    /// What the camera may set by itself.
    pub automatic_exposure: AutomaticConvention,
    /// What the camera is balanced for.
    pub white_balance: WhiteBalance,
    /// What is kept first where not everything can be had; left out, the person's own order.
    pub preferences: Option<Vec<Preference>>,
    /// What gives way first as the light falls.
    pub falling_order: FallingOrder,
    /// The lights. At most 8.
    pub lights: Vec<Light>,
    /// What stands on the set, to scale; left out while nobody has used it: what lights reach is then as it was typed.
    pub set: Option<Set>,
    /// The shots that are taken, in order. At most 40.
    pub shots: Vec<Shot>,
    /// What it asks of its day.
    pub schedule: Schedule,
    /// What frames that came have taught; nothing where none was measured.
    pub learnt: Option<Learnt>,
}

/// How flash and shutter go together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Sync {
    /// Up to the safe sync of the mechanical shutter.
    #[default]
    Ordinary,
    /// A train of pulses: any shutter, for less light.
    HighSpeed,
    /// The electronic shutter with its own, slower sync.
    Electronic,
}

/// What is to be sharp.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum Depth {
    /// Whatever the light gives.
    #[default]
    Free,
    /// One head, what lies behind soft: as wide as the lens goes, f/2.8 at most (common practice, no source).
    OneHead,
    /// People in rows, the first at the camera's distance.
    Rows {
        /// How many, 1 to 20.
        rows: u8,
        /// From one row to the next, 0.1 to 5 m.
        apart_m: f64,
    },
    /// A subject so deep, from the camera's distance on: 0.001 to 100 m.
    Deep {
        /// How deep.
        depth_m: f64,
    },
    /// By magnification: the lens stands where that puts it.
    CloseUp {
        /// On the sensor over in truth, 0.05 to 10: 1 is life size.
        magnification: f64,
        /// How deep the subject is, 0.01 to 200 mm.
        depth_mm: f64,
        /// Whether it is taken as a stack of frames instead of by one small aperture.
        stacked: bool,
        /// How far each frame of a stack overlaps the next: 0 to 0.9.
        overlap: f64,
    },
}

/// What keeps the camera still, and what moves before it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Speed {
    /// The slowest shutter that may be chosen, in seconds, as somebody said it; null where it follows from the rest.
    pub slowest_shutter_s: Option<f64>,
    /// Whether the camera stands on a tripod.
    pub tripod: bool,
    /// The rule for the hand.
    pub school: HandheldRule,
    /// What the subject does.
    pub movement: Movement,
    /// How many pixels of blur are allowed, 0.5 to 100.
    pub blur_px: f64,
}

impl Default for Speed {
    /// By hand at one over the focal length, somebody who holds a pose, three pixels of blur.
    fn default() -> Self {
        Self {
            slowest_shutter_s: None,
            tripod: false,
            school: HandheldRule::default(),
            movement: Movement::HeldPose,
            blur_px: 3.0,
        }
    }
}

/// What the job asks of the flashes in time.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pace {
    /// Seconds from one picture (or burst) to the next, 0.1 to 3600.
    pub every_s: f64,
    /// Frames in a burst; 1 where there is none. 1 to 1000.
    pub burst_frames: u32,
    /// Frames in all, 1 to 100 000.
    pub frames: u32,
}

/// A part of the picture with its own exposure.
#[derive(Clone, Debug, PartialEq)]
pub struct Region {
    /// Unique in the setup.
    pub id: String,
    /// What it is called on the rail.
    pub name: String,
    /// Its part in the picture.
    pub role: Role,
    /// The light that is there.
    pub ambient: Ambient,
    /// Where it is on the set; left out, where its role usually is.
    pub place: Option<RegionPlace>,
}

/// What the photographer has fixed on the camera. What is missing is left to Tolva.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Fixed {
    /// In seconds.
    pub shutter_s: Option<f64>,
    /// The f-number.
    pub f_number: Option<f64>,
    /// ISO.
    pub iso: Option<f64>,
}

/// How a flash is controlled.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Control {
    /// Power set by hand.
    #[default]
    Manual,
    /// The camera meters the flash; the compensation is set by hand.
    Ttl,
}

/// What a light is there for.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum LightWish {
    /// It brings the lit side to where the blend wants it.
    #[default]
    Key,
    /// It leaves its region so far under the lit side.
    Fill {
        /// Lit side over its region, 0 to 6 stops.
        ratio_stops: f64,
    },
    /// It brings its region so far over the lit side.
    Rim {
        /// Its region over the lit side, −3 to 4 stops.
        over_stops: f64,
    },
    /// It brings its region to a place of its own: a background, a row, a product's face.
    Place {
        /// Stops from mid grey.
        stops: f64,
    },
}

/// One light of a setup: a flash, several of one kind as one, or a continuous lamp.
#[derive(Clone, Debug, PartialEq)]
pub struct Light {
    /// The letter it is called by, unique in the setup.
    pub id: String,
    /// The unit, from the kit.
    pub flash_id: String,
    /// So many of these units side by side as one, 1 to 6.
    pub units: u8,
    /// What is on it, from the kit; none for the bare head.
    pub modifier_id: Option<String>,
    /// Gels over it, from the kit. At most 4.
    pub gel_ids: Vec<String>,
    /// What it stands on, from the kit; none where it is on the camera or held.
    pub stand_id: Option<String>,
    /// The boom on its stand, of the kit; only where one holds it.
    pub boom_id: Option<String>,
    /// The group it listens to on its trigger, 1 to 16.
    pub group: u8,
    /// The zoom of its head; left out, the widest its table knows.
    pub zoom_mm: Option<f64>,
    /// Turned to a ceiling or wall instead of the subject; left out where it is not.
    pub bounce: Option<Bounce>,
    /// How far it is turned away from what it is aimed at, in degrees: 0 to 85.
    pub feather_deg: f64,
    /// Whether it sits on the camera.
    pub on_camera: bool,
    /// What it is there for.
    pub wish: LightWish,
    /// The region it is aimed at; left out, the lit side.
    pub aimed_at: Option<String>,
    /// Manual or automatic.
    pub control: Control,
    /// From its surface to what it is aimed at, in metres; left out, Tolva chooses.
    pub distance_m: Option<f64>,
    /// Fixed power in stops under full; left out, Tolva chooses.
    pub power_stops: Option<f64>,
    /// What it gives other regions than the one it is aimed at. A region that is not named gets nothing.
    pub spill: Vec<Spill>,
    /// Where it stands on the set; left out, where such a light usually stands.
    pub place: Option<LightPlace>,
}

impl Light {
    /// A light with sensible values: manual, a key, free in power.
    pub fn new(id: &str, flash_id: &str) -> Self {
        Self {
            id: id.to_owned(),
            flash_id: flash_id.to_owned(),
            units: 1,
            modifier_id: None,
            gel_ids: Vec::new(),
            stand_id: None,
            boom_id: None,
            group: 1,
            zoom_mm: None,
            bounce: None,
            feather_deg: 0.0,
            on_camera: false,
            wish: LightWish::Key,
            aimed_at: None,
            control: Control::Manual,
            distance_m: Some(1.5),
            power_stops: None,
            spill: Vec::new(),
            place: None,
        }
    }
}

/// What a light gives a region it is not aimed at.
#[derive(Clone, Debug, PartialEq)]
pub struct Spill {
    /// The region.
    pub region_id: String,
    /// Against what its own region gets, in stops: 0 where it gets as much, −2 where it gets a quarter. An estimate
    /// until it is measured.
    pub stops: f64,
}

impl Setup {
    /// A new setup with sensible values: estimated bright cloud, a lift, the kit's first camera, its middle flash and
    /// its first modifier at 1.5 m.
    pub fn new(id: &str, kit: &Kit) -> Self {
        let estimated = |id: &str, name: &str, role, ev100| Region {
            id: id.to_owned(),
            name: name.to_owned(),
            role,
            ambient: Ambient::guessed(ev100),
            place: None,
        };
        let flashes: Vec<_> = kit.flashes.iter().filter(|one| !one.burns_on()).collect();
        let light = flashes.get(flashes.len() / 2).map(|flash| Light {
            modifier_id: kit.modifiers.first().map(|modifier| modifier.id.clone()),
            spill: vec![Spill { region_id: "shadow".to_owned(), stops: -2.0 }],
            ..Light::new("A", &flash.id)
        });
        let lens = kit.lenses.first();
        Self {
            id: id.to_owned(),
            name: "New setup".to_owned(),
            notes: String::new(),
            scene: None,
            regions: vec![
                estimated("behind", "Behind", Role::Background, 13.0),
                estimated("lit", "Face, lit side", Role::LitSide, 12.0),
                estimated("shadow", "Face, shadow side", Role::ShadowSide, 11.0),
            ],
            blend: Blend::OFFERED[0],
            camera_id: kit.cameras.first().map_or_else(String::new, |camera| camera.id.clone()),
            lens_id: lens.map_or_else(String::new, |lens| lens.id.clone()),
            focal_length_mm: lens.map_or(85.0, |lens| 85.0_f64.clamp(lens.shortest_mm, lens.longest_mm)),
            camera_distance_m: 3.0,
            fixed: Fixed::default(),
            filter_ids: Vec::new(),
            sync: Sync::default(),
            depth: Depth::default(),
            circle_of_confusion: CircleOfConfusion::default(),
            speed: Speed::default(),
            pace: None,
            exposure: ExposureConvention::default(),
            automatic_exposure: AutomaticConvention::default(),
            white_balance: WhiteBalance::default(),
            preferences: None,
            falling_order: FallingOrder::default(),
            lights: light.into_iter().collect(),
            set: None,
            shots: Vec::new(),
            schedule: Schedule::default(),
            learnt: None,
        }
    }
}
