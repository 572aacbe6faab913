//! Where the sun stands at the setup's hour and what that does to the picture: put into words for the plan.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::job::{CheckedScene, CheckedSetup, Kit, Problems, Setup};
use tolva_core::ambient::{
    Ahead, CLOSE_STOPS, DayStrip, Lane, LightNow, NextTurn, SILHOUETTE_STOPS, SunSide, bearing_apart, clock,
    compass_point, day, day_strip, minutes_between, shadow_length_m, span_label, sun_side,
};
use tolva_core::scale::{LengthUnit, Metres, Stops};

/// The scene at its hour.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Here {
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
    pub spell: String,
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
}

/// A person's height, for shadows.
const PERSON_M: f64 = 1.8;
pub(super) fn here(setup: &CheckedSetup<'_>, scene: &CheckedScene<'_>, length: LengthUnit) -> Here {
    let (light, now) = (&scene.light, &scene.now);
    let sun = now.sun;
    let ahead = Ahead::of(light, light.at);
    let begin = day(&scene.scene.at.date, &light.zone).map_or(light.at, |(begin, _)| begin);
    let up = if sun.apparent_altitude_deg < 0.0 {
        format!("{}° under the horizon", tenths(-sun.apparent_altitude_deg))
    } else {
        format!("{}° up", tenths(sun.apparent_altitude_deg))
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
    Here {
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
        spell: ahead.spell(),
        side: side(scene),
        shadow,
        changes: if light.is_daylight() { changes(&ahead, now) } else { Vec::new() },
        spread: spread(setup),
        skyline_deg: (0..72).map(|step| light.skyline().height_deg(f64::from(step) * 5.0)).collect(),
        sky: format!("{:.0} % of the sky", light.sky_overhead() * 100.0),
        daylight: light.is_daylight(),
    }
}

fn tenths(degrees: f64) -> String {
    format!("{degrees:.1}").replace('-', "−")
}

fn zone_label(scene: &CheckedScene<'_>) -> String {
    let seconds = scene.light.zone.to_offset(scene.light.at).seconds();
    let sign = if seconds < 0 { '−' } else { '+' };
    let (hours, minutes) = (seconds.abs() / 3600, seconds.abs() % 3600 / 60);
    let minutes = if minutes == 0 { String::new() } else { format!(":{minutes:02}") };
    format!("{}, UTC{sign}{hours}{minutes}", scene.scene.site.time_zone)
}

fn line(scene: &CheckedScene<'_>, up: &str, turn: Option<NextTurn>) -> String {
    let light = &scene.light;
    let left = |turn: &NextTurn| span_label(minutes_between(light.at, turn.at));
    match (scene.now.sun_shows, turn) {
        (true, Some(turn)) => {
            let ends = turn.behind.as_ref().map_or_else(|| "sets".to_owned(), |name| format!("behind {name}"));
            format!("Sun {up}, {ends} {}, {} left", clock(&light.zone, turn.at), left(&turn))
        }
        (true, None) => format!("Sun {up}, does not set today"),
        (false, Some(turn)) => {
            let comes = if turn.behind.is_some() { "comes out" } else { "rises" };
            let hidden = if scene.now.sun.is_up() { ", hidden" } else { "" };
            format!("Sun {up}{hidden}, {comes} {}, in {}", clock(&light.zone, turn.at), left(&turn))
        }
        (false, None) => format!("Sun {up}, does not come today"),
    }
}

fn side(scene: &CheckedScene<'_>) -> String {
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
        SunSide::Behind => format!("The sun is behind the subject, over its {hand} shoulder, before the lens."),
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
        by(later.behind - now.behind)
    ));
    all
}

/// How the regions lie to each other, by what is known of them.
fn spread(setup: &CheckedSetup<'_>) -> String {
    let all = setup.ambient.iter().map(|ev| ev.0);
    let most = Stops(all.clone().fold(f64::MIN, f64::max) - all.fold(f64::MAX, f64::min));
    let over = setup.ambient[setup.behind] - setup.ambient[setup.lit];
    if over.0 >= SILHOUETTE_STOPS {
        format!("Behind lies {} over the subject: a silhouette without flash.", over.amount())
    } else if most.0 <= CLOSE_STOPS {
        "All lie within two stops of each other.".to_owned()
    } else {
        format!("Brightest and darkest lie {} apart.", most.amount())
    }
}

/// The day of a setup: its three lights from midnight to midnight, at steps of so many minutes, 1 to 60.
///
/// # Errors
/// Everything that is wrong with the kit or the setup; `/setup/scene` where it has no place and hour, and `/step_min`.
pub fn day_of(setup: &Setup, kit: &Kit, step_min: f64) -> Result<DayStrip, Problems> {
    if !(1.0..=60.0).contains(&step_min) {
        return Err(Problems::one("/step_min", format!("{step_min} is not allowed here: it must be from 1 to 60 min")));
    }
    let checked = CheckedSetup::new(setup, kit)?;
    let Some(scene) = &checked.scene else {
        return Err(Problems::one("/setup/scene", "a day's light needs a place and an hour: give them first"));
    };
    let lanes = setup.regions.iter().zip(&checked.light).map(|(region, light)| {
        let readings = region.ambient.readings.iter().filter_map(|taken| {
            let at = taken.at.as_ref()?.instant(&scene.light.zone).ok()?;
            Some((at, taken.ev100().0, taken.simulated))
        });
        Lane { role: region.role, name: &region.name, light: *light, readings: readings.collect() }
    });
    let lanes: Vec<Lane<'_>> = lanes.collect();
    day_strip(&scene.light, &scene.scene.at.date, &lanes, step_min, scene.scene.weather.is_simulated())
        .map_err(|wrong| Problems::one(format!("/setup/scene/at/{}", wrong.field()), wrong.to_string()))
}

