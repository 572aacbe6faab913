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
    /// No spread, or no number.
    #[error("{0} stops is no certainty: it lies over 0 and is finite")]
    Sure(f64),
}

impl Belief {
    /// What is believed at first: for each unknown how far off it is taken to be and one standard deviation of that, all in
    /// stops and independent of each other.
    ///
    /// # Errors
    /// A spread that is not over nothing, or no number.
    pub fn at_first(unknowns: &[(Stops, Stops)]) -> Result<Self, NotABelief> {
        for (mean, sure) in unknowns {
            if !(sure.0 > 0.0 && sure.0.is_finite() && mean.0.is_finite()) {
                return Err(NotABelief::Sure(sure.0));
            }
        }
        let mean = DVector::from_iterator(unknowns.len(), unknowns.iter().map(|(mean, _)| mean.0));
        let squares = DVector::from_iterator(unknowns.len(), unknowns.iter().map(|(_, sure)| sure.0 * sure.0));
        Ok(Self { mean, spread: DMatrix::from_diagonal(&squares) })
    }

    /// How many unknowns there are.
    pub fn unknowns(&self) -> usize {
        self.mean.len()
    }

    /// What one unknown is believed to be, and one standard deviation of that.
    pub fn of(&self, unknown: usize) -> (Stops, Stops) {
        (Stops(self.mean[unknown]), Stops(self.spread[(unknown, unknown)].max(0.0).sqrt()))
    }

    /// What some of the unknowns are believed to add up to, and one standard deviation of that.
    pub fn sum(&self, of: &[f64]) -> (Stops, Stops) {
        let of = DVector::from_row_slice(of);
        let spread = (of.transpose() * &self.spread * &of)[(0, 0)];
        (Stops(of.dot(&self.mean)), Stops(spread.max(0.0).sqrt()))
    }

    /// What is believed after one more measurement: nothing moves further than its own certainty allows.
    ///
    /// ```
    /// use tolva_core::{frame::{Belief, Evidence}, scale::Stops};
    /// // A unit's output, said to a third of a stop, and a frame that measures it a third under, as surely.
    /// let before = Belief::at_first(&[(Stops(0.0), Stops(1.0 / 3.0))])?;
    /// let frame = Evidence { of: vec![1.0], says: Stops(-1.0 / 3.0), sure: Stops(1.0 / 3.0) };
    /// let (output, sure) = before.with(&frame)?.of(0);
    /// assert!((output.0 + 1.0 / 6.0).abs() < 1e-9 && sure.0 < 0.24);
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
        if !(sure > 0.0 && sure.is_finite()) || !evidence.says.0.is_finite() {
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

    fn first(of: &[(f64, f64)]) -> Belief {
        let all: Vec<_> = of.iter().map(|(mean, sure)| (Stops(*mean), Stops(*sure))).collect();
        Belief::at_first(&all).expect("good")
    }

    fn says(of: &[f64], says: f64, sure: f64) -> Evidence {
        Evidence { of: of.to_vec(), says: Stops(says), sure: Stops(sure) }
    }

    /// Worked by hand: two measurements of one unknown weigh by their inverse squares.
    #[test]
    fn one_unknown_by_hand() {
        let belief = first(&[(0.0, 0.5)]).with(&says(&[1.0], 0.6, 0.1)).expect("taught");
        let (mean, sure) = belief.of(0);
        // 1/0.25 = 4 and 1/0.01 = 100: mean 60/104, spread 1/√104.
        assert!((mean.0 - 60.0 / 104.0).abs() < 1e-12 && (sure.0 - 104f64.sqrt().recip()).abs() < 1e-12);
    }

    /// Only their sum is seen: it is shared out by how unsure each was, and they are bound to each other from then on.
    #[test]
    fn a_sum_is_shared_out() {
        let belief = first(&[(0.0, 0.4), (0.0, 0.2)]).with(&says(&[1.0, 1.0], 0.5, 0.01)).expect("taught");
        let ((output, _), (loss, _)) = (belief.of(0), belief.of(1));
        assert!((output.0 / loss.0 - 4.0).abs() < 1e-9, "by their squares");
        let (sum, sure) = belief.sum(&[1.0, 1.0]);
        assert!((sum.0 - 0.5).abs() < 0.001 && sure.0 < 0.011, "the sum is known");
        assert!(belief.of(0).1.0 > 0.17, "and neither of them");
    }

    /// No frame alone moves a figure more than its certainty allows, and none makes anything less sure.
    #[test]
    fn nothing_gets_less_sure() {
        let mut belief = first(&[(0.0, 0.33), (0.0, 0.2), (0.0, 0.17)]);
        for frame in 0..20 {
            let of = [f64::from(frame % 2), f64::from(frame % 3), 1.0];
            let next = belief.with(&says(&of, 0.3, 0.05)).expect("taught");
            for unknown in 0..3 {
                let ((before, was), (after, is)) = (belief.of(unknown), next.of(unknown));
                assert!(is.0 <= was.0 + 1e-12);
                let surprise = 0.3 - belief.sum(&of).0.0;
                assert!((after.0 - before.0).abs() <= surprise.abs() + 1e-12, "{frame}");
            }
            belief = next;
        }
        assert!(belief.clone().drifted(2, Stops(0.3)).of(2).1.0 > belief.of(2).1.0);
    }

    #[rstest]
    #[case(says(&[1.0], 0.1, 0.1), "2 unknowns")]
    #[case(says(&[1.0, 0.0], 0.1, 0.0), "no certainty")]
    #[case(says(&[1.0, 0.0], f64::NAN, 0.1), "no certainty")]
    fn what_teaches_nothing(#[case] evidence: Evidence, #[case] said: &str) {
        let wrong = first(&[(0.0, 0.3), (0.0, 0.3)]).with(&evidence).expect_err("nothing");
        assert!(wrong.to_string().contains(said), "{wrong}");
        assert!(Belief::at_first(&[(Stops(0.0), Stops(0.0))]).is_err());
    }
}
