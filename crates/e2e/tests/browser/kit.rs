//! The kit as a page of its own, and the quick sums.

use tolva_e2e::{Browser, Tolva};

/// Each thing once: changed on the kit's page, every setup follows; removed, the setup goes on and says so.
#[tokio::test]
async fn a_thing_is_changed_and_removed() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    b.go(&tolva.url("kit")).await;
    b.css("[aria-label^='Edit Medium head']").await.click().await.expect("the head");
    let number = b.field("Guide number, m at ISO 100, full power", 0).await;
    b.fill(&number, "nonsense").await;
    b.shows("[role=dialog]", "nonsense").await;
    b.fill(&number, "30").await;
    let recycle = b.field("Ready after a full pop, seconds", 0).await;
    b.fill(&recycle, "3.6").await;
    b.button("Done").await.click().await.expect("done");
    b.saved().await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/set"))).await;
    // Half the guide number is two stops.
    b.shows("[aria-label='Flash A']", "1/2").await;
    b.shows("main", "after 1.8 s").await;

    b.go(&tolva.url("kit")).await;
    b.css("[aria-label^='Remove Medium head']").await.click().await.expect("removed");
    b.saved().await;
    b.go(&tolva.url(&format!("jobs/{id}/setups/doorway/set"))).await;
    b.shows("[aria-label='Flash A']", "1/2").await;
    b.shows("main", "Medium head, 200 Ws (no longer in the kit)").await;
    b.button("Edit this unit").await.click().await.expect("the unit");
    b.shows("[role=dialog]", "is no longer in your kit").await;
    b.button("Put it back into the kit").await.click().await.expect("back");
    b.field("Guide number, m at ISO 100, full power", 0).await;
    b.close().await;
}

#[tokio::test]
async fn things_are_added_undone_and_clean_for_everyone() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("kit")).await;
    b.button("Add: Gel").await.click().await.expect("a gel");
    let name = b.field("Called", 0).await;
    b.fill(&name, "Window film").await;
    let shift = b.field("Shift, mired", 0).await;
    b.fill(&shift, "-20").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "the sheet");
    b.button("Done").await.click().await.expect("done");
    b.shows("main", "Window film").await;
    b.shows("main", "−20 mired").await;
    b.saved().await;
    b.css("[aria-label^='Undo: Gel']").await.click().await.expect("undo");
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new());
    b.size(390, 844).await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "at 390");
    assert_eq!(b.script("return document.documentElement.scrollWidth").await, 390);
    b.close().await;
}

/// A new job begins with what is owned, not with what Tolva once came with.
#[tokio::test]
async fn a_new_job_begins_with_what_is_owned() {
    let tolva = Tolva::empty();
    let b = Browser::open().await;
    b.go(&tolva.url("kit")).await;
    b.css("[aria-label^='Remove Medium head']").await.click().await.expect("removed");
    b.saved().await;
    b.go(&tolva.url("")).await;
    b.button("New job").await.click().await.expect("a job");
    b.shows("h1", "Lift, New job").await;
    let id = tolva.job_id("New job").await;
    let job = tolva.job(&id).await;
    let flash = job["setups"][0]["lights"][0]["flash_id"].as_str().expect("an id").to_owned();
    let owned: Vec<&str> =
        job["kit"]["flashes"].as_array().expect("flashes").iter().filter_map(|one| one["id"].as_str()).collect();
    assert!(!owned.contains(&"medium") && owned.contains(&flash.as_str()), "{flash} of {owned:?}");
    b.close().await;
}