/// The setup at another minute of its day, counted from midnight: what dragging along the day strip does.
///
/// # Errors
/// Everything that is wrong with the setup, and a minute that lies outside its day.
pub fn at_minute(setup: &Setup, kit: &Kit, minute: f64) -> Result<Setup, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let Some(scene) = &checked.scene else {
        return Err(Problems::one("/setup/scene", "an hour needs a place: give it first"));
    };
    let (begin, end) = day(&scene.scene.at.date, &scene.light.zone)
        .map_err(|wrong| Problems::one("/setup/scene/at/date", wrong.to_string()))?;
    let long = minutes_between(begin, end);
    if !(0.0..=long).contains(&minute) {
        return Err(Problems::one("/minute", format!("{minute} is not allowed here: it must be from 0 to {long} min")));
    }
    #[expect(clippy::cast_possible_truncation, reason = "minutes of a day")]
    let to = begin + jiff::SignedDuration::from_mins((minute.min(long - 1.0)).round() as i64);
    let mut moved = setup.clone();
    if let Some(there) = &mut moved.scene {
        there.at = tolva_core::ambient::LocalTime::of(to, &scene.light.zone);
    }
    Ok(moved)
}

#[cfg(test)]
mod tests {
    use super::super::{Caution, Show, plan};
    use super::*;
    use crate::job::{Artificial, Behind, BehindWhat, OpenShade, Scene, Site, Surroundings, Weather};
    use rstest::rstest;
    use tolva_core::ambient::{LocalTime, TypicalLight};

