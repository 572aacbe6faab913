//! Frames: kept once with their pictures, changed, binned and given back, swept away with what belongs to nobody.

use rstest::rstest;
use tempfile::TempDir;
use tolva_format::{FORMAT_VERSION, FrameSettings, Learnt, MarksBy, TakenFrame};

use super::{named, store};
use crate::*;

pub(super) fn frame(id: &str, hash: char) -> TakenFrame {
    let setup = named("Mill").setups.remove(0);
    TakenFrame {
        shot_id: None,
        id: id.to_owned(),
        format_version: FORMAT_VERSION,
        setup_id: setup.id.clone(),
        name: format!("{id}.jpg"),
        hash: hash.to_string().repeat(64),
        added_at: "2026-11-26T15:30:00.000Z".to_owned(),
        width: 6000,
        height: 4000,
        settings: FrameSettings::default(),
        at: None,
        camera: None,
        wrong: Vec::new(),
        raw_preview: false,
        simulated: false,
        marks: Vec::new(),
        came: Vec::new(),
        marks_by: MarksBy::Hand,
        note: String::new(),
        changed: Vec::new(),
        setup,
    }
}

pub(super) const PICTURES: [(Copied, &[u8]); 2] = [(Copied::Measured, b"large"), (Copied::Small, b"small")];

pub(super) async fn with_a_job() -> (Store, TempDir, String) {
    let (store, folder) = store().await;
    let id = store.add(&named("Mill"), "New job", None).await.expect("added").id;
    (store, folder, id)
}

