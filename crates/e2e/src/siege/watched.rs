//! A watched folder into which pictures are written as they may be: at once, slowly, under another name first, with hostile
//! ones among them. Each good picture becomes one frame, nothing else becomes any; at rest nothing is computed.

use std::fs::OpenOptions;
use std::io::Write as _;
use std::path::Path;
use std::time::Duration;

use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, Method, StatusCode};
use serde_json::json;

use super::Report;
use super::client::{add, ask, demo_jobs};
use super::memory::computed_s;
use crate::Tolva;

const GOOD: [(&str, &[u8]); 5] = [
    ("a.jpg", include_bytes!("../../../pictures/tests/data/bracket-a-1.jpg")),
    ("b.jpg", include_bytes!("../../../pictures/tests/data/bracket-a-2.jpg")),
    ("c.jpg", include_bytes!("../../../pictures/tests/data/bracket-a-3.jpg")),
    ("d.jpg", include_bytes!("../../../pictures/tests/data/hall-with.jpg")),
    ("e.jpg", include_bytes!("../../../pictures/tests/data/hall-without.jpg")),
];

/// So long all of them may take to come in. Sixteen times what it takes on this machine.
const PATIENCE: Duration = Duration::from_mins(3);

async fn written(folder: &Path, name: &str, bytes: &[u8], rng: &mut ChaCha8Rng) -> std::io::Result<()> {
    let file = folder.join(name);
    match rng.random_range(0..3) {
        0 => std::fs::write(file, bytes),
        1 => {
            let part = folder.join(format!(".{name}.part"));
            std::fs::write(&part, bytes)?;
            std::fs::rename(part, file)
        }
        _ => {
            let mut open = OpenOptions::new().create(true).append(true).open(file)?;
            for part in bytes.chunks(bytes.len() / rng.random_range(2..8) + 1) {
                open.write_all(part)?;
                open.flush()?;
                tokio::time::sleep(Duration::from_millis(rng.random_range(0..700))).await;
            }
            Ok(())
        }
    }
}

/// Pictures into a watched folder, hostile ones among them; then, for a while, nothing.
pub async fn watched_folder(seed: u64) -> Report {
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(0);
    let id = add(&client, &tolva, &job).await;
    let folder = tolva.folder().join("tether");
    std::fs::create_dir(&folder).expect("a folder");
    let mut faults = Vec::new();
    let watched = json!({ "folder": folder, "job_id": id, "setup_id": job["setups"][0]["id"] });
    match ask(&client, Method::PUT, tolva.url("api/v1/watched"), Some(&watched)).await {
        Some((StatusCode::OK, _)) => {}
        other => return Report::of("a watched folder", vec![format!("it is not watched: {other:?}")]),
    }
    for (name, bytes) in GOOD {
        let bad = format!("x-{name}");
        let hostile = &bytes[..rng.random_range(1..bytes.len() / 2)];
        let done = (written(&folder, &bad, hostile, &mut rng).await, written(&folder, name, bytes, &mut rng).await);
        if let (Err(error), _) | (_, Err(error)) = done {
            return Report::of("a watched folder", vec![format!("the folder cannot be written to: {error}")]);
        }
    }
    let begun = std::time::Instant::now();
    let names = async || -> Option<Vec<String>> {
        let list = ask(&client, Method::GET, tolva.url(&format!("api/v1/jobs/{id}/frames")), None).await?.1;
        let mut names: Vec<String> =
            list["frames"].as_array()?.iter().filter_map(|frame| Some(frame["name"].as_str()?.to_owned())).collect();
        names.sort();
        Some(names)
    };
    let wanted = GOOD.map(|(name, _)| name.to_owned());
    let mut came = names().await;
    while came.as_ref().is_some_and(|came| came.len() < wanted.len()) && begun.elapsed() < PATIENCE {
        tokio::time::sleep(Duration::from_millis(100)).await;
        came = names().await;
    }
    // What would come twice comes by now.
    tokio::time::sleep(Duration::from_secs(5)).await;
    came = names().await;
    if came.as_deref() != Some(&wanted) {
        faults.push(format!("seed {seed}: {came:?} came, not {wanted:?}"));
    }
    let before = computed_s(tolva.pid());
    tokio::time::sleep(Duration::from_secs(10)).await;
    let rest = before.zip(computed_s(tolva.pid())).map(|(before, after)| after - before);
    if rest.is_some_and(|rest| rest > 1.0) {
        faults.push(format!("seed {seed}: in ten seconds of rest it computed for {rest:?} s"));
    }
    if ask(&client, Method::DELETE, tolva.url("api/v1/watched"), None).await.is_none() {
        faults.push(format!("seed {seed}: it does not stop watching"));
    }
    Report::of(
        format!("a watched folder, {} pictures and as many hostile ones, {rest:?} s of ten at rest", wanted.len()),
        faults,
    )
}
