//! The plan as it is shown and sent: every number with its label, so that nobody else has to format or compute.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::colour::ColourPlan;
use crate::depth_lane::DepthLane;
use crate::document::Document;
use crate::glass::GlassReport;
use crate::leaf::{Change, Control, Grip, Limit, Role};
use crate::set::SetReport;
use crate::shown::{Fact, Said};
use crate::sun_report::SunReport;

/// What Tolva computes from a setup.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Plan {
    /// Whether the wish can be had.
    pub possible: bool,
    /// The answer in a sentence.
    pub says: String,
    /// Where the sun stands at the setup's hour, and what that does; null where no place and hour are given.
    pub sun_report: Option<SunReport>,
    /// What to set.
    pub dial_card: DialCard,
    /// What each region gets.
    pub rail: Vec<RegionOnRail>,
    /// The lit side against the shadow side; null where the setup has no shadow side.
    pub ratio: Option<Ratio>,
    /// What is to be sharp, and what is: line by line.
    pub depth: Vec<Fact>,
    /// The same from the camera on, to be drawn.
    pub depth_lane: DepthLane,
    /// What keeps the shutter from being slower: line by line.
    pub speed: Vec<Fact>,
    /// Whether the flashes keep up with the job, and for how long: line by line.
    pub pace: Vec<Fact>,
    /// What automatics would do as clothes change: line by line.
    pub automatic: Vec<Fact>,
    /// How sure it is, and what would narrow it.
    pub certainty: Vec<Fact>,
    /// The limit that binds, in a sentence; null where nothing does.
    pub active_limit: Option<String>,
    /// What is missing from the wish.
    pub shortfalls: Vec<Shortfall>,
    /// White balance, and what becomes of the colours.
    pub colour: ColourPlan,
    /// What would close the shortfalls, the best first.
    pub fixes: Vec<Fix>,
    /// What to mind.
    pub cautions: Vec<Caution>,
    /// The arithmetic, in order.
    pub workings: Vec<Working>,
    /// The set with its map of light, where that was asked for.
    pub set: Option<SetReport>,
    /// What shows in the glass of the set, where the set was asked for.
    pub glass: Option<GlassReport>,
}

/// What to put on the camera and the flashes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DialCard {
    /// The shutter.
    pub shutter: Dialled,
    /// The aperture.
    pub aperture: Dialled,
    /// The sensitivity.
    pub iso: Dialled,
    /// The neutral filter: `3-stop ND`; null without one.
    pub filter: Option<String>,
    /// The white balance: `5600 K`, `Shade`, `Measured`.
    pub white_balance: String,
    /// The flashes.
    pub lights: Vec<LightCard>,
}

/// One setting.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Dialled {
    /// As on the dial: `1/160`.
    pub label: String,
    /// The nominal value: seconds, f-number or ISO.
    pub nominal: f64,
    /// The value computed with.
    pub exact: f64,
    /// Whether the photographer fixed it.
    pub fixed: bool,
    /// Where what is fixed is not on this camera or lens: what was asked, and that this is the nearest there is.
    pub note: Option<String>,
}

/// One flash on the dial card.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightCard {
    /// The letter it is called by.
    pub light_id: String,
    /// What it is there for: `key`.
    pub role: String,
    /// The region it is aimed at.
    pub aimed_at: String,
    /// Whether it is a lamp that burns on, and counts as ambient.
    pub continuous: bool,
    /// The unit, with how many of it.
    pub flash: String,
    /// What is on it.
    pub modifier: String,
    /// Manual or automatic.
    pub control: Control,
    /// The power on its dial, `1/4 +⅓`; null where the blend leaves it off.
    pub power: Option<String>,
    /// The power on its dial, in stops under full.
    pub power_stops: Option<f64>,
    /// The exact power before rounding to the dial, in stops, `−1.72`.
    pub power_exact: Option<String>,
    /// Whether the photographer fixed the power.
    pub power_fixed: bool,
    /// From its surface to the subject.
    pub distance: Option<String>,
    /// The same, in metres.
    pub distance_m: Option<f64>,
    /// Whether the photographer fixed the distance.
    pub distance_fixed: bool,
    /// What modifier, gels, turning and bounce take together: `−1.5`.
    pub loss: String,
    /// What it falls short of the inverse square, being so near: `−0.12`.
    pub near_field: Option<String>,
    /// What to set instead with automatic flash: `−⅓`.
    pub compensation: Option<Said>,
    /// What else there is to know of it: softness, falloff, duration, recycling, bounce.
    pub facts: Vec<Fact>,
}

