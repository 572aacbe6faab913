//! What a plan says, as codes with their numbers: no sentence is looked at here.

use std::collections::HashSet;

use rstest::rstest;
use tolva_core::ambient::Role;
use tolva_core::exposure::{Ambient, EvReading, Reading};
use tolva_core::scale::Stops;
use tolva_planner::active_limit::{ActiveLimit, active_limit};
use tolva_planner::cautions::{Caution, cautions};
use tolva_planner::change::Change;
use tolva_planner::colour::InColour;
use tolva_planner::conventions::{Matter, conventions};
use tolva_planner::fixes::{FixKind, Outside, fixes};
use tolva_planner::lighting::Prepared;
use tolva_planner::options::{AlternativeKind, options};
use tolva_planner::plan::Plan;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Blend, Control, Depth, Fixed, Kit, LightIndex, Setup, Sync};
use tolva_planner::shortfall::{Because, Held, Limit};

/// The first worked example: behind EV 13, lit side 11, shadow side 10, the starter kit's middle flash at 1.5 m.
fn example() -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup::new("example", &kit);
    for (region, ev100) in setup.regions.iter_mut().zip([13.0, 11.0, 10.0]) {
        region.ambient = Ambient::read(Reading::Ev(EvReading { ev100 }));
    }
    (setup, kit)
}

fn planned(change: impl FnOnce(&mut Setup, &mut Kit)) -> (Setup, Kit) {
    let (mut setup, mut kit) = example();
    change(&mut setup, &mut kit);
    (setup, kit)
}

fn plan(setup: &Setup, kit: &Kit) -> Plan {
    Plan::of(&Prepared::new(setup, kit).expect("it can be planned"))
}

type Changes = fn(&mut Setup, &mut Kit);

/// Each limit with what makes it, and how much is missing at least and at most.
#[rstest]
#[case::too_far(|s: &mut Setup, _: &mut Kit| s.lights[0].distance_m = Some(20.0), Limit::FlashTooWeak, &Because::FullPower, (1.0, 6.0))]
#[case::fixed_low(|s: &mut Setup, _: &mut Kit| s.lights[0].power_stops = Some(-7.0), Limit::FlashTooWeak, &Because::PowerFixed, (3.0, 5.0))]
#[case::no_flash(|s: &mut Setup, _: &mut Kit| s.lights.clear(), Limit::NoFlash, &Because::NoFlashAtAll, (1.0, 1.0))]
#[case::too_bright(|s: &mut Setup, _: &mut Kit| {
    s.regions[1].ambient = Ambient::read(Reading::Ev(EvReading { ev100: 16.0 }));
    s.fixed = Fixed { shutter_s: Some(1.0 / 200.0), f_number: Some(8.0), iso: Some(100.0) };
}, Limit::AmbientTooBright, &Because::AmbientAlone, (1.0, 3.0))]
#[case::no_silhouette(|s: &mut Setup, _: &mut Kit| s.blend = Blend::Silhouette { background_stops: 0.0 }, Limit::NotASilhouette, &Because::Silhouette, (0.9, 1.1))]
fn limits(#[case] change: Changes, #[case] limit: Limit, #[case] because: &Because, #[case] (least, most): (f64, f64)) {
    let (setup, kit) = planned(change);
    let plan = plan(&setup, &kit);
    let found = plan.shortfalls.iter().find(|one| one.limit == limit);
    let found = found.unwrap_or_else(|| panic!("{:?}", plan.shortfalls));
    assert_eq!(&found.because, because);
    assert!((least..=most).contains(&found.missing.0), "{:?}", found.missing);
    assert!(!plan.possible() && plan.missing() >= found.missing.0);
}

/// What holds the camera where it cannot go darker: its dials at their ends, or what is fixed.
#[rstest]
#[case(None, [Held::FastestSync, Held::SmallestAperture, Held::LowestIso])]
#[case(Some(2.8), [Held::FastestSync, Held::ApertureFixed, Held::LowestIso])]
fn what_holds_the_camera(#[case] f_number: Option<f64>, #[case] held: [Held; 3]) {
    let (setup, kit) = planned(|s, _| {
        s.fixed.f_number = f_number;
        s.regions[0].ambient = Ambient::read(Reading::Ev(EvReading { ev100: 20.0 }));
    });
    let plan = plan(&setup, &kit);
    assert_eq!(plan.shortfalls[0].limit, Limit::CameraTooBright);
    assert_eq!(plan.shortfalls[0].because, Because::Held(held.to_vec()));
}

