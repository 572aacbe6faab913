//! Questions in a row: no two of fifty are alike; and the next few of several skills.

use super::{Drill, Level, Own, Skill, drill};

/// So many in a row are all different.
pub const MOST_IN_A_ROW: usize = 50;

/// So many drills of a skill from a seed on: none is like one of the forty-nine before it.
pub fn in_a_row(skill: Skill, level: Level, seed: u64, count: usize, own: &Own) -> Vec<Drill> {
    let mut all: Vec<Drill> = Vec::with_capacity(count);
    let mut next = seed;
    // A skill that has fewer questions than that would never end: after so many tries a repeat is taken.
    let mut tries = count * 40;
    while all.len() < count {
        let one = drill(skill, level, next, own);
        next = next.wrapping_add(1);
        tries = tries.saturating_sub(1);
        let lately = all.iter().rev().take(MOST_IN_A_ROW - 1);
        if tries == 0 || lately.clone().all(|before| before.asked != one.asked) {
            all.push(one);
        }
    }
    all
}

/// So many drills of several skills, in turn.
pub fn in_turn(skills: &[(Skill, Level)], seed: u64, count: usize, own: &Own) -> Vec<Drill> {
    let Some(each) = (!skills.is_empty()).then(|| count.div_ceil(skills.len())) else { return Vec::new() };
    let rows: Vec<Vec<Drill>> = skills.iter().map(|(skill, level)| in_a_row(*skill, *level, seed, each, own)).collect();
    let in_turn = (0..each).flat_map(|round| rows.iter().filter_map(move |row| row.get(round).cloned()));
    in_turn.take(count).collect()
}
