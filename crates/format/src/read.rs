//! Reading JSON so that a wrong field is named by its path.

use serde::de::DeserializeOwned;
use serde_path_to_error::{Segment, Track};

use crate::problems::{ProblemCode, Problems};
use crate::strict::Strict;

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
    if let Some(value) = std::str::from_utf8(json).ok().and_then(quickly) {
        return Ok(value);
    }
    let mut reader = serde_json::Deserializer::from_slice(json);
    let mut track = Track::new();
    let read = T::deserialize(Strict(serde_path_to_error::Deserializer::new(&mut reader, &mut track)));
    let value = read.map_err(|error| {
        let mut pointer = String::new();
        for segment in &track.path() {
            let part = match segment {
                Segment::Seq { index } => index.to_string(),
                Segment::Map { key } => key.replace('~', "~0").replace('/', "~1"),
                Segment::Enum { variant } => variant.clone(),
                Segment::Unknown => continue,
            };
            pointer.push('/');
            pointer.push_str(&part);
        }
        Problems::one(pointer, error.to_string()).coded(ProblemCode::Unreadable)
    })?;
    reader.end().map_err(|error| Problems::one("", error.to_string()).coded(ProblemCode::Unreadable))?;
    Ok(value)
}

fn quickly<T: DeserializeOwned>(json: &str) -> Option<T> {
    let mut reader = serde_json::Deserializer::from_str(json);
    let value = T::deserialize(Strict(&mut reader)).ok()?;
    reader.end().is_ok().then_some(value)
}

/// A text without the mark some programs put before it to say that it is UTF-8.
pub(crate) fn without_mark(text: &[u8]) -> &[u8] {
    text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{Blend, Job, Setup};
    use rstest::rstest;

    /// No list passes for an object, wherever it stands.
    #[rstest]
    #[case(r#"{"lift": [0, -1]}"#, "/lift")]
    #[case(r#"[{"subject_stops": 0, "background_stops": -1}]"#, "")]
    #[case(r#"{"lift": {"subject_stops": [0], "background_stops": -1}}"#, "/lift/subject_stops")]
    fn lists_are_no_objects(#[case] json: &str, #[case] pointer: &str) {
        let wrong = read_json::<Blend>(json.as_bytes()).expect_err("a list");
        assert_eq!((wrong.0[0].pointer.as_str(), wrong.0[0].code), (pointer, ProblemCode::Unreadable), "{wrong}");
    }

    #[test]
    fn what_is_good_is_read_with_a_mark_before_it_or_without() {
        let json = r#"{"lift": {"subject_stops": 0.5, "background_stops": -1}}"#;
        let blend: Blend = read_json(json.as_bytes()).expect("good");
        assert_eq!(read_json::<Blend>(format!("\u{feff}{json}").as_bytes()).expect("good"), blend);
        assert!(read_json::<Blend>(format!("{json} x").as_bytes()).is_err());
    }

    /// Every object of a whole setup in turn, as a list of what is in it.
    #[test]
    fn no_object_of_a_setup_passes_as_a_list() {
        let setup = serde_json::json!(Job::new("One").setups[0]);
        let mut objects = Vec::new();
        collect(&setup, "", &mut objects);
        assert!(objects.len() > 10, "{objects:?}");
        for pointer in objects {
            let mut other = setup.clone();
            let part = other.pointer_mut(&pointer).expect("it is there");
            let values: Vec<_> = part.as_object().into_iter().flatten().map(|(_, value)| value.clone()).collect();
            *part = values.into();
            assert!(read_json::<Setup>(other.to_string().as_bytes()).is_err(), "{pointer}");
        }
    }

    fn collect(of: &serde_json::Value, at: &str, found: &mut Vec<String>) {
        if let Some(fields) = of.as_object() {
            found.push(at.to_owned());
            fields.iter().for_each(|(name, part)| collect(part, &format!("{at}/{name}"), found));
        }
        for (index, part) in of.as_array().into_iter().flatten().enumerate() {
            collect(part, &format!("{at}/{index}"), found);
        }
    }
}
