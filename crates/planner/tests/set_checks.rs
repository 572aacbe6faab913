//! What is said of a set: each notice where it belongs, and none where nothing is amiss.

use rstest::rstest;
use tolva_core::ambient::{Scene, Site};
use tolva_core::scale::LengthUnit;
use tolva_core::time::LocalTime;
use tolva_planner::lighting::Prepared;
use tolva_planner::set::{Addition, SetNotice, To, distances, notices};
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
#[case::camera_in_a_wall(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Backdrop).unwrap();
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
#[case::two_in_one_place(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Person).unwrap();
    setup.set.as_mut().unwrap().people[1].x_m = 0.05;
}, "in_one_place")]
#[case::in_the_frame(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((-0.3, -1.0)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "in_frame")]
#[case::a_rim_flares(|setup: &mut Setup, kit: &Kit| {
    setup.move_on_set(kit, &Thing::Light("A".to_owned()), Some((-1.5, 1.0)), (0, 0), (false, LengthUnit::Metres)).unwrap();
}, "flare")]
#[case::near_an_edge(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Hazard(HazardKind::Edge)).unwrap();
}, "near_hazard")]
#[case::a_cable_across(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Hazard(HazardKind::Cable)).unwrap();
}, "cable_across")]
#[case::a_line_overhead(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Hazard(HazardKind::OverheadLine)).unwrap();
    let line = &mut setup.set.as_mut().unwrap().hazards[0];
    (line.from_y_m, line.to_y_m, line.height_m) = (-1.0, -1.0, 4.0);
}, "under_line")]
#[case::a_fall_into_the_road(|setup: &mut Setup, _: &Kit| {
    setup.add_to_set(Addition::Hazard(HazardKind::Road)).unwrap();
    let road = &mut setup.set.as_mut().unwrap().hazards[0];
    (road.from_y_m, road.to_y_m) = (-2.5, -2.5);
}, "falls")]
#[case::wind(|setup: &mut Setup, _: &Kit| {
    setup.set.as_mut().unwrap().wind_m_s = Some(10.0);
}, "wind")]
#[case::a_boom(|setup: &mut Setup, _: &Kit| {
    setup.lights[0].place.as_mut().unwrap().support = Support::Boom { arm_m: 1.2 };
}, "boom")]
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
