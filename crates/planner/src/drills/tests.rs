//! The law of drills, and handbook examples.

use std::collections::BTreeMap;

use proptest::prelude::*;
use rstest::rstest;
use tolva_core::colour::{Kelvin, Mired};
use tolva_core::exposure::CameraSettings;
use tolva_core::flash::GuideNumber;
use tolva_core::modifier::Surface;
use tolva_core::optics::{HandheldRule, Sensor};
use tolva_core::scale::{Aperture, Metres, Millimetres, Power, PowerStep, Setting};

use super::*;
use crate::setup::Kit;

fn own() -> Own {
    Own::of(&Kit::starter())
}

/// What is right, worked out by another way than the generator's: from the definitions, on exact values.
fn by_definition(asked: &Asked) -> Option<f64> {
    let exposure = |s: &CameraSettings| s.shutter.exact * s.iso.exact / s.aperture.exact.powi(2);
    let light = |stops: Stops| stops.0.exp2();
    Some(match asked {
        // As bright as each other: the ratio is one.
        Asked::Equal { from, to, .. } => (exposure(to) / exposure(from)).log2(),
        Asked::Moves { moved, of } => {
            let ambient = *of == Which::Ambient;
            let one = |moved: &Moved| match moved {
                Moved::Shutter(from, to) if ambient => to.exact / from.exact,
                Moved::Aperture(from, to) => (from.exact / to.exact).powi(2),
                Moved::Iso(from, to) => to.exact / from.exact,
                Moved::Power(from, to) if !ambient => light(to.0) / light(from.0),
                Moved::Distance(from, to) if !ambient => (from.0 / to.0).powi(2),
                Moved::Filter(density) => 1.0 / light(*density),
                _ => 1.0,
            };
            moved.iter().map(one).product::<f64>().log2()
        }
        Asked::Farther { from, to, .. } => (from.0 / to.0).powi(2).log2(),
        Asked::Together { lights } => lights.iter().map(|one| light(*one)).sum::<f64>().log2(),
        Asked::Ratio { key, fill } => ((light(*key) + light(*fill)) / light(*fill)).log2(),
        Asked::Missing { ambient, wish } => (light(*wish) - light(*ambient)).log2(),
        Asked::PowerBetween { from, to } => (light(to.0) / light(from.0)).log2(),
        Asked::FilterFor { sync, needs } => (sync.exact / needs.exact).log2(),
        Asked::HighSpeed { sync, shutter, fixed } => fixed.0 + (sync.exact / shutter.exact).log2(),
        Asked::Shift { from, to } => 1e6 / to.0 - 1e6 / from.0,
        Asked::Gelled { light, by } => 1e6 / (1e6 / light.0 + by.0),
        _ => return None,
    })
}

/// The exact answer as a bare number.
fn number(value: &Value) -> f64 {
    match value {
        Value::Stops(stops) => stops.0,
        Value::Kelvin(kelvin) => kelvin.0,
        Value::Mired(mired) => mired.0,
        other => panic!("{other:?} is no number"),
    }
}

