//! Drills: the next few, an answer judged and kept, how well each skill is known, sheets to print, answers taken out.

use actix_web::http::StatusCode;
use actix_web::http::header::CONTENT_SECURITY_POLICY;
use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse, get, post};
use serde::{Deserialize, Serialize};
use sha2::{Digest as _, Sha256};
use tolva_core::proof::{Fineness, Work};
use tolva_core::time::{date_of_day, day_number};
use tolva_format::{ProblemCode, Problems};
use tolva_pictures::jpeg;
use tolva_planner::drills::{Attempt, Drill, Level, Own, Skill, drill, in_turn, known, next_skills};
use tolva_store::{KeptAttempt, Store};
use tolva_wording::{
    AnswerSaid, DrillSaid, LevelSaid, SheetAsked, Show, SkillProgress, SkillSaid, answer_said, drill_said, level_of,
    levels, proof_of, sheet, skill_of, skill_progress, why_these,
};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

use super::answer::{Key, day_asked, table_as_file};
use super::body::Body;
use super::preferences::shown;
use super::problem::{ApiError, ProblemDocument};
use super::proof::sent as sent_picture;
use super::run::PaperSize;
use super::work::worked_out;
use crate::edge::refused;
use crate::phones::Caller;
use crate::policy::policy;
use crate::practised::went_wrong_lately;
use crate::proofs::{Asked as Pictured, Proofs};
use crate::table;

/// Numbers of seeds that every reader of JSON keeps whole.
const MOST_SEED: u64 = 1 << 53;
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
pub struct Drills {
    /// The drills, in order.
    drills: Vec<DrillSent>,
    /// Why these, in a sentence.
    because: String,
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

/// The dials of the owned kit.
async fn own(store: &Store) -> Result<Own, ApiError> {
    Ok(Own::of(&store.kit().await?.document.kit.into()))
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

async fn attempts(store: &Store) -> Result<Vec<Attempt>, ApiError> {
    Ok(store.attempts().await?.iter().filter_map(attempt).collect())
}

/// The next few drills: of a skill, or of those that are to be practised next.
#[utoipa::path(operation_id = "drills", params(WhichDrills), responses((status = OK, description = "The drills", body = Drills)))]
#[get("/api/v1/drills")]
pub async fn next(which: Query<WhichDrills>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let which = which.into_inner();
    let seed = which.seed.unwrap_or_else(|| Uuid::new_v4().as_u64_pair().0 % MOST_SEED);
    within(seed, which.count)?;
    let today = day_of(which.today.as_deref())?;
    let at_level = which.level.map(level).transpose()?;
    let (own, show) = (own(&store).await?, shown(&store).await?);
    let known = known(&attempts(&store).await?, today);
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
    Ok(HttpResponse::Ok().json(Drills { drills: made.await?, because }))
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
}

/// Judges an answer, and keeps it. Sent again under the same `Idempotency-Key` it is the same answer.
#[utoipa::path(
    operation_id = "answer_drill",
    request_body = AnswerRequest,
    responses(
        (status = OK, description = "What there is to say of it", body = AnswerSaid),
        (status = CONFLICT, description = "The kit has other dials since", body = ProblemDocument, content_type = "application/problem+json"),
    )
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
    let (own, show) = (own(&store).await?, shown(&store).await?);
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
    let whole = |number: usize| i64::try_from(number).unwrap_or(i64::MAX);
    let kept = KeptAttempt {
        at: String::new(),
        day,
        who: caller.name.clone(),
        skill: asked.skill,
        level: asked.level.into(),
        seed: i64::try_from(seed).unwrap_or_default(),
        answer: whole(chosen),
        right: said.right,
        off_stops: said.off_stops,
    };
    store.keep_attempt(&kept, key.0.as_deref()).await?;
    Ok(HttpResponse::Ok().json(said))
}

/// Which picture of which drill.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WhichPicture {
    /// The skill, by its code.
    #[param(max_length = 40)]
    skill: String,
    /// The level, 1 to 3.
    #[param(minimum = 1, maximum = 3)]
    level: u8,
    /// What the drill was drawn with.
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: u64,
    /// Which of its pictures, counted from 0.
    of: usize,
}

/// So many pixels the longer side of a drill's picture has.
const PICTURE: u32 = 480;

