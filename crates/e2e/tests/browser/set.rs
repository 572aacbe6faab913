//! The set to scale: the map of light as an instrument, by mouse, by keyboard and by touch, and the list beside it.

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

const LIGHT: &str = "[data-thing='light/A']";

async fn at(job: &str, setup: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id(job).await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/set"))).await;
    b.css("[aria-label='The set from above'] .contour").await;
    (tolva, b, id)
}

async fn doorway() -> (Tolva, Browser, String) {
    at("Ropeworks open day", "doorway").await
}

async fn setup(tolva: &Tolva, id: &str, index: usize) -> Value {
    tolva.job(id).await["setups"][index].clone()
}

/// What is stored of the first setup comes to be so.
async fn until(tolva: &Tolva, id: &str, is: impl Fn(&Value) -> bool) {
    settle(|| async {
        let setup = setup(tolva, id, 0).await;
        if is(&setup) { Ok(()) } else { Err(setup["lights"][0]["place"].to_string()) }
    })
    .await;
}

async fn contours(b: &Browser) -> String {
    b.script("return [...document.querySelectorAll('.contour')].map((e) => e.getAttribute('d')).join()")
        .await
        .to_string()
}

async fn put(b: &Browser, what: &str) {
    b.menu("Put onto the set", what).await;
}

/// A set that nobody has used is laid out and drawn; what was typed counts until something is moved, and both are told
/// apart. Put aside, it counts again.
#[tokio::test]
async fn a_set_is_laid_out_used_and_put_aside() {
    let (tolva, b, id) = doorway().await;
    b.shows("main", "Not used yet").await;
    b.css(LIGHT).await;
    assert!(setup(&tolva, &id, 0).await["set"].is_null());
    b.button("Work the light out from this set").await.click().await.expect("used");
    b.shows("dl[aria-label='What A reaches']", "typed before the set was used").await;
    until(&tolva, &id, |setup| setup["set"]["people"].as_array().map(Vec::len) == Some(1)).await;
    assert_eq!(setup(&tolva, &id, 0).await["lights"][0]["spill"][0]["stops"], -2.0);
    b.button("Put the set aside: back to what was typed").await.click().await.expect("aside");
    b.shows("main", "Not used yet").await;
    until(&tolva, &id, |setup| setup["set"].is_null() && setup["lights"][0]["place"].is_null()).await;
    b.close().await;
}

/// A drag moves the light, the contours, the rail and the power; one press of undo takes all of it back.
#[tokio::test]
async fn a_light_is_dragged() {
    let (tolva, b, id) = doorway().await;
    b.button("Work the light out from this set").await.click().await.expect("used");
    b.shows("[aria-label='Flash A']", "1/8").await;
    until(&tolva, &id, |setup| !setup["set"].is_null()).await;
    let (before, drawn) = (setup(&tolva, &id, 0).await, contours(&b).await);
    let light = b.css(LIGHT).await;
    b.drag(&light, -90).await;
    until(&tolva, &id, |setup| setup["lights"][0]["distance_m"].as_f64() > before["lights"][0]["distance_m"].as_f64())
        .await;
    assert_ne!(contours(&b).await, drawn);
    b.shows("[aria-label='Flash A']", "1/2").await;
    b.saved().await;
    b.button("Undo: Moved on the set").await.click().await.expect("undo");
    until(&tolva, &id, |setup| *setup == before).await;
    b.close().await;
}

/// Arrow keys go 5 cm, with Shift 50 cm; from the side they raise.
#[tokio::test]
async fn a_light_is_moved_and_raised_by_keys() {
    let (tolva, b, id) = doorway().await;
    b.css(LIGHT).await;
    b.script(&format!("document.querySelector(\"{LIGHT}\").focus()")).await;
    b.press(Key::Left).await;
    until(&tolva, &id, |setup| !setup["lights"][0]["place"].is_null()).await;
    b.saved().await;
    let x = |setup: &Value| {
        let (light, place) = (&setup["lights"][0], &setup["lights"][0]["place"]);
        let (azimuth, up) = (place["direction_deg"].as_f64(), place["elevation_deg"].as_f64());
        let (azimuth, up) = (azimuth.unwrap_or_default().to_radians(), up.unwrap_or_default().to_radians());
        light["distance_m"].as_f64().unwrap_or_default() * azimuth.sin() * up.cos()
    };
    let z = |setup: &Value| {
        let up = setup["lights"][0]["place"]["elevation_deg"].as_f64().unwrap_or_default().to_radians();
        setup["lights"][0]["distance_m"].as_f64().unwrap_or_default() * up.sin()
    };
    let first = setup(&tolva, &id, 0).await;
    b.chord(Key::Shift, Key::Left).await;
    until(&tolva, &id, |setup| (x(&first) - x(setup) - 0.5).abs() < 0.01).await;
    b.xpath("//label[normalize-space()='From the side']").await.click().await.expect("the side");
    b.css("[aria-label='The set from the side']").await;
    b.saved().await;
    let low = setup(&tolva, &id, 0).await;
    b.script(&format!("document.querySelector(\"{LIGHT}\").focus()")).await;
    b.press(Key::Up).await;
    until(&tolva, &id, |setup| (z(setup) - z(&low) - 0.05).abs() < 0.005).await;
    b.xpath("//label[normalize-space()='Through the lens']").await.click().await.expect("the lens");
    b.css("[aria-label^='The frame through the lens.']").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "through the lens");
    b.close().await;
}

