//! Each sum against a figure from outside, and what is refused.

use super::*;
use proptest::prelude::*;
use rstest::rstest;

/// Every row of `reach.csv` (own script, numpy, Gauss-Legendre 200 × 200), by its own field names.
#[test]
fn light_reach_by_the_table() {
    let mut rows = csv::Reader::from_reader(include_bytes!("../../core/tests/data/reach.csv").as_slice());
    let names: Vec<String> = rows.headers().expect("a head").iter().map(str::to_owned).collect();
    let mut seen = 0;
    for row in rows.records() {
        let row = row.expect("a row");
        let mut asked = Map::new();
        let mut expected = None;
        for (name, value) in names.iter().zip(&row) {
            match value.parse::<f64>() {
                Ok(number) if name == "reach_stops" => expected = Some(number),
                Ok(number) => _ = asked.insert(name.clone(), number.into()),
                Err(_) if name == "reach_stops" => {}
                Err(_) => _ = asked.insert(name.clone(), value.into()),
            }
        }
        let found = sum("light-reach", &asked).expect("a sum").expect("good")["reach_stops"].as_f64();
        assert_eq!(found.is_some(), expected.is_some(), "{asked:?}");
        assert!((found.unwrap_or_default() - expected.unwrap_or_default()).abs() < 0.01, "{asked:?}: {found:?}");
        seen += 1;
    }
    assert_eq!(seen, 40);
    let nowhere = r#"{"shape": "disc", "width_m": 0.9, "height_m": 0.9, "directionality": 1, "x_m": 0, "y_m": 0, "z_m": 1,
        "aim_x_m": 0, "aim_y_m": 0, "aim_z_m": 1, "point_x_m": 0, "point_y_m": 1, "point_z_m": 1,
        "facing_azimuth_deg": 180, "facing_elevation_deg": 0, "receptor": "flat"}"#;
    assert!(sum("light-reach", &object(nowhere)).expect("a sum").is_err());
    let behind = nowhere.replace(r#""aim_y_m": 0"#, r#""aim_y_m": -1"#);
    assert!(sum("light-reach", &object(&behind)).expect("a sum").expect("good")["reach_stops"].is_null());
}

/// Every row of `bounce.csv`, traced by Mitsuba 3.9.1 (an independent renderer, 2²¹ paths), by its own field names.
#[test]
fn light_bounce_by_the_table() {
    let mut rows = csv::Reader::from_reader(include_bytes!("../../core/tests/data/bounce.csv").as_slice());
    let names: Vec<String> = rows.headers().expect("a head").iter().map(str::to_owned).collect();
    let given = ["direct_reach_stops", "bounced_reach_stops"];
    let (mut seen, mut compared) = (0, 0);
    for row in rows.records() {
        let row = row.expect("a row");
        let cells = || names.iter().map(String::as_str).zip(&row);
        let asked: Map<String, Value> = cells()
            .filter(|(name, value)| !given.contains(name) && !value.is_empty())
            .map(|(name, value)| (name.to_owned(), value.parse::<f64>().map_or_else(|_| value.into(), Value::from)))
            .collect();
        let found = sum("light-bounce", &asked).expect("a sum").expect("good");
        for (name, value) in cells().filter(|(name, _)| given.contains(name)) {
            let (expected, found) = (value.parse::<f64>().ok(), found[name].as_f64());
            assert_eq!(found.is_some(), expected.is_some(), "row {seen}, {name}: {found:?} for {expected:?}");
            if let (Some(expected), Some(found)) = (expected, found) {
                assert!((found - expected).abs() < 0.1, "row {seen}, {name}: {found} for {expected}");
                compared += 1;
            }
        }
        seen += 1;
    }
    assert_eq!((seen, compared), (16, 22));
    let half_a_flag = r#"{"flag_x_m": 0.2}"#;
    assert!(sum("light-bounce", &object(half_a_flag)).expect("a sum").is_err(), "a flag has a place and a size");
}

