//! Drills: the next few, an answer judged and kept, how well each skill is known; drills for a class, a set to practise on,
//! tasks for one's own camera; sheets to print, answers taken out.

mod class;
mod on_set;
mod paper;
mod picture;
mod progress;
mod tasks;

pub use class::{give as give_class, open as open_class};
pub use on_set::{frame_of_set, practise};
pub use paper::on_paper;
pub use picture::of_drill;
pub use progress::{how_known, results};
pub use tasks::{judge as judge_task, measure as measure_frame};

use actix_web::http::StatusCode;
use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get, post};
use serde::{Deserialize, Serialize};
use sha2::{Digest as _, Sha256};
use tolva_core::time::day_number;
use tolva_format::{MOST_SEED, ProblemCode, Problems};
use tolva_planner::drills::{Attempt, Drill, Level, Own, Skill, drill, in_turn, known, next_skills};
use tolva_planner::setup::Kit;
use tolva_store::{KeptAttempt, Store};
use tolva_wording::{AnswerSaid, DrillSaid, Show, answer_said, drill_said, level_of, number_of, skill_of, why_these};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

use super::answer::{Key, day_asked};
use super::body::Body;
use super::preferences::shown;
use super::problem::{ApiError, ProblemDocument};
use super::work::worked_out;
use crate::phones::Caller;
use crate::practised::went_wrong_lately;

/// So many drills are sent at once.
const MOST_DRILLS: usize = 40;

/// A drill with what it is known by.
#[derive(Debug, Serialize, ToSchema)]
pub struct DrillSent {
    /// The drill.
    #[serde(flatten)]
    drill: DrillSaid,
    /// What is asked, as a short hash: an answer is to this and nothing else.
    mark: String,
}

/// The next few drills.
#[derive(Debug, Serialize, ToSchema)]
pub struct DrillRound {
    /// The drills, in order.
    drills: Vec<DrillSent>,
    /// Why these, in a sentence.
    because: String,
    /// The class they are for; null for one's own.
    class: Option<String>,
}

/// Which drills.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichDrills {
    /// Of this skill only, by its code; left out, what is to be practised next.
    #[serde(default)]
    #[param(max_length = 40)]
    skill: Option<String>,
    /// At this level, 1 to 3; left out, the one that is next.
    #[serde(default)]
    #[param(minimum = 1, maximum = 3)]
    level: Option<u8>,
    /// What they are drawn with; left out, anything.
    #[serde(default)]
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: Option<u64>,
    /// How many, 1 to 40.
    #[serde(default = "ten")]
    #[param(minimum = 1, maximum = 40, default = 10)]
    count: usize,
    /// The day it is where somebody practises, as `2026-11-27`; left out, the one it is in UTC.
    #[serde(default)]
    #[param(max_length = 10)]
    today: Option<String>,
}

const fn ten() -> usize {
    10
}

fn day_of(today: Option<&str>) -> Result<i64, Problems> {
    Ok(day_number(day_asked(today)?))
}

fn skill(code: &str) -> Result<Skill, Problems> {
    skill_of(code).ok_or_else(|| {
        Problems::one("/skill", format!("there is no skill “{}”", tolva_format::shortened(code)))
            .coded(ProblemCode::NotThere)
    })
}

/// Skills by their codes, with commas between.
fn skills(codes: &str) -> Result<Vec<Skill>, Problems> {
    codes.split(',').map(str::trim).filter(|code| !code.is_empty()).map(skill).collect()
}

fn level(number: u8) -> Result<Level, Problems> {
    level_of(number).ok_or_else(|| Problems::one("/level", format!("{number} is no level: they go from 1 to 3")))
}

fn within(seed: u64, count: usize) -> Result<(), Problems> {
    if seed > MOST_SEED {
        return Err(Problems::one("/seed", format!("{seed} is too large: at most {MOST_SEED}")));
    }
    if !(1..=MOST_DRILLS).contains(&count) {
        return Err(Problems::one("/count", format!("{count} drills: ask for 1 to {MOST_DRILLS}")));
    }
    Ok(())
}

/// The dials of the owned kit; in a class those of the kit Tolva comes with, which everybody has.
async fn own(store: &Store, class: Option<&str>) -> Result<Own, ApiError> {
    match class {
        Some(_) => Ok(Own::of(&Kit::starter())),
        None => Ok(Own::of(&store.kit().await?.document.kit.into())),
    }
}

fn mark(one: &Drill) -> String {
    let hash = Sha256::digest(format!("{:?}{:?}", one.asked, one.offered));
    format!("{hash:x}")[..12].to_owned()
}

fn sent(one: &Drill, show: Show) -> DrillSent {
    DrillSent { drill: drill_said(one, show), mark: mark(one) }
}

fn attempt(kept: &KeptAttempt) -> Option<Attempt> {
    let level = level_of(u8::try_from(kept.level).ok()?)?;
    Some(Attempt { skill: skill_of(&kept.skill)?, level, day: kept.day, right: kept.right, off_stops: kept.off_stops })
}

