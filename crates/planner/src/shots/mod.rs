//! How shots are taken: what each exposure of a multiple one is given, the steps of a bracket, what stays at the same
//! settings, and what a setup's own plan puts on the list.

mod same;

pub(crate) use same::compared;
pub use same::{AsTaken, FrameOf, Held, Kept, held};

use tolva_core::exposure::CameraSettings;
use tolva_core::optics::Stack;
use tolva_core::scale::{Millimetres, Setting, Shutter, Stops};

use crate::lighting::Prepared;
use crate::setup::{Depth, Setup, Shot, ShotKind};

/// A setup has so many shots at most.
pub const MOST_SHOTS: usize = 40;

impl ShotKind {
    /// Whether every frame of it is taken at the setup's own settings.
    pub fn keeps_settings(self) -> bool {
        !matches!(self, Self::MultipleExposure | Self::Bracket | Self::Panning)
    }

    /// Where it stands in a list whose like stay together: pictures first, then what changes who stands in the frame, then
    /// what turns a dial.
    fn place(self, people_out: bool) -> u8 {
        match self {
            Self::Picture if !people_out => 0,
            Self::HelperPair => 1,
            Self::CleanPlate if !people_out => 2,
            Self::Stack => 3,
            Self::Picture | Self::CleanPlate => 4,
            Self::Bracket => 5,
            Self::MultipleExposure => 6,
            Self::Panning => 7,
        }
    }
}

/// What each exposure of a shot is given against the setup's own exposure, in stops: of a multiple exposure of n like ones
/// −log₂ n each, so that all of them sum to the single one; of a bracket its steps, even about 0. Nothing of the rest.
///
/// ```
/// use tolva_planner::{setup::{Shot, ShotKind}, shots::exposures};
/// let shot = Shot { kind: ShotKind::MultipleExposure, frames: 4, ..Shot::new("a") };
/// assert_eq!(exposures(&shot).iter().map(|one| one.0).collect::<Vec<_>>(), [-2.0; 4]);
/// let shot = Shot { kind: ShotKind::Bracket, frames: 3, step_stops: 2.0, ..shot };
/// assert_eq!(exposures(&shot).iter().map(|one| one.0).collect::<Vec<_>>(), [-2.0, 0.0, 2.0]);
/// ```
pub fn exposures(shot: &Shot) -> Vec<Stops> {
    let count = shot.frames.max(1);
    match shot.kind {
        ShotKind::MultipleExposure if shot.parts.is_empty() => {
            (0..count).map(|_| Stops(-f64::from(count).log2())).collect()
        }
        ShotKind::MultipleExposure => {
            let whole: f64 = shot.parts.iter().sum();
            shot.parts.iter().map(|part| Stops((part / whole).log2())).collect()
        }
        ShotKind::Bracket => {
            let middle = f64::from(count - 1) / 2.0;
            (0..count).map(|index| Stops((f64::from(index) - middle) * shot.step_stops)).collect()
        }
        _ => Vec::new(),
    }
}

/// The shutter of a frame that is given so much more than the setup's exposure: what the light that is there is bracketed
/// by. Nothing where the dial does not go there, or where the flash would no longer sync.
pub fn shutter_for(setup: &Prepared<'_>, stands: CameraSettings, more: Stops) -> Option<Setting<Shutter>> {
    let wanted = stands.shutter.position() - more;
    let found = setup.shutters.nearest(wanted);
    let synced = !setup.with_flash() || found.position().0 <= setup.sync_safe.position().0 + 1e-6;
    ((found.position() - wanted).0.abs() < 0.2 && synced).then_some(found)
}

/// The order in which what must stay the same stays together, as places in the list: what is at the same settings first,
/// frames with people before empty ones, and what turns a dial last. Otherwise as they were.
pub fn together(shots: &[Shot]) -> Vec<usize> {
    let mut order: Vec<usize> = (0..shots.len()).collect();
    order.sort_by_key(|at| shots[*at].kind.place(shots[*at].people_out));
    order
}

