//! Colour over the API: the conventions, marks moved along the line, one look, and what is refused.

use super::running::Running;
use super::{example, solve_request};
use reqwest::StatusCode;
use serde_json::{Value, json};

fn in_lamp_light() -> Value {
    let mut request = solve_request();
    for region in request["setup"]["regions"].as_array_mut().expect("regions") {
        region["ambient"]["colour"] = json!({ "named": "house_lamp" });
    }
    request
}

#[actix_web::test]
async fn every_school_with_its_swatches() {
    let tolva = Running::start();
    let (status, found) = tolva.post("api/v1/colour", &in_lamp_light()).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let ways = found["conventions"].as_array().expect("ways");
    assert_eq!(ways.iter().filter(|way| way["chosen"] == true).count(), 1);
    assert!(ways.iter().all(|way| way["regions"][0]["swatches"].as_array().map(Vec::len) == Some(5)));
    // Half and quarter are within 8 mired; eighth and full come nearer by less than the light they lose more is worth.
    assert_eq!(found["gels"][0]["setup"]["lights"][0]["gel_ids"], json!(["warm-half", "warm-quarter"]));
    // The setup of a school is one to go on with.
    let mut request = in_lamp_light();
    request["setup"] = ways.iter().find(|way| way["name"] == "Fixed outdoors").expect("the school")["setup"].clone();
    let (_, solved) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(solved["plan"]["dial_card"]["white_balance"], "5600 K");
}

#[actix_web::test]
async fn marks_are_moved_and_kept() {
    let tolva = Running::start();
    let mut request = in_lamp_light();
    request["command"] = json!({ "colour_mark": { "what": "balance", "mired": 250.0, "tint_duv": 0.002 } });
    let (status, solved) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(status, StatusCode::OK, "{solved}");
    let kelvin = json!({ "kelvin": { "kelvin": 4000.0, "tint_duv": 0.002, "reason": "by_hand" } });
    assert_eq!(solved["setup"]["white_balance"], kelvin);
    // A job keeps it.
    let mut job = example();
    job["setups"][0] = solved["setup"].clone();
    let (status, kept) = tolva.post("api/v1/jobs", &job).await;
    assert_eq!((status, &kept["job"]["setups"][0]["white_balance"]), (StatusCode::CREATED, &kelvin));

    request["command"] = json!({ "colour_mark": { "what": { "light": "Q" }, "mired": 250.0 } });
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(
        (status, &problem["errors"][0]["pointer"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("/command/colour_mark/what/light"))
    );
    request["command"] = json!({ "colour_mark": { "what": "moon", "mired": 250.0 } });
    assert_eq!(tolva.post("api/v1/solve", &request).await.0, StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn one_look_and_its_errors() {
    let tolva = Running::start();
    let request = in_lamp_light();
    let other = {
        let mut other = request["setup"].clone();
        other["id"] = json!("other");
        other["white_balance"] = json!({ "preset": "tungsten" });
        other
    };
    let mut asked = json!({ "setups": [request["setup"], other], "kit": request["kit"], "of": request["setup"]["id"] });
    let (status, look) = tolva.post("api/v1/look", &asked).await;
    assert_eq!(status, StatusCode::OK, "{look}");
    assert_eq!((&look["lines"][0]["same"], &look["lines"][1]["balance"]), (&json!(true), &json!("Tungsten, 3200 K")));
    asked["setups"][1]["white_balance"] = json!({ "kelvin": { "kelvin": 20 } });
    let (status, problem) = tolva.post("api/v1/look", &asked).await;
    assert_eq!(
        (status, &problem["errors"][0]["pointer"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("/setups/1/white_balance/kelvin/kelvin"))
    );
}

/// The columns of the reference tables by name, null where there is nothing.
#[actix_web::test]
async fn colour_sums() {
    let tolva = Running::start();
    let near = |found: &Value, wanted: f64, off: f64| (found.as_f64().expect("a number") - wanted).abs() < off;
    let (_, found) = tolva.post("api/v1/calculators/chromaticity", &json!({ "kelvin": 2674 })).await;
    assert!(near(&found["planck_x"], 0.462, 0.001) && found["daylight_x"].is_null(), "{found}");
    let (_, found) =
        tolva.post("api/v1/calculators/colour-temperature", &json!({ "x": 0.283_104, "y": 0.291_825 })).await;
    assert!(near(&found["kelvin"], 9544.5, 48.0) && near(&found["duv"], 0.00034, 0.0005), "{found}");
    let (_, found) = tolva.post("api/v1/calculators/colour-temperature", &json!({ "x": 0.2, "y": 0.7 })).await;
    assert!(found["kelvin"].is_null());
    let asked = json!({ "light_kelvin": 5850, "white_balance_kelvin": 4360 });
    let (_, found) = tolva.post("api/v1/calculators/rendered-grey", &asked).await;
    assert!(near(&found["linear_b"], 1.493_23, 0.003), "{found}");
    let (status, problem) = tolva.post("api/v1/calculators/chromaticity", &json!({ "kelvin": 10 })).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/kelvin")));
}
