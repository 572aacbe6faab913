//! A frame taken without flash as the photo of the place behind a proof.

use tolva_core::scale::Stops;
use tolva_format::{Kit, Problems, TakenFrame};
use tolva_planner::lighting::Prepared;
use tolva_planner::proof::Proof;
use tolva_planner::solver::Outcome;
use tolva_store::Store;

use super::{FrameError, Frames};
use crate::edge::known;
use crate::proofs::PhotoBehind;

/// The photo, and what stands for full light of the region behind in it: what the plan of then gave that region, and how much
/// brighter it came.
///
/// # Errors
/// A frame with flash, one in which what lies behind cannot be told, or whose picture is missing.
pub fn photo_behind(frame: &TakenFrame, kit: &Kit, store: &Store, frames: &Frames) -> Result<PhotoBehind, FrameError> {
    let wrong = |says: &str| FrameError::Wrong(Problems::one("/behind", says));
    if frame.settings.flash != Some(false) {
        return Err(wrong(
            "this frame was not taken without flash: the place behind is shown in the light that is there",
        ));
    }
    let (setup, planned) = known(frame.setup.clone(), kit.clone())?;
    let prepared = Prepared::new(&setup, &planned)?;
    let outcome = Outcome::of(&prepared).without_flash();
    let place = prepared.background;
    let id = &setup.regions[place].id;
    let came = frame.came.iter().find(|came| &came.region_id == id).and_then(|came| came.came_stops);
    let Some(came) = came else {
        return Err(wrong("what lies behind is not marked in this frame, or cannot be told: mark it first"));
    };
    let weights = Proof::of(&prepared, &outcome, &planned).weights;
    let more = Stops(came) - outcome.regions[place].ambient;
    #[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
    let level = weights.places[place].map(|weight| weight * more.ratio() as f32);
    let photo = frames.photo(store, frame, kit)?;
    Ok(PhotoBehind { named: format!("{} {came} {level:?}", frame.id), photo, level })
}
