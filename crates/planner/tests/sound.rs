//! Setups that once came out wrong: what a photographer would have seen at once.

use rstest::rstest;
use tolva_core::ambient::Role;
use tolva_core::exposure::Ambient;
use tolva_planner::change::Change;
use tolva_planner::fixes::{FixKind, Outside, fixes};
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::setup::{Blend, Kit, Light, LightWish, Region, Setup};
use tolva_planner::shortfall::Limit;

/// A background and a face at these exposure values, a 200 Ws head in a 90 cm octabox at 1.5 m.
fn dim(blend: Blend, background: f64, lit: f64) -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup { blend, ..Setup::new("dim", &kit) };
    for region in &mut setup.regions {
        region.ambient = Ambient::guessed(match region.role {
            Role::Background => background,
            Role::LitSide => lit,
            _ => lit - 1.0,
        });
    }
    setup.lights[0].modifier_id = Some("octagon-90".to_owned());
    (setup, kit)
}

fn planned<'a>(setup: &'a Setup, kit: &'a Kit) -> (Prepared<'a>, Plan) {
    let prepared = Prepared::new(setup, kit).expect("a setup");
    let plan = Plan::of(&prepared);
    (prepared, plan)
}

const LIFT: Blend = Blend::Lift { subject_stops: 0.0, background_stops: -1.0 };

/// The face is on target, whatever becomes of a background that is out of reach; letting that fall is the first fix.
#[rstest]
#[case(-4.0, -5.0)]
#[case(-1.0, -2.0)]
#[case(1.0, 0.0)]
#[case(2.0, 1.0)]
fn dim_light_does_not_sacrifice_the_face(#[case] background: f64, #[case] lit: f64) {
    let (setup, kit) = dim(LIFT, background, lit);
    let (prepared, plan) = planned(&setup, &kit);
    let face = plan.outcome.regions[prepared.lit].together;
    assert!(face.0.abs() < 0.35, "face {face:?} at {:?}", plan.outcome.settings);
    assert!(plan.outcome.flashes());
    let all = fixes(&prepared, &plan, &kit);
    if !plan.possible() {
        let FixKind::Changes(first) = &all[0].what else { panic!("{:?}", all[0]) };
        assert!(matches!(first.changes[..], [Change::PlaceBackground { .. }]), "{:?}", first.changes);
        assert!(all[0].closes);
    }
    for fix in &all {
        if let FixKind::Outside(Outside::HigherIso { to, .. }) = &fix.what {
            assert!(to.nominal <= 25_600.0, "{to:?}");
        }
    }
}

/// In light enough nothing changes: the background is placed, the face lifted.
#[rstest]
#[case(13.0, 12.0)]
#[case(9.0, 8.0)]
#[case(6.0, 5.0)]
fn in_usual_light_both_are_on_target(#[case] background: f64, #[case] lit: f64) {
    let (setup, kit) = dim(LIFT, background, lit);
    let (prepared, plan) = planned(&setup, &kit);
    let at = |region: usize| plan.outcome.regions[region].together.0;
    assert!(plan.possible(), "{:?}", plan.shortfalls);
    assert!(at(prepared.lit).abs() < 0.35 && (at(prepared.background) + 1.0).abs() < 0.35);
}

/// A face that the ambient alone puts over its place is no reason to give up the background.
#[test]
fn a_background_is_not_given_up_for_what_no_flash_can_mend() {
    let (setup, kit) = dim(LIFT, 9.0, 11.0);
    let (prepared, plan) = planned(&setup, &kit);
    assert!((plan.outcome.regions[prepared.background].together.0 + 1.0).abs() < 0.35, "{:?}", plan.outcome.regions);
}

