//! Whether a plate, a pair or a stack came at the settings of its picture, by what the frames' own files say.

use crate::setup::{Shot, ShotKind};

/// So little between two settings is the same setting, in stops: files round 1/125 s as they like, and the least step of a
/// dial is a third.
const SAME_STOPS: f64 = 0.1;
/// The same of two focal lengths, as a part: what a zoom may creep without the pictures ceasing to lie on each other.
/// Common practice, no source.
const SAME_LENGTH: f64 = 0.01;

/// What a frame's file says it was taken with; nothing where it does not say.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct AsTaken {
    /// The shutter time in seconds.
    pub shutter_s: Option<f64>,
    /// The f-number.
    pub f_number: Option<f64>,
    /// The ISO.
    pub iso: Option<f64>,
    /// The focal length in millimetres.
    pub focal_length_mm: Option<f64>,
    /// Whether the flash fired.
    pub flash: Option<bool>,
    /// Upright, in pixels.
    pub size: (u32, u32),
}

/// Something two frames are to have in common.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kept {
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
    /// The focal length.
    FocalLength,
    /// Whether the flash fired.
    Flash,
    /// Width and height.
    Size,
}

/// A frame that is to be as another one.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Held {
    /// The frame it is held to, by its place in the list.
    pub to: usize,
    /// What is not as there.
    pub differs: Vec<Kept>,
    /// What cannot be told, since the file of one of them does not say it.
    pub untold: Vec<Kept>,
}

impl Held {
    /// Whether all that is to be the same is told, and is.
    pub fn is_same(&self) -> bool {
        self.differs.is_empty() && self.untold.is_empty()
    }
}

/// A frame and its shot, if one was chosen for it.
#[derive(Clone, Copy, Debug)]
pub struct FrameOf<'a> {
    /// Its shot.
    pub shot: Option<&'a Shot>,
    /// How it was taken.
    pub taken: AsTaken,
}

