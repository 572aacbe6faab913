//! The name and the version of the format.

use serde_json::Value;

use crate::problems::Problems;
use crate::read::read_json;

/// The name every job document carries in `format`.
pub const FORMAT: &str = "tolva-job";
/// The version this Tolva writes.
pub const FORMAT_VERSION: u32 = 11;

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
