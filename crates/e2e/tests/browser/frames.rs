//! Frames: sent and marked, held against the plan, learnt from; two taken apart; practised with the stand-in camera.

use std::path::Path;

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

const SAYS: &str = "[data-testid=frame-says]";
const LESSON: &str = "[data-testid=lesson]";

async fn at(job: &str, setup: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id(job).await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/frames"))).await;
    b.css("main input[type=file]").await;
    (tolva, b, id)
}

pub fn reference(name: &str) -> String {
    let file = Path::new(env!("CARGO_MANIFEST_DIR")).join("../pictures/tests/data").join(name);
    file.canonicalize().expect("a reference frame").display().to_string()
}

async fn send(b: &Browser, names: &[&str]) {
    let all: Vec<String> = names.iter().map(|name| reference(name)).collect();
    b.css("main input[type=file]").await.send_keys(all.join("\n")).await.expect("frames");
}

/// So many frames stand in the list.
async fn frames(b: &Browser, wanted: u64) {
    settle(|| async {
        let count =
            b.script("return document.querySelectorAll(\"[aria-label='Frames of this setup'] label\").length").await;
        if count.as_u64() == Some(wanted) { Ok(()) } else { Err(format!("{count} frames, not {wanted}")) }
    })
    .await;
}

async fn take(b: &Browser, name: &str, nth: u64) {
    b.button(name).await.click().await.expect("the stand-in camera");
    frames(b, nth).await;
    b.shows("[aria-label='Frames of this setup'] [data-selected]", &format!("{nth} Simulated")).await;
}

/// The first offer of what to change is done, and saved.
async fn correct(b: &Browser) {
    b.css("ol[aria-label^='What to change'] li button:not([data-disabled])").await.click().await.expect("an offer");
    b.shows(LESSON, "has learnt from this frame").await;
    b.saved().await;
}

/// Of more frames than fit the chosen one is in sight: the last when they come and when the page is opened.
#[tokio::test]
async fn the_last_frame_is_in_sight() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    let names = [1, 2, 3, 4, 5, 6, 7].map(|number| format!("bracket-a-{number}.jpg"));
    send(&b, &names.each_ref().map(String::as_str)).await;
    for _ in 0..2 {
        frames(&b, 7).await;
        b.shows("[aria-label='Frames of this setup'] [data-selected]", "7 bracket-a-7.jpg").await;
        settle(|| async {
            let seen = b
                .script(
                    "const line = document.querySelector(\"[aria-label='Frames of this setup']\");
                     const [whole, one] = [line, line.querySelector('[data-selected]')].map((e) => e.getBoundingClientRect());
                     return [line.scrollWidth > line.clientWidth, one.left >= whole.left - 1 && one.right <= whole.right + 1]",
                )
                .await;
            if seen == serde_json::json!([true, true]) { Ok(()) } else { Err(format!("more than fit, in sight: {seen}")) }
        })
        .await;
        b.driver.refresh().await.expect("the page again");
    }
    b.close().await;
}

/// From the plan to a corrected third frame with the stand-in camera: what the newcomer does.
#[tokio::test]
async fn the_third_frame_comes_as_planned() {
    let (tolva, b, id) = at("Ropeworks open day", "doorway").await;
    b.xpath("//label[normalize-space()='From the stand-in camera']").await.click().await.expect("practice");
    take(&b, "Take one without flash", 1).await;
    b.shows(SAYS, "planned").await;
    correct(&b).await;
    take(&b, "Take one with flash", 2).await;
    b.shows(SAYS, "planned").await;
    correct(&b).await;
    take(&b, "Take one with flash", 3).await;
    b.shows(SAYS, "as planned").await;
    let said = b.text(SAYS).await;
    assert_eq!(said.matches("as planned").count(), said.matches("planned").count(), "every region: {said}");
    let job = tolva.job(&id).await;
    assert_eq!(job["setups"][0]["learnt"]["from"].as_array().map(Vec::len), Some(2));
    // What is learnt is shown, kept in the kit, and what was hidden is shown beside it.
    b.shows("table[aria-label^='What was believed']", "Camera with").await;
    b.css("button[aria-label^='Keep in the kit: Camera']").await.click().await.expect("keep");
    b.css("button[aria-label^='Forget in the kit: Camera']").await;
    b.button("Show what it hides").await.click().await.expect("reveal");
    b.shows("table[aria-label='What the stand-in camera hides']", "near").await;
    // Undone, the frames teach again.
    b.css("[aria-label='Frames of this setup'] label").await.click().await.expect("the first");
    b.shows(LESSON, "has learnt from this frame").await;
    b.close().await;
}

