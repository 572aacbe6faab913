//! What is said of a set: each notice where it belongs, and none where nothing is amiss.

use rstest::rstest;
use tolva_core::ambient::{Scene, Site};
use tolva_core::scale::LengthUnit;
use tolva_core::time::LocalTime;
use tolva_planner::lighting::Prepared;
use tolva_planner::set::{Addition, BoomLoad, SetNotice, To, distances, notices};
use tolva_planner::setup::{HazardKind, Kit, Setup, Support};
use tolva_planner::staging::{Stage, Thing};

fn begun() -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup::new("one", &kit);
    setup.lights[0].stand_id = Some("light".to_owned());
    setup.use_set();
    (setup, kit)
}

fn said(setup: &Setup, kit: &Kit) -> Vec<SetNotice> {
    let prepared = Prepared::new(setup, kit).expect("a setup");
    let stage = Stage::of(setup, kit);
    notices(&prepared, (kit, &stage), &distances(setup, kit))
}

fn codes(setup: &Setup, kit: &Kit) -> Vec<&'static str> {
    said(setup, kit).iter().map(SetNotice::code).collect()
}

#[test]
fn a_set_as_it_begins_is_in_order() {
    let (setup, kit) = begun();
    assert_eq!(codes(&setup, &kit), Vec::<&str>::new());
}

#[rstest]
#[case::light_in_a_person(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((0.0, 0.15)), (0, 0), (false, LengthUnit::Metres)).unwrap();
    setup.raise_on_set(kit, &Thing::Light("A".to_owned()), To { to: Some(1.2), by: 0.0 }, LengthUnit::Metres).unwrap();
}, "inside")]
#[case::camera_in_a_wall(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Backdrop).unwrap();
    let wall = &mut setup.set.as_mut().unwrap().walls[0];
    (wall.from_y_m, wall.to_y_m) = (-3.0, -3.0);
}, "inside")]
#[case::a_stand_too_low(|setup: &mut Setup, kit: &Kit| {
    setup.raise_on_set(kit, &Thing::Light("A".to_owned()), To { to: Some(3.4), by: 0.0 }, LengthUnit::Metres).unwrap();
}, "stand_too_low")]
#[case::behind_its_subject(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((0.5, 2.0)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "nothing_arrives")]
#[case::on_the_other_side(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((0.8, -1.4)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "other_side_lit")]
#[case::everything_at_one_point(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].distance_m = Some(0.1);
    setup.camera_distance_m = 0.05;
}, "all_at_one_point")]
#[case::two_in_one_place(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Person).unwrap();
    setup.set.as_mut().unwrap().people[1].x_m = 0.05;
}, "in_one_place")]
#[case::in_the_frame(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((-0.3, -1.0)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "in_frame")]
#[case::a_rim_flares(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((-1.5, 1.0)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "flare")]
#[case::near_an_edge(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Hazard(HazardKind::Edge)).unwrap();
}, "near_hazard")]
#[case::a_cable_across(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Hazard(HazardKind::Cable)).unwrap();
}, "cable_across")]
#[case::a_line_overhead(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Hazard(HazardKind::OverheadLine)).unwrap();
    let line = &mut setup.set.as_mut().unwrap().hazards[0];
    (line.from_y_m, line.to_y_m, line.height_m) = (-1.0, -1.0, 4.0);
}, "under_line")]
#[case::a_fall_into_the_road(|setup: &mut Setup, kit: &Kit| {
    setup.add_to_set(kit, &Addition::Hazard(HazardKind::Road)).unwrap();
    let road = &mut setup.set.as_mut().unwrap().hazards[0];
    (road.from_y_m, road.to_y_m) = (-2.5, -2.5);
}, "falls")]
#[case::wind(|setup: &mut Setup, _: &Kit| {
    setup.set.as_mut().unwrap().wind_m_s = Some(10.0);
}, "wind")]
#[case::a_boom(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].place.as_mut().unwrap().support = Support::Boom { arm_m: 1.2 };
}, "boom")]
#[case::a_boom_too_short(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].place.as_mut().unwrap().support = Support::Boom { arm_m: 1.6 };
    setup.lights[0].boom_id = Some("short".to_owned());
}, "boom_too_short")]
#[case::heat(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].flash_id = "lamp".to_owned();
}, "heat")]
#[case::bare_near_eyes(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].modifier_id = None;
    setup.lights[0].distance_m = Some(0.6);
}, "bare_near_eyes")]
fn each_is_told(#[case] amiss: impl Fn(&mut Setup, &Kit), #[case] code: &str) {
    let (mut setup, kit) = begun();
    amiss(&mut setup, &kit);
    let found = codes(&setup, &kit);
    assert!(found.contains(&code), "{found:?}");
}

