//! How certain a total is: the root of the sum of squares of what is not known, each part weighted by its share of
//! the light. Figures from common practice, no source, except the distance, which is arithmetic: 5 % is 0.14 stop.

mod unknowns;

pub use unknowns::{Known, Seen, known_now, unknowns, weights, with_more};

use crate::lighting::{AmbientSource, Prepared, PreparedLight};
use crate::setup::{FlashOutput, Meter};
use crate::solver::{Outcome, RegionOutcome};

/// A reading with a meter that nobody named: its constant, and how it was held.
const READING: f64 = 0.2;
/// What is left of it where the meter is known: how a reading was held. √(0.2² − 0.15²).
const HELD: f64 = 0.132;
const GUESS: f64 = 1.0;
const MODEL: f64 = 0.7;
/// What following the model adds, a stop that the light has moved.
const FOLLOWED: f64 = 0.3;
const GUIDE_NUMBER: f64 = 0.3;
const MEASURED_UNIT: f64 = 0.1;
const MODIFIER: f64 = 0.3;
const GEL: f64 = 0.1;
const BOUNCE: f64 = 0.7;
const DISTANCE: f64 = 0.14;
const CAMERA: f64 = 0.33;
const REACH: f64 = 0.5;

/// What would narrow a total.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Narrow {
    /// Tuning camera and lens against a test frame.
    TuneCamera,
    /// Reading the ambient on the region; whether it was read before.
    ReadAmbient {
        /// Whether it was read before.
        again: bool,
    },
    /// Reading a unit with a flash meter: the light's place among the flashes.
    ReadUnit(usize),
    /// Reading a light through what is on it, or off what it is bounced off.
    ReadThrough(usize),
    /// Measuring how far a light stands.
    MeasureDistance(usize),
    /// Measuring another frame.
    MeasureAFrame,
    /// Reading what a light gives the region by itself.
    ReadSpill(usize),
}

/// One term of a total's uncertainty.
#[derive(Clone, Debug, PartialEq)]
pub struct UncertaintyTerm {
    /// How many stops of the total it may be off by, one standard deviation.
    pub stops: f64,
    /// What would narrow it.
    pub narrow: Narrow,
    /// What is left of it then, as a part.
    pub left: f64,
}

/// What is not known of the light that is there, without what its meter is off.
fn of_ambient(known: AmbientSource, meter: Option<&Meter>) -> f64 {
    match known {
        AmbientSource::Guess => GUESS,
        AmbientSource::Model => MODEL,
        AmbientSource::Read { moved, .. } => meter.map_or(READING, |_| HELD).hypot(FOLLOWED * moved.0),
    }
}

/// What is not known of a light at the region it is aimed at: the unit, and what is before it.
fn of_light(light: &PreparedLight<'_>) -> (f64, f64) {
    let (unit, modifier) = match (&light.flash.output, light.modifier) {
        // A reading through this very modifier knows its loss as well.
        (FlashOutput::Measured(read), modifier) if read.modifier_id.as_ref() == modifier.map(|m| &m.id) => {
            (MEASURED_UNIT, 0.0)
        }
        (FlashOutput::Measured(_), _) => (MEASURED_UNIT, MODIFIER),
        (_, None) => (GUIDE_NUMBER, 0.0),
        (_, Some(_)) => (GUIDE_NUMBER, MODIFIER),
    };
    let gels = if light.gel_loss.0 > 0.0 { GEL } else { 0.0 };
    let bounce = if light.bounced.is_some() { BOUNCE } else { 0.0 };
    (unit, modifier.hypot(gels).hypot(bounce))
}

/// What is kept in the kit of a light's unit through what is before it: how much more, and how surely.
fn tuned(light: &PreparedLight<'_>) -> Option<(f64, f64)> {
    let kept = light.flash.tuned_through(light.modifier.map(|modifier| modifier.id.as_str()))?;
    Some((kept.more_stops, kept.sure_stops))
}

/// What is not known of a light at the region it is aimed at by its figures, all together.
fn of_light_in_all(light: &PreparedLight<'_>) -> f64 {
    let (unit, before) = of_light(light);
    unit.hypot(before).hypot(DISTANCE)
}