/// Two frames of one place: the flash apart as a map, mixed anew, and onto the dials.
#[tokio::test]
async fn two_frames_are_taken_apart_and_mixed() {
    let (tolva, b, id) = at("Ropeworks open day", "doorway").await;
    send(&b, &["hall-without.jpg", "hall-with.jpg"]).await;
    frames(&b, 2).await;
    let mixed =
        async || b.css("[data-testid=apart-mixed]").await.attr("src").await.expect("an image").expect("its address");
    let before = mixed().await;
    let slide = b.css("[role=group][aria-label='Flash'] input, input[aria-label='Flash']").await;
    slide.focus().await.expect("the slide");
    b.press(Key::Left + Key::Left + Key::Left).await;
    settle(|| async {
        let now = mixed().await;
        if now != before && now.contains("flash_stops=-1") { Ok(()) } else { Err(now) }
    })
    .await;
    b.button("Use this").await.click().await.expect("onto the dials");
    tolva.holds_where(&id, "/setups/0/fixed/shutter_s", Value::is_number).await;
    b.xpath("//label[normalize-space()='Where the flash is']").await.click().await.expect("the map");
    b.css("[data-testid=apart-map]").await;
    b.close().await;
}

/// A frame is said to be the plate of its setup, and is held to the picture before it; the run says so too.
#[tokio::test]
async fn a_plate_is_held_to_its_picture() {
    let (tolva, b, id) = at("Ropeworks open day", "doorway").await;
    send(&b, &["stairs-with.jpg"]).await;
    frames(&b, 1).await;
    send(&b, &["stairs-without.jpg"]).await;
    frames(&b, 2).await;
    b.shows("[aria-label='Frames of this setup'] [data-selected]", "stairs-without").await;
    b.pick("Which shot it is of", "The doorway by itself").await;
    b.shows("[data-testid=plate]", "Not as stairs-with.jpg").await;
    b.go(&tolva.url(&format!("jobs/{id}/shots"))).await;
    b.shows("[data-testid=plate]", "Not as stairs-with.jpg").await;
    b.go(&tolva.url(&format!("jobs/{id}/run/doorway"))).await;
    b.shows("section[aria-label=Shots]", "The doorway by itself. Not as stairs-with.jpg").await;
    b.close().await;
}

/// By keyboard: a mark is moved and is measured anew; the target is found and measured on.
#[tokio::test]
async fn marks_and_targets_by_keyboard() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    send(&b, &["target-1.jpg"]).await;
    frames(&b, 1).await;
    b.button("Look for it").await.send_keys(Key::Enter).await.expect("look");
    b.shows("[data-testid=target]", "Its light").await;
    let name = b.xpath("//button[starts-with(normalize-space(), 'Measure ')]").await;
    name.send_keys(Key::Enter).await.expect("measure");
    let mark = "button[aria-label^='Face, lit side']";
    b.css(mark).await.focus().await.expect("the mark");
    let before = b.css(mark).await.attr("aria-label").await.expect("a mark").expect("a name");
    b.press(Key::Right + Key::Right).await;
    settle(|| async {
        let now = b.css(mark).await.attr("aria-label").await.expect("a mark").expect("a name");
        if now == before { Err(now) } else { Ok(()) }
    })
    .await;
    b.close().await;
}

