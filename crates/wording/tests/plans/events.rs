//! On the camera, off ceilings, in bursts and for a whole evening.

use super::*;
use tolva_core::modifier::{Bounce, BounceOff, SurfaceColour};
use tolva_planner::setup::{Duty, Fixed, Pace};

/// The award evening in the shed: warm lamps at EV 5, a white wall 2.5 m away, a flash on the camera turned to it.
fn evening() -> (Setup, Kit) {
    let (mut setup, kit) = example();
    read(&mut setup, [4.5, 5.0, 4.0]);
    setup.blend = Blend::Fill { ambient_stops: -1.0, fill_stops: 0.0 };
    setup.fixed = Fixed { f_number: Some(4.0), iso: Some(1600.0), ..Fixed::default() };
    setup.speed.slowest_shutter_s = Some(1.0 / 60.0);
    setup.camera_distance_m = 2.5;
    let wall = Bounce { off: BounceOff::SideWall, away_m: 2.5, reflectance: 0.8, colour: SurfaceColour::White };
    setup.lights = vec![Light { on_camera: true, bounce: Some(wall), distance_m: None, ..Light::new("A", "small") }];
    (setup, kit)
}

/// What an experienced photographer expects there: 1/60 to 1/100 at f/4 and ISO 1600, flash a sixteenth or so off the
/// wall, the ambient a stop under. Common practice, no source.
#[test]
fn a_wall_is_enough_for_a_touch() {
    let (setup, kit) = evening();
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert!((1.0 / 100.0..=1.0 / 60.0).contains(&plan.dial_card.shutter.nominal), "{}", plan.dial_card.shutter.label);
    let power = plan.dial_card.lights[0].power_stops.expect("on");
    assert!((-6.0..=-3.0).contains(&power), "{power}");
    assert!((at(&plan.rail[1].ambient) - -1.0).abs() < 0.34);
    let card = &plan.dial_card.lights[0];
    assert!(says(&card.facts, "Softness").contains("soft"), "{:?}", card.facts);
    assert!(!plan.cautions.iter().any(|caution| caution.heading == "Flash on the camera"), "it is turned away");
}

/// Turned straight at them it takes less power, is harder, and is warned of; nearer than a step it lights them too much.
#[rstest]
#[case(2.5, false)]
#[case(1.2, true)]
fn straight_from_the_camera(#[case] away: f64, #[case] too_near: bool) {
    let (mut setup, kit) = evening();
    let bounced = solved(&setup, &kit).dial_card.lights[0].power_stops.expect("on");
    (setup.lights[0].bounce, setup.lights[0].distance_m) = (None, Some(away));
    // So near its lowest power is too strong without something dense on the head.
    setup.lights[0].gel_ids = vec!["neutral-2".to_owned(), "neutral-1".to_owned()];
    let plan = solved(&setup, &kit);
    let card = &plan.dial_card.lights[0];
    assert!(card.power_stops.expect("on") - 3.0 < bounced);
    assert!(plan.cautions.iter().any(|caution| caution.heading == "Flash on the camera"));
    assert_eq!(says(&card.facts, "On the camera").contains("step back"), too_near);
}

/// Darker or farther surfaces give back less, in stops by their reflectance.
#[rstest]
#[case(0.8, 0.4, 1.0)]
#[case(0.8, 0.2, 2.0)]
fn a_dark_ceiling_costs_its_reflectance(#[case] pale: f64, #[case] dark: f64, #[case] stops: f64) {
    let (mut setup, kit) = evening();
    let mut loss = |reflectance| {
        setup.lights[0].bounce.as_mut().expect("a bounce").reflectance = reflectance;
        solved(&setup, &kit).dial_card.lights[0].loss.replace('−', "-").parse::<f64>().expect("a number")
    };
    assert!((loss(pale) - loss(dark) - stops).abs() < 0.011);
}

/// With an automatic shutter the camera stops at its slow-sync floor, and the room goes dark.
#[test]
fn the_cameras_floor_is_warned_of() {
    let (mut setup, kit) = evening();
    setup.speed.slowest_shutter_s = Some(1.0 / 15.0);
    setup.fixed.shutter_s = Some(1.0 / 15.0);
    setup.lights[0].control = Control::Ttl;
    let plan = solved(&setup, &kit);
    let floor = plan.cautions.iter().find(|caution| caution.heading == "Slow-sync floor").expect("a caution");
    assert!(floor.says.contains("1/60") && floor.says.contains("1/15"), "{}", floor.says);
}

/// Black and white clothes in turn: what each automatic would do, and that fixed settings do nothing of it.
#[test]
fn clothes_move_every_automatic() {
    let (setup, kit) = evening();
    let facts = solved(&setup, &kit).automatic;
    assert!(says(&facts, "Automatic exposure").contains("+0.7") || says(&facts, "Automatic exposure").contains("+0."));
    assert!(says(&facts, "Automatic flash").contains("the ambient held"));
    assert!(says(&facts, "Automatic white balance").contains("skin turns"));
    assert!(says(&facts, "Fixed settings").contains("the same face in every frame"));
}

