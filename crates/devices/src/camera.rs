//! Cameras.

use jiff::civil::DateTime;
use rand_distr::{Distribution as _, Normal, StandardNormal};
use tolva_core::proof::{MID_GREY, Picture, Size};
use tolva_core::scale::Stops;
use tolva_pictures::{Taken, jpeg};
use tolva_planner::lighting::Prepared;
use tolva_planner::proof::{Layers, Proof, Weights};
use tolva_planner::setup::{Unknown, camera_more, light_more, meter_more};
use tolva_planner::solver::Outcome;
use tolva_planner::uncertainty::unknowns;

use crate::{DeviceError, dice};

/// What a frame is taken of, and how.
#[derive(Debug)]
pub struct Scene<'a> {
    /// The setup.
    pub prepared: &'a Prepared<'a>,
    /// Its plan: what stands on the dials.
    pub outcome: &'a Outcome,
    /// Its proof.
    pub proof: &'a Proof,
    /// The proof's layers, of this size.
    pub layers: &'a Layers,
    /// How large the frame is.
    pub size: Size,
    /// Whether the flashes fire.
    pub flash: bool,
    /// When, by the camera's clock.
    pub at: DateTime,
    /// Which frame of the day it is.
    pub number: u32,
}

/// Takes frames.
pub trait Camera {
    /// A frame, as a JPEG with its settings in EXIF.
    ///
    /// # Errors
    /// The camera does not answer.
    fn take(&self, scene: &Scene<'_>) -> Result<Vec<u8>, DeviceError>;
}

/// A stand-in for a real set and a real camera: units give more or less than they say, modifiers take more or less, the light
/// is another than was guessed, the camera has an offset, a curve and noise of its own. All of it is hidden and stays the
/// same for a seed.
#[derive(Clone, Copy, Debug, Default)]
pub struct SimulatedCamera {
    /// Another seed is another camera and another set.
    pub seed: u64,
}

/// One standard deviation of how much steeper or flatter its curve is than sRGB. Chosen.
const CONTRAST: f64 = 0.03;
/// Noise of photons at ISO 100: the variance over the light. Chosen: one part in a hundred at mid grey.
const NOISE: f64 = 0.000_02;

impl SimulatedCamera {
    /// What is hidden: how much more there is of each unknown than the figures say.
    pub fn hidden(self, prepared: &Prepared<'_>, outcome: &Outcome) -> Vec<(Unknown, Stops)> {
        let all = unknowns(prepared, outcome).into_iter();
        // How a light falls beside where it is aimed is the set's, and the proof has it from there.
        let hidden = all.filter(|seen| !matches!(seen.what, Unknown::Spill { .. }));
        hidden.map(|seen| (seen.what.clone(), Stops(self.drawn(&words(&seen.what), seen.by_figures.0)))).collect()
    }

    /// How much steeper its curve is than sRGB, in linear light on logarithmic scales: 1 is the same.
    pub fn contrast(self) -> f64 {
        1.0 + self.drawn(&["contrast"], CONTRAST)
    }

    fn drawn(self, words: &[&str], sigma: f64) -> f64 {
        let mut dice = dice(&[words, &["camera", &self.seed.to_string()]].concat());
        Normal::new(0.0, sigma).map_or(0.0, |normal| normal.sample(&mut dice))
    }

