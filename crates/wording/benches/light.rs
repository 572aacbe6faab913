//! How long a day's strip, an evening's timetable and one plan with a place take.

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_core::ambient::{Scene, Site};
use tolva_core::time::LocalTime;
use tolva_planner::setup::{Kit, Setup};
use tolva_wording::{Document, Show, day_of, falling, plan};

fn write(setup: &Setup) -> Document {
    Document::of(&tolva_format::Setup::from(setup.clone()))
}

fn setup(time: &str) -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup::new("quay", &kit);
    let site = Site {
        name: "Quay".to_owned(),
        latitude_deg: 60.47,
        longitude_deg: 26.95,
        elevation_m: 3.0,
        time_zone: "Europe/Helsinki".to_owned(),
    };
    let at = LocalTime { date: "2026-08-29".to_owned(), time: time.to_owned(), second_time: false };
    setup.scene = Some(Scene::new(site, at));
    (setup, kit)
}

fn light(c: &mut Criterion) {
    let (setup, kit) = setup("17:30");
    c.bench_function("plan with a place", |b| b.iter(|| plan(&setup, &kit, Show::default(), &write)));
    c.bench_function("day strip, one-minute steps", |b| b.iter(|| day_of(&setup, &kit, 1.0)));
    c.bench_function("day strip, as the screen asks for it", |b| b.iter(|| day_of(&setup, &kit, 5.0)));
    // From 17:30 to the last usable minute, some four hours later.
    c.bench_function("falling light, four hours", |b| b.iter(|| falling(&setup, &kit, Show::default())));
}

criterion_group!(benches, light);
criterion_main!(benches);
