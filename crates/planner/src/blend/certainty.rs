//! How certain a total is: the root of the sum of squares of what is not known, each part weighted by its share of
//! the light. Figures from common practice, no source, except the distance, which is arithmetic: 5 % is 0.14 stop.

use super::outcome::{Outcome, RegionOutcome};
use crate::job::{CheckedLight, CheckedSetup, FlashOutput, Known};

const READING: f64 = 0.2;
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

/// One thing that is not known for sure.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Doubt {
    /// How many stops of the total it may be off by, one standard deviation.
    pub stops: f64,
    /// What would narrow it.
    pub narrow: String,
    /// What is left of it then, as a part.
    pub left: f64,
}

fn of_ambient(known: Known) -> f64 {
    match known {
        Known::Guess => GUESS,
        Known::Model => MODEL,
        Known::Read { moved, .. } => READING.hypot(FOLLOWED * moved.0),
    }
}

/// What is not known of a light at the region it is aimed at: the unit, and what is before it.
fn of_light(light: &CheckedLight<'_>) -> (f64, f64) {
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

/// All that is not known of a region's total, the largest first.
pub(super) fn doubts(setup: &CheckedSetup<'_>, outcome: &Outcome, region: usize) -> Vec<Doubt> {
    let here: &RegionOutcome = &outcome.regions[region];
    let name = &setup.setup.regions[region].name;
    let ambient = (1.0 - here.flash_share()) * of_ambient(setup.known[region]);
    let verb = if matches!(setup.known[region], Known::Read { .. }) { "Read" } else { "Read, do not guess," };
    let mut all = vec![
        Doubt { stops: CAMERA, narrow: "Tune camera and lens against a test frame".to_owned(), left: 0.3 },
        Doubt {
            stops: ambient,
            narrow: format!("{verb} the ambient on “{name}” now"),
            left: READING / of_ambient(setup.known[region]).max(READING),
        },
    ];
    for ((light, at), given) in setup.lights.iter().zip(&outcome.lights).zip(&here.each) {
        if at.is_none() || !given.0.is_finite() {
            continue;
        }
        let share = here.share(*given);
        let id = &light.light.id;
        let (unit, before) = of_light(light);
        let mut doubt = |stops: f64, left: f64, narrow: String| {
            if stops > 0.0 {
                all.push(Doubt { stops: share * stops, narrow, left });
            }
        };
        doubt(unit, MEASURED_UNIT / unit, format!("Read {} with a flash meter", light.flash.name));
        let through = light.modifier.map_or_else(|| "what it is bounced off".to_owned(), |m| m.name.clone());
        doubt(before, 0.3, format!("Read {id} through {through}"));
        doubt(DISTANCE, 0.3, format!("Measure the distance of {id} with a tape"));
        if light.aim != region {
            doubt(REACH, 0.2, format!("Read what {id} gives “{name}” by itself"));
        }
    }
    all.sort_by(|a, b| b.stops.total_cmp(&a.stops));
    all
}

/// One standard deviation of a total, in stops.
pub(super) fn uncertainty(doubts: &[Doubt]) -> f64 {
    doubts.iter().map(|doubt| doubt.stops * doubt.stops).sum::<f64>().sqrt()
}

/// What would narrow a total most, and to what. Nothing where nothing narrows it by a twentieth of a stop.
pub(super) fn narrows(doubts: &[Doubt]) -> Option<(&str, f64)> {
    let without = |one: &Doubt| {
        let rest: f64 = doubts.iter().filter(|other| *other != one).map(|other| other.stops * other.stops).sum();
        (rest + (one.stops * one.left).powi(2)).sqrt()
    };
    let best = doubts.iter().map(|one| (one.narrow.as_str(), without(one))).min_by(|a, b| a.1.total_cmp(&b.1))?;
    (uncertainty(doubts) - best.1 > 0.05).then_some(best)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::job::{Blend, Kit, MeasuredOutput, Setup};
    use tolva_core::exposure::{Ambient, EvReading, Reading};
    use tolva_core::scale::Stops;

    fn of(setup: &Setup, kit: &Kit, region: usize) -> (f64, String) {
        let checked = CheckedSetup::new(setup, kit).expect("good");
        let doubts = doubts(&checked, &Outcome::of(&checked), region);
        (uncertainty(&doubts), narrows(&doubts).map_or_else(String::new, |(what, _)| what.to_owned()))
    }

    #[test]
    fn ambient_alone_is_reading_and_camera() {
        let kit = Kit::starter();
        let mut setup = Setup::new("a", &kit);
        setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
        assert!((of(&setup, &kit, 1).0 - GUESS.hypot(CAMERA)).abs() < 1e-12);
        assert!(of(&setup, &kit, 1).1.contains("Read, do not guess, the ambient on “Face, lit side”"));
        setup.regions[1].ambient = Ambient::read(Reading::Ev(EvReading { ev100: 12.0 }));
        assert!((of(&setup, &kit, 1).0 - 0.2f64.hypot(0.33)).abs() < 1e-12);
    }

    #[test]
    fn a_reading_grows_stale_as_the_light_moves() {
        let sigma = |moved: f64| of_ambient(Known::Read { minutes: Some(20.0), moved: Stops(moved) });
        assert!(sigma(0.0) < sigma(-1.0) && sigma(-1.0) < of_ambient(Known::Model));
        assert!(of_ambient(Known::Model) < of_ambient(Known::Guess));
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
        assert!(after.1.contains("camera"), "{}", after.1);
    }
}
