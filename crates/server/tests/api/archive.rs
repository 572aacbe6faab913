//! A job with its frames as one ZIP: taken out, and read again by another Tolva.

use std::io::{Cursor, Read as _, Write as _};

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};
use zip::write::{SimpleFileOptions, ZipWriter};
use zip::{CompressionMethod, ZipArchive};

use crate::frames::{data, send, with_a_job};
use crate::running::Running;

type Parts = Vec<(String, Vec<u8>)>;

/// The job of the example with a frame and what was noted of it, taken out part by part.
async fn taken_out(tolva: &Running, job: &str) -> Parts {
    let url = tolva.url(&format!("api/v1/jobs/{job}/frames/archive.zip"));
    let bytes = tolva.client.get(url).send().await.expect("an answer").bytes().await.expect("bytes");
    let mut zip = ZipArchive::new(Cursor::new(bytes)).expect("a ZIP");
    let parts = zip.len();
    let read = |at| {
        let mut part = zip.by_index(at).expect("a part");
        let mut bytes = Vec::new();
        part.read_to_end(&mut bytes).expect("bytes");
        (part.name().to_owned(), bytes)
    };
    (0..parts).map(read).collect()
}

/// As somebody's program packs it: smaller, in another order.
fn packed(parts: &Parts) -> Vec<u8> {
    let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
    let smaller = SimpleFileOptions::default().compression_method(CompressionMethod::Deflated);
    for (name, bytes) in parts.iter().rev() {
        zip.start_file(name, smaller).expect("a part");
        zip.write_all(bytes).expect("written");
    }
    zip.finish().expect("a ZIP").into_inner()
}

async fn read_again(tolva: &Running, bytes: Vec<u8>) -> (StatusCode, Value) {
    let request =
        tolva.client.post(tolva.url("api/v1/jobs/archive")).header("content-type", "application/octet-stream");
    let answer = request.body(bytes).send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("JSON"))
}

async fn with_frames() -> (Running, String, Parts) {
    let (tolva, job, setup) = with_a_job().await;
    send(&tolva, &job, &setup, "one.jpg", data("hall-without.jpg")).await;
    let (_, line) = send(&tolva, &job, &setup, "two.jpg", data("hall-with.jpg")).await;
    let path = format!("api/v1/frames/{}", line["id"].as_str().expect("an id"));
    let (_, frame) = tolva.get(&path).await;
    let edit = json!({ "settings": frame["settings"], "marks": frame["marks"], "note": "Wind" });
    assert_eq!(tolva.put(&path, &edit).await.0, StatusCode::OK);
    let parts = taken_out(&tolva, &job).await;
    (tolva, job, parts)
}

/// The same job stands in another data file, with its frames in their order, what was noted of them and their pictures; beside
/// the one it came from it stands a second time.
#[actix_web::test]
async fn a_job_moves_with_its_frames() {
    let (first, before, parts) = with_frames().await;
    let other = Running::start();
    for tolva in [&other, &first] {
        let (status, job) = read_again(tolva, packed(&parts)).await;
        assert_eq!(status, StatusCode::CREATED, "{job}");
        let id = job["id"].as_str().expect("an id");
        assert_ne!(id, before);
        let (_, frames) = tolva.get(&format!("api/v1/jobs/{id}/frames")).await;
        let frames = frames["frames"].as_array().expect("frames");
        let said: Vec<_> = frames.iter().map(|one| (one["name"].as_str(), one["note"].as_str())).collect();
        assert_eq!(said, [(Some("one.jpg"), Some("")), (Some("two.jpg"), Some("Wind"))]);
        assert!(frames.iter().all(|one| one["missing"] == false), "{frames:?}");
        let frame = frames[1]["id"].as_str().expect("an id");
        for kind in ["picture", "small"] {
            let url = tolva.url(&format!("api/v1/frames/{frame}/{kind}"));
            let picture = tolva.client.get(url).send().await.expect("an answer").bytes().await.expect("bytes");
            assert!(picture.starts_with(&[0xff, 0xd8]), "{kind}");
        }
        // It is no dead copy: it is held against the plan of the job that it belongs to now.
        let (_, whole) = tolva.get(&format!("api/v1/frames/{frame}")).await;
        let edit = json!({ "settings": whole["settings"], "marks": whole["marks"], "note": "Calm" });
        let (status, edited) = tolva.put(&format!("api/v1/frames/{frame}"), &edit).await;
        assert_eq!((status, &edited["came"]), (StatusCode::OK, &whole["came"]), "{edited}");
    }
    // What is done to the one is not done to the other.
    let (_, old) = first.get(&format!("api/v1/jobs/{before}/frames")).await;
    assert_eq!(old["frames"][1]["note"], "Wind");
}

/// A picture that was left out leaves its frame without one; a ZIP without a log is the job alone.
#[actix_web::test]
async fn what_is_left_out_is_missed_and_told() {
    let (tolva, _, parts) = with_frames().await;
    let without = |end: &str| parts.iter().filter(|(name, _)| !name.ends_with(end)).cloned().collect::<Parts>();
    let (status, job) = read_again(&tolva, packed(&without(".jpg"))).await;
    assert_eq!(status, StatusCode::CREATED, "{job}");
    let (_, frames) = tolva.get(&format!("api/v1/jobs/{}/frames", job["id"].as_str().expect("an id"))).await;
    assert_eq!(
        (frames["frames"][0]["missing"].as_bool(), frames["frames"].as_array().map(Vec::len)),
        (Some(true), Some(2))
    );
    let (status, job) = read_again(&tolva, packed(&without("frames.json"))).await;
    assert_eq!(status, StatusCode::CREATED, "{job}");
    let (_, frames) = tolva.get(&format!("api/v1/jobs/{}/frames", job["id"].as_str().expect("an id"))).await;
    assert_eq!(frames["frames"], json!([]));
}

/// What is wrong is said with where it is, and nothing of it is kept.
#[rstest]
#[case::a_text("", None, "it is no ZIP")]
#[case::no_job("job.tolva.json", None, "holds no job.tolva.json")]
#[case::a_wrong_job("job.tolva.json", Some((r#""iso": 100"#, r#""iso": -3"#)), "iso")]
#[case::a_wrong_log("frames.json", Some((r#""hash": ""#, r#""hash": "z"#)), "/frames/0/hash")]
#[case::no_log("frames.json", Some(("{", "[")), "")]
#[case::no_picture(".jpg", Some(("", "no picture")), "cannot be read as a picture")]
#[actix_web::test]
async fn what_is_wrong_in_it_is_said(#[case] part: &str, #[case] change: Option<(&str, &str)>, #[case] says: &str) {
    let (tolva, _, mut parts) = with_frames().await;
    let bytes = match (part, change) {
        ("", _) => b"this is a text".to_vec(),
        (part, None) => {
            parts.retain(|(name, _)| name != part);
            packed(&parts)
        }
        (part, Some((from, to))) => {
            let (_, bytes) = parts.iter_mut().find(|(name, _)| name.ends_with(part)).expect("the part");
            *bytes = match from {
                "" => to.as_bytes().to_vec(),
                from => String::from_utf8_lossy(bytes).replacen(from, to, 1).into_bytes(),
            };
            packed(&parts)
        }
    };
    let (status, problem) = read_again(&tolva, bytes).await;
    assert!(status.is_client_error(), "{status}");
    assert!(problem.to_string().contains(says), "{problem}");
    let (_, jobs) = tolva.get("api/v1/jobs").await;
    assert_eq!(jobs["total"], 1, "nothing of it is kept");
}
