//! Where the sun stands at the setup's hour and what that does to the picture: put into words for the plan.

use serde::Serialize;
use utoipa::ToSchema;

use tolva_core::ambient::{Ahead, LightNow, NextTransition, Role, SunSide, bearing_apart, shadow_length_m, sun_side};
use tolva_core::scale::{LengthUnit, Metres, Stops};
use tolva_core::time::{clock, day, minutes_between, span_label};
use tolva_planner::day::{CLOSE_STOPS, SILHOUETTE_STOPS};
use tolva_planner::lighting::{Prepared, PreparedScene};

use crate::day::{phase, standing};
use crate::words::compass_point;

/// The scene at its hour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunReport {
    /// In a line: `Sun 9.4° up, sets 20:26, 1 h 06 min left`.
    pub says: String,
    /// Minutes from the midnight the day begins with.
    pub minute: f64,
    /// The hour in UTC.
    pub utc: String,
    /// The zone and what it is ahead of UTC by: `Europe/Helsinki, UTC+3`.
    pub zone: String,
    /// Whether clocks show this hour twice.
    pub comes_twice: bool,
    /// The sun's height over the horizon as it is seen, in degrees.
    pub sun_altitude_deg: f64,
    /// Its bearing.
    pub sun_azimuth_deg: f64,
    /// Whether it shows over what stands in the way.
    pub sun_shows: bool,
    /// Where it stands: `9.4° up, bearing 284°, west`.
    pub sun: String,
    /// What refraction does to its height: `lifted 0.1° by refraction`; null well below the horizon.
    pub refraction: Option<String>,
    /// The kind of light it is, and how long it lasts: `Low sun until 20:26, 1 h 00 min left`.
    pub phase: String,
    /// How its light reaches the subject: `From behind the camera, on the subject's left.`
    pub side: String,
    /// The shadow of a person of 1.8 m: `10.8 m long, falling east`; null where there is none.
    pub shadow: Option<String>,
    /// What a cloud before the sun takes, and what a quarter of an hour does.
    pub changes: Vec<String>,
    /// How the three lie to each other: `All three within two stops.`
    pub spread: String,
    /// How high something stands at each of 72 bearings, from north, in degrees.
    pub skyline_deg: Vec<f64>,
    /// The part of the sky left over the subject: `88 % of the sky`.
    pub sky: String,
    /// Whether there is daylight here.
    pub daylight: bool,
    /// The lit side at this hour, EV at ISO 100: where it stands on the day's line.
    pub lit_ev100: f64,
    /// The shadow side.
    pub shadow_ev100: f64,
    /// Behind.
    pub background_ev100: f64,
}

/// A person's height, for shadows.
const PERSON_M: f64 = 1.8;

pub(crate) fn sun_report(setup: &Prepared<'_>, scene: &PreparedScene<'_>, length: LengthUnit) -> SunReport {
    let (light, now) = (&scene.light, &scene.now);
    let sun = now.sun;
    let ahead = Ahead::of(light, light.at);
    let begin = day(&scene.scene.at.date, &light.zone).map_or(light.at, |(begin, _)| begin);
    let up = if sun.apparent_altitude_deg < 0.0 {
        format!("{}° under the horizon", tenths(-sun.apparent_altitude_deg))
    } else {
        format!("{}° up", tenths(sun.apparent_altitude_deg))
    };
    let there = |region: Option<usize>, role: Role| {
        region.map_or_else(|| now.of(role), |region| setup.light[region].all(Some(now))).0
    };
    let bearing = sun.azimuth_deg.round().rem_euclid(360.0);
    let shadow = shadow_length_m(sun, PERSON_M).filter(|_| now.sun_shows).map(|long| {
        let falls = compass_point(sun.azimuth_deg + 180.0);
        if long > 200.0 {
            format!("over 200 m long, falling {falls}")
        } else {
            format!("{} long, falling {falls}", Metres(long).label(length))
        }
    });
    SunReport {
        says: line(scene, &up, ahead.next_turn()),
        minute: minutes_between(begin, light.at),
        utc: light.at.to_string(),
        zone: zone_label(scene),
        comes_twice: scene.scene.at.comes_twice(&light.zone),
        sun_altitude_deg: sun.apparent_altitude_deg,
        sun_azimuth_deg: sun.azimuth_deg,
        sun_shows: now.sun_shows,
        sun: format!("{up}, bearing {bearing:.0}°, {}", compass_point(sun.azimuth_deg)),
        refraction: (sun.apparent_altitude_deg > sun.true_altitude_deg)
            .then(|| format!("lifted {:.2}° by refraction", sun.apparent_altitude_deg - sun.true_altitude_deg)),
        phase: phase_of(&ahead),
        side: side(scene),
        shadow,
        changes: if light.is_daylight() { changes(&ahead, now) } else { Vec::new() },
        spread: spread(setup),
        skyline_deg: (0..72).map(|step| light.skyline().height_deg(f64::from(step) * 5.0)).collect(),
        sky: format!("{:.0} % of the sky", light.sky_overhead() * 100.0),
        daylight: light.is_daylight(),
        lit_ev100: there(Some(setup.lit), Role::LitSide),
        shadow_ev100: there(setup.shadow, Role::ShadowSide),
        background_ev100: there(Some(setup.background), Role::Background),
    }
}

