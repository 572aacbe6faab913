//! How bright what stands in glass is, against what lies behind it there.

use crate::setup::LightIndex;
use std::f64::consts::PI;

use tolva_core::ambient::Role;
use tolva_core::glass::{Glazing, Reflection};
use tolva_core::modifier::Surface;
use tolva_core::scale::Stops;
use tolva_core::set::{Receptor, Weighing, between_deg};

use super::showing::{BARE_M, By, Finding, Look, Shown};
use crate::lighting::Prepared;
use crate::set::in_the_frame;
use crate::solver::Outcome;
use crate::staging::Stage;

/// What is darker than this in the frame counts as black: nothing is seen against less. Chosen.
const BLACK: Stops = Stops(-6.0);
/// The luminance of mid grey under an illuminance of 1 over it: a matt grey of 18 %.
const GREY: f64 = 0.18 / PI;
/// Clothes give back so much of the light. Common practice, no source.
const CLOTHES: f64 = 0.2;

impl Look<'_> {
    /// The findings under a plan, the strongest first.
    pub fn findings(&self, prepared: &Prepared<'_>, outcome: &Outcome) -> Vec<Finding> {
        if !self.any() {
            return Vec::new();
        }
        let lit = Lit::of(self, prepared, outcome);
        let mut all: Vec<Finding> =
            self.seen().into_iter().map(|(by, what, seen)| lit.finding(self, by, what, seen)).collect();
        all.sort_by(|a, b| b.over.0.total_cmp(&a.over.0));
        all
    }
}

/// How bright things are under a plan.
struct Lit<'a> {
    /// What each light's intensity at 1 m comes to in the frame; nothing for one that is off.
    weights: Vec<f64>,
    /// The light that is there, at the subject and behind it, as parts of mid grey.
    ambient: f64,
    behind: Stops,
    behind_mirror: Stops,
    /// The lit side of the subject.
    face: Stops,
    /// How far the light that is there was darkened.
    darkened: Stops,
    stage: &'a Stage,
}

impl<'a> Lit<'a> {
    fn of(look: &Look<'a>, prepared: &Prepared<'_>, outcome: &Outcome) -> Self {
        let mut weights = vec![0.0; look.stage.laid.lights.len()];
        for (light, at) in prepared.lights.iter().zip(&outcome.lights) {
            if let Some(at) = at {
                weights[light.index.0] = in_the_frame(prepared, outcome, light, *at);
            }
        }
        let region = |role| prepared.setup.regions.iter().position(|region| region.role == role);
        let background = region(Role::Background).unwrap_or(prepared.lit);
        let here = outcome.regions[prepared.lit].ambient;
        Self {
            weights,
            ambient: here.ratio(),
            behind: outcome.regions[background].together,
            face: outcome.regions[prepared.lit].together,
            behind_mirror: outcome.regions[background].ambient,
            darkened: Stops((-here.0).max(0.0)),
            stage: look.stage,
        }
    }

    /// What flashes give a place, as a part of mid grey.
    fn flash_at(&self, look: &Look<'_>, receptor: &Receptor) -> f64 {
        let lights = self.weights.iter().enumerate().filter(|(_, weight)| **weight > 0.0);
        lights
            .map(|(light, weight)| {
                let glow = look.glow(LightIndex(light));
                weight * self.stage.roughly(&glow, receptor)
            })
            .sum()
    }

    fn finding(&self, look: &Look<'_>, by: By, what: Shown, seen: Reflection) -> Finding {
        // Of flash, and of the light that is there: each as a part of mid grey's luminance.
        let (flash, there) = match &what {
            Shown::Light(light) => (self.face(look, *light, &seen), 0.0),
            Shown::Photographer => {
                let at = self.stage.camera();
                let normal = (seen.spot - at).normalize_or(self.stage.view.forward);
                let receptor = Receptor { at: at + normal * 0.1, normal, weighing: Weighing::Flat };
                let part = CLOTHES / 0.18;
                (part * self.flash_at(look, &receptor), part * self.ambient)
            }
            Shown::Surroundings(thing) => {
                let matt = self.stage.surfaces.iter().find(|(of, ..)| of == thing).map(|(_, matt, _)| *matt);
                matt.map_or((0.0, 0.0), |matt| {
                    let at = matt.panel.centre + matt.panel.normal * 0.02;
                    let receptor = Receptor { at, normal: matt.panel.normal, weighing: Weighing::Flat };
                    let part = matt.reflectance / 0.18;
                    (part * self.flash_at(look, &receptor), part * self.ambient)
                })
            }
        };
        let mirror = match &by {
            By::Pane(first) | By::Twice(first, _) => look.panes[*first].glazing == Glazing::Mirror,
            By::Glasses(..) => false,
        };
        let behind = match &by {
            // The eyes behind the glass are the face, and so is what one photographs through a pane.
            By::Glasses(..) => self.face,
            By::Pane(first) | By::Twice(first, _) if look.is_shot_through(*first) => self.face,
            _ if mirror => self.behind_mirror,
            _ => self.behind + Stops((1.0 - seen.reflectance).max(1e-3).log2()),
        };
        let stops = |ratio: f64| if ratio > 0.0 { Stops(ratio.log2()) } else { Stops::NOTHING };
        let bright = stops((flash + there) * seen.reflectance);
        let before = stops((flash + there * self.darkened.ratio()) * seen.reflectance);
        let over = bright - seen_against(behind);
        let over_before = before - seen_against(behind + self.darkened);
        Finding { by, what, seen, bright, behind, over, over_before }
    }

    /// The luminance of a light's face towards the lens.
    fn face(&self, look: &Look<'_>, light: LightIndex, seen: &Reflection) -> f64 {
        let glow = look.glow(light);
        let (width, height) = glow.size_m();
        let area = match glow.surface {
            Surface::Rectangle { .. } => width * height,
            Surface::Disc { .. } => PI / 4.0 * width * width,
            Surface::Bare => PI / 4.0 * BARE_M * BARE_M,
        };
        let out = between_deg(glow.axis, seen.spot - glow.centre).min(89.0).to_radians().cos();
        self.weights[light.0] / area * out.powf(glow.exponent - 1.0) / GREY
    }
}

/// What a reflection is seen against: black is black.
fn seen_against(behind: Stops) -> Stops {
    Stops(behind.0.max(BLACK.0))
}
