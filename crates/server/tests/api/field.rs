//! A setup on the set and the record of a job, through the API.

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use super::running::Running;

fn ropeworks() -> Value {
    serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data")
}

async fn added(tolva: &Running) -> String {
    let (status, body) = tolva.post("api/v1/jobs", &ropeworks()).await;
    assert_eq!(status, StatusCode::CREATED, "{body}");
    body["id"].as_str().expect("an id").to_owned()
}

async fn kinds(tolva: &Running, id: &str) -> Vec<String> {
    let (_, log) = tolva.get(&format!("api/v1/jobs/{id}/log")).await;
    let entries = log["entries"].as_array().expect("entries");
    entries.iter().filter_map(|entry| entry["kind"].as_str().map(str::to_owned)).collect()
}

#[actix_web::test]
async fn a_setup_is_run() {
    let tolva = Running::start();
    let (status, sheet) = tolva.post("api/v1/run", &json!({ "job": ropeworks(), "setup_id": "doorway" })).await;
    assert_eq!(status, StatusCode::OK, "{sheet}");
    let shutters: Vec<&str> = sheet["steps"]
        .as_array()
        .expect("steps")
        .iter()
        .filter_map(|step| step["stands"]["shutter"].as_str())
        .collect();
    assert!(shutters.len() > 3 && shutters[0] == "1/200", "{shutters:?}");
    assert_eq!(sheet["last"]["clock"], "20:55");
    assert!(sheet["next"]["moves"].as_array().is_some_and(|moves| !moves.is_empty()), "{}", sheet["next"]);
}

/// What turns is in the setup that comes with it: it solves to just those dials.
#[actix_web::test]
async fn a_third_goes_into_a_dial() {
    let tolva = Running::start();
    let job = ropeworks();
    let (setup, kit) = (&job["setups"][0], &job["kit"]);
    let asked = json!({ "setup": setup, "kit": kit, "region_id": "lit", "thirds": 1 });
    let (status, said) = tolva.post("api/v1/run/looked", &asked).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let (_, solved) = tolva.post("api/v1/solve", &json!({ "setup": said["setup"], "kit": kit })).await;
    let dials = said["dials"].as_array().expect("dials");
    let power = dials.iter().find(|dial| dial["name"] == "Power of A").expect("the power");
    assert_eq!(solved["plan"]["dial_card"]["lights"][0]["power"], power["to"]);
}

