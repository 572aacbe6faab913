//! Frames in words: what came, what cannot be told, what it teaches and what to turn.

use rstest::rstest;
use tolva_core::exposure::CameraSettings;
use tolva_core::frame::Measured;
use tolva_core::scale::{Setting, Stops};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::{Blend, Kit, Setup};
use tolva_planner::solver::Outcome;
use tolva_wording::{CameOf, Document, MarkMeasured, Show, beliefs, frame_report, frame_says, frame_settings, lesson};

/// A patch of grey that is so many stops from mid grey.
fn patch(stops: f64) -> Measured {
    let light = 0.18 * stops.exp2();
    Measured { mean: [light; 3], clipped: 0.0, varies: 0.01, pixels: 400 }
}

fn mark(region: usize, measured: Measured) -> MarkMeasured {
    MarkMeasured { region, measured, surface: Stops::ZERO }
}

struct Taken {
    setup: Setup,
    kit: Kit,
    settings: CameraSettings,
    comes: Vec<f64>,
}

fn taken() -> Taken {
    let kit = Kit::starter();
    let mut setup = Setup::new("a", &kit);
    // A flash that is nearly all there is on the face.
    setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -4.0 };
    let outcome = Outcome::of(&Prepared::new(&setup, &kit).expect("good"));
    let comes = outcome.regions.iter().map(|region| region.together.0).collect();
    Taken { settings: outcome.settings, comes, setup, kit }
}

#[rstest]
#[case::as_planned(&[("Face", Some(0.05))], "Face as planned.")]
#[case::off(&[("Face", Some(0.7)), ("Behind", Some(-1.0))], "Face ⅔ brighter than planned, behind 1 darker than planned.")]
#[case::a_little(&[("Face", Some(0.14))], "Face 0.1 brighter than planned.")]
#[case::one_cannot_be_told(&[("Face", None), ("Behind", Some(0.0))], "Behind as planned.")]
#[case::nothing(&[("Face", None)], "Nothing can be told yet: mark where the regions are.")]
fn what_came_is_said(#[case] regions: &[(&str, Option<f64>)], #[case] says: &str) {
    let regions = regions.iter().map(|(name, off)| (*name, off.map(Stops)));
    assert_eq!(frame_says(true, regions), says);
}

#[test]
fn settings_in_a_line() {
    let settings = CameraSettings { shutter: Setting::of(0.004), aperture: Setting::of(8.0), iso: Setting::of(100.0) };
    assert_eq!(frame_settings(Some(settings), Some(true)), "1/250 s · f/8 · ISO 100 · flash");
    assert_eq!(frame_settings(None, None), "");
}

/// What is clipped, too dark, uneven or not marked says so, and is neither off nor taught by.
#[test]
fn what_cannot_be_told_says_why() {
    let Taken { setup, kit, settings, .. } = taken();
    let marks = [
        mark(0, Measured { clipped: 0.4, ..patch(2.4) }),
        mark(1, patch(-7.0)),
        mark(2, Measured { varies: 0.9, ..patch(0.0) }),
    ];
    let marks = &marks[..setup.regions.len().min(3)];
    let of = CameOf { settings: Some(settings), flash: Some(false), marks };
    let report = frame_report(&setup, &kit, of).expect("good");
    assert!(report.regions[0].says.starts_with("clipped") && report.regions[0].off.is_none());
    assert!(report.regions[1].says.starts_with("too dark") && report.regions[1].came.is_none());
    let notes = report.notes.join(" ");
    assert!(notes.contains("darker") && notes.contains("brighter") && notes.contains("without flash"), "{notes}");
    let bare = CameOf { settings: None, flash: None, marks };
    let report = frame_report(&setup, &kit, bare).expect("good");
    assert_eq!(report.lacking, ["settings", "flash"]);
    assert!(!report.teaches && report.regions.iter().all(|region| region.planned.is_none()));
    let write = |setup: &Setup| Document::of(&setup.id);
    let none = lesson(("one", &setup), &setup, &kit, bare, Show::default(), &write).expect("good");
    assert!(none.is_none(), "what it was taken with is not known");
}

/// A frame whose lit side comes a stop too bright teaches that, and says what to turn; what was learnt from it is not learnt
/// again.
#[test]
fn a_frame_teaches_and_says_what_to_turn() {
    let Taken { setup, kit, settings, comes } = taken();
    let marks = [mark(0, patch(comes[0])), mark(1, patch(comes[1] + 1.0))];
    let of = CameOf { settings: Some(settings), flash: Some(true), marks: &marks };
    let learnt = std::cell::RefCell::new(None);
    let write = |setup: &Setup| {
        learnt.borrow_mut().clone_from(&setup.learnt);
        Document::of(&setup.id)
    };
    let told = lesson(("one", &setup), &setup, &kit, of, Show::default(), &write).expect("good").expect("it tells");
    assert!(!told.learnt && told.says.starts_with("Most of it lies in: flash A"), "{}", told.says);
    assert!(told.beliefs[0].moved && !told.offers.is_empty());
    let least = &told.offers[0];
    assert!(least.does.starts_with("Power of A from ") && least.dials.len() == 1, "{}", least.does);
    let now = Setup { learnt: learnt.into_inner(), ..setup.clone() };
    assert_eq!(now.learnt.as_ref().map(|learnt| learnt.from.clone()), Some(vec!["one".to_owned()]));
    let again = lesson(("one", &setup), &now, &kit, of, Show::default(), &|_| Document::of(&0));
    let again = again.expect("good").expect("it tells");
    assert!(again.learnt && again.beliefs.iter().all(|belief| !belief.moved), "{:?}", again.beliefs);
    let known = beliefs(&now, &kit).expect("good");
    let flash = known.iter().find(|one| one.kind == "light").expect("the flash");
    assert!(flash.now.stops.is_some_and(|more| more > 0.3) && flash.now_sure_stops < 0.3, "{flash:?}");
}
