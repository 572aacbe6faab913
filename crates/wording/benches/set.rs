//! The set: what lights give regions, the map of light, and a plan with both. The aims: four lights on ten regions within
//! half a millisecond; a grid of 96 × 64 with four lights and walls within twelve.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_core::scale::Metres;
use tolva_planner::lighting::Prepared;
use tolva_planner::set::{Addition, Arrangement, Grid, Whose, map};
use tolva_planner::setup::{Kit, LightIndex, Setup, Side};
use tolva_planner::solver::Outcome;
use tolva_planner::staging::{Stage, Thing};
use tolva_wording::{Document, MapAsked, Show, plan_with_set};

fn write(setup: &Setup) -> Document {
    Document::of(&tolva_format::Setup::from(setup.clone()))
}

/// Four lights on ten regions of seven people.
fn several(kit: &Kit) -> Setup {
    let mut setup = Setup::new("several", kit);
    setup.arrange(kit, Arrangement::Rows { rows: 1, in_each: 7 }).expect("people");
    for number in 1..=7 {
        setup.region_on(&Thing::Person(format!("person-{number}")), Side::Front, "Face").expect("a person");
    }
    for _ in 0..3 {
        setup.add_light(kit).expect("a light");
    }
    setup.lights.iter_mut().for_each(|light| light.distance_m = Some(2.5));
    setup.use_set();
    setup
}

fn walled(setup: &Setup, kit: &Kit) -> Setup {
    let mut walled = setup.clone();
    for what in [Addition::WallLeft, Addition::WallRight, Addition::Backdrop, Addition::Ceiling, Addition::Floor] {
        walled.add_to_set(kit, &what).expect("room for it");
    }
    walled
}

fn set(c: &mut Criterion) {
    let kit = Kit::starter();
    let setup = several(&kit);
    let stage = Stage::of(&setup, &kit);
    assert_eq!((stage.receptors.len(), setup.lights.len()), (10, 4));
    c.bench_function("reach of four lights on ten regions", |b| {
        b.iter(|| {
            (0..4).map(|light| black_box(&stage).to_regions(LightIndex(light), Metres(2.5)).len()).sum::<usize>()
        });
    });
    let walled = walled(&setup, &kit);
    for (what, setup) in [("without walls", &setup), ("with walls", &walled)] {
        let prepared = Prepared::new(setup, &kit).expect("a setup");
        let outcome = Outcome::of(&prepared);
        let stage = prepared.stage.clone().expect("used");
        let grid = Grid { left_m: -4.0, near_m: -4.0, right_m: 4.0, far_m: 4.0, columns: 96, rows: 64 };
        c.bench_function(&format!("a grid of 96 × 64 with four lights, {what}"), |b| {
            b.iter(|| map(&prepared, &outcome, &stage, black_box(&Whose::Flashes), &grid));
        });
        c.bench_function(&format!("a plan with its set, four lights, {what}"), |b| {
            b.iter(|| plan_with_set(black_box(setup), &kit, Show::default(), &write, &MapAsked::default()));
        });
    }
}

criterion_group!(benches, set);
criterion_main!(benches);
