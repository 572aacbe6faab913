//! Answers to drills.

use super::*;

pub(super) fn answer(skill: &str, right: bool) -> KeptAttempt {
    KeptAttempt {
        at: String::new(),
        day: 20_784,
        who: "Helper".to_owned(),
        skill: skill.to_owned(),
        level: 2,
        seed: 1 << 52,
        answer: 7,
        right,
        off_stops: if right { Some(0.0) } else { None },
        class: "Tuesdays".to_owned(),
    }
}

/// They come back as they were given, in order, with the hour they came; sent again under its key one is the same.
#[tokio::test]
async fn answers_are_kept_once_and_in_order() {
    let (store, folder) = store().await;
    store.keep_attempt(&answer("powers", true), Some("a")).await.expect("kept");
    store.keep_attempt(&answer("gels", false), Some("b")).await.expect("kept");
    store.keep_attempt(&answer("sums", true), Some("a")).await.expect("the same again");
    // Without a key each is one by itself.
    store.keep_attempt(&answer("powers", true), None).await.expect("kept");
    store.keep_attempt(&answer("powers", true), None).await.expect("kept");
    store.close().await;
    let again = Store::open(&folder.path().join("tolva.sqlite")).await.expect("opened again");
    let kept = again.attempts().await.expect("answers");
    let skills: Vec<&str> = kept.iter().map(|one| one.skill.as_str()).collect();
    assert_eq!(skills, ["powers", "gels", "powers", "powers"]);
    assert!(kept.iter().all(|one| one.at.ends_with('Z') && one.seed == 1 << 52 && one.who == "Helper"));
    let first = KeptAttempt { at: String::new(), ..kept[0].clone() };
    assert_eq!((first, kept[1].right, kept[1].off_stops), (answer("powers", true), false, None));
}

/// The job that frames came of last, and none where every frame is in the bin.
#[tokio::test]
async fn the_last_job_with_frames_is_known() {
    let (store, _folder) = store().await;
    assert_eq!(store.last_job_with_frames().await.expect("asked"), None);
}
