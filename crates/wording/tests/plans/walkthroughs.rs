//! Made-up jobs, and what an experienced photographer would expect of them (common practice, no source).

use super::*;
use tolva_core::exposure::parse_reading;
use tolva_planner::setup::Fixed;

pub(super) fn setup(kit: &Kit, readings: [&str; 3], blend: Blend) -> Setup {
    let mut setup = Setup::new("walk", kit);
    for (region, typed) in setup.regions.iter_mut().zip(readings) {
        let reading = parse_reading(typed).expect("a reading");
        region.ambient = Ambient::read(reading);
    }
    setup.blend = blend;
    setup
}

fn solved(setup: &Setup, kit: &Kit) -> Plan {
    plan(setup, kit, Show::default()).expect("a good setup")
}

fn share(lane: &RegionOnRail) -> f64 {
    lane.flash_share.trim_end_matches(" %").parse().expect("a percentage")
}

/// The keeper in the doorway: background a stop to a stop and a half under, three quarters or more of the face's light
/// from the flash, between 1/8 and 1/4 power from 1.5 m.
#[test]
fn the_keeper_in_the_doorway() {
    let kit = Kit::starter();
    let setup = setup(&kit, ["12.6", "11.3", "10.3"], Blend::Lift { subject_stops: 0.0, background_stops: -4.0 / 3.0 });
    let plan = solved(&setup, &kit);
    assert!(plan.possible);
    let background = plan.rail[0].together.at.stops.expect("light");
    assert!((-1.5..=-1.0).contains(&background), "{background}");
    assert!(share(&plan.rail[1]) >= 75.0);
    let power = plan.dial_card.lights[0].power_stops.expect("on");
    assert!((-3.0..=-2.0).contains(&power), "{power}");
}

/// Singers on the stairs at two in the afternoon: fill near equal is wanted, and two small flashes far off are too weak
/// by a stop or more. Nearer, or a bigger unit.
#[test]
fn singers_on_the_stairs() {
    let kit = Kit::starter();
    let mut setup = setup(&kit, ["EV 15", "EV 15", "EV 12"], Blend::Fill { ambient_stops: 0.0, fill_stops: 0.0 });
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].modifier_id = Some("umbrella-white-100".to_owned());
    setup.lights[0].distance_m = Some(4.5);
    let plan = solved(&setup, &kit);
    assert_eq!(plan.shortfalls[0].limit, Limit::FlashTooWeak);
    assert!(plan.shortfalls[0].missing_stops >= 1.0);
    assert!(plan.fixes.iter().any(|remedy| remedy.says.contains("of these side by side")));
    assert!(plan.fixes.iter().any(|remedy| remedy.does.starts_with("Bring A to")));
}

/// Award evening: f/4, ISO 1600 or so, 1/60 to 1/100, ambient a stop under, a touch of flash.
#[test]
fn award_evening() {
    let kit = Kit::starter();
    let mut setup = setup(&kit, ["EV 4.5", "EV 5", "EV 4"], Blend::Fill { ambient_stops: -1.0, fill_stops: 0.0 });
    setup.fixed = Fixed { f_number: Some(4.0), ..Fixed::default() };
    setup.speed.slowest_shutter_s = Some(1.0 / 80.0);
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].modifier_id = Some("umbrella-white-100".to_owned());
    setup.lights[0].distance_m = Some(3.0);
    setup.lights[0].control = Control::Ttl;
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let card = &plan.dial_card;
    assert!((1.0 / 100.0..=1.0 / 60.0).contains(&card.shutter.nominal), "{}", card.shutter.label);
    assert!((1600.0..=2500.0).contains(&card.iso.nominal), "{}", card.iso.label);
    assert!(card.lights[0].power_stops.expect("on") < -4.0, "only a touch");
    assert!(plan.cautions.iter().any(|caution| caution.heading == "Clothes move it"));
}

/// Two dancers against the last light: a silhouette needs three stops, and says how many are missing.
#[rstest]
#[case("EV 9", "2 stops")]
#[case("EV 8.3", "1⅓ stops")]
fn two_dancers(#[case] lit: &str, #[case] missing: &str) {
    let kit = Kit::starter();
    let setup = setup(&kit, ["EV 10", lit, "EV 7"], Blend::Silhouette { background_stops: 0.0 });
    let plan = solved(&setup, &kit);
    assert_eq!((plan.shortfalls[0].limit, plan.shortfalls[0].missing.as_str()), (Limit::NotASilhouette, missing));
    assert_eq!(plan.dial_card.lights[0].power, None);
}

/// A flash two stops under fills without showing: the ratio of lit to shadow side before and after.
#[test]
fn a_touch_of_fill() {
    let kit = Kit::starter();
    let mut setup = setup(&kit, ["EV 12", "EV 12", "EV 10"], Blend::Fill { ambient_stops: 0.0, fill_stops: -2.0 });
    setup.lights[0].spill = vec![Spill { region_id: "shadow".to_owned(), stops: 0.0 }];
    let plan = solved(&setup, &kit);
    let ratio = plan.ratio.expect("a shadow side");
    assert!((ratio.before.stops.expect("light") - 2.0).abs() < 1e-9);
    // log2((1 + 1/4) / (1/4 + 1/4)) = 1.32, to within the power dial's rounding.
    assert!((ratio.after.stops.expect("light") - 1.32).abs() < 0.15);
}

/// Cameras with other clicks get settings from their own dials.
#[rstest]
#[case(tolva_core::scale::Step::Half, &["1/180", "f/9.5"])]
#[case(tolva_core::scale::Step::Whole, &["1/125", "f/11"])]
fn other_clicks(#[case] step: tolva_core::scale::Step, #[case] labels: &[&str]) {
    let mut kit = Kit::starter();
    let camera = &mut kit.cameras[0];
    (camera.shutter.step, camera.aperture_step, camera.iso.step) = (step, step, step);
    let setup = setup(&kit, ["EV 13", "EV 11", "EV 10"], Blend::Lift { subject_stops: 0.0, background_stops: -1.0 });
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert_eq!([plan.dial_card.shutter.label.as_str(), plan.dial_card.aperture.label.as_str()], labels);
}

/// Every way of saying what is missing leads on: a plan that is not possible names a limit, an amount and a way.
#[rstest]
#[case::weak(Blend::Lift { subject_stops: 0.0, background_stops: -1.0 }, ["15", "12", "11"], Some(12.0))]
#[case::bright(Blend::Overpower { subject_stops: -3.0, ambient_stops: -1.0 }, ["15", "14", "12"], Some(1.5))]
#[case::dark(Blend::AmbientOnly { subject_stops: 0.0 }, ["-4", "-5", "-6"], Some(1.5))]
#[case::silhouette(Blend::Silhouette { background_stops: 0.0 }, ["12", "12", "12"], Some(1.5))]
fn a_no_is_never_the_last_word(#[case] blend: Blend, #[case] readings: [&str; 3], #[case] distance: Option<f64>) {
    let kit = Kit::starter();
    let mut setup = setup(&kit, readings, blend);
    setup.lights[0].distance_m = distance;
    let plan = solved(&setup, &kit);
    assert!(!plan.possible);
    assert!(plan.says.contains("Not as wished:") && plan.says.contains("The nearest:"));
    for gap in &plan.shortfalls {
        assert!(gap.missing_stops > 0.0 && gap.missing.contains("stop") && !gap.says.is_empty());
    }
    assert!(!plan.fixes.is_empty());
    assert!(plan.fixes.len() <= 6);
}
