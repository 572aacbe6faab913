//! How much less the far ones of a group get than the near ones.

use crate::scale::{Metres, Stops};

/// How much more the nearest of a group gets than the farthest, by the inverse square: 2·log₂(far/near). Never
/// negative.
pub fn falloff(nearest: Metres, farthest: Metres) -> Stops {
    Stops(2.0 * (farthest.0 / nearest.0).log2().abs())
}

/// How far the light must stand from the nearest of a group so deep for the falloff to stay under a limit:
/// depth/(2^(limit/2) − 1).
///
/// ```
/// use tolva_core::{modifier::{falloff, step_back}, scale::{Metres, Stops}};
/// let third = Stops(1.0 / 3.0);
/// let from = step_back(Metres(0.6), third);
/// assert!((from.0 - 4.9).abs() < 0.01);
/// assert!((falloff(from, Metres(from.0 + 0.6)).0 - third.0).abs() < 1e-9);
/// ```
pub fn step_back(deep: Metres, limit: Stops) -> Metres {
    Metres(deep.0 / ((limit.0 / 2.0).exp2() - 1.0))
}
