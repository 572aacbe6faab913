//! The store against real files: revisions, undo, stale saves, the bin, migrations, a full disk, a killed process.

use rstest::rstest;
use sqlx::ConnectOptions as _;
use tempfile::TempDir;
use tolva_format::Job;

mod attempts;
mod frames;
mod kept;
mod kit;
mod log;
mod opening;

use super::*;

async fn store() -> (Store, TempDir) {
    let folder = TempDir::new().expect("a folder");
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("a data file");
    (store, folder)
}

fn binned() -> Listing {
    Listing { binned: true, ..Listing::default() }
}

fn named(name: &str) -> Job {
    Job::new(name)
}

#[tokio::test]
async fn a_job_is_kept() {
    let (store, folder) = store().await;
    let added = store.add(&named("Mill"), "New job", None).await.expect("added");
    assert_eq!((added.revision, added.undo, added.redo), (1, None, None));
    store.close().await;
    let again = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    assert_eq!(again.job(&added.id).await.expect("there").document, named("Mill"));
    let list = again.jobs(&Listing::default()).await.expect("a list").jobs;
    assert_eq!((list.len(), list[0].name.as_str(), list[0].setups.len()), (1, "Mill", 1));
}

#[tokio::test]
async fn undo_and_redo_go_along_the_revisions_and_survive_a_restart() {
    let (store, folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    let two = store.save(&id, &Act::on(1, "Name two"), &named("two")).await.expect("saved");
    let three = store.save(&id, &Act::on(two.revision, "Name three"), &named("three")).await.expect("saved");
    assert_eq!(three.undo.as_deref(), Some("Name three"));
    store.close().await;

    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let back = store.step(&id, &Act::on(three.revision, "Undo"), true).await.expect("undone");
    assert_eq!((back.document.name.as_str(), back.redo.as_deref()), ("two", Some("Name three")));
    let back = store.step(&id, &Act::on(back.revision, "Undo"), true).await.expect("undone");
    assert!(matches!(store.step(&id, &Act::on(back.revision, "Undo"), true).await, Err(StoreError::NothingTo("undo"))));
    let forward = store.step(&id, &Act::on(back.revision, "Redo"), false).await.expect("redone");
    let forward = store.step(&id, &Act::on(forward.revision, "Redo"), false).await.expect("redone");
    assert_eq!(forward.document.name, "three");
    assert!(matches!(
        store.step(&id, &Act::on(forward.revision, "Redo"), false).await,
        Err(StoreError::NothingTo("redo"))
    ));

    // A change after an undo makes a new branch, and redo follows the newest.
    let back = store.step(&id, &Act::on(forward.revision, "Undo"), true).await.expect("undone");
    let other = store.save(&id, &Act::on(back.revision, "Name four"), &named("four")).await.expect("saved");
    let back = store.step(&id, &Act::on(other.revision, "Undo"), true).await.expect("undone");
    assert_eq!(store.step(&id, &Act::on(back.revision, "Redo"), false).await.expect("redone").document.name, "four");
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
    let added = store.add(&named("version 0"), "New job", None).await.expect("added");
    // Each version's name, its parent, and the child that redo goes to: the newest.
    let mut versions: Vec<(String, Option<usize>, Option<usize>)> = vec![("version 0".to_owned(), None, None)];
    let (mut here, mut revision) = (0, added.revision);
    for doing in doings.chars() {
        let (done, expected) = match doing {
            's' => {
                let name = format!("version {}", versions.len());
                versions.push((name.clone(), Some(here), None));
                versions[here].2 = Some(versions.len() - 1);
                (store.save(&added.id, &Act::on(revision, "Name"), &named(&name)).await, Some(versions.len() - 1))
            }
            'u' => (store.step(&added.id, &Act::on(revision, "Undo"), true).await, versions[here].1),
            _ => (store.step(&added.id, &Act::on(revision, "Redo"), false).await, versions[here].2),
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
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    store.save(&id, &Act::on(1, "Name"), &named("theirs")).await.expect("saved");
    let Err(StoreError::Stale(stale)) = store.save(&id, &Act::on(1, "Name"), &named("mine")).await else {
        panic!("a stale save was taken");
    };
    assert_eq!((stale.based_on, stale.now.revision, stale.now.document.name.as_str()), (1, 2, "theirs"));
    assert!(matches!(store.step(&id, &Act::on(1, "Undo"), true).await, Err(StoreError::Stale(_))));
    assert_eq!(store.job(&id).await.expect("there").document.name, "theirs");
}

/// Who may only tick is held to it where nobody else can write: an undo that came between changes nothing.
#[tokio::test]
async fn who_ticks_is_held_to_what_is_there() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    let two = store.save(&id, &Act::on(1, "Name two"), &named("two")).await.expect("saved");
    let ticking = |based_on| Act { ticks_only: true, ..Act::on(based_on, "Ticked") };
    // Of a version that is not there any more it is a conflict, whatever was changed.
    assert!(matches!(store.save(&id, &ticking(1), &named("mine")).await, Err(StoreError::Stale(_))));
    let back = store.step(&id, &Act::on(two.revision, "Undo"), true).await.expect("undone");
    assert!(matches!(store.save(&id, &ticking(back.revision), &named("mine")).await, Err(StoreError::TicksOnly)));
    assert_eq!(store.job(&id).await.expect("there").document, named("one"));
    assert!(store.save(&id, &ticking(back.revision), &named("one")).await.is_ok(), "nothing is another");
}

#[tokio::test]
async fn of_many_savers_at_once_one_wins() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    let savers = (0..8).map(|n| {
        let (store, id) = (store.clone(), id.clone());
        tokio::spawn(async move { store.save(&id, &Act::on(1, "Name"), &named(&format!("saver {n}"))).await.is_ok() })
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
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    let two = store.save(&id, &Act::on(1, "Name"), &named("two")).await.expect("saved");
    assert_eq!(store.save(&id, &Act::on(2, "Name"), &named("two")).await.expect("saved").revision, two.revision);
}

#[tokio::test]
async fn the_bin_gives_back() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    store.bin(&id, true).await.expect("binned");
    assert!(store.jobs(&Listing::default()).await.expect("a list").jobs.is_empty());
    assert_eq!(store.jobs(&binned()).await.expect("the bin").jobs.len(), 1);
    store.bin(&id, false).await.expect("given back");
    assert_eq!(store.jobs(&Listing::default()).await.expect("a list").jobs.len(), 1);
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

/// A disk that takes no more pages: every save is refused as such, whatever it is of, what was saved before is whole,
/// and when there is room again the next save is taken.
#[tokio::test]
async fn a_full_disk_loses_nothing() {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("tolva.sqlite");
    let small = |pages: &'static str| SqliteConnectOptions::new().pragma("max_page_count", pages);
    let mut store = Store::open_with(&file, small("60"), None).await.expect("a small disk");
    let mut saved = store.add(&named("one"), "New job", None).await.expect("added");
    let refused = loop {
        let mut job = named("grows");
        // What cannot be compressed.
        job.notes = std::iter::repeat_with(|| uuid::Uuid::new_v4().simple().to_string()).take(120).collect();
        match store.save(&saved.id, &Act::on(saved.revision, "Notes"), &job).await {
            Ok(next) => saved = next,
            Err(error) => break error,
        }
    };
    assert!(matches!(refused, StoreError::DiskFull), "{refused:?}");
    let preferences = "x".repeat(100_000);
    for _ in 0..3 {
        let refused = store.set_preferences(&preferences).await;
        assert!(matches!(refused, Err(StoreError::DiskFull)), "{refused:?}");
        assert_eq!(store.job(&saved.id).await.expect("there"), saved);
    }
    store.connections.reopen_with(&file, small("100000"));
    store.set_preferences(&preferences).await.expect("there is room again");
    let job = named("after");
    saved = store.save(&saved.id, &Act::on(saved.revision, "Name"), &job).await.expect("there is room again");
    store.close().await;
    let again = Store::open(&file).await.expect("opened again");
    assert_eq!(again.job(&saved.id).await.expect("there"), saved);
    assert_eq!(again.preferences().await.expect("kept"), Some(preferences));
}

/// An act that was left in the middle, as by a client who goes away, is taken back, and the next one goes on.
#[tokio::test]
async fn what_is_left_in_the_middle_is_taken_back() {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    {
        let mut work = store.connections.writing().await.expect("begun");
        sqlx::query("UPDATE documents SET binned_at = 1").execute(&mut *work).await.expect("changed");
        let wrong = sqlx::query("INSERT INTO documents (id) VALUES (NULL)").execute(&mut *work).await;
        assert!(wrong.is_err());
    }
    assert_eq!(store.jobs(&Listing::default()).await.expect("a list").jobs.len(), 1);
    store.save(&id, &Act::on(1, "Name"), &named("two")).await.expect("saved");
}

/// Another program holds the file: it is said so, in words, and nobody who reads has to wait.
#[tokio::test]
async fn a_lock_of_another_program_is_told() {
    let (store, folder) = store().await;
    let id = store.add(&named("one"), "New job", None).await.expect("added").id;
    let other = SqliteConnectOptions::new().filename(folder.path().join("tolva.sqlite"));
    let mut other = other.connect().await.expect("another program");
    sqlx::query("BEGIN IMMEDIATE").execute(&mut other).await.expect("locked");
    let refused = store.save(&id, &Act::on(1, "Name"), &named("two")).await;
    assert!(matches!(refused, Err(StoreError::Locked)), "{refused:?}");
    assert_eq!(store.job(&id).await.expect("read meanwhile").document.name, "one");
    sqlx::query("ROLLBACK").execute(&mut other).await.expect("let go");
    store.save(&id, &Act::on(1, "Name"), &named("two")).await.expect("saved");
}

/// The answer to a save was lost: sent again, it is the same save, by its key or by what is in it.
#[rstest]
#[case::by_its_key(Some("a-key"))]
#[case::by_what_is_in_it(None)]
#[tokio::test]
async fn a_save_sent_again_is_the_same_save(#[case] key: Option<&str>) {
    let (store, _folder) = store().await;
    let id = store.add(&named("one"), "New job", Some("first")).await.expect("added").id;
    assert_eq!(store.add(&named("one"), "New job", Some("first")).await.expect("again").id, id);
    let act = Act { key, ..Act::on(1, "Name") };
    let first = store.save(&id, &act, &named("two")).await.expect("saved");
    assert_eq!(store.save(&id, &act, &named("two")).await.expect("again"), first);
    let other = Act { key: Some("another"), ..Act::on(1, "Name") };
    assert!(matches!(store.save(&id, &other, &named("three")).await, Err(StoreError::Stale(_))));
    let undo = Act { key: Some("undo"), ..Act::on(first.revision, "Undo") };
    let back = store.step(&id, &undo, true).await.expect("undone");
    assert_eq!(store.step(&id, &undo, true).await.expect("again"), back);
    let mut kit = store.kit().await.expect("a kit").document.kit;
    kit.flashes.pop();
    let act = Act { key: key.map(|_| "of-the-kit"), ..Act::on(1, "Flash removed") };
    let first = store.save_kit(&act, &kit).await.expect("saved");
    assert_eq!(store.save_kit(&act, &kit).await.expect("again"), first);
    assert_eq!(store.jobs(&Listing::default()).await.expect("a list").total, 1);
}

async fn put_content(store: &Store, content: &[u8]) {
    let mut work = store.connections.writing().await.expect("begun");
    let put = "UPDATE revisions SET content = ?1 WHERE document_id <> 'kit' AND number = \
               (SELECT head FROM documents WHERE id = document_id)";
    sqlx::query(put).bind(content).execute(&mut *work).await.expect("put");
    work.commit().await.expect("written");
}

/// A data file written while the format was version 1 is read as this version, and saved as it from then on.
#[tokio::test]
async fn jobs_of_an_older_format_are_read() {
    let (store, _folder) = store().await;
    let id = store.add(&named("old"), "New job", None).await.expect("added").id;
    put_content(&store, include_bytes!("../../../format/tests/data/job-version-1.json")).await;
    let job = store.job(&id).await.expect("read").document;
    assert_eq!((job.format_version, job.name.as_str()), (tolva_format::FORMAT_VERSION, "Ropeworks open day"));
    let saved = store.save(&id, &Act::on(1, "Name"), &job).await.expect("saved");
    assert_eq!(saved.document, job);
}

/// One that cannot be read is listed as such, given as it is, and set back; the others are as they were.
#[tokio::test]
async fn one_unreadable_job_hides_no_other() {
    let (store, _folder) = store().await;
    let bad = store.add(&named("Bad"), "New job", None).await.expect("added").id;
    let saved = store.save(&bad, &Act::on(1, "Name"), &named("Worse")).await.expect("saved");
    put_content(&store, b"{\"format\": \"tolva-job\", ").await;
    let good = store.add(&named("Good"), "New job", None).await.expect("added").id;
    assert!(matches!(store.job(&bad).await, Err(StoreError::Unreadable { .. })));
    let list = store.jobs(&Listing::default()).await.expect("a list").jobs;
    let told: Vec<_> = list.iter().map(|job| (job.name.as_str(), job.readable)).collect();
    assert_eq!(told, [("Good", true), ("Worse", false)]);
    assert_eq!(store.job(&good).await.expect("there").document.name, "Good");
    assert!(store.raw(&bad).await.expect("as it is").starts_with(b"{\"format\""));
    assert_eq!(store.revisions(&bad).await.expect("revisions").len(), 2);
    let back = store.set_back(&bad, &Act::on(saved.revision, "Set back"), 1).await.expect("set back");
    assert_eq!(back.document.name, "Bad");
    assert!(store.jobs(&Listing::default()).await.expect("a list").jobs.iter().all(|job| job.readable));
    let none = store.set_back(&bad, &Act::on(1, "Set back"), 99).await;
    assert!(matches!(none, Err(StoreError::NoSuchRevision(99))), "{none:?}");
}

#[tokio::test]
async fn lists_come_in_pages_and_are_searched_by_words() {
    let (store, _folder) = store().await;
    let jobs: Vec<Job> = (0..25)
        .map(|number| {
            let mut job = named(&format!("Job {number}"));
            job.place = if number % 5 == 0 { "Köln, the old mill".to_owned() } else { "Harbour".to_owned() };
            job
        })
        .collect();
    store.add_all(&jobs, "Import").await.expect("added");
    let (mut seen, mut after) = (Vec::new(), None);
    loop {
        let page = store.jobs(&Listing { after, limit: 10, ..Listing::default() }).await.expect("a page");
        assert_eq!(page.total, 25);
        seen.extend(page.jobs.into_iter().map(|job| job.name));
        after = page.next;
        if after.is_none() {
            break;
        }
    }
    seen.sort();
    seen.dedup();
    assert_eq!(seen.len(), 25);
    let found = |search: &str| Listing { search: search.to_owned(), ..Listing::default() };
    for (search, count) in [("mill", 5), ("koln mi", 5), ("HARB", 20), ("job 7", 1), ("nowhere", 0), ("\"", 25)] {
        assert_eq!(store.jobs(&found(search)).await.expect("a page").total, count, "{search}");
    }
}

/// A name keeps a revision, and the bin is emptied after its time.
#[tokio::test]
async fn what_is_old_goes_unless_it_has_a_name() {
    let (store, _folder) = store().await;
    let id = store.add(&named("0"), "New job", None).await.expect("added").id;
    let mut revision = 1;
    for number in 1..60 {
        let job = named(&number.to_string());
        revision = store.save(&id, &Act::on(revision, "Name"), &job).await.expect("saved").revision;
    }
    store.name_point(&id, 7, Some("As agreed")).await.expect("named");
    let mut work = store.connections.writing().await.expect("begun");
    sqlx::query("UPDATE revisions SET saved_at = 1000000 + number").execute(&mut *work).await.expect("aged");
    work.commit().await.expect("written");
    store.upkeep().await.expect("kept up");
    let left: Vec<i64> = store.revisions(&id).await.expect("revisions").iter().map(|one| one.number).collect();
    assert_eq!(left, [60, 7]);
    let back = store.step(&id, &Act::on(60, "Undo"), true).await.expect("undone");
    assert_eq!(back.document.name, "6");
    store.bin(&id, true).await.expect("binned");
    store.upkeep().await.expect("kept up");
    assert_eq!(store.jobs(&binned()).await.expect("the bin").jobs.len(), 1);
    let mut work = store.connections.writing().await.expect("begun");
    sqlx::query("UPDATE documents SET binned_at = 1 WHERE kind = 'job'").execute(&mut *work).await.expect("aged");
    work.commit().await.expect("written");
    store.upkeep().await.expect("kept up");
    assert!(matches!(store.job(&id).await, Err(StoreError::NoSuchJob(_))));
    assert!(store.kit().await.is_ok());
}

#[tokio::test]
async fn a_backup_is_made_compared_and_brought_back() {
    let (store, folder) = store().await;
    let kept = store.add(&named("Kept"), "New job", None).await.expect("added").id;
    let lost = store.add(&named("Lost"), "New job", None).await.expect("added").id;
    store.backup_of_the_day().await.expect("copied");
    store.backup_of_the_day().await.expect("once a day");
    let name = store.backups()[0].name.clone();
    store.bin(&lost, true).await.expect("binned");
    store.save(&kept, &Act::on(1, "Name"), &named("Changed")).await.expect("saved");
    let new = store.add(&named("New"), "New job", None).await.expect("added").id;
    let difference = store.compare(&name).await.expect("compared");
    let names = |jobs: &[JobSummary]| jobs.iter().map(|job| job.name.clone()).collect::<Vec<_>>();
    assert_eq!((names(&difference.changed).len(), names(&difference.gone)), (2, vec!["New".to_owned()]));
    store.restore_named(&name).await.expect("brought back");
    let list = store.jobs(&Listing::default()).await.expect("a list").jobs;
    assert_eq!(names(&list), ["Lost", "Kept"]);
    assert!(matches!(store.job(&new).await, Err(StoreError::NoSuchJob(_))));
    // What was there before is a copy too, and a name is no path.
    let before = store.backups().into_iter().find(|backup| backup.name.ends_with("before-restore")).expect("a copy");
    store.restore_named(&before.name).await.expect("and back again");
    assert_eq!(store.job(&kept).await.expect("there").document.name, "Changed");
    assert!(matches!(store.compare("../tolva").await, Err(StoreError::NoSuchBackup(_))));
    let copy = folder.path().join("copy.sqlite");
    store.backup(&copy).await.expect("copied");
    assert!(store.backup(&copy).await.is_err(), "nothing is overwritten");
    assert_eq!(Store::open(&copy).await.expect("a data file").job(&new).await.expect("there").document.name, "New");
}
