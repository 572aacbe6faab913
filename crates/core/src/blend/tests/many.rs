//! Several lights, together.

use super::*;
use crate::job::{ContinuousOutput, Role};
use crate::scale::{Power, Stops};

/// A key with a fill, a rim and a light on what lies behind; the rim has a region of its own.
fn four() -> (Setup, Kit) {
    let (mut setup, kit) = example();
    read(&mut setup, [7.0, 6.0, 5.0]);
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -4.0 };
    let mut hair = setup.regions[2].clone();
    (hair.id, hair.name, hair.role) = ("hair".to_owned(), "Hair".to_owned(), Role::Part);
    setup.regions.push(hair);
    let light = |id: &str, flash: &str, wish, aimed_at: &str, spill: &[(&str, f64)]| Light {
        wish,
        aimed_at: Some(aimed_at.to_owned()),
        distance_m: Some(2.0),
        reaches: spill.iter().map(|(id, stops)| Reach { region_id: (*id).to_owned(), stops: *stops }).collect(),
        ..Light::new(id, flash)
    };
    setup.lights[0].reaches.push(Reach { region_id: "hair".to_owned(), stops: -4.0 });
    setup.lights.extend([
        light("B", "small", LightWish::Fill { ratio_stops: 1.0 }, "shadow", &[("lit", -1.0)]),
        light("C", "small", LightWish::Rim { over_stops: 0.5 }, "hair", &[("shadow", -3.0)]),
        light("D", "medium", LightWish::Place { stops: -1.0 }, "behind", &[]),
    ]);
    (setup, kit)
}

#[test]
fn every_wish_is_met_together() {
    let (setup, kit) = four();
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let ends: Vec<f64> = plan.rail.iter().map(|lane| at(&lane.together)).collect();
    for (ends, wish) in ends.iter().zip([-1.0, 0.0, -1.0, 0.5]) {
        assert!((ends - wish).abs() < 1.0 / 3.0, "{ends} {wish}");
    }
    assert_eq!(plan.dial_card.lights.len(), 4);
    assert!(plan.dial_card.lights.iter().all(|light| light.power.is_some()));
    // The fill lights the lit side too, so the key does less than it would alone.
    let alone = Setup { lights: setup.lights[..1].to_vec(), ..setup.clone() };
    let key = |plan: &Plan| plan.dial_card.lights[0].power_exact.clone().expect("on");
    assert_ne!(key(&plan), key(&solved(&alone, &kit)));
}

/// Turning one light off takes from every region just what it gave there.
#[test]
fn lights_add() {
    let (mut setup, kit) = four();
    let whole = solved(&setup, &kit);
    for (light, card) in setup.lights.iter_mut().zip(&whole.dial_card.lights) {
        light.power_stops = card.power_stops;
        light.distance_m = card.distance_m;
    }
    setup.fixed = crate::job::Fixed {
        shutter_s: Some(whole.dial_card.shutter.nominal),
        f_number: Some(whole.dial_card.aperture.nominal),
        iso: Some(whole.dial_card.iso.nominal),
    };
    for left_out in 1..4 {
        let mut fewer = setup.clone();
        let id = fewer.lights.remove(left_out).id;
        let plan = solved(&fewer, &kit);
        for (with, without) in whole.rail.iter().zip(&plan.rail) {
            let gave =
                with.flashes.iter().find(|flash| flash.light_id == id).map_or(0.0, |flash| at(&flash.mark).exp2());
            let sum = at(&without.together).exp2() + gave;
            assert!((sum.log2() - at(&with.together)).abs() < 1e-9, "{id} {}", with.name);
        }
    }
}

#[test]
fn what_spills_over_the_wish_is_told() {
    let (mut setup, kit) = four();
    setup.lights[0].reaches[0].stops = 0.0;
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::RegionOff]);
    assert!(plan.gaps[0].says.contains("other lights spill onto it"), "{}", plan.gaps[0].says);
    assert!(plan.remedies.iter().any(|remedy| remedy.does.starts_with("Keep what spills off")));
    // The fill has nothing to do there.
    assert_eq!(plan.dial_card.lights[1].power, None);
    let be =
        plan.remedies.iter().find(|remedy| remedy.does.starts_with("Let “Face, shadow side” be at")).expect("a way");
    assert!(be.closes);
}

/// Two small units as one are a stop, √2 in guide number.
#[test]
fn two_units_are_a_stop() {
    let (mut setup, kit) = example();
    let exact = |plan: &Plan| {
        plan.dial_card.lights[0].power_exact.clone().expect("on").replace('−', "-").parse::<f64>().expect("a number")
    };
    let one = exact(&solved(&setup, &kit));
    setup.lights[0].units = 2;
    let two = exact(&solved(&setup, &kit));
    assert!((one - two - 1.0).abs() < 0.011, "{one} {two}");
    assert!(solved(&setup, &kit).dial_card.lights[0].flash.starts_with("2 × "));
}

