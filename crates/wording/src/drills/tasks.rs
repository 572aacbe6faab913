//! Tasks for one's own camera, in words.

use serde::Serialize;
use tolva_core::scale::{Setting, Shutter};
use tolva_planner::drills::{Finding, Task, TaskFrame, found};
use utoipa::ToSchema;

use crate::frames::kept_called;
use crate::words::in_a_row;

/// A task.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct TaskSaid {
    /// Its code: `touch_of_flash`.
    pub code: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it is good for.
    pub why: &'static str,
    /// Its frames, in the order they are taken: what each is of.
    pub frames: Vec<&'static str>,
    /// What to take care of; empty for most.
    pub caution: &'static str,
}

/// What was found of a task's frames.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TaskFound {
    /// In a sentence: `As it was asked for.`
    pub says: String,
    /// Whether all that was asked for is there.
    pub good: bool,
    /// By how many stops what misses most misses; null where nothing was asked in stops, or nothing could be measured.
    pub off_stops: Option<f64>,
    /// Each thing that was looked at.
    pub findings: Vec<FindingSaid>,
}

/// Something that was looked at.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct FindingSaid {
    /// In a sentence.
    pub says: String,
    /// Whether it is as it was asked for; null where nothing was asked, and it is only told.
    pub good: Option<bool>,
}

impl From<Task> for TaskSaid {
    fn from(task: Task) -> Self {
        let room = "Without flash: turn shutter, aperture and ISO until the grey thing lies a stop under mid grey.";
        let warm = "A flash gets hot when it fires often: let it rest as its maker says.";
        match task {
            Task::EnvironmentFirst => Self {
                code: "environment_first",
                name: "The room first",
                why: "What the flash adds to is set before the flash is on.",
                frames: vec![room],
                caution: "",
            },
            Task::TouchOfFlash => Self {
                code: "touch_of_flash",
                name: "A touch of flash",
                why: "So little flash that nobody asks where it comes from; and what one click on its dial does.",
                frames: vec![
                    room,
                    "The same settings, flash at 1/16, from where it is to stand.",
                    "The same, flash at 1/8.",
                ],
                caution: warm,
            },
            Task::BareAndCard => Self {
                code: "bare_and_card",
                name: "Bare, and with a card",
                why: "What a white card before the flash takes, and what it gives.",
                frames: vec![room, "The same settings, flash bare.", "The same power, with a white card at the flash."],
                caution: "A card is not to touch a hot flash tube: keep it a hand away, and let both cool.",
            },
            Task::OneBalance => Self {
                code: "one_balance",
                name: "One white balance",
                why: "Skin that stays one colour while clothes change: the balance is set once, not by the camera.",
                frames: vec![
                    "Somebody in one set of clothes, the face or a grey card in the middle, all set by hand.",
                    "The same settings, other clothes.",
                    "The same settings, other clothes again.",
                ],
                caution: "",
            },
            Task::SlowWithFlash => Self {
                code: "slow_with_flash",
                name: "A slow shutter, and flash at its end",
                why: "Movement from the room, sharpness from the flash; fired at the end, the trail lies behind.",
                frames: vec![
                    "Without flash, 1/15 s to 1/2 s: the grey thing a stop under mid grey.",
                    "The same settings with flash at the end of the exposure: the grey thing at mid grey.",
                ],
                caution: "Nobody walks about in the dark for a trail: clear the way first. Do not flash into eyes from near.",
            },
        }
    }
}

/// A task by its code.
pub fn task_of(code: &str) -> Option<Task> {
    Task::ALL.into_iter().find(|task| TaskSaid::from(*task).code == code)
}

