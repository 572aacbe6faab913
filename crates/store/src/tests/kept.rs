//! What a copy brings back, what it leaves, and what is swept away.

use std::path::Path;

use rstest::rstest;
use tempfile::TempDir;

use super::attempts::answer;
use super::frames::{PICTURES, frame, with_a_job};
use super::{named, store};
use crate::backup::{LEFT, TABLES};
use crate::*;
use tolva_format::TakenFrame;

/// Whatever table there is, is brought back or named as left.
#[tokio::test]
async fn every_table_is_brought_back_or_named() {
    let (store, _folder) = store().await;
    let all: Vec<String> = sqlx::query_scalar("SELECT name FROM sqlite_schema WHERE type = 'table'")
        .fetch_all(&store.connections.readers)
        .await
        .expect("tables");
    // SQLite's own, and what the words are kept in.
    let own = |name: &&String| !name.starts_with("sqlite_") && !name.starts_with("words_");
    for table in all.iter().filter(own) {
        let named = |known: &[&str]| known.contains(&table.as_str());
        assert!(named(&TABLES) != named(&LEFT), "{table}: is it brought back, or left?");
    }
    assert_eq!(all.iter().filter(own).count(), TABLES.len() + LEFT.len());
}

/// Answers to drills come back, and jobs are found by their kit again.
#[tokio::test]
async fn what_was_answered_and_what_is_found_come_back() {
    let (store, folder) = store().await;
    let id = store.add(&named("Mill"), "New job", None).await.expect("added").id;
    store.keep_attempt(&answer("powers", true), None).await.expect("kept");
    let copy = folder.path().join("copy.sqlite");
    store.backup(&copy).await.expect("copied");
    let camera = store.kit().await.expect("a kit").document.kit.cameras[0].name.clone();
    let by_kit = || Listing { search: camera.clone(), ..Listing::default() };
    let before = (store.attempts().await.expect("answers"), store.jobs(&by_kit()).await.expect("found").total);
    assert_eq!((before.0.len(), before.1), (1, 1), "{camera}");
    store.bin(&id, true).await.expect("binned");
    store.restore(&copy).await.expect("restored");
    assert_eq!((store.attempts().await.expect("answers"), store.jobs(&by_kit()).await.expect("found").total), before);
}

/// What is no copy of a data file brings nothing back, and takes nothing away.
#[rstest]
#[case::empty(b"".as_slice(), "nothing in it")]
#[case::a_letter(
    b"Dear Ada, a letter that is long enough to be looked at as a file of some kind or other.",
    "not a data file"
)]
#[tokio::test]
async fn what_is_no_copy_is_refused(#[case] bytes: &[u8], #[case] says: &str) {
    let (store, folder) = store().await;
    store.add(&named("Mill"), "New job", None).await.expect("added");
    let copy = folder.path().join("copy.sqlite");
    std::fs::write(&copy, bytes).expect("written");
    let error = store.restore(&copy).await.expect_err("no copy").to_string();
    assert!(error.contains(says), "{error}");
    assert_eq!(store.jobs(&Listing::default()).await.expect("a list").total, 1);
}

/// A SQLite file without a table, or a folder, is none either.
#[tokio::test]
async fn a_file_without_tables_is_no_copy() {
    use sqlx::ConnectOptions as _;
    let (store, folder) = store().await;
    store.add(&named("Mill"), "New job", None).await.expect("added");
    let file = folder.path().join("bare.sqlite");
    let options = sqlx::sqlite::SqliteConnectOptions::new().filename(&file).create_if_missing(true);
    let mut bare = options.connect().await.expect("made");
    sqlx::query("PRAGMA user_version = 1").execute(&mut bare).await.expect("written");
    sqlx::Connection::close(bare).await.expect("closed");
    for (copy, says) in
        [(file.as_path(), "nothing in it"), (folder.path(), "no file"), (Path::new("/dev/null"), "no file")]
    {
        let error = store.restore(copy).await.expect_err("no copy").to_string();
        assert!(error.contains(says), "{error}");
    }
    assert_eq!(store.jobs(&Listing::default()).await.expect("a list").total, 1);
}

/// A copy is written under a name of its own: what lies beside it stays.
#[tokio::test]
async fn a_copy_touches_nothing_else() {
    let (store, folder) = store().await;
    let (copy, other) = (folder.path().join("notes.sqlite"), folder.path().join("notes.part"));
    std::fs::write(&other, "mine").expect("written");
    store.backup(&copy).await.expect("copied");
    assert_eq!(std::fs::read_to_string(&other).expect("there"), "mine");
    assert!(store.backup(&copy).await.is_err(), "it is there already");
    let parts = std::fs::read_dir(folder.path()).expect("a folder").flatten();
    assert!(parts.map(|entry| entry.file_name()).all(|name| !name.to_string_lossy().starts_with(".tolva")));
}

