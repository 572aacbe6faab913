//! Practice beside the questions: a class that has the same drills everywhere, a set with hidden faults, tasks for one's own
//! camera.

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use crate::frames::data;
use crate::running::Running;

const TODAY: &str = "2026-11-27";

async fn posted(tolva: &Running, path: &str, key: &str, body: &Value) -> (StatusCode, Value) {
    let request = tolva.client.post(tolva.url(path)).header("Idempotency-Key", key).json(body);
    let answer = request.send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("JSON"))
}

async fn text(tolva: &Running, path: &str) -> String {
    tolva.client.get(tolva.url(path)).send().await.expect("an answer").text().await.expect("a text")
}

/// A class's file holds the same questions on every machine, whatever kit stands there; its answers go out under its name.
#[actix_web::test]
async fn a_class_has_the_same_drills_everywhere() {
    let (teacher, pupil) = (Running::start(), Running::start());
    let (_, kit) = pupil.get("api/v1/kit").await;
    let mut other = kit["kit"].clone();
    other["flashes"][0]["power"]["step"] = json!("whole");
    let saved = json!({ "based_on": kit["revision"], "change": "Whole stops", "kit": other });
    let (status, body) = pupil.put("api/v1/kit", &saved).await;
    assert!(status.is_success(), "{body}");

    let file: Value = serde_json::from_str(
        &text(&teacher, "api/v1/drills/class.json?name=Tuesdays&skills=powers,gels&level=2&count=6").await,
    )
    .expect("JSON");
    assert_eq!((&file["format"], file["drills"].as_array().map(Vec::len)), (&json!("tolva-class"), Some(6)));
    let (status, here) = posted(&teacher, "api/v1/drills/class", "a", &file).await;
    let (_, there) = posted(&pupil, "api/v1/drills/class", "a", &file).await;
    assert_eq!((status, &here["class"]), (StatusCode::OK, &json!("Tuesdays")));
    assert_eq!(here, there);

    let drill = &there["drills"][0];
    let answer = json!({
        "skill": drill["skill"]["code"], "level": 2, "seed": drill["seed"], "mark": drill["mark"], "answer": 0,
        "today": TODAY, "class": "Tuesdays",
    });
    let (status, said) = posted(&pupil, "api/v1/drills/answers", "b", &answer).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let own = json!({ "skill": "powers", "level": 1, "seed": 1, "mark": "x", "answer": 0 });
    assert_eq!(posted(&pupil, "api/v1/drills/answers", "c", &own).await.0, StatusCode::CONFLICT);
    let all = text(&pupil, "api/v1/drills/answers.csv?class=Tuesdays").await;
    assert_eq!(all.lines().count(), 2, "{all}");
    assert!(all.lines().nth(1).is_some_and(|row| row.contains("2026-11-27,,Tuesdays,powers,2,")), "{all}");
    assert_eq!(text(&pupil, "api/v1/drills/answers.csv?class=Mondays").await.lines().count(), 1);
}

