//! Home with 10 000 jobs as a ratio to home with none, in turns in one run; and how long a change on one device takes to be
//! told to another.

#[path = "../tests/api/running.rs"]
#[allow(dead_code, reason = "the tests use more of it")]
mod running;

use std::time::{Duration, Instant};

use running::Running;
use serde_json::{Value, json};

const JOBS: usize = 10_000;
const AT_ONCE: usize = 8;
const LOOKS: usize = 60;
const CHANGES: usize = 60;

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build().expect("a runtime");
    runtime.block_on(async {
        home().await;
        told().await;
    });
}

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/ropeworks-open-day.json")).expect("the demo data")
}

/// What home asks for, one after the other.
async fn look(tolva: &Running) -> Duration {
    let start = Instant::now();
    for path in ["api/v1/jobs?limit=50", "api/v1/next-job?today=2026-08-01", "api/v1/preferences"] {
        let (status, body) = tolva.get(path).await;
        assert!(status.is_success(), "{path}: {body}");
    }
    start.elapsed()
}

fn half(mut times: Vec<Duration>) -> f64 {
    times.sort();
    times[times.len() / 2].as_secs_f64() * 1e3
}

async fn home() {
    let (empty, full) = (Running::start(), Running::start());
    let job = demo();
    // The empty one has the one job that comes next as well: a home without any has nothing to show.
    let (status, body) = empty.post("api/v1/jobs", &job).await;
    assert!(status.is_success(), "{body}");
    let senders = (0..AT_ONCE).map(|at| {
        let (client, url, mut job) = (full.client.clone(), full.url("api/v1/jobs"), job.clone());
        tokio::spawn(async move {
            for number in (at..JOBS).step_by(AT_ONCE) {
                job["name"] = json!(format!("Job {number}"));
                let answer = client.post(&url).json(&job).send().await.expect("an answer");
                assert!(answer.status().is_success());
                answer.bytes().await.expect("a body");
            }
        })
    });
    for sender in senders.collect::<Vec<_>>() {
        sender.await.expect("all jobs");
    }
    let (mut few, mut many) = (Vec::new(), Vec::new());
    for round in 0..=LOOKS {
        let once = (look(&empty).await, look(&full).await);
        // The first round warms up.
        if round > 0 {
            few.push(once.0);
            many.push(once.1);
        }
    }
    let (few, many) = (half(few), half(many));
    println!("home with one job: {few:.1} ms, with {JOBS}: {many:.1} ms (half of {LOOKS} looks within)");
    println!("ratio of home with {JOBS} jobs to home with one: {:.2}", many / few);
}

/// From a change on one device to the moment another one has read the changed job.
async fn told() {
    let tolva = Running::start();
    let (_, created) = tolva.post("api/v1/jobs", &demo()).await;
    let path = format!("api/v1/jobs/{}", created["id"].as_str().expect("an id"));
    let mut events = tolva.client.get(tolva.url(&format!("{path}/events"))).send().await.expect("an answer");
    let (mut job, mut times) = (created["job"].clone(), Vec::new());
    for number in 0..CHANGES {
        job["notes"] = json!(format!("Change {number}"));
        let start = Instant::now();
        let change = json!({ "based_on": number + 1, "change": "Notes", "job": job });
        let (status, body) = tolva.put(&path, &change).await;
        assert!(status.is_success(), "{body}");
        loop {
            let line = events.chunk().await.expect("a line").expect("an event");
            if line.starts_with(b"event: saved") {
                break;
            }
        }
        let (_, read) = tolva.get(&path).await;
        assert_eq!(read["job"]["notes"], job["notes"]);
        times.push(start.elapsed());
    }
    let most = times.iter().max().expect("some").as_secs_f64() * 1e3;
    println!("a change on one device read on another: half within {:.1} ms, all within {most:.1} ms", half(times));
}
