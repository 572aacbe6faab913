//! The day of a job: lanes and order, an hour pinned by keys, minutes typed, what does not fit and the press that mends it.

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

const LANES: &str = "ul[aria-label='Setups over the day']";
const ORDER: &str = "ol[aria-label='In this order']";

async fn at_a_page(name: &str, page: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id(name).await;
    b.go(&tolva.url(&format!("jobs/{id}/{page}"))).await;
    (tolva, b, id)
}

async fn on_the_day_of(name: &str) -> (Tolva, Browser, String) {
    let (tolva, b, id) = at_a_page(name, "day").await;
    b.shows(ORDER, "shoot").await;
    (tolva, b, id)
}

/// By keyboard: the shooting of a setup is moved an hour earlier, stays pinned there, and is let go again.
#[tokio::test]
async fn a_setup_is_pinned_by_keys() {
    let (tolva, b, id) = on_the_day_of("Ropeworks open day").await;
    b.shows(LANES, "Two on the slipway, last light").await;
    let yard = "[role=slider][aria-label^='Shooting of Cooper']";
    let before = b.css(yard).await.attr("aria-valuenow").await.expect("a slider").expect("a minute");
    b.css(yard).await.focus().await.expect("the shooting");
    b.press(Key::PageDown + Key::Left).await;
    settle(|| async {
        let job = tolva.job(&id).await;
        let pinned = &job["setups"][1]["schedule"]["pinned"];
        if pinned["date"] == "2026-08-29" { Ok(()) } else { Err(job["setups"][1]["schedule"].to_string()) }
    })
    .await;
    let wanted: i64 = before.parse::<i64>().expect("minutes") - 65;
    b.has(yard, "aria-valuenow", &wanted.to_string()).await;
    let focused = b.script("return document.activeElement.getAttribute('aria-label')").await;
    assert_eq!(focused, "Shooting of Cooper in the yard, hard sun", "the keyboard stays on it");
    // Pinned where there is no time for it, it does not fit, and can be let go all the same.
    let page_down = char::from(Key::PageDown).to_string();
    b.css(yard).await.send_keys(page_down.repeat(13)).await.expect("into the night");
    b.shows("section[aria-labelledby=day]", "Does not fit: Cooper in the yard, hard sun").await;
    b.css("button[aria-label='Unpin Cooper in the yard, hard sun']").await.send_keys(Key::Enter).await.expect("unpin");
    tolva.holds(&id, "/setups/1/schedule/pinned", Value::Null).await;
    b.close().await;
}

/// A day that ends too early says what does not fit; one press mends it. What moved is told until somebody has seen it.
#[tokio::test]
async fn what_does_not_fit_is_told_and_mended() {
    let (tolva, b, id) = on_the_day_of("Ropeworks open day").await;
    b.xpath("//summary[normalize-space()='Hours, people, ways']").await.click().await.expect("unfold");
    b.fill(&b.field("Nothing before", 0).await, "18:30").await;
    b.press(Key::Tab).await;
    b.fill(&b.field("Done by", 0).await, "20:15").await;
    b.press(Key::Tab).await;
    b.shows("section[aria-labelledby=day]", "Does not fit").await;
    b.css("button[aria-label^='Do it:']").await.click().await.expect("the change");
    b.saved().await;
    b.shows_no_more("section[aria-labelledby=day]", "Does not fit").await;
    b.shows("section[aria-labelledby=day]", "The light or the plan has changed").await;
    b.button("I have seen it").await.click().await.expect("seen");
    b.shows_no_more("section[aria-labelledby=day]", "has changed").await;
    let day = &tolva.job(&id).await["day"];
    assert_ne!((&day["begin"], &day["end"]), (&"18:30".into(), &"20:15".into()), "the least change is done");
    b.close().await;
}

/// What would help by a setup of its own is a press too: less time for it, or shooting outside its light.
#[tokio::test]
async fn a_setup_gives_way_with_one_press() {
    let (tolva, b, id) = on_the_day_of("Ropeworks open day").await;
    b.shows(LANES, "easiest").await;
    b.xpath("//summary[normalize-space()='Hours, people, ways']").await.click().await.expect("unfold");
    b.fill(&b.field("Nothing before", 0).await, "13:00").await;
    b.press(Key::Tab).await;
    b.fill(&b.field("Done by", 0).await, "20:00").await;
    b.press(Key::Tab).await;
    b.shows("section[aria-labelledby=day]", "Does not fit").await;
    b.css("button[aria-label^='Do it: Noon on the quay']").await.click().await.expect("the change");
    b.shows_no_more("section[aria-labelledby=day]", "Does not fit").await;
    b.shows("section[aria-labelledby=day]", "Pinned outside its light: Noon on the quay").await;
    tolva.holds(&id, "/setups/3/schedule/pinned/date", "2026-08-29").await;
    b.css("header button[aria-label^='Undo: Noon on the quay']").await.click().await.expect("undo");
    b.shows("section[aria-labelledby=day]", "Does not fit").await;
    b.close().await;
}

/// Minutes and spots of setups, people and ways are typed, and the hours of the setups follow with one press.
#[tokio::test]
async fn what_the_day_asks_is_typed() {
    let (tolva, b, id) = on_the_day_of("Guild days at the town hall").await;
    b.xpath("//summary[normalize-space()='Minutes and spots of each setup']").await.click().await.expect("unfold");
    b.fill(&b.field("Minutes to build it", 0).await, "45").await;
    b.press(Key::Tab).await;
    tolva.holds(&id, "/setups/0/schedule/build_min", 45).await;
    b.xpath("//summary[normalize-space()='Hours, people, ways']").await.click().await.expect("unfold");
    b.button("Somebody comes").await.click().await.expect("somebody");
    b.fill(&b.field("Comes at", 0).await, "25:00").await;
    b.press(Key::Tab).await;
    b.shows("section[aria-labelledby=day]", "Write an hour as 07:30.").await;
    b.fill(&b.field("Comes at", 0).await, "16:40").await;
    b.press(Key::Tab).await;
    tolva.holds(&id, "/day/people/0/at", "16:40").await;
    b.button("Plan them for these hours").await.click().await.expect("the hours");
    b.saved().await;
    b.shows_no_more("section[aria-labelledby=day]", "Plan them for these hours").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new());
    b.size(390, 844).await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "on a phone");
    b.close().await;
}

/// What is carried is ticked off before leaving and again before going home, and stays so.
#[tokio::test]
async fn what_is_carried_is_ticked_off_twice() {
    let (tolva, b, id) = at_a_page("Brass band in the old foundry", "pack").await;
    let pack = "section[aria-labelledby=pack]";
    b.shows(pack, "For Large head, 600 Ws").await;
    b.shows(pack, "lines are not ticked off").await;
    for box_of in ["Out: Octagon, 90 cm", "Home: Octagon, 90 cm"] {
        let input = format!("//label[.//input[@aria-label='{box_of}']]");
        b.xpath(&input).await.click().await.expect("a tick");
    }
    tolva.holds(&id, "/packed/out/0", "modifier/octagon-90").await;
    tolva.holds(&id, "/packed/home/0", "modifier/octagon-90").await;
    b.shows(pack, "are not in it again for the way home").await;
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new());
    b.size(390, 844).await;
    let wide = b.script("return document.documentElement.scrollWidth").await;
    assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
    assert_eq!(b.axe().await, Vec::<String>::new(), "on a phone");
    b.close().await;
}