/// Everything is done without the drawing: numbers are typed, what is wrong is told at its field.
#[tokio::test]
async fn the_list_does_what_the_drawing_does() {
    let (tolva, b, id) = doorway().await;
    b.button("Work the light out from this set").await.click().await.expect("used");
    let round = b.field("Round it, degrees to its right", 0).await;
    b.holds(&round, "40° to its right").await;
    b.fill(&round, "−60").await;
    b.shows("ol[aria-label='The set in words']", "A: 1.50 m from the face, 60° to its left, 0.51 m over the eyes")
        .await;
    b.shows("[aria-label='What there is to say of the set']", "A lights the other side").await;
    b.button("Let the other side be the lit one").await.click().await.expect("the other side");
    until(&tolva, &id, |setup| setup["regions"][1]["place"]["face"]["side"] == "left").await;
    b.pick("It stands on", "Light stand, 2.4 m").await;
    let over = b.field("Over what it is aimed at", 0).await;
    b.fill(&over, "40").await;
    b.shows("main", "must be from -20 to 20 m").await;
    b.fill(&over, "1").await;
    b.shows("[aria-label='What there is to say of the set']", "Stand of A too low").await;
    b.pick("Its head looks", "At what it is aimed at").await;
    b.xpath("//label[normalize-space()='A helper']").await.click().await.expect("held");
    b.shows("ol[aria-label='The set in words']", "held by a helper").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "the set as a list");
    b.close().await;
}

/// A group: who is under by how much, and the place that brings all within a third, by a press.
#[tokio::test]
async fn a_group_is_lit_evenly() {
    let (tolva, b, id) = doorway().await;
    put(&b, "People: a row of four").await;
    b.shows("main", "How evenly the group is lit").await;
    b.shows("[aria-label='Each person against the middle, in stops']", "the worst").await;
    until(&tolva, &id, |setup| setup["speed"]["movement"] == "posing").await;
    b.button("Put A there").await.click().await.expect("there");
    b.shows("main", "Everybody is within").await;
    b.css("[aria-label='Things on the set']").await;
    b.xpath("//*[@role='row' or @role='option'][normalize-space()='Person 3']").await.click().await.expect("somebody");
    b.button("Its left as a region").await.click().await.expect("a region");
    b.css("[aria-label^='Person 3, its left, flash A']").await;
    b.close().await;
}

/// A card by a window: fill against distance, and the rail with and without it.
#[tokio::test]
async fn a_card_fills_and_is_pinned_against_without() {
    let (_tolva, b, _) = at("Guild days at the town hall", "teapot").await;
    b.shows("main", "White card: fill against distance").await;
    b.css("svg[aria-label^='White card at 0.31 m adds']").await;
    b.button("Pin the rail, and see it without the card").await.click().await.expect("pinned");
    b.css("[aria-label^='Glaze, shadow side, pinned: together']").await;
    b.gone("svg[aria-label^='White card at']").await;
    b.button("Unpin").await.click().await.expect("unpinned");
    b.gone("[aria-label^='Glaze, shadow side, pinned']").await;
    b.close().await;
}

/// A flash off a coloured wall says what that costs and what colour it turns; hard sun throws its shadow on a wall.
#[tokio::test]
async fn walls_and_the_sun() {
    let (tolva, b, id) = at("Guild days at the town hall", "awards").await;
    b.shows("dl[aria-label='Where A stands']", "mired warmer").await;
    b.shows("ol[aria-label='The set in words']", "its head turned to Wall of pale boards").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/kiln-yard/set"))).await;
    b.css("[aria-label^='Shadow of the sun:']").await;
    b.shows("dl[aria-label='The sun on the set']", "on the wall at").await;
    b.shows("dl[aria-label='The sun on the set']", "throws the sun past the face").await;
    b.close().await;
}

/// With a finger: a handle is taken hold of, and elsewhere the page scrolls.
#[tokio::test]
async fn a_finger_moves_a_light() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.size(390, 844).await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/set"))).await;
    b.css("[aria-label='The set from above'] .contour").await;
    b.script(&format!("document.querySelector(\"{LIGHT}\").scrollIntoView({{ block: 'center' }})")).await;
    let hit = b
        .script(&format!("const r = document.querySelector(\"{LIGHT} circle\").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2, r.width]"))
        .await;
    assert!(hit[2].as_f64() >= Some(44.0), "{hit}");
    b.swipe(hit[0].as_f64().expect("x"), hit[1].as_f64().expect("y"), -40.0, 20.0).await;
    until(&tolva, &id, |setup| setup["lights"][0]["distance_m"].as_f64() > Some(1.6)).await;
    b.script("window.scrollTo(0, 0)").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "the set on a phone");
    b.close().await;
}

/// An old address leads to the step that took its place.
#[tokio::test]
async fn an_old_address_leads_here() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/lights"))).await;
    b.shows("main h2", "Set").await;
    b.press("0").await;
    b.shows("main h2", "Falling light").await;
    b.press("6").await;
    b.shows("main h2", "Set").await;
    b.close().await;
}
