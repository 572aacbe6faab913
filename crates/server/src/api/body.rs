//! Reading a JSON body: its size, its kind, and the path to what is wrong in it.

use actix_web::dev::Payload;
use actix_web::http::StatusCode;
use actix_web::http::header::{CONTENT_LENGTH, CONTENT_TYPE};
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

/// The bytes of a body that must be of a kind. Another kind is refused, so that no other page's form can send one.
fn of_kind(
    request: &HttpRequest,
    payload: &mut Payload,
    wanted: &'static str,
) -> impl Future<Output = Result<Vec<u8>, ApiError>> + use<> {
    let kind = request.headers().get(CONTENT_TYPE).and_then(|kind| kind.to_str().ok()).unwrap_or("");
    let right = kind.split(';').next().is_some_and(|kind| kind.trim().eq_ignore_ascii_case(wanted));
    let told = request.headers().get(CONTENT_LENGTH).and_then(|length| length.to_str().ok()?.parse().ok()).unwrap_or(0);
    let payload = payload.take();
    async move {
        if !right {
            let problem = ProblemDocument::new(StatusCode::UNSUPPORTED_MEDIA_TYPE, "Of another kind");
            return Err(problem.saying(format!("the body must be sent as {wanted}")).into());
        }
        read(payload, told).await
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

async fn read(mut payload: Payload, told: usize) -> Result<Vec<u8>, ApiError> {
    // Room at once for what was announced, though not for what anybody may announce.
    let mut bytes = Vec::with_capacity(told.min(READY_BYTES));
    while let Some(part) =
        std::future::poll_fn(|cx| futures_core::Stream::poll_next(std::pin::Pin::new(&mut payload), cx)).await
    {
        let part = part.map_err(|error| {
            ProblemDocument::new(StatusCode::BAD_REQUEST, "The body broke off").saying(error.to_string())
        })?;
        if bytes.len() + part.len() > MOST_BYTES {
            let problem = ProblemDocument::new(StatusCode::PAYLOAD_TOO_LARGE, "Too large");
            return Err(problem.saying(format!("at most {MOST_BYTES} bytes are read")).into());
        }
        bytes.extend_from_slice(&part);
    }
    Ok(bytes)
}
