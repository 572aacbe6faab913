//! Stops: base-2 logarithms of light, positive is brighter.

use std::iter::Sum;
use std::ops::{Add, AddAssign, Neg, Sub};

/// A difference in light, in stops: one stop more is twice the light.
///
/// No light at all is [`Stops::NOTHING`], minus infinity: it adds nothing to any other light.
///
/// ```
/// use tolva_core::scale::Stops;
/// // Flash equal to the ambient is one stop over either; one stop under it adds 0.585.
/// assert_eq!(Stops(0.0).and(Stops(0.0)), Stops(1.0));
/// assert!((Stops(0.0).and(Stops(-1.0)).0 - 0.585).abs() < 0.001);
/// assert_eq!(Stops(-4.0 / 3.0).thirds(), "−1⅓");
/// ```
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Stops(pub f64);

/// A number with its sign, a real minus, and so many decimals: `+109`, `−0.32`, `0`.
pub fn signed(number: f64, decimals: usize) -> String {
    let text = format!("{number:+.decimals$}").replace('-', "−");
    // What rounds to nothing has no sign.
    if text.chars().all(|letter| matches!(letter, '+' | '−' | '0' | '.')) {
        return text.trim_start_matches(['+', '−']).to_owned();
    }
    text
}

impl Stops {
    /// No light.
    pub const NOTHING: Self = Self(f64::NEG_INFINITY);
    /// Mid grey where mid grey belongs.
    pub const ZERO: Self = Self(0.0);

    /// The stops of a ratio of light. A ratio of zero or less is no light.
    pub fn of_ratio(ratio: f64) -> Self {
        if ratio > 0.0 { Self(ratio.log2()) } else { Self::NOTHING }
    }

    /// The ratio of light these stops stand for, 2^stops.
    pub fn ratio(self) -> f64 {
        self.0.exp2()
    }

    /// Two lights together: they add in linear light.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self::of_ratio(self.ratio() + other.ratio())
    }

    /// What must be added to `self` to reach `whole`; `None` where `self` alone is already there or over it.
    pub fn missing_to(self, whole: Self) -> Option<Self> {
        (whole.0 > self.0).then(|| Self::of_ratio(whole.ratio() - self.ratio()))
    }

    /// The number, or `None` where there is no light (or no number).
    pub fn finite(self) -> Option<f64> {
        self.0.is_finite().then_some(self.0)
    }

    /// Rounded to the nearest third of a stop.
    #[must_use]
    pub fn to_third(self) -> Self {
        Self((self.0 * 3.0).round() / 3.0)
    }

    /// As photographers say it, to the nearest third: `−1⅓`, `0`, `+⅔`; no light is a dash.
    pub fn thirds(self) -> String {
        if !self.0.is_finite() {
            return "–".to_owned();
        }
        let thirds = (self.0.abs() * 3.0).round();
        if thirds == 0.0 {
            return "0".to_owned();
        }
        let sign = if self.0 < 0.0 { '−' } else { '+' };
        let whole = (thirds / 3.0).floor();
        let part = match thirds - whole * 3.0 {
            1.0 => "⅓",
            2.0 => "⅔",
            _ => "",
        };
        if whole == 0.0 { format!("{sign}{part}") } else { format!("{sign}{whole}{part}") }
    }

    /// As it was given: in thirds where it is one, `+1½` where it is a half, otherwise to a hundredth.
    pub fn as_given(self) -> String {
        let near = |per_stop: f64| (self.0 * per_stop - (self.0 * per_stop).round()).abs() < 0.01;
        if near(3.0) || !self.0.is_finite() {
            self.thirds()
        } else if near(2.0) {
            let whole = self.0.abs().trunc();
            let sign = if self.0 < 0.0 { '−' } else { '+' };
            if whole == 0.0 { format!("{sign}½") } else { format!("{sign}{whole}½") }
        } else {
            self.decimals()
        }
    }

    /// As the workings print it, to a hundredth: `−0.19`, `0.00`, `+1.32`; no light is "nothing".
    pub fn decimals(self) -> String {
        if !self.0.is_finite() {
            return "nothing".to_owned();
        }
        // In whole hundredths: printing those is many times quicker than printing a fraction, and there are many.
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "no stops are that many")]
        let hundredths = (self.0.abs() * 100.0).round() as u64;
        let sign = match (hundredths, self.0 < 0.0) {
            (0, _) => "",
            (_, true) => "−",
            (_, false) => "+",
        };
        format!("{sign}{}.{:02}", hundredths / 100, hundredths % 100)
    }

    /// How much, without a sign, in thirds and words: `⅔ stop`, `1 stop`, `2⅓ stops`.
    pub fn amount(self) -> String {
        let thirds = Self(self.0.abs().max(1.0 / 3.0)).thirds();
        let number = thirds.trim_start_matches('+');
        let plural = if self.0.abs() * 3.0 >= 3.5 { "stops" } else { "stop" };
        format!("{number} {plural}")
    }
}

