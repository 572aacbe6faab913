//! The job that comes next.

use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get};
use serde::{Deserialize, Serialize};
use tolva_format::Problems;
use tolva_store::Store;
use tolva_wording::{ComingJob, coming_job};
use utoipa::{IntoParams, ToSchema};

use super::answer::day_asked;
use super::problem::ApiError;
use super::work::worked_out;
use crate::edge::KnownJob;

/// The job that comes next.
#[derive(Debug, Serialize, ToSchema)]
pub struct NextJob {
    /// It; null where no job has a day that is today or later.
    job: Option<NextJobSaid>,
}

/// The same with its id.
#[derive(Debug, Serialize, ToSchema)]
pub struct NextJobSaid {
    /// Its id.
    id: String,
    /// Its revision: pictures of its setups are asked for with it.
    revision: i64,
    /// What it is called.
    name: String,
    /// What there is to know of it.
    said: ComingJob,
}

/// The day it is where somebody looks.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Today {
    /// As `2026-08-29`; left out, the one it is in UTC.
    #[serde(default)]
    #[param(max_length = 10)]
    today: Option<String>,
}

/// The job that comes next: its day, the sun, and what is still missing.
#[utoipa::path(
    operation_id = "next_job",
    params(Today),
    responses((status = OK, description = "The job", body = NextJob)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/next-job")]
pub async fn next_job(asked: Query<Today>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let today = day_asked(asked.today.as_deref())?.to_string();
    let Some(id) = store.next_job(&today).await? else { return Ok(HttpResponse::Ok().json(NextJob { job: None })) };
    let saved = store.job(&id).await?;
    let (name, revision) = (saved.document.name.clone(), saved.revision);
    let said = worked_out(move || -> Result<ComingJob, Problems> {
        let job = saved.document;
        let packed = !job.packed.out.is_empty();
        Ok(coming_job(KnownJob::of(job)?.days(), packed))
    });
    let job = Some(NextJobSaid { id, revision, name, said: said.await? });
    Ok(HttpResponse::Ok().json(NextJob { job }))
}