/// A light that is too strong even at its lowest power is off, and the shortfall says which light and where the face ends.
#[test]
fn a_flash_that_is_off_since_its_lowest_power_is_too_much() {
    let (setup, kit) = planned(|s, _| {
        for (region, ev100) in s.regions.iter_mut().zip([4.0, 4.0, 3.0]) {
            region.ambient = Ambient::read(Reading::Ev(EvReading { ev100 }));
        }
        s.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -1.0 };
        s.speed.slowest_shutter_s = Some(1.0 / 60.0);
        s.fixed.f_number = Some(2.8);
        s.lights[0].flash_id = "small".to_owned();
        s.lights[0].modifier_id = None;
        s.lights[0].distance_m = Some(2.6);
    });
    let plan = plan(&setup, &kit);
    let strong = plan.shortfalls.iter().find(|one| one.limit == Limit::FlashTooStrong).expect("too strong");
    assert!(matches!(strong.because, Because::LowestPower | Because::OffAtLowestPower), "{strong:?}");
    assert_eq!((strong.light, strong.region), (Some(LightIndex(0)), Some(1)));
    assert!(strong.ends.is_some() && strong.at.is_some());
}

/// Flat light: where all regions are alike, what is wished of all of them can be had, at every EV.
#[test]
fn flat_light_is_possible_at_every_ev() {
    for tenth in 60..=150 {
        let (setup, kit) = planned(|s, _| {
            s.blend = Blend::Lift { subject_stops: 0.0, background_stops: 0.0 };
            for region in &mut s.regions {
                region.ambient = Ambient::read(Reading::Ev(EvReading { ev100: f64::from(tenth) / 10.0 }));
            }
        });
        let plan = plan(&setup, &kit);
        assert!(plan.possible(), "EV {}: {:?}", f64::from(tenth) / 10.0, plan.shortfalls);
    }
}

#[rstest]
#[case::shortfall(|s: &mut Setup, _: &mut Kit| s.lights.clear(), Some(ActiveLimit::Shortfall))]
#[case::sync(|_: &mut Setup, _: &mut Kit| {}, Some(ActiveLimit::Sync))]
#[case::slowest(|s: &mut Setup, _: &mut Kit| {
    s.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    s.speed.slowest_shutter_s = Some(1.0 / 60.0);
    s.fixed.shutter_s = Some(1.0 / 60.0);
}, Some(ActiveLimit::SlowestShutter))]
#[case::wide(|s: &mut Setup, _: &mut Kit| {
    s.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    s.fixed.f_number = Some(2.8);
}, Some(ActiveLimit::WidestAperture))]
fn active_limits(#[case] change: Changes, #[case] expected: Option<ActiveLimit>) {
    let (setup, kit) = planned(change);
    let prepared = Prepared::new(&setup, &kit).expect("good");
    assert_eq!(active_limit(&prepared, &Plan::of(&prepared)), expected);
}

fn cautioned(setup: &Setup, kit: &Kit) -> Vec<Caution> {
    let prepared = Prepared::new(setup, kit).expect("good");
    let plan = Plan::of(&prepared);
    cautions(&prepared, &plan, &InColour::of(&prepared, &plan.outcome), kit)
}

#[rstest]
#[case::guessed(|s: &mut Setup, k: &mut Kit| *s = Setup::new("new", k), "not_read")]
#[case::near(|s: &mut Setup, _: &mut Kit| s.lights[0].distance_m = Some(0.4), "near_eyes")]
#[case::on_camera(|s: &mut Setup, _: &mut Kit| s.lights[0].on_camera = true, "flash_on_camera")]
#[case::ttl(|s: &mut Setup, _: &mut Kit| s.lights[0].control = Control::Ttl, "automatic_flash")]
#[case::dark(|s: &mut Setup, k: &mut Kit| s.filter_ids = vec![k.filters.iter().max_by(|a, b| a.density_stops.total_cmp(&b.density_stops)).expect("one").id.clone()], "dark_finder")]
#[case::slow(|s: &mut Setup, _: &mut Kit| {
    s.fixed.shutter_s = Some(1.0 / 4.0);
    s.speed.slowest_shutter_s = Some(1.0 / 60.0);
}, "slower_than_allowed")]
fn cautions_by_code(#[case] change: Changes, #[case] code: &str) {
    let codes = |setup: &Setup, kit: &Kit| -> Vec<&str> { cautioned(setup, kit).iter().map(Caution::code).collect() };
    let (setup, kit) = example();
    assert!(!codes(&setup, &kit).contains(&code), "not without its cause");
    let (setup, kit) = planned(change);
    assert!(codes(&setup, &kit).contains(&code), "{:?}", codes(&setup, &kit));
}

