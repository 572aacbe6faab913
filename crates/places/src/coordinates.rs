//! Coordinates in any usual notation, by the crate `latlon`.

use crate::PlaceError;

/// A latitude and a longitude: `60.4667, 26.9458`, `60°28′N 26°57′E`, `N 60 28.0 E 26 56.7`, `geo:60.47,26.95`.
///
/// # Errors
/// What was not understood, or lies off the globe.
///
/// ```
/// let (latitude, longitude) = tolva_places::parse_coordinates("60° 28′ 0″ N 26° 56′ 45″ E")?;
/// assert!((latitude - 60.46667).abs() < 1e-4 && (longitude - 26.94583).abs() < 1e-4);
/// # Ok::<(), tolva_places::PlaceError>(())
/// ```
pub fn parse_coordinates(typed: &str) -> Result<(f64, f64), PlaceError> {
    let text = typed.trim();
    let text = text.strip_prefix("geo:").map_or(text, |rest| rest.split([';', '?']).next().unwrap_or(rest));
    let plain = text.replace('−', "-").replace("''", "\"").replace(['º', '˚'], "°").to_uppercase();
    if let Some(pair) = decimals(&plain) {
        return on_the_globe(typed, pair);
    }
    let tidy = with_seconds(&plain);
    let point = latlon::parse(tidy.as_str()).or_else(|_| latlon::parse(plain.as_str()));
    let point = point.map_err(|_| PlaceError::NotCoordinates(typed.trim().to_owned()))?;
    on_the_globe(typed, (point.y(), point.x()))
}

/// Two decimal numbers, with points or, where something else parts them, commas.
fn decimals(text: &str) -> Option<(f64, f64)> {
    let number = |part: &str| part.trim().parse::<f64>().ok().filter(|number| number.is_finite());
    let pair = |(a, b): (&str, &str)| Some((number(a)?, number(b)?));
    let commas = text.replace(',', ".");
    text.split_once(',')
        .and_then(pair)
        .or_else(|| text.split_once(';').and_then(pair))
        .or_else(|| commas.trim().split_once(char::is_whitespace).and_then(pair))
        .or_else(|| commas.split_once(';').and_then(pair))
        .or_else(|| commas.split_once(". ").and_then(pair))
}

/// `60°28′N` without its seconds, as people write it, gets them.
fn with_seconds(text: &str) -> String {
    let mut tidy = text.to_owned();
    for hemisphere in ['N', 'S', 'E', 'W'] {
        for minute in ['′', '\'', '’'] {
            tidy = tidy.replace(&format!("{minute}{hemisphere}"), &format!("{minute} 0″ {hemisphere}"));
            tidy = tidy.replace(&format!("{minute} {hemisphere}"), &format!("{minute} 0″ {hemisphere}"));
        }
    }
    tidy
}

fn on_the_globe(typed: &str, (latitude, longitude): (f64, f64)) -> Result<(f64, f64), PlaceError> {
    if (-90.0..=90.0).contains(&latitude) && (-180.0..=180.0).contains(&longitude) {
        Ok((latitude, longitude))
    } else {
        Err(PlaceError::OffTheGlobe(typed.trim().to_owned()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    #[rstest]
    #[case("60.4667, 26.9458", 60.4667, 26.9458)]
    #[case("60.4667 26.9458", 60.4667, 26.9458)]
    #[case("60,4667 26,9458", 60.4667, 26.9458)]
    #[case("60,4667; 26,9458", 60.4667, 26.9458)]
    #[case("-33.9, −18.4", -33.9, -18.4)]
    #[case("geo:60.4667,26.9458;u=35", 60.4667, 26.9458)]
    #[case("60°28′N 26°57′E", 60.466_67, 26.95)]
    #[case("60° 28' 12\" N, 26° 57' 0\" E", 60.47, 26.95)]
    #[case("60º28'12''N 26º57'0''E", 60.47, 26.95)]
    #[case("N 60° 28.2' E 26° 57.0'", 60.47, 26.95)]
    #[case("33.9° S, 18.4° W", -33.9, -18.4)]
    #[case("n 60.47 e 26.95", 60.47, 26.95)]
    fn understood(#[case] typed: &str, #[case] latitude: f64, #[case] longitude: f64) {
        let (lat, lon) = parse_coordinates(typed).expect("coordinates");
        assert!((lat - latitude).abs() < 1e-4 && (lon - longitude).abs() < 1e-4, "{lat} {lon}");
    }

    #[rstest]
    #[case("", "neither")]
    #[case("60.5", "neither")]
    #[case("100, 20", "−90 to 90")]
    #[case("10, 200", "−180 to 180")]
    fn refused(#[case] typed: &str, #[case] says: &str) {
        let wrong = parse_coordinates(typed).expect_err("wrong").to_string();
        assert!(wrong.contains(says), "{wrong}");
    }

    proptest! {
        #[test]
        fn never_panics(typed in "\\PC{0,30}") {
            let _ = parse_coordinates(&typed);
        }

        #[test]
        fn decimals_are_read_back(latitude in -90.0..90.0_f64, longitude in -180.0..180.0_f64) {
            let (lat, lon) = parse_coordinates(&format!("{latitude:.5}, {longitude:.5}")).expect("its own");
            prop_assert!((lat - latitude).abs() < 1e-5 && (lon - longitude).abs() < 1e-5);
        }
    }
}
