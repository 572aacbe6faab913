//! Falling light: the timetable keeps the wish, in the chosen order, to the last usable minute.

use jiff::Timestamp;

use super::*;
use tolva_core::ambient::{BackgroundKind, Scene, Site};
use tolva_core::exposure::MeterReading;
use tolva_core::scale::parse_shutter;
use tolva_core::time::LocalTime;

/// A keeper in a doorway by a northern harbour, late August, the sea and sky behind.
pub fn doorway(time: &str) -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup::new("doorway", &kit);
    let site = Site {
        name: "Harbour".to_owned(),
        latitude_deg: 60.47,
        longitude_deg: 26.95,
        elevation_m: 3.0,
        time_zone: "Europe/Helsinki".to_owned(),
    };
    let hour = |time: &str| LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false };
    let mut scene = Scene { facing_deg: 120.0, ..Scene::new(site, hour(time)) };
    scene.background.what = BackgroundKind::Sky;
    setup.scene = Some(scene);
    for (region, ev100) in setup.regions.iter_mut().zip([12.6, 11.3, 10.3]) {
        let taken = MeterReading { at: Some(hour("19:26")), ..MeterReading::of(Reading::Ev(EvReading { ev100 })) };
        region.ambient = Ambient { readings: vec![taken], ..Ambient::guessed(ev100) };
    }
    setup.blend = Blend::Lift { subject_stops: 0.0, background_stops: -4.0 / 3.0 };
    setup.speed.slowest_shutter_s = Some(1.0 / 100.0);
    (setup, kit)
}

fn table(setup: &Setup, kit: &Kit) -> Timetable {
    timetable(setup, kit, Show::default()).expect("a timetable")
}

/// Every minute of every step: the wish is met within a third of a stop, by solving the setup anew at that minute with
/// the step's settings fixed.
#[test]
fn each_step_keeps_the_wish() {
    let (setup, kit) = doorway("19:26");
    let table = table(&setup, &kit);
    assert!(table.steps.len() > 4, "{}", table.says);
    for step in &table.steps {
        for (region, wish) in [(0, -4.0 / 3.0), (1, 0.0)] {
            let together = step.regions[region].together.stops.expect("light");
            let off: f64 = together - wish;
            // What lies behind gets no flash here, so its total is its ambient.
            assert!(off.abs() <= 1.0 / 3.0 + 1e-6, "{} {region}: {together}", step.clock);
        }
    }
    let minutes: Vec<f64> = table.steps.iter().map(|step| step.minute).collect();
    assert!(minutes.is_sorted() && minutes[0] == 0.0);
    for pair in table.steps.windows(2) {
        assert!((pair[0].minute + pair[0].holds_min - pair[1].minute).abs() < 1e-9);
        assert!(!pair[1].does.is_empty(), "{:?}", pair[1]);
    }
}

/// The shutter goes first, down to its floor; only then ISO rises, and the flash goes down by as much.
#[test]
fn the_shutter_goes_first_and_then_iso_with_the_flash() {
    let (setup, kit) = doorway("19:26");
    let table = table(&setup, &kit);
    let speed = |step: &FallingStep| parse_shutter(&step.shutter).expect("a shutter").position().0;
    let floor = parse_shutter("1/100").expect("a shutter").position().0;
    let first_iso = table.steps.iter().position(|step| step.iso != "ISO 100").expect("ISO rises in the end");
    assert!(table.steps[..first_iso].windows(2).all(|pair| speed(&pair[1]) <= speed(&pair[0]) + 1e-9));
    assert!(table.steps[first_iso..].iter().all(|step| (speed(step) - floor).abs() < 1e-9));
    assert!(table.steps[first_iso..].iter().all(|step| step.iso != "ISO 100"));
    let told = |part: &str| table.steps.iter().any(|step| step.notes.iter().any(|note| note.contains(part)));
    assert!(told("at its floor, 1/100"), "{table:?}");
    let last = table.last.as_ref().expect("it ends");
    assert!(last.says.contains("no longer worth waiting for"), "{last:?}");
    let sunset: Timestamp = "2026-08-29T17:26:00Z".parse().expect("an instant");
    assert!(last.utc.parse::<Timestamp>().expect("an instant") > sunset);
}

