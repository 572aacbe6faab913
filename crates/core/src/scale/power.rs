//! Flash power: full power is 0 stops, and each halving is one stop down.

use super::stops::Stops;

/// How far one click of a flash unit's power goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PowerStep {
    /// A tenth of a stop.
    Tenth,
    /// A third of a stop.
    Third,
    /// Half a stop.
    Half,
    /// A whole stop.
    Whole,
}

impl PowerStep {
    fn clicks_per_stop(self) -> f64 {
        match self {
            Self::Tenth => 10.0,
            Self::Third => 3.0,
            Self::Half => 2.0,
            Self::Whole => 1.0,
        }
    }

    /// The click nearest to an exact power.
    pub fn nearest(self, power: Power) -> Power {
        let clicks = self.clicks_per_stop();
        Power(Stops((power.0.0 * clicks).round() / clicks))
    }
}

/// How power is shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum PowerNotation {
    /// `1/4 +⅓`
    #[default]
    Fraction,
    /// `−1⅔`
    Stops,
}

/// The power of a flash unit, in stops under full: 0 or less.
///
/// ```
/// use tolva_core::scale::{Power, PowerNotation, Stops};
/// assert_eq!(Power(Stops(-5.0 / 3.0)).label(PowerNotation::Fraction), "1/4 +⅓");
/// assert_eq!(Power(Stops(-5.0 / 3.0)).label(PowerNotation::Stops), "−1⅔");
/// ```
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Power(pub Stops);

impl Power {
    /// Full power.
    pub const FULL: Self = Self(Stops::ZERO);

    /// As a fraction of full power with what is over it, or in stops.
    pub fn label(self, notation: PowerNotation) -> String {
        let stops = self.0.0;
        let tenths = (stops * 10.0).round() / 10.0;
        let in_thirds = (stops * 3.0 - (stops * 3.0).round()).abs() < 1e-6;
        let in_halves = (stops * 2.0 - (stops * 2.0).round()).abs() < 1e-6;
        let part = |over: f64| {
            if over.abs() < 1e-6 {
                String::new()
            } else if in_thirds {
                (if over < 0.5 { "⅓" } else { "⅔" }).to_owned()
            } else if in_halves {
                "½".to_owned()
            } else {
                format!("{over:.1}")
            }
        };
        match notation {
            PowerNotation::Fraction => {
                let below = if in_thirds || in_halves { stops } else { tenths };
                let whole = (below + 1e-6).floor();
                let over = part(below - whole);
                let fraction = format!("1/{:.0}", (-whole).exp2());
                if over.is_empty() { fraction } else { format!("{fraction} +{over}") }
            }
            PowerNotation::Stops if in_thirds => self.0.thirds(),
            PowerNotation::Stops if in_halves => {
                let whole = stops.abs().floor();
                let whole = if whole == 0.0 { String::new() } else { whole.to_string() };
                format!("−{whole}½")
            }
            PowerNotation::Stops => format!("{tenths:.1}").replace('-', "−"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(0.0, PowerStep::Third, "1/1", "0")]
    #[case(-2.88, PowerStep::Third, "1/8", "−3")]
    #[case(-1.7, PowerStep::Third, "1/4 +⅓", "−1⅔")]
    #[case(-1.3, PowerStep::Third, "1/4 +⅔", "−1⅓")]
    #[case(-0.4, PowerStep::Half, "1/2 +½", "−½")]
    #[case(-2.6, PowerStep::Half, "1/8 +½", "−2½")]
    #[case(-2.68, PowerStep::Tenth, "1/8 +0.3", "−2.7")]
    #[case(-3.02, PowerStep::Tenth, "1/8", "−3")]
    #[case(-2.6, PowerStep::Whole, "1/8", "−3")]
    #[case(-8.0, PowerStep::Third, "1/256", "−8")]
    fn on_the_dial(#[case] stops: f64, #[case] step: PowerStep, #[case] fraction: &str, #[case] in_stops: &str) {
        let power = step.nearest(Power(Stops(stops)));
        assert_eq!(power.label(PowerNotation::Fraction), fraction);
        assert_eq!(power.label(PowerNotation::Stops), in_stops);
    }
}
