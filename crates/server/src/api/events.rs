//! What is told to the screens that look at a job, as server-sent events.

use std::time::Duration;

use actix_web::HttpResponse;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use serde::Serialize;
use tokio::sync::broadcast::Receiver;
use tokio::sync::broadcast::error::RecvError;

use crate::live::{Told, What};

/// A line now and then, so that a connection that is gone is noticed.
const ALIVE: Duration = Duration::from_secs(20);

/// An event by its name, with what it says.
pub fn event(name: &str, says: &impl Serialize) -> String {
    // What cannot be written says nothing: the screen reads everything again.
    let says = serde_json::to_string(says).unwrap_or_else(|_| "{}".to_owned());
    format!("event: {name}\ndata: {says}\n\n")
}

struct Telling<F, M> {
    told: Receiver<Told>,
    job_id: String,
    first: Option<String>,
    anew: String,
    /// Whether whoever listens may still.
    may: M,
    line: F,
}

impl<F: Fn(&What) -> Option<String>, M: Fn() -> bool> Telling<F, M> {
    /// The next line to send; nothing when the server stops, or whoever listens was put out.
    async fn next(&mut self) -> Option<String> {
        if let Some(first) = self.first.take() {
            return Some(first);
        }
        loop {
            let line = match tokio::time::timeout(ALIVE, self.told.recv()).await {
                Err(_) => Some(": still here\n\n".to_owned()),
                Ok(Ok(Told { what: What::Over, .. }) | Err(RecvError::Closed)) => return None,
                Ok(Ok(told)) if told.job_id == self.job_id => (self.line)(&told.what),
                Ok(Ok(_)) => None,
                Ok(Err(RecvError::Lagged(_))) => Some(self.anew.clone()),
            };
            if !(self.may)() {
                return None;
            }
            if line.is_some() {
                return line;
            }
        }
    }
}

/// Sends what is told of a job until the server stops or `may` says that whoever listens may no longer: first a line, then what `line` makes of what is told, which is
/// nothing where it is not for this screen. One that was too slow is sent `anew`, and reads everything again.
pub fn events(
    told: Receiver<Told>,
    job_id: String,
    (first, anew): (String, String),
    may: impl Fn() -> bool + 'static,
    line: impl Fn(&What) -> Option<String> + 'static,
) -> HttpResponse {
    let telling = Telling { told, job_id, first: Some(first), anew, may, line };
    let stream = futures_util::stream::unfold(telling, |mut telling| async move {
        let line = telling.next().await?;
        Some((Ok::<_, std::convert::Infallible>(Bytes::from(line)), telling))
    });
    let mut answer = HttpResponse::Ok();
    // Packed, a line would wait for the next.
    answer.insert_header((CONTENT_ENCODING, "identity")).insert_header((CACHE_CONTROL, "no-store"));
    answer.content_type("text/event-stream").streaming(Box::pin(stream))
}
