//! What nobody should send: every field of a request in turn replaced by nonsense, and every route of the document
//! given a body of another shape. The answer is a plan or a problem that points there, never a failure of the server.

use super::running::Running;
use super::solve_request;
use reqwest::StatusCode;
use serde_json::{Value, json};

/// The pointers to everything in a document that is no object and no list.
fn leaves(of: &Value, at: &str, found: &mut Vec<String>) {
    match of {
        Value::Object(fields) => fields.iter().for_each(|(name, part)| leaves(part, &format!("{at}/{name}"), found)),
        Value::Array(parts) => parts.iter().enumerate().for_each(|(i, part)| leaves(part, &format!("{at}/{i}"), found)),
        _ => found.push(at.to_owned()),
    }
}

fn pointers(problem: &Value) -> Vec<&str> {
    problem["errors"]
        .as_array()
        .map_or_else(Vec::new, |errors| errors.iter().filter_map(|e| e["pointer"].as_str()).collect())
}

/// Whether one pointer leads to the other, or past it.
fn on_one_way(a: &str, b: &str) -> bool {
    let parts = |pointer: &str| pointer.split('/').map(str::to_owned).collect::<Vec<_>>();
    parts(a).iter().zip(parts(b)).all(|(a, b)| *a == b)
}

#[actix_web::test]
async fn every_field_in_turn_is_nonsense() {
    let tolva = Running::start();
    let good = solve_request();
    let mut all = Vec::new();
    leaves(&good, "", &mut all);
    assert!(all.len() > 300, "{} fields", all.len());
    let (mut refused, mut taken) = (0, 0);
    for pointer in &all {
        for nonsense in [Value::Null, json!([[]]), json!("\u{0}"), json!(-1), json!(1e300), json!({ "no": "such" })] {
            let mut request = good.clone();
            *request.pointer_mut(pointer).expect("it is there") = nonsense.clone();
            let (status, body) = tolva.post("api/v1/solve", &request).await;
            match status {
                StatusCode::OK => taken += 1,
                StatusCode::UNPROCESSABLE_ENTITY => {
                    refused += 1;
                    let pointed = pointers(&body);
                    assert!(!pointed.is_empty() && body["title"].is_string(), "{pointer} = {nonsense}: {body}");
                    // Another shape is told where it stands; an id that is gone, where it is asked for.
                    let shape = nonsense.is_array() || nonsense.is_object();
                    let there = pointed.iter().any(|one| on_one_way(one, pointer));
                    assert!(there || !shape, "{pointer} = {nonsense}: {body}");
                }
                other => panic!("{pointer} = {nonsense}: {other} {body}"),
            }
        }
    }
    assert!(refused > taken && taken > 0, "{refused} refused, {taken} taken");
}

/// A body of another shape for every route of the document that takes one.
#[actix_web::test]
async fn no_route_fails_on_another_shape() {
    let tolva = Running::start();
    let (_, document) = tolva.get("api/v1/openapi.json").await;
    let mut asked = 0;
    for (path, methods) in document["paths"].as_object().expect("paths") {
        let address = tolva.url(path.trim_start_matches('/'));
        let address = address.replace("{id}", "none").replace("{name}", "none");
        for method in ["post", "put"] {
            let json_body = methods[method]["requestBody"]["content"]["application/json"].is_object();
            if !json_body || path == "/api/v1/echo" {
                continue;
            }
            for body in ["null", "[]", "{\"no\": \"such\"}", "7", "\"", "{\"setup\": {}, \"kit\": {}}", ""] {
                let request = if method == "post" { tolva.client.post(&address) } else { tolva.client.put(&address) };
                let request = request.header("content-type", "application/json").body(body);
                let answer = request.send().await.expect("an answer");
                let status = answer.status();
                let kind = answer.headers().get("content-type").map(|kind| kind.to_str().unwrap_or("").to_owned());
                let said = answer.text().await.expect("a body");
                assert!(status.is_client_error(), "{method} {path} with {body}: {status} {said}");
                assert_eq!(kind.as_deref(), Some("application/problem+json"), "{method} {path} with {body}: {said}");
                let problem: Value = serde_json::from_str(&said).expect("a problem");
                assert_eq!(problem["status"], status.as_u16(), "{method} {path}");
                assert!(problem["title"].as_str().is_some_and(|title| !title.is_empty()), "{method} {path}");
                asked += 1;
            }
        }
    }
    assert!(asked > 80, "only {asked} asked");
}

/// A new setup stands where the last one does, and a copy is as its original: what is wrong there is said, not handed on.
#[actix_web::test]
async fn what_is_wrong_is_not_copied() {
    let tolva = Running::start();
    let mut setup = solve_request()["setup"].clone();
    let asked = |setup: &Value, copy_of: Option<&str>| json!({ "kit": solve_request()["kit"], "setups": [setup], "copy_of": copy_of });
    assert_eq!(tolva.post("api/v1/new-setup", &asked(&setup, None)).await.0, StatusCode::OK);
    setup["camera_distance_m"] = json!(-3);
    let id = setup["id"].as_str().expect("an id").to_owned();
    let (status, problem) = tolva.post("api/v1/new-setup", &asked(&setup, Some(&id))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(pointers(&problem), ["/setup/camera_distance_m"]);
}
