//! Setups drawn over the whole of what a document may hold: every light, region, blend, thing of a set, height and hour. What
//! comes of them ends, is a number, and does not depend on the order in which the kit is listed.

use proptest::prelude::*;
use proptest::test_runner::TestCaseError;
use tolva_core::ambient::{
    Artificial, Background, BackgroundKind, OpenShade, Role, Scene, Site, SteadyCloud, Surroundings, TypicalLight,
    Weather,
};
use tolva_core::exposure::Ambient;
use tolva_core::optics::Movement;
use tolva_core::scale::Stops;
use tolva_core::time::LocalTime;
use tolva_planner::cautions::cautions;
use tolva_planner::colour::InColour;
use tolva_planner::day::JobDays;
use tolva_planner::fixes::fixes;
use tolva_planner::lighting::Prepared;
use tolva_planner::options::options;
use tolva_planner::pack::pack_list;
use tolva_planner::plan::Plan;
use tolva_planner::run::{looked, moves_between};
use tolva_planner::set::{Addition, PaneUse, distances_of, notices};
use tolva_planner::setup::{
    Blend, CardKind, Control, Depth, Finish, Fixed, HazardKind, JobDay, Kit, Light, LightWish, Product, ProductShape,
    Region, Setup, Spill, Support, Sync,
};
use tolva_planner::staging::Stage;

const CASES: u32 = 96;
/// Most lights of a setup whose fixes and alternatives are computed.
const MOST_LIGHTS: usize = 2;

fn cases() -> ProptestConfig {
    let cases = std::env::var("PROPTEST_CASES").ok().and_then(|cases| cases.parse().ok()).unwrap_or(CASES);
    ProptestConfig { cases, max_shrink_iters: 400, ..ProptestConfig::default() }
}

fn of<T: Clone + std::fmt::Debug + 'static>(all: &[T]) -> prop::sample::Select<T> {
    prop::sample::select(all.to_vec())
}

fn blend() -> impl Strategy<Value = Blend> {
    let (place, fill, under) = (-6.0..=3.0_f64, -5.0..=2.0_f64, -8.0..=0.0_f64);
    prop_oneof![
        (place.clone(), place.clone())
            .prop_map(|(subject_stops, background_stops)| Blend::Lift { subject_stops, background_stops }),
        (place.clone(), fill).prop_map(|(ambient_stops, fill_stops)| Blend::Fill { ambient_stops, fill_stops }),
        place.clone().prop_map(|subject_stops| Blend::HalfAndHalf { subject_stops }),
        (place.clone(), under)
            .prop_map(|(subject_stops, ambient_stops)| Blend::Overpower { subject_stops, ambient_stops }),
        place.clone().prop_map(|background_stops| Blend::Silhouette { background_stops }),
        place.prop_map(|subject_stops| Blend::AmbientOnly { subject_stops }),
    ]
}

fn wish() -> impl Strategy<Value = LightWish> {
    prop_oneof![
        Just(LightWish::Key),
        (0.0..=6.0_f64).prop_map(|ratio_stops| LightWish::Fill { ratio_stops }),
        (-3.0..=4.0_f64).prop_map(|over_stops| LightWish::Rim { over_stops }),
        (-6.0..=3.0_f64).prop_map(|stops| LightWish::Place { stops }),
    ]
}

