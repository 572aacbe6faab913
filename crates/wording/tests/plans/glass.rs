//! Glass in words: walk-through 5, and what is said where nothing is the matter.

use super::walkthroughs::setup;
use super::*;
use tolva_planner::set::{Addition, PaneUse};
use tolva_planner::setup::{CardKind, Finish, PaneGlazing};
use tolva_wording::{GlassReport, MapAsked, plan_with_set, plate_names};

fn glass(setup: &Setup, kit: &Kit, remedies: bool) -> GlassReport {
    let asked = MapAsked { remedies, ..MapAsked::default() };
    plan_with_set(setup, kit, Show::default(), &write, &asked).expect("a plan").glass.expect("asked for")
}

/// The grower among her orchids: a pane between her and the camera, and the greenhouse's glass behind her.
fn grower(kit: &Kit) -> Setup {
    let mut grower =
        setup(kit, ["EV 11.5", "EV 10", "EV 9"], Blend::Lift { subject_stops: 0.0, background_stops: -1.0 });
    (grower.focal_length_mm, grower.camera_distance_m) = (50.0, 3.5);
    grower.use_set();
    grower.add_to_set(kit, &Addition::Pane(PaneUse::ShotThrough)).expect("room");
    grower.add_to_set(kit, &Addition::Pane(PaneUse::ShopWindow)).expect("room");
    let set = grower.set.as_mut().expect("used");
    "Greenhouse pane".clone_into(&mut set.panes[0].name);
    "Glass behind".clone_into(&mut set.panes[1].name);
    grower
}

/// Walk-through 5: the light belongs on the grower's side; where the softbox shows in the glass behind; a longer lens from
/// farther back, raising and moving the light are offered, each with its price.
#[test]
fn the_orchid_grower() {
    let kit = Kit::starter();
    let mut grower = grower(&kit);
    let report = glass(&grower, &kit, true);
    let behind = report.findings.iter().find(|one| one.name == "A" && one.glass_name == "Glass behind");
    let behind = behind.expect("the octagon in the glass behind");
    assert!(behind.shows && behind.share_percent > 0.0 && !behind.outlines.is_empty(), "{behind:?}");
    assert!(report.says.contains("shows in “Glass behind”"), "{}", report.says);
    let of = report.remedies.iter().flatten().find(|of| of.name == "A").expect("what to do about it");
    let codes: Vec<&str> = of.offers.iter().flat_map(|one| one.codes.clone()).collect();
    assert!(codes.contains(&"raise") || codes.contains(&"round") || codes.contains(&"feather"), "{codes:?}");
    assert!(of.offers.iter().all(|one| one.costs.starts_with("Costs")), "{:?}", of.offers);
    assert_eq!(of.plate_lights_off, ["A"]);
    // The loss through the pane before her is in the plan: one sheet, 0.12 stops.
    let loss = report.shot_through.iter().find(|fact| fact.code == "glass_loss").expect("it is shot through");
    assert!((loss.numbers["loss_stops"] - 0.12).abs() < 0.01);
    // On the camera's side of it the light is told to change sides.
    let side = |report: &GlassReport| {
        report.shot_through.iter().find(|fact| fact.code == "glass_side").expect("told").says.clone()
    };
    assert!(side(&report).contains("where they belong"), "{}", side(&report));
    grower.lights[0].distance_m = Some(2.6);
    grower.lights[0].place.as_mut().expect("placed").direction_deg = 190.0;
    let wrong = glass(&grower, &kit, false);
    assert!(side(&wrong).starts_with("A stands on your side"), "{}", side(&wrong));
    assert!(wrong.remedies.is_none(), "not asked for");
}

/// Upright and with the light well to the side, the same framing at a longer lens from farther back leaves it out: the frame
/// shows less of what lies behind.
#[test]
fn a_longer_lens_is_offered() {
    let mut kit = Kit::starter();
    kit.lenses[0].longest_mm = 300.0;
    let mut grower = grower(&kit);
    (grower.focal_length_mm, grower.lights[0].distance_m) = (70.0, Some(2.2));
    let set = grower.set.as_mut().expect("used");
    set.panes.remove(0);
    set.camera.portrait = true;
    let report = glass(&grower, &kit, true);
    let of = report.remedies.iter().flatten().find(|of| of.name == "A").expect("it shows");
    let longer = of.offers.iter().find(|one| one.codes == ["longer_lens"]).expect("a longer lens");
    assert!(longer.does.starts_with("The same framing at ") && longer.costs.contains("perspective"), "{longer:?}");
    assert!(glass(&Setup { set: None, ..grower }, &kit, true).says.starts_with("There is no glass"));
}

#[test]
fn nothing_shows_and_it_is_said() {
    let kit = Kit::starter();
    let mut grower = grower(&kit);
    let set = grower.set.as_mut().expect("used");
    set.panes.truncate(1);
    set.panes[0].y_m = 30.0;
    set.panes[0].glazing = PaneGlazing::Mirror;
    set.panes[0].facing_deg = 0.0;
    let report = glass(&grower, &kit, true);
    assert!(
        report.any && report.findings.is_empty() && report.says == "Nothing shows in any glass.",
        "{}",
        report.says
    );
}

#[test]
fn a_shiny_product_says_its_card() {
    let kit = Kit::starter();
    let mut tin = setup(&kit, ["EV 5", "EV 7", "EV 4"], Blend::AmbientOnly { subject_stops: 0.0 });
    tin.add_to_set(&kit, &Addition::Product).expect("room");
    tin.set.as_mut().expect("used").products[0].finish = Finish::Satin;
    let report = glass(&tin, &kit, false);
    let says = &report.gloss[0].says;
    assert!(report.gloss[0].card && says.contains("mirrors") && says.contains("To fill it"), "{says}");
    let id = report.gloss[0].product_id.clone();
    tin.card_for_gloss(&kit, &id, CardKind::Black).expect("a card");
    let filled = glass(&tin, &kit, false);
    assert!(
        !filled.gloss[0].card && filled.gloss[0].says.contains("fills it from end to end"),
        "{}",
        filled.gloss[0].says
    );
}

#[test]
fn plates_are_named_by_what_is_off() {
    let two = ["A".to_owned(), "B".to_owned()];
    assert_eq!(plate_names(&two, false).1, "Clean plate, without A, B");
    assert_eq!(plate_names(&two, true).1, "Clean plate, without A, B and people");
    assert_eq!(plate_names(&[], true).1, "Clean plate, without people");
    assert_eq!(plate_names(&[], false).1, "Clean plate, as it is");
}
