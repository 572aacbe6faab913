//! The set: the walk-throughs on a set that is drawn, and laws of every set.

use super::every_plan::any_setup;
use super::walkthroughs::setup;
use super::*;
use tolva_core::scale::LengthUnit as Unit;
use tolva_planner::set::{Addition, Arrangement, To};
use tolva_planner::setup::CardKind;
use tolva_planner::staging::Thing;
use tolva_wording::{DrawnAs, MapAsked, SetReport, plan_with_set, set_drawing, set_moves};

fn with_set(setup: &Setup, kit: &Kit) -> Plan {
    plan_with_set(setup, kit, Show::default(), &write, &MapAsked::default()).expect("a plan")
}

fn set_of(setup: &Setup, kit: &Kit) -> SetReport {
    with_set(setup, kit).set.expect("asked for")
}

fn codes(set: &SetReport) -> Vec<&str> {
    set.notices.iter().map(|note| note.code).collect()
}

/// The keeper in the doorway: behind a stop to a stop and a half under, three quarters or more of the face from the flash,
/// from 1.5 m between 1/8 and 1/4, and the wind on the octagon is told. By the set instead of by a guess.
#[test]
fn the_keeper_in_the_doorway() {
    let kit = Kit::starter();
    let readings = ["EV 12.6", "EV 11.3", "EV 10.3"];
    let mut keeper = setup(&kit, readings, Blend::Lift { subject_stops: 0.0, background_stops: -4.0 / 3.0 });
    keeper.lights[0].stand_id = Some("light".to_owned());
    keeper.use_set();
    keeper.set.as_mut().expect("used").wind_m_s = Some(6.0);
    let plan = with_set(&keeper, &kit);
    assert!(plan.possible, "{}", plan.says);
    let power = plan.dial_card.lights[0].power_stops.expect("on");
    assert!((-3.0..=-2.0 + 0.4).contains(&power), "{power}");
    let share: f64 = plan.rail[1].flash_share.trim_end_matches(" %").parse().expect("percent");
    assert!(share >= 75.0, "{share}");
    let set = plan.set.expect("asked for");
    assert!(codes(&set).contains(&"wind"), "{:?}", codes(&set));
    assert!(set.reaches.iter().all(|reach| reach.from_set));
    assert_eq!(set.moves[0], "A: 1.50 m from the face, 40° to its right, 0.51 m over the eyes");
}

/// Fourteen singers in three rows over 2.4 m: exposed for the sun behind them, a fill near equal to it, two small flashes, falloff front to back, and what would be even.
#[test]
fn fourteen_singers() {
    let kit = Kit::starter();
    let mut singers =
        setup(&kit, ["EV 15", "EV 12.3", "EV 12"], Blend::Lift { subject_stops: -1.0 / 3.0, background_stops: 0.0 });
    (singers.camera_distance_m, singers.focal_length_mm) = (6.0, 35.0);
    singers.lights[0].flash_id = "small".to_owned();
    singers.lights[0].distance_m = Some(4.0);
    singers.add_light(&kit).expect("a second");
    singers.lights[1].flash_id = "small".to_owned();
    singers.lights[1].distance_m = Some(4.0);
    singers.arrange(&kit, Arrangement::Rows { rows: 3, in_each: 5 }).expect("people");
    singers.remove_from_set(&kit, &Thing::Person("person-15".to_owned())).expect("fourteen");
    for person in &mut singers.set.as_mut().expect("used").people {
        person.y_m *= 1.5;
    }
    let plan = with_set(&singers, &kit);
    assert!(
        plan.shortfalls.iter().any(|gap| gap.limit == Limit::FlashTooWeak && gap.missing_stops > 0.6),
        "{}",
        plan.says
    );
    let even = plan.set.expect("asked for").evenness.expect("a group");
    assert_eq!(even.people.len(), 14);
    assert!(!even.even && even.spread.stops.expect("light") > 0.5, "{}", even.says);
    assert!(even.people.iter().any(|one| one.worst && one.name.contains("Person 1")), "{}", even.says);
    assert!(even.says.contains("third") || even.says.contains("nearer together"), "{}", even.says);
}

