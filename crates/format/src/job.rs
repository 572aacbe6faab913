//! A job: the document that is exported and kept.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::kit::Kit;
use crate::migrate;
use crate::problems::Problems;
use crate::read::read_json;
use crate::schedule::{JobDay, Packed};
use crate::setup::Setup;
use crate::version::{FORMAT, FORMAT_VERSION, version};

/// One job: a booking with a place, a date and one or more setups, and the kit they use.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Job {
    /// Always `tolva-job`.
    #[schema(example = "tolva-job")]
    pub format: String,
    /// The version of the format: 11.
    #[schema(minimum = 11, maximum = 11)]
    pub format_version: u32,
    /// What the job is called. 1 to 120 characters.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// Who it is for. May be empty.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub client: String,
    /// Where it is, in words. May be empty.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub place: String,
    /// The day, as `2026-08-29`; empty where it is not known.
    #[serde(default)]
    #[schema(max_length = 10)]
    pub date: String,
    /// Anything else. May be empty.
    #[serde(default)]
    #[schema(max_length = 4000)]
    pub notes: String,
    /// What it asks of its days; left out where nobody has said anything of it.
    #[serde(default, skip_serializing_if = "JobDay::is_usual")]
    pub day: JobDay,
    /// What is ticked off of what it takes along; left out where nothing is.
    #[serde(default, skip_serializing_if = "Packed::is_nothing")]
    pub packed: Packed,
    /// The things the setups refer to, as they were when the job was last saved: so that the file is whole by itself.
    pub kit: Kit,
    /// The lighting arrangements, in the order they are shot. At most 60.
    #[schema(max_items = 60)]
    pub setups: Vec<Setup>,
}

impl Job {
    /// A new job with the generic starter kit and one setup.
    pub fn new(name: &str) -> Self {
        let kit = Kit::starter();
        let mut setup = Setup::new("setup-1", &kit);
        "First setup".clone_into(&mut setup.name);
        Self {
            format: FORMAT.to_owned(),
            format_version: FORMAT_VERSION,
            name: name.to_owned(),
            client: String::new(),
            place: String::new(),
            date: String::new(),
            notes: String::new(),
            day: JobDay::default(),
            packed: Packed::default(),
            kit,
            setups: vec![setup],
        }
    }

    /// Reads a job from JSON: the syntax, the format and its version, every field, then every value. A document of an
    /// older version is brought to this one.
    ///
    /// # Errors
    /// What is wrong, with a JSON pointer to each wrong field.
    ///
    /// ```
    /// use tolva_format::Job;
    /// let wrong = Job::from_json(br#"{"format": "tolva-job", "format_version": 12}"#).unwrap_err();
    /// assert_eq!(wrong.0[0].pointer, "/format_version");
    /// ```
    pub fn from_json(json: &[u8]) -> Result<Self, Problems> {
        let job = Self::stored(json)?;
        job.check()?;
        Ok(job)
    }

    /// Reads a job as it is stored, with only what is its own in its kit: as [`Job::from_json`], but no value is checked.
    ///
    /// # Errors
    /// What cannot be read, with a JSON pointer to it.
    pub fn stored(json: &[u8]) -> Result<Self, Problems> {
        match version(json)? {
            FORMAT_VERSION => read_json(json),
            older => read_json(&migrate::up(older, json, Self::MOST_ITEMS)?),
        }
    }

    /// The document as it is exported: indented, with a newline at its end.
    pub fn to_json(&self) -> String {
        // A document holds strings, finite numbers and lists only, so writing it cannot fail.
        serde_json::to_string_pretty(self).unwrap_or_default() + "\n"
    }
}

/// The JSON Schema (draft 2020-12) of a job document, generated from these types.
pub fn json_schema() -> serde_json::Value {
    use utoipa::PartialSchema as _;
    let mut parts = Vec::new();
    <Job as ToSchema>::schemas(&mut parts);
    let mut definitions = serde_json::Map::new();
    for (name, schema) in parts {
        definitions.insert(name, serde_json::json!(schema));
    }
    let mut schema = serde_json::json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": format!("Tolva job, format version {FORMAT_VERSION}"),
    });
    if let (Some(all), serde_json::Value::Object(job)) = (schema.as_object_mut(), serde_json::json!(Job::schema())) {
        all.extend(job);
        all.insert("$defs".to_owned(), definitions.into());
    }
    relink(&mut schema);
    limit_items(&mut schema);
    schema
}

/// Texts in lists have a limit that no field says for itself.
fn limit_items(value: &mut serde_json::Value) {
    match value {
        serde_json::Value::Array(all) => all.iter_mut().for_each(limit_items),
        serde_json::Value::Object(all) => {
            if let Some(items) = all.get_mut("items").and_then(serde_json::Value::as_object_mut)
                && items.get("type").is_some_and(|kind| kind == "string")
                && !items.contains_key("enum")
            {
                items.entry("maxLength").or_insert_with(|| crate::ranged::Range::OF_ITEM.greatest.into());
            }
            all.values_mut().for_each(limit_items);
        }
        _ => {}
    }
}

/// References point into the document itself instead of an OpenAPI document's components.
fn relink(value: &mut serde_json::Value) {
    match value {
        serde_json::Value::String(text) if text.starts_with("#/components/schemas/") => {
            *text = text.replace("#/components/schemas/", "#/$defs/");
        }
        serde_json::Value::Array(all) => all.iter_mut().for_each(relink),
        serde_json::Value::Object(all) => all.values_mut().for_each(relink),
        _ => {}
    }
}
