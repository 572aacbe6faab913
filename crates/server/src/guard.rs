//! Keeps other web pages out: the names this Tolva answers to, where requests may come from, and what a page may load.

use std::collections::HashSet;

use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::{self, HeaderName, HeaderValue};
use actix_web::http::{Method, StatusCode};
use actix_web::middleware::Next;
use actix_web::web::Data;
use actix_web::{Error, HttpMessage as _, HttpResponse};

use crate::api::{ProblemDocument, join};
use crate::phones::{COOKIE, Caller, Phones, Reach};
use crate::policy::policy;
use crate::rights::allowed;

/// The `Host` values this Tolva answers to, port and all. A page elsewhere whose name was made to point here
/// (DNS rebinding) carries its own name.
#[derive(Clone, Debug)]
pub struct Hosts(HashSet<String>);

impl Hosts {
    pub fn new(address: std::net::SocketAddr, further: &[String]) -> Self {
        let port = address.port();
        let names = ["localhost".to_owned(), "127.0.0.1".to_owned(), "[::1]".to_owned()];
        let own = match address {
            std::net::SocketAddr::V4(v4) => v4.ip().to_string(),
            std::net::SocketAddr::V6(v6) => format!("[{}]", v6.ip()),
        };
        let named = names.into_iter().chain([own]).chain(further.iter().map(|name| name.to_lowercase()));
        // A browser leaves the port out where it is the usual one. A name may come with a port of its own, where another
        // program hands requests on.
        let with_port = |name: String| match name.strip_suffix(":80") {
            Some(bare) => vec![name.clone(), bare.to_owned()],
            None if has_port(&name) => vec![name],
            None if port == 80 => vec![format!("{name}:80"), name],
            None => vec![format!("{name}:{port}")],
        };
        Self(named.flat_map(with_port).collect())
    }

    fn refuses(&self, request: &ServiceRequest, reach: Reach) -> Option<&'static str> {
        let text =
            |name: HeaderName| request.headers().get(name).map(|value| value.to_str().unwrap_or("").to_lowercase());
        // Over HTTP/2 the name stands in the address.
        let host = text(header::HOST).or_else(|| request.uri().authority().map(|name| name.as_str().to_lowercase()));
        let host = host.unwrap_or_default();
        // Over the air it is asked for by its address, which no page elsewhere can make its own name point to.
        let by_address = host.parse::<std::net::SocketAddr>().is_ok();
        let known = self.0.contains(&host) || (reach == Reach::Air && by_address);
        if !known {
            return Some("this Tolva does not answer to that host name: see --allow-host");
        }
        // What a page elsewhere asks for without saying so, such as a picture: a browser says where it comes from. A link
        // that somebody follows to a page is no such thing.
        let from = text(HeaderName::from_static("sec-fetch-site"));
        let followed = text(HeaderName::from_static("sec-fetch-mode")).is_some_and(|mode| mode == "navigate")
            && request.method() == Method::GET
            && !request.match_info().as_str().starts_with("/api");
        if from.is_some_and(|from| !matches!(from.as_str(), "same-origin" | "none")) && !followed {
            return Some("requests from other web pages are refused");
        }
        let scheme = if reach == Reach::Air { "https" } else { "http" };
        match text(header::ORIGIN) {
            Some(origin) if origin != format!("{scheme}://{host}") => Some("requests from other web pages are refused"),
            _ => None,
        }
    }
}

/// Whether a name ends with a port; the colons within an IPv6 address in brackets are its own.
fn has_port(name: &str) -> bool {
    let after = name.rsplit_once(']').map_or(name, |(_, after)| after);
    after.rsplit_once(':').is_some_and(|(_, port)| port.parse::<u16>().is_ok())
}

fn not_from_here(why: &str) -> HttpResponse {
    ProblemDocument::new(StatusCode::FORBIDDEN, "not_from_here", "Not from here").saying(why).response()
}

/// What a request over the air is answered with that is of no device that was let in, or asks for more than it may. Whoever
/// may go on is known from here.
fn unknown_device(request: &ServiceRequest, reach: Reach) -> Option<HttpResponse> {
    if reach == Reach::Here {
        return None;
    }
    let phones = request.app_data::<Data<Phones>>()?;
    let device = request.cookie(COOKIE).and_then(|cookie| phones.device(cookie.value()));
    // The path the router goes by, not the text of the request: percent-codes are read in it.
    let path = request.match_info().as_str();
    let Some(device) = device else {
        if path == "/join" {
            return None;
        }
        if path.starts_with("/api/") {
            return Some(not_from_here("this device was not let in: read the code on the laptop"));
        }
        let told = "This device was not let in yet. Read the code on the laptop: it stands under Phones.";
        return Some(join::page(phones, None, told, StatusCode::FORBIDDEN));
    };
    if !allowed(device.rights, request.method(), path) {
        let problem = ProblemDocument::new(StatusCode::FORBIDDEN, "not_allowed", "Not allowed on this device");
        return Some(problem.saying("this device may not do that: its rights are given on the laptop").response());
    }
    request.extensions_mut().insert(Caller { device_id: device.id, name: device.name, rights: device.rights });
    None
}

/// Checks where a request comes from, and puts the security headers on every answer.
pub async fn guard(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<EitherBody<impl MessageBody>>, Error> {
    let reach = request.app_data::<Reach>().copied().unwrap_or(Reach::Here);
    let foreign = request.app_data::<Data<Hosts>>().and_then(|hosts| hosts.refuses(&request, reach));
    let refused = foreign.map(not_from_here).or_else(|| unknown_device(&request, reach));
    let mut response = match refused {
        Some(answer) => request.into_response(answer).map_into_right_body(),
        None => next.call(request).await?.map_into_left_body(),
    };
    let headers = response.headers_mut();
    for (name, value) in [
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::X_FRAME_OPTIONS, "DENY"),
        (header::REFERRER_POLICY, "no-referrer"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (HeaderName::from_static("permissions-policy"), "camera=(), microphone=(), geolocation=()"),
    ] {
        // A page that sends a form says its own: without a referrer a browser names no origin either.
        if !headers.contains_key(&name) {
            headers.insert(name, HeaderValue::from_static(value));
        }
    }
    if !headers.contains_key(header::CONTENT_SECURITY_POLICY)
        && let Ok(value) = HeaderValue::from_str(&policy("'self'"))
    {
        headers.insert(header::CONTENT_SECURITY_POLICY, value);
    }
    Ok(response)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("studio.local", &["studio.local:8465"])]
    #[case("studio.local:8080", &["studio.local:8080"])]
    #[case("studio.local:80", &["studio.local:80", "studio.local"])]
    #[case("[2001:db8::1]", &["[2001:db8::1]:8465"])]
    #[case("[2001:db8::1]:8080", &["[2001:db8::1]:8080"])]
    fn a_further_name_may_come_with_a_port(#[case] name: &str, #[case] answered: &[&str]) {
        let hosts = Hosts::new(([127, 0, 0, 1], 8465).into(), &[name.to_owned()]);
        assert!(answered.iter().all(|name| hosts.0.contains(*name)), "{hosts:?}");
        assert_eq!(hosts.0.len(), 3 + answered.len());
    }
}