/// What was found of a task's frames, in words.
pub fn task_found(task: Task, frames: &[TaskFrame]) -> TaskFound {
    let all = found(task, frames);
    let wrong = all.iter().filter(|one| one.is_good() == Some(false)).count();
    let off = all.iter().filter_map(Finding::off).max_by(|a, b| a.0.abs().total_cmp(&b.0.abs()));
    let mut findings: Vec<FindingSaid> =
        all.iter().map(|one| FindingSaid { says: says(one), good: one.is_good() }).collect();
    if task == Task::SlowWithFlash {
        let says = "Whether the flash fired at the end is in no file: look whether the trail lies behind what moved.";
        findings.push(FindingSaid { says: says.to_owned(), good: None });
    }
    TaskFound {
        says: match wrong {
            0 => "As it was asked for.".to_owned(),
            1 => "One thing is not as it was asked for.".to_owned(),
            more => format!("{more} things are not as they were asked for."),
        },
        good: wrong == 0,
        off_stops: off.map(|off| off.0),
        findings,
    }
}

fn says(finding: &Finding) -> String {
    let frame = |at: &usize| format!("Frame {}", at + 1);
    match finding {
        Finding::Count { wanted: 1, came } => format!("This takes one frame; {came} came."),
        Finding::Count { wanted, came } => format!("This takes {wanted} frames; {came} came."),
        Finding::Off { frame: at, fired: Some(true) } => {
            format!("{}: the flash fired, and was to stay off.", frame(at))
        }
        Finding::Off { frame: at, .. } => format!("{}: the flash stayed off.", frame(at)),
        Finding::Settings { frame: at, differs, untold } if differs.is_empty() && untold.is_empty() => {
            format!("{}: at the settings of the first.", frame(at))
        }
        Finding::Settings { frame: at, differs, .. } if !differs.is_empty() => {
            let all = differs.iter().map(|one| kept_called(*one).to_owned());
            format!("{}: not at the settings of the first: {} was turned.", frame(at), in_a_row(all))
        }
        Finding::Settings { frame: at, untold, .. } => {
            let all = untold.iter().map(|one| kept_called(*one).to_owned());
            format!("{}: its file does not say {}.", frame(at), in_a_row(all))
        }
        Finding::Shutter { came_s, fastest_s, slowest_s } => {
            let label = |seconds: f64| Setting::<Shutter>::of(seconds).label();
            let asked = format!("{} to {}", label(*fastest_s), label(*slowest_s));
            match came_s {
                Some(came) => format!("Shutter {}; asked for: {asked}.", label(*came)),
                None => format!("The shutter is not in the file; asked for: {asked}."),
            }
        }
        Finding::Lost { frame: at, bright: true } => {
            format!("{}: the middle is burnt out, and cannot be measured.", frame(at))
        }
        Finding::Lost { frame: at, .. } => format!("{}: the middle is too dark to be measured.", frame(at)),
        Finding::Came { frame: at, at: stops, wished } => {
            let (came, wished) = (stops.thirds(), wished.thirds());
            format!("{}: the middle at {came} stops from mid grey; asked for: {wished}.", frame(at))
        }
        Finding::Flashed { frame: at, alone: Some(alone) } => {
            format!("{}: the flash by itself gives {} stops from mid grey.", frame(at), alone.thirds())
        }
        Finding::Flashed { frame: at, .. } => {
            format!("{}: no brighter than the first: no flash came to the middle.", frame(at))
        }
        Finding::Grew { by, wished } => {
            format!(
                "From one to the next the flash grew by {} stops; by its dial it is {}.",
                by.thirds(),
                wished.thirds()
            )
        }
        Finding::Card { more } if more.0 < 0.0 => format!("The card takes {} of the flash.", more.amount()),
        Finding::Card { more } => format!("The card gives {} more than the flash bare.", more.amount()),
        Finding::Colour { red, blue } => {
            let percent = |part: &f64| format!("{:+.0} %", (part - 1.0) * 100.0).replace('-', "−");
            format!(
                "The middle's red strays by {} and its blue by {} at most; asked for: within 3 %.",
                percent(red),
                percent(blue)
            )
        }
    }
}
