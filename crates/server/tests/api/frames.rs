//! Frames: sent, marked, held against their plan, learnt from, taken apart, taken out.

use std::path::{Path, PathBuf};

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use crate::example;
use crate::running::Running;

pub fn data(name: &str) -> Vec<u8> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../pictures/tests/data");
    std::fs::read(folder.join(name)).expect("a reference frame")
}

/// A Tolva with the example job, and the place its first setup's frames go to.
pub async fn with_a_job() -> (Running, String, String) {
    let tolva = Running::start();
    let (status, job) = tolva.post("api/v1/jobs", &example()).await;
    assert_eq!(status, StatusCode::CREATED, "{job}");
    let id = job["id"].as_str().expect("an id").to_owned();
    let setup = job["job"]["setups"][0]["id"].as_str().expect("an id").to_owned();
    (tolva, id, setup)
}

pub async fn send(tolva: &Running, job: &str, setup: &str, name: &str, bytes: Vec<u8>) -> (StatusCode, Value) {
    let url = tolva.url(&format!("api/v1/jobs/{job}/setups/{setup}/frames?name={name}"));
    let request = tolva.client.post(url).header("content-type", "application/octet-stream").body(bytes);
    let answer = request.send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("JSON"))
}

/// A frame becomes a line with its settings; the same file comes once; its pictures are there, and its place on the disk.
#[actix_web::test]
async fn a_frame_is_taken_in() {
    let (tolva, job, setup) = with_a_job().await;
    let (status, line) = send(&tolva, &job, &setup, "one.jpg", data("hall-with.jpg")).await;
    assert_eq!(status, StatusCode::CREATED, "{line}");
    assert!(line["settings"].as_str().is_some_and(|line| line.contains("f/") && line.contains("ISO")), "{line}");
    assert_eq!((line["name"].as_str(), line["simulated"].as_bool()), (Some("one.jpg"), Some(false)));
    let id = line["id"].as_str().expect("an id");
    let (status, again) = send(&tolva, &job, &setup, "copy.jpg", data("hall-with.jpg")).await;
    assert_eq!((status, again["id"].as_str()), (StatusCode::OK, Some(id)), "the same file comes once");
    let (_, list) = tolva.get(&format!("api/v1/jobs/{job}/frames")).await;
    assert_eq!(list["frames"].as_array().map(Vec::len), Some(1));
    for kind in ["picture", "small"] {
        let answer =
            tolva.client.get(tolva.url(&format!("api/v1/frames/{id}/{kind}"))).send().await.expect("an answer");
        assert_eq!(answer.headers()["content-type"], "image/jpeg");
        assert!(answer.bytes().await.expect("bytes").starts_with(&[0xff, 0xd8]));
    }
    // Into the bin and back.
    let url = tolva.url(&format!("api/v1/frames/{id}"));
    assert_eq!(tolva.client.delete(url).send().await.expect("an answer").status(), StatusCode::NO_CONTENT);
    assert_eq!(tolva.get(&format!("api/v1/jobs/{job}/frames")).await.1["frames"], json!([]));
    let (status, _) = tolva.post(&format!("api/v1/frames/{id}/restore"), &json!({})).await;
    assert_eq!(status, StatusCode::OK);
}

