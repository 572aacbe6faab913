//! The day strip: the three exposure values over a day, when the sun comes and goes, and when they lie close together or
//! far apart.

use jiff::{SignedDuration, Timestamp};

use super::sun::RISE_DEG;
use super::track::when;
use super::{LightNow, RegionLight, SceneLight, Sun, SunTrack, WrongTime, clock, day, minutes_between, span_label};
use crate::ambient::Role;

mod turn;
mod types;

pub use turn::{Ahead, NextTurn};
pub use types::{DayEvent, DayStrip, HourMark, ReadingOnStrip, Spell, Stretch, SunEvent};

/// One region of the picture on the strip: its part, its light over time, and its readings with instant and EV.
pub struct Lane<'a> {
    /// Its part in the picture.
    pub role: Role,
    /// What it is called.
    pub name: &'a str,
    /// What light there is on it.
    pub light: RegionLight,
    /// When what EV was read, and whether by a stand-in.
    pub readings: Vec<(Timestamp, f64, bool)>,
}

/// Within so many stops all three can be held in one exposure without much flash.
pub const CLOSE_STOPS: f64 = 2.0;
/// With what lies behind so many stops over it, the subject is black.
pub const SILHOUETTE_STOPS: f64 = 3.0;

/// The heights at which one kind of light gives way to the next, and the name of the one above each.
const SPELLS: [(f64, &str); 5] =
    [(-18.0, "Last trace"), (-12.0, "Deep twilight"), (-6.0, "Twilight"), (RISE_DEG, "Low sun"), (6.0, "Sun up")];
const NIGHT: &str = "Night";

fn minutes(of: f64) -> SignedDuration {
    #[expect(clippy::cast_possible_truncation, reason = "milliseconds of a day")]
    SignedDuration::from_millis((of * 60_000.0).round() as i64)
}

