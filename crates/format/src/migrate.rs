//! Documents of older versions, brought to this one. Each step changes the JSON of one version into the next, so that a
//! wrong field is still named by its path there.

use serde_json::{Map, Value, json};

use crate::kit::Kit;
use crate::leaf::{Reading, Sensor};
use crate::problems::{ProblemCode, Problems};
use crate::read::read_json;
use crate::setup::Speed;
use crate::version::FORMAT_VERSION;

/// A job of an older version, as JSON of this one. `most` says how many items its lists may hold.
pub(super) fn up(version: u32, json: &[u8], most: &[(&str, usize)]) -> Result<Vec<u8>, Problems> {
    let mut document: Value = read_json(json)?;
    // What will be refused for its length is not built first.
    for (field, most) in most {
        let count = document.get(*field).and_then(Value::as_array).map_or(0, Vec::len);
        if count > *most {
            let says = format!("{count} are too many: at most {most}");
            return Err(Problems::one(format!("/{field}"), says).coded(ProblemCode::Count));
        }
    }
    if version < 2 {
        readings_become_a_list(&mut document)?;
    }
    if version < 3 {
        kit_grows(&mut document);
        setups_grow(&mut document);
    }
    if version < 4 {
        let setups = list(document.get_mut("setups"));
        setups.for_each(names_of_the_field_in_a_setup);
        names_of_the_field_in_a_kit(document.get_mut("kit"));
    }
    if version < 11 {
        kit_is_weighed(document.get_mut("kit"));
    }
    list(document.get_mut("setups")).for_each(|setup| setup_up(version, setup));
    document["format_version"] = json!(FORMAT_VERSION);
    Ok(document.to_string().into_bytes())
}

/// Until version 10 nothing was known of the weight of cameras, lenses and units. What came with Tolva gets its usual figure;
/// what is one's own waits to be weighed.
pub(super) fn kit_is_weighed(kit: Option<&mut Value>) {
    let starter = json!(Kit::starter());
    let Some(kit) = kit.and_then(Value::as_object_mut) else { return };
    for kind in ["cameras", "lenses", "flashes"] {
        for thing in list(kit.get_mut(kind)) {
            let same = |usual: &&Value| usual.get("id") == thing.get("id") && usual.get("name") == thing.get("name");
            let usual = starter[kind].as_array().and_then(|all| all.iter().find(same));
            if let Some(usual) = usual {
                fill(thing, &json!({ "weight_kg": usual["weight_kg"] }));
            }
        }
    }
}

/// A setup of version 4 or later, in a job or by itself, as this one's.
pub(super) fn setup_up(version: u32, setup: &mut Map<String, Value>) {
    if version < 10 {
        frames_become_shots(setup);
    }
}

/// Until version 9 a setup's shots were called frames, and the picture itself its main one.
fn frames_become_shots(setup: &mut Map<String, Value>) {
    let Some(mut shots) = setup.remove("frames") else { return };
    for shot in list(Some(&mut shots)).filter(|shot| shot.get("kind") == Some(&json!("main"))) {
        shot.insert("kind".to_owned(), json!("picture"));
    }
    setup.insert("shots".to_owned(), shots);
}

/// Version 1 kept one reading a region, with a mark where it was a guess. Version 2 keeps the guess and a list of
/// readings, each with how, where and when.
fn readings_become_a_list(document: &mut Value) -> Result<(), Problems> {
    let Some(setups) = document.get_mut("setups").and_then(Value::as_array_mut) else { return Ok(()) };
    for (s, setup) in setups.iter_mut().enumerate() {
        let Some(regions) = setup.get_mut("regions").and_then(Value::as_array_mut) else { continue };
        for (r, region) in regions.iter_mut().enumerate() {
            let Some(ambient) = region.get_mut("ambient") else { continue };
            let at = format!("/setups/{s}/regions/{r}/ambient");
            let old: AmbientOfVersion1 =
                read_json(ambient.to_string().as_bytes()).map_err(|problems| problems.within(&at))?;
            let AmbientOfVersion1 { reading, surface_stops, estimated } = old;
            let guess =
                (tolva_core::exposure::Reading::from(reading.clone()).ev100().0 - surface_stops).clamp(-10.0, 24.0);
            let readings =
                if estimated { json!([]) } else { json!([{ "reading": reading, "surface_stops": surface_stops }]) };
            let mut new = Map::new();
            // A document may hold a number nobody can compute with: it is refused where it stands, by the check.
            new.insert("guess_ev100".to_owned(), json!(if guess.is_finite() { guess } else { 12.0 }));
            new.insert("readings".to_owned(), readings);
            *ambient = Value::Object(new);
        }
    }
    Ok(())
}

