//! Every answer is one that the OpenAPI document knows: its status, its kind, its shape. Drawn requests over every route.

use std::collections::{BTreeSet, HashMap};
use std::time::{Duration, Instant};

use rand::SeedableRng as _;
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, Method};
use serde_json::{Value, json};

use super::Report;
use super::client::{add, ask, demo_jobs};
use super::requests::{Drawn, Requests};
use crate::Tolva;

/// No answer to a refused request is larger.
const MOST_BYTES: usize = 1_000_000;

/// Answers against the document.
struct Documented {
    document: Value,
    /// Of each route, method and status.
    shapes: HashMap<(String, String, u16), jsonschema::Validator>,
}

impl Documented {
    fn response(&self, drawn: &Drawn, status: u16) -> &Value {
        let operation = &self.document["paths"][&drawn.route][drawn.method.to_lowercase()];
        &operation["responses"][status.to_string()]
    }

    /// What is not as the document says.
    fn wrong(&mut self, drawn: &Drawn, status: u16, kind: &str, body: &[u8]) -> Option<String> {
        let response = self.response(drawn, status).clone();
        if response.is_null() {
            return Some(format!(
                "{status} is not documented: {}",
                String::from_utf8_lossy(&body[..body.len().min(200)])
            ));
        }
        if (400..600).contains(&status) && body.len() > MOST_BYTES {
            return Some(format!("{} bytes of problems", body.len()));
        }
        let content = response["content"].as_object();
        let Some(content) = content else {
            return (!body.is_empty()).then(|| format!("{status} has a body"));
        };
        let plain = kind.split(';').next().unwrap_or_default().trim();
        let Some(of) = content.get(plain) else { return Some(format!("{status} is sent as “{kind}”")) };
        if !plain.ends_with("json") {
            return None;
        }
        let Ok(body) = serde_json::from_slice::<Value>(body) else { return Some(format!("{status} is no JSON")) };
        let key = (drawn.route.clone(), format!("{} {plain}", drawn.method), status);
        let shape = self.shapes.entry(key).or_insert_with(|| {
            // What is described by nothing may be anything.
            let shape = if of["schema"].is_null() { json!(true) } else { of["schema"].clone() };
            let schema = json!({ "allOf": [shape], "components": self.document["components"] });
            jsonschema::validator_for(&schema).expect("a schema")
        });
        let error = shape.iter_errors(&body).next()?;
        Some(format!("{status} is otherwise at {}: {}", error.instance_path(), cut(&error.to_string())))
    }
}

fn cut(text: &str) -> String {
    text.chars().take(200).collect()
}

/// So many drawn requests; with `slowest` no answer may take longer.
pub async fn documented(seed: u64, requests: usize, slowest: Option<Duration>) -> Report {
    let tolva = Tolva::empty();
    let client = Client::new();
    let document = ask(&client, Method::GET, tolva.url("api/v1/openapi.json"), None).await.expect("the document").1;
    let mut drawing = Requests::of(document.clone());
    for job in demo_jobs() {
        drawing.ids.push(add(&client, &tolva, &job).await);
    }
    let mut documented = Documented { document, shapes: HashMap::new() };
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let (mut faults, mut met, mut longest) = (Vec::new(), BTreeSet::new(), Duration::ZERO);
    for number in 0..requests {
        let drawn = drawing.draw(&mut rng);
        let method = Method::from_bytes(drawn.method.as_bytes()).expect("a method");
        let mut request = client.request(method, tolva.url(drawn.path.trim_start_matches('/')));
        if let Some((kind, bytes)) = &drawn.body {
            request = request.header("content-type", kind).body(bytes.clone());
        }
        let begun = Instant::now();
        let Ok(answer) = request.send().await else {
            faults.push(format!("request {number}, {} {}: no answer", drawn.method, drawn.path));
            continue;
        };
        let status = answer.status().as_u16();
        let kind =
            answer.headers().get("content-type").and_then(|kind| kind.to_str().ok()).unwrap_or_default().to_owned();
        // Events go on for as long as somebody listens.
        let endless = kind.starts_with("text/event-stream");
        let body = if endless { Vec::new().into() } else { answer.bytes().await.unwrap_or_default() };
        longest = longest.max(begun.elapsed());
        met.insert((drawn.method.clone(), drawn.route.clone()));
        let slow = slowest.filter(|most| begun.elapsed() > *most).map(|_| format!("took {:?}", begun.elapsed()));
        let broken = (status == 500).then(|| "a fault of the server".to_owned());
        let wrong = documented.wrong(&drawn, status, &kind, &body).or(slow).or(broken);
        if let Some(wrong) = wrong {
            let sent = drawn.body.map_or_else(String::new, |(_, bytes)| cut(&String::from_utf8_lossy(&bytes)));
            faults.push(format!("request {number}, {} {}: {wrong}\n    {sent}", drawn.method, drawn.path));
        }
    }
    let routes = met.len();
    Report::of(format!("{requests} drawn requests over {routes} routes, the longest {longest:.0?}"), faults)
}
