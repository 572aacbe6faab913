//! What the set does to the light that is there: windows and doorways that are drawn give it by their geometry, and cards
//! fill or take away.

use tolva_core::ambient::Role;
use tolva_core::modifier::Surface;
use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Glow, Patch, Receptor, Solid, came_back, form_factor};

use super::stage::{Stage, Thing};
use crate::setup::{CardKind, Opening, Setup};

/// What the set makes of the light that is there on a region.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SetAmbient {
    /// Whether it follows from the lit side's, through a window that is drawn: nobody has read it there.
    pub follows_lit: bool,
    /// What is added to what was read, guessed or is followed.
    pub by: Stops,
}

impl SetAmbient {
    /// As it was without any set.
    pub const UNCHANGED: Self = Self { follows_lit: false, by: Stops::ZERO };
}

impl Opening {
    /// As a face that glows.
    pub fn glow(&self) -> Glow {
        let panel = self.panel();
        let surface = Surface::Rectangle { width: Metres(self.width_m), height: Metres(self.height_m) };
        Glow::new(panel.centre, panel.normal, 0.0, surface, 1.0)
    }
}

/// What openings of one brightness give a place: straight, and by the surfaces that `with` lets count. In any unit, the
/// same for all places.
fn from_openings(stage: &Stage, receptor: &Receptor, with: impl Fn(&Thing) -> bool) -> f64 {
    let blocking: Vec<Solid> = (stage.standing.iter().filter(|one| with(&one.thing)).map(|one| one.solid)).collect();
    let glows: Vec<Glow> = stage.laid.set.openings.iter().map(Opening::glow).collect();
    let area = |glow: &Glow| glow.size_m().0 * glow.size_m().1;
    let straight: f64 = glows.iter().map(|glow| area(glow) * glow.ratio(receptor, &blocking)).sum();
    let counts = |patch: &&Patch| with(&stage.surfaces[patch.of].0);
    let patches: Vec<Patch> = stage.patches().iter().filter(counts).copied().collect();
    let bounced: f64 = (glows.iter())
        .map(|glow| {
            let lit: Vec<f64> = patches.iter().map(|patch| area(glow) * glow.ratio(&patch.receptor(), &[])).collect();
            came_back(&patches, &lit, glow.centre, receptor, &blocking, |_, _| {})
        })
        .sum();
    straight + bounced
}

/// What the set makes of the light that is there, region by region. `ambient` is what each would get without it, in any
/// linear unit.
pub fn on_regions(setup: &Setup, stage: &Stage, ambient: &[f64]) -> Vec<SetAmbient> {
    let set = &stage.laid.set;
    let unchanged = vec![SetAmbient::UNCHANGED; setup.regions.len()];
    if set.openings.is_empty() && set.cards.is_empty() {
        return unchanged;
    }
    let Some(lit) = setup.regions.iter().position(|region| region.role == Role::LitSide) else { return unchanged };
    let is_card = |thing: &Thing| matches!(thing, Thing::Card(_));
    if set.openings.is_empty() {
        return (stage.receptors.iter().enumerate())
            .map(|(region, receptor)| {
                let by = by_cards(stage, receptor, &stage.receptors[lit], ambient[lit] / ambient[region].max(1e-12));
                SetAmbient { follows_lit: false, by }
            })
            .collect();
    }
    // A reading is taken before the card is put up.
    let bare: Vec<f64> =
        (stage.receptors.iter()).map(|receptor| from_openings(stage, receptor, |thing| !is_card(thing))).collect();
    let cards = !set.cards.is_empty();
    let all: Vec<f64> = (stage.receptors.iter().zip(&bare))
        .map(|(receptor, bare)| if cards { from_openings(stage, receptor, |_| true) } else { *bare })
        .collect();
    (setup.regions.iter().enumerate())
        .map(|(index, region)| {
            let drawn = region.role != Role::Background || !set.walls.is_empty();
            let follows_lit = index != lit && drawn && region.ambient.readings.is_empty() && bare[lit] > 0.0;
            let against = if follows_lit { bare[lit] } else { bare[index] };
            let by = if against > 0.0 { Stops::of_ratio((all[index] / against).max(DARKEST)) } else { Stops::ZERO };
            SetAmbient { follows_lit, by }
        })
        .collect()
}

/// What no light of the window reaches is this part of what the lit side gets: rooms are never black (chosen).
const DARKEST: f64 = 1.0 / 256.0;

/// What cards do where no window is drawn: each hides a part of what was alike around, and gives back what falls on it.
/// What falls on it is the lit side's, by how far the card looks the same way (chosen).
fn by_cards(stage: &Stage, receptor: &Receptor, lit: &Receptor, lit_over_here: f64) -> Stops {
    let mut left = 1.0;
    for card in &stage.laid.set.cards {
        let panel = card.panel();
        let hides = [panel.normal, -panel.normal]
            .map(|normal| form_factor(&tolva_core::set::Panel { normal, ..panel }, receptor, &[]));
        let same_way = f64::midpoint(1.0, panel.normal.dot(lit.normal));
        let back = match card.kind {
            CardKind::Diffuser => card.kind.reflectance(),
            kind => kind.reflectance() * (lit_over_here * same_way).max(0.0),
        };
        // Its back is dark, as is a black one.
        left += hides[0] * (back - 1.0) - hides[1];
    }
    Stops::of_ratio(left.max(DARKEST))
}
