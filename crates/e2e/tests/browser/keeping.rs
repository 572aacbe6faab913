//! Nothing is lost: reloads, killed servers, two windows, bad fields, files.

use tolva_e2e::{Browser, By, Key, Tolva, settle};

#[tokio::test]
async fn everything_is_as_it_was_left() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let page = tolva.url(&format!("jobs/{id}/setups/doorway/blend"));
    b.go(&page).await;
    let background = b.field("Behind, stops", 0).await;
    b.fill(&background, "−2").await;
    b.shows("[aria-label='Answer']", "Behind at −2").await;
    b.saved().await;
    tolva.kill();
    tolva.run();
    b.go(&page).await;
    b.shows("[aria-label='Answer']", "Behind at −2").await;
    // Undo goes back through what was done before the kill.
    b.button("Undo: Lift: behind").await.click().await.expect("undo");
    b.shows("[aria-label='Answer']", "Behind at −1⅓").await;
    b.close().await;
}

/// The server is gone while a change is made: it is said, kept in the browser, and saved when the server is back.
#[tokio::test]
async fn a_change_without_a_server_is_kept_and_saved_later() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    let client = b.field("Client", 0).await;
    tolva.kill();
    b.fill(&client, "Harbour school").await;
    b.shows("header [role=status]", "Not saved: kept in this browser").await;
    tolva.run();
    b.saved().await;
    tolva.holds(&id, "/client", "Harbour school").await;

    // The same with a window that is closed before the server is back.
    let notes = b.field("Notes", 0).await;
    tolva.kill();
    b.fill(&notes, "Bring the ladder").await;
    b.shows("header [role=status]", "Not saved").await;
    b.go("about:blank").await;
    tolva.run();
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    b.saved().await;
    settle(|| async {
        let notes = tolva.job(&id).await["notes"].clone();
        if notes == "Bring the ladder" { Ok(()) } else { Err(format!("notes are {notes}")) }
    })
    .await;
    b.close().await;
}

#[tokio::test]
async fn two_windows_never_overwrite_each_other() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let page = tolva.url(&format!("jobs/{id}"));
    b.go(&page).await;
    b.field("Client", 0).await;
    let first = b.driver.window().await.expect("the first window");
    let second = b.driver.new_tab().await.expect("a second one");
    b.driver.switch_to_window(second.clone()).await.expect("there");
    b.go(&page).await;
    let place = b.field("Place", 0).await;
    b.fill(&place, "East quay").await;
    b.saved().await;

    // Who comes back to a window sees what was done in the other one.
    b.driver.switch_to_window(first).await.expect("back");
    b.holds(&b.field("Place", 0).await, "East quay").await;
    let mut theirs = tolva.job(&id).await;
    theirs["place"] = "West quay".into();
    tolva.save(&id, 2, &theirs).await;
    // What was done there and what is done here go together.
    b.fill(&b.field("Client", 0).await, "Tide committee").await;
    b.press(Key::Tab).await;
    tolva.holds(&id, "/client", "Tide committee").await;
    tolva.holds(&id, "/place", "West quay").await;

    b.close().await;
}

/// Taking the other window's version loses nothing either: redo comes back to what was here.
#[tokio::test]
async fn the_other_version_is_taken_and_redo_comes_back() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    let client = b.field("Client", 0).await;
    // Another program saves while this page cannot see it, through the API.
    b.cut(true).await;
    let mut theirs = tolva.job(&id).await;
    theirs["place"] = "West quay".into();
    theirs["client"] = "Quay trust".into();
    tolva.save(&id, 1, &theirs).await;
    b.fill(&client, "Tide committee").await;
    b.press(Key::Tab).await;
    b.cut(false).await;
    b.shows("[role=dialog]", "Changed in another window").await;
    b.button("Take the other one").await.click().await.expect("theirs");
    // The server had it all along: it is taken once the page shows it.
    b.holds(&b.field("Place", 0).await, "West quay").await;
    b.holds(&b.field("Client", 0).await, "Quay trust").await;
    let job = tolva.job(&id).await;
    assert_eq!((job["client"].as_str(), job["place"].as_str()), (Some("Quay trust"), Some("West quay")));
    b.css("[aria-label^='Redo:']").await.click().await.expect("redo");
    settle(|| async {
        let client = tolva.job(&id).await["client"].clone();
        if client == "Tide committee" { Ok(()) } else { Err(format!("the client is {client}")) }
    })
    .await;
    b.close().await;
}

