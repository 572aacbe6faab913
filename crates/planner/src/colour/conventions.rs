//! The conventions of white balance side by side, and the gels that bring each light to what is there.

use tolva_core::colour::{BalanceReason, COOL, FIXED, GelMatch, Illuminant, Kelvin, NIGHT, Preset, WARM, WhiteBalance};
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::Power;

use super::gels::{gels_to, ids};
use super::{Balance, Colours, InColour};
use crate::lighting::Prepared;
use crate::setup::{Gel, Kit, LightIndex, Setup};
use crate::solver::Outcome;

/// A convention of white balance, and what comes of it.
#[derive(Clone)]
pub struct BalanceOption {
    /// What the camera is balanced for.
    pub balance: WhiteBalance,
    /// What is set where its gels change the powers; nothing where they are as they were.
    pub settings: Option<(CameraSettings, Vec<(String, Power)>)>,
    /// The colours that come of it.
    pub colour: InColour,
    /// The setup with it.
    pub setup: Setup,
}

/// Gels for a light.
#[derive(Clone, Debug, PartialEq)]
pub struct GelOption<'a> {
    /// The light, by its place in the setup.
    pub light: LightIndex,
    /// The gels of the kit that bring it nearest; none where none brings it nearer.
    pub gels: Vec<&'a Gel>,
    /// What they make of it, and what is left over.
    pub found: GelMatch,
    /// What they are to bring it to.
    pub ambient: Illuminant,
    /// Whether it is the setup as it is.
    pub chosen: bool,
    /// The setup with these gels.
    pub setup: Setup,
}

/// A balance of a number of kelvin.
fn by_number(kelvin: Kelvin, reason: BalanceReason) -> WhiteBalance {
    WhiteBalance::Kelvin { kelvin: kelvin.0, tint_duv: 0.0, reason }
}

/// The code of a convention of white balance.
pub fn balance_code(balance: WhiteBalance) -> &'static str {
    match balance {
        WhiteBalance::Flash => "flash",
        WhiteBalance::Ambient => "ambient",
        WhiteBalance::Between => "between",
        WhiteBalance::Measured => "measured",
        WhiteBalance::Preset(_) => "preset",
        WhiteBalance::Kelvin { reason, .. } => match reason {
            BalanceReason::ByHand => "by_hand",
            BalanceReason::Fixed => "fixed",
            BalanceReason::Warm => "warm",
            BalanceReason::Cool => "cool",
            BalanceReason::Night => "night",
            BalanceReason::Look => "look",
        },
    }
}

/// All conventions, with a name of the menu; a setup's own balance stands in the place of its kind, or first.
pub fn every_balance(own: WhiteBalance, preset: Preset) -> Vec<WhiteBalance> {
    let mut all = vec![
        WhiteBalance::Flash,
        WhiteBalance::Ambient,
        WhiteBalance::Between,
        by_number(FIXED, BalanceReason::Fixed),
        WhiteBalance::Preset(preset),
        WhiteBalance::Measured,
        by_number(WARM, BalanceReason::Warm),
        by_number(COOL, BalanceReason::Cool),
        by_number(NIGHT, BalanceReason::Night),
    ];
    match all.iter().position(|one| balance_code(*one) == balance_code(own)) {
        Some(at) => all[at] = own,
        None => all.insert(0, own),
    }
    all
}

/// The name on the menu that is nearest to a light.
pub fn nearest_preset(light: Illuminant) -> Preset {
    let off = |preset: &Preset| (preset.kelvin().mired().0 - light.mired().0).abs();
    Preset::ALL.into_iter().min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(Preset::Daylight)
}

/// All conventions of white balance for a setup as it came out, each with what becomes of its colours.
pub fn balance_options(setup: &Prepared<'_>, outcome: &Outcome, colours: &Colours, kit: &Kit) -> Vec<BalanceOption> {
    let own = setup.setup.white_balance;
    let mut all = every_balance(own, nearest_preset(colours.ambient_on(setup.lit)));
    if outcome.key(setup).is_none() {
        all.retain(|one| !matches!(one, WhiteBalance::Flash | WhiteBalance::Between) || *one == own);
    }
    let option = |balance| {
        let mut other = Setup { white_balance: balance, ..setup.setup.clone() };
        // Where it is the setup’s own, its gels are what they are.
        if balance == WhiteBalance::Ambient && balance != own {
            gel_all(&mut other, setup, colours, kit);
        }
        let (settings, colour) = if other.lights == setup.setup.lights {
            let with = Prepared { setup: &other, ..setup.clone() };
            let balance = Balance::of(&with, outcome, colours);
            (None, InColour { colours: colours.clone(), balance })
        } else {
            let again = Prepared::new(&other, kit).ok()?;
            let outcome = Outcome::of(&again);
            (Some((outcome.settings, outcome.lights_on(&again))), InColour::of(&again, &outcome))
        };
        Some(BalanceOption { balance, settings, colour, setup: other })
    };
    all.into_iter().filter_map(option).collect()
}

/// Every flash gelled to the ambient where it is aimed.
fn gel_all(other: &mut Setup, setup: &Prepared<'_>, colours: &Colours, kit: &Kit) {
    for (light, bare) in setup.lights.iter().zip(&colours.flashes_bare) {
        other.lights[light.index].gel_ids = ids(&gels_to(*bare, colours.ambient_on(light.aimed_at), kit).0);
    }
}

/// For each light, the nearest gels of the kit to the ambient where it is aimed.
pub fn gel_options<'a>(setup: &Prepared<'_>, colours: &Colours, kit: &'a Kit) -> Vec<GelOption<'a>> {
    let one = |light: LightIndex, native: Illuminant, ambient: Illuminant| {
        let (gels, found) = gels_to(native, ambient, kit);
        let mut other = setup.setup.clone();
        other.lights[light].gel_ids = ids(&gels);
        let sorted = |ids: &[String]| {
            let mut sorted = ids.to_vec();
            sorted.sort();
            sorted
        };
        let chosen = sorted(&other.lights[light].gel_ids) == sorted(&setup.setup.lights[light].gel_ids);
        GelOption { light, gels, found, ambient, chosen, setup: other }
    };
    let flashes = setup.lights.iter().zip(&colours.flashes_bare);
    let flashes = flashes.map(|(light, bare)| one(light.index, *bare, colours.ambient_on(light.aimed_at)));
    // A lamp is gelled to the light that is there without it.
    let lamps = setup.lamps.iter().map(|lamp| one(lamp.index, lamp.bounced_native(), colours.ambient[setup.lit]));
    flashes.chain(lamps).collect()
}
