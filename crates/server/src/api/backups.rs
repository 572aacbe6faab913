//! Backups: which there are, what one would bring back, and bringing it back.

use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, get, post};
use serde::Serialize;
use tolva_store::{BACKUP_DAYS, Backup, Difference, Store};
use utoipa::ToSchema;

use super::jobs::JobLine;
use super::problem::ApiError;

/// A backup.
#[derive(Debug, Serialize, ToSchema)]
pub struct BackupLine {
    /// What it is called: the day it was made on, or when what came before a restore was kept.
    name: String,
    /// How large it is, in bytes.
    bytes: u64,
}

impl From<Backup> for BackupLine {
    fn from(Backup { name, bytes }: Backup) -> Self {
        Self { name, bytes }
    }
}

/// The backups that there are.
#[derive(Debug, Serialize, ToSchema)]
pub struct BackupList {
    /// The backups, the newest first.
    backups: Vec<BackupLine>,
    /// Of so many days one is kept.
    days: usize,
}

/// What a backup would bring back.
#[derive(Debug, Serialize, ToSchema)]
pub struct BackupDifference {
    /// Jobs that are only in the backup.
    back: Vec<JobLine>,
    /// Jobs that were saved since, as they are in the backup.
    changed: Vec<JobLine>,
    /// Jobs that are only here, and would be gone.
    gone: Vec<JobLine>,
}

impl From<Difference> for BackupDifference {
    fn from(Difference { back, changed, gone }: Difference) -> Self {
        let lines = |jobs: Vec<_>| jobs.into_iter().map(Into::into).collect();
        Self { back: lines(back), changed: lines(changed), gone: lines(gone) }
    }
}

/// The backups in the folder beside the data file: one of each of the last days, and what was there before a restore.
#[utoipa::path(
    operation_id = "list_backups",
    responses((status = OK, description = "The backups", body = BackupList)),
    extensions(("x-rights" = json!("machine"))),
)]
#[get("/api/v1/backups")]
pub async fn list(store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let backups = store.backups().into_iter().map(Into::into).collect();
    Ok(HttpResponse::Ok().json(BackupList { backups, days: BACKUP_DAYS }))
}

/// What a backup would bring back, and what would be gone.
#[utoipa::path(
    operation_id = "compare_backup",
    responses((status = OK, description = "The difference", body = BackupDifference)),
    extensions(("x-rights" = json!("machine"))),
)]
#[get("/api/v1/backups/{name}")]
pub async fn compare(name: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(BackupDifference::from(store.compare(&name).await?)))
}

/// Brings back everything as it stands in a backup. What is there now becomes a backup first.
#[utoipa::path(
    operation_id = "restore_backup",
    responses((status = NO_CONTENT, description = "Brought back")),
    extensions(("x-rights" = json!("machine"))),
)]
#[post("/api/v1/backups/{name}/restore")]
pub async fn restore(name: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    store.restore_named(&name).await?;
    Ok(HttpResponse::NoContent().finish())
}
