//! The store against real files: revisions, undo, stale saves, the bin, migrations, a full disk, a killed process.

use rstest::rstest;
use tempfile::TempDir;
use tolva_format::Job;

use super::*;

async fn store() -> (Store, TempDir) {
    let folder = TempDir::new().expect("a folder");
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("a data file");
    (store, folder)
}

fn named(name: &str) -> Job {
    Job::new(name)
}

#[tokio::test]
async fn a_job_is_kept() {
    let (store, folder) = store().await;
    let added = store.add(&named("Mill"), "New job").await.expect("added");
    assert_eq!((added.revision, added.undo, added.redo), (1, None, None));
    store.close().await;
    let again = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    assert_eq!(again.job(&added.id).await.expect("there").document, named("Mill"));
    let list = again.jobs(false).await.expect("a list");
    assert_eq!((list.len(), list[0].name.as_str(), list[0].setups.len()), (1, "Mill", 1));
}

#[tokio::test]
async fn undo_and_redo_go_along_the_revisions_and_survive_a_restart() {
    let (store, folder) = store().await;
    let id = store.add(&named("one"), "New job").await.expect("added").id;
    let two = store.save(&id, 1, "Name two", &named("two")).await.expect("saved");
    let three = store.save(&id, two.revision, "Name three", &named("three")).await.expect("saved");
    assert_eq!(three.undo.as_deref(), Some("Name three"));
    store.close().await;

    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let back = store.undo(&id, three.revision).await.expect("undone");
    assert_eq!((back.document.name.as_str(), back.redo.as_deref()), ("two", Some("Name three")));
    let back = store.undo(&id, back.revision).await.expect("undone");
    assert!(matches!(store.undo(&id, back.revision).await, Err(StoreError::NothingTo("undo"))));
    let forward = store.redo(&id, back.revision).await.expect("redone");
    let forward = store.redo(&id, forward.revision).await.expect("redone");
    assert_eq!(forward.document.name, "three");
    assert!(matches!(store.redo(&id, forward.revision).await, Err(StoreError::NothingTo("redo"))));

    // A change after an undo makes a new branch, and redo follows the newest.
    let back = store.undo(&id, forward.revision).await.expect("undone");
    let other = store.save(&id, back.revision, "Name four", &named("four")).await.expect("saved");
    let back = store.undo(&id, other.revision).await.expect("undone");
    assert_eq!(store.redo(&id, back.revision).await.expect("redone").document.name, "four");
}

/// Whatever is done in whatever order, the job is what a list of versions with a finger on one of them says it is.
#[rstest]
#[case("ssuursu")]
#[case("suusrrr")]
#[case("ssssuuuusrrruu")]
#[case("surusurrsu")]
#[tokio::test]
async fn undo_and_redo_agree_with_a_model(#[case] doings: &str) {
    let (store, _folder) = store().await;
    let added = store.add(&named("version 0"), "New job").await.expect("added");
    // Each version's name, its parent, and the child that redo goes to: the newest.
    let mut versions: Vec<(String, Option<usize>, Option<usize>)> = vec![("version 0".to_owned(), None, None)];
    let (mut here, mut revision) = (0, added.revision);
    for doing in doings.chars() {
        let (done, expected) = match doing {
            's' => {
                let name = format!("version {}", versions.len());
                versions.push((name.clone(), Some(here), None));
                versions[here].2 = Some(versions.len() - 1);
                (store.save(&added.id, revision, "Name", &named(&name)).await, Some(versions.len() - 1))
            }
            'u' => (store.undo(&added.id, revision).await, versions[here].1),
            _ => (store.redo(&added.id, revision).await, versions[here].2),
        };
        match (done, expected) {
            (Ok(saved), Some(to)) => {
                assert_eq!(saved.document.name, versions[to].0, "after {doing} of {doings}");
                assert_eq!(
                    (saved.undo.is_some(), saved.redo.is_some()),
                    (versions[to].1.is_some(), versions[to].2.is_some())
                );
                (here, revision) = (to, saved.revision);
            }
            (Err(StoreError::NothingTo(_)), None) => {}
            (done, expected) => panic!("{doing} of {doings}: {done:?} where {expected:?} was expected"),
        }
    }
}

