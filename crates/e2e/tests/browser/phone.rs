//! On a phone, in one hand: what to set stays in sight, the step has the screen, every target is large enough for a finger,
//! and a finger that scrolls changes nothing.

use serde_json::json;
use tolva_e2e::{Browser, Tolva, settle};

/// Pages under a job.
const PAGES: [&str; 17] = [
    "",
    "/day",
    "/shots",
    "/pack",
    "/log",
    "/run/doorway",
    "/setups/doorway/place",
    "/setups/yard/place",
    "/setups/doorway/light",
    "/setups/doorway/blend",
    "/setups/doorway/colour",
    "/setups/net-store/depth",
    "/setups/doorway/set",
    "/setups/doorway/proof",
    "/setups/doorway/falling",
    "/setups/noon-quay/blend",
    "/setups/none/blend",
];

/// What a finger presses that is smaller than it should be: everything but links within sentences, and what lies inside a
/// larger target.
const SMALL: &str = r"
const all = document.querySelectorAll('a[href], button, input:not([type=hidden]), textarea, [role=slider], [role=tab], [role=option], [role=menuitem], label:has(input)');
const seen = (e) => { const s = getComputedStyle(e); return e.getClientRects().length > 0 && s.visibility !== 'hidden' && !e.closest('[aria-hidden=true]') && !e.disabled; };
return [...all].filter((e) => {
  const box = e.getBoundingClientRect();
  // What is only heard is one pixel large, or clipped away.
  if (!seen(e) || box.width < 2 || e.closest('[style*=clip]') || e.closest('p')) return false;
  if (e.closest('label') && e.closest('label') !== e) return false;
  return box.height < 43.5 || box.width < 43.5;
}).map((e) => `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent ?? ''} ${JSON.stringify(e.getBoundingClientRect())}`.slice(0, 160));
";

async fn open(b: &Browser, tolva: &Tolva, page: &str) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
    id
}

async fn loaded(b: &Browser, page: &str) {
    if page.starts_with("/setups/none") {
        b.shows("main", "This setup is not there").await;
    } else if page.is_empty() {
        b.css("#setups").await;
    } else if !page.starts_with("/setups") {
        // Each says what it is of, once it has come.
        let holds = [("/day", "shoot"), ("/shots", "frames are taken"), ("/pack", "Octagon"), ("/log", "Log")];
        let holds = holds.iter().find(|(of, _)| *of == page).map_or("Shot 1 of 3", |(_, holds)| holds);
        b.shows("main", holds).await;
    } else {
        b.css("main h2").await;
        b.css("[aria-label='Answer']").await;
    }
}

/// Nothing scrolls sideways, everything can be pressed, and axe finds nothing, at both widths of a phone and in both
/// themes.
#[tokio::test]
async fn every_page_fits_a_hand() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 800).await;
    b.go(&tolva.url("")).await;
    b.link("Ropeworks open day").await;
    fits(&b, "the jobs").await;
    for (page, holds) in [("kit", "Flash units and lamps"), ("drills", "Skill by skill"), ("phones", "Phones")] {
        b.go(&tolva.url(page)).await;
        b.shows("main", holds).await;
        fits(&b, page).await;
    }
    for page in PAGES {
        open(&b, &tolva, page).await;
        loaded(&b, page).await;
        fits(&b, page).await;
    }
    b.close().await;
}

/// At 390 wide as it stands, then at 360.
async fn fits(b: &Browser, page: &str) {
    for width in [390, 360] {
        b.size(width, 800).await;
        let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
        assert_eq!(over.as_f64(), Some(0.0), "{page} at {width}");
        assert_eq!(b.script(SMALL).await, json!([]), "targets a finger misses on {page} at {width}");
        let wrong = if width == 390 { b.axe_in_both_themes().await } else { b.axe().await };
        assert_eq!(wrong, Vec::<String>::new(), "{page} at {width}");
    }
    b.size(390, 800).await;
}

/// What to set stands at the top while the step is scrolled, and opens to the whole card and to the rail.
#[tokio::test]
async fn what_to_set_stays_in_sight() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    open(&b, &tolva, "/setups/doorway/light").await;
    let bar = "[aria-label='What to set']";
    b.shows(bar, "1/200 f/9 ISO 100 · A 1/8").await;
    b.shows(bar, "As wished").await;
    b.css("main h2").await;
    settle(|| async {
        b.script("window.scrollTo(0, 900)").await;
        let top = b.script(&format!("return document.querySelector(\"{bar}\").getBoundingClientRect().top")).await;
        if top.as_f64() == Some(0.0) { Ok(()) } else { Err(format!("it stands at {top}")) }
    })
    .await;
    b.xpath("//section[@aria-label='What to set']/button").await.click().await.expect("the card");
    b.shows("[aria-label='Dial card']", "Octagon, 90 cm").await;
    b.button("Stop rail").await.click().await.expect("the rail");
    b.css("[aria-label='Stop rail'] [role=slider]").await;
    // A bar that stays covers half of something wherever the page is scrolled to: it is judged where it has its own place.
    b.script("window.scrollTo(0, 0)").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "with the rail open");
    assert_eq!(b.script(SMALL).await, json!([]), "with the rail open");
    // The header is one line.
    let high = b.script("return document.querySelector('header').getBoundingClientRect().height").await;
    assert!(high.as_f64().is_some_and(|high| high < 60.0), "{high}");
    b.close().await;
}

