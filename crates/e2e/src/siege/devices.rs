//! Devices on the set's network: whatever way a path is spelt, none gets further than it may, and who is put out is out.

use std::io::{ErrorKind, Read as _};
use std::time::Duration;

use rand::seq::IndexedRandom as _;
use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;
use reqwest::{Client, Method};
use serde_json::{Value, json};

use super::Report;
use super::client::{add, ask as asked_here, demo_jobs};
use crate::Tolva;
use crate::over_tls::{ask, asked, spellings};

/// What a device that is let in carries.
async fn joined(client: &Client, tolva: &Tolva, port: u16, rights: &str) -> Option<String> {
    let wanted = json!({ "rights": rights });
    let code = asked_here(client, Method::POST, tolva.url("api/v1/phones/code"), Some(&wanted)).await?.1;
    let code = code["url"].as_str()?.split("code=").nth(1)?.to_owned();
    let form = ("application/x-www-form-urlencoded", format!("code={code}&name={rights}"));
    let answer = ask(port, "POST", "/join", ("", Some(form)));
    let cookie = answer.head.lines().find_map(|line| line.strip_prefix("set-cookie: tolva-device="))?;
    Some(cookie.split(';').next()?.to_owned())
}

/// Every route with what it asks of a device: its method, its path, its rights.
fn routes(document: &Value) -> Vec<(String, String, String)> {
    let filled = |path: &str| {
        path.split('/').map(|part| if part.starts_with('{') { "x" } else { part }).collect::<Vec<_>>().join("/")
    };
    let paths = document["paths"].as_object().into_iter().flatten();
    paths
        .flat_map(|(path, methods)| {
            let methods = methods.as_object().into_iter().flatten();
            methods.map(move |(method, of)| {
                (method.to_uppercase(), filled(path), of["x-rights"].as_str().unwrap_or("machine").to_owned())
            })
        })
        .collect()
}

/// Asks `count` routes in drawn spellings from devices without the right to them, then removes one device while it listens.
pub async fn devices(seed: u64, count: usize) -> Report {
    let mut rng = ChaCha8Rng::seed_from_u64(seed);
    let tolva = Tolva::empty();
    let client = Client::new();
    let id = add(&client, &tolva, &demo_jobs().remove(0)).await;
    let about = |faults| Report::of(format!("{count} spellings by devices that may not"), faults);
    let opened = asked_here(&client, Method::PUT, tolva.url("api/v1/phones"), Some(&json!({ "on": true }))).await;
    let port = opened.as_ref().and_then(|(_, now)| now["address"].as_str()?.rsplit(':').next()?.parse().ok());
    let Some(port) = port else { return about(vec![format!("phones cannot be let in: {opened:?}")]) };
    let mut carried = Vec::new();
    for rights in ["look", "tick", "all"] {
        match joined(&client, &tolva, port, rights).await {
            Some(cookie) => carried.push((rights, cookie)),
            None => return about(vec![format!("who is to {rights} is not let in")]),
        }
    }
    let Some((_, document)) = asked_here(&client, Method::GET, tolva.url("api/v1/openapi.json"), None).await else {
        return about(vec!["there is no document of the API".to_owned()]);
    };
    let routes = routes(&document);
    let order = ["look", "tick", "all", "machine"];
    let rank = |rights: &str| order.iter().position(|one| *one == rights).unwrap_or(order.len());
    let mut faults = Vec::new();
    for _ in 0..count {
        let (method, path, needs) = routes.choose(&mut rng).expect("routes");
        let may_not: Vec<_> = carried.iter().filter(|(rights, _)| rank(rights) < rank(needs)).collect();
        let Some((rights, cookie)) = may_not.choose(&mut rng) else { continue };
        let spelt = spellings(path).choose(&mut rng).expect("spellings").clone();
        let body = (method != "GET").then(|| ("application/json", "{}".to_owned()));
        let answer = ask(port, method, &spelt, (cookie, body));
        if ![403, 404].contains(&answer.status) {
            let said: String = answer.body.chars().take(200).collect();
            faults.push(format!(
                "seed {seed}: {method} {spelt}, which needs {needs}, by {rights}: {} {said}",
                answer.status
            ));
        }
    }
    // One that listens is put out.
    let (rights, cookie) = carried.choose(&mut rng).expect("three").clone();
    let listening = if rng.random_bool(0.5) { "events" } else { "frames/events" };
    let mut line = asked(port, "GET", &format!("/api/v1/jobs/{id}/{listening}"), (&cookie, None));
    let _ = line.sock.set_read_timeout(Some(Duration::from_secs(30)));
    let heard = line.read_exact(&mut [0; 1]);
    let now = asked_here(&client, Method::GET, tolva.url("api/v1/phones"), None)
        .await
        .map(|(_, now)| now)
        .unwrap_or_default();
    let its = now["devices"].as_array().into_iter().flatten().find(|device| device["name"] == rights);
    let device = its.and_then(|device| device["id"].as_str()).unwrap_or_default();
    asked_here(&client, Method::DELETE, tolva.url(&format!("api/v1/phones/{device}")), None).await;
    let ended = line.read_to_end(&mut Vec::new()).map_or_else(|error| error.kind(), |_| ErrorKind::UnexpectedEof);
    if heard.is_err() || ended != ErrorKind::UnexpectedEof {
        faults.push(format!("seed {seed}: what is told to {rights} goes on after it was put out: {heard:?} {ended:?}"));
    }
    let after = ask(port, "GET", &format!("/api/v1/jobs/{id}"), (&cookie, None)).status;
    if after == 200 {
        faults.push(format!("seed {seed}: {rights} was put out and is answered"));
    }
    about(faults)
}
