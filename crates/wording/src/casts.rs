//! Casts and lights in words. The steps are common practice, no source.

use tolva_core::colour::Illuminant;

/// Under so many mired no cast is seen.
pub(crate) const CAST_SEEN_MIRED: f64 = 10.0;
const PLAIN_MIRED: f64 = 25.0;
const STRONG_MIRED: f64 = 60.0;
/// Under so much Duv no tint is seen.
const TINT_SEEN_DUV: f64 = 0.003;
const PLAIN_DUV: f64 = 0.006;
const STRONG_DUV: f64 = 0.012;

fn how_much(amount: f64, seen: f64, plain: f64, strong: f64) -> Option<&'static str> {
    match amount.abs() {
        amount if amount < seen => None,
        amount if amount < plain => Some("slightly "),
        amount if amount < strong => Some(""),
        _ => Some("strongly "),
    }
}

/// A tint: `slightly green`; nothing where none is seen.
pub(crate) fn tint_words(duv: f64) -> Option<String> {
    let much = how_much(duv, TINT_SEEN_DUV, PLAIN_DUV, STRONG_DUV)?;
    Some(format!("{much}{}", if duv > 0.0 { "green" } else { "magenta" }))
}

/// A cast: `strongly warm`, `cool and slightly green`, `neutral`. Mired and Duv over what the camera is balanced for.
///
/// ```
/// use tolva_wording::cast_words;
/// assert_eq!(cast_words(4.0, 0.001), "neutral");
/// assert_eq!(cast_words(166.0, 0.0), "strongly warm");
/// assert_eq!(cast_words(-30.0, 0.004), "cool, slightly green");
/// ```
pub fn cast_words(mired: f64, duv: f64) -> String {
    let warmth = how_much(mired, CAST_SEEN_MIRED, PLAIN_MIRED, STRONG_MIRED)
        .map(|much| format!("{much}{}", if mired > 0.0 { "warm" } else { "cool" }));
    match (warmth, tint_words(duv)) {
        (Some(warmth), Some(tint)) => format!("{warmth}, {tint}"),
        (Some(one), None) | (None, Some(one)) => one,
        (None, None) => "neutral".to_owned(),
    }
}

/// A light, as said: `5600 K`, `5600 K, slightly green`.
pub(crate) fn light_words(light: Illuminant) -> String {
    let kelvin = light.kelvin().label();
    match tint_words(light.tint_duv()) {
        Some(tint) => format!("{kelvin}, {tint}"),
        None => kelvin,
    }
}
