//! Getting surer: what is believed of things that are not known, in stops, and what a frame teaches about them.
//!
//! Everything is linear in stops, so that a normal prior and a normal likelihood have a closed form: the update of Kalman
//! (common knowledge; R. E. Kalman, "A New Approach to Linear Filtering and Prediction Problems", 1960).

use nalgebra::{DMatrix, DVector};

use crate::scale::Stops;

/// What is believed of several unknowns together: how far each is from what the plan takes it for, and how sure that is.
#[derive(Clone, Debug, PartialEq)]
pub struct Belief {
    mean: DVector<f64>,
    spread: DMatrix<f64>,
}

/// What a frame says: some of the unknowns add up to so much.
#[derive(Clone, Debug, PartialEq)]
pub struct Evidence {
    /// How much of each unknown is in it: one number an unknown.
    pub of: Vec<f64>,
    /// What they add up to.
    pub says: Stops,
    /// How well it was measured: one standard deviation, over nothing.
    pub sure: Stops,
}

/// Why evidence teaches nothing.
#[derive(Clone, Copy, Debug, PartialEq, thiserror::Error)]
pub enum NotABelief {
    /// Not one number an unknown.
    #[error("there are {wanted} unknowns, and the evidence is of {found}")]
    Unknowns {
        /// How many there are.
        wanted: usize,
        /// How many it is of.
        found: usize,
    },
    /// Not one number a pair.
    #[error("there are {wanted} pairs of unknowns, and {found} correlations")]
    Pairs {
        /// How many there are.
        wanted: usize,
        /// How many were handed in.
        found: usize,
    },
    /// A correlation that is none.
    #[error("{0} is no correlation: it lies between −1 and 1")]
    Correlation(f64),
    /// Each may be, and all together may not.
    #[error("no unknowns are bound to each other like that")]
    Together,
    /// No spread, or no number.
    #[error("{0} stops is no certainty: it lies over 0 and is finite")]
    Sure(f64),
}

/// Of an unknown that is none: no certainty.
const NOTHING: Estimate = Estimate { more: Stops(0.0), sure: Stops(f64::NAN) };

/// What one unknown is taken to be.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Estimate {
    /// How much more than said, in stops.
    pub more: Stops,
    /// One standard deviation of that, in stops.
    pub sure: Stops,
}

impl Belief {
    /// What is believed at first: for each unknown how far off it is taken to be and one standard deviation of that, all in
    /// stops and independent of each other.
    ///
    /// # Errors
    /// A spread that is not over nothing, or no number.
    pub fn at_first(unknowns: &[Estimate]) -> Result<Self, NotABelief> {
        for Estimate { more, sure } in unknowns {
            if !(sure.0 > 0.0 && sure.0.is_finite() && more.0.is_finite()) {
                return Err(NotABelief::Sure(sure.0));
            }
        }
        let mean = DVector::from_iterator(unknowns.len(), unknowns.iter().map(|one| one.more.0));
        let squares = DVector::from_iterator(unknowns.len(), unknowns.iter().map(|one| one.sure.0 * one.sure.0));
        Ok(Self { mean, spread: DMatrix::from_diagonal(&squares) })
    }

    /// What is believed of unknowns that are bound to each other: for each unknown how far off it is taken to be and one
    /// standard deviation of that, and the correlations, −1 to 1, of each unknown with those before it, one after the other.
    ///
    /// # Errors
    /// Another number of correlations than there are pairs, or numbers that no unknowns can have together.
    pub fn bound(unknowns: &[Estimate], correlations: &[f64]) -> Result<Self, NotABelief> {
        let mut belief = Self::at_first(unknowns)?;
        let pairs = unknowns.len() * unknowns.len().saturating_sub(1) / 2;
        if correlations.len() != pairs {
            return Err(NotABelief::Pairs { wanted: pairs, found: correlations.len() });
        }
        let mut next = correlations.iter();
        for row in 1..unknowns.len() {
            for column in 0..row {
                let correlation = *next.next().unwrap_or(&f64::NAN);
                if !(-1.0..=1.0).contains(&correlation) {
                    return Err(NotABelief::Correlation(correlation));
                }
                let spread = correlation * unknowns[row].sure.0 * unknowns[column].sure.0;
                belief.spread[(row, column)] = spread;
                belief.spread[(column, row)] = spread;
            }
        }
        // Rounding may leave what is all but certain a hair under nothing.
        let grown = &belief.spread + DMatrix::identity(unknowns.len(), unknowns.len()) * 1e-9;
        if !unknowns.is_empty() && grown.cholesky().is_none() {
            return Err(NotABelief::Together);
        }
        Ok(belief)
    }

