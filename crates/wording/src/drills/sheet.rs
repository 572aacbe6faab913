//! A sheet of drills to print: exercises on one page, answers with their workings on the next.

use std::fmt::Write as _;

use tolva_planner::drills::{Drill, Level, Own, Skill, in_turn};

use super::names::number_of;
use super::{AnsweredBy, SkillSaid, answer_said, drill_said};
use crate::card::Paper;
use crate::set::escaped;
use crate::shown::Show;

/// What a sheet is made of.
#[derive(Clone, Debug)]
pub struct SheetAsked<'a> {
    /// What is practised; empty is everything.
    pub skills: &'a [Skill],
    /// How hard.
    pub level: Level,
    /// What it is drawn with: the same gives the same sheet.
    pub seed: u64,
    /// How many exercises, 1 to 40.
    pub count: usize,
    /// Whether the page with the answers comes with it.
    pub with_answers: bool,
    /// What it is printed on.
    pub paper: Paper,
}

/// The drills of a sheet: the skills in turn.
pub fn drills_of(asked: &SheetAsked<'_>, own: &Own) -> Vec<Drill> {
    let skills: &[Skill] = if asked.skills.is_empty() { &Skill::ALL } else { asked.skills };
    let skills = skills.iter().filter(|skill| skill.is_on_paper());
    let skills: Vec<(Skill, Level)> = skills.map(|skill| (*skill, asked.level)).collect();
    in_turn(&skills, asked.seed, asked.count, own)
}

/// The sheet as one self-contained HTML file: a page of exercises, and one of answers where they are asked for.
pub fn sheet(asked: &SheetAsked<'_>, own: &Own, show: Show) -> String {
    let all = drills_of(asked, own);
    let (paper, letters) = match asked.paper {
        Paper::A5 => ("A5", 7.2),
        Paper::A4 => ("A4", 9.2),
    };
    let level = number_of(asked.level);
    let mut html = String::new();
    let _ = write!(
        html,
        "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" \
         content=\"width=device-width\"><title>Drills, level {level}, sheet {}</title>\n<style>\n\
         @page {{ size: {paper} portrait; margin: 8mm; }}\n\
         html {{ font: {letters}pt/1.28 system-ui, sans-serif; color: #000; background: #fff; }}\n\
         body {{ margin: 0; }} main {{ max-width: 190mm; margin: auto; padding: 2mm; }}\n\
         h1 {{ font-size: 1.35em; margin: 0 0 0.3em; }} .answers {{ break-before: page; }}\n\
         ol {{ margin: 0; padding-left: 2.2em; columns: 2; column-gap: 8mm; }}\n\
         li {{ break-inside: avoid; margin: 0 0 0.55em; }}\n\
         b {{ display: block; }} i {{ font-style: normal; display: block; border-bottom: 0.3pt solid #000; height: 1.5em; }}\n\
         small {{ font-size: 0.86em; }}\n\
         @media screen and (max-width: 600px) {{ html {{ font-size: 12pt; }} ol {{ columns: 1; }} main {{ padding: 5mm; }} }}\n\
         </style></head><body><main>\n",
        asked.seed
    );
    let _ = writeln!(html, "<h1>Drills, level {level}, sheet {}</h1>\n<ol>", asked.seed);
    for one in &all {
        let said = drill_said(one, show);
        let choices = match said.by {
            AnsweredBy::Choice => format!(" {}.", escaped(&said.options.join("; "))),
            AnsweredBy::Dial | AnsweredBy::Stops => String::new(),
        };
        let school = said.school.map(|school| format!(" <small>{}</small>", escaped(school))).unwrap_or_default();
        let _ =
            writeln!(html, "<li>{}{school}<b>{}{choices}</b><i></i></li>", escaped(&said.stands), escaped(&said.asks));
    }
    html.push_str("</ol>\n");
    if asked.with_answers {
        let _ =
            writeln!(html, "<section class=\"answers\"><h1>Answers to sheet {}, level {level}</h1>\n<ol>", asked.seed);
        for one in &all {
            let (said, answer) = (drill_said(one, show), answer_said(one, one.right, show));
            let skill: SkillSaid = one.skill.into();
            let _ = writeln!(
                html,
                "<li><b>{}</b><small>{}: {}</small></li>",
                escaped(&said.options[one.right]),
                escaped(skill.name),
                escaped(&answer.workings.join(" "))
            );
        }
        html.push_str("</ol></section>\n");
    }
    html.push_str("</main></body></html>\n");
    html
}
