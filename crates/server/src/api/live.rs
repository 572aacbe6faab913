//! What is done on one screen shows on the others: a job's events.

use std::time::Duration;

use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::{Bytes, Data, Path, Query};
use actix_web::{HttpResponse, get};
use serde::Deserialize;
use tokio::sync::broadcast::error::RecvError;
use tolva_store::Store;
use utoipa::IntoParams;

use super::problem::ApiError;
use crate::live::{Live, Looking, What};
use crate::phones::Caller;

/// A line now and then, so that a connection that is gone is noticed.
const ALIVE: Duration = Duration::from_secs(20);

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

/// Tells when a job was saved and who else looks at it, as server-sent events: `saved` with its revision, `present` with the
/// names of the others, where an empty one is the machine Tolva runs on.
#[utoipa::path(
    operation_id = "job_events",
    params(Window),
    responses((status = OK, description = "Events, as they come", content_type = "text/event-stream")),
)]
#[get("/api/v1/jobs/{id}/events")]
pub async fn events(
    id: Path<String>,
    store: Data<Store>,
    live: Data<Live>,
    (caller, window): (Caller, Query<Window>),
) -> Result<HttpResponse, ApiError> {
    store.job(&id).await?;
    let looking = live.come(&id, &caller.name, &window.window);
    let stream = futures_util::stream::unfold((looking, true), |(mut looking, first)| async move {
        let present = |looking: &Looking| {
            format!("event: present\ndata: {}\n\n", serde_json::json!({ "others": looking.others() }))
        };
        if first {
            let line = present(&looking);
            return Some((Ok::<_, std::convert::Infallible>(Bytes::from(line)), (looking, false)));
        }
        loop {
            let line = match tokio::time::timeout(ALIVE, looking.told.recv()).await {
                Err(_) => ": still here\n\n".to_owned(),
                Ok(Ok(told)) => match told.what {
                    What::Over => return None,
                    _ if told.job_id != looking.job_id => continue,
                    What::Saved(revision) => format!("event: saved\ndata: {{\"revision\":{revision}}}\n\n"),
                    What::Present => present(&looking),
                },
                // Too many for this one: it reads everything again.
                Ok(Err(RecvError::Lagged(_))) => "event: saved\ndata: {}\n\n".to_owned(),
                Ok(Err(RecvError::Closed)) => return None,
            };
            return Some((Ok(Bytes::from(line)), (looking, false)));
        }
    });
    let mut answer = HttpResponse::Ok();
    // Packed, a line would wait for the next.
    answer.insert_header((CONTENT_ENCODING, "identity")).insert_header((CACHE_CONTROL, "no-store"));
    Ok(answer.content_type("text/event-stream").streaming(Box::pin(stream)))
}
