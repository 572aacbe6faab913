//! Two frames taken apart into the light that is there and the flash, and mixed anew.

use std::sync::{Arc, PoisonError};

use tolva_core::exposure::Ev;
use tolva_core::frame::{Pair, Parted, Photo};
use tolva_core::proof::{Layer, Picture, Size};
use tolva_format::{FrameSettings, Kit, Problems, TakenFrame};
use tolva_pictures::{jpeg, share_map};
use tolva_planner::frames::{Mix, mix_weights, mixed_into};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::{self, Setup};
use tolva_planner::solver::Outcome;

use super::judged::{dials, exposure_of, mark_of};
use super::{FrameError, Frames};

/// The longer side of what is mixed is about so many pixels.
const MIXED: u32 = 640;
/// So many pairs are kept: some 12 MB each.
const KEPT: usize = 3;

/// Two frames of one place.
#[derive(Clone, Copy, Debug)]
pub struct WithAndWithout<'a> {
    /// The one with flash.
    pub with: &'a TakenFrame,
    /// The one without.
    pub without: &'a TakenFrame,
}

/// Two frames apart.
#[derive(Debug)]
pub struct Apart {
    /// In each region of the frame with flash that has a mark.
    pub regions: Vec<(String, Parted)>,
    /// How much of the whole frame is flash, on average over what can be told, 0 to 1.
    pub share: f64,
    /// How much of it can be told, 0 to 1.
    pub told: f64,
    /// The share of flash at every place, as PNG.
    pub map: Vec<u8>,
    ambient: Layer,
    flash: Layer,
}

fn exposure(of: &FrameSettings, which: &str) -> Result<Ev, Problems> {
    exposure_of(of).ok_or_else(|| {
        let says = "what this frame was taken with is not known: say its shutter, aperture and ISO first";
        Problems::one(format!("/{which}"), says)
    })
}

impl Frames {
    /// Takes two frames apart, or gives what is kept of them. `named` is what the two are known by as they are now.
    pub fn apart(
        &self,
        named: &str,
        two: WithAndWithout<'_>,
        photo: impl Fn(&TakenFrame) -> Result<Arc<Photo>, FrameError>,
    ) -> Result<Arc<Apart>, FrameError> {
        let held = || self.apart.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((_, before)) = held().iter().find(|(name, _)| name == named) {
            return Ok(Arc::clone(before));
        }
        let made = Arc::new(taken_apart(two, &photo)?);
        let mut all = held();
        all.push((named.to_owned(), Arc::clone(&made)));
        if all.len() > KEPT {
            all.remove(0);
        }
        Ok(made)
    }
}

fn taken_apart(
    WithAndWithout { with, without }: WithAndWithout<'_>,
    photo: impl Fn(&TakenFrame) -> Result<Arc<Photo>, FrameError>,
) -> Result<Apart, FrameError> {
    let (without_photo, with_photo) = (photo(without)?, photo(with)?);
    let pair = Pair {
        without: &without_photo,
        without_at: exposure(&without.settings, "without")?,
        with: &with_photo,
        with_at: exposure(&with.settings, "with")?,
    };
    let separated = pair.separated().map_err(|unlike| Problems::one("/without", unlike.to_string()))?;
    let shares = separated.shares();
    let told: Vec<f64> = shares.iter().flatten().map(|share| f64::from(*share)).collect();
    #[expect(clippy::cast_precision_loss, reason = "at most two million pixels")]
    let (count, all) = (told.len() as f64, shares.len().max(1) as f64);
    let Size { width, height } = separated.size();
    let step = ((width.max(height) + MIXED / 2) / MIXED) as usize;
    let map = share_map(separated.size(), &shares).map_err(|_| FrameError::Missing)?;
    Ok(Apart {
        regions: with.marks.iter().map(|mark| (mark.region_id.clone(), separated.parted(mark_of(mark)))).collect(),
        share: if count > 0.0 { told.iter().sum::<f64>() / count } else { 0.0 },
        told: count / all,
        map,
        ambient: separated.ambient.together(step),
        flash: separated.flash.together(step),
    })
}

impl Apart {
    /// The picture as it would have been taken under another mixture, as JPEG.
    pub fn mixed(&self, setup: &Setup, kit: &setup::Kit, mix: Mix) -> Result<Vec<u8>, FrameError> {
        let prepared = Prepared::new(setup, kit)?;
        let [there, flash] = mix_weights(&prepared, &Outcome::of(&prepared), mix);
        let picture = Picture::developed(self.ambient.size, &[(&self.ambient, there), (&self.flash, flash)]);
        jpeg(&picture, 90, None).map_err(|_| FrameError::Missing)
    }
}

/// The setup that would take a frame as it was mixed: `now` with its shutter, powers and white balance.
pub fn used(frame: &TakenFrame, now: &Setup, kit: &Kit, mix: Mix) -> Result<Setup, FrameError> {
    let Some(taken) = dials(&frame.settings) else {
        return Err(Problems::one("/with", "what this frame was taken with is not known").into());
    };
    let kit = kit.clone().into();
    let then = frame.setup.clone().into();
    let stood = Prepared::new(&then, &kit)?;
    let mixed = mixed_into(&stood, &Outcome::of(&stood), taken, mix);
    // What was mixed goes into the setup as it is now; where a light has come since, it stays as it is.
    let mut lights = now.lights.clone();
    for light in &mut lights {
        if let Some(same) = mixed.lights.iter().find(|one| one.id == light.id) {
            light.power_stops = same.power_stops;
        }
    }
    Ok(Setup { fixed: mixed.fixed, white_balance: mixed.white_balance, lights, ..now.clone() })
}
