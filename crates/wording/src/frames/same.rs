//! Whether plates, pairs and stacks came at the settings of their picture, in words.

use serde::Serialize;
use tolva_core::scale::{Aperture, Iso, Setting, Shutter};
use tolva_planner::setup::{Setup, Shot, ShotKind};
use tolva_planner::shots::{AsTaken, FrameOf, Held, Kept, held};
use utoipa::ToSchema;

use crate::words::in_a_row;

/// A frame of a setup, as far as it is held to its picture.
#[derive(Clone, Copy, Debug)]
pub struct FrameOfShot<'a> {
    /// What its file is called.
    pub name: &'a str,
    /// The shot it is said to be of.
    pub shot_id: Option<&'a str>,
    /// What its file says it was taken with.
    pub taken: AsTaken,
}

/// Whether a frame, or all frames of a shot, came as they are to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct SameSaid {
    /// In a sentence: `Not as hall-1.jpg: shutter 1/60 here, 1/125 there.`
    pub says: String,
    /// Whether all is well.
    pub good: bool,
}

/// A shot whose frames are to be at the settings of the picture.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct PlateSaid {
    /// The setup.
    pub setup_id: String,
    /// The shot.
    pub shot_id: String,
    /// What came of it.
    pub came: SameSaid,
}