#[rstest]
#[case::nothing(Vec::new(), "empty")]
#[case::a_text(b"this is a text".to_vec(), "")]
#[case::broken_off(data("hall-with.jpg")[..4000].to_vec(), "")]
#[actix_web::test]
async fn what_is_no_picture_is_refused_in_words(#[case] bytes: Vec<u8>, #[case] says: &str) {
    let (tolva, job, setup) = with_a_job().await;
    let (status, problem) = send(&tolva, &job, &setup, "frame.jpg", bytes).await;
    assert_eq!((status, problem["code"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("unreadable_picture")));
    assert!(problem["detail"].as_str().is_some_and(|detail| detail.len() > 10 && detail.contains(says)), "{problem}");
    assert_eq!(tolva.get(&format!("api/v1/jobs/{job}/frames")).await.1["frames"], json!([]), "nothing came of it");
}

/// A scene of blocks, moved to the right by some pixels, as a JPEG of any size.
fn blocks(wide: usize, high: usize, right: usize) -> Vec<u8> {
    let pixel = |at: usize| {
        let (x, y) = ((at % wide + 4000 - right) / 29, at / wide / 23);
        [0.03 + f32::from(u8::try_from((x * x * 7 + y * y * 5 + x * y * 3) % 23).expect("small")) * 0.01; 3]
    };
    let side = |pixels: usize| u32::try_from(pixels).expect("a size");
    let size = tolva_core::proof::Size { width: side(wide), height: side(high) };
    let picture = tolva_core::proof::Picture { size, pixels: (0..wide * high).map(pixel).collect() };
    tolva_pictures::jpeg(&picture, 95, None).expect("a JPEG")
}

/// The second frame is held against the first whatever its size, odd widths too: 1023 × 683 once hung the queue, and every
/// later frame behind it.
#[rstest]
#[case(1023, 683)]
#[case(81, 79)]
#[case(1279, 333)]
#[actix_web::test]
async fn a_second_frame_of_any_size_comes_in(#[case] wide: usize, #[case] high: usize) {
    let (tolva, job, setup) = with_a_job().await;
    for (number, right) in [0, 5, 9].into_iter().enumerate() {
        let (status, line) = send(&tolva, &job, &setup, "odd.jpg", blocks(wide, high, right)).await;
        assert_eq!(status, StatusCode::CREATED, "{number}: {line}");
    }
}

/// A page has the last frames, and tells what to ask for those before; a plate is held to its picture on another page, too.
#[actix_web::test]
async fn frames_come_page_by_page() {
    let (tolva, job, setup) = with_a_job().await;
    for right in [0, 5, 9] {
        send(&tolva, &job, &setup, &format!("at{right}.jpg"), blocks(300, 200, right)).await;
    }
    let page = async |asked: &str| tolva.get(&format!("api/v1/jobs/{job}/frames?{asked}")).await;
    let names = |page: &Value| -> Vec<String> {
        let frames = page["frames"].as_array().expect("frames");
        frames.iter().map(|frame| frame["name"].as_str().expect("a name").to_owned()).collect()
    };
    let (_, last) = page("limit=2").await;
    assert_eq!((names(&last), &last["total"]), (vec!["at5.jpg".to_owned(), "at9.jpg".to_owned()], &json!(3)));
    let (_, first) = page(&format!("limit=2&before={}", last["earlier"])).await;
    assert_eq!((names(&first), &first["earlier"]), (vec!["at0.jpg".to_owned()], &Value::Null));
    for wrong in ["limit=0", "limit=201"] {
        let (status, problem) = page(wrong).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert!(problem.to_string().contains("from 1 to 200"), "{problem}");
    }
    assert_eq!(page("limit=many").await.0, StatusCode::BAD_REQUEST);

    // The last frame is a plate of a shot that the setup has by now.
    let (_, body) = tolva.get(&format!("api/v1/jobs/{job}")).await;
    let mut with_a_plate = body["job"].clone();
    with_a_plate["setups"][0]["shots"] = json!([{ "id": "plate", "name": "Plate", "kind": "clean_plate" }]);
    let saved = json!({ "based_on": body["revision"], "change": "Shot", "job": with_a_plate });
    let (status, said) = tolva.put(&format!("api/v1/jobs/{job}"), &saved).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let id = last["frames"][1]["id"].as_str().expect("an id");
    let edit = json!({ "settings": {}, "marks": [], "shot_id": "plate" });
    let (status, said) = tolva.put(&format!("api/v1/frames/{id}"), &edit).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let (_, all) = page("").await;
    let (_, one) = page("limit=1").await;
    assert!(one["frames"][0]["same"].is_object(), "{one}");
    assert_eq!((&one["frames"][0], &one["plates"]), (&all["frames"][2], &all["plates"]));
}

/// A target is read in a picture with no job and no setup; nothing is kept of it.
#[actix_web::test]
async fn a_target_is_read_with_no_setup_open() {
    let tolva = Running::start();
    let ask = async |bytes: Vec<u8>| {
        let url = tolva.url("api/v1/calculators/two-tone-target");
        let request = tolva.client.post(url).header("content-type", "application/octet-stream").body(bytes);
        let answer = request.send().await.expect("an answer");
        (answer.status(), answer.json::<Value>().await.expect("JSON"))
    };
    let (status, found) = ask(data("target-1.jpg")).await;
    assert_eq!((status, &found["found"]), (StatusCode::OK, &json!(true)), "{found}");
    assert!(found["off"]["stops"].is_number() && found["balance"].is_string(), "{found}");
    let (status, none) = ask(blocks(300, 200, 0)).await;
    assert_eq!((status, &none["found"], &none["off"]), (StatusCode::OK, &json!(false), &Value::Null), "{none}");
    let (status, problem) = ask(b"no picture".to_vec()).await;
    assert_eq!((status, problem["code"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("unreadable_picture")));
}

#[actix_web::test]
async fn a_frame_needs_a_job_and_a_setup() {
    let (tolva, job, setup) = with_a_job().await;
    assert_eq!(send(&tolva, "none", &setup, "a.jpg", Vec::new()).await.0, StatusCode::NOT_FOUND);
    let (status, problem) = send(&tolva, &job, "none", "a.jpg", Vec::new()).await;
    assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/setup")));
}

/// The whole loop with the stand-in camera: one frame without flash and one with it are learnt from, and the third comes as
/// planned. What was hidden is near what was learnt.
#[actix_web::test]
async fn the_third_frame_comes_as_planned() {
    let (tolva, job, setup_id) = with_a_job().await;
    let kit = example()["kit"].clone();
    let mut setup = example()["setups"][0].clone();
    let mut worst = Vec::new();
    for flash in [false, true, true] {
        let body = json!({ "setup": setup, "kit": kit, "seed": 4, "flash": flash });
        let path = format!("api/v1/jobs/{job}/setups/{setup_id}/frames/stand-in");
        // The frame is held against the setup as it is stored.
        let (_, now) = tolva.get(&format!("api/v1/jobs/{job}")).await;
        let mut stored = now["job"].clone();
        stored["setups"][0] = setup.clone();
        let save = json!({ "based_on": now["revision"], "change": "Learnt", "job": stored });
        let (status, saved) = tolva.put(&format!("api/v1/jobs/{job}"), &save).await;
        assert_eq!(status, StatusCode::OK, "{saved}");
        let (status, line) = tolva.post(&path, &body).await;
        assert_eq!(status, StatusCode::CREATED, "{line}");
        assert_eq!(line["simulated"], true);
        let off: Vec<f64> =
            line["came"].as_array().expect("regions").iter().filter_map(|came| came["off_stops"].as_f64()).collect();
        assert!(!off.is_empty(), "{line}");
        worst.push(off.iter().fold(0.0f64, |most, off| most.max(off.abs())));
        let id = line["id"].as_str().expect("an id");
        let (status, told) =
            tolva.post(&format!("api/v1/frames/{id}/lesson"), &json!({ "setup": setup, "kit": kit })).await;
        assert_eq!(status, StatusCode::OK, "{told}");
        setup = told["lesson"]["setup"].clone();
        assert_eq!(setup["learnt"]["from"].as_array().and_then(|from| from.last().cloned()), Some(json!(id)));
        let (_, again) =
            tolva.post(&format!("api/v1/frames/{id}/lesson"), &json!({ "setup": setup, "kit": kit })).await;
        assert_eq!(again["lesson"]["learnt"], true, "a frame teaches once");
        assert_eq!(again["lesson"]["setup"]["learnt"], setup["learnt"]);
    }
    assert!(worst[0] > 0.3, "something was hidden: {worst:?}");
    assert!(worst[2] < 0.2, "{worst:?}");
    let (_, beliefs) = tolva.post("api/v1/beliefs", &json!({ "setup": setup, "kit": kit })).await;
    assert_eq!(beliefs["frames"], 3);
    let (_, hidden) = tolva.post("api/v1/stand-in/reveal", &json!({ "setup": setup, "kit": kit, "seed": 4 })).await;
    assert!(hidden["hidden"].as_array().expect("a list").iter().all(|one| one["learnt"].is_object()), "{hidden}");
    // The log, taken out.
    let table =
        tolva.client.get(tolva.url(&format!("api/v1/jobs/{job}/frames/log.csv"))).send().await.expect("an answer");
    let table = table.text().await.expect("a text");
    assert_eq!(table.lines().count(), 4, "{table}");
    let archive =
        tolva.client.get(tolva.url(&format!("api/v1/jobs/{job}/frames/archive.zip"))).send().await.expect("an answer");
    let bytes = archive.bytes().await.expect("bytes");
    let mut zip = zip::ZipArchive::new(std::io::Cursor::new(bytes)).expect("a ZIP");
    assert_eq!(zip.len(), 6, "the job, the log twice, three pictures");
    let log: Value = serde_json::from_reader(zip.by_name("frames.json").expect("the log")).expect("JSON");
    assert_eq!(log["frames"].as_array().map(Vec::len), Some(3));
}

/// Settings that the file does not say are given once, marks are put where the regions are, and what is wrong is named.
#[actix_web::test]
async fn marks_and_settings_are_given() {
    let (tolva, job, setup) = with_a_job().await;
    let (_, line) = send(&tolva, &job, &setup, "one.jpg", data("hall-with.jpg")).await;
    let path = format!("api/v1/frames/{}", line["id"].as_str().expect("an id"));
    let (_, frame) = tolva.get(&path).await;
    let edit = |marks: Value, settings: Value| json!({ "settings": settings, "marks": marks, "note": "Wind" });
    let mark =
        json!({ "region_id": "lit", "left": 0.4, "top": 0.4, "width": 0.1, "height": 0.1, "surface_stops": 0.0 });
    let (status, edited) = tolva.put(&path, &edit(json!([mark]), frame["settings"].clone())).await;
    assert_eq!(status, StatusCode::OK, "{edited}");
    assert_eq!((edited["note"].as_str(), edited["marks"].as_array().map(Vec::len)), (Some("Wind"), Some(1)));
    assert!(edited["marks"][0]["measured"]["green"].as_f64().is_some_and(|green| green > 0.0), "{edited}");
    let lit = edited["came"].as_array().expect("regions").iter().find(|came| came["region_id"] == "lit").expect("lit");
    assert!(lit["off_stops"].is_number(), "{lit}");
    let (_, bare) = tolva.put(&path, &edit(json!([mark]), json!({}))).await;
    let lit = bare["came"].as_array().expect("regions").iter().find(|came| came["region_id"] == "lit").expect("lit");
    assert!(lit["off_stops"].is_null() && lit["came_stops"].is_number(), "without settings: {lit}");
    let (status, problem) = tolva.put(&path, &edit(json!([mark, mark]), json!({ "iso": 0 }))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let pointers: Vec<&str> =
        problem["errors"].as_array().expect("errors").iter().filter_map(|one| one["pointer"].as_str()).collect();
    assert_eq!(pointers, ["/settings/iso", "/marks/1/region_id"]);
}

/// A plate is held to its picture by what the files say; a shot nobody lists is refused; one that is ticked off without a
/// frame is told.
#[actix_web::test]
async fn a_plate_is_held_to_its_picture() {
    let (tolva, job, setup) = with_a_job().await;
    let list = async || tolva.get(&format!("api/v1/jobs/{job}/frames")).await.1;
    let (_, picture) = send(&tolva, &job, &setup, "picture.jpg", data("stairs-with.jpg")).await;
    assert_eq!((list().await["plates"].clone(), picture["same"].clone()), (json!([]), Value::Null));
    // Ticked off, though none of the frames is said to be of it.
    let path = format!("api/v1/jobs/{job}");
    let (_, body) = tolva.get(&path).await;
    let mut with = body["job"].clone();
    with["setups"][0]["shots"][2]["taken"] = json!(1);
    let (status, _) = tolva.put(&path, &json!({ "based_on": 1, "change": "Plate: taken", "job": with })).await;
    assert_eq!(status, StatusCode::OK);
    let plates = list().await["plates"].clone();
    let came = &plates[0]["came"];
    assert_eq!((plates[0]["shot_id"].as_str(), came["good"].as_bool()), (Some("plate"), Some(false)), "{plates}");
    assert!(came["says"].as_str().is_some_and(|says| says.contains("ticked off")), "{came}");

    let (_, plate) = send(&tolva, &job, &setup, "plate.jpg", data("stairs-without.jpg")).await;
    let at = format!("api/v1/frames/{}", plate["id"].as_str().expect("an id"));
    let (_, frame) = tolva.get(&at).await;
    let edit = |settings: &Value, shot: &str| json!({ "settings": settings, "marks": [], "shot_id": shot });
    let (status, problem) = tolva.put(&at, &edit(&frame["settings"], "moon")).await;
    assert_eq!(
        (status, problem["errors"][0]["pointer"].as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, Some("/shot_id"))
    );
    let (status, _) = tolva.put(&at, &edit(&frame["settings"], "plate")).await;
    assert_eq!(status, StatusCode::OK);
    let found = list().await;
    let same = &found["frames"][1]["same"];
    assert!(same["good"] == false && same["says"].as_str().is_some_and(|says| says.contains("flash")), "{same}");
    assert_eq!(found["plates"][0]["came"], *same, "the shot says what its frame does");
    // At the picture's settings all is well.
    let (_, of_picture) = tolva.get(&format!("api/v1/frames/{}", picture["id"].as_str().expect("an id"))).await;
    tolva.put(&at, &edit(&of_picture["settings"], "plate")).await;
    let found = list().await;
    assert_eq!(
        (&found["frames"][1]["same"]["good"], &found["plates"][0]["came"]["good"]),
        (&json!(true), &json!(true))
    );
    assert_eq!(found["frames"][0]["same"], Value::Null);
}

/// Two frames of one place, taken apart as the reference says, and mixed anew.
#[actix_web::test]
async fn two_frames_are_taken_apart() {
    let (tolva, job, setup) = with_a_job().await;
    let (_, without) = send(&tolva, &job, &setup, "without.jpg", data("hall-without.jpg")).await;
    let (_, with) = send(&tolva, &job, &setup, "with.jpg", data("hall-with.jpg")).await;
    let id = |line: &Value| line["id"].as_str().expect("an id").to_owned();
    let (with, without) = (id(&with), id(&without));
    let pair = format!("api/v1/frames/{with}/without/{without}");
    let (status, apart) = tolva.get(&pair).await;
    assert_eq!(status, StatusCode::OK, "{apart}");
    let share = apart["flash_percent"].as_f64().expect("a share");
    assert!((5.0..95.0).contains(&share), "{apart}");
    let fetch = async |path: String| {
        let answer = tolva.client.get(tolva.url(&path)).send().await.expect("an answer");
        (answer.status(), answer.bytes().await.expect("bytes"))
    };
    let (status, map) = fetch(format!("{pair}/map")).await;
    assert!(status == StatusCode::OK && map.starts_with(b"\x89PNG"));
    let (_, plain) = fetch(format!("{pair}/mix")).await;
    let (_, dark) = fetch(format!("{pair}/mix?flash_stops=-3&kelvin=3200")).await;
    assert!(plain.starts_with(&[0xff, 0xd8]) && dark.starts_with(&[0xff, 0xd8]) && plain != dark);
    let (status, problem) = tolva.get(&format!("{pair}/mix?flash_stops=40")).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/flash_stops")));
    let body = json!({ "setup": example()["setups"][0], "kit": example()["kit"], "mixture": { "flash_stops": -1, "kelvin": 4800 } });
    let (status, used) = tolva.post(&format!("api/v1/frames/{with}/mixed"), &body).await;
    assert_eq!(status, StatusCode::OK, "{used}");
    assert_eq!(used["setup"]["white_balance"]["kelvin"]["kelvin"], 4800.0);
    assert!(used["setup"]["fixed"]["shutter_s"].is_number());
}

/// The target is found by itself; a bracket gives a curve; too few frames are told.
#[actix_web::test]
async fn targets_and_brackets_are_read() {
    let (tolva, job, setup) = with_a_job().await;
    let (_, line) = send(&tolva, &job, &setup, "target.jpg", data("target-1.jpg")).await;
    let id = line["id"].as_str().expect("an id");
    let (status, found) = tolva.post(&format!("api/v1/frames/{id}/target"), &json!({})).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert!(found["target"]["off"]["stops"].is_number(), "{found}");
    let mut ids = Vec::new();
    for number in 1..=5 {
        let (status, line) = send(&tolva, &job, &setup, "b.jpg", data(&format!("bracket-a-{number}.jpg"))).await;
        assert_eq!(status, StatusCode::CREATED, "{line}");
        ids.push(line["id"].clone());
    }
    let (status, curve) = tolva.post("api/v1/frames/curve", &json!({ "frames": ids })).await;
    assert_eq!(status, StatusCode::OK, "{curve}");
    assert_eq!(curve["levels"].as_array().map(Vec::len), Some(31));
    let (status, problem) = tolva.post("api/v1/frames/curve", &json!({ "frames": [ids[0]] })).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/frames")));
}

/// Until something is as it is to be.
async fn until<T, F: Future<Output = Option<T>>>(mut look: impl FnMut() -> F) -> T {
    for _ in 0..600 {
        if let Some(found) = look().await {
            return found;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    panic!("it never came");
}

/// The frames of a job, once there are so many.
fn many_of(
    tolva: &Running,
    list: &str,
    count: usize,
) -> impl FnMut() -> std::pin::Pin<Box<dyn Future<Output = Option<Vec<Value>>>>> {
    let (client, url) = (tolva.client.clone(), tolva.url(list));
    move || {
        let asked = client.get(&url).send();
        Box::pin(async move {
            let list: Value = asked.await.expect("an answer").json().await.expect("JSON");
            let frames = list["frames"].as_array().cloned().unwrap_or_default();
            (frames.len() == count).then_some(frames)
        })
    }
}

/// What is written into a watched folder comes by itself, in order; what is no picture is left; a folder that is not there is
/// told.
#[actix_web::test]
async fn a_folder_is_watched() {
    let (mut tolva, job, setup) = with_a_job().await;
    let folder = tempfile::tempdir().expect("a folder");
    let path = |name: &str| -> PathBuf { folder.path().join(name) };
    std::fs::write(path("first.jpg"), data("hall-without.jpg")).expect("written");
    std::fs::write(path("notes.txt"), "nothing").expect("written");
    let watch = |folder: &Path| json!({ "folder": folder, "job_id": job, "setup_id": setup });
    let (status, problem) = tolva.put("api/v1/watched", &watch(&path("none"))).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/folder")));
    let (status, watching) = tolva.put("api/v1/watched", &watch(folder.path())).await;
    assert_eq!((status, watching["there"].as_bool()), (StatusCode::OK, Some(true)));
    let list = format!("api/v1/jobs/{job}/frames");
    until(many_of(&tolva, &list, 1)).await;
    // Written beside and moved in, as some programs do, and straight.
    std::fs::write(path(".second.part"), data("hall-with.jpg")).expect("written");
    std::fs::rename(path(".second.part"), path("second.jpg")).expect("moved");
    let frames = until(many_of(&tolva, &list, 2)).await;
    assert_eq!((&frames[0]["name"], &frames[1]["name"]), (&json!("first.jpg"), &json!("second.jpg")));
    // What is written while Tolva is off is there when it is on again; what was taken in before does not come twice.
    drop(frames);
    tolva.kill_and_start_again();
    std::fs::write(path("third.jpg"), data("stairs-with.jpg")).expect("written");
    let frames = until(many_of(&tolva, &list, 3)).await;
    assert_eq!(frames[2]["name"], "third.jpg");
    let answer = tolva.client.delete(tolva.url("api/v1/watched")).send().await.expect("an answer");
    assert_eq!(answer.status(), StatusCode::NO_CONTENT);
    assert_eq!(tolva.get("api/v1/watched").await.1["watched"], Value::Null);
}

/// What worked: of a setup's frames the one nearest to its plan, with the setup as it stood.
#[actix_web::test]
async fn the_frame_that_worked_is_known() {
    let tolva = Running::start();
    let job: Value =
        serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data");
    let (_, kept) = tolva.post("api/v1/jobs", &job).await;
    let (setup, kit) = (&kept["job"]["setups"][0], &kept["job"]["kit"]);
    let job = kept["id"].as_str().expect("an id");
    let worked = async || tolva.get(&format!("api/v1/jobs/{job}/frames/worked")).await.1;
    assert_eq!(worked().await, json!({ "setups": [] }));
    let mut off = Vec::new();
    for (seed, flash) in [(1, false), (2, true), (3, true)] {
        let asked = json!({ "setup": setup, "kit": kit, "seed": seed, "flash": flash });
        let (status, frame) = tolva.post(&format!("api/v1/jobs/{job}/setups/doorway/frames/stand-in"), &asked).await;
        assert!(status.is_success(), "{frame}");
        let most = frame["came"].as_array().expect("regions").iter().filter_map(|one| one["off_stops"].as_f64());
        off.push((frame["id"].clone(), most.map(f64::abs).fold(0.0, f64::max)));
    }
    let found = worked().await;
    let nearest = off[1..].iter().min_by(|a, b| a.1.total_cmp(&b.1)).expect("two with flash");
    assert_eq!((&found["setups"][0]["frame"]["id"], &found["setups"][0]["of"]), (&nearest.0, &json!(2)), "{off:?}");
    assert_eq!(found["setups"][0]["setup"]["id"], "doorway");
}
