//! The catalogue of fields: the range and unit of every number of the format, read off its schema.

use std::collections::BTreeMap;

use serde::Serialize;
use serde_json::Value;

use crate::job::json_schema;
use crate::ranged::unit_of;

/// What a number may be.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct FieldRange {
    /// The least.
    pub least: f64,
    /// The most.
    pub most: f64,
    /// The unit of both; empty where it has none.
    pub unit: &'static str,
}

/// Every number that has a range, by its type and name: `Gel.shift_mired`, `LightWish.fill.ratio_stops`.
///
/// ```
/// let ranges = tolva_format::field_ranges();
/// let shift = &ranges["Gel.shift_mired"];
/// assert_eq!((shift.least, shift.most, shift.unit), (-500.0, 500.0, "mired"));
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
        into.insert(path.to_owned(), FieldRange { least, most, unit: unit_of(field) });
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