/// Every row of `glass.csv` (own script, numpy), by its own field names.
#[test]
fn glass_image_by_the_table() {
    let mut rows = csv::Reader::from_reader(include_bytes!("../../core/tests/data/glass.csv").as_slice());
    let names: Vec<String> = rows.headers().expect("a head").iter().map(str::to_owned).collect();
    let given = ["centre_shows", "centre_right", "centre_up", "incidence_deg", "reflectance", "showing_share"];
    let mut seen = 0;
    for row in rows.records() {
        let row = row.expect("a row");
        let cell = |name: &str| row.get(names.iter().position(|one| one == name).expect("a column")).expect("a cell");
        let asked: Map<String, Value> = (names.iter().filter(|name| !given.contains(&name.as_str())))
            .map(|name| {
                let value = cell(name);
                (name.clone(), value.parse::<f64>().map_or_else(|_| value.into(), Value::from))
            })
            .collect();
        let found = sum("glass-image", &asked).expect("a sum").expect("good");
        let number = |name: &str| cell(name).parse::<f64>().expect("a number");
        assert_eq!(found["centre_shows"].as_bool(), Some(cell("centre_shows") == "True"), "{asked:?}");
        assert!((found["showing_share"].as_f64().expect("a share") - number("showing_share")).abs() < 0.02);
        if let Some(right) = found["centre_right"].as_f64() {
            assert!((right - number("centre_right")).abs() < 0.002, "{asked:?}");
            assert!((found["centre_up"].as_f64().expect("it") - number("centre_up")).abs() < 0.002, "{asked:?}");
            assert!((found["incidence_deg"].as_f64().expect("it") - number("incidence_deg")).abs() < 0.05);
            assert!((found["reflectance"].as_f64().expect("it") - number("reflectance")).abs() < 0.001);
        }
        seen += 1;
    }
    assert_eq!(seen, 30);
}

fn object(json: &str) -> Map<String, Value> {
    serde_json::from_str(json).expect("an object")
}

fn given(name: &str, json: &str, field: &str) -> f64 {
    let found = sum(name, &object(json)).expect("a sum").unwrap_or_else(|wrong| panic!("{name}: {wrong}"));
    found[field].as_f64().unwrap_or(f64::NAN)
}

