//! What a campaign against the server has found: hostile files, lost answers, wrong addresses.

use super::running::Running;
use super::{example, solve_request};
use reqwest::{Method, StatusCode};
use rstest::rstest;
use serde_json::{Value, json};

/// No answer to a refused request is larger than this.
const MOST_BYTES: usize = 100_000;

async fn refused(tolva: &Running, path: &str, kind: &str, body: String) -> Value {
    let request = tolva.client.post(tolva.url(path)).header("content-type", kind).body(body);
    let answer = request.send().await.expect("an answer");
    let (status, text) = (answer.status(), answer.bytes().await.expect("a body"));
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{}", String::from_utf8_lossy(&text[..text.len().min(300)]));
    assert!(text.len() < MOST_BYTES, "{} bytes", text.len());
    serde_json::from_slice(&text).expect("a problem")
}

fn many<T>(count: usize, of: impl Fn(usize) -> T) -> Vec<T> {
    (0..count).map(of).collect()
}

/// Small requests that had answers of hundreds of megabytes: what is wrong is told, and how much more there is.
#[rstest]
#[case::ids_that_are_not_there(|request: &mut Value| {
    request["kit"]["filters"] = json!(many(390, |n| json!({
        "id": format!("{n:060}"), "name": "F", "density_stops": 1 })));
    request["setup"]["filter_ids"] = json!(many(4, |n| format!("none-{n}-{}", "x".repeat(20_000))));
})]
#[case::too_many_filters(|request: &mut Value| {
    request["kit"]["filters"] = json!(many(5000, |n| json!({ "id": format!("{n:060}"), "name": "", "density_stops": 99 })));
    request["setup"]["filter_ids"] = json!(many(10_000, |n| format!("none-{n}")));
})]
#[case::everything_wrong(|request: &mut Value| {
    request["kit"]["gels"] = json!(many(800, |n| json!({
        "id": format!("{n}"), "name": "", "shift_mired": 9000, "loss_stops": 99 })));
})]
#[actix_web::test]
async fn errors_do_not_multiply(#[case] spoil: fn(&mut Value)) {
    let tolva = Running::start();
    let mut request = solve_request();
    spoil(&mut request);
    let problem = refused(&tolva, "api/v1/solve", "application/json", request.to_string()).await;
    assert!(problem["errors"].as_array().is_some_and(|errors| (1..=51).contains(&errors.len())), "{problem}");
    assert_eq!(problem["code"], "wrong_field");
}

#[actix_web::test]
async fn unknown_fields_do_not_multiply() {
    let tolva = Running::start();
    let fields: serde_json::Map<String, Value> =
        many(100_000, |n| (format!("field-{n}"), json!(1))).into_iter().collect();
    let body = Value::Object(fields).to_string();
    let problem = refused(&tolva, "api/v1/calculators/depth-of-field", "application/json", body.clone()).await;
    assert!(problem["errors"].as_array().expect("errors").len() < 52);
    refused(&tolva, "api/v1/solve", "application/json", body).await;
}

/// Files that had the server on its knees are refused at a glance, and it goes on.
#[rstest]
#[case::a_deep_table("api/v1/kit/file?based_on=1", format!("kind,id,field,value\nstands,t,{}a,1\n", "a/".repeat(500_000)))]
#[case::a_long_table("api/v1/kit/file?based_on=1", format!("kind,id,field,value\n{}", many(50_000, |n| format!("stands,{n},name,x\n")).concat()))]
#[case::deep_json("api/v1/kit/file?based_on=1", "{\"a\":".repeat(500_000))]
#[case::a_deep_gpx("api/v1/places/file", "<a>".repeat(500_000))]
#[case::a_deep_geojson("api/v1/places/file", format!("{{\"type\":{}", "[".repeat(500_000)))]
#[actix_web::test]
async fn hostile_files_are_refused(#[case] path: &str, #[case] body: String) {
    let tolva = Running::start();
    refused(&tolva, path, "application/octet-stream", body).await;
    assert_eq!(tolva.get("api/v1/jobs").await.0, StatusCode::OK);
}

/// A job of very many setups is refused before any of them is looked at, in every version of the format.
#[rstest]
#[case(2)]
#[case(4)]
#[actix_web::test]
async fn a_job_of_too_many_setups_is_refused(#[case] version: u32) {
    let tolva = Running::start();
    let mut job = example();
    let setup = if version == 4 { job["setups"][0].clone() } else { json!({ "filter_stops": 1 }) };
    job["setups"] = json!(vec![setup; 1000]);
    job["format_version"] = json!(version);
    let problem = refused(&tolva, "api/v1/upgrade", "application/json", job.to_string()).await;
    assert_eq!((&problem["errors"][0]["pointer"], &problem["errors"][0]["code"]), (&json!("/setups"), &json!("count")));
}

