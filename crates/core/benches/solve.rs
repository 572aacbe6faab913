//! How long one plan takes. A quick solve is what makes dragging feel direct: well under a millisecond is the aim.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_core::blend::{Grip, Placing, Show, place, plan};
use tolva_core::job::{Kit, Setup};

fn solve(c: &mut Criterion) {
    let kit = Kit::starter();
    let setup = Setup::new("bench", &kit);
    c.bench_function("plan: a wish that can be had", |b| {
        b.iter(|| plan(black_box(&setup), &kit, Show::default()));
    });

    let mut too_weak = setup.clone();
    too_weak.lights[0].distance_m = Some(8.0);
    c.bench_function("plan: an impossible wish with its remedies", |b| {
        b.iter(|| plan(black_box(&too_weak), &kit, Show::default()));
    });

    let placing = Placing { region_id: "behind".to_owned(), grip: Grip::Together, stops: -2.0 };
    c.bench_function("place: a mark dragged", |b| {
        b.iter(|| place(black_box(&setup), &kit, &placing));
    });
}

criterion_group!(benches, solve);
criterion_main!(benches);
