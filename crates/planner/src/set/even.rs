//! Lighting a group evenly: who gets how much, and the place of one light, or two, from which all are within a third.

use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Direction, Receptor, Vector, Weighing};

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, Setup, Side};
use crate::solver::Outcome;
use crate::staging::Stage;

/// All within so much of each other count as evenly lit. Common practice, no source.
pub const EVEN: Stops = Stops(1.0 / 3.0);

/// What the flashes give each person, against the middle of them all.
#[derive(Clone, Debug, PartialEq)]
pub struct Evenness {
    /// Over or under the middle, one a person in the set's order; nothing arrives where it is [`Stops::NOTHING`].
    pub people: Vec<Stops>,
    /// From the least to the most lit.
    pub spread: Stops,
    /// Who is farthest from the middle.
    pub worst: usize,
}

impl Evenness {
    /// Of what each person gets, in any linear unit; nothing for less than two.
    fn of(given: &[f64]) -> Option<Self> {
        if given.len() < 2 || given.iter().all(|one| *one <= 0.0) {
            return None;
        }
        let stops: Vec<f64> = given.iter().map(|one| if *one > 0.0 { one.log2() } else { f64::NEG_INFINITY }).collect();
        let (low, high) = (min(&stops), max(&stops));
        let middle = if low.is_finite() { f64::midpoint(low, high) } else { high };
        let people: Vec<Stops> = stops.iter().map(|one| Stops(one - middle)).collect();
        let far = |one: &Stops| one.0.abs();
        let worst = (0..people.len()).max_by(|a, b| far(&people[*a]).total_cmp(&far(&people[*b])))?;
        Some(Self { people, spread: Stops(high - low), worst })
    }

    /// Whether all are within a third.
    pub fn is_even(&self) -> bool {
        self.spread <= EVEN + Stops(1e-9)
    }
}

fn min(of: &[f64]) -> f64 {
    of.iter().copied().fold(f64::INFINITY, f64::min)
}

fn max(of: &[f64]) -> f64 {
    of.iter().copied().fold(f64::NEG_INFINITY, f64::max)
}

/// Where each person is lit: a dome before the face, as a meter is held there.
fn faces(stage: &Stage) -> Vec<Receptor> {
    let face = |person: &crate::setup::Person| Receptor { weighing: Weighing::Dome, ..person.receptor(Side::Front) };
    stage.laid.set.people.iter().map(face).collect()
}

/// What one light gives each person.
fn given(stage: &Stage, light: usize, distance: Metres, faces: &[Receptor]) -> Vec<f64> {
    let glow = stage.glow(light, distance);
    let lit = stage.lit(&glow);
    faces.iter().map(|face| stage.given(&glow, &lit, face)).map(|given| given.straight + given.bounced).collect()
}

/// How evenly the flashes of a plan light the people; nothing where there are less than two, or no flash is on.
pub fn evenness(prepared: &Prepared<'_>, outcome: &Outcome, stage: &Stage) -> Option<Evenness> {
    let faces = faces(stage);
    let mut all = vec![0.0; faces.len()];
    for (light, at) in prepared.lights.iter().zip(&outcome.lights) {
        let Some(at) = at else { continue };
        let strength = light.strength_at_1_m(at.power).ratio();
        for (sum, one) in all.iter_mut().zip(given(stage, light.index, at.distance, &faces)) {
            *sum += one * strength;
        }
    }
    Evenness::of(&all)
}

/// Where lights stand that are even.
#[derive(Clone, Debug, PartialEq)]
pub struct EvenPlace {
    /// For each light that is moved: its index, its direction from the aim, and its distance.
    pub lights: Vec<(usize, Direction, Metres)>,
    /// From the least to the most lit person.
    pub spread: Stops,
}

/// How far round from the camera's side, how high and how far a light is tried. Common practice, no source.
const ROUND_DEG: [f64; 7] = [-45.0, -30.0, -15.0, 0.0, 15.0, 30.0, 45.0];
const UP_DEG: [f64; 5] = [12.0, 20.0, 28.0, 36.0, 45.0];
const AWAY_M: [f64; 10] = [1.2, 1.6, 2.1, 2.8, 3.6, 4.6, 5.8, 7.2, 9.0, 11.0];
/// Two lights stand to both sides of the camera, so far round.
const PAIR_DEG: [f64; 4] = [20.0, 30.0, 40.0, 50.0];

/// The place of one light from which all are within a third, the nearest there is; where there is none, the most even.
pub fn even_place(setup: &Setup, kit: &Kit, light: usize) -> Option<EvenPlace> {
    let stage = Stage::of(setup, kit);
    let faces = faces(&stage);
    let towards = Direction::of(stage.camera() - stage.aim(light)).azimuth_deg;
    let tries = ROUND_DEG.iter().flat_map(|round| UP_DEG.iter().map(move |up| (*round, *up)));
    let found = tries.flat_map(|(round, up)| AWAY_M.iter().map(move |away| (round, up, *away))).filter_map(|at| {
        let (round, up, away) = at;
        let direction = Direction::new(towards + round, up);
        let spread = Evenness::of(&tried(&stage, light, direction, away, &faces))?.spread;
        Some(EvenPlace { lights: vec![(light, direction, Metres(away))], spread })
    });
    best(found)
}

