//! What a request costs when nothing is computed: the load benchmark measures against it.

use actix_web::{HttpResponse, post};
use serde_json::Value;

use super::body::Body;

/// Reads a JSON body and sends it back. For measuring only.
#[utoipa::path(
    request_body = Value,
    responses((status = OK, description = "The same", body = Value)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/echo")]
pub async fn echo(body: Body<Value>) -> HttpResponse {
    HttpResponse::Ok().json(body.0)
}