/// What there is to say of each frame of a setup, and of each of its shots that is to be at the settings of the picture,
/// where frames of it came or should have.
pub fn held_to_pictures(setup: &Setup, frames: &[FrameOfShot<'_>]) -> (Vec<Option<SameSaid>>, Vec<PlateSaid>) {
    let shot = |frame: &FrameOfShot<'_>| setup.shots.iter().find(|shot| Some(shot.id.as_str()) == frame.shot_id);
    let taken: Vec<FrameOf<'_>> =
        frames.iter().map(|frame| FrameOf { shot: shot(frame), taken: frame.taken }).collect();
    let all = held(&taken, setup.lights.len());
    let is_to_be_held = |shot: &&Shot| shot.kind.keeps_settings() && shot.kind != ShotKind::Picture;
    let said: Vec<Option<SameSaid>> = (all.iter().zip(&taken).enumerate())
        .map(|(index, (held, FrameOf { shot, .. }))| match held {
            Some(held) => Some(of_frame(frames, index, held)),
            None => shot
                .filter(is_to_be_held)
                .map(|_| SameSaid { says: "There is no picture yet to hold it to.".to_owned(), good: true }),
        })
        .collect();
    let plates = setup.shots.iter().filter(is_to_be_held).filter_map(|shot| {
        let of_it: Vec<&SameSaid> = (frames.iter().zip(&said))
            .filter(|(frame, _)| frame.shot_id == Some(shot.id.as_str()))
            .filter_map(|(_, said)| said.as_ref())
            .collect();
        of_shot(shot, &of_it, frames.len()).map(|came| PlateSaid {
            setup_id: setup.id.clone(),
            shot_id: shot.id.clone(),
            came,
        })
    });
    let plates = plates.collect();
    (said, plates)
}

fn of_frame(frames: &[FrameOfShot<'_>], index: usize, held: &Held) -> SameSaid {
    let (here, there) = (&frames[index].taken, &frames[held.to].taken);
    let to = frames[held.to].name;
    let says = if !held.differs.is_empty() {
        let all = in_a_row(held.differs.iter().map(|what| differs(*what, here, there)));
        format!("Not as {to}: {all}. Take it again before anything is moved.")
    } else if !held.untold.is_empty() {
        let all = in_a_row(held.untold.iter().map(|what| kept_called(*what).to_owned()));
        format!("Cannot be held to {to}: a file does not tell its {all}.")
    } else {
        format!("As {to}: shutter, aperture and ISO are the same. Focus and white balance no file tells: look.")
    };
    SameSaid { says, good: held.is_same() }
}

/// What frames have in common is called.
pub(crate) fn kept_called(what: Kept) -> &'static str {
    match what {
        Kept::Shutter => "shutter",
        Kept::Aperture => "aperture",
        Kept::Iso => "ISO",
        Kept::FocalLength => "focal length",
        Kept::Flash => "flash",
        Kept::Size => "size",
    }
}

fn differs(what: Kept, here: &AsTaken, there: &AsTaken) -> String {
    let two = |label: &dyn Fn(&AsTaken) -> Option<String>| {
        let said = |one: Option<String>| one.unwrap_or_else(|| "not told".to_owned());
        format!("{} {} here, {} there", kept_called(what), said(label(here)), said(label(there)))
    };
    match what {
        Kept::Shutter => two(&|one| one.shutter_s.map(|seconds| Setting::<Shutter>::of(seconds).label())),
        Kept::Aperture => two(&|one| one.f_number.map(|number| Setting::<Aperture>::of(number).label())),
        Kept::Iso => two(&|one| one.iso.map(|iso| Setting::<Iso>::of(iso).label().replace("ISO ", ""))),
        Kept::FocalLength => two(&|one| one.focal_length_mm.map(|length| format!("{length:.0} mm"))),
        Kept::Flash if here.flash == Some(true) => "the flash fired here".to_owned(),
        Kept::Flash => "the flash did not fire here".to_owned(),
        Kept::Size => two(&|one| Some(format!("{} × {} pixels", one.size.0, one.size.1))),
    }
}

fn of_shot(shot: &Shot, frames: &[&SameSaid], came: usize) -> Option<SameSaid> {
    let wrong = frames.iter().find(|frame| !frame.good);
    match (frames.len(), wrong) {
        (0, _) if shot.taken > 0 && came > 0 => Some(SameSaid {
            says: "It is ticked off, and of the frames that came none is said to be of it.".to_owned(),
            good: false,
        }),
        (0, _) => None,
        (_, Some(wrong)) => Some((*wrong).clone()),
        (1, None) => Some(frames[0].clone()),
        (count, None) => {
            Some(SameSaid { says: format!("{count} frames came, at the settings of the picture."), good: true })
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;
    use tolva_planner::setup::Kit;

    fn setup() -> Setup {
        let mut setup = Setup::new("a", &Kit::starter());
        let plate = Shot { kind: ShotKind::CleanPlate, name: "The doorway".into(), ..Shot::new("plate") };
        setup.shots = vec![Shot::new("close"), plate, Shot { kind: ShotKind::Bracket, ..Shot::new("sky") }];
        setup
    }

    fn taken() -> AsTaken {
        AsTaken {
            shutter_s: Some(1.0 / 125.0),
            f_number: Some(8.0),
            iso: Some(100.0),
            focal_length_mm: Some(50.0),
            flash: Some(true),
            size: (6000, 4000),
        }
    }

    fn frame<'a>(name: &'a str, shot_id: Option<&'a str>, taken: AsTaken) -> FrameOfShot<'a> {
        FrameOfShot { name, shot_id, taken }
    }

    #[rstest]
    #[case::same(taken(), "As one.jpg: shutter, aperture and ISO are the same.", true)]
    #[case::shutter(AsTaken { shutter_s: Some(1.0 / 60.0), ..taken() }, "Not as one.jpg: shutter 1/60 here, 1/125 there.", false)]
    #[case::two(
        AsTaken { f_number: Some(5.6), iso: Some(400.0), ..taken() },
        "Not as one.jpg: aperture f/5.6 here, f/8 there, ISO 400 here, 100 there.",
        false
    )]
    #[case::zoomed(AsTaken { focal_length_mm: Some(60.0), ..taken() }, "focal length 60 mm here, 50 mm there", false)]
    #[case::flash(AsTaken { flash: Some(false), ..taken() }, "the flash did not fire here", false)]
    #[case::size(AsTaken { size: (4000, 6000), ..taken() }, "size 4000 × 6000 pixels here", false)]
    #[case::untold(AsTaken { iso: None, ..taken() }, "Cannot be held to one.jpg: a file does not tell its ISO.", false)]
    fn a_plate_is_said(#[case] plate: AsTaken, #[case] says: &str, #[case] good: bool) {
        let frames = [frame("one.jpg", None, taken()), frame("two.jpg", Some("plate"), plate)];
        let (each, plates) = held_to_pictures(&setup(), &frames);
        assert_eq!(each[0], None, "a picture is held to nothing");
        let said = each[1].as_ref().expect("held");
        assert!(said.says.contains(says) && said.good == good, "{said:?}");
        assert_eq!((plates.len(), plates[0].shot_id.as_str(), &plates[0].came), (1, "plate", said));
    }

    #[test]
    fn what_is_missing_is_said() {
        let mut setup = setup();
        let picture = [frame("one.jpg", None, taken())];
        assert!(held_to_pictures(&setup, &picture).1.is_empty(), "nobody says that it was taken");
        setup.shots[1].taken = 1;
        let plates = held_to_pictures(&setup, &picture).1;
        assert!(!plates[0].came.good && plates[0].came.says.starts_with("It is ticked off"), "{plates:?}");
        assert!(held_to_pictures(&setup, &[]).1.is_empty(), "without frames nothing is held to anything");
        let alone = [frame("two.jpg", Some("plate"), taken())];
        let said = held_to_pictures(&setup, &alone).0.remove(0).expect("said");
        assert_eq!((said.says.as_str(), said.good), ("There is no picture yet to hold it to.", true));
        let three = [picture[0], alone[0], frame("three.jpg", Some("plate"), taken())];
        assert_eq!(held_to_pictures(&setup, &three).1[0].came.says, "2 frames came, at the settings of the picture.");
    }
}
