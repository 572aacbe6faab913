//! What a device may ask for: each route says it beside its handler.

use std::fmt::Write as _;
use std::sync::LazyLock;

use actix_web::http::Method;
use tolva_store::Rights;

/// What a route asks of whoever calls it. Each route says it beside its handler, as `x-rights` of its OpenAPI description.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Needs {
    /// Any device that was let in.
    Look,
    /// One that ticks, or more.
    Tick,
    /// One that may do everything with jobs, kit and frames.
    All,
    /// The machine itself: no device.
    Machine,
}

impl Needs {
    fn named(name: &str) -> Option<Self> {
        match name {
            "look" => Some(Self::Look),
            "tick" => Some(Self::Tick),
            "all" => Some(Self::All),
            "machine" => Some(Self::Machine),
            _ => None,
        }
    }

    fn met_by(self, rights: Rights) -> bool {
        match self {
            Self::Look => true,
            Self::Tick => matches!(rights, Rights::Tick | Rights::All),
            Self::All => rights == Rights::All,
            Self::Machine => false,
        }
    }
}

/// A route with what it needs.
#[derive(Clone, Debug)]
pub struct Route {
    /// In upper case.
    pub method: String,
    /// As the router has it, `/api/v1/jobs/{id}`.
    pub pattern: String,
    /// Nothing where nobody has said it: then no device may.
    pub needs: Option<Needs>,
}

impl Route {
    /// Whether a path is one of its own. Parts in braces stand for any one part that is not empty.
    fn is_of(&self, path: &str) -> bool {
        let (mut own, mut asked) = (self.pattern.split('/'), path.split('/'));
        loop {
            match (own.next(), asked.next()) {
                (None, None) => return true,
                (Some(own), Some(asked)) if own.starts_with('{') && !asked.is_empty() || own == asked => {}
                _ => return false,
            }
        }
    }
}

/// Every route of the API, in the order of its description.
pub fn routes() -> &'static [Route] {
    static ROUTES: LazyLock<Vec<Route>> = LazyLock::new(|| of_document(&crate::api::openapi()));
    &ROUTES
}

fn of_document(document: &serde_json::Value) -> Vec<Route> {
    let paths = document["paths"].as_object().into_iter().flatten();
    let each = paths.flat_map(|(pattern, operations)| {
        operations.as_object().into_iter().flatten().map(|(method, operation)| Route {
            method: method.to_uppercase(),
            pattern: pattern.clone(),
            needs: operation["x-rights"].as_str().and_then(Needs::named),
        })
    });
    each.collect()
}

/// Who may ask for what, as the docs have it.
pub fn table() -> String {
    let mut all = String::from(
        "# Who may ask for what\n\n\
         Made from the code by `cargo xtask made`. A device that was let in looks, ticks, or may do everything with jobs, kit \
         and frames; the machine Tolva runs on may do all of it. A route that says nothing is the machine’s alone.\n\n\
         | Route | Looks | Ticks | Everything | Machine |\n|---|---|---|---|---|\n",
    );
    for Route { method, pattern, needs } in routes() {
        let may = |rights| if needs.is_some_and(|needs| needs.met_by(rights)) { "yes" } else { "" };
        let [look, tick, everything] = [Rights::Look, Rights::Tick, Rights::All].map(may);
        let _ = writeln!(all, "| `{method} {pattern}` | {look} | {tick} | {everything} | yes |");
    }
    all
}

/// Whether a device with these rights may ask for this. `path` is the one the router goes by, percent-codes read: never
/// the text of the request. Where several routes could be meant, all of them must allow it; what is no route is no
/// device's.
pub fn allowed(rights: Rights, method: &Method, path: &str) -> bool {
    let reads = matches!(*method, Method::GET | Method::HEAD);
    if !path.starts_with("/api") {
        return path == "/join" || reads;
    }
    let method = if reads { "GET" } else { method.as_str() };
    let mut meant = routes().iter().filter(|route| route.method == method && route.is_of(path)).peekable();
    // A path that is none says so, by itself; nothing can be done by it.
    let known = routes().iter().any(|route| route.is_of(path));
    if meant.peek().is_none() {
        return !known && reads;
    }
    meant.all(|route| route.needs.is_some_and(|needs| needs.met_by(rights)))
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
    #[case::devices_by_their_heads(Method::HEAD, "/api/v1/phones", [false, false, false])]
    #[case::folder(Method::PUT, "/api/v1/watched", [false, false, false])]
    #[case::restore(Method::POST, "/api/v1/backups/a/restore", [false, false, false])]
    #[case::no_such_method(Method::PATCH, "/api/v1/jobs", [false, false, false])]
    #[case::no_such_path(Method::POST, "/api/v1/anything", [false, false, false])]
    #[case::another_version(Method::POST, "/api/v2/jobs", [false, false, false])]
    #[case::nothing_there(Method::GET, "/api/v1/anything", [true, true, true])]
    fn what_may_be_asked(#[case] method: Method, #[case] path: &str, #[case] may: [bool; 3]) {
        let found = [Rights::Look, Rights::Tick, Rights::All].map(|rights| allowed(rights, &method, path));
        assert_eq!(found, may);
    }

    #[test]
    fn every_route_says_what_it_needs() {
        let silent: Vec<_> = routes().iter().filter(|route| route.needs.is_none()).collect();
        assert!(silent.is_empty(), "no x-rights: {silent:?}");
        assert!(routes().len() > 100, "{}", routes().len());
        let of = |needs| routes().iter().filter(|route| route.needs == Some(needs)).count();
        assert!([Needs::Look, Needs::Tick, Needs::All, Needs::Machine].into_iter().all(|needs| of(needs) > 0));
    }

    /// What nobody has said of a route is no device's.
    #[test]
    fn a_silent_route_is_the_machines() {
        let document =
            serde_json::json!({ "paths": { "/api/v1/a/{id}": { "get": {}, "put": { "x-rights": "all" } } } });
        let of = of_document(&document);
        assert_eq!(of.iter().map(|route| route.needs).collect::<Vec<_>>(), [None, Some(Needs::All)]);
        assert!(of[0].is_of("/api/v1/a/b") && !of[0].is_of("/api/v1/a/") && !of[0].is_of("/api/v1/a/b/c"));
    }
}