/// Wrong addresses, methods and queries are problems, as everything else that is wrong.
#[rstest]
#[case("GET", "api/v1/none", StatusCode::NOT_FOUND, "no_such_path", None)]
#[case("GET", "api/none", StatusCode::NOT_FOUND, "no_such_path", None)]
#[case("POST", "api/v1/none", StatusCode::NOT_FOUND, "no_such_path", None)]
#[case("GET", "api/v1/solve", StatusCode::METHOD_NOT_ALLOWED, "not_allowed", Some("POST"))]
#[case("PATCH", "api/v1/jobs/one", StatusCode::METHOD_NOT_ALLOWED, "not_allowed", Some("GET, PUT, DELETE"))]
#[case("POST", "kit", StatusCode::METHOD_NOT_ALLOWED, "not_allowed", Some("GET, HEAD"))]
#[case("GET", "nowhere", StatusCode::NOT_FOUND, "no_such_path", None)]
#[case("GET", "api/v1/jobs?binned=perhaps", StatusCode::BAD_REQUEST, "not_understood", None)]
#[case("GET", "api/v1/jobs?colour=1", StatusCode::BAD_REQUEST, "not_understood", None)]
#[case("GET", "api/v1/jobs?limit=0", StatusCode::UNPROCESSABLE_ENTITY, "wrong_field", None)]
#[case("GET", "api/v1/kit/file", StatusCode::BAD_REQUEST, "not_understood", None)]
#[case("GET", "api/v1/echo", StatusCode::NOT_FOUND, "no_such_path", None)]
#[case("DELETE", "api/v1/jobs/kit", StatusCode::NOT_FOUND, "no_such_job", None)]
#[case("GET", "api/v1/backups/..%2Ftolva", StatusCode::NOT_FOUND, "no_such_backup", None)]
#[actix_web::test]
async fn wrong_addresses_are_problems(
    #[case] method: Method,
    #[case] path: &str,
    #[case] status: StatusCode,
    #[case] code: &str,
    #[case] allow: Option<&str>,
) {
    let tolva = Running::start();
    let answer = tolva.client.request(method, tolva.url(path)).send().await.expect("an answer");
    assert_eq!(answer.status(), status);
    let allowed = answer.headers().get("allow").map(|methods| methods.to_str().expect("text").to_owned());
    assert_eq!(answer.headers()["content-type"], "application/problem+json");
    let problem: Value = answer.json().await.expect("a problem");
    assert_eq!((problem["code"].as_str(), problem["status"].as_u64()), (Some(code), Some(status.as_u16().into())));
    assert_eq!(problem["type"], format!("urn:tolva:problem:{code}"));
    let sorted = |methods: &str| {
        let mut all: Vec<String> = methods.split(", ").map(str::to_owned).collect();
        all.sort();
        all
    };
    assert_eq!(allowed.as_deref().map(sorted), allow.map(sorted));
}

/// A person who mistypes an address is told so in a page.
#[actix_web::test]
async fn a_wrong_address_is_told_in_a_page() {
    let tolva = Running::start();
    let request = tolva.client.get(tolva.url("nowhere")).header("accept", "text/html,*/*");
    let answer = request.send().await.expect("an answer");
    assert_eq!(answer.status(), StatusCode::NOT_FOUND);
    assert!(answer.text().await.expect("a page").contains("href=\"/\""));
    let head = tolva.client.head(tolva.url("kit")).send().await.expect("an answer");
    assert_eq!(head.status(), StatusCode::OK);
}

