//! What a day's strip is made of.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::ambient::Role;

/// A day's light. Minutes count from the midnight it begins with.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayStrip {
    /// The day, as `2026-08-29`.
    pub date: String,
    /// How long it is: 1440 minutes, but for days on which clocks change.
    pub minutes: f64,
    /// The minutes the lists below stand for.
    pub minute: Vec<f64>,
    /// The sun's apparent height in degrees.
    pub altitude_deg: Vec<f64>,
    /// Its bearing.
    pub azimuth_deg: Vec<f64>,
    /// Eighths of cloud.
    pub cloud_eighths: Vec<f64>,
    /// The lit side, EV at ISO 100.
    pub lit_ev100: Vec<f64>,
    /// The shadow side, EV at ISO 100.
    pub shadow_ev100: Vec<f64>,
    /// Behind, EV at ISO 100.
    pub behind_ev100: Vec<f64>,
    /// When the sun and its light come and go, in order.
    pub events: Vec<DayEvent>,
    /// The kinds of light, from midnight to midnight.
    pub spells: Vec<Spell>,
    /// The readings taken on this day.
    pub readings: Vec<ReadingOnStrip>,
    /// When all three lie within two stops of each other.
    pub close: Vec<Stretch>,
    /// When behind lies three stops or more over the subject: a silhouette without flash.
    pub silhouette: Vec<Stretch>,
    /// What whole hours read on the clocks of the place.
    pub hours: Vec<HourMark>,
    /// Whether the cloud is made up by a stand-in.
    pub simulated: bool,
    /// The day in a sentence: when the sun is up, or that it does not set or rise.
    pub says: String,
}

/// An hour on the strip's axis.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HourMark {
    /// When.
    pub minute: f64,
    /// What clocks show: `18:00`.
    pub clock: String,
}

/// What happens to the sun.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SunEvent {
    /// It comes to 18° under the horizon: the first trace of light.
    AstronomicalDawn,
    /// 12° under.
    NauticalDawn,
    /// 6° under.
    CivilDawn,
    /// Its upper edge is on a level horizon.
    Sunrise,
    /// It comes out from behind what stands in the way.
    ComesOut,
    /// It passes the meridian.
    Transit,
    /// It goes behind what stands in the way.
    GoesBehind,
    /// Its upper edge leaves a level horizon.
    Sunset,
    /// 6° under.
    CivilDusk,
    /// 12° under.
    NauticalDusk,
    /// 18° under.
    AstronomicalDusk,
}

/// Something that happens to the sun at an hour.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DayEvent {
    /// What.
    pub event: SunEvent,
    /// When, in minutes from midnight.
    pub minute: f64,
    /// The instant, in UTC.
    pub utc: String,
    /// What clocks show: `20:52`.
    pub clock: String,
    /// In words: `Sunset`, `Behind the hill`.
    pub says: String,
}

/// A stretch of one kind of light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Spell {
    /// What it is called: `Low sun`.
    pub name: String,
    /// From, in minutes from midnight.
    pub from_minute: f64,
    /// To.
    pub to_minute: f64,
    /// From and to on the clock, and how long: `20:08 to 20:52, 44 min`.
    pub says: String,
}

/// A stretch of the day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Stretch {
    /// From, in minutes from midnight.
    pub from_minute: f64,
    /// To.
    pub to_minute: f64,
    /// On the clock: `20:08 to 20:52`.
    pub says: String,
}

/// A reading on the strip.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadingOnStrip {
    /// The part of the picture.
    pub role: Role,
    /// When, in minutes from midnight.
    pub minute: f64,
    /// EV at ISO 100.
    pub ev100: f64,
    /// In words: `Behind EV 12.6 at 19:46`.
    pub says: String,
    /// Whether a stand-in made it up.
    pub simulated: bool,
}