/// A light on the legs at −2 round a silhouette fires; the key does not.
#[test]
fn a_silhouette_keeps_lights_that_are_not_the_key() {
    let (mut setup, kit) = dim(Blend::Silhouette { background_stops: 0.0 }, 11.0, 7.0);
    let legs = Region { id: "legs".into(), name: "Legs".into(), role: Role::Part, ..setup.regions[1].clone() };
    setup.regions.push(Region { ambient: Ambient::guessed(7.0), ..legs });
    setup.lights.push(Light {
        aimed_at: Some("legs".into()),
        wish: LightWish::Place { stops: -2.0 },
        distance_m: Some(6.0),
        modifier_id: setup.lights[0].modifier_id.clone(),
        ..Light::new("B", &setup.lights[0].flash_id)
    });
    let (_, plan) = planned(&setup, &kit);
    assert!(plan.outcome.lights[0].is_none() && plan.outcome.lights[1].is_some(), "{:?}", plan.outcome.lights);
    assert!((plan.outcome.regions[3].together.0 + 2.0).abs() < 0.35, "{:?}", plan.outcome.regions[3]);
    assert!(plan.possible(), "{:?}", plan.shortfalls);
    // Without any flash the legs are missed, and that is said.
    setup.lights.pop();
    setup.lights[0].aimed_at = Some("legs".into());
    setup.lights[0].wish = LightWish::Place { stops: -2.0 };
    setup.lights[0].power_stops = Some(-7.0);
    setup.lights[0].distance_m = Some(30.0);
    let (_, plan) = planned(&setup, &kit);
    assert!(!plan.possible());
    assert!(plan.shortfalls.iter().any(|one| one.limit == Limit::FlashTooWeak), "{:?}", plan.shortfalls);
}

/// What sits on the camera gets nothing that no camera carries, and is moved nowhere.
#[test]
fn fixes_for_a_flash_on_the_camera() {
    let (mut setup, kit) = dim(LIFT, 16.0, 14.0);
    setup.lights[0].on_camera = true;
    setup.lights[0].modifier_id = None;
    setup.camera_distance_m = 30.0;
    setup.lights[0].distance_m = None;
    let (prepared, plan) = planned(&setup, &kit);
    assert!(!plan.possible());
    for fix in fixes(&prepared, &plan, &kit) {
        let FixKind::Changes(solved) = &fix.what else { continue };
        for change in &solved.changes {
            match change {
                Change::ChangeModifier { modifier_id, .. } => {
                    let modifier = kit.modifiers.iter().find(|one| one.id == *modifier_id).expect("it");
                    assert!(modifier.weight_kg <= 0.6, "{modifier_id}");
                }
                Change::MoveLight { .. } | Change::ManyUnits { .. } => panic!("{change:?}"),
                _ => {}
            }
        }
    }
}

/// An LED at 1.2 m as the key of a lift: dimmed until the face is on target, on the clicks of its dimmer, and off where the
/// ambient is enough. At full power it put the face 3⅓ stops over.
#[rstest]
#[case(8.0, 7.0)]
#[case(5.0, 4.0)]
#[case(4.0, 3.0)]
#[case(3.0, 2.0)]
fn continuous_lights_are_dimmed(#[case] background: f64, #[case] lit: f64) {
    let (mut setup, kit) = dim(LIFT, background, lit);
    setup.lights[0].flash_id = "lamp".to_owned();
    setup.lights[0].distance_m = Some(1.2);
    let (prepared, plan) = planned(&setup, &kit);
    let power = prepared.lamps[0].power.expect("it is on").0.0;
    assert!((power * 3.0).fract().abs() < 1e-6 || (power * 10.0).fract().abs() < 1e-6, "a click: {power}");
    let (at, lowest) = (plan.outcome.regions[prepared.lit].together.0, prepared.lamps[0].flash.power.lowest_stops);
    if power < 0.0 && power > lowest {
        assert!(at.abs() < 0.35, "face {at} at {power}");
    }
    if background <= 5.0 {
        assert!(power < -1.0 && plan.possible(), "{power} {:?}", plan.shortfalls);
    }
    // What somebody has set stays.
    setup.lights[0].power_stops = Some(-1.0);
    let (prepared, _) = planned(&setup, &kit);
    assert_eq!(prepared.lamps[0].power.map(|power| power.0.0), Some(-1.0));
}

/// Enough ambient: the light is off. A light that sits on nothing the blend places stays as it is.
#[test]
fn a_continuous_light_with_nothing_to_do_is_off() {
    let (mut setup, kit) = dim(LIFT, 12.0, 14.0);
    setup.lights[0].flash_id = "lamp".to_owned();
    let (prepared, _) = planned(&setup, &kit);
    assert_eq!(prepared.lamps[0].power, None);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let (prepared, _) = planned(&setup, &kit);
    assert_eq!(prepared.lamps[0].power.map(|power| power.0.0), Some(0.0), "the camera follows it");
}