/// The answer to a request was lost: sent again under its key, it is the same.
#[actix_web::test]
async fn what_is_sent_again_is_done_once() {
    let tolva = Running::start();
    let send = async |method: Method, path: &str, body: &Value, key: &str| {
        let request = tolva.client.request(method, tolva.url(path)).header("idempotency-key", key).json(body);
        let answer = request.send().await.expect("an answer");
        let (status, headers) = (answer.status(), answer.headers().clone());
        (status, headers, answer.json::<Value>().await.expect("JSON"))
    };
    let (status, headers, added) = send(Method::POST, "api/v1/jobs", &example(), "add").await;
    let path = format!("/api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    assert_eq!((status, headers["location"].to_str().expect("text")), (StatusCode::CREATED, path.as_str()));
    let (_, _, again) = send(Method::POST, "api/v1/jobs", &example(), "add").await;
    assert_eq!(again["id"], added["id"]);
    assert_eq!(tolva.get("api/v1/jobs").await.1["total"], 1);
    let mut job = example();
    job["name"] = json!("Renamed");
    let save = json!({ "based_on": 1, "change": "Name", "job": job });
    let (_, _, first) = send(Method::PUT, &path[1..], &save, "save").await;
    let (status, _, again) = send(Method::PUT, &path[1..], &save, "save").await;
    assert_eq!((status, &again["revision"]), (StatusCode::OK, &first["revision"]));
    // Without a key, by what is in it.
    let (status, again) = tolva.put(&path[1..], &save).await;
    assert_eq!((status, &again["revision"]), (StatusCode::OK, &first["revision"]));
    let (status, _, _) = send(Method::PUT, &path[1..], &save, &"k".repeat(201)).await;
    assert_eq!(status, StatusCode::BAD_REQUEST);
}

/// The mark of an answer is of what is served: a change of the kit changes a job's.
#[actix_web::test]
async fn marks_are_of_what_is_served() {
    let tolva = Running::start();
    let added = tolva.post("api/v1/jobs", &example()).await.1;
    let path = format!("api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let get = async |mark: Option<&str>| {
        let request = tolva.client.get(tolva.url(&path));
        let request = if let Some(mark) = mark { request.header("if-none-match", mark) } else { request };
        let answer = request.send().await.expect("an answer");
        (answer.status(), answer.headers()["etag"].to_str().expect("text").to_owned())
    };
    let (_, mark) = get(None).await;
    assert_eq!(get(Some(&mark)).await.0, StatusCode::NOT_MODIFIED);
    let put = async |mark: &str, based_on: i64, name: &str| {
        let mut job = example();
        job["name"] = json!(name);
        let body = json!({ "based_on": based_on, "change": "Name", "job": job });
        let request = tolva.client.put(tolva.url(&path)).header("if-match", mark).json(&body);
        request.send().await.expect("an answer").status()
    };
    let kit = tolva.get("api/v1/kit").await.1;
    let mut changed = kit["kit"].clone();
    changed["flashes"][0]["name"] = json!("Mine");
    let save = json!({ "based_on": kit["revision"], "change": "Name", "kit": changed });
    assert_eq!(tolva.put("api/v1/kit", &save).await.0, StatusCode::OK);
    let (status, after) = get(Some(&mark)).await;
    assert!(status == StatusCode::OK && after != mark);
    assert_eq!(put(&mark, 1, "Late").await, StatusCode::PRECONDITION_FAILED);
    assert_eq!(put(&after, 1, "In time").await, StatusCode::OK);
}

/// Revisions are listed, named and gone back to; pages of jobs are searched.
#[actix_web::test]
async fn revisions_and_pages() {
    let tolva = Running::start();
    let added = tolva.post("api/v1/jobs", &example()).await.1;
    let path = format!("api/v1/jobs/{}", added["id"].as_str().expect("an id"));
    let mut job = example();
    job["name"] = json!("Käthe’s evening");
    let save = json!({ "based_on": 1, "change": "Name", "job": job });
    assert_eq!(tolva.put(&path, &save).await.0, StatusCode::OK);
    let point = json!({ "name": "As agreed" });
    let named = tolva.put(&format!("{path}/revisions/1/point"), &point).await.0;
    assert_eq!(named, StatusCode::NO_CONTENT);
    assert_eq!(tolva.put(&format!("{path}/revisions/9/point"), &point).await.0, StatusCode::NOT_FOUND);
    let revisions = tolva.get(&format!("{path}/revisions")).await.1;
    assert_eq!((&revisions[1]["point"], &revisions[0]["shown"]), (&json!("As agreed"), &json!(true)));
    assert_eq!(tolva.get("api/v1/jobs?search=kathe").await.1["total"], 1);
    let back = tolva.post(&format!("{path}/set-back"), &json!({ "based_on": 2, "revision": 1 })).await.1;
    assert_eq!(back["job"]["name"], "Ropeworks open day");
    assert_eq!(tolva.get("api/v1/jobs?search=kathe").await.1["jobs"], json!([]));
    let raw = tolva.client.get(tolva.url(&format!("{path}/raw"))).send().await.expect("an answer");
    assert!(raw.text().await.expect("a text").starts_with("{\"format\":\"tolva-job\""));
}

/// A table with one stand is added to the kit; cells that a spreadsheet would compute come out harmless.
#[actix_web::test]
async fn one_thing_in_a_table_is_added() {
    let tolva = Running::start();
    let table = "\u{feff}kind,id,field,value\r\nstands,mine,name,=1+1\r\nstands,mine,highest_m,2.6\r\n\
                 stands,mine,carries_kg,4\r\nstands,mine,footprint_m,0.5\r\nstands,mine,weight_kg,2\r\n";
    let request = tolva.client.post(tolva.url("api/v1/kit/file?based_on=1"));
    let answer =
        request.header("content-type", "application/octet-stream").body(table).send().await.expect("an answer");
    assert_eq!(answer.status(), StatusCode::OK);
    let kit: Value = answer.json().await.expect("the kit");
    let stands = kit["kit"]["stands"].as_array().expect("stands");
    assert_eq!((stands.len(), &stands[2]["name"]), (3, &json!("=1+1")));
    let out = tolva.client.get(tolva.url("api/v1/kit/file?format=csv")).send().await.expect("an answer");
    assert!(out.text().await.expect("a table").contains("stands,mine,name,'=1+1\n"));
}