    /// What the layers are weighed with: the plan's own, and what is hidden on top of what frames have taught.
    fn weights(self, scene: &Scene<'_>) -> Weights {
        let setup = scene.prepared.setup;
        let learnt = setup.learnt.as_ref();
        let hidden = self.hidden(scene.prepared, scene.outcome);
        let more = |is: &dyn Fn(&Unknown) -> bool, known: Stops| {
            hidden.iter().find(|(what, _)| is(what)).map_or(Stops::ZERO, |(_, more)| *more) - known
        };
        let camera = more(&|what| matches!(what, Unknown::Camera { .. }), camera_more(setup, scene.prepared.camera));
        #[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
        let times = |weight: [f32; 3], more: Stops| weight.map(|part| part * (more + camera).ratio() as f32);
        let lights = scene.proof.weights.lights.iter().zip(&setup.lights).map(|(weight, light)| {
            let flash = scene.prepared.lights.iter().find(|one| one.light.id == light.id).map(|one| one.flash);
            let known = flash.map_or(Stops::ZERO, |flash| light_more(setup, light, flash));
            let own = more(&|what| matches!(what, Unknown::Light { light_id, .. } if *light_id == light.id), known);
            weight.filter(|_| scene.flash).map(|weight| times(weight, own))
        });
        let regions = setup.regions.iter().zip(&scene.prepared.meters);
        let places = scene.proof.weights.places.iter().zip(regions).map(|(weight, (region, meter))| {
            let known = learnt.map_or(Stops::ZERO, |learnt| learnt.ambient(&region.id));
            let there = more(&|what| matches!(what, Unknown::Ambient { region_id } if *region_id == region.id), known);
            let meter = meter.map_or(Stops::ZERO, |meter| {
                let known = meter_more(setup, meter);
                more(&|what| matches!(what, Unknown::Meter { meter_id } if *meter_id == meter.id), known)
            });
            times(*weight, there + meter)
        });
        Weights { lights: lights.collect(), places: places.collect() }
    }
}

/// What an unknown is, as words to draw by.
fn words(what: &Unknown) -> Vec<&str> {
    match what {
        Unknown::Camera { camera_id, lens_id } => vec!["camera", camera_id, lens_id],
        Unknown::Meter { meter_id } => vec!["meter", meter_id],
        Unknown::Ambient { region_id } => vec!["ambient", region_id],
        Unknown::Light { light_id, flash_id, modifier_id } => {
            vec!["light", light_id, flash_id, modifier_id.as_deref().unwrap_or_default()]
        }
        Unknown::Spill { light_id, region_id } => vec!["spill", light_id, region_id],
    }
}

impl Camera for SimulatedCamera {
    fn take(&self, scene: &Scene<'_>) -> Result<Vec<u8>, DeviceError> {
        let picture = scene.layers.developed(scene.size, &self.weights(scene), &scene.proof.moves);
        let mut dice = dice(&["noise", &self.seed.to_string(), &scene.number.to_string()]);
        let (contrast, noise) = (self.contrast(), NOISE * scene.proof.iso / 100.0);
        let grey = f64::from(MID_GREY);
        let pixels = picture.pixels.into_iter().map(|pixel| {
            pixel.map(|light| {
                let light = f64::from(light).max(0.0);
                let photons: f64 = StandardNormal.sample(&mut dice);
                let seen = (light + photons * (light * noise).sqrt()).max(0.0);
                #[expect(clippy::cast_possible_truncation, reason = "single precision is enough for a picture")]
                let level = (grey * (seen / grey).powf(contrast)) as f32;
                level
            })
        });
        let picture = Picture { size: picture.size, pixels: pixels.collect() };
        let taken = Taken {
            shutter_s: Some(scene.outcome.settings.shutter.exact),
            f_number: Some(scene.outcome.settings.aperture.exact),
            iso: Some(scene.outcome.settings.iso.exact),
            focal_length_mm: Some(scene.prepared.setup.focal_length_mm),
            flash: Some(scene.flash && scene.outcome.flashes()),
            at: Some(scene.at),
            camera: Some(scene.prepared.camera.name.clone()),
            simulated: true,
            wrong: Vec::new(),
        };
        jpeg(&picture, 95, Some((&taken, "Simulated: made by the stand-in camera, of no real place")))
            .map_err(|wrong| DeviceError::Asked(wrong.to_string()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use tolva_core::frame::{Mark, Shape};
    use tolva_core::proof::{Fineness, Work};
    use tolva_pictures::read;
    use tolva_planner::frames::{Came, taught};
    use tolva_planner::setup::{Kit, Setup};

    const SIZE: Size = Size { width: 96, height: 64 };

    fn frame(camera: SimulatedCamera, setup: &Setup, kit: &Kit, flash: bool, number: u32) -> (Vec<u8>, Picture) {
        let prepared = Prepared::new(setup, kit).expect("good");
        let outcome = Outcome::of(&prepared);
        let proof = Proof::of(&prepared, &outcome, kit);
        let layers = proof.layers(SIZE, Fineness::Coarse, &Work::default()).expect("rendered");
        let at = DateTime::new(2026, 9, 4, 18, 30, 0, 0).expect("a time");
        let scene = Scene {
            prepared: &prepared,
            outcome: &outcome,
            proof: &proof,
            layers: &layers,
            size: SIZE,
            flash,
            at,
            number,
        };
        let weights = Weights {
            lights: proof.weights.lights.iter().map(|light| light.filter(|_| flash)).collect(),
            ..proof.weights.clone()
        };
        (camera.take(&scene).expect("a frame"), layers.developed(SIZE, &weights, &proof.moves))
    }

    /// A corner where nobody stands.
    const BEHIND: Mark = Mark { left: 0.02, top: 0.02, width: 0.2, height: 0.3, shape: Shape::Box };

    /// The same for the same seed and number, marked as simulated, with its settings.
    #[test]
    fn a_frame_is_the_same_again() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let camera = SimulatedCamera { seed: 3 };
        let (first, _) = frame(camera, &setup, &kit, true, 1);
        assert_eq!(first, frame(camera, &setup, &kit, true, 1).0);
        assert_ne!(first, frame(camera, &setup, &kit, true, 2).0, "another frame has other noise");
        assert_ne!(first, frame(SimulatedCamera { seed: 4 }, &setup, &kit, true, 1).0);
        let read = read(&first, None).expect("a JPEG");
        assert!(read.taken.simulated && read.taken.flash == Some(true) && read.taken.ev100().is_ok());
        assert_eq!((read.size.wide, read.size.high), (96, 64));
        let (without, _) = frame(camera, &setup, &kit, false, 1);
        assert_eq!(tolva_pictures::read(&without, None).expect("a JPEG").taken.flash, Some(false));
    }

    /// What a camera with this curve makes of a picture that is so much brighter.
    fn as_seen(picture: &Picture, more: f64, contrast: f64) -> f64 {
        let grey = f64::from(MID_GREY);
        let curved = |part: f32| (grey * (f64::from(part).max(0.0) * more.exp2() / grey).powf(contrast)).min(1.0);
        #[expect(clippy::cast_possible_truncation, reason = "a picture")]
        let pixels = picture.pixels.iter().map(|pixel| pixel.map(|part| curved(part) as f32)).collect();
        let picture = Picture { size: picture.size, pixels };
        let photo = tolva_core::frame::Photo { picture, clipped: vec![0; SIZE.count()] };
        photo.measured(BEHIND).stops().expect("light").0
    }

    /// What is hidden shows in the frame, and what frames have taught is taken off it: without flash a
    /// frame is off behind by ambient and camera, through the camera's own curve.
    #[test]
    fn what_is_hidden_shows_until_it_is_learnt() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let mut told = 0;
        for seed in 0..6 {
            let camera = SimulatedCamera { seed };
            let prepared = Prepared::new(&setup, &kit).expect("good");
            let outcome = Outcome::of(&prepared);
            let hidden = camera.hidden(&prepared, &outcome);
            let of =
                |is: &dyn Fn(&Unknown) -> bool| hidden.iter().find(|(what, _)| is(what)).map_or(0.0, |one| one.1.0);
            let behind = of(&|what| matches!(what, Unknown::Ambient { region_id } if region_id == "behind"));
            let more = behind + of(&|what| matches!(what, Unknown::Camera { .. }));
            let measured = |file: &[u8]| read(file, None).expect("a JPEG").photo.measured(BEHIND);
            let (file, planned) = frame(camera, &setup, &kit, false, 1);
            let came = measured(&file);
            if came.is_clipped() || came.is_dark() {
                continue;
            }
            told += 1;
            let comes = as_seen(&planned, more, camera.contrast());
            assert!((came.stops().expect("light").0 - comes).abs() < 0.05, "{seed}: {came:?} for {comes}");
            // Once it is known, the plan says what comes.
            let off = Came { stops: outcome.regions[0].together + Stops(more), sure: Stops(0.01) };
            let learnt = taught(&prepared, &outcome, outcome.settings, &[Some(off)]).expect("it tells");
            let after = Setup { learnt: Some(learnt), ..setup.clone() };
            let (file, planned) = frame(camera, &after, &kit, false, 1);
            let (came, comes) = (measured(&file), as_seen(&planned, 0.0, camera.contrast()));
            assert!((came.stops().expect("light").0 - comes).abs() < 0.07, "{seed}: {came:?} for {comes}");
        }
        assert!(told >= 4);
    }
}
