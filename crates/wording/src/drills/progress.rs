//! How well each skill is known, in words.

use serde::Serialize;
use tolva_core::time::date_of_day;
use tolva_planner::drills::{Known, Level, Skill};
use utoipa::ToSchema;

use super::SkillSaid;
use super::names::number_of;

/// How well a skill is known.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SkillProgress {
    /// The skill.
    pub skill: SkillSaid,
    /// The level that is next, 1 to 3.
    pub level: u8,
    /// How many were answered in all.
    pub answered: u32,
    /// In a sentence: `7 of the last 8 right. Comes back in 3 days.`
    pub says: String,
    /// Whether it is due today.
    pub due: bool,
    /// How likely it is still known today, in percent; null where it was never practised.
    pub recalled_percent: Option<f64>,
    /// Week by week, the oldest first.
    pub weeks: Vec<WeekSaid>,
}

/// A week of practice of a skill.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WeekSaid {
    /// The Monday it begins with, as `2026-11-23`.
    pub monday: String,
    /// How many were answered.
    pub answered: u32,
    /// How many of them were right.
    pub right: u32,
    /// By how many stops they were off, on average; null where that is no matter of stops.
    pub off_stops: Option<f64>,
}

/// A skill as it is known on a day.
pub fn skill_progress(of: &Known, today: i64) -> SkillProgress {
    let weeks = of.weeks.iter().map(|week| WeekSaid {
        monday: date_of_day(week.monday).to_string(),
        answered: week.answered,
        right: week.right,
        off_stops: week.off_stops.map(|off| (off * 100.0).round() / 100.0),
    });
    SkillProgress {
        skill: of.skill.into(),
        level: number_of(of.level),
        answered: of.answered,
        says: says(of, today),
        due: of.due.is_some_and(|due| due <= today),
        recalled_percent: of.recalled.map(|part| (part * 100.0).round()),
        weeks: weeks.collect(),
    }
}

/// Why these skills are next, in a sentence.
pub fn why_these(known: &[Known], next: &[(Skill, Level)], went_wrong: &[Skill], today: i64) -> String {
    let of = |is: &dyn Fn(&Known) -> bool| {
        known.iter().filter(|one| next.iter().any(|(skill, _)| *skill == one.skill) && is(one)).count()
    };
    let wrong = of(&|one| went_wrong.contains(&one.skill));
    let due = known.iter().filter(|one| one.due.is_some_and(|due| due <= today)).count();
    match (wrong, due, of(&|one| one.due.is_none())) {
        (1.., ..) => "What went wrong on the last job comes first.".to_owned(),
        (0, 1, _) => "One skill is due today.".to_owned(),
        (0, 2.., _) => format!("{due} skills are due today."),
        (0, 0, 1..) => "What is new first.".to_owned(),
        (0, 0, 0) => "Nothing is due: what is known least first.".to_owned(),
    }
}

fn says(of: &Known, today: i64) -> String {
    let Some(due) = of.due else { return "Not practised yet.".to_owned() };
    let comes = match due - today {
        ..=0 => "Due today.".to_owned(),
        1 => "Comes back tomorrow.".to_owned(),
        days @ 2..=13 => format!("Comes back in {days} days."),
        days @ 14..=60 => format!("Comes back in {} weeks.", days / 7),
        _ => format!("Comes back on {}.", date_of_day(due)),
    };
    let (right, all) = of.lately;
    let right = if right == all && all == 1 {
        "The last one right".to_owned()
    } else {
        format!("{right} of the last {all} right")
    };
    format!("{right}. {comes}")
}
