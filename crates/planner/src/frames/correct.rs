//! What to turn after a frame: the least that brings the next one to its wish, by what is known now.

use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Aperture, Iso, Metres, Power, Setting, Shutter, Stops};

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Fixed, Kit, Setup};
use crate::solver::{Outcome, State, rounding};

/// Something that is turned: from what stood there to what is to stand there.
#[derive(Clone, Debug, PartialEq)]
pub enum Turned {
    /// The shutter.
    Shutter(Setting<Shutter>, Setting<Shutter>),
    /// The aperture.
    Aperture(Setting<Aperture>, Setting<Aperture>),
    /// The sensitivity.
    Iso(Setting<Iso>, Setting<Iso>),
    /// A light's power; nothing for off.
    Power(String, Option<Power>, Option<Power>),
    /// How far a light stands.
    Distance(String, Metres, Metres),
}

/// Dials to turn, and what comes of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Correction {
    /// The setup with them turned, and with what was learnt.
    pub setup: Setup,
    /// What is turned; nothing where all stands as it should.
    pub turned: Vec<Turned>,
    /// Where each region comes then.
    pub comes: Vec<Stops>,
    /// Where each region is to be, where anything says so.
    pub wished: Vec<Option<Stops>>,
    /// Whether every dial was free, as in a plan; otherwise the camera stays as far as it can.
    pub free: bool,
}

/// So much worse than with all dials free may it end where fewer are turned, in stops: a third of a click.
const WORSE: f64 = 0.12;

/// What is turned from what stood there to what is to stand there.
pub fn turned(prepared: &Prepared<'_>, stood: &State, stands: &State) -> Vec<Turned> {
    let (from, to) = (stood.settings, stands.settings);
    let mut all = Vec::new();
    let other = |from: f64, to: f64| (from / to - 1.0).abs() > 1e-6;
    if other(from.shutter.nominal, to.shutter.nominal) {
        all.push(Turned::Shutter(from.shutter, to.shutter));
    }
    if other(from.aperture.nominal, to.aperture.nominal) {
        all.push(Turned::Aperture(from.aperture, to.aperture));
    }
    if other(from.iso.nominal, to.iso.nominal) {
        all.push(Turned::Iso(from.iso, to.iso));
    }
    for (light, (before, after)) in prepared.lights.iter().zip(stood.flashes.iter().zip(&stands.flashes)) {
        let id = || light.light.id.clone();
        let power = |at: &Option<(Metres, Power)>| at.map(|(_, power)| power);
        if power(before) != power(after) {
            all.push(Turned::Power(id(), power(before), power(after)));
        }
        if let (Some((before, _)), Some((after, _))) = (before, after)
            && (before.0 - after.0).abs() > 0.005
        {
            all.push(Turned::Distance(id(), *before, *after));
        }
    }
    all
}

/// The dials of the camera that may be turned: shutter, aperture, ISO.
const WAYS: [[bool; 3]; 5] = [
    // Flash alone; ambient into the shutter, or the ISO; both; and, last of all, everything.
    [false, false, false],
    [true, false, false],
    [false, false, true],
    [true, false, true],
    [true, true, true],
];

/// A setup with the dials of the camera that are not free fixed where they stand, but for those that are fixed already.
pub fn with_free([shutter, aperture, iso]: [bool; 3], setup: &Setup, stands: CameraSettings) -> Setup {
    let fixed = setup.fixed.clone();
    let keep = |free: bool, said: Option<f64>, stands: f64| if free { said } else { Some(said.unwrap_or(stands)) };
    Setup {
        fixed: Fixed {
            shutter_s: keep(shutter, fixed.shutter_s, stands.shutter.nominal),
            f_number: keep(aperture, fixed.f_number, stands.aperture.nominal),
            iso: keep(iso, fixed.iso, stands.iso.nominal),
        },
        ..setup.clone()
    }
}

