//! Drills for a class: which they are, on the dials everybody has.

use tolva_format::{ClassDrill, ClassFile, Problems};
use tolva_planner::drills::{Level, Own, Skill, in_turn};
use tolva_planner::setup::Kit;
use tolva_wording::{SkillSaid, number_of};

/// The drills of a class: in turn of its skills, on the dials everybody has.
pub fn class_of(name: &str, (of, level): (&[Skill], Level), seed: u64, count: usize) -> Result<ClassFile, Problems> {
    let of = if of.is_empty() { &Skill::ALL[..] } else { of };
    let skills: Vec<_> = of.iter().map(|skill| (*skill, level)).collect();
    let drills = in_turn(&skills, seed, count, &Own::of(&Kit::starter())).into_iter().map(|one| ClassDrill {
        skill: SkillSaid::from(one.skill).code.to_owned(),
        level: number_of(one.level),
        seed: one.seed,
    });
    ClassFile::of(name, drills.collect())
}