/// Typing quickly into many fields is one conversation with the server, never a quarrel with oneself.
#[tokio::test]
async fn quick_typing_never_conflicts_with_itself() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    for round in 0..3 {
        for name in ["Client", "Place", "Notes"] {
            let field = b.field(name, 0).await;
            b.fill(&field, &format!("{name} {round}")).await;
        }
        b.chord(Key::Control, 'z').await;
    }
    let field = b.field("Client", 0).await;
    b.fill(&field, "The last word").await;
    b.saved().await;
    settle(|| async {
        let client = tolva.job(&id).await["client"].clone();
        if client == "The last word" { Ok(()) } else { Err(format!("the client is {client}")) }
    })
    .await;
    let dialogs = b.driver.find_all(By::Css("[role=dialog]")).await.expect("a search");
    assert!(dialogs.is_empty());
    b.close().await;
}

#[tokio::test]
async fn a_bad_field_says_what_is_allowed_and_keeps_what_was_typed() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/light"))).await;
    let reading = b.field("Reading", 0).await;
    b.fill(&reading, "quite bright").await;
    b.shows("main [role=alert]", "“quite bright” is not a reading").await;
    b.shows("main [role=alert]", "1/250, f/8, ISO 100").await;
    b.driver.refresh().await.expect("a reload");
    b.shows("main [role=alert]", "“quite bright”").await;
    let reading = b.field("Reading", 0).await;
    b.holds(&reading, "quite bright").await;
    b.fill(&reading, "12.9").await;
    settle(|| async {
        let left = b.driver.find_all(By::Css("main [role=alert]")).await.map(|all| all.len()).unwrap_or_default();
        if left == 0 { Ok(()) } else { Err("it still says that it is wrong".to_owned()) }
    })
    .await;
    b.link("Set").await.click().await.expect("the lights");
    let distance = b.field("Distance to the subject", 0).await;
    b.fill(&distance, "0").await;
    b.shows("main [role=alert]", "write 1.5 m").await;
    b.fill(&distance, "80 m").await;
    b.shows("main [role=alert]", "from 0.10 m to 50.00 m").await;
    b.close().await;
}

#[tokio::test]
async fn a_job_goes_out_as_a_file_and_comes_in_elsewhere() {
    let tolva = Tolva::with_demo_data();
    let elsewhere = Tolva::empty();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    let address = b.link("Export as a file").await.attr("href").await.expect("an address").expect("one");
    let file = reqwest::get(tolva.url(address.trim_start_matches('/'))).await.expect("the file");
    assert!(file.headers()["content-disposition"].to_str().expect("text").contains("ropeworks-open-day.tolva.json"));
    let good = elsewhere.folder().join("job.json");
    std::fs::write(&good, file.bytes().await.expect("its bytes")).expect("written");

    b.go(&elsewhere.url("")).await;
    b.button("Import a file").await;
    let chooser = b.driver.find(By::Css("input[type=file]")).await.expect("the chooser");
    let bad = elsewhere.folder().join("bad.json");
    let text = std::fs::read_to_string(&good).expect("read").replace("\"distance_m\": 1.5", "\"distance_m\": -1.5");
    std::fs::write(&bad, text).expect("written");
    chooser.send_keys(bad.display().to_string()).await.expect("a bad file");
    b.shows("main [role=alert]", "setup 1, light 1, Distance to the subject: -1.5 is not allowed here").await;

    let chooser = b.driver.find(By::Css("input[type=file]")).await.expect("the chooser");
    chooser.send_keys(good.display().to_string()).await.expect("a good file");
    b.shows("h1", "Ropeworks open day").await;
    let there = elsewhere.job_id("Ropeworks open day").await;
    assert_eq!(elsewhere.job(&there).await, tolva.job(&id).await);
    b.close().await;
}

#[tokio::test]
async fn the_bin_gives_jobs_back() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.button("Put into the bin: Harvest supper at the mill").await.click().await.expect("binned");
    b.button("Take out of the bin: Harvest supper at the mill").await.click().await.expect("given back");
    b.button("Put into the bin: Harvest supper at the mill").await;
    b.close().await;
}

/// An edit that an older Tolva left in this browser, in the format it had then, is taken up and saved.
#[tokio::test]
async fn an_edit_from_before_an_upgrade_is_not_lost() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url("")).await;
    b.link("Ropeworks open day").await;
    let old = include_str!("../../../format/tests/data/job-version-1.json").replace("12.6", "13.4");
    let draft = serde_json::json!({ "based_on": 1, "change": "Reading of Behind", "job": serde_json::from_str::<serde_json::Value>(&old).expect("a job") });
    let key = serde_json::json!(format!("tolva.draft.{id}"));
    b.script(&format!("localStorage.setItem({key}, JSON.stringify({draft}))")).await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/light"))).await;
    b.shows("main", "EV 13.4").await;
    tolva.holds(&id, "/setups/0/regions/0/ambient/readings/0/reading/ev/ev100", 13.4).await;
    tolva.holds(&id, "/format_version", 11).await;
    b.close().await;
}
