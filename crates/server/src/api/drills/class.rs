//! Drills for a class: a file to give away, opened by everybody, with the same questions for all.

use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get, post};
use serde::Deserialize;
use tolva_format::{ClassFile, Problems, read_json};
use tolva_planner::drills::{Own, drill};
use tolva_planner::setup::Kit;
use tolva_store::Store;
use utoipa::IntoParams;

use super::paper::twenty;
use super::{DrillRound, level, sent, skill, skills, within};
use crate::api::answer::as_file;
use crate::api::body::Bytes;
use crate::api::preferences::shown;
use crate::api::problem::ApiError;
use crate::api::work::worked_out;
use crate::class::class_of;

/// What a class is to practise.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct ClassQuery {
    /// What the class is called, 1 to 80 characters.
    #[param(min_length = 1, max_length = 80)]
    name: String,
    /// Of these skills, by their codes with commas between; left out, of all.
    #[serde(default)]
    #[param(max_length = 600)]
    skills: String,
    /// At this level, 1 to 3.
    #[param(minimum = 1, maximum = 3)]
    level: u8,
    /// What they are drawn with; left out, its name: the same name gives the same drills.
    #[serde(default)]
    #[param(maximum = 9_007_199_254_740_992_u64)]
    seed: Option<u64>,
    /// How many, 1 to 40.
    #[serde(default = "twenty")]
    #[param(minimum = 1, maximum = 40, default = 20)]
    count: usize,
}

/// A number for a name.
fn of_name(name: &str) -> u64 {
    name.trim().bytes().fold(7, |sum, byte| (sum * 31 + u64::from(byte)) % 1_000_003)
}

/// Drills for a class, as a file to give away.
#[utoipa::path(
    operation_id = "give_class",
    params(ClassQuery),
    responses((status = OK, description = "The file", body = ClassFile)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/class.json")]
pub async fn give(asked: Query<ClassQuery>) -> Result<HttpResponse, ApiError> {
    let asked = asked.into_inner();
    let seed = asked.seed.unwrap_or_else(|| of_name(&asked.name));
    within(seed, asked.count)?;
    let (of, at) = (skills(&asked.skills)?, level(asked.level)?);
    let made = worked_out(move || class_of(&asked.name, (&of, at), seed, asked.count));
    let file = made.await?;
    let text = serde_json::to_string_pretty(&file).unwrap_or_default();
    let mut answer = HttpResponse::Ok();
    Ok(answer.content_type("application/json").insert_header(as_file(&file.name, ".tolva-class.json")).body(text))
}

/// Opens a class's file: its drills, in its order.
#[utoipa::path(
    operation_id = "open_class",
    request_body = ClassFile,
    responses((status = OK, description = "The drills", body = DrillRound)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/drills/class")]
pub async fn open(body: Bytes, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let file: ClassFile = read_json(&body.0)?;
    file.check()?;
    let at = |index: usize, mut problems: Problems| {
        problems.0.iter_mut().for_each(|one| one.pointer = format!("/drills/{index}{}", one.pointer));
        problems
    };
    let drills = file.drills.iter().enumerate().map(|(index, one)| {
        let of = skill(&one.skill).map_err(|problems| at(index, problems))?;
        Ok((of, level(one.level)?, one.seed))
    });
    let drills = drills.collect::<Result<Vec<_>, Problems>>()?;
    let show = shown(&store).await?;
    let made = worked_out(move || {
        let own = Own::of(&Kit::starter());
        Ok::<_, ApiError>(drills.iter().map(|(of, at, seed)| sent(&drill(*of, *at, *seed, &own), show)).collect())
    });
    let because = format!("Drills of “{}”, the same for everybody in it.", file.name.trim());
    Ok(HttpResponse::Ok().json(DrillRound { drills: made.await?, because, class: Some(file.name.trim().to_owned()) }))
}
