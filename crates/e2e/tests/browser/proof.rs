//! The proof: it follows the setup, is read by mouse and by keyboard, compared and taken out.

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

const PICTURE: &str = "[role=application] img[data-testid=proof]";
const READING: &str = "[data-testid=reading]";

async fn at(job: &str, setup: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id(job).await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/proof"))).await;
    b.has(PICTURE, "data-fine", "true").await;
    (tolva, b, id)
}

async fn source(b: &Browser) -> String {
    b.css(PICTURE).await.attr("src").await.expect("an image").expect("its address")
}

/// Another picture than before, as fine as it gets.
async fn another(b: &Browser, before: &str) -> String {
    settle(|| async {
        let (now, fine) = (source(b).await, b.css(PICTURE).await.attr("data-fine").await.expect("an image"));
        if now != before && fine.as_deref() == Some("true") { Ok(()) } else { Err(format!("{now} {fine:?}")) }
    })
    .await;
    source(b).await
}

/// An image that is there and has come.
async fn drawn(b: &Browser, alt: &str) {
    let wide = format!("return document.querySelector(\"img[alt='{alt}']\")?.naturalWidth ?? 0");
    settle(|| async {
        let wide = b.script(&wide).await;
        if wide.as_u64().is_some_and(|wide| wide > 0) { Ok(()) } else { Err(format!("{alt} has not come")) }
    })
    .await;
}

/// A dial that is turned gives another picture; undo gives the same one back.
#[tokio::test]
async fn it_follows_the_dials() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    let before = source(&b).await;
    let iso = b.dial("ISO").await;
    iso.click().await.expect("the dial");
    b.xpath("//*[@role='option'][normalize-space()='ISO 400']").await.click().await.expect("an ISO");
    let after = another(&b, &before).await;
    b.shows("[data-testid=proof-settings]", "ISO 400").await;
    b.saved().await;
    b.css("button[aria-label^='Undo: ']").await.click().await.expect("undo");
    assert_eq!(another(&b, &after).await, before, "the same setup, the same picture");
    b.close().await;
}

/// By keyboard alone: the pointer is moved on a grid and reads each light's part.
#[tokio::test]
async fn it_is_read_by_keyboard() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    b.shows(READING, "Point at the picture").await;
    b.css("[role=application]").await.focus().await.expect("the picture");
    b.press(Key::Up).await;
    b.shows(READING, "from mid grey").await;
    let here = b.text(READING).await;
    for _ in 0..8 {
        b.press(Key::Left).await;
    }
    settle(|| async {
        let now = b.text(READING).await;
        if now != here && now.contains("from mid grey") { Ok(()) } else { Err(now) }
    })
    .await;
    b.press(Key::Escape).await;
    b.shows(READING, "Point at the picture").await;
    b.close().await;
}

/// What is pinned while it is still coarse gets fine where it is pinned.
#[tokio::test]
async fn a_coarse_one_gets_fine_where_it_is_pinned() {
    let (tolva, b, id) = at("Guild days at the town hall", "teapot").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/stairs/proof"))).await;
    let pin = b.xpath("//button[normalize-space()='Pin this one' and not(@disabled)]").await;
    pin.click().await.expect("pinned");
    let wide = "return document.querySelector(\"img[alt='Proof: Pin 1']\")?.naturalWidth ?? 0";
    settle(|| async {
        let wide = b.script(wide).await;
        if wide == 640 { Ok(()) } else { Err(format!("{wide} pixels")) }
    })
    .await;
    b.close().await;
}

/// Pinned, compared, and one press takes a pinned one back.
#[tokio::test]
async fn a_pinned_one_is_taken_back() {
    let (tolva, b, id) = at("Guild days at the town hall", "teapot").await;
    let before = source(&b).await;
    b.menu("Compare with", "Without cards").await;
    drawn(&b, "Proof: Without cards").await;
    b.button("Pin this one").await.click().await.expect("pinned");
    drawn(&b, "Proof: Pin 1").await;
    b.xpath("(//button[normalize-space()='Take this one'])[1]").await.click().await.expect("taken");
    let bare = another(&b, &before).await;
    let cards = async || -> usize {
        let job = tolva.job(&id).await;
        let setup = job["setups"].as_array().expect("setups").iter().find(|one| one["id"] == "teapot").cloned();
        setup.expect("the setup")["set"]["cards"].as_array().map_or(0, Vec::len)
    };
    settle(|| async { if cards().await == 0 { Ok(()) } else { Err("cards still".to_owned()) } }).await;
    b.xpath("(//button[normalize-space()='Take this one'])[2]").await.click().await.expect("taken back");
    assert_eq!(another(&b, &bare).await, before);
    settle(|| async { if cards().await > 0 { Ok(()) } else { Err("no card yet".to_owned()) } }).await;
    // A sheet of both is drawn and saved: nothing is told to have gone wrong.
    b.button("A sheet of the 2 pinned").await.click().await.expect("a sheet");
    b.gone("[role=alert]").await;
    b.xpath("//label[normalize-space()='Along a slider']").await.click().await.expect("a slider");
    let slide = b.css("[aria-label='How much of it as it is now'] input").await;
    slide.focus().await.expect("the slider");
    b.press(Key::Home).await;
    b.has("img[alt='Proof as it is now']", "style", "clip-path: inset(0px 100% 0px 0px);").await;
    b.close().await;
}