fn light(kit: &Kit, regions: usize) -> impl Strategy<Value = Light> + use<> {
    let flashes: Vec<String> = kit.flashes.iter().map(|one| one.id.clone()).collect();
    let modifiers: Vec<Option<String>> = kit.modifiers.iter().map(|one| Some(one.id.clone())).chain([None]).collect();
    let gels: Vec<String> = kit.gels.iter().map(|one| one.id.clone()).collect();
    let stands: Vec<Option<String>> = kit.stands.iter().map(|one| Some(one.id.clone())).chain([None]).collect();
    let what = (of(&flashes), of(&modifiers), prop::collection::vec(of(&gels), 0..3), 1_u8..=6, of(&stands));
    let how = (
        wish(),
        0..regions,
        any::<bool>(),
        prop::option::of(0.1..=50.0_f64),
        prop::option::of(-7.0..=0.0_f64),
        0.0..=85.0_f64,
        any::<bool>(),
        -6.0..=2.0_f64,
    );
    (what, how).prop_map(|((flash_id, modifier_id, gel_ids, units, stand_id), how)| {
        let (wish, aimed_at, on_camera, distance_m, power_stops, feather_deg, ttl, spills) = how;
        Light {
            modifier_id,
            gel_ids,
            units,
            stand_id,
            wish,
            aimed_at: Some(aimed_at.to_string()),
            on_camera,
            distance_m,
            power_stops,
            feather_deg,
            control: if ttl { Control::Ttl } else { Control::Manual },
            spill: vec![Spill { region_id: ((aimed_at + 1) % 3).to_string(), stops: spills }],
            ..Light::new("?", &flash_id)
        }
    })
}

fn scene() -> impl Strategy<Value = Option<Scene>> {
    let surroundings = of(&[
        Surroundings::OpenGround,
        Surroundings::Snow,
        Surroundings::Sand,
        Surroundings::Water,
        Surroundings::OpenShade(OpenShade { sky_percent: 60.0 }),
        Surroundings::Trees,
        Surroundings::Awning,
        Surroundings::DarkStreet,
        Surroundings::Artificial(Artificial { light: TypicalLight::Home, mains_hz: 50.0 }),
    ]);
    let kinds = of(&[BackgroundKind::Upright, BackgroundKind::Ground, BackgroundKind::Sky]);
    let when = (1_u8..=12, 1_u8..=28, 0_u8..24, 0_u8..60);
    let place = (-90.0..=90.0_f64, -180.0..=180.0_f64, 0.0..360.0_f64);
    let all = (place, when, surroundings, (kinds, 0.0..=100.0_f64), 0.0..=8.0_f64);
    prop::option::of(all.prop_map(|(place, when, surroundings, (what, sunlit_percent), cloud_eighths)| {
        let site = Site {
            name: String::new(),
            latitude_deg: place.0,
            longitude_deg: place.1,
            elevation_m: 0.0,
            time_zone: "Etc/UTC".into(),
        };
        let at = LocalTime {
            date: format!("2026-{:02}-{:02}", when.0, when.1),
            time: format!("{:02}:{:02}", when.2, when.3),
            second_time: false,
        };
        Scene {
            facing_deg: place.2,
            surroundings,
            background: Background { what, sunlit_percent },
            weather: Weather::Steady(SteadyCloud { cloud_eighths }),
            ..Scene::new(site, at)
        }
    }))
}

/// What is put onto a set, and where its things are.
#[derive(Clone, Debug)]
struct OnSet {
    additions: Vec<Addition>,
    places: Vec<[f64; 5]>,
    shape: ProductShape,
    finish: Finish,
    table_m: f64,
    camera: [f64; 2],
    support: Support,
    wind: Option<f64>,
}

fn on_set() -> impl Strategy<Value = Option<OnSet>> {
    let cards =
        [CardKind::White, CardKind::Silver, CardKind::Gold, CardKind::Black, CardKind::Diffuser, CardKind::Mirror];
    let additions = prop_oneof![
        of(&[
            Addition::Person,
            Addition::Product,
            Addition::Backdrop,
            Addition::WallLeft,
            Addition::WallRight,
            Addition::WallBehindCamera,
            Addition::Ceiling,
            Addition::Floor,
            Addition::Window,
            Addition::Doorway,
        ]),
        of(&cards).prop_map(Addition::Card),
        of(&[PaneUse::Window, PaneUse::ShotThrough, PaneUse::Mirror, PaneUse::MirrorWall, PaneUse::Table])
            .prop_map(Addition::Pane),
        of(&[HazardKind::Edge, HazardKind::Road, HazardKind::OverheadLine, HazardKind::Cable])
            .prop_map(Addition::Hazard),
    ];
    let size = 0.005..=10.0_f64;
    let shape = prop_oneof![
        (size.clone(), size.clone(), size.clone()).prop_map(|(width_m, depth_m, height_m)| ProductShape::Box {
            width_m,
            depth_m,
            height_m
        }),
        (size.clone(), size.clone()).prop_map(|(diameter_m, height_m)| ProductShape::Cylinder { diameter_m, height_m }),
        size.prop_map(|diameter_m| ProductShape::Ball { diameter_m }),
    ];
    let place = [-6.0..=6.0_f64, -6.0..=6.0, 0.0..=4.0, 0.0..=360.0, -90.0..=90.0];
    let supports = of(&[Support::Stand, Support::Boom { arm_m: 1.5 }, Support::Held, Support::Clamped]);
    let what = (prop::collection::vec(additions, 0..8), prop::collection::vec(place, 8));
    let product = (shape, of(&[Finish::Matt, Finish::Satin, Finish::Mirror]), 0.0..=2.0_f64);
    let rest = ([0.0..=360.0_f64, -80.0..=80.0], supports, prop::option::of(0.0..=20.0_f64));
    prop::option::of((what, product, rest).prop_map(|((additions, places), product, (camera, support, wind))| OnSet {
        additions,
        places,
        shape: product.0,
        finish: product.1,
        table_m: product.2,
        camera,
        support,
        wind,
    }))
}

