//! A second browser as the phone: let in by a code, it ticks, and each sees at once what the other does.

use serde_json::Value;
use tolva_e2e::{Browser, Tolva, settle};

/// A phone that was let in, and the address it reaches Tolva by.
async fn let_in(tolva: &Tolva, laptop: &Browser, rights: Option<&str>) -> (Browser, String) {
    laptop.go(&tolva.url("phones")).await;
    let open = laptop.button("Let phones reach Tolva").await;
    open.click().await.expect("open");
    if let Some(rights) = rights {
        // The list comes a moment after what is chosen in it.
        laptop.css("section[aria-labelledby=new] button[aria-haspopup=listbox]").await;
        laptop.pick("It may", rights).await;
    }
    laptop.button("Show a code").await.click().await.expect("a code");
    laptop.css("img[alt^='The code as a picture']").await;
    let url = laptop.text("[data-testid=join]").await;
    let (origin, code) = url.split_once("/join").expect("an address");
    // The browser here knows this machine by one address only.
    let port = origin.rsplit(':').next().expect("a port");
    let origin = format!("https://127.0.0.1:{port}");
    let phone = Browser::open().await;
    phone.size(390, 844).await;
    phone.go(&format!("{origin}/join{code}")).await;
    let fingerprint = laptop.text("section[aria-labelledby=reach] p:last-of-type code").await;
    phone.shows("main", &fingerprint).await;
    let name = phone.css("#name").await;
    name.send_keys("Helper").await.expect("its name");
    phone.button("Join").await.click().await.expect("join");
    phone.link("Ropeworks open day").await;
    (phone, origin)
}

/// What is ticked on the phone shows on the laptop, and who is there; without a line ticks wait, and are sent once.
#[tokio::test]
async fn a_phone_ticks_and_the_laptop_shows_it() {
    let tolva = Tolva::with_demo_data();
    let laptop = Browser::open().await;
    let (phone, origin) = let_in(&tolva, &laptop, None).await;
    laptop.shows("ul[aria-label='Devices that were let in']", "Let in").await;
    let id = tolva.job_id("Ropeworks open day").await;
    laptop.go(&tolva.url(&format!("jobs/{id}/run/doorway"))).await;
    laptop.shows("section[aria-label='Shots']", "Shot 1 of 3").await;
    // It may not make jobs or bin them, and is not offered to; from the day it goes on to the setup that is next.
    phone.shows("main", "This device ticks and notes.").await;
    phone.gone("button[aria-label^='Put into the bin']").await;
    phone.go(&format!("{origin}/jobs/{id}")).await;
    phone.css("a[aria-label='Run Keeper in the rope-walk doorway']").await;
    phone.shows("main", "This device ticks and notes.").await;
    phone.gone("button[aria-label^='Duplicate'], button[aria-label^='Delete']").await;
    phone.go(&format!("{origin}/jobs/{id}/day")).await;
    phone.css("a[aria-label='Run Keeper in the rope-walk doorway']").await.click().await.expect("the run");
    laptop.shows("body", "Also here: Helper.").await;
    phone.css("button[aria-label^='Taken: Half length']").await.click().await.expect("a tick");
    laptop.shows("section[aria-label='Shots']", "Shot 2 of 3").await;

    // Without a line: the ticks wait on the phone. What is done on the laptop in the meantime stays.
    phone.cut(true).await;
    phone.css("button[aria-label^='Taken: Close']").await.click().await.expect("a tick");
    phone.shows("section[aria-label='Shots']", "Shot 3 of 3").await;
    laptop.css("button[aria-label='One frame of Close, straight into the lens']").await;
    laptop.css("summary").await;
    let note = laptop.field("Note", 0).await;
    laptop.fill(&note, "Wind turns").await;
    laptop.button("Note it").await.click().await.expect("noted");
    laptop.go(&tolva.url(&format!("jobs/{id}"))).await;
    laptop.fill(&laptop.field("Client", 0).await, "The harbour").await;
    laptop.press(tolva_e2e::Key::Tab).await;
    laptop.saved().await;
    phone.cut(false).await;
    settle(|| async {
        let job = tolva.job(&id).await;
        let done = job["setups"][0]["shots"][1]["taken"] == 6 && job["client"] == "The harbour";
        if done { Ok(()) } else { Err(format!("{} {}", job["setups"][0]["shots"], job["client"])) }
    })
    .await;
    let log: Value =
        reqwest::get(tolva.url(&format!("api/v1/jobs/{id}/log"))).await.expect("it").json().await.expect("JSON");
    let ticks = log["entries"].as_array().expect("lines").iter().filter(|one| one["kind"] == "tick");
    let who: Vec<_> = ticks.map(|one| one["who"].as_str()).collect();
    assert_eq!(who, [Some("Helper"), Some("Helper")], "each once");
    phone.link("Log").await.click().await.expect("the log");
    phone.shows("main", "Wind turns").await;
    laptop.go(&tolva.url("phones")).await;
    laptop.shows("main", "Helper may").await;
    assert_eq!(laptop.axe_in_both_themes().await, Vec::<String>::new());
    laptop.size(390, 844).await;
    assert_eq!(laptop.axe().await, Vec::<String>::new(), "on a phone");
    let wide = laptop.script("return document.documentElement.scrollWidth").await;
    assert!(wide.as_u64().is_some_and(|wide| wide <= 390), "{wide}");
    phone.close().await;
    laptop.close().await;
}

/// The same field changed on two devices while they cannot see each other is shown to whoever comes second; nothing is
/// merged in silence, and put out, a device is shown the way in again.
#[tokio::test]
async fn the_same_field_twice_is_shown() {
    let tolva = Tolva::with_demo_data();
    let laptop = Browser::open().await;
    let (phone, origin) = let_in(&tolva, &laptop, Some("Everything")).await;
    let id = tolva.job_id("Ropeworks open day").await;
    phone.go(&format!("{origin}/jobs/{id}")).await;
    phone.field("Client", 0).await;
    phone.cut(true).await;
    phone.fill(&phone.field("Client", 0).await, "By phone").await;
    phone.press(tolva_e2e::Key::Tab).await;
    let mut job = tolva.job(&id).await;
    job["client"] = "By laptop".into();
    tolva.save(&id, 1, &job).await;
    phone.cut(false).await;
    phone.shows("[role=alertdialog], [role=dialog]", "changed").await;
    assert_eq!(tolva.job(&id).await["client"], "By laptop", "nothing is merged in silence");

    laptop.go(&tolva.url("phones")).await;
    laptop.css("button[aria-label='Put out Helper']").await.click().await.expect("out");
    laptop.shows("main", "No device was let in yet.").await;
    phone.go(&format!("{origin}/jobs/{id}/log")).await;
    phone.shows("main", "This device was not let in yet.").await;
    phone.close().await;
    laptop.close().await;
}
