//! Drills: the same again by their numbers, an answer judged and kept once, progress, sheets, answers as a table.

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use crate::running::Running;

const TODAY: &str = "2026-11-27";

async fn next(tolva: &Running, query: &str) -> Value {
    let (status, body) = tolva.get(&format!("api/v1/drills?today={TODAY}&{query}")).await;
    assert_eq!(status, StatusCode::OK, "{body}");
    body
}

async fn answered(tolva: &Running, drill: &Value, answer: usize, key: &str) -> (StatusCode, Value) {
    let body = json!({
        "skill": drill["skill"]["code"], "level": drill["level"], "seed": drill["seed"], "mark": drill["mark"],
        "answer": answer, "today": TODAY,
    });
    let url = tolva.url("api/v1/drills/answers");
    let request = tolva.client.post(url).header("Idempotency-Key", key).json(&body);
    let answer = request.send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("JSON"))
}

/// A newcomer begins with what is learnt first; what is answered is kept once and shows in the progress.
#[actix_web::test]
async fn a_round_is_answered_and_kept() {
    let tolva = Running::start();
    let round = next(&tolva, "seed=5").await;
    let drills = round["drills"].as_array().expect("drills");
    assert_eq!((drills.len(), round["because"].as_str()), (10, Some("What is new first.")));
    assert_eq!(round, next(&tolva, "seed=5").await, "the same numbers give the same round");
    assert_eq!(drills[0]["skill"]["code"], "equal_exposures");
    let (status, said) = answered(&tolva, &drills[0], 0, "one").await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let right = usize::try_from(said["right_option"].as_u64().expect("one")).expect("small");
    assert_eq!(said["right"], right == 0);
    assert!(!said["workings"].as_array().expect("lines").is_empty());
    let (_, again) = answered(&tolva, &drills[0], 0, "one").await;
    assert_eq!(again, said);
    let (_, said) = answered(&tolva, &drills[1], 0, "two").await;
    let right_too = usize::try_from(said["right_option"].as_u64().expect("one")).expect("small");
    let (_, said) = answered(&tolva, &drills[1], right_too, "three").await;
    assert_eq!((&said["right"], &said["off_stops"]), (&json!(true), &json!(0.0)));

    let (_, progress) = tolva.get(&format!("api/v1/drills/progress?today={TODAY}")).await;
    assert_eq!(progress["this_week"], 3, "the one that was sent twice is one");
    let first = &progress["skills"][0];
    assert_eq!((first["answered"].as_u64(), first["weeks"][0]["monday"].as_str()), (Some(1), Some("2026-11-23")));
    assert!(first["says"].as_str().is_some_and(|says| says.contains("Comes back")), "{first}");
    let table = tolva.client.get(tolva.url("api/v1/drills/answers.csv")).send().await.expect("a table");
    let table = table.text().await.expect("a text");
    assert_eq!(table.lines().count(), 4, "{table}");
    assert!(table.lines().nth(1).is_some_and(|row| row.contains("2026-11-27,,,equal_exposures,1,")), "{table}");
}

/// With another kit there are other dials: an answer to what was asked before is not judged by them.
#[actix_web::test]
async fn an_answer_is_to_what_was_asked() {
    let tolva = Running::start();
    let round = next(&tolva, "skill=powers&seed=3").await;
    let drill = &round["drills"][0];
    let mut other = drill.clone();
    other["mark"] = json!("000000000000");
    assert_eq!(answered(&tolva, &other, 0, "a").await.0, StatusCode::CONFLICT);
    let (status, problem) = answered(&tolva, drill, 4000, "b").await;
    assert_eq!((status, problem["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/answer")));
}

#[rstest]
#[case("skill=juggling", "/skill")]
#[case("level=4", "/level")]
#[case("count=0", "/count")]
#[case("count=41", "/count")]
#[case("seed=9007199254740993", "/seed")]
#[case("today=tomorrow", "/today")]
#[actix_web::test]
async fn what_is_none_is_named(#[case] query: &str, #[case] pointer: &str) {
    let tolva = Running::start();
    let (status, problem) = tolva.get(&format!("api/v1/drills?{query}")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

#[actix_web::test]
async fn a_sheet_is_a_page_of_its_own() {
    let tolva = Running::start();
    let sheet = async |query: &str| {
        let answer =
            tolva.client.get(tolva.url(&format!("api/v1/drills/sheet.html?{query}"))).send().await.expect("it");
        assert_eq!(answer.status(), StatusCode::OK);
        assert!(answer.headers()["content-security-policy"].to_str().is_ok_and(|policy| policy.contains("style-src")));
        answer.text().await.expect("HTML")
    };
    let one = sheet("seed=4&level=2&count=12&answers=true&paper=a5").await;
    assert_eq!(one, sheet("seed=4&level=2&count=12&answers=true&paper=a5").await);
    assert_eq!((one.matches("<li>").count(), one.contains("A5 portrait")), (24, true));
    let gels = sheet("skills=gels,powers&count=6").await;
    assert_eq!(gels.matches("<li>").count(), 6);
}
