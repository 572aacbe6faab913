//! Drills in words: the question, what can be answered, and the workings once it is.

mod answers;
mod names;
mod on_set;
mod progress;
mod questions;
mod sheet;
mod tasks;
mod workings;

pub use names::{LevelSaid, SkillSaid, level_of, levels, number_of, skill_of};
pub use on_set::{HiddenSaid, OnSetDial, OnSetEnd, OnSetFrameSaid, OnSetSaid, on_set_said};
pub use progress::{SkillProgress, WeekSaid, skill_progress, why_these};
pub use sheet::{SheetAsked, sheet};
pub use tasks::{FindingSaid, TaskFound, TaskSaid, task_found, task_of};

use serde::Serialize;
use tolva_core::scale::Stops;
use tolva_planner::drills::{Asked, Drill, Value};
use utoipa::ToSchema;

use crate::shown::{Said, Show};

/// A drill, without what is right.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DrillSaid {
    /// What is practised.
    pub skill: SkillSaid,
    /// How hard: 1 to 3.
    pub level: u8,
    /// What it was drawn with.
    pub seed: u64,
    /// What stands, in a sentence or two.
    pub stands: String,
    /// What is asked: `Which shutter?`
    pub asks: String,
    /// Which school is asked for, where practitioners differ; null otherwise.
    pub school: Option<&'static str>,
    /// How it is answered.
    pub by: AnsweredBy,
    /// What can be answered, in order.
    pub options: Vec<String>,
    /// Where the dial stands to begin with.
    pub begins_at: usize,
    /// How many pictures belong to it, as `/api/v1/drills/picture.jpg` gives them; 0 for most.
    pub pictures: usize,
    /// Where regions lie on a rail, by their names, where it is a matter of a rail; empty otherwise.
    pub rail: Vec<OnDrillRail>,
    /// The same from above, where it is a matter of places; null otherwise.
    pub seen: Option<PaneSeen>,
}

/// How a drill is answered.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AnsweredBy {
    /// On a dial, click by click.
    Dial,
    /// Along a scale of stops.
    Stops,
    /// One of a few.
    Choice,
}

/// A region on the rail of a drill.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OnDrillRail {
    /// What it is called.
    pub name: &'static str,
    /// Where it lies.
    pub at: Said,
}

/// A pane from above, the lens and a light before it, in metres.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PaneSeen {
    /// How far the lens stands before the pane.
    pub lens_m: f64,
    /// How far the light does.
    pub light_m: f64,
    /// How far the light stands to the right of the lens.
    pub aside_m: f64,
    /// How far the pane goes to the left of the lens.
    pub left_m: f64,
    /// And to the right.
    pub right_m: f64,
}

/// What there is to say of an answer.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AnswerSaid {
    /// Whether it is right.
    pub right: bool,
    /// In a sentence: `1/60. You were a third too dark.`
    pub says: String,
    /// Which option is right.
    pub right_option: usize,
    /// By how many stops the answer is off, 0 where it is right; null where that is no matter of stops.
    pub off_stops: Option<f64>,
    /// The arithmetic, line by line.
    pub workings: Vec<String>,
}

/// A drill in words.
pub fn drill_said(drill: &Drill, show: Show) -> DrillSaid {
    let (stands, asks) = questions::question(&drill.asked, show);
    DrillSaid {
        skill: drill.skill.into(),
        level: names::number_of(drill.level),
        seed: drill.seed,
        stands,
        asks,
        school: questions::school(&drill.asked),
        by: by(drill),
        options: drill.offered.iter().map(|value| answers::label(value, &drill.asked, show)).collect(),
        begins_at: begins_at(drill),
        pictures: drill.asked.pictures().map_or(0, |(_, all)| all.len()),
        rail: match &drill.asked {
            Asked::WhichPicture { rail, .. } => rail
                .iter()
                .zip(["Behind", "Face, lit side", "Face, shadow side"])
                .map(|(at, name)| OnDrillRail { name, at: (*at).into() })
                .collect(),
            _ => Vec::new(),
        },
        seen: match &drill.asked {
            Asked::Shows(before) | Asked::ShowsAt(before) => Some(PaneSeen {
                lens_m: before.lens.0,
                light_m: before.light.0,
                aside_m: before.aside.0,
                left_m: before.left.0,
                right_m: before.right.0,
            }),
            _ => None,
        },
    }
}

fn by(drill: &Drill) -> AnsweredBy {
    match drill.exact {
        Value::Stops(_) => AnsweredBy::Stops,
        Value::Gel(_) | Value::Turned(_) | Value::Way(_) | Value::Yes(_) => AnsweredBy::Choice,
        _ => AnsweredBy::Dial,
    }
}

/// On what stands now where that is on the dial, otherwise in the middle: never on what is right, unless that stands.
fn begins_at(drill: &Drill) -> usize {
    let stands = match &drill.asked {
        Asked::Equal { from, .. } => Some(match drill.exact {
            Value::Shutter(_) => Value::Shutter(from.shutter),
            Value::Aperture(_) => Value::Aperture(from.aperture),
            _ => Value::Iso(from.iso),
        }),
        Asked::PowerBy { from, .. } => Some(Value::Power(*from)),
        Asked::Farther { from, .. } => Some(Value::Metres(*from)),
        Asked::Gelled { light, .. } => Some(Value::Kelvin(*light)),
        Asked::Spot { says, .. } => Some(Value::Shutter(says.shutter)),
        Asked::Turned { straight, .. } => Some(Value::Aperture(*straight)),
        _ => None,
    };
    let middle = match drill.exact {
        Value::Stops(_) => drill.offered.iter().position(|one| *one == Value::Stops(Stops::ZERO)),
        _ => None,
    };
    let nearest = |value: Value| {
        let away = |at: &usize| drill.offered[*at].away(&value);
        (0..drill.offered.len()).min_by(|a, b| away(a).total_cmp(&away(b)))
    };
    stands.and_then(nearest).or(middle).unwrap_or(drill.offered.len() / 2)
}

/// What there is to say of an answer: of the option at a place.
pub fn answer_said(drill: &Drill, answer: usize, show: Show) -> AnswerSaid {
    AnswerSaid {
        right: drill.is_right(answer),
        says: answers::says(drill, answer, show),
        right_option: drill.right,
        off_stops: drill.error(answer).map(|off| off.0),
        workings: workings::workings(drill, show),
    }
}

#[cfg(test)]
mod tests;