/// A picture that belongs to a drill, computed as the proof is.
#[utoipa::path(
    operation_id = "drill_picture",
    params(WhichPicture),
    responses((status = OK, description = "JPEG", content_type = "image/jpeg"))
)]
#[get("/api/v1/drills/picture.jpg")]
pub async fn picture(
    which: Query<WhichPicture>,
    store: Data<Store>,
    proofs: Data<Proofs>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let which = which.into_inner();
    let (skill, level) = (skill(&which.skill)?, level(which.level)?);
    within(which.seed, 1)?;
    let own = own(&store).await?;
    let proofs = proofs.into_inner();
    let kept = worked_out(move || {
        let one = drill(skill, level, which.seed, &own);
        let of = one.asked.pictures().and_then(|(scene, all)| scene.setup(all.get(which.of)?));
        let none =
            || Problems::one("/of", format!("this drill has no picture {}", which.of)).coded(ProblemCode::NotThere);
        let (setup, kit) = of.ok_or_else(none)?;
        let (proof, report) = proof_of(&setup, &kit, Show::default()).map_err(refused)?;
        let wanted =
            Pictured { longest: PICTURE, fineness: Fineness::Fine, grain: false, movement: false, behind: None };
        let words = format!("{:?} {}", one.asked, which.of);
        Ok::<_, ApiError>(proofs.picture(&words, (&setup, &proof, &report), &wanted, &Work::default())?)
    });
    let kept = kept.await?;
    sent_picture(&request, &kept.id, ("image/jpeg", "no-cache"), || jpeg(&kept.picture, 88, None))
}

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
#[utoipa::path(operation_id = "drill_progress", params(OnDay), responses((status = OK, description = "The skills", body = Progress)))]
#[get("/api/v1/drills/progress")]
pub async fn progress(on: Query<OnDay>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let today = day_of(on.today.as_deref())?;
    let known = known(&attempts(&store).await?, today);
    // A Monday on or before today: 1970-01-05 was one.
    let monday = (today - 4).div_euclid(7) * 7 + 4;
    let this_week = known.iter().flat_map(|one| &one.weeks).filter(|week| week.monday == monday);
    Ok(HttpResponse::Ok().json(Progress {
        this_week: this_week.map(|week| week.answered).sum(),
        skills: known.iter().map(|one| skill_progress(one, today)).collect(),
        levels: levels(),
        went_wrong: went_wrong_lately(&store).await?.into_iter().map(Into::into).collect(),
    }))
}

/// The answers as a table.
#[utoipa::path(
    operation_id = "drill_answers",
    responses((status = OK, description = "CSV (RFC 4180)", body = String, content_type = "text/csv"))
)]
#[get("/api/v1/drills/answers.csv")]
pub async fn results(store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let head = ["at", "day", "who", "skill", "level", "seed", "answer", "right", "off_stops"].map(str::to_owned);
    let rows = store.attempts().await?.into_iter().map(|one| {
        [
            one.at,
            date_of_day(one.day).to_string(),
            one.who,
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

/// How a sheet is made.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct SheetQuery {
    /// Of these skills, by their codes with commas between; left out, of all.
    #[serde(default)]
    #[param(max_length = 600)]
    skills: String,
    /// At this level, 1 to 3.
    #[serde(default = "one")]
    #[param(minimum = 1, maximum = 3, default = 1)]
    level: u8,
    /// What it is drawn with: the same gives the same sheet.
    #[serde(default)]
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: u64,
    /// How many exercises, 1 to 40.
    #[serde(default = "twenty")]
    #[param(minimum = 1, maximum = 40, default = 20)]
    count: usize,
    /// Whether the page with the answers comes with it.
    #[serde(default)]
    answers: bool,
    /// What it is printed on.
    #[serde(default)]
    #[param(inline)]
    paper: PaperSize,
}

const fn one() -> u8 {
    1
}

const fn twenty() -> usize {
    20
}

/// A sheet of drills to print, one self-contained HTML file: exercises, and their answers on a page of their own.
#[utoipa::path(
    operation_id = "drill_sheet",
    params(SheetQuery),
    responses((status = OK, description = "HTML", body = String, content_type = "text/html"))
)]
#[get("/api/v1/drills/sheet.html")]
pub async fn on_paper(asked: Query<SheetQuery>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let asked = asked.into_inner();
    within(asked.seed, asked.count)?;
    let level = level(asked.level)?;
    let codes = asked.skills.split(',').map(str::trim).filter(|code| !code.is_empty());
    let skills: Vec<Skill> = codes.map(skill).collect::<Result<_, _>>()?;
    let (own, show) = (own(&store).await?, shown(&store).await?);
    let html = worked_out(move || {
        let of = SheetAsked {
            skills: &skills,
            level,
            seed: asked.seed,
            count: asked.count,
            with_answers: asked.answers,
            paper: asked.paper.into(),
        };
        Ok::<_, ApiError>(sheet(&of, &own, show))
    });
    let mut response = HttpResponse::Ok();
    response.content_type("text/html; charset=utf-8");
    response.insert_header((CONTENT_SECURITY_POLICY, policy("'unsafe-inline'")));
    Ok(response.body(html.await?))
}
