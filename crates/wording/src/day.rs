//! A day's light as it is sent: the day timeline.

use serde::Serialize;
use utoipa::ToSchema;

use jiff::Timestamp;
use tolva_core::ambient::{LightPhase, SunTransition};
use tolva_core::time::{clock, minutes_between, span_label};
use tolva_planner::day::{Day, after, day};
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};

use crate::leaf::{LightPhase as WirePhase, Role, SunEvent};

/// A day's light. Minutes count from the midnight it begins with.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DayTimeline {
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
    pub background_ev100: Vec<f64>,
    /// When the sun and its light come and go, in order.
    pub events: Vec<DayEvent>,
    /// The kinds of light, from midnight to midnight.
    pub phases: Vec<LightPhaseStretch>,
    /// The readings taken on this day.
    pub readings: Vec<ReadingOnTimeline>,
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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HourMark {
    /// When.
    pub minute: f64,
    /// What clocks show: `18:00`.
    pub clock: String,
}

/// Something that happens to the sun at an hour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightPhaseStretch {
    /// Which.
    pub phase: WirePhase,
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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Stretch {
    /// From, in minutes from midnight.
    pub from_minute: f64,
    /// To.
    pub to_minute: f64,
    /// On the clock: `20:08 to 20:52`.
    pub says: String,
}

/// A reading on the strip.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReadingOnTimeline {
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

/// What a phase of light is called.
pub(crate) fn phase(phase: LightPhase) -> &'static str {
    match phase {
        LightPhase::Night => "Night",
        LightPhase::LastTrace => "Last trace",
        LightPhase::DeepTwilight => "Deep twilight",
        LightPhase::Twilight => "Twilight",
        LightPhase::LowSun => "Low sun",
        LightPhase::SunUp => "Sun up",
    }
}

/// What stands in the way, by its name where it has one.
pub(crate) fn standing(name: &str) -> &str {
    if name.is_empty() { "what stands in the way" } else { name }
}

/// The day of a setup: its three lights from midnight to midnight, at steps of so many minutes, 1 to 60.
///
/// # Errors
/// A step that is none, a setup without place and hour, or one that cannot be planned.
pub fn day_of(setup: &Setup, kit: &Kit, step_min: f64) -> Result<DayTimeline, Refused> {
    let date = setup.scene.as_ref().map_or_else(String::new, |scene| scene.at.date.clone());
    Ok(timeline(date, day(setup, kit, step_min)?, setup))
}

fn timeline(date: String, day: Day, setup: &Setup) -> DayTimeline {
    let hundredths = |value: f64| (value * 100.0).round() / 100.0;
    let minute = |at: Timestamp| minutes_between(day.begin, at);
    let at = |minute: f64| clock(&day.zone, day.begin + after(minute));
    let stretch = |&(from_minute, to_minute): &(f64, f64)| {
        let says = if to_minute - from_minute >= 1380.0 {
            "all day".to_owned()
        } else {
            format!("{} to {}", at(from_minute), at(to_minute))
        };
        Stretch { from_minute, to_minute, says }
    };
    let events: Vec<DayEvent> = (day.transitions.iter())
        .map(|one| DayEvent {
            event: one.event.into(),
            minute: minute(one.at),
            utc: one.at.to_string(),
            clock: clock(&day.zone, one.at),
            says: transition(one),
        })
        .collect();
    let phases = day.phases.iter().map(|of| {
        let Stretch { from_minute, to_minute, says } = stretch(&(minute(of.from), minute(of.to)));
        let says = format!("{says}, {}", span_label(to_minute - from_minute));
        LightPhaseStretch { phase: of.phase.into(), name: phase(of.phase).to_owned(), from_minute, to_minute, says }
    });
    let readings = day.readings.iter().map(|reading| {
        let region = &setup.regions[reading.region];
        let made = if reading.simulated { "simulated at" } else { "at" };
        ReadingOnTimeline {
            role: region.role.into(),
            minute: minute(reading.at),
            ev100: reading.ev100,
            says: format!("{} EV {:.1} {made} {}", region.name, reading.ev100, clock(&day.zone, reading.at)),
            simulated: reading.simulated,
        }
    });
    let hours = (0..=8).map(|third| (f64::from(third) * 180.0).min(day.minutes));
    DayTimeline {
        date,
        minutes: day.minutes,
        altitude_deg: day.lights.iter().map(|now| hundredths(now.sun.apparent_altitude_deg)).collect(),
        azimuth_deg: day.lights.iter().map(|now| hundredths(now.sun.azimuth_deg)).collect(),
        cloud_eighths: day.lights.iter().map(|now| hundredths(now.cloud_eighths)).collect(),
        phases: phases.collect(),
        readings: readings.collect(),
        close: day.close.iter().map(stretch).collect(),
        silhouette: day.silhouette.iter().map(stretch).collect(),
        hours: hours.map(|minute| HourMark { minute, clock: at(minute) }).collect(),
        simulated: day.simulated,
        says: says(&events, day.lights.iter().any(|now| now.sun.is_up())),
        events,
        minute: day.minute,
        lit_ev100: day.lit_ev100,
        shadow_ev100: day.shadow_ev100,
        background_ev100: day.background_ev100,
    }
}

/// What happens to the sun, in words.
fn transition(one: &SunTransition) -> String {
    let hidden_by = standing(one.hidden_by.as_deref().unwrap_or_default());
    let words = match SunEvent::from(one.event) {
        SunEvent::AstronomicalDawn => "First trace of light",
        SunEvent::NauticalDawn => "Nautical dawn",
        SunEvent::CivilDawn => "Civil dawn",
        SunEvent::Sunrise => "Sunrise",
        SunEvent::Transit => "Sun over the meridian",
        SunEvent::Sunset => "Sunset",
        SunEvent::CivilDusk => "Civil dusk",
        SunEvent::NauticalDusk => "Nautical dusk",
        SunEvent::AstronomicalDusk => "Night begins",
        SunEvent::ComesOut => return format!("Sun comes out from behind {hidden_by}"),
        SunEvent::GoesBehind => return format!("Sun goes behind {hidden_by}"),
    };
    words.to_owned()
}

/// The day in a sentence.
fn says(events: &[DayEvent], up: bool) -> String {
    let at = |event: SunEvent| events.iter().rev().find(|one| one.event == event).map(|one| one.clock.as_str());
    match (at(SunEvent::Sunrise), at(SunEvent::Sunset)) {
        (Some(rise), Some(set)) => format!("The sun rises at {rise} and sets at {set}."),
        (Some(rise), None) => format!("The sun rises at {rise} and does not set on this day."),
        (None, Some(set)) => format!("The sun sets at {set} and does not rise on this day."),
        (None, None) if up => "The sun does not set on this day.".to_owned(),
        (None, None) => "The sun does not rise on this day.".to_owned(),
    }
}
