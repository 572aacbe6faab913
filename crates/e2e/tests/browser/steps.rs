//! Each step by hand: readings of every kind, the camera and its limits, the flash and its control, setups and jobs.

use serde_json::Value;
use tolva_e2e::{Browser, Key, Tolva, settle};

async fn open(b: &Browser, tolva: &Tolva, page: &str) -> String {
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}{page}"))).await;
    id
}

/// A reading off a white wall, one by luxmeter and one by dome, one stepped by the arrow keys.
#[tokio::test]
async fn readings_of_every_kind() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/light").await;
    let surface = b.field("Surface over grey, stops", 0).await;
    b.fill(&surface, "2 1/3").await;
    b.shows("main", "EV 10.3").await;
    b.shows("nav", "10.3, 11.3, 10.3 EV").await;

    let lit = b.field("Reading", 1).await;
    b.fill(&lit, "8000 lx").await;
    b.shows("main", "EV 11.6").await;
    // A dome's constant is larger: the same lux are less light on the meter's scale.
    b.xpath("//label[normalize-space()='Dome']").await.click().await.expect("the dome");
    b.shows("main", "EV 11.2").await;
    tolva.holds(&id, "/setups/0/regions/1/ambient/readings/0/reading/lux/receptor", "dome").await;

    let shadow = b.field("Reading", 2).await;
    shadow.click().await.expect("the field");
    b.press(Key::Up).await;
    b.shows("nav", "10.7 EV").await;
    b.chord(Key::Shift, Key::Down).await;
    b.shows("nav", "9.7 EV").await;
    b.saved().await;
    b.close().await;
}

/// The camera of the kit: its clicks, its sync, its ISO, all of which the plan follows.
#[tokio::test]
async fn the_camera_and_its_limits() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/depth").await;
    b.shows("main", "Sync 1/250, safe 1/200").await;
    b.button("Edit this camera").await.click().await.expect("the camera");
    let safe = b.field("Safe sync", 0).await;
    b.fill(&safe, "1/100").await;
    b.xpath("//*[@role='dialog']//button[.//*[normalize-space()='Thirds of a stop']][1]").await;
    b.button("Done").await.click().await.expect("done");
    b.shows("[aria-label='Dial card']", "1/100").await;
    b.shows("[aria-label='Dial card']", "f/13").await;
    tolva.holds(&id, "/kit/cameras/0/sync_safe_s", 0.01).await;

    // A filter of three stops opens the aperture by three.
    b.xpath("//label[normalize-space()='3-stop filter']").await.click().await.expect("the filter");
    b.shows("[aria-label='Dial card']", "3-stop ND").await;
    b.shows("[aria-label='Dial card']", "f/4.5").await;

    // A shutter over the sync is refused in words, with the way back.
    let shutter = b.field("Shutter, fixed", 0).await;
    b.fill(&shutter, "1/500").await;
    b.shows("[aria-label='Answer']", "1/500 is faster than the sync speed of 1/250").await;
    b.button("Do this: Leave the shutter to Tolva").await.click().await.expect("the way back");
    b.shows("[aria-label='Answer']", "As wished").await;
    b.saved().await;
    b.close().await;
}

#[tokio::test]
async fn automatic_flash_and_no_flash() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    b.xpath("//label[normalize-space()='Automatic']").await.click().await.expect("automatic");
    b.shows("[aria-label='Flash A']", "stops, automatic").await;
    b.shows("[aria-label='Flash A']", "By hand instead").await;
    b.shows("[aria-label='Answer']", "Clothes move it").await;
    tolva.holds(&id, "/setups/0/lights/0/control", "ttl").await;

    b.button("Remove this light").await.click().await.expect("removed");
    b.shows("[aria-label='Answer']", "This blend needs a flash, and the setup has none").await;
    b.button("Do this: Add a flash").await.click().await.expect("added");
    b.shows("[aria-label='Flash A']", "1/8").await;
    b.saved().await;
    b.close().await;
}

/// The shadow side's share, and what lies behind when the flash reaches it.
#[tokio::test]
async fn where_the_flash_reaches() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "/setups/doorway/set").await;
    b.shows("[aria-label='Flash A']", "+1 → +1⅔ stops").await;
    let shadow = b.field("On face, shadow side, stops", 0).await;
    b.fill(&shadow, "0").await;
    b.shows("[aria-label='Flash A']", "+1 → 0 stops").await;
    let background = b.field("On behind, stops", 0).await;
    b.fill(&background, "-4").await;
    b.css("[role=slider][aria-label^='Behind, flash A'], [aria-label^='Behind, flash A']").await;
    b.button("On behind, stops: not at all").await.click().await.expect("not at all");
    tolva.holds(&id, "/setups/0/lights/0/spill/1", Value::Null).await;
    b.close().await;
}

/// Setups are made, copied, renamed and deleted, and undo brings them back.
#[tokio::test]
async fn setups_come_and_go() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "").await;
    b.button("Duplicate Noon on the quay, wide open").await.click().await.expect("a copy");
    b.shows("[aria-label='Answer']", "Not as wished").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    b.link("Noon on the quay, wide open, copy").await;
    b.button("Delete Noon on the quay, wide open, copy (undo brings it back)").await.click().await.expect("deleted");
    b.saved().await;
    settle(|| async {
        let setups = tolva.job(&id).await["setups"].as_array().map(Vec::len);
        if setups == Some(5) { Ok(()) } else { Err(format!("{setups:?} setups")) }
    })
    .await;
    b.button("Undo: Setup deleted").await.click().await.expect("undo");
    b.link("Noon on the quay, wide open, copy").await;

    let name = b.field("Setup", 0).await;
    b.fill(&name, "Keeper, half length").await;
    b.link("Keeper, half length").await;
    tolva.holds(&id, "/setups/0/name", "Keeper, half length").await;
    b.close().await;
}

/// A job's facts: a day that is none stays in its field with what is allowed, also after a reload.
#[tokio::test]
async fn the_facts_of_a_job() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = open(&b, &tolva, "").await;
    let day = b.field("Day", 0).await;
    b.fill(&day, "next week").await;
    b.shows("main [role=alert]", "Write the day as 2026-08-29").await;
    b.driver.refresh().await.expect("a reload");
    let day = b.field("Day", 0).await;
    b.holds(&day, "next week").await;
    b.fill(&day, "2026-09-05").await;
    tolva.holds(&id, "/date", "2026-09-05").await;
    b.close().await;
}

/// A job or setup that is not there says so and offers the way back.
#[tokio::test]
async fn what_is_not_there_is_said() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("jobs/none")).await;
    b.shows("h1", "This job cannot be opened").await;
    b.link("All jobs").await.click().await.expect("the way back");
    b.shows("h1", "Jobs").await;
    open(&b, &tolva, "/setups/none/light").await;
    b.shows("main", "This setup is not there").await;
    b.link("To the job").await.click().await.expect("the way back");
    b.shows("h1", "Ropeworks open day").await;
    b.close().await;
}
