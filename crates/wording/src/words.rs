//! Words that several answers share.

use tolva_core::scale::{Power, PowerNotation};

/// A name in the middle of a sentence. What begins with two capitals (LED) keeps them.
pub(crate) fn lower_first(name: &str) -> String {
    let mut letters = name.chars();
    let (first, second) = (letters.next(), letters.clone().next());
    match (first, second) {
        (Some(first), Some(second)) if first.is_uppercase() && second.is_uppercase() => name.to_owned(),
        (Some(first), _) => first.to_lowercase().chain(letters).collect(),
        (None, _) => String::new(),
    }
}

/// The flashes that are on, after the camera's settings: `, A at 1/8, B at 1/32`.
pub(crate) fn lights_at(lights: &[(String, Power)], notation: PowerNotation) -> String {
    lights.iter().fold(String::new(), |said, (id, power)| format!("{said}, {id} at {}", power.label(notation)))
}
