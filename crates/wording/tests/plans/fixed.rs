//! What is fixed, held to the camera and the lens there are; schools of exposure that move the camera; slow flashes.

use super::*;

/// A document from another time, or a lens that has left the kit: it opens, the nearest that exists is used, and that is
/// said.
#[rstest]
#[case::too_wide(|s: &mut Setup| s.fixed.f_number = Some(1.4), 1, "f/2.8", "f/1.4 is not on “24–105 mm f/2.8”: f/2.8 is the nearest.")]
#[case::too_sensitive(|s: &mut Setup| s.fixed.iso = Some(100_000.0), 2, "ISO 6400", "ISO 100000 is not on “Full frame”")]
#[case::too_quick(|s: &mut Setup| s.fixed.shutter_s = Some(1.0 / 32_000.0), 0, "1/8000", "1/32000 is not on “Full frame”")]
#[case::between_clicks(|s: &mut Setup| s.fixed.shutter_s = Some(0.37), 0, "0.4 s", "0.37 s is not on “Full frame”")]
fn the_nearest_that_exists(
    #[case] fix: impl Fn(&mut Setup),
    #[case] dial: usize,
    #[case] label: &str,
    #[case] note: &str,
) {
    let (mut setup, kit) = example();
    fix(&mut setup);
    let plan = solved(&setup, &kit);
    let card = &plan.dial_card;
    let dialled = [&card.shutter, &card.aperture, &card.iso][dial];
    assert_eq!(dialled.label, label);
    assert!(dialled.fixed && dialled.note.as_deref().is_some_and(|said| said.starts_with(note)), "{:?}", dialled.note);
}

/// What is on the dial needs no note, nominal or exact.
#[test]
fn what_exists_is_not_remarked_on() {
    let (mut setup, kit) = example();
    setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(1.0 / 128.0), f_number: Some(11.0), iso: Some(400.0) };
    let card = solved(&setup, &kit).dial_card;
    assert_eq!([card.shutter.note, card.aperture.note, card.iso.note], [None, None, None]);
}

/// With the highlights protected, a fill follows the ambient that it fills: the camera and the wish move together.
#[test]
fn a_fill_follows_the_ambient_where_highlights_are_protected() {
    let (mut setup, kit) = example();
    read(&mut setup, [15.0, 12.0, 11.0]);
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -1.0 };
    setup.exposure = ExposureConvention::ProtectHighlights;
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let lit = &plan.rail[1];
    // Behind is kept two stops over mid grey, so the face is at −1; flash a stop under it adds 0.585.
    assert!((at(&plan.rail[0].ambient) - 2.0).abs() < 0.17 && (at(&lit.ambient) - -1.0).abs() < 0.17);
    let wish = lit.wish.as_ref().and_then(|wish| wish.stops).expect("a wish");
    assert!((wish - (-1.0 + 0.585)).abs() < 0.001, "{wish}");
    assert!((at(&lit.together) - wish).abs() < 0.2, "{lit:?}");
}

/// A flash that outlasts the shutter loses its tail, and the plan makes up for it: at half of t₀.₁ by 0.55 stop.
#[test]
fn a_slow_flash_gets_more_power() {
    let (mut setup, mut kit) = example();
    setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(1.0 / 200.0), f_number: Some(9.0), iso: Some(100.0) };
    let exact = |setup: &Setup, kit: &Kit| {
        let card = solved(setup, kit).dial_card.lights.remove(0);
        (card.power_exact.expect("on").replace('−', "-").parse::<f64>().expect("a number"), card.facts)
    };
    kit.flashes[1].durations.clear();
    let (quick, _) = exact(&setup, &kit);
    // The dial's 1/200 is 2^(−23/3) s.
    let t01_s = 2.0 * (-23.0_f64 / 3.0).exp2();
    kit.flashes[1].durations = vec![tolva_core::flash::Duration { power_stops: 0.0, t01_s }];
    let (slow, facts) = exact(&setup, &kit);
    assert!((slow - quick - 0.548).abs() < 0.011, "{slow} {quick}");
    assert!(says(&facts, "Burns").contains("longer than the shutter: ⅔ stop is lost"), "{facts:?}");
    // In high-speed sync it is a train of pulses: nothing of the kind is lost, nor said.
    setup.sync = Sync::HighSpeed;
    setup.fixed.shutter_s = Some(1.0 / 1600.0);
    setup.fixed.f_number = Some(2.8);
    assert!(!says(&exact(&setup, &kit).1, "Burns").contains("longer than the shutter"));
}

/// Lenses that begin between the clicks, on every kind of click: the plan may use their first aperture, and says it.
#[rstest]
#[case(1.8, tolva_core::scale::Step::Third)]
#[case(1.8, tolva_core::scale::Step::Half)]
#[case(1.8, tolva_core::scale::Step::Whole)]
#[case(4.5, tolva_core::scale::Step::Half)]
#[case(0.95, tolva_core::scale::Step::Whole)]
fn a_lens_is_used_from_its_first_aperture(#[case] widest: f64, #[case] step: tolva_core::scale::Step) {
    let (mut setup, mut kit) = example();
    (kit.lenses[0].widest_f_number, kit.cameras[0].aperture_step) = (widest, step);
    read(&mut setup, [0.0, -1.0, -2.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let plan = solved(&setup, &kit);
    assert!((plan.dial_card.aperture.nominal - widest).abs() < 1e-9, "{}", plan.says);
}
