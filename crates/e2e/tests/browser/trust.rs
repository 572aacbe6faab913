//! Under fast fingers, a dropped connection and bad fields, the screen says what is so and loses nothing.

use serde_json::{Value, json};
use tolva_e2e::{Browser, By, Key, Tolva, WebElement, settle};

async fn open(b: &Browser, tolva: &Tolva, page: &str) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
    b.css("[aria-label='Answer']").await;
    id
}

/// Types without leaving the field.
async fn write(field: &WebElement, text: &str) {
    field.click().await.expect("the field");
    field.send_keys(Key::Control + "a").await.expect("all of it");
    field.send_keys(text).await.expect("typing");
}

async fn focus(b: &Browser, selector: &str) {
    b.css(selector).await;
    b.script(&format!("document.querySelector(\"{selector}\").focus()")).await;
}

fn slider(name: &str) -> String {
    format!("[role=slider][aria-label^='{name}:']")
}

const STATE: &str = "header [role=status]";
const DISTANCE: &str = "/setups/0/lights/0/distance_m";

/// The server stops: what is typed waits, what is ticked stands, the last plan stays with its age, the step does not go
/// away, and all of it goes in by itself, in order, when the server is back.
#[tokio::test]
async fn the_server_stops_and_comes_back() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    tolva.kill();
    let distance = b.field("Distance to the subject", 0).await;
    b.fill(&distance, "2.5").await;
    b.shows(STATE, "Not saved: kept in this browser").await;
    b.shows("[role=alert]", "Tolva has not answered since").await;
    b.holds(&distance, "2.5").await;
    b.shows("main", "Waits for Tolva").await;
    // The last plan is there, and says that it is older than what is set.
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    b.shows("[aria-label='Dial card'] h2", "older than what is set").await;
    b.xpath("//label[normalize-space()='Warm half']").await.click().await.expect("a gel");
    b.mark("Behind, together").await;
    b.shows("main h2", "Set").await;
    assert!(!b.text(STATE).await.contains("Saved"));

    tolva.run();
    tolva.holds(&id, DISTANCE, 2.5).await;
    tolva.holds(&id, "/setups/0/lights/0/gel_ids/0", "warm-half").await;
    b.saved().await;
    b.shows("[aria-label='Flash A']", "2.50 m").await;
    let alerts = b.driver.find_all(By::Css("[role=alert]")).await.expect("a search");
    assert!(alerts.is_empty(), "nothing is said any more");
    // In order: undo goes back through them one by one.
    b.button("Undo: A: gels").await.click().await.expect("undo");
    b.button("Undo: Distance to the subject").await.click().await.expect("undo");
    tolva.holds(&id, DISTANCE, 1.5).await;
    b.close().await;
}

/// A window that is closed while the server is gone has its typed text and its ticks when it is opened again.
#[tokio::test]
async fn a_closed_window_keeps_what_waits() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    let distance = b.field("Distance to the subject", 0).await;
    tolva.kill();
    b.fill(&distance, "2.5").await;
    b.shows(STATE, "Not saved").await;
    b.go("about:blank").await;
    tolva.run();
    open(&b, &tolva, "/setups/doorway/set").await;
    b.shows("[aria-label='Flash A']", "2.50 m").await;
    tolva.holds(&id, DISTANCE, 2.5).await;
    b.close().await;
}

/// What makes a setup that cannot be planned takes nothing away: the form that mends it stays.
#[tokio::test]
async fn a_wrong_field_leaves_the_form_that_mends_it() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva, "/setups/doorway/depth").await;
    b.button("Edit this lens").await.click().await.expect("the lens");
    let longest = b.field("Longest focal length, mm", 0).await;
    b.fill(&longest, "400").await;
    let shortest = b.field("Shortest focal length, mm", 0).await;
    b.fill(&shortest, "300").await;
    b.button("Done").await.click().await.expect("done");
    b.shows("[aria-label='Answer']", "No newer plan: a field is wrong").await;
    b.shows("[aria-label='Answer']", "Focal length, mm").await;
    b.shows("[aria-label='Dial card'] h2", "older than what is set").await;
    let focal = b.field("Focal length, mm", 0).await;
    b.fill(&focal, "350").await;
    b.shows_no_more("[aria-label='Answer']", "No newer plan").await;
    b.close().await;
}

/// A number counts when it is finished: on the way it only shows what it would do, Escape brings back what was there, and
/// it is one step of undo.
#[tokio::test]
async fn half_a_number_is_not_applied() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    let distance = b.field("Distance to the subject", 0).await;
    write(&distance, "8").await;
    b.shows("[aria-label='Flash A']", "8.00 m").await;
    assert_eq!(tolva.job(&id).await["setups"][0]["lights"][0]["distance_m"], 1.5);
    distance.send_keys("0").await.expect("80");
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    b.press(Key::Escape).await;
    b.holds(&distance, "1.50 m").await;
    b.button("Nothing to undo").await;

    b.link("Depth and speed").await.click().await.expect("the depth");
    let shutter = b.field("Shutter, fixed", 0).await;
    write(&shutter, "1").await;
    for key in ["/", "1", "6", "0"] {
        shutter.send_keys(key).await.expect("a key");
    }
    b.dialled("Shutter", "1/160").await;
    b.press(Key::Enter).await;
    b.saved().await;
    b.button("Undo: Shutter fixed").await.click().await.expect("undo");
    b.button("Nothing to undo").await;
    tolva.holds(&id, "/setups/0/fixed", json!({})).await;
    b.close().await;
}

