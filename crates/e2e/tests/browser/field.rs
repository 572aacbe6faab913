//! On the set: the run on a phone, shots on their page, the log with what waited, the card on paper.

use serde_json::{Value, json};
use tolva_e2e::{Browser, Key, Tolva, settle};

const PHONE: (u32, u32) = (390, 844);

async fn at(job: &str, page: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id(job).await;
    b.go(&tolva.url(&format!("jobs/{id}/{page}"))).await;
    (tolva, b, id)
}

/// Axe finds nothing, in both themes, on a desk and on a phone, and nothing is wider than the phone.
async fn clean(b: &Browser) {
    for (width, height) in [(1280, 800), PHONE] {
        b.size(width, height).await;
        assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "at {width}");
    }
    let wide = b.script("return document.documentElement.scrollWidth").await;
    assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
}

async fn shots(tolva: &Tolva, id: &str, setup: usize) -> Value {
    tolva.job(id).await["setups"][setup]["shots"].clone()
}

/// A setup with two shots is run on a phone: what to set, the next change, ticks, a third into the right dial, all undone.
#[tokio::test]
async fn a_setup_is_run_on_a_phone() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let mut job = tolva.job(&id).await;
    job["setups"][0]["shots"] = json!([
        { "id": "half", "name": "Half length", "frames": 8, "who": "The keeper" },
        { "id": "plate", "name": "Doorway alone", "kind": "clean_plate", "people_out": true },
    ]);
    tolva.save(&id, 1, &job).await;
    b.size(PHONE.0, PHONE.1).await;
    b.go(&tolva.url(&format!("jobs/{id}/run/doorway"))).await;
    b.shows("[aria-label='What to set']", "1/200").await;
    // The demo's day is another: its minutes are tried, and the next change comes nearer.
    let change = "section[aria-label='Next change']";
    b.shows(change, "Rehearsal.").await;
    b.shows(change, "Shutter 1/200 to 1/125").await;
    b.css("input[aria-label='Minutes after its hour']").await.send_keys(Key::End + "").await.expect("its end");
    b.shows(change, "The light has left the plan.").await;
    b.css("input[aria-label='Minutes after its hour']").await.send_keys(Key::Home + "").await.expect("its hour");
    b.shows(change, "Shutter 1/200 to 1/125").await;

    let list = "section[aria-label='Shots']";
    b.shows(list, "Shot 1 of 2").await;
    b.css("button[aria-label='One frame of Half length']").await.click().await.expect("one");
    b.shows(list, "1 of 8 frames").await;
    b.css("button[aria-label='Taken: Half length']").await.click().await.expect("all");
    b.shows(list, "Shot 2 of 2").await;
    b.shows(list, "Nobody in the frame.").await;
    tolva.holds(&id, "/setups/0/shots/0/taken", 8).await;
    b.css("header button[aria-label^='Undo: Half length']").await.click().await.expect("undo");
    b.shows(list, "1 of 8 frames").await;

    b.css("button[aria-label='too dark ⅓: Face, lit side']").await.click().await.expect("too dark");
    b.shows("section[aria-label='The frame was too'] [role=status]", "Power of A from").await;
    tolva.holds_where(&id, "/setups/0/blend", |blend| *blend != job["setups"][0]["blend"]).await;
    b.button("Take it back").await.click().await.expect("back");
    settle(|| async {
        let now = tolva.job(&id).await["setups"][0]["blend"].clone();
        if now == job["setups"][0]["blend"] { Ok(()) } else { Err(now.to_string()) }
    })
    .await;
    b.shows("section[aria-label='Then']", "Then:").await;
    clean(&b).await;
    b.close().await;
}

