//! The open format: what is read, what is refused and where.

use proptest::prelude::*;
use rstest::rstest;
use serde_json::{Value, json};

use super::*;
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;

/// What a setup's plan sets and gives.
pub(crate) fn planned(setup: &Setup, kit: &Kit) -> Outcome {
    let (setup, kit) = (setup.clone().into(), kit.clone().into());
    let prepared = Prepared::new(&setup, &kit).expect("what is checked can be planned");
    Outcome::of(&prepared)
}

/// The camera's settings, and the power of the first light in stops.
pub(crate) fn set(setup: &Setup, kit: &Kit) -> (String, Option<f64>) {
    let outcome = planned(setup, kit);
    (outcome.settings.label(), outcome.lights.first().and_then(|at| at.map(|at| at.power.0.0)))
}

fn example() -> Value {
    serde_json::to_value(Job::new("A job")).expect("a document")
}

fn with(pointer: &str, value: Value) -> Vec<u8> {
    let mut job = example();
    let (parent, field) = pointer.rsplit_once('/').expect("a pointer");
    match job.pointer_mut(parent).expect("its parent") {
        Value::Object(fields) => {
            fields.insert(field.to_owned(), value);
        }
        Value::Array(items) => items[field.parse::<usize>().expect("an index")] = value,
        _ => panic!("no parent at {parent}"),
    }
    job.to_string().into_bytes()
}

#[test]
fn a_document_is_read_back_as_it_was_written() {
    let job = Job::new("A job");
    assert_eq!(Job::from_json(job.to_json().as_bytes()), Ok(job));
}

