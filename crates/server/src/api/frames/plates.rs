//! The frames of a job held to the pictures they are to be like: plates, pairs, stacks.

use tolva_format::{FrameAsTaken, Job, ShotKind};
use tolva_planner::shots::AsTaken;
use tolva_wording::{FrameOfShot, PlateSaid, SameSaid, held_to_pictures};

/// Whether any frame of a job, or of one setup of it, is held to another.
pub fn is_any(job: &Job, setup_id: Option<&str>) -> bool {
    let mut setups = job.setups.iter().filter(|setup| setup_id.is_none_or(|id| setup.id == id));
    setups.any(|setup| setup.shots.iter().any(|shot| shot.kind != ShotKind::Picture))
}

/// What there is to say of each frame, in the order they are given, and of each shot they are of.
pub fn held(job: &Job, frames: &[FrameAsTaken]) -> (Vec<Option<SameSaid>>, Vec<PlateSaid>) {
    let mut of_frames = vec![None; frames.len()];
    let mut of_shots = Vec::new();
    for setup in job.setups.iter().filter(|setup| !setup.shots.is_empty()) {
        let places: Vec<usize> = (0..frames.len()).filter(|at| frames[*at].setup_id == setup.id).collect();
        let its: Vec<FrameOfShot<'_>> = places.iter().map(|at| described(&frames[*at])).collect();
        let (said, plates) = held_to_pictures(&setup.clone().into(), &its);
        for (at, said) in places.into_iter().zip(said) {
            of_frames[at] = said;
        }
        of_shots.extend(plates);
    }
    (of_frames, of_shots)
}

fn described(frame: &FrameAsTaken) -> FrameOfShot<'_> {
    let of = &frame.settings;
    FrameOfShot {
        name: &frame.name,
        shot_id: frame.shot_id.as_deref(),
        taken: AsTaken {
            shutter_s: of.shutter_s,
            f_number: of.f_number,
            iso: of.iso,
            focal_length_mm: of.focal_length_mm,
            flash: of.flash,
            size: (frame.width, frame.height),
        },
    }
}
