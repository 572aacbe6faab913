//! The job that comes: what is still missing before it, and nothing that is there.

use super::falling::doorway;
use super::*;
use tolva_planner::day::JobDays;
use tolva_planner::setup::{JobDay, Shot};
use tolva_wording::{ComingJob, coming_job};

fn coming(setups: &[Setup], kit: &Kit, packed: bool) -> ComingJob {
    coming_job(JobDays { setups, kit, asks: &JobDay::default(), date: "" }, packed)
}

fn ready() -> (Setup, Kit) {
    let (mut setup, kit) = doorway("19:26");
    setup.shots = vec![Shot { name: "Half length".into(), ..Shot::new("a") }];
    (setup, kit)
}

#[test]
fn where_all_is_there_nothing_is_missing() {
    let (setup, kit) = ready();
    let job = coming(&[setup], &kit, true);
    assert_eq!(job.missing, Vec::<String>::new());
    assert_eq!(job.date.as_deref(), Some("2026-08-29"));
    assert!(job.says.starts_with("1 setup from ") && job.sun_says.is_some(), "{}", job.says);
    assert!(job.setups[0].shoots.is_some());
}

#[rstest]
#[case::packed(|_: &mut Setup| (), false, "Nothing is packed yet.")]
#[case::place(|setup: &mut Setup| setup.scene = None, true, "where and when")]
#[case::shots(|setup: &mut Setup| setup.shots.clear(), true, "no shots are listed")]
#[case::wish(
    |setup: &mut Setup| { setup.lights[0].distance_m = Some(12.0); setup.fixed.f_number = Some(16.0); setup.fixed.iso = Some(100.0); },
    true,
    "its wish cannot be had"
)]
#[case::kit(|setup: &mut Setup| setup.camera_id = "sold".into(), true, "cannot be planned as it stands")]
fn what_is_missing_is_said(#[case] change: fn(&mut Setup), #[case] packed: bool, #[case] says: &str) {
    let (mut setup, kit) = ready();
    change(&mut setup);
    let missing = coming(&[setup], &kit, packed).missing;
    assert!(missing.iter().any(|line| line.contains(says)), "{missing:?}");
}

#[test]
fn a_job_without_a_setup_lacks_one() {
    let kit = Kit::starter();
    assert_eq!(coming(&[], &kit, false).missing, ["It has no setup."]);
}