/// The same for two lights, one to each side.
pub fn even_pair(setup: &Setup, kit: &Kit, (one, other): (usize, usize)) -> Option<EvenPlace> {
    let stage = Stage::of(setup, kit);
    let faces = faces(&stage);
    let towards = Direction::of(stage.camera() - stage.aim(one)).azimuth_deg;
    let tries = PAIR_DEG.iter().flat_map(|round| UP_DEG.iter().map(move |up| (*round, *up)));
    let found = tries.flat_map(|(round, up)| AWAY_M.iter().map(move |away| (round, up, *away))).filter_map(|at| {
        let (round, up, away) = at;
        let directions = [Direction::new(towards + round, up), Direction::new(towards - round, up)];
        let mut all = vec![0.0; faces.len()];
        for (light, direction) in [one, other].into_iter().zip(directions) {
            for (sum, given) in all.iter_mut().zip(tried(&stage, light, direction, away, &faces)) {
                *sum += given;
            }
        }
        let spread = Evenness::of(&all)?.spread;
        let lights = vec![(one, directions[0], Metres(away)), (other, directions[1], Metres(away))];
        Some(EvenPlace { lights, spread })
    });
    best(found)
}

/// What one light gives each person from a direction and a distance, straight.
fn tried(stage: &Stage, light: usize, direction: Direction, away: f64, faces: &[Receptor]) -> Vec<f64> {
    let at = stage.aim(light) + direction.vector() * away;
    let glow = tolva_core::set::Glow {
        centre: at,
        axis: (stage.aim(light) - at).normalize_or(Vector::Y),
        ..stage.glow(light, Metres(away))
    };
    faces.iter().map(|face| stage.roughly(&glow, face)).collect()
}

/// The nearest that is even, or the most even.
fn best(found: impl Iterator<Item = EvenPlace>) -> Option<EvenPlace> {
    let away = |place: &EvenPlace| place.lights.first().map_or(0.0, |(_, _, distance)| distance.0);
    found.min_by(|a, b| match (a.spread <= EVEN, b.spread <= EVEN) {
        (true, true) => away(a).total_cmp(&away(b)).then(a.spread.0.total_cmp(&b.spread.0)),
        (true, false) => std::cmp::Ordering::Less,
        (false, true) => std::cmp::Ordering::Greater,
        (false, false) => a.spread.0.total_cmp(&b.spread.0),
    })
}

impl Setup {
    /// A light, or two, stand where all are evenly lit, or as evenly as can be.
    ///
    /// # Errors
    /// A light that is not there, or a set with less than two people.
    pub fn light_evenly(&mut self, kit: &Kit, light_ids: &[String]) -> Result<(), Refused> {
        self.use_set();
        let index = |id: &String| {
            let found = self.lights.iter().position(|light| &light.id == id);
            found.ok_or_else(|| Refused::NoSuchLight(id.clone()))
        };
        let lights: Vec<usize> = light_ids.iter().map(index).collect::<Result<_, _>>()?;
        let found = match lights.as_slice() {
            [one] => even_place(self, kit, *one),
            [one, other, ..] => even_pair(self, kit, (*one, *other)),
            [] => None,
        };
        let stage = Stage::of(self, kit);
        for (light, direction, distance) in found.ok_or(Refused::NoGroup)?.lights {
            self.stand_at(&stage, light, direction, distance);
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::Arrangement;

    fn group(rows: u8, in_each: u8) -> (Setup, Kit) {
        let kit = Kit::starter();
        let mut setup = Setup::new("group", &kit);
        setup.camera_distance_m = 6.0;
        setup.focal_length_mm = 35.0;
        setup.arrange(&kit, Arrangement::Rows { rows, in_each }).expect("people");
        (setup, kit)
    }

    #[test]
    fn one_person_is_no_group() {
        assert_eq!(Evenness::of(&[1.0]), None);
        let of = Evenness::of(&[1.0, 2.0, 4.0]).expect("a group");
        assert!((of.spread.0 - 2.0).abs() < 1e-9 && (of.people[1].0).abs() < 1e-9);
        assert!(!of.is_even() && Evenness::of(&[1.0, 1.2]).expect("a group").is_even());
    }

    #[test]
    fn a_row_of_three_is_lit_evenly_by_one() {
        let (mut setup, kit) = group(1, 3);
        let found = even_place(&setup, &kit, 0).expect("a place");
        assert!(found.spread <= EVEN, "{found:?}");
        setup.light_evenly(&kit, &["A".to_owned()]).expect("it is there");
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let outcome = Outcome::of(&prepared);
        let stage = prepared.stage.clone().expect("used");
        let even = evenness(&prepared, &outcome, &stage).expect("a group");
        assert!((even.spread - found.spread).0.abs() < 0.05, "{even:?} {found:?}");
        assert!(setup.light_evenly(&kit, &["Q".to_owned()]).is_err());
    }

    #[test]
    fn nearer_is_less_even_front_to_back() {
        let (mut setup, kit) = group(3, 3);
        let spread = |setup: &Setup| {
            let prepared = Prepared::new(setup, &kit).expect("a setup");
            let stage = prepared.stage.clone().expect("used");
            evenness(&prepared, &Outcome::of(&prepared), &stage).expect("a group").spread.0
        };
        setup.lights[0].place.as_mut().expect("placed").elevation_deg = 40.0;
        setup.lights[0].distance_m = Some(1.5);
        let near = spread(&setup);
        setup.lights[0].distance_m = Some(6.0);
        assert!(near > spread(&setup) + 0.5, "{near} {}", spread(&setup));
    }
}