/// A boom that is long enough and carries what goes before it is told for its weight alone; one that does not carry it,
/// with both weights.
#[test]
fn a_boom_carries_what_its_maker_says() {
    let (mut setup, mut kit) = begun();
    setup.lights[0].place.as_mut().expect("placed").support = Support::Boom { arm_m: 1.5 };
    setup.lights[0].boom_id = Some("short".to_owned());
    let over = |setup: &Setup, kit: &Kit| {
        let found = said(setup, kit);
        found.into_iter().find_map(|one| if let SetNotice::Boom { over, .. } = one { Some(over) } else { None })
    };
    assert_eq!(over(&setup, &kit), Some(None));
    assert!(!codes(&setup, &kit).contains(&"boom_too_short"));
    kit.booms[0].carries_kg = 0.5;
    let unit = kit.flashes.iter().position(|one| one.id == setup.lights[0].flash_id).expect("it");
    kit.flashes[unit].weight_kg = None;
    let load = |hangs_kg, carries_kg, unit_weighed| Some(Some(BoomLoad { hangs_kg, carries_kg, unit_weighed }));
    assert_eq!(over(&setup, &kit), load(0.9, 0.5, false), "the octabox alone is heavier");
    // A 5 kg head on a 4 kg boom.
    (kit.booms[0].carries_kg, kit.flashes[unit].weight_kg) = (4.0, Some(5.0));
    assert_eq!(over(&setup, &kit), load(5.9, 4.0, true));
}

/// A light in the frame is told as flare, and no flag is offered: it would be in the picture. One just beside the frame has
/// its flag out of it.
#[test]
fn a_flag_is_never_in_the_picture() {
    let (mut setup, kit) = begun();
    let (mut offered, mut withheld) = (0, 0);
    for step in 0..=24 {
        let x = -0.25 * f64::from(step);
        let place = Some((x, 1.2));
        setup.move_on_set(&kit, &Thing::Light("A".to_owned()), place, (0, 0), (false, LengthUnit::Metres)).unwrap();
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let view = prepared.stage.as_ref().expect("used").view;
        for notice in said(&setup, &kit) {
            let SetNotice::Flare { flag, .. } = notice else { continue };
            let mut with = setup.clone();
            let put = with.add_flag(&kit, Some("A"));
            assert_eq!(flag.is_some(), put.is_ok(), "what is offered can be done");
            match flag {
                Some(_) => {
                    let card = with.set.as_ref().expect("used").cards.last().expect("it").clone();
                    assert!(!view.shows(&card.panel().corners()), "in the picture at {x}");
                    offered += 1;
                }
                None => withheld += 1,
            }
        }
    }
    assert!(offered > 2 && withheld > 2, "{offered} {withheld}");
}

/// What is put there from the kit has the kit's size and name; what the kit has not is refused.
#[test]
fn things_of_the_kit_go_onto_the_set() {
    let (mut setup, kit) = begun();
    setup.add_to_set(&kit, &Addition::Board("black".to_owned())).expect("in the kit");
    setup.add_to_set(&kit, &Addition::FromRoll("grey".to_owned())).expect("in the kit");
    let set = setup.set.as_ref().expect("used");
    let (card, roll) = (&set.cards[0], &set.walls[0]);
    assert_eq!((card.width_m, card.height_m, card.name.as_str()), (1.0, 2.0, "Black board, 1 × 2 m"));
    assert!((roll.to_x_m - roll.from_x_m - 2.7).abs() < 1e-9 && (roll.reflectance - 0.18).abs() < 1e-9);
    let before = setup.clone();
    for what in [Addition::Board("none".to_owned()), Addition::FromRoll("none".to_owned())] {
        assert!(setup.add_to_set(&kit, &what).is_err());
    }
    assert_eq!(setup, before);
}

/// A stand that tips in the wind onto somebody says so.
#[test]
fn a_fall_onto_somebody_is_told_with_the_wind() {
    let (mut setup, kit) = begun();
    setup.set.as_mut().expect("used").wind_m_s = Some(10.0);
    let reached = |setup: &Setup| {
        said(setup, &kit).into_iter().find_map(|one| match one {
            SetNotice::Wind { reaches, .. } => Some(reaches),
            _ => None,
        })
    };
    assert_eq!(reached(&setup), Some(Some(Thing::Person("person-1".to_owned()))));
    setup.lights[0].distance_m = Some(6.0);
    assert_eq!(reached(&setup), Some(None));
}

/// The ballast is the sum of the core: 0.67 m² at 10 m/s (physics.md §4: 0.9 × 0.9 m is 59.5 N).
#[test]
fn the_wind_is_the_cores() {
    let (mut setup, kit) = begun();
    setup.set.as_mut().expect("used").wind_m_s = Some(10.0);
    let found = said(&setup, &kit);
    let force =
        found.iter().find_map(|one| if let SetNotice::Wind { force_n, .. } = one { Some(*force_n) } else { None });
    assert!((force.expect("told") - 59.535 * 0.67 / 0.81).abs() < 0.01);
}

/// Outdoors a wind is reckoned with also where nobody has said one, and the sun on the front glass is told.
#[test]
fn outdoors_there_is_wind_and_sun() {
    let (mut setup, kit) = begun();
    let site = Site {
        name: String::new(),
        latitude_deg: 60.0,
        longitude_deg: 25.0,
        elevation_m: 0.0,
        time_zone: "Europe/Helsinki".to_owned(),
    };
    let at = LocalTime { date: "2026-08-29".to_owned(), time: "18:30".to_owned(), second_time: false };
    let mut scene = Scene::new(site, at);
    // The sun stands in the west: the camera looks there.
    scene.facing_deg = 90.0;
    setup.scene = Some(scene);
    let found = said(&setup, &kit);
    assert!(found.iter().any(|one| matches!(one, SetNotice::Wind { assumed: true, .. })), "{found:?}");
    assert!(found.iter().any(|one| matches!(one, SetNotice::Flare { light: None, .. })), "{found:?}");
    assert!(found.iter().any(SetNotice::can_hurt));
}
