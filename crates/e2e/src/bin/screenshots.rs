//! Makes the pictures in docs/screenshots/ from the demo data: one of each main view.

use std::path::PathBuf;
use std::time::Duration;

use tolva_e2e::{Browser, Theme, Tolva};

/// A picture: its name, the job, the page, the theme, the size.
type Picture = (&'static str, &'static str, &'static str, Theme, (u32, u32));

const ROPEWORKS: &str = "Ropeworks open day";
const GUILDS: &str = "Guild days at the town hall";
const WEIR: &str = "Weir Lane, behind glass";
const BINDERY: &str = "Bindery evening";
const WIDE: (u32, u32) = (1280, 800);
const PHONE: (u32, u32) = (390, 844);

const PICTURES: [Picture; 14] = [
    ("place", ROPEWORKS, "/setups/doorway/place", Theme::Daylight, WIDE),
    ("place-silhouette-dusk", ROPEWORKS, "/setups/slipway/place", Theme::Dusk, WIDE),
    ("place-phone", ROPEWORKS, "/setups/doorway/place", Theme::Daylight, PHONE),
    ("falling-light", ROPEWORKS, "/setups/doorway/falling", Theme::Daylight, WIDE),
    ("falling-light-phone", ROPEWORKS, "/setups/doorway/falling", Theme::Dusk, PHONE),
    ("light", ROPEWORKS, "/setups/doorway/light", Theme::Daylight, WIDE),
    ("blend", ROPEWORKS, "/setups/doorway/blend", Theme::Daylight, WIDE),
    ("colour", BINDERY, "/setups/reading/colour", Theme::Daylight, WIDE),
    ("set-phone", ROPEWORKS, "/setups/doorway/set", Theme::Dusk, PHONE),
    ("depth-and-speed", ROPEWORKS, "/setups/net-store/depth", Theme::Daylight, WIDE),
    ("set", GUILDS, "/setups/stairs/set", Theme::Daylight, WIDE),
    ("glass-dusk", WEIR, "/setups/mirrors/glass", Theme::Dusk, WIDE),
    ("impossible", ROPEWORKS, "/setups/noon-quay/blend", Theme::Daylight, WIDE),
    ("job", ROPEWORKS, "", Theme::Daylight, WIDE),
];

#[tokio::main]
async fn main() {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots");
    std::fs::create_dir_all(&folder).expect("the folder");
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let page = async |job: &str, page: &str| tolva.url(&format!("jobs/{}{page}", tolva.job_id(job).await));

    b.go(&tolva.url("")).await;
    b.theme(Theme::Daylight).await;
    b.link(ROPEWORKS).await;
    take(&b, &folder, "jobs").await;
    for (name, job, at, theme, (width, height)) in PICTURES {
        // A phone has the theme in its menu.
        b.size(WIDE.0, WIDE.1).await;
        b.go(&page(job, at).await).await;
        b.theme(theme).await;
        b.size(width, height).await;
        let settings = if width < WIDE.0 { "[aria-label='What to set']" } else { "[aria-label='Dial card']" };
        b.css(if at.is_empty() { "#setups" } else { settings }).await;
        if at.ends_with("/set") {
            b.css("[aria-label='The set from above'] .contour").await;
            b.script("document.querySelector(\"[aria-label='Map of light']\").scrollIntoView({ block: 'nearest' })")
                .await;
        }
        if at.ends_with("/glass") {
            b.css("button[aria-label^='Do this: ']").await;
        }
        if at.ends_with("/depth") {
            // What is sharp is drawn under the fields that say it.
            b.css("#not-sharp").await;
            b.script("document.querySelector(\"[aria-label='Depth']\").scrollIntoView({ block: 'end' })").await;
        }
        take(&b, &folder, name).await;
    }
    b.size(WIDE.0, WIDE.1).await;
    b.go(&tolva.url("kit")).await;
    b.theme(Theme::Daylight).await;
    b.shows("main", "Flash units and lamps").await;
    take(&b, &folder, "kit").await;
    // The schools of white balance stand lower down.
    b.go(&page(BINDERY, "/setups/reading/colour").await).await;
    b.css("[aria-label='Schools of white balance'] li").await;
    b.script("document.getElementById('balances').scrollIntoView()").await;
    take(&b, &folder, "white-balance").await;
    b.go(&page(ROPEWORKS, "/setups/doorway/light").await).await;
    b.button("Workings").await.click().await.expect("the workings");
    b.css("[role=dialog] table").await;
    take(&b, &folder, "workings").await;
    b.go(&page(ROPEWORKS, "/setups/doorway/blend").await).await;
    b.button("Other ways").await.click().await.expect("the ways");
    b.css("[aria-label='Ways'] li").await;
    take(&b, &folder, "other-ways").await;
    b.close().await;
}

async fn take(b: &Browser, folder: &std::path::Path, name: &str) {
    // Fonts and the last answer: a picture is taken when nothing moves any more.
    tokio::time::sleep(Duration::from_millis(700)).await;
    let file = folder.join(format!("{name}.png"));
    b.driver.screenshot(&file).await.expect("a picture");
    println!("{}", file.file_name().unwrap_or_default().display());
}
