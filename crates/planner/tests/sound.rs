//! Setups that once came out wrong: what a photographer would have seen at once.

use rstest::rstest;
use tolva_core::ambient::{Role, Scene, Site};
use tolva_core::exposure::Ambient;
use tolva_core::optics::Movement;
use tolva_core::scale::{DialEnd, Step};
use tolva_core::time::LocalTime;
use tolva_planner::cautions::{Caution, cautions};
use tolva_planner::change::Change;
use tolva_planner::colour::InColour;
use tolva_planner::fixes::{FixKind, Outside, fixes};
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::set::Addition;
use tolva_planner::setup::{Blend, Depth, Kit, Light, LightWish, Region, Setup};
use tolva_planner::shortfall::{Because, Held, Limit};

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
    // A power that is locked stays.
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

/// Facing west into a low sun outdoors: the light is warm, and no room of lamps.
#[test]
fn a_sunset_is_no_room_of_lamps() {
    let (mut setup, kit) = dim(LIFT, 9.0, 8.0);
    setup.scene = Some(scene("20:15", 290.0));
    for region in &mut setup.regions {
        region.ambient.colour = tolva_core::colour::StatedColour::Kelvin { kelvin: 2990.0, tint_duv: 0.0 };
    }
    let told = |setup: &Setup| {
        let (prepared, plan) = planned(setup, &kit);
        let colour = InColour::of(&prepared, &plan.outcome);
        cautions(&prepared, &plan, &colour, &kit).iter().map(Caution::code).collect::<Vec<_>>()
    };
    assert!(!told(&setup).contains(&"no_gel_among_lamps"), "{:?}", told(&setup));
    // The same light indoors is one.
    setup.scene = None;
    assert!(told(&setup).contains(&"no_gel_among_lamps"), "{:?}", told(&setup));
}

/// 60° north, late August.
fn scene(time: &str, facing_deg: f64) -> Scene {
    let site = Site {
        name: String::new(),
        latitude_deg: 60.2,
        longitude_deg: 25.0,
        elevation_m: 0.0,
        time_zone: "Europe/Helsinki".to_owned(),
    };
    let at = LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false };
    Scene { facing_deg, ..Scene::new(site, at) }
}

/// Fill at 0 in full sun with the face in its shade: the background ends white, and that is told.
#[test]
fn a_background_that_ends_white_is_told() {
    let (setup, kit) = dim(Blend::Fill { ambient_stops: 0.0, fill_stops: 0.0 }, 15.3, 12.6);
    let (prepared, plan) = planned(&setup, &kit);
    let colour = InColour::of(&prepared, &plan.outcome);
    let all = cautions(&prepared, &plan, &colour, &kit);
    let white =
        all.iter().find_map(|one| if let Caution::Clips { region, at } = one { Some((*region, at.0)) } else { None });
    let (region, at) = white.expect("it is told");
    assert!(region == prepared.background && at >= 2.47, "{at}");
    let (setup, kit) = dim(LIFT, 15.3, 12.6);
    let (prepared, plan) = planned(&setup, &kit);
    let colour = InColour::of(&prepared, &plan.outcome);
    assert!(!cautions(&prepared, &plan, &colour, &kit).iter().any(|one| matches!(one, Caution::Clips { .. })));
}

