//! Reading JSON so that a wrong field is named by its path.

use serde::de::DeserializeOwned;
use serde_json::Value;
use serde_path_to_error::Segment;

use super::{FORMAT, FORMAT_VERSION, Problems};

/// Reads any of the format's types, each a JSON object; a wrong or unknown field is named by its JSON pointer.
///
/// # Errors
/// The first thing that is not JSON, not known, or not of its type.
pub fn read_json<T: DeserializeOwned>(json: &[u8]) -> Result<T, Problems> {
    // The reader would take a list for an object's fields in their order, and an empty one for none of them.
    if json.iter().find(|byte| !byte.is_ascii_whitespace()) == Some(&b'[') {
        return Err(Problems::one("", "a list is not allowed here: it must be one JSON object, in braces"));
    }
    // What is good is read without keeping track of where; only what is not is read again, to say where it is wrong.
    if let Ok(value) = serde_json::from_slice(json) {
        return Ok(value);
    }
    let mut reader = serde_json::Deserializer::from_slice(json);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let mut pointer = String::new();
        for segment in error.path() {
            let part = match segment {
                Segment::Seq { index } => index.to_string(),
                Segment::Map { key } => key.replace('~', "~0").replace('/', "~1"),
                Segment::Enum { variant } => variant.clone(),
                Segment::Unknown => continue,
            };
            pointer.push('/');
            pointer.push_str(&part);
        }
        Problems::one(pointer, error.inner().to_string())
    })?;
    reader.end().map_err(|error| Problems::one("", error.to_string()))?;
    Ok(value)
}

/// The version of a job. Refuses what is no job, or a job of a version this Tolva does not know, before any field is
/// looked at.
pub(super) fn version(json: &[u8]) -> Result<u32, Problems> {
    let value: Value = read_json(json)?;
    let Some(fields) = value.as_object() else {
        return Err(Problems::one("", "a job is one JSON object"));
    };
    match fields.get("format").and_then(Value::as_str) {
        Some(FORMAT) => {}
        Some(other) => {
            return Err(Problems::one(
                "/format",
                format!("“{other}” is not a format Tolva reads: it must be “{FORMAT}”"),
            ));
        }
        None => return Err(Problems::one("/format", format!("this is missing: it must be “{FORMAT}”"))),
    }
    match fields.get("format_version").and_then(Value::as_u64) {
        Some(version) if (1..=u64::from(FORMAT_VERSION)).contains(&version) => {
            Ok(u32::try_from(version).unwrap_or(FORMAT_VERSION))
        }
        Some(version) => Err(Problems::one(
            "/format_version",
            format!(
                "version {version} is not known to this Tolva, which reads versions 1 to {FORMAT_VERSION}: a newer \
                 Tolva may"
            ),
        )),
        None => Err(Problems::one("/format_version", format!("this is missing: it must be {FORMAT_VERSION}"))),
    }
}
