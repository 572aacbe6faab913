//! Lighting a group evenly: who gets how much, and the place of one light, or two, from which all are within a third.

use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Direction, Glow, Receptor, Vector, Weighing};

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, LightIndex, Setup, Side};
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
    /// Who is farthest from the middle, of the two ends the one that gets least.
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
        // Both ends are equally far from the middle between them: who gets least is the trouble.
        let worst = (0..people.len()).min_by(|a, b| people[*a].0.total_cmp(&people[*b].0))?;
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
fn given(stage: &Stage, light: LightIndex, distance: Metres, faces: &[Receptor]) -> Vec<f64> {
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

/// Where a light stands.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Stand {
    /// Which.
    pub light: LightIndex,
    /// Its direction from its aim.
    pub direction: Direction,
    /// How far it is from its aim.
    pub distance: Metres,
}

/// Where lights stand that are even.
#[derive(Clone, Debug, PartialEq)]
pub struct EvenPlace {
    /// The lights that are moved.
    pub lights: Vec<Stand>,
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
pub fn even_place(setup: &Setup, kit: &Kit, light: LightIndex) -> Option<EvenPlace> {
    let tries = ROUND_DEG.map(|round| vec![(light, round)]);
    most_even(&Stage::of(setup, kit), &tries)
}

/// The same for two lights, one to each side.
pub fn even_pair(setup: &Setup, kit: &Kit, (one, other): (LightIndex, LightIndex)) -> Option<EvenPlace> {
    let tries = PAIR_DEG.map(|round| vec![(one, round), (other, -round)]);
    most_even(&Stage::of(setup, kit), &tries)
}

/// The nearest distance at which lights so far round from the camera's side are even, with the most even of their places
/// there; or the most even place of all.
fn most_even(stage: &Stage, tries: &[Vec<(LightIndex, f64)>]) -> Option<EvenPlace> {
    let faces = faces(stage);
    let mut best: Option<EvenPlace> = None;
    for away in AWAY_M {
        for lights in tries {
            let (first, _) = lights.first()?;
            let towards = Direction::of(stage.camera() - stage.aim(*first)).azimuth_deg;
            for up in UP_DEG {
                let directed = |&(light, round): &(LightIndex, f64)| Stand {
                    light,
                    direction: Direction::new(towards + round, up),
                    distance: Metres(away),
                };
                let lights: Vec<_> = lights.iter().map(directed).collect();
                let most = best.as_ref().map_or(f64::INFINITY, |best| best.spread.0);
                if let Some(spread) = spread_under(stage, &lights, &faces, most) {
                    best = Some(EvenPlace { lights, spread });
                }
            }
        }
        if best.as_ref().is_some_and(|best| best.spread <= EVEN) {
            break;
        }
    }
    best
}

/// How far apart people are lit from there, straight; nothing as soon as that is as much as `most`.
fn spread_under(stage: &Stage, lights: &[Stand], faces: &[Receptor], most: f64) -> Option<Stops> {
    let glows: Vec<Glow> = lights.iter().map(|stand| placed(stage, *stand)).collect();
    let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
    for face in faces {
        let given: f64 = glows.iter().map(|glow| stage.roughly(glow, face)).sum();
        let stops = given.log2();
        (low, high) = (low.min(stops), high.max(stops));
        if !low.is_finite() || high - low >= most {
            return None;
        }
    }
    (faces.len() > 1).then_some(Stops(high - low))
}

/// What glows of a light that stands there, looking at its aim.
fn placed(stage: &Stage, Stand { light, direction, distance }: Stand) -> Glow {
    let centre = stage.aim(light) + direction.vector() * distance.0;
    Glow { centre, axis: (stage.aim(light) - centre).normalize_or(Vector::Y), ..stage.glow(light, distance) }
}

impl Setup {
    /// A light, or two, stand where all are evenly lit, or as evenly as can be.
    ///
    /// # Errors
    /// A light that is not there, or a set with less than two people.
    pub fn light_evenly(&mut self, kit: &Kit, light_ids: &[String]) -> Result<(), Refused> {
        self.use_set();
        let index = |id: &String| {
            let found = self.light_called(id);
            found.ok_or_else(|| Refused::NoSuchLight(id.clone()))
        };
        let lights: Vec<LightIndex> = light_ids.iter().map(index).collect::<Result<_, _>>()?;
        let found = match lights.as_slice() {
            [one] => even_place(self, kit, *one),
            [one, other, ..] => even_pair(self, kit, (*one, *other)),
            [] => None,
        };
        let stage = Stage::of(self, kit);
        for stand in found.ok_or(Refused::NoGroup)?.lights {
            self.stand_at(&stage, stand);
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
        let found = even_place(&setup, &kit, LightIndex(0)).expect("a place");
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
