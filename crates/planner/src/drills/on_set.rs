//! On the set with the stand-in: a wish, readings that may be off, a kit with faults of its own. Dials are set, a frame is
//! taken, and the wish is to be reached in as few frames as possible.

use rand::SeedableRng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Aperture, Iso, Metres, Power, Setting, Shutter, Stops};

use super::Level;
use super::own::Own;
use super::scene::{PictureScene, scene};
use crate::frames::{Came, really, taught};
use crate::lighting::Prepared;
use crate::setup::{Kit, Setup, Unknown};
use crate::solver::Outcome;

/// So near to its wish a region is reached: a third of a stop. Common practice, no source: what is told from a print.
pub const HOW_NEAR: Stops = Stops(1.0 / 3.0);
/// What the best hand needs more frames for than this is not asked.
const MOST_FRAMES: usize = 4;
/// How often is drawn anew until a set can be reached, and not at the first frame by itself.
const DRAWS: usize = 60;
/// How well somebody with a calculator reads a region in a frame.
const READ: Stops = Stops(0.05);
/// The regions a wish is for: what lies behind, and the lit side.
const WISHED: usize = 2;

/// What is set before a frame: places on the dials.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct OnSetFrame {
    /// The shutter's place.
    pub shutter: usize,
    /// The aperture's.
    pub aperture: usize,
    /// The ISO's.
    pub iso: usize,
    /// The power's.
    pub power: usize,
}

/// The dials of the kit on the set.
#[derive(Clone, Debug, PartialEq)]
pub struct Dials {
    /// Shutters up to the sync speed.
    pub shutters: Vec<Setting<Shutter>>,
    /// Apertures.
    pub apertures: Vec<Setting<Aperture>>,
    /// ISO.
    pub isos: Vec<Setting<Iso>>,
    /// Powers, the lowest first.
    pub powers: Vec<Power>,
}

/// A set to practise on.
#[derive(Clone, Debug)]
pub struct OnSet {
    /// How much a frame tells.
    pub level: Level,
    /// What is there by its readings, and what is wished.
    pub scene: PictureScene,
    /// How far the flash stands.
    pub distance: Metres,
    /// What nobody knows.
    pub hidden: Vec<(Unknown, Stops)>,
    /// The fewest frames it takes without luck: the plan first, then what each frame teaches.
    pub fewest: usize,
    dials: Dials,
    kit: Kit,
}