/// Answers to drills; what was practised besides is no skill.
fn attempts(kept: &[KeptAttempt]) -> Vec<Attempt> {
    kept.iter().filter_map(attempt).collect()
}

/// An answer as it is kept: on which day, to what, and how good it was.
fn kept(
    caller: &Caller,
    day: i64,
    (skill, level, seed): (&str, Level, u64),
    (chosen, right, off_stops): (usize, bool, Option<f64>),
) -> KeptAttempt {
    KeptAttempt {
        at: String::new(),
        day,
        who: caller.name.clone(),
        skill: skill.to_owned(),
        level: number_of(level).into(),
        seed: i64::try_from(seed).unwrap_or_default(),
        answer: i64::try_from(chosen).unwrap_or(i64::MAX),
        right,
        off_stops,
        class: String::new(),
    }
}

/// The next few drills: of a skill, or of those that are to be practised next.
#[utoipa::path(
    operation_id = "drills",
    params(WhichDrills),
    responses((status = OK, description = "The drills", body = DrillRound)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills")]
pub async fn next(which: Query<WhichDrills>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let which = which.into_inner();
    let seed = which.seed.unwrap_or_else(|| Uuid::new_v4().as_u64_pair().0 % MOST_SEED);
    within(seed, which.count)?;
    let today = day_of(which.today.as_deref())?;
    let at_level = which.level.map(level).transpose()?;
    let (own, show) = (own(&store, None).await?, shown(&store).await?);
    let known = known(&attempts(&store.attempts().await?), today);
    let (skills, because) = if let Some(code) = &which.skill {
        let skill = skill(code)?;
        let next = known.iter().find(|one| one.skill == skill).map_or(Level::First, |one| one.level);
        (vec![(skill, next)], String::new())
    } else {
        let wrong = went_wrong_lately(&store).await?;
        let few = which.count.div_ceil(3);
        let next: Vec<(Skill, Level)> = next_skills(&known, &wrong, today).into_iter().take(few).collect();
        let because = why_these(&known, &next, &wrong, today);
        (next, because)
    };
    let skills: Vec<(Skill, Level)> =
        skills.into_iter().map(|(skill, next)| (skill, at_level.unwrap_or(next))).collect();
    let count = which.count;
    let made = worked_out(move || {
        let all = in_turn(&skills, seed, count, &own);
        Ok::<_, ApiError>(all.iter().map(|one| sent(one, show)).collect())
    });
    Ok(HttpResponse::Ok().json(DrillRound { drills: made.await?, because, class: None }))
}

/// An answer.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnswerRequest {
    /// The skill, by its code.
    #[schema(max_length = 40)]
    skill: String,
    /// The level, 1 to 3.
    #[schema(minimum = 1, maximum = 3)]
    level: u8,
    /// What the drill was drawn with.
    seed: u64,
    /// What was asked, as it was sent.
    #[schema(max_length = 40)]
    mark: String,
    /// Which option was chosen, by its place.
    answer: usize,
    /// The day it is where somebody practises; left out, the one it is in UTC.
    #[serde(default)]
    #[schema(max_length = 10)]
    today: Option<String>,
    /// The class it was asked for; left out for one's own practice.
    #[serde(default)]
    #[schema(max_length = 80)]
    class: Option<String>,
}

/// Judges an answer, and keeps it. Sent again under the same `Idempotency-Key` it is the same answer.
#[utoipa::path(
    operation_id = "answer_drill",
    request_body = AnswerRequest,
    responses(
        (status = OK, description = "What there is to say of it", body = AnswerSaid),
        (status = CONFLICT, description = "The kit has other dials since", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/drills/answers")]
pub async fn answer(
    body: Body<AnswerRequest>,
    (key, caller): (Key, Caller),
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let asked = body.0;
    let (skill, level) = (skill(&asked.skill)?, level(asked.level)?);
    within(asked.seed, 1)?;
    let day = day_of(asked.today.as_deref())?;
    let (own, show) = (own(&store, asked.class.as_deref()).await?, shown(&store).await?);
    let (seed, chosen) = (asked.seed, asked.answer);
    let (one, said) = worked_out(move || {
        let one = drill(skill, level, seed, &own);
        let said = answer_said(&one, chosen, show);
        Ok::<_, ApiError>((one, said))
    })
    .await?;
    if mark(&one) != asked.mark {
        let problem = ProblemDocument::new(StatusCode::CONFLICT, "another_drill", "Another drill by now");
        let says = "the dials of your kit have changed since this was asked, and with them what can be answered: take the next one";
        return Err(problem.saying(says).into());
    }
    if chosen >= one.offered.len() {
        let says = format!("there is no answer {chosen}: they go from 0 to {}", one.offered.len() - 1);
        return Err(Problems::one("/answer", says).into());
    }
    let kept = KeptAttempt {
        class: asked.class.unwrap_or_default(),
        ..kept(&caller, day, (&asked.skill, level, seed), (chosen, said.right, said.off_stops))
    };
    store.keep_attempt(&kept, key.0.as_deref()).await?;
    Ok(HttpResponse::Ok().json(said))
}