/// Version 2 knew cameras with their lens's apertures, flashes and modifiers. Version 3 keeps lenses by themselves, and
/// more about each thing: what nobody had said is filled in with usual figures.
fn kit_grows(document: &mut Value) {
    let Some(kit) = document.get_mut("kit").and_then(Value::as_object_mut) else { return };
    let mut lenses = Vec::new();
    for camera in list(kit.get_mut("cameras")) {
        let aperture = camera.remove("aperture").unwrap_or_default();
        let (id, name) =
            (camera.get("id").cloned().unwrap_or_default(), camera.get("name").cloned().unwrap_or_default());
        lenses.push(json!({
            "id": lens_of(&id), "name": name, "shortest_mm": 8, "longest_mm": 1200,
            "widest_f_number": aperture["widest_f_number"], "smallest_f_number": aperture["smallest_f_number"],
            "stabilisation_stops": 0, "closest_focus_m": 0.4, "largest_magnification": 0.25, "pupil_ratio": 1,
        }));
        fill(
            camera,
            &json!({
                "sensor": Sensor::from(tolva_core::optics::Sensor::FULL_FRAME), "aperture_step": aperture["step"], "slow_sync_floor_s": 1.0 / 60.0,
                "stabilisation_stops": 0, "frames_per_s": 5,
            }),
        );
    }
    for flash in list(kit.get_mut("flashes")) {
        fill(flash, &json!({ "recycle_full_s": 2, "automatic": true, "high_speed_loss_stops": 4.0 / 3.0 }));
    }
    for modifier in list(kit.get_mut("modifiers")) {
        fill(modifier, &json!({ "exponent": 1, "weight_kg": 1, "area_m2": 0.5 }));
    }
    kit.insert("lenses".to_owned(), json!(lenses));
    let starter = Kit::starter();
    fill(
        kit,
        &json!({ "gels": starter.gels, "filters": starter.filters, "stands": starter.stands, "triggers": starter.triggers }),
    );
}

/// Version 2 kept one filter as a density and the focal length with the scene.
fn setups_grow(document: &mut Value) {
    let mut filters = Vec::new();
    for setup in list(document.get_mut("setups")) {
        let focal = setup.get_mut("scene").and_then(Value::as_object_mut).and_then(|scene| scene.remove("lens_mm"));
        let density = setup.remove("filter_stops").unwrap_or_default();
        if density.as_f64().is_some_and(|density| density != 0.0) {
            let id = format!("filter-{density}");
            fill(setup, &json!({ "filter_ids": [id] }));
            let filter = json!({ "id": id, "name": format!("{density}-stop filter"), "density_stops": density });
            if !filters.contains(&filter) {
                filters.push(filter);
            }
        }
        let slowest = setup.remove("slowest_shutter_s").unwrap_or_default();
        let speed = Speed::default();
        let mut speed = json!(speed);
        speed["slowest_shutter_s"] = slowest;
        let lens = lens_of(setup.get("camera_id").unwrap_or(&Value::Null));
        fill(
            setup,
            &json!({
                "lens_id": lens, "focal_length_mm": focal.unwrap_or(json!(85)), "camera_distance_m": 3, "speed": speed,
            }),
        );
    }
    if let Some(known) = document.pointer_mut("/kit/filters").and_then(Value::as_array_mut) {
        known.extend(filters);
    }
}

