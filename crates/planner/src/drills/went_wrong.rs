//! What to practise after a job: from what its frames were off by, and from what was corrected again and again.

use super::Skill;

/// What one region of a frame came to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CameOff {
    /// By how many stops it came brighter than planned.
    pub off_stops: f64,
    /// Whether a flash is aimed there, and fired.
    pub by_flash: bool,
}

/// A dial that was turned after a frame.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Corrected {
    /// Shutter, aperture or ISO.
    Camera,
    /// The power of a flash.
    Power,
    /// How far a flash stands.
    Distance,
}

/// A frame was off by more than that, in stops: a click of the dials.
const OFF_STOPS: f64 = 1.0 / 3.0 + 0.05;
/// The same correction so many times is no accident.
const AGAIN: usize = 3;

/// What to practise first, what weighs most first; empty where nothing went wrong.
pub fn went_wrong(came: &[CameOff], corrected: &[Corrected]) -> Vec<Skill> {
    let off =
        |by_flash: bool| came.iter().filter(|one| one.by_flash == by_flash && one.off_stops.abs() > OFF_STOPS).count();
    let again = |what: Corrected| {
        let count = corrected.iter().filter(|one| **one == what).count();
        if count >= AGAIN { count } else { 0 }
    };
    let mut all = vec![
        (off(true), Skill::GuideNumbers),
        (off(true), Skill::HalfAndHalf),
        (off(false), Skill::WhatMovesWhat),
        (off(false), Skill::SkinBySpot),
        (again(Corrected::Camera), Skill::EqualExposures),
        (again(Corrected::Power), Skill::Powers),
        (again(Corrected::Distance), Skill::Distances),
    ];
    all.retain(|(count, _)| *count > 0);
    all.sort_by_key(|(count, _)| std::cmp::Reverse(*count));
    all.into_iter().map(|(_, skill)| skill).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::all_well(&[(0.1, true), (-0.3, false)], &[Corrected::Power; 2], &[])]
    #[case::flash(&[(0.9, true), (-0.5, true), (0.5, false)], &[], &[Skill::GuideNumbers, Skill::HalfAndHalf, Skill::WhatMovesWhat, Skill::SkinBySpot])]
    #[case::again(&[], &[Corrected::Power, Corrected::Power, Corrected::Power, Corrected::Camera], &[Skill::Powers])]
    fn what_went_wrong_is_practised(
        #[case] came: &[(f64, bool)],
        #[case] corrected: &[Corrected],
        #[case] skills: &[Skill],
    ) {
        let came: Vec<CameOff> =
            came.iter().map(|(off_stops, by_flash)| CameOff { off_stops: *off_stops, by_flash: *by_flash }).collect();
        assert_eq!(went_wrong(&came, corrected), skills);
    }
}
