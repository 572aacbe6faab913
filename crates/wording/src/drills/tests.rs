//! Every drill has words: no gap, no number without its unit, and nothing of what is right in the question.

use rstest::rstest;
use tolva_core::frame::Measured;
use tolva_planner::drills::{Level, OnSet, OnSetFrame, Own, Skill, Task, TaskFrame, drill, in_a_row};
use tolva_planner::setup::Kit;
use tolva_planner::shots::AsTaken;
use tolva_planner::uncertainty::unknowns;

use super::*;
use crate::card::Paper;
use crate::leaf::LengthUnit;

fn own() -> Own {
    Own::of(&Kit::starter())
}

#[rstest]
fn every_drill_has_words(#[values(Level::First, Level::Second, Level::Third)] level: Level) {
    for skill in Skill::ALL {
        for one in in_a_row(skill, level, 3, 40, &own()) {
            let said = drill_said(&one, Show::default());
            let all = format!("{} {} {}", said.stands, said.asks, said.options.join(" "));
            assert!(!all.contains("NaN") && !all.contains("inf") && !all.contains("  "), "{all}");
            assert!(said.stands.ends_with('.') && said.asks.ends_with('?'), "{all}");
            assert!(said.begins_at < said.options.len() && said.options.iter().all(|one| !one.is_empty()), "{all}");
            let mut labels = said.options.clone();
            labels.sort();
            labels.dedup();
            assert_eq!(labels.len(), said.options.len(), "two options read the same: {:?}", said.options);
            let right = answer_said(&one, one.right, Show::default());
            assert!(right.right && right.says.ends_with("right.") && !right.workings.is_empty(), "{right:?}");
            let other = if one.right == 0 { 1 } else { one.right - 1 };
            let wrong = answer_said(&one, other, Show::default());
            assert!(!wrong.right && wrong.right_option == one.right, "{wrong:?}");
            for line in right.workings.iter().chain([&wrong.says]) {
                assert!(line.ends_with('.') && !line.contains("NaN") && !line.contains("inf"), "{line}");
            }
        }
    }
}

#[test]
fn what_was_wrong_is_said_in_stops() {
    let one = drill(Skill::EqualExposures, Level::First, 5, &own());
    let beside = if one.right == 0 { 1 } else { one.right - 1 };
    let slower = answer_said(&one, beside, Show::default());
    assert!(slower.says.contains("Yours was too "), "{}", slower.says);
    assert!(slower.says.contains("⅓ stop"), "{}", slower.says);
}

#[test]
fn feet_where_they_are_wished() {
    let show = Show { length: LengthUnit::FeetAndInches, ..Show::default() };
    let one = drill(Skill::Distances, Level::First, 5, &own());
    let said = drill_said(&one, show);
    assert!(!said.stands.contains(" m "), "{}", said.stands);
}

/// The same number and level give the same sheet; answers stand on a page of their own, as many as there are exercises.
#[test]
fn a_sheet_is_the_same_again() {
    let asked =
        SheetAsked { skills: &[], level: Level::Second, seed: 9, count: 24, with_answers: true, paper: Paper::A4 };
    let html = sheet(&asked, &own(), Show::default());
    assert_eq!(html, sheet(&asked, &own(), Show::default()));
    assert_eq!(html.matches("<li>").count(), 48);
    assert!(html.contains("class=\"answers\"") && !html.contains("<script"));
    let without = sheet(&SheetAsked { with_answers: false, ..asked.clone() }, &own(), Show::default());
    assert_eq!(without.matches("<li>").count(), 24);
    assert_ne!(without, sheet(&SheetAsked { seed: 10, with_answers: false, ..asked }, &own(), Show::default()));
}

/// What stands in a question is enough to answer it, and no number stands without its unit.
#[rstest]
#[case(Skill::EqualExposures, &["Right at 1/", ", f/", "ISO "])]
#[case(Skill::Distances, &["A bare flash goes from ", " m to ", " m from the subject."])]
#[case(Skill::GuideNumbers, &["Guide number ", "(metres, ISO 100), bare", "at 1/1"])]
#[case(Skill::Sums, &["mid grey"])]
#[case(Skill::HalfAndHalf, &["The light that is there puts the subject at ", "It is to come at "])]
#[case(Skill::SkinBySpot, &["A spot meter on ", " says 1/", ", f/"])]
#[case(Skill::MeterPointing, &["One lamp, and a meter with its ", " straight at it says f/", "° away."])]
#[case(Skill::Shutters, &[" mm by hand on a sensor 36 mm wide."])]
#[case(Skill::Depth, &[" mm; the nearest face ", " m away, the farthest ", "blurs by no more than 0.0"])]
#[case(Skill::Gels, &["A light of ", " K goes through a gel of ", " mired."])]
#[case(Skill::BounceLosses, &["bounced off a ceiling ", " m from the head that gives back 80 %"])]
#[case(Skill::Recycling, &[" s after a full pop."])]
#[case(Skill::CleanPlates, &["The picture: 1/", " mm, flash. Its plate: "])]
#[case(Skill::Glass, &["A pane from ", "The lens stands ", " m before it; a light stands "])]
#[case(Skill::ReadThePicture, &["Wished was −", " behind and 0 on the lit side of the face."])]
#[case(Skill::RailAndPicture, &["Behind at ", "; face, lit side at ", "; face, shadow side at "])]
fn questions_say_what_stands(#[case] skill: Skill, #[case] parts: &[&str]) {
    let all: Vec<String> = in_a_row(skill, Level::First, 21, 12, &own())
        .iter()
        .map(|one| drill_said(one, Show::default()).stands)
        .collect();
    let found = all.iter().any(|stands| parts.iter().all(|part| stands.contains(part)));
    assert!(found, "{parts:?} in {all:#?}");
}

