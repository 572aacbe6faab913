//! Numbers to hold: very many jobs, very many plans.

use std::time::{Duration, Instant};

use reqwest::{Client, Method};
use serde_json::{Value, json};

use super::Report;
use super::client::{ask, demo_jobs};
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

/// What the server holds in memory, in kilobytes; nothing where the system does not say.
fn resident(pid: u32) -> Option<u64> {
    let status = std::fs::read_to_string(format!("/proc/{pid}/status")).ok()?;
    status.lines().find_map(|line| line.strip_prefix("VmRSS:"))?.split_whitespace().next()?.parse().ok()
}

/// Over so many plans the memory stays as it was after the first tenth, to a fifth of it.
pub async fn many_solves(count: usize) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let bodies: Vec<Value> = demo_jobs()
        .iter()
        .flat_map(|job| {
            let setups = job["setups"].as_array().cloned().unwrap_or_default();
            setups.into_iter().map(|setup| json!({ "setup": setup, "kit": job["kit"] })).collect::<Vec<_>>()
        })
        .collect();
    let mut first = None;
    for number in 0..count {
        ask(&client, Method::POST, tolva.url("api/v1/solve"), Some(&bodies[number % bodies.len()]))
            .await
            .expect("a plan");
        if number == count / 10 {
            first = resident(tolva.pid());
        }
    }
    let last = resident(tolva.pid());
    let grown = first.zip(last).filter(|(first, last)| *last > first + first / 5);
    let faults = grown.map(|(first, last)| format!("it grew from {first} kB to {last} kB")).into_iter().collect();
    Report::of(format!("{count} plans, from {first:?} to {last:?} kB"), faults)
}
