//! Several lights, together.

use super::*;
use tolva_planner::setup::ContinuousOutput;

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
        spill: spill.iter().map(|(id, stops)| Spill { region_id: (*id).to_owned(), stops: *stops }).collect(),
        ..Light::new(id, flash)
    };
    setup.lights[0].spill.push(Spill { region_id: "hair".to_owned(), stops: -4.0 });
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
    setup.fixed = tolva_planner::setup::Fixed {
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
    setup.lights[0].spill[0].stops = 0.0;
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::RegionOver], "{:?} {:?}", plan.shortfalls, plan.rail);
    assert!(plan.shortfalls[0].says.contains("other lights spill onto it"), "{}", plan.shortfalls[0].says);
    assert!(plan.fixes.iter().any(|remedy| remedy.does.starts_with("Keep what spills off")));
    // The fill has nothing to do there.
    assert_eq!(plan.dial_card.lights[1].power, None);
    let be = plan.fixes.iter().find(|remedy| remedy.does.starts_with("Let “Face, shadow side” be at")).expect("a way");
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
    kit.flashes[3].output = FlashOutput::Continuous(ContinuousOutput { lux_at_1_m: 6000.0, battery_full_min: None });
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
    use tolva_core::modifier::{Bounce, BounceOff, SurfaceColour};
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
    setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(8.0), iso: Some(100.0) };
    let given = |setup: &Setup| at(&solved(setup, &kit).rail[1].flashes[0].mark);
    let straight = given(&setup);
    setup.lights[0].feather_deg = 60.0;
    assert!((straight - given(&setup) - 1.0).abs() < 1e-9);
}

/// Common practice, no source: a flash two stops under fills eye sockets: the ratio of lit to shadow shrinks.
#[test]
fn a_fill_opens_the_shadow() {
    let (mut setup, kit) = example();
    read(&mut setup, [12.0, 12.0, 9.5]);
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -2.0 };
    setup.lights[0].spill[0].stops = 0.0;
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
    let background = drag("behind", Grip::Together, None, 0.0);
    assert_eq!(background.lights[3].wish, LightWish::Place { stops: 0.0 });
    assert_eq!(background.blend, setup.blend, "the ambient stays");
    let rim = drag("hair", Grip::Together, None, 1.0);
    assert!(matches!(rim.lights[2].wish, LightWish::Rim { over_stops } if (over_stops - 1.0).abs() < 0.34));
    let fill = drag("shadow", Grip::Flash, Some("B"), -0.5);
    assert!(matches!(fill.lights[1].wish, LightWish::Fill { ratio_stops } if ratio_stops < 1.0));
    let spill = drag("lit", Grip::Flash, Some("B"), -5.0);
    assert!(spill.lights[1].spill[0].stops < -1.0, "{:?}", spill.lights[1].spill);
    let nobody = Placing { region_id: "lit".to_owned(), grip: Grip::Flash, stops: 0.0, light_id: Some("Z".to_owned()) };
    assert_eq!(place(&setup, &kit, &nobody), Err(Refused::NoSuchLight("Z".to_owned())));
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
    let gap = plan.shortfalls.iter().find(|gap| gap.light_id.as_deref() == Some("D")).expect("its gap");
    assert_eq!(gap.limit, Limit::FlashTooWeak);
    assert!(gap.says.starts_with("D, the background, is"), "{}", gap.says);
    assert!(plan.fixes.iter().any(|remedy| remedy.does.starts_with("Bring D to")), "{:?}", plan.says);
}

