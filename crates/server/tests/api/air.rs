//! Phones over the set's network: nothing is answered before a device was let in, and each does what it may.

use std::io::{ErrorKind, Read as _, Write as _};

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use super::over_tls::{Answer, ask, asked, spellings};
use super::running::Running;

fn json_of(text: &Value) -> (&'static str, String) {
    ("application/json", text.to_string())
}

async fn opened(tolva: &Running) -> u16 {
    let (status, now) = tolva.put("api/v1/phones", &json!({ "on": true })).await;
    assert_eq!(status, StatusCode::OK, "{now}");
    let address = now["address"].as_str().expect("an address");
    address.rsplit(':').next().and_then(|port| port.parse().ok()).expect("a port")
}

async fn code(tolva: &Running, rights: &str) -> String {
    let (status, code) = tolva.post("api/v1/phones/code", &json!({ "rights": rights })).await;
    assert_eq!(status, StatusCode::OK, "{code}");
    assert!(code["picture"].as_str().is_some_and(|picture| picture.contains("<svg")));
    code["url"].as_str().and_then(|url| url.split("code=").nth(1)).expect("a code").to_owned()
}

fn form(code: &str, name: &str) -> (&'static str, String) {
    ("application/x-www-form-urlencoded", format!("code={code}&name={name}"))
}

/// What a device that was let in carries.
async fn joined(tolva: &Running, port: u16, rights: &str) -> String {
    let code = code(tolva, rights).await;
    let answer = ask(port, "POST", "/join", ("", Some(form(&code, "Helper"))));
    assert_eq!(answer.status, 303, "{}", answer.body);
    let cookie = answer.head.lines().find_map(|line| line.strip_prefix("set-cookie: tolva-device=")).expect("a cookie");
    for wanted in ["Secure", "HttpOnly", "SameSite=Strict"] {
        assert!(cookie.contains(wanted), "{cookie}");
    }
    cookie.split(';').next().expect("its value").to_owned()
}

/// A job of the demo data.
fn demo() -> Value {
    serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data")
}

/// Every route there is, with something in the place of each of its parts.
async fn routes(tolva: &Running) -> Vec<(String, String)> {
    let (_, document) = tolva.get("api/v1/openapi.json").await;
    let paths = document["paths"].as_object().expect("paths");
    let filled = |path: &str| {
        path.split('/').map(|part| if part.starts_with('{') { "x" } else { part }).collect::<Vec<_>>().join("/")
    };
    paths
        .iter()
        .flat_map(|(path, methods)| {
            let methods = methods.as_object().into_iter().flatten().map(|(method, _)| method.to_uppercase());
            methods.map(|method| (method, filled(path))).collect::<Vec<_>>()
        })
        .collect()
}

/// Whoever was not let in gets no answer from any route, whatever it carries; whoever looks gets none from what changes
/// something, and nobody from what is the machine's own.
#[actix_web::test]
async fn no_route_answers_who_was_not_let_in() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let (look, tick) = (joined(&tolva, port, "look").await, joined(&tolva, port, "tick").await);
    let all = routes(&tolva).await;
    assert!(all.len() > 90, "{}", all.len());
    let body = |method: &str| (method != "GET").then(|| json_of(&json!({})));
    for (method, path) in &all {
        for carries in ["", "nothing-that-is-known"] {
            let answer = ask(port, method, path, (carries, body(method)));
            assert!(
                answer.status == 403 && answer.body.contains("not_from_here"),
                "{method} {path}: {}",
                answer.status
            );
        }
        let of_the_machine = ["/api/v1/phones", "/api/v1/backups", "/api/v1/watched", "/api/v1/openapi.json"];
        let own = of_the_machine.iter().any(|own| path.starts_with(own));
        let changes = method == "DELETE"
            || method == "PUT"
            || (method == "POST" && (path.contains("/jobs") || path.ends_with("/kit") || path.contains("new-job")));
        if own || changes {
            let answer = ask(port, method, path, (&look, body(method)));
            assert_eq!(answer.status, 403, "{method} {path}, by one that looks");
        }
        let ticks = (method == "PUT" && path == "/api/v1/jobs/x") || (method == "POST" && path == "/api/v1/jobs/x/log");
        if own || (changes && !ticks) {
            let answer = ask(port, method, path, (&tick, body(method)));
            assert_eq!(answer.status, 403, "{method} {path}, by one that ticks");
        }
    }
    // Pages too: whoever is unknown is told how to come in, and nothing else.
    for page in ["/", "/kit", "/jobs/x", "/assets/none.js"] {
        let answer = ask(port, "GET", page, ("", None));
        assert!(answer.status == 403 && answer.body.contains("Join Tolva"), "{page}: {}", answer.status);
    }
    assert_eq!(ask(port, "GET", "/api/v1/jobs", (&look, None)).status, 200);
}

