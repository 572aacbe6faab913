//! Reading what a photographer types: `1/60`, `0.8s`, `f/5.6`, `ISO 640`.

use thiserror::Error;

use super::length::{LengthUnit, Metres};
use super::setting::{Aperture, Iso, Setting, Shutter};
use super::stops::Stops;

/// Why a typed setting was not understood: what was typed, what is allowed, and an example.
#[derive(Clone, Debug, PartialEq, Error)]
#[error("“{typed}” is not {wanted}")]
pub struct ParseError {
    typed: String,
    wanted: String,
}

impl ParseError {
    /// What was typed, and what was wanted instead.
    pub fn new(typed: &str, wanted: impl Into<String>) -> Self {
        let mut wanted = wanted.into();
        if let Some((decimal, thousands)) = either(typed) {
            wanted = format!(
                "clear: it may be {decimal} or {thousands}. Write {decimal} or {thousands}; it must be {wanted}"
            );
        }
        Self { typed: typed.trim().to_owned(), wanted }
    }
}

/// Whether a text is digits in groups of three behind commas: `12,800`, `1,000,000`, `8,000.5`.
fn in_groups(text: &str) -> bool {
    let (whole, decimals) = text.split_once('.').unwrap_or((text, ""));
    let Some((first, groups)) = whole.trim_start_matches(['-', '−', '+']).split_once(',') else { return false };
    let digits = |group: &str| group.chars().all(|letter| letter.is_ascii_digit());
    (1..=3).contains(&first.len())
        && digits(first)
        && !first.starts_with('0')
        && groups.split(',').all(|group| group.len() == 3 && digits(group))
        && digits(decimals)
}

/// Whether nothing tells if a comma before three digits is a decimal one or parts off thousands: `1,500`.
fn may_be_either(text: &str) -> bool {
    in_groups(text) && text.matches(',').count() == 1 && !text.contains('.')
}

/// The number in a text that may be either, as a decimal and as thousands.
fn either(typed: &str) -> Option<(String, String)> {
    let mut words = typed.split(|letter: char| !(letter.is_ascii_digit() || matches!(letter, ',' | '.')));
    let word = words.find(|word| may_be_either(word))?;
    Some((word.replace(',', ".").trim_end_matches('0').trim_end_matches('.').to_owned(), word.replace(',', "")))
}

/// The range of values each kind of setting is accepted in.
pub mod range {
    use std::ops::RangeInclusive;
    /// Seconds.
    pub const SHUTTER_S: RangeInclusive<f64> = 0.000_01..=3600.0;
    /// F-numbers.
    pub const F_NUMBER: RangeInclusive<f64> = 0.7..=128.0;
    /// ISO.
    pub const ISO: RangeInclusive<f64> = 3.0..=10_000_000.0;
}

/// A plain decimal number: digits, a point or a comma. No exponents, no infinities, and nothing that may be either
/// thousands or a decimal (`1,500`).
pub fn number(text: &str) -> Option<f64> {
    if may_be_either(text.trim()) { None } else { large_number(text) }
}

/// A number that has no decimals worth writing (lux, ISO, the divisor of a shutter time): commas before three digits
/// are thousands.
pub fn large_number(text: &str) -> Option<f64> {
    let text = text.trim();
    plain(&if in_groups(text) { text.replace(',', "") } else { text.replace(',', ".") })
}

fn plain(text: &str) -> Option<f64> {
    let text = text.replace('−', "-");
    let plain = !text.is_empty() && text.chars().all(|c| c.is_ascii_digit() || c == '.' || c == '-' || c == '+');
    plain.then(|| text.parse::<f64>().ok()).flatten().filter(|number| number.is_finite())
}

/// Cuts the first of these words off the front of a text, whatever its case.
pub fn without_prefix<'a>(text: &'a str, prefixes: &[&str]) -> &'a str {
    let text = text.trim();
    let starts = |prefix: &&&str| text.get(..prefix.len()).is_some_and(|head| head.eq_ignore_ascii_case(prefix));
    prefixes.iter().find(starts).map_or(text, |prefix| text[prefix.len()..].trim_start())
}