/// What is typed into a setup is that setup's: neither the text nor the number is found in another one.
#[tokio::test]
async fn text_stays_in_its_setup() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let there = b.field("Latitude, degrees", 0).await;
    write(&there, "far north").await;
    b.press(Key::Enter).await;
    b.shows("main", "“far north”").await;
    let before = tolva.job(&id).await;
    open(&b, &tolva, "/setups/yard/place").await;
    let other = b.field("Latitude, degrees", 0).await;
    b.holds(&other, "60.4612").await;
    assert!(!b.text("main").await.contains("far north"));
    b.saved().await;
    assert_eq!(tolva.job(&id).await, before);
    open(&b, &tolva, "/setups/doorway/place").await;
    b.holds(&b.field("Latitude, degrees", 0).await, "far north").await;
    b.close().await;
}

/// Undo right after a nudge takes back the nudge; the next mark lets the first go; two undos are two.
#[tokio::test]
async fn quick_keys_are_carried_out_in_order() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/blend").await;
    let (behind, face) = (slider("Behind, together"), slider("Face, lit side, together"));
    focus(&b, &behind).await;
    b.press(Key::Right).await;
    b.chord(Key::Control, 'z').await;
    b.has(&behind, "aria-valuetext", "−1⅓ stops").await;
    b.saved().await;
    tolva.holds(&id, "/setups/0/blend/lift/background_stops", -4.0 / 3.0).await;

    focus(&b, &behind).await;
    b.press(Key::Right).await;
    focus(&b, &face).await;
    b.press(Key::Left).await;
    tolva.holds(&id, "/setups/0/blend/lift/background_stops", -1.0).await;
    tolva.holds(&id, "/setups/0/blend/lift/subject_stops", -1.0 / 3.0).await;

    b.chord(Key::Control, 'z').await;
    b.chord(Key::Control, 'z').await;
    tolva.holds(&id, "/setups/0/blend/lift/background_stops", -4.0 / 3.0).await;
    tolva.holds(&id, "/setups/0/blend/lift/subject_stops", 0.0).await;
    b.close().await;
}

/// An edit made while an undo is on its way is made on what comes back, and quarrels with nobody.
#[tokio::test]
async fn an_edit_during_an_undo_is_kept() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    let distance = b.field("Distance to the subject", 0).await;
    b.fill(&distance, "2").await;
    tolva.holds(&id, DISTANCE, 2.0).await;
    b.saved().await;
    b.slow(300).await;
    b.button("Undo: Distance to the subject").await.click().await.expect("undo");
    b.xpath("//label[normalize-space()='Warm half']").await.click().await.expect("a gel");
    tolva.holds(&id, "/setups/0/lights/0/gel_ids/0", "warm-half").await;
    tolva.holds(&id, DISTANCE, 1.5).await;
    b.saved().await;
    let dialogs = b.driver.find_all(By::Css("[role=dialog]")).await.expect("a search");
    assert!(dialogs.is_empty(), "no window has changed anything");
    b.close().await;
}

/// Two quick drags on a slow link both stay, and what was before does not flash up when the mark is let go.
#[tokio::test]
async fn drags_on_a_slow_link_stay() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/blend").await;
    let behind = slider("Behind, together");
    b.mark("Face, lit side, together").await;
    b.slow(250).await;
    b.script(&format!(
        "window.seen = []; new MutationObserver(() => window.seen.push(document.querySelector(\"{behind}\").getAttribute('aria-valuetext'))).observe(document.querySelector(\"[aria-label='Stop rail']\"), {{ subtree: true, attributes: true, attributeFilter: ['aria-valuetext'] }})"
    ))
    .await;
    let mark = b.mark("Behind, together").await;
    b.drag(&mark, 60).await;
    let mark = b.mark("Face, lit side, together").await;
    b.drag(&mark, -60).await;
    settle(|| async {
        let job = tolva.job(&id).await;
        let of = |field: &str| job["setups"][0]["blend"]["lift"][field].as_f64().unwrap_or_default();
        let both = of("background_stops") > -1.0 && of("subject_stops") < -0.5;
        if both { Ok(()) } else { Err(job["setups"][0]["blend"].to_string()) }
    })
    .await;
    b.saved().await;
    let seen: Vec<String> = serde_json::from_value(b.script("return window.seen").await).expect("a list");
    let left = seen.iter().position(|at| at != "−1⅓ stops").expect("it was moved");
    assert!(seen[left..].iter().all(|at| at != "−1⅓ stops"), "what was before flashes up: {seen:?}");
    b.close().await;
}

