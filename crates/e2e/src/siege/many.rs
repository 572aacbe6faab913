//! Numbers to hold: very many jobs, very many plans, very many frames.

use std::time::{Duration, Instant};

use reqwest::{Client, Method, StatusCode};
use serde_json::json;

use super::Report;
use super::client::{add, ask, demo_jobs, demo_setups};
use super::memory::held_kb;
use crate::Tolva;

async fn took(client: &Client, url: String) -> Duration {
    let begun = Instant::now();
    ask(client, Method::GET, url, None).await.expect("an answer");
    begun.elapsed()
}

/// With so many jobs a page of the list comes within 30 ms, a search within 50, and the start within a second. For a
/// release build.
pub async fn many_jobs(count: usize) -> Report {
    let mut tolva = Tolva::empty();
    let client = Client::new();
    let jobs = demo_jobs();
    for number in 0..count {
        let mut job = jobs[number % jobs.len()].clone();
        job["name"] = json!(format!("Job {number}"));
        ask(&client, Method::POST, tolva.url("api/v1/jobs"), Some(&job)).await.expect("an answer");
    }
    let mut faults = Vec::new();
    let mut held = |what: &str, took: Duration, most: u64| {
        if took > Duration::from_millis(most) {
            faults.push(format!("{what} took {took:.0?}: at most {most} ms"));
        }
        format!("{what} {took:.1?}")
    };
    tolva.kill();
    let begun = Instant::now();
    tolva.run();
    let start = held("start", begun.elapsed(), 1000);
    took(&client, tolva.url("api/v1/jobs")).await;
    let list = held("a page of the list", took(&client, tolva.url("api/v1/jobs")).await, 30);
    let search = held("a search", took(&client, tolva.url("api/v1/jobs?search=mill")).await, 50);
    Report::of(format!("{count} jobs: {start}, {list}, {search}"), faults)
}

/// What a thread that came and went may leave behind in the allocator, in kilobytes.
const LEFT_BEHIND_KB: u64 = 32_000;

/// Solves `count` plans: memory may grow by a fifth and [`LEFT_BEHIND_KB`] after the first tenth of them.
pub async fn many_solves(count: usize) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let bodies = demo_setups();
    let mut first = None;
    for number in 0..count {
        ask(&client, Method::POST, tolva.url("api/v1/solve"), Some(&bodies[number % bodies.len()]))
            .await
            .expect("a plan");
        if number == count / 10 {
            first = held_kb(tolva.pid());
        }
    }
    let last = held_kb(tolva.pid());
    let grown = first.zip(last).filter(|(first, last)| *last > first + first / 5 + LEFT_BEHIND_KB);
    let faults = grown.map(|(first, last)| format!("it grew from {first} kB to {last} kB")).into_iter().collect();
    Report::of(format!("{count} plans, from {first:?} to {last:?} kB"), faults)
}

/// The same picture with its number appended after the end of the image data, so that each file has another hash.
fn picture(number: usize) -> Vec<u8> {
    let of: &[u8] = include_bytes!("../../../pictures/tests/data/target-1.jpg");
    [of, number.to_string().as_bytes()].concat()
}

pub(super) fn median(mut times: Vec<Duration>) -> Duration {
    times.sort();
    times.get(times.len() / 2).copied().unwrap_or_default()
}

/// With so many frames in a job a page of them comes within 50 ms, and one more is taken in within twice the time of one
/// among the first. For a release build.
pub async fn many_frames(count: usize) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(0);
    let id = add(&client, &tolva, &job).await;
    let setup = job["setups"][0]["id"].as_str().expect("an id").to_owned();
    let mut faults = Vec::new();
    let mut times = Vec::new();
    for number in 0..count {
        let url = tolva.url(&format!("api/v1/jobs/{id}/setups/{setup}/frames?name={number}.jpg"));
        let begun = Instant::now();
        let sent =
            client.post(url).header("content-type", "application/octet-stream").body(picture(number)).send().await;
        if !sent.as_ref().is_ok_and(|answer| answer.status() == StatusCode::CREATED) {
            faults.push(format!("frame {number} was not taken in: {sent:?}"));
            break;
        }
        times.push(begun.elapsed());
    }
    let few = times.len().min(20);
    let first = median(times.iter().skip(2).take(few).copied().collect());
    let last = median(times.iter().rev().take(few).copied().collect());
    if last > first * 2 {
        faults.push(format!("one more is taken in within {last:.0?}, one of the first within {first:.0?}"));
    }
    let mut pages = Vec::new();
    for _ in 0..9 {
        pages.push(took(&client, tolva.url(&format!("api/v1/jobs/{id}/frames?setup={setup}"))).await);
    }
    let page = median(pages);
    if page > Duration::from_millis(50) {
        faults.push(format!("a page took {page:.0?}: at most 50 ms"));
    }
    Report::of(format!("{count} frames: taken in within {first:.0?} and {last:.0?}, a page within {page:.1?}"), faults)
}
