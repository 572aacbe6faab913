//! Colour: the line, the schools side by side, gels, and one look over a job.

use tolva_e2e::{Browser, Key, Theme, Tolva};

async fn at(setup: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Bindery evening").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/colour"))).await;
    b.shows("main h2", "Colour").await;
    (tolva, b, id)
}

/// The colours of the swatches of a region, as the page paints them.
async fn painted(b: &Browser, of: &str) -> String {
    b.css(&format!("[aria-label='{of}'] li")).await;
    let script = format!(
        "return [...document.querySelectorAll(\"[aria-label='{of}'] li\")].map((e) => e.querySelector('rect').getAttribute('fill')).join(' ')"
    );
    b.script(&script).await.as_str().unwrap_or_default().to_owned()
}

/// Lamps behind, a window on the face: each school says what it does, and is a click away.
#[tokio::test]
async fn schools_stand_side_by_side() {
    let (tolva, b, id) = at("reading").await;
    b.shows("[aria-label='Schools of white balance'] [data-chosen]", "The ambient’s, flash gelled to it").await;
    let lamps = painted(&b, "Shelves under lamps, as it comes out").await;
    b.button("Choose white balance: Fixed outdoors").await.click().await.expect("fixed");
    b.shows("[aria-label='Dial card']", "5600 K").await;
    b.shows("[aria-label='What becomes of each region']", "Shelves under lamps: strongly warm").await;
    assert_ne!(painted(&b, "Shelves under lamps, as it comes out").await, lamps, "the swatches follow");
    b.shows("[aria-label='Schools of white balance'] [data-chosen]", "5600 K").await;
    b.button("Choose white balance: Between the two").await.click().await.expect("between");
    tolva.holds(&id, "/setups/0/white_balance", "between").await;
    // From the card, at any step.
    b.dial("White balance").await.click().await.expect("the list");
    b.xpath("//*[@role='option'][contains(., 'Shade')]").await.click().await.expect("shade");
    b.shows("[aria-label='Dial card']", "Shade").await;
    b.shows("nav", "Shade").await;
    b.css("[aria-label^='Undo: White balance: Shade']").await.click().await.expect("undo");
    b.shows("nav", "2900 K").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// The bar, a ring and a lozenge are moved by pointer and by key.
#[tokio::test]
async fn the_colour_line_is_a_control() {
    let (tolva, b, id) = at("reading").await;
    let bar = b.css("[aria-label^='White balance: moves']").await;
    b.drag(&bar, -150).await;
    b.shows("nav", "3900 K").await;
    b.shows("[aria-label='What becomes of each region']", "strongly warm").await;
    // By key: 25 mired cooler, and a touch of green.
    b.script("document.querySelector(\"[aria-label^='White balance: moves']\").focus()").await;
    b.chord(Key::Shift, Key::Left).await;
    b.shows("nav", "4320 K").await;
    b.press(Key::Up).await;
    tolva.holds(&id, "/setups/0/white_balance/kelvin/kelvin", 4320.0).await;
    tolva.holds(&id, "/setups/0/white_balance/kelvin/tint_duv", 0.001).await;
    // The lozenge towards daylight: a weaker gel is enough.
    let flash = b.css("[aria-label^='A, Small flash']").await;
    b.drag(&flash, -80).await;
    b.shows("nav", "warm half").await;
    b.shows("[aria-label='Flash A']", "1/128").await;
    // A ring: the window is warmer than was thought.
    let ring = b.css("[aria-label^='Face, window side: moves']").await;
    b.drag(&ring, 60).await;
    b.shows("main", "By hand").await;
    let said = "/setups/0/regions/2/ambient/colour/kelvin/kelvin";
    tolva.holds_where(&id, said, |said| said.as_f64().is_some_and(|k| (5000.0..6000.0).contains(&k))).await;
    b.close().await;
}

/// Named, by hand, read; a clipped patch and a temperature beyond all lights stay in their fields.
#[tokio::test]
async fn a_light_is_said_to_have_a_colour() {
    let (tolva, b, id) = at("herbarium").await;
    let red = b.field("Red, 0 to 255", 0).await;
    b.fill(&red, "255").await;
    b.shows("main", "the patch is clipped").await;
    b.driver.refresh().await.expect("again");
    b.shows("main", "the patch is clipped").await;
    let red = b.field("Red, 0 to 255", 0).await;
    b.fill(&red, "131").await;
    b.saved().await;
    b.pick("Colour of Bench top", "A light by name").await;
    b.shows("main", "House lamps, 2500 to 3200 K").await;
    b.pick("Colour of Bench top", "Read by a colour meter").await;
    let kelvin = b.field("Temperature, K", 0).await;
    b.fill(&kelvin, "300").await;
    b.shows("main", "it must be from 1000 to 40000").await;
    b.fill(&kelvin, "3000").await;
    b.shows("[aria-label='What becomes of each region']", "Bench top: strongly warm").await;
    b.button("Film on a window: Bench top").await.click().await.expect("film");
    b.xpath("//label[normalize-space()='Cool half']").await.click().await.expect("a film");
    b.shows("main", "Read by a colour meter, through film").await;
    tolva.holds(&id, "/setups/2/regions/0/ambient/colour/meter/kelvin", 3000.0).await;
    tolva.holds(&id, "/setups/2/regions/0/ambient/film_ids/0", "cool-half").await;
    b.close().await;
}

/// Gels by hand go into the power; or Tolva chooses.
#[tokio::test]
async fn gels_match_the_ambient() {
    let (_tolva, b, _) = at("herbarium").await;
    b.shows("[aria-label='Flash A']", "1/8").await;
    b.xpath("//label[normalize-space()='Warm full']").await.click().await.expect("a gel");
    b.shows("nav", "warm full").await;
    b.shows("[aria-label='Flash A']", "1/8 +⅔").await;
    b.button("Use that: gel A to the ambient").await.click().await.expect("matched");
    b.shows("main", "On it now").await;
    b.shows("nav", "cool quarter").await;
    // From a tick box the keys work on: no letters are written there.
    b.xpath("//label[normalize-space()='Warm half']").await.click().await.expect("another");
    b.press("w").await;
    b.shows("[role=dialog]", "comes first: ").await;
    b.close().await;
}

/// One balance over the job: what differs is told, and held.
#[tokio::test]
async fn one_look_is_held_over_a_job() {
    let (tolva, b, id) = at("jetty").await;
    b.shows("[aria-label='Setups of the job']", "7500 K, this one").await;
    b.shows("main", "2 of 3 setups stand at another white balance").await;
    b.button("Hold it in Reading under the lamps").await.click().await.expect("held");
    b.shows("main", "One of 3 setups stands").await;
    b.button("Hold it over the whole job").await.click().await.expect("all");
    b.shows("main", "All 3 setups hold one white balance").await;
    for setup in 0..3 {
        tolva.holds(&id, &format!("/setups/{setup}/white_balance/kelvin/kelvin"), 7500.0).await;
    }
    b.close().await;
}

/// In both themes, wide and narrow, the swatches stand in the same grey.
#[tokio::test]
async fn colour_is_judged_on_one_grey() {
    let (_tolva, b, _) = at("reading").await;
    let surround = "return getComputedStyle(document.querySelector(\"[aria-label='Schools of white balance'] ul ul\")).backgroundColor";
    for theme in [Theme::Daylight, Theme::Dusk] {
        b.theme(theme).await;
        b.css("[aria-label='Schools of white balance'] li").await;
        assert_eq!(b.script(surround).await, "rgb(119, 119, 119)");
    }
    for (width, height) in [(1280, 800), (390, 844)] {
        b.size(width, height).await;
        assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "at {width}");
        let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
        assert_eq!(over.as_f64(), Some(0.0), "at {width}");
    }
    b.close().await;
}