/// The stack of frames a setup works by close up. Nothing where it takes none.
pub fn stack(setup: &Prepared<'_>, stands: CameraSettings) -> Option<Stack> {
    let Depth::CloseUp { depth_mm, stacked: true, overlap, .. } = setup.setup.depth else { return None };
    let close = setup.close_up?;
    Some(close.stack(Millimetres(depth_mm), stands.aperture.exact, setup.circle_of_confusion, overlap))
}

/// The same where it is not on the list of shots yet.
pub fn stack_missing(setup: &Prepared<'_>, stands: CameraSettings) -> Option<Stack> {
    let listed = setup.setup.shots.iter().any(|shot| shot.kind == ShotKind::Stack);
    stack(setup, stands).filter(|_| !listed)
}

impl Setup {
    /// How many frames its shots ask for, and how many are ticked off; what is over counts for nothing.
    pub fn frames_taken(&self) -> (u32, u32) {
        let asked = self.shots.iter().map(|shot| shot.frames).sum();
        (self.shots.iter().map(|shot| shot.taken.min(shot.frames)).sum(), asked)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::Kit;
    use crate::solver::Outcome;
    use rstest::rstest;

    fn shot(kind: ShotKind, people_out: bool) -> Shot {
        Shot { kind, people_out, ..Shot::new("a") }
    }

    /// n exposures each −log₂ n stops sum to the single one, and so do those by their parts.
    #[rstest]
    #[case(2, &[])]
    #[case(3, &[])]
    #[case(9, &[])]
    #[case(3, &[1.0, 2.0, 5.0])]
    #[case(2, &[0.25, 0.75])]
    fn exposures_sum_to_one(#[case] frames: u32, #[case] parts: &[f64]) {
        let shot = Shot { frames, parts: parts.to_vec(), ..shot(ShotKind::MultipleExposure, false) };
        let all = exposures(&shot);
        let sum: f64 = all.iter().map(|one| one.ratio()).sum();
        assert!((sum - 1.0).abs() < 1e-9 && all.len() == frames as usize, "{all:?}");
    }

    #[test]
    fn what_stays_the_same_stays_together() {
        use ShotKind::{Bracket, CleanPlate, HelperPair, Panning, Picture};
        let list = [
            shot(Bracket, false),
            shot(CleanPlate, true),
            shot(Picture, false),
            shot(HelperPair, false),
            shot(Panning, false),
            shot(Picture, false),
        ];
        assert_eq!(together(&list), [2, 5, 3, 1, 0, 4]);
        let same: Vec<usize> = together(&list).into_iter().filter(|at| list[*at].kind.keeps_settings()).collect();
        assert_eq!(same.len(), 4);
    }

    /// A frame of a bracket that would be faster than the sync is not had by the shutter while a flash fires.
    #[test]
    fn a_bracket_stays_within_the_sync() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.fixed.shutter_s = Some(1.0 / 200.0);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let stands = Outcome::of(&prepared).settings;
        assert_eq!(shutter_for(&prepared, stands, Stops(1.0)).map(Setting::label), Some("1/100".to_owned()));
        assert_eq!(shutter_for(&prepared, stands, Stops(-1.0)), None);
        let mut bare = setup.clone();
        bare.lights.clear();
        let prepared = Prepared::new(&bare, &kit).expect("good");
        assert_eq!(shutter_for(&prepared, stands, Stops(-1.0)).map(Setting::label), Some("1/400".to_owned()));
    }

    #[test]
    fn a_stack_is_offered_until_it_is_on_the_list() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.lens_id = "close-100".to_owned();
        setup.depth = Depth::CloseUp { magnification: 1.0, depth_mm: 10.0, stacked: true, overlap: 0.3 };
        let missing = |setup: &Setup| {
            let prepared = Prepared::new(setup, &kit).expect("good");
            stack_missing(&prepared, Outcome::of(&prepared).settings).map(|stack| stack.frames)
        };
        let frames = missing(&setup).expect("a stack");
        assert!(frames > 2, "{frames}");
        setup.shots.push(Shot { kind: ShotKind::Stack, frames, taken: 2, ..Shot::new("a") });
        assert_eq!((missing(&setup), setup.frames_taken()), (None, (2, frames)));
    }
}