/// Two lights that spill −0.2 stop onto each other's region, with equal wishes: neither is left to do the other's work.
/// In linear light each gives 1/(1 + 2^−0.2) of what is wanted.
#[test]
fn two_that_spill_onto_each_other_share_alike() {
    let (mut setup, kit) = example();
    read(&mut setup, [7.0, 2.0, 2.0]);
    setup.blend = Blend::Lift { subject_stops: 0.0, background_stops: 0.0 };
    let spill = |id: &str| vec![Spill { region_id: id.to_owned(), stops: -0.2 }];
    let light = |id: &str, wish, aim: &str, onto: &str| Light {
        wish,
        aimed_at: Some(aim.to_owned()),
        distance_m: Some(2.0),
        spill: spill(onto),
        ..Light::new(id, "large")
    };
    setup.lights = vec![
        light("A", LightWish::Key, "lit", "shadow"),
        light("B", LightWish::Fill { ratio_stops: 0.0 }, "shadow", "lit"),
    ];
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let power = |index: usize| plan.dial_card.lights[index].power_stops.expect("on");
    assert!((power(0) - power(1)).abs() < 1e-9, "{} {}", power(0), power(1));
    // Each 0.90 stop under the whole, but for what little the ambient gives.
    let own = at(&plan.rail[1].flashes[0].mark);
    assert!((own - (1.0 / (1.0 + (-0.2_f64).exp2())).log2()).abs() < 0.12, "{own}");
}

/// A key aimed at another region brings that one to where the blend wants the subject.
#[test]
fn a_key_fires_wherever_it_is_aimed() {
    let (mut setup, kit) = example();
    let mut row = setup.regions[1].clone();
    (row.id, row.name, row.role) = ("row".to_owned(), "Second row".to_owned(), Role::Part);
    setup.regions.push(row);
    setup.lights.push(Light { aimed_at: Some("row".to_owned()), ..Light::new("B", "medium") });
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert!(plan.dial_card.lights[1].power.is_some(), "it fires");
    assert!(at(&plan.rail[3].together).abs() < 0.34, "{:?}", plan.rail[3]);
    assert!(plan.rail[3].wish.as_ref().and_then(|wish| wish.stops).is_some_and(|wish| wish.abs() < 1e-9));
}

/// Every region that is off its wish is told, and all of it counts.
#[test]
fn every_region_that_is_off_is_told() {
    let (mut setup, kit) = four();
    setup.fixed = tolva_planner::setup::Fixed { iso: Some(100.0), f_number: Some(22.0), shutter_s: None };
    for light in &mut setup.lights {
        (light.distance_m, light.flash_id) = (Some(6.0), "small".to_owned());
    }
    let plan = solved(&setup, &kit);
    let weak: Vec<_> = plan.shortfalls.iter().filter(|gap| gap.limit == Limit::FlashTooWeak).collect();
    assert!(weak.len() >= 3, "{:?}", plan.shortfalls);
    assert!(plan.shortfalls.iter().map(|gap| gap.missing_stops).sum::<f64>() > 3.0);
}

/// A lamp that is bounced has the ceiling's loss and colour and no near field, and says what it loses.
#[test]
fn a_bounced_lamp_is_no_softbox() {
    use tolva_core::modifier::{Bounce, BounceOff, SurfaceColour};
    let (mut setup, kit) = example();
    read(&mut setup, [-6.0, -6.0, -6.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let bounce = Bounce { off: BounceOff::Ceiling, away_m: 1.2, reflectance: 0.8, colour: SurfaceColour::Brick };
    setup.lights = vec![Light {
        distance_m: Some(3.0),
        modifier_id: Some("softbox-60".to_owned()),
        bounce: Some(bounce),
        ..Light::new("A", "lamp")
    }];
    let plan = solved(&setup, &kit);
    let card = &plan.dial_card.lights[0];
    assert_eq!(card.near_field.as_deref(), Some("0.00"));
    let loss: f64 = card.loss.replace('−', "-").parse().expect("a number");
    let costs = bounce.at(tolva_core::scale::Metres(3.0)).loss.0;
    assert!((loss + costs + 4.0 / 3.0).abs() < 0.011, "{loss} {costs}");
    // 6000 lx at 1 m is 667 at 3 m, EV 8.06, less all that.
    let ev: f64 = plan.rail[1].ev.trim_start_matches("EV ").replace('−', "-").parse().expect("an EV");
    assert!((ev - (8.06 + loss)).abs() < 0.1, "{ev} {loss}");
    let mark = plan.colour.marks.iter().find(|mark| mark.id == "A").expect("a mark");
    assert!(mark.mired > 1e6 / 5500.0 + 100.0, "brick makes it warm: {}", mark.label);
    assert!(says(&card.facts, "Bounce").contains("against the head aimed straight"));
}
