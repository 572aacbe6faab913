//! What the camera is balanced for: a school, put on the camera's dial.

use super::mix::{Colours, key};
use crate::blend::outcome::Outcome;
use crate::job::CheckedSetup;
use tolva_core::colour::{Balanced, COOL, FIXED, Kelvin, Light, Mired, NIGHT, Preset, WARM, WhiteBalance, Why};

/// A camera's kelvin dial goes in steps of so many. Common practice, no source.
const DIAL_K: f64 = 100.0;

/// A balance as it stands on the camera.
#[derive(Clone)]
pub(super) struct Balance {
    /// What it would be exactly.
    pub exact: Light,
    /// What stands on the camera.
    pub dial: Light,
    /// As the camera says it: `5600 K`, `Shade`, `Measured`.
    pub label: String,
    pub renders: Balanced,
}

fn on_dial(kelvin: Kelvin) -> Kelvin {
    Kelvin((kelvin.0 / DIAL_K).round() * DIAL_K)
}

/// Half way between two lights, in mired.
fn between(a: Light, b: Light) -> Light {
    let mired = f64::midpoint(a.mired().0, b.mired().0);
    Light::new(Mired(mired).kelvin(), f64::midpoint(a.tint_duv(), b.tint_duv()))
}

impl Balance {
    pub fn of(setup: &CheckedSetup<'_>, outcome: &Outcome, colours: &Colours) -> Self {
        let wished = setup.setup.white_balance;
        let ambient = colours.lit_ambient(setup);
        let flash = key(setup, outcome).map_or(ambient, |key| colours.flashes[key]);
        let exact = match wished {
            WhiteBalance::Flash => flash,
            WhiteBalance::Ambient => ambient,
            WhiteBalance::Between => between(flash, ambient),
            WhiteBalance::Measured => colours.mixes[setup.lit].light,
            WhiteBalance::Preset(preset) => Light::new(preset.kelvin(), 0.0),
            WhiteBalance::Kelvin { kelvin, tint_duv, .. } => Light::new(Kelvin(kelvin), tint_duv),
        };
        let (dial, label) = match wished {
            // What is measured is balanced as it is, tint and all.
            WhiteBalance::Measured => (exact, "Measured".to_owned()),
            WhiteBalance::Preset(preset) => (exact, preset.name().to_owned()),
            WhiteBalance::Kelvin { .. } => (exact, exact.kelvin().label()),
            // The dial has kelvin and no tint.
            WhiteBalance::Flash | WhiteBalance::Ambient | WhiteBalance::Between => {
                let dial = Light::new(on_dial(exact.kelvin()), 0.0);
                (dial, dial.kelvin().label())
            }
        };
        Self { exact, dial, label, renders: Balanced::on(dial.xy()) }
    }
}

/// A balance of a number of kelvin.
fn by_number(kelvin: Kelvin, why: Why) -> WhiteBalance {
    WhiteBalance::Kelvin { kelvin: kelvin.0, tint_duv: 0.0, why }
}

/// All schools, with a name of the menu; a setup's own balance stands in the place of its kind, or first.
pub(in crate::blend) fn every_balance(own: WhiteBalance, preset: Preset) -> Vec<WhiteBalance> {
    let mut all = vec![
        WhiteBalance::Flash,
        WhiteBalance::Ambient,
        WhiteBalance::Between,
        by_number(FIXED, Why::Fixed),
        WhiteBalance::Preset(preset),
        WhiteBalance::Measured,
        by_number(WARM, Why::Warm),
        by_number(COOL, Why::Cool),
        by_number(NIGHT, Why::Night),
    ];
    match all.iter().position(|one| school_of(*one) == school_of(own)) {
        Some(at) => all[at] = own,
        None => all.insert(0, own),
    }
    all
}

/// What the school is called.
pub(in crate::blend) fn school_of(balance: WhiteBalance) -> &'static str {
    match balance {
        WhiteBalance::Flash => "The flash’s",
        WhiteBalance::Ambient => "The ambient’s, flash gelled to it",
        WhiteBalance::Between => "Between the two",
        WhiteBalance::Measured => "Measured with a target",
        WhiteBalance::Preset(_) => "A name on the menu",
        WhiteBalance::Kelvin { why, .. } => why.name(),
    }
}

/// What it does to the picture, in a sentence.
pub(super) fn meaning_of(balance: WhiteBalance) -> &'static str {
    match balance {
        WhiteBalance::Flash => "What the flash lights is neutral; the ambient goes its own way.",
        WhiteBalance::Ambient => {
            "One colour of light everywhere: what lies behind is neutral too. The gel costs power."
        }
        WhiteBalance::Between => "Neither is neutral, neither is far off: half way in mired.",
        WhiteBalance::Measured => {
            "A grey or white target in the subject’s place: whatever falls there is neutral, tint too."
        }
        WhiteBalance::Preset(_) => "Quick, and the same tomorrow: makers differ a little.",
        WhiteBalance::Kelvin { why: Why::ByHand, .. } => "Your own number.",
        WhiteBalance::Kelvin { why: Why::Fixed, .. } => {
            "The same all day outdoors: the light’s changes stay in the picture."
        }
        WhiteBalance::Kelvin { why: Why::Warm, .. } => "A shade setting against a sunset makes it glow.",
        WhiteBalance::Kelvin { why: Why::Cool, .. } => "Hard sunset light turns skin orange: 3500 to 4000 K saves it.",
        WhiteBalance::Kelvin { why: Why::Night, .. } => {
            "Night with white lamps: 6000 to 7000 K keeps them from going blue."
        }
        WhiteBalance::Kelvin { why: Why::Look, .. } => "Held over several setups.",
    }
}
