//! A scene to read pictures of and to practise on: somebody before something, with one flash, and which dials stand wrong.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::exposure::Ambient;
use tolva_core::scale::{Aperture, Power, Setting, Shutter, Stops};

use crate::lighting::Prepared;
use crate::setup::{Blend, Kit, Setup};
use crate::solver::Outcome;

/// A dial that stands wrong shows in a picture by which light it moves.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PictureDial {
    /// The shutter: the light that is there alone.
    Shutter,
    /// The power: the flash alone.
    Power,
    /// The aperture: both.
    Aperture,
}

/// A dial that stands wrong, and by how much brighter that makes its light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Misset {
    /// Which.
    pub dial: PictureDial,
    /// By how many stops.
    pub by: Stops,
}

/// Somebody before something, with one flash: light that is there by three readings, and a wish.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PictureScene {
    /// What lies behind, EV at ISO 100.
    pub behind_ev: f64,
    /// How far under it the lit side lies, in stops.
    pub under: Stops,
    /// What is wished behind, in stops from mid grey; the lit side is to come at 0.
    pub background: Stops,
}

impl PictureScene {
    /// The setup with its readings and its wish, and nothing on a dial yet.
    pub(super) fn wished(&self, kit: &Kit) -> Setup {
        let mut setup = Setup::new("drill", kit);
        let lit = self.behind_ev - self.under.0;
        for (region, ev100) in setup.regions.iter_mut().zip([self.behind_ev, lit, lit - 1.0]) {
            region.ambient = Ambient::guessed(ev100);
        }
        setup.blend = Blend::Lift { subject_stops: 0.0, background_stops: self.background.0 };
        setup
    }

    /// The setup with its plan on every dial, some of them misset; nothing where a dial does not go there.
    pub fn setup(&self, misset: &[Misset]) -> Option<(Setup, Kit)> {
        let kit = Kit::starter();
        let mut setup = self.wished(&kit);
        let (settings, power, distance, lowest) = {
            let prepared = Prepared::new(&setup, &kit).ok()?;
            let outcome = Outcome::of(&prepared);
            let light = outcome.lights.first().copied().flatten()?;
            (outcome.settings, light.power, light.distance, prepared.lights[0].lowest)
        };
        let of = |dial: PictureDial| misset.iter().filter(|one| one.dial == dial).map(|one| one.by.0).sum::<f64>();
        let shutter = settings.shutter.exact * of(PictureDial::Shutter).exp2();
        let aperture = settings.aperture.exact * (-of(PictureDial::Aperture) / 2.0).exp2();
        let power = power.0.0 + of(PictureDial::Power);
        let (camera, lens) = (&kit.cameras[0], &kit.lenses[0]);
        let shutter = Setting::<Shutter>::of(shutter);
        let sync = Setting::<Shutter>::of(camera.sync_safe_s);
        let on_the_dials = shutter.position().0 <= sync.position().0 + 1e-6
            && (lens.widest_f_number * 0.99..=lens.smallest_f_number * 1.01).contains(&aperture)
            && (lowest.0.0 - 1e-6..=1e-6).contains(&power);
        on_the_dials.then_some(())?;
        setup.fixed.shutter_s = Some(shutter.nominal);
        setup.fixed.f_number = Some(Setting::<Aperture>::of(aperture).nominal);
        setup.fixed.iso = Some(settings.iso.nominal);
        let light = setup.lights.first_mut()?;
        (light.power_stops, light.distance_m) = (Some(Power(Stops(power)).0.0), Some(distance.0));
        Some((setup, kit))
    }

    /// Where each region comes out, in stops from mid grey, in the order of the setup.
    pub fn comes_out(&self, misset: &[Misset]) -> Option<Vec<Stops>> {
        let (setup, kit) = self.setup(misset)?;
        let prepared = Prepared::new(&setup, &kit).ok()?;
        Some(Outcome::of(&prepared).regions.iter().map(|region| region.together).collect())
    }
}

pub(super) fn scene(draw: &mut ChaCha8Rng) -> PictureScene {
    PictureScene {
        behind_ev: f64::from(draw.random_range(22..=28)) / 2.0,
        under: Stops(f64::from(draw.random_range(2..=6)) / 2.0),
        background: Stops(-f64::from(draw.random_range(1..=4)) / 2.0),
    }
}