/// The award evening: a flash on the camera off a wall of pale boards beside costs two stops and more, is very soft, and
/// comes back warmer.
#[test]
fn the_award_evening() {
    let kit = Kit::starter();
    let mut awards =
        setup(&kit, ["EV 4", "EV 5", "EV 4.5"], Blend::Lift { subject_stops: 0.0, background_stops: -2.0 });
    awards.lights[0] = Light { on_camera: true, ..Light::new("A", "small") };
    awards.add_to_set(&kit, &Addition::WallLeft).expect("a wall");
    let wall = awards.set.as_mut().expect("used").walls[0].id.clone();
    awards.set.as_mut().expect("used").walls[0].colour = tolva_core::modifier::SurfaceColour::Wood;
    let straight = with_set(&awards, &kit);
    awards.aim_on_set(&kit, "A", &Thing::Wall(wall)).expect("at the wall");
    let bounced = with_set(&awards, &kit);
    let power = |plan: &Plan| plan.dial_card.lights[0].power_stops.expect("on");
    assert!((1.5..6.0).contains(&(power(&bounced) - power(&straight))), "{} {}", power(&bounced), power(&straight));
    let light = &bounced.set.as_ref().expect("asked for").lights[0];
    let fact = |code: &str| light.facts.iter().find(|fact| fact.code == code).expect("told");
    assert!(fact("softness").says.contains("very soft"), "{:?}", fact("softness"));
    assert!(fact("bounce_colour").numbers["shift_mired"] > 10.0);
    assert!(fact("bounce").numbers["loss_stops"] > 1.5);
    assert!(bounced.cautions.iter().any(|caution| caution.heading == "Colour of the bounce"));
}

/// The teapot by the window: white card against fill as a curve that falls with distance, black the other way.
#[rstest]
#[case(CardKind::White, 1.0)]
#[case(CardKind::Black, -1.0)]
fn the_teapot_by_the_window(#[case] kind: CardKind, #[case] sign: f64) {
    let kit = Kit::starter();
    let mut teapot = setup(&kit, ["EV 5", "EV 7", "EV 4"], Blend::AmbientOnly { subject_stops: 0.0 });
    teapot.regions[2].ambient.readings.clear();
    teapot.add_to_set(&kit, &Addition::Window).expect("a window");
    teapot.add_to_set(&kit, &Addition::Card(kind)).expect("a card");
    let card = set_of(&teapot, &kit).card.expect("a curve");
    let by: Vec<f64> = card.points.iter().map(|at| at[1] * sign).collect();
    assert!(by[1] > 0.05 && by.last().expect("its end") < &by[1], "{by:?}");
    assert!((card.now[0] - 0.9).abs() < 0.2 && card.now[1] * sign > 0.0, "{:?}", card.now);
    assert!(card.says.contains(if sign > 0.0 { "adds" } else { "takes" }), "{}", card.says);
}

/// In feet and inches the words are feet and inches, and the drawing says its scale.
#[test]
fn words_in_the_persons_units() {
    let kit = Kit::starter();
    let setup = Setup::new("one", &kit);
    let show = Show { length: LengthUnit::FeetAndInches, ..Show::default() };
    let moves = set_moves(&setup, &kit, show).expect("a setup");
    assert!(moves[0].starts_with("A: 4 ft 11 in from the face"), "{}", moves[0]);
    assert!(moves.iter().all(|line| !line.contains(" m ")), "{moves:?}");
    let drawing = set_drawing(&setup, &kit, show, DrawnAs::Sheet).expect("a setup");
    assert!(drawing.contains("1 to 40 as printed") && drawing.contains("4 ft 11 in"));
}

/// A light that is raised gives the face less and is told in words; turned off by feathering, less again.
#[test]
fn raised_and_feathered() {
    let kit = Kit::starter();
    let mut setup =
        setup(&kit, ["EV 13", "EV 11", "EV 10"], Blend::Lift { subject_stops: 0.0, background_stops: -1.0 });
    // The same settings throughout, so that the power alone says what arrives.
    setup.fixed = tolva_planner::setup::Fixed { shutter_s: Some(0.005), f_number: Some(8.0), iso: Some(100.0) };
    setup.use_set();
    let power = |setup: &Setup| with_set(setup, &kit).dial_card.lights[0].power_exact.clone().expect("on");
    let read = |text: &str| text.replace('−', "-").parse::<f64>().expect("a number");
    let level = read(&power(&setup));
    let light = Thing::Light("A".to_owned());
    setup.raise_on_set(&kit, &light, To { to: Some(3.0), by: 0.0 }, Unit::Metres).expect("raised");
    let high = read(&power(&setup));
    setup.turn_on_set(&kit, &light, To { to: Some(40.0), by: 0.0 }).expect("turned");
    let turned = read(&power(&setup));
    assert!(level + 0.3 < high && high + 0.2 < turned, "{level} {high} {turned}");
    let words = &set_of(&setup, &kit).moves[0];
    assert!(words.contains("1.40 m over the eyes") && words.contains("turned 40° towards the camera"), "{words}");
}

