//! The closed loop: plan, frame, measure, learn, plan anew: first without flash, then with it, then the frame that counts. Over seeded sets whose hidden truths are drawn from what Tolva
//! says it does not know, the third frame comes as it was planned, and the bands hold what they say they hold.
//!
//! 1000 sets (frames.md): with 200 the share in the band strays by three percent from draw to draw. `cargo xtask loop` runs
//! 10 000 by `TOLVA_LOOP_SETS`.

use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use rand_distr::{Distribution as _, StandardNormal};
use rstest::rstest;
use tolva_core::exposure::{Ambient, EvReading, Reading};
use tolva_core::scale::Stops;
use tolva_planner::frames::{Came, off_by, really, taught};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::{Blend, Kit, Light, LightWish, Setup, Spill, Unknown};
use tolva_planner::solver::Outcome;
use tolva_planner::uncertainty::unknowns;

/// How well a region is measured in a frame: noise of the picture and of how the mark is put.
const MEASURED: f64 = 0.03;

fn normal(dice: &mut ChaCha8Rng) -> f64 {
    StandardNormal.sample(dice)
}

/// A made-up set: one or two lights, light that was read or guessed, any blend with flash.
fn set(dice: &mut ChaCha8Rng, kit: &Kit) -> Setup {
    let mut setup = Setup::new("loop", kit);
    let ev = dice.random_range(5.0..14.0);
    for (region, under) in setup.regions.iter_mut().zip([0.0, 1.0, 2.0]) {
        let here = ev - under + dice.random_range(-0.7..0.7);
        region.ambient = Ambient::guessed(here);
        if dice.random_bool(0.5) {
            region.ambient = Ambient::read(Reading::Ev(EvReading { ev100: here }));
            region.ambient.readings[0].meter_id = dice.random_bool(0.5).then(|| kit.meters[0].id.clone());
        }
    }
    let blends: Vec<Blend> = Blend::OFFERED.into_iter().filter(|blend| blend.uses_flash()).collect();
    setup.blend = blends[dice.random_range(0..blends.len())];
    setup.lights[0].distance_m = Some(dice.random_range(0.8..3.0));
    setup.lights[0].modifier_id = Some(kit.modifiers[dice.random_range(0..kit.modifiers.len())].id.clone());
    if dice.random_bool(0.5) {
        let flash_id = setup.lights[0].flash_id.clone();
        setup.lights.push(Light {
            aimed_at: Some("shadow".to_owned()),
            wish: LightWish::Fill { ratio_stops: 2.0 },
            distance_m: Some(dice.random_range(1.5..4.0)),
            spill: vec![Spill { region_id: "lit".to_owned(), stops: -2.0 }],
            ..Light::new("B", &flash_id)
        });
    }
    setup
}

/// What nobody knows of a set: how much more of each there really is.
fn truth(dice: &mut ChaCha8Rng, prepared: &Prepared<'_>, outcome: &Outcome) -> Vec<(Unknown, Stops)> {
    unknowns(prepared, outcome).into_iter().map(|seen| (seen.what, Stops(seen.sure.0 * normal(dice)))).collect()
}

/// What came of many sets.
#[derive(Debug, Default)]
struct Tally {
    sets: usize,
    third_within: usize,
    third_a_click: usize,
    in_band: usize,
    bands: usize,
    first_off: f64,
    third_off: f64,
}

/// Another world than the one Tolva expects: errors that are wider, that go together, that change with distance and from
/// frame to frame.
#[derive(Clone, Copy, Debug)]
struct Elsewhere {
    /// Factor on the expected errors.
    wider: f64,
    /// Standard deviation of an error that all lights share, in stops: batteries that sag alike.
    shared: f64,
    /// Light falls off with this power of the distance instead of 2.
    falls_off: f64,
    /// Loss of every flash from frame to frame, in stops: it warms up.
    drifts: f64,
}

impl Elsewhere {
    const NOWHERE: Self = Self { wider: 1.0, shared: 0.0, falls_off: 2.0, drifts: 0.0 };

    /// What there is more of in a frame, where that is other than Tolva expects.
    fn truth(
        self,
        (expected, shared): (&[(Unknown, Stops)], f64),
        prepared: &Prepared<'_>,
        outcome: &Outcome,
        frame: u32,
    ) -> Vec<(Unknown, Stops)> {
        let one = |(what, more): &(Unknown, Stops)| {
            let mut more = more.0 * self.wider;
            if let Unknown::Light { light_id, .. } = what {
                let at = prepared.lights.iter().position(|light| light.light.id == *light_id);
                let away = at.and_then(|at| outcome.lights[at]).map_or(1.0, |at| at.distance.0);
                more += shared * self.shared - (self.falls_off - 2.0) * away.log2() - self.drifts * f64::from(frame);
            }
            (what.clone(), Stops(more))
        };
        expected.iter().map(one).collect()
    }
}

