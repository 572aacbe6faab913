//! Aperture and shutter: depth, shake, movement, close up, high speed.

use super::*;
use tolva_core::optics::{CircleOfConfusion, HandheldRule, Movement};
use tolva_planner::setup::Speed;

/// Three rows 0.3 m apart seen from 3 m at 85 mm: 3.0 to 3.85 m with a head's depth, f/9.3 by the group's formula.
#[test]
fn a_group_gets_its_aperture() {
    let (mut setup, kit) = example();
    read(&mut setup, [12.0, 11.0, 10.0]);
    setup.depth = Depth::Rows { rows: 3, apart_m: 0.3 };
    setup.fixed.iso = None;
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert!(plan.dial_card.aperture.exact >= 8.9, "{}", plan.dial_card.aperture.label);
    assert_eq!(says(&plan.depth, "Focus"), "at 3.37 m");
    assert!(says(&plan.depth, "Wished").contains("3.00 m to 3.85 m"));
    // A dense sensor looked at pixel by pixel asks for more than a small print.
    setup.circle_of_confusion = CircleOfConfusion::TwoPixels;
    let denser = solved(&setup, &kit);
    assert!(denser.dial_card.aperture.exact > plan.dial_card.aperture.exact);
}

#[test]
fn one_head_is_taken_wide() {
    let (mut setup, kit) = example();
    read(&mut setup, [6.0, 5.0, 4.0]);
    setup.depth = Depth::OneHead;
    let plan = solved(&setup, &kit);
    assert_eq!(plan.dial_card.aperture.label, "f/2.8");
}

#[test]
fn a_depth_that_cannot_be_had_says_what_to_change() {
    let (mut setup, kit) = example();
    setup.fixed.f_number = Some(4.0);
    setup.depth = Depth::Deep { depth_m: 1.5 };
    let plan = solved(&setup, &kit);
    assert!(limits(&plan).contains(&Limit::TooShallow), "{:?}", limits(&plan));
    assert!(plan.fixes.iter().any(|remedy| remedy.does.contains("aperture")), "{:?}", plan.says);
}

/// The floors follow the school, the hand, the movement, and the part of the subject that is ambient.
#[rstest]
#[case(Speed { school: HandheldRule::OneOverFocal, ..Speed::default() }, 1.0, "1/100")]
#[case(Speed { school: HandheldRule::OneOverTwiceFocal, ..Speed::default() }, 1.0, "1/200")]
#[case(Speed { school: HandheldRule::Stabilised, movement: Movement::Still, ..Speed::default() }, 1.0, "1/6")]
#[case(Speed { movement: Movement::Dancing, ..Speed::default() }, 1.0, "1/3200")]
#[case(Speed { slowest_shutter_s: Some(1.0 / 30.0), ..Speed::default() }, 1.0, "1/30")]
#[case(Speed::default(), 8.0, "1/13")]
fn the_slowest_shutter(#[case] speed: Speed, #[case] less: f64, #[case] label: &str) {
    let (mut setup, kit) = example();
    setup.speed = speed;
    setup.blend = if less > 1.0 {
        Blend::Overpower { subject_stops: 0.0, ambient_stops: -less.log2() }
    } else {
        Blend::AmbientOnly { subject_stops: 0.0 }
    };
    let checked = Prepared::new(&setup, &kit).expect("good");
    assert_eq!(checked.slowest.label(), label);
    let plan = solved(&setup, &kit);
    assert!(says(&plan.speed, "Slowest shutter").starts_with(label), "{:?}", plan.speed);
}

#[test]
fn a_tripod_and_a_still_subject_have_no_floor() {
    let (mut setup, kit) = example();
    setup.speed = Speed { tripod: true, movement: Movement::Still, ..Speed::default() };
    assert_eq!(Prepared::new(&setup, &kit).expect("good").slowest.label(), "30 s");
}

#[test]
fn ghosts_and_the_rear_curtain() {
    let (mut setup, kit) = example();
    read(&mut setup, [5.0, 4.0, 3.0]);
    setup.speed = Speed { movement: Movement::Dancing, slowest_shutter_s: Some(1.0 / 15.0), ..Speed::default() };
    setup.fixed.shutter_s = Some(1.0 / 15.0);
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -1.5 };
    let plan = solved(&setup, &kit);
    assert!(says(&plan.speed, "At this shutter").contains("a ghost of"), "{:?}", plan.speed);
    assert!(says(&plan.speed, "Curtain").starts_with("rear"));
    assert!(says(&plan.speed, "While something sways").contains("10 at 1/250"));
}