/// What each frame is held to, in the order they came: a plate, a pair or a stack to the picture before it, to the next one
/// where none came before, and to the first of its own shot where there is no picture at all. Nothing for pictures
/// themselves, for what turns a dial, and where there is nothing to hold it to. A frame of which nobody has said what shot
/// it is counts as a picture.
///
/// `lights` is how many lights the setup has: a shot with all of them off is to come without flash.
///
/// ```
/// use tolva_planner::setup::{Shot, ShotKind};
/// use tolva_planner::shots::{AsTaken, FrameOf, Kept, held};
/// let plate = Shot { kind: ShotKind::CleanPlate, ..Shot::new("plate") };
/// let at = |shutter| AsTaken { shutter_s: Some(shutter), f_number: Some(8.0), iso: Some(100.0), ..AsTaken::default() };
/// let frames = [
///     FrameOf { shot: None, taken: at(1.0 / 125.0) },
///     FrameOf { shot: Some(&plate), taken: at(1.0 / 60.0) },
/// ];
/// let all = held(&frames, 1);
/// assert_eq!(all[0], None);
/// assert_eq!(all[1].as_ref().map(|held| (held.to, held.differs.clone())), Some((0, vec![Kept::Shutter])));
/// ```
pub fn held(frames: &[FrameOf<'_>], lights: usize) -> Vec<Option<Held>> {
    let is_picture = |at: &usize| frames[*at].shot.is_none_or(|shot| shot.kind == ShotKind::Picture);
    let hold = |index: usize| {
        let FrameOf { shot, taken } = &frames[index];
        let shot = shot.filter(|shot| shot.kind.keeps_settings() && shot.kind != ShotKind::Picture)?;
        let before = (0..index).rev().find(is_picture);
        let picture = before.or_else(|| (index + 1..frames.len()).find(is_picture));
        let first = || (0..index).find(|at| frames[*at].shot.is_some_and(|other| other.id == shot.id));
        let to = picture.or_else(first)?;
        let dark = lights > 0 && shot.lights_off.len() >= lights;
        Some(compared(to, taken, &frames[to].taken, dark))
    };
    (0..frames.len()).map(hold).collect()
}

pub(crate) fn compared(to: usize, one: &AsTaken, other: &AsTaken, dark: bool) -> Held {
    let stops = |a: f64, b: f64, each: f64| (each * (a / b).log2()).abs() < SAME_STOPS;
    let both = |a: Option<f64>, b: Option<f64>, same: &dyn Fn(f64, f64) -> bool| a.zip(b).map(|(a, b)| same(a, b));
    let flash_wanted = if dark { Some(false) } else { other.flash };
    let all = [
        (Kept::Shutter, both(one.shutter_s, other.shutter_s, &|a, b| stops(a, b, 1.0))),
        (Kept::Aperture, both(one.f_number, other.f_number, &|a, b| stops(a, b, 2.0))),
        (Kept::Iso, both(one.iso, other.iso, &|a, b| stops(a, b, 1.0))),
        (
            Kept::FocalLength,
            both(one.focal_length_mm, other.focal_length_mm, &|a, b| (a / b - 1.0).abs() < SAME_LENGTH),
        ),
        (Kept::Flash, one.flash.zip(flash_wanted).map(|(a, b)| a == b)),
        (Kept::Size, Some(one.size == other.size)),
    ];
    let those = |wanted: Option<bool>| all.iter().filter(|(_, is)| *is == wanted).map(|(what, _)| *what).collect();
    // A lens without contacts tells no length, and a flash on a cable or by radio is often not told: neither says that
    // anything was turned.
    let mut untold: Vec<Kept> = those(None);
    untold.retain(|what| !matches!(what, Kept::FocalLength | Kept::Flash));
    Held { to, differs: those(Some(false)), untold }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn plain() -> FrameOf<'static> {
        FrameOf { shot: None, taken: taken() }
    }

    fn taken() -> AsTaken {
        AsTaken {
            shutter_s: Some(1.0 / 125.0),
            f_number: Some(5.6),
            iso: Some(100.0),
            focal_length_mm: Some(35.0),
            flash: Some(true),
            size: (6000, 4000),
        }
    }

    fn shot(id: &str, kind: ShotKind) -> Shot {
        Shot { kind, ..Shot::new(id) }
    }

    #[rstest]
    #[case::as_files_round(AsTaken { shutter_s: Some(0.008), f_number: Some(5.66), ..taken() }, &[])]
    #[case::a_third_slower(AsTaken { shutter_s: Some(0.01), ..taken() }, &[Kept::Shutter])]
    #[case::a_third_wider(AsTaken { f_number: Some(5.0), ..taken() }, &[Kept::Aperture])]
    #[case::iso(AsTaken { iso: Some(125.0), ..taken() }, &[Kept::Iso])]
    #[case::zoomed(AsTaken { focal_length_mm: Some(37.0), ..taken() }, &[Kept::FocalLength])]
    #[case::no_flash(AsTaken { flash: Some(false), ..taken() }, &[Kept::Flash])]
    #[case::upright(AsTaken { size: (4000, 6000), ..taken() }, &[Kept::Size])]
    fn what_differs_is_named(#[case] plate: AsTaken, #[case] differs: &[Kept]) {
        let of = shot("plate", ShotKind::CleanPlate);
        let all = held(&[plain(), FrameOf { shot: Some(&of), taken: plate }], 1);
        let found = all[1].as_ref().expect("held");
        assert_eq!((found.to, found.differs.as_slice(), found.untold.len()), (0, differs, 0));
        assert_eq!(found.is_same(), differs.is_empty());
    }

    #[test]
    fn what_is_not_told_is_no_difference() {
        let of = shot("plate", ShotKind::CleanPlate);
        let bare = AsTaken { iso: None, flash: None, focal_length_mm: None, ..taken() };
        let all = held(&[plain(), FrameOf { shot: Some(&of), taken: bare }], 1);
        let found = all[1].as_ref().expect("held");
        assert_eq!((found.differs.len(), found.untold.as_slice()), (0, &[Kept::Iso][..]));
        assert!(!found.is_same());
    }

    /// A plate without flash is to come without it, whatever the picture had.
    #[rstest]
    #[case(1, Some(false), true)]
    #[case(1, Some(true), false)]
    #[case(2, Some(true), true)]
    fn a_plate_without_flash(#[case] lights: usize, #[case] flash: Option<bool>, #[case] same: bool) {
        let of = Shot { lights_off: vec!["A".into()], ..shot("plate", ShotKind::CleanPlate) };
        let all = held(&[plain(), FrameOf { shot: Some(&of), taken: AsTaken { flash, ..taken() } }], lights);
        assert_eq!(all[1].as_ref().map(Held::is_same), Some(same));
    }

    #[test]
    fn each_is_held_to_its_own_picture() {
        let (picture, plate) = (shot("a", ShotKind::Picture), shot("b", ShotKind::CleanPlate));
        let (stack, bracket) = (shot("c", ShotKind::Stack), shot("d", ShotKind::Bracket));
        let to = |shots: &[Option<&Shot>]| -> Vec<Option<usize>> {
            let frames: Vec<_> = shots.iter().map(|shot| FrameOf { shot: *shot, taken: taken() }).collect();
            held(&frames, 1).into_iter().map(|held| held.map(|held| held.to)).collect()
        };
        assert_eq!(to(&[Some(&plate), None, Some(&plate), Some(&picture)]), [Some(1), None, Some(1), None]);
        assert_eq!(to(&[Some(&bracket), Some(&plate)]), [None, None], "a bracket is no picture to hold to");
        assert_eq!(to(&[Some(&stack), Some(&stack), Some(&stack)]), [None, Some(0), Some(0)]);
        assert_eq!(to(&[]), []);
    }
}
