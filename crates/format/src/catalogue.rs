//! The catalogue of fields: range, unit, step and default of every number of the format, read off its schema.

use std::collections::BTreeMap;

use serde::Serialize;
use serde_json::Value;

use crate::job::json_schema;
use crate::unit::unit_of;

/// What a number may be.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct FieldRange {
    /// The least.
    pub least: f64,
    /// The most.
    pub most: f64,
    /// The unit of both; empty where it has none.
    pub unit: &'static str,
    /// What it is changed by in one step, where it is stepped at all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<f64>,
    /// What it is where nobody has said it, or what it begins with.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub default: Option<f64>,
}

/// Every number that has a range, by its type and name: `Gel.shift_mired`, `LightWish.fill.ratio_stops`.
///
/// ```
/// let ranges = tolva_format::field_ranges();
/// let shift = &ranges["Gel.shift_mired"];
/// assert_eq!((shift.least, shift.most, shift.unit), (-500.0, 500.0, "mired"));
/// let feather = &ranges["Light.feather_deg"];
/// assert_eq!((feather.step, feather.default), (Some(5.0), Some(0.0)));
/// ```
pub fn field_ranges() -> BTreeMap<String, FieldRange> {
    let mut all = BTreeMap::new();
    let schema = json_schema();
    for (name, of) in schema["$defs"].as_object().into_iter().flatten() {
        gather(name, of, &mut all);
    }
    all
}

fn gather(path: &str, of: &Value, into: &mut BTreeMap<String, FieldRange>) {
    if let (Some(least), Some(most)) = (of["minimum"].as_f64(), of["maximum"].as_f64()) {
        let field = path.rsplit('.').next().unwrap_or_default();
        let (step, default) = (of["x-step"].as_f64(), of["default"].as_f64());
        into.insert(path.to_owned(), FieldRange { least, most, unit: unit_of(field), step, default });
    }
    for (field, value) in of["properties"].as_object().into_iter().flatten() {
        gather(&format!("{path}.{field}"), value, into);
    }
    for variant in of["oneOf"].as_array().into_iter().flatten() {
        gather(path, variant, into);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// The path of every number of the format, and whether a range is declared for it.
    fn numbers(path: &str, of: &Value, into: &mut Vec<(String, bool)>) {
        let kind = &of["type"];
        let is = |name: &str| kind == name || kind.as_array().is_some_and(|kinds| kinds.iter().any(|one| one == name));
        if is("number") || is("integer") {
            into.push((path.to_owned(), of["minimum"].is_number() && of["maximum"].is_number()));
        }
        for (field, value) in of["properties"].as_object().into_iter().flatten() {
            numbers(&format!("{path}.{field}"), value, into);
        }
        for variant in of["oneOf"].as_array().into_iter().flatten() {
            numbers(path, variant, into);
        }
    }

    #[test]
    fn every_number_has_a_range() {
        let schema = json_schema();
        let mut all = Vec::new();
        for (name, of) in schema["$defs"].as_object().expect("types") {
            numbers(name, of, &mut all);
        }
        let without: Vec<&String> = all.iter().filter(|(_, has)| !has).map(|(path, _)| path).collect();
        assert!(all.len() > 90 && without.is_empty(), "{without:?}");
        assert_eq!(field_ranges().len(), all.len());
    }

    #[test]
    fn a_default_lies_in_its_range() {
        let ranges = field_ranges();
        let with: Vec<_> = ranges.iter().filter_map(|(path, one)| Some((path, one, one.default?))).collect();
        assert!(with.len() > 30);
        for (path, range, default) in with {
            assert!((range.least..=range.most).contains(&default), "{path}: {default}");
        }
        assert!(ranges.values().all(|one| one.step.is_none_or(|step| step > 0.0 && step < one.most - one.least)));
    }

    /// A field that may be left out and has a default is read as that default.
    #[rstest]
    #[case::light("Light", serde_json::json!({ "id": "A", "flash_id": "small" }), read::<crate::setup::Light>)]
    #[case::site("Site", serde_json::json!({ "latitude_deg": 1, "longitude_deg": 1, "time_zone": "UTC" }), read::<crate::scene::Site>)]
    #[case::lamps("Artificial", serde_json::json!({ "light": "home" }), read::<crate::scene::Artificial>)]
    #[case::flash("Flash", serde_json::json!({
        "id": "a", "name": "a", "ttl": false, "recycle_full_s": 1, "power": { "lowest_stops": -7, "step": "third" },
        "output": { "continuous": { "lux_at_1_m": 100 } },
    }), read::<crate::kit::Flash>)]
    #[case::reading("MeterReading", serde_json::json!({ "reading": { "ev": { "ev100": 10 } } }), read::<crate::leaf::MeterReading>)]
    #[case::camera("CameraReading", serde_json::json!({ "shutter_s": 0.01, "f_number": 8, "iso": 100 }), read::<crate::leaf::CameraReading>)]
    fn a_default_is_what_a_field_left_out_is_read_as(
        #[case] called: &str,
        #[case] least: Value,
        #[case] read: fn(&Value) -> Value,
    ) {
        let whole = read(&least);
        let mut seen = 0;
        for (path, range) in field_ranges() {
            let Some(field) = path.strip_prefix(called).and_then(|rest| rest.strip_prefix('.')) else { continue };
            if let (Some(default), true) = (range.default, least[field].is_null()) {
                // Nothing is written of what is zero.
                assert_eq!(whole[field].as_f64().or(Some(0.0)), Some(default), "{path}");
                seen += 1;
            }
        }
        assert!(seen > 0);
    }

    fn read<T: serde::de::DeserializeOwned + Serialize>(of: &Value) -> Value {
        let whole: T = serde_json::from_value(of.clone()).expect("the least it takes");
        serde_json::to_value(whole).expect("it can be written")
    }

    /// What the planner holds a dragged mark to is what a document may say.
    #[test]
    fn a_blend_is_held_to_its_ranges() {
        let ranges = field_ranges();
        for blend in tolva_planner::setup::Blend::OFFERED {
            for number in blend.numbers() {
                let range = &ranges[&format!("Blend.{}.{}", blend.kind(), number.field)];
                assert_eq!((range.least, range.most), (number.least, number.most), "{blend:?} {}", number.field);
            }
        }
    }

    /// What the rules allow a typed number is what a document may hold.
    #[test]
    fn typed_numbers_have_the_ranges_of_the_rules() {
        use tolva_core::colour::{KELVIN, TINT};
        use tolva_core::exposure::ranges as reading;
        use tolva_core::scale::parsing::range;
        let ranges = field_ranges();
        for (path, rule) in [
            ("Fixed.shutter_s", range::SHUTTER_S),
            ("Fixed.f_number", range::F_NUMBER),
            ("Fixed.iso", range::ISO),
            ("EvReading.ev100", reading::EV),
            ("LuxReading.illuminance_lux", reading::LUX),
            ("MeterReading.surface_stops", reading::SURFACE),
            ("CameraReading.compensation_stops", reading::COMPENSATION),
            ("Flash.kelvin", KELVIN),
            ("Flash.tint_duv", TINT),
        ] {
            assert_eq!((ranges[path].least, ranges[path].most), (*rule.start(), *rule.end()), "{path}");
        }
    }
}