fn run(sets: u64, elsewhere: Elsewhere) -> Tally {
    let kit = Kit::starter();
    let mut tally = Tally::default();
    for seed in 0..sets {
        let mut dice = ChaCha8Rng::seed_from_u64(seed);
        let first = set(&mut dice, &kit);
        let plain = Prepared::new(&first, &kit).expect("good");
        let expected = truth(&mut dice, &plain, &Outcome::of(&plain));
        let shared = if elsewhere.shared > 0.0 { normal(&mut dice) } else { 0.0 };
        let mut setup = first.clone();
        for frame in 0..3_u32 {
            let prepared = Prepared::new(&setup, &kit).expect("good");
            let mut outcome = Outcome::of(&prepared);
            if frame == 0 {
                // As is common practice: what is there first, flash off.
                outcome = outcome.without_flash();
            }
            let outcome = outcome.taken_at(&prepared, outcome.settings);
            let truth = elsewhere.truth((&expected, shared), &prepared, &outcome, frame);
            let comes: Vec<f64> = really(&plain, &outcome, &truth).iter().map(|comes| comes.0).collect();
            let came: Vec<Option<Came>> = comes
                .iter()
                .map(|stops| Some(Came { stops: Stops(stops + MEASURED * normal(&mut dice)), sure: Stops(MEASURED) }))
                .collect();
            let off: Vec<_> = off_by(&prepared, &outcome, outcome.settings, &came);
            let really: Vec<f64> = off.iter().zip(&comes).map(|(off, comes)| comes - off.planned.0).collect();
            let most = really.iter().fold(0.0f64, |most, off| most.max(off.abs()));
            if frame == 0 {
                tally.first_off += most;
            }
            if frame == 2 {
                tally.sets += 1;
                tally.third_off += most;
                tally.third_within += usize::from(most <= 0.1);
                tally.third_a_click += usize::from(most <= 1.0 / 3.0);
            }
            // The bands of the first frame and of the third: by what is believed and by what was learnt.
            if frame != 1 {
                for (really, off) in really.iter().zip(&off) {
                    tally.bands += 1;
                    tally.in_band += usize::from(really.abs() <= off.expected.0);
                }
            }
            let learnt = taught(&prepared, &outcome, outcome.settings, &came).expect("it tells");
            drop(prepared);
            setup.learnt = Some(learnt);
        }
    }
    tally
}

#[test]
fn the_third_frame_comes_as_planned() {
    let sets = std::env::var("TOLVA_LOOP_SETS").ok().and_then(|sets| sets.parse().ok()).unwrap_or(1000);
    let tally = run(sets, Elsewhere::NOWHERE);
    #[expect(clippy::cast_precision_loss, reason = "a few thousand")]
    let part = |some: usize, of: usize| some as f64 / of as f64;
    let (third, band) = (part(tally.third_within, tally.sets), part(tally.in_band, tally.bands));
    #[expect(clippy::cast_precision_loss, reason = "a few thousand")]
    let mean = |sum: f64| sum / tally.sets as f64;
    println!(
        "{} sets: the first frame off by {:.2} stop at most a set, the third by {:.3}; {:.1} % of the third within 0.1, \
         {:.1} % in the 68 % band",
        tally.sets,
        mean(tally.first_off),
        mean(tally.third_off),
        third * 100.0,
        band * 100.0
    );
    assert!(third >= 0.95, "{third}");
    assert!((0.65..=0.71).contains(&band), "{band}");
}

/// Truths that Tolva does not expect: the third frame is still within a dial click, and far nearer than the first.
#[rstest]
#[case::wider(Elsewhere { wider: 2.5, ..Elsewhere::NOWHERE })]
#[case::all_lights_alike(Elsewhere { shared: 0.8, ..Elsewhere::NOWHERE })]
#[case::falls_off_otherwise(Elsewhere { falls_off: 1.6, ..Elsewhere::NOWHERE })]
#[case::warms_up(Elsewhere { drifts: 0.06, ..Elsewhere::NOWHERE })]
#[case::all_of_it(Elsewhere { wider: 1.5, shared: 0.4, falls_off: 1.8, drifts: 0.03 })]
fn truths_from_elsewhere(#[case] elsewhere: Elsewhere) {
    let tally = run(200, elsewhere);
    #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
    let within = tally.third_a_click as f64 / tally.sets as f64;
    assert!(within >= 0.95, "{within} {tally:?}");
    assert!(tally.third_off < tally.first_off / 3.0, "{tally:?}");
}
