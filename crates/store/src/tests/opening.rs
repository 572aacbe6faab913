//! Opening data files: other programs', newer ones, damaged ones, those of before.

use rstest::rstest;
use sqlx::ConnectOptions as _;
use tempfile::TempDir;

use super::{binned, named, store};
use crate::*;

#[rstest]
#[case::not_a_database(b"this is a letter, not a data file; it only has the same name as one.".as_slice())]
#[tokio::test]
async fn what_is_no_data_file_is_refused(#[case] bytes: &[u8]) {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("tolva.sqlite");
    std::fs::write(&file, bytes).expect("written");
    let error = Store::open(&file).await.expect_err("no data file");
    assert!(matches!(error.why, NotOpened::NotTolva) && error.to_string().contains("tolva.sqlite"), "{error}");
    assert_eq!(std::fs::read(&file).expect("still there"), bytes);
}

/// A SQLite file of another program, with a number or without: refused, and nothing is written to it.
#[rstest]
#[case::with_a_number(Some(77))]
#[case::without_one(None)]
#[tokio::test]
async fn a_data_file_of_another_program_is_refused(#[case] number: Option<i32>) {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("theirs.sqlite");
    let mut theirs = SqliteConnectOptions::new().filename(&file).create_if_missing(true).connect().await.expect("made");
    sqlx::query("CREATE TABLE songs (name TEXT)").execute(&mut theirs).await.expect("a table");
    if let Some(number) = number {
        let pragma = sqlx::AssertSqlSafe(format!("PRAGMA application_id = {number}"));
        sqlx::query(pragma).execute(&mut theirs).await.expect("a number");
    }
    sqlx::Connection::close(theirs).await.expect("closed");
    let before = std::fs::read(&file).expect("there");
    let error = Store::open(&file).await.expect_err("another program's");
    assert!(matches!(error.why, NotOpened::NotTolva), "{error}");
    assert_eq!(std::fs::read(&file).expect("still there"), before);
    assert_eq!(std::fs::read_dir(folder.path()).expect("a folder").count(), 1);
}

/// A damaged file is told at its opening, with what can be done.
#[tokio::test]
async fn damage_is_found_at_the_start() {
    let (store, folder) = store().await;
    for number in 0..40 {
        let mut job = named(&format!("{number}"));
        job.notes = std::iter::repeat_with(|| uuid::Uuid::new_v4().simple().to_string()).take(100).collect();
        store.add(&job, "New job", None).await.expect("added");
    }
    store.close().await;
    let file = folder.path().join("tolva.sqlite");
    let mut bytes = std::fs::read(&file).expect("there");
    let middle = bytes.len() / 2;
    bytes[middle..middle + 8192].fill(0xab);
    std::fs::write(&file, bytes).expect("damaged");
    let error = Store::open(&file).await.expect_err("damaged");
    assert!(matches!(error.why, NotOpened::Damaged(_)) && error.to_string().contains("tolva restore"), "{error}");
}

/// What cannot be written to is opened for reading, and says so.
#[tokio::test]
async fn a_file_may_be_opened_for_reading() {
    let (store, folder) = store().await;
    let added = store.add(&named("one"), "New job", None).await.expect("added");
    store.close().await;
    let options = SqliteConnectOptions::new().filename(folder.path().join("tolva.sqlite")).read_only(true);
    let connections = Connections::new(options.immutable(true), true).await.expect("opened");
    let store = Store::over(connections, &folder.path().join("tolva.sqlite")).await.expect("its id");
    assert!(store.read_only());
    assert_eq!(store.job(&added.id).await.expect("there"), added);
    let refused = store.save(&added.id, &Act::on(1, "Name"), &named("two")).await;
    assert!(matches!(refused, Err(StoreError::ReadOnly)), "{refused:?}");
}

/// A data file of a newer Tolva has a migration this one does not know: it is refused, not guessed at.
#[tokio::test]
async fn a_newer_data_file_is_refused() {
    let (store, folder) = store().await;
    let mut work = store.connections.writing().await.expect("begun");
    sqlx::query(
        "INSERT INTO _sqlx_migrations (version, description, success, checksum, execution_time) VALUES (9999, 'later', 1, x'00', 0)",
    )
    .execute(&mut *work)
    .await
    .expect("a later migration");
    work.commit().await.expect("written");
    store.close().await;
    let error = Store::open(&folder.path().join("tolva.sqlite")).await.expect_err("newer");
    assert!(matches!(error.why, NotOpened::Newer) && error.to_string().contains("newer Tolva"), "{error}");
}

fn migrations() -> usize {
    std::fs::read_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/migrations")).expect("a folder").count()
}

/// Migrating twice is migrating once, and the tables are the strict ones the queries were checked against.
#[tokio::test]
async fn migrations_run_once() {
    let (store, folder) = store().await;
    store.close().await;
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let applied: i64 = sqlx::query_scalar("SELECT COUNT(*) FROM _sqlx_migrations")
        .fetch_one(&store.connections.readers)
        .await
        .expect("a count");
    assert_eq!(usize::try_from(applied), Ok(migrations()));
    let mode: String =
        sqlx::query_scalar("PRAGMA journal_mode").fetch_one(&store.connections.readers).await.expect("a mode");
    assert_eq!(mode, "wal");
}

/// A data file as Tolva wrote it before this schema: copied first, then everything is there, undo and all.
#[tokio::test]
async fn a_data_file_of_before_is_brought_up_to_date() {
    let folder = TempDir::new().expect("a folder");
    let file = folder.path().join("tolva.sqlite");
    let old = SqliteConnectOptions::new().filename(&file).create_if_missing(true);
    let mut old = old.connect().await.expect("made");
    sqlx::raw_sql(include_str!("../../tests/data/schema-2.sql")).execute(&mut old).await.expect("written");
    sqlx::Connection::close(old).await.expect("closed");
    let pictures = folder.path().join("tolva.frames");
    std::fs::create_dir(&pictures).expect("made");
    let store = Store::open(&file).await.expect("brought up to date");
    assert!(!pictures.exists() && store.frames_folder().exists(), "its folder carries its id now");
    let list = store.jobs(&Listing::default()).await.expect("a list").jobs;
    assert_eq!((list.len(), list[0].name.as_str(), list[0].readable), (1, "Two", true));
    assert_eq!(list[0].saved_at, "2026-08-29T10:00:00.500Z");
    let job = store.job(&list[0].id).await.expect("read");
    assert_eq!((job.revision, job.undo.as_deref(), job.document.setups.len()), (2, Some("Name"), 1));
    assert_eq!(store.step(&job.id, &Act::on(2, "Undo"), true).await.expect("undone").document.name, "One");
    assert_eq!(store.jobs(&binned()).await.expect("the bin").jobs.len(), 1);
    assert_eq!(store.owned().await.expect("owned").retired.flashes[0].id, "sold");
    store.upkeep().await.expect("compressed");
    assert_eq!(store.job(&job.id).await.expect("read").document.name, "One");
    let copy = format!("tolva.before-{}.sqlite", migrations());
    assert!(folder.path().join(copy).exists());
}

#[tokio::test]
async fn a_folder_that_is_not_there_is_told() {
    let folder = TempDir::new().expect("a folder");
    let error = Store::open(&folder.path().join("nowhere/tolva.sqlite")).await.expect_err("no folder");
    assert!(error.to_string().contains("there is no folder"), "{error}");
}
