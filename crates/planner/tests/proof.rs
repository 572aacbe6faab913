//! The proof of a setup: it never disagrees with its plan, and what is kept of it is what would be rendered anew.

use proptest::prelude::*;
use tolva_core::optics::Movement;
use tolva_core::proof::{Fineness, Picture, Size, Work, at_card, luminance};
use tolva_core::scale::Stops;
use tolva_core::set::Direction;
use tolva_planner::glass::{Look, Shown, remedies};
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::proof::{Behind, Layers, Moves, Proof, Weights};
use tolva_planner::set::{Addition, PaneUse, distances_of};
use tolva_planner::setup::{Blend, CardKind, Kit, LightIndex, LightPlace, Setup};

const CASES: u32 = 200;

fn cases() -> ProptestConfig {
    let cases = std::env::var("PROPTEST_CASES").ok().and_then(|cases| cases.parse().ok()).unwrap_or(CASES);
    ProptestConfig { cases, ..ProptestConfig::default() }
}

/// Somebody under one to three lights, maybe with walls, a window, a card.
fn drawn() -> impl Strategy<Value = (Setup, Kit)> {
    let light = (100.0..260.0_f64, 0.0..50.0_f64, 0.8..3.5_f64, 0.0..30.0_f64);
    let room = (any::<bool>(), any::<bool>(), any::<bool>(), any::<bool>(), 0_usize..6);
    let held = (0.3..1.5_f64, 0.0..360.0_f64, -0.5..0.5_f64, -60.0..60.0_f64, -60.0..60.0_f64);
    (prop::collection::vec(light, 1..4), room, held, -3.0..0.5_f64).prop_map(|(lights, room, held, ambient)| {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: ambient };
        for _ in 1..lights.len() {
            setup.add_light(&kit).expect("room");
        }
        setup.use_set();
        let (wall, window, card, behind, kind) = room;
        for (is, addition) in [
            (wall, Addition::WallRight),
            (window, Addition::Window),
            (card, Addition::Card(CARDS[kind])),
            (behind, Addition::WallBehindCamera),
        ] {
            if is {
                setup.add_to_set(&kit, &addition).expect("room");
            }
        }
        if let Some(card) = setup.set.as_mut().expect("used").cards.first_mut() {
            // Round the face, and looking about its way.
            let (away, azimuth, up, turned, tilt) = held;
            let way = Direction::new(azimuth, 0.0).vector() * away;
            (card.x_m, card.y_m, card.z_m) = (way.x, way.y, 1.5 + up);
            (card.facing_deg, card.tilt_deg) = ((azimuth + 180.0 + turned).rem_euclid(360.0), tilt);
        }
        for (light, (direction_deg, elevation_deg, away, feather)) in setup.lights.iter_mut().zip(lights) {
            let place = light.place.as_mut().expect("placed");
            *place = LightPlace { direction_deg, elevation_deg, ..*place };
            light.distance_m = Some(away);
            light.feather_deg = feather;
        }
        (setup, kit)
    })
}

const CARDS: [CardKind; 6] =
    [CardKind::White, CardKind::Silver, CardKind::Gold, CardKind::Black, CardKind::Diffuser, CardKind::Mirror];

fn proof_of(setup: &Setup, kit: &Kit) -> Proof {
    let prepared = Prepared::new(setup, kit).expect("a setup");
    let plan = Plan::of(&prepared);
    Proof::of(&prepared, &plan.outcome, kit)
}

/// What a grey card where a region is read gets in the proof, in stops from mid grey.
fn card(proof: &Proof, region: usize) -> Stops {
    let (staged, weights) = (&proof.staged, &proof.weights);
    let place = &staged.there.places[region];
    let lit: f64 = staged
        .sources
        .iter()
        .zip(&weights.lights)
        .filter_map(|(source, weight)| Some((source.as_ref()?, (*weight)?)))
        .map(|(source, weight)| at_card(&staged.scene, source, &place.receptor) * f64::from(luminance(weight)))
        .sum();
    let there: f64 = staged
        .there
        .at_card(&staged.scene, &place.receptor, place.things.first().copied())
        .into_iter()
        .map(|(of, part)| f64::from(part * luminance(weights.places[of])))
        .sum();
    Stops::of_ratio(lit + there)
}

