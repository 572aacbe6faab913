//! What there is to say of a set: what cannot stand so, what stands in the frame, what flares, and what can hurt. Nothing is
//! refused that can be drawn.

mod amiss;
mod framing;
mod safety;

pub use framing::{nearest_out_of_frame, support_outline};

use tolva_core::ambient::Sun;
use tolva_core::set::Point;

use super::distances::LightDistances;
use crate::lighting::Prepared;
use crate::setup::{HazardKind, Kit, LightIndex, Setup};
use crate::staging::{Stage, Thing};

/// What of a thing stands in the frame.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Part {
    /// What glows.
    Face,
    /// What it stands on.
    Stand,
    /// The helper who holds it.
    Helper,
    /// All of it.
    Whole,
}

/// Something there is to say.
#[derive(Clone, Debug, PartialEq)]
pub enum SetNotice {
    /// A light, or the camera, is inside something.
    Inside {
        /// What is.
        what: Thing,
        /// In what.
        of: Thing,
    },
    /// Two people stand in one place.
    InOnePlace(Thing, Thing),
    /// Everything is at one point.
    AllAtOnePoint,
    /// A light is under the floor, or over the ceiling.
    OutOfTheRoom(Thing),
    /// A stand does not reach that high.
    StandTooLow {
        /// The light.
        light: Thing,
        /// As high as it would have to.
        needed_m: f64,
        /// As high as it does.
        highest_m: f64,
    },
    /// Nothing of a light arrives where it is aimed.
    NothingArrives {
        /// The light.
        light: Thing,
        /// The region, by its index.
        region: usize,
        /// Whether it stands behind it; otherwise something stands between, or it looks elsewhere.
        behind: bool,
    },
    /// The key lights the shadow side more than the lit side.
    OtherSideLit(Thing),
    /// Something stands in the frame.
    InFrame {
        /// What.
        what: Thing,
        /// Which part of it.
        part: Part,
        /// How far from its aim it would be out of it, along its line; nothing where that leads nowhere.
        from_m: Option<f64>,
        /// How high over the floor it would be out of it, straight up; nothing where that is no way.
        up_m: Option<f64>,
    },
    /// The sun or a light shines on the front glass.
    Flare {
        /// The light; nothing where it is the sun.
        light: Option<Thing>,
        /// How far off the lens's axis, in degrees.
        angle_deg: f64,
        /// Where a flag keeps it off, just out of the frame; nothing where any flag would be in the picture.
        flag: Option<Point>,
    },
    /// The wind on a stand.
    Wind {
        /// The light.
        light: Thing,
        /// The wind that is reckoned with, in m/s.
        wind_m_s: f64,
        /// Whether nobody has said it.
        assumed: bool,
        /// What it sees, in m².
        area_m2: f64,
        /// How high.
        height_m: f64,
        /// The force, in newtons.
        force_n: f64,
        /// The ballast, in kilograms.
        ballast_kg: f64,
        /// Who stands where it falls.
        reaches: Option<Thing>,
    },
    /// If a stand falls, it reaches something.
    Falls {
        /// The light.
        light: Thing,
        /// How far it reaches.
        reach_m: f64,
        /// What it reaches.
        on: HazardKind,
    },
    /// Something stands near an edge, a road or water.
    Near {
        /// What.
        what: Thing,
        /// How far off.
        away_m: f64,
        /// What it is.
        hazard: HazardKind,
    },
    /// A light is so near a line overhead.
    UnderLine {
        /// The light.
        light: Thing,
        /// How near.
        away_m: f64,
    },
    /// A cable lies across the way between the camera and the people.
    CableAcross,
    /// A bare tube so near somebody's eyes, in metres.
    BareNearEyes {
        /// The light.
        light: Thing,
        /// Who.
        person: Thing,
        /// How near.
        away_m: f64,
    },
    /// A lamp that burns on in closed cloth.
    Heat(Thing),
    /// A light on an arm: its weight pulls to one side.
    Boom {
        /// The light.
        light: Thing,
        /// What hangs on it, where that is more than it carries.
        over: Option<BoomLoad>,
    },
    /// An arm that its boom does not reach.
    BoomTooShort {
        /// The light.
        light: Thing,
        /// The arm.
        arm_m: f64,
        /// As far as the boom reaches.
        reach_m: f64,
    },
}

