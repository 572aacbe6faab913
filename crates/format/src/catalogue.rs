//! The catalogue of fields: what each number of the format is called, how it is written, its range, unit, step and default,
//! read off its schema; and what each kind of a thing begins with.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::LazyLock;

use serde::Serialize;
use serde_json::{Map, Value, json};

use crate::field_names::FIELD_NAMES;
use crate::job::json_schema;
use crate::meant::Meant;
use crate::unit::unit_of;

/// A number of the format.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct Field {
    /// What it is called on a screen, with its unit where its label has none.
    pub name: &'static str,
    /// How it is read and written.
    pub r#as: Meant,
    /// What helps to say it; empty where nothing does.
    #[serde(skip_serializing_if = "str::is_empty")]
    pub hint: &'static str,
    /// The least.
    pub least: f64,
    /// The most.
    pub most: f64,
    /// The unit of both; empty where it has none.
    pub unit: &'static str,
    /// Whether it is a whole number.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub whole: bool,
    /// What it is changed by in one step, where it is stepped at all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub step: Option<f64>,
    /// What it is where nobody has said it, or what it begins with.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub default: Option<f64>,
}

/// The whole catalogue.
#[derive(Debug, Serialize)]
pub struct Catalogue {
    /// Every number, by its type and name: `Gel.shift_mired`, `LightWish.fill.ratio_stops`.
    pub fields: BTreeMap<String, Field>,
    /// How many things a list may hold at most, by its type and name: `Setup.lights`.
    pub lists: BTreeMap<String, u64>,
    /// What each kind of what has kinds begins with, by type and kind; and what may be left out, by type and field.
    pub kinds: BTreeMap<String, BTreeMap<String, Value>>,
    #[serde(skip)]
    schema: Value,
}

static CATALOGUE: LazyLock<Catalogue> = LazyLock::new(|| {
    let schema = json_schema();
    let mut catalogue = Catalogue { fields: BTreeMap::new(), lists: BTreeMap::new(), kinds: BTreeMap::new(), schema };
    let types = catalogue.schema["$defs"].as_object().into_iter().flatten();
    for (name, of) in types {
        gather(name, of, &mut catalogue.fields);
        for (field, one) in of["properties"].as_object().into_iter().flatten() {
            if let Some(most) = one["maxItems"].as_u64() {
                catalogue.lists.insert(format!("{name}.{field}"), most);
            }
        }
        let properties = of["properties"].as_object().into_iter().flatten();
        let may_be_left_out = properties.filter(|(_, one)| variants(one).any(|of| of["type"] == "null"));
        let begun = may_be_left_out.filter_map(|(field, one)| Some((field.clone(), catalogue.begun(one)?)));
        let kinds = variants(of).filter_map(|one| catalogue.begun_kind(one)).chain(begun);
        let kinds: BTreeMap<_, _> = kinds.collect();
        if !kinds.is_empty() {
            catalogue.kinds.insert(name.clone(), kinds);
        }
    }
    catalogue
});

/// The catalogue of fields.
///
/// ```
/// let fields = &tolva_format::catalogue().fields;
/// let shift = &fields["Gel.shift_mired"];
/// assert_eq!((shift.least, shift.most, shift.unit), (-500.0, 500.0, "mired"));
/// let feather = &fields["Light.feather_deg"];
/// assert_eq!((feather.name, feather.step, feather.default), ("Turned away, degrees", Some(5.0), Some(0.0)));
/// ```
pub fn catalogue() -> &'static Catalogue {
    &CATALOGUE
}

impl Catalogue {
    /// The numbers that stand in no setup: those of the kit, and of a job's days. Whoever works on a setup needs none of
    /// them until a thing of the kit is opened.
    ///
    /// ```
    /// let beside = tolva_format::catalogue().beside_setups();
    /// assert!(beside.contains_key("Gel.shift_mired") && !beside.contains_key("Light.distance_m"));
    /// ```
    pub fn beside_setups(&self) -> BTreeMap<&str, &Field> {
        let (mut reached, mut next) = (BTreeSet::new(), vec!["Setup"]);
        while let Some(name) = next.pop() {
            if reached.insert(name) {
                refers(&self.schema["$defs"][name], &mut next);
            }
        }
        let stands_beside = |path: &str| !reached.contains(path.split('.').next().unwrap_or_default());
        let fields = self.fields.iter().map(|(path, field)| (path.as_str(), field));
        fields.filter(|(path, _)| stands_beside(path)).collect()
    }

    /// The number that stands at a JSON pointer into a document of a type: `Setup` and `/lights/0/distance_m`.
    ///
    /// ```
    /// let (path, field) = tolva_format::catalogue().at("Setup", "/blend/lift/background_stops").unwrap();
    /// assert_eq!((path.as_str(), field.name), ("Blend.lift.background_stops", "Behind, stops"));
    /// ```
    pub fn at(&self, of: &str, pointer: &str) -> Option<(String, &Field)> {
        let (path, _) = self.walk(of, pointer)?;
        self.fields.get(&path).map(|field| (path, field))
    }

