//! Glass and hazards: what shows, the offers that clear it, plates, gloss and spectacles; by mouse, by keyboard, by touch.

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

const VERDICT: &str = "#verdict-on-glass";

async fn at(setup: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Weir Lane, behind glass").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/glass"))).await;
    b.css("[aria-label^='The frame through the lens.']").await;
    (tolva, b, id)
}

async fn setup(tolva: &Tolva, id: &str, of: &str) -> Value {
    let job = tolva.job(id).await;
    let all = job["setups"].as_array().expect("setups");
    all.iter().find(|one| one["id"] == of).expect("the setup").clone()
}

async fn until(tolva: &Tolva, id: &str, of: &str, is: impl Fn(&Value) -> bool) {
    settle(|| async {
        let setup = setup(tolva, id, of).await;
        if is(&setup) { Ok(()) } else { Err(setup["shots"].to_string()) }
    })
    .await;
}

/// The trouble is told and drawn, the first offer clears it, and one undo brings it back.
#[tokio::test]
async fn the_first_offer_clears_the_shop_window() {
    let (tolva, b, id) = at("shopfront").await;
    b.shows(VERDICT, "A shows in “Shop window”").await;
    b.css("[aria-label^='The frame through the lens. A shows in']").await;
    let before = setup(&tolva, &id, "shopfront").await;
    b.css("button[aria-label^='Do this: ']").await.click().await.expect("done");
    b.shows(VERDICT, "too dim to be seen").await;
    until(&tolva, &id, "shopfront", |setup| *setup != before).await;
    b.saved().await;
    b.css("button[aria-label^='Undo: ']").await.click().await.expect("undo");
    b.shows(VERDICT, "A shows in “Shop window”").await;
    until(&tolva, &id, "shopfront", |setup| *setup == before).await;
    b.close().await;
}

/// From above the light is moved by its arrow keys, and what is said of the glass follows.
#[tokio::test]
async fn what_shows_follows_the_light() {
    let (_tolva, b, _) = at("shopfront").await;
    let said = b.text(VERDICT).await;
    let drawn = async || {
        b.script("return document.querySelector(\"[aria-label^='The frame through the lens.']\").innerHTML")
            .await
            .to_string()
    };
    b.xpath("//label[normalize-space()='From above']").await.click().await.expect("above");
    b.css("[aria-label='The set from above'] .contour").await;
    let before = drawn().await;
    b.script("document.querySelector(\"[data-thing='light/A']\").focus()").await;
    b.chord(Key::Shift, Key::Left).await;
    settle(|| async {
        let now = b.text(VERDICT).await;
        if now == said { Err(now) } else { Ok(()) }
    })
    .await;
    assert_ne!(drawn().await, before, "the outlines beside it follow");
    b.close().await;
}

/// By keyboard: a plate joins the frames, is named, and goes again; nothing is told by the drawing alone.
#[tokio::test]
async fn a_clean_plate_by_keyboard() {
    let (tolva, b, id) = at("archivist").await;
    b.shows(VERDICT, "A shows in The archivist’s spectacles").await;
    b.css("button[aria-label='Add a clean plate for A']").await;
    b.script("document.querySelector(\"button[aria-label='Add a clean plate for A']\").focus()").await;
    b.press(Key::Enter).await;
    b.shows("ol[aria-label='Frames to take, in order']", "A off").await;
    until(&tolva, &id, "archivist", |setup| setup["shots"].as_array().map(Vec::len) == Some(2)).await;
    let name = b.field("Frame 2", 0).await;
    b.fill(&name, "Glasses without the light").await;
    until(&tolva, &id, "archivist", |setup| setup["shots"][1]["name"] == "Glasses without the light").await;
    b.saved().await;
    b.button("Take The picture off the list").await.click().await.expect("off");
    until(&tolva, &id, "archivist", |setup| setup["shots"].as_array().map(Vec::len) == Some(1)).await;
    b.close().await;
}

/// By finger on a phone: the temples are raised, and the glasses are clear.
#[tokio::test]
async fn spectacles_by_finger() {
    let (tolva, b, id) = at("archivist").await;
    b.size(390, 844).await;
    let offer = b.css("button[aria-label^='Do this: ']").await;
    b.centre(&offer).await;
    let place = offer.rect().await.expect("a place");
    let scrolled = b.script("return window.scrollY").await.as_f64().unwrap_or_default();
    b.tap(place.x + place.width / 2.0, place.y - scrolled + place.height / 2.0).await;
    b.shows(VERDICT, "Nothing shows in any glass").await;
    let tilted = |setup: &Value| setup["set"]["people"][0]["spectacles"]["tilt_deg"].as_f64() > Some(8.0);
    until(&tolva, &id, "archivist", tilted).await;
    b.close().await;
}

/// A shiny flat is filled by the card that is put there; a person gets spectacles; what can hurt is told with its caution.
#[tokio::test]
async fn gloss_spectacles_and_hazards() {
    let (tolva, b, id) = at("plaque").await;
    b.shows("main", "Its middle mirrors").await;
    b.button("Put a white card there").await.click().await.expect("a card");
    b.shows("main", "fills it from end to end").await;
    until(&tolva, &id, "plaque", |setup| setup["set"]["cards"].as_array().map(Vec::len) == Some(1)).await;
    b.menu("Put onto the set", "Can hurt: an edge").await;
    b.shows("[aria-label='What there is to say of the set']", "local rules").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/shopfront/glass"))).await;
    b.xpath("//*[@role='row' or @role='option'][normalize-space()='The founder']").await.click().await.expect("him");
    b.xpath("//label[normalize-space()='Wears spectacles']").await.click().await.expect("ticked");
    until(&tolva, &id, "shopfront", |setup| setup["set"]["people"][0]["spectacles"]["tilt_deg"] == 8.0).await;
    b.close().await;
}

/// A room of mirrors: camera and light go where they show least.
#[tokio::test]
async fn a_room_of_mirrors() {
    let (tolva, b, id) = at("mirrors").await;
    let before = setup(&tolva, &id, "mirrors").await;
    b.shows(VERDICT, "A shows in “Mirror behind”").await;
    b.button("Put camera and light where they show least").await.click().await.expect("there");
    until(&tolva, &id, "mirrors", |setup| *setup != before).await;
    b.gone("button[aria-label^='Add a clean plate for A']").await;
    for of in ["mirrors", "greenhouse"] {
        b.go(&tolva.url(&format!("jobs/{id}/setups/{of}/glass"))).await;
        b.css("[aria-label^='The frame through the lens.']").await;
        assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "{of}");
    }
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}