/// Two windows change the same thing of the kit: the person chooses, and nothing is lost.
#[tokio::test]
async fn two_windows_change_the_kit() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("kit")).await;
    b.shows("main", "3-stop filter").await;
    let other = "return await (async () => { const kit = await (await fetch('/api/v1/kit')).json(); \
                 kit.kit.filters[0].name = 'Grey'; await fetch('/api/v1/kit', { method: 'PUT', headers: { 'Content-Type': \
                 'application/json' }, body: JSON.stringify({ based_on: kit.revision, change: 'Filter renamed', kit: \
                 kit.kit }) }); return kit.revision; })()";
    b.script(other).await;
    b.css("[aria-label^='Remove 3-stop filter']").await.click().await.expect("removed");
    b.shows("[role=dialog]", "The kit was saved elsewhere").await;
    b.button("Keep what is here").await.click().await.expect("mine");
    b.saved().await;
    let names = "return await (async () => (await (await fetch('/api/v1/kit')).json()).kit.filters.map((one) => one.name).join())()";
    let kept = b.script(names).await;
    assert_eq!(kept, "6-stop filter", "what is here is kept");
    b.close().await;
}

/// A file of one's own comes in over the button, and what is wrong in one is told with its line and lost nothing.
#[tokio::test]
async fn a_kit_comes_in_from_a_file() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("kit")).await;
    b.shows("main", "3-stop filter").await;
    let csv = b.script("return await (await fetch('/api/v1/kit/file?format=csv')).text()").await;
    let csv = csv.as_str().expect("the kit as CSV");
    let import = async |name: &str, text: String| {
        let file = tolva.folder().join(name);
        std::fs::write(&file, text).expect("a file");
        b.css("input[type=file]").await.send_keys(file.to_str().expect("a path")).await.expect("chosen");
    };
    import("mine.csv", csv.replace("3-stop filter", "Three stops in brass")).await;
    b.shows("main", "Three stops in brass").await;
    b.saved().await;
    import("broken.csv", csv.replace("3-stop filter", "")).await;
    b.shows("[role=alert]", "“broken.csv” was not imported").await;
    b.shows("[role=alert]", "name").await;
    b.shows("main", "Three stops in brass").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "with the refusal");
    b.driver.refresh().await.expect("again");
    b.shows("main", "Three stops in brass").await;
    b.close().await;
}

/// A camera's rated and safe sync, its electronic shutter and its dials: changed once, every plan follows.
#[tokio::test]
async fn a_cameras_own_limits_are_kept() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let doorway = tolva.url(&format!("jobs/{id}/setups/doorway/set"));
    b.go(&doorway).await;
    b.shows("[aria-label='Dial card']", "1/200").await;
    b.go(&tolva.url("kit")).await;
    b.css("[aria-label^='Edit Full frame']").await.click().await.expect("the camera");
    let safe = b.field("Safe sync", 0).await;
    b.fill(&safe, "1/100").await;
    b.button("Done").await.click().await.expect("done");
    b.saved().await;
    b.go(&doorway).await;
    b.shows("[aria-label='Dial card']", "1/100").await;
    b.close().await;
}

/// Reached by key from anywhere: a sum, its workings, a wrong number, another sum.
#[tokio::test]
async fn quick_sums_by_key() {
    let tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.shows("main", "Ropeworks open day").await;
    b.press("q").await;
    b.shows("[aria-label='Result']", "30.19 m").await;
    let focal = b.field("Focal length, mm", 0).await;
    b.fill(&focal, "50").await;
    b.shows("[aria-label='Result']", "10.47 m").await;
    b.fill(&focal, "5000").await;
    b.shows("[role=dialog]", "it must be from 4 to 1200").await;
    b.css("[role=dialog] button[aria-haspopup=listbox]").await.click().await.expect("the sums");
    b.xpath("//*[@role='option'][contains(., 'Set: Ballast in wind')]").await.click().await.expect("ballast");
    let wind = b.field("Wind, m/s", 0).await;
    b.fill(&wind, "10").await;
    b.shows("[aria-label='Result']", "59.54 N").await;
    b.shows("[role=dialog]", "Local rules and the stand's maker come first").await;
    assert_eq!(b.axe().await, Vec::<String>::new());
    b.close().await;
}
