//! What a job was before, a job that cannot be read, and everything as it was on another day.

use serde_json::Value;
use sqlx::{ConnectOptions as _, Connection as _};
use tolva_e2e::{Browser, Tolva, settle};

/// Clean for everyone, in both themes and on a phone.
async fn clean(b: &Browser, what: &str) {
    assert_eq!(b.axe_in_both_themes().await, Vec::<String>::new(), "{what}");
    b.size(390, 844).await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "{what} at 390");
    assert_eq!(b.script("return document.documentElement.scrollWidth").await, 390, "{what}");
    b.size(1280, 900).await;
}

#[tokio::test]
async fn a_job_goes_back_to_what_it_was_and_a_state_keeps_its_name() {
    let tolva = Tolva::with_demo_data();
    let id = tolva.job_id("Ropeworks open day").await;
    let mut job = tolva.job(&id).await;
    for (number, client) in ["The first client", "The second client"].iter().enumerate() {
        job["client"] = (*client).into();
        tolva.save(&id, i64::try_from(number).expect("small") + 1, &job).await;
    }
    let b = Browser::open().await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    let client = b.field("Client", 0).await;
    b.holds(&client, "The second client").await;
    b.button("What it was before").await.click().await.expect("the past");
    b.shows("[role=dialog]", "Shown now").await;
    b.css("[role=dialog] ol > li:nth-child(2) [aria-label^='Name it']").await.click().await.expect("a name");
    let name = b.css("ol input").await;
    b.fill(&name, "As agreed").await;
    b.button("Keep under this name").await.click().await.expect("kept");
    b.shows("[role=dialog] ol > li:nth-child(2)", "As agreed.").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "the past");
    b.css("[role=dialog] ol > li:nth-child(2) [aria-label^='Go back to it']").await.click().await.expect("back");
    let client = b.field("Client", 0).await;
    b.holds(&client, "The first client").await;
    b.css("[aria-label^='Redo']").await.click().await.expect("forward");
    b.holds(&client, "The second client").await;
    assert_eq!(b.console_errors().await, Vec::<String>::new());
    b.close().await;
}

/// One job that cannot be read hides no other, says what can be done, and is set back.
#[tokio::test]
async fn a_job_that_cannot_be_read_is_set_back() {
    let mut tolva = Tolva::with_demo_data();
    let id = tolva.job_id("Harvest supper at the mill").await;
    let mut job = tolva.job(&id).await;
    job["client"] = "Another client".into();
    tolva.save(&id, 1, &job).await;
    tolva.kill();
    let file = sqlx::sqlite::SqliteConnectOptions::new().filename(tolva.folder().join("tolva.sqlite"));
    let mut file = file.connect().await.expect("the data file");
    let broken = "UPDATE revisions SET content = CAST('{\"format\"' AS BLOB) WHERE document_id = ? AND number = 2";
    sqlx::query(broken).bind(&id).execute(&mut file).await.expect("broken");
    file.close().await.expect("closed");
    tolva.run();
    let b = Browser::open().await;
    b.go(&tolva.url(&format!("jobs/{id}"))).await;
    b.shows("h1", "This job cannot be opened").await;
    clean(&b, "a job that cannot be read").await;
    b.go(&tolva.url("")).await;
    b.shows("main", "This job cannot be read.").await;
    b.shows("main", "Ropeworks open day").await;
    b.link("Harvest supper at the mill").await.click().await.expect("the job");
    b.link("Export as it stands").await;
    b.button("What it was before").await.click().await.expect("the past");
    b.css("[role=dialog] ol > li:nth-child(2) [aria-label^='Go back to it']").await.click().await.expect("back");
    b.shows("h1", "Harvest supper at the mill").await;
    assert_ne!(tolva.job(&id).await["client"], "Another client");
    b.close().await;
}

#[tokio::test]
async fn a_backup_shows_what_it_would_bring_back_and_does() {
    let tolva = Tolva::with_demo_data();
    let backups = tolva.url("api/v1/backups");
    // It is made at the start, while the first pages are already served.
    settle(async || {
        let list: Value = reqwest::get(&backups).await.expect("an answer").json().await.expect("a list");
        if list["backups"][0].is_object() { Ok(()) } else { Err("there is no backup".to_owned()) }
    })
    .await;
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.css("[aria-label='Put into the bin: Harvest supper at the mill']").await.click().await.expect("binned");
    b.shows("main", "A job stays here for 60 days.").await;
    b.xpath("//h2[.='Backups']/following::li/button").await.click().await.expect("the backup");
    b.shows("[role=dialog]", "Would be again as they were then").await;
    b.shows("[role=dialog]", "Harvest supper at the mill").await;
    assert_eq!(b.axe().await, Vec::<String>::new(), "a backup");
    b.button("Bring everything back").await.click().await.expect("brought back");
    b.css("[aria-label='Put into the bin: Harvest supper at the mill']").await;
    b.shows("main", "Before a restore").await;
    b.close().await;
}

#[tokio::test]
async fn many_jobs_come_page_by_page_and_are_found_by_their_words() {
    let tolva = Tolva::with_demo_data();
    let id = tolva.job_id("Ropeworks open day").await;
    let mut job = tolva.job(&id).await;
    for number in 0..56 {
        job["name"] = format!("Quay {number}").into();
        let answer = reqwest::Client::new().post(tolva.url("api/v1/jobs")).json(&job).send().await.expect("an answer");
        assert!(answer.status().is_success());
    }
    let b = Browser::open().await;
    b.go(&tolva.url("")).await;
    b.shows("main", "Quay 55").await;
    b.button("Show more of the 62 jobs").await.click().await.expect("more");
    b.shows("main", "Bindery evening").await;
    let find = b.field("Find a job", 0).await;
    b.fill(&find, "foundry cond").await;
    b.shows("main", "Brass band in the old foundry").await;
    settle(
        async || if b.text("main").await.contains("Quay") { Err("the others still show".to_owned()) } else { Ok(()) },
    )
    .await;
    b.fill(&find, "nothing such").await;
    b.shows("main", "No job has such words.").await;
    clean(&b, "the list of jobs").await;
    b.close().await;
}