impl OnSet {
    fn put(self, setup: &mut Setup, kit: &Kit) {
        setup.use_set();
        for addition in &self.additions {
            let _ = setup.add_to_set(kit, addition);
        }
        let set = setup.set.as_mut().expect("used");
        for (card, [x, y, z, facing, tilt]) in set.cards.iter_mut().zip(&self.places) {
            (card.x_m, card.y_m, card.z_m, card.facing_deg, card.tilt_deg) = (*x, *y, *z, *facing, *tilt);
        }
        for (pane, [x, y, z, facing, tilt]) in set.panes.iter_mut().zip(self.places.iter().rev()) {
            (pane.x_m, pane.y_m, pane.z_m, pane.facing_deg, pane.tilt_deg) = (*x, *y, *z, *facing, *tilt);
        }
        for Product { shape, finish, table_m, .. } in &mut set.products {
            (*shape, *finish, *table_m) = (self.shape, self.finish, self.table_m);
        }
        (set.camera.direction_deg, set.camera.elevation_deg) = (self.camera[0], self.camera[1]);
        set.wind_m_s = self.wind;
        for light in &mut setup.lights {
            if let Some(place) = &mut light.place {
                place.support = self.support;
            }
        }
    }
}

fn drawn() -> impl Strategy<Value = (Setup, Kit)> {
    let kit = Kit::starter();
    let regions = 3..=6_usize;
    let depth = prop_oneof![
        Just(Depth::Free),
        Just(Depth::OneHead),
        (1_u8..=20, 0.1..=5.0_f64).prop_map(|(rows, apart_m)| Depth::Rows { rows, apart_m }),
        (0.001..=100.0_f64).prop_map(|depth_m| Depth::Deep { depth_m }),
        (0.05..=10.0_f64, 0.01..=200.0_f64, any::<bool>()).prop_map(|(magnification, depth_mm, stacked)| {
            Depth::CloseUp { magnification, depth_mm, stacked, overlap: 0.3 }
        }),
    ];
    let fixed = (
        prop::option::weighted(0.2, -13.0..=5.0_f64),
        prop::option::weighted(0.2, 1.0..=32.0_f64),
        prop::option::weighted(0.2, 50.0..=51_200.0_f64),
    );
    let speed = (
        any::<bool>(),
        of(&[Movement::Still, Movement::HeldPose, Movement::Walking, Movement::Wing]),
        prop::option::weighted(0.3, -13.0..=5.0_f64),
    );
    let syncs = of(&[Sync::Ordinary, Sync::HighSpeed, Sync::Electronic]);
    regions
        .prop_flat_map(move |count| {
            let kit = Kit::starter();
            let lights = prop::collection::vec(light(&kit, count), 0..=8);
            (
                prop::collection::vec(-10.0..=20.0_f64, count),
                lights,
                blend(),
                (depth.clone(), fixed.clone(), speed.clone(), syncs.clone()),
                scene(),
                on_set(),
                0.05..=200.0_f64,
            )
        })
        .prop_map(move |(evs, lights, blend, (depth, fixed, speed, sync), scene, on_set, camera_distance_m)| {
            let mut setup = Setup { blend, depth, sync, scene, camera_distance_m, ..Setup::new("drawn", &kit) };
            let roles = [Role::Background, Role::LitSide, Role::ShadowSide];
            setup.regions = (0..evs.len())
                .map(|at| Region {
                    id: at.to_string(),
                    name: format!("Region {at}"),
                    role: roles.get(at).copied().unwrap_or(Role::Part),
                    ambient: Ambient::guessed(evs[at]),
                    place: None,
                })
                .collect();
            let lettered = |(at, light): (u8, Light)| Light { id: char::from(b'A' + at).to_string(), ..light };
            setup.lights = (0_u8..).zip(lights).map(lettered).collect();
            setup.fixed = Fixed { shutter_s: fixed.0.map(f64::exp2), f_number: fixed.1, iso: fixed.2 };
            (setup.speed.tripod, setup.speed.movement) = (speed.0, speed.1);
            setup.speed.slowest_shutter_s = speed.2.map(f64::exp2);
            if let Some(on_set) = on_set {
                on_set.put(&mut setup, &kit);
            }
            (setup, kit.clone())
        })
}

