//! What comes back when: each skill by how well it is known. The days are those of the published scheduler FSRS (crate
//! `rs-fsrs`, its long-term schedule, default weights); what is reviewed is a day of practice of a skill, and how it went
//! is by how many were right.

use std::collections::BTreeMap;

use rs_fsrs::{Card, FSRS, Parameters, Rating};

use super::{Level, Skill};

/// An answer that was given, on a day counted from 1970-01-01.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Attempt {
    /// What was practised.
    pub skill: Skill,
    /// How hard.
    pub level: Level,
    /// The day.
    pub day: i64,
    /// Whether it was right.
    pub right: bool,
    /// By how many stops it was off; nothing where that is no matter of stops.
    pub off_stops: Option<f64>,
}

/// A week of practice of a skill.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Week {
    /// The Monday it begins with.
    pub monday: i64,
    /// How many were answered.
    pub answered: u32,
    /// How many of them were right.
    pub right: u32,
    /// By how many stops they were off, the mean of those that are a matter of stops.
    pub off_stops: Option<f64>,
}

/// How well a skill is known.
#[derive(Clone, Debug, PartialEq)]
pub struct Known {
    /// The skill.
    pub skill: Skill,
    /// The level that is next.
    pub level: Level,
    /// How many were answered in all.
    pub answered: u32,
    /// How many of the last [`LATELY`] were right, and how many those are.
    pub lately: (u32, u32),
    /// How likely it is still known today, 0 to 1; nothing where it was never practised.
    pub recalled: Option<f64>,
    /// The day it is to come back; nothing where it was never practised.
    pub due: Option<i64>,
    /// Week by week, the oldest first; weeks without practice are left out.
    pub weeks: Vec<Week>,
}

/// So many answers say how it goes.
pub const LATELY: usize = 8;
/// So many of [`LATELY`] at a level are right before the next one comes. Chosen.
const LEVEL_UP: u32 = 7;
/// With fewer of them right it goes back a level. Chosen.
const LEVEL_DOWN: u32 = 4;
/// A day went well with this part right, and badly with less than the second. Chosen.
const WELL: (f64, f64) = (0.9, 0.6);

const SECONDS_A_DAY: i64 = 86_400;

/// All skills as they are known on a day, in the order they are learnt. Attempts are in the order they were made.
pub fn known(attempts: &[Attempt], today: i64) -> Vec<Known> {
    Skill::ALL.iter().map(|skill| of_skill(*skill, attempts, today)).collect()
}

fn of_skill(skill: Skill, attempts: &[Attempt], today: i64) -> Known {
    let own: Vec<Attempt> = attempts.iter().copied().filter(|one| one.skill == skill).collect();
    let lately = &own[own.len().saturating_sub(LATELY)..];
    let card = card(&own);
    let at = |day: i64| chrono::DateTime::from_timestamp(day * SECONDS_A_DAY, 0).unwrap_or_default();
    Known {
        skill,
        level: level(&own),
        answered: count(&own, |_| true),
        lately: (count(lately, |one| one.right), count(lately, |_| true)),
        recalled: card.as_ref().map(|card| card.get_retrievability(at(today))),
        due: card.as_ref().map(|card| card.due.timestamp().div_euclid(SECONDS_A_DAY)),
        weeks: weeks(&own),
    }
}

fn count(of: &[Attempt], is: impl Fn(&Attempt) -> bool) -> u32 {
    u32::try_from(of.iter().filter(|one| is(one)).count()).unwrap_or(u32::MAX)
}

/// The level that is next: up where nearly all of the last at it were right, down where fewer than half were.
fn level(own: &[Attempt]) -> Level {
    let mut level = Level::First;
    let mut lately: Vec<bool> = Vec::new();
    for one in own {
        if one.level != level {
            continue;
        }
        lately.push(one.right);
        if lately.len() < LATELY {
            continue;
        }
        let right = lately.iter().rev().take(LATELY).filter(|right| **right).count();
        let next = match (u32::try_from(right).unwrap_or(0), level) {
            (LEVEL_UP.., Level::First) | (..LEVEL_DOWN, Level::Third) => Level::Second,
            (LEVEL_UP.., Level::Second) => Level::Third,
            (..LEVEL_DOWN, Level::Second) => Level::First,
            _ => level,
        };
        if next != level {
            level = next;
            lately.clear();
        }
    }
    level
}

/// The scheduler's card after all days of practice; nothing where there was none.
fn card(own: &[Attempt]) -> Option<Card> {
    let mut days: BTreeMap<i64, (u32, u32)> = BTreeMap::new();
    for one in own {
        let day = days.entry(one.day).or_default();
        *day = (day.0 + u32::from(one.right), day.1 + 1);
    }
    let scheduler = FSRS::new(Parameters { enable_short_term: false, enable_fuzz: false, ..Parameters::default() });
    days.into_iter().fold(None, |card: Option<Card>, (day, (right, all))| {
        let at = chrono::DateTime::from_timestamp(day * SECONDS_A_DAY, 0)?;
        let share = f64::from(right) / f64::from(all);
        let rating = if share >= WELL.0 {
            Rating::Good
        } else if share >= WELL.1 {
            Rating::Hard
        } else {
            Rating::Again
        };
        let card = card.unwrap_or_else(|| Card { due: at, last_review: at, ..Card::default() });
        Some(scheduler.next(card, at, rating).card)
    })
}

