//! Reading a JSON body: its size, its kind, and the path to what is wrong in it.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;

use actix_web::dev::Payload;
use actix_web::error::PayloadError;
use actix_web::http::StatusCode;
use actix_web::http::header::{CONTENT_LENGTH, CONTENT_TYPE};
use actix_web::web::{Bytes as Part, Query};
use actix_web::{FromRequest, HttpRequest};
use serde::de::DeserializeOwned;
use tolva_format::read_json;

use super::problem::{ApiError, ProblemDocument};

/// The largest body that is read: some hundred times a large job.
pub const MOST_BYTES: usize = 4 * 1024 * 1024;

/// So much room is made for a body before any of it has come: most setups with their kit.
const READY_BYTES: usize = 64 * 1024;

/// A JSON body, read.
pub struct Body<T>(pub T);

/// A JSON body as bytes, for what reads itself.
pub struct Bytes(pub Vec<u8>);

/// A file as it is, sent as `application/octet-stream`.
pub struct File(pub Vec<u8>);

impl FromRequest for File {
    type Error = ApiError;
    type Future = std::pin::Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let bytes = of_kind(request, payload, "application/octet-stream");
        Box::pin(async move { Ok(Self(bytes.await?)) })
    }
}

/// Refuses a body of another kind than is wanted, so that no other page's form can send one.
pub fn is_sent_as(request: &HttpRequest, wanted: &str) -> Result<(), ApiError> {
    let kind = request.headers().get(CONTENT_TYPE).and_then(|kind| kind.to_str().ok()).unwrap_or("");
    if kind.split(';').next().is_some_and(|kind| kind.trim().eq_ignore_ascii_case(wanted)) {
        return Ok(());
    }
    let problem = ProblemDocument::new(StatusCode::UNSUPPORTED_MEDIA_TYPE, "of_another_kind", "Of another kind");
    Err(problem.saying(format!("the body must be sent as {wanted}")).into())
}

/// The next part of a body, for which is waited so long; nothing at its end. `what` it is stands in what is said.
pub async fn next_part(payload: &mut Payload, patience: Duration, what: &str) -> Result<Option<Part>, ApiError> {
    let next = std::future::poll_fn(|cx| futures_core::Stream::poll_next(std::pin::Pin::new(&mut *payload), cx));
    let Ok(part) = tokio::time::timeout(patience, next).await else {
        return Err(too_slow(what));
    };
    let broken_off = |error: PayloadError| {
        let title = format!("The {what} broke off");
        ProblemDocument::new(StatusCode::BAD_REQUEST, "broken_off", &title).saying(error.to_string()).into()
    };
    part.transpose().map_err(broken_off)
}

/// What comes within a time; `what` it is stands in what is said otherwise.
async fn in_time<T>(
    time: Duration,
    what: &str,
    coming: impl Future<Output = Result<T, ApiError>>,
) -> Result<T, ApiError> {
    tokio::time::timeout(time, coming).await.unwrap_or_else(|_| Err(too_slow(what)))
}

fn too_slow(what: &str) -> ApiError {
    let title = format!("The {what} did not come");
    let problem = ProblemDocument::new(StatusCode::REQUEST_TIMEOUT, "too_slow", &title);
    problem.saying(format!("the rest of the {what} was not sent in time")).into()
}

/// What is larger than may be sent.
pub fn too_large(says: String) -> ApiError {
    ProblemDocument::new(StatusCode::PAYLOAD_TOO_LARGE, "too_large", "Too large").saying(says).into()
}

/// The bytes of a body that must be of a kind.
fn of_kind(
    request: &HttpRequest,
    payload: &mut Payload,
    wanted: &'static str,
) -> impl Future<Output = Result<Vec<u8>, ApiError>> + use<> {
    let right = is_sent_as(request, wanted);
    let told = request.headers().get(CONTENT_LENGTH).and_then(|length| length.to_str().ok()?.parse().ok()).unwrap_or(0);
    let payload = payload.take();
    async move {
        right?;
        in_time(WHOLE, "body", read(payload, told, &UNDER_WAY)).await
    }
}

impl FromRequest for Bytes {
    type Error = ApiError;
    type Future = std::pin::Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let bytes = of_kind(request, payload, "application/json");
        Box::pin(async move { Ok(Self(bytes.await?)) })
    }
}

impl<T: DeserializeOwned + 'static> FromRequest for Body<T> {
    type Error = ApiError;
    type Future = std::pin::Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let bytes = Bytes::from_request(request, payload);
        Box::pin(async move { Ok(Self(read_json(&bytes.await?.0)?)) })
    }
}

/// The fields of a small form, as a page sends them.
pub struct SmallForm<T>(pub T);

impl<T: DeserializeOwned + 'static> FromRequest for SmallForm<T> {
    type Error = ApiError;
    type Future = std::pin::Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let right = is_sent_as(request, "application/x-www-form-urlencoded");
        let payload = payload.take();
        Box::pin(async move {
            right?;
            let bytes = in_time(WHOLE_FORM, "form", read_form(payload)).await?;
            let text = String::from_utf8_lossy(&bytes);
            let fields = Query::<T>::from_query(&text).map_err(|error| {
                let problem = ProblemDocument::new(StatusCode::BAD_REQUEST, "no_form", "Not a form");
                ApiError::from(problem.saying(error.to_string()))
            })?;
            Ok(Self(fields.into_inner()))
        })
    }
}