/// Reading makes no file.
#[tokio::test]
async fn what_only_reads_makes_nothing() {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("typo.sqlite");
    let error = Store::open_there(&file).await.expect_err("none").to_string();
    assert!(error.contains("typo.sqlite") && error.contains("no such data file"), "{error}");
    assert!(!file.exists());
}

/// Two data files in one folder whose names differ by their endings alone share neither pictures nor copies.
#[tokio::test]
async fn two_files_of_one_name_share_nothing() {
    let folder = TempDir::new().expect("a folder");
    let [first, second] = ["work.sqlite", "work.db"].map(|name| folder.path().join(name));
    let (first, second) = (Store::open(&first).await.expect("made"), Store::open(&second).await.expect("made"));
    assert_ne!(first.frames_folder(), second.frames_folder());
    let job = first.add(&named("Mill"), "New job", None).await.expect("added").id;
    first.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    first.backup_of_the_day().await.expect("copied");
    second.backup_of_the_day().await.expect("copied");
    assert_eq!((first.backups().len(), second.backups().len()), (1, 1));
    for _ in 0..2 {
        second.sweep_frames(i64::MAX).await.expect("swept");
    }
    assert!(first.frame_picture("one", Copied::Measured).exists());
}

/// Another data file put in one's place under the same name has folders of its own: nothing of the first is swept or replaced.
#[tokio::test]
async fn a_file_put_in_anothers_place_touches_nothing() {
    let (first, folder, job) = with_a_job().await;
    first.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    first.backup_of_the_day().await.expect("copied");
    let (picture, copies) = (first.frame_picture("one", Copied::Measured), first.backups());
    first.close().await;
    let (file, away) = (folder.path().join("tolva.sqlite"), folder.path().join("away.sqlite"));
    std::fs::rename(&file, &away).expect("moved away");
    let second = Store::open(&file).await.expect("made anew");
    assert!(second.backups().is_empty());
    for _ in 0..2 {
        second.sweep_frames(i64::MAX).await.expect("swept");
    }
    second.backup_of_the_day().await.expect("copied");
    assert_eq!(second.backups().len(), 1);
    second.close().await;
    std::fs::rename(&away, &file).expect("and back");
    let first = Store::open(&file).await.expect("opened");
    assert!(picture.exists() && first.frame_picture("one", Copied::Measured) == picture);
    assert_eq!(first.backups(), copies);
}