    /// The path and the schema of what stands at a pointer.
    fn walk(&self, of: &str, pointer: &str) -> Option<(String, &Value)> {
        let mut path = of.to_owned();
        let mut here = self.schema["$defs"].get(of).unwrap_or(&self.schema);
        for step in pointer.split('/').skip(1) {
            (path, here) = self.inside(path, here, step)?;
        }
        Some((path, here))
    }

    fn inside<'a>(&'a self, path: String, here: &'a Value, step: &str) -> Option<(String, &'a Value)> {
        if let Some(name) = named(here) {
            return self.inside(name.to_owned(), self.schema["$defs"].get(name)?, step);
        }
        if let (Some(items), Ok(_)) = (here.get("items"), step.parse::<usize>()) {
            return Some((path, items));
        }
        let holder = variants(here).find(|one| one["properties"].get(step).is_some());
        let next = holder.unwrap_or(here)["properties"].get(step)?;
        let path = format!("{path}.{step}");
        match named(next) {
            Some(name) => Some((name.to_owned(), self.schema["$defs"].get(name)?)),
            None => Some((path, next)),
        }
    }

    /// What something of the type at a pointer begins with; nothing where it has no sensible beginning.
    pub fn begun_at(&self, of: &str, pointer: &str) -> Option<Value> {
        self.begun(self.walk(of, pointer)?.1)
    }

    /// What a value of a schema begins with.
    fn begun(&self, of: &Value) -> Option<Value> {
        if let Some(name) = named(of) {
            return self.begun(self.schema["$defs"].get(name)?);
        }
        if let Some(default) = of.get("default").or_else(|| of["enum"].get(0)) {
            return Some(default.clone());
        }
        if let Some(first) = variants(of).find_map(|one| self.begun_kind(one)) {
            return Some(first.1);
        }
        match of["type"].as_str()? {
            "boolean" => Some(json!(false)),
            "string" if of["minLength"].is_null() => Some(json!("")),
            "array" if of["minItems"].as_u64() == Some(1) => Some(json!([self.begun(&of["items"])?])),
            "array" => Some(json!([])),
            "object" => {
                let required = of["required"].as_array().into_iter().flatten().filter_map(Value::as_str);
                let begun = required.map(|field| Some((field.to_owned(), self.begun(&of["properties"][field])?)));
                begun.collect::<Option<Map<_, _>>>().map(Value::Object)
            }
            _ => None,
        }
    }

    /// The name of a variant, and what it begins with.
    fn begun_kind(&self, variant: &Value) -> Option<(String, Value)> {
        if let Some(name) = variant["enum"].get(0).and_then(Value::as_str) {
            return Some((name.to_owned(), json!(name)));
        }
        let name = variant["required"].get(0)?.as_str()?;
        Some((name.to_owned(), json!({ name: self.begun(&variant["properties"][name])? })))
    }

    /// Where a pointer leads, as people say it: `setup 1, light 2, Distance to the subject`. Nothing where it leads to no
    /// field that has a name.
    pub fn said(&self, pointer: &str) -> Option<String> {
        let steps: Vec<&str> = pointer.split('/').skip(1).collect();
        // A document stands by itself, or as a part of what was sent.
        let (root, inside) = match *steps.first()? {
            "job" => ("Job", pointer.strip_prefix("/job")?),
            "setup" => ("Setup", pointer.strip_prefix("/setup")?),
            "kit" if self.walk("Kit", pointer.strip_prefix("/kit")?).is_some() => {
                ("Kit", pointer.strip_prefix("/kit")?)
            }
            _ => ("Job", pointer),
        };
        let (_, field) = self.at(root, inside)?;
        let mut said: Vec<String> = Vec::new();
        for pair in steps.windows(2) {
            if let (Some(thing), Ok(index)) = (pair[0].strip_suffix('s'), pair[1].parse::<usize>()) {
                said.push(format!("{} {}", if thing.ends_with("lense") { "lens" } else { thing }, index + 1));
            }
        }
        said.push(field.name.to_owned());
        Some(said.join(", "))
    }
}

/// The name of the type a schema refers to, also where nothing may stand instead.
fn named(of: &Value) -> Option<&str> {
    let refers = |one: &'_ Value| one["$ref"].as_str().map(str::len);
    let to =
        if refers(of).is_some() { of } else { of["oneOf"].as_array()?.iter().find(|one| refers(one).is_some())? };
    to["$ref"].as_str()?.rsplit('/').next()
}

/// All types a schema refers to.
fn refers<'a>(of: &'a Value, to: &mut Vec<&'a str>) {
    match of {
        Value::Array(all) => all.iter().for_each(|one| refers(one, to)),
        Value::Object(all) => {
            to.extend(all.get("$ref").and_then(Value::as_str).and_then(|link| link.rsplit('/').next()));
            all.values().for_each(|one| refers(one, to));
        }
        _ => {}
    }
}

