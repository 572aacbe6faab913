//! The built front end, embedded in the binary.

use actix_web::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY};
use actix_web::{HttpRequest, HttpResponse};
use rust_embed::RustEmbed;
use uuid::Uuid;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Built;

/// What stands in the page for the nonce that lets its own styles in.
const NONCE: &str = "TOLVA_NONCE";

/// A file of the front end, or its page for every other path, which the front end's own routes handle.
pub async fn serve(request: HttpRequest) -> HttpResponse {
    let path = request.path().trim_start_matches('/');
    if let Some(file) = Built::get(path).filter(|_| path != "index.html") {
        let kind = mime_guess::from_path(path).first_or_octet_stream();
        // Vite names files by their content, so what has been fetched once never changes.
        let forever = (CACHE_CONTROL, "public, max-age=31536000, immutable");
        return HttpResponse::Ok().content_type(kind.as_ref()).insert_header(forever).body(file.data.into_owned());
    }
    if path.starts_with("assets/") {
        return HttpResponse::NotFound().finish();
    }
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
        .insert_header((CONTENT_SECURITY_POLICY, crate::guard::policy(&format!("'self' 'nonce-{nonce}'"))))
        .body(page)
}