proptest! {
    #![proptest_config(cases())]
    /// The law: at each region's own place the proof gets what the rail says, within a tenth of a stop.
    #[test]
    fn a_plan_and_its_proof_never_disagree((setup, kit) in drawn()) {
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let plan = Plan::of(&prepared);
        let proof = Proof::of(&prepared, &plan.outcome, &kit);
        for (index, region) in plan.outcome.regions.iter().enumerate() {
            let seen = card(&proof, index);
            let name = &setup.regions[index].name;
            let deep = (seen.ratio() - region.together.ratio()).abs() < DEEP;
            prop_assert!(deep || (seen - region.together).0.abs() < 0.1, "{name}: {seen:?} on {:?}", region.together);
        }
    }
}

/// What is darker than this against mid grey is told apart by nobody.
const DEEP: f64 = 0.005;
const SMALL: Size = Size { width: 48, height: 32 };

proptest! {
    #![proptest_config(cases())]
    /// The law: layers that are kept while dials are turned, and all but one while a light is moved, make the picture that
    /// everything rendered anew makes, within one level of 255.
    #[test]
    fn what_is_kept_is_what_would_be_rendered((setup, kit) in drawn(), moved in -40.0..40.0_f64, under in -2.0..0.0_f64) {
        let whole = |proof: &Proof| proof.layers(SMALL, Fineness::Coarse, &Work::default()).expect("nobody stops it");
        let before = proof_of(&setup, &kit);
        let mut kept = whole(&before);
        // A dial is turned: the same geometry.
        let mut turned = setup.clone();
        turned.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: under };
        turned.fixed.iso = Some(400.0);
        let after = proof_of(&turned, &kit);
        prop_assert_eq!(&before.staged.scene, &after.staged.scene);
        prop_assert_eq!(&before.staged.there, &after.staged.there);
        let anew = whole(&after);
        take_over(&mut kept, &anew, (&before, &after), usize::MAX)?;
        same(&kept.developed(SMALL, &after.weights, &Moves::default()), &anew.developed(SMALL, &after.weights, &Moves::default()))?;
        // The first light is moved: its layer is another, and no other is.
        let place = turned.lights[0].place.as_mut().expect("placed");
        place.direction_deg += moved;
        let after = proof_of(&turned, &kit);
        prop_assert_eq!(&before.staged.scene, &after.staged.scene);
        let anew = whole(&after);
        take_over(&mut kept, &anew, (&before, &after), 0)?;
        same(&kept.developed(SMALL, &after.weights, &Moves::default()), &anew.developed(SMALL, &after.weights, &Moves::default()))?;
    }
}

/// What need be rendered anew: a light that was off and is on, and the one that was moved.
fn take_over(kept: &mut Layers, anew: &Layers, (was, is): (&Proof, &Proof), moved: usize) -> Result<(), TestCaseError> {
    for (index, (was, is)) in was.staged.sources.iter().zip(&is.staged.sources).enumerate() {
        if index == moved || kept.lights[index].is_none() {
            kept.lights[index].clone_from(&anew.lights[index]);
        } else if was.is_some() && is.is_some() {
            prop_assert_eq!(was, is);
        }
    }
    Ok(())
}

fn same(kept: &Picture, anew: &Picture) -> Result<(), TestCaseError> {
    let apart = kept.srgb().into_iter().zip(anew.srgb()).map(|(a, b)| a.abs_diff(b)).max();
    prop_assert!(apart <= Some(1), "{apart:?} levels apart");
    Ok(())
}

/// The softbox stands in the pane where the glass check says it does, and after the first remedy it stands there no more.
#[test]
fn a_glass_fix_is_seen_to_work() {
    let kit = Kit::starter();
    let mut setup = Setup::new("one", &kit);
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -2.0 };
    setup.focal_length_mm = 50.0;
    setup.use_set();
    setup.add_to_set(&kit, &Addition::Pane(PaneUse::ShopWindow)).expect("room");
    let prepared = Prepared::new(&setup, &kit).expect("a setup");
    let plan = Plan::of(&prepared);
    let stage = prepared.stage.clone().expect("used");
    let away = distances_of(&prepared, Some(&plan.outcome));
    let found = Look::new(&stage, &away).findings(&prepared, &plan.outcome);
    let light = found.iter().find(|one| one.what == Shown::Light(LightIndex(0))).expect("it shows");
    let centre = light.seen.centre.expect("in the frame");
    let size = Size { width: 240, height: 160 };
    let of_light = |setup: &Setup| {
        let proof = proof_of(setup, &kit);
        let layers = proof.layers(size, Fineness::Coarse, &Work::default()).expect("nobody stops it");
        let weight = proof.weights.lights[0].expect("on");
        let layer = layers.lights[0].clone().expect("on");
        layer
            .pixels
            .iter()
            .map(|pixel| luminance([pixel[0] * weight[0], pixel[1] * weight[1], pixel[2] * weight[2]]))
            .collect::<Vec<f32>>()
    };
    let before = of_light(&setup);
    let place = |right: f64, up: f64| {
        let (x, y) = ((right + 0.5) * f64::from(size.width), (0.5 - up) * f64::from(size.height));
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a pixel")]
        let index = y as usize * size.width as usize + x as usize;
        index
    };
    // The middle of its image may be hidden: the face is looked for around it.
    let bright = |seen: &[f32], at: usize| seen[at] > 4.0 * 0.18;
    let shapes = light.seen.shapes.iter().flatten().flatten();
    let inside = shapes.fold((0.0, 0.0, 0.0), |sum, at| (sum.0 + at[0], sum.1 + at[1], sum.2 + 1.0));
    let middle = place(inside.0 / inside.2, inside.1 / inside.2);
    assert!(bright(&before, middle), "{} at {middle}, {centre:?}", before[middle]);
    let offered = remedies(&prepared, &plan.outcome, &kit, &found);
    let first =
        offered.iter().find(|of| of.what == Shown::Light(LightIndex(0))).and_then(|of| of.all.first()).expect("a way");
    let after = of_light(&first.setup);
    assert!(!after.iter().any(|seen| *seen > 4.0 * 0.18), "{:?} leaves it", first.moves);
}

