//! Words that several answers share.

use super::outcome::Outcome;
use crate::job::CheckedSetup;
use crate::scale::PowerNotation;

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
pub(super) fn light_at(setup: &CheckedSetup<'_>, outcome: &Outcome, notation: PowerNotation) -> String {
    let lights = setup.lights.iter().zip(&outcome.lights);
    let on =
        lights.filter_map(|(light, at)| at.map(|at| format!(", {} at {}", light.light.id, at.power.label(notation))));
    on.collect()
}
