//! Makes the pictures in docs/screenshots/ from the demo data: one of each main view.

use std::path::PathBuf;
use std::time::Duration;

use tolva_e2e::{Browser, Theme, Tolva};

/// A picture: its name, the page, the theme, the size.
type Picture = (&'static str, &'static str, Theme, (u32, u32));

const ROPEWORKS: [Picture; 11] = [
    ("place", "/setups/doorway/place", Theme::Daylight, (1280, 800)),
    ("place-silhouette-dusk", "/setups/slipway/place", Theme::Dusk, (1280, 800)),
    ("place-phone", "/setups/doorway/place", Theme::Daylight, (390, 1900)),
    ("falling-light", "/setups/doorway/falling", Theme::Daylight, (1280, 800)),
    ("falling-light-phone", "/setups/doorway/falling", Theme::Dusk, (390, 1900)),
    ("light", "/setups/doorway/light", Theme::Daylight, (1280, 800)),
    ("blend", "/setups/doorway/blend", Theme::Daylight, (1280, 800)),
    ("depth-and-speed", "/setups/net-store/depth", Theme::Daylight, (1280, 800)),
    ("lights-dusk", "/setups/doorway/lights", Theme::Dusk, (1280, 800)),
    ("impossible", "/setups/noon-quay/blend", Theme::Daylight, (1280, 800)),
    ("job", "", Theme::Daylight, (1280, 800)),
];

#[tokio::main]
async fn main() {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots");
    std::fs::create_dir_all(&folder).expect("the folder");
    let tolva = Tolva::with_demo_data();
    let browser = Browser::open().await;
    let job = tolva.job_id("Ropeworks open day").await;

    browser.go(&tolva.url("")).await;
    browser.theme(Theme::Daylight).await;
    browser.link("Ropeworks open day").await;
    take(&browser, &folder, "jobs").await;
    for (name, page, theme, (width, height)) in ROPEWORKS {
        browser.size(width, height).await;
        browser.go(&tolva.url(&format!("jobs/{job}{page}"))).await;
        browser.theme(theme).await;
        browser.css(if page.is_empty() { "#setups" } else { "[aria-label='Dial card']" }).await;
        take(&browser, &folder, name).await;
    }
    browser.size(1280, 800).await;
    browser.go(&tolva.url(&format!("jobs/{job}/setups/doorway/light"))).await;
    browser.theme(Theme::Daylight).await;
    browser.button("Workings").await.click().await.expect("the workings");
    browser.css("[role=dialog] table").await;
    take(&browser, &folder, "workings").await;
    browser.close().await;
}

async fn take(browser: &Browser, folder: &std::path::Path, name: &str) {
    // Fonts and the last answer: a picture is taken when nothing moves any more.
    tokio::time::sleep(Duration::from_millis(700)).await;
    let file = folder.join(format!("{name}.png"));
    browser.driver.screenshot(&file).await.expect("a picture");
    println!("{}", file.file_name().unwrap_or_default().display());
}
