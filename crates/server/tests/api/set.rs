//! The set over the API: what is done to it, the map, and what is refused.

use super::running::Running;
use super::solve_request;
use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

/// A setup with a command of the set carried out, and the plan with its set.
async fn done(tolva: &Running, request: &mut Value, command: Value) -> Value {
    request["command"] = json!({ "set": command });
    request["map"] = json!({});
    let (status, solved) = tolva.post("api/v1/solve", request).await;
    assert_eq!(status, StatusCode::OK, "{solved}");
    request["setup"] = solved["setup"].clone();
    solved
}

/// Without being asked for, a plan leaves its set out; asked for, it is laid out and says that it is not used.
#[actix_web::test]
async fn a_set_comes_when_it_is_asked_for() {
    let tolva = Running::start();
    let mut request = solve_request();
    let (_, solved) = tolva.post("api/v1/solve", &request).await;
    assert!(solved["plan"]["set"].is_null());
    request["map"] =
        json!({ "whose": { "light": "A" }, "part": { "left_m": -2, "near_m": -3, "right_m": 2, "far_m": 1 } });
    let (_, solved) = tolva.post("api/v1/solve", &request).await;
    let set = &solved["plan"]["set"];
    assert_eq!((&set["used"], &set["reaches"][2]["from_set"]), (&json!(false), &json!(false)));
    assert_eq!(set["map"]["hundredths"].as_array().map(Vec::len), Some(96 * 64));
    assert!(solved["setup"]["set"].is_null(), "looking at it does not use it");
}

/// A light stays where it stands when who it is aimed at steps aside, and its distance follows.
#[actix_web::test]
async fn people_move_and_lights_stay() {
    let tolva = Running::start();
    let mut request = solve_request();
    let before = done(&tolva, &mut request, json!("use")).await;
    let at = |solved: &Value| {
        let things = solved["plan"]["set"]["things"].as_array().expect("things");
        things.iter().find(|one| one["thing"] == json!({ "light": "A" })).expect("A")["at"].clone()
    };
    let person = json!({ "person": "person-1" });
    let moved = done(&tolva, &mut request, json!({ "move": { "thing": person, "to": [0.5, 0.0] } })).await;
    let (was, is) = (at(&before), at(&moved));
    for axis in 0..3 {
        let gone = was[axis].as_f64().expect("x") - is[axis].as_f64().expect("x");
        assert!(gone.abs() < 0.005, "{was} {is}");
    }
    assert!(moved["setup"]["lights"][0]["distance_m"].as_f64() > Some(1.6));
    // So does the camera.
    assert!(moved["setup"]["camera_distance_m"].as_f64() > Some(3.02));
}

/// Where the distance is left to Tolva, a light that is moved keeps its line, and Tolva goes on choosing how far.
#[actix_web::test]
async fn a_free_light_moves_along_its_own_line() {
    let tolva = Running::start();
    let mut request = solve_request();
    done(&tolva, &mut request, json!("use")).await;
    request["setup"]["lights"][0]["distance_m"] = Value::Null;
    let moved = done(&tolva, &mut request, json!({ "move": { "thing": { "light": "A" }, "to": [-2.0, 0.0] } })).await;
    assert!(moved["setup"]["lights"][0]["distance_m"].is_null());
    assert_eq!(moved["plan"]["set"]["lights"][0]["free"], true);
    assert_eq!(moved["setup"]["lights"][0]["place"]["direction_deg"].as_f64().map(f64::round), Some(270.0));
}

#[actix_web::test]
async fn the_set_on_paper() {
    let tolva = Running::start();
    let request = solve_request();
    let (status, found) = tolva.post("api/v1/set", &request).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["moves"][0], "A: 1.50 m from the face, 40° to its right, 0.51 m over the eyes");
    let drawing = found["drawing"].as_str().expect("an SVG");
    assert!(drawing.starts_with("<svg") && drawing.contains("1.50 m, 2.11 m high") && drawing.ends_with("</svg>\n"));
}

#[rstest]
#[case(json!({ "set": { "move": { "thing": { "person": "nobody" } } } }), "/command/set")]
#[case(json!({ "set": { "aim": { "light_id": "Q", "at": "ceiling" } } }), "/command/set/light_id")]
#[case(json!({ "set": { "aim": { "light_id": "A", "at": { "region": "moon" } } } }), "/command/set/aim/at")]
#[case(json!({ "set": { "typed": { "light_id": "A", "what": "round", "text": "400" } } }), "/command/set/typed/text")]
#[case(json!({ "set": { "typed": { "light_id": "A", "what": "over", "text": "high" } } }), "/command/set/typed/text")]
#[case(json!({ "set": { "even": { "light_ids": ["A"] } } }), "/command/set")]
#[case(json!({ "edit": { "type": { "at": "/set/people/0/height_m", "text": "9" } } }), "/command/edit/text")]
#[actix_web::test]
async fn what_cannot_be_done_is_pointed_at(#[case] command: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut request = solve_request();
    request["command"] = command;
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(
        (status, &problem["errors"][0]["pointer"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!(pointer)),
        "{problem}"
    );
}

#[rstest]
#[case(json!({ "left_m": 1, "near_m": 0, "right_m": 1, "far_m": 4 }), "/map/part")]
#[case(json!({ "left_m": -900, "near_m": 0, "right_m": 1, "far_m": 4 }), "/map/part/left_m")]
#[actix_web::test]
async fn a_part_of_the_floor_has_a_width(#[case] part: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut request = solve_request();
    request["map"] = json!({ "part": part });
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(
        (status, &problem["errors"][0]["pointer"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!(pointer)),
        "{problem}"
    );
}

/// A number of a thing is typed before anybody used the set: it is used from then on.
#[actix_web::test]
async fn a_number_of_the_set_has_it_used() {
    let tolva = Running::start();
    let mut request = solve_request();
    request["command"] = json!({ "edit": { "type": { "at": "/set/people/0/height_m", "text": "1,85" } } });
    let (status, solved) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(status, StatusCode::OK, "{solved}");
    assert_eq!(solved["setup"]["set"]["people"][0]["height_m"], 1.85);
}

/// A hundred things on a set, and everything at one point: drawn and told, nothing refused.
#[actix_web::test]
async fn whatever_can_be_drawn_is_taken() {
    let tolva = Running::start();
    let mut request = solve_request();
    done(&tolva, &mut request, json!({ "people": { "rows": { "rows": 6, "in_each": 5 } } })).await;
    let all = [("card", 16, json!("white")), ("hazard", 12, json!("cable"))];
    for (what, count, kind) in all {
        for _ in 0..count {
            done(&tolva, &mut request, json!({ "add": { what: kind } })).await;
        }
    }
    for _ in 0..12 {
        done(&tolva, &mut request, json!({ "add": "wall_left" })).await;
    }
    request["command"] = json!({ "set": { "add": { "card": "white" } } });
    let (status, problem) = tolva.post("api/v1/solve", &request).await;
    assert_eq!(
        (status, &problem["errors"][0]["code"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("count")),
        "{problem}"
    );
    for person in request["setup"]["set"]["people"].as_array_mut().expect("people") {
        (person["x_m"], person["y_m"]) = (json!(0), json!(0));
    }
    let solved = done(&tolva, &mut request, json!("use")).await;
    let codes: Vec<&str> = solved["plan"]["set"]["notices"]
        .as_array()
        .expect("notices")
        .iter()
        .filter_map(|one| one["code"].as_str())
        .collect();
    assert!(codes.contains(&"in_one_place"), "{codes:?}");
}