fn keeps_the_law(one: &Drill) {
    let right = &one.offered[one.right];
    if one.skill != Skill::Sums {
        assert!(!matches!(one.asked, Asked::Together { .. }), "a question was found: {one:?}");
    }
    match (&one.asked, by_definition(&one.asked)) {
        (Asked::Equal { .. }, Some(ratio)) => assert!(ratio.abs() < 1e-9, "{one:?}"),
        (Asked::Farther { find_distance: true, .. }, _) | (_, None) => {}
        (_, Some(known)) => {
            assert!((number(&one.exact) - known).abs() < 1e-6 * known.abs().max(1.0), "{known} {one:?}");
        }
    }
    match &one.asked {
        Asked::Guide { guide_number_m, power, distance, aperture, iso, .. } => {
            // N·d = GN·√(S/100)·2^(p/2), within half a click of what is answered.
            let reach = guide_number_m * (iso.exact / 100.0).sqrt() * (power.0.0 / 2.0).exp2();
            let off = 2.0 * (aperture.exact * distance.0 / reach).log2();
            assert!(off.abs() < 0.17, "{off} {one:?}");
        }
        Asked::Group { focal, nearest, farthest, circle } => {
            let Value::Aperture(found) = right else { panic!("{one:?}") };
            let sharp = |f_number: f64| {
                let focus = 2.0 * nearest.0 * farthest.0 / (nearest.0 + farthest.0);
                let depth = tolva_core::optics::depth_of_field(*focal, f_number, Metres(focus), *circle);
                depth.near.0 <= nearest.0 + 1e-6 && depth.far.is_none_or(|far| far.0 >= farthest.0 - 1e-6)
            };
            assert!(sharp(found.exact), "{one:?}");
            let Value::Aperture(wider) = one.offered[one.right - 1] else { panic!("{one:?}") };
            assert!(!sharp(wider.exact), "a click wider is not enough: {one:?}");
        }
        Asked::Shows(before) | Asked::ShowsAt(before) => {
            // By similar triangles.
            let at = before.aside.0 * before.lens.0 / (before.lens.0 + before.light.0);
            assert!((before.shows_at().0 - at).abs() < 1e-9);
            if let Value::Yes(shows) = right {
                assert_eq!(*shows, -before.left.0 < at && at < before.right.0, "{one:?}");
            }
        }
        Asked::ReadyEvery { full_s, every_s } => {
            let Value::Power(found) = right else { panic!("{one:?}") };
            assert!(full_s * found.0.ratio() <= every_s + 1e-9, "{one:?}");
        }
        Asked::Misset { scene, misset, ways, .. } => {
            // The light that is there moves by shutter and aperture, the flash by power and aperture.
            let Value::Way(found) = right else { panic!("{one:?}") };
            assert_eq!(&ways[*found], misset);
            let moves = |way: &[Misset]| {
                let of = |dials: [PictureDial; 2]| {
                    way.iter().filter(|one| dials.contains(&one.dial)).map(|one| one.by.0).sum::<f64>()
                };
                (of([PictureDial::Shutter, PictureDial::Aperture]), of([PictureDial::Power, PictureDial::Aperture]))
            };
            let (ambient, flash) = moves(misset);
            let same = ways.iter().filter(|way| moves(way) == (ambient, flash)).count();
            assert_eq!(same, 1, "no other way looks alike: {one:?}");
            let (before, after) =
                (scene.comes_out(&[]).expect("planned"), scene.comes_out(misset).expect("on the dials"));
            assert!((after[0].0 - before[0].0 - ambient).abs() < 0.05, "behind has no flash: {before:?} {after:?}");
        }
        Asked::WhichPicture { scene, rail, ways } => {
            let Value::Way(found) = right else { panic!("{one:?}") };
            let apart = |way: &[Misset]| {
                let all = scene.comes_out(way).expect("on the dials");
                all.iter().zip(rail).map(|(a, b)| (a.0 - b.0).abs()).fold(0.0, f64::max)
            };
            let fits: Vec<usize> = (0..ways.len()).filter(|at| apart(&ways[*at]) < 0.3).collect();
            assert_eq!(fits, [*found], "{one:?}");
        }
        Asked::WhichGel { from, to, gels } => {
            let Value::Gel(found) = right else { panic!("{one:?}") };
            let left = |gel: &Mired| (1e6 / from.0 + gel.0 - 1e6 / to.0).abs();
            assert!(gels.iter().all(|gel| left(gel) >= left(&gels[*found])), "{one:?}");
        }
        _ => {}
    }
    // Nothing else that is offered is as near.
    assert!(one.clear() > 0.0 && one.right < one.offered.len(), "{one:?}");
    assert!(one.is_right(one.right) && (0..one.offered.len()).filter(|at| one.is_right(*at)).count() == 1);
    if let Some(off) = one.off(one.right) {
        // Of a row of whole stops a third is still no other answer.
        assert!(off.0.abs() <= 0.36, "{one:?}");
    }
}

proptest! {
    /// The answer is right by the definitions and unique; the same three give the same question.
    #[test]
    fn the_law_of_drills(seed in 0..1_u64 << 53, skill in prop::sample::select(&Skill::ALL[..]), level in prop::sample::select(&Level::ALL[..])) {
        let own = own();
        let one = drill(skill, level, seed, &own);
        keeps_the_law(&one);
        prop_assert_eq!(&one, &drill(skill, level, seed, &own));
    }
}

/// Every skill at every level, and no question again within fifty.
#[rstest]
fn no_question_is_a_repeat_within_fifty(#[values(Level::First, Level::Second, Level::Third)] level: Level) {
    let own = own();
    for skill in Skill::ALL {
        let all = in_a_row(skill, level, 7, 120, &own);
        for (at, one) in all.iter().enumerate() {
            keeps_the_law(one);
            let before = &all[at.saturating_sub(MOST_IN_A_ROW - 1)..at];
            assert!(before.iter().all(|other| other.asked != one.asked), "{skill:?} {level:?}: {:?}", one.asked);
        }
        // No answer is right so often that it could be guessed.
        let mut counted: BTreeMap<usize, usize> = BTreeMap::new();
        for one in &all {
            *counted.entry(one.right).or_default() += 1;
        }
        let most = counted.values().max().copied().unwrap_or_default();
        assert!(most <= 90, "{skill:?} {level:?}: {counted:?}");
    }
}

