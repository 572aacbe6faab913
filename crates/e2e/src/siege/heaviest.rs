//! The heaviest that is within the limits: as many lights, regions and readings as a setup holds, a kit as full as a job's,
//! on every route that computes.

use std::time::{Duration, Instant};

use reqwest::{Client, Method, StatusCode};
use serde_json::{Value, json};

use super::Report;
use super::client::{ask, demo_jobs};
use crate::Tolva;

/// Routes that take a setup and its kit, with what else they need.
const ROUTES: [(&str, &str, f64); 7] = [
    ("solve", "", 0.0),
    ("alternatives", "", 0.0),
    ("conventions", "", 0.0),
    ("colour", "", 0.0),
    ("falling", "", 0.0),
    ("day", "step_min", 1.0),
    ("trigger", "channel", 1.0),
];

/// A list with its last item again and again, each with an id of its own.
fn filled(list: &mut Value, most: usize) {
    let Some(items) = list.as_array_mut() else { return };
    let Some(last) = items.last().cloned() else { return };
    while items.len() < most {
        let mut next = last.clone();
        next["id"] = json!(format!("more-{}", items.len()));
        items.push(next);
    }
}

fn heaviest() -> (Value, Value) {
    let job = demo_jobs().remove(0);
    let (mut setup, mut kit) = (job["setups"][0].clone(), job["kit"].clone());
    for (kind, most) in [
        ("cameras", 400),
        ("lenses", 800),
        ("flashes", 400),
        ("modifiers", 800),
        ("gels", 800),
        ("filters", 400),
        ("stands", 400),
        ("triggers", 200),
    ] {
        filled(&mut kit[kind], most);
    }
    filled(&mut setup["regions"], 12);
    for region in setup["regions"].as_array_mut().into_iter().flatten().skip(3) {
        region["role"] = json!("part");
    }
    filled(&mut setup["lights"], 8);
    // A wish nobody can have, so that every way out is looked for.
    for light in setup["lights"].as_array_mut().into_iter().flatten() {
        light["distance_m"] = json!(30);
        light["modifier_id"] = kit["modifiers"][0]["id"].clone();
    }
    (setup, kit)
}

/// Each route once; with `slowest` no answer may take longer.
pub async fn heaviest_requests(slowest: Option<Duration>) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let (setup, kit) = heaviest();
    let (mut faults, mut longest) = (Vec::new(), Duration::ZERO);
    let mut asked: Vec<(String, Value)> = ROUTES
        .iter()
        .map(|(route, field, value)| {
            let mut body = json!({ "setup": setup, "kit": kit });
            if !field.is_empty() {
                body[*field] = json!(value);
            }
            if *route == "trigger" {
                body["does"] = json!("send");
                body["channel"] = json!(1);
            }
            ((*route).to_owned(), body)
        })
        .collect();
    let setups: Vec<Value> = (0..60)
        .map(|number| {
            let mut one = setup.clone();
            one["id"] = json!(format!("setup-{number}"));
            one
        })
        .collect();
    asked.push(("look".to_owned(), json!({ "setups": setups, "kit": kit, "of": "setup-0" })));
    let mut whole = demo_jobs().remove(0);
    (whole["setups"], whole["kit"]) = (json!(setups), kit);
    asked.push(("upgrade".to_owned(), whole.clone()));
    asked.push(("jobs".to_owned(), whole));
    for (route, body) in asked {
        let begun = Instant::now();
        let (status, answer) =
            ask(&client, Method::POST, tolva.url(&format!("api/v1/{route}")), Some(&body)).await.expect("an answer");
        let took = begun.elapsed();
        longest = longest.max(took);
        if !matches!(status, StatusCode::OK | StatusCode::CREATED) {
            faults.push(format!("{route}: {status} {}", answer["detail"]));
        }
        if slowest.is_some_and(|most| took > most) {
            faults.push(format!("{route} took {took:?}"));
        }
    }
    Report::of(format!("the heaviest within the limits, the longest {longest:.0?}"), faults)
}