/// As few changes as possible: nothing that holds for a third of a stop is changed earlier, so two thirds of a stop pass
/// between changes of the shutter alone.
#[test]
fn changes_are_two_thirds_of_a_stop_apart() {
    let (mut setup, kit) = doorway("18:30");
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let table = table(&setup, &kit);
    let fell: f64 = {
        let ev = |step: &FallingStep| step.regions[1].ev.trim_start_matches("EV ").parse::<f64>().expect("an EV");
        ev(&table.steps[0]) - ev(table.steps.last().expect("steps"))
    };
    #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
    let changes = (table.steps.len() - 1) as f64;
    assert!(changes <= fell / (2.0 / 3.0) + 1.5, "{changes} changes for {fell} stops");
}

#[rstest]
#[case(FallingOrder::IsoFirst, "ISO")]
#[case(FallingOrder::ApertureFirst, "Aperture")]
#[case(FallingOrder::ShutterFirst, "Shutter")]
fn the_order_says_what_gives_way_first(#[case] order: FallingOrder, #[case] first: &str) {
    let (mut setup, kit) = doorway("19:26");
    setup.falling_order = order;
    setup.fixed.shutter_s = None;
    let table = table(&setup, &kit);
    let change = table
        .steps
        .iter()
        .skip(1)
        .flat_map(|step| &step.does)
        .find(|does| !does.starts_with('A') || does.starts_with("Ap"));
    assert!(change.is_some_and(|does| does.starts_with(first)), "{change:?}");
}

#[test]
fn a_flash_that_is_too_strong_is_moved_back() {
    let (mut setup, mut kit) = doorway("20:20");
    kit.flashes[1].power.lowest_stops = -5.0;
    setup.falling_order = FallingOrder::IsoFirst;
    let table = table(&setup, &kit);
    let told: Vec<&String> = table.steps.iter().flat_map(|step| &step.notes).collect();
    assert!(told.iter().any(|note| note.contains("lowest power")), "{table:#?}");
    let back = table.steps.iter().flat_map(|step| &step.does).find(|does| does.contains("back to"));
    let metres = back.and_then(|does| does.rsplit("back to ").next()).expect("it is moved back");
    let metres = tolva_core::scale::parse_length(metres, tolva_core::scale::LengthUnit::Metres).expect("a distance").0;
    assert!(metres > 1.5, "{metres}");
}

#[test]
fn lamps_need_no_timetable_and_no_place_has_none() {
    let (mut setup, kit) = doorway("19:26");
    if let Some(scene) = &mut setup.scene {
        scene.surroundings = tolva_core::ambient::Surroundings::Artificial(tolva_core::ambient::Artificial {
            light: tolva_core::ambient::TypicalLight::Home,
            mains_hz: 50.0,
        });
    }
    let lamps = table(&setup, &kit);
    assert_eq!((lamps.steps.len(), lamps.last.is_none()), (1, true));
    setup.scene = None;
    assert_eq!(timetable(&setup, &kit, Show::default()), Err(Refused::NoScene));
}

/// Noon, wide open, no filter: too bright until the evening, and then it goes.
#[test]
fn what_is_too_bright_waits() {
    let (mut setup, kit) = doorway("13:00");
    for region in &mut setup.regions {
        region.ambient.readings.clear();
    }
    setup.fixed.f_number = Some(2.8);
    let table = table(&setup, &kit);
    assert!(table.steps[0].notes.iter().any(|note| note.contains("too bright")), "{:?}", table.steps[0]);
    assert!(table.steps.len() > 3 && table.last.is_some(), "{}", table.says);
}