/// A shutter time: `1/60`, `1/60 s`, `0.8s`, `0,8 s`, `2"`, and a bare `250` for 1/250 as on a dial.
///
/// # Errors
/// Anything else, and times under 1/100 000 s or over an hour.
///
/// ```
/// use tolva_core::scale::parse_shutter;
/// assert_eq!(parse_shutter("0.8s")?.label(), "0.8 s");
/// assert_eq!(parse_shutter("1/60")?.exact, 1.0 / 64.0);
/// assert!(parse_shutter("soon").is_err());
/// # Ok::<(), tolva_core::scale::ParseError>(())
/// ```
pub fn parse_shutter(typed: &str) -> Result<Setting<Shutter>, ParseError> {
    let wrong = || ParseError::new(typed, "a shutter time from 1/100000 to 3600 s: write 1/250, 0.8s or 2s");
    let text = typed.trim().to_lowercase();
    let bare = text.trim_end_matches("sec").trim_end_matches(['s', '"', '″']).trim_end();
    let has_unit = bare.len() < text.len();
    let seconds = match bare.split_once('/') {
        Some((one, divisor)) => number(one).zip(large_number(divisor)).map(|(one, divisor)| one / divisor),
        // A dial says 250 and means 1/250; below four it would be seconds, so ask for the unit there.
        None => (if has_unit { number(bare) } else { large_number(bare) }).and_then(|value| {
            match (has_unit, value >= 4.0) {
                (true, _) => Some(value),
                (false, true) => Some(1.0 / value),
                (false, false) => (value < 1.0).then_some(value),
            }
        }),
    };
    seconds.filter(|s| range::SHUTTER_S.contains(s)).map(Setting::of).ok_or_else(wrong)
}

/// An aperture: `f/5.6`, `f5.6`, `F 8`, `5.6`.
///
/// # Errors
/// Anything else, and f-numbers outside 0.7 to 128.
pub fn parse_aperture(typed: &str) -> Result<Setting<Aperture>, ParseError> {
    let bare = without_prefix(typed, &["f/", "ƒ/", "f", "ƒ"]);
    let value = number(bare).filter(|n| range::F_NUMBER.contains(n));
    value.map(Setting::of).ok_or_else(|| ParseError::new(typed, "an aperture from f/0.7 to f/128: write f/5.6"))
}

/// A sensitivity: `ISO 640`, `iso640`, `640`.
///
/// # Errors
/// Anything else, and values outside 3 to 10 000 000.
pub fn parse_iso(typed: &str) -> Result<Setting<Iso>, ParseError> {
    let bare = without_prefix(typed, &["iso"]);
    let value = large_number(bare).filter(|n| range::ISO.contains(n));
    value.map(Setting::of).ok_or_else(|| ParseError::new(typed, "a sensitivity from ISO 3 to 10000000: write ISO 640"))
}

/// A plain decimal number, with a point or a comma.
///
/// # Errors
/// Anything else.
pub fn parse_number(typed: &str) -> Result<f64, ParseError> {
    number(typed).ok_or_else(|| ParseError::new(typed, "a number: write 60 or 4.5"))
}

/// A number of stops: `−1⅓`, `-1 1/3`, `+0.5`, `⅔`, `1.3 stops`. A decimal within 0.04 of a third means that third.
///
/// # Errors
/// Anything else, and more than 20 stops either way.
///
/// ```
/// use tolva_core::scale::{Stops, parse_stops};
/// assert_eq!(parse_stops("−1⅓")?, Stops(-4.0 / 3.0));
/// assert_eq!(parse_stops("-1.3")?, Stops(-4.0 / 3.0));
/// # Ok::<(), tolva_core::scale::ParseError>(())
/// ```
pub fn parse_stops(typed: &str) -> Result<Stops, ParseError> {
    let wrong = || ParseError::new(typed, "a number of stops from −20 to +20: write −1⅓, -1 1/3 or 0.5");
    let text = typed.trim().to_lowercase().replace('−', "-");
    let text = text.trim_end_matches("stops").trim_end_matches("stop").trim_end();
    let (sign, text) = match text.strip_prefix('-') {
        Some(rest) => (-1.0, rest),
        None => (1.0, text.strip_prefix('+').unwrap_or(text)),
    };
    let spelled = [("⅓", " 1/3"), ("⅔", " 2/3"), ("½", " 1/2")];
    let spelled = spelled.iter().fold(text.to_owned(), |text, (sign, words)| text.replace(sign, words));
    let mut size = 0.0;
    let parts: Vec<&str> = spelled.split_whitespace().collect();
    if parts.is_empty() || parts.len() > 2 || spelled.contains(['-', '+']) {
        return Err(wrong());
    }
    for part in parts {
        size += match part.split_once('/') {
            Some((over, under)) => number(over).zip(number(under)).map(|(over, under)| over / under),
            None => number(part),
        }
        .ok_or_else(wrong)?;
    }
    let third = (size * 3.0).round() / 3.0;
    let size = if (size - third).abs() < 0.04 { third } else { size };
    // No negative nought.
    let stops = sign * size + 0.0;
    if (-20.0..=20.0).contains(&stops) { Ok(Stops(stops)) } else { Err(wrong()) }
}

