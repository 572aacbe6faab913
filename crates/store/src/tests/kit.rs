//! The kit: its revisions, what retires, and jobs beside it.

use tempfile::TempDir;
use tolva_format::Job;

use super::{named, store};
use crate::*;

#[tokio::test]
async fn the_kit_is_kept_by_its_revisions_and_is_no_job() {
    let (store, _folder) = store().await;
    let first = store.kit().await.expect("a kit");
    assert_eq!((first.revision, first.document.kit.count()), (1, tolva_format::Kit::starter().count()));
    assert!(store.jobs(&Listing::default()).await.expect("a list").jobs.is_empty());
    assert!(matches!(store.job("kit").await, Err(StoreError::NoSuchJob(_))));
    let mut kit = first.document.clone();
    kit.kit.flashes.pop();
    let second = store.save_kit(&Act::on(1, "Flash removed"), &kit.kit).await.expect("saved");
    assert_eq!((second.revision, second.undo.as_deref()), (2, Some("Flash removed")));
    let stale = store.save_kit(&Act::on(1, "Late"), &first.document.kit).await;
    assert!(matches!(stale, Err(StoreError::KitStale { based_on: 1, now: 2 })));
    let back = store.step_kit(&Act::on(2, "Undo"), true).await.expect("undone");
    assert_eq!(back.document, first.document);
    assert_eq!(store.step_kit(&Act::on(back.revision, "Redo"), false).await.expect("redone").document, kit);
    // What left stays known as it was, and a job that uses it goes on.
    let owned = store.owned().await.expect("owned");
    assert_eq!((owned.kit, owned.retired.flashes), (kit.kit, vec![first.document.kit.flashes[3].clone()]));
    assert!(store.jobs(&Listing::default()).await.expect("a list").jobs.is_empty());
}

/// At the limits of the kit: whatever is given can be saved, exported and imported, however much has retired.
#[tokio::test]
async fn a_job_outlives_a_full_kit() {
    let (store, _folder) = store().await;
    let mut kit = store.kit().await.expect("a kit").document.kit;
    let unit = kit.flashes[1].clone();
    let refill = |kit: &mut tolva_format::Kit, round: usize| {
        kit.flashes = (0..40).map(|n| tolva_format::Flash { id: format!("{round}-{n}"), ..unit.clone() }).collect();
    };
    refill(&mut kit, 0);
    let mut based_on = store.save_kit(&Act::on(1, "Bought"), &kit).await.expect("saved").revision;
    // A job with a unit of its own, from elsewhere.
    let mut elsewhere = named("Elsewhere");
    elsewhere.kit.flashes[1].name = "Theirs".to_owned();
    let added = store.add(&elsewhere, "Import", None).await.expect("added");
    assert_eq!(added.document.kit.flashes.len(), 41);
    let mut job = named("Mine");
    job.setups[0].lights[0].flash_id = "0-7".to_owned();
    let mine = store.add(&job.taking(&kit.clone().into()), "New job", None).await.expect("added");
    for round in 1..4 {
        refill(&mut kit, round);
        based_on = store.save_kit(&Act::on(based_on, "Sold and bought"), &kit).await.expect("saved").revision;
    }
    for (id, revision) in [(&added.id, added.revision), (&mine.id, mine.revision)] {
        let got = store.job(id).await.expect("there").document;
        assert!(got.check().is_ok(), "{:?}", got.check());
        assert_eq!(got.kit.flashes.len(), 41);
        let mut changed = got.clone();
        changed.notes = "Changed".to_owned();
        store.save(id, &Act::on(revision, "Notes"), &changed).await.expect("saved");
        let file = store.job(id).await.expect("there").document.to_json();
        let again = store.add(&Job::from_json(file.as_bytes()).expect("a job file"), "Import", None).await;
        assert!(again.is_ok(), "{again:?}");
    }
    let mut too_many = kit.clone();
    too_many.flashes.push(tolva_format::Flash { id: "one-more".to_owned(), ..unit.clone() });
    let refused = store.save_kit(&Act::on(based_on, "Bought"), &too_many).await;
    assert!(matches!(refused, Err(StoreError::Wrong(_))), "{refused:?}");
}

/// A kit that is begun with is the kit.
#[tokio::test]
async fn a_kit_may_be_begun_with() {
    let folder = TempDir::new().expect("a folder");
    let mut kit = tolva_format::Kit::starter();
    kit.flashes[0].id = "mine".to_owned();
    let store = Store::open_with_kit(&folder.path().join("tolva.sqlite"), kit.clone()).await.expect("a data file");
    assert_eq!(store.kit().await.expect("a kit").document.kit, kit);
}
