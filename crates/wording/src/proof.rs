//! The proof in words: what it is taken with, where each region lies in it, and what a place of it is.

use serde::Serialize;
use tolva_core::scale::Stops;
use tolva_core::set::InFrame;
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::proof::{Proof, Share};
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::staging::Laid;
use utoipa::ToSchema;

use crate::light_card::light_cards;
use crate::shown::{Said, Show};

/// What is said of a proof.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProofReport {
    /// What it would be taken with, in a line: `1/200 s · f/4 · ISO 100 · 5600 K · A 1/4`.
    pub settings: String,
    /// What it is, and that it is an estimate.
    pub caption: String,
    /// Where each region lies in the frame, of those that do.
    pub regions: Vec<ProofRegion>,
    /// What the picture leaves out or makes up.
    pub notes: Vec<String>,
}

/// A region in the frame.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProofRegion {
    /// Its id.
    pub region_id: String,
    /// What it is called.
    pub name: String,
    /// From the left of the frame, 0 to 1.
    pub left: f64,
    /// From its top, 0 to 1.
    pub down: f64,
    /// Where a grey card there stands on the rail.
    pub stands: Said,
}

/// A place of the frame.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProofReading {
    /// From mid grey, in stops; null where it is black.
    pub stops: Option<f64>,
    /// In words: `+⅓ from mid grey: A 62 %, there 38 %`.
    pub says: String,
    /// What each light has in it.
    pub shares: Vec<ProofShare>,
}

/// A light's part of a place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProofShare {
    /// The light's letter; null for the light that is there.
    pub light_id: Option<String>,
    /// What it is called.
    pub name: String,
    /// In percent.
    pub percent: f64,
}

/// A setup's proof before it is rendered, and what is said of it.
///
/// # Errors
/// A setup that refers to what is not there.
pub fn proof_of(setup: &Setup, kit: &Kit, show: Show) -> Result<(Proof, ProofReport), Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let plan = Plan::of(&prepared);
    let outcome = &plan.outcome;
    let proof = Proof::of(&prepared, outcome, kit);
    let settings = outcome.settings;
    let in_colour = tolva_planner::colour::InColour::of(&prepared, outcome);
    let mut line = vec![
        format!("{} s", settings.shutter.label()),
        settings.aperture.label(),
        settings.iso.label(),
        crate::colour::balance_label(&in_colour.balance),
    ];
    let cards = light_cards(&prepared, outcome, show);
    line.extend(cards.iter().filter_map(|card| Some(format!("{} {}", card.light_id, card.power.as_ref()?))));
    let view = &proof.staged.scene.view;
    let regions = setup.regions.iter().enumerate().filter_map(|(index, region)| {
        let at = view.project(proof.staged.there.places[index].receptor.at).filter(InFrame::inside)?;
        Some(ProofRegion {
            region_id: region.id.clone(),
            name: region.name.clone(),
            left: at.right + 0.5,
            down: 0.5 - at.up,
            stands: outcome.regions[index].together.into(),
        })
    });
    let report = ProofReport {
        settings: line.join(" · "),
        caption: format!("{}: a proof, computed from the set. An estimate.", setup.name),
        regions: regions.collect(),
        notes: notes(&prepared),
    };
    Ok((proof, report))
}

/// What the picture leaves out or makes up.
fn notes(prepared: &Prepared<'_>) -> Vec<String> {
    let mut all = vec!["Figures and clothes are plain stand-ins; nothing is out of focus.".to_owned()];
    if prepared.stage.is_none() {
        all.push(
            "Nobody has used the set yet: where things stand is laid out from what is known, and each light gives what it is \
             aimed at what the rail says."
                .to_owned(),
        );
    }
    if !prepared.lamps.is_empty() {
        all.push("Lamps that burn on are part of the light that is there.".to_owned());
    }
    let without_walls = || {
        prepared
            .stage
            .as_deref()
            .map_or_else(|| Laid::of(prepared.setup), |stage| stage.laid.clone())
            .set
            .walls
            .is_empty()
    };
    if prepared.scene.is_none() && without_walls() {
        all.push("No wall is drawn behind: a grey one stands there.".to_owned());
    }
    all
}

/// A place of the frame in words.
pub fn proof_reading(setup: &Setup, stops: Stops, shares: &[Share]) -> ProofReading {
    let mut named: Vec<ProofShare> = shares
        .iter()
        .map(|share| {
            let light_id = share.light.map(|light| setup.lights[light].id.clone());
            let name = light_id.clone().unwrap_or_else(|| "What is there".to_owned());
            ProofShare { light_id, name, percent: share.part * 100.0 }
        })
        .collect();
    named.sort_by(|a, b| b.percent.total_cmp(&a.percent));
    let told: Vec<String> = named
        .iter()
        .filter(|share| share.percent >= 0.5)
        .map(|share| format!("{} {:.0} %", share.name, share.percent))
        .collect();
    let says = if stops.0.is_finite() && stops.0 > -12.0 {
        format!("{} from mid grey: {}", stops.thirds(), told.join(", "))
    } else {
        "Black: no light arrives here".to_owned()
    };
    ProofReading { stops: stops.finite(), says, shares: named }
}
