//! What the camera is balanced for: a school, put on the camera's dial.

use super::mix::{Colours, key};
use crate::blend::outcome::Outcome;
use crate::colour::{Balanced, COOL, FIXED, Kelvin, Light, Mired, NIGHT, Preset, WARM, WhiteBalance, Why};
use crate::job::CheckedSetup;

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

impl WhiteBalance {
    /// All schools, with a name of the menu; a setup's own balance stands in the place of its kind, or first.
    pub(in crate::blend) fn schools(own: Self, preset: Preset) -> Vec<Self> {
        let mut all = vec![
            Self::Flash,
            Self::Ambient,
            Self::Between,
            by_number(FIXED, Why::Fixed),
            Self::Preset(preset),
            Self::Measured,
            by_number(WARM, Why::Warm),
            by_number(COOL, Why::Cool),
            by_number(NIGHT, Why::Night),
        ];
        match all.iter().position(|one| one.school() == own.school()) {
            Some(at) => all[at] = own,
            None => all.insert(0, own),
        }
        all
    }

    /// What the school is called.
    pub fn school(self) -> &'static str {
        match self {
            Self::Flash => "The flash’s",
            Self::Ambient => "The ambient’s, flash gelled to it",
            Self::Between => "Between the two",
            Self::Measured => "Measured with a target",
            Self::Preset(_) => "A name on the menu",
            Self::Kelvin { why, .. } => why.name(),
        }
    }

    /// What it does to the picture, in a sentence.
    pub fn meaning(self) -> &'static str {
        match self {
            Self::Flash => "What the flash lights is neutral; the ambient goes its own way.",
            Self::Ambient => "One colour of light everywhere: what lies behind is neutral too. The gel costs power.",
            Self::Between => "Neither is neutral, neither is far off: half way in mired.",
            Self::Measured => {
                "A grey or white target in the subject’s place: whatever falls there is neutral, tint too."
            }
            Self::Preset(_) => "Quick, and the same tomorrow: makers differ a little.",
            Self::Kelvin { why: Why::ByHand, .. } => "Your own number.",
            Self::Kelvin { why: Why::Fixed, .. } => {
                "The same all day outdoors: the light’s changes stay in the picture."
            }
            Self::Kelvin { why: Why::Warm, .. } => "A shade setting against a sunset makes it glow.",
            Self::Kelvin { why: Why::Cool, .. } => "Hard sunset light turns skin orange: 3500 to 4000 K saves it.",
            Self::Kelvin { why: Why::Night, .. } => {
                "Night with white lamps: 6000 to 7000 K keeps them from going blue."
            }
            Self::Kelvin { why: Why::Look, .. } => "Held over several setups.",
        }
    }
}