#[tokio::test]
async fn a_frame_is_kept_once_with_its_pictures() {
    let (store, folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    store.keep_frame(&job, &frame("two", 'b'), PICTURES).await.expect("kept");
    let again = store.keep_frame(&job, &frame("three", 'a'), PICTURES).await.expect("there");
    assert_eq!(again.frame.id, "one", "the same file comes once");
    store.close().await;

    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let all = store.frames(&job).await.expect("a list");
    assert_eq!(all.iter().map(|frame| frame.id.as_str()).collect::<Vec<_>>(), ["one", "two"]);
    assert_eq!(all[0], frame("one", 'a'));
    assert_eq!(std::fs::read(store.frame_picture("one", Copied::Measured)).expect("a picture"), b"large");
    assert_eq!(std::fs::read(store.frame_picture("one", Copied::Small)).expect("a picture"), b"small");
    assert!(!store.frame_picture("three", Copied::Small).exists());
    let elsewhere = FrameListing { setup_id: Some("elsewhere".to_owned()), ..FrameListing::default() };
    assert_eq!(store.frame_list(&job, &elsewhere).await.expect("a list"), FramesFound::default());
}

#[tokio::test]
async fn a_frame_is_changed_binned_and_given_back() {
    let (store, _folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    let changed = TakenFrame { note: "Wind".to_owned(), ..frame("one", 'a') };
    store.change_frame(&changed).await.expect("changed");
    assert_eq!(store.frame("one").await.expect("there").frame, changed);
    let none = store.change_frame(&frame("none", 'c')).await;
    assert!(matches!(none, Err(StoreError::NoSuchFrame(id)) if id == "none"));

    assert_eq!(store.bin_frame("one", true).await.expect("binned"), job);
    assert!(store.frame("one").await.expect("there").binned);
    assert!(store.frames(&job).await.expect("a list").is_empty());
    let listed = FrameListing { binned: true, ..FrameListing::default() };
    assert_eq!(store.frame_list(&job, &listed).await.expect("a list").frames, [changed.summary()]);
    store.bin_frame("one", false).await.expect("back");
    assert!(!store.frame("one").await.expect("there").binned);
    store.bin_frame("one", true).await.expect("binned");
    let again = store.keep_frame(&job, &frame("other", 'a'), PICTURES).await.expect("there");
    assert!(!again.binned && again.frame == changed, "what is sent again comes back out of the bin, as it was");
}

/// A page ends where it was asked to and begins where the page before ends; what a Tolva of before wrote is listed as well, and
/// written down for lists when the file is opened.
#[rstest]
#[case(1, "five/four/three/two/one")]
#[case(2, "four five/two three/one")]
#[case(5, "one two three four five")]
#[case(200, "one two three four five")]
#[tokio::test]
async fn frames_are_listed_page_by_page(#[case] limit: u32, #[case] pages: &str) {
    let (store, folder, job) = with_a_job().await;
    for (id, hash) in ["one", "two", "three", "four", "five"].into_iter().zip('a'..) {
        store.keep_frame(&job, &frame(id, hash), PICTURES).await.expect("kept");
    }
    let mut work = store.connections.writing().await.expect("a writer");
    sqlx::query("UPDATE frames SET summary = '' WHERE id IN ('two', 'five')").execute(&mut *work).await.expect("older");
    work.commit().await.expect("kept");
    let walked = async |store: &Store| {
        let mut before = None;
        for (number, page) in pages.split('/').enumerate() {
            let which = FrameListing { before, limit: Some(limit), ..FrameListing::default() };
            let found = store.frame_list(&job, &which).await.expect("a page");
            let names: Vec<&str> = found.frames.iter().map(|frame| frame.id.as_str()).collect();
            assert_eq!((names.join(" ").as_str(), found.total), (page, 5));
            before = found.earlier;
            assert_eq!(before.is_none(), number + 1 == pages.split('/').count());
        }
    };
    walked(&store).await;
    store.close().await;
    let store = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened");
    walked(&store).await;
    let all = store.frame_list(&job, &FrameListing::default()).await.expect("a list").frames;
    let as_taken = store.frames_as_taken(&job, None).await.expect("all of them");
    assert_eq!(as_taken, all.iter().map(tolva_format::FrameSummary::as_taken).collect::<Vec<_>>());
    let left = sqlx::query_scalar::<_, i64>("SELECT COUNT(*) FROM frames WHERE summary = ''");
    assert_eq!(left.fetch_one(&store.connections.readers).await.expect("counted"), 0);
}

/// What has lain in the bin for long goes, and with a job that is deleted for ever its frames go. Pictures that nobody knows
/// stay for a while: a backup may know them.
#[tokio::test]
async fn what_is_binned_for_long_goes() {
    let (store, _folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    store.keep_frame(&job, &frame("two", 'b'), PICTURES).await.expect("kept");
    store.bin_frame("one", true).await.expect("binned");
    store.upkeep().await.expect("kept up");
    assert!(store.frame("one").await.is_ok(), "not yet");
    store.sweep_frames(i64::MAX).await.expect("swept");
    assert!(matches!(store.frame("one").await, Err(StoreError::NoSuchFrame(_))));
    assert!(store.frame("two").await.is_ok());
    assert!(store.frame_picture("one", Copied::Measured).exists(), "its picture is young");
}

#[tokio::test]
async fn frames_belong_to_a_job_and_a_folder_to_one_setup() {
    let (store, folder, job) = with_a_job().await;
    let none = store.keep_frame("none", &frame("one", 'a'), PICTURES).await;
    assert!(matches!(none, Err(StoreError::NoSuchJob(_))));
    assert_eq!(store.watched().await.expect("read"), None);
    let watched = Watched { folder: folder.path().join("tether"), job_id: job.clone(), setup_id: "doorway".to_owned() };
    store.watch(Some(&watched)).await.expect("watched");
    let other = Watched { setup_id: "stairs".to_owned(), ..watched };
    store.watch(Some(&other)).await.expect("watched");
    assert_eq!(store.watched().await.expect("read"), Some(other.clone()), "one at a time");
    let nowhere = store.watch(Some(&Watched { job_id: "none".to_owned(), ..other.clone() })).await;
    assert!(matches!(nowhere, Err(StoreError::NoSuchJob(_))));
    assert_eq!(store.watched().await.expect("read"), Some(other), "what was refused has changed nothing");
    store.watch(None).await.expect("no more");
    assert_eq!(store.watched().await.expect("read"), None);
}

/// A backup brings the frames back with what was measured of them; the pictures beside the data file are still there.
#[tokio::test]
async fn a_backup_holds_what_was_measured() {
    let (store, folder, job) = with_a_job().await;
    store.keep_frame(&job, &frame("one", 'a'), PICTURES).await.expect("kept");
    let copy = folder.path().join("copy.sqlite");
    store.backup(&copy).await.expect("copied");
    store.bin_frame("one", true).await.expect("binned");
    store.sweep_frames(i64::MAX).await.expect("swept");
    store.restore(&copy).await.expect("restored");
    assert_eq!(store.frames(&job).await.expect("a list"), [frame("one", 'a')]);
    assert!(store.frame_picture("one", Copied::Measured).exists());
}

/// A job that comes with its frames is there whole: the frames have ids of their own, and their setups' things are set apart
/// from what is owned here as the job's are.
#[tokio::test]
async fn a_job_comes_with_its_frames() {
    let (store, _folder, _) = with_a_job().await;
    let saved = store.kit().await.expect("the kit");
    let mut kit = saved.document.kit;
    let mut job = named("Quarry");
    let from = vec!["one".to_owned(), "of no frame here".to_owned()];
    job.setups[0].learnt = Some(Learnt { of: Vec::new(), bound: Vec::new(), frames: 2, from });
    let used = &job.setups[0].camera_id;
    kit.cameras.iter_mut().filter(|camera| camera.id == *used).for_each(|camera| camera.name = "Another".to_owned());
    store.save_kit(&Act::on(saved.revision, "Kit"), &kit).await.expect("kept");
    let with = |id: &str, hash| (frame(id, hash), PICTURES.map(|(kind, bytes)| (kind, bytes.to_vec())).to_vec());
    let frames = vec![with("one", 'a'), with("two", 'b')];
    let came = store.add_with_frames(job.clone(), ("Import", Some("key")), frames.clone()).await.expect("added");
    let camera = &came.document.setups[0].camera_id;
    assert_ne!(camera, used, "another camera has its id here");
    let kept = store.frames(&came.id).await.expect("frames");
    assert_eq!(kept.iter().map(|one| one.name.as_str()).collect::<Vec<_>>(), ["one.jpg", "two.jpg"]);
    assert!(kept.iter().all(|one| one.setup.camera_id == *camera && one.id.len() == 36), "{kept:?}");
    let learnt = came.document.setups[0].learnt.as_ref().expect("it knows");
    assert_eq!(learnt.from, [kept[0].id.as_str(), "of no frame here"], "what taught does not teach again");
    assert!(kept.iter().all(|one| store.frame_picture(&one.id, Copied::Small).exists()));
    // Sent again under its key, it is the same.
    let again = store.add_with_frames(job.clone(), ("Import", Some("key")), frames).await.expect("the same");
    assert_eq!(again.id, came.id);
    // One frame twice: nothing of it is kept.
    let before = store.jobs(&Listing::default()).await.expect("jobs").total;
    let twice = vec![with("one", 'a'), with("two", 'a')];
    store.add_with_frames(job, ("Import", None), twice).await.expect_err("the same file comes once");
    assert_eq!(store.jobs(&Listing::default()).await.expect("jobs").total, before);
}
