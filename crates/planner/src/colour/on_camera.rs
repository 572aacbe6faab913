//! What the camera is balanced for: a school, put on the camera's dial.

use super::mix::Colours;
use crate::lighting::Prepared;
use crate::solver::Outcome;
use tolva_core::colour::{Balanced, Illuminant, Kelvin, Mired, Preset, WhiteBalance};

/// A camera's kelvin dial goes in steps of so many. Common practice, no source.
const DIAL_K: f64 = 100.0;

/// What a camera says of its balance.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum OnDial {
    /// That it was measured off a target.
    Measured,
    /// A name on its menu.
    Preset(Preset),
    /// A number.
    Kelvin(Kelvin),
}

/// A balance as it stands on the camera.
#[derive(Clone)]
pub struct Balance {
    /// What it would be exactly.
    pub exact: Illuminant,
    /// What stands on the camera.
    pub dial: Illuminant,
    /// As the camera says it.
    pub on_dial: OnDial,
    /// What it makes of colours.
    pub renders: Balanced,
}

fn on_dial(kelvin: Kelvin) -> Kelvin {
    Kelvin((kelvin.0 / DIAL_K).round() * DIAL_K)
}

/// Half way between two lights, in mired.
fn between(a: Illuminant, b: Illuminant) -> Illuminant {
    let mired = f64::midpoint(a.mired().0, b.mired().0);
    Illuminant::new(Mired(mired).kelvin(), f64::midpoint(a.tint_duv(), b.tint_duv()))
}

impl Balance {
    /// The balance of a setup as it came out.
    pub fn of(setup: &Prepared<'_>, outcome: &Outcome, colours: &Colours) -> Self {
        let wished = setup.setup.white_balance;
        let ambient = colours.ambient_on(setup.lit);
        let flash = outcome.key(setup).map_or(ambient, |key| colours.flashes[key.0]);
        let exact = match wished {
            WhiteBalance::Flash => flash,
            WhiteBalance::Ambient => ambient,
            WhiteBalance::Between => between(flash, ambient),
            WhiteBalance::Measured => colours.mixes[setup.lit].light,
            WhiteBalance::Preset(preset) => Illuminant::new(preset.kelvin(), 0.0),
            WhiteBalance::Kelvin { kelvin, tint_duv, .. } => Illuminant::new(Kelvin(kelvin), tint_duv),
        };
        let (dial, on_dial) = match wished {
            // What is measured is balanced as it is, tint and all.
            WhiteBalance::Measured => (exact, OnDial::Measured),
            WhiteBalance::Preset(preset) => (exact, OnDial::Preset(preset)),
            WhiteBalance::Kelvin { .. } => (exact, OnDial::Kelvin(exact.kelvin())),
            // The dial has kelvin and no tint.
            WhiteBalance::Flash | WhiteBalance::Ambient | WhiteBalance::Between => {
                let dial = Illuminant::new(on_dial(exact.kelvin()), 0.0);
                (dial, OnDial::Kelvin(dial.kelvin()))
            }
        };
        Self { exact, dial, on_dial, renders: Balanced::on(dial.xy()) }
    }
}
