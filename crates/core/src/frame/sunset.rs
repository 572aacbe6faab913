//! A sunset, read by a camera's clipping warning: the largest exposure at which the warning has just gone.

use crate::exposure::Ev;
use crate::scale::Stops;

/// A frame, and whether its warning shows.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Warned {
    /// The exposure value its settings are right for.
    pub at: Ev,
    /// Whether the warning shows on the part that is to keep its colour.
    pub clipped: bool,
}

/// Why the warning says nothing.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NoSunset {
    /// All are clipped.
    #[error("the warning shows in every frame: take one darker")]
    AllClipped,
    /// None is.
    #[error("the warning shows in no frame: take one brighter, until it comes")]
    NoneClipped,
    /// A darker frame warns and a brighter one does not.
    #[error("a darker frame warns and a brighter one does not: the light has changed between them, take them anew")]
    Crossed,
}

/// The exposure at which the warning has just gone, and how far it may be over: half the step between the frames.
///
/// # Errors
/// All clipped, none, or frames that contradict each other.
///
/// ```
/// use tolva_core::{exposure::Ev, frame::{Warned, just_gone}};
/// let frames = [Warned { at: Ev(12.0), clipped: true }, Warned { at: Ev(13.0), clipped: false }];
/// let (at, sure) = just_gone(&frames)?;
/// assert_eq!((at.0, sure.0), (12.5, 0.5));
/// # Ok::<(), tolva_core::frame::NoSunset>(())
/// ```
pub fn just_gone(frames: &[Warned]) -> Result<(Ev, Stops), NoSunset> {
    let of = |clipped: bool| frames.iter().filter(move |one| one.clipped == clipped).map(|one| one.at.0);
    let darkest_clipped = of(true).fold(f64::MIN, f64::max);
    let brightest_clear = of(false).fold(f64::MAX, f64::min);
    if of(false).next().is_none() {
        return Err(NoSunset::AllClipped);
    }
    if of(true).next().is_none() {
        return Err(NoSunset::NoneClipped);
    }
    if darkest_clipped >= brightest_clear {
        return Err(NoSunset::Crossed);
    }
    Ok((Ev(f64::midpoint(darkest_clipped, brightest_clear)), Stops((brightest_clear - darkest_clipped) / 2.0)))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn frames(all: &[(f64, bool)]) -> Vec<Warned> {
        all.iter().map(|(at, clipped)| Warned { at: Ev(*at), clipped: *clipped }).collect()
    }

    #[rstest]
    #[case(&[(12.0, true)], NoSunset::AllClipped)]
    #[case(&[(12.0, false)], NoSunset::NoneClipped)]
    #[case(&[], NoSunset::AllClipped)]
    #[case(&[(13.0, true), (12.0, false)], NoSunset::Crossed)]
    fn what_says_nothing(#[case] all: &[(f64, bool)], #[case] wrong: NoSunset) {
        assert_eq!(just_gone(&frames(all)), Err(wrong));
    }

    #[test]
    fn the_nearest_two_count() {
        let all = frames(&[(10.0, true), (12.0, true), (12.667, false), (15.0, false)]);
        let (at, sure) = just_gone(&all).expect("told");
        assert!((at.0 - 12.333_5).abs() < 1e-9 && (sure.0 - 0.333_5).abs() < 1e-9);
    }
}