/// A distance or size: `1.5 m`, `150 cm`, `5 ft 1 in`, `5'1"`; a bare number is in the unit the person has chosen.
///
/// # Errors
/// Anything else, and lengths of nought or less or over a kilometre.
pub fn parse_length(typed: &str, unit: LengthUnit) -> Result<Metres, ParseError> {
    let wrong = || ParseError::new(typed, "a distance up to 1000 m: write 1.5 m, 150 cm or 5 ft 1 in");
    let text = typed.trim().to_lowercase();
    let text = text.replace(['\'', '′'], "ft").replace(['"', '″'], "in").replace("feet", "ft").replace("inches", "in");
    let metres = if let Some((feet, rest)) = text.split_once("ft") {
        let inches = rest.trim().trim_end_matches("in").trim();
        let inches = if inches.is_empty() { Some(0.0) } else { number(inches) };
        number(feet).zip(inches).map(|(feet, inches)| Metres::from_feet(feet + inches / 12.0))
    } else if let Some(inches) = text.strip_suffix("in") {
        number(inches).map(|inches| Metres::from_feet(inches / 12.0))
    } else if let Some(centimetres) = text.strip_suffix("cm") {
        number(centimetres).map(|centimetres| Metres(centimetres / 100.0))
    } else if let Some(metres) = text.strip_suffix('m') {
        number(metres).map(Metres)
    } else {
        number(&text).map(|value| match unit {
            LengthUnit::Metres => Metres(value),
            LengthUnit::FeetAndInches => Metres::from_feet(value),
        })
    };
    metres.filter(|metres| metres.0 > 0.0 && metres.0 <= 1000.0).ok_or_else(wrong)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    #[rstest]
    #[case("1/60", "1/60")]
    #[case(" 1/64 s", "1/60")]
    #[case("0.8s", "0.8 s")]
    #[case("0,8 s", "0.8 s")]
    #[case("1.3 sec", "1.3 s")]
    #[case("2\"", "2 s")]
    #[case("250", "1/250")]
    #[case("0.3", "0.3 s")]
    #[case("1/8000", "1/8000")]
    fn shutters(#[case] typed: &str, #[case] label: &str) {
        assert_eq!(parse_shutter(typed).map(Setting::label).as_deref(), Ok(label));
    }

    #[rstest]
    #[case("")]
    #[case("1/0")]
    #[case("1/")]
    #[case("-1/60")]
    #[case("2")]
    #[case("1e3s")]
    #[case("NaN")]
    #[case("9999 s")]
    #[case("f/8")]
    fn not_shutters(#[case] typed: &str) {
        let error = parse_shutter(typed).expect_err("not a time").to_string();
        assert!(error.contains(typed.trim()) && error.contains("1/250"), "{error}");
    }

    #[rstest]
    #[case("f/5.6", "f/5.6")]
    #[case("F8", "f/8")]
    #[case("ƒ/11.31", "f/11")]
    #[case("5,6", "f/5.6")]
    #[case("f/3.7", "f/3.7")]
    fn apertures(#[case] typed: &str, #[case] label: &str) {
        assert_eq!(parse_aperture(typed).map(Setting::label).as_deref(), Ok(label));
    }

    #[rstest]
    #[case("ISO 640", "ISO 640")]
    #[case("iso100", "ISO 100")]
    #[case("635", "ISO 640")]
    fn isos(#[case] typed: &str, #[case] label: &str) {
        assert_eq!(parse_iso(typed).map(Setting::label).as_deref(), Ok(label));
    }

    /// Commas before three digits are thousands where decimals make no sense.
    #[test]
    fn thousands() {
        assert_eq!(parse_iso("ISO 12,800").map(Setting::label).as_deref(), Ok("ISO 12800"));
        assert_eq!(parse_shutter("1/1,000").map(Setting::label).as_deref(), Ok("1/1000"));
        assert_eq!(parse_shutter("1,000").map(Setting::label).as_deref(), Ok("1/1000"));
        assert_eq!(parse_number("1,000,000"), Ok(1_000_000.0));
        assert_eq!(parse_number("2,345.5"), Ok(2345.5));
        assert_eq!(
            (parse_number("0,125"), parse_number("4,5"), parse_number("12,34")),
            (Ok(0.125), Ok(4.5), Ok(12.34))
        );
    }

    /// What may be either is asked about, with both.
    #[rstest]
    #[case(parse_number("1,500").map(|_| ()), "1.5 or 1500")]
    #[case(parse_length("1,250 m", LengthUnit::Metres).map(|_| ()), "1.25 or 1250")]
    #[case(parse_shutter("1,300 s").map(|_| ()), "1.3 or 1300")]
    #[case(parse_aperture("f/1,400").map(|_| ()), "1.4 or 1400")]
    fn what_may_be_either(#[case] read: Result<(), ParseError>, #[case] both: &str) {
        let said = read.expect_err("either").to_string();
        assert!(said.contains("clear: it may be") && said.contains(both), "{said}");
    }

    #[rstest]
    #[case("f/0", "ISO")]
    #[case("f/", "ISO -100")]
    #[case("f/999", "ISO 0")]
    #[case("wide", "auto")]
    fn nonsense_is_refused(#[case] aperture: &str, #[case] iso: &str) {
        assert!(parse_aperture(aperture).is_err());
        assert!(parse_iso(iso).is_err());
    }

    #[rstest]
    #[case("−1⅓", -4.0 / 3.0)]
    #[case("-1 1/3", -4.0 / 3.0)]
    #[case("+⅔", 2.0 / 3.0)]
    #[case("1/3 stop", 1.0 / 3.0)]
    #[case("-0", 0.0)]
    #[case("1.5 stops", 1.5)]
    #[case("2,3", 7.0 / 3.0)]
    fn numbers_of_stops(#[case] typed: &str, #[case] stops: f64) {
        let read = parse_stops(typed).expect("stops").0;
        assert!((read - stops).abs() < 1e-12 && read.is_sign_negative() == (stops < 0.0), "{read}");
    }

    #[rstest]
    #[case("1.5", LengthUnit::Metres, 1.5)]
    #[case("150 cm", LengthUnit::FeetAndInches, 1.5)]
    #[case("5", LengthUnit::FeetAndInches, 1.524)]
    #[case("5 ft 1 in", LengthUnit::Metres, 1.5494)]
    #[case("5'1\"", LengthUnit::Metres, 1.5494)]
    #[case("8 in", LengthUnit::Metres, 0.2032)]
    fn lengths(#[case] typed: &str, #[case] unit: LengthUnit, #[case] metres: f64) {
        assert!((parse_length(typed, unit).expect("a length").0 - metres).abs() < 1e-9);
    }

    #[rstest]
    #[case("1 2 3", "near")]
    #[case("--1", "-1 m")]
    #[case("21", "0")]
    #[case("1/0", "1001 m")]
    #[case("", "ft")]
    fn neither_stops_nor_lengths(#[case] stops: &str, #[case] length: &str) {
        assert!(parse_stops(stops).is_err(), "{stops}");
        assert!(parse_length(length, LengthUnit::Metres).is_err(), "{length}");
    }

    proptest! {
        #[test]
        fn never_panics(typed in "\\PC{0,12}") {
            let _ = (parse_shutter(&typed), parse_aperture(&typed), parse_iso(&typed));
            let _ = (parse_stops(&typed), parse_length(&typed, LengthUnit::Metres));
        }

        #[test]
        fn printed_stops_are_read_back(thirds in -30i32..30) {
            let stops = Stops(f64::from(thirds) / 3.0);
            prop_assert!((parse_stops(&stops.thirds()).expect("its own label").0 - stops.0).abs() < 1e-12);
        }

        #[test]
        fn what_is_printed_is_parsed(thirds in 0usize..61) {
            let dial = crate::scale::Dial::<Shutter>::new(crate::scale::Step::Third, 30.0, 1.0 / 32_000.0);
            let setting = dial.settings().nth(thirds).expect("61 thirds");
            prop_assert_eq!(parse_shutter(&setting.label()), Ok(setting));
        }
    }
}