/// No number is not one, and none is without end but for no light at all.
fn is_sound(stops: Stops) -> bool {
    stops.0.is_finite() || stops.0 == f64::NEG_INFINITY
}

fn looked_over(setup: &Setup, kit: &Kit) -> Result<(), TestCaseError> {
    let Ok(prepared) = Prepared::new(setup, kit) else { return Ok(()) };
    let plan = Plan::of(&prepared);
    let outcome = &plan.outcome;
    let settings = outcome.settings;
    for exact in [settings.shutter.exact, settings.aperture.exact, settings.iso.exact, settings.ev100().0] {
        prop_assert!(exact.is_finite(), "{settings:?}");
    }
    for region in &outcome.regions {
        let all = region.each.iter().chain([&region.ambient, &region.flash, &region.together]);
        prop_assert!(all.copied().all(is_sound), "{region:?}");
    }
    for shortfall in &plan.shortfalls {
        prop_assert!(shortfall.missing.0.is_finite() && shortfall.missing.0 >= 0.0, "{shortfall:?}");
    }
    for lamp in &prepared.lamps {
        let power = lamp.power.map_or(0.0, |power| power.0.0);
        prop_assert!((lamp.flash.power.lowest_stops - 1e-9..=1e-9).contains(&power), "{power}");
    }
    let stage = prepared.stage.as_deref().cloned().unwrap_or_else(|| Stage::of(setup, kit));
    let distances = distances_of(&prepared, Some(outcome));
    prop_assert_eq!(distances.each().count(), setup.lights.len());
    let _ = notices(&prepared, (kit, &stage), &distances);
    let colour = InColour::of(&prepared, outcome);
    let _ = cautions(&prepared, &plan, &colour, kit);
    let _ = pack_list(std::slice::from_ref(setup), kit);
    Ok(())
}