#[tokio::test]
async fn a_stale_save_is_refused_with_what_is_there() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job").await.expect("added").id;
    store.save(&id, 1, "Name", &named("theirs")).await.expect("saved");
    let Err(StoreError::Stale(stale)) = store.save(&id, 1, "Name", &named("mine")).await else {
        panic!("a stale save was taken");
    };
    assert_eq!((stale.based_on, stale.now.revision, stale.now.document.name.as_str()), (1, 2, "theirs"));
    assert!(matches!(store.undo(&id, 1).await, Err(StoreError::Stale(_))));
    assert_eq!(store.job(&id).await.expect("there").document.name, "theirs");
}

#[tokio::test]
async fn of_many_savers_at_once_one_wins() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job").await.expect("added").id;
    let savers = (0..8).map(|n| {
        let (store, id) = (store.clone(), id.clone());
        tokio::spawn(async move { store.save(&id, 1, "Name", &named(&format!("saver {n}"))).await.is_ok() })
    });
    let mut won = 0;
    for saver in savers.collect::<Vec<_>>() {
        won += u32::from(saver.await.expect("joined"));
    }
    assert_eq!(won, 1);
    assert_eq!(store.job(&id).await.expect("there").revision, 2);
}

#[tokio::test]
async fn the_same_save_twice_is_one_revision() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job").await.expect("added").id;
    let two = store.save(&id, 1, "Name", &named("two")).await.expect("saved");
    assert_eq!(store.save(&id, 2, "Name", &named("two")).await.expect("saved").revision, two.revision);
}

#[tokio::test]
async fn the_bin_gives_back() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job").await.expect("added").id;
    store.bin(&id, true).await.expect("binned");
    assert!(store.jobs(false).await.expect("a list").is_empty());
    assert_eq!(store.jobs(true).await.expect("the bin").len(), 1);
    store.bin(&id, false).await.expect("given back");
    assert_eq!(store.jobs(false).await.expect("a list").len(), 1);
    assert!(matches!(store.bin("none", true).await, Err(StoreError::NoSuchJob(_))));
}

#[tokio::test]
async fn preferences_are_kept() {
    let (store, _folder) = store().await;
    assert_eq!(store.preferences().await.expect("none yet"), None);
    store.set_preferences("{\"a\":1}").await.expect("kept");
    store.set_preferences("{\"a\":2}").await.expect("kept");
    assert_eq!(store.preferences().await.expect("some").as_deref(), Some("{\"a\":2}"));
}

/// A disk that takes no more pages: the save is refused as such, and what was saved before is whole.
#[tokio::test]
async fn a_full_disk_loses_nothing() {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("tolva.sqlite");
    let options = SqliteConnectOptions::new().filename(&file).pragma("max_page_count", "40");
    let store = Store::open_with(options).await.expect("a small disk");
    let mut saved = store.add(&named("one"), "New job").await.expect("added");
    let refused = loop {
        let mut job = named("grows");
        job.notes = format!("{}", saved.revision).repeat(300);
        match store.save(&saved.id, saved.revision, "Notes", &job).await {
            Ok(next) => saved = next,
            Err(error) => break error,
        }
    };
    assert!(matches!(refused, StoreError::DiskFull), "{refused:?}");
    assert_eq!(store.job(&saved.id).await.expect("there"), saved);
}

#[rstest]
#[case::not_a_database(b"this is a letter, not a data file; it only has the same name as one.".as_slice())]
#[tokio::test]
async fn what_is_no_data_file_is_refused(#[case] bytes: &[u8]) {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("tolva.sqlite");
    std::fs::write(&file, bytes).expect("written");
    assert!(Store::open(&file).await.is_err());
    assert_eq!(std::fs::read(&file).expect("still there"), bytes);
}

