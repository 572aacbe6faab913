//! The API of a running Tolva: good, bad, oversized and foreign requests.

mod air;
mod archive;
mod colour;
mod day;
mod drills;
mod field;
mod fire;
mod frames;
mod glass;
mod hostile;
mod kit;
mod light;
#[path = "../../../e2e/src/over_tls.rs"]
mod over_tls;
mod practice;
mod proof;
mod running;
mod set;

use reqwest::StatusCode;
use rstest::rstest;
use running::Running;
use serde_json::{Value, json};

fn example() -> Value {
    serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data")
}

fn solve_request() -> Value {
    let job = example();
    json!({ "setup": job["setups"][0], "kit": job["kit"] })
}

#[actix_web::test]
async fn a_setup_is_solved() {
    let tolva = Running::start();
    let (status, body) = tolva.post("api/v1/solve", &solve_request()).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(body["plan"]["possible"], true);
    assert_eq!(body["plan"]["dial_card"]["aperture"]["label"], "f/9");
    assert_eq!(body["setup"], example()["setups"][0], "nothing was moved");
    let mut moved = solve_request();
    moved["command"] = json!({ "mark": { "region_id": "behind", "grip": "together", "stops": -2.0 } });
    let (_, body) = tolva.post("api/v1/solve", &moved).await;
    assert_eq!(body["setup"]["blend"]["lift"]["background_stops"], -2.0);
}

#[rstest]
#[case("/setup/lights/0/distance_m", json!(-1), "/setup/lights/0/distance_m")]
#[case("/setup/blend", json!({"lift": {"subject_stops": "x", "background_stops": 0}}), "/setup/blend/lift/subject_stops")]
#[case("/kit/cameras/0/iso/base_iso", json!(0), "/kit/cameras/0/iso/base_iso")]
#[case("/setup/colour", json!(1), "/setup/colour")]
#[case("/command", json!({"mark": {"region_id": "sky", "grip": "together", "stops": 0}}), "/command/mark/region_id")]
#[case("/command", json!({"mark": {"region_id": "lit", "grip": "flash", "stops": 0, "light_id": "Z"}}), "/command/mark/light_id")]
#[case("/command", json!({"colour_mark": {"what": {"region": "moon"}, "mired": 200}}), "/command/colour_mark/what/region")]
#[case("/command", json!({"edit": {"type": {"at": "/lights/0/distance_m", "text": "80"}}}), "/command/edit/text")]
#[case("/command", json!({"edit": {"nudge": {"at": "/lights/7/distance_m", "by": 1}}}), "/command/edit/at")]
#[case("/command", json!({"wish": {"light_id": "Z", "kind": "rim"}}), "/command/wish/light_id")]
#[case("/command", json!({"reading": {"region_id": "lit", "text": "bright"}}), "/command/reading/text")]
#[case("/command", json!({"dance": {}}), "/command")]
#[actix_web::test]
async fn a_wrong_field_is_pointed_at(#[case] at: &str, #[case] value: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut request = solve_request();
    let (parent, field) = at.rsplit_once('/').expect("a pointer");
    request.pointer_mut(parent).expect("its parent")[field] = value;
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
    assert_eq!(problem["status"], 422);
}

