//! Who asks, and what they may ask for.

use std::future::{Ready, ready};

use actix_web::dev::Payload;
use actix_web::http::Method;
use actix_web::{FromRequest, HttpMessage as _, HttpRequest};
use tolva_store::Rights;

/// By which way a request comes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Reach {
    /// From where Tolva listens by itself.
    Here,
    /// Over the set's network.
    Air,
}

/// Who asks: the machine itself, or a device that was let in.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Caller {
    /// What the device is called; empty for the machine itself.
    pub name: String,
    /// What it may do.
    pub rights: Rights,
}

impl Default for Caller {
    fn default() -> Self {
        Self { name: String::new(), rights: Rights::All }
    }
}

impl FromRequest for Caller {
    type Error = std::convert::Infallible;
    type Future = Ready<Result<Self, Self::Error>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(Ok(request.extensions().get::<Self>().cloned().unwrap_or_default()))
    }
}

/// What belongs to the machine itself: no device is told of it.
const OF_THE_MACHINE: [&str; 4] = ["phones", "backups", "watched", "openapi.json"];
/// What works something out and keeps nothing.
const WORKS_OUT: [&str; 25] = [
    "alternatives",
    "beliefs",
    "calculators",
    "colour",
    "conventions",
    "day",
    "day-plan",
    "dials",
    "edit-job",
    "falling",
    "forecast",
    "look",
    "meter",
    "moment",
    "new-setup",
    "pack",
    "places",
    "proof",
    "read",
    "run",
    "say",
    "set",
    "shots",
    "solve",
    "upgrade",
];

/// Whether a device with these rights may ask for this.
pub fn allowed(rights: Rights, method: &Method, path: &str) -> bool {
    let Some(path) = path.strip_prefix("/api/v1/") else {
        return path == "/join" || matches!(*method, Method::GET | Method::HEAD);
    };
    let mut parts = path.split('/');
    let first = parts.next().unwrap_or_default();
    if OF_THE_MACHINE.contains(&first) {
        return false;
    }
    let reads =
        matches!(*method, Method::GET | Method::HEAD) || (*method == Method::POST && WORKS_OUT.contains(&first));
    if reads || rights == Rights::All {
        return true;
    }
    // Ticks are saved with the job, which is held to them there; notes are lines of its log.
    let of_a_job = first == "jobs" && parts.next().is_some();
    let rest = parts.next();
    let ticks = *method == Method::PUT && rest.is_none();
    let notes = *method == Method::POST && rest == Some("log") && parts.next().is_none();
    rights == Rights::Tick && of_a_job && (ticks || notes)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::solve(Method::POST, "/api/v1/solve", [true, true, true])]
    #[case::list(Method::GET, "/api/v1/jobs", [true, true, true])]
    #[case::page(Method::GET, "/jobs/a/run/b", [true, true, true])]
    #[case::tick(Method::PUT, "/api/v1/jobs/a", [false, true, true])]
    #[case::note(Method::POST, "/api/v1/jobs/a/log", [false, true, true])]
    #[case::undo(Method::POST, "/api/v1/jobs/a/undo", [false, false, true])]
    #[case::new(Method::POST, "/api/v1/new-job", [false, false, true])]
    #[case::add(Method::POST, "/api/v1/jobs", [false, false, true])]
    #[case::bin(Method::DELETE, "/api/v1/jobs/a", [false, false, true])]
    #[case::kit(Method::PUT, "/api/v1/kit", [false, false, true])]
    #[case::liking(Method::PUT, "/api/v1/preferences", [false, false, true])]
    #[case::devices(Method::GET, "/api/v1/phones", [false, false, false])]
    #[case::folder(Method::PUT, "/api/v1/watched", [false, false, false])]
    #[case::restore(Method::POST, "/api/v1/backups/a/restore", [false, false, false])]
    fn what_may_be_asked(#[case] method: Method, #[case] path: &str, #[case] may: [bool; 3]) {
        let found = [Rights::Look, Rights::Tick, Rights::All].map(|rights| allowed(rights, &method, path));
        assert_eq!(found, may);
    }
}