/// physics.md, and by hand where it says so.
#[rstest]
#[case("exposure-value", r#"{"shutter_s": 0.0078125, "f_number": 16, "iso": 100}"#, "ev100", 15.0)]
#[case("exposure-value", r#"{"shutter_s": 0.0078125, "f_number": 16, "iso": 100}"#, "illuminance_lux", 81_920.0)]
#[case("light-sum", r#"{"first_stops": 0, "second_stops": -2}"#, "together_stops", 0.322)]
#[case(
    "flash-distance",
    r#"{"guide_number_m": 40, "f_number": 8, "iso": 100, "power_stops": 0, "loss_stops": 0}"#,
    "distance_m",
    5.0
)]
#[case(
    "guide-number",
    r#"{"f_number": 8, "iso": 100, "distance_m": 5, "power_stops": 0, "loss_stops": 0}"#,
    "guide_number_m",
    40.0
)]
#[case("flash-power", r#"{"guide_number_m": 40, "distance_m": 2.5, "f_number": 8, "iso": 100, "loss_stops": 1}"#, "power_stops", -1.0)]
#[case(
    "flash-aperture",
    r#"{"guide_number_m": 40, "distance_m": 5, "iso": 100, "power_stops": -2, "loss_stops": 0}"#,
    "f_number",
    4.0
)]
#[case("near-field", r#"{"shape": "disc", "radius_m": 0.45, "distance_m": 1.5}"#, "near_field_stops", -0.124)]
#[case("shadow-length", r#"{"height_m": 1.8, "sun_altitude_deg": 9.46}"#, "length_m", 10.803)]
#[case("shadow-length", r#"{"height_m": 1.7, "sun_altitude_deg": 45}"#, "length_m", 1.7)]
#[case("near-field", r#"{"shape": "rectangle", "width_m": 0.3, "height_m": 1.2, "distance_m": 0.6}"#, "near_field_stops", -0.687)]
#[case(
    "depth-of-field",
    r#"{"focal_length_mm": 50, "f_number": 8, "focus_m": 3, "circle_of_confusion_mm": 0.03}"#,
    "hyperfocal_m",
    10.467
)]
#[case(
    "depth-of-field",
    r#"{"focal_length_mm": 85, "f_number": 2.8, "focus_m": 2.6, "circle_of_confusion_mm": 0.03}"#,
    "near_m",
    2.526
)]
#[case(
    "depth-of-field",
    r#"{"focal_length_mm": 85, "f_number": 2.8, "focus_m": 2.6, "circle_of_confusion_mm": 0.03}"#,
    "far_m",
    2.678
)]
#[case(
    "group-depth",
    r#"{"focal_length_mm": 85, "nearest_m": 3, "farthest_m": 3.6, "circle_of_confusion_mm": 0.03}"#,
    "f_number",
    6.87
)]
#[case(
    "group-depth",
    r#"{"focal_length_mm": 85, "nearest_m": 3, "farthest_m": 3.6, "circle_of_confusion_mm": 0.03}"#,
    "focus_m",
    3.273
)]
#[case("close-up", r#"{"focal_length_mm": 100, "magnification": 1, "pupil_ratio": 1, "f_number": 8, "circle_of_confusion_mm": 0.015, "subject_depth_mm": 10, "overlap": 0.3}"#, "depth_mm", 0.48)]
#[case("shake-floor", r#"{"focal_length_mm": 85, "crop_factor": 1, "stabilisation_stops": 0}"#, "one_over_twice_s", 1.0 / 170.0)]
#[case(
    "field-of-view",
    r#"{"focal_length_mm": 50, "sensor_width_mm": 36, "sensor_height_mm": 24}"#,
    "horizontal_deg",
    39.598
)]
#[case(
    "field-of-view",
    r#"{"focal_length_mm": 50, "sensor_width_mm": 36, "sensor_height_mm": 24}"#,
    "vertical_deg",
    26.991
)]
#[case("mired-shift", r#"{"from_k": 5600, "shift_mired": 159}"#, "to_k", 2962.0)]
#[case("mired-shift", r#"{"from_k": 3200, "shift_mired": -137}"#, "to_k", 5698.1)]
#[case("high-speed-or-filter", r#"{"sync_safe_s": 0.005, "f_number_at_sync": 8, "f_number_wanted": 2.8, "high_speed_loss_stops": 1.3333333333}"#, "high_speed_power_stops", 4.0 / 3.0)]
#[case(
    "high-speed-or-filter",
    r#"{"sync_safe_s": 0.005, "f_number_at_sync": 8, "f_number_wanted": 2.8, "high_speed_loss_stops": 1.3333333333}"#,
    "filter_power_stops",
    0.0
)]
#[case("high-speed-or-filter", r#"{"sync_safe_s": 0.005, "f_number_at_sync": 8, "f_number_wanted": 2.8, "high_speed_loss_stops": 1.3333333333}"#, "high_speed_shutter_s", 1.0 / 1600.0)]
#[case(
    "ballast",
    r#"{"area_m2": 0.81, "wind_m_s": 10, "height_m": 2, "footprint_m": 0.5, "weight_kg": 5}"#,
    "force_n",
    59.535
)]
#[case(
    "stops-between",
    r#"{"shutter_1_s": 0.01, "f_number_1": 8, "iso_1": 100, "shutter_2_s": 0.02, "f_number_2": 4, "iso_2": 50}"#,
    "ambient_stops",
    2.0
)]
#[case(
    "stops-between",
    r#"{"shutter_1_s": 0.01, "f_number_1": 8, "iso_1": 100, "shutter_2_s": 0.02, "f_number_2": 4, "iso_2": 50}"#,
    "flash_stops",
    1.0
)]
#[case("falloff", r#"{"nearest_m": 1, "farthest_m": 2}"#, "falloff_stops", 2.0)]
#[case("burst", r#"{"full_recycle_s": 1.5, "power_stops": -3, "frames_per_s": 10}"#, "frames_flashed", 16.0)]
#[case(
    "movement-blur",
    r#"{"metres_per_s": 1.4, "shutter_s": 0.008, "magnification": 0.02, "pitch_um": 6}"#,
    "blur_px",
    37.333
)]
fn as_published(#[case] name: &str, #[case] json: &str, #[case] field: &str, #[case] value: f64) {
    let found = given(name, json, field);
    assert!((found - value).abs() <= 0.0006 * value.abs().max(1.0), "{found} {value}");
}