/// What is said to hold a dial holds it: no slowest shutter where the dial has a slower one that is allowed, no end of a
/// dial that is not there. Over cameras of whole, half and third stops, and light from dusk to noon.
#[rstest]
fn reasons_are_true(
    #[values(Step::Third, Step::Half, Step::Whole)] step: Step,
    #[values(-3.0, 1.0, 4.0, 7.0, 10.0, 13.0, 16.0, 18.0)] ev: f64,
    #[values(0, 1, 2)] blend: usize,
) {
    let blend = [LIFT, Blend::AmbientOnly { subject_stops: 0.0 }, Blend::Silhouette { background_stops: 0.0 }][blend];
    let (mut setup, mut kit) = dim(blend, ev, ev - 1.0);
    (kit.cameras[0].shutter.step, kit.cameras[0].aperture_step, kit.cameras[0].iso.step) = (step, step, step);
    setup.speed.slowest_shutter_s = Some(1.0 / 60.0);
    let (prepared, plan) = planned(&setup, &kit);
    let settings = plan.outcome.settings;
    for shortfall in &plan.shortfalls {
        let Because::Held(held) = &shortfall.because else { continue };
        for one in held {
            let holds = match one {
                Held::SlowestShutter => settings.shutter == prepared.slowest,
                Held::WidestAperture => prepared.apertures.end_of(settings.aperture) == Some(DialEnd::Low),
                Held::SmallestAperture => prepared.apertures.end_of(settings.aperture) == Some(DialEnd::High),
                Held::LowestIso => prepared.isos.end_of(settings.iso) == Some(DialEnd::Low),
                Held::HighestIso => prepared.isos.end_of(settings.iso) == Some(DialEnd::High),
                Held::FastestShutter => prepared.shutters.end_of(settings.shutter) == Some(DialEnd::High),
                Held::FastestSync => settings.shutter.position().0 > prepared.sync_safe.position().0 - 1.01,
                Held::ShutterFixed | Held::ApertureFixed | Held::IsoFixed => false,
            };
            assert!(holds, "{one:?} at {settings:?}, slowest {:?}", prepared.slowest);
        }
    }
}

/// No fix moves one thing twice, stacks what moves, or asks for an ISO far over the kit's highest.
#[rstest]
fn fixes_can_be_done(#[values(-4.0, 0.0, 3.0, 14.0, 16.0)] ev: f64, #[values(0, 1, 2, 3)] which: usize) {
    let blend = [
        LIFT,
        Blend::Overpower { subject_stops: 0.0, ambient_stops: -3.0 },
        Blend::Fill { ambient_stops: 0.0, fill_stops: -1.0 },
        Blend::AmbientOnly { subject_stops: 0.0 },
    ][which];
    let (mut setup, kit) = dim(blend, ev, ev - 1.0);
    setup.depth = Depth::CloseUp { magnification: 0.5, depth_mm: 20.0, stacked: false, overlap: 0.3 };
    setup.speed.movement = Movement::Walking;
    let (prepared, plan) = planned(&setup, &kit);
    for fix in fixes(&prepared, &plan, &kit) {
        match &fix.what {
            FixKind::Changes(solved) => {
                let kinds: Vec<_> = solved.changes.iter().map(std::mem::discriminant).collect();
                assert!((1..kinds.len()).all(|at| !kinds[..at].contains(&kinds[at])), "{:?}", solved.changes);
                assert!(!solved.changes.contains(&Change::TakeStack), "{:?}", solved.changes);
            }
            FixKind::Outside(Outside::HigherIso { to, highest }) => {
                assert!(to.nominal <= 4.1 * highest.nominal && highest.nominal >= 6400.0, "{to:?} {highest:?}");
            }
            FixKind::Outside(_) => {}
        }
    }
}

/// Near a brick wall a light is coloured by where it is, not by where it might be: what it is planned at, and a light that is
/// held there, have one colour.
#[test]
fn a_light_near_a_wall_has_the_colour_of_its_place() {
    let (mut setup, kit) = dim(LIFT, 9.0, 8.0);
    setup.use_set();
    setup.add_to_set(&kit, &Addition::WallRight).expect("room");
    setup.add_to_set(&kit, &Addition::WallLeft).expect("room");
    for wall in &mut setup.set.as_mut().expect("used").walls {
        wall.colour = tolva_core::modifier::SurfaceColour::Brick;
    }
    setup.lights[0].distance_m = None;
    let (prepared, plan) = planned(&setup, &kit);
    let at = plan.outcome.lights[0].expect("on").distance;
    let free = InColour::of(&prepared, &plan.outcome).colours.flashes[0].mired().0;
    let mut held = setup.clone();
    held.lights[0].distance_m = Some(at.0);
    let (prepared, plan) = planned(&held, &kit);
    let fixed = InColour::of(&prepared, &plan.outcome).colours.flashes[0].mired().0;
    assert!((free - fixed).abs() < 1.5, "{free} free, {fixed} held at {at:?}");
}
