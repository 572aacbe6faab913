//! What is done on one screen shows on the others: a job's events.

use actix_web::web::{Data, Path, Query};
use actix_web::{HttpResponse, get};
use serde::Deserialize;
use serde_json::json;
use tolva_store::Store;
use utoipa::IntoParams;

use super::events::{event, events as told_as_events};
use super::problem::ApiError;
use crate::live::{Live, Looking, What};
use crate::phones::{Caller, Phones};

/// Where it is looked at.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Window {
    /// What the window calls itself: the same one is there once.
    #[serde(default)]
    #[param(max_length = 60)]
    window: String,
}

/// Tells when a job was saved, when its frames are others and who else looks at it, as server-sent events: `saved`, `frames`,
/// and `present` with the names of the others, where an empty one is the machine Tolva runs on.
#[utoipa::path(
    operation_id = "job_events",
    params(Window),
    responses((status = OK, description = "Events, as they come", content_type = "text/event-stream")),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/events")]
pub async fn events(
    id: Path<String>,
    store: Data<Store>,
    (live, phones): (Data<Live>, Data<Phones>),
    (caller, window): (Caller, Query<Window>),
) -> Result<HttpResponse, ApiError> {
    store.job(&id).await?;
    let told = live.listen();
    let looking = live.come(&id, &caller.name, &window.window);
    let saved = || event("saved", &json!({}));
    let first = present(&looking);
    let may = move || phones.is_in(&caller);
    Ok(told_as_events(told, id.into_inner(), (first, saved()), may, move |what| match what {
        What::Saved => Some(saved()),
        What::Frames => Some(event("frames", &json!({}))),
        What::Present => Some(present(&looking)),
        What::Wrong(_) | What::PutOut | What::Over => None,
    }))
}

fn present(looking: &Looking) -> String {
    event("present", &json!({ "others": looking.others() }))
}