/// All that is not known of a region's total, the largest first.
pub fn uncertainty_terms(setup: &Prepared<'_>, outcome: &Outcome, region: usize) -> Vec<UncertaintyTerm> {
    let here: &RegionOutcome = &outcome.regions[region];
    // What frames have taught binds the unknowns to each other: what is left of them is told as one.
    if setup.setup.learnt.is_some() {
        let known = known_now(setup, outcome);
        let sure = known.belief.sum(&weights(setup, here, region, &known.of)).sure;
        return vec![UncertaintyTerm { stops: sure.0, narrow: Narrow::MeasureAFrame, left: 0.5 }];
    }
    let meter = setup.meters[region];
    let of_ambient = of_ambient(setup.known[region], meter).hypot(meter.map_or(0.0, |meter| meter.sure_stops));
    let ambient = (1.0 - here.flash_share()) * of_ambient;
    let again = matches!(setup.known[region], AmbientSource::Read { .. });
    let tuned_camera = setup.camera.tuned_with(&setup.setup.lens_id).map(|one| one.sure_stops);
    let mut all = vec![
        UncertaintyTerm {
            stops: tuned_camera.unwrap_or(CAMERA),
            narrow: Narrow::TuneCamera,
            left: if tuned_camera.is_some() { 1.0 } else { 0.3 },
        },
        UncertaintyTerm {
            stops: ambient,
            narrow: Narrow::ReadAmbient { again },
            left: READING / of_ambient.max(READING),
        },
    ];
    for (index, ((light, at), given)) in setup.lights.iter().zip(&outcome.lights).zip(&here.each).enumerate() {
        if at.is_none() || !given.0.is_finite() {
            continue;
        }
        let share = here.share(*given);
        let (unit, before) = tuned(light).map_or_else(|| of_light(light), |(_, sure)| (sure, 0.0));
        let mut term = |stops: f64, left: f64, narrow: Narrow| {
            if stops > 0.0 {
                all.push(UncertaintyTerm { stops: share * stops, narrow, left });
            }
        };
        term(unit, (MEASURED_UNIT / unit).min(1.0), Narrow::ReadUnit(index));
        term(before, 0.3, Narrow::ReadThrough(index));
        term(DISTANCE, 0.3, Narrow::MeasureDistance(index));
        if light.aimed_at != region {
            term(REACH, 0.2, Narrow::ReadSpill(index));
        }
    }
    all.sort_by(|a, b| b.stops.total_cmp(&a.stops));
    all
}

/// One standard deviation of a total, in stops.
pub fn uncertainty(terms: &[UncertaintyTerm]) -> f64 {
    terms.iter().map(|term| term.stops * term.stops).sum::<f64>().sqrt()
}

