//! Phones on the set: whether they reach this Tolva, the code a new one comes by, which there are, and what each may do. Only
//! the machine itself is told.

use actix_web::http::StatusCode;
use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, delete, get, post, put};
use qrcode::QrCode;
use qrcode::render::svg;
use serde::{Deserialize, Serialize};
use tolva_format::{Problems, is_one_line};
use tolva_store::{Device, Rights};
use utoipa::ToSchema;

use super::body::Body;
use super::problem::{ApiError, ProblemDocument};
use crate::live::Live;
use crate::phones::{CODE_LASTS, Caller, NoPhones, Phones};

/// What a device may do.
#[derive(Clone, Copy, Debug, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DeviceRights {
    /// Look only.
    Look,
    /// Look, tick and note.
    Tick,
    /// Everything but what belongs to the machine itself.
    All,
}

impl From<DeviceRights> for Rights {
    fn from(rights: DeviceRights) -> Self {
        match rights {
            DeviceRights::Look => Self::Look,
            DeviceRights::Tick => Self::Tick,
            DeviceRights::All => Self::All,
        }
    }
}

impl From<Rights> for DeviceRights {
    fn from(rights: Rights) -> Self {
        match rights {
            Rights::Look => Self::Look,
            Rights::Tick => Self::Tick,
            Rights::All => Self::All,
        }
    }
}

/// A device that was let in.
#[derive(Debug, Serialize, ToSchema)]
pub struct DeviceLine {
    /// Its id.
    id: String,
    /// What it is called.
    name: String,
    /// What it may do.
    rights: DeviceRights,
    /// When it was let in (RFC 3339).
    joined_at: String,
}

impl From<Device> for DeviceLine {
    fn from(device: Device) -> Self {
        let Device { id, name, rights, joined_at, .. } = device;
        Self { id, name, rights: rights.into(), joined_at }
    }
}

/// How phones reach this Tolva, and which were let in.
#[derive(Debug, Serialize, ToSchema)]
pub struct PhonesNow {
    /// The address they reach it by; null where they do not.
    address: Option<String>,
    /// The SHA-256 of Tolva's certificate, as a phone's browser shows it too; null where they do not reach it.
    fingerprint: Option<String>,
    /// The devices, the first let in first.
    devices: Vec<DeviceLine>,
}

async fn now(phones: &Phones) -> Result<HttpResponse, ApiError> {
    let serving = phones.serving();
    let devices = phones.all().await?.into_iter().map(Into::into).collect();
    Ok(HttpResponse::Ok().json(PhonesNow {
        address: serving.as_ref().map(|serving| format!("https://{}", serving.address)),
        fingerprint: serving.map(|serving| serving.fingerprint),
        devices,
    }))
}

/// How phones reach this Tolva, and which were let in.
#[utoipa::path(
    operation_id = "phones",
    responses((status = OK, description = "Phones", body = PhonesNow)),
    extensions(("x-rights" = json!("machine"))),
)]
#[get("/api/v1/phones")]
pub async fn list(phones: Data<Phones>) -> Result<HttpResponse, ApiError> {
    now(&phones).await
}

/// Whether phones reach it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Reachable {
    /// Whether they do from now on.
    on: bool,
}

impl From<NoPhones> for ApiError {
    fn from(why: NoPhones) -> Self {
        let problem = ProblemDocument::new(StatusCode::SERVICE_UNAVAILABLE, "no_phones", "Phones cannot be let in");
        problem.saying(why.to_string()).into()
    }
}

/// Lets phones reach this Tolva over the network it is on, or no longer.
#[utoipa::path(
    operation_id = "reach_phones",
    request_body = Reachable,
    responses((status = OK, description = "Phones", body = PhonesNow)),
    extensions(("x-rights" = json!("machine"))),
)]
#[put("/api/v1/phones")]
pub async fn reach(body: Body<Reachable>, phones: Data<Phones>) -> Result<HttpResponse, ApiError> {
    if body.0.on {
        phones.open().await?;
    } else {
        phones.close().await;
    }
    now(&phones).await
}

