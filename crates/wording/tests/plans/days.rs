//! A job's day and its pack list in words.

use super::*;
use tolva_core::ambient::{Scene, Site};
use tolva_core::time::LocalTime;
use tolva_planner::day::JobDays;
use tolva_planner::setup::{JobDay, Schedule, Shot};
use tolva_wording::{DayPlan, SlotBefore, day_plan, hour_on_day, pack_said};

fn scene(date: &str, time_zone: &str) -> Scene {
    let site = Site {
        name: "Quay".into(),
        latitude_deg: 60.47,
        longitude_deg: 26.95,
        elevation_m: 3.0,
        time_zone: time_zone.into(),
    };
    Scene::new(site, LocalTime { date: date.into(), time: "12:00".into(), second_time: false })
}

/// Two setups by the quay: the second has to be built for a quarter of an hour and shot for forty minutes.
fn quay() -> (Vec<Setup>, Kit) {
    let kit = Kit::starter();
    let mut all = vec![Setup::new("one", &kit), Setup::new("two", &kit)];
    for (setup, name) in all.iter_mut().zip(["Cooper", "Two on the slipway"]) {
        name.clone_into(&mut setup.name);
        setup.scene = Some(scene("2026-08-29", "Europe/Helsinki"));
    }
    all[1].schedule = Schedule { build_min: 0, shoot_min: 40, ..Schedule::default() };
    (all, kit)
}

fn said(setups: &[Setup], kit: &Kit, asks: &JobDay, before: &[SlotBefore]) -> DayPlan {
    day_plan(JobDays { setups, kit, asks, date: "" }, None, before).expect("a day")
}

#[test]
fn a_day_is_said_by_the_clocks_of_its_place() {
    let (setups, kit) = quay();
    let asks = JobDay { begin: "13:00".into(), end: "15:00".into(), ..JobDay::default() };
    let day = said(&setups, &kit, &asks, &[]);
    assert_eq!(day.says, "2 setups from 13:00 to 14:15.");
    assert_eq!(day.sun_says.as_deref(), Some("The sun rises at 05:58 and sets at 20:26."));
    assert_eq!(day.slots[0].says, "Build at 13:00, shoot 13:15 to 13:35.");
    assert_eq!(day.slots[1].says, "Be there at 13:35, shoot 13:35 to 14:15.");
    assert_eq!((day.slots[0].utc.as_str(), day.slots[0].at.time.as_str()), ("2026-08-29T10:15:00Z", "13:15"));
    assert!(day.lanes.iter().all(|lane| lane.light_known && lane.note.is_none()));
    let noon = day.lanes[0].moments.iter().find(|moment| moment.minute == 720).expect("noon");
    assert!(noon.says.starts_with("12:00: ISO 100"), "{}", noon.says);
}

#[test]
fn ways_and_waits_are_said() {
    let (mut setups, kit) = quay();
    setups[0].schedule.spot = "Yard".into();
    let pin = |time: &str| Some(LocalTime { date: "2026-08-29".into(), time: time.into(), second_time: false });
    (setups[0].schedule.pinned, setups[1].schedule.pinned) = (pin("13:30"), pin("15:00"));
    let asks = JobDay { begin: "13:00".into(), end: "16:00".into(), way_min: 10, ..JobDay::default() };
    let day = said(&setups, &kit, &asks, &[]);
    let last = &day.slots[1].says;
    assert!(last.starts_with("10 min on the way, be there at ") && last.contains("wait "), "{last}");
    assert!(last.ends_with("shoot 15:00 to 15:40."), "{last}");
    assert_eq!(day.lanes[1].pinned_minute, Some(15 * 60));
}

#[test]
fn what_does_not_fit_says_why_and_what_would_help() {
    let (setups, kit) = quay();
    let asks = JobDay { begin: "13:00".into(), end: "14:00".into(), ..JobDay::default() };
    let day = said(&setups, &kit, &asks, &[]);
    assert!(day.says.starts_with("1 of 2 fit"), "{}", day.says);
    assert_eq!(day.left_out.len(), 1);
    let says: Vec<&str> = day.changes.iter().map(|change| change.says.as_str()).collect();
    assert!(says.contains(&"Begin 15 min earlier, at 12:45."), "{says:?}");
    assert!(says.contains(&"End 15 min later, at 14:15."), "{says:?}");
    assert!(says.contains(&"Two on the slipway: take 15 min less to build and shoot."), "{says:?}");
}

/// Whatever is pressed of what would help makes everything fit, and nothing else is touched.
#[rstest]
#[case::too_little_day("13:00", "14:00", |_: &mut Vec<Setup>| {})]
#[case::light_that_ends("17:00", "23:00", |setups: &mut Vec<Setup>| {
    setups[1].blend = Blend::AmbientOnly { subject_stops: 0.0 };
    (setups[1].fixed.iso, setups[1].fixed.f_number) = (Some(100.0), Some(8.0));
    setups[0].schedule.shoot_min = 45;
})]
fn each_press_makes_everything_fit(#[case] begin: &str, #[case] end: &str, #[case] change: fn(&mut Vec<Setup>)) {
    let (mut setups, kit) = quay();
    change(&mut setups);
    let asks = JobDay { begin: begin.into(), end: end.into(), ..JobDay::default() };
    let day = said(&setups, &kit, &asks, &[]);
    let with: Vec<_> = day.changes.iter().filter_map(|change| Some((change, change.schedule.as_ref()?))).collect();
    assert!(!day.left_out.is_empty() && !with.is_empty(), "{:?}", day.changes);
    for (change, then) in with {
        let mut done = setups.clone();
        let setup = done.iter_mut().find(|setup| Some(&setup.id) == change.setup_id.as_ref()).expect("the setup");
        (setup.schedule.build_min, setup.schedule.shoot_min) = (then.build_min, then.shoot_min);
        let pin = |at: &tolva_wording::HourOfDay| LocalTime {
            date: at.date.clone(),
            time: at.time.clone(),
            second_time: at.second_time,
        };
        setup.schedule.pinned = then.pinned.as_ref().map(pin);
        assert_eq!(then.pinned.is_some(), change.code == "outside_its_light", "{change:?}");
        let after = said(&done, &kit, &asks, &[]);
        assert!(after.left_out.is_empty(), "{}: {:?}", change.says, after.left_out);
    }
}