/// Each refusal names the field by its JSON pointer and says what is allowed.
#[rstest]
#[case("/name", json!(""), "/name", "empty")]
#[case("/name", json!(3), "/name", "expected a string")]
#[case("/date", json!("2026-02-30"), "/date", "2026-08-29")]
#[case("/date", json!("soon"), "/date", "soon")]
#[case("/format", json!("other"), "/format", "tolva-job")]
#[case("/format_version", json!(12), "/format_version", "version 12 is not known")]
#[case("/colour", json!(1), "/colour", "unknown field `colour`")]
#[case("/setups/0/lights/0/distance_m", json!(0), "/setups/0/lights/0/distance_m", "0 is not allowed here: it must be from 0.1 to 50 m")]
#[case("/setups/0/lights/0/distance_m", json!("near"), "/setups/0/lights/0/distance_m", "expected f64")]
#[case("/setups/0/lights/0/flash_id", json!("sun"), "/setups/0/lights/0/flash_id", "there is small, medium, large")]
#[case("/setups/0/lights/0/colour", json!(1), "/setups/0/lights/0/colour", "unknown field")]
#[case("/setups/0/lights/0/power_stops", json!(-9), "/setups/0/lights/0/power_stops", "below the lowest power")]
#[case("/setups/0/blend", json!({"lift": {"subject_stops": 9, "background_stops": 0}}), "/setups/0/blend/lift/subject_stops", "from -6 to 3 stops")]
#[case("/setups/0/blend", json!({"glow": {}}), "/setups/0/blend", "unknown variant `glow`")]
#[case("/setups/0/regions/1/ambient/readings", json!([{"reading": {"lux": {"illuminance_lux": -5}}}]), "/setups/0/regions/1/ambient/readings/0/reading/lux/illuminance_lux", "0.001 to 200000 lx")]
#[case("/setups/0/regions/1/ambient/readings", json!([{"reading": {"ev": {"ev100": 9}}, "at": {"date": "2026-08-29", "time": "late"}}]), "/setups/0/regions/1/ambient/readings/0/at/time", "19:46")]
#[case("/setups/0/regions/1/role", json!("background"), "/setups/0/regions", "lit_side")]
#[case("/setups/0/regions/1/id", json!("behind"), "/setups/0/regions/1/id", "twice")]
#[case("/setups/0/fixed", json!({"iso": 0}), "/setups/0/fixed/iso", "3 to 10000000")]
#[case("/setups/0/camera_id", json!("none"), "/setups/0/camera_id", "full-frame, small-sensor")]
#[case("/kit/cameras/0/sync_safe_s", json!(0.001), "/kit/cameras/0/sync_safe_s", "rated")]
#[case("/kit/modifiers/0/surface", json!({"disc": {"diameter_m": 0}}), "/kit/modifiers/0/surface/disc/diameter_m", "from 0.02 to 10 m")]
#[case("/kit/cameras", json!([]), "/kit/cameras", "from 1 to 40")]
#[case("/kit/lenses/0/longest_mm", json!(20), "/kit/lenses/0/longest_mm", "20 is shorter than the shortest, 24 mm")]
#[case("/kit/lenses/0/smallest_f_number", json!(2), "/kit/lenses/0/smallest_f_number", "wider than the widest")]
#[case("/kit/gels/0/loss_stops", json!(-1), "/kit/gels/0/loss_stops", "from 0 to 8 stops")]
#[case("/kit/filters/0/density_stops", json!(0), "/kit/filters/0/density_stops", "from 0.1 to 15 stops")]
#[case("/kit/stands/0/carries_kg", json!(0), "/kit/stands/0/carries_kg", "from 0.1 to 100 kg")]
#[case("/kit/triggers/0/groups", json!(0), "/kit/triggers/0/groups", "from 1 to 16 groups")]
#[case("/kit/flashes/0/durations/0/t01_s", json!(9), "/kit/flashes/0/durations/0/t01_s", "s")]
#[case("/kit/flashes/0/output", json!({"guide_number_zoom": {"table": []}}), "/kit/flashes/0/output/guide_number_zoom/table", "from 1 to 20")]
#[case("/kit/cameras/0/sensor/width_px", json!(0), "/kit/cameras/0/sensor/width_px", "from 500 to 30000 pixels")]
#[case("/setups/0/focal_length_mm", json!(200), "/setups/0/focal_length_mm", "24 to 105 mm")]
#[case("/setups/0/depth", json!({"rows": {"rows": 0, "apart_m": 1}}), "/setups/0/depth/rows/rows", "from 1 to 20 rows")]
#[case("/setups/0/pace", json!({"every_s": 0, "burst_frames": 1, "frames": 1}), "/setups/0/pace/every_s", "from 0.1 to 3600 s")]
#[case("/setups/0/speed/blur_px", json!(0), "/setups/0/speed/blur_px", "from 0.5 to 100 pixels")]
#[case("/setups/0/lights/0/feather_deg", json!(120), "/setups/0/lights/0/feather_deg", "from 0 to 85 degrees")]
#[case("/setups/0/lights/0/units", json!(0), "/setups/0/lights/0/units", "from 1 to 6 units")]
#[case("/setups/0/lights/0/aimed_at", json!("moon"), "/setups/0/lights/0/aimed_at", "there is behind, lit, shadow")]
#[case("/setups/0/lights/0/wish", json!({"fill": {"ratio_stops": 9}}), "/setups/0/lights/0/wish/fill/ratio_stops", "from 0 to 6 stops")]
#[case("/setups/0/lights/0/bounce", json!({"off": "ceiling", "away_m": 1, "reflectance": 2}), "/setups/0/lights/0/bounce/reflectance", "0.02 to 0.95")]
#[case("/setups/0/preferences", json!(["low_iso", "low_iso"]), "/setups/0/preferences", "twice")]
#[case("/setups/0/learnt", json!({"of": [], "frames": 0}), "/setups/0/learnt/frames", "from 1 to 100000")]
#[case("/setups/0/learnt", json!({"of": [{"what": {"ambient": {"region_id": "behind"}}, "more_stops": 0.1, "sure_stops": 0}], "frames": 1}), "/setups/0/learnt/of/0/sure_stops", "0.0001 to 12 stops")]
#[case("/setups/0/learnt", json!({"of": [], "bound": [0.3], "frames": 1}), "/setups/0/learnt/bound", "0 pairs of unknowns, and 1 correlations")]
fn refused_with_the_path(#[case] at: &str, #[case] value: Value, #[case] pointer: &str, #[case] says: &str) {
    let problems = Job::from_json(&with(at, value)).expect_err("wrong");
    let found = problems.0.iter().find(|problem| problem.pointer == pointer);
    assert!(found.is_some_and(|problem| problem.message.contains(says)), "{problems:?}");
}

#[test]
fn every_wrong_value_is_named_at_once() {
    let mut job = Job::new("A job");
    job.setups[0].lights[0].distance_m = Some(-1.0);
    job.setups[0].filter_ids = vec!["dense".to_owned()];
    job.kit.cameras[0].iso.base_iso = 0.0;
    let problems = job.check().expect_err("three wrong values");
    let pointers: Vec<&str> = problems.0.iter().map(|problem| problem.pointer.as_str()).collect();
    assert_eq!(pointers, ["/kit/cameras/0/iso/base_iso", "/setups/0/lights/0/distance_m", "/setups/0/filter_ids/0"]);
    let codes = [ProblemCode::OutOfRange, ProblemCode::OutOfRange, ProblemCode::NotThere];
    assert_eq!(problems.0.iter().map(|problem| problem.code).collect::<Vec<_>>(), codes);
    assert_eq!((problems.0[1].least, problems.0[1].most), (Some(0.1), Some(50.0)));
}

