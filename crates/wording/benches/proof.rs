//! The proof: what a moved light and a turned dial cost at 640 × 427, against the rays that cannot be saved.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use image::codecs::jpeg::JpegEncoder;
use tolva_core::proof::{Fineness, Size, Work, layer};
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::proof::{Moves, Proof};
use tolva_planner::set::Addition;
use tolva_planner::setup::{Blend, Kit, Setup};

/// Somebody under so many lights before a wall.
fn proof(lights: usize) -> Proof {
    let kit = Kit::starter();
    let mut setup = Setup::new("proof", &kit);
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -2.0 };
    for _ in 1..lights {
        setup.add_light(&kit).expect("room");
    }
    setup.use_set();
    setup.add_to_set(&kit, &Addition::WallRight).expect("room");
    for (light, round) in setup.lights.iter_mut().zip([150.0, 215.0, 120.0, 240.0, 165.0]) {
        light.distance_m = Some(1.6);
        light.power_stops = Some(-3.0);
        light.place.as_mut().expect("placed").direction_deg = round;
    }
    let prepared = Prepared::new(&setup, &kit).expect("a setup");
    let plan = Plan::of(&prepared);
    Proof::of(&prepared, &plan.outcome, &kit)
}

const SCREEN: Size = Size { width: 640, height: 427 };
const COARSE: Size = Size { width: 160, height: 107 };

fn rendering(c: &mut Criterion) {
    let two = proof(2);
    let scene = &two.staged.scene;
    let sources: Vec<_> = two.staged.sources.iter().flatten().collect();
    let work = Work::default();
    let (screen, coarse) = (scene.seen(SCREEN), scene.seen(COARSE));
    let mut group = c.benchmark_group("proof");
    group.sample_size(10);
    group.bench_function("what the lens sees, 640 × 427", |b| b.iter(|| black_box(scene).seen(SCREEN).spots.len()));
    group.bench_function("a moved light, coarse", |b| {
        b.iter(|| layer(black_box(scene), &coarse, sources[0], Fineness::Coarse, &work).map(|one| one.pixels.len()));
    });
    group.bench_function("a moved light, fine", |b| {
        b.iter(|| layer(black_box(scene), &screen, sources[0], Fineness::Fine, &work).map(|one| one.pixels.len()));
    });
    group.bench_function("two soft lights, fine", |b| {
        b.iter(|| {
            let one =
                |source| layer(black_box(scene), &screen, source, Fineness::Fine, &work).expect("nobody stops it");
            sources.iter().map(|source| one(source).pixels.len()).sum::<usize>()
        });
    });
    group.bench_function("the light that is there, fine", |b| {
        b.iter(|| two.staged.there.layers(black_box(scene), &screen, Fineness::Fine, &work).map(|all| all.len()));
    });
    let six = proof(3);
    let layers = six.layers(SCREEN, Fineness::Fine, &work).expect("nobody stops it");
    println!("{} layers", layers.lights.iter().flatten().count() + layers.places.len());
    group.bench_function("six layers developed and encoded", |b| {
        b.iter(|| {
            let picture = layers.developed(SCREEN, black_box(&six.weights), &Moves::default());
            let mut bytes = Vec::new();
            let mut encoder = JpegEncoder::new_with_quality(&mut bytes, 92);
            encoder.encode(&picture.srgb(), 640, 427, image::ExtendedColorType::Rgb8).expect("a picture");
            bytes.len()
        });
    });
    group.finish();
}

criterion_group!(benches, rendering);
criterion_main!(benches);
