//! What is new: a job, a setup, each with what is owned and what this person begins with.

use actix_web::http::header::LOCATION;
use actix_web::web::Data;
use actix_web::{HttpResponse, post};
use serde::Deserialize;
use tolva_format::{Job, Kit, Setup, check};
use tolva_planner::setup;
use tolva_store::{SavedJob, Store};
use tolva_wording::Named as _;
use utoipa::ToSchema;

use super::answer::{Key, marked};
use super::body::Body;
use super::job_body::JobBody;
use super::preferences::{Defaults, begun};
use super::problem::ApiError;

/// A job that was just made, and where it is.
pub fn created(saved: SavedJob) -> HttpResponse {
    let mut response = HttpResponse::Created();
    response.insert_header((LOCATION, format!("/api/v1/jobs/{}", saved.id)));
    marked(response, &JobBody::from(saved))
}

/// A setup that is named by what is chosen for it; numbered where the name is taken.
fn begin(id: &str, kit: &Kit, defaults: &Defaults, names: &[&str]) -> Setup {
    let mut setup = Setup::new(id, kit);
    defaults.begin(&mut setup);
    let name = setup::Blend::from(setup.blend).name();
    let numbered = |number: usize| if number == 1 { name.to_owned() } else { format!("{name} {number}") };
    let free = (1..=names.len() + 1).map(numbered).find(|name| !names.contains(&name.as_str()));
    setup.name = free.unwrap_or_else(|| name.to_owned());
    setup
}

/// Adds a new job with one setup, so that there is an answer at once.
#[utoipa::path(
    operation_id = "new_job",
    responses((status = CREATED, description = "Added; `Location` says where", body = JobBody)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/new-job")]
pub async fn new_job(key: Key, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let kit = store.kit().await?.document.kit;
    let mut job = Job::new("New job");
    job.setups = vec![begin("setup-1", &kit, &begun(&store).await?, &[])];
    job.kit = kit;
    let saved = store.add_made(&job, "New job", (key.0.as_deref(), "new")).await?;
    Ok(created(saved))
}

/// A job that a setup is for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewSetupRequest {
    /// The kit it is to use.
    kit: Kit,
    /// The job's setups. At most 60.
    #[schema(max_items = 60)]
    setups: Vec<Setup>,
    /// The id of the one it is a copy of; left out for a new one, at the place of the last.
    #[serde(default)]
    copy_of: Option<String>,
}

/// A setup for a job: a new one, or a copy. Nothing is stored.
#[utoipa::path(
    operation_id = "new_setup",
    request_body = NewSetupRequest,
    responses((status = OK, description = "The setup", body = Setup)),
    extensions(("x-rights" = json!("look"))),
)]
#[post("/api/v1/new-setup")]
pub async fn new_setup(body: Body<NewSetupRequest>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let NewSetupRequest { kit, setups, copy_of } = body.0;
    let free = |number: &usize| setups.iter().all(|setup| setup.id != format!("setup-{number}"));
    let id = format!("setup-{}", (1..=setups.len() + 1).find(free).unwrap_or(1));
    let like = copy_of.and_then(|of| setups.iter().find(|setup| setup.id == of));
    let setup = if let Some(like) = like {
        let name: String = format!("{}, copy", like.name).chars().take(120).collect();
        Setup { id, name, ..like.clone() }
    } else {
        let names: Vec<&str> = setups.iter().map(|setup| setup.name.as_str()).collect();
        let begun = begin(&id, &kit, &begun(&store).await?, &names);
        // The next picture is most likely taken where the last one is.
        Setup { scene: setups.last().and_then(|last| last.scene.clone()), ..begun }
    };
    // What is copied may be wrong: it is said here, and not handed on.
    check(&setup, &kit)?;
    Ok(HttpResponse::Ok().json(setup))
}
