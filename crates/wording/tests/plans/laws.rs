//! Laws that hold whatever the numbers are.

use super::*;
use tolva_core::colour::{BalanceReason, StatedColour, WhiteBalance};

fn exact_power(plan: &Plan) -> f64 {
    plan.dial_card.lights[0].power_exact.clone().expect("on").replace('−', "-").parse().expect("a number")
}

/// A setup of up to four lights with whatever colours, wishes and gels.
fn any_setup() -> impl Strategy<Value = (Setup, Kit)> {
    let evs = (-2.0..16.0_f64, -2.0..16.0_f64, -2.0..16.0_f64);
    let wish = prop_oneof![
        Just(LightWish::Key),
        (0.0..4.0_f64).prop_map(|ratio_stops| LightWish::Fill { ratio_stops }),
        (-2.0..3.0_f64).prop_map(|over_stops| LightWish::Rim { over_stops }),
        (-4.0..2.0_f64).prop_map(|stops| LightWish::Place { stops }),
    ];
    let light = (wish, 0usize..3, 0usize..3, 0.3..6.0_f64, 0usize..12);
    let balance = prop_oneof![
        Just(WhiteBalance::Flash),
        Just(WhiteBalance::Ambient),
        Just(WhiteBalance::Between),
        Just(WhiteBalance::Measured),
        (1500.0..12_000.0_f64, -0.02..0.02_f64).prop_map(|(kelvin, tint_duv)| WhiteBalance::Kelvin {
            kelvin,
            tint_duv,
            reason: BalanceReason::ByHand
        }),
    ];
    let colours = proptest::collection::vec((1000.0..20_000.0_f64, -0.03..0.03_f64), 3);
    (evs, 0usize..6, proptest::collection::vec(light, 0..4), balance, colours).prop_map(
        |(evs, blend, lights, white_balance, colours)| {
            let kit = Kit::starter();
            let mut setup = Setup::new("any", &kit);
            read(&mut setup, [evs.0, evs.1, evs.2]);
            for (region, (kelvin, tint_duv)) in setup.regions.iter_mut().zip(colours) {
                region.ambient.colour = StatedColour::Kelvin { kelvin, tint_duv };
            }
            setup.blend = Blend::OFFERED[blend];
            setup.white_balance = white_balance;
            setup.lights = lights
                .into_iter()
                .enumerate()
                .map(|(index, (wish, unit, aim, distance, gel))| Light {
                    wish,
                    aimed_at: Some(setup.regions[aim].id.clone()),
                    distance_m: Some(distance),
                    gel_ids: kit.gels.get(gel).map(|gel| gel.id.clone()).into_iter().collect(),
                    ..Light::new(["A", "B", "C", "D"][index], &kit.flashes[unit].id)
                })
                .collect();
            (setup, kit)
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(160))]

    /// Whatever is asked, there is an answer, it is the same every time, and every number in it is one.
    #[test]
    fn there_is_always_one_answer((setup, kit) in any_setup()) {
        let first = solved(&setup, &kit);
        prop_assert_eq!(&first, &solved(&setup, &kit));
        for region in &first.colour.regions {
            prop_assert!(region.cast_mired.is_finite() && region.cast_duv.is_finite() && region.off_grey_uv.is_finite());
            prop_assert!(region.swatches.iter().all(|one| one.hex.len() == 7 && one.hex.starts_with('#')));
        }
        for lane in &first.rail {
            prop_assert!(lane.uncertainty_stops.is_finite() && lane.uncertainty_stops > 0.0);
        }
        prop_assert!(first.possible == first.shortfalls.is_empty());
    }

    /// What the plan sets lies on the dials of camera and units, and a plan that is possible keeps the sync.
    #[test]
    fn what_is_set_lies_on_the_dials((setup, kit) in any_setup()) {
        let plan = solved(&setup, &kit);
        let card = &plan.dial_card;
        prop_assert!((100.0..=6400.0).contains(&card.iso.nominal));
        let lit = card.lights.iter().any(|light| light.power.is_some());
        if plan.possible && lit {
            prop_assert!(card.shutter.nominal >= 1.0 / 250.0 - 1e-9, "{}", card.shutter.label);
        }
        for (light, card) in setup.lights.iter().zip(&card.lights) {
            if let Some(power) = card.power_stops {
                let unit = kit.flashes.iter().find(|flash| flash.id == light.flash_id).expect("the unit");
                prop_assert!((unit.power.lowest_stops..=0.0).contains(&power), "{power}");
            }
        }
    }

    /// A way that is offered can be taken, is no worse, and every school is one setup with one thing changed.
    #[test]
    fn ways_and_schools_lead_on((setup, kit) in any_setup()) {
        let now: f64 = solved(&setup, &kit).shortfalls.iter().map(|gap| gap.missing_stops).sum();
        for way in alternatives(&setup, &kit, Show::default()).expect("ways").options {
            let then: f64 = solved(&way.setup.read(), &kit).shortfalls.iter().map(|gap| gap.missing_stops).sum();
            prop_assert!(then <= now + 1e-6, "{}", way.name);
        }
        let ways = colour_options(&setup, &kit, Show::default()).expect("ways");
        prop_assert_eq!(ways.conventions.iter().filter(|way| way.chosen).count(), 1);
        for way in ways.conventions {
            prop_assert!(plan(&way.setup.read(), &kit, Show::default()).is_ok(), "{}", way.name);
        }
    }

    /// Far away the inverse square: twice the distance is two stops of power.
    #[test]
    fn far_away_the_inverse_square(distance in 4.0..7.0_f64, ev in 1.0..5.0_f64) {
        let (mut setup, mut kit) = example();
        // How long it burns hangs on its power: what a quick shutter cuts off is tried by itself.
        kit.flashes[2].durations.clear();
        read(&mut setup, [ev + 2.0, ev, ev - 1.0]);
        setup.lights[0].flash_id = "large".to_owned();
        setup.lights[0].modifier_id = None;
        setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(5.6), iso: Some(100.0) };
        let mut power = |metres| {
            setup.lights[0].distance_m = Some(metres);
            exact_power(&solved(&setup, &kit))
        };
        prop_assume!(power(distance) > -8.0);
        let more = power(distance * 2.0) - power(distance);
        prop_assert!((more - 2.0).abs() < 0.02, "{more}");
    }

    /// More ambient on the face, with everything else held, never asks for more flash.
    #[test]
    fn more_ambient_less_flash(ev in 6.0..10.0_f64, more in 0.1..2.0_f64) {
        let (mut setup, kit) = example();
        setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(5.6), iso: Some(100.0) };
        let mut power = |lit: f64| {
            read(&mut setup, [12.0, lit, lit - 1.0]);
            solved(&setup, &kit).dial_card.lights[0].power_stops.unwrap_or(-20.0)
        };
        prop_assert!(power(ev + more) <= power(ev) + 1e-9);
    }

    /// A filter takes from ambient and flash alike: what the flash must give grows by its density, stop for stop.
    #[test]
    fn a_filter_takes_from_both(filter in 0usize..2) {
        let (mut setup, kit) = example();
        setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(8.0), iso: Some(100.0) };
        setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: 0.0 };
        let before = solved(&setup, &kit);
        setup.filter_ids = vec![kit.filters[filter].id.clone()];
        let after = solved(&setup, &kit);
        let density = kit.filters[filter].density_stops;
        prop_assert!((at(&before.rail[1].ambient) - at(&after.rail[1].ambient) - density).abs() < 1e-9);
    }
}
