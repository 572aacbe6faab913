//! What is warned of, and when it is not. Scenes have theirs in `sun_report.rs`, colours in `colour.rs`.

use super::*;
use tolva_core::modifier::{Bounce, BounceOff, SurfaceColour};
use tolva_planner::setup::Speed;

fn headings(setup: &Setup, kit: &Kit) -> Vec<String> {
    solved(setup, kit).cautions.into_iter().map(|caution| caution.heading).collect()
}

fn on_camera(s: &mut Setup) {
    s.lights[0].on_camera = true;
    s.lights[0].modifier_id = None;
}

/// Each comes with its cause, and the plain example has none of them.
#[rstest]
#[case::guessed(|s: &mut Setup| s.regions[2].ambient = Ambient::guessed(9.0), "Not read yet", "shadow side: estimates")]
#[case::sync(
    |s: &mut Setup| { s.fixed.shutter_s = Some(1.0 / 250.0); }, "Near the sync limit", "within the rated 1/250",
)]
#[case::slow(
    |s: &mut Setup| {
        s.fixed.shutter_s = Some(0.5);
        s.speed = Speed { slowest_shutter_s: Some(1.0 / 60.0), ..Speed::default() };
    },
    "Slower than allowed", "slower than 1/60",
)]
#[case::school(|s: &mut Setup| s.automatic_exposure = AutomaticConvention::Iso, "Automatic ISO", "dark clothes to pale")]
#[case::finder(
    |s: &mut Setup| s.filter_ids = vec!["nd-6".to_owned()], "Dark finder", "never look at the sun",
)]
#[case::near(|s: &mut Setup| s.lights[0].distance_m = Some(0.45), "Very near the eyes", "local rules")]
#[case::clothes(
    |s: &mut Setup| { s.lights[0].flash_id = "small".to_owned(); s.lights[0].control = Control::Ttl; },
    "Clothes move it", "dark clothes more",
)]
#[case::not_automatic(
    |s: &mut Setup| {
        s.lights[0].flash_id = "large".to_owned();
        s.lights[0].control = Control::Ttl;
    },
    "Not automatic", "set it by hand",
)]
#[case::straight(on_camera, "Flash on the camera", "well under the room")]
fn comes_with_its_cause(#[case] change: impl Fn(&mut Setup), #[case] heading: &str, #[case] says: &str) {
    let (mut setup, mut kit) = example();
    // The large head of the starter kit can be metered; here it cannot.
    for flash in kit.flashes.iter_mut().filter(|flash| flash.id == "large") {
        flash.ttl = false;
    }
    assert_eq!(headings(&setup, &kit), Vec::<String>::new());
    change(&mut setup);
    let cautions = solved(&setup, &kit).cautions;
    let found = cautions.iter().find(|caution| caution.heading == heading);
    assert!(found.is_some_and(|caution| caution.says.contains(says)), "{cautions:?}");
}

/// Bounced, it is neither near the eyes nor flat, and takes on the ceiling's colour instead.
#[test]
fn a_bounced_flash_is_warned_of_otherwise() {
    let (mut setup, kit) = example();
    on_camera(&mut setup);
    setup.lights[0].distance_m = Some(0.45);
    let straight = headings(&setup, &kit);
    assert!(
        straight.iter().any(|one| one == "Very near the eyes")
            && straight.iter().any(|one| one == "Flash on the camera")
    );
    let colour = SurfaceColour::White;
    setup.lights[0].bounce = Some(Bounce { off: BounceOff::Ceiling, away_m: 1.5, reflectance: 0.8, colour });
    assert_eq!(headings(&setup, &kit), ["Colour of the bounce"]);
}

/// The camera's slow-sync floor is named only where the wished shutter is slower.
#[rstest]
#[case(1.0 / 30.0, true)]
#[case(1.0 / 100.0, false)]
fn the_slow_sync_floor(#[case] shutter_s: f64, #[case] warned: bool) {
    let (mut setup, mut kit) = example();
    kit.cameras[0].slow_sync_floor_s = 1.0 / 60.0;
    setup.lights[0].control = Control::Ttl;
    setup.fixed.shutter_s = Some(shutter_s);
    let found = solved(&setup, &kit).cautions.into_iter().find(|caution| caution.heading == "Slow-sync floor");
    assert_eq!(found.is_some(), warned);
    assert!(found.is_none_or(|caution| caution.says.contains("1/60") && caution.says.contains("1/30")));
}

/// The pace asked for is told against what the unit does, to the unit's own figures.
#[rstest]
#[case(0.5, "too slow for a picture every 0.5 s")]
#[case(30.0, "quicker than the 30 s there are")]
fn pace_is_told(#[case] every_s: f64, #[case] says: &str) {
    let (mut setup, mut kit) = example();
    for flash in &mut kit.flashes {
        flash.recycle_full_s = 8.0;
    }
    setup.lights[0].power_stops = Some(-1.0);
    setup.pace = Some(tolva_planner::setup::Pace { every_s, burst_frames: 1, frames: 100 });
    let pace = solved(&setup, &kit).pace;
    let ready = pace.iter().find(|fact| fact.about == "A is ready").expect("it is told");
    assert!(ready.says.contains(says), "{ready:?}");
}
