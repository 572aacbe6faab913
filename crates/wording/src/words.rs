//! Words that several answers share.

use tolva_core::scale::{Power, PowerNotation};

/// A name at the beginning of a sentence.
pub(crate) fn upper_first(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// A name in the middle of a sentence. What begins with two capitals (LED) keeps them, and so does a light's letter.
pub(crate) fn lower_first(name: &str) -> String {
    let mut letters = name.chars();
    let (first, second) = (letters.next(), letters.clone().next());
    match (first, second) {
        (Some(first), Some(second)) if first.is_uppercase() && (second.is_uppercase() || second == ',') => {
            name.to_owned()
        }
        (Some(first), _) => first.to_lowercase().chain(letters).collect(),
        (None, _) => String::new(),
    }
}

/// Sentences of a kind as one: the first as it is, the others after commas.
pub(crate) fn in_a_row(all: impl IntoIterator<Item = String>) -> String {
    all.into_iter().fold(
        String::new(),
        |said, one| {
            if said.is_empty() { one } else { format!("{said}, {}", lower_first(&one)) }
        },
    )
}

/// The flashes that are on, after the camera's settings: `, A at 1/8, B at 1/32`.
pub(crate) fn lights_at(lights: &[(String, Power)], notation: PowerNotation) -> String {
    lights.iter().fold(String::new(), |said, (id, power)| format!("{said}, {id} at {}", power.label(notation)))
}

/// A bearing in words: `north-west`.
pub(crate) fn compass_point(bearing_deg: f64) -> &'static str {
    const POINTS: [&str; 8] =
        ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"];
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 8")]
    let index = (bearing_deg.rem_euclid(360.0) / 45.0).round() as usize % 8;
    POINTS[index]
}

/// How soft a light is in a word, by the angle it fills. Common practice, no source.
pub(crate) fn softness_word(angle_deg: f64) -> &'static str {
    match angle_deg {
        angle if angle < 5.0 => "hard",
        angle if angle < 20.0 => "fairly hard",
        angle if angle < 40.0 => "soft",
        _ => "very soft",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use tolva_core::modifier::angle_deg;
    use tolva_core::scale::Metres;

    #[test]
    fn points_of_the_compass() {
        assert_eq!(
            [compass_point(359.0), compass_point(294.0), compass_point(181.0)],
            ["north", "north-west", "south"]
        );
    }

    #[test]
    fn an_octagon_is_soft_and_a_bare_head_is_hard() {
        assert_eq!(softness_word(angle_deg(Metres(0.9), Metres(1.5))), "soft");
        assert_eq!(softness_word(angle_deg(Metres(0.07), Metres(2.0))), "hard");
    }
}
