//! What is not known of a setup, how badly, and how much of each shows in a region.

use tolva_core::frame::{Belief, Estimate};
use tolva_core::scale::Stops;

use super::{CAMERA, DISTANCE, REACH, of_ambient, of_light_in_all, tuned};
use crate::lighting::Prepared;
use crate::setup::{Meter, Unknown};
use crate::solver::{Outcome, RegionOutcome};

/// Something that is not known, before a frame of this setup was measured.
#[derive(Clone, Debug, PartialEq)]
pub struct Seen {
    /// What.
    pub what: Unknown,
    /// How much more of it there is than its figures say, by what is kept in the kit.
    pub more: Stops,
    /// One standard deviation of it, in stops.
    pub sure: Stops,
    /// The same by the figures alone, without what is kept in the kit.
    pub by_figures: Stops,
}

impl Seen {
    fn by_figures(what: Unknown, sure: f64) -> Self {
        Self { what, more: Stops::ZERO, sure: Stops(sure), by_figures: Stops(sure) }
    }

    /// The same with what is kept of it in the kit: how much more, and how surely.
    fn kept(self, kept: Option<(f64, f64)>) -> Self {
        match kept {
            Some((more, sure)) => Self { more: Stops(more), sure: Stops(sure), ..self },
            None => self,
        }
    }
}

/// All that is not known of a setup and shows in its frames: the camera, the light there is on each region, each light where
/// it is aimed and where it is not.
pub fn unknowns(prepared: &Prepared<'_>, outcome: &Outcome) -> Vec<Seen> {
    let setup = prepared.setup;
    let camera = Unknown::Camera { camera_id: setup.camera_id.clone(), lens_id: setup.lens_id.clone() };
    let kept = prepared.camera.tuned_with(&setup.lens_id).map(|one| (one.more_stops, one.sure_stops));
    let mut all = vec![Seen::by_figures(camera, CAMERA).kept(kept)];
    for (place, meter) in prepared.meters.iter().enumerate() {
        // One meter is off by the same wherever it is held.
        if let Some(meter) = meter.filter(|meter| !prepared.meters[..place].contains(&Some(*meter))) {
            let what = Unknown::Meter { meter_id: meter.id.clone() };
            all.push(Seen::by_figures(what, Meter::UNCHECKED_STOPS).kept(Some((meter.more_stops, meter.sure_stops))));
        }
    }
    let there = prepared.known.iter().zip(&prepared.meters).map(|(known, meter)| of_ambient(*known, *meter));
    all.extend(
        setup
            .regions
            .iter()
            .zip(there)
            .map(|(region, sure)| Seen::by_figures(Unknown::Ambient { region_id: region.id.clone() }, sure)),
    );
    for (place, light) in prepared.lights.iter().enumerate() {
        let (light_id, flash_id) = (light.light.id.clone(), light.light.flash_id.clone());
        let modifier_id = light.light.modifier_id.clone();
        let kept = tuned(light).map(|(more, sure)| (more, sure.hypot(DISTANCE)));
        let what = Unknown::Light { light_id, flash_id, modifier_id };
        all.push(Seen::by_figures(what, of_light_in_all(light)).kept(kept));
        for (region, here) in setup.regions.iter().zip(&outcome.regions) {
            let reaches = here.each.get(place).is_some_and(|given| given.0.is_finite());
            if reaches && setup.regions[light.aimed_at].id != region.id {
                let (light_id, region_id) = (light.light.id.clone(), region.id.clone());
                all.push(Seen::by_figures(Unknown::Spill { light_id, region_id }, REACH));
            }
        }
    }
    all
}

/// How much of each unknown shows in a region: by how much it changes, where the unknown does by a little.
pub fn weights(prepared: &Prepared<'_>, here: &RegionOutcome, region: usize, of: &[Unknown]) -> Vec<f64> {
    let region_id = &prepared.setup.regions[region].id;
    let share = |id: &String| {
        let place = prepared.lights.iter().position(|light| &light.light.id == id)?;
        Some(here.share(*here.each.get(place)?))
    };
    let read_with = |id: &String| prepared.meters[region].is_some_and(|meter| &meter.id == id);
    of.iter()
        .map(|unknown| match unknown {
            Unknown::Camera { .. } => 1.0,
            Unknown::Ambient { region_id: of } if of == region_id => 1.0 - here.flash_share(),
            Unknown::Meter { meter_id } if read_with(meter_id) => 1.0 - here.flash_share(),
            Unknown::Light { light_id, .. } => share(light_id).unwrap_or(0.0),
            Unknown::Spill { light_id, region_id: of } if of == region_id => share(light_id).unwrap_or(0.0),
            Unknown::Meter { .. } | Unknown::Ambient { .. } | Unknown::Spill { .. } => 0.0,
        })
        .collect()
}

/// What a region gets where the unknowns are so much more than they were taken for.
pub fn with_more(
    prepared: &Prepared<'_>,
    here: &RegionOutcome,
    region: usize,
    (of, more): (&[Unknown], &[f64]),
) -> RegionOutcome {
    let region_id = &prepared.setup.regions[region].id;
    let sum = |is: &dyn Fn(&Unknown) -> bool| {
        Stops(of.iter().zip(more).filter(|(what, _)| is(what)).map(|(_, more)| *more).sum())
    };
    let camera = sum(&|what| matches!(what, Unknown::Camera { .. }));
    let meter = prepared.meters[region];
    let there = sum(&|what| match what {
        Unknown::Ambient { region_id: of } => of == region_id,
        Unknown::Meter { meter_id } => meter.is_some_and(|meter| &meter.id == meter_id),
        _ => false,
    });
    let each = here.each.iter().zip(&prepared.lights).map(|(given, light)| {
        *given
            + camera
            + sum(&|what| match what {
                Unknown::Light { light_id, .. } => *light_id == light.light.id,
                Unknown::Spill { light_id, region_id: of } => *light_id == light.light.id && of == region_id,
                _ => false,
            })
    });
    RegionOutcome::new(here.ambient + camera + there, each.collect())
}

/// A belief about unknowns, and from how many frames.
#[derive(Clone, Debug, PartialEq)]
pub struct Known {
    /// What is not known, in the order of the belief.
    pub of: Vec<Unknown>,
    /// What is believed of it.
    pub belief: Belief,
    /// How many frames it was learnt from.
    pub frames: u32,
}

/// What is known now: what was learnt before, for the unknowns the setup has now. What has gone is forgotten, what is new is
/// as sure as it is without a frame.
pub fn known_now(prepared: &Prepared<'_>, outcome: &Outcome) -> Known {
    let now = unknowns(prepared, outcome);
    let fresh: Vec<Estimate> = now.iter().map(|seen| Estimate { more: seen.more, sure: seen.sure }).collect();
    let before = prepared.setup.learnt.as_ref().and_then(|learnt| Some((learnt, learnt.belief().ok()?)));
    let carried_on = before.and_then(|(learnt, belief)| {
        let known =
            |(seen, fresh): (&Seen, &Estimate)| learnt.of.iter().position(|one| one.what == seen.what).ok_or(*fresh);
        let belief = belief.arranged(&now.iter().zip(&fresh).map(known).collect::<Vec<_>>()).ok()?;
        Some((belief, learnt.frames))
    });
    let (belief, frames) = carried_on.unwrap_or_else(|| {
        let Ok(belief) = Belief::at_first(&fresh) else { unreachable!("certainties are over nothing") };
        (belief, 0)
    });
    Known { of: now.into_iter().map(|seen| seen.what).collect(), belief, frames }
}
