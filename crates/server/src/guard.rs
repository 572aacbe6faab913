//! Keeps other web pages out: the names this Tolva answers to, where requests may come from, and what a page may load.

use std::collections::HashSet;

use actix_web::Error;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::http::header::{self, HeaderName, HeaderValue};
use actix_web::middleware::Next;
use actix_web::web::Data;

use crate::api::ProblemDocument;

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

    fn refuses(&self, request: &ServiceRequest) -> Option<&'static str> {
        let text =
            |name: HeaderName| request.headers().get(name).map(|value| value.to_str().unwrap_or("").to_lowercase());
        let host = text(header::HOST).unwrap_or_default();
        if !self.0.contains(&host) {
            return Some("this Tolva does not answer to that host name: see --allow-host");
        }
        match text(header::ORIGIN) {
            Some(origin) if origin != format!("http://{host}") => Some("requests from other web pages are refused"),
            _ => None,
        }
    }
}

/// Whether a name ends with a port; the colons within an IPv6 address in brackets are its own.
fn has_port(name: &str) -> bool {
    let after = name.rsplit_once(']').map_or(name, |(_, after)| after);
    after.rsplit_once(':').is_some_and(|(_, port)| port.parse::<u16>().is_ok())
}

/// The content security policy, with what styles are let in.
pub fn policy(styles: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src {styles}; font-src 'self'; img-src 'self' data:; \
         connect-src 'self'; manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
    )
}

/// Checks where a request comes from, and puts the security headers on every answer.
pub async fn guard(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<EitherBody<impl MessageBody>>, Error> {
    let refused = request.app_data::<Data<Hosts>>().and_then(|hosts| hosts.refuses(&request));
    let mut response = match refused {
        Some(why) => {
            let problem = ProblemDocument::new(StatusCode::FORBIDDEN, "not_from_here", "Not from here").saying(why);
            request.into_response(problem.response()).map_into_right_body()
        }
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
        headers.insert(name, HeaderValue::from_static(value));
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