/// What is shown over it, the files, and nothing for axe to find, in both themes, on a desk and on a phone.
#[tokio::test]
async fn it_is_judged_and_taken_out() {
    let (tolva, b, _) = at("Weir Lane, behind glass", "shopfront").await;
    b.css("[role=img][aria-label^='Histogram.']").await;
    b.css("[role=application] img.over").await;
    b.xpath("//label[normalize-space()='Regions']").await.click().await.expect("regions");
    b.shows("[role=application]", "Face, lit side").await;
    let fetched = async |kind: &str| -> Value {
        let link = b.xpath(&format!("//a[contains(normalize-space(), '{kind}')]")).await;
        let address = link.attr("href").await.expect("a link").expect("its address");
        b.script(&format!(
            "return fetch('{address}').then((answer) => [answer.status, answer.headers.get('content-type')])"
        ))
        .await
    };
    assert_eq!(fetched("JPEG, 640").await, serde_json::json!([200, "image/jpeg"]));
    assert_eq!(fetched("PNG, 640").await, serde_json::json!([200, "image/png"]));
    for width in [1280, 390] {
        b.size(width, 800).await;
        b.css(PICTURE).await;
        assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "{width}");
        let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
        assert!(over.as_f64().is_some_and(|over| over <= 0.0), "{width}: {over}");
    }
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    drop(tolva);
    b.close().await;
}

/// A light that is moved on the map beside it is seen in the picture; a large picture can be stopped.
#[tokio::test]
async fn a_light_is_moved_on_the_map_beside_it() {
    let (_tolva, b, _) = at("Weir Lane, behind glass", "shopfront").await;
    let before = source(&b).await;
    b.xpath("//label[normalize-space()='The map']").await.click().await.expect("the map");
    let light = b.css("[data-thing='light/A']").await;
    light.focus().await.expect("the light");
    b.press(Key::Left).await;
    another(&b, &before).await;
    b.button("Make a large one, 1920 pixels").await.click().await.expect("large");
    b.css("[role=progressbar][aria-label='Large picture']").await;
    b.button("Stop").await.click().await.expect("stopped");
    b.button("Make a large one, 1920 pixels").await;
    b.close().await;
}

/// The hour is dragged along its day, the balance along the colour line, and the picture follows.
#[tokio::test]
async fn the_day_and_the_colour_line_stand_beside_it() {
    let (_tolva, b, _) = at("Ropeworks open day", "doorway").await;
    let before = source(&b).await;
    b.xpath("//label[normalize-space()='The day']").await.click().await.expect("the day");
    b.css("main [role=slider][aria-label^='Hour']").await.focus().await.expect("the hour");
    b.press(Key::Right).await;
    let later = another(&b, &before).await;
    b.xpath("//label[normalize-space()='The colour line']").await.click().await.expect("the line");
    b.css("main [role=slider][aria-label^='White balance']").await.focus().await.expect("the camera's balance");
    b.press(Key::Right).await;
    another(&b, &later).await;
    b.close().await;
}

/// A frame that was taken without flash stands for the place behind.
#[tokio::test]
async fn the_place_behind_is_a_photo() {
    let (tolva, b, id) = at("Ropeworks open day", "doorway").await;
    let before = source(&b).await;
    assert!(!b.text("main").await.contains("The place behind"), "there is no photo yet");
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/frames"))).await;
    b.xpath("//label[normalize-space()='From the stand-in camera']").await.click().await.expect("practice");
    b.button("Take one without flash").await.click().await.expect("a frame");
    b.css("[aria-label='Frames of this setup'] label").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/proof"))).await;
    b.has(PICTURE, "data-fine", "true").await;
    assert_eq!(source(&b).await, before, "computed as long as nobody chooses");
    b.pick("The place behind", "Photo: stand-in-1-0001.jpg").await;
    another(&b, &before).await;
    b.shows("ul[aria-label='About this proof']", "a frame taken without flash").await;
    b.close().await;
}

/// Small pictures stand beside each setup and each job.
#[tokio::test]
async fn lists_have_small_pictures() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    let pictures = async |least: usize| {
        settle(|| async {
            let count = b
                .script(
                    "return [...document.querySelectorAll('main li img')].filter((one) => one.naturalWidth > 0).length",
                )
                .await;
            if count.as_u64().is_some_and(|count| count >= least as u64) { Ok(()) } else { Err(count.to_string()) }
        })
        .await;
    };
    pictures(4).await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    pictures(4).await;
    b.close().await;
}