async fn read_form(payload: Payload) -> Result<Vec<u8>, ApiError> {
    gathered(payload, ("form", MOST_OF_A_FORM), Vec::new(), |_| Ok(())).await
}

/// All parts of what is sent, up to so many bytes; each is told to `hold` before it is kept.
async fn gathered(
    mut payload: Payload,
    (what, most): (&str, usize),
    mut bytes: Vec<u8>,
    mut hold: impl FnMut(usize) -> Result<(), ApiError>,
) -> Result<Vec<u8>, ApiError> {
    while let Some(part) = next_part(&mut payload, PATIENCE, what).await? {
        if bytes.len() + part.len() > most {
            return Err(too_large(format!("at most {most} bytes are read")));
        }
        hold(part.len())?;
        bytes.extend_from_slice(&part);
    }
    Ok(bytes)
}

/// So long the next part of a body is waited for.
const PATIENCE: Duration = Duration::from_secs(5);
/// So long a whole body is waited for, however slowly its parts come: 4 MB on a line of 300 kbit/s.
const WHOLE: Duration = Duration::from_mins(2);
/// A form of a page has some fields of a line each.
const MOST_OF_A_FORM: usize = 4096;
/// So long a whole form is waited for.
const WHOLE_FORM: Duration = Duration::from_secs(10);
/// So many bytes of bodies are held at once while they come, whoever sends them.
const MOST_UNDER_WAY: usize = 16 * MOST_BYTES;
static UNDER_WAY: AtomicUsize = AtomicUsize::new(0);

/// The bytes that a body which is under way holds of all; given back when it is read, or breaks off.
struct UnderWay<'a> {
    all: &'a AtomicUsize,
    held: usize,
}

impl UnderWay<'_> {
    fn hold(&mut self, more: usize) -> Result<(), ApiError> {
        self.held += more;
        if self.all.fetch_add(more, Ordering::Relaxed) + more > MOST_UNDER_WAY {
            let problem = ProblemDocument::new(StatusCode::SERVICE_UNAVAILABLE, "busy", "Too much at once");
            return Err(problem.saying("too many large requests are under way: try again in a moment").into());
        }
        Ok(())
    }
}

impl Drop for UnderWay<'_> {
    fn drop(&mut self) {
        self.all.fetch_sub(self.held, Ordering::Relaxed);
    }
}

async fn read(payload: Payload, told: usize, all: &AtomicUsize) -> Result<Vec<u8>, ApiError> {
    let mut under_way = UnderWay { all, held: 0 };
    // Room at once for what was announced, though not for what anybody may announce.
    let bytes = Vec::with_capacity(told.min(READY_BYTES));
    gathered(payload, ("body", MOST_BYTES), bytes, |more| under_way.hold(more)).await
}

#[cfg(test)]
mod tests {
    use super::*;
    use actix_web::ResponseError as _;
    use std::pin::Pin;
    use std::task::{Context, Poll};

    /// A body that comes in parts and then never ends.
    struct Endless(Vec<Part>);

    impl futures_core::Stream for Endless {
        type Item = Result<Part, PayloadError>;

        fn poll_next(mut self: Pin<&mut Self>, _: &mut Context<'_>) -> Poll<Option<Self::Item>> {
            self.0.pop().map_or(Poll::Pending, |part| Poll::Ready(Some(Ok(part))))
        }
    }

    fn body(parts: usize, size: usize) -> Payload {
        Payload::Stream { payload: Box::pin(Endless(vec![Part::from(vec![b' '; size]); parts])) }
    }

    /// The clock stands still but for what is waited for, so this takes no time.
    #[tokio::test(start_paused = true)]
    async fn a_body_that_trickles_is_given_up() {
        let trickle = futures_util::stream::unfold((), |()| async {
            tokio::time::sleep(Duration::from_secs(4)).await;
            Some((Ok::<_, PayloadError>(Part::from_static(b" ")), ()))
        });
        let payload: Payload = Payload::Stream { payload: Box::pin(trickle) };
        let begun = tokio::time::Instant::now();
        let error = in_time(WHOLE_FORM, "form", read_form(payload)).await.expect_err("given up");
        assert_eq!((error.status_code(), begun.elapsed()), (StatusCode::REQUEST_TIMEOUT, WHOLE_FORM));
    }

    /// The clock stands still but for what is waited for, so this takes no time.
    #[tokio::test(start_paused = true)]
    async fn a_body_that_stops_coming_is_given_up() {
        let all = AtomicUsize::new(0);
        let error = read(body(3, 1000), 3000, &all).await.expect_err("given up");
        assert_eq!(error.status_code(), StatusCode::REQUEST_TIMEOUT);
        assert_eq!(all.load(Ordering::Relaxed), 0, "what it held is given back");
    }

    #[tokio::test(start_paused = true)]
    async fn all_bodies_under_way_share_a_bound() {
        let all = AtomicUsize::new(0);
        let mut others = UnderWay { all: &all, held: 0 };
        others.hold(MOST_UNDER_WAY - 500).expect("room");
        let error = read(body(1, 1000), usize::MAX, &all).await.expect_err("no room");
        assert_eq!(error.status_code(), StatusCode::SERVICE_UNAVAILABLE);
        drop(others);
        let error = read(body(2, MOST_BYTES), 0, &all).await.expect_err("too large");
        assert_eq!(error.status_code(), StatusCode::PAYLOAD_TOO_LARGE);
    }
}
