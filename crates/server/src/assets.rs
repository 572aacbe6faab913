//! The built front end: embedded in a release build; a development build reads it from its folder, so that neither waits for
//! the other to be built.

use actix_web::http::header::{ACCEPT, CACHE_CONTROL, CONTENT_SECURITY_POLICY};
use actix_web::http::{Method, StatusCode};
use actix_web::web::{self, ServiceConfig};
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;
use uuid::Uuid;

use crate::api::{self, ProblemDocument, join};

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Built;

/// What stands in the page for the nonce that lets its own styles in.
const NONCE: &str = "TOLVA_NONCE";

/// The routes of the front end: each is its page, and the front end finds out which it is.
const PAGES: [&str; 9] = [
    "/",
    "/kit",
    "/phones",
    "/drills",
    "/jobs/{id}",
    "/jobs/{id}/{page:day|shots|pack|log}",
    "/jobs/{id}/run/{setup}",
    "/jobs/{id}/setups/{setup}",
    "/jobs/{id}/setups/{setup}/{step}",
];

/// The pages, for those who read.
pub fn pages(config: &mut ServiceConfig) {
    config.service(web::resource("/join").route(web::get().to(join::come)).route(web::post().to(join::join)));
    for path in PAGES {
        config.service(
            web::resource(path)
                .route(web::get().to(page))
                .route(web::head().to(page))
                .default_service(web::to(only_read)),
        );
    }
}

async fn only_read(request: HttpRequest) -> HttpResponse {
    api::not_allowed(&request, "GET, HEAD")
}

/// Everything else: a file of the front end, or nothing.
pub async fn other(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    if path == "api" || path.starts_with("api/") {
        return api::unknown(request).await;
    }
    let Some(file) = Built::get(path).filter(|_| path != "index.html") else { return nothing(&request) };
    if !matches!(*request.method(), Method::GET | Method::HEAD) {
        return only_read(request).await;
    }
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Vite names what it makes by its content, so what has been fetched once never changes; the rest may.
    let keep = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    HttpResponse::Ok().content_type(kind.as_ref()).insert_header((CACHE_CONTROL, keep)).body(file.data.into_owned())
}

/// There is nothing here: in words for a person, as a problem document for a program.
fn nothing(request: &HttpRequest) -> HttpResponse {
    let accepts = request.headers().get(ACCEPT).and_then(|kinds| kinds.to_str().ok()).unwrap_or_default();
    if accepts.contains("text/html") {
        let nonce = Uuid::new_v4().simple().to_string();
        return HttpResponse::NotFound()
            .content_type("text/html; charset=utf-8")
            .insert_header((CONTENT_SECURITY_POLICY, crate::policy::policy(&format!("'nonce-{nonce}'"))))
            .body(include_str!("nothing.html").replace(NONCE, &nonce));
    }
    let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "no_such_path", "No such path");
    problem.saying("there is nothing at this address").response()
}

async fn page() -> HttpResponse {
    let Some(page) = Built::get("index.html") else {
        return HttpResponse::ServiceUnavailable()
            .content_type("text/plain; charset=utf-8")
            .body("The front end was not built into this Tolva. Start it with: cargo demo");
    };
    let nonce = Uuid::new_v4().simple().to_string();
    let page = String::from_utf8_lossy(&page.data).replace(NONCE, &nonce);
    HttpResponse::Ok()
        .content_type("text/html; charset=utf-8")
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_SECURITY_POLICY, crate::policy::policy(&format!("'self' 'nonce-{nonce}'"))))
        .body(page)
}
