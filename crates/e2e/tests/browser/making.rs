//! Making a setup, reading the answer, and what is done when a wish cannot be had.

use serde_json::Value;
use tolva_e2e::{Browser, Tolva, settle};

/// From nothing to settings: the worked example of the first slice, typed in by hand.
#[tokio::test]
async fn a_setup_from_nothing() {
    let tolva = Tolva::empty();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.shows("main", "No jobs yet").await;
    b.button("New job").await.click().await.expect("a new job");
    // It begins at its first setup, and is named there.
    b.shows("main h2", "Place and hour").await;
    let name = b.field("Name of the job", 0).await;
    b.fill(&name, "Mill portraits").await;
    b.shows("header h1", "Lift, Mill portraits").await;
    b.menu("This setup, and new ones", "New setup").await;
    b.shows("header h1", "Lift 2, Mill portraits").await;
    b.shows("aside", "Not read yet").await;
    b.link("Light that is there").await.click().await.expect("the light");
    for (nth, reading) in ["EV 13", "1/30 f/8 ISO 100", "2560 lx"].into_iter().enumerate() {
        let field = b.field("Reading", nth).await;
        b.fill(&field, reading).await;
    }
    // 1/30 (exactly 1/32) at f/8 is EV 11; 2560 lx over 2.5 is 2^10.
    b.shows("main", "EV 11.0").await;
    b.shows("main", "EV 10.0").await;
    b.link("Blend").await.click().await.expect("the blend");
    b.shows("[aria-label='Dial card']", "1/200").await;
    b.shows("[aria-label='Dial card']", "f/9").await;
    b.shows("[aria-label='Flash A']", "1/8").await;
    b.shows("[aria-label='Flash A']", "−2.88 stops").await;
    b.shows("[aria-label='Answer']", "As wished: Behind at −1, Face, lit side at 0.").await;
    b.saved().await;
    let id = tolva.job_id("Mill portraits").await;
    tolva.holds(&id, "/setups/1/regions/1/ambient/readings/0/reading/camera/f_number", 8.0).await;
    tolva.holds(&id, "/setups/2", Value::Null).await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// Every blend, by a click, with what it does to the card.
#[tokio::test]
async fn each_blend_and_what_it_asks() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    for (blend, answer, flash) in [
        ("Fill", "Face, lit side at +⅓", "1/"),
        ("Half and half", "Face, lit side at 0", "1/"),
        ("Overpower", "Face, lit side at 0", "1/"),
        ("Silhouette", "Not as wished", "off"),
        ("Ambient only", "Face, lit side at 0", "off"),
        ("Lift", "Behind at −1, Face, lit side at 0", "1/16 +⅔"),
    ] {
        b.xpath(&format!("//label[.//strong='{blend}']")).await.click().await.expect("the blend");
        b.shows("[aria-label='Answer']", answer).await;
        b.shows("[aria-label='Flash A']", flash).await;
    }
    b.close().await;
}

#[tokio::test]
async fn a_wish_that_cannot_be_had_and_the_way_out() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/noon-quay/blend"))).await;
    b.shows("[aria-label='Answer']", "5⅓ stops brighter than wished").await;
    b.shows("[aria-label='Answer']", "The nearest: Behind at +4⅓").await;
    b.css("[aria-label^='Do this: Put the 6-stop filter']").await.click().await.expect("the way out");
    b.shows("[aria-label='Answer']", "As wished").await;
    b.shows("[aria-label='Dial card']", "6-stop ND").await;
    b.saved().await;
    b.css("[aria-label^='Undo: Put the 6-stop']").await.click().await.expect("undo");
    b.shows("[aria-label='Answer']", "Not as wished").await;
    b.close().await;
}

/// Shutter, aperture, ISO, power and distance: each fixed, and each given back.
#[tokio::test]
async fn what_is_fixed_and_what_is_left_to_tolva() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/depth"))).await;
    let aperture = b.field("Aperture, fixed", 0).await;
    b.fill(&aperture, "f5.6").await;
    b.shows("[aria-label='Answer']", "1⅓ stops brighter").await;
    b.button("Aperture, fixed: leave to Tolva").await.click().await.expect("given back");
    b.shows("[aria-label='Answer']", "As wished").await;

    // On the dial card itself, from its list.
    b.dial("ISO").await.click().await.expect("the ISO");
    b.xpath("//*[@role='option'][normalize-space()='ISO 200']").await.click().await.expect("ISO 200");
    b.shows("[aria-label='Dial card']", "fixed").await;
    b.dialled("ISO", "200").await;

    b.link("Set").await.click().await.expect("the lights");
    let power = b.field("Power, fixed, stops under full", 0).await;
    b.fill(&power, "-4").await;
    b.shows("[aria-label='Flash A']", "1/16").await;
    b.button("Distance to the subject: leave to Tolva").await.click().await.expect("given back");
    settle(|| async {
        let card = b.text("[aria-label='Flash A']").await;
        let given = !card.contains("1.50 m") && card.contains(" m\n");
        if given { Ok(()) } else { Err(format!("the distance is not Tolva's: {card}")) }
    })
    .await;
    b.saved().await;
    b.close().await;
}

/// A unit of one's own: a reading instead of a guide number, in feet.
#[tokio::test]
async fn the_kit_is_edited_and_numbers_shown_as_wished() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/set"))).await;
    b.button("Edit this unit").await.click().await.expect("the unit");
    let number = b.field("Guide number, m at ISO 100, full power", 0).await;
    b.fill(&number, "120").await;
    b.button("Done").await.click().await.expect("done");
    // Twice the guide number is two stops.
    b.shows("[aria-label='Flash A']", "1/32").await;

    b.button("Edit this modifier").await.click().await.expect("the modifier");
    b.button("Add another like it, and use that").await.click().await.expect("another");
    b.css("[value='Octagon, 90 cm, copy']").await;
    b.button("Done").await.click().await.expect("done");
    b.shows("[aria-label='Flash A']", "Octagon, 90 cm, copy").await;

    b.button("How numbers are shown").await.click().await.expect("how");
    b.xpath("//label[normalize-space()='Feet and inches']").await.click().await.expect("feet");
    b.xpath("//label[normalize-space()='−1⅔ stops']").await.click().await.expect("stops");
    b.button("Close").await.click().await.expect("closed");
    b.shows("[aria-label='Flash A']", "4 ft 11 in").await;
    b.shows("[aria-label='Flash A']", "−5").await;
    b.saved().await;
    b.close().await;
}
