//! Sheets of drills to print.

use actix_web::http::header::CONTENT_SECURITY_POLICY;
use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get};
use serde::Deserialize;
use tolva_store::Store;
use tolva_wording::{SheetAsked, sheet};
use utoipa::IntoParams;

use super::{level, own, skills, within};
use crate::api::preferences::shown;
use crate::api::problem::ApiError;
use crate::api::run::PaperSize;
use crate::api::work::worked_out;
use crate::policy::policy;

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

pub(super) const fn twenty() -> usize {
    20
}

/// A sheet of drills to print, one self-contained HTML file: exercises, and their answers on a page of their own.
#[utoipa::path(
    operation_id = "drill_sheet",
    params(SheetQuery),
    responses((status = OK, description = "HTML", body = String, content_type = "text/html")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/drills/sheet.html")]
pub async fn on_paper(asked: Query<SheetQuery>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let asked = asked.into_inner();
    within(asked.seed, asked.count)?;
    let level = level(asked.level)?;
    let skills = skills(&asked.skills)?;
    let (own, show) = (own(&store, None).await?, shown(&store).await?);
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
