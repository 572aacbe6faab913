//! Drives the real Tolva in a real browser: the built binary, headless Chromium, ChromeDriver. No network is used but
//! loopback, and nothing is mocked.

#![allow(clippy::missing_panics_doc, reason = "a test that cannot go on panics: that is how it fails")]

mod browser;
mod chromium;
mod over_tls;
mod server;
pub mod siege;
mod timed;

pub use browser::{Browser, Theme, settle};
pub use server::Tolva;
pub use thirtyfour::{By, Key, WebElement};