/// However a path is spelt, what it leads to is the same, and so is who may.
#[actix_web::test]
async fn no_spelling_of_a_path_gets_further() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let (look, tick, all) =
        (joined(&tolva, port, "look").await, joined(&tolva, port, "tick").await, joined(&tolva, port, "all").await);
    for path in ["/api/v1/phones", "/api/v1/backups", "/api/v1/watched", "/api/v1/openapi.json"] {
        for spelt in spellings(path) {
            for device in [&look, &tick, &all] {
                let answer = ask(port, "GET", &spelt, (device, None));
                assert!(answer.status == 403 || answer.status == 404, "{spelt}: {}", answer.status);
            }
        }
    }
    // What changes something, by a device that may not.
    for spelt in spellings("/api/v1/jobs") {
        let answer = ask(port, "POST", &spelt, (&look, Some(json_of(&json!({})))));
        assert!([403, 404].contains(&answer.status), "{spelt}: {}", answer.status);
    }
}

/// What a page elsewhere asks for without saying that it does, such as a picture, is refused; a link to a page is not.
#[rstest]
#[case("/api/v1/jobs", "cross-site", "no-cors", false)]
#[case("/api/v1/jobs", "same-site", "no-cors", false)]
#[case("/api/v1/jobs", "cross-site", "navigate", false)]
#[case("/%61pi/v1/jobs", "cross-site", "navigate", false)]
#[case("/kit", "cross-site", "no-cors", false)]
#[case("/kit", "cross-site", "navigate", true)]
#[case("/api/v1/jobs", "same-origin", "cors", true)]
#[case("/api/v1/jobs", "none", "navigate", true)]
#[actix_web::test]
async fn pages_elsewhere_see_nothing(
    #[case] path: &str,
    #[case] site: &str,
    #[case] mode: &str,
    #[case] answered: bool,
) {
    let tolva = Running::start();
    let request = tolva.client.get(tolva.url(&path[1..])).header("Sec-Fetch-Site", site).header("Sec-Fetch-Mode", mode);
    let status = request.send().await.expect("an answer").status();
    assert_eq!(status != StatusCode::FORBIDDEN, answered, "{status}");
}

