//! The server is gone and the page is opened anew: what was last known is there with its age, and what is done goes in later.

use tolva_e2e::{Browser, Tolva, settle};

/// Waits until a script's answer is true.
async fn so(b: &Browser, script: &str) {
    settle(|| async {
        let found = b.script(script).await;
        if found == true { Ok(()) } else { Err(format!("{script} is {found}")) }
    })
    .await;
}

#[tokio::test]
async fn the_last_known_job_is_there_without_a_server() {
    let mut tolva = Tolva::with_demo_data();
    let b = Browser::open().await;
    let id = tolva.job_id("Ropeworks open day").await;
    let page = tolva.url(&format!("jobs/{id}/setups/doorway/set"));
    b.go(&page).await;
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    // What is kept for later comes when nothing else is to be done.
    so(&b, "return caches.match('/').then((page) => page !== undefined)").await;
    so(&b, "return caches.open('tolva-plans-1').then((all) => all.keys()).then((keys) => keys.length > 0)").await;
    b.go(&page).await;
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    so(&b, "return navigator.serviceWorker.controller !== null").await;
    so(&b, "return caches.match(new URL(`/api/v1/jobs/${location.pathname.split('/')[2]}`, location.href).href).then((job) => job !== undefined)").await;

    tolva.kill();
    b.go(&page).await;
    b.shows("[aria-label='Flash A']", "1.50 m").await;
    b.shows("[role=alert]", "Tolva has not answered since").await;
    b.shows("[role=alert]", "was saved").await;
    b.shows("[aria-label='Dial card'] h2", "older than what is set").await;
    b.xpath("//label[normalize-space()='Warm half']").await.click().await.expect("a gel");
    let distance = b.field("Distance to the subject", 0).await;
    b.fill(&distance, "2.5").await;
    b.shows("header [role=status]", "Not saved: kept in this browser").await;
    // Also when it is closed and opened once more.
    b.go(&page).await;
    b.holds(&b.field("Distance to the subject", 0).await, "2.5").await;
    b.css("label[data-selected] input[value='warm-half'], input[value='warm-half']:checked").await;

    tolva.run();
    settle(|| async {
        let light = tolva.job(&id).await["setups"][0]["lights"][0].clone();
        let done = light["distance_m"] == 2.5 && light["gel_ids"][0] == "warm-half";
        if done { Ok(()) } else { Err(light.to_string()) }
    })
    .await;
    b.saved().await;
    b.close().await;
}

/// What makes a page one that can be installed: a manifest with icons that are there, and what works without a server.
#[tokio::test]
async fn the_page_can_be_installed() {
    let tolva = Tolva::empty();
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.shows("main", "No jobs yet").await;
    let manifest: serde_json::Value =
        reqwest::get(tolva.url("manifest.webmanifest")).await.expect("it is there").json().await.expect("JSON");
    assert_eq!((&manifest["display"], &manifest["start_url"]), (&"standalone".into(), &"/".into()));
    for icon in manifest["icons"].as_array().expect("icons") {
        let source = icon["src"].as_str().expect("an address").trim_start_matches('/');
        let answer = reqwest::get(tolva.url(source)).await.expect("it is there");
        assert!(answer.status().is_success(), "{source}");
        assert_eq!(answer.headers()["content-type"], icon["type"].as_str().expect("a type"), "{source}");
    }
    let wrong =
        b.driver.cdp().send_raw("Page.getInstallabilityErrors", serde_json::json!({})).await.expect("an answer");
    let wrong = wrong["installabilityErrors"].as_array().cloned().unwrap_or_default();
    let wrong: Vec<_> = wrong.iter().filter(|one| one["errorId"] != "in-incognito").collect();
    assert!(wrong.is_empty(), "{wrong:?}");
    // The faces come with the page.
    let fonts = b.script("return document.querySelectorAll('link[rel=preload][as=font]').length").await;
    assert_eq!(fonts, 2);
    b.close().await;
}
