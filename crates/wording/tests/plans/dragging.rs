//! Marks on the rail that are put somewhere else.

use super::*;

fn dragged(setup: &Setup, kit: &Kit, region: &str, grip: Grip, stops: f64) -> (Setup, Plan) {
    let placing = Placing { region_id: region.to_owned(), grip, stops, light_id: None };
    let placed = place(setup, kit, &placing).expect("a good placing");
    let plan = solved(&placed, kit);
    (placed, plan)
}

#[rstest]
#[case("behind", Grip::Together, -4.0 / 3.0)]
#[case("lit", Grip::Together, 1.0 / 3.0)]
#[case("lit", Grip::Flash, -2.0 / 3.0)]
#[case("lit", Grip::Ambient, -2.0)]
#[case("shadow", Grip::Flash, -3.0)]
#[case("shadow", Grip::Ambient, -3.0)]
fn a_mark_goes_where_it_is_put(#[case] region: &str, #[case] grip: Grip, #[case] stops: f64) {
    let (setup, kit) = example();
    for blend in Blend::OFFERED.into_iter().filter(|blend| blend.uses_flash()) {
        let setup = Setup { blend, ..setup.clone() };
        let (_, plan) = dragged(&setup, &kit, region, grip, stops);
        let lane = plan.rail.iter().find(|lane| lane.region_id == region).expect("the lane");
        let mark = match grip {
            Grip::Ambient => &lane.ambient,
            Grip::Flash => &lane.flashes[0].mark,
            Grip::Together => &lane.together,
        };
        assert!((at(mark) - stops).abs() < 0.36, "{blend:?}: {} for {stops}", at(mark));
    }
}

#[test]
fn behind_to_minus_one_and_a_third_and_the_face_to_nought() {
    let (mut setup, kit) = example();
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -2.0 };
    let (placed, _) = dragged(&setup, &kit, "behind", Grip::Together, -1.3);
    let (placed, plan) = dragged(&placed, &kit, "lit", Grip::Together, 0.1);
    assert_eq!(placed.blend, Blend::Lift { subject_stops: 0.0, background_stops: -4.0 / 3.0 });
    assert_eq!(plan.rail[0].together.at.label, "−1⅓");
}

#[test]
fn without_flash_everything_moves_together() {
    let (mut setup, kit) = example();
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let (placed, plan) = dragged(&setup, &kit, "behind", Grip::Together, 1.0);
    assert_eq!(placed.blend, Blend::AmbientOnly { subject_stops: -1.0 });
    assert_eq!(plan.rail[0].together.at.label, "+1");
}

#[test]
fn far_off_the_scale_is_held_at_its_end_and_nonsense_is_refused() {
    let (setup, kit) = example();
    let (placed, _) = dragged(&setup, &kit, "behind", Grip::Together, 12.0);
    assert_eq!(placed.blend, Blend::Lift { subject_stops: 0.0, background_stops: 3.0 });
    let nowhere = Placing { region_id: "sky".to_owned(), grip: Grip::Together, stops: 0.0, light_id: None };
    assert_eq!(place(&setup, &kit, &nowhere), Err(Refused::NoSuchRegion("sky".to_owned())));
    let nan = Placing { region_id: "lit".to_owned(), grip: Grip::Together, stops: f64::NAN, light_id: None };
    assert!(matches!(place(&setup, &kit, &nan), Err(Refused::OutOfRange { what: "stops", .. })));
}