fn variants(of: &Value) -> impl Iterator<Item = &Value> {
    of["oneOf"].as_array().into_iter().flatten()
}

fn gather(path: &str, of: &Value, into: &mut BTreeMap<String, Field>) {
    if let (Some(least), Some(most)) = (of["minimum"].as_f64(), of["maximum"].as_f64()) {
        let last = path.rsplit('.').next().unwrap_or_default();
        let known = FIELD_NAMES.binary_search_by(|one| one.0.cmp(path)).ok().map(|index| FIELD_NAMES[index]);
        let (_, r#as, name, hint) = known.unwrap_or(("", Meant::Number, "", ""));
        let whole = of["type"] == "integer";
        let (step, default) = (of["x-step"].as_f64(), of["default"].as_f64());
        into.insert(
            path.to_owned(),
            Field { name, r#as, hint, least, most, unit: unit_of(last), whole, step, default },
        );
    }
    for (field, value) in of["properties"].as_object().into_iter().flatten() {
        gather(&format!("{path}.{field}"), value, into);
    }
    for variant in variants(of) {
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
        assert_eq!(catalogue().fields.len(), all.len());
    }

    /// Every number has a name of its own, and every name a number.
    #[test]
    fn every_number_has_a_name() {
        assert!(FIELD_NAMES.is_sorted_by_key(|one| one.0));
        let named: Vec<&str> = FIELD_NAMES.iter().map(|one| one.0).collect();
        let there: Vec<&str> = catalogue().fields.keys().map(String::as_str).collect();
        assert_eq!(named, there);
    }

    /// What a kind begins with can be read, and is good.
    #[rstest]
    #[case::depth("Depth", read::<crate::setup::Depth>)]
    #[case::wish("LightWish", read::<crate::setup::LightWish>)]
    #[case::surroundings("Surroundings", read::<crate::scene::Surroundings>)]
    #[case::height("ObstacleHeight", read::<crate::scene::ObstacleHeight>)]
    #[case::output("FlashOutput", read::<crate::kit::FlashOutput>)]
    #[case::surface("ModifierSurface", read::<crate::kit::ModifierSurface>)]
    #[case::movement("Movement", read::<crate::leaf::Movement>)]
    #[case::circle("CircleOfConfusion", read::<crate::leaf::CircleOfConfusion>)]
    fn every_kind_begins(#[case] called: &str, #[case] read: fn(&Value) -> Value) {
        let kinds = &catalogue().kinds[called];
        assert_eq!(kinds.len(), variants(&json_schema()["$defs"][called]).count());
        for (kind, begun) in kinds {
            assert!(read(begun).to_string().contains(kind.as_str()), "{kind}");
        }
    }

    #[test]
    fn lists_have_their_ends() {
        let lists = &catalogue().lists;
        assert_eq!((lists["Setup.lights"], lists["Setup.regions"], lists["Scene.horizon"]), (8, 12, 24));
    }

    #[rstest]
    #[case("Setup", "/lights/0/distance_m", Some("Light.distance_m"))]
    #[case("Setup", "/regions/2/ambient/readings/0/surface_stops", Some("MeterReading.surface_stops"))]
    #[case("Setup", "/lights/0/wish/fill/ratio_stops", Some("LightWish.fill.ratio_stops"))]
    #[case("Setup", "/pace/every_s", Some("Pace.every_s"))]
    #[case("Kit", "/cameras/0/iso/base_iso", Some("IsoRange.base_iso"))]
    #[case("Kit", "/flashes/3/output/guide_number_zoom/table/1/zoom_mm", Some("ZoomGuideNumber.zoom_mm"))]
    #[case("Setup", "/name", None)]
    #[case("Setup", "/nothing/there", None)]
    fn what_stands_at_a_pointer(#[case] of: &str, #[case] pointer: &str, #[case] path: Option<&str>) {
        assert_eq!(catalogue().at(of, pointer).map(|(path, _)| path).as_deref(), path);
    }

    #[rstest]
    #[case("/setups/0/lights/1/distance_m", "setup 1, light 2, Distance to the subject")]
    #[case("/setup/blend/lift/subject_stops", "Subject, stops")]
    #[case("/kit/lenses/0/shortest_mm", "lens 1, Shortest focal length, mm")]
    #[case("/job/kit/cameras/2/sync_rated_s", "camera 3, Rated sync")]
    fn fields_as_a_screen_calls_them(#[case] pointer: &str, #[case] said: &str) {
        assert_eq!(catalogue().said(pointer).as_deref(), Some(said));
    }

    #[test]
    fn a_default_lies_in_its_range() {
        let ranges = &catalogue().fields;
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
        for (path, range) in &catalogue().fields {
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
        let ranges = &catalogue().fields;
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
        let ranges = &catalogue().fields;
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