/// What reaches other regions follows from the set: its mark is no handle, and where it was dragged nothing is typed.
#[test]
fn what_the_set_says_is_not_dragged() {
    let kit = Kit::starter();
    let mut setup = Setup::new("one", &kit);
    let placing = Placing { region_id: "shadow".to_owned(), grip: Grip::Flash, stops: -1.0, light_id: None };
    let grip = |setup: &Setup| with_set(setup, &kit).rail[2].flashes[0].mark.grip;
    assert!(grip(&setup).is_some(), "typed, it is");
    setup.use_set();
    assert!(grip(&setup).is_none());
    assert_eq!(place(&setup, &kit, &placing).expect("a setup").lights[0].spill, setup.lights[0].spill);
}

/// What happens to a set in these laws.
#[derive(Clone, Debug)]
enum Act {
    Move(f64, f64),
    Raise(f64),
    Turn(f64),
    Add(usize),
    Arrange(u8, u8),
    Aim(usize),
}

fn any_act() -> impl Strategy<Value = Act> {
    prop_oneof![
        (-6.0..6.0_f64, -6.0..6.0_f64).prop_map(|(x, y)| Act::Move(x, y)),
        (0.0..5.0_f64).prop_map(Act::Raise),
        (0.0..360.0_f64).prop_map(Act::Turn),
        (0..10usize).prop_map(Act::Add),
        (1..4u8, 1..5u8).prop_map(|(rows, each)| Act::Arrange(rows, each)),
        (0..4usize).prop_map(Act::Aim),
    ]
}

const ADDED: [Addition; 10] = [
    Addition::Person,
    Addition::Product,
    Addition::Backdrop,
    Addition::WallLeft,
    Addition::Ceiling,
    Addition::Floor,
    Addition::Window,
    Addition::Card(CardKind::Silver),
    Addition::Card(CardKind::Diffuser),
    Addition::Card(CardKind::Mirror),
];

fn act(setup: &mut Setup, kit: &Kit, act: &Act, on: usize) {
    let things = [
        Thing::Camera,
        Thing::Person("person-1".to_owned()),
        Thing::Light(
            setup.lights.get(on % setup.lights.len().max(1)).map_or_else(String::new, |light| light.id.clone()),
        ),
        Thing::Card("card-1".to_owned()),
    ];
    let thing = &things[on % things.len()];
    // What is not there is refused, and nothing else happens.
    _ = match act {
        Act::Move(x, y) => setup.move_on_set(kit, thing, Some((*x, *y)), (0, 0), (on.is_multiple_of(2), Unit::Metres)),
        Act::Raise(to) => setup.raise_on_set(kit, thing, To { to: Some(*to), by: 0.0 }, Unit::Metres),
        Act::Turn(to) => setup.turn_on_set(kit, thing, To { to: Some(*to), by: 0.0 }),
        Act::Add(what) => setup.add_to_set(kit, &ADDED[*what]),
        Act::Arrange(rows, in_each) => setup.arrange(kit, Arrangement::Rows { rows: *rows, in_each: *in_each }),
        Act::Aim(at) => {
            let at = [
                Thing::Ceiling,
                Thing::Wall("wall-1".to_owned()),
                Thing::Region("behind".to_owned()),
                Thing::Card("card-1".to_owned()),
            ][*at]
                .clone();
            let light = setup.lights.first().map_or_else(String::new, |light| light.id.clone());
            setup.aim_on_set(kit, &light, &at)
        }
    };
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    /// Whatever is done to a set: the setup stays one that a document may hold, and there is a plan of numbers, with a map,
    /// words and a drawing.
    #[test]
    fn every_set_is_planned(setup in any_setup(), acts in proptest::collection::vec((any_act(), 0..8usize), 1..7)) {
        let kit = Kit::starter();
        let mut setup = setup;
        setup.use_set();
        for (one, on) in &acts {
            act(&mut setup, &kit, one, *on);
        }
        prop_assert!(checked(&setup, &kit).is_ok(), "{:?}", checked(&setup, &kit));
        let plan = with_set(&setup, &kit);
        let set = plan.set.as_ref().expect("asked for");
        prop_assert_eq!(set.map.hundredths.len(), 96 * 64);
        let finite = set.things.iter().flat_map(|one| one.plan.iter().chain(&one.side)).flatten().all(|at| at.iter().all(|n| n.is_finite()));
        prop_assert!(finite);
        prop_assert!(plan.rail.iter().all(|region| region.together.at.stops.is_none_or(f64::is_finite)));
        prop_assert!(set.lights.iter().all(|light| light.over_m.is_finite()));
        let json = serde_json::to_string(&plan).expect("JSON");
        prop_assert!(!json.contains("NaN"));
        prop_assert!(set_drawing(&setup, &kit, Show::default(), DrawnAs::Sheet).is_ok());
        // The same again, bit for bit.
        prop_assert_eq!(serde_json::to_string(&with_set(&setup, &kit)).expect("JSON"), json);
    }
}
