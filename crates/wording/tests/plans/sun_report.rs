//! Where the sun stands at the setup's hour, in words, and the day around it.

use super::*;
use tolva_core::ambient::{
    Artificial, Background, BackgroundKind, OpenShade, Scene, Site, SteadyCloud, Surroundings, TypicalLight, Weather,
};
use tolva_core::time::LocalTime;
use tolva_planner::hour::at_minute;
use tolva_wording::{Caution, SunReport, day_of};

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

fn here_of(time: &str, change: impl Fn(&mut Scene)) -> (SunReport, Vec<Caution>) {
    let (setup, kit) = setup(time, change);
    let plan = plan(&setup, &kit, Show::default()).expect("a plan");
    (plan.sun_report.expect("a scene"), plan.cautions)
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
    assert_eq!(here.phase, "Sun up until 19:29, 3 min left");
}

/// A cloud takes one to two stops (common practice): from a face the sun lights at a slant, by the model.
#[rstest]
#[case("10:00", 160.0)]
#[case("16:00", 230.0)]
fn what_a_cloud_takes(#[case] time: &str, #[case] facing: f64) {
    let (setup, kit) = setup(time, |scene| scene.facing_deg = facing);
    let checked = Prepared::new(&setup, &kit).expect("good");
    let scene = checked.scene.as_ref().expect("a scene");
    let takes = scene.now.lit - scene.light.with_sun_hidden(&scene.now).lit;
    assert!((1.5..2.7).contains(&takes.0), "a clear day: {takes:?}");
    let half_clouded = {
        let mut setup = setup.clone();
        let cloud_eighths = 4.0;
        setup.scene.as_mut().expect("a scene").weather = Weather::Steady(SteadyCloud { cloud_eighths });
        let checked = Prepared::new(&setup, &kit).expect("good");
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
    scene.background = Background { what: BackgroundKind::Upright, sunlit_percent: 18.0 };
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
        scene.surroundings = Surroundings::Artificial(Artificial { light: TypicalLight::SportsHall, mains_hz: 50.0 });
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
    let time = |to: f64| at_minute(&setup, &kit, Some(to), 0.0).expect("moved").scene.expect("a scene").at.time;
    // It is held to its day.
    assert_eq!([time(-20.0), time(600.4), time(1440.0), time(1500.0)], ["00:00", "10:00", "23:59", "23:59"]);
    let on = at_minute(&setup, &kit, None, 5.0).expect("moved").scene.expect("a scene").at.time;
    assert_eq!(on, "19:31");
    assert!(matches!(at_minute(&setup, &kit, Some(f64::NAN), 0.0), Err(Refused::OutOfRange { what: "minute", .. })));
    // On the day clocks go back, the minute after the first 03:59 is the second 03:00.
    let mut autumn = setup.clone();
    autumn.scene.as_mut().expect("a scene").at.date = "2026-10-25".to_owned();
    let at = |minute| at_minute(&autumn, &kit, Some(minute), 0.0).expect("moved").scene.expect("a scene").at;
    assert_eq!((at(239.0).time.as_str(), at(240.0).time.as_str(), at(240.0).second_time), ("03:59", "03:00", true));
}

#[test]
fn the_day_of_a_setup_carries_its_readings() {
    let (mut setup, kit) = setup("19:26", |_| {});
    let at = setup.scene.as_ref().map(|scene| scene.at.clone());
    let reading = tolva_core::exposure::Reading::Ev(tolva_core::exposure::EvReading { ev100: 12.6 });
    setup.regions[0].ambient.readings =
        vec![tolva_core::exposure::MeterReading { at, ..tolva_core::exposure::MeterReading::of(reading) }];
    let strip = day_of(&setup, &kit, 10.0).expect("a day");
    assert_eq!((strip.minute.len(), strip.readings.len()), (145, 1));
    assert!(strip.readings[0].says.contains("Behind EV 12.6 at 19:26"), "{:?}", strip.readings);
    // The lane goes through the reading.
    let there = strip.minute.iter().position(|minute| *minute > 1166.0).expect("that hour");
    assert!((strip.background_ev100[there] - 12.6).abs() < 0.2, "{}", strip.background_ev100[there]);
    assert!(matches!(day_of(&setup, &kit, 0.0), Err(Refused::OutOfRange { what: "step_min", .. })));
    setup.scene = None;
    assert_eq!(day_of(&setup, &kit, 5.0), Err(Refused::NoScene));
}
/// What the sun does on a day is told with what stands in the way by its name, and without one.
#[rstest]
#[case("the tower", "Sun goes behind the tower")]
#[case("", "Sun goes behind what stands in the way")]
fn what_the_sun_does_is_told(#[case] name: &str, #[case] says: &str) {
    let (setup, kit) = setup("18:00", |scene| {
        let height =
            tolva_core::ambient::ObstacleHeight::Angle(tolva_core::ambient::AngleHeight { altitude_deg: 20.0 });
        let tower = tolva_core::ambient::Obstacle { name: name.to_owned(), from_deg: 262.0, to_deg: 270.0, height };
        scene.horizon = vec![tower];
    });
    let strip = day_of(&setup, &kit, 5.0).expect("a day");
    let said: Vec<&str> = strip.events.iter().map(|event| event.says.as_str()).collect();
    let goes = said.iter().position(|one| *one == says).expect("it goes");
    assert_eq!(said[goes + 1], says.replace("goes behind", "comes out from behind"));
    assert!(strip.phases.iter().any(|spell| spell.name == "Deep twilight"), "{:?}", strip.phases);
}

#[rstest]
#[case(78.2, 15.6, "Arctic/Longyearbyen", "2026-06-21", "does not set")]
#[case(78.2, 15.6, "Arctic/Longyearbyen", "2026-12-21", "does not rise")]
#[case(-90.0, 0.0, "Antarctica/McMurdo", "2026-06-21", "does not rise")]
#[case(1.87, -157.4, "Pacific/Kiritimati", "2026-03-20", "rises at")]
#[case(-31.55, 159.08, "Australia/Lord_Howe", "2026-04-05", "sets at")]
fn anywhere_on_the_globe_answers(
    #[case] latitude_deg: f64,
    #[case] longitude_deg: f64,
    #[case] zone: &str,
    #[case] date: &str,
    #[case] says: &str,
) {
    let (setup, kit) = setup("18:00", |scene| {
        (scene.site.latitude_deg, scene.site.longitude_deg) = (latitude_deg, longitude_deg);
        zone.clone_into(&mut scene.site.time_zone);
        date.clone_into(&mut scene.at.date);
    });
    let strip = day_of(&setup, &kit, 5.0).expect("a day");
    assert!(strip.says.contains(says), "{}", strip.says);
    assert!(strip.lit_ev100.iter().all(|ev| ev.is_finite()));
}
