//! How long a job's day takes: the windows of light of twelve setups, their order, and what would make a day fit.

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_core::ambient::{Scene, Site};
use tolva_core::time::LocalTime;
use tolva_planner::day::JobDays;
use tolva_planner::setup::{Blend, JobDay, Kit, Schedule, Setup};
use tolva_wording::day_plan;

/// Setups of several blends, on a quay in late summer or without place and hour.
fn setups(count: usize, with_place: bool) -> (Vec<Setup>, Kit) {
    let kit = Kit::starter();
    let all = (0..count).map(|at| {
        let mut setup = Setup::new(&format!("setup-{at}"), &kit);
        setup.blend = match at % 4 {
            0 => Blend::Lift { subject_stops: 0.0, background_stops: -1.0 },
            1 => Blend::Fill { ambient_stops: 0.0, fill_stops: -1.0 },
            2 => Blend::Silhouette { background_stops: 0.0 },
            _ => Blend::AmbientOnly { subject_stops: 0.0 },
        };
        let shoot_min = 15 + 5 * u32::try_from(at % 4).expect("small");
        setup.schedule = Schedule { build_min: 10, shoot_min, spot: format!("Spot {}", at % 5), ..Schedule::default() };
        if with_place {
            let site = Site {
                name: "Quay".to_owned(),
                latitude_deg: 60.47,
                longitude_deg: 26.95,
                elevation_m: 3.0,
                time_zone: "Europe/Helsinki".to_owned(),
            };
            let at = LocalTime { date: "2026-08-29".to_owned(), time: "12:00".to_owned(), second_time: false };
            setup.scene = Some(Scene { facing_deg: 200.0, ..Scene::new(site, at) });
        }
        setup
    });
    (all.collect(), kit)
}

fn days(c: &mut Criterion) {
    let asks = JobDay { way_min: 10, ..JobDay::default() };
    let planned = |c: &mut Criterion, name: &str, of: &(Vec<Setup>, Kit), asks: &JobDay| {
        let days = JobDays { setups: &of.0, kit: &of.1, asks, date: "" };
        c.bench_function(name, |b| b.iter(|| days.planned(None)));
    };
    // Without a place all windows are the whole day: what is left is the order.
    planned(c, "order of twelve setups", &setups(12, false), &asks);
    planned(c, "windows and order of twelve setups", &setups(12, true), &asks);
    let short = JobDay { begin: "19:00".into(), end: "21:00".into(), ..asks.clone() };
    planned(c, "ten setups that do not fit, with what would help", &setups(10, true), &short);
    let (all, kit) = setups(12, true);
    let days = JobDays { setups: &all, kit: &kit, asks: &asks, date: "" };
    c.bench_function("the day of twelve setups in words", |b| b.iter(|| day_plan(days, None, &[])));
}

criterion_group!(benches, days);
criterion_main!(benches);
