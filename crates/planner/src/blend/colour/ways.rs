//! All schools of white balance side by side, and the gels that bring each light to what is there.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::balance::{Balance, every_balance, meaning_of, school_of};
use super::colouring::{gels_to, ids, names};
use super::mix::{Colours, key};
use super::{InColour, RegionColour, regions};
use crate::blend::outcome::Outcome;
use crate::blend::plan::Show;
use crate::blend::words::lights_at;
use crate::job::{CheckedSetup, Kit, Problems, Setup};
use tolva_core::colour::{Light, Preset, WhiteBalance, tint_words};

/// The schools, and the gels.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ColourWays {
    /// The schools of white balance, each as it would come out.
    pub ways: Vec<BalanceWay>,
    /// For each light, the nearest gels of the kit to the ambient where it is aimed.
    pub gels: Vec<GelOffer>,
}

/// One school.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BalanceWay {
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
    /// The setup with this school.
    pub setup: Setup,
}

/// Gels for a light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
    pub setup: Setup,
}

/// The preset nearest to the light that is there.
fn nearest_preset(light: Light) -> Preset {
    let off = |preset: &Preset| (preset.kelvin().mired().0 - light.mired().0).abs();
    Preset::ALL.into_iter().min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(Preset::Daylight)
}

/// All schools of white balance for a setup, and the gels that bring each light to the ambient.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, with pointers that begin with `/kit` and `/setup`.
pub fn colour_ways(setup: &Setup, kit: &Kit, show: Show) -> Result<ColourWays, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let outcome = Outcome::of(&checked);
    let colours = Colours::of(&checked, &outcome);
    let ambient = colours.lit_ambient(&checked);
    let own = setup.white_balance;
    let mut schools = every_balance(own, nearest_preset(ambient));
    if key(&checked, &outcome).is_none() {
        schools.retain(|school| !matches!(school, WhiteBalance::Flash | WhiteBalance::Between) || *school == own);
    }
    let ways = schools.into_iter().filter_map(|school| {
        let mut other = Setup { white_balance: school, ..setup.clone() };
        // Where it is the setup’s own, its gels are what they are.
        if school == WhiteBalance::Ambient && school != own {
            gel_all(&mut other, &checked, &colours, kit);
        }
        let gelled = other.lights != setup.lights;
        let again = if gelled { Some(CheckedSetup::new(&other, kit).ok()?) } else { None };
        let (regions, label, settings) = if let Some(again) = &again {
            let outcome = Outcome::of(again);
            let InColour { colours, balance } = InColour::of(again, &outcome);
            let settings = format!("{}{}", outcome.settings.label(), lights_at(&outcome.lights_on(again), show.power));
            (regions(again, &colours, &balance), balance.label, Some(settings))
        } else {
            let with = CheckedSetup { setup: &other, ..checked.clone() };
            let balance = Balance::of(&with, &outcome, &colours);
            (regions(&with, &colours, &balance), balance.label, None)
        };
        drop(again);
        Some(BalanceWay {
            name: school_of(school).to_owned(),
            label,
            says: meaning_of(school).to_owned(),
            chosen: other == *setup,
            settings,
            regions,
            setup: other,
        })
    });
    let ways = ways.collect();
    Ok(ColourWays { ways, gels: offers(setup, &checked, &colours, kit) })
}

/// Every flash gelled to the ambient where it is aimed.
fn gel_all(other: &mut Setup, setup: &CheckedSetup<'_>, colours: &Colours, kit: &Kit) {
    for light in &setup.lights {
        other.lights[light.index].gel_ids = ids(&gels_to(light.bounced_native(), colours.ambient_on(light.aim), kit).0);
    }
}

fn offers(setup: &Setup, checked: &CheckedSetup<'_>, colours: &Colours, kit: &Kit) -> Vec<GelOffer> {
    let one = |index: usize, native: Light, ambient: Light| {
        let (gels, found) = gels_to(native, ambient, kit);
        let left = found.left_mired;
        let tint = tint_words(found.left_tint_duv).map_or_else(String::new, |tint| format!(", {tint}"));
        let than = match left {
            left if left.abs() < 1.0 => "as warm as the ambient".to_owned(),
            left => {
                format!("{:.0} mired {} than the ambient", left.abs(), if left > 0.0 { "warmer" } else { "cooler" })
            }
        };
        let mut other = setup.clone();
        other.lights[index].gel_ids = ids(&gels);
        let mut sorted = (ids(&gels), setup.lights[index].gel_ids.clone());
        sorted.0.sort();
        sorted.1.sort();
        GelOffer {
            light_id: setup.lights[index].id.clone(),
            gels: if sorted.0.is_empty() { "No gel".to_owned() } else { names(&gels) },
            says: format!("{} against {}: {than}{tint}", found.light.kelvin().label(), ambient.kelvin().label()),
            chosen: sorted.0 == sorted.1,
            setup: other,
        }
    };
    let flashes =
        checked.lights.iter().map(|light| one(light.index, light.bounced_native(), colours.ambient_on(light.aim)));
    // A lamp is gelled to the light that is there without it.
    let lamps = checked.lamps.iter().map(|lamp| one(lamp.index, lamp.bounced_native(), colours.ambient[checked.lit]));
    flashes.chain(lamps).collect()
}
