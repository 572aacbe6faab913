//! The kit: what a person owns, kept once and used by every job.

use actix_web::http::header::CONTENT_DISPOSITION;
use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, get, post, put};
use serde::{Deserialize, Serialize};
use tolva_format::{Kit, KitFile};
use tolva_store::{SavedKit, Store};
use utoipa::{IntoParams, ToSchema};

use super::body::{Body, File};
use super::jobs::Since;
use super::problem::{ApiError, ProblemDocument};

/// The kit as it is kept.
#[derive(Debug, Serialize, ToSchema)]
pub struct KitBody {
    /// The revision that is shown.
    revision: i64,
    /// When it was saved (RFC 3339).
    saved_at: String,
    /// What undo would take back; null where there is nothing.
    undo: Option<String>,
    /// What redo would bring back; null where there is nothing.
    redo: Option<String>,
    /// The things.
    kit: Kit,
}

impl From<SavedKit> for KitBody {
    fn from(saved: SavedKit) -> Self {
        let SavedKit { revision, saved_at, undo, redo, document, .. } = saved;
        Self { revision, saved_at, undo, redo, kit: document.kit }
    }
}

/// A change of the kit to save.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveKit {
    /// The revision it was made on.
    based_on: i64,
    /// What was done, in words, for undo.
    #[schema(max_length = 200)]
    change: String,
    /// The whole kit.
    kit: Kit,
}

/// The kit. Where nobody has one yet, a generic one without brands.
#[utoipa::path(operation_id = "get_kit", responses((status = OK, description = "The kit", body = KitBody)))]
#[get("/api/kit")]
pub async fn get(store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(KitBody::from(store.kit().await?)))
}

/// Saves a change of the kit.
#[utoipa::path(
    operation_id = "save_kit",
    request_body = SaveKit,
    responses(
        (status = OK, description = "Saved", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere", body = ProblemDocument, content_type = "application/problem+json"),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
        (status = INSUFFICIENT_STORAGE, description = "The disk is full", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[put("/api/kit")]
pub async fn save(body: Body<SaveKit>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let SaveKit { based_on, change, kit } = body.0;
    kit.check()?;
    let change: String = change.chars().take(200).collect();
    Ok(HttpResponse::Ok().json(KitBody::from(store.save_kit(based_on, &change, &KitFile::new(kit)).await?)))
}

/// Takes back the last change of the kit.
#[utoipa::path(
    operation_id = "undo_kit",
    request_body = Since,
    responses(
        (status = OK, description = "Undone", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to undo", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/kit/undo")]
pub async fn undo_kit(body: Body<Since>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(KitBody::from(store.step_kit(body.0.based_on, true).await?)))
}

/// Brings it back.
#[utoipa::path(
    operation_id = "redo_kit",
    request_body = Since,
    responses(
        (status = OK, description = "Redone", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to redo", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/kit/redo")]
pub async fn redo_kit(body: Body<Since>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(KitBody::from(store.step_kit(body.0.based_on, false).await?)))
}

/// As what a kit is exported.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum KitFormat {
    /// JSON.
    Json,
    /// A table of values.
    Csv,
}

/// Which export.
#[derive(Debug, Deserialize, IntoParams)]
pub struct Export {
    /// As what.
    #[param(inline)]
    format: KitFormat,
}

/// The kit as a file to keep or to import elsewhere.
#[utoipa::path(operation_id = "export_kit", params(Export), responses((status = OK, description = "The kit file", body = KitFile)))]
#[get("/api/kit/file")]
pub async fn export(asked: Query<Export>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let file = store.kit().await?.document;
    let (kind, name, text) = match asked.format {
        KitFormat::Json => ("application/json", "kit.tolva.json", file.to_json()),
        KitFormat::Csv => ("text/csv; charset=utf-8", "kit.csv", file.to_csv()),
    };
    let attachment = format!("attachment; filename=\"{name}\"");
    Ok(HttpResponse::Ok().content_type(kind).insert_header((CONTENT_DISPOSITION, attachment)).body(text))
}

/// Which revision a file is put into.
#[derive(Debug, Deserialize, IntoParams)]
pub struct Onto {
    /// The revision that is shown.
    based_on: i64,
}

/// Puts a kit file (JSON or CSV) into the kit: what has the same id is replaced, what has not is added.
#[utoipa::path(
    operation_id = "import_kit",
    params(Onto),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = OK, description = "Imported", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere", body = ProblemDocument, content_type = "application/problem+json"),
        (status = UNPROCESSABLE_ENTITY, description = "A field is wrong", body = ProblemDocument, content_type = "application/problem+json"),
    )
)]
#[post("/api/kit/file")]
pub async fn import(into: Query<Onto>, body: File, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let is_json = body.0.iter().find(|byte| !byte.is_ascii_whitespace()) == Some(&b'{');
    let file = if is_json { KitFile::from_json(&body.0)? } else { KitFile::from_csv(&body.0)? };
    let kit = store.kit().await?.document.kit.updated_by(&file.kit);
    kit.check()?;
    let saved = store.save_kit(into.based_on, "Kit imported", &KitFile::new(kit)).await?;
    Ok(HttpResponse::Ok().json(KitBody::from(saved)))
}