/// Version 4 calls things by the field's names.
fn names_of_the_field_in_a_setup(setup: &mut Map<String, Value>) {
    rename(setup, "circle", "circle_of_confusion");
    rename(setup, "automatic", "automatic_exposure");
    blend_of_version_4(setup.get_mut("blend"));
    let reason = setup.get_mut("white_balance").and_then(|balance| balance.get_mut("kelvin"));
    rename_in(reason, "why", "reason");
    rename_in(setup.get_mut("scene"), "behind", "background");
    for region in list(setup.get_mut("regions")) {
        revalue(region, "role", "behind", "background");
        let readings = region.get_mut("ambient").and_then(|ambient| ambient.get_mut("readings"));
        list(readings).for_each(|reading| rename(reading, "how", "method"));
    }
    for light in list(setup.get_mut("lights")) {
        revalue(light, "control", "automatic", "ttl");
        rename(light, "turned_deg", "feather_deg");
        rename(light, "reaches", "spill");
    }
}

/// A part of a setup as version 3 wrote it, such as what a new one begins with: brought to this version.
pub fn renew_part_of_a_setup(part: &mut Value) {
    if let Some(part) = part.as_object_mut() {
        names_of_the_field_in_a_setup(part);
        revalue(part, "control", "automatic", "ttl");
    }
}

/// The same for a blend.
fn blend_of_version_4(blend: Option<&mut Value>) {
    for numbers in blend.and_then(Value::as_object_mut).into_iter().flat_map(Map::values_mut) {
        rename_in(Some(numbers), "behind_stops", "background_stops");
    }
}

/// The same for a kit.
pub(super) fn names_of_the_field_in_a_kit(kit: Option<&mut Value>) {
    let flashes = kit.and_then(|kit| kit.get_mut("flashes"));
    list(flashes).for_each(|flash| rename(flash, "automatic", "ttl"));
}

fn rename_in(object: Option<&mut Value>, from: &str, to: &str) {
    if let Some(object) = object.and_then(Value::as_object_mut) {
        rename(object, from, to);
    }
}

/// A field under another name, in the same place.
fn rename(object: &mut Map<String, Value>, from: &str, to: &str) {
    if object.contains_key(from) && !object.contains_key(to) {
        let fields = std::mem::take(object).into_iter();
        *object = fields.map(|(field, value)| (if field == from { to.to_owned() } else { field }, value)).collect();
    }
}

/// A word under another name.
fn revalue(object: &mut Map<String, Value>, field: &str, from: &str, to: &str) {
    if let Some(value) = object.get_mut(field).filter(|value| *value == from) {
        *value = json!(to);
    }
}

/// The lens a camera of version 2 carried.
fn lens_of(camera_id: &Value) -> String {
    let id: String = camera_id.as_str().unwrap_or_default().chars().take(55).collect();
    format!("{id}-lens")
}

/// The objects of a list; whatever else stands there is left for the reading to refuse.
fn list(value: Option<&mut Value>) -> impl Iterator<Item = &mut Map<String, Value>> {
    value.and_then(Value::as_array_mut).into_iter().flatten().filter_map(Value::as_object_mut)
}

/// Puts in what is not there.
fn fill(object: &mut Map<String, Value>, usual: &Value) {
    for (field, value) in usual.as_object().into_iter().flatten() {
        object.entry(field.clone()).or_insert_with(|| value.clone());
    }
}

#[derive(serde::Deserialize)]
#[serde(deny_unknown_fields)]
struct AmbientOfVersion1 {
    reading: Reading,
    #[serde(default)]
    surface_stops: f64,
    #[serde(default)]
    estimated: bool,
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Job;

    use crate::tests::set;
    use rstest::rstest;

    /// A job as Tolva wrote it while its format was version 1.
    const VERSION_1: &str = include_str!("../tests/data/job-version-1.json");

