//! The page a phone comes to by its code, and the only one an unknown device is given.

use actix_web::cookie::{Cookie, SameSite, time};
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY, LOCATION, REFERRER_POLICY};
use actix_web::web::{Data, Query};
use actix_web::{HttpResponse, HttpResponseBuilder};
use serde::Deserialize;
use tolva_format::as_one_line;
use tolva_wording::escaped;
use uuid::Uuid;

use super::body::SmallForm;
use crate::phones::{COOKIE, Phones};

/// A device stays let in for so long without another code.
const STAYS: time::Duration = time::Duration::days(60);

/// What the page is come to with.
#[derive(Debug, Default, Deserialize)]
pub struct Asked {
    #[serde(default)]
    code: String,
}

/// What is sent from it.
#[derive(Debug, Deserialize)]
pub struct Joining {
    code: String,
    #[serde(default)]
    name: String,
}

/// The page, with what there is to tell, and with a form where there is a code.
pub fn page(phones: &Phones, code: Option<&str>, told: &str, status: StatusCode) -> HttpResponse {
    let nonce = Uuid::new_v4().simple().to_string();
    let fingerprint = phones.serving().map(|serving| serving.fingerprint).unwrap_or_default();
    let told = if told.is_empty() {
        String::new()
    } else {
        format!("<section class=\"told\" role=\"alert\">{}</section>", escaped(told))
    };
    let form = code.map_or_else(String::new, |code| {
        format!(
            "<section><form method=\"post\" action=\"/join\"><input type=\"hidden\" name=\"code\" value=\"{}\"><label \
             for=\"name\">What this device is called</label><input id=\"name\" name=\"name\" maxlength=\"60\" required \
             placeholder=\"Helper’s phone\"><button>Join</button></form></section>",
            escaped(code)
        )
    });
    let html = include_str!("join.html")
        .replace("TOLVA_NONCE", &nonce)
        .replace("TOLVA_TOLD", &told)
        .replace("TOLVA_FINGERPRINT", &escaped(&fingerprint))
        .replace("TOLVA_FORM", &form);
    let policy = crate::policy::policy(&format!("'nonce-{nonce}'")).replace("form-action 'none'", "form-action 'self'");
    HttpResponseBuilder::new(status)
        .content_type("text/html; charset=utf-8")
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((REFERRER_POLICY, "same-origin"))
        .insert_header((CONTENT_SECURITY_POLICY, policy))
        .body(html)
}

/// The page a code leads to.
pub async fn come(asked: Query<Asked>, phones: Data<Phones>) -> HttpResponse {
    let code = asked.into_inner().code;
    let told = if code.is_empty() {
        "Read the code on the laptop with this phone’s camera: it stands under Phones."
    } else {
        ""
    };
    page(&phones, Some(code.as_str()).filter(|code| !code.is_empty()), told, StatusCode::OK)
}

/// Lets a device in, and leads it to the jobs.
pub async fn join(joining: SmallForm<Joining>, phones: Data<Phones>) -> HttpResponse {
    let Joining { code, name } = joining.0;
    let name: String = as_one_line(name.trim()).chars().take(60).collect();
    if name.is_empty() {
        return page(&phones, Some(&code), "Say what this device is called.", StatusCode::UNPROCESSABLE_ENTITY);
    }
    let token = match phones.join(&code, &name).await {
        Ok(Some(token)) => token,
        Ok(None) => {
            let told = "This code was used, or is older than two minutes. Ask for a new one on the laptop.";
            return page(&phones, None, told, StatusCode::FORBIDDEN);
        }
        Err(error) => return page(&phones, Some(&code), &error.to_string(), StatusCode::INTERNAL_SERVER_ERROR),
    };
    let cookie = Cookie::build(COOKIE, token)
        .path("/")
        .secure(true)
        .http_only(true)
        .same_site(SameSite::Strict)
        .max_age(STAYS)
        .finish();
    HttpResponse::SeeOther().insert_header((LOCATION, "/")).cookie(cookie).finish()
}