    fn setup(time: &str, change: impl Fn(&mut Scene)) -> (Setup, Kit) {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        let site = Site {
            name: "Harbour".to_owned(),
            latitude_deg: 60.47,
            longitude_deg: 26.95,
            elevation_m: 3.0,
            time_zone: "Europe/Helsinki".to_owned(),
        };
        let at = LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false };
        let mut scene = Scene::new(site, at);
        change(&mut scene);
        setup.scene = Some(scene);
        (setup, kit)
    }

    fn here_of(time: &str, change: impl Fn(&mut Scene)) -> (Here, Vec<Caution>) {
        let (setup, kit) = setup(time, change);
        let plan = plan(&setup, &kit, Show::default()).expect("a plan");
        (plan.here.expect("a scene"), plan.cautions)
    }

    #[test]
    fn an_hour_before_sunset() {
        let (here, _) = here_of("19:26", |scene| scene.facing_deg = 200.0);
        assert_eq!(here.zone, "Europe/Helsinki, UTC+3");
        assert!(here.says.contains("sets 20:26, 1 h 00 min left"), "{}", here.says);
        assert!(here.side.contains("beside the subject, on its right"), "{} {}", here.side, here.sun);
        assert!(here.shadow.as_deref().is_some_and(|shadow| shadow.ends_with("falling east")), "{:?}", here.shadow);
        assert!((here.minute - (19.0 * 60.0 + 26.0)).abs() < 1e-9 && here.daylight && !here.comes_twice);
        assert_eq!(here.changes.len(), 2);
        assert_eq!(here.spell, "Sun up until 19:29, 3 min left");
    }

    /// A cloud takes one to two stops (common practice): from a face the sun lights at a slant, by the model.
    #[rstest]
    #[case("10:00", 160.0)]
    #[case("16:00", 230.0)]
    fn what_a_cloud_takes(#[case] time: &str, #[case] facing: f64) {
        let (setup, kit) = setup(time, |scene| scene.facing_deg = facing);
        let checked = CheckedSetup::new(&setup, &kit).expect("good");
        let scene = checked.scene.as_ref().expect("a scene");
        let takes = scene.now.lit - scene.light.with_sun_hidden(&scene.now).lit;
        assert!((1.5..2.7).contains(&takes.0), "a clear day: {takes:?}");
        let half_clouded = {
            let mut setup = setup.clone();
            let cloud_eighths = 4.0;
            setup.scene.as_mut().expect("a scene").weather = Weather::Steady(crate::job::SteadyCloud { cloud_eighths });
            let checked = CheckedSetup::new(&setup, &kit).expect("good");
            let scene = checked.scene.as_ref().expect("a scene");
            (scene.now.lit - scene.light.with_sun_hidden(&scene.now).lit).0
        };
        assert!((1.0..2.0).contains(&half_clouded), "a day of cloud and sun: {half_clouded}");
    }

    #[rstest]
    #[case("03:00", 180.0, "under the horizon", "is down")]
    #[case("13:10", 180.0, "sets 20:26", "before the subject")]
    #[case("13:10", 0.0, "sets 20:26", "behind the subject")]
    fn words_for_the_hour(#[case] time: &str, #[case] facing: f64, #[case] says: &str, #[case] side: &str) {
        let (here, _) = here_of(time, |scene| scene.facing_deg = facing);
        assert!(here.says.contains(says) && here.side.contains(side), "{} {}", here.says, here.side);
    }

    #[rstest]
    #[case::lens(|scene: &mut Scene| scene.facing_deg = 90.0, "Sun and lens", "optical finder")]
    #[case::eyes(|scene: &mut Scene| scene.facing_deg = 270.0, "Sun in the eyes", "look into it")]
    #[case::shade(|scene: &mut Scene| scene.surroundings = Surroundings::OpenShade(OpenShade { sky_percent: 40.0 }), "Not open shade", "40 %")]
    #[case::trees(|scene: &mut Scene| scene.surroundings = Surroundings::Trees, "Colour must be measured", "measure")]
    #[case::edge(|scene: &mut Scene| {
        scene.surroundings = Surroundings::Awning;
        scene.behind = Behind { what: BehindWhat::Upright, sunlit_percent: 18.0 };
    }, "On the edge", "18 %")]
    fn what_to_mind(#[case] change: fn(&mut Scene), #[case] heading: &str, #[case] says: &str) {
        let (_, cautions) = here_of("19:00", change);
        let found = cautions.iter().find(|caution| caution.heading == heading);
        assert!(found.is_some_and(|caution| caution.says.contains(says)), "{cautions:?}");
    }

    #[test]
    fn lamps_are_not_the_sun() {
        let (here, _) = here_of("13:10", |scene| {
            scene.surroundings = Surroundings::Artificial(Artificial { light: TypicalLight::Stage, mains_hz: 60.0 });
        });
        assert!(here.side.starts_with("Lamps") && !here.daylight && here.changes.is_empty(), "{here:?}");
    }

    #[test]
    fn lamps_flicker_in_short_times() {
        let (setup, kit) = setup("19:00", |scene| {
            scene.surroundings =
                Surroundings::Artificial(Artificial { light: TypicalLight::SportsHall, mains_hz: 50.0 });
        });
        let warned = |shutter_s: f64| {
            let mut setup = setup.clone();
            setup.fixed.shutter_s = Some(shutter_s);
            let plan = plan(&setup, &kit, Show::default()).expect("a plan");
            plan.cautions.iter().any(|caution| caution.heading == "Flicker" && caution.says.contains("1/100 or slower"))
        };
        assert!(warned(1.0 / 200.0) && !warned(1.0 / 60.0));
    }

    #[test]
    fn the_hour_is_moved_along_the_day() {
        let (setup, kit) = setup("19:26", |_| {});
        let time = |minute: f64| at_minute(&setup, &kit, minute).expect("moved").scene.expect("a scene").at.time;
        assert_eq!([time(0.0), time(600.4), time(1440.0)], ["00:00", "10:00", "23:59"]);
        assert_eq!(at_minute(&setup, &kit, 1500.0).expect_err("outside").0[0].pointer, "/minute");
        // On the day clocks go back, the minute after the first 03:59 is the second 03:00.
        let mut autumn = setup.clone();
        autumn.scene.as_mut().expect("a scene").at.date = "2026-10-25".to_owned();
        let at = |minute| at_minute(&autumn, &kit, minute).expect("moved").scene.expect("a scene").at;
        assert_eq!((at(239.0).time.as_str(), at(240.0).time.as_str(), at(240.0).second_time), ("03:59", "03:00", true));
    }

    #[test]
    fn the_day_of_a_setup_carries_its_readings() {
        let (mut setup, kit) = setup("19:26", |_| {});
        let at = setup.scene.as_ref().map(|scene| scene.at.clone());
        let reading = tolva_core::exposure::Reading::Ev(tolva_core::exposure::EvReading { ev100: 12.6 });
        setup.regions[0].ambient.readings =
            vec![tolva_core::exposure::Taken { at, ..tolva_core::exposure::Taken::of(reading) }];
        let strip = day_of(&setup, &kit, 10.0).expect("a day");
        assert_eq!((strip.minute.len(), strip.readings.len()), (145, 1));
        assert!(strip.readings[0].says.contains("Behind EV 12.6 at 19:26"), "{:?}", strip.readings);
        // The lane goes through the reading.
        let there = strip.minute.iter().position(|minute| *minute > 1166.0).expect("that hour");
        assert!((strip.behind_ev100[there] - 12.6).abs() < 0.2, "{}", strip.behind_ev100[there]);
        assert_eq!(day_of(&setup, &kit, 0.0).expect_err("no step").0[0].pointer, "/step_min");
        setup.scene = None;
        assert_eq!(day_of(&setup, &kit, 5.0).expect_err("no scene").0[0].pointer, "/setup/scene");
    }
}