/// What the next device may do.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CodeRequest {
    /// What it may do.
    rights: DeviceRights,
}

/// A code for one device.
#[derive(Debug, Serialize, ToSchema)]
pub struct JoinCode {
    /// The address it stands for.
    url: String,
    /// The same as a picture to be read by a phone's camera: SVG.
    picture: String,
    /// So many seconds it is good.
    seconds: u64,
}

/// A new code for one device, good for two minutes; the one before is no longer good.
#[utoipa::path(
    operation_id = "join_code",
    request_body = CodeRequest,
    responses((status = OK, description = "The code", body = JoinCode)),
    extensions(("x-rights" = json!("machine"))),
)]
#[post("/api/v1/phones/code")]
pub async fn code(body: Body<CodeRequest>, phones: Data<Phones>) -> Result<HttpResponse, ApiError> {
    let Some(serving) = phones.serving() else {
        return Err(Problems::one("/rights", "phones do not reach this Tolva: let them first").into());
    };
    let url = format!("https://{}/join?code={}", serving.address, phones.code(body.0.rights.into()));
    let drawn = QrCode::new(url.as_bytes()).map_err(|_| ProblemDocument::broken())?;
    let picture = drawn.render::<svg::Color<'_>>().min_dimensions(220, 220).build();
    Ok(HttpResponse::Ok().json(JoinCode { url, picture, seconds: CODE_LASTS.as_secs() }))
}

/// What a device is called, and what it may do.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeviceChange {
    /// 1 to 60 characters.
    #[schema(min_length = 1, max_length = 60)]
    name: String,
    /// What it may do.
    rights: DeviceRights,
}

fn not_there(id: &str) -> ApiError {
    let problem = ProblemDocument::new(StatusCode::NOT_FOUND, "no_such_device", "No such device");
    problem.saying(format!("there is no device “{id}”")).into()
}

/// Another name or other rights for a device.
#[utoipa::path(
    operation_id = "change_device",
    request_body = DeviceChange,
    responses((status = OK, description = "Phones", body = PhonesNow)),
    extensions(("x-rights" = json!("machine"))),
)]
#[put("/api/v1/phones/{id}")]
pub async fn change(
    id: Path<String>,
    body: Body<DeviceChange>,
    phones: Data<Phones>,
) -> Result<HttpResponse, ApiError> {
    let DeviceChange { name, rights } = body.0;
    let name = name.trim();
    if !(1..=60).contains(&name.chars().count()) || !is_one_line(name) {
        return Err(Problems::one("/name", "a name has 1 to 60 characters on one line").into());
    }
    if phones.change(&id, name, rights.into()).await? { now(&phones).await } else { Err(not_there(&id)) }
}

/// Puts a device out.
#[utoipa::path(
    operation_id = "put_out",
    responses((status = OK, description = "Phones", body = PhonesNow)),
    extensions(("x-rights" = json!("machine"))),
)]
#[delete("/api/v1/phones/{id}")]
pub async fn put_out(id: Path<String>, phones: Data<Phones>, live: Data<Live>) -> Result<HttpResponse, ApiError> {
    if !phones.put_out(&id).await? {
        return Err(not_there(&id));
    }
    live.put_out();
    now(&phones).await
}

/// Who asks.
#[derive(Debug, Serialize, ToSchema)]
pub struct WhoAsks {
    /// What the device is called; empty for the machine Tolva runs on.
    name: String,
    /// What it may do.
    rights: DeviceRights,
}

/// Which device this is, and what it may do.
#[utoipa::path(
    operation_id = "who_asks",
    responses((status = OK, description = "Who asks", body = WhoAsks)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/me")]
pub async fn me(caller: Caller) -> HttpResponse {
    HttpResponse::Ok().json(WhoAsks { name: caller.name, rights: caller.rights.into() })
}
