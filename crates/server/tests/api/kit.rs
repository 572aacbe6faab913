//! The kit as a store of its own, other ways and conventions, sums by name, and the trigger stand-in.

use super::running::Running;
use super::{example, solve_request};
use reqwest::StatusCode;
use serde_json::{Value, json};

async fn kit(tolva: &Running) -> Value {
    tolva.get("api/v1/kit").await.1
}

#[actix_web::test]
async fn a_kit_is_kept_once_and_every_job_follows() {
    let tolva = Running::start();
    let job = tolva.post("api/v1/jobs", &example()).await.1;
    let path = format!("api/v1/jobs/{}", job["id"].as_str().expect("an id"));
    let now = kit(&tolva).await;
    let mut changed = now["kit"].clone();
    changed["flashes"][1]["name"] = json!("My own head");
    let save = json!({ "based_on": now["revision"], "change": "Flash: name", "kit": changed });
    let (status, saved) = tolva.put("api/v1/kit", &save).await;
    assert_eq!((status, saved["undo"].as_str()), (StatusCode::OK, Some("Flash: name")));
    assert_eq!(tolva.get(&path).await.1["job"]["kit"]["flashes"][1]["name"], "My own head");

    // Sent again it is the same save; a stale one is refused, a wrong one pointed at, and undo takes the change back.
    assert_eq!(tolva.put("api/v1/kit", &save).await.1["revision"], saved["revision"]);
    let stale = json!({ "based_on": now["revision"], "change": "Something else", "kit": now["kit"] });
    assert_eq!(tolva.put("api/v1/kit", &stale).await.0, StatusCode::CONFLICT);
    changed["filters"][0]["density_stops"] = json!(-1);
    let wrong = json!({ "based_on": saved["revision"], "change": "Filter", "kit": changed });
    let (status, problem) = tolva.put("api/v1/kit", &wrong).await;
    assert_eq!(
        (status, &problem["errors"][0]["pointer"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("/kit/filters/0/density_stops"))
    );
    let (_, back) = tolva.post("api/v1/kit/undo", &json!({ "based_on": saved["revision"] })).await;
    assert_eq!(back["kit"], now["kit"]);
    let (_, again) = tolva.post("api/v1/kit/redo", &json!({ "based_on": back["revision"] })).await;
    assert_eq!(again["kit"]["flashes"][1]["name"], "My own head");
}

#[actix_web::test]
async fn a_setup_goes_on_with_what_has_left_the_kit() {
    let tolva = Running::start();
    let job = tolva.post("api/v1/jobs", &example()).await.1;
    let path = format!("api/v1/jobs/{}", job["id"].as_str().expect("an id"));
    let now = kit(&tolva).await;
    let mut fewer = now["kit"].clone();
    fewer["flashes"].as_array_mut().expect("flashes").retain(|flash| flash["id"] != "medium");
    let save = json!({ "based_on": now["revision"], "change": "Flash removed", "kit": fewer });
    assert_eq!(tolva.put("api/v1/kit", &save).await.0, StatusCode::OK);
    let (status, there) = tolva.get(&path).await;
    assert_eq!(status, StatusCode::OK);
    let kept: Vec<&str> =
        there["job"]["kit"]["flashes"].as_array().expect("flashes").iter().filter_map(|f| f["id"].as_str()).collect();
    assert!(kept.contains(&"medium"), "{kept:?}");
    let request = json!({ "setup": there["job"]["setups"][0], "kit": there["job"]["kit"] });
    assert_eq!(tolva.post("api/v1/solve", &request).await.1["plan"]["dial_card"]["aperture"]["label"], "f/9");
    let save = json!({ "based_on": there["revision"], "change": "Name", "job": there["job"] });
    assert_eq!(tolva.put(&path, &save).await.0, StatusCode::OK);
}

/// A file from elsewhere calls another flash by an id that is known here: neither changes the other.
#[actix_web::test]
async fn a_job_from_elsewhere_keeps_its_own_things() {
    let tolva = Running::start();
    let mut foreign = example();
    foreign["kit"]["flashes"][1]["output"] =
        json!({ "guide_number_metres": { "guide_number_m": 20, "holds_for": "" } });
    kit(&tolva).await;
    let (status, added) = tolva.post("api/v1/jobs", &foreign).await;
    assert_eq!(status, StatusCode::CREATED, "{added}");
    let id = added["job"]["setups"][0]["lights"][0]["flash_id"].as_str().expect("an id");
    assert!(id.parse::<uuid::Uuid>().is_ok(), "an id of its own: {id}");
    assert_eq!(kit(&tolva).await["kit"]["flashes"].as_array().expect("flashes").len(), 4, "nothing came into the kit");
}

#[actix_web::test]
async fn a_kit_goes_out_and_comes_in_as_json_and_csv() {
    let tolva = Running::start();
    let now = kit(&tolva).await;
    for format in ["json", "csv"] {
        let answer =
            tolva.client.get(tolva.url(&format!("api/v1/kit/file?format={format}"))).send().await.expect("a file");
        assert!(answer.headers()["content-disposition"].to_str().expect("text").contains(format));
        let text = answer.text().await.expect("text").replace("Warm full", "Warm, as full as it goes");
        let revision = kit(&tolva).await["revision"].clone();
        let url = tolva.url(&format!("api/v1/kit/file?based_on={revision}"));
        let send = tolva.client.post(url).header("content-type", "application/octet-stream").body(text);
        let imported: Value = send.send().await.expect("an answer").json().await.expect("JSON");
        let name = |kit: &Value| {
            kit["gels"].as_array().expect("gels").iter().filter(|gel| gel["name"] == "Warm, as full as it goes").count()
        };
        assert_eq!(name(&imported["kit"]), 1, "{imported}");
        assert_eq!(imported["kit"]["flashes"], now["kit"]["flashes"]);
    }
    let url = tolva.url("api/v1/kit/file?based_on=1");
    let send = tolva.client.post(url).header("content-type", "application/octet-stream").body("a,b\n1,2\n");
    let problem: Value = send.send().await.expect("an answer").json().await.expect("JSON");
    assert!(problem["errors"][0]["message"].as_str().expect("a message").contains("kind,id,field,value"), "{problem}");
}

#[actix_web::test]
async fn other_ways_and_schools() {
    let tolva = Running::start();
    let (status, ways) = tolva.post("api/v1/alternatives", &solve_request()).await;
    assert_eq!(status, StatusCode::OK);
    assert!(
        ways["options"].as_array().expect("ways").len() > 3
            && ways["why"].as_str().expect("why").contains("comes first")
    );
    let (_, schools) = tolva.post("api/v1/conventions", &solve_request()).await;
    assert_eq!(schools.as_array().expect("matters").len(), 7);
    let mut wrong = solve_request();
    wrong["setup"]["lights"][0]["feather_deg"] = json!(120);
    for path in ["api/v1/alternatives", "api/v1/conventions", "api/v1/solve"] {
        let (status, problem) = tolva.post(path, &wrong).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(problem["errors"][0]["message"].as_str().expect("a message").contains("from 0 to 85 degrees"));
    }
}

#[actix_web::test]
async fn sums_by_name() {
    let tolva = Running::start();
    let (_, all) = tolva.get("api/v1/calculators").await;
    let names: Vec<&str> = all.as_array().expect("sums").iter().filter_map(|sum| sum["name"].as_str()).collect();
    for name in ["near-field", "depth-of-field", "group-depth", "mired-shift", "ballast", "sun-position"] {
        assert!(names.contains(&name), "{names:?}");
    }
    let asked = json!({ "shape": "disc", "radius_m": 0.45, "distance_m": 0.45 });
    let (_, found) = tolva.post("api/v1/calculators/near-field", &asked).await;
    assert!((found["near_field_stops"].as_f64().expect("a number") + 1.0).abs() < 1e-9);
    let (status, problem) = tolva.post("api/v1/calculators/near-field", &json!({ "shape": "disc" })).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/distance_m")));
    let (status, problem) = tolva.post("api/v1/calculators/moon", &json!({})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert!(problem["detail"].as_str().expect("detail").contains("depth-of-field"));
}

#[actix_web::test]
async fn the_trigger_reports_every_unit() {
    let tolva = Running::start();
    let request = |does: &str| {
        let mut request = solve_request();
        request["does"] = json!(does);
        request["channel"] = json!(3);
        request
    };
    let (status, heard) = tolva.post("api/v1/trigger", &request("send")).await;
    assert_eq!(status, StatusCode::OK, "{heard}");
    assert_eq!((&heard[0]["light_id"], &heard[0]["state"]), (&json!("A"), &json!("ready")));
    assert_eq!(heard[0]["power_stops"], -3.0);
    let (_, fired) = tolva.post("api/v1/trigger", &request("fire")).await;
    assert_eq!(fired[0]["flashed"], true);
    let mut far = request("send");
    far["setup"]["camera_distance_m"] = json!(150);
    assert_eq!(tolva.post("api/v1/trigger", &far).await.1[0]["state"], "out_of_reach");
}

#[actix_web::test]
async fn schools_are_remembered() {
    let tolva = Running::start();
    let mut preferences = tolva.get("api/v1/preferences").await.1;
    preferences["defaults"] = json!({ "school": "one_over_twice_focal", "preferences": ["depth", "low_iso"] });
    assert_eq!(tolva.put("api/v1/preferences", &preferences).await.0, StatusCode::OK);
    assert_eq!(tolva.get("api/v1/preferences").await.1["defaults"], preferences["defaults"]);
}

/// What a new setup begins with is held to what a setup may be, or no setup could be saved from then on.
#[actix_web::test]
async fn remembered_schools_are_checked() {
    let tolva = Running::start();
    for (defaults, pointer) in [
        (
            json!({ "blend": { "lift": { "subject_stops": 1e300, "background_stops": 0 } } }),
            "/defaults/blend/lift/subject_stops",
        ),
        (json!({ "depth": { "deep": { "depth_m": 5543 } } }), "/defaults/depth/deep/depth_m"),
        (json!({ "preferences": ["depth", "depth"] }), "/defaults/preferences"),
    ] {
        let (status, problem) = tolva.put("api/v1/preferences", &json!({ "defaults": defaults })).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{defaults}");
        assert_eq!(problem["errors"][0]["pointer"], pointer);
    }
}
