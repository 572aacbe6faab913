//! Makes the pictures in docs/screenshots/ from the demo data: one of each main view.

use std::path::PathBuf;
use std::time::Duration;

use tolva_e2e::{Browser, Theme, Tolva, settle};

/// A picture: its name, the job, the page, the theme, the size.
type Picture = (&'static str, &'static str, &'static str, Theme, (u32, u32));

const ROPEWORKS: &str = "Ropeworks open day";
const GUILDS: &str = "Guild days at the town hall";
const WEIR: &str = "Weir Lane, behind glass";
const BINDERY: &str = "Bindery evening";
const WIDE: (u32, u32) = (1280, 800);
const PHONE: (u32, u32) = (390, 844);

const PICTURES: [Picture; 12] = [
    ("place", ROPEWORKS, "/setups/doorway/place", Theme::Daylight, WIDE),
    ("falling-light", ROPEWORKS, "/setups/doorway/falling", Theme::Daylight, WIDE),
    ("light", ROPEWORKS, "/setups/doorway/light", Theme::Daylight, WIDE),
    ("colour", BINDERY, "/setups/reading/colour", Theme::Daylight, WIDE),
    ("set-phone", ROPEWORKS, "/setups/doorway/set", Theme::Dusk, PHONE),
    ("depth-and-speed", ROPEWORKS, "/setups/net-store/depth", Theme::Daylight, WIDE),
    ("set", GUILDS, "/setups/stairs/set", Theme::Daylight, WIDE),
    ("glass-dusk", WEIR, "/setups/mirrors/glass", Theme::Dusk, WIDE),
    ("proof", GUILDS, "/setups/awards/proof", Theme::Daylight, WIDE),
    ("impossible", ROPEWORKS, "/setups/noon-quay/blend", Theme::Daylight, WIDE),
    ("day", ROPEWORKS, "/day", Theme::Daylight, WIDE),
    ("run-phone-dusk", ROPEWORKS, "/run/doorway", Theme::Dusk, PHONE),
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
    pictures(&b, 5).await;
    take(&b, &folder, "jobs").await;
    for (name, job, at, theme, (width, height)) in PICTURES {
        // A phone has the theme in its menu.
        b.size(WIDE.0, WIDE.1).await;
        b.go(&page(job, at).await).await;
        b.theme(theme).await;
        b.size(width, height).await;
        let settings = if width < WIDE.0 { "[aria-label='What to set']" } else { "[aria-label='Dial card']" };
        b.css(if at == "/day" { "ol[aria-label='In this order']" } else { settings }).await;
        if at.ends_with("/set") {
            b.css("[aria-label='The set from above'] .contour").await;
            b.script("document.querySelector(\"[aria-label='Map of light']\").scrollIntoView({ block: 'nearest' })")
                .await;
        }
        if at.ends_with("/glass") {
            b.css("button[aria-label^='Do this: ']").await;
        }
        if at.ends_with("/proof") {
            b.has("[role=application] img", "data-fine", "true").await;
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
    b.go(&tolva.url("drills")).await;
    b.button("Too bright or too dark").await.click().await.expect("a set");
    b.button("Take frame 1").await.click().await.expect("a frame");
    pictures(&b, 1).await;
    take(&b, &folder, "drills").await;
    // The schools of white balance stand lower down.
    b.go(&page(BINDERY, "/setups/reading/colour").await).await;
    b.css("[aria-label='Schools of white balance'] li").await;
    b.script("document.getElementById('balances').scrollIntoView()").await;
    take(&b, &folder, "white-balance").await;
    b.go(&page(ROPEWORKS, "/setups/doorway/blend").await).await;
    b.button("Other ways").await.click().await.expect("the ways");
    b.css("[aria-label='Ways'] li").await;
    take(&b, &folder, "other-ways").await;
    // Two frames of the stand-in camera: the second against its plan, with what to change.
    b.go(&page(ROPEWORKS, "/setups/doorway/frames").await).await;
    b.xpath("//label[normalize-space()='From the stand-in camera']").await.click().await.expect("practice");
    b.button("Take one without flash").await.click().await.expect("a frame");
    b.css("ol[aria-label^='What to change'] button:not([data-disabled])").await.click().await.expect("an offer");
    b.saved().await;
    b.button("Take one with flash").await.click().await.expect("a frame");
    b.css("[aria-label='Frames of this setup'] label:nth-of-type(2)").await;
    b.shows("[data-testid=frame-says]", "planned").await;
    b.xpath("//label[normalize-space()='From here']").await.click().await.expect("files");
    b.script("document.querySelector('[data-testid=frame]').scrollIntoView({ block: 'start' })").await;
    take(&b, &folder, "frames").await;
    // Every proof of the demo data, small, on one sheet.
    b.go(&tolva.url("")).await;
    b.script(SHEET).await;
    for so_far in [6, 12, 18, 24] {
        pictures(&b, so_far).await;
    }
    take(&b, &folder, "proofs").await;
    b.close().await;
}

/// Lays the proof of every setup there is side by side, in place of the page.
const SHEET: &str = r"
document.body.replaceChildren();
const sheet = document.createElement('main');
Object.assign(sheet.style, { display: 'grid', gridTemplateColumns: 'repeat(6, 1fr)', gap: '10px', padding: '12px' });
document.body.append(sheet);
const json = (address, body) => fetch(address, body && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).then((answer) => answer.json());
(async () => {
  for (const { id } of (await json('/api/v1/jobs')).jobs) {
    const { job } = await json(`/api/v1/jobs/${id}`);
    for (const setup of job.setups) {
      const ready = await json('/api/v1/proof', { setup, kit: job.kit, longest: 320, fine: true, asker: 'sheet' });
      const item = document.createElement('li');
      Object.assign(item.style, { listStyle: 'none', fontSize: '11px', overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' });
      const picture = new Image();
      picture.src = `/api/v1/proof/${ready.id}/picture`;
      Object.assign(picture.style, { width: '100%', height: '132px', objectFit: 'contain', background: '#000', display: 'block' });
      item.append(picture, setup.name);
      sheet.append(item);
    }
  }
})();
return null;
";

/// Waits until so many small pictures are there.
async fn pictures(b: &Browser, least: u64) {
    settle(|| async {
        let count = "return [...document.querySelectorAll('main :is(li, figure) img')].filter((one) => one.naturalWidth > 0).length";
        let count = b.script(count).await;
        if count.as_u64().is_some_and(|count| count >= least) { Ok(()) } else { Err(format!("{count} pictures")) }
    })
    .await;
}

async fn take(b: &Browser, folder: &std::path::Path, name: &str) {
    // Fonts and the last answer: a picture is taken when nothing moves any more.
    tokio::time::sleep(Duration::from_millis(700)).await;
    let file = folder.join(format!("{name}.png"));
    b.driver.screenshot(&file).await.expect("a picture");
    println!("{}", file.file_name().unwrap_or_default().display());
}