/// A full recycle of 1.5 s at 10 frames a second: 1/64 and just 1/16 follow for ever, 1/8 is dry after about fifteen.
#[rstest]
#[case(-6.0, "follows 10 frames a second")]
#[case(-4.0, "follows 10 frames a second")]
#[case(-3.0, "dry after 1")]
fn bursts_the_flash_can_follow(#[case] power: f64, #[case] wanted: &str) {
    let (mut setup, mut kit) = example();
    kit.flashes[1].recycle_full_s = 1.5;
    setup.lights[0].power_stops = Some(power);
    setup.pace = Some(Pace { every_s: 5.0, burst_frames: 30, frames: 100 });
    let plan = solved(&setup, &kit);
    assert!(says(&plan.pace, "A in a burst").starts_with(wanted), "{:?}", plan.pace);
    if power > -3.5 {
        assert!(says(&plan.pace, "A in a burst").ends_with("30 are asked"), "{:?}", plan.pace);
    }
}

/// High-speed sync has one train of pulses a frame.
#[test]
fn high_speed_takes_one_frame_at_a_time() {
    let (mut setup, kit) = example();
    setup.sync = Sync::HighSpeed;
    setup.pace = Some(Pace { every_s: 3.0, burst_frames: 10, frames: 100 });
    let plan = solved(&setup, &kit);
    assert!(says(&plan.pace, "A in a burst").starts_with("none in high-speed sync"), "{:?}", plan.pace);
}

/// Recycling against what the job asks, batteries to bring, and when the head must rest.
#[test]
fn an_evening_is_checked_against_the_battery_and_the_head() {
    let (mut setup, mut kit) = example();
    (kit.flashes[1].recycle_full_s, kit.flashes[1].pops_full) = (4.0, Some(100.0));
    kit.flashes[1].duty = Some(Duty { full_pops: 20.0, rest_s: 600.0 });
    setup.lights[0].power_stops = Some(0.0);
    setup.pace = Some(Pace { every_s: 2.0, burst_frames: 1, frames: 350 });
    let plan = solved(&setup, &kit);
    assert_eq!(says(&plan.pace, "A is ready"), "after 4.0 s, too slow for a picture every 2 s");
    assert_eq!(says(&plan.pace, "A, battery"), "100 frames of 350: bring 4");
    assert!(says(&plan.pace, "A, heat").contains("the head rests 10 min (by its maker)"), "{:?}", plan.pace);
    // At a sixteenth of the power all of it is well.
    setup.lights[0].power_stops = Some(-4.0);
    let plan = solved(&setup, &kit);
    assert_eq!(says(&plan.pace, "A is ready"), "after 0.2 s, quicker than the 2 s there are");
    assert_eq!(says(&plan.pace, "A, battery"), "good for 1600 frames");
    assert_eq!(says(&plan.pace, "A, heat"), "");
    kit.flashes[1].pops_full = None;
    assert_eq!(says(&solved(&setup, &kit).pace, "A, battery"), "on mains");
}

/// A reading narrows what a guess leaves open; so does a measured flash. What narrows most is named.
#[test]
fn certainty_narrows_with_what_is_measured() {
    let (mut setup, kit) = example();
    let sigma = |setup: &Setup, kit: &Kit| solved(setup, kit).rail[1].uncertainty_stops;
    let read_one = sigma(&setup, &kit);
    let mut guess = setup.clone();
    guess.regions[1].ambient = Ambient::guessed(11.0);
    assert!(sigma(&guess, &kit) >= read_one);
    let plan = solved(&setup, &kit);
    assert!(plan.certainty[1].says.contains(": ±"), "{:?}", plan.certainty);
    // Without flash only reading and camera are left.
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    assert!(sigma(&setup, &kit) < read_one);
}

/// The glazed teapot by the north window: lowest ISO and a slow shutter on a tripod, the bright side kept from clipping.
#[test]
fn the_teapot_by_the_window() {
    let (mut setup, kit) = example();
    read(&mut setup, [8.0, 9.0, 7.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 1.0 };
    setup.speed.tripod = true;
    setup.speed.movement = tolva_core::optics::Movement::Still;
    setup.depth = Depth::Deep { depth_m: 0.2 };
    setup.camera_distance_m = 1.2;
    setup.exposure = ExposureConvention::ProtectHighlights;
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert_eq!(plan.dial_card.iso.label, "ISO 100");
    assert!(plan.dial_card.shutter.nominal > 1.0 / 15.0, "{}", plan.dial_card.shutter.label);
    assert!(!plan.rail.iter().any(|lane| lane.clipped));
}

/// A stag beetle on bark at 1:1: f/8 set is f/16 in effect, half a millimetre deep, black behind at base ISO.
#[test]
fn a_beetle_on_bark() {
    let (mut setup, kit) = example();
    read(&mut setup, [8.0, 8.0, 7.0]);
    setup.lens_id = "close-100".to_owned();
    setup.focal_length_mm = 100.0;
    setup.depth = Depth::CloseUp { magnification: 1.0, depth_mm: 0.5, stacked: false, overlap: 0.3 };
    setup.fixed = Fixed { f_number: Some(8.0), iso: Some(100.0), shutter_s: Some(1.0 / 200.0) };
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -6.0 };
    setup.lights =
        vec![Light { distance_m: Some(0.12), modifier_id: Some("dome".to_owned()), ..Light::new("A", "small") }];
    let plan = solved(&setup, &kit);
    assert!(says(&plan.depth, "Effective aperture").starts_with("f/16.0 at 1 : 1, 2 stops"), "{:?}", plan.depth);
    assert!(says(&plan.depth, "Sharp").contains("mm deep at f/8"));
    assert!(plan.dial_card.lights[0].power_stops.expect("on") <= -4.0, "a sixteenth or less");
    assert!(at(&plan.rail[0].together) < -5.0, "black behind");
    assert!(plan.cautions.iter().any(|caution| caution.heading == "Very near the eyes"));
}
