//! All conventions of white balance side by side, and the gels that bring each light to what is there, in words.

use serde::Serialize;
use utoipa::ToSchema;

use tolva_planner::colour::{BalanceOption, Colours, GelOption, balance_code, balance_options, gel_options};
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;

use super::{RegionColour, balance_label, convention_name, meaning_of, regions};
use crate::casts::tint_words;
use crate::document::{Document, Write};
use crate::shown::Show;
use crate::words::lights_at;

/// The conventions, and the gels.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ColourOptions {
    /// The conventions of white balance, each as it would come out.
    pub conventions: Vec<BalanceWay>,
    /// For each light, the nearest gels of the kit to the ambient where it is aimed.
    pub gels: Vec<GelOffer>,
}

/// One convention.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BalanceWay {
    /// Its code: stable.
    pub code: &'static str,
    /// What it is called.
    pub name: String,
    /// What stands on the camera: `5600 K`.
    pub label: String,
    /// What it does, in a sentence.
    pub says: String,
    /// Whether it is the setup as it is.
    pub chosen: bool,
    /// What the flashes would be at where gels change them: `1/200, f/9, ISO 100, A at 1/4`; null where nothing changes.
    pub settings: Option<String>,
    /// What becomes of each region.
    pub regions: Vec<RegionColour>,
    /// The setup with this convention.
    pub setup: Document,
}

/// Gels for a light.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GelOffer {
    /// The light's letter.
    pub light_id: String,
    /// Which gels: `Warm half with Warm eighth`; `No gel` where none brings it nearer.
    pub gels: String,
    /// What is left over: `3070 K against 2900 K: 19 mired cooler than the ambient`.
    pub says: String,
    /// Whether it is the setup as it is.
    pub chosen: bool,
    /// The setup with these gels.
    pub setup: Document,
}

/// All conventions of white balance for a setup, and the gels that bring each light to the ambient.
///
/// # Errors
/// A setup that cannot be planned.
pub fn colour_options(setup: &Setup, kit: &Kit, show: Show, write: &Write<'_>) -> Result<ColourOptions, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let outcome = Outcome::of(&prepared);
    let colours = Colours::of(&prepared, &outcome);
    let ways = balance_options(&prepared, &outcome, &colours, kit).into_iter();
    let gels = gel_options(&prepared, &colours, kit).into_iter();
    Ok(ColourOptions {
        conventions: ways.map(|option| way(&option, &prepared, show, write)).collect(),
        gels: gels.map(|option| offer(&option, setup, write)).collect(),
    })
}

fn way(option: &BalanceOption, setup: &Prepared<'_>, show: Show, write: &Write<'_>) -> BalanceWay {
    let settings = option.settings.as_ref();
    BalanceWay {
        code: balance_code(option.balance),
        name: convention_name(option.balance).to_owned(),
        label: balance_label(&option.colour.balance),
        says: meaning_of(option.balance).to_owned(),
        chosen: option.setup == *setup.setup,
        settings: settings.map(|(camera, lights)| format!("{}{}", camera.label(), lights_at(lights, show.power()))),
        regions: regions(setup, &option.colour.colours, &option.colour.balance),
        setup: write(&option.setup),
    }
}

fn offer(option: &GelOption<'_>, setup: &Setup, write: &Write<'_>) -> GelOffer {
    let (found, ambient) = (&option.found, option.ambient);
    let left = found.left_mired;
    let tint = tint_words(found.left_tint_duv).map_or_else(String::new, |tint| format!(", {tint}"));
    let than = if left.abs() < 1.0 {
        "as warm as the ambient".to_owned()
    } else {
        format!("{:.0} mired {} than the ambient", left.abs(), if left > 0.0 { "warmer" } else { "cooler" })
    };
    let names: Vec<&str> = option.gels.iter().map(|gel| gel.name.as_str()).collect();
    GelOffer {
        light_id: setup.lights[option.light].id.clone(),
        gels: if names.is_empty() { "No gel".to_owned() } else { names.join(" with ") },
        says: format!("{} against {}: {than}{tint}", found.light.kelvin().label(), ambient.kelvin().label()),
        chosen: option.chosen,
        setup: write(&option.setup),
    }
}
