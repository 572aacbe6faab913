//! Falling light: the timetable of the demo's sunset, stepped through to its end, in other orders, and as files.

use tolva_e2e::{Browser, Key, Tolva, settle};

async fn open(b: &Browser, tolva: &Tolva) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/falling"))).await;
    b.css("[aria-label='Timetable'] tbody tr").await;
    id
}

/// From an hour before sunset to the last usable minute, a step at a time.
#[tokio::test]
async fn a_sunset_is_stepped_through_to_its_end() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva).await;
    b.shows("main", "the last usable minute is 20:55").await;
    let now = "[aria-label='Now and next']";
    b.shows(now, "Since 19:26").await;
    b.shows(now, "At 19:36, in 10 min 00 s").await;
    b.shows(now, "Shutter 1/200 to 1/125").await;
    let slide = "input[type=range]";
    b.script(&format!("document.querySelector(\"{slide}\").focus()")).await;
    for _ in 0..12 {
        b.press(Key::Right).await;
    }
    b.shows(now, "Since 19:36").await;
    b.shows(now, "1/125, f/9, ISO 100").await;
    b.shows("[aria-label='Timetable'] [aria-current]", "19:36").await;
    b.press(Key::End).await;
    b.shows(now, "ISO 6400").await;
    b.shows(now, "Last minute 20:55, in 0 min 00 s").await;
    b.shows("main", "no longer worth waiting for").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

#[tokio::test]
async fn it_is_replayed_faster_than_the_clock() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva).await;
    b.xpath("//label[normalize-space()='15 min/s']").await.click().await.expect("the speed");
    b.button("Play the replay").await.click().await.expect("play");
    b.shows("[aria-label='Now and next']", "Last minute 20:55").await;
    b.button("Play the replay").await;
    // Against the clock the demo's sunset is long over or yet to come: either is said.
    b.xpath("//label[normalize-space()='The clock']").await.click().await.expect("the clock");
    settle(|| async {
        let text = b.text("[aria-label='Now and next']").await;
        let said = text.contains("The light has gone") || text.contains("Not begun");
        if said { Ok(()) } else { Err(text) }
    })
    .await;
    b.close().await;
}

#[tokio::test]
async fn another_order_is_chosen_and_kept() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva).await;
    b.xpath("//main//button[.//*[normalize-space()='Shutter first']]").await.click().await.expect("the list");
    b.xpath("//*[@role='option'][normalize-space()='ISO first']").await.click().await.expect("the order");
    b.shows("[aria-label='Timetable']", "ISO 100 to ISO").await;
    b.shows("main", "ISO rises and the flash goes down as much, then the shutter").await;
    settle(|| async {
        let order = tolva.job(&id).await["setups"][0]["falling_order"].clone();
        if order == "iso_first" { Ok(()) } else { Err(order.to_string()) }
    })
    .await;
    // The files are those of what is kept.
    let table =
        reqwest::get(tolva.url(&format!("api/v1/jobs/{id}/setups/doorway/falling.csv"))).await.expect("the table");
    let table = table.text().await.expect("text");
    assert!(table.lines().nth(2).is_some_and(|line| line.contains("ISO 100 to ISO")), "{table}");
    b.close().await;
}

/// On paper only the timetable is left.
#[tokio::test]
async fn on_paper() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    open(&b, &tolva).await;
    let media = serde_json::json!({ "media": "print" });
    b.driver.cdp().send_raw("Emulation.setEmulatedMedia", media).await.expect("paper");
    // Beside other work Chromium 156 sometimes knows that it is on paper and leaves some rules as they are on screen, until
    // the page is really printed.
    assert_eq!(b.pages_printed().await, 1);
    settle(|| async {
        let seen = b
            .script("const seen = (s) => { const e = document.querySelector(s); return !!e && e.getClientRects().length > 0 }; return ['header', 'nav', 'aside', \"[aria-label='Stop rail']\", \"[aria-label='Timetable']\", '.only-print'].map(seen)")
            .await;
        if seen == serde_json::json!([false, false, false, false, true, true]) { Ok(()) } else { Err(seen.to_string()) }
    })
    .await;
    b.shows(".only-print", "Keeper in the rope-walk doorway").await;
    b.close().await;
}
