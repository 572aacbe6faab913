//! What is kept first where not everything can be had. The weights are common practice, no source.

use crate::setup::{Preference, Setup};

/// How much each counts against the usual.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Weights<'a> {
    order: Option<&'a [Preference]>,
}

impl<'a> Weights<'a> {
    /// The weights of a setup.
    pub fn of(setup: &'a Setup) -> Self {
        Self { order: setup.preferences.as_deref().filter(|order| !order.is_empty()) }
    }

    /// 1 for all in the usual order; otherwise from 4 for the first down by halves, and ¼ for what is not named.
    pub fn get(self, of: Preference) -> f64 {
        let Some(order) = self.order else { return 1.0 };
        let rank = order.iter().position(|one| *one == of).unwrap_or(4).min(4);
        [4.0, 2.0, 1.0, 0.5, 0.25][rank]
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::Kit;

    #[test]
    fn the_first_weighs_most() {
        let mut setup = Setup::new("a", &Kit::starter());
        assert!(Preference::USUAL.iter().all(|one| (Weights::of(&setup).get(*one) - 1.0).abs() < 1e-12));
        setup.preferences = Some(vec![Preference::LowPower, Preference::LowIso]);
        let weights = Weights::of(&setup);
        assert!(weights.get(Preference::LowPower) > weights.get(Preference::LowIso));
        assert!(weights.get(Preference::LowIso) > weights.get(Preference::Depth));
    }
}
