//! Several lights, depth and speed, other ways, schools, and the trigger.

use tolva_e2e::{Browser, Tolva};

async fn at(setup: &str, step: &str) -> (Tolva, Browser) {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Brass band in the old foundry").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/{setup}/{step}"))).await;
    (tolva, b)
}

/// Four lights with a letter each on card and rail; one more, turned into what it is there for, and taken away.
#[tokio::test]
async fn lights_are_added_aimed_and_removed() {
    let (tolva, b) = at("conductor", "set").await;
    for letter in ["A", "B", "C", "D"] {
        b.css(&format!("[aria-label='Flash {letter}']")).await;
    }
    b.css("[aria-label^='Horns on the wall, flash D']").await;
    b.button("Add a light").await.click().await.expect("a fifth");
    b.shows("[role=tab][aria-selected=true]", "E\nfill").await;
    b.pick("It is there as", "A light on its own region").await;
    b.shows("[role=tab][aria-selected=true]", "E\nbackground").await;
    let place = b.field("Its region at, stops", 0).await;
    b.fill(&place, "-0.33").await;
    b.css("[aria-label^='Casting hall, flash E']").await;
    b.button("Remove this light").await.click().await.expect("removed");
    b.shows_no_more("[aria-label='Lights']", "E").await;
    b.saved().await;
    let id = tolva.job_id("Brass band in the old foundry").await;
    tolva
        .holds_where(&id, "/setups/0/lights", |lights| lights.as_array().is_some_and(|lights| lights.len() == 4))
        .await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// The background's own mark is dragged: its wish follows, the ambient stays.
#[tokio::test]
async fn one_lights_mark_is_dragged() {
    let (_tolva, b) = at("conductor", "blend").await;
    b.shows("[aria-label='Dial card']", "1/50").await;
    let horns = b.mark("Horns on the wall, together").await;
    b.drag(&horns, 47).await;
    b.shows("[aria-label='Answer']", "As wished").await;
    b.has("[aria-label^='Horns on the wall, together']", "aria-valuetext", "0 stops").await;
    b.shows("[aria-label='Dial card']", "1/50").await;
    b.close().await;
}

/// Gels, units, bounce and turning each go into the power at once.
#[tokio::test]
async fn what_is_before_a_light_goes_into_its_power() {
    let (_tolva, b) = at("conductor", "set").await;
    b.shows("[aria-label='Flash A']", "1/128 +⅔").await;
    b.xpath("//label[normalize-space()='Warm full']").await.click().await.expect("a gel");
    b.shows("[aria-label='Flash A']", "1/64 +⅔").await;
    let units = b.field("Units side by side", 0).await;
    b.fill(&units, "2").await;
    b.shows("[aria-label='Flash A']", "2 × Medium head").await;
    b.shows("[aria-label='Flash A']", "1/128 +⅔").await;
    let turned = b.field("Turned away, degrees", 0).await;
    b.fill(&turned, "120").await;
    b.shows("main", "it must be from 0 to 85 degrees").await;
    b.fill(&turned, "60").await;
    b.shows("[aria-label='Flash A']", "1/64").await;
    b.close().await;
}

/// Rows, what counts as sharp, a tripod, what moves: aperture, focus and floor follow.
#[tokio::test]
async fn depth_and_speed_follow_from_the_picture() {
    let (_tolva, b) = at("band", "depth").await;
    b.shows("[aria-label='Dial card']", "f/9").await;
    b.shows("dl[aria-label='Depth']", "from 6.00 m to 8.05 m").await;
    b.pick("What counts as sharp", "A screen or small print").await;
    b.shows("[aria-label='Dial card']", "f/3.5").await;
    b.shows("dl[aria-label='Speed']", "none on a tripod").await;
    b.xpath("//label[normalize-space()='By hand']").await.click().await.expect("by hand");
    b.shows("dl[aria-label='Speed']", "1/70 s by one over the focal length").await;
    b.pick("What moves", "Dancing, 2 m/s").await;
    b.shows("dl[aria-label='Speed']", "2 m/s, in 3 pixels of blur").await;
    b.shows("dl[aria-label='Pace and stamina']", "quicker than the 4 s there are").await;
    b.close().await;
}

#[tokio::test]
async fn close_up_is_by_magnification() {
    let (_tolva, b) = at("valve", "depth").await;
    b.shows("dl[aria-label='Depth']", "0.23 m to the subject").await;
    b.shows("dl[aria-label='Depth']", "frames,").await;
    b.shows("dl[aria-label='Pace and stamina']", "The stack").await;
    b.xpath("//label[normalize-space()='Taken as a stack of frames']").await.click().await.expect("one frame");
    b.shows("[aria-label='Answer']", "The depth asks for").await;
    b.css("[aria-label='Do this: Take a stack of frames']").await.click().await.expect("the way out");
    b.shows("[aria-label='Answer']", "As wished").await;
    b.close().await;
}

/// By key: the other ways, an order of one's own, and one of them taken.
#[tokio::test]
async fn another_way_is_a_click_away() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/blend"))).await;
    b.shows("[aria-label='Dial card']", "f/9").await;
    b.press("w").await;
    b.shows("[role=dialog]", "comes first: ").await;
    b.shows("[role=dialog]", "What binds: The sync speed").await;
    b.button("Low power: earlier").await.click().await.expect("earlier");
    b.shows("[role=dialog]", "3. Low power").await;
    let way = b.css("[aria-label^='Take this way: At f/3.2 in high-speed sync']").await;
    way.click().await.expect("high speed");
    b.shows("[aria-label='Dial card']", "f/3.2").await;
    b.shows("[aria-label='Dial card']", "1/1600").await;
    b.saved().await;
    b.css("[aria-label^='Undo: At f/3.2']").await.click().await.expect("undo");
    b.shows("[aria-label='Dial card']", "f/9").await;
    b.close().await;
}

/// A school is chosen, remembered, and the next setup begins with it.
#[tokio::test]
async fn schools_are_compared_chosen_and_remembered() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/yard/depth"))).await;
    b.shows("[aria-label='Dial card']", "f/11").await;
    b.button("Schools").await.click().await.expect("schools");
    b.button("Choose Slowest shutter by hand: One over twice the focal length").await.click().await.expect("twice");
    b.shows("[aria-label='Slowest shutter by hand'] [data-chosen]", "One over twice").await;
    b.button("Remember these for new setups").await.click().await.expect("remembered");
    b.button("Done").await.click().await.expect("done");
    b.saved().await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    b.button("New setup").await.click().await.expect("a new setup");
    b.link("Depth and speed").await.click().await.expect("depth");
    b.shows("dl[aria-label='Speed']", "by one over twice the focal length").await;
    b.close().await;
}

/// Powers are sent and reported back; a frame too soon after another is shown, not ignored.
#[tokio::test]
async fn the_trigger_reports_back() {
    let (_tolva, b) = at("valve", "set").await;
    b.button("Send the powers").await.click().await.expect("sent");
    b.shows("[aria-label='What the units report']", "A is ready").await;
    b.button("Take a test frame").await.click().await.expect("a frame");
    b.shows("[aria-label='What the units report']", "It flashed").await;
    let distance = b.field("Distance to the subject", 0).await;
    b.fill(&distance, "48").await;
    // The trigger sends what is on screen: the distance is read by the server first.
    b.shows("[aria-label='Dial card']", "48.00 m").await;
    b.button("Send the powers").await.click().await.expect("sent");
    b.shows("[aria-label='What the units report']", "Out of reach").await;
    b.close().await;
}