/// A gel's loss goes into the power at once.
#[test]
fn a_gel_takes_its_light() {
    let (mut setup, kit) = example();
    let power = |setup: &Setup| solved(setup, &kit).dial_card.lights[0].power_stops.expect("on");
    let bare = power(&setup);
    setup.lights[0].gel_ids = vec!["warm-full".to_owned(), "warm-eighth".to_owned()];
    assert!((power(&setup) - bare - 1.0).abs() < 0.34);
    assert!(solved(&setup, &kit).workings.iter().any(|line| line.says == "Its gels take" && line.gives == "−1.08"));
}

/// A lamp counts as ambient: 6000 lx at 1 m is 1500 lx at 2 m, EV 9.23 by a flat receptor.
#[test]
fn a_lamp_is_ambient() {
    let (mut setup, mut kit) = example();
    read(&mut setup, [-6.0, -6.0, -6.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    kit.flashes[3].output = FlashOutput::Continuous(ContinuousOutput { lux_at_1_m: 6000.0 });
    setup.lights = vec![Light { distance_m: Some(2.0), ..Light::new("A", "lamp") }];
    let plan = solved(&setup, &kit);
    assert_eq!(plan.rail[1].ev, "EV 9.2");
    assert_eq!(plan.rail[0].ev, "EV −6.0");
    assert!(plan.rail[1].flashes.is_empty());
    let card = &plan.dial_card.lights[0];
    assert!(card.continuous && card.flash.starts_with("LED") && card.power.as_deref() == Some("1/1"));
    // It may be dimmed, and two are twice as much.
    setup.lights[0].power_stops = Some(-1.0);
    setup.lights[0].units = 2;
    assert_eq!(solved(&setup, &kit).rail[1].ev, "EV 9.2");
}

/// Bounced off a white ceiling, a small flash on the camera gives two to three stops less.
#[test]
fn a_bounce_costs_and_softens() {
    use crate::modifier::{Bounce, BounceOff, SurfaceColour};
    let (mut setup, kit) = example();
    read(&mut setup, [5.0, 4.0, 3.0]);
    setup.camera_distance_m = 3.0;
    setup.lights = vec![Light { on_camera: true, distance_m: Some(3.0), ..Light::new("A", "small") }];
    let straight = solved(&setup, &kit);
    assert!(straight.cautions.iter().any(|caution| caution.heading == "Flash on the camera"));
    setup.lights[0].bounce =
        Some(Bounce { off: BounceOff::Ceiling, away_m: 1.2, reflectance: 0.8, colour: SurfaceColour::White });
    let bounced = solved(&setup, &kit);
    let power = |plan: &Plan| plan.dial_card.lights[0].power_stops.expect("on");
    assert!((1.6..3.4).contains(&(power(&bounced) - power(&straight))));
    let facts = &bounced.dial_card.lights[0].facts;
    assert!(
        facts.iter().any(|fact| fact.about == "Bounce" && fact.says.contains("stops against the head aimed straight"))
    );
    assert!(facts.iter().any(|fact| fact.about == "Softness" && fact.says.contains("soft")));
    assert!(bounced.cautions.iter().any(|caution| caution.heading == "Colour of the bounce"));
}

/// A light that is turned away gives less by the cosine to its exponent.
#[test]
fn turned_away_gives_less() {
    let (mut setup, kit) = example();
    setup.lights[0].power_stops = Some(-2.0);
    setup.fixed = crate::job::Fixed { shutter_s: Some(0.005), f_number: Some(8.0), iso: Some(100.0) };
    let given = |setup: &Setup| at(&solved(setup, &kit).rail[1].flashes[0].mark);
    let straight = given(&setup);
    setup.lights[0].turned_deg = 60.0;
    assert!((straight - given(&setup) - 1.0).abs() < 1e-9);
}

/// Common practice, no source: a flash two stops under fills eye sockets: the ratio of lit to shadow shrinks.
#[test]
fn a_fill_opens_the_shadow() {
    let (mut setup, kit) = example();
    read(&mut setup, [12.0, 12.0, 9.5]);
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -2.0 };
    setup.lights[0].reaches[0].stops = 0.0;
    let ratio = solved(&setup, &kit).ratio.expect("a shadow side");
    let (before, after) = (ratio.before.stops.expect("two"), ratio.after.stops.expect("two"));
    assert!((before - 2.5).abs() < 1e-9);
    // By hand: log₂(1 + ¼) − log₂(2^−2.5 + ¼), within the dial's rounding.
    assert!((after - (1.25_f64.log2() - (2.0_f64.powf(-2.5) + 0.25).log2())).abs() < 0.1, "{after}");
}

#[test]
fn a_mark_of_one_light_moves_its_own_wish() {
    let (setup, kit) = four();
    let drag = |region: &str, grip, light: Option<&str>, stops| {
        let placing = Placing { region_id: region.to_owned(), grip, stops, light_id: light.map(str::to_owned) };
        place(&setup, &kit, &placing).expect("placed")
    };
    let behind = drag("behind", Grip::Together, None, 0.0);
    assert_eq!(behind.lights[3].wish, LightWish::Place { stops: 0.0 });
    assert_eq!(behind.blend, setup.blend, "the ambient stays");
    let rim = drag("hair", Grip::Together, None, 1.0);
    assert!(matches!(rim.lights[2].wish, LightWish::Rim { over_stops } if (over_stops - 1.0).abs() < 0.34));
    let fill = drag("shadow", Grip::Flash, Some("B"), -0.5);
    assert!(matches!(fill.lights[1].wish, LightWish::Fill { ratio_stops } if ratio_stops < 1.0));
    let spill = drag("lit", Grip::Flash, Some("B"), -5.0);
    assert!(spill.lights[1].reaches[0].stops < -1.0, "{:?}", spill.lights[1].reaches);
    let nobody = Placing { region_id: "lit".to_owned(), grip: Grip::Flash, stops: 0.0, light_id: Some("Z".to_owned()) };
    assert_eq!(place(&setup, &kit, &nobody).expect_err("no such light").0[0].pointer, "/place/light_id");
}

#[test]
fn a_light_too_weak_is_named() {
    let (mut setup, kit) = four();
    setup.lights[3].distance_m = Some(20.0);
    setup.lights[3].flash_id = "small".to_owned();
    setup.lights[3].wish = LightWish::Place { stops: 2.5 };
    setup.fixed.iso = Some(100.0);
    setup.fixed.f_number = Some(11.0);
    let plan = solved(&setup, &kit);
    let gap = plan.gaps.iter().find(|gap| gap.light_id.as_deref() == Some("D")).expect("its gap");
    assert_eq!(gap.limit, Limit::FlashTooWeak);
    assert!(gap.says.starts_with("D, the background, is"), "{}", gap.says);
    assert!(plan.remedies.iter().any(|remedy| remedy.does.starts_with("Bring D to")), "{:?}", plan.says);
}

proptest! {
    /// The powers are a least-squares answer: moving any free light's power a little never brings the regions nearer
    /// to what is wished, in the sum the powers are found by.
    #[test]
    fn no_small_change_is_better(
        fill in 0.0..3.0_f64, rim in -1.0..1.0_f64, place in -3.0..0.0_f64, spill in -4.0..0.0_f64,
    ) {
        let (mut setup, kit) = four();
        setup.lights[1].wish = LightWish::Fill { ratio_stops: fill };
        setup.lights[2].wish = LightWish::Rim { over_stops: rim };
        setup.lights[3].wish = LightWish::Place { stops: place };
        setup.lights[1].reaches[0].stops = spill;
        let checked = CheckedSetup::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&checked);
        let error = |change: usize, by: f64| {
            let mut sum = 0.0;
            for (region, wish) in outcome.wishes.iter().enumerate() {
                let wanted = match wish {
                    FlashWish::Unused => continue,
                    FlashWish::Wanted(stops) => stops.ratio(),
                    FlashWish::AmbientOver(_) => 0.0,
                };
                let given: f64 = (0..4)
                    .filter_map(|light| {
                        let at = outcome.lights[light]?;
                        let exact = outcome.regions[region].each[light] + at.exact.0 - at.power.0;
                        Some(exact.ratio() * if light == change { 1.0 + by } else { 1.0 })
                    })
                    .sum();
                let counts = if region == checked.lit { crate::blend::lights::LIT_COUNTS } else { 1.0 };
                sum += counts * ((given - wanted) / wanted.max(1.0 / 64.0)).powi(2);
            }
            sum
        };
        // Only where no light is held at an end of its dial.
        let inside = outcome.lights.iter().zip(&checked.lights).all(|(at, light)| {
            at.is_some_and(|at| at.exact < Power::FULL && at.exact.0 > light.lowest.0 + Stops(0.01))
        });
        if inside {
            for light in (0..4).filter(|light| outcome.lights[*light].is_some()) {
                prop_assert!(error(light, 0.01) >= error(light, 0.0) - 1e-9);
                prop_assert!(error(light, -0.01) >= error(light, 0.0) - 1e-9);
            }
        }
    }
}