/// The phase of light there is, and when it gives way to the next: `Low sun until 20:26, 1 h 00 min left`.
fn phase_of(ahead: &Ahead<'_>) -> String {
    let (now, ends) = ahead.phase();
    let name = phase(now);
    match ends {
        Some(at) => {
            let left = span_label(minutes_between(ahead.scene.at, at));
            format!("{name} until {}, {left} left", clock(&ahead.scene.zone, at))
        }
        None => format!("{name}, for a day at least"),
    }
}

fn tenths(degrees: f64) -> String {
    format!("{degrees:.1}").replace('-', "−")
}

fn zone_label(scene: &PreparedScene<'_>) -> String {
    let seconds = scene.light.zone.to_offset(scene.light.at).seconds();
    let sign = if seconds < 0 { '−' } else { '+' };
    let (hours, minutes) = (seconds.abs() / 3600, seconds.abs() % 3600 / 60);
    let minutes = if minutes == 0 { String::new() } else { format!(":{minutes:02}") };
    format!("{}, UTC{sign}{hours}{minutes}", scene.scene.site.time_zone)
}

fn line(scene: &PreparedScene<'_>, up: &str, turn: Option<NextTransition>) -> String {
    let light = &scene.light;
    let left = |turn: &NextTransition| span_label(minutes_between(light.at, turn.at));
    match (scene.now.sun_shows, turn) {
        (true, Some(turn)) => {
            let ends =
                turn.hidden_by.as_ref().map_or_else(|| "sets".to_owned(), |name| format!("behind {}", standing(name)));
            format!("Sun {up}, {ends} {}, {} left", clock(&light.zone, turn.at), left(&turn))
        }
        (true, None) => format!("Sun {up}, does not set today"),
        (false, Some(turn)) => {
            let comes = if turn.hidden_by.is_some() { "comes out" } else { "rises" };
            let hidden = if scene.now.sun.is_up() { ", hidden" } else { "" };
            format!("Sun {up}{hidden}, {comes} {}, in {}", clock(&light.zone, turn.at), left(&turn))
        }
        (false, None) => format!("Sun {up}, does not come today"),
    }
}

fn side(scene: &PreparedScene<'_>) -> String {
    let facing = scene.scene.facing_deg;
    let sun = scene.now.sun;
    if !scene.light.is_daylight() {
        return "Lamps light the subject, not the sun.".to_owned();
    }
    if !sun.is_up() {
        return "The sun is down: what is left comes from the sky.".to_owned();
    }
    // Seen from the subject, what lies clockwise of where it faces is on its right.
    let hand = if bearing_apart(sun.azimuth_deg, facing) > 0.0 { "right" } else { "left" };
    let hidden = if scene.now.sun_shows { "" } else { " It is hidden." };
    let stands = match sun_side(sun, facing) {
        SunSide::InFront => format!("The sun is before the subject, on its {hand}, behind the camera."),
        SunSide::Beside => format!("The sun is beside the subject, on its {hand}."),
        SunSide::Background => format!("The sun is behind the subject, over its {hand} shoulder, before the lens."),
    };
    format!("{stands}{hidden}")
}

fn changes(ahead: &Ahead<'_>, now: &LightNow) -> Vec<String> {
    let light = ahead.scene;
    let mut all = Vec::new();
    let clouded = light.with_sun_hidden(now).lit - now.lit;
    if now.sun_shows && clouded.0 < -0.1 {
        all.push(format!("A cloud over the sun takes {} from the lit side.", clouded.amount()));
    }
    let later = ahead.light_at(light.at + jiff::SignedDuration::from_mins(15));
    let by = |stops: Stops| stops.to_third().as_given();
    all.push(format!(
        "In 15 min: lit side {}, shadow side {}, behind {}.",
        by(later.lit - now.lit),
        by(later.shadow - now.shadow),
        by(later.background - now.background)
    ));
    all
}

/// How the regions lie to each other, by what is known of them.
fn spread(setup: &Prepared<'_>) -> String {
    let all = setup.ambient.iter().map(|ev| ev.0);
    let most = Stops(all.clone().fold(f64::MIN, f64::max) - all.fold(f64::MAX, f64::min));
    let over = setup.ambient[setup.background] - setup.ambient[setup.lit];
    if over.0 >= SILHOUETTE_STOPS {
        format!("Behind lies {} over the subject: a silhouette without flash.", over.amount())
    } else if most.0 <= CLOSE_STOPS {
        "All lie within two stops of each other.".to_owned()
    } else {
        format!("Brightest and darkest lie {} apart.", most.amount())
    }
}
