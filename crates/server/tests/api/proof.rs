//! The proof over the API: rendered once, fetched by its id, read place by place, given up for a newer one.

use super::running::Running;
use super::solve_request;
use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

pub fn asked(longest: u32, fine: bool) -> Value {
    let mut request = solve_request();
    request["longest"] = json!(longest);
    request["fine"] = json!(fine);
    request["asker"] = json!("window");
    request
}

async fn bytes(tolva: &Running, path: &str) -> (StatusCode, String, Vec<u8>) {
    let answer = tolva.client.get(tolva.url(path)).send().await.expect("an answer");
    let kind = answer.headers()["content-type"].to_str().expect("a kind").to_owned();
    (answer.status(), kind, answer.bytes().await.expect("bytes").to_vec())
}

/// Coarse is a quarter as large; what was rendered finely once is there at once, also under other dials.
#[actix_web::test]
async fn a_dial_that_is_turned_renders_nothing() {
    let tolva = Running::start();
    let (status, coarse) = tolva.post("api/v1/proof", &asked(192, false)).await;
    assert_eq!(status, StatusCode::OK, "{coarse}");
    assert_eq!((&coarse["fine"], &coarse["width"], &coarse["height"]), (&json!(false), &json!(48), &json!(32)));
    let (_, fine) = tolva.post("api/v1/proof", &asked(192, true)).await;
    assert_eq!((&fine["fine"], &fine["width"]), (&json!(true), &json!(192)));
    let mut turned = asked(192, false);
    turned["setup"]["fixed"] = json!({ "iso": 400 });
    let (_, again) = tolva.post("api/v1/proof", &turned).await;
    assert_eq!(again["fine"], true, "its layers are there");
    assert_ne!(again["id"], fine["id"]);
    let mut moved = asked(192, false);
    moved["setup"]["lights"][0]["distance_m"] = json!(0.9);
    let (_, moved) = tolva.post("api/v1/proof", &moved).await;
    assert_eq!(moved["fine"], false, "a light that was moved is rendered");
    let counted: u64 = fine["histogram"][0].as_array().expect("levels").iter().filter_map(Value::as_u64).sum();
    assert_eq!(counted, 192 * 128);
    let settings = fine["report"]["settings"].as_str().expect("a line");
    assert!(settings.contains("ISO 100") && settings.contains("f/9"), "{settings}");
}

#[actix_web::test]
async fn a_picture_is_fetched_by_its_id() {
    let tolva = Running::start();
    let (_, ready) = tolva.post("api/v1/proof", &asked(96, true)).await;
    let id = ready["id"].as_str().expect("an id");
    let (status, kind, picture) = bytes(&tolva, &format!("api/v1/proof/{id}/picture")).await;
    assert_eq!((status, kind.as_str(), &picture[..2]), (StatusCode::OK, "image/jpeg", &[0xff, 0xd8][..]));
    let known =
        tolva.client.get(tolva.url(&format!("api/v1/proof/{id}/picture"))).header("If-None-Match", format!("\"{id}\""));
    assert_eq!(known.send().await.expect("an answer").status(), StatusCode::NOT_MODIFIED);
    let (_, kind, hatch) = bytes(&tolva, &format!("api/v1/proof/{id}/clipped")).await;
    assert_eq!((kind.as_str(), &hatch[1..4]), ("image/png", &b"PNG"[..]));
    let (_, _, jpeg) = bytes(&tolva, &format!("api/v1/proof/{id}/file/jpeg")).await;
    assert!(jpeg.windows(4).any(|part| part == b"Exif"), "its settings go with it");
    let (_, kind, png) = bytes(&tolva, &format!("api/v1/proof/{id}/file/png")).await;
    assert_eq!((kind.as_str(), &png[1..4]), ("image/png", &b"PNG"[..]));
    let (again, other) = tolva.post("api/v1/proof", &asked(96, true)).await;
    assert_eq!((again, other["id"].as_str()), (StatusCode::OK, Some(id)), "the same setup, the same picture");
}

