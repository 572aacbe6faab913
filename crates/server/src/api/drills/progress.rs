//! How well skills are known, and the answers as a table.

use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get};
use serde::{Deserialize, Serialize};
use tolva_core::time::date_of_day;
use tolva_planner::drills::{Task, known, monday_of};
use tolva_store::{KeptAttempt, Store};
use tolva_wording::{LevelSaid, SkillProgress, SkillSaid, TaskSaid, levels, skill_progress};
use utoipa::{IntoParams, ToSchema};

use super::on_set::ON_SET;
use super::tasks::TASK;
use super::{attempts, day_of};
use crate::api::answer::table_as_file;
use crate::api::problem::ApiError;
use crate::practised::went_wrong_lately;
use crate::table;

/// How well skills are known.
#[derive(Debug, Serialize, ToSchema)]
pub struct Progress {
    /// Each skill, in the order they are learnt.
    skills: Vec<SkillProgress>,
    /// What the levels are called.
    levels: Vec<LevelSaid>,
    /// How many drills were answered this week.
    this_week: u32,
    /// Skills that went wrong on the last job, what weighs most first.
    went_wrong: Vec<SkillSaid>,
    /// How the last set with the stand-in camera went; null where there was none.
    on_set: Option<LastTime>,
    /// Tasks for one's own camera.
    tasks: Vec<TaskOffered>,
}

/// How something went the last time.
#[derive(Debug, Serialize, ToSchema)]
pub struct LastTime {
    /// The day, as `2026-11-27`.
    day: String,
    /// Whether it was reached.
    reached: bool,
    /// In how many frames.
    frames: i64,
}

/// A task, and how it went.
#[derive(Debug, Serialize, ToSchema)]
pub struct TaskOffered {
    /// The task.
    #[serde(flatten)]
    task: TaskSaid,
    /// How it went the last time; null where it was not done yet.
    last: Option<LastTime>,
}

/// The day it is where somebody looks.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct OnDay {
    /// As `2026-11-27`; left out, the one it is in UTC.
    #[serde(default)]
    #[param(max_length = 10)]
    today: Option<String>,
}

/// How well each skill is known, and when it comes back.
#[utoipa::path(
    operation_id = "drill_progress",
    params(OnDay),
    responses((status = OK, description = "The skills", body = Progress)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/progress")]
pub async fn how_known(on: Query<OnDay>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let today = day_of(on.today.as_deref())?;
    let all = store.attempts().await?;
    let known = known(&attempts(&all), today);
    let last = |code: &str| {
        let last = all.iter().rev().find(|one| one.skill == code)?;
        Some(LastTime { day: date_of_day(last.day).to_string(), reached: last.right, frames: last.answer })
    };
    let monday = monday_of(today);
    let this_week = known.iter().flat_map(|one| &one.weeks).filter(|week| week.monday == monday);
    Ok(HttpResponse::Ok().json(Progress {
        this_week: this_week.map(|week| week.answered).sum(),
        skills: known.iter().map(|one| skill_progress(one, today)).collect(),
        levels: levels(),
        went_wrong: went_wrong_lately(&store).await?.into_iter().map(Into::into).collect(),
        on_set: last(ON_SET),
        tasks: Task::ALL
            .into_iter()
            .map(|task| {
                let task = TaskSaid::from(task);
                TaskOffered { last: last(&format!("{TASK}{}", task.code)), task }
            })
            .collect(),
    }))
}

/// Which answers.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichAnswers {
    /// Of this class only; left out, all.
    #[serde(default)]
    #[param(max_length = 80)]
    class: Option<String>,
}

/// The answers as a table.
#[utoipa::path(
    operation_id = "drill_answers",
    params(WhichAnswers),
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/answers.csv")]
pub async fn results(which: Query<WhichAnswers>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let head =
        ["at", "day", "who", "class", "skill", "level", "seed", "answer", "right", "off_stops"].map(str::to_owned);
    let class = which.into_inner().class;
    let wanted = |one: &KeptAttempt| class.as_ref().is_none_or(|class| one.class == *class);
    let rows = store.attempts().await?.into_iter().filter(wanted).map(|one| {
        [
            one.at,
            date_of_day(one.day).to_string(),
            one.who,
            one.class,
            one.skill,
            one.level.to_string(),
            one.seed.to_string(),
            one.answer.to_string(),
            one.right.to_string(),
            one.off_stops.map_or_else(String::new, |off| format!("{off:.2}")),
        ]
    });
    Ok(table_as_file("Answers to drills", table::csv(std::iter::once(head).chain(rows))))
}