/// A mark on the rail.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Mark {
    /// Where it stands.
    pub at: Said,
    /// What moves with it; null where it cannot be moved.
    pub grip: Option<Grip>,
    /// What dragging it does, in words; null where it cannot be moved.
    pub moves: Option<String>,
}

/// A flash's mark on the rail.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FlashMark {
    /// The letter of the light.
    pub light_id: String,
    /// Its mark.
    pub mark: Mark,
}

/// One lane of the rail.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RegionOnRail {
    /// The region.
    pub region_id: String,
    /// What it is called.
    pub name: String,
    /// Its part in the picture.
    pub role: Role,
    /// What was read last, as it was given: `1/250, f/8, ISO 100`; null where nothing was.
    pub reading: Option<String>,
    /// What the exposure value rests on: `read 24 min ago, −⅓ since`, `estimate from sun and sky`.
    pub source: String,
    /// The readings before the last, the newest first, five at most: `19:26, EV 12.6, incident, dome`.
    pub earlier: Vec<String>,
    /// The exposure value it comes to: `EV 12.6`.
    pub ev: String,
    /// True where nobody has read the light yet.
    pub estimated: bool,
    /// What the ambient gives it.
    pub ambient: Mark,
    /// What each flash gives it.
    pub flashes: Vec<FlashMark>,
    /// What they sum to.
    pub together: Mark,
    /// Where it is wished to end.
    pub wish: Option<Said>,
    /// One standard deviation of the total, in stops.
    pub uncertainty_stops: f64,
    /// The same, as said: `±0.4`.
    pub uncertainty: String,
    /// The part of its light that is flash: `75 %`.
    pub flash_share: String,
    /// Whether a mid grey there renders as full white.
    pub clipped: bool,
}

/// The lit side over the shadow side, in stops.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ratio {
    /// By the ambient alone.
    pub before: Said,
    /// With the flash.
    pub after: Said,
}

/// What is missing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Shortfall {
    /// The limit that is run into.
    pub limit: Limit,
    /// How much is missing, in stops.
    pub missing_stops: f64,
    /// The same, as said: `1⅓ stops`.
    pub missing: String,
    /// What it means, in a sentence.
    pub says: String,
    /// The light it is about; null where it is about the camera.
    pub light_id: Option<String>,
}

/// A way to close a shortfall.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Fix {
    /// What to do: `Bring A to 0.85 m`.
    pub does: String,
    /// What it gives or costs.
    pub says: String,
    /// Whether the wish can be had then.
    pub closes: bool,
    /// What it changes in the setup, in order; empty where it is something outside Tolva.
    pub changes: Vec<Change>,
    /// The code of what to do outside Tolva; null where it changes the setup.
    pub outside: Option<&'static str>,
    /// The numbers of that, by name, with the unit in each name.
    pub numbers: BTreeMap<&'static str, f64>,
    /// The setup with this done; null where it is something outside Tolva.
    pub setup: Option<Document>,
}

/// Something to mind.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Caution {
    /// Its code: stable.
    pub code: &'static str,
    /// Its numbers, by name, with the unit in each name.
    pub numbers: BTreeMap<&'static str, f64>,
    /// In two or three words.
    pub heading: String,
    /// In a sentence or two.
    pub says: String,
}

/// One line of the workings.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// What is worked out: `Camera`.
    pub about: String,
    /// In words.
    pub says: String,
    /// The arithmetic.
    pub sum: String,
    /// What comes out.
    pub gives: String,
}