/// What is told to a device ends when it is put out, and nobody sees it looking any more.
#[actix_web::test]
async fn what_is_told_ends_with_the_device() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let look = joined(&tolva, port, "look").await;
    let (_, added) = tolva.post("api/v1/jobs", &demo()).await;
    let path = format!("/api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let listening = ["events", "frames/events"].map(|of| {
        let mut line = asked(port, "GET", &format!("{path}/{of}"), (&look, None));
        // Longer than that no line is silent that goes on.
        line.sock.set_read_timeout(Some(std::time::Duration::from_secs(30))).expect("a limit");
        let mut first = [0; 1];
        line.read_exact(&mut first).expect("it is told something");
        line
    });
    let (_, now) = tolva.get("api/v1/phones").await;
    let device = now["devices"][0]["id"].as_str().expect("an id");
    let out = tolva.client.delete(tolva.url(&format!("api/v1/phones/{device}"))).send().await.expect("an answer");
    assert_eq!(out.status(), StatusCode::OK);
    for mut line in listening {
        let mut rest = Vec::new();
        let ended = line.read_to_end(&mut rest).map_or_else(|error| error.kind(), |_| ErrorKind::UnexpectedEof);
        let rest = String::from_utf8_lossy(&rest);
        assert!(ended == ErrorKind::UnexpectedEof && !rest.contains("still here"), "{ended:?} {rest}");
    }
    let mut own = tolva.client.get(tolva.url(&format!("{}/events", &path[1..]))).send().await.expect("an answer");
    let first = own.chunk().await.expect("it comes").expect("something is told");
    let first = String::from_utf8_lossy(&first).into_owned();
    assert!(first.contains(r#"{"others":[]}"#), "{first}");
}

/// A code lets one device in, once, and a newer one takes its place.
#[actix_web::test]
async fn a_code_is_good_once() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let first = code(&tolva, "look").await;
    let second = code(&tolva, "look").await;
    assert_eq!(ask(port, "POST", "/join", ("", Some(form(&first, "Phone")))).status, 403, "a newer one was made");
    assert_eq!(ask(port, "POST", "/join", ("", Some(form(&second, "")))).status, 422, "it wants a name");
    assert_eq!(ask(port, "POST", "/join", ("", Some(form(&second, "Phone")))).status, 303);
    let again = ask(port, "POST", "/join", ("", Some(form(&second, "Phone"))));
    assert!(again.status == 403 && again.body.contains("This code was used"), "{}", again.body);
    let (_, now) = tolva.get("api/v1/phones").await;
    assert_eq!((now["devices"].as_array().map(Vec::len), &now["devices"][0]["name"]), (Some(1), &json!("Phone")));
}

/// Who ticks saves ticks and nothing else; the log says who it was. Put out, it gets no answer any more.
#[actix_web::test]
async fn who_ticks_only_ticks() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let tick = joined(&tolva, port, "tick").await;
    let (_, added) = tolva.post("api/v1/jobs", &demo()).await;
    let id = added["id"].as_str().expect("an id");
    let path = format!("/api/v1/jobs/{id}");
    let mut job = added["job"].clone();
    job["setups"][0]["shots"][0]["taken"] = json!(8);
    let save = |based_on: i64, change: &str, job: &Value| {
        Some(json_of(&json!({ "based_on": based_on, "change": change, "job": job })))
    };
    assert_eq!(ask(port, "PUT", &path, (&tick, save(1, "Half length taken", &job))).status, 200);
    job["setups"][0]["name"] = json!("Another");
    let refused = ask(port, "PUT", &path, (&tick, save(2, "Renamed", &job)));
    assert!(refused.status == 403 && refused.body.contains("may tick and note"), "{}", refused.body);
    assert_eq!(
        ask(port, "POST", &format!("{path}/log"), (&tick, Some(json_of(&json!({ "says": "Windy" }))))).status,
        201
    );
    let (_, kept) = tolva.get(&path[1..]).await;
    assert_eq!(kept["revision"], 2, "the name was not saved");
    let (_, log) = tolva.get(&format!("api/v1/jobs/{id}/log")).await;
    let who: Vec<_> = log["entries"].as_array().expect("lines").iter().map(|one| one["who"].as_str()).collect();
    assert_eq!(who, [Some(""), Some("Helper"), Some("Helper")]);

    // What waited while somebody else changed the job is a conflict and no offence: brought together, it goes in.
    let mut other = kept["job"].clone();
    other["client"] = json!("The harbour");
    let (status, _) = tolva.put(&path[1..], &json!({ "based_on": 2, "change": "Client", "job": other })).await;
    assert_eq!(status, StatusCode::OK);
    let mut waited = kept["job"].clone();
    waited["setups"][0]["shots"][1]["taken"] = json!(6);
    assert_eq!(ask(port, "PUT", &path, (&tick, save(2, "Close taken", &waited))).status, 409);
    waited["client"] = json!("The harbour");
    assert_eq!(ask(port, "PUT", &path, (&tick, save(9, "Close taken", &waited))).status, 409, "of no version yet");
    assert_eq!(ask(port, "PUT", &path, (&tick, save(3, "Close taken", &waited))).status, 200);
    job["client"] = json!("The harbour");
    job["setups"][0]["shots"][1]["taken"] = json!(6);

    let (_, now) = tolva.get("api/v1/phones").await;
    let device = now["devices"][0]["id"].as_str().expect("an id");
    let (status, _) = tolva.put(&format!("api/v1/phones/{device}"), &json!({ "name": "Ada", "rights": "all" })).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(ask(port, "PUT", &path, (&tick, save(4, "Renamed", &job))).status, 200, "it may everything now");
    let out = tolva.client.delete(tolva.url(&format!("api/v1/phones/{device}"))).send().await.expect("an answer");
    assert_eq!(out.status(), StatusCode::OK);
    assert_eq!(ask(port, "GET", "/api/v1/jobs", (&tick, None)).status, 403, "it was put out");
}

