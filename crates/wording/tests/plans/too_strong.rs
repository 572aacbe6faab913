//! A flash that is too strong even at its lowest power, as at dusk and indoors: everything that helps is offered.

use super::*;

/// A room at EV 4 and a small flash a step away.
fn room(wanted: f64) -> (Setup, Kit) {
    let (mut setup, kit) = example();
    read(&mut setup, [4.0, 4.0, 3.0]);
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: wanted };
    setup.speed.slowest_shutter_s = Some(1.0 / 60.0);
    setup.fixed.f_number = Some(2.8);
    "small".clone_into(&mut setup.lights[0].flash_id);
    setup.lights[0].modifier_id = None;
    setup.lights[0].distance_m = Some(1.5);
    (setup, kit)
}

#[test]
fn everything_that_helps_is_offered() {
    let (mut setup, kit) = room(-1.0);
    setup.lights[0].distance_m = Some(2.6);
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::FlashTooStrong], "{}", plan.says);
    let codes: Vec<&Change> = plan.fixes.iter().flat_map(|fix| &fix.changes).collect();
    let has = |of: fn(&Change) -> bool| codes.iter().any(|change| of(change));
    assert!(has(|change| matches!(change, Change::MoveLight { nearer: false, .. })), "{codes:?}");
    assert!(has(|change| matches!(change, Change::AddNeutralGel { .. })), "{codes:?}");
    assert!(has(|change| matches!(change, Change::ChangeModifier { .. })), "{codes:?}");
    assert!(plan.fixes.iter().any(|fix| fix.does.starts_with("Bounce A off a ceiling")), "{:?}", plan.fixes);
    // What says that it closes the gap does.
    for fix in plan.fixes.iter().filter(|fix| fix.closes) {
        assert!(solved(&fix.setup.as_ref().expect("solved").read(), &kit).possible, "{}", fix.does);
    }
}

/// The least gel that is enough is taken, and the kit's are named; without any, what to do instead is said.
#[test]
fn neutral_gel_is_found_or_named() {
    let (mut setup, mut kit) = room(-1.0);
    setup.lights[0].distance_m = Some(2.6);
    let gels = |kit: &Kit| {
        solved(&setup, kit).fixes.into_iter().find_map(|fix| match fix.changes.as_slice() {
            [Change::AddNeutralGel { gel_ids, .. }] => Some((fix.does, gel_ids.clone(), fix.closes)),
            _ => None,
        })
    };
    let (does, ids, closes) = gels(&kit).expect("a gel");
    assert!(closes && does.ends_with("on A") && does.starts_with("Put neutral gel"), "{does}");
    assert!(ids.iter().all(|id| id.starts_with("neutral")), "{ids:?}");
    kit.gels.retain(|gel| !gel.is_neutral());
    assert!(gels(&kit).is_none());
    let told = solved(&setup, &kit).fixes;
    assert!(told.iter().any(|fix| fix.setup.is_none() && fix.does.contains("of neutral gel on A")), "{told:?}");
}

/// Feathered, a light loses by the cosine what there is too much of.
#[test]
fn feathering_takes_what_is_too_much() {
    let (mut setup, kit) = room(-1.0);
    setup.lights[0].distance_m = Some(5.0);
    let plan = solved(&setup, &kit);
    let feathered = plan.fixes.iter().find_map(|fix| match fix.changes.as_slice() {
        [Change::FeatherLight { feather_deg, .. }] => Some((*feather_deg, fix.closes)),
        _ => None,
    });
    let (turned, closes) = feathered.unwrap_or_else(|| panic!("{:?}", plan.fixes));
    let lost = -tolva_core::modifier::off_axis(turned, 1.0).0;
    assert!(
        closes && (lost - plan.shortfalls[0].missing_stops).abs() < 0.1,
        "{lost} {}",
        plan.shortfalls[0].missing_stops
    );
}

/// A long way over, one step is not enough: two are found.
#[test]
fn two_steps_together() {
    let (mut setup, mut kit) = room(-2.0);
    kit.modifiers.retain(|modifier| modifier.id == "dome");
    kit.flashes.truncate(1);
    setup.lights[0].bounce = Some(tolva_core::modifier::Bounce {
        off: tolva_core::modifier::BounceOff::Ceiling,
        away_m: 0.6,
        reflectance: 0.9,
        colour: tolva_core::modifier::SurfaceColour::White,
    });
    setup.lights[0].distance_m = Some(1.0);
    let plan = solved(&setup, &kit);
    assert!(!plan.possible && plan.shortfalls[0].missing_stops > 3.2, "{:?}", plan.shortfalls);
    let closing = plan.fixes.iter().find(|fix| fix.closes && fix.setup.is_some());
    assert!(closing.is_some_and(|fix| fix.changes.len() == 2), "{:?}", plan.fixes);
}
