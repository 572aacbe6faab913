//! Every drill has words: no gap, no number without its unit, and nothing of what is right in the question.

use rstest::rstest;
use tolva_planner::drills::{Level, Own, Skill, drill, in_a_row};
use tolva_planner::setup::Kit;

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
