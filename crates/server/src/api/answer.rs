//! What answers and requests carry beside their bodies: what marks an answer, the key of a request, the name of a file.

use std::fmt::Write as _;
use std::hash::{DefaultHasher, Hasher as _};

use actix_web::body::MessageBody;
use actix_web::dev::Payload;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, ETAG, HeaderName, IF_MATCH, IF_NONE_MATCH};
use actix_web::{FromRequest, HttpRequest, HttpResponse, HttpResponseBuilder};
use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use serde::Serialize;
use tolva_core::time::date_of;
use tolva_format::Problems;

use super::problem::{ApiError, ProblemDocument};

/// The mark of what is served: of just these bytes, whatever they are made from.
fn mark(body: &[u8]) -> String {
    let mut hasher = DefaultHasher::new();
    hasher.write(body);
    format!("\"{:016x}\"", hasher.finish())
}

fn written(body: &impl Serialize) -> Vec<u8> {
    // Bodies hold strings, lists and finite numbers, so this cannot fail.
    serde_json::to_vec(body).unwrap_or_default()
}

/// Whether one of the marks in a header is this one, or is any.
fn names(header: &str, mark: &str) -> bool {
    header.split(',').map(str::trim).any(|one| one == "*" || one.trim_start_matches("W/") == mark)
}

fn header(request: &HttpRequest, name: HeaderName) -> Option<&str> {
    request.headers().get(name).and_then(|value| value.to_str().ok())
}

/// An answer with its mark.
pub fn marked(mut response: HttpResponseBuilder, body: &impl Serialize) -> HttpResponse {
    let body = written(body);
    response.insert_header((ETAG, mark(&body))).content_type("application/json").body(body)
}

/// The same, or that nothing has changed for whoever has it already.
pub fn marked_for(request: &HttpRequest, body: &impl Serialize) -> HttpResponse {
    let body = written(body);
    let mark = mark(&body);
    if header(request, IF_NONE_MATCH).is_some_and(|wanted| names(wanted, &mark)) {
        return HttpResponse::NotModified().insert_header((ETAG, mark)).finish();
    }
    HttpResponse::Ok().insert_header((ETAG, mark)).content_type("application/json").body(body)
}

/// What is called by what it is made of never changes.
pub const FOREVER: &str = "private, max-age=31536000, immutable";

/// That a picture under its own name is there already, where whoever asks has it.
pub fn had(request: &HttpRequest, name: &str) -> Option<HttpResponse> {
    let tag = format!("\"{name}\"");
    let same = header(request, IF_NONE_MATCH).is_some_and(|had| had == tag);
    same.then(|| HttpResponse::NotModified().insert_header((ETAG, tag)).finish())
}

/// A picture under its own name: of which kind, and how it may be kept.
pub fn picture_named(name: &str, (kind, caching): (&'static str, &'static str), bytes: Vec<u8>) -> HttpResponse {
    let mut answer = HttpResponse::Ok();
    answer.insert_header((ETAG, format!("\"{name}\""))).insert_header((CACHE_CONTROL, caching));
    answer.content_type(kind).body(bytes)
}

/// Whether a request is made on something at all: then what is there now must be that.
pub fn is_conditional(request: &HttpRequest) -> bool {
    header(request, IF_MATCH).is_some()
}

/// Refuses what was made on something else than is there now.
pub fn made_on(request: &HttpRequest, now: &impl Serialize) -> Result<(), ApiError> {
    match header(request, IF_MATCH) {
        Some(wanted) if !names(wanted, &mark(&written(now))) => {
            let problem = ProblemDocument::new(StatusCode::PRECONDITION_FAILED, "changed_since", "Changed since");
            Err(problem.saying("what is there now is not what this was made on: read it again").into())
        }
        _ => Ok(()),
    }
}

/// The key under which a request is made (`Idempotency-Key`): sent again, it is not carried out again.
pub struct Key(pub Option<String>);

impl FromRequest for Key {
    type Error = ApiError;
    type Future = std::future::Ready<Result<Self, ApiError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let key = header(request, HeaderName::from_static("idempotency-key")).map(str::to_owned);
        let good = key.as_ref().is_none_or(|key| (1..=200).contains(&key.len()));
        let problem = || {
            let problem = ProblemDocument::new(StatusCode::BAD_REQUEST, "wrong_key", "A wrong key");
            ApiError::from(problem.saying("an Idempotency-Key has 1 to 200 characters"))
        };
        std::future::ready(if good { Ok(Self(key)) } else { Err(problem()) })
    }
}

/// A table (CSV, RFC 4180) as a file of a name.
pub fn table_as_file(name: &str, csv: impl MessageBody + 'static) -> HttpResponse {
    HttpResponse::Ok().content_type("text/csv; charset=utf-8").insert_header(as_file(name, ".csv")).body(csv)
}

/// The day it is where somebody asks, as `2026-11-27`; where that is left out, the one it is in UTC.
pub fn day_asked(today: Option<&str>) -> Result<Date, Problems> {
    match today {
        Some(today) => date_of(today).map_err(|wrong| Problems::one("/today", wrong.to_string())),
        None => Ok(TimeZone::UTC.to_datetime(Timestamp::now()).date()),
    }
}

/// The header that makes a browser keep an answer as a file of a name: in ASCII for those who know no more, and as it is
/// (RFC 6266, with RFC 5987's UTF-8).
pub fn as_file(name: &str, ending: &str) -> (HeaderName, String) {
    let plain: String = name
        .chars()
        .map(|letter| if letter.is_ascii_alphanumeric() { letter.to_ascii_lowercase() } else { '-' })
        .collect();
    let plain = plain.trim_matches('-');
    let plain = if plain.is_empty() { "tolva" } else { plain };
    let whole: String =
        name.chars().map(|letter| if letter.is_control() || "/\\:".contains(letter) { ' ' } else { letter }).collect();
    let mut encoded = String::new();
    for byte in format!("{}{ending}", whole.trim()).bytes() {
        if byte.is_ascii_alphanumeric() || b"-._~".contains(&byte) {
            encoded.push(byte.into());
        } else {
            // Writing into a text cannot fail.
            let _ = write!(encoded, "%{byte:02X}");
        }
    }
    (CONTENT_DISPOSITION, format!("attachment; filename=\"{plain}{ending}\"; filename*=UTF-8''{encoded}"))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Ropeworks open day", "ropeworks-open-day.json", "Ropeworks%20open%20day.json")]
    #[case("Käthe & Söhne", "k-the---s-hne.json", "K%C3%A4the%20%26%20S%C3%B6hne.json")]
    #[case("写真", "tolva.json", "%E5%86%99%E7%9C%9F.json")]
    #[case("a/b\r\nSet-Cookie: x", "a-b--set-cookie--x.json", "a%20b%20%20Set-Cookie%20%20x.json")]
    fn files_are_called_what_they_are(#[case] name: &str, #[case] plain: &str, #[case] encoded: &str) {
        let (_, header) = as_file(name, ".json");
        assert_eq!(header, format!("attachment; filename=\"{plain}\"; filename*=UTF-8''{encoded}"));
    }

    #[test]
    fn marks_are_of_what_is_served() {
        assert_eq!(mark(b"one"), mark(b"one"));
        assert_ne!(mark(b"one"), mark(b"two"));
        let one = mark(b"one");
        assert!(names(&format!("\"x\", {one}"), &one) && names("*", &one) && !names("\"x\"", &one));
    }
}
