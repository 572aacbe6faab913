//! The kit: what a person owns, kept once and used by every job.

use actix_web::web::{Data, Query};
use actix_web::{HttpRequest, HttpResponse, get, post, put};
use serde::{Deserialize, Serialize};
use tolva_format::{Edit, Kit, KitFile, Problems, edited};
use tolva_store::{Act, SavedKit, Store};
use tolva_wording::LengthUnit;
use utoipa::{IntoParams, ToSchema};

use super::answer::{Key, as_file, is_conditional, made_on, marked, marked_for};
use super::body::{Body, File};
use super::jobs::{Since, in_words};
use super::problem::{ApiError, ProblemDocument};
use super::work::worked_out;

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
#[utoipa::path(
    operation_id = "get_kit",
    responses(
        (status = OK, description = "The kit, with its mark as `ETag`", body = KitBody),
        (status = NOT_MODIFIED, description = "It is still what `If-None-Match` names"),
    ),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/kit")]
pub async fn get(request: HttpRequest, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(marked_for(&request, &KitBody::from(store.kit().await?)))
}

/// A number of the kit to change.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EditKit {
    /// The kit.
    kit: Kit,
    /// What was typed into it, or stepped.
    edit: Edit,
    /// The unit of a bare number that is a length.
    #[serde(default)]
    length: LengthUnit,
}

/// A kit with one number changed, and what belongs together still in order. Nothing is stored.
#[utoipa::path(
    operation_id = "edit_kit",
    request_body = EditKit,
    responses((status = OK, description = "The kit", body = Kit)),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/kit/edit")]
pub async fn edit(body: Body<EditKit>) -> Result<HttpResponse, ApiError> {
    let EditKit { kit, edit, length } = body.0;
    let changed = worked_out(move || -> Result<Kit, Problems> {
        let mut kit = edited("Kit", &kit, &edit, length.into()).map_err(|wrong| wrong.within("/edit"))?;
        kit.put_in_order();
        kit.check()?;
        Ok(kit)
    });
    Ok(HttpResponse::Ok().json(changed.await?))
}

fn shown(saved: SavedKit) -> HttpResponse {
    marked(HttpResponse::Ok(), &KitBody::from(saved))
}

/// Saves a change of the kit. What is no longer in it retires: jobs that use it go on with it as it was. Sent again under
/// the same `Idempotency-Key`, or as it was, it is the same save.
#[utoipa::path(
    operation_id = "save_kit",
    request_body = SaveKit,
    responses(
        (status = OK, description = "Saved", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere", body = ProblemDocument, content_type = "application/problem+json"),
        (status = PRECONDITION_FAILED, description = "It is not what `If-Match` names", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[put("/api/v1/kit")]
pub async fn save(
    body: Body<SaveKit>,
    key: Key,
    request: HttpRequest,
    store: Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let SaveKit { based_on, change, kit } = body.0;
    if is_conditional(&request) {
        made_on(&request, &KitBody::from(store.kit().await?))?;
    }
    let change = in_words(&change);
    Ok(shown(store.save_kit(&Act { key: key.0.as_deref(), ..Act::on(based_on, &change) }, &kit).await?))
}

/// Takes back the last change of the kit.
#[utoipa::path(
    operation_id = "undo_kit",
    request_body = Since,
    responses(
        (status = OK, description = "Undone", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to undo", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/kit/undo")]
pub async fn undo_kit(body: Body<Since>, key: Key, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let act = Act { key: key.0.as_deref(), ..Act::on(body.0.based_on, "Undo") };
    Ok(shown(store.step_kit(&act, true).await?))
}

/// Brings it back.
#[utoipa::path(
    operation_id = "redo_kit",
    request_body = Since,
    responses(
        (status = OK, description = "Redone", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere, or nothing to redo", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/kit/redo")]
pub async fn redo_kit(body: Body<Since>, key: Key, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let act = Act { key: key.0.as_deref(), ..Act::on(body.0.based_on, "Redo") };
    Ok(shown(store.step_kit(&act, false).await?))
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
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Export {
    /// As what.
    #[param(inline)]
    format: KitFormat,
}

/// The kit as a file to keep or to import elsewhere.
#[utoipa::path(
    operation_id = "export_kit",
    params(Export),
    responses((status = OK, description = "The kit file", content((KitFile = "application/json"), (String = "text/csv")))),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/kit/file")]
pub async fn export(asked: Query<Export>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let file = store.kit().await?.document;
    let (kind, ending, text) = match asked.format {
        KitFormat::Json => ("application/json", ".tolva.json", file.to_json()),
        KitFormat::Csv => ("text/csv; charset=utf-8", ".csv", file.to_csv()),
    };
    Ok(HttpResponse::Ok().content_type(kind).insert_header(as_file("kit", ending)).body(text))
}

/// Which revision a file is put into.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct Onto {
    /// The revision that is shown.
    based_on: i64,
}

/// Puts a kit file (JSON or CSV) into the kit: what has the same id is replaced, what has not is added. A table may hold
/// a single thing.
#[utoipa::path(
    operation_id = "import_kit",
    params(Onto),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses(
        (status = OK, description = "Imported", body = KitBody),
        (status = CONFLICT, description = "Changed elsewhere", body = ProblemDocument, content_type = "application/problem+json"),
    ),
    extensions(("x-rights" = json!("all"))),
)]
#[post("/api/v1/kit/file")]
pub async fn import(into: Query<Onto>, body: File, key: Key, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let file = worked_out(move || KitFile::from_any(&body.0)).await?;
    let act = Act { key: key.0.as_deref(), ..Act::on(into.based_on, "Kit imported") };
    Ok(shown(store.add_to_kit(&act, &file.kit).await?))
}
