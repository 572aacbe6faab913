//! Glass: a check of eight lights and six panes within a millisecond, all that clears what shows within twenty.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_planner::glass::{Look, remedies};
use tolva_planner::lighting::Prepared;
use tolva_planner::set::{Addition, PaneUse, distances_of};
use tolva_planner::setup::{Blend, Kit, Setup};
use tolva_planner::solver::Outcome;
use tolva_planner::staging::Stage;

/// So many lights round somebody, and panes behind and beside.
fn behind_glass(kit: &Kit, lights: usize, panes: &[PaneUse]) -> Setup {
    let mut setup = Setup::new("glass", kit);
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -2.0 };
    for _ in 1..lights {
        setup.add_light(kit).expect("room");
    }
    setup.lights.iter_mut().for_each(|light| light.distance_m = Some(1.8));
    setup.use_set();
    for of in panes {
        setup.add_to_set(kit, &Addition::Pane(*of)).expect("room");
    }
    setup
}

fn glass(c: &mut Criterion) {
    let kit = Kit::starter();
    let six = [
        PaneUse::ShopWindow,
        PaneUse::Mirror,
        PaneUse::Picture,
        PaneUse::GlazedDoor,
        PaneUse::MirrorWall,
        PaneUse::CarSide,
    ];
    for (what, setup) in [
        ("one light, one pane", behind_glass(&kit, 1, &six[..1])),
        ("eight lights, six panes", behind_glass(&kit, 8, &six)),
    ] {
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let outcome = Outcome::of(&prepared);
        let stage = Stage::of(&setup, &kit);
        let away = distances_of(&prepared, Some(&outcome));
        c.bench_function(&format!("what stands in glass, {what}"), |b| {
            b.iter(|| Look::new(black_box(&stage), &away).seen().len());
        });
        let found = Look::new(&stage, &away).findings(&prepared, &outcome);
        println!("{} stand there, {} show", found.len(), found.iter().filter(|one| one.shows()).count());
        c.bench_function(&format!("all that clears what shows, {what}"), |b| {
            b.iter(|| remedies(black_box(&prepared), &outcome, &kit, &found).len());
        });
    }
}

criterion_group!(benches, glass);
criterion_main!(benches);