/// Who dances is smeared under the light that is there, and what lies behind is not.
#[test]
fn only_who_moves_is_smeared() {
    let kit = Kit::starter();
    let mut setup = Setup::new("one", &kit);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    setup.speed.movement = Movement::Dancing;
    setup.fixed.shutter_s = Some(1.0 / 4.0);
    setup.use_set();
    let proof = proof_of(&setup, &kit);
    assert!(proof.moves.by > 0.05, "{:?}", proof.moves);
    let size = Size { width: 96, height: 64 };
    let layers = proof.layers(size, Fineness::Coarse, &Work::default()).expect("nobody stops it");
    let still = layers.developed(size, &proof.weights, &Moves::default());
    let moved = layers.developed(size, &proof.weights, &proof.moves);
    assert_ne!(still, moved);
    let corner = |picture: &Picture| picture.around([0.03, 0.1]);
    let (still, moved) = (corner(&still), corner(&moved));
    assert!(
        still.iter().zip(moved).all(|(still, moved)| (still - moved).abs() < 1e-6),
        "far from them nothing is smeared"
    );
}

/// A photo stands where the place was, as it came where the light is as it was then; it follows the light that is there, and
/// who stands before it stays as they are.
#[test]
fn a_photo_takes_the_place_behind() {
    let kit = Kit::starter();
    let setup = Setup::new("a", &kit);
    let proof = proof_of(&setup, &kit);
    let size = Size::of_frame(96, proof.proportion);
    let layers = proof.layers(size, Fineness::Coarse, &Work::default()).expect("rendered");
    let place = |thing: u32| proof.staged.place[thing as usize];
    let parts = proof.staged.scene.seen(size).parts(|thing| thing.is_none_or(place));
    let colour = [0.10, 0.20, 0.15];
    let photo = Picture { size: Size { width: 30, height: 40 }, pixels: vec![colour; 1200] };
    let behind = proof.staged.there.behind;
    let of = Behind { photo: &photo, level: proof.weights.places[behind], place: behind };
    let with = layers.with_photo(size, &parts, &of);
    let still = Moves::default();
    let (plain, shown) = (layers.developed(size, &proof.weights, &still), with.developed(size, &proof.weights, &still));
    let places = proof.weights.places.iter().enumerate();
    let darker = places.map(|(at, weight)| if at == behind { weight.map(|part| part / 2.0) } else { *weight });
    let darker = Weights { lights: proof.weights.lights.clone(), places: darker.collect() };
    let later = with.developed(size, &darker, &still);
    let (mut beyond, mut before) = (0, 0);
    for (at, part) in parts.iter().enumerate() {
        if *part >= 0.999 {
            beyond += 1;
            for ((now, then), photo) in shown.pixels[at].iter().zip(later.pixels[at]).zip(colour) {
                assert!((now - photo).abs() < 0.003 && (then - photo / 2.0).abs() < 0.003, "{now} {then} {photo}");
            }
        } else if *part == 0.0 {
            before += 1;
            let same = shown.pixels[at].iter().zip(plain.pixels[at]).all(|(now, before)| (now - before).abs() < 1e-6);
            assert!(same, "who stands there stays");
        }
    }
    assert!(beyond > 500 && before > 200, "{beyond} {before}");
}
