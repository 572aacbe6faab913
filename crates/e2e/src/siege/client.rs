//! What the campaign's clients have in common.

use reqwest::{Client, Method, StatusCode};
use serde_json::{Value, json};

use crate::Tolva;

/// The demo jobs.
pub fn demo_jobs() -> Vec<Value> {
    let read = |text: &str| serde_json::from_str(text).expect("the demo data");
    [
        include_str!("../../../../demo/ropeworks-open-day.json"),
        include_str!("../../../../demo/harvest-supper.json"),
        include_str!("../../../../demo/bindery-evening.json"),
        include_str!("../../../../demo/foundry-band.json"),
        include_str!("../../../../demo/guild-days.json"),
        include_str!("../../../../demo/weir-lane.json"),
    ]
    .map(read)
    .to_vec()
}

/// Every setup of the demo jobs with its kit, as plans and previews are asked for.
pub fn demo_setups() -> Vec<Value> {
    let of_job = |job: Value| {
        let setups = job["setups"].as_array().cloned().unwrap_or_default();
        setups.into_iter().map(move |setup| json!({ "setup": setup, "kit": job["kit"] }))
    };
    demo_jobs().into_iter().flat_map(of_job).collect()
}

/// Asks; nothing where the connection broke.
pub async fn ask(client: &Client, method: Method, url: String, body: Option<&Value>) -> Option<(StatusCode, Value)> {
    let request = client.request(method, url);
    let request = if let Some(body) = body { request.json(body) } else { request };
    let answer = request.send().await.ok()?;
    let status = answer.status();
    let bytes = answer.bytes().await.ok()?;
    Some((status, serde_json::from_slice(&bytes).unwrap_or(Value::Null)))
}

/// Adds a job and gives its id.
pub async fn add(client: &Client, tolva: &Tolva, job: &Value) -> String {
    let (status, added) = ask(client, Method::POST, tolva.url("api/v1/jobs"), Some(job)).await.expect("an answer");
    assert_eq!(status, StatusCode::CREATED, "{added}");
    added["id"].as_str().expect("an id").to_owned()
}

/// The body of a save.
pub fn save(job: &Value, based_on: i64, notes: &str) -> Value {
    let mut job = job.clone();
    job["notes"] = json!(notes);
    json!({ "based_on": based_on, "change": "Notes", "job": job })
}