    /// The correlations of each unknown with those before it, one after the other, as [`Belief::bound`] takes them.
    pub fn correlations(&self) -> Vec<f64> {
        let pairs = (1..self.unknowns()).flat_map(|row| (0..row).map(move |column| (row, column)));
        pairs
            .map(|(row, column)| {
                let both = (self.spread[(row, row)] * self.spread[(column, column)]).sqrt();
                if both > 0.0 { (self.spread[(row, column)] / both).clamp(-1.0, 1.0) } else { 0.0 }
            })
            .collect()
    }

    /// How many unknowns there are.
    pub fn unknowns(&self) -> usize {
        self.mean.len()
    }

    /// What one unknown is believed to be, and one standard deviation of that.
    pub fn of(&self, unknown: usize) -> Estimate {
        let square = self.spread[(unknown, unknown)];
        Estimate { more: Stops(self.mean[unknown]), sure: Stops(square.max(0.0).sqrt()) }
    }

    /// What some of the unknowns are believed to add up to, and one standard deviation of that.
    pub fn sum(&self, of: &[f64]) -> Estimate {
        let of = DVector::from_row_slice(of);
        let spread = (of.transpose() * &self.spread * &of)[(0, 0)];
        Estimate { more: Stops(of.dot(&self.mean)), sure: Stops(spread.max(0.0).sqrt()) }
    }

    /// What is believed after one more measurement: nothing moves further than its own certainty allows.
    ///
    /// ```
    /// use tolva_core::{frame::{Belief, Estimate, Evidence}, scale::Stops};
    /// // A unit's output, said to a third of a stop, and a frame that measures it a third under, as surely.
    /// let before = Belief::at_first(&[Estimate { more: Stops(0.0), sure: Stops(1.0 / 3.0) }])?;
    /// let frame = Evidence { of: vec![1.0], says: Stops(-1.0 / 3.0), sure: Stops(1.0 / 3.0) };
    /// let output = before.with(&frame)?.of(0);
    /// assert!((output.more.0 + 1.0 / 6.0).abs() < 1e-9 && output.sure.0 < 0.24);
    /// # Ok::<(), tolva_core::frame::NotABelief>(())
    /// ```
    ///
    /// # Errors
    /// Evidence of another number of unknowns, or of no certainty.
    pub fn with(&self, evidence: &Evidence) -> Result<Self, NotABelief> {
        let (wanted, found) = (self.unknowns(), evidence.of.len());
        if wanted != found {
            return Err(NotABelief::Unknowns { wanted, found });
        }
        let sure = evidence.sure.0;
        if !(sure > 0.0 && sure.is_finite() && evidence.says.0.is_finite()) {
            return Err(NotABelief::Sure(sure));
        }
        let of = DVector::from_row_slice(&evidence.of);
        let shared = &self.spread * &of;
        let whole = of.dot(&shared) + sure * sure;
        let gain = &shared / whole;
        let mean = &self.mean + &gain * (evidence.says.0 - of.dot(&self.mean));
        // Joseph's form: it stays symmetric and positive whatever the rounding.
        let rest = DMatrix::identity(wanted, wanted) - &gain * of.transpose();
        let spread = &rest * &self.spread * rest.transpose() + &gain * gain.transpose() * (sure * sure);
        Ok(Self { mean, spread })
    }

    /// The same for another list of unknowns: each is one of these, or a new one with how far off it is taken to be and one
    /// standard deviation of that. What is not in the list any more is forgotten; what stays, stays bound to each other.
    ///
    /// # Errors
    /// A spread that is not over nothing, or no number.
    pub fn arranged(&self, unknowns: &[Result<usize, Estimate>]) -> Result<Self, NotABelief> {
        let fresh: Vec<Estimate> = unknowns
            .iter()
            .map(|one| {
                one.map_or_else(|fresh| fresh, |known| if known < self.unknowns() { self.of(known) } else { NOTHING })
            })
            .collect();
        let mut belief = Self::at_first(&fresh)?;
        for (row, one) in unknowns.iter().enumerate() {
            for (column, other) in unknowns.iter().enumerate() {
                if let (Ok(one), Ok(other)) = (one, other) {
                    belief.spread[(row, column)] = self.spread[(*one, *other)];
                }
            }
        }
        Ok(belief)
    }

