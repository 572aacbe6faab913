//! A job's day through the API: windows of light, the order, what does not fit, and files.

use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

use super::running::Running;

fn ropeworks() -> Value {
    serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data")
}

async fn planned(tolva: &Running, asked: &Value) -> Value {
    let (status, day) = tolva.post("api/v1/day-plan", asked).await;
    assert_eq!(status, StatusCode::OK, "{day}");
    day
}

#[actix_web::test]
async fn each_setup_is_shot_in_its_light() {
    let tolva = Running::start();
    let day = planned(&tolva, &json!({ "job": ropeworks() })).await;
    assert_eq!((day["date"].as_str(), day["time_zone"].as_str()), (Some("2026-08-29"), Some("Europe/Helsinki")));
    assert_eq!((day["lanes"].as_array().map(Vec::len), day["left_out"].as_array().map(Vec::len)), (Some(5), Some(0)));
    for slot in day["slots"].as_array().expect("slots") {
        let lane = day["lanes"].as_array().and_then(|all| all.iter().find(|lane| lane["setup_id"] == slot["setup_id"]));
        let windows = lane.expect("its lane")["windows"].as_array().expect("windows");
        let minute = |of: &Value, name: &str| of[name].as_f64().expect("a minute");
        assert!(windows.iter().any(|window| {
            minute(window, "from_minute") <= minute(slot, "shoots_minute")
                && minute(slot, "done_minute") <= minute(window, "to_minute")
        }));
    }
    // What moved against a plan that was looked at is told.
    let first = &day["slots"][0];
    let before = json!([{ "setup_id": first["setup_id"], "utc": "2026-08-29T09:00:00Z" }]);
    let again = planned(&tolva, &json!({ "job": ropeworks(), "before": before })).await;
    let moved = again["moved"][0].as_str().expect("it moved");
    assert!(moved.contains("not 12:00"), "{moved}");
}

/// Something is put to an hour: the answer is what clocks show there, and pinned there it stays.
#[actix_web::test]
async fn a_setup_is_pinned_where_it_is_dragged() {
    let tolva = Running::start();
    let mut job = ropeworks();
    let asked = json!({ "job": job, "setup_id": "yard", "minute": 815 });
    let (status, at) = tolva.post("api/v1/day-plan/hour", &asked).await;
    assert_eq!((status, at["time"].as_str()), (StatusCode::OK, Some("13:35")));
    job["setups"][1]["schedule"] = json!({ "pinned": at, "shoot_min": 30 });
    let day = planned(&tolva, &json!({ "job": job })).await;
    let yard = day["slots"].as_array().and_then(|all| all.iter().find(|slot| slot["setup_id"] == "yard"));
    assert_eq!(yard.map(|slot| (&slot["shoots"], &slot["done"])), Some((&json!("13:35"), &json!("14:05"))));
    assert_eq!(day["slots"].as_array().map(Vec::len), Some(5), "the others fit around it");
    let lane = day["lanes"].as_array().and_then(|all| all.iter().find(|lane| lane["setup_id"] == "yard"));
    assert_eq!(lane.map(|lane| &lane["pinned_minute"]), Some(&json!(815)));
}

/// A day that is too short says what does not fit, and the least that would make it.
#[actix_web::test]
async fn what_does_not_fit_is_said_with_the_least_change() {
    let tolva = Running::start();
    let mut job = ropeworks();
    job["day"] = json!({ "begin": "18:30", "end": "20:15" });
    let day = planned(&tolva, &json!({ "job": job })).await;
    assert!(!day["left_out"].as_array().expect("a list").is_empty(), "{}", day["says"]);
    let changes = day["changes"].as_array().expect("changes");
    let minutes: Vec<u64> = changes.iter().filter_map(|change| change["minutes"].as_u64()).collect();
    assert!(minutes.is_sorted(), "{minutes:?}");
    if let Some(hour) = changes.iter().find(|change| change["code"] == "end_later").map(|change| change["hour"].clone())
    {
        job["day"]["end"] = hour;
        let mended = planned(&tolva, &json!({ "job": job })).await;
        assert_eq!(mended["left_out"], json!([]));
    }
}

#[rstest]
#[case::no_hour(json!({ "begin": "7", "end": "20:00" }), "/job/day/begin")]
#[case::an_hour_that_is_none(json!({ "end": "24:30" }), "/job/day/end")]
#[case::twice(json!({ "ways": [{ "id": "a", "from": "", "to": "", "minutes": 5 }, { "id": "a", "from": "", "to": "", "minutes": 5 }] }), "/job/day/ways/1/id")]
#[case::too_long_a_way(json!({ "way_min": 900 }), "/job/day/way_min")]
#[actix_web::test]
async fn a_wrong_hour_is_named(#[case] day: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut job = ropeworks();
    job["day"] = day;
    let (status, problem) = tolva.post("api/v1/day-plan", &json!({ "job": job })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(problem["errors"][0]["pointer"], pointer, "{problem}");
}

#[actix_web::test]
async fn a_day_that_is_none_and_a_setup_of_another_day_are_named() {
    let tolva = Running::start();
    let (_, problem) = tolva.post("api/v1/day-plan", &json!({ "job": ropeworks(), "date": "2026-02-30" })).await;
    assert_eq!(problem["errors"][0]["pointer"], "/date", "{problem}");
    let asked = json!({ "job": ropeworks(), "setup_id": "attic", "minute": 600 });
    let (_, problem) = tolva.post("api/v1/day-plan/hour", &asked).await;
    assert_eq!(problem["errors"][0]["pointer"], "/setup_id", "{problem}");
}

/// A number of the job itself is typed, and a part that was not there is begun.
#[actix_web::test]
async fn minutes_are_typed_into_a_job() {
    let tolva = Running::start();
    let typed = |at: &str, text: &str| json!({ "job": ropeworks(), "edit": { "type": { "at": at, "text": text } } });
    let (status, job) = tolva.post("api/v1/edit-job", &typed("/day/way_min", "25")).await;
    assert_eq!((status, &job["day"]["way_min"]), (StatusCode::OK, &json!(25)), "{job}");
    let (_, job) = tolva.post("api/v1/edit-job", &typed("/setups/2/schedule/build_min", "40")).await;
    assert_eq!(job["setups"][2]["schedule"]["build_min"], 40);
    let (status, problem) = tolva.post("api/v1/edit-job", &typed("/day/way_min", "900")).await;
    assert_eq!((status, &problem["errors"][0]["pointer"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/edit/text")));
}

/// The calendar is read back by another reader of iCalendar, the table by one of CSV.
#[actix_web::test]
async fn a_day_as_files() {
    let tolva = Running::start();
    let (_, kept) = tolva.post("api/v1/jobs", &ropeworks()).await;
    let id = kept["id"].as_str().expect("an id");
    let file = async |ending: &str| {
        let answer = tolva.client.get(tolva.url(&format!("api/v1/jobs/{id}/day.{ending}"))).send().await;
        answer.expect("an answer").text().await.expect("text")
    };
    let calendar = file("ics").await;
    let read = ical::IcalParser::new(calendar.as_bytes()).next().expect("a calendar").expect("a good one");
    assert_eq!(read.events.len(), 5);
    for event in &read.events {
        let value = |name: &str| event.properties.iter().find(|one| one.name == name).and_then(|one| one.value.clone());
        assert!(value("DTSTART") < value("DTEND") && value("SUMMARY").is_some());
        assert_eq!(event.alarms.len(), 1);
    }
    let table = file("csv").await;
    assert_eq!(csv::Reader::from_reader(table.as_bytes()).records().count(), 5);
}
