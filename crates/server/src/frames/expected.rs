//! What the proof of a frame's setup shows where its regions are.

use tolva_core::frame::Mark;
use tolva_core::proof::{Fineness, Work};
use tolva_format::{FrameMark, Kit, Region, TakenFrame};
use tolva_planner::frames::Expected;
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;
use tolva_wording::{Show, proof_of};

use crate::edge::known;
use crate::proofs::{Asked, Proofs};

/// The proof in which regions are looked for has so many pixels on its longer side.
const LOOKED_AT: u32 = 240;

/// The frame as its proof has it, with the flashes as they were. Nothing for a setup that cannot be shown.
pub fn expected(frame: &TakenFrame, kit: &Kit, proofs: &Proofs) -> Option<Expected> {
    let words = serde_json::json!([frame.setup, kit]).to_string();
    let (setup, kit) = known(frame.setup.clone(), kit.clone()).ok()?;
    let (proof, report) = proof_of(&setup, &kit, Show::default()).ok()?;
    let prepared = Prepared::new(&setup, &kit).ok()?;
    let outcome = Outcome::of(&prepared);
    let asked = Asked { longest: LOOKED_AT, fineness: Fineness::Fine, grain: false, movement: false, behind: None };
    let kept = proofs.picture(&words, (&setup, &proof, &report), &asked, &Work::default()).ok()?;
    let flash = frame.settings.flash != Some(false);
    Some(Expected::of(&prepared, &outcome, &proof, (&kept.layers, kept.size), flash))
}

/// A mark for each region that the proof shows.
pub fn proposed(frame: &TakenFrame, expected: &Expected) -> Vec<FrameMark> {
    let mark = |(region, mark): (&Region, Option<Mark>)| {
        let Mark { left, top, width, height, .. } = mark?;
        let region_id = region.id.clone();
        Some(FrameMark {
            region_id,
            left,
            top,
            width,
            height,
            round: true,
            surface_stops: 0.0,
            by_proof: true,
            measured: None,
        })
    };
    frame.setup.regions.iter().zip(expected.marks()).filter_map(mark).collect()
}