proptest! {
    #![proptest_config(cases())]

    /// Whatever a setup holds: its plan ends, and every number of it is one.
    #[test]
    fn a_plan_is_always_a_plan((setup, kit) in drawn()) {
        looked_over(&setup, &kit)?;
    }

    /// The kit in another order is the same kit.
    #[test]
    fn the_order_of_the_kit_does_not_matter((setup, kit) in drawn()) {
        let mut other = kit.clone();
        other.cameras.reverse();
        other.lenses.reverse();
        other.flashes.reverse();
        other.modifiers.reverse();
        other.gels.reverse();
        other.filters.reverse();
        other.stands.reverse();
        let (Ok(one), Ok(two)) = (Prepared::new(&setup, &kit), Prepared::new(&setup, &other)) else { return Ok(()) };
        let (one, two) = (Plan::of(&one), Plan::of(&two));
        prop_assert_eq!(one.outcome.settings, two.outcome.settings);
        prop_assert_eq!(&one.outcome.regions, &two.outcome.regions);
        prop_assert_eq!(&one.shortfalls, &two.shortfalls);
        // What there is to pack is the same, whatever is listed first.
        let (one, two) = (pack_list(std::slice::from_ref(&setup), &kit), pack_list(&[setup], &other));
        let counts = |list: &tolva_planner::pack::PackList| -> Vec<(String, u32)> {
            list.items.iter().map(|item| (format!("{:?} {}", item.kind, item.id), item.count)).collect()
        };
        prop_assert_eq!(counts(&one), counts(&two));
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: cases().cases / 4, ..cases() })]

    /// What is done about a plan ends, too: fixes, alternatives, moves from one setup to another.
    #[test]
    fn what_follows_from_a_plan_ends((mut setup, kit) in drawn(), (other, _) in drawn(), thirds in -9..=9_i32) {
        // Each fix and alternative is a plan of its own: with many lights that takes its time.
        setup.lights.truncate(MOST_LIGHTS);
        if let Ok(prepared) = Prepared::new(&setup, &kit) {
            let plan = Plan::of(&prepared);
            for fix in fixes(&prepared, &plan, &kit).iter().take(2) {
                let _ = format!("{fix:?}");
            }
            let _ = options(&prepared, &plan, &kit).len();
        }
        let _ = moves_between(&setup, &other, &kit);
        let _ = looked(&setup, &kit, ("1", thirds), None);
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: cases().cases / 8, ..cases() })]

    /// A day of drawn setups, also past midnight: it ends, everything lies in it, and windows are in order and apart.
    #[test]
    fn a_day_is_always_a_day(
        all in prop::collection::vec(drawn(), 1..3), begin in 0_u32..1440, end in 0_u32..1440, arrives in 0_u32..1440,
    ) {
        let kit = Kit::starter();
        let clock = |minute: u32| format!("{:02}:{:02}", minute / 60, minute % 60);
        let mut setups: Vec<Setup> = all.into_iter().map(|(setup, _)| setup).collect();
        for (at, setup) in setups.iter_mut().enumerate() {
            setup.id = format!("setup-{at}");
        }
        let arrival = tolva_planner::setup::Arrival {
            id: "a".into(), name: "Band".into(), at: clock(arrives), setup_ids: Vec::new(),
        };
        let asks = JobDay { begin: clock(begin), end: clock(end), people: vec![arrival], ..JobDay::default() };
        let days = JobDays { setups: &setups, kit: &kit, asks: &asks, date: "" };
        let Ok(day) = days.planned(None) else { return Ok(()) };
        for lane in &day.lanes {
            let open = &lane.windows.open;
            prop_assert!(open.iter().all(|one| one.from < one.to && one.to <= day.until), "{open:?}");
            prop_assert!(open.windows(2).all(|two| two[0].to < two[1].from), "{open:?}");
            prop_assert!(lane.windows.moments.iter().all(|moment| moment.ease().is_finite()));
        }
        for slot in &day.ordered.slots {
            prop_assert!(slot.builds <= slot.shoots && slot.shoots <= slot.done && slot.done <= day.to, "{slot:?}");
        }
    }
}

/// More light asked for on the face is never less light there: in a plain setup, over the whole range of the blend.
#[test]
fn more_asked_for_is_never_less_given() {
    let kit = Kit::starter();
    for background in [-4.0, 1.0, 6.0, 11.0, 15.0] {
        let mut before = f64::NEG_INFINITY;
        for step in -18..=9 {
            let subject_stops = f64::from(step) / 3.0;
            let mut setup = Setup::new("one", &kit);
            setup.blend = Blend::Lift { subject_stops, background_stops: -1.0 };
            for (region, under) in setup.regions.iter_mut().zip([0.0, 1.0, 2.0]) {
                region.ambient = Ambient::guessed(background - under);
            }
            let prepared = Prepared::new(&setup, &kit).expect("a setup");
            let face = Plan::of(&prepared).outcome.regions[prepared.lit].together.0;
            assert!(face > before - 0.34, "EV {background}, {subject_stops}: {face} after {before}");
            before = before.max(face);
        }
    }
}
