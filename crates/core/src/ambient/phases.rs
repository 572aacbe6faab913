//! The kinds of light over a day, by the sun's height.

use super::Sun;
use super::sun::RISE_DEG;

/// A kind of light that lasts a while.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LightPhase {
    /// The sun more than 18° under the horizon.
    Night,
    /// 12° to 18° under: astronomical twilight.
    LastTrace,
    /// 6° to 12° under: nautical twilight.
    DeepTwilight,
    /// Down to 6° under: civil twilight.
    Twilight,
    /// Up to 6° over the horizon. Common practice, no source.
    LowSun,
    /// Higher.
    SunUp,
}

impl LightPhase {
    /// The heights of the sun's centre, without refraction, from which on each phase is, in degrees. Source: the usual
    /// definitions of the twilights, and of sunrise by the sun's upper edge.
    pub const FROM_DEG: [(f64, Self); 5] = [
        (-18.0, Self::LastTrace),
        (-12.0, Self::DeepTwilight),
        (-6.0, Self::Twilight),
        (RISE_DEG, Self::LowSun),
        (6.0, Self::SunUp),
    ];

    /// The phase a sun at its height makes.
    ///
    /// ```
    /// use tolva_core::ambient::{LightPhase, Sun};
    /// let low = Sun { true_altitude_deg: 3.0, apparent_altitude_deg: 3.2, azimuth_deg: 290.0 };
    /// assert_eq!(LightPhase::of(low), LightPhase::LowSun);
    /// ```
    pub fn of(sun: Sun) -> Self {
        let reached = Self::FROM_DEG.iter().rev().find(|(from, _)| sun.true_altitude_deg >= *from);
        reached.map_or(Self::Night, |(_, phase)| *phase)
    }
}
