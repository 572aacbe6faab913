//! The log, the devices, and the jobs in their orders.

use super::*;
use tolva_format::{Deed, DeedKind};

fn on(day: &str, name: &str) -> Job {
    let mut job = named(name);
    day.clone_into(&mut job.date);
    job
}

async fn names(store: &Store, listing: &Listing) -> Vec<String> {
    let page = store.jobs(listing).await.expect("a list");
    page.jobs.into_iter().map(|job| job.name).collect()
}

/// Every deed is a line, whoever did it; what changes nothing is none.
#[tokio::test]
async fn deeds_are_lines() {
    let (store, _folder) = store().await;
    let id = store.add(&named("Mill"), "New job", None).await.expect("added").id;
    let mut job = named("Mill");
    job.packed.out.push("stand/a".to_owned());
    let act = Act { who: "Helper", ..Act::on(1, "Stand packed") };
    store.save(&id, &act, &job).await.expect("saved");
    store.save(&id, &Act::on(2, "Nothing"), &job).await.expect("saved");
    store.step(&id, &Act::on(2, "Undo"), true).await.expect("undone");
    store.step(&id, &Act::on(1, "Redo"), false).await.expect("redone");
    store.set_back(&id, &Act::on(2, "Set back"), 1).await.expect("set back");
    let lines = store.log(&id).await.expect("a log");
    let said: Vec<_> = lines.iter().map(|line| (line.kind.as_str(), line.says.as_str(), line.who.as_str())).collect();
    assert_eq!(
        said,
        [
            ("made", "New job", ""),
            ("packed", "Stand packed", "Helper"),
            ("undone", "Stand packed", ""),
            ("redone", "Stand packed", ""),
            ("set_back", "New job", ""),
        ]
    );
    assert!(lines.windows(2).all(|two| two[0].number < two[1].number && two[0].at <= two[1].at));
    assert!(matches!(store.log("none").await, Err(StoreError::NoSuchJob(_))));
}

/// A note that is sent twice under one key is one; without a key each is one by itself.
#[tokio::test]
async fn a_note_is_noted_once() {
    let (store, _folder) = store().await;
    let id = store.add(&named("Mill"), "New job", None).await.expect("added").id;
    let deed = Deed { kind: DeedKind::Note, setup_id: Some("setup-1".to_owned()) };
    for key in [Some("one"), Some("one"), Some("two"), None, None] {
        store.note(&id, "Helper", (&deed, "Windy"), key).await.expect("noted");
    }
    let lines = store.log(&id).await.expect("a log");
    assert_eq!(lines.iter().filter(|line| line.setup_id.as_deref() == Some("setup-1")).count(), 4);
    assert!(matches!(store.note("none", "", (&deed, "Windy"), None).await, Err(StoreError::NoSuchJob(_))));
}

/// Jobs by day and by name, page after page: each once, in order, those without a day last.
#[tokio::test]
async fn jobs_come_in_the_order_that_is_asked_for() {
    let (store, _folder) = store().await;
    for (day, name) in [("2026-10-03", "mill"), ("", "Attic"), ("2026-08-29", "Quay"), ("2026-10-03", "Bindery")] {
        store.add(&on(day, name), "New job", None).await.expect("added");
    }
    let paged = async |sort: Sort, search: &str| {
        let mut listing = Listing { sort, limit: 1, search: search.to_owned(), ..Listing::default() };
        let mut all = Vec::new();
        loop {
            let page = store.jobs(&listing).await.expect("a page");
            all.extend(page.jobs.into_iter().map(|job| job.name));
            listing.after = page.next;
            if listing.after.is_none() {
                return all;
            }
        }
    };
    assert_eq!(paged(Sort::Day, "").await, ["Quay", "mill", "Bindery", "Attic"]);
    assert_eq!(paged(Sort::Name, "").await, ["Attic", "Bindery", "mill", "Quay"]);
    assert_eq!(paged(Sort::Name, "2026-10-03").await, ["Bindery", "mill"]);
    assert_eq!(
        names(&store, &Listing { sort: Sort::Day, binned: true, ..Listing::default() }).await,
        Vec::<String>::new()
    );
    assert_eq!(store.jobs(&Listing { sort: Sort::Day, ..Listing::default() }).await.expect("a page").total, 4);
}

/// The next job is the first whose last day is not over; what is in the bin does not come.
#[tokio::test]
async fn the_next_job_is_found() {
    let (store, _folder) = store().await;
    let mut ids = Vec::new();
    for (day, name) in [("2026-08-29", "Quay"), ("2026-10-03", "Mill"), ("", "Attic")] {
        ids.push(store.add(&on(day, name), "New job", None).await.expect("added").id);
    }
    let next = async |today: &str| store.next_job(today).await.expect("asked");
    assert_eq!(next("2026-08-29").await.as_ref(), Some(&ids[0]), "on its day it still comes");
    assert_eq!(next("2026-08-30").await.as_ref(), Some(&ids[1]));
    assert_eq!(next("2026-10-04").await, None);
    store.bin(&ids[1], true).await.expect("binned");
    assert_eq!(next("2026-08-30").await, None);
}

/// What the kit calls things finds the jobs that use them, also where the job's file does not hold them.
#[tokio::test]
async fn jobs_are_found_by_what_they_use() {
    let (store, _folder) = store().await;
    store.add(&named("Mill"), "New job", None).await.expect("added");
    for (word, found) in [("octagon", 1), ("lift", 1), ("medium head", 1), ("theremin", 0)] {
        let listing = Listing { search: word.to_owned(), ..Listing::default() };
        assert_eq!(store.jobs(&listing).await.expect("a list").total, found, "{word}");
    }
}

/// Devices are kept, changed and put out; a restore of the jobs leaves them as they are.
#[tokio::test]
async fn devices_are_kept() {
    let (store, folder) = store().await;
    let device = |id: &str, rights| Device {
        id: id.to_owned(),
        name: "Phone".to_owned(),
        token_hash: format!("hash of {id}"),
        rights,
        joined_at: String::new(),
    };
    let copy = folder.path().join("copy.sqlite");
    store.backup(&copy).await.expect("copied");
    store.keep_device(&device("one", Rights::Look)).await.expect("kept");
    store.keep_device(&device("two", Rights::All)).await.expect("kept");
    store.keep_device(&Device { name: "Ada".to_owned(), ..device("one", Rights::Tick) }).await.expect("changed");
    let all = store.devices().await.expect("devices");
    assert_eq!(all.len(), 2);
    let one = all.iter().find(|device| device.id == "one").expect("it");
    assert_eq!((one.name.as_str(), one.rights, one.joined_at.is_empty()), ("Ada", Rights::Tick, false));
    assert!(store.put_out("two").await.expect("out") && !store.put_out("two").await.expect("nobody"));
    store.restore(&copy).await.expect("restored");
    assert_eq!(store.devices().await.expect("devices").len(), 1);
}
