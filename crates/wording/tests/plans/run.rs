//! A setup on the set in words: what to set now, what changes, what turns when a frame looked too dark, and the card.

use super::falling::doorway;
use super::*;
use jiff::Timestamp;
use tolva_planner::day::JobDays;
use tolva_planner::setup::{JobDay, Shot, ShotKind};
use tolva_wording::{Paper, RunSheet, ShotList, field_card, looked_said, run_sheet, shot_list};

/// A quarter past seven in the evening at the harbour.
const EVENING: &str = "2026-08-29T16:30:00Z";

fn evening() -> Timestamp {
    EVENING.parse().expect("an instant")
}

fn days<'a>(setups: &'a [Setup], kit: &'a Kit, asks: &'a JobDay) -> JobDays<'a> {
    JobDays { setups, kit, asks, date: "" }
}

fn sheet(setups: &[Setup], kit: &Kit, of: &str) -> Result<RunSheet, Refused> {
    run_sheet(days(setups, kit, &JobDay::default()), of, evening(), Show::default(), &write)
}

/// The sheet stands on the same settings as timetable and plan.
#[test]
fn what_to_set_is_what_the_timetable_says() {
    let (setup, kit) = doorway("19:26");
    let found = sheet(std::slice::from_ref(&setup), &kit, "doorway").expect("a sheet");
    let table = timetable(&setup, &kit, Show::default()).expect("a timetable");
    assert_eq!(found.steps.len(), table.steps.len());
    for (step, said) in found.steps.iter().zip(&table.steps) {
        assert_eq!((&step.utc, &step.stands.shutter, &step.does), (&said.utc, &said.shutter, &said.does));
        let flash = step.stands.lights.iter().map(|light| format!("{} at {}", light.light_id, light.power));
        assert!(said.flash.as_ref().is_some_and(|says| says.contains(&flash.collect::<Vec<_>>().join("; "))));
    }
    let plan = solved(&setup, &kit);
    assert_eq!((found.stands.aperture, found.possible), (plan.dial_card.aperture.label, plan.possible));
    assert_eq!(found.utc, EVENING);
    assert_eq!(found.now.map(|now| now.time), Some("19:30".to_owned()));
    assert!(found.next.is_none(), "it is the last");
}

/// A reading is good until the light has moved a stop since, and no longer.
#[test]
fn a_reading_grows_old_with_the_light() {
    let (setup, kit) = doorway("19:26");
    let found = sheet(std::slice::from_ref(&setup), &kit, "doorway").expect("a sheet");
    let behind = &found.readings[0];
    let again: Timestamp = behind.again_utc.as_ref().and_then(|utc| utc.parse().ok()).expect("it falls");
    let at = |instant: Timestamp| {
        let mut moved = setup.clone();
        if let Some(scene) = &mut moved.scene {
            let zone = tolva_core::time::zone("Europe/Helsinki").expect("a zone");
            scene.at = tolva_core::time::LocalTime::of(instant, &zone);
        }
        solved(&moved, &kit).cautions.iter().any(|one| one.code == "read_again" && one.says.contains("Behind"))
    };
    assert!(at(again) && !at(again - jiff::SignedDuration::from_mins(2)), "{again}");
}

#[test]
fn without_a_place_nothing_changes_by_itself() {
    let (setup, kit) = example();
    let found = sheet(std::slice::from_ref(&setup), &kit, "example").expect("a sheet");
    assert!(found.steps.is_empty() && found.now.is_none() && found.last.is_none());
    assert_eq!(found.stands.iso, "ISO 100");
    assert!(matches!(sheet(&[setup], &kit, "attic"), Err(Refused::NoSuchSetup(_))));
}

/// What comes after is by the order of the day, with the moves between.
#[test]
fn the_next_setup_is_that_of_the_day() {
    let (setup, kit) = doorway("19:26");
    let mut earlier = Setup { id: "yard".into(), name: "Yard".into(), ..setup.clone() };
    earlier.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    earlier.fixed.iso = Some(100.0);
    let setups = [setup, earlier];
    let found: Vec<_> = ["doorway", "yard"].map(|id| sheet(&setups, &kit, id).expect("a sheet")).into();
    let next: Vec<Option<&str>> =
        found.iter().map(|one| one.next.as_ref().map(|next| next.setup_id.as_str())).collect();
    let by_hour = |a: usize, b: usize| {
        let utc = |at: usize| found[at].slot.as_ref().map(|slot| slot.utc.clone());
        utc(a) < utc(b)
    };
    let wanted = if by_hour(0, 1) { [Some("yard"), None] } else { [None, Some("doorway")] };
    assert_eq!(next, wanted);
    let moves = found.iter().find_map(|one| one.next.as_ref()).map(|next| next.moves.clone()).expect("moves");
    assert!(moves.iter().any(|one| one == "A on" || one == "A off"), "{moves:?}");
}

/// One tap moves the face by its power, and says why; it does so at the minute it is asked of.
#[test]
fn a_face_too_dark_gets_a_third_and_a_reason() {
    let (setup, kit) = doorway("19:26");
    let said = looked_said(&setup, &kit, ("lit", 1), Some(evening()), Show::default(), &write).expect("it turns");
    assert!(said.does.starts_with("Power of A from"), "{}", said.does);
    assert!(said.why.contains("% of the light on “Face, lit side” is flash"), "{}", said.why);
    assert_eq!(said.change, format!("Face, lit side: {}", said.by.label));
    let after = said.setup.read();
    assert_ne!(after.blend, setup.blend);
    let back = looked_said(&after, &kit, ("lit", -1), Some(evening()), Show::default(), &write).expect("it turns");
    assert_eq!(back.setup.read().blend, setup.blend, "and back again");
}

