//! Reading JSON so that a wrong field is named by its path.

use serde::de::DeserializeOwned;
use serde_path_to_error::Segment;

use crate::problems::{ProblemCode, Problems};

/// Reads any of the format's types, each a JSON object; a wrong or unknown field is named by its JSON pointer.
///
/// # Errors
/// The first thing that is not JSON, not known, or not of its type.
pub fn read_json<T: DeserializeOwned>(json: &[u8]) -> Result<T, Problems> {
    let json = without_mark(json);
    // The reader would take a list for an object's fields in their order, and an empty one for none of them.
    if json.iter().find(|byte| !byte.is_ascii_whitespace()) == Some(&b'[') {
        return Err(Problems::one("", "a list is not allowed here: it must be one JSON object, in braces")
            .coded(ProblemCode::Unreadable));
    }
    // What is good is read without keeping track of where; only what is not is read again, to say where it is wrong.
    // As a text it is looked through once for what is no text, instead of at each of its strings.
    if let Ok(value) = std::str::from_utf8(json).map_err(drop).and_then(|json| serde_json::from_str(json).map_err(drop))
    {
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
        Problems::one(pointer, error.inner().to_string()).coded(ProblemCode::Unreadable)
    })?;
    reader.end().map_err(|error| Problems::one("", error.to_string()).coded(ProblemCode::Unreadable))?;
    Ok(value)
}

/// A text without the mark some programs put before it to say that it is UTF-8.
pub(crate) fn without_mark(text: &[u8]) -> &[u8] {
    text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text)
}