#[rstest]
#[case::not_one(json!({ "format": "tolva-kit", "format_version": 1, "name": "A", "drills": [] }), "/format")]
#[case::without_drills(json!({ "format": "tolva-class", "format_version": 1, "name": "A", "drills": [] }), "/drills")]
#[case::a_skill_nobody_teaches(
    json!({ "format": "tolva-class", "format_version": 1, "name": "A",
        "drills": [{ "skill": "gels", "level": 1, "seed": 1 }, { "skill": "juggling", "level": 1, "seed": 1 }] }),
    "/drills/1/skill"
)]
#[case::a_field_too_many(json!({ "format": "tolva-class", "format_version": 1, "name": "A", "drills": [], "x": 1 }), "/x")]
#[actix_web::test]
async fn what_is_no_class_is_refused_in_words(#[case] file: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let (status, problem) = posted(&tolva, "api/v1/drills/class", "a", &file).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

/// A set tells what its level tells, is reached by some place of its dials, and is kept once; what was hidden shows then.
#[actix_web::test]
async fn a_set_is_reached_and_kept() {
    let tolva = Running::start();
    let ask = async |frames: &[Value], key: &str, level: u8| {
        let body = json!({ "level": level, "seed": 4, "frames": frames, "today": TODAY });
        posted(&tolva, "api/v1/drills/set", key, &body).await
    };
    let (status, set) = ask(&[], "a", 1).await;
    assert_eq!((status, &set["end"], set["dials"].as_array().map(Vec::len)), (StatusCode::OK, &Value::Null, Some(4)));
    let count = |dial: usize| set["dials"][dial]["options"].as_array().map_or(0, Vec::len);
    let begins = |dial: usize| set["dials"][dial]["begins_at"].clone();
    // Everything there is, in frames of sixty: by hand it takes three.
    let mut all = Vec::new();
    for aperture in 0..count(1) {
        for shutter in 0..count(0) {
            for power in 0..count(3) {
                all.push(json!({ "shutter": shutter, "aperture": aperture, "iso": begins(2), "power": power }));
            }
        }
    }
    let mut end = None;
    for frames in all.chunks(60) {
        let (_, set) = ask(frames, "the end", 1).await;
        assert_eq!(set["frames"].as_array().map(Vec::len), Some(frames.len()));
        if set["end"].is_object() {
            end = Some((set, frames.len()));
            break;
        }
    }
    let (set, frames) = end.expect("reached");
    let fewest = set["end"]["fewest"].as_u64().expect("a number");
    assert!((1..=4).contains(&fewest) && !set["end"]["hidden"].as_array().expect("some").is_empty(), "{set}");
    let (_, progress) = tolva.get(&format!("api/v1/drills/progress?today={TODAY}")).await;
    assert_eq!(progress["on_set"], json!({ "day": TODAY, "reached": true, "frames": frames }));
    assert_eq!(progress["this_week"], 0, "a set is no question");
    // The third level tells nothing but whether it is reached.
    let (_, quiet) = ask(&all[..1], "b", 3).await;
    assert_eq!(quiet["frames"][0]["says"], json!(["Not yet as wished"]));
}

#[actix_web::test]
async fn a_frame_of_a_set_is_a_picture() {
    let tolva = Running::start();
    let at = |power: usize| format!("api/v1/drills/set.jpg?level=1&seed=4&shutter=20&aperture=8&iso=0&power={power}");
    let get = async |power: usize, tag: &str| {
        let request = tolva.client.get(tolva.url(&at(power))).header("If-None-Match", tag);
        request.send().await.expect("an answer")
    };
    let first = get(9, "").await;
    assert_eq!(
        (first.status(), &first.headers()["content-type"]),
        (StatusCode::OK, &"image/jpeg".parse().expect("it"))
    );
    let tag = first.headers()["etag"].to_str().expect("a mark").to_owned();
    assert_eq!(get(9, &tag).await.status(), StatusCode::NOT_MODIFIED);
    assert_eq!(get(900, "").await.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[rstest]
#[case(json!({ "level": 1, "seed": 4, "frames": [{ "shutter": 0, "aperture": 0, "iso": 0, "power": 900 }] }), "/frames")]
#[case(json!({ "level": 7, "seed": 4 }), "/level")]
#[case(json!({ "level": 1, "seed": 4, "today": "soon" }), "/today")]
#[actix_web::test]
async fn what_is_no_frame_of_a_set_is_named(#[case] body: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let (status, problem) = posted(&tolva, "api/v1/drills/set", "a", &body).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

async fn measured(tolva: &Running, name: &str) -> Value {
    let request = tolva.client.post(tolva.url(&format!("api/v1/drills/tasks/frames?name={name}")));
    let request = request.header("Content-Type", "application/octet-stream").body(data(name));
    let answer = request.send().await.expect("an answer");
    assert_eq!(answer.status(), StatusCode::OK);
    answer.json().await.expect("JSON")
}

/// A pair of reference frames as a task: the flash by itself is what the second has more than the first.
#[actix_web::test]
async fn frames_are_held_against_a_task() {
    let tolva = Running::start();
    let (without, with) =
        (measured(&tolva, "courtyard-without.jpg").await, measured(&tolva, "courtyard-with.jpg").await);
    assert_eq!((&without["flash"], &with["flash"]), (&json!(false), &json!(true)));
    let judge = async |task: &str, frames: Vec<&Value>, key: &str| {
        let body = json!({ "frames": frames, "today": TODAY });
        posted(&tolva, &format!("api/v1/drills/tasks/{task}"), key, &body).await
    };
    let (status, found) = judge("slow_with_flash", vec![&without, &with], "a").await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let says: Vec<_> = found["findings"].as_array().expect("some").iter().map(|one| one["says"].as_str()).collect();
    assert!(says.contains(&Some("Frame 1: the flash stayed off.")), "{says:?}");
    assert!(says.contains(&Some("Frame 2: at the settings of the first.")), "{says:?}");
    let light = |of: &Value| {
        let part = |at: usize| of["mean"][at].as_f64().expect("light");
        0.2126 * part(0) + 0.7152 * part(1) + 0.0722 * part(2)
    };
    let alone = ((light(&with) - light(&without)) / 0.18).log2();
    let thirds = (alone * 3.0).round() / 3.0;
    let line = says.iter().flatten().find(|line| line.contains("by itself gives")).expect("it");
    let said = tolva_core::scale::Stops(thirds).thirds();
    assert!(line.contains(&format!("gives {said} stops")), "{line} {alone}");
    // In the other order the flash fired where it was to stay off.
    let (_, found) = judge("slow_with_flash", vec![&with, &without], "b").await;
    assert_eq!(
        found["findings"][0],
        json!({ "says": "Frame 1: the flash fired, and was to stay off.", "good": false })
    );
    // What is not all there is told, and not kept.
    let (_, found) = judge("touch_of_flash", vec![&without], "c").await;
    assert_eq!(found["findings"][0]["says"], "This takes 3 frames; 1 came.");
    let (_, progress) = tolva.get(&format!("api/v1/drills/progress?today={TODAY}")).await;
    let last = |at: usize| progress["tasks"][at]["last"].clone();
    assert_eq!((last(1), last(4)["frames"].as_u64()), (Value::Null, Some(2)));
    assert_eq!(judge("juggling", vec![&without], "d").await.0, StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn what_is_no_frame_of_a_task_is_named() {
    let tolva = Running::start();
    let mut frame = measured(&tolva, "hall-with.jpg").await;
    frame["mean"] = json!([-1.0, 0.0, 0.0]);
    let (status, problem) =
        posted(&tolva, "api/v1/drills/tasks/environment_first", "a", &json!({ "frames": [frame] })).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/frames/0")));
    let request = tolva.client.post(tolva.url("api/v1/drills/tasks/frames?name=a.jpg"));
    let answer = request.header("Content-Type", "application/octet-stream").body("a text").send().await.expect("it");
    let problem: Value = answer.json().await.expect("JSON");
    assert!(problem["detail"].as_str().is_some_and(|says| says.contains("no JPEG, PNG or TIFF")), "{problem}");
}