/// Where practitioners differ, the drill says which school it asks for.
#[test]
fn schools_are_named() {
    for skill in [Skill::SkinBySpot, Skill::Shutters, Skill::HighSpeedOrFilter] {
        let all = in_a_row(skill, Level::First, 2, 20, &own());
        let named = all.iter().filter(|one| drill_said(one, Show::default()).school.is_some()).count();
        assert!(named > 4, "{skill:?}: {named} of 20");
    }
}

/// Pictures are told of, and how many; what has none has none.
#[test]
fn pictures_are_counted() {
    let count = |skill| drill_said(&drill(skill, Level::First, 8, &own()), Show::default()).pictures;
    assert_eq!((count(Skill::ReadThePicture), count(Skill::RailAndPicture), count(Skill::Gels)), (2, 4, 0));
    let rail = drill_said(&drill(Skill::RailAndPicture, Level::First, 8, &own()), Show::default()).rail;
    assert_eq!(rail.iter().map(|one| one.name).collect::<Vec<_>>(), ["Behind", "Face, lit side", "Face, shadow side"]);
    assert!(rail.iter().all(|one| one.at.stops.is_some()));
}

/// What is said of a set by its level: by how much, which way, or whether.
#[rstest]
#[case(Level::First, "stop")]
#[case(Level::Second, "too ")]
#[case(Level::Third, "Not yet as wished")]
fn a_frame_of_a_set_tells_what_its_level_tells(#[case] level: Level, #[case] says: &str) {
    let set = OnSet::drawn(level, 9, |prepared, outcome| {
        unknowns(prepared, outcome).into_iter().map(|seen| (seen.what, Stops(0.6))).collect()
    });
    let set = set.expect("a set");
    let begins = set.begins();
    let said = on_set_said(&set, &[begins], false, Show::default()).expect("on the dials");
    let told = said.frames[0].says.join(", ");
    assert!(told.contains(says), "{told}");
    assert_eq!((said.level == 1, told.contains("stop")), (level == Level::First, level == Level::First), "{told}");
    assert!(said.end.is_none());
    let ended = on_set_said(&set, &[begins], true, Show::default()).expect("on the dials");
    let end = ended.end.expect("an end");
    assert!(end.says.starts_with("Not reached. Without luck") && end.hidden.len() > 2, "{}", end.says);
    assert!(end.hidden.iter().all(|one| one.more.exact == "+0.60" && !one.name.is_empty()));
    assert!(on_set_said(&set, &[OnSetFrame { power: 99, ..begins }], false, Show::default()).is_none());
}

#[rstest]
fn every_task_is_found_by_its_code(#[values(0, 1, 2, 3, 4)] at: usize) {
    let task = Task::ALL[at];
    let said = TaskSaid::from(task);
    assert_eq!(task_of(said.code), Some(task));
    assert_eq!(said.frames.len(), task.flashes().len());
    // Frames that are all black: each thing is said, and ends as a sentence does.
    let dark = TaskFrame {
        taken: AsTaken::default(),
        middle: Measured { mean: [0.0; 3], clipped: 0.0, varies: 0.0, pixels: 9 },
    };
    let found = task_found(task, &vec![dark; said.frames.len()]);
    assert!(!found.good && found.says.contains("not as"), "{found:?}");
    assert!(found.findings.iter().all(|one| one.says.ends_with('.')), "{found:?}");
    assert!(found.findings.iter().any(|one| one.says.contains("too dark to be measured")), "{found:?}");
}

/// By hand: a stop under mid grey is half its light; a third of what the room gives is 1.58 stops under it.
#[test]
fn what_was_measured_is_said_in_thirds() {
    let of = |light: f64, shutter: f64, flash: bool| TaskFrame {
        taken: AsTaken {
            shutter_s: Some(shutter),
            f_number: Some(8.0),
            iso: Some(400.0),
            flash: Some(flash),
            ..AsTaken::default()
        },
        middle: Measured { mean: [light; 3], clipped: 0.0, varies: 0.0, pixels: 9 },
    };
    let says = |frames: &[TaskFrame]| {
        let found = task_found(Task::SlowWithFlash, frames);
        found.findings.into_iter().map(|one| one.says).collect::<Vec<_>>().join(" ")
    };
    let good = says(&[of(0.09, 0.25, false), of(0.18, 0.25, true)]);
    assert!(good.contains("Frame 1: the middle at −1 stops from mid grey; asked for: −1."), "{good}");
    assert!(
        good.contains("the flash by itself gives −1 stops") && good.contains("Shutter 1/4; asked for: 1/15 to 0.5 s"),
        "{good}"
    );
    let turned = says(&[of(0.09, 0.25, false), of(0.18, 0.125, true)]);
    assert!(turned.contains("not at the settings of the first: shutter was turned."), "{turned}");
}
