//! Who asks, and by which way.

use std::future::{Ready, ready};

use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpMessage as _, HttpRequest};
use tolva_store::Rights;

/// By which way a request comes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Reach {
    /// From where Tolva listens by itself.
    Here,
    /// Over the set's network.
    Air,
}

/// Who asks: the machine itself, or a device that was let in.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Caller {
    /// The device's id; empty for the machine itself.
    pub device_id: String,
    /// What the device is called; empty for the machine itself.
    pub name: String,
    /// What it may do.
    pub rights: Rights,
}

impl Default for Caller {
    fn default() -> Self {
        Self { device_id: String::new(), name: String::new(), rights: Rights::All }
    }
}

impl FromRequest for Caller {
    type Error = std::convert::Infallible;
    type Future = Ready<Result<Self, Self::Error>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(Ok(request.extensions().get::<Self>().cloned().unwrap_or_default()))
    }
}