#[rstest]
#[case(b"", "EOF")]
#[case(b"[]", "one JSON object")]
#[case(b"{", "EOF")]
#[case(b"{}", "missing")]
#[case(b"{\"format\":\"tolva-job\"}", "missing")]
#[case(b"\xff\xfe", "expected value")]
fn no_document_at_all(#[case] bytes: &[u8], #[case] says: &str) {
    let problems = Job::from_json(bytes).expect_err("no document");
    assert!(problems.to_string().contains(says), "{problems}");
}

#[rstest]
#[case("2024-02-29", true)]
#[case("2026-02-29", false)]
#[case("2000-02-29", true)]
#[case("1900-02-29", false)]
#[case("2026-13-01", false)]
#[case("2026-04-31", false)]
#[case("26-04-30", false)]
#[case("", true)]
fn days(#[case] date: &str, #[case] good: bool) {
    let job = Job { date: date.to_owned(), ..Job::new("A job") };
    assert_eq!(job.check().is_ok(), good);
}

#[test]
fn guide_numbers_in_feet_and_readings_are_the_same_unit() {
    let mut job = Job::new("A job");
    let power = |job: &Job| {
        job.check().expect("good");
        set(&job.setups[0], &job.kit).1
    };
    let metres = power(&job);
    job.kit.flashes[1].output =
        FlashOutput::GuideNumberFeet(GuideNumberFeet { guide_number_ft: 60.0 / 0.3048, holds_for: String::new() });
    assert_eq!(power(&job), metres);
    // Bare, full power, 3 m: f/20.
    job.kit.flashes[1].output = FlashOutput::Measured(MeasuredOutput {
        f_number: 20.0,
        iso: 100.0,
        distance_m: 3.0,
        power_stops: 0.0,
        modifier_id: None,
    });
    assert_eq!(power(&job), metres);
}

/// The schema is complete in itself, and an example document uses only what it lists.
#[test]
fn the_schema_stands_alone() {
    let schema = json_schema();
    let text = schema.to_string();
    assert!(!text.contains("#/components/"));
    for reference in text.split("\"#/$defs/").skip(1).filter_map(|rest| rest.split('"').next()) {
        assert!(schema.pointer(&format!("/$defs/{reference}")).is_some(), "{reference}");
    }
    let properties = schema["properties"].as_object().expect("fields");
    for field in example().as_object().expect("a job").keys() {
        assert!(properties.contains_key(field), "{field}");
    }
    assert_eq!(schema["additionalProperties"], json!(false));
    // A text in a list is as long as the reader takes.
    let gels = &schema["$defs"]["Light"]["properties"]["gel_ids"]["items"];
    let longest = usize::try_from(gels["maxLength"].as_u64().expect("a limit")).expect("small");
    let with = |letters: usize| {
        let mut job = Job::new("A job");
        job.packed.out = vec!["x".repeat(letters)];
        job.check().is_ok()
    };
    assert!(with(longest) && !with(longest + 1));
}

proptest! {
    #[test]
    fn no_panic_on_any_bytes(bytes in proptest::collection::vec(any::<u8>(), 0..200)) {
        let _ = Job::from_json(&bytes);
    }

    /// Whatever number stands in a field, the answer is a plan or a refusal that names the field.
    #[test]
    fn no_panic_on_any_number(value in any::<f64>(), field in 0..6usize) {
        let mut job = Job::new("A job");
        let setup = &mut job.setups[0];
        match field {
            0 => setup.camera_distance_m = value,
            1 => setup.speed.slowest_shutter_s = Some(value),
            2 => setup.fixed.shutter_s = Some(value),
            3 => setup.lights[0].distance_m = Some(value),
            4 => setup.regions[0].ambient.guess_ev100 = value,
            _ => setup.lights[0].spill[0].stops = value,
        }
        match check(&job.setups[0], &job.kit) {
            Ok(()) => prop_assert_eq!(planned(&job.setups[0], &job.kit).regions.len(), 3),
            Err(problems) => prop_assert!(problems.0[0].pointer.starts_with("/setup/")),
        }
    }
}

/// A job whose first setup has a place and an hour.
fn placed() -> Value {
    let mut job = example();
    let site = Site {
        name: "Quay".to_owned(),
        latitude_deg: 60.47,
        longitude_deg: 26.95,
        elevation_m: 3.0,
        time_zone: "Europe/Helsinki".to_owned(),
    };
    let at = LocalTime { date: "2026-08-29".into(), time: "19:26".into(), second_time: false };
    job["setups"][0]["scene"] = serde_json::to_value(Scene::new(site, at)).expect("a scene");
    job
}