#[actix_web::test]
async fn problems_say_what_they_are() {
    let tolva = Running::start();
    let answer = tolva.client.post(tolva.url("api/v1/solve")).body("{}").send().await.expect("an answer");
    assert_eq!(answer.status(), StatusCode::UNSUPPORTED_MEDIA_TYPE);
    assert_eq!(answer.headers()["content-type"], "application/problem+json");
    let (status, _) = tolva.post("api/v1/jobs", &json!({ "format": "other" })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let (status, problem) = tolva.get("api/v1/jobs/none").await;
    assert_eq!((status, problem["title"].as_str()), (StatusCode::NOT_FOUND, Some("No such job")));
}

#[actix_web::test]
async fn an_oversized_body_is_refused() {
    let tolva = Running::start();
    let huge = json!({ "text": "a".repeat(5 * 1024 * 1024), "as": "light" });
    let sent = tolva.client.post(tolva.url("api/v1/read")).json(&huge).send().await;
    // The server answers and closes while the body is still being sent; either is a refusal.
    if let Ok(answer) = sent {
        assert_eq!(answer.status(), StatusCode::PAYLOAD_TOO_LARGE);
    }
    assert_eq!(tolva.get("api/v1/jobs").await.0, StatusCode::OK, "and it goes on");
}

/// No other web page reaches a Tolva on loopback: not by a name made to point here, not by a form or script of its own.
#[rstest]
#[case("evil.example", None, StatusCode::FORBIDDEN)]
#[case("evil.example:PORT", None, StatusCode::FORBIDDEN)]
#[case("127.0.0.1:1", None, StatusCode::FORBIDDEN)]
#[case("", None, StatusCode::BAD_REQUEST)]
#[case("127.0.0.1:PORT", Some("http://evil.example"), StatusCode::FORBIDDEN)]
#[case("127.0.0.1:PORT", Some("null"), StatusCode::FORBIDDEN)]
#[case("127.0.0.1:PORT", Some("https://127.0.0.1:PORT"), StatusCode::FORBIDDEN)]
#[case("127.0.0.1:PORT", Some("http://127.0.0.1:PORT"), StatusCode::OK)]
#[case("localhost:PORT", Some("http://localhost:PORT"), StatusCode::OK)]
#[case("studio.local:PORT", None, StatusCode::OK)]
#[actix_web::test]
async fn who_may_ask(#[case] host: &str, #[case] origin: Option<&str>, #[case] expected: StatusCode) {
    let tolva = Running::with(&["--allow-host", "studio.local"]);
    let port = |text: &str| text.replace("PORT", &tolva.port.to_string());
    let mut request = tolva.client.get(tolva.url("api/v1/jobs")).header("host", port(host));
    if let Some(origin) = origin {
        request = request.header("origin", port(origin));
    }
    let status = request.send().await.expect("an answer").status();
    if expected == StatusCode::BAD_REQUEST {
        assert!(status.is_client_error(), "{status}");
    } else {
        assert_eq!(status, expected);
    }
}

#[actix_web::test]
async fn every_answer_carries_the_security_headers() {
    let tolva = Running::start();
    for path in ["", "api/v1/jobs", "api/v1/jobs/none", "assets/none.js"] {
        let answer = tolva.client.get(tolva.url(path)).send().await.expect("an answer");
        let header = |name: &str| answer.headers().get(name).map(|v| v.to_str().unwrap_or("").to_owned());
        let policy = header("content-security-policy").expect("a policy");
        assert!(policy.starts_with("default-src 'none'") && !policy.contains("unsafe"), "{path}: {policy}");
        assert_eq!(header("x-content-type-options").as_deref(), Some("nosniff"), "{path}");
        assert_eq!(header("x-frame-options").as_deref(), Some("DENY"), "{path}");
        assert_eq!(header("referrer-policy").as_deref(), Some("no-referrer"), "{path}");
    }
}

#[actix_web::test]
async fn jobs_are_saved_undone_and_never_overwritten() {
    let tolva = Running::start();
    let (status, added) = tolva.post("api/v1/jobs", &example()).await;
    assert_eq!(status, StatusCode::CREATED);
    let id = added["id"].as_str().expect("an id");
    let path = format!("api/v1/jobs/{id}");
    let mut job = example();
    job["place"] = json!("West quay");
    let (status, saved) = tolva.put(&path, &json!({ "based_on": 1, "change": "Place", "job": job })).await;
    assert_eq!((status, saved["revision"].as_i64(), saved["undo"].as_str()), (StatusCode::OK, Some(2), Some("Place")));

    job["place"] = json!("North quay");
    let stale = json!({ "based_on": 1, "change": "Place", "job": job });
    let (status, problem) = tolva.put(&path, &stale).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!(problem["theirs"]["job"]["place"], "West quay");
    assert_eq!(problem["yours"]["place"], "North quay");

    let (_, undone) = tolva.post(&format!("{path}/undo"), &json!({ "based_on": 2 })).await;
    assert_eq!(undone["job"]["place"], "Old ropeworks, east quay");
    let (status, _) = tolva.post(&format!("{path}/undo"), &json!({ "based_on": 1 })).await;
    assert_eq!(status, StatusCode::CONFLICT, "nothing before the first");
    let (_, redone) = tolva.post(&format!("{path}/redo"), &json!({ "based_on": 1 })).await;
    assert_eq!(redone["job"]["place"], "West quay");

    job["setups"][0]["lights"][0]["distance_m"] = json!(0);
    let (status, problem) = tolva.put(&path, &json!({ "based_on": 2, "change": "x", "job": job })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["pointer"], "/job/setups/0/lights/0/distance_m");
}

/// A killed process loses nothing that was acknowledged, wherever the kill falls.
#[actix_web::test]
async fn a_killed_server_loses_nothing_it_acknowledged() {
    let mut tolva = Running::start();
    let (_, added) = tolva.post("api/v1/jobs", &example()).await;
    let path = format!("api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let mut based_on = 1;
    for round in 0..5 {
        let mut acknowledged = String::new();
        for save in 0..=round {
            let mut job = example();
            acknowledged = format!("round {round}, save {save}");
            job["notes"] = json!(acknowledged);
            let body = json!({ "based_on": based_on, "change": "Notes", "job": job });
            let (status, saved) = tolva.put(&path, &body).await;
            assert_eq!(status, StatusCode::OK);
            based_on = saved["revision"].as_i64().expect("a revision");
        }
        tolva.kill_and_start_again();
        let (_, after) = tolva.get(&path).await;
        assert_eq!(after["job"]["notes"], json!(acknowledged));
        assert_eq!(after["revision"], json!(based_on));
    }
}

/// Of many who save at once on the same revision one wins, and every other is shown the winner's version.
#[actix_web::test]
async fn of_many_savers_one_wins() {
    let tolva = Running::start();
    let (_, added) = tolva.post("api/v1/jobs", &example()).await;
    let path = format!("api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let saves = (0..6).map(|saver| {
        let mut job = example();
        job["notes"] = json!(format!("saver {saver}"));
        let (client, url) = (tolva.client.clone(), tolva.url(&path));
        actix_web::rt::spawn(async move {
            let body = json!({ "based_on": 1, "change": "Notes", "job": job });
            let answer = client.put(url).json(&body).send().await.expect("an answer");
            (answer.status(), answer.json::<Value>().await.expect("JSON"))
        })
    });
    let mut winners = Vec::new();
    let mut losers = Vec::new();
    for save in saves.collect::<Vec<_>>() {
        let (status, body) = save.await.expect("joined");
        if status == StatusCode::OK { winners.push(body) } else { losers.push((status, body)) }
    }
    assert_eq!((winners.len(), losers.len()), (1, 5));
    for (status, problem) in losers {
        assert_eq!(status, StatusCode::CONFLICT);
        assert_eq!(problem["theirs"]["job"], winners[0]["job"]);
    }
}

/// The page for every path of the front end, its files with their kinds, and nothing else.
#[actix_web::test]
async fn the_front_end_is_in_the_binary() {
    let tolva = Running::start();
    let page = tolva.client.get(tolva.url("jobs/any/setups/any/light")).send().await.expect("the page");
    let policy = page.headers()["content-security-policy"].to_str().expect("text").to_owned();
    let text = page.text().await.expect("its text");
    assert!(text.contains("<div id=\"root\">"));
    let nonce = policy.split("'nonce-").nth(1).and_then(|rest| rest.split('\'').next()).expect("a nonce");
    assert!(text.contains(nonce) && !text.contains("TOLVA_NONCE"));
    let script = text.split("src=\"/").nth(1).and_then(|rest| rest.split('"').next()).expect("a script");
    let script = tolva.client.get(tolva.url(script)).send().await.expect("the script");
    assert!(script.headers()["content-type"].to_str().expect("text").contains("javascript"));
    assert!(script.headers()["cache-control"].to_str().expect("text").contains("immutable"));
    let again = tolva.client.get(tolva.url("")).send().await.expect("the page").text().await.expect("its text");
    assert!(!again.contains(nonce), "each page has a nonce of its own");
    assert_eq!(
        tolva.client.get(tolva.url("assets/none.js")).send().await.expect("an answer").status(),
        StatusCode::NOT_FOUND
    );
}

/// The bin and the file: a job that is binned can still be exported and restored, and is not in the list.
#[actix_web::test]
async fn the_bin_and_the_file() {
    let tolva = Running::start();
    let (_, added) = tolva.post("api/v1/jobs", &example()).await;
    let path = format!("api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let binned = tolva.client.delete(tolva.url(&path)).send().await.expect("an answer");
    assert_eq!(binned.status(), StatusCode::NO_CONTENT);
    assert_eq!(tolva.get("api/v1/jobs").await.1["jobs"], json!([]));
    assert_eq!(tolva.get("api/v1/jobs?binned=true").await.1["jobs"][0]["name"], "Ropeworks open day");
    let file = tolva.client.get(tolva.url(&format!("{path}/file"))).send().await.expect("the file");
    let name = file.headers()["content-disposition"].to_str().expect("text").to_owned();
    assert_eq!(
        name,
        "attachment; filename=\"ropeworks-open-day.tolva.json\"; filename*=UTF-8''Ropeworks%20open%20day.tolva.json"
    );
    assert_eq!(file.json::<Value>().await.expect("JSON")["setups"].as_array().map(Vec::len), Some(5));
    let (status, _) = tolva.post(&format!("{path}/restore"), &json!({})).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    assert_eq!(tolva.get("api/v1/jobs").await.1["total"], 1);
}

#[rstest]
#[case(json!({"as": "light", "text": "1/250, f/8, ISO 100"}), 14.0, "1/250, f/8, ISO 100")]
#[case(json!({"as": "stops", "text": "-1 1/3"}), -4.0 / 3.0, "−1⅓")]
#[case(json!({"as": "length", "text": "5 ft 1 in"}), 1.5494, "1.55 m")]
#[case(json!({"as": "coordinate", "text": "60.46123"}), 60.46123, "60.46123")]
#[case(json!({"as": "shutter", "text": "0.8s"}), 0.8, "0.8 s")]
#[case(json!({"as": "number", "text": "4,5"}), 4.5, "4.5")]
#[actix_web::test]
async fn what_is_typed_is_understood(#[case] typed: Value, #[case] value: f64, #[case] label: &str) {
    let tolva = Running::start();
    let (status, understood) = tolva.post("api/v1/read", &typed).await;
    assert_eq!(status, StatusCode::OK, "{understood}");
    assert!((understood["value"].as_f64().expect("a number") - value).abs() < 1e-9);
    assert_eq!(understood["label"], label);
    let said = json!({ "as": if typed["as"] == "light" { "number" } else { typed["as"].as_str().expect("text") }, "value": value });
    assert_eq!(tolva.post("api/v1/say", &said).await.0, StatusCode::OK);
}

#[actix_web::test]
async fn nonsense_is_not_said() {
    let tolva = Running::start();
    for (meant, value) in [("shutter", 0.0), ("iso", -100.0), ("number", 1e308), ("length", -1e308), ("light", 101.0)] {
        let (status, problem) = tolva.post("api/v1/say", &json!({ "as": meant, "value": value })).await;
        let told = (status, problem["errors"][0]["pointer"].as_str());
        assert_eq!(told, (StatusCode::UNPROCESSABLE_ENTITY, Some("/value")), "{meant} {value}");
        let message = problem["errors"][0]["message"].as_str().expect("text");
        assert!(message.contains("it must be from") && message.len() < 100, "{message}");
    }
    let (status, problem) = tolva.post("api/v1/read", &json!({ "as": "light", "text": "bright" })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(problem["errors"][0]["message"].as_str().expect("text").contains("bright"));
}

#[actix_web::test]
async fn dials_preferences_and_the_document() {
    let tolva = Running::start();
    let kit = &example()["kit"];
    let mut asked = json!({ "camera": kit["cameras"][0], "lens": kit["lenses"][0] });
    let (_, dials) = tolva.post("api/v1/dials", &asked).await;
    assert_eq!(dials["aperture"][0]["label"], "f/2.8");
    asked["camera"]["sync_rated_s"] = json!(-1);
    let (_, problem) = tolva.post("api/v1/dials", &asked).await;
    assert_eq!(problem["errors"][0]["pointer"], "/camera/sync_rated_s");

    let chosen = json!({ "theme": "dusk", "show": { "length": "feet_and_inches", "power": "stops" } });
    assert_eq!(tolva.put("api/v1/preferences", &chosen).await.0, StatusCode::OK);
    let (_, kept) = tolva.get("api/v1/preferences").await;
    assert_eq!((&kept["theme"], &kept["show"]["power"]), (&json!("dusk"), &json!("stops")));

    let (_, document) = tolva.get("api/v1/openapi.json").await;
    assert!(document["openapi"].as_str().expect("a version").starts_with("3.1"));
    for path in [
        "/api/v1/solve",
        "/api/v1/jobs",
        "/api/v1/jobs/{id}",
        "/api/v1/jobs/{id}/undo",
        "/api/v1/read",
        "/api/v1/preferences",
    ] {
        assert!(document["paths"].get(path).is_some(), "{path}");
    }
    let (_, start) = tolva.get("api/v1/start").await;
    assert_eq!(start["blends"].as_array().map(Vec::len), Some(6));
}
