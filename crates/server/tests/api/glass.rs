//! Glass over the API: what shows comes with the set, what clears it where it is asked for, and what is done about it.

use super::running::Running;
use super::solve_request;
use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

async fn solved(tolva: &Running, request: &mut Value, command: Value, remedies: bool) -> Value {
    request["command"] = json!({ "set": command });
    request["map"] = json!({ "remedies": remedies });
    let (status, solved) = tolva.post("api/v1/solve", request).await;
    assert_eq!(status, StatusCode::OK, "{solved}");
    request["setup"] = solved["setup"].clone();
    solved
}

fn shows(solved: &Value) -> Vec<&str> {
    let findings = solved["plan"]["glass"]["findings"].as_array().expect("findings");
    findings.iter().filter(|one| one["shows"] == true).map(|one| one["name"].as_str().expect("a name")).collect()
}

/// A softbox shows in the shop window; the first offer clears it, and the plan follows.
#[actix_web::test]
async fn the_first_offer_clears_it() {
    let tolva = Running::start();
    let mut request = solve_request();
    let (_, alone) = tolva.post("api/v1/solve", &request).await;
    assert!(alone["plan"]["glass"].is_null(), "not asked for");
    let found = solved(&tolva, &mut request, json!({ "add": { "pane": "shop_window" } }), false).await;
    assert!(shows(&found).contains(&"A"), "{}", found["plan"]["glass"]["says"]);
    assert_eq!(found["plan"]["glass"]["remedies"], Value::Null, "not looked for");
    let offered = solved(&tolva, &mut request, json!("use"), true).await;
    let of = &offered["plan"]["glass"]["remedies"][0];
    assert_eq!(of["name"], "A");
    request["setup"] = of["offers"][0]["setup"].clone();
    let after = solved(&tolva, &mut request, json!("use"), true).await;
    assert!(!shows(&after).contains(&"A"), "{}", after["plan"]["glass"]["says"]);
}

/// A plate joins the frames once, with the picture before it, and is kept in the document.
#[actix_web::test]
async fn a_plate_is_kept_in_the_document() {
    let tolva = Running::start();
    let mut request = solve_request();
    request["setup"]["shots"] = json!([]);
    let plate = json!({ "plate": { "lights_off": ["A"] } });
    solved(&tolva, &mut request, plate.clone(), false).await;
    let twice = solved(&tolva, &mut request, plate, false).await;
    let frames = twice["setup"]["shots"].as_array().expect("shots");
    assert_eq!(frames.len(), 2);
    assert_eq!((&frames[0]["kind"], &frames[1]["kind"]), (&json!("picture"), &json!("clean_plate")));
    assert_eq!(frames[1]["lights_off"], json!(["A"]));
}

#[actix_web::test]
async fn mirrors_have_a_place_that_shows_least() {
    let tolva = Running::start();
    let mut request = solve_request();
    solved(&tolva, &mut request, json!({ "add": { "pane": "mirror" } }), false).await;
    let before = solved(&tolva, &mut request, json!({ "add": { "pane": "mirror_wall" } }), false).await;
    let after = solved(&tolva, &mut request, json!("best_place"), false).await;
    assert!(shows(&after).len() <= shows(&before).len());
}

#[rstest]
#[case::no_such_light(json!({ "plate": { "lights_off": ["Q"] } }), "there is no light “Q”")]
#[case::no_such_product(json!({ "card_for_gloss": { "product_id": "none" } }), "none")]
#[case::no_such_use(json!({ "add": { "pane": "porthole" } }), "porthole")]
#[actix_web::test]
async fn what_cannot_be_done_is_said(#[case] command: Value, #[case] says: &str) {
    let tolva = Running::start();
    let mut request = solve_request();
    request["command"] = json!({ "set": command });
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert!(status.is_client_error(), "{problem}");
    assert!(problem.to_string().contains(says), "{problem}");
}