#[rstest]
#[case::too_short("its light lasts ", |setup: &mut Setup| setup.schedule.shoot_min = 600)]
#[case::no_light("there is no light for it on this day", |setup: &mut Setup| setup.fixed.shutter_s = Some(1.0 / 8000.0))]
#[case::not_planned("it cannot be planned: ", |setup: &mut Setup| setup.camera_id = "gone".into())]
#[case::pinned("not at the hour it is pinned to", |setup: &mut Setup| {
    setup.schedule.pinned = setup.scene.as_ref().map(|scene| LocalTime { time: "06:00".into(), ..scene.at.clone() });
})]
fn why_one_is_left_out(#[case] why: &str, #[case] change: fn(&mut Setup)) {
    let (mut setups, kit) = quay();
    setups[1].scene = Some(scene("2026-12-05", "Europe/Helsinki"));
    setups[1].blend = Blend::AmbientOnly { subject_stops: 0.0 };
    (setups[1].fixed.iso, setups[1].fixed.f_number) = (Some(100.0), Some(8.0));
    change(&mut setups[1]);
    let day = said(&setups[1..], &kit, &JobDay::default(), &[]);
    assert_eq!(day.says, "None of 1 setup fits.");
    assert!(day.left_out[0].says.starts_with(why), "{}", day.left_out[0].says);
}

#[test]
fn what_moved_is_told_and_nothing_else() {
    let (setups, kit) = quay();
    let asks = JobDay { begin: "13:00".into(), end: "15:00".into(), ..JobDay::default() };
    let day = said(&setups, &kit, &asks, &[]);
    let before: Vec<SlotBefore> =
        day.slots.iter().map(|slot| SlotBefore { setup_id: slot.setup_id.clone(), utc: slot.utc.clone() }).collect();
    assert!(said(&setups, &kit, &asks, &before).moved.is_empty());
    let later = JobDay { begin: "13:30".into(), ..asks };
    let moved = said(&setups, &kit, &later, &before).moved;
    assert_eq!(moved, ["Cooper at 13:45, not 13:15", "Two on the slipway at 14:05, not 13:35"]);
}

#[test]
fn two_zones_no_place_and_what_cannot_be_planned_are_noted() {
    let (mut setups, kit) = quay();
    setups[1].scene = Some(scene("2026-08-29", "Europe/Stockholm"));
    setups.push(Setup::new("three", &kit));
    setups.push(Setup { camera_id: "gone".into(), ..Setup::new("four", &kit) });
    let day = said(&setups, &kit, &JobDay::default(), &[]);
    assert!(day.notes.iter().any(|note| note.contains("two time zones")), "{:?}", day.notes);
    assert!(day.lanes[1].note.as_deref().is_some_and(|note| note.contains("Europe/Stockholm")));
    assert!(day.lanes[2].note.as_deref().is_some_and(|note| note.contains("No place and hour")));
    assert!(day.lanes[3].says.contains("cannot be planned"), "{}", day.lanes[3].says);
    // Where it is dragged to is an hour on its own clocks.
    let asks = JobDay::default();
    let days = JobDays { setups: &setups, kit: &kit, asks: &asks, date: "" };
    assert_eq!(hour_on_day(days, None, "two", 14 * 60).expect("an hour").time, "13:00");
    assert_eq!(hour_on_day(days, None, "two", 90_000).expect("held to the day").date, "2026-08-29");
    assert!(hour_on_day(days, None, "nobody", 0).is_err());
}

#[test]
fn a_pack_list_says_what_for() {
    let (mut setups, kit) = quay();
    setups[0].lights[0].power_stops = Some(0.0);
    setups[0].shots = vec![Shot { frames: 900, ..Shot::new("a") }];
    setups[1].lights.clear();
    let list = pack_said(&setups, &kit);
    let line = |kind: &str| list.items.iter().find(|item| item.kind == kind).unwrap_or_else(|| panic!("no {kind}"));
    assert_eq!((line("camera").says.as_str(), line("flash").says.as_str()), ("For every setup.", "For Cooper."));
    assert_eq!(line("battery").says, "The frames take 900 full pops, a battery gives 450; with a spare.");
    assert_eq!((line("battery").count.as_str(), line("battery").key.as_str()), ("3", "battery/medium"));
    assert_eq!(line("memory").says, "900 frames at least, 43.2 GB raw and JPEG; with a spare.");
    assert_eq!(line("modifier").weight.as_deref(), Some("0.9 kg"));
    assert!(list.notes.iter().any(|note| note.contains("cold")));
    assert_eq!(pack_said(&[], &kit).says, "Nothing to carry yet: no setup.");
}