/// A kit whose camera clicks in halves, one with a power dial of whole stops, one with nothing in it.
#[test]
fn every_kit_has_its_drills() {
    let mut halves = Kit::starter();
    halves.cameras[0].shutter.step = tolva_core::scale::Step::Half;
    halves.cameras[0].aperture_step = tolva_core::scale::Step::Half;
    halves.cameras[0].iso.step = tolva_core::scale::Step::Half;
    let mut whole = Kit::starter();
    whole.flashes[0].power.step = PowerStep::Whole;
    whole.flashes[0].power.lowest_stops = -4.0;
    for kit in [halves, whole, Kit::default()] {
        let own = Own::of(&kit);
        for skill in Skill::ALL {
            for level in Level::ALL {
                keeps_the_law(&drill(skill, level, 11, &own));
            }
        }
    }
}

/// What is answered where it is asked so, on the dials of the starter kit.
fn answered(skill: Skill, exact: Value, offered: Vec<Value>) -> Value {
    let right = nearest(&exact, &offered).expect("something");
    let asked = Asked::Together { lights: Vec::new() };
    let one = Drill { skill, level: Level::First, seed: 0, asked, exact, offered, right };
    one.offered[one.right]
}

/// f/16 rule (common practice, no source): in full sun f/16 at one over the ISO. So f/4 takes 1/1600 at ISO 100.
#[test]
fn the_f_16_rule() {
    let sunny =
        CameraSettings { shutter: Setting::of(1.0 / 100.0), aperture: Setting::of(16.0), iso: Setting::of(100.0) };
    let wide = CameraSettings { shutter: Setting::of(1.0 / 1600.0), aperture: Setting::of(4.0), ..sunny };
    let brighter = by_definition(&Asked::Equal { from: sunny, to: wide, find: CameraDial::Shutter });
    assert!(brighter.is_some_and(|stops| stops.abs() < 1e-9), "{brighter:?}");
    // EV tables (ISO 2720): f/16 and 1/125 is EV 15.
    let table = CameraSettings { shutter: Setting::of(1.0 / 125.0), ..sunny };
    assert!((table.ev100().0 - 15.0).abs() < 1e-9);
}

/// Guide number 40 at f/8 is 5 m (ISO 1230).
#[test]
fn guide_number_40_at_f_8() {
    let exact = GuideNumber(40.0).bare_distance(Setting::<Aperture>::of(8.0).position(), Power::FULL, Stops::ZERO);
    assert!((exact.0 - 5.0).abs() < 1e-9);
    let found = answered(Skill::GuideNumbers, Value::Metres(exact), Ladder::Metres.values());
    assert!(matches!(found, Value::Metres(at) if (at.0 - 5.1).abs() < 0.11), "{found:?}");
    let given = GuideNumber(40.0).strength(Metres(5.0), Surface::Bare, Stops::ZERO).at(Power::FULL);
    assert!((given.0 - 6.0).abs() < 1e-9);
}

/// 5600 K with +159 mired is 2962 K (physics.md §7).
#[test]
fn a_full_warm_gel() {
    let through = (Kelvin(5600.0).mired() + Mired(159.0)).kelvin();
    assert!((through.0 - 2962.0).abs() < 0.5, "{through:?}");
    assert!(
        matches!(answered(Skill::Gels, Value::Kelvin(through), Ladder::Kelvin.values()), Value::Kelvin(at) if (at.0 - 2940.0).abs() < 3.0)
    );
}

/// 85 mm is 1/85 or 1/170 by school (common practice, no source): on a dial of thirds 1/100 and 1/200.
#[test]
fn eighty_five_by_school() {
    let floor = |school| tolva_core::optics::shake_floor_s(Millimetres(85.0), Sensor::FULL_FRAME, school, 0.0);
    assert!((1.0 / floor(HandheldRule::OneOverFocal) - 85.0).abs() < 1e-9);
    assert!((1.0 / floor(HandheldRule::OneOverTwiceFocal) - 170.0).abs() < 1e-9);
    let found = (0..2000).find_map(|seed| {
        let one = drill(Skill::Shutters, Level::First, seed, &own());
        match one.asked {
            Asked::ByHand { focal: Millimetres(85.0), school: HandheldRule::OneOverTwiceFocal, .. } => {
                Some(one.offered[one.right])
            }
            _ => None,
        }
    });
    assert_eq!(found, Some(Value::Shutter(Setting::of(1.0 / 200.0))));
}

/// A cosine receptor 60° away reads a stop less, a dome 90° away as well (ISO 2720: cosine and cardioid).
#[test]
fn receptors_turned_away() {
    assert!((Pointed::Flat.collects(60.0) - 0.5).abs() < 1e-12);
    assert!((Pointed::Dome.collects(90.0) - 0.5).abs() < 1e-12);
    assert!(Pointed::Flat.collects(120.0).abs() < 1e-12);
}