/// What a Tolva of before kept beside a data file under its name alone is found under its name and id.
#[tokio::test]
async fn what_was_kept_by_name_alone_is_claimed() {
    let (store, folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    store.backup_of_the_day().await.expect("copied");
    let (pictures, copies) = (store.frames_folder(), store.backups());
    let copy = store.copies().join(format!("{}.{}.sqlite", store.own_name(), copies[0].name));
    std::fs::rename(&pictures, folder.path().join("tolva.frames")).expect("as before");
    std::fs::rename(&copy, store.copies().join(format!("tolva.{}.sqlite", copies[0].name))).expect("as before");
    std::fs::write(store.copies().join("tolva.other.2026-08-29.sqlite"), "another's").expect("written");
    let mut work = store.connections.writing().await.expect("a writer");
    sqlx::query("UPDATE own SET claimed = 0").execute(&mut *work).await.expect("as before");
    work.commit().await.expect("kept");
    store.close().await;
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened");
    assert_eq!(std::fs::read(store.frame_picture("one", Copied::Measured)).expect("there"), b"large");
    assert_eq!(store.backups(), copies);
    assert!(store.copies().join("tolva.other.2026-08-29.sqlite").exists() && pictures.exists());
}

/// A picture goes when nothing has referred to it for long: not by its age, for a copy that knows it may be restored.
#[tokio::test]
async fn pictures_stay_while_a_restore_may_need_them() {
    let (store, folder, job) = with_a_job().await;
    let copy = folder.path().join("copy.sqlite");
    store.backup(&copy).await.expect("copied");
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    let with_it = folder.path().join("with-it.sqlite");
    store.backup(&with_it).await.expect("copied");
    let picture = store.frame_picture("one", Copied::Measured);
    let old = std::time::SystemTime::now() - std::time::Duration::from_hours(24 * 400);
    std::fs::File::options().append(true).open(&picture).expect("there").set_modified(old).expect("old");
    // A copy that does not know the frame: the picture is old, and nobody refers to it since now.
    store.restore(&copy).await.expect("restored");
    store.upkeep().await.expect("kept up");
    store.upkeep().await.expect("kept up");
    assert!(picture.exists(), "another copy may know it");
    store.restore(&with_it).await.expect("restored");
    store.upkeep().await.expect("kept up");
    assert!(picture.exists() && store.frame("one").await.is_ok());
    store.restore(&copy).await.expect("restored");
    for _ in 0..2 {
        store.sweep_frames(i64::MAX).await.expect("swept");
    }
    assert!(!picture.exists(), "nothing has referred to it for long");
}

/// What a process that was killed has left: a picture whose frame came to be is put into its place when the file is opened,
/// one whose frame did not, and half a file, go after a day.
#[tokio::test]
async fn what_was_broken_off_is_settled() {
    let (store, folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    let coming = store.frames_folder().join("coming");
    let picture = store.frame_picture("one", Copied::Measured);
    std::fs::rename(&picture, coming.join("one.jpg")).expect("as if it was killed between");
    let (young, old) = (coming.join("young.jpg"), coming.join("old.jpg"));
    let part = store.frames_folder().join(".tmpAbC123");
    for file in [&young, &old, &part] {
        std::fs::write(file, "half").expect("written");
    }
    let then = std::time::SystemTime::now() - std::time::Duration::from_hours(25);
    for file in [&old, &part] {
        std::fs::File::options().append(true).open(file).expect("there").set_modified(then).expect("old");
    }
    store.close().await;
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened");
    assert_eq!(std::fs::read(&picture).expect("in its place"), b"large");
    store.upkeep().await.expect("kept up");
    assert!(young.exists() && !old.exists() && !part.exists());
}

/// One row that cannot be read leaves the others: it is listed as such, and can be put into the bin.
#[tokio::test]
async fn one_frame_that_cannot_be_read_leaves_the_others() {
    let (store, _folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    store.keep_frame(&job, &frame("two", 'b'), PICTURES).await.expect("kept");
    let mut work = store.connections.writing().await.expect("a writer");
    sqlx::query("UPDATE frames SET content = x'7b', summary = '' WHERE id = 'two'")
        .execute(&mut *work)
        .await
        .expect("broken");
    work.commit().await.expect("kept");
    let found = store.frame_list(&job, &FrameListing::default()).await.expect("a list");
    assert_eq!((found.frames.len(), found.unreadable.len(), found.unreadable[0].id.as_str()), (1, 1, "two"));
    assert_eq!(store.last_frame(&job, &frame("two", 'b').setup_id).await.expect("none of them"), None);
    assert_eq!(store.bin_frame("two", true).await.expect("binned"), job);
    assert!(matches!(store.bin_frame("none", true).await, Err(StoreError::NoSuchFrame(_))));
    let huge = TakenFrame { note: "n".repeat(5_000_000), ..frame("huge", 'c') };
    assert!(matches!(store.keep_frame(&job, &huge, PICTURES).await, Err(StoreError::Wrong(_))));
}

/// Under one key one thing is done: something else under it is refused, and nothing of it is kept.
#[tokio::test]
async fn a_key_stands_for_one_thing() {
    let (store, _folder) = store().await;
    let first = store.add(&named("Mill"), "New job", Some("key")).await.expect("added");
    assert_eq!(store.add(&named("Mill"), "New job", Some("key")).await.expect("the same").id, first.id);
    assert!(matches!(store.add(&named("Quay"), "New job", Some("key")).await, Err(StoreError::KeyUsed)));
    let other = store.add(&named("Quay"), "New job", None).await.expect("added").id;
    // What is made here of what was sent may be another by then: it is the same act.
    let made = store.add_made(&named("Again"), "Again", (Some("again"), "of Mill")).await.expect("added");
    let again = store.add_made(&named("Again, later"), "Again", (Some("again"), "of Mill")).await.expect("the same");
    assert_eq!(again.id, made.id);
    let saving = Act { key: Some("save"), ..Act::on(1, "Name") };
    store.save(&first.id, &saving, &named("Mill two")).await.expect("saved");
    assert!(store.save(&first.id, &saving, &named("Mill two")).await.is_ok(), "sent again");
    assert!(matches!(store.save(&first.id, &saving, &named("Mill three")).await, Err(StoreError::KeyUsed)));
    assert!(
        matches!(store.save(&other, &saving, &named("Mill two")).await, Err(StoreError::KeyUsed)),
        "of another job"
    );
    assert_eq!(store.job(&first.id).await.expect("there").document.name, "Mill two");
}