#[test]
fn beyond_the_hyperfocal_distance_the_far_end_is_null() {
    let asked = r#"{"focal_length_mm": 24, "f_number": 11, "focus_m": 5, "circle_of_confusion_mm": 0.03}"#;
    let found = sum("depth-of-field", &object(asked)).expect("a sum").expect("good");
    assert!(found["far_m"].is_null() && found["near_m"].is_number());
    let endless = r#"{"full_recycle_s": 1.5, "power_stops": -4, "frames_per_s": 10}"#;
    assert!(sum("burst", &object(endless)).expect("a sum").expect("good")["frames_flashed"].is_null());
}

#[rstest]
#[case("sun-position", r#"{"utc": "soon", "latitude_deg": 1, "longitude_deg": 1}"#, "/utc")]
#[case("sun-position", r#"{"utc": "1800-01-01T00:00:00Z", "latitude_deg": 1, "longitude_deg": 1}"#, "/utc")]
#[case("sun-position", r#"{"utc": "2026-01-01T00:00:00Z", "latitude_deg": 91, "longitude_deg": 1}"#, "/latitude_deg")]
#[case("sun-times", r#"{"utc_date": "2026-13-01", "latitude_deg": 1, "longitude_deg": 1}"#, "/utc_date")]
#[case("sun-times", r#"{"utc_date": "2026-01-01", "latitude_deg": 1, "longitude_deg": 200}"#, "/longitude_deg")]
#[case("sun-times", r#"{"utc_date": "2026-01-01", "latitude_deg": 1, "lon": 2}"#, "/lon")]
#[case("near-field", r#"{"shape": "disc", "distance_m": 1}"#, "/radius_m")]
#[case("near-field", r#"{"shape": "star", "distance_m": 1}"#, "/shape")]
#[case("near-field", r#"{"distance_m": 1}"#, "/shape")]
#[case("near-field", r#"{"shape": "disc", "radius_m": -1, "distance_m": 1}"#, "/radius_m")]
#[case("near-field", r#"{"shape": "disc", "radius_m": 1, "distance_m": "near"}"#, "/distance_m")]
#[case("near-field", r#"{"shape": "disc", "radius_m": 1, "distance_m": 1, "colour": 2}"#, "/colour")]
#[case("mired-shift", r#"{"from_k": 20000, "shift_mired": -137}"#, "/shift_mired")]
#[case(
    "group-depth",
    r#"{"focal_length_mm": 85, "nearest_m": 4, "farthest_m": 3, "circle_of_confusion_mm": 0.03}"#,
    "/farthest_m"
)]
#[case(
    "depth-of-field",
    r#"{"focal_length_mm": 85, "f_number": 8, "focus_m": 0.05, "circle_of_confusion_mm": 0.03}"#,
    "/focus_m"
)]
#[case(
    "flash-power",
    r#"{"guide_number_m": 1e308, "distance_m": 1, "f_number": 8, "iso": 100, "loss_stops": 0}"#,
    "/guide_number_m"
)]
fn refused(#[case] name: &str, #[case] json: &str, #[case] pointer: &str) {
    let wrong = sum(name, &object(json)).expect("a sum").expect_err("wrong");
    assert_eq!(wrong.0[0].pointer, pointer, "{wrong}");
}