/// Each part of a scene names its field and says what is allowed.
#[rstest]
#[case("site/latitude_deg", json!(90.5), "site/latitude_deg", "from -90 to 90 degrees")]
#[case("site/longitude_deg", json!(-181), "site/longitude_deg", "from -180 to 180 degrees")]
#[case("site/elevation_m", json!(12_000), "site/elevation_m", "from -500 to 9000 m")]
#[case("site/time_zone", json!("Helsinki"), "site/time_zone", "Europe/Helsinki")]
#[case("at/date", json!("2026-02-30"), "at/date", "2026-08-29")]
#[case("at/time", json!("24:10"), "at/time", "19:46")]
#[case("at", json!({"date": "2026-03-29", "time": "03:15"}), "at/time", "clocks are put forward, from 03:00 to 04:00")]
#[case("facing_deg", json!(400), "facing_deg", "from 0 to 360 degrees")]
#[case("weather", json!({"steady": {"cloud_eighths": 9}}), "weather/steady/cloud_eighths", "from 0 to 8")]
#[case("weather", json!({"forecast": {"source": "x", "simulated": true, "hours": [{"utc": "noon", "cloud_eighths": 1}]}}), "weather/forecast/hours/0/utc", "2026-08-29T16:00:00Z")]
#[case("weather", json!({"forecast": {"source": "x", "simulated": true, "hours": [{"utc": "2026-08-29T16:00:00Z", "cloud_eighths": 1}, {"utc": "2026-08-29T15:00:00Z", "cloud_eighths": 1}]}}), "weather/forecast/hours/1/utc", "in order")]
#[case("weather", json!("sunny"), "weather", "unknown variant `sunny`")]
#[case("surroundings", json!({"open_shade": {"sky_percent": 130}}), "surroundings/open_shade/sky_percent", "from 0 to 100 %")]
#[case("surroundings", json!({"artificial": {"light": "home", "mains_hz": 400}}), "surroundings/artificial/mains_hz", "from 50 to 60 Hz")]
#[case("surroundings", json!("desert"), "surroundings", "unknown variant `desert`")]
#[case("background/sunlit_percent", json!(-1), "background/sunlit_percent", "from 0 to 100 %")]
#[case("horizon", json!([{"from_deg": -10, "to_deg": 20, "height": {"angle": {"altitude_deg": 5}}}]), "horizon/0/from_deg", "from 0 to 360 degrees")]
#[case("horizon", json!([{"from_deg": 10, "to_deg": 20, "height": {"angle": {"altitude_deg": 95}}}]), "horizon/0/height/angle/altitude_deg", "from 0 to 89 degrees")]
#[case("horizon", json!([{"from_deg": 10, "to_deg": 20, "height": {"size": {"height_m": 5, "distance_m": 0}}}]), "horizon/0/height/size/distance_m", "from 0.1 to 100000 m")]
#[case("horizon", json!([{"from_deg": 0, "to_deg": 360, "height": {"angle": {"altitude_deg": 88}}}]), "horizon", "it covers the sky")]
#[case("moon", json!(1), "moon", "unknown field `moon`")]
fn a_wrong_scene_is_refused_with_the_path(
    #[case] at: &str,
    #[case] value: Value,
    #[case] field: &str,
    #[case] says: &str,
) {
    let mut job = placed();
    assert!(Job::from_json(job.to_string().as_bytes()).is_ok(), "it was good before");
    let (parent, last) = at.rsplit_once('/').unwrap_or(("", at));
    let parent = if parent.is_empty() { String::new() } else { format!("/{parent}") };
    job.pointer_mut(&format!("/setups/0/scene{parent}")).expect("its parent")[last] = value;
    let problems = Job::from_json(job.to_string().as_bytes()).expect_err("wrong");
    let pointer = format!("/setups/0/scene/{field}");
    let found = problems.0.iter().find(|problem| problem.pointer == pointer);
    assert!(found.is_some_and(|problem| problem.message.contains(says)), "{problems:?}");
}

#[test]
fn a_scene_is_read_back_as_it_was_written() {
    let job = Job::from_json(placed().to_string().as_bytes()).expect("a job");
    assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    // The simplest that is enough: everything else has a default.
    let mut short = placed();
    let scene = &mut short["setups"][0]["scene"];
    scene.as_object_mut().expect("a scene").remove("horizon");
    assert_eq!(Job::from_json(short.to_string().as_bytes()).expect("short"), job);
}