/// Off and on again at once, while a device is reading: nothing is left in the middle, and what was let in stays let in.
#[actix_web::test]
async fn off_and_on_again_while_it_is_read() {
    let tolva = Running::start();
    let mut port = opened(&tolva).await;
    let look = joined(&tolva, port, "look").await;
    for _ in 0..3 {
        let (carries, reading) = (look.clone(), std::sync::mpsc::channel());
        let reader = std::thread::spawn(move || {
            // Until nothing listens.
            while std::net::TcpStream::connect(("127.0.0.1", port)).is_ok() {
                let answer = std::panic::catch_unwind(|| ask(port, "GET", "/api/v1/jobs", (&carries, None)).status);
                let answered = answer.is_ok_and(|status| status == 200);
                let _ = reading.0.send(answered);
                if !answered {
                    break;
                }
            }
        });
        assert!(reading.1.recv().expect("it reads"), "it is answered");
        let (status, _) = tolva.put("api/v1/phones", &json!({ "on": false })).await;
        assert_eq!(status, StatusCode::OK);
        reader.join().expect("it has ended");
        // The same as before, where no other test has taken it in the meantime.
        port = opened(&tolva).await;
    }
    assert_eq!(ask(port, "GET", "/api/v1/jobs", (&look, None)).status, 200, "it is let in still");
    assert_eq!(tolva.get("api/v1/jobs").await.0, StatusCode::OK);
}

/// Closed, nothing listens and no code is made.
#[actix_web::test]
async fn closed_it_lets_nobody_in() {
    let tolva = Running::start();
    opened(&tolva).await;
    let (status, _) = tolva.put("api/v1/phones", &json!({ "on": false })).await;
    assert_eq!(status, StatusCode::OK);
    let (_, now) = tolva.get("api/v1/phones").await;
    assert_eq!(now["address"], Value::Null);
    let (status, problem) = tolva.post("api/v1/phones/code", &json!({ "rights": "look" })).await;
    assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/rights")));
}

/// A phone that closes its line while a picture is rendered for it takes the rest of the work along, also over TLS.
#[actix_web::test]
async fn a_phone_that_goes_away_takes_it_along() {
    let tolva = Running::start();
    let port = opened(&tolva).await;
    let device = joined(&tolva, port, "all").await;
    let mut line = asked(port, "POST", "/api/v1/proof", (&device, Some(json_of(&super::proof::asked(1920, true)))));
    let told = |answer: Answer| serde_json::from_str::<Value>(&answer.body).expect("an answer in JSON");
    let progress = || told(ask(port, "GET", "/api/v1/proof/progress?asker=window", (&device, None)));
    while progress()["percent"].as_f64().is_none_or(|come| come <= 0.0) {}
    line.conn.send_close_notify();
    line.flush().expect("said farewell");
    drop(line);
    while progress()["percent"].is_number() {}
    let coarse = ask(port, "POST", "/api/v1/proof", (&device, Some(json_of(&super::proof::asked(1920, false)))));
    assert_eq!(told(coarse)["fine"], false, "it ended long before it would have been rendered");
}
