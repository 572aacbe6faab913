//! Documents of older versions, brought to this one. Each step changes the JSON of one version into the next, so that a
//! wrong field is still named by its path there.

use serde_json::{Map, Value, json};

use super::{FORMAT_VERSION, Job, Problems, read_json};

/// A job of an older version.
pub(super) fn from(version: u32, json: &[u8]) -> Result<Job, Problems> {
    let mut document: Value = read_json(json)?;
    if version < 2 {
        readings_become_a_list(&mut document)?;
    }
    document["format_version"] = json!(FORMAT_VERSION);
    read_json(document.to_string().as_bytes())
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
            let guess = (reading.ev100().0 - surface_stops).clamp(-10.0, 24.0);
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

#[derive(serde::Deserialize)]
#[serde(deny_unknown_fields)]
struct AmbientOfVersion1 {
    reading: crate::exposure::Reading,
    #[serde(default)]
    surface_stops: f64,
    #[serde(default)]
    estimated: bool,
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// A job as Tolva wrote it while its format was version 1.
    const VERSION_1: &str = include_str!("../../tests/data/job-version-1.json");

    #[test]
    fn a_job_of_version_1_is_read_and_means_the_same() {
        let job = Job::from_json(VERSION_1.as_bytes()).expect("a job");
        assert_eq!(job.format_version, 2);
        let doorway = &job.setups[0];
        assert!(doorway.scene.is_none());
        let ev = |index: usize| doorway.regions[index].ambient.last().map(|taken| taken.ev100().0);
        assert_eq!([ev(0), ev(1), ev(2)], [Some(12.6), Some(11.3), Some(10.3)]);
        let plan = crate::blend::plan(doorway, &job.kit, crate::blend::Show::default()).expect("a plan");
        let card = plan.dial_card;
        assert_eq!([card.shutter.label, card.aperture.label, card.iso.label], ["1/200", "f/9", "ISO 100"]);
        assert_eq!(Job::from_json(job.to_json().as_bytes()).expect("again"), job);
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