/// The bar at the bottom goes from step to step, and shows the order of work.
#[tokio::test]
async fn steps_are_walked_with_a_thumb() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    open(&b, &tolva, "/setups/doorway/place").await;
    b.css("[aria-label='Next: Light that is there']").await.click().await.expect("next");
    b.shows("main h2", "Light that is there").await;
    b.css("[aria-label='Before: Place and hour']").await.click().await.expect("before");
    b.shows("main h2", "Place and hour").await;
    b.button("1 Place and hour").await.click().await.expect("the order");
    b.shows("[role=dialog]", "A at 1/8, 1.50 m").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "the order of work");
    b.link("Falling light").await.click().await.expect("falling light");
    b.shows("main h2", "Falling light").await;
    b.shows("[aria-label='Now and next']", "Since 19:26").await;
    // The table keeps hour, change and how long; the regions' columns are for wide screens.
    let columns = b
        .script("return [...document.querySelectorAll(\"[aria-label='Timetable'] th\")].filter((e) => e.offsetParent).length")
        .await;
    assert_eq!(columns, 3);
    b.close().await;
}

/// A finger that goes over the day strip or the compass scrolls the page, and the hour stays.
#[tokio::test]
async fn a_finger_that_scrolls_changes_nothing() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let before = tolva.job(&id).await;
    for what in ["[aria-label='The light of the day']", "[aria-label='The sky over the place']"] {
        b.css(what).await;
        b.script(&format!("document.querySelector(\"{what}\").scrollIntoView({{ block: 'center' }})")).await;
        let from = b.script("return window.scrollY").await.as_f64().expect("a number");
        // A fifth of its width from its left edge there is no handle.
        let at = b
            .script(&format!("const r = document.querySelector(\"{what}\").getBoundingClientRect(); return [r.left + r.width * 0.25, r.top + r.height * 0.7]"))
            .await;
        b.swipe(at[0].as_f64().expect("x"), at[1].as_f64().expect("y"), 12.0, -220.0).await;
        settle(|| async {
            let now = b.script("return window.scrollY").await.as_f64().expect("a number");
            if now > from + 60.0 { Ok(()) } else { Err(format!("{what}: the page went from {from} to {now}")) }
        })
        .await;
    }
    b.css("[aria-valuetext^='19:26']").await;
    b.saved().await;
    assert_eq!(tolva.job(&id).await, before);
    b.close().await;
}

/// By its line the hour is taken along with a finger.
#[tokio::test]
async fn a_finger_on_the_handle_moves_the_hour() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    let id = open(&b, &tolva, "/setups/doorway/place").await;
    let handle = "[aria-label='Day strip'] [role=slider]";
    b.css(handle).await;
    b.script(&format!("document.querySelector(\"{handle}\").scrollIntoView({{ block: 'center' }})")).await;
    let at = b
        .script(&format!("const r = document.querySelector(\"{handle}\").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]"))
        .await;
    b.swipe(at[0].as_f64().expect("x"), at[1].as_f64().expect("y"), -60.0, 4.0).await;
    settle(|| async {
        let time = tolva.job(&id).await["setups"][0]["scene"]["at"]["time"].as_str().unwrap_or_default().to_owned();
        if time.as_str() < "18:00" { Ok(()) } else { Err(format!("the hour is {time}")) }
    })
    .await;
    b.close().await;
}

/// Where marks lie on each other, a press asks which is meant, and each can be moved.
#[tokio::test]
async fn marks_that_lie_on_each_other_can_both_be_reached() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    let id = open(&b, &tolva, "/setups/doorway/blend").await;
    b.button("Stop rail").await.click().await.expect("the rail");
    // Without flash the ring lies under the bar.
    b.mark("Behind, together").await;
    let at = b
        .script("const r = document.querySelector(\"[role=slider][aria-label^='Behind, together:']\").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]")
        .await;
    b.tap(at[0].as_f64().expect("x"), at[1].as_f64().expect("y")).await;
    b.css("[aria-label='Which mark?']").await;
    b.button("Behind, ambient").await.click().await.expect("the ring");
    b.button("A third more").await.click().await.expect("a third");
    settle(|| async {
        let blend = tolva.job(&id).await["setups"][0]["blend"]["lift"]["background_stops"].as_f64();
        if blend.is_some_and(|stops| (stops + 1.0).abs() < 0.01) { Ok(()) } else { Err(format!("behind is {blend:?}")) }
    })
    .await;
    b.close().await;
}