#[rstest]
#[case::nobody("/region_id", json!("moon"), "/region_id")]
#[case::too_much("/thirds", json!(40), "/thirds")]
#[case::no_instant("/at", json!("yesterday"), "/at")]
#[case::follows("/region_id", json!("shadow"), "/region_id")]
#[actix_web::test]
async fn what_cannot_turn_is_said(#[case] at: &str, #[case] to: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let job = ropeworks();
    let mut asked = json!({ "setup": job["setups"][0], "kit": job["kit"], "region_id": "lit", "thirds": 1 });
    // Nothing but the wish of the key places the shadow side.
    for light in asked["setup"]["lights"].as_array_mut().into_iter().flatten() {
        light["aimed_at"] = Value::Null;
        light["wish"] = json!("key");
    }
    asked[at.trim_start_matches('/')] = to;
    let (status, problem) = tolva.post("api/v1/run/looked", &asked).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

#[actix_web::test]
async fn a_setup_that_is_not_there_is_not_run() {
    let tolva = Running::start();
    let (status, problem) = tolva.post("api/v1/run", &json!({ "job": ropeworks(), "setup_id": "attic" })).await;
    assert_eq!(
        (status, problem["errors"][0]["pointer"].as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, Some("/setup_id"))
    );
}

/// Everything that is done is a line: ticks by their kind, undo by what it took back, and a note once.
#[actix_web::test]
async fn what_is_done_is_in_the_log() {
    let tolva = Running::start();
    let id = added(&tolva).await;
    let mut job = ropeworks();
    job["setups"][0]["shots"] = json!([{ "id": "half", "name": "Half length", "frames": 8 }]);
    let save = |based_on: i64, change: &str, job: &Value| json!({ "based_on": based_on, "change": change, "job": job });
    tolva.put(&format!("api/v1/jobs/{id}"), &save(1, "Shot added", &job)).await;
    job["setups"][0]["shots"][0]["taken"] = json!(8);
    tolva.put(&format!("api/v1/jobs/{id}"), &save(2, "Half length: taken", &job)).await;
    // What changes nothing is no deed.
    tolva.put(&format!("api/v1/jobs/{id}"), &save(3, "Nothing", &job)).await;
    tolva.post(&format!("api/v1/jobs/{id}/undo"), &json!({ "based_on": 3 })).await;
    for _ in 0..2 {
        let noted = tolva
            .client
            .post(tolva.url(&format!("api/v1/jobs/{id}/log")))
            .header("Idempotency-Key", "the-same-note")
            .json(&json!({ "says": "Wind from the quay", "setup_id": "doorway" }))
            .send()
            .await
            .expect("an answer");
        assert_eq!(noted.status(), StatusCode::CREATED);
    }
    assert_eq!(kinds(&tolva, &id).await, ["made", "change", "tick", "undone", "note"]);
    let (_, log) = tolva.get(&format!("api/v1/jobs/{id}/log")).await;
    assert_eq!(
        (&log["entries"][3]["says"], &log["entries"][2]["setup_id"]),
        (&json!("Half length: taken"), &json!("doorway"))
    );
    let table = tolva.client.get(tolva.url(&format!("api/v1/jobs/{id}/log.csv"))).send().await.expect("an answer");
    let table = table.text().await.expect("a table");
    let read = csv::Reader::from_reader(table.as_bytes()).into_records().collect::<Result<Vec<_>, _>>().expect("CSV");
    assert_eq!((read.len(), &read[4][4]), (5, "Wind from the quay"));
    let (status, problem) = tolva.post(&format!("api/v1/jobs/{id}/log"), &json!({ "says": "  " })).await;
    assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/says")));
    let (status, _) = tolva.get("api/v1/jobs/none/log").await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

/// A job is done again on another day, without its ticks; the old one stays as it is.
#[actix_web::test]
async fn a_job_is_done_again() {
    let tolva = Running::start();
    let id = added(&tolva).await;
    let (status, again) = tolva.post(&format!("api/v1/jobs/{id}/again"), &json!({ "date": "2027-05-02" })).await;
    assert_eq!(status, StatusCode::CREATED, "{again}");
    assert_eq!(again["job"]["name"], "Ropeworks open day, again");
    assert_eq!(again["job"]["setups"][0]["scene"]["at"]["date"], "2027-05-02");
    let (_, old) = tolva.get(&format!("api/v1/jobs/{id}")).await;
    assert_eq!(old["job"]["setups"][0]["scene"]["at"]["date"], "2026-08-29");
    let (status, problem) = tolva.post(&format!("api/v1/jobs/{id}/again"), &json!({ "date": "soon" })).await;
    assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/date")));
}

/// Jobs are found by what their setups use: kit, blend, light.
#[rstest]
#[case("octagon", true)]
#[case("silhouette", true)]
#[case("water", true)]
#[case("theremin", false)]
#[actix_web::test]
async fn a_job_is_found_by_what_it_uses(#[case] word: &str, #[case] found: bool) {
    let tolva = Running::start();
    added(&tolva).await;
    let (_, page) = tolva.get(&format!("api/v1/jobs?search={word}")).await;
    assert_eq!(page["total"] == 1, found, "{page}");
}

/// The card comes as a page that loads nothing, or as a file to keep.
#[actix_web::test]
async fn the_card_is_a_page_and_a_file() {
    let tolva = Running::start();
    let id = added(&tolva).await;
    let at = format!("api/v1/jobs/{id}/setups/doorway/card.html");
    let get = async |query: &str| tolva.client.get(tolva.url(&format!("{at}{query}"))).send().await.expect("an answer");
    let page = get("?paper=a4&length=feet_and_inches").await;
    assert_eq!(
        (page.status(), &page.headers()["content-disposition"]),
        (StatusCode::OK, &"inline".parse().expect("it"))
    );
    assert!(
        page.headers()["content-security-policy"].to_str().is_ok_and(|policy| policy.contains("script-src 'self'"))
    );
    let html = page.text().await.expect("HTML");
    assert!(html.contains("size: A4") && html.contains("ft"), "{html}");
    let kept = get("?keep=true").await;
    assert!(kept.headers()["content-disposition"].to_str().is_ok_and(|said| said.starts_with("attachment")));
    assert_eq!(get("?paper=a3").await.status(), StatusCode::BAD_REQUEST);
    let nobody = tolva.get(&format!("api/v1/jobs/{id}/setups/attic/card.html")).await;
    assert_eq!(nobody.0, StatusCode::NOT_FOUND);
}