/// What is fixed by an offer is told by its changes, and what closes a shortfall does.
#[test]
fn fixes_are_changes_that_close() {
    let (setup, kit) = planned(|s, _| s.lights[0].distance_m = Some(12.0));
    let prepared = Prepared::new(&setup, &kit).expect("good");
    let found = fixes(&prepared, &Plan::of(&prepared), &kit);
    let nearer = found.iter().find_map(|fix| match &fix.what {
        FixKind::Changes(solved) => match solved.changes.as_slice() {
            [Change::MoveLight { distance_m, nearer: true, .. }] => Some((*distance_m, fix.closes, solved.clone())),
            _ => None,
        },
        FixKind::Outside(_) => None,
    });
    let (distance_m, closes, solved) = nearer.expect("bring it nearer");
    assert!(closes && distance_m < 12.0 && plan(&solved.setup, &kit).possible());
    let codes: Vec<&str> = found
        .iter()
        .filter_map(|fix| if let FixKind::Outside(outside) = &fix.what { Some(outside.code()) } else { None })
        .collect();
    assert_eq!(codes, [Outside::StrongerUnit { short: Stops(1.0), guide_number_m: 1.0, side_by_side: 1.0 }.code()]);
}

/// Options never turn a dial that is fixed, unless a change of theirs says that it lets go.
#[test]
fn options_leave_what_is_fixed() {
    let (setup, kit) = planned(|s, _| s.fixed.f_number = Some(2.8));
    let prepared = Prepared::new(&setup, &kit).expect("good");
    let found = options(&prepared, &Plan::of(&prepared), &kit);
    assert_eq!(found.iter().filter(|one| one.kind == AlternativeKind::AsItIs).count(), 1);
    for one in found {
        let lets_go = one.solved.changes.iter().any(Change::lets_go);
        assert!(lets_go || one.solved.setup.fixed.f_number == Some(2.8), "{:?}", one.solved.changes);
    }
}

#[test]
fn every_convention_has_a_code_of_its_own() {
    let (setup, kit) = example();
    let all = conventions(&setup, &kit).expect("good");
    let codes: HashSet<(Matter, &str)> =
        all.iter().map(|one| (one.convention.matter(), one.convention.code())).collect();
    assert!(all.len() > 25 && codes.len() == all.len(), "{codes:?}");
    // Each matter has one that is the setup as it is, or none where the setup follows nobody's.
    let as_it_is = all.iter().filter(|one| one.setup == setup).map(|one| one.convention.matter());
    assert!(as_it_is.collect::<HashSet<_>>().len() >= 6);
}

#[rstest]
#[case(|s: &mut Setup, _: &mut Kit| s.camera_id = "none".to_owned(), &Refused::NotInKit { what: "camera", id: "none".to_owned() })]
#[case(|s: &mut Setup, _: &mut Kit| s.lens_id = "none".to_owned(), &Refused::NotInKit { what: "lens", id: "none".to_owned() })]
#[case(|s: &mut Setup, _: &mut Kit| s.lights[0].flash_id = "none".to_owned(), &Refused::NotInKit { what: "flash", id: "none".to_owned() })]
#[case(|s: &mut Setup, _: &mut Kit| s.lights[0].gel_ids = vec!["none".to_owned()], &Refused::NotInKit { what: "gel", id: "none".to_owned() })]
#[case(|s: &mut Setup, _: &mut Kit| s.lights[0].aimed_at = Some("moon".to_owned()), &Refused::NoSuchRegion("moon".to_owned()))]
#[case(|s: &mut Setup, _: &mut Kit| { s.regions.remove(1); }, &Refused::NoRegion(Role::LitSide))]
fn what_cannot_be_planned(#[case] change: Changes, #[case] expected: &Refused) {
    let (setup, kit) = planned(change);
    assert_eq!(Prepared::new(&setup, &kit).err().as_ref(), Some(expected));
}

/// An electronic shutter that syncs with nothing is refused, not planned for.
#[test]
fn no_electronic_sync() {
    let (setup, kit) = planned(|s, k| {
        s.sync = Sync::Electronic;
        k.cameras.iter_mut().for_each(|camera| camera.sync_electronic_s = None);
    });
    assert!(matches!(Prepared::new(&setup, &kit), Err(Refused::NoElectronicSync(_))));
}

/// The depth of a group is asked of the aperture, and where it is fixed wide, a code says by which aperture it is missed.
#[test]
fn too_shallow_says_which_aperture_it_takes() {
    let (setup, kit) = planned(|s, _| {
        s.depth = Depth::Rows { rows: 4, apart_m: 0.8 };
        s.fixed.f_number = Some(2.8);
    });
    let plan = plan(&setup, &kit);
    let shallow = plan.shortfalls.iter().find(|one| one.limit == Limit::TooShallow).expect("too shallow");
    let Because::DepthAsks(asks) = shallow.because else { panic!("{shallow:?}") };
    let off = (asks.position() - plan.outcome.settings.aperture.position() - shallow.missing).0;
    assert!(off.abs() < 0.34 && asks.nominal > 2.8, "{off} {}", asks.label());
}
