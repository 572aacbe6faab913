//! Laws of every plan: setups of any numbers within the format, possible or not.

use super::*;

prop_compose! {
    fn any_blend()(kind in 0..6usize, a in -6.0..3.0_f64, b in -5.0..0.0_f64) -> Blend {
        match kind {
            0 => Blend::Lift { subject_stops: a, background_stops: b },
            1 => Blend::Fill { ambient_stops: a, fill_stops: b },
            2 => Blend::HalfAndHalf { subject_stops: a },
            3 => Blend::Overpower { subject_stops: a, ambient_stops: b },
            4 => Blend::Silhouette { background_stops: a },
            _ => Blend::AmbientOnly { subject_stops: a },
        }
    }
}

prop_compose! {
    /// Up to three lights with any kit of the starter's.
    pub(super) fn any_setup()(
        blend in any_blend(), evs in [-6.0..18.0_f64, -6.0..18.0, -6.0..18.0], camera in 0..2usize, flash in 0..3usize,
        modifier in proptest::option::of(0..6usize), distance in proptest::option::of(0.1..20.0_f64),
        power in proptest::option::of(-7.0..0.0_f64), shutter in proptest::option::of(0.0001..30.0_f64),
        aperture in proptest::option::of(1.0..45.0_f64), iso in proptest::option::of(50.0..12_800.0_f64),
        filters in 0..4usize, more in proptest::collection::vec(any_light(), 0..3), sync in 0..2usize, depth in 0..4usize,
    ) -> Setup {
        let kit = Kit::starter();
        let mut setup = Setup::new("any", &kit);
        read(&mut setup, evs);
        setup.blend = blend;
        setup.camera_id.clone_from(&kit.cameras[camera].id);
        setup.filter_ids = [vec![], vec!["nd-3"], vec!["nd-6"], vec!["nd-3", "nd-6"]][filters]
            .iter()
            .map(|id: &&str| (*id).to_owned())
            .collect();
        setup.sync = [Sync::Ordinary, Sync::HighSpeed][sync];
        setup.depth = [
            Depth::Free,
            Depth::OneHead,
            Depth::Rows { rows: 3, apart_m: 0.6 },
            Depth::CloseUp { magnification: 0.7, depth_mm: 8.0, stacked: true, overlap: 0.3 },
        ][depth];
        setup.fixed = tolva_planner::setup::Fixed { shutter_s: shutter, f_number: aperture, iso };
        let light = &mut setup.lights[0];
        light.flash_id.clone_from(&kit.flashes[flash].id);
        light.modifier_id = modifier.map(|index| kit.modifiers[index].id.clone());
        light.distance_m = distance;
        light.power_stops = power;
        for (index, mut light) in more.into_iter().enumerate() {
            ["B", "C"][index].clone_into(&mut light.id);
            setup.lights.push(light);
        }
        setup
    }
}

prop_compose! {
    fn any_light()(
        flash in 0..3usize, wish in 0..3usize, stops in 0.0..2.0_f64, distance in 0.4..5.0_f64, spill in -6.0..0.0_f64,
        units in 1..4u8,
    ) -> Light {
        let (wish, aimed_at) = match wish {
            0 => (LightWish::Fill { ratio_stops: stops }, "shadow"),
            1 => (LightWish::Rim { over_stops: stops - 1.0 }, "shadow"),
            _ => (LightWish::Place { stops: stops - 2.0 }, "behind"),
        };
        Light {
            units,
            wish,
            aimed_at: Some(aimed_at.to_owned()),
            distance_m: Some(distance),
            spill: vec![Spill { region_id: "lit".to_owned(), stops: spill }],
            ..Light::new("more", ["small", "medium", "large"][flash])
        }
    }
}

proptest! {
    /// Never a panic; the same input gives the same plan; what is fixed stays; a possible plan keeps every limit; a
    /// remedy that says it closes the gap does.
    #[test]
    fn laws_of_every_plan(setup in any_setup()) {
        let kit = Kit::starter();
        let plan = solved(&setup, &kit);
        prop_assert_eq!(&plan, &solved(&setup, &kit));
        for lane in &plan.rail {
            let flash: f64 = lane.flashes.iter().filter_map(|f| f.mark.at.stops).map(f64::exp2).sum();
            let sum = (at(&lane.ambient).exp2() + flash).log2();
            prop_assert!((at(&lane.together) - sum).abs() < 1e-9, "lights add");
        }
        if plan.possible {
            let camera = kit.cameras.iter().find(|camera| camera.id == setup.camera_id).expect("its camera");
            for light in plan.dial_card.lights.iter().filter(|light| light.power.is_some()) {
                let high_speed = setup.sync == Sync::HighSpeed;
                prop_assert!(high_speed || plan.dial_card.shutter.exact > camera.sync_rated_s * 0.97);
                prop_assert!(light.power_stops.expect("on") <= 0.0);
            }
            for lane in &plan.rail {
                if let Some(wish) = lane.wish.as_ref().and_then(|wish| wish.stops) {
                    prop_assert!((at(&lane.together) - wish).abs() <= TOLERATED, "{:?}", lane);
                }
            }
            prop_assert!(plan.fixes.is_empty());
        } else {
            prop_assert!(!plan.shortfalls.is_empty());
        }
        for remedy in &plan.fixes {
            if let Some(done) = &remedy.setup {
                prop_assert_eq!(solved(&done.read(), &kit).possible, remedy.closes, "{}", &remedy.does);
            }
        }
    }

    /// More power is never less light, and nearer never darker.
    #[test]
    fn flash_grows_with_power_and_nearness(p in -6.0..-0.5_f64, d in 0.5..5.0_f64) {
        let (mut setup, kit) = example();
        let mut given = |power: f64, distance: f64| {
            setup.lights[0].power_stops = Some(power);
            setup.lights[0].distance_m = Some(distance);
            setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(8.0), iso: Some(100.0) };
            at(&solved(&setup, &kit).rail[1].flashes[0].mark)
        };
        let here = given(p, d);
        prop_assert!(given(p + 0.4, d) > here);
        prop_assert!(given(p, d * 0.9) > here);
    }
}