/// What would narrow a total most, and to what. Nothing where nothing narrows it by a twentieth of a stop.
pub fn narrows(terms: &[UncertaintyTerm]) -> Option<(Narrow, f64)> {
    let without = |one: &UncertaintyTerm| {
        let rest: f64 = terms.iter().filter(|other| *other != one).map(|other| other.stops * other.stops).sum();
        (rest + (one.stops * one.left).powi(2)).sqrt()
    };
    let best = terms.iter().map(|one| (one.narrow, without(one))).min_by(|a, b| a.1.total_cmp(&b.1))?;
    (uncertainty(terms) - best.1 > 0.05).then_some(best)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Blend, Kit, MeasuredOutput, Setup};
    use tolva_core::exposure::{Ambient, EvReading, Reading};
    use tolva_core::scale::Stops;

    fn of(setup: &Setup, kit: &Kit, region: usize) -> (f64, Option<Narrow>) {
        let checked = Prepared::new(setup, kit).expect("good");
        let terms = uncertainty_terms(&checked, &Outcome::of(&checked), region);
        (uncertainty(&terms), narrows(&terms).map(|(what, _)| what))
    }

    #[test]
    fn ambient_alone_is_reading_and_camera() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
        assert!((of(&setup, &kit, 1).0 - GUESS.hypot(CAMERA)).abs() < 1e-12);
        assert_eq!(of(&setup, &kit, 1).1, Some(Narrow::ReadAmbient { again: false }));
        setup.regions[1].ambient = Ambient::read(Reading::Ev(EvReading { ev100: 12.0 }));
        assert!((of(&setup, &kit, 1).0 - 0.2f64.hypot(0.33)).abs() < 1e-12);
    }

    #[test]
    fn a_reading_grows_stale_as_the_light_moves() {
        let sigma = |moved: f64| of_ambient(AmbientSource::Read { minutes: Some(20.0), moved: Stops(moved) }, None);
        assert!(sigma(0.0) < sigma(-1.0) && sigma(-1.0) < of_ambient(AmbientSource::Model, None));
        assert!(of_ambient(AmbientSource::Model, None) < of_ambient(AmbientSource::Guess, None));
    }

    #[test]
    fn a_reading_of_the_unit_narrows_what_it_gives() {
        let mut kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        for region in &mut setup.regions {
            region.ambient = Ambient::read(Reading::Ev(EvReading { ev100: 11.0 }));
        }
        setup.blend = Blend::Overpower { subject_stops: 0.0, ambient_stops: -4.0 };
        let before = of(&setup, &kit, 1).0;
        kit.flashes[1].output = FlashOutput::Measured(MeasuredOutput {
            f_number: 11.0,
            iso: 100.0,
            distance_m: 1.5,
            power_stops: 0.0,
            modifier_id: setup.lights[0].modifier_id.clone(),
        });
        setup.lights[0].flash_id = kit.flashes[1].id.clone();
        let after = of(&setup, &kit, 1);
        assert!(after.0 < before - 0.05, "{after:?} {before}");
        assert_eq!(after.1, Some(Narrow::TuneCamera));
    }

    /// A frame narrows what it shows: the region that was measured, and by it what the others share with it. A light with
    /// another modifier is as unsure as it was.
    #[test]
    fn a_frame_narrows_what_it_shows() {
        use crate::frames::{Came, taught};
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        let (lit, behind) = (of(&setup, &kit, 1).0, of(&setup, &kit, 0).0);
        let prepared = Prepared::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&prepared);
        let came = Came { stops: outcome.regions[1].together + Stops(0.4), sure: Stops(0.05) };
        let learnt = taught(&prepared, &outcome, outcome.settings, &[None, Some(came)]).expect("it tells");
        drop(prepared);
        setup.learnt = Some(learnt);
        let after = of(&setup, &kit, 1);
        assert!(after.0 < 0.12 && after.0 < lit / 4.0, "{after:?} {lit}");
        let other = of(&setup, &kit, 0).0;
        assert!(other < behind && other > 0.5 * behind, "by the camera alone: {other} {behind}");
        setup.lights[0].modifier_id = Some(kit.modifiers[3].id.clone());
        assert!(of(&setup, &kit, 1).0 > 2.0 * after.0);
    }

    /// A meter that reads half a stop too little is found out by a frame of two regions it was read on, wherever else it is
    /// held after that, and the reading of it is surer.
    #[test]
    fn a_meter_is_known_wherever_it_is_held() {
        use crate::frames::{Came, taught};
        use crate::setup::Unknown;
        let mut kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
        for (region, ev100) in setup.regions.iter_mut().zip([11.0, 10.0]) {
            region.ambient = Ambient::read(Reading::Ev(EvReading { ev100 }));
            region.ambient.readings[0].meter_id = Some("hand".into());
        }
        kit.cameras[0].tuned.push(crate::setup::TunedLens {
            lens_id: setup.lens_id.clone(),
            more_stops: 0.0,
            sure_stops: 0.03,
        });
        let figures = of(&setup, &kit, 0).0;
        let plain = Prepared::new(&setup, &kit).expect("good");
        let outcome = Outcome::of(&plain);
        let seen = unknowns(&plain, &outcome);
        assert_eq!(seen.iter().filter(|one| matches!(one.what, Unknown::Meter { .. })).count(), 1, "one meter");
        let came =
            |region: usize| Some(Came { stops: outcome.regions[region].together + Stops(0.5), sure: Stops(0.03) });
        let learnt = taught(&plain, &outcome, outcome.settings, &[came(0), came(1), None]).expect("it tells");
        let meter = learnt.meter("hand").expect("learnt");
        let read = plain.ambient[0];
        drop(plain);
        assert!((0.2..0.5).contains(&meter.0), "no further than its certainty allows: {meter:?}");
        // Kept in the kit, it counts for another setup from the first reading on.
        kit.meters[0].more_stops = meter.0;
        kit.meters[0].sure_stops = 0.05;
        let after = Prepared::new(&setup, &kit).expect("good");
        assert!((after.ambient[0] - read - meter).0.abs() < 1e-9);
        drop(after);
        assert!(of(&setup, &kit, 0).0 < figures);
        // Who has not said with what they read knows nothing of it.
        setup.regions[0].ambient.readings[0].meter_id = None;
        assert_eq!(Prepared::new(&setup, &kit).expect("good").ambient[0], read);
        setup.regions[0].ambient.readings[0].meter_id = Some("gone".into());
        assert!(Prepared::new(&setup, &kit).is_err());
    }
}