/// Each place is told in stops and by its lights, whose parts are the whole.
#[actix_web::test]
async fn a_place_is_read() {
    let tolva = Running::start();
    let (_, ready) = tolva.post("api/v1/proof", &asked(192, true)).await;
    let id = ready["id"].as_str().expect("an id");
    let lit = &ready["report"]["regions"].as_array().expect("regions").iter().find(|one| one["region_id"] == "lit");
    let at = lit.expect("the lit side is in the frame");
    let path = format!("api/v1/proof/{id}/reading?left={}&down={}", at["left"], at["down"]);
    let (status, reading) = tolva.get(&path).await;
    assert_eq!(status, StatusCode::OK, "{reading}");
    let parts: f64 =
        reading["shares"].as_array().expect("lights").iter().filter_map(|one| one["percent"].as_f64()).sum();
    assert!((parts - 100.0).abs() < 1e-6, "{reading}");
    assert!(reading["says"].as_str().expect("words").contains("from mid grey: A "), "{reading}");
    let (status, problem) = tolva.get(&format!("api/v1/proof/{id}/reading?left=x&down=0")).await;
    assert!(status.is_client_error(), "{problem}");
}

#[rstest]
#[case("longest", json!(9), "/longest")]
#[case("longest", json!(4000), "/longest")]
#[case("asker", json!(""), "/asker")]
#[case("setup", json!({}), "/setup")]
#[actix_web::test]
async fn what_cannot_be_is_told(#[case] field: &str, #[case] value: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut request = asked(96, false);
    request[field] = value;
    let (status, problem) = tolva.post("api/v1/proof", &request).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

#[actix_web::test]
async fn what_is_not_kept_is_not_there() {
    let tolva = Running::start();
    for path in ["picture", "clipped", "file/png", "reading?left=0&down=0"] {
        let (status, problem) = tolva.get(&format!("api/v1/proof/none/{path}")).await;
        assert_eq!((status, &problem["code"]), (StatusCode::NOT_FOUND, &json!("not_there")), "{path}");
    }
    let (_, progress) = tolva.get("api/v1/proof/progress?asker=nobody").await;
    assert_eq!(progress["percent"], Value::Null);
}

/// A large picture tells how far it has come, and is given up when the same window asks for another.
#[actix_web::test]
async fn a_newer_one_stops_the_one_before() {
    let tolva = Running::start();
    let client = tolva.client.clone();
    let address = tolva.url("api/v1/proof");
    let large =
        tokio::spawn(async move { client.post(address).json(&asked(1920, true)).send().await.expect("an answer") });
    loop {
        let (_, progress) = tolva.get("api/v1/proof/progress?asker=window").await;
        if progress["percent"].as_f64().is_some_and(|come| come > 0.0) {
            break;
        }
        assert!(!large.is_finished(), "it is large enough to be seen on its way");
    }
    let (status, _) = tolva.post("api/v1/proof", &asked(64, false)).await;
    assert_eq!(status, StatusCode::OK);
    let given_up = large.await.expect("an answer");
    assert_eq!(given_up.status(), StatusCode::CONFLICT);
    let problem: Value = given_up.json().await.expect("a problem");
    assert_eq!(problem["code"], "superseded");
    let stopped = tolva.client.delete(tolva.url("api/v1/proof?asker=window")).send().await.expect("an answer");
    assert_eq!(stopped.status(), StatusCode::NO_CONTENT);
}

/// A window that is closed while its picture is rendered takes the rest of the work along.
#[actix_web::test]
async fn who_goes_away_takes_it_along() {
    let tolva = Running::start();
    let (client, address) = (tolva.client.clone(), tolva.url("api/v1/proof"));
    let large = tokio::spawn(async move { client.post(address).json(&asked(1920, true)).send().await });
    let come = async || tolva.get("api/v1/proof/progress?asker=window").await.1["percent"].as_f64();
    while come().await.is_none_or(|come| come <= 0.0) {
        assert!(!large.is_finished(), "it is large enough to be seen on its way");
    }
    large.abort();
    // It ends long before it would have been rendered: then it would be there at once when it is asked for again.
    while come().await.is_some() {}
    let (_, coarse) = tolva.post("api/v1/proof", &asked(1920, false)).await;
    assert_eq!(coarse["fine"], false, "{coarse}");
}

/// The lists' small pictures: by job and setup, and the same as long as the setup is.
#[actix_web::test]
async fn lists_have_small_pictures() {
    let tolva = Running::start();
    let (_, added) = tolva.post("api/v1/jobs", &super::example()).await;
    let id = added["id"].as_str().expect("an id");
    let setup = added["job"]["setups"][0]["id"].as_str().expect("a setup");
    let path = format!("api/v1/jobs/{id}/setups/{setup}/proof");
    let (status, kind, one) = bytes(&tolva, &path).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "image/jpeg"));
    let (_, _, first) = bytes(&tolva, &format!("api/v1/jobs/{id}/setups/first/proof?revision=2")).await;
    assert_eq!(one, first);
    let (status, _) = tolva.get(&format!("api/v1/jobs/{id}/setups/none/proof")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}