fn weeks(own: &[Attempt]) -> Vec<Week> {
    let mut weeks: BTreeMap<i64, Vec<Attempt>> = BTreeMap::new();
    for one in own {
        weeks.entry(monday_of(one.day)).or_default().push(*one);
    }
    let week = |(monday, all): (i64, Vec<Attempt>)| {
        let off: Vec<f64> = all.iter().filter_map(|one| one.off_stops).map(f64::abs).collect();
        #[expect(clippy::cast_precision_loss, reason = "a week of answers")]
        let mean = (!off.is_empty()).then(|| off.iter().sum::<f64>() / off.len() as f64);
        Week { monday, answered: count(&all, |_| true), right: count(&all, |one| one.right), off_stops: mean }
    };
    weeks.into_iter().map(week).collect()
}

/// Skills for the next few drills: what went wrong on a job first, then what is due, the least known first, then what is
/// new, then the rest.
pub fn next_skills(known: &[Known], went_wrong: &[Skill], today: i64) -> Vec<(Skill, Level)> {
    let place = |one: &Known| -> (u8, f64) {
        let wrong = went_wrong.iter().position(|skill| *skill == one.skill);
        match (wrong, one.due, one.recalled) {
            #[expect(clippy::cast_precision_loss, reason = "a handful")]
            (Some(at), ..) => (0, at as f64),
            (None, Some(due), Some(recalled)) if due <= today => (1, recalled),
            (None, None, _) => (2, 0.0),
            (None, _, recalled) => (3, recalled.unwrap_or(0.0)),
        }
    };
    let mut order: Vec<&Known> = known.iter().collect();
    order.sort_by(|a, b| place(a).0.cmp(&place(b).0).then(place(a).1.total_cmp(&place(b).1)));
    // Two new ones at once are enough, unless there is nothing else.
    let (mut first, mut later, mut new) = (Vec::new(), Vec::new(), 0);
    for one in order {
        new += u32::from(one.due.is_none());
        if one.due.is_none() && new > 2 { later.push(one) } else { first.push(one) }
    }
    first.into_iter().chain(later).map(|one| (one.skill, one.level)).collect()
}

/// The Monday on or before a day, both counted from 1970-01-01, a Thursday.
pub const fn monday_of(day: i64) -> i64 {
    (day - 4).div_euclid(7) * 7 + 4
}

#[cfg(test)]
mod tests {
    use super::*;

    fn answers(skill: Skill, level: Level, day: i64, rights: &[bool]) -> Vec<Attempt> {
        let off = |right: bool| Some(if right { 0.0 } else { -1.0 });
        rights.iter().map(|right| Attempt { skill, level, day, right: *right, off_stops: off(*right) }).collect()
    }

    fn of(attempts: &[Attempt], skill: Skill, today: i64) -> Known {
        known(attempts, today).into_iter().find(|one| one.skill == skill).expect("every skill")
    }

    /// What is known well comes back later each time, what is not the next day.
    #[test]
    fn well_known_comes_back_later() {
        let skill = Skill::Powers;
        let first = answers(skill, Level::First, 100, &[true; 5]);
        let due = of(&first, skill, 100).due.expect("a day");
        assert!(due > 101, "{due}");
        let again = [first.clone(), answers(skill, Level::First, due, &[true; 5])].concat();
        let later = of(&again, skill, due).due.expect("a day");
        assert!(later - due > due - 100, "{later} {due}");
        let badly = answers(skill, Level::First, 100, &[false, false, true]);
        let soon = of(&badly, skill, 100).due.expect("a day");
        assert!(soon < due && soon > 100, "{soon} {due}");
        // It fades until then.
        let known = of(&first, skill, 100 + 30).recalled.expect("practised");
        assert!(known < of(&first, skill, 101).recalled.expect("practised") && known > 0.3, "{known}");
    }

    #[test]
    fn levels_rise_and_fall() {
        let skill = Skill::Sums;
        let mut all = answers(skill, Level::First, 1, &[true; 7]);
        assert_eq!(of(&all, skill, 1).level, Level::First);
        all.extend(answers(skill, Level::First, 1, &[true]));
        assert_eq!(of(&all, skill, 1).level, Level::Second);
        all.extend(answers(skill, Level::Second, 2, &[true, true, true, true, true, true, true, false]));
        assert_eq!(of(&all, skill, 2).level, Level::Third);
        all.extend(answers(skill, Level::Third, 3, &[false; 8]));
        assert_eq!(of(&all, skill, 3).level, Level::Second);
    }

    #[test]
    fn what_went_wrong_comes_first_and_new_ones_two_at_a_time() {
        let none = known(&[], 10);
        let order = next_skills(&none, &[Skill::Gels], 10);
        assert_eq!(order.len(), Skill::ALL.len());
        let first: Vec<Skill> = order.iter().take(3).map(|(skill, _)| *skill).collect();
        assert_eq!(first, [Skill::Gels, Skill::EqualExposures, Skill::WhatMovesWhat]);
        let mut all = answers(Skill::EqualExposures, Level::First, 1, &[true; 4]);
        all.extend(answers(Skill::Glass, Level::First, 1, &[false; 4]));
        let order = next_skills(&known(&all, 200), &[], 200);
        assert_eq!(order[0].0, Skill::Glass, "the least known of what is due");
        assert_eq!(order[1].0, Skill::EqualExposures);
    }

    #[test]
    fn a_week_begins_on_monday() {
        // 2026-11-27 is a Friday, day 20 784; its Monday is 20 780.
        let all = answers(Skill::Depth, Level::First, 20_784, &[true, false]);
        let weeks = of(&all, Skill::Depth, 20_784).weeks;
        assert_eq!(weeks, [Week { monday: 20_780, answered: 2, right: 1, off_stops: Some(0.5) }]);
    }
}