impl OnSet {
    /// A set by level and seed. What is hidden is drawn by the stand-in camera, which is handed in.
    pub fn drawn(
        level: Level,
        seed: u64,
        hides: impl Fn(&Prepared<'_>, &Outcome) -> Vec<(Unknown, Stops)>,
    ) -> Option<Self> {
        let kit = Kit::starter();
        let own = Own::of(&kit);
        let sync = own.sync.position().0;
        let dials = Dials {
            shutters: own.shutters.into_iter().filter(|one| one.position().0 <= sync + 1e-6).collect(),
            apertures: own.apertures,
            isos: own.isos,
            powers: own.powers,
        };
        let mut draw = ChaCha8Rng::seed_from_u64(seed ^ (level as u64) << 56);
        let mut set = None;
        for _ in 0..DRAWS {
            let scene = scene(&mut draw);
            let setup = scene.wished(&kit);
            let Ok(prepared) = Prepared::new(&setup, &kit) else { continue };
            let outcome = Outcome::of(&prepared);
            let Some(light) = outcome.lights.first().copied().flatten() else { continue };
            let hidden = hides(&prepared, &outcome);
            drop(prepared);
            let drawn = Self {
                level,
                scene,
                distance: light.distance,
                hidden,
                fewest: MOST_FRAMES,
                dials: dials.clone(),
                kit: kit.clone(),
            };
            if let Some(fewest) = drawn.frames_needed() {
                let set_now = Self { fewest, ..drawn };
                // A set that is reached by its readings alone teaches little.
                if fewest > 1 {
                    return Some(set_now);
                }
                set = set.or(Some(set_now));
            }
        }
        set
    }

    /// The dials.
    pub const fn dials(&self) -> &Dials {
        &self.dials
    }

    /// The kit.
    pub const fn kit(&self) -> &Kit {
        &self.kit
    }

    /// What each of the two regions is to come to, in stops from mid grey: behind, and the lit side.
    pub const fn wishes(&self) -> [Stops; WISHED] {
        [self.scene.background, Stops::ZERO]
    }

    /// Where dials stand to begin with: in the middle of what they have.
    pub fn begins(&self) -> OnSetFrame {
        let middle = |count: usize| count / 2;
        let Dials { shutters, apertures, powers, .. } = &self.dials;
        OnSetFrame {
            shutter: shutters.len() - 1,
            aperture: middle(apertures.len()),
            iso: 0,
            power: middle(powers.len()),
        }
    }

    /// The aperture at which full power alone puts the lit side on mid grey at ISO 100, by the flash's figures.
    pub fn flash_alone(&self) -> Option<Setting<Aperture>> {
        let setup = self.setup(self.begins())?;
        let prepared = Prepared::new(&setup, &self.kit).ok()?;
        let outcome = Outcome::of(&prepared);
        let power = outcome.lights.first().copied().flatten()?.power.0;
        let given = *outcome.regions.get(1)?.each.first()? - power;
        let CameraSettings { aperture, iso, .. } = outcome.settings;
        Some(Setting::of(aperture.exact * (given.0 / 2.0).exp2() * (100.0 / iso.exact).sqrt()))
    }

    /// The setup with these dials; nothing where one does not go so far.
    pub fn setup(&self, at: OnSetFrame) -> Option<Setup> {
        let mut setup = self.standing();
        setup.fixed.shutter_s = Some(self.dials.shutters.get(at.shutter)?.nominal);
        setup.fixed.f_number = Some(self.dials.apertures.get(at.aperture)?.nominal);
        setup.fixed.iso = Some(self.dials.isos.get(at.iso)?.nominal);
        setup.lights.first_mut()?.power_stops = Some(self.dials.powers.get(at.power)?.0.0);
        Some(setup)
    }

    /// By how much each region misses its wish in a frame: over nothing it is too bright.
    pub fn off(&self, at: OnSetFrame) -> Option<[Stops; WISHED]> {
        let setup = self.setup(at)?;
        let prepared = Prepared::new(&setup, &self.kit).ok()?;
        self.misses(&prepared, &Outcome::of(&prepared))
    }

    /// Whether a frame has reached the wish.
    pub fn is_reached(off: [Stops; WISHED]) -> bool {
        off.iter().all(|off| off.0.abs() <= HOW_NEAR.0 + 1e-9)
    }

    /// The setup before anybody has set a dial: the light where it stands.
    fn standing(&self) -> Setup {
        let mut setup = self.scene.wished(&self.kit);
        if let Some(light) = setup.lights.first_mut() {
            light.distance_m = Some(self.distance.0);
        }
        setup
    }

    fn misses(&self, plain: &Prepared<'_>, outcome: &Outcome) -> Option<[Stops; WISHED]> {
        let comes = really(plain, outcome, &self.hidden);
        let [behind, lit] = self.wishes();
        Some([*comes.first()? - behind, *comes.get(1)? - lit])
    }

    /// How many frames it takes who plans by the readings, and learns from every frame what it tells.
    fn frames_needed(&self) -> Option<usize> {
        let plain_setup = self.standing();
        let plain = Prepared::new(&plain_setup, &self.kit).ok()?;
        let mut setup = plain_setup.clone();
        for frame in 1..=MOST_FRAMES {
            let learnt = {
                let prepared = Prepared::new(&setup, &self.kit).ok()?;
                let outcome = Outcome::of(&prepared);
                let stands = self.as_set(&outcome)?;
                let outcome = outcome.taken_at(&prepared, stands);
                // By the figures as they were at first, and what is hidden.
                let taken = outcome.taken_at(&plain, stands);
                if Self::is_reached(self.misses(&plain, &taken)?) {
                    return Some(frame);
                }
                let came: Vec<Option<Came>> = really(&plain, &taken, &self.hidden)
                    .into_iter()
                    .map(|stops| Some(Came { stops, sure: READ }))
                    .collect();
                taught(&prepared, &outcome, stands, &came)?
            };
            setup.learnt = Some(learnt);
        }
        None
    }

    /// The settings of a plan, where all of them are on the dials of the set.
    fn as_set(&self, outcome: &Outcome) -> Option<CameraSettings> {
        let CameraSettings { shutter, aperture, iso } = outcome.settings;
        let on = self.dials.shutters.contains(&shutter)
            && self.dials.apertures.contains(&aperture)
            && self.dials.isos.contains(&iso);
        on.then_some(outcome.settings)
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::uncertainty::unknowns;

    /// Faults as they are drawn for a test: each a third or so off, up and down in turn.
    fn faults(prepared: &Prepared<'_>, outcome: &Outcome) -> Vec<(Unknown, Stops)> {
        let all = unknowns(prepared, outcome).into_iter();
        all.enumerate().map(|(at, seen)| (seen.what, Stops(if at % 2 == 0 { 0.5 } else { -0.4 }))).collect()
    }

    #[rstest]
    fn a_set_is_reached_by_whoever_learns(#[values(1, 2, 3, 4, 5, 6)] seed: u64) {
        let set = OnSet::drawn(Level::First, seed, faults).expect("a set");
        assert!((2..=4).contains(&set.fewest), "{}", set.fewest);
        // The same seed is the same set.
        let again = OnSet::drawn(Level::First, seed, faults).expect("a set");
        assert_eq!((again.scene, again.fewest), (set.scene, set.fewest));
        // Some place of the dials reaches it, and what they stand at to begin with is on them.
        let (dials, begins) = (set.dials(), set.begins());
        assert!(set.off(begins).is_some());
        let places =
            (0..dials.shutters.len()).flat_map(|shutter| (0..dials.powers.len()).map(move |power| (shutter, power)));
        let reached = (0..dials.apertures.len())
            .flat_map(|aperture| places.clone().map(move |(shutter, power)| (shutter, aperture, power)))
            .any(|(shutter, aperture, power)| {
                let at = OnSetFrame { shutter, aperture, iso: 0, power };
                set.off(at).is_some_and(OnSet::is_reached)
            });
        assert!(reached);
    }

    #[test]
    fn a_click_moves_a_set_by_a_click() {
        let set = OnSet::drawn(Level::First, 3, faults).expect("a set");
        let at = set.begins();
        let [behind, _] = set.off(at).expect("on the dials");
        let [slower, _] = set.off(OnSetFrame { shutter: at.shutter - 3, ..at }).expect("on the dials");
        // Three clicks are a stop, of what is behind where the flash hardly reaches.
        assert!((slower.0 - behind.0).abs() > 0.9 && (slower.0 - behind.0).abs() < 1.02, "{slower:?} {behind:?}");
        // Off the dials there is no frame.
        assert_eq!(set.off(OnSetFrame { power: 99, ..at }), None);
    }
}
