//! Numbers to hold of previews: plans go on beside them, and what they take is given back.

use std::time::{Duration, Instant};

use reqwest::{Client, Method, StatusCode};
use serde_json::json;

use super::Report;
use super::client::{ask, demo_jobs, demo_setups};
use super::many::median;
use super::memory::{held_kb, most_held_kb};
use crate::Tolva;

/// After any number of previews no more is held, in kilobytes.
const HELD_KB: u64 = 500_000;
/// At the height of a large one no more is held, in kilobytes.
const AT_MOST_KB: u64 = 700_000;

/// A preview of every setup of the demo data, then large ones: what is held stays within its bounds. For a release build.
pub async fn many_previews() -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let setups = demo_setups();
    let mut faults = Vec::new();
    let mut held = Vec::new();
    for longest in [640, 1920] {
        for setup in &setups {
            let mut asked = setup.clone();
            asked["longest"] = json!(longest);
            asked["fine"] = json!(true);
            let rendered = ask(&client, Method::POST, tolva.url("api/v1/proof"), Some(&asked)).await;
            if rendered.as_ref().is_none_or(|(status, _)| *status != StatusCode::OK) {
                faults.push(format!("at {longest}: {rendered:?}"));
            }
        }
        let now = held_kb(tolva.pid()).unwrap_or_default();
        if now > HELD_KB {
            faults.push(format!("{now} kB are held after previews of {longest} pixels: at most {HELD_KB}"));
        }
        held.push(now);
    }
    let most = most_held_kb(tolva.pid()).unwrap_or_default();
    if most > AT_MOST_KB {
        faults.push(format!("{most} kB were held at the height of one: at most {AT_MOST_KB}"));
    }
    Report::of(format!("{} previews at 640 and at 1920: {held:?} kB held after, {most} at most", setups.len()), faults)
}

/// A plan takes at most three times as long while eight previews are rendered. For a release build.
pub async fn plans_beside_previews() -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let job = demo_jobs().remove(0);
    let body = json!({ "setup": job["setups"][0], "kit": job["kit"] });
    let solve = async || {
        let mut times = Vec::new();
        for _ in 0..15 {
            let begun = Instant::now();
            let (status, _) = ask(&client, Method::POST, tolva.url("api/v1/solve"), Some(&body)).await.expect("a plan");
            assert_eq!(status, StatusCode::OK);
            times.push(begun.elapsed());
        }
        median(times)
    };
    solve().await;
    let alone = solve().await;
    let previews: Vec<_> = (0..8)
        .map(|number| {
            let mut asked = body.clone();
            // Each of another set, so that none is there before.
            asked["setup"]["camera_distance_m"] = json!(3.0 + f64::from(number) / 10.0);
            asked["longest"] = json!(1920);
            asked["fine"] = json!(true);
            asked["asker"] = json!(format!("window {number}"));
            let (client, url) = (client.clone(), tolva.url("api/v1/proof"));
            tokio::spawn(async move { ask(&client, Method::POST, url, Some(&asked)).await.map(|(status, _)| status) })
        })
        .collect();
    tokio::time::sleep(Duration::from_secs(1)).await;
    let beside = solve().await;
    let under_way = previews.iter().filter(|one| !one.is_finished()).count();
    previews.iter().for_each(tokio::task::JoinHandle::abort);
    let mut faults = Vec::new();
    if under_way == 0 {
        faults.push("the previews were rendered before: nothing was held against them".to_owned());
    }
    if beside > alone * 3 {
        faults.push(format!("a plan took {beside:.1?}, alone {alone:.1?}"));
    }
    Report::of(format!("a plan alone {alone:.1?}, beside {under_way} of eight previews {beside:.1?}"), faults)
}