/// A quarter of an hour is a third of a stop at first and several at the end (common practice): where the model says so.
#[test]
fn a_quarter_of_an_hour() {
    let (setup, kit) = doorway("19:26");
    let checked = Prepared::new(&setup, &kit).expect("good");
    let scene = checked.scene.as_ref().expect("a scene");
    let fall = |utc: &str| {
        let at: Timestamp = utc.parse().expect("an instant");
        let later = at + jiff::SignedDuration::from_mins(15);
        (scene.light.at(at).shadow - scene.light.at(later).shadow).0
    };
    // An hour before sunset, at sunset (20:26), half an hour after it.
    let (before, at, after) =
        (fall("2026-08-29T16:26:00Z"), fall("2026-08-29T17:26:00Z"), fall("2026-08-29T17:56:00Z"));
    assert!((0.1..0.5).contains(&before), "{before}");
    assert!((1.0..2.2).contains(&at) && after > at && after < 3.0, "{at} {after}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    /// Whatever is wished, from whatever hour, in whatever order: where a step says nothing of being too bright, its
    /// wish is met as it begins and until it ends, and the next begins where it ends.
    #[test]
    fn every_step_of_every_timetable_holds(
        hour in 15u32..20, minute in 0u32..60, background in -6i32..1, order in 0usize..3, facing in 0u32..360,
        aperture in prop::option::of(prop::sample::select(vec![2.8, 5.6, 11.0]))
    ) {
        let (mut setup, kit) = doorway("19:26");
        let background_stops = f64::from(background) / 3.0;
        setup.blend = Blend::Lift { subject_stops: 0.0, background_stops };
        setup.falling_order = FallingOrder::OFFERED[order];
        setup.fixed.f_number = aperture;
        if let Some(scene) = &mut setup.scene {
            scene.at.time = format!("{hour:02}:{minute:02}");
            scene.facing_deg = f64::from(facing);
        }
        let table = table(&setup, &kit);
        prop_assert!(!table.steps.is_empty());
        for pair in table.steps.windows(2) {
            prop_assert!((pair[0].minute + pair[0].holds_min - pair[1].minute).abs() < 1e-9);
        }
        for step in table.steps.iter().filter(|step| step.notes.iter().all(|note| !note.contains("Not yet"))) {
            let off = step.regions[0].together.stops.expect("light") - background_stops;
            prop_assert!(off.abs() <= 1.0 / 3.0 + 1e-6, "{}: {off}", step.clock);
        }
        if let Some(last) = &table.last {
            let end = table.steps.last().expect("a step");
            prop_assert!((end.minute + end.holds_min - 1.0 - last.minute).abs() < 1e-9);
        }
    }
}

/// Film and lamps belong to the light that is there, at the setup's hour and at every other: the timetable and the day
/// begin with what the plan has.
#[test]
fn film_and_lamps_count_over_time() {
    let (mut setup, mut kit) = doorway("19:26");
    setup.regions[0].ambient.film_ids = vec!["film-full".to_owned()];
    kit.flashes[3].output = tolva_planner::setup::FlashOutput::Continuous(tolva_planner::setup::ContinuousOutput {
        lux_at_1_m: 20_000.0,
        battery_full_min: None,
    });
    setup
        .lights
        .push(tolva_planner::setup::Light { distance_m: Some(2.0), ..tolva_planner::setup::Light::new("L", "lamp") });
    let plan = plan(&setup, &kit, Show::default()).expect("a plan");
    let table = table(&setup, &kit);
    let day = tolva_wording::day_of(&setup, &kit, 1.0).expect("a day");
    let hour = plan.sun_report.as_ref().expect("a scene").minute;
    let at = day.minute.iter().position(|minute| (minute - hour).abs() < 0.5).expect("that minute");
    let ev = |label: &str| label.trim_start_matches("EV ").replace('−', "-").parse::<f64>().expect("an EV");
    for (region, day_ev) in [(0, day.background_ev100[at]), (1, day.lit_ev100[at])] {
        let (planned, first) = (ev(&plan.rail[region].ev), ev(&table.steps[0].regions[region].ev));
        assert!((planned - first).abs() < 0.051, "{region}: {planned} {first}");
        assert!((planned - day_ev).abs() < 0.06, "{region}: {planned} {day_ev}");
    }
    // 0.66 stop of film: what was read before it went up, less that.
    assert!((ev(&plan.rail[0].ev) - (12.6 - 0.66)).abs() < 0.051);
    // A lamp does not fall with the sun: long after, the face has its light still, 5000 lx, EV 10.97.
    let night = day.lit_ev100.last().expect("midnight");
    assert!((night - 10.97).abs() < 0.1, "{night}");
}
