//! Place, hour and falling light through the API.

use super::running::Running;
use reqwest::StatusCode;
use rstest::rstest;
use serde_json::{Value, json};

fn doorway() -> Value {
    let job: Value =
        serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data");
    json!({ "setup": job["setups"][0], "kit": job["kit"] })
}

#[actix_web::test]
async fn a_day_and_an_hour_on_it() {
    let tolva = Running::start();
    let mut asked = doorway();
    asked["step_min"] = json!(5);
    let (status, day) = tolva.post("api/v1/day", &asked).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(day["minute"].as_array().map(Vec::len), Some(289));
    assert!(day["says"].as_str().is_some_and(|says| says.contains("sets at 20:26")));
    let mut moved = doorway();
    moved["command"] = json!({ "minute": { "to": 1200 } });
    let (_, body) = tolva.post("api/v1/solve", &moved).await;
    assert_eq!(body["setup"]["scene"]["at"]["time"], "20:00");
    assert!(body["plan"]["sun_report"]["says"].as_str().is_some_and(|says| says.contains("sets 20:26, 26 min left")));
}

#[actix_web::test]
async fn a_timetable_and_its_files() {
    let tolva = Running::start();
    let (status, table) = tolva.post("api/v1/falling", &doorway()).await;
    assert_eq!((status, table["last"]["clock"].as_str()), (StatusCode::OK, Some("20:55")));
    let job: Value =
        serde_json::from_str(include_str!("../../../../demo/ropeworks-open-day.json")).expect("the demo data");
    let (_, kept) = tolva.post("api/v1/jobs", &job).await;
    let of = |ending: &str| {
        tolva.url(&format!("api/v1/jobs/{}/setups/doorway/falling.{ending}", kept["id"].as_str().expect("an id")))
    };
    let text = async |ending: &str| {
        let answer = tolva.client.get(of(ending)).send().await.expect("an answer");
        (answer.headers()["content-type"].to_str().expect("a kind").to_owned(), answer.text().await.expect("text"))
    };
    let (kind, calendar) = text("ics").await;
    assert!(
        kind.starts_with("text/calendar") && calendar.starts_with("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Tolva")
    );
    let changes = table["steps"].as_array().map_or(0, Vec::len);
    assert_eq!(calendar.matches("BEGIN:VEVENT").count(), changes + 1, "every change, and the last minute");
    assert_eq!(calendar.matches("BEGIN:VALARM").count(), changes + 1);
    assert!(calendar.contains("DTSTART:20260829T163600Z") && calendar.contains("TRIGGER:-PT"));
    let (kind, csv) = text("csv").await;
    assert!(kind.starts_with("text/csv"));
    assert_eq!(csv.matches("\r\n").count(), changes + 1);
    let (status, _) =
        tolva.get(&format!("api/v1/jobs/{}/setups/none/falling.csv", kept["id"].as_str().expect("an id"))).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[rstest]
#[case("api/v1/day", json!({"step_min": 0}), "/step_min")]
#[case("api/v1/day", json!({"step_min": 5, "setup": {"scene": null}}), "/setup/scene")]
#[case("api/v1/falling", json!({"setup": {"scene": null}}), "/setup/scene")]
#[case("api/v1/falling", json!({"setup": {"scene": {"site": {"latitude_deg": 95}}}}), "/setup/scene/site/latitude_deg")]
#[case("api/v1/falling", json!({"setup": {"scene": {"site": {"time_zone": "Mars/Base"}}}}), "/setup/scene/site/time_zone")]
#[case("api/v1/solve", json!({"setup": {"scene": {"at": {"date": "2026-03-29", "time": "03:30"}}}}), "/setup/scene/at/time")]
#[case("api/v1/solve", json!({"command": {"hour": {"date": "2026-03-29", "time": "03:30"}}}), "/setup/scene/at/time")]
#[case("api/v1/solve", json!({"setup": {"scene": {"horizon": [{"from_deg": 0, "to_deg": 360, "height": {"angle": {"altitude_deg": 88}}}]}}}), "/setup/scene/horizon")]
#[case("api/v1/solve", json!({"setup": {"scene": {"weather": {"forecast": {"source": "x", "simulated": true, "hours": []}}}}}), "/setup/scene/weather/forecast/hours")]
#[actix_web::test]
async fn what_is_wrong_is_pointed_at(#[case] path: &str, #[case] part: Value, #[case] pointer: &str) {
    let tolva = Running::start();
    let mut asked = doorway();
    merge(&mut asked, part);
    let (status, body) = tolva.post(path, &asked).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{body}");
    let pointers: Vec<&str> =
        body["errors"].as_array().expect("errors").iter().filter_map(|error| error["pointer"].as_str()).collect();
    assert!(pointers.contains(&pointer), "{body}");
}

/// Puts what one object has into another, in depth.
fn merge(into: &mut Value, part: Value) {
    match (into, part) {
        (Value::Object(into), Value::Object(part)) => {
            for (key, value) in part {
                // One of several kinds replaces the other.
                let whole = ["weather", "horizon"].contains(&key.as_str());
                match into.get_mut(&key) {
                    Some(there) if !whole => merge(there, value),
                    _ => {
                        into.insert(key, value);
                    }
                }
            }
        }
        (into, part) => *into = part,
    }
}

#[actix_web::test]
async fn places_hours_and_stand_ins() {
    let tolva = Running::start();
    let (_, found) = tolva.get("api/v1/places?text=kotka").await;
    assert_eq!(found["places"][0]["name"], "Kotka");
    let (status, none) = tolva.get("api/v1/places?text=qwxzy").await;
    assert_eq!((status, none["errors"][0]["pointer"].as_str()), (StatusCode::UNPROCESSABLE_ENTITY, Some("/text")));

    let geojson = r#"{"type":"Point","coordinates":[26.9,60.4]}"#;
    let send = |kind: &'static str| {
        let request = tolva.client.post(tolva.url("api/v1/places/file")).header("content-type", kind).body(geojson);
        async { request.send().await.expect("an answer").status() }
    };
    assert_eq!(send("application/octet-stream").await, StatusCode::OK);
    assert_eq!(send("text/plain").await, StatusCode::UNSUPPORTED_MEDIA_TYPE);

    // A day somebody has in mind is meant at noon, but for today.
    let meant = json!({ "time_zone": "Europe/Helsinki", "on": "2031-06-21" });
    assert_eq!(tolva.post("api/v1/moment", &meant).await.1["at"]["time"], "12:00");
    let (_, now) = tolva.post("api/v1/moment", &json!({ "time_zone": "Asia/Kathmandu" })).await;
    assert!(now["utc"].as_str().is_some_and(|utc| utc > "2026-01-01"), "{now}");
    let twice = json!({ "time_zone": "Europe/Helsinki", "at": { "date": "2026-10-25", "time": "03:30" } });
    assert_eq!(tolva.post("api/v1/moment", &twice).await.1["comes_twice"], true);

    let asked = doorway();
    let site = asked["setup"]["scene"]["site"].clone();
    let (_, cloud) = tolva.post("api/v1/forecast", &json!({ "site": site, "date": "2026-08-29" })).await;
    assert_eq!((cloud["simulated"].as_bool(), cloud["hours"].as_array().map(Vec::len)), (Some(true), Some(37)));
    assert_eq!(cloud["hours"][0]["utc"], "2026-08-28T21:00:00Z", "from midnight there");
    let mut meter = asked.clone();
    meter["region_id"] = json!("lit");
    let (_, taken) = tolva.post("api/v1/meter", &meter).await;
    assert_eq!((taken["simulated"].as_bool(), taken["at"]["time"].as_str()), (Some(true), Some("19:26")));
    meter["region_id"] = json!("none");
    assert_eq!(tolva.post("api/v1/meter", &meter).await.1["errors"][0]["pointer"], "/region_id");
}

#[actix_web::test]
async fn sums_are_worked_out() {
    let tolva = Running::start();
    // NREL/TP-560-34302's own instant and place, in standard air: the azimuth does not depend on it.
    let asked = json!({ "utc": "2003-10-17T19:30:30Z", "latitude_deg": 39.742_476, "longitude_deg": -105.1786, "elevation_m": 1830.14 });
    let (status, sun) = tolva.post("api/v1/calculators/sun-position", &asked).await;
    assert_eq!(status, StatusCode::OK);
    assert!((sun["azimuth_deg"].as_f64().expect("an azimuth") - 194.34).abs() < 0.01, "{sun}");
    let polar = json!({ "utc_date": "2026-06-21", "latitude_deg": 78.2, "longitude_deg": 15.6 });
    let (_, times) = tolva.post("api/v1/calculators/sun-times", &polar).await;
    assert!(times["sunrise_utc"].is_null() && times["transit_utc"].is_string(), "{times}");
    let (status, none) = tolva.post("api/v1/calculators/moon", &json!({})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert!(none["detail"].as_str().is_some_and(|says| says.contains("sun-position, sun-times")));
}
