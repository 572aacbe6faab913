//! Two lights of a real frame, mixed anew: what each is weighed with, and the setup that would take it so.

use tolva_core::colour::{BalanceReason, Balanced, Illuminant, Kelvin, Shift, WhiteBalance, white};
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Power, Stops};

use crate::colour::InColour;
use crate::lighting::Prepared;
use crate::setup::{Fixed, Setup};
use crate::solver::Outcome;

/// How two lights are mixed against how they came.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Mix {
    /// So much more of the light that is there: by the shutter.
    pub ambient: Stops,
    /// So much more of the flash: by its power.
    pub flash: Stops,
    /// A gel over the flash, in mired: positive is warmer.
    pub gel_mired: f64,
    /// What the camera is set to, in kelvin; nothing for as it was.
    pub kelvin: Option<f64>,
}

/// What the light that is there and the flash are weighed with, in red, green and blue, so that the picture is as it would
/// have been taken so. The colours of the two lights are the setup's.
pub fn mix_weights(prepared: &Prepared<'_>, outcome: &Outcome, mix: Mix) -> [[f32; 3]; 2] {
    let InColour { colours, balance } = InColour::of(prepared, outcome);
    let there = colours.ambient_on(prepared.lit);
    let flash = outcome.key(prepared).map_or(there, |key| colours.flashes[key.0]);
    let gelled = flash.shifted(Shift { mired: mix.gel_mired, tint_duv: 0.0 });
    let now = mix.kelvin.map(|kelvin| Balanced::on(white(Kelvin(kelvin))));
    let times = |before: Illuminant, after: Illuminant, more: Stops| {
        let was = balance.renders.renders(before.xy().xyz()).0;
        let is = now.as_ref().unwrap_or(&balance.renders).renders(after.xy().xyz()).0;
        #[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
        let weight = [0, 1, 2].map(|part: usize| (is[part].max(0.0) / was[part].max(0.02) * more.ratio()) as f32);
        weight
    };
    [times(there, there, mix.ambient), times(flash, gelled, mix.flash)]
}

/// The setup that would take it so: the shutter, each light's power and the white balance stand as mixed, aperture and ISO as
/// they were. A gel is left to who chooses one.
pub fn mixed_into(prepared: &Prepared<'_>, outcome: &Outcome, taken: CameraSettings, mix: Mix) -> Setup {
    let shutter = prepared.shutters.nearest(taken.shutter.position() + mix.ambient);
    let mut setup = prepared.setup.clone();
    setup.fixed = Fixed {
        shutter_s: Some(shutter.nominal),
        f_number: Some(taken.aperture.nominal),
        iso: Some(taken.iso.nominal),
    };
    for (light, at) in prepared.lights.iter().zip(&outcome.lights) {
        let Some(at) = at else { continue };
        let Power(stops) = at.power;
        setup.lights[light.index].power_stops = Some((stops + mix.flash).0.clamp(light.lowest.0.0, 0.0));
    }
    if let Some(kelvin) = mix.kelvin {
        setup.white_balance = WhiteBalance::Kelvin { kelvin, tint_duv: 0.0, reason: BalanceReason::ByHand };
    }
    setup
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Kit, Setup};

    const AS_IT_WAS: Mix = Mix { ambient: Stops::ZERO, flash: Stops::ZERO, gel_mired: 0.0, kelvin: None };

    /// A mixture that changes nothing weighs nothing; a stop is twice; a warm gel takes from the blue of the flash alone.
    #[test]
    fn weights_are_what_is_turned() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&prepared);
        let of = |mix| mix_weights(&prepared, &outcome, mix);
        assert!(of(AS_IT_WAS).iter().flatten().all(|weight| (weight - 1.0).abs() < 1e-6));
        let [there, flash] = of(Mix { ambient: Stops(1.0), flash: Stops(-1.0), ..AS_IT_WAS });
        assert!((there[1] - 2.0).abs() < 1e-6 && (flash[1] - 0.5).abs() < 1e-6);
        let [there, flash] = of(Mix { gel_mired: 100.0, ..AS_IT_WAS });
        assert!((there[2] - 1.0).abs() < 1e-6 && flash[2] < 0.7 * flash[0], "{flash:?}");
        let [there, flash] = of(Mix { kelvin: Some(3200.0), ..AS_IT_WAS });
        assert!(there[2] > there[0] && flash[2] > flash[0], "a low balance makes all bluer");
    }

    /// What was mixed stands on the dials, and the plan of it comes to that.
    #[test]
    fn a_mixture_goes_into_the_setup() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&prepared);
        let mix = Mix { ambient: Stops(-1.0), flash: Stops(-1.0), gel_mired: 0.0, kelvin: Some(4800.0) };
        let mixed = mixed_into(&prepared, &outcome, outcome.settings, mix);
        let after = Prepared::new(&mixed, &kit).expect("good");
        let comes = Outcome::of(&after);
        let faster = outcome.settings.shutter.position() - comes.settings.shutter.position();
        assert!((faster.0 - 1.0).abs() < 0.01, "{faster:?}");
        let power = |of: &Outcome| of.lights[0].expect("on").power.0.0;
        assert!((power(&outcome) - power(&comes) - 1.0).abs() < 0.01);
        assert_eq!(
            mixed.white_balance,
            WhiteBalance::Kelvin { kelvin: 4800.0, tint_duv: 0.0, reason: BalanceReason::ByHand }
        );
    }
}