/// By keyboard and mouse a list is made: its kinds, its order, its ticks.
#[tokio::test]
async fn shots_are_listed() {
    let (tolva, b, id) = at("Ropeworks open day", "shots").await;
    let panel = "section[aria-label^='Shots of Net mender']";
    b.shows(panel, "No shots are listed.").await;
    let add = b.css("button[aria-label^='Add a shot to Net mender']").await;
    add.send_keys(Key::Enter + "").await.expect("a shot");
    // Three shots of the doorway stand before it.
    b.fill(&b.field("Shot", 3).await, "Half length").await;
    b.press(Key::Tab).await;
    b.fill(&b.field("Frames", 3).await, "4").await;
    b.press(Key::Tab).await;
    b.shows(panel, "0 of 4 frames are taken.").await;
    let how =
        "//section[starts-with(@aria-label, 'Shots of Net mender')]//*[normalize-space()='How']/following::button[1]";
    b.xpath(how).await.click().await.expect("the list");
    b.xpath("//*[@role='option'][normalize-space()='Multiple exposure']").await.click().await.expect("it");
    b.shows(panel, "4 exposures on one frame, each −2 stops").await;
    add.click().await.expect("another");
    b.shows(panel, "Keep together what stays the same").await;
    b.button("Keep together what stays the same").await.click().await.expect("the order");
    b.saved().await;
    let list = shots(&tolva, &id, 2).await;
    assert_eq!((&list[0]["name"], &list[1]["kind"]), (&json!("Shot 2"), &json!("multiple_exposure")));
    b.css("button[aria-label='Shot 2 later']").await.click().await.expect("later");
    b.saved().await;
    assert_eq!(shots(&tolva, &id, 2).await[1]["name"], "Shot 2");
    b.css("button[aria-label='Take Shot 2 off the list']").await.click().await.expect("off");
    b.saved().await;
    assert_eq!(shots(&tolva, &id, 2).await.as_array().map(Vec::len), Some(1));
    clean(&b).await;
    b.close().await;
}

/// What is noted while Tolva is gone waits, is shown as waiting, and is in the log once when it is back.
#[tokio::test]
async fn notes_wait_for_tolva() {
    let (mut tolva, b, id) = at("Ropeworks open day", "log").await;
    b.shows("ol[aria-label^='What was done']", "Job made").await;
    tolva.kill();
    for note in ["Wind from the quay", "B weighted"] {
        b.fill(&b.field("Note", 0).await, note).await;
        b.press(Key::Enter).await;
        b.shows("ol[aria-label^='What was done']", note).await;
    }
    b.shows("ol[aria-label^='What was done']", "Waits for Tolva").await;
    tolva.run();
    settle(|| async {
        let log = b.text("ol[aria-label^='What was done']").await;
        let done = !log.contains("Waits") && log.matches("Wind from the quay").count() == 1;
        if done && log.contains("B weighted") { Ok(()) } else { Err(log) }
    })
    .await;
    let log: Value =
        reqwest::get(tolva.url(&format!("api/v1/jobs/{id}/log"))).await.expect("it").json().await.expect("JSON");
    let notes: Vec<_> = log["entries"].as_array().expect("lines").iter().filter(|one| one["kind"] == "note").collect();
    assert_eq!((notes.len(), &notes[0]["says"]), (2, &json!("Wind from the quay")), "in order, once each");
    clean(&b).await;
    b.close().await;
}

/// The card of every setup of the demo is one sheet, of A5 and of A4.
#[tokio::test]
async fn a_card_is_one_sheet() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let jobs: Value = reqwest::get(tolva.url("api/v1/jobs")).await.expect("it").json().await.expect("JSON");
    for line in jobs["jobs"].as_array().expect("jobs") {
        let id = line["id"].as_str().expect("an id");
        for setup in tolva.job(id).await["setups"].as_array().expect("setups") {
            let setup = setup["id"].as_str().expect("an id");
            for paper in ["a5", "a4"] {
                b.go(&tolva.url(&format!("api/v1/jobs/{id}/setups/{setup}/card.html?paper={paper}"))).await;
                assert_eq!(b.pages_printed().await, 1, "{} {setup} on {paper}", line["name"]);
            }
        }
    }
    assert_eq!(b.axe().await, Vec::<String>::new());
    b.close().await;
}
