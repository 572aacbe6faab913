//! How long one plan takes. A quick solve is what makes dragging feel direct: well under a millisecond is the aim.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use tolva_core::ambient::Role;
use tolva_core::colour::StatedColour;
use tolva_planner::lighting::Prepared;
use tolva_planner::options::options;
use tolva_planner::place::{Grip, Placing, place};
use tolva_planner::plan::Plan;
use tolva_planner::setup::{Kit, Light, LightWish, Region, Setup, Spill};
use tolva_wording::{Document, Show, alternatives, colour_options, plan};

fn write(setup: &Setup) -> Document {
    Document::of(&tolva_format::Setup::from(setup.clone()))
}

/// Four lights on five regions, in a room of lamps.
fn several(kit: &Kit) -> Setup {
    let mut setup = Setup::new("several", kit);
    let part = |id: &str| Region { id: id.to_owned(), role: Role::Part, ..setup.regions[1].clone() };
    let (hair, row) = (part("hair"), part("row"));
    setup.regions.extend([hair, row]);
    for region in &mut setup.regions {
        region.ambient.colour = StatedColour::Kelvin { kelvin: 3000.0, tint_duv: 0.0 };
    }
    let lights = [
        ("B", LightWish::Fill { ratio_stops: 1.0 }, "shadow"),
        ("C", LightWish::Rim { over_stops: 0.33 }, "hair"),
        ("D", LightWish::Place { stops: -0.5 }, "row"),
    ];
    setup.lights.extend(lights.map(|(id, wish, aim)| Light {
        wish,
        aimed_at: Some(aim.to_owned()),
        spill: vec![Spill { region_id: "behind".to_owned(), stops: -3.0 }],
        ..Light::new(id, "small")
    }));
    setup
}

fn solve(c: &mut Criterion) {
    let kit = Kit::starter();
    let setup = Setup::new("bench", &kit);
    c.bench_function("plan as quantities: a wish that can be had", |b| {
        b.iter(|| Prepared::new(black_box(&setup), &kit).map(|prepared| Plan::of(&prepared)));
    });
    c.bench_function("plan: a wish that can be had", |b| {
        b.iter(|| plan(black_box(&setup), &kit, Show::default(), &write));
    });

    let mut too_weak = setup.clone();
    too_weak.lights[0].distance_m = Some(8.0);
    c.bench_function("plan: an impossible wish with its fixes", |b| {
        b.iter(|| plan(black_box(&too_weak), &kit, Show::default(), &write));
    });

    let several = several(&kit);
    c.bench_function("plan and all other ways as quantities: four lights, five regions", |b| {
        b.iter(|| {
            let prepared = Prepared::new(black_box(&several), &kit).expect("good");
            let plan = Plan::of(&prepared);
            options(&prepared, &plan, &kit)
        });
    });
    c.bench_function("plan and all other ways: four lights, five regions", |b| {
        b.iter(|| {
            let plan = plan(black_box(&several), &kit, Show::default(), &write);
            (plan, alternatives(black_box(&several), &kit, Show::default(), &write))
        });
    });

    c.bench_function("colour: all conventions of white balance", |b| {
        b.iter(|| colour_options(black_box(&setup), &kit, Show::default(), &write));
    });
    c.bench_function("colour: all conventions of white balance, four lights, five regions", |b| {
        b.iter(|| colour_options(black_box(&several), &kit, Show::default(), &write));
    });

    let placing = Placing { region_id: "behind".to_owned(), grip: Grip::Together, stops: -2.0, light_id: None };
    c.bench_function("place: a mark dragged", |b| {
        b.iter(|| place(black_box(&setup), &kit, &placing));
    });
}

criterion_group!(benches, solve);
criterion_main!(benches);