/// physics.md §6: life size at f/8 costs two stops, to flash and ambient alike.
#[test]
fn close_up_costs_light() {
    let (mut setup, kit) = example();
    setup.lens_id = "close-100".to_owned();
    setup.focal_length_mm = 100.0;
    let far = solved(&setup, &kit);
    setup.depth = Depth::CloseUp { magnification: 1.0, depth_mm: 10.0, stacked: true, overlap: 0.3 };
    let near = solved(&setup, &kit);
    let ev = |plan: &Plan| {
        let card = &plan.dial_card;
        2.0 * card.aperture.exact.log2() - card.shutter.exact.log2() - (card.iso.exact / 100.0).log2()
    };
    assert!((ev(&far) - ev(&near) - 2.0).abs() < 0.34, "{} {}", ev(&far), ev(&near));
    assert!(near.possible, "{}", near.says);
    assert!(says(&near.depth, "From the lens").starts_with("0.20 m"));
    assert!(says(&near.depth, "Stack").contains("frames"));
    assert!(says(&near.pace, "The stack").contains("frames take about"));
    assert!(says(&near.depth, "Effective aperture").contains("2 stops less light"));
}

#[test]
fn the_electronic_shutter_syncs_slower() {
    let (mut setup, kit) = example();
    setup.sync = Sync::Electronic;
    assert_eq!(solved(&setup, &kit).dial_card.shutter.label, "1/60");
    setup.camera_id = "small-sensor".to_owned();
    let wrong = plan(&setup, &kit, Show::default()).expect_err("none");
    assert_eq!(wrong.0[0].pointer, "/setup/sync");
}

/// The check: f/8 is right at sync, f/2.8 is wanted. With a filter the power stays as it is at f/8; in
/// high-speed sync it is 1⅓ stops more.
#[test]
fn high_speed_against_a_filter() {
    let (mut setup, kit) = example();
    read(&mut setup, [12.66, 10.66, 9.66]);
    let power = |setup: &Setup| {
        let plan = solved(setup, &kit);
        assert!(plan.possible, "{}", plan.says);
        let exact = plan.dial_card.lights[0].power_exact.clone().expect("on").replace('−', "-");
        (settings(&plan).map(str::to_owned), exact.parse::<f64>().expect("a number"))
    };
    let (at_sync, plain) = power(&setup);
    assert_eq!(at_sync, ["1/200", "f/8", "ISO 100"]);
    setup.fixed.f_number = Some(2.8);
    setup.filter_ids = vec!["nd-3".to_owned()];
    let (filtered, with_filter) = power(&setup);
    assert_eq!(filtered, ["1/200", "f/2.8", "ISO 100"]);
    assert!((with_filter - plain).abs() < 0.011, "{with_filter} {plain}");
    setup.filter_ids.clear();
    setup.sync = Sync::HighSpeed;
    let (quick, high_speed) = power(&setup);
    assert_eq!(quick, ["1/1600", "f/2.8", "ISO 100"]);
    assert!((high_speed - plain - 4.0 / 3.0).abs() < 0.011, "{high_speed} {plain}");
}

/// Common practice, no source: from f/10 to f/11 is about a third of power; and 1/160 is safe where 1/250 is rated.
#[test]
fn a_third_of_aperture_is_a_third_of_power() {
    let (mut setup, kit) = example();
    setup.fixed.shutter_s = Some(1.0 / 160.0);
    setup.fixed.iso = Some(100.0);
    let mut at = |f_number: f64| {
        setup.fixed.f_number = Some(f_number);
        // The whole lit side by flash, so that the ambient's part does not change the sum.
        setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -8.0 };
        let plan = solved(&setup, &kit);
        assert!(!limits(&plan).contains(&Limit::ShutterOverSync));
        plan.dial_card.lights[0].power_exact.clone().expect("on").replace('−', "-").parse::<f64>().expect("a number")
    };
    assert!((at(11.0) - at(10.0) - 1.0 / 3.0).abs() < 0.15);
}