    #[test]
    fn a_job_of_version_1_is_read_and_means_the_same() {
        let job = Job::from_json(VERSION_1.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        let doorway = &job.setups[0];
        assert!(doorway.scene.is_none());
        let ev = |index: usize| {
            tolva_core::exposure::Ambient::from(doorway.regions[index].ambient.clone())
                .last()
                .map(|taken| taken.ev100().0)
        };
        assert_eq!([ev(0), ev(1), ev(2)], [Some(12.6), Some(11.3), Some(10.3)]);
        assert_eq!(set(doorway, &job.kit).0, "1/200, f/9, ISO 100");
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// A job as Tolva wrote it while its format was version 2.
    const VERSION_2: &str = include_str!("../tests/data/job-version-2.json");

    #[test]
    fn a_job_of_version_2_is_read_and_means_the_same() {
        let job = Job::from_json(VERSION_2.as_bytes()).expect("a job");
        assert_eq!((job.format_version, job.kit.lenses.len()), (FORMAT_VERSION, job.kit.cameras.len()));
        let doorway = &job.setups[0];
        assert_eq!(doorway.lens_id, format!("{}-lens", doorway.camera_id));
        assert_eq!(set(doorway, &job.kit), ("1/200, f/9, ISO 100".to_owned(), Some(-3.0)));
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 3: it means what it meant.
    #[rstest]
    #[case(include_str!("../tests/data/version-3/bindery-evening.json"))]
    #[case(include_str!("../tests/data/version-3/foundry-band.json"))]
    #[case(include_str!("../tests/data/version-3/harvest-supper.json"))]
    #[case(include_str!("../tests/data/version-3/ropeworks-open-day.json"))]
    fn a_job_of_version_3_is_read_and_means_the_same(#[case] before: &str) {
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        let before: Value = serde_json::from_str(before).expect("JSON");
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
        for (index, setup) in job.setups.iter().enumerate() {
            let old = &before["setups"][index];
            assert_eq!(setup.lights.len(), old["lights"].as_array().map_or(0, Vec::len));
            for (light, old) in setup.lights.iter().zip(old["lights"].as_array().into_iter().flatten()) {
                assert!((light.feather_deg - old["turned_deg"].as_f64().unwrap_or_default()).abs() < 1e-12);
                assert_eq!(light.spill.len(), old["reaches"].as_array().map_or(0, Vec::len));
            }
        }
    }

    /// The demo data as Tolva wrote it while its format was version 10: nothing ticked off, nothing weighed. What came with
    /// Tolva gets its usual weight, what is one's own does not.
    #[test]
    fn a_job_of_version_10_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-10/weir-lane.json");
        let mut before: Value = serde_json::from_str(before).expect("JSON");
        before["setups"][0]["shots"] = json!([{ "id": "a", "name": "It", "frames": 3 }]);
        before["kit"]["cameras"][1]["name"] = json!("My own");
        let job = Job::from_json(before.to_string().as_bytes()).expect("a job");
        assert_eq!((job.format_version, job.setups[0].shots[0].taken), (FORMAT_VERSION, 0));
        assert_eq!([job.kit.cameras[0].weight_kg, job.kit.cameras[1].weight_kg], [Some(0.7), None]);
        assert_eq!(job.kit.flashes, Kit::starter().flashes);
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 9: a kit without meters.
    #[test]
    fn a_job_of_version_9_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-9/weir-lane.json");
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!((job.format_version, job.kit.meters.len()), (FORMAT_VERSION, 0));
        let readings = job.setups.iter().flat_map(|setup| &setup.regions).flat_map(|region| &region.ambient.readings);
        assert!(readings.into_iter().all(|taken| taken.meter_id.is_none()));
        // A list of frames became one of shots.
        let mut before: Value = serde_json::from_str(before).expect("JSON");
        before["setups"][0]["frames"] = json!([{ "id": "a", "name": "It", "kind": "main" }]);
        let shot = &Job::from_json(before.to_string().as_bytes()).expect("a job").setups[0].shots[0];
        assert_eq!((shot.name.as_str(), shot.kind, shot.frames), ("It", crate::ShotKind::Picture, 1));
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 8: a kit that frames have taught nothing of.
    #[test]
    fn a_job_of_version_8_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-8/weir-lane.json");
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        assert!(job.kit.cameras.iter().all(|camera| camera.tuned.is_empty() && camera.curve.is_empty()));
        assert!(job.kit.flashes.iter().all(|flash| flash.tuned.is_empty()));
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 7: nothing learnt from frames.
    #[test]
    fn a_job_of_version_7_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-7/weir-lane.json");
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        assert!(job.setups.iter().all(|setup| setup.learnt.is_none()));
        let old: Value = serde_json::from_str(before).expect("JSON");
        let lights = |setup: &Value| setup["lights"].as_array().map_or(0, Vec::len);
        let before: Vec<usize> = old["setups"].as_array().expect("setups").iter().map(lights).collect();
        assert_eq!(before, job.setups.iter().map(|setup| setup.lights.len()).collect::<Vec<_>>());
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 6: people without skin or clothes.
    #[test]
    fn a_job_of_version_6_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-6/weir-lane.json");
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        let people = job.setups.iter().filter_map(|setup| setup.set.as_ref()).flat_map(|set| &set.people);
        let mut count = 0;
        for person in people {
            assert_eq!((person.skin, person.clothes), (crate::Skin::Medium, crate::Clothes::Middling));
            count += 1;
        }
        assert!(count > 2);
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 5: sets without panes, kits without booms.
    #[test]
    fn a_job_of_version_5_is_read_and_means_the_same() {
        let before = include_str!("../tests/data/version-5/guild-days.json");
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        let before: Value = serde_json::from_str(before).expect("JSON");
        for (setup, old) in job.setups.iter().zip(before["setups"].as_array().expect("setups")) {
            let people = |set: &crate::Set| set.people.len();
            assert_eq!(setup.set.as_ref().map(people), old["set"]["people"].as_array().map(Vec::len));
            assert!(setup.lights.iter().all(|light| light.boom_id.is_none()));
        }
        assert!(
            job.kit.booms.is_empty() && job.kit.stands.len() == before["kit"]["stands"].as_array().map_or(0, Vec::len)
        );
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    /// The demo data as Tolva wrote it while its format was version 4: nobody has used a set yet, and what was typed
    /// stays.
    #[rstest]
    #[case(include_str!("../tests/data/version-4/bindery-evening.json"))]
    #[case(include_str!("../tests/data/version-4/ropeworks-open-day.json"))]
    fn a_job_of_version_4_is_read_and_means_the_same(#[case] before: &str) {
        let job = Job::from_json(before.as_bytes()).expect("a job");
        assert_eq!(job.format_version, FORMAT_VERSION);
        let before: Value = serde_json::from_str(before).expect("JSON");
        for (setup, old) in job.setups.iter().zip(before["setups"].as_array().expect("setups")) {
            assert!(setup.set.is_none() && setup.lights.iter().all(|light| light.place.is_none()));
            for (light, old) in setup.lights.iter().zip(old["lights"].as_array().expect("lights")) {
                assert_eq!(light.spill.len(), old["spill"].as_array().map_or(0, Vec::len));
            }
        }
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
    }

    #[test]
    fn a_filter_of_version_2_goes_into_the_kit() {
        let dense = VERSION_2.replacen("\"filter_stops\": 0.0", "\"filter_stops\": 4.5", 1);
        let job = Job::from_json(dense.as_bytes()).expect("a job");
        let id = &job.setups[0].filter_ids[0];
        let filter = job.kit.filters.iter().find(|filter| &filter.id == id).expect("in the kit");
        assert!((filter.density_stops - 4.5).abs() < 1e-12);
        assert!(job.setups[1].filter_ids.is_empty());
    }

    #[test]
    fn a_guess_stays_a_guess() {
        let guess = VERSION_1.replacen("\"estimated\": false", "\"estimated\": true", 1);
        let job = Job::from_json(guess.as_bytes()).expect("a job");
        assert!(job.setups[0].regions[0].ambient.readings.is_empty());
        assert!((job.setups[0].regions[0].ambient.guess_ev100 - 12.6).abs() < 1e-12);
    }

    #[rstest]
    #[case("\"estimated\": false", "\"estimated\": 3", "/setups/0/regions/0/ambient/estimated")]
    #[case("\"ev100\": 12.6", "\"ev100\": 99", "/setups/0/regions/0/ambient/readings/0/reading/ev/ev100")]
    #[case("\"surface_stops\"", "\"depth\"", "/setups/0/regions/0/ambient/depth")]
    #[case("\"notes\"", "\"colour\"", "/colour")]
    fn what_was_wrong_is_named_where_it_stands(#[case] good: &str, #[case] bad: &str, #[case] pointer: &str) {
        let wrong = Job::from_json(VERSION_1.replacen(good, bad, 1).as_bytes()).expect_err("wrong");
        assert!(wrong.0.iter().any(|problem| problem.pointer == pointer), "{wrong}");
    }
}