impl Add for Stops {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl AddAssign for Stops {
    fn add_assign(&mut self, other: Self) {
        self.0 += other.0;
    }
}

impl Sub for Stops {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}

impl Neg for Stops {
    type Output = Self;
    fn neg(self) -> Self {
        Self(-self.0)
    }
}

impl Sum for Stops {
    /// Adds stops as numbers (losses in a row), not lights: for lights see [`Stops::and`].
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::ZERO, Add::add)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics.md §5: sums in linear light; the arithmetic is log2(1 + 2^x).
    #[rstest]
    #[case(0.0, 1.0)]
    #[case(-1.0, 0.585)]
    #[case(-2.0, 0.322)]
    #[case(-3.0, 0.170)]
    fn flash_so_far_under_adds(#[case] under: f64, #[case] adds: f64) {
        assert!((Stops(0.0).and(Stops(under)).0 - adds).abs() < 0.0005);
    }

    #[rstest]
    #[case(0.0, "0")]
    #[case(-4.0 / 3.0, "−1⅓")]
    #[case(2.0 / 3.0, "+⅔")]
    #[case(-0.1, "0")]
    #[case(-0.2, "−⅓")]
    #[case(2.99, "+3")]
    #[case(-10.4, "−10⅓")]
    #[case(f64::NEG_INFINITY, "–")]
    #[case(f64::NAN, "–")]
    fn printed_in_thirds(#[case] stops: f64, #[case] text: &str) {
        assert_eq!(Stops(stops).thirds(), text);
    }

    #[rstest]
    #[case(-0.193, "−0.19")]
    #[case(0.001, "0.00")]
    #[case(-0.004, "0.00")]
    #[case(1.3219, "+1.32")]
    fn printed_in_decimals(#[case] stops: f64, #[case] text: &str) {
        assert_eq!(Stops(stops).decimals(), text);
    }

    #[rstest]
    #[case(1.5, "+1½")]
    #[case(-0.5, "−½")]
    #[case(4.0 / 3.0, "+1⅓")]
    #[case(0.2, "+0.20")]
    #[case(0.0, "0")]
    fn printed_as_given(#[case] stops: f64, #[case] text: &str) {
        assert_eq!(Stops(stops).as_given(), text);
        let read = crate::scale::parse_stops(text).expect("its own label");
        assert!((read.0 - stops).abs() < 0.005);
    }

    #[rstest]
    #[case(0.05, "⅓ stop")]
    #[case(1.0, "1 stop")]
    #[case(-2.3, "2⅓ stops")]
    fn amounts_in_words(#[case] stops: f64, #[case] text: &str) {
        assert_eq!(Stops(stops).amount(), text);
    }

    #[test]
    fn nothing_adds_nothing() {
        assert_eq!(Stops::NOTHING.and(Stops(-3.0)), Stops(-3.0));
        assert_eq!(Stops::NOTHING.finite(), None);
        assert_eq!(Stops(0.5).missing_to(Stops(0.0)), None);
    }

    proptest! {
        #[test]
        fn what_is_missing_completes_the_whole(part in -12.0..3.9_f64, whole in 4.0..8.0_f64) {
            let missing = Stops(part).missing_to(Stops(whole)).expect("the whole is larger");
            prop_assert!((Stops(part).and(missing).0 - whole).abs() < 1e-9);
        }

        #[test]
        fn lights_add_in_any_order(a in -20.0..20.0_f64, b in -20.0..20.0_f64, c in -20.0..20.0_f64) {
            let one = Stops(a).and(Stops(b)).and(Stops(c)).0;
            let other = Stops(c).and(Stops(a)).and(Stops(b)).0;
            prop_assert!((one - other).abs() < 1e-9);
        }
    }
}