/// Each choice needs what is said to go with it, and no more.
#[test]
fn a_choice_says_what_it_needs() {
    let mut seen = 0;
    for offer in offered() {
        let choices = offer.asked.iter().flat_map(|named| named.choices.iter().map(move |choice| (named, choice)));
        for (named, choice) in choices {
            let goes = |asked: &&Asked| asked.goes_with.as_ref().is_none_or(|with| with == choice);
            let mut asked: Map<_, _> =
                offer.asked.iter().filter(goes).map(|one| (one.field.clone(), one.usual.clone())).collect();
            asked.insert(named.field.clone(), serde_json::json!(choice));
            assert!(sum(&offer.name, &asked).expect("a sum").is_ok(), "{} {choice}", offer.name);
            for one in offer.asked.iter().filter(|one| one.goes_with.as_ref() == Some(choice)) {
                let mut less = asked.clone();
                less.remove(&one.field);
                assert!(sum(&offer.name, &less).expect("a sum").is_err(), "{} {choice} {}", offer.name, one.field);
                seen += 1;
            }
        }
    }
    assert_eq!(seen, 3, "a disc has a radius, a rectangle two sides");
}

/// What is first offered is answered, with every field that is promised, and nothing else but the workings.
#[test]
fn every_sum_answers_what_it_first_offers() {
    for offer in offered() {
        let asked: serde_json::Map<_, _> =
            offer.asked.iter().map(|asked| (asked.field.clone(), asked.usual.clone())).collect();
        let found = sum(&offer.name, &asked).expect("a sum").unwrap_or_else(|wrong| panic!("{}: {wrong}", offer.name));
        let fields: Vec<&String> = found.as_object().expect("an object").keys().collect();
        for given in &offer.given {
            assert!(fields.contains(&&given.field), "{} {}", offer.name, given.field);
        }
        assert!(found["workings"].as_array().is_none_or(|lines| !lines.is_empty()), "{}", offer.name);
    }
    assert!(sum("moon-times", &Map::new()).is_none());
    assert!(offered().len() > 20);
}

proptest! {
    /// Whatever is sent, an answer or a refusal: never a panic, never a number that is none.
    #[test]
    fn never_a_panic(which in 0..26usize, numbers in proptest::collection::vec(-1e6..1e6_f64, 8)) {
        let offers = offered();
        let offer = &offers[which % offers.len()];
        let asked: serde_json::Map<_, _> = offer.asked.iter().zip(&numbers).map(|(asked, number)| {
            let value = match (asked.least, asked.most) {
                (Some(least), Some(most)) => {
                    serde_json::json!(least + (most - least) * (number / 2e6 + 0.5))
                }
                _ => asked.usual.clone(),
            };
            (asked.field.clone(), value)
        }).collect();
        match sum(&offer.name, &asked).expect("a sum") {
            // What is no number is null: an end that is never reached.
            Ok(found) => {
                for given in &offer.given {
                    let value = found.get(&given.field).expect("what is promised");
                    prop_assert!(value.is_number() || value.is_string() || value.is_null(), "{value}");
                }
                let lines = found["workings"].as_array().cloned().unwrap_or_default();
                let said = serde_json::Value::Array(lines).to_string();
                prop_assert!(!said.contains("NaN") && !said.contains("inf"), "{said}");
            }
            Err(wrong) => {
                for problem in wrong.0 {
                    let field = problem.pointer.trim_start_matches('/').to_owned();
                    prop_assert!(offer.asked.iter().any(|asked| asked.field == field), "{field}");
                    prop_assert!(!problem.message.is_empty());
                }
            }
        }
    }

    /// A number far beyond every range is refused with its field and what is allowed.
    #[test]
    fn what_is_beyond_all_ranges_is_refused(which in 0..26usize, field in 0..8usize, sign in proptest::bool::ANY) {
        let offers = offered();
        let offer = &offers[which % offers.len()];
        let mut asked: serde_json::Map<_, _> =
            offer.asked.iter().map(|asked| (asked.field.clone(), asked.usual.clone())).collect();
        let numbers: Vec<_> = offer.asked.iter().filter(|asked| asked.least.is_some()).collect();
        let wrong = &numbers[field % numbers.len()].field;
        asked.insert(wrong.clone(), serde_json::json!(if sign { 1e308 } else { -1e308 }));
        let refused = sum(&offer.name, &asked).expect("a sum");
        let pointers: Vec<String> =
            refused.expect_err("beyond all ranges").0.into_iter().map(|problem| problem.pointer).collect();
        prop_assert!(pointers.contains(&format!("/{wrong}")), "{pointers:?}");
    }
}