    /// What is believed after a while in which one unknown may have drifted by so much.
    #[must_use]
    pub fn drifted(mut self, unknown: usize, by: Stops) -> Self {
        self.spread[(unknown, unknown)] += by.0 * by.0;
        self
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn estimate(more: f64, sure: f64) -> Estimate {
        Estimate { more: Stops(more), sure: Stops(sure) }
    }

    fn first(of: &[(f64, f64)]) -> Belief {
        let all: Vec<_> = of.iter().map(|(more, sure)| estimate(*more, *sure)).collect();
        Belief::at_first(&all).expect("good")
    }

    fn says(of: &[f64], says: f64, sure: f64) -> Evidence {
        Evidence { of: of.to_vec(), says: Stops(says), sure: Stops(sure) }
    }

    /// Worked by hand: two measurements of one unknown weigh by their inverse squares.
    #[test]
    fn one_unknown_by_hand() {
        let belief = first(&[(0.0, 0.5)]).with(&says(&[1.0], 0.6, 0.1)).expect("taught");
        let Estimate { more, sure } = belief.of(0);
        // 1/0.25 = 4 and 1/0.01 = 100: mean 60/104, spread 1/√104.
        assert!((more.0 - 60.0 / 104.0).abs() < 1e-12 && (sure.0 - 104f64.sqrt().recip()).abs() < 1e-12);
    }

    /// Only their sum is seen: it is shared out by how unsure each was, and they are bound to each other from then on.
    #[test]
    fn a_sum_is_shared_out() {
        let belief = first(&[(0.0, 0.4), (0.0, 0.2)]).with(&says(&[1.0, 1.0], 0.5, 0.01)).expect("taught");
        let (output, loss) = (belief.of(0).more, belief.of(1).more);
        assert!((output.0 / loss.0 - 4.0).abs() < 1e-9, "by their squares");
        let Estimate { more: sum, sure } = belief.sum(&[1.0, 1.0]);
        assert!((sum.0 - 0.5).abs() < 0.001 && sure.0 < 0.011, "the sum is known");
        assert!(belief.of(0).sure.0 > 0.17, "and neither of them");
    }

    #[test]
    fn it_can_be_written_down() {
        let belief =
            first(&[(0.1, 0.4), (0.0, 0.2), (0.0, 0.3)]).with(&says(&[1.0, 1.0, 0.4], 0.5, 0.01)).expect("taught");
        let each: Vec<_> = (0..3).map(|at| belief.of(at)).collect();
        let again = Belief::bound(&each, &belief.correlations()).expect("the same");
        let of = [1.0, 0.7, 0.2];
        assert!((again.sum(&of).sure.0 - belief.sum(&of).sure.0).abs() < 1e-9);
        assert!(matches!(Belief::bound(&each, &[0.5]), Err(NotABelief::Pairs { wanted: 3, found: 1 })));
        assert!(matches!(Belief::bound(&each, &[0.5, 1.5, 0.0]), Err(NotABelief::Correlation(_))));
        assert_eq!(Belief::bound(&each, &[0.9, -0.9, 0.9]), Err(NotABelief::Together));
    }

    #[test]
    fn unknowns_come_and_go() {
        let belief = first(&[(0.0, 0.4), (0.0, 0.2)]).with(&says(&[1.0, 1.0], 0.5, 0.01)).expect("taught");
        let turned = belief.arranged(&[Ok(1), Err(estimate(0.0, 0.3)), Ok(0)]).expect("good");
        assert_eq!((turned.of(0), turned.of(2)), (belief.of(1), belief.of(0)));
        assert_eq!(turned.of(1), estimate(0.0, 0.3));
        assert!(
            (turned.sum(&[1.0, 0.0, 1.0]).sure.0 - belief.sum(&[1.0, 1.0]).sure.0).abs() < 1e-12,
            "bound as they were"
        );
        assert!(belief.arranged(&[Ok(7)]).is_err());
    }

    /// No frame alone moves a figure more than its certainty allows, and none makes anything less sure.
    #[test]
    fn nothing_gets_less_sure() {
        let mut belief = first(&[(0.0, 0.33), (0.0, 0.2), (0.0, 0.17)]);
        for frame in 0..20 {
            let of = [f64::from(frame % 2), f64::from(frame % 3), 1.0];
            let next = belief.with(&says(&of, 0.3, 0.05)).expect("taught");
            for unknown in 0..3 {
                let (before, after) = (belief.of(unknown), next.of(unknown));
                assert!(after.sure.0 <= before.sure.0 + 1e-12);
                let surprise = 0.3 - belief.sum(&of).more.0;
                assert!((after.more.0 - before.more.0).abs() <= surprise.abs() + 1e-12, "{frame}");
            }
            belief = next;
        }
        assert!(belief.clone().drifted(2, Stops(0.3)).of(2).sure.0 > belief.of(2).sure.0);
    }

    #[rstest]
    #[case(says(&[1.0], 0.1, 0.1), "2 unknowns")]
    #[case(says(&[1.0, 0.0], 0.1, 0.0), "no certainty")]
    #[case(says(&[1.0, 0.0], f64::NAN, 0.1), "no certainty")]
    fn what_teaches_nothing(#[case] evidence: Evidence, #[case] said: &str) {
        let wrong = first(&[(0.0, 0.3), (0.0, 0.3)]).with(&evidence).expect_err("nothing");
        assert!(wrong.to_string().contains(said), "{wrong}");
        assert!(Belief::at_first(&[estimate(0.0, 0.0)]).is_err());
    }
}