fn listed(setup: &Setup, kit: &Kit) -> ShotList {
    shot_list(setup, kit, &write).expect("a list")
}

#[rstest]
#[case::plate(
    |shot: &mut Shot| { shot.kind = ShotKind::CleanPlate; shot.lights_off = vec!["A".into()]; shot.people_out = true; },
    "A off, nobody in the frame."
)]
#[case::multiple(|shot: &mut Shot| { shot.kind = ShotKind::MultipleExposure; shot.frames = 4; }, "4 exposures on one frame, each −2 stops")]
#[case::weighed(
    |shot: &mut Shot| { shot.kind = ShotKind::MultipleExposure; shot.frames = 2; shot.parts = vec![1.0, 3.0]; },
    "2 exposures on one frame: −2 stops, −0.42 stops"
)]
#[case::bracket(|shot: &mut Shot| { shot.kind = ShotKind::Bracket; shot.frames = 3; }, "the flash stays")]
#[case::pair(|shot: &mut Shot| { shot.kind = ShotKind::HelperPair; shot.frames = 2; }, "one with the helper")]
fn how_a_shot_is_taken_is_said(#[case] change: fn(&mut Shot), #[case] says: &str) {
    let (mut setup, kit) = example();
    setup.fixed.shutter_s = Some(1.0 / 60.0);
    let mut shot = Shot { name: "It".into(), ..Shot::new("a") };
    change(&mut shot);
    setup.shots = vec![shot];
    let how = &listed(&setup, &kit).shots[0].how;
    assert!(how.contains(says), "{how}");
}

/// What is offered is done by the setup that comes with it, and then it is no longer offered.
#[test]
fn what_is_offered_for_shots_is_done() {
    let (mut setup, kit) = example();
    setup.lens_id = "close-100".into();
    setup.focal_length_mm = 100.0;
    setup.depth = Depth::CloseUp { magnification: 1.0, depth_mm: 10.0, stacked: true, overlap: 0.3 };
    setup.shots = vec![
        Shot { name: "Bracket".into(), kind: ShotKind::Bracket, frames: 3, ..Shot::new("a") },
        Shot { name: "Beetle".into(), ..Shot::new("b") },
    ];
    let offers = listed(&setup, &kit).offers;
    assert_eq!(offers.len(), 2, "{offers:?}");
    let with_stack = offers[0].setup.read();
    assert_eq!(with_stack.shots.last().map(|shot| shot.kind), Some(ShotKind::Stack));
    assert_eq!(checked(&with_stack, &kit).err(), None);
    let offers = listed(&with_stack, &kit).offers;
    let ordered = offers.last().expect("an order").setup.read();
    assert_eq!(ordered.shots[0].name, "Beetle");
    assert!(listed(&ordered, &kit).offers.is_empty());
}

/// The card is one self-contained file: nothing is loaded, names are text, distances in the unit that is asked for.
#[rstest]
#[case(Paper::A5, Show::default(), "size: A5", " m</td>")]
#[case(Paper::A4, Show { length: LengthUnit::FeetAndInches, ..Show::default() }, "size: A4", "ft")]
fn a_card_stands_by_itself(#[case] paper: Paper, #[case] show: Show, #[case] page: &str, #[case] unit: &str) {
    let (mut setup, kit) = doorway("19:26");
    setup.name = "Keeper <b>& son</b>".into();
    setup.shots = vec![Shot { name: "Half length".into(), frames: 8, who: "The keeper".into(), ..Shot::new("a") }];
    let asks = JobDay::default();
    let setups = [setup];
    let card = field_card(days(&setups, &kit, &asks), ("Open day", ""), "doorway", show, paper).expect("a card");
    let plan = solved(&setups[0], &kit);
    let wanted = [
        page,
        unit,
        "Keeper &lt;b&gt;&amp; son&lt;/b&gt;",
        "Half length, The keeper, 8 frames",
        "As the light falls",
        "Harbour · 2026-08-29, 19:26",
        "Local rules and licensed practice come first.",
        &plan.dial_card.shutter.label,
    ];
    for part in wanted {
        assert!(card.contains(part), "{part} is not in {card}");
    }
    assert!(
        !card.contains("<b>& son") && !card.contains("<script") && !card.contains("src=") && !card.contains("href=")
    );
    let nobody = field_card(days(&setups, &kit, &asks), ("", ""), "attic", show, paper);
    assert!(matches!(nobody, Err(Refused::NoSuchSetup(_))));
}

/// What experienced people tell each other comes where it matters, and not before.
#[rstest]
#[case::screen("14:00", Blend::OFFERED[0], 15.0, "screen_in_sun", true)]
#[case::dusk("20:40", Blend::OFFERED[0], 8.0, "screen_in_sun", false)]
#[case::silhouette("19:46", Blend::Silhouette { background_stops: 0.0 }, 12.0, "heads_over_horizon", true)]
#[case::no_silhouette("19:46", Blend::OFFERED[0], 12.0, "heads_over_horizon", false)]
#[case::sky("19:46", Blend::OFFERED[0], 12.0, "clean_sky", true)]
fn what_is_told_when_it_matters(
    #[case] time: &str,
    #[case] blend: Blend,
    #[case] ev: f64,
    #[case] code: &str,
    #[case] told: bool,
) {
    let (mut setup, kit) = doorway(time);
    read(&mut setup, [ev, ev, ev - 1.0]);
    setup.blend = blend;
    let codes: Vec<_> = solved(&setup, &kit).cautions.into_iter().map(|one| one.code).collect();
    assert_eq!(codes.contains(&code), told, "{codes:?}");
}