/// The browser says that it is offline: the server is on this machine, and plans go on.
#[tokio::test]
async fn an_offline_browser_still_plans() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/blend").await;
    b.script(
        "Object.defineProperty(navigator, 'onLine', { get: () => false }); window.dispatchEvent(new Event('offline'))",
    )
    .await;
    b.xpath("//label[.//strong[normalize-space()='Overpower']]").await.click().await.expect("a blend");
    b.shows("[aria-label='Answer']", "Face, lit side at 0").await;
    b.shows("nav", "Overpower").await;
    b.link("Colour").await.click().await.expect("the colour");
    b.css("[aria-label='Schools of white balance'] li").await;
    b.saved().await;
    tolva.holds(&id, "/setups/0/blend/overpower/subject_stops", 0.0).await;
    b.close().await;
}

/// A draft that nobody can read keeps nobody from the job: it is told, and can be kept as a file or thrown away.
#[tokio::test]
async fn a_draft_that_cannot_be_read_keeps_nobody_out() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/blend").await;
    let key = json!(format!("tolva.draft.{id}"));
    let draft = json!({ "based_on": 1, "change": "?", "document": { "format": "something else" } });
    b.script(&format!("localStorage.setItem({key}, JSON.stringify({draft}))")).await;
    open(&b, &tolva, "/setups/doorway/blend").await;
    b.shows("[role=alert]", "Something that was not saved cannot be read").await;
    b.button("Keep it as a file").await;
    b.button("Throw it away").await.click().await.expect("away");
    open(&b, &tolva, "/setups/doorway/blend").await;
    b.saved().await;
    let alerts = b.driver.find_all(By::Css("[role=alert]")).await.expect("a search");
    assert!(alerts.is_empty());
    b.close().await;
}

/// The file of the front end that a module of it stands in.
fn part_with(module: &str) -> String {
    let manifest = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/dist/.vite/manifest.json");
    let manifest: Value =
        serde_json::from_str(&std::fs::read_to_string(manifest).expect("the front end was built")).expect("JSON");
    manifest[module]["file"].as_str().expect("a part").to_owned()
}

/// What cannot be done says so where it was tried.
#[tokio::test]
async fn what_fails_says_so() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.link("Ropeworks open day").await;
    // What is loaded later has come too.
    let rest = ["src/screens/frame/Showing.tsx", "src/screens/job/JobPage.tsx"].map(part_with);
    settle(|| async {
        let asked = b.script("return performance.getEntriesByType('resource').map((one) => one.name).join()").await;
        let there = asked.as_str().is_some_and(|all| rest.iter().all(|part| all.contains(part)));
        if there { Ok(()) } else { Err("the rest does not come".to_owned()) }
    })
    .await;
    tolva.kill();
    b.button("New job").await.click().await.expect("a job");
    b.shows("main", "No job was made.").await;
    b.button("Put into the bin: Ropeworks open day").await.click().await.expect("the bin");
    b.shows("main", "The job was not moved.").await;
    b.button("How numbers are shown").await.click().await.expect("the sheet");
    b.xpath("//label[normalize-space()='Feet and inches']").await.click().await.expect("feet");
    b.shows("[role=dialog]", "This was not kept.").await;
    b.css("[role=dialog] label[data-selected]").await;
    b.press(Key::Escape).await;
    // What is opened without a server is opened when it is back.
    b.link("Ropeworks open day").await.click().await.expect("the job");
    b.shows("main", "Tolva does not answer").await;
    tolva.run();
    b.shows("h1", "Ropeworks open day").await;
    b.button("New setup").await;
    tolva.kill();
    b.button("New setup").await.click().await.expect("a setup");
    b.shows("main", "No setup was made.").await;
    b.close().await;
}

/// A step that breaks leaves the rest, and a way on.
#[tokio::test]
async fn a_step_that_breaks_leaves_the_rest() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.block(&format!("*{}", part_with("src/screens/colour/ColourStep.tsx"))).await;
    open(&b, &tolva, "/setups/doorway/blend").await;
    b.link("Colour").await.click().await.expect("the colour");
    b.shows("main", "This step broke").await;
    b.mark("Behind, together").await;
    b.link("Set").await.click().await.expect("another step");
    b.shows("main h2", "Set").await;
    b.close().await;
}

/// What is changed in the kit from a step is taken back from there.
#[tokio::test]
async fn the_kit_is_undone_from_the_step() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva, "/setups/doorway/depth").await;
    b.shows("main", "Sync 1/250, safe 1/200").await;
    b.button("Edit this camera").await.click().await.expect("the camera");
    let safe = b.field("Safe sync", 0).await;
    b.fill(&safe, "1/100").await;
    b.button("Undo in the kit: Camera: safe sync").await;
    b.button("Done").await.click().await.expect("done");
    b.shows("main", "safe 1/100").await;
    b.button("Undo in the kit: Camera: safe sync").await.click().await.expect("undo");
    b.shows("main", "safe 1/200").await;
    b.shows("[aria-label='Dial card']", "1/200").await;
    b.close().await;
}