/// A data file of a newer Tolva has a migration this one does not know: it is refused, not guessed at.
#[tokio::test]
async fn a_newer_data_file_is_refused() {
    let (store, folder) = store().await;
    sqlx::query(
        "INSERT INTO _sqlx_migrations (version, description, success, checksum, execution_time) VALUES (9999, 'later', 1, x'00', 0)",
    )
    .execute(&store.pool)
    .await
    .expect("a later migration");
    store.close().await;
    let opened = Store::open(&folder.path().join("tolva.sqlite")).await;
    assert!(matches!(opened, Err(StoreError::Migration(_))), "{opened:?}");
}

/// Migrating twice is migrating once, and the tables are the strict ones the queries were checked against.
#[tokio::test]
async fn migrations_run_once() {
    let (store, folder) = store().await;
    store.close().await;
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let applied: i64 =
        sqlx::query_scalar("SELECT COUNT(*) FROM _sqlx_migrations").fetch_one(&store.pool).await.expect("a count");
    let files = std::fs::read_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/migrations")).expect("a folder").count();
    assert_eq!(usize::try_from(applied), Ok(files));
    let mode: String = sqlx::query_scalar("PRAGMA journal_mode").fetch_one(&store.pool).await.expect("a mode");
    assert_eq!(mode, "wal");
}

/// A data file written while the format was version 1 is read as this version, and saved as it from then on.
#[tokio::test]
async fn jobs_of_an_older_format_are_read() {
    let (store, _folder) = store().await;
    let id = store.add(&named("old"), "New job").await.expect("added").id;
    let old = include_str!("../../format/tests/data/job-version-1.json");
    sqlx::query("UPDATE revision SET document = ?1").bind(old).execute(&store.pool).await.expect("an old document");
    let job = store.job(&id).await.expect("read").document;
    assert_eq!((job.format_version, job.name.as_str()), (tolva_format::FORMAT_VERSION, "Ropeworks open day"));
    let saved = store.save(&id, 1, "Name", &job).await.expect("saved");
    assert_eq!(saved.document, job);
}

#[tokio::test]
async fn the_kit_is_kept_by_its_revisions_and_is_no_job() {
    let (store, _folder) = store().await;
    let first = store.kit().await.expect("a kit");
    assert_eq!((first.revision, first.document.kit.count()), (1, tolva_format::Kit::starter().count()));
    assert!(store.jobs(false).await.expect("a list").is_empty());
    assert!(matches!(store.job("kit").await, Err(StoreError::NoSuchJob(_))));
    let mut kit = first.document.clone();
    kit.kit.flashes.pop();
    let second = store.save_kit(1, "Flash removed", &kit).await.expect("saved");
    assert_eq!((second.revision, second.undo.as_deref()), (2, Some("Flash removed")));
    let stale = store.save_kit(1, "Late", &first.document).await;
    assert!(matches!(stale, Err(StoreError::KitStale { based_on: 1, now: 2 })));
    let back = store.step_kit(2, true).await.expect("undone");
    assert_eq!(back.document, first.document);
    assert_eq!(store.step_kit(back.revision, false).await.expect("redone").document, kit);
    // What left stays known as it was, and a job that uses it goes on.
    let owned = store.owned().await.expect("owned");
    assert_eq!((owned.kit, owned.left.flashes), (kit.kit, vec![first.document.kit.flashes[3].clone()]));
    assert!(store.jobs(false).await.expect("a list").is_empty());
}

/// A data file from before the kit was kept by itself: what its jobs used is the kit.
#[tokio::test]
async fn the_first_kit_is_what_the_jobs_brought() {
    let (store, _folder) = store().await;
    let mut job = named("Old");
    job.kit.flashes[0].id = "mine".to_owned();
    job.kit.flashes[1].name = "As I call it".to_owned();
    store.add(&job, "New job").await.expect("added");
    let kit = store.kit().await.expect("a kit").document.kit;
    assert_eq!((kit.flashes[0].id.as_str(), kit.flashes[1].name.as_str()), ("mine", "As I call it"));
    assert_eq!(kit.flashes.len(), 5, "and the generic small one after it");
}