/// A day's strip, at steps of so many minutes (1 to 60).
///
/// # Errors
/// A day that is none.
pub fn day_strip(
    scene: &SceneLight,
    date: &str,
    lanes: &[Lane<'_>],
    step_min: f64,
    simulated: bool,
) -> Result<DayStrip, WrongTime> {
    let (begin, end) = day(date, &scene.zone)?;
    let long = minutes_between(begin, end);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most 1500")]
    let steps = (long / step_min).ceil() as u32;
    let minute: Vec<f64> = (0..=steps).map(|step| (f64::from(step) * step_min).min(long)).collect();
    let track = scene.spot.track(begin, end);
    let light = |at: Timestamp| scene.under(track.sun(at), at);
    let lights: Vec<LightNow> = minute.iter().map(|at| light(begin + minutes(*at))).collect();
    let ev = |role: Role| -> Vec<f64> {
        let lane = lanes.iter().find(|lane| lane.role == role);
        let of = |now: &LightNow| lane.map_or(now.of(role), |lane| lane.light.all(Some(now))).0;
        lights.iter().map(|now| hundredths(of(now))).collect()
    };
    let (lit, shadow, behind) = (ev(Role::LitSide), ev(Role::ShadowSide), ev(Role::Behind));
    let stretches = |of: &dyn Fn(f64, f64, f64) -> bool| {
        let is: Vec<bool> = (0..minute.len()).map(|i| of(lit[i], shadow[i], behind[i])).collect();
        runs(&is)
            .into_iter()
            .map(|(from, to)| stretch(scene, begin, minute[from], minute[to]))
            .filter(|stretch| stretch.to_minute > stretch.from_minute)
            .collect()
    };
    let close =
        stretches(&|lit, shadow, behind| lit.max(shadow).max(behind) - lit.min(shadow).min(behind) <= CLOSE_STOPS);
    let silhouette = stretches(&|lit, shadow, behind| behind - lit.max(shadow) >= SILHOUETTE_STOPS);
    let (events, spells) = events(scene, &track, begin, end, &minute, &lights);
    let says = says(&events, lights.iter().any(|now| now.sun.is_up()));
    let readings = lanes.iter().flat_map(|lane| {
        let on_day = lane.readings.iter().filter(|(at, ..)| (begin..end).contains(at));
        on_day.map(|(at, ev100, simulated)| ReadingOnStrip {
            role: lane.role,
            minute: minutes_between(begin, *at),
            ev100: *ev100,
            says: format!(
                "{} EV {ev100:.1} {} {}",
                lane.name,
                if *simulated { "simulated at" } else { "at" },
                clock(&scene.zone, *at)
            ),
            simulated: *simulated,
        })
    });
    Ok(DayStrip {
        date: date.to_owned(),
        minutes: long,
        altitude_deg: lights.iter().map(|now| hundredths(now.sun.apparent_altitude_deg)).collect(),
        azimuth_deg: lights.iter().map(|now| hundredths(now.sun.azimuth_deg)).collect(),
        cloud_eighths: lights.iter().map(|now| hundredths(now.cloud_eighths)).collect(),
        readings: readings.collect(),
        hours: (0..=8)
            .map(|third| (f64::from(third) * 180.0).min(long))
            .map(|at| HourMark { minute: at, clock: clock(&scene.zone, begin + minutes(at)) })
            .collect(),
        minute,
        lit_ev100: lit,
        shadow_ev100: shadow,
        behind_ev100: behind,
        events,
        spells,
        close,
        silhouette,
        simulated,
        says,
    })
}

fn hundredths(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

/// The first and last index of each run of what is so.
fn runs(is: &[bool]) -> Vec<(usize, usize)> {
    let mut all: Vec<(usize, usize)> = Vec::new();
    for (index, _) in is.iter().enumerate().filter(|(_, is)| **is) {
        match all.last_mut() {
            Some((_, last)) if *last + 1 == index => *last = index,
            _ => all.push((index, index)),
        }
    }
    all
}

fn stretch(scene: &SceneLight, begin: Timestamp, from_minute: f64, to_minute: f64) -> Stretch {
    let at = |minute: f64| clock(&scene.zone, begin + minutes(minute));
    let says = if to_minute - from_minute >= 1380.0 {
        "all day".to_owned()
    } else {
        format!("{} to {}", at(from_minute), at(to_minute))
    };
    Stretch { from_minute, to_minute, says }
}

fn events(
    scene: &SceneLight,
    track: &SunTrack,
    begin: Timestamp,
    end: Timestamp,
    minute: &[f64],
    lights: &[LightNow],
) -> (Vec<DayEvent>, Vec<Spell>) {
    use SunEvent as E;
    let mut found: Vec<(Timestamp, E, String)> = Vec::new();
    let mut bounds: Vec<Timestamp> = vec![begin];
    for (height, up, down) in [
        (-18.0, Some((E::AstronomicalDawn, "First trace of light")), Some((E::AstronomicalDusk, "Night begins"))),
        (-12.0, Some((E::NauticalDawn, "Nautical dawn")), Some((E::NauticalDusk, "Nautical dusk"))),
        (-6.0, Some((E::CivilDawn, "Civil dawn")), Some((E::CivilDusk, "Civil dusk"))),
        (RISE_DEG, Some((E::Sunrise, "Sunrise")), Some((E::Sunset, "Sunset"))),
        (6.0, None, None),
    ] {
        let (rises, sets) = track.crossings(height);
        bounds.extend(rises.iter().chain(&sets));
        for (instants, event) in [(rises, up), (sets, down)] {
            if let Some((event, says)) = event {
                found.extend(instants.into_iter().map(|at| (at, event, says.to_owned())));
            }
        }
    }
    if let Some(transit) = scene.spot.times(begin, end).transit {
        found.push((transit, E::Transit, "Sun over the meridian".to_owned()));
    }
    for pair in minute.windows(2).zip(lights.windows(2)) {
        let ([from, to], [before, after]) = pair else { continue };
        if before.sun_shows == after.sun_shows {
            continue;
        }
        let (from, to) = (begin + minutes(*from), begin + minutes(*to));
        let at = when(from, to, |at| scene.shows(track.sun(at)) == before.sun_shows);
        // A level horizon has its own names; what stands in the way is what is left.
        let Some(name) = in_the_way(scene, track, at) else { continue };
        let (event, says) = if after.sun_shows {
            (E::ComesOut, format!("Sun comes out from behind {name}"))
        } else {
            (E::GoesBehind, format!("Sun goes behind {name}"))
        };
        found.push((at, event, says));
    }
    found.sort_by_key(|(at, ..)| *at);
    bounds.push(end);
    bounds.sort();
    bounds.dedup();
    let mut spells: Vec<Spell> = Vec::new();
    for pair in bounds.windows(2) {
        let [from, to] = pair else { continue };
        let middle = *from + (*to - *from) / 2;
        let name = spell_of(track.sun(middle));
        let (from_minute, to_minute) = (minutes_between(begin, *from), minutes_between(begin, *to));
        let said = stretch(scene, begin, from_minute, to_minute).says;
        let says = format!("{said}, {}", span_label(to_minute - from_minute));
        spells.push(Spell { name: name.to_owned(), from_minute, to_minute, says });
    }
    let event = |(at, event, says): (Timestamp, SunEvent, String)| DayEvent {
        event,
        minute: minutes_between(begin, at),
        utc: at.to_string(),
        clock: clock(&scene.zone, at),
        says,
    };
    (found.into_iter().map(event).collect(), spells)
}

/// The kind of light a sun at that height gives.
fn spell_of(sun: Sun) -> &'static str {
    SPELLS.iter().rev().find(|(above, _)| sun.true_altitude_deg >= *above).map_or(NIGHT, |spell| spell.1)
}

/// What the sun comes out from behind or goes behind at an instant, by its name; nothing at a level horizon.
fn in_the_way(scene: &SceneLight, track: &SunTrack, at: Timestamp) -> Option<String> {
    let near = [at - SignedDuration::from_secs(2), at, at + SignedDuration::from_secs(2)];
    let name = near.iter().find_map(|at| scene.skyline().at(track.sun(*at).azimuth_deg).map(|(_, name)| name))?;
    Some(if name.is_empty() { "what stands in the way".to_owned() } else { name.to_owned() })
}

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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ambient::LocalTime;
    use crate::ambient::{AngleHeight, Obstacle, ObstacleHeight, Scene, Site};
    use rstest::rstest;

    fn scene(latitude_deg: f64, longitude_deg: f64, time_zone: &str, date: &str) -> Scene {
        let site = Site {
            name: String::new(),
            latitude_deg,
            longitude_deg,
            elevation_m: 0.0,
            time_zone: time_zone.to_owned(),
        };
        let at = LocalTime { date: date.to_owned(), time: "18:00".to_owned(), second_time: false };
        Scene { facing_deg: 90.0, ..Scene::new(site, at) }
    }

    fn strip(scene: &Scene) -> DayStrip {
        let light = SceneLight::new(scene).expect("a good scene");
        day_strip(&light, &scene.at.date, &[], 5.0, false).expect("a day")
    }

    #[test]
    fn a_late_summer_day_by_the_sea() {
        let strip = strip(&scene(60.47, 26.95, "Europe/Helsinki", "2026-08-29"));
        let clock = |event| strip.events.iter().find(|one| one.event == event).map(|one| one.clock.clone());
        // pvlib 0.16.1, `sun_rise_set_transit_spa`, for 60.47° N 26.95° E on 2026-08-29: 05:58 and 20:26.
        assert_eq!(clock(SunEvent::Sunrise).as_deref(), Some("05:58"));
        assert_eq!(clock(SunEvent::Sunset).as_deref(), Some("20:26"));
        let names: Vec<&str> = strip.spells.iter().map(|spell| spell.name.as_str()).collect();
        assert_eq!(&names[names.len() - 4..], ["Twilight", "Deep twilight", "Last trace", "Night"]);
        assert!(strip.spells.windows(2).all(|pair| (pair[0].to_minute - pair[1].from_minute).abs() < 1e-9));
        assert!((strip.spells.last().expect("spells").to_minute - 1440.0).abs() < 1e-9);
        assert_eq!((strip.minute.len(), strip.lit_ev100.len()), (289, 289));
    }

    #[test]
    fn a_hill_ends_the_sun_early() {
        let mut scene = scene(60.47, 26.95, "Europe/Helsinki", "2026-08-29");
        let height = ObstacleHeight::Angle(AngleHeight { altitude_deg: 8.0 });
        scene.horizon = vec![Obstacle { name: "Hill".to_owned(), from_deg: 240.0, to_deg: 320.0, height }];
        let strip = strip(&scene);
        let goes = strip.events.iter().find(|one| one.event == SunEvent::GoesBehind).expect("it goes behind");
        let light = SceneLight::new(&scene).expect("a good scene");
        let sun = light.spot.sun(goes.utc.parse().expect("an instant"));
        assert!((sun.apparent_altitude_deg - 8.0).abs() < 0.01, "{goes:?} {sun:?}");
        let turn = Ahead::of(&light, light.at).next_turn().expect("it ends");
        assert_eq!((turn.behind.as_deref(), &turn.at.to_string()[..16]), (Some("Hill"), &goes.utc[..16]));
        assert_eq!(goes.says, "Sun goes behind Hill");
    }

    #[rstest]
    #[case(78.2, 15.6, "Arctic/Longyearbyen", "2026-06-21", "does not set")]
    #[case(78.2, 15.6, "Arctic/Longyearbyen", "2026-12-21", "does not rise")]
    #[case(-90.0, 0.0, "Antarctica/McMurdo", "2026-06-21", "does not rise")]
    #[case(1.87, -157.4, "Pacific/Kiritimati", "2026-03-20", "rises at")]
    #[case(-31.55, 159.08, "Australia/Lord_Howe", "2026-04-05", "sets at")]
    fn anywhere_on_the_globe_answers(
        #[case] latitude: f64,
        #[case] longitude: f64,
        #[case] zone: &str,
        #[case] date: &str,
        #[case] says: &str,
    ) {
        let strip = strip(&scene(latitude, longitude, zone, date));
        assert!(strip.says.contains(says), "{}", strip.says);
        assert!(strip.lit_ev100.iter().all(|ev| ev.is_finite()));
    }

    #[test]
    fn the_sun_comes_out_again_beside_a_tower() {
        let mut scene = scene(60.47, 26.95, "Europe/Helsinki", "2026-08-29");
        let height = ObstacleHeight::Angle(AngleHeight { altitude_deg: 20.0 });
        scene.horizon = vec![Obstacle { name: "the tower".to_owned(), from_deg: 262.0, to_deg: 270.0, height }];
        let strip = strip(&scene);
        let said: Vec<&str> = strip.events.iter().map(|event| event.says.as_str()).collect();
        let goes = said.iter().position(|says| *says == "Sun goes behind the tower").expect("it goes");
        assert_eq!(said[goes + 1], "Sun comes out from behind the tower");
    }

    #[test]
    fn back_to_a_low_sun_the_sky_makes_a_silhouette() {
        let mut scene = scene(60.47, 26.95, "Europe/Helsinki", "2026-08-29");
        scene.behind.what = crate::ambient::BehindWhat::Sky;
        let after_sunset = |stretch: &Stretch| stretch.to_minute > 20.0 * 60.0 + 40.0;
        let strip = strip(&scene);
        assert!(strip.silhouette.iter().any(after_sunset), "{:?}", strip.silhouette);
        assert!(strip.close.iter().all(|stretch| stretch.from_minute < stretch.to_minute));
    }
}