/// What to turn of a setup that has just learnt from a frame: first the least that ends no worse, then, where that is another,
/// what the plan would do with every dial free.
///
/// # Errors
/// A setup that refers to what is not there.
pub fn corrections(setup: &Setup, kit: &Kit, stood: &State) -> Result<Vec<Correction>, Refused> {
    let mut all: Vec<(f64, Correction)> = Vec::new();
    for way in WAYS {
        let free = way == [true; 3];
        let setup = if free { setup.clone() } else { with_free(way, setup, stood.settings) };
        let prepared = Prepared::new(&setup, kit)?;
        let outcome = Outcome::of(&prepared);
        // Where a wish hangs on the ambient, flash alone can always keep to it: so what the camera is set for counts as well,
        // as far as its clicks can reach it, and by its part of the light there.
        let placed = (outcome.placed_off(&prepared).0.abs() - rounding(&prepared)).max(0.0);
        let on_it = &outcome.regions[prepared.setup.blend.placed(&prepared).region];
        let placed = placed * (on_it.ambient - on_it.together).ratio().min(1.0);
        let off = (outcome.regions.iter().zip(&outcome.targets))
            .filter_map(|(region, wished)| Some((region.together - (*wished)?).0.abs()))
            .fold(placed, f64::max);
        let turned = turned(&prepared, stood, &State::of(&outcome));
        let comes = outcome.regions.iter().map(|region| region.together).collect();
        let correction = Correction { turned, comes, wished: outcome.targets, free, setup: setup.clone() };
        all.push((off, correction));
    }
    let best = all.iter().map(|(off, _)| *off).fold(f64::INFINITY, f64::min);
    let enough = |(off, _): &&(f64, Correction)| *off <= best + WORSE;
    let least = all.iter().filter(enough).min_by_key(|(_, one)| one.turned.len()).map(|(_, one)| one.clone());
    let free = all.pop().map(|(_, one)| one);
    let mut offered: Vec<Correction> = least.into_iter().collect();
    offered.extend(free.filter(|free| offered.iter().all(|one| one.turned != free.turned)));
    Ok(offered)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frames::{Came, taught};
    use crate::setup::{Blend, Kit, Setup};

    /// A frame whose flash comes a stop too strong costs one dial, that of its power; the camera stays as it is.
    #[test]
    fn a_flash_that_is_too_strong_is_turned_down() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -3.0 };
        let (stands, learnt) = {
            let prepared = Prepared::new(&setup, &kit).expect("good");
            let outcome = Outcome::of(&prepared);
            let came = |region: usize, more: f64| {
                Some(Came { stops: outcome.regions[region].together + Stops(more), sure: Stops(0.02) })
            };
            let all = [came(0, 0.0), came(1, 1.0)];
            let learnt = taught(&prepared, &outcome, outcome.settings, &all).expect("it tells");
            (outcome, learnt)
        };
        setup.learnt = Some(learnt);
        let offered = corrections(&setup, &kit, &State::of(&stands)).expect("good");
        let least = &offered[0];
        assert!(!least.free && least.turned.len() == 1, "{:?}", least.turned);
        let Turned::Power(light, Some(from), Some(to)) = &least.turned[0] else { panic!("{:?}", least.turned) };
        assert_eq!(light, "A");
        assert!((from.0 - to.0).0 > 0.5, "{from:?} {to:?}");
        let off = least.comes[1] - least.wished[1].expect("a wish");
        assert!(off.0.abs() < 0.2, "{off:?}");
    }

    /// Where the ambient is placed and the flash fills it from under, a frame that comes too dark in both is mended on the
    /// camera: less flash would keep the one to the other, and leave everything too dark.
    #[test]
    fn what_is_too_dark_is_not_mended_by_less_flash() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.blend = Blend::Fill { ambient_stops: -2.0 / 3.0, fill_stops: -1.0 };
        let (stands, learnt) = {
            let prepared = Prepared::new(&setup, &kit).expect("good");
            let outcome = Outcome::of(&prepared);
            let came =
                |region: usize| Some(Came { stops: outcome.regions[region].together - Stops(0.46), sure: Stops(0.02) });
            let all: Vec<Option<Came>> = (0..outcome.regions.len()).map(came).collect();
            let learnt = taught(&prepared, &outcome, outcome.settings, &all).expect("it tells");
            (outcome, learnt)
        };
        setup.learnt = Some(learnt);
        let offered = corrections(&setup, &kit, &State::of(&stands)).expect("good");
        let least = &offered[0];
        assert!(least.turned.iter().any(|one| !matches!(one, Turned::Power(..))), "{:?}", least.turned);
        for (comes, planned) in least.comes.iter().zip(&stands.regions) {
            assert!((*comes - planned.together).0.abs() < 0.25, "{:?} {:?}", least.comes, stands.regions);
        }
    }

    /// Where all came as it was planned nothing is turned.
    #[test]
    fn what_came_as_planned_stays() {
        let kit = Kit::starter();
        let setup = Setup::new("a", &kit);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let stands = Outcome::of(&prepared);
        let offered = corrections(&setup, &kit, &State::of(&stands)).expect("good");
        assert!(offered.len() == 1 && offered[0].turned.is_empty(), "{offered:?}");
    }
}
