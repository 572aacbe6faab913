//! Drills on the command line: as JSON, one a line, or as a sheet to print.

use std::io::Write as _;
use std::path::PathBuf;

use clap::Args;
use serde_json::json;
use tolva_planner::drills::{Own, Skill, in_turn};
use tolva_planner::setup::Kit;
use tolva_wording::{Paper, SheetAsked, Show, SkillSaid, answer_said, drill_said, level_of, sheet, skill_of};

use super::error::CliError;
use crate::class::class_of;

/// Drills by seed and level: the same two give the same drills.
#[derive(Debug, Args)]
pub struct DrillAsked {
    /// What they are drawn with.
    #[arg(long, default_value_t = 1)]
    seed: u64,
    /// How hard: 1 whole stops, 2 thirds, 3 two things at once.
    #[arg(long, default_value_t = 1, value_parser = clap::value_parser!(u8).range(1..=3))]
    level: u8,
    /// Of this skill only, by its code, such as `equal_exposures`. May be given again.
    #[arg(long = "skill", value_name = "CODE")]
    skills: Vec<String>,
    /// How many.
    #[arg(long, default_value_t = 20, value_parser = clap::value_parser!(u16).range(1..=200))]
    count: u16,
    /// A sheet to print, as one HTML file, instead of JSON.
    #[arg(long)]
    sheet: bool,
    /// Leave the page with the answers out.
    #[arg(long, requires = "sheet")]
    without_answers: bool,
    /// For A5 instead of A4.
    #[arg(long, requires = "sheet")]
    a5: bool,
    /// A file for a class of this name instead: everybody who opens it in Tolva has the same drills.
    #[arg(long, value_name = "NAME", conflicts_with = "sheet")]
    class: Option<String>,
    /// The file to write; left out, standard output.
    #[arg(short, long, value_name = "FILE")]
    output: Option<PathBuf>,
}

/// Writes them. They are for the dials of the starter kit, so that a class has the same ones everywhere.
pub fn drills(asked: &DrillAsked) -> Result<(), CliError> {
    let skill = |code: &String| {
        let known = Skill::ALL.map(|skill| SkillSaid::from(skill).code).join(", ");
        skill_of(code).ok_or_else(|| CliError::NoSuchSkill(code.clone(), known))
    };
    let skills: Vec<Skill> = asked.skills.iter().map(skill).collect::<Result<_, _>>()?;
    let level = level_of(asked.level).unwrap_or_default();
    let (own, show) = (Own::of(&Kit::starter()), Show::default());
    let text = if let Some(name) = &asked.class {
        let file = class_of(name, (&skills, level), asked.seed, asked.count.into()).map_err(CliError::Class)?;
        format!("{:#}\n", json!(file))
    } else if asked.sheet {
        let paper = if asked.a5 { Paper::A5 } else { Paper::A4 };
        let of = SheetAsked {
            skills: &skills,
            level,
            seed: asked.seed,
            count: asked.count.into(),
            with_answers: !asked.without_answers,
            paper,
        };
        sheet(&of, &own, show)
    } else {
        let skills = if skills.is_empty() { Skill::ALL.to_vec() } else { skills };
        let skills: Vec<_> = skills.into_iter().map(|skill| (skill, level)).collect();
        let all = in_turn(&skills, asked.seed, asked.count.into(), &own);
        let mut lines = String::new();
        for one in &all {
            let (drill, answer) = (drill_said(one, show), answer_said(one, one.right, show));
            let right = &drill.options[one.right];
            let line = json!({ "drill": drill, "answer": right, "workings": answer.workings });
            lines.push_str(&line.to_string());
            lines.push('\n');
        }
        lines
    };
    match &asked.output {
        Some(file) => std::fs::write(file, text).map_err(|error| CliError::File(file.clone(), error)),
        None => Ok(write!(std::io::stdout(), "{text}")?),
    }
}
