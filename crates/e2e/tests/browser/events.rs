//! An event by hand: a bounced flash, pace and stamina, clothes, certainty, and wishes that exclude each other.

use tolva_e2e::{Browser, Tolva};

async fn at(setup: &str, step: &str) -> (Tolva, Browser, String) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Brass band in the old foundry").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/{step}"))).await;
    b.css("[aria-label='Answer']").await;
    (tolva, b, id)
}

/// Off the ceiling, off a brick wall, straight: each changes power, softness and colour at once.
#[tokio::test]
async fn a_flash_on_the_camera_is_turned_about() {
    let (tolva, b, id) = at("interval", "set").await;
    b.shows("[aria-label='Flash A']", "Bounced").await;
    b.shows("dl[aria-label='About A']", "against the head aimed straight").await;
    b.pick("Its colour", "brick").await;
    b.shows("[aria-label='Answer']", "Off brick A comes back strongly warm").await;
    b.xpath("//label[normalize-space()='Wall beside']").await.click().await.expect("a wall");
    let away = b.field("From the head to it", 0).await;
    b.fill(&away, "0.1").await;
    b.shows("main", "from 0.30 m to 20.00 m").await;
    b.fill(&away, "2.5").await;
    tolva.holds(&id, "/setups/2/lights/0/bounce/away_m", 2.5).await;
    tolva.holds(&id, "/setups/2/lights/0/bounce/off", "wall").await;
    tolva.holds(&id, "/setups/2/lights/0/bounce/colour", "brick").await;
    b.xpath("//label[normalize-space()='Bounced off a ceiling or wall']").await.click().await.expect("straight");
    b.shows("[aria-label='Answer']", "Straight from the camera it is flat").await;
    b.shows("[aria-label='Answer']", "Clothes move it").await;
    b.close().await;
}

/// What the job asks in time is checked against recycling, burst and battery.
#[tokio::test]
async fn pace_and_stamina() {
    let (tolva, b, id) = at("interval", "depth").await;
    let facts = "dl[aria-label='Pace and stamina']";
    b.shows(facts, "A is ready").await;
    let burst = b.field("Frames in a burst", 0).await;
    b.fill(&burst, "900").await;
    b.shows(facts, "900").await;
    let every = b.field("A picture every, seconds", 0).await;
    b.fill(&every, "0").await;
    b.shows("main", "it must be from 0.1 to 3600").await;
    b.fill(&every, "0.1").await;
    b.shows(facts, "the 0.1 s there are").await;
    let frames = b.field("Frames in all", 0).await;
    b.fill(&frames, "90000").await;
    b.shows(facts, "bring").await;
    tolva.holds(&id, "/setups/2/pace/frames", 90_000).await;
    b.close().await;
}

/// How sure it is, what would narrow it, and what automatics would do with dark and pale clothes.
#[tokio::test]
async fn certainty_and_automatics_stand_with_the_workings() {
    let (_tolva, b, _) = at("interval", "blend").await;
    b.button("Workings").await.click().await.expect("the workings");
    b.shows("dl[aria-label='How sure it is']", "±").await;
    b.shows("dl[aria-label='What automatics would do']", "Fixed settings").await;
    b.shows("dl[aria-label='What automatics would do']", "skin turns with every coat").await;
    b.close().await;
}

/// Two things fixed that exclude each other: the first sentence says what to change, and one press does it.
#[tokio::test]
async fn what_excludes_each_other_is_told_first() {
    let (_tolva, b, _) = at("band", "depth").await;
    b.shows("[aria-label='Answer']", "As wished").await;
    b.dial("Aperture").await.click().await.expect("the list");
    b.xpath("//*[@role='option'][normalize-space()='f/2.8']").await.click().await.expect("wide open");
    b.shows("[aria-label='Answer']", "The depth asks for").await;
    let says = b.text("[aria-label='Answer']").await;
    let first = says.lines().next().unwrap_or_default();
    assert!(first.contains("aperture"), "the first sentence says what to change: {first}");
    b.css("[aria-label^='Do this: Leave the aperture to Tolva'], [aria-label^='Do this: Fix the aperture']")
        .await
        .click()
        .await
        .expect("the way out");
    b.shows("[aria-label='Answer']", "As wished").await;
    b.close().await;
}

/// On a phone the many units of a setup, its rail and its lanes stay within the edge.
#[tokio::test]
async fn four_lights_and_five_regions_on_a_phone() {
    let (tolva, b, id) = at("conductor", "set").await;
    b.size(390, 844).await;
    for step in ["set", "colour", "depth"] {
        b.go(&tolva.url(&format!("jobs/{id}/setups/conductor/{step}"))).await;
        b.css("[aria-label='Answer']").await;
        let over = b.script("return document.documentElement.scrollWidth - window.innerWidth").await;
        assert_eq!(over.as_f64(), Some(0.0), "{step}");
        assert_eq!(b.axe().await, Vec::<String>::new(), "{step}");
    }
    b.button("Stop rail").await.click().await.expect("the rail");
    b.css("[aria-label='Stop rail'] [role=slider]").await;
    let marks = b.script("return document.querySelectorAll(\"[aria-label='Stop rail'] [role=slider]\").length").await;
    assert!(marks.as_f64().is_some_and(|marks| marks >= 15.0), "every light has its marks: {marks}");
    b.close().await;
}