/// What is no frame is told by its name and with what is the matter; a frame that is binned comes back.
#[tokio::test]
async fn what_is_no_frame_is_told() {
    let (tolva, b, _) = at("Ropeworks open day", "doorway").await;
    let text = tolva.folder().join("notes.jpg");
    std::fs::write(&text, "no picture").expect("written");
    let chooser = b.css("main input[type=file]").await;
    chooser.send_keys(text.display().to_string()).await.expect("a file");
    b.shows("main [role=alert]", "notes.jpg").await;
    send(&b, &["stairs-with.jpg"]).await;
    frames(&b, 1).await;
    b.button("Into the bin").await.click().await.expect("the bin");
    frames(&b, 0).await;
    b.button("Bring it back").await.click().await.expect("back");
    frames(&b, 1).await;
    b.close().await;
}

/// A job is taken out with its frames, and brought in again where there is none of it.
#[tokio::test]
async fn a_job_moves_with_its_frames() {
    let (tolva, b, _) = at("Ropeworks open day", "doorway").await;
    send(&b, &["stairs-with.jpg"]).await;
    frames(&b, 1).await;
    let address = b.link("Job with frames, ZIP").await.attr("href").await.expect("an address").expect("one");
    let zip = reqwest::get(tolva.url(address.trim_start_matches('/'))).await.expect("the file");
    let elsewhere = Tolva::empty();
    let [part, file] = ["part.zip", "taken out.zip"].map(|name| elsewhere.folder().join(name));
    let whole = zip.bytes().await.expect("its bytes");
    b.go(&elsewhere.url("")).await;
    b.button("Import a file").await;
    // A part of it is none, and told as such.
    std::fs::write(&part, &whole[..whole.len() / 2]).expect("written");
    b.css("input[type=file]").await.send_keys(part.display().to_string()).await.expect("a part");
    b.shows("main [role=alert]", "it is no ZIP that can be read").await;
    std::fs::write(&file, &whole).expect("written");
    b.css("input[type=file]").await.send_keys(file.display().to_string()).await.expect("all of it");
    b.shows("h1", "Ropeworks open day").await;
    let there = elsewhere.job_id("Ropeworks open day").await;
    b.go(&elsewhere.url(&format!("jobs/{there}/setups/doorway/frames"))).await;
    frames(&b, 1).await;
    b.shows("main", "stairs-with.jpg").await;
    b.close().await;
}

/// What a camera writes into a watched folder comes by itself, also where the page is kept for when the server is gone.
#[tokio::test]
async fn a_watched_folder_fills_the_page() {
    let (tolva, b, _) = at("Ropeworks open day", "doorway").await;
    // What keeps pages for later stands between this page and the server now.
    settle(|| async {
        let kept = b.script("return navigator.serviceWorker?.controller != null").await;
        if kept == true { Ok(()) } else { Err("nothing keeps the page".to_owned()) }
    })
    .await;
    b.xpath("//label[normalize-space()='From a watched folder']").await.click().await.expect("a folder");
    let folder = tolva.folder().join("tether");
    let field = b.field("Folder on the machine Tolva runs on", 0).await;
    b.fill(&field, &folder.display().to_string()).await;
    b.button("Watch it").await.click().await.expect("watched");
    b.shows("main [role=alert]", "there is no folder").await;
    std::fs::create_dir(&folder).expect("a folder");
    b.button("Watch it").await.click().await.expect("watched");
    b.shows("main", "is watched for this setup").await;
    std::fs::copy(reference("stairs-with.jpg"), folder.join("one.jpg")).expect("written");
    frames(&b, 1).await;
    std::fs::write(folder.join("two.jpg"), "no picture").expect("written");
    b.shows("main [role=alert]", "two.jpg").await;
    b.button("Watch it no more").await.click().await.expect("no more");
    b.field("Folder on the machine Tolva runs on", 0).await;
    b.close().await;
}

/// In both themes, and on a phone: nothing axe would find.
#[tokio::test]
async fn axe_finds_nothing_in_frames() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    send(&b, &["hall-without.jpg", "hall-with.jpg"]).await;
    frames(&b, 2).await;
    b.css("[data-testid=apart-mixed]").await;
    b.css(LESSON).await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new());
    b.size(390, 844).await;
    b.css("main").await;
    let wide = b.script("return document.documentElement.scrollWidth").await;
    assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
    assert_eq!(b.axe().await, Vec::<String>::new(), "on a phone");
    b.close().await;
}
