//! How long a flash burns.

use crate::scale::interpolated;
use crate::scale::{Power, Setting, Shutter, Stops};

/// One line of a unit's table: at this power, so long.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Duration {
    /// The power in stops under full: −12 to 0.
    pub power_stops: f64,
    /// t₀.₁, the time over a tenth of the peak, in seconds: a millionth to a tenth.
    pub t01_s: f64,
}

/// t₀.₁ of an exponential tail is about three times t₀.₅. Source: ISO 2827's two measures; the factor is from memory.
pub fn t01_from_t05(t05_s: f64) -> f64 {
    3.0 * t05_s
}

/// t₀.₁ at a power: between two lines by the logarithm of time, beyond the ends as at the end. Nothing without a
/// table.
pub fn t01_s(table: &[Duration], power: Power) -> Option<f64> {
    interpolated(table.iter().map(|line| (line.power_stops, line.t01_s.ln())), power.0.0).map(f64::exp)
}

/// The part of the flash that an open shutter sees, 0 to 1, where it opens with the flash: a flash that falls off as
/// e^(−t/τ) is down to a tenth after t₀.₁ = τ·ln 10, so a time T lets 1 − 10^(−T/t₀.₁) of it through. Source: the
/// exponential tail that t₀.₁ ≈ 3·t₀.₅ comes from.
///
/// ```
/// use tolva_core::{flash::part_within, scale::Setting};
/// // At half of t₀.₁ 0.55 stop is lost.
/// let lost = -part_within(1.0 / 128.0, Setting::of(1.0 / 256.0)).log2();
/// assert!((lost - 0.548).abs() < 0.001);
/// ```
pub fn part_within(t01_s: f64, shutter: Setting<Shutter>) -> f64 {
    1.0 - 10.0_f64.powf(-shutter.exact / t01_s)
}

/// What a flash that outlasts the shutter loses at a power, in stops: 0 or more. Nothing where nobody knows how long it
/// burns.
pub fn tail_loss(table: &[Duration], power: Power, shutter: Setting<Shutter>) -> Stops {
    t01_s(table, power).map_or(Stops::ZERO, |t01| -Stops::of_ratio(part_within(t01, shutter)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const TABLE: [Duration; 2] =
        [Duration { power_stops: -6.0, t01_s: 1.0 / 16_000.0 }, Duration { power_stops: 0.0, t01_s: 1.0 / 250.0 }];

    #[rstest]
    #[case(0.0, 250.0)]
    #[case(-6.0, 16_000.0)]
    #[case(-3.0, 2000.0)]
    #[case(-8.0, 16_000.0)]
    fn between_and_beyond(#[case] power: f64, #[case] one_over: f64) {
        let found = t01_s(&TABLE, Power(Stops(power))).expect("a table");
        assert!((1.0 / found / one_over - 1.0).abs() < 1e-9, "1/{}", 1.0 / found);
    }

    #[test]
    fn without_a_table_nothing_is_known() {
        assert_eq!(t01_s(&[], Power::FULL), None);
        assert!((t01_from_t05(1.0 / 900.0) - 1.0 / 300.0).abs() < 1e-12);
    }

    #[test]
    fn a_slow_flash_is_cut_by_a_quick_shutter() {
        // By hand: 1 − 10^(−½), and 1 − 10^(−1) where the shutter closes at t₀.₁ itself.
        assert!((part_within(1.0 / 128.0, Setting::of(1.0 / 256.0)) - 0.6838).abs() < 0.0005);
        assert!((part_within(1.0 / 256.0, Setting::of(1.0 / 256.0)) - 0.9).abs() < 1e-9);
        assert!((part_within(1.0 / 2000.0, Setting::of(1.0 / 200.0)) - 1.0).abs() < 1e-9);
        // By the dial's exact 1/512: −log₂(1 − 10^(−250/512)).
        assert!((tail_loss(&TABLE, Power::FULL, Setting::of(1.0 / 500.0)).0 - 0.567).abs() < 0.001);
        assert_eq!(tail_loss(&[], Power::FULL, Setting::of(1.0 / 8000.0)), Stops::ZERO);
    }
}