/// What hangs on a boom, and what it carries.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BoomLoad {
    /// The unit and what is on it, in kilograms.
    pub hangs_kg: f64,
    /// What the boom carries, in kilograms.
    pub carries_kg: f64,
    /// Whether the unit's own weight is known, and in it.
    pub unit_weighed: bool,
}

impl SetNotice {
    /// Its code: stable, for whoever reads it by machine.
    pub fn code(&self) -> &'static str {
        match self {
            Self::Inside { .. } => "inside",
            Self::InOnePlace(..) => "in_one_place",
            Self::AllAtOnePoint => "all_at_one_point",
            Self::OutOfTheRoom(_) => "out_of_the_room",
            Self::StandTooLow { .. } => "stand_too_low",
            Self::NothingArrives { .. } => "nothing_arrives",
            Self::OtherSideLit(_) => "other_side_lit",
            Self::InFrame { .. } => "in_frame",
            Self::Flare { flag: Some(_), .. } => "flare",
            Self::Flare { flag: None, .. } => "flare_in_frame",
            Self::Wind { .. } => "wind",
            Self::Falls { .. } => "falls",
            Self::Near { .. } => "near_hazard",
            Self::UnderLine { .. } => "under_line",
            Self::CableAcross => "cable_across",
            Self::BareNearEyes { .. } => "bare_near_eyes",
            Self::Heat(_) => "heat",
            Self::Boom { .. } => "boom",
            Self::BoomTooShort { .. } => "boom_too_short",
        }
    }

    /// What it is told at; nothing where it is the whole set.
    pub fn about(&self) -> Option<&Thing> {
        match self {
            Self::Inside { what, .. } | Self::InFrame { what, .. } | Self::Near { what, .. } => Some(what),
            Self::InOnePlace(one, _) => Some(one),
            Self::OutOfTheRoom(light)
            | Self::OtherSideLit(light)
            | Self::Heat(light)
            | Self::Boom { light, .. }
            | Self::BoomTooShort { light, .. }
            | Self::StandTooLow { light, .. }
            | Self::NothingArrives { light, .. }
            | Self::Wind { light, .. }
            | Self::Falls { light, .. }
            | Self::UnderLine { light, .. }
            | Self::BareNearEyes { light, .. } => Some(light),
            Self::Flare { light, .. } => light.as_ref(),
            Self::AllAtOnePoint | Self::CableAcross => None,
        }
    }

    /// Whether it can hurt somebody: it is told with the usual caution.
    pub fn can_hurt(&self) -> bool {
        matches!(
            self,
            Self::Wind { .. }
                | Self::Falls { .. }
                | Self::Near { .. }
                | Self::UnderLine { .. }
                | Self::CableAcross
                | Self::BareNearEyes { .. }
                | Self::Heat(_)
                | Self::Boom { .. }
        )
    }
}

/// A set as it is looked over.
pub(super) struct Looked<'a> {
    pub setup: &'a Setup,
    pub kit: &'a Kit,
    pub prepared: &'a Prepared<'a>,
    pub stage: &'a Stage,
    /// How far each light stands, in the setup's order.
    pub distances: &'a LightDistances,
}

impl Looked<'_> {
    fn light(&self, index: LightIndex) -> Thing {
        Thing::Light(self.setup.lights[index].id.clone())
    }

    fn at(&self, index: LightIndex) -> Point {
        self.stage.at(index, tolva_core::scale::Metres(self.distances[index]))
    }

    /// The sun, where it is over the skyline.
    fn sun(&self) -> Option<(Sun, f64)> {
        let scene = self.prepared.scene.as_ref()?;
        (scene.now.sun_shows && scene.light.is_daylight()).then_some((scene.now.sun, scene.scene.facing_deg))
    }
}

/// All there is to say of a set, what cannot be first, then what can hurt, then the frame.
pub fn notices(prepared: &Prepared<'_>, (kit, stage): (&Kit, &Stage), distances: &LightDistances) -> Vec<SetNotice> {
    let looked = Looked { setup: prepared.setup, kit, prepared, stage, distances };
    let mut all = amiss::amiss(&looked);
    all.extend(safety::safety(&looked));
    all.extend(framing::framing(&looked));
    all
}
