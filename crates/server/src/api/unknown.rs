//! What is none of the API's routes: a path that is not there, a method that it does not take, a query that is wrong.

use std::sync::LazyLock;

use actix_web::dev::ResourceDef;
use actix_web::error::{PathError, QueryPayloadError};
use actix_web::http::StatusCode;
use actix_web::http::header::ALLOW;
use actix_web::{Error, HttpRequest, HttpResponse};

use super::problem::{ApiError, ProblemDocument};

/// The paths of the API, each with the methods it takes.
static ROUTES: LazyLock<Vec<(ResourceDef, String)>> = LazyLock::new(|| {
    let document = serde_json::json!(super::openapi());
    let paths = document["paths"].as_object().into_iter().flatten();
    paths
        .map(|(path, operations)| {
            let methods = operations.as_object().into_iter().flatten().map(|(method, _)| method.to_uppercase());
            (ResourceDef::new(path.as_str()), methods.collect::<Vec<_>>().join(", "))
        })
        .collect()
});

/// Answers a request under `/api` that no route takes.
pub async fn unknown(request: HttpRequest) -> HttpResponse {
    let path = request.path();
    if let Some((_, methods)) = ROUTES.iter().find(|(route, _)| route.is_match(path)) {
        return not_allowed(&request, methods);
    }
    let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "no_such_path", "No such path");
    problem.saying("the API has no such path: /api/v1/openapi.json lists all there are").response()
}

/// Refuses a method that a path does not take.
pub fn not_allowed(request: &HttpRequest, methods: &str) -> HttpResponse {
    let problem = ProblemDocument::new(StatusCode::METHOD_NOT_ALLOWED, "not_allowed", "Not allowed here");
    let mut response = problem.saying(format!("{} is not allowed here: {methods} is", request.method())).response();
    if let Ok(methods) = methods.parse() {
        response.headers_mut().insert(ALLOW, methods);
    }
    response
}

fn not_understood(what: &str, error: &impl ToString) -> Error {
    let problem = ProblemDocument::new(StatusCode::BAD_REQUEST, "not_understood", "Not understood");
    ApiError::from(problem.saying(format!("{what}: {}", error.to_string()))).into()
}

/// A query that is wrong.
#[expect(clippy::needless_pass_by_value, reason = "so it is called")]
pub fn wrong_query(error: QueryPayloadError, _: &HttpRequest) -> Error {
    not_understood("the query", &error)
}

/// A part of a path that is wrong.
#[expect(clippy::needless_pass_by_value, reason = "so it is called")]
pub fn wrong_path(error: PathError, _: &HttpRequest) -> Error {
    not_understood("the path", &error)
}
