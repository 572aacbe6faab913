//! The map of light: what a small ball gets at each place of a level grid at eye height, in stops from mid grey under the
//! plan's settings. A face turned to the light would get as much. What comes back from walls is worked out on a coarser
//! grid and read between: it changes slowly.

use tolva_core::scale::Stops;
use tolva_core::set::{Glow, Lustre, Patch, Point, Receptor, Solid, Vector, Weighing, stopped};

use crate::lighting::{Prepared, PreparedLight};
use crate::solver::{DialledLight, Outcome};
use crate::staging::{Stage, Standing, Thing};

/// Whose light is drawn.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Whose {
    /// One light's.
    Light(String),
    /// All flashes'.
    Flashes,
    /// All flashes' and what is there.
    Together,
}

/// A level grid on the set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Grid {
    /// Its left end.
    pub left_m: f64,
    /// Its near end.
    pub near_m: f64,
    /// Its right end.
    pub right_m: f64,
    /// Its far end.
    pub far_m: f64,
    /// Points from left to right, 2 to 200.
    pub columns: u32,
    /// Points from near to far, 2 to 200.
    pub rows: u32,
}

impl Grid {
    fn at(&self, column: u32, row: u32, z: f64) -> Point {
        let part = |index: u32, count: u32| f64::from(index) / f64::from(count.max(2) - 1);
        let x = self.left_m + (self.right_m - self.left_m) * part(column, self.columns);
        let y = self.near_m + (self.far_m - self.near_m) * part(row, self.rows);
        Point::new(x, y, z)
    }

    /// Every point, row by row from the near end.
    fn points(&self, z: f64) -> impl Iterator<Item = Point> + '_ {
        (0..self.rows).flat_map(move |row| (0..self.columns).map(move |column| self.at(column, row, z)))
    }
}

/// The coarser grid.
const COARSE: (u32, u32) = (17, 13);
/// Walls are cut into patches of about this size for the map, in metres.
const PATCH_M: f64 = 0.8;
/// What is darker than this is drawn as dark, in stops from mid grey.
pub const DARKEST: f64 = -12.0;

fn ball(at: Point) -> Receptor {
    Receptor { at, normal: Vector::Z, weighing: Weighing::Ball }
}

/// What glows, and what its intensity at 1 m comes to in the frame.
struct WeighedGlow {
    glow: Glow,
    weight: f64,
}

/// What the light gives at each point of a grid, row by row from the near end, in stops from mid grey; not under
/// [`DARKEST`].
pub fn map(prepared: &Prepared<'_>, outcome: &Outcome, stage: &Stage, whose: &Whose, grid: &Grid) -> Vec<Stops> {
    let z = stage.laid.anchor().z;
    let mut all = vec![0.0; (grid.columns * grid.rows) as usize];
    let on = prepared.lights.iter().zip(&outcome.lights).filter_map(|(light, at)| at.map(|at| (light, at)));
    let drawn = on.filter(|(light, _)| !matches!(whose, Whose::Light(id) if *id != light.light.id));
    let glows: Vec<WeighedGlow> = drawn
        .map(|(light, at)| WeighedGlow {
            glow: stage.glow(light.index, at.distance),
            weight: in_the_frame(prepared, outcome, light, at),
        })
        .collect();
    straight(stage, &glows, grid, z, &mut all);
    came_back(stage, &glows, grid, z, &mut all);
    if *whose == Whose::Together {
        let ambient = outcome.regions[prepared.lit].ambient.ratio();
        there(stage, prepared.lit, ambient, grid, z, &mut all);
    }
    all.into_iter().map(|ratio| Stops(if ratio > 0.0 { ratio.log2().max(DARKEST) } else { DARKEST })).collect()
}

/// What a light's intensity at 1 m comes to in the frame, as a part of mid grey.
pub(crate) fn in_the_frame(
    prepared: &Prepared<'_>,
    outcome: &Outcome,
    light: &PreparedLight<'_>,
    at: DialledLight,
) -> f64 {
    let settings = outcome.settings;
    let gives = light.strength_at_1_m(at.power) - light.shutter_loss(prepared, at.power, settings.shutter);
    (gives - settings.aperture.position() + settings.iso.position() - prepared.filter).ratio()
}

/// What keeps light off on the map. People's own shadows would be drawn as so many lines on top of each other: who stands
/// in whose is told person by person.
fn walls_and_cards(stage: &Stage) -> Vec<Solid> {
    let kept = |one: &&Standing| matches!(one.thing, Thing::Wall(_) | Thing::Card(_));
    stage.standing.iter().filter(kept).map(|one| one.solid).collect()
}

fn straight(stage: &Stage, glows: &[WeighedGlow], grid: &Grid, z: f64, all: &mut [f64]) {
    let solids = walls_and_cards(stage);
    for WeighedGlow { glow, weight } in glows {
        for (_, mirror) in stage.mirrors(|_| true) {
            let image = mirror.image(glow);
            for (sum, at) in all.iter_mut().zip(grid.points(z)) {
                // By the middle of what glows: a mirror's patch of light is there or not.
                if mirror.passes(at, image.centre, &|from, to| stopped(&solids, from, to)) {
                    *sum += weight * mirror.reflectance * image.rough_ratio(&ball(at));
                }
            }
        }
        for (sum, at) in all.iter_mut().zip(grid.points(z)) {
            // By the middle of what glows: on the map a shadow is lit or dark.
            if !stopped(&solids, glow.centre, at) {
                *sum += weight * glow.rough_ratio(&ball(at));
            }
        }
    }
}

/// What walls, ceiling, floor and cards scatter, on the coarser grid. What a matt patch gives does not ask where its
/// light came from: all lights together are one.
fn came_back(stage: &Stage, glows: &[WeighedGlow], grid: &Grid, z: f64, all: &mut [f64]) {
    let patches = stage.patches_of(PATCH_M);
    if patches.is_empty() {
        return;
    }
    let lit: Vec<Vec<f64>> = glows.iter().map(|one| stage.lit_of(&one.glow, &patches)).collect();
    let from = |index: usize, patch: &Patch, receptor: &Receptor| -> f64 {
        let each = glows.iter().zip(&lit).filter(|(_, lit)| lit[index] > 0.0);
        if matches!(patch.lustre, Lustre::Lobe(_)) {
            each.map(|(one, lit)| one.weight * lit[index] * patch.given(one.glow.centre, receptor)).sum()
        } else {
            let lux: f64 = each.map(|(one, lit)| one.weight * lit[index]).sum();
            if lux > 0.0 { lux * patch.given(patch.at, receptor) } else { 0.0 }
        }
    };
    let solids = walls_and_cards(stage);
    let coarse = Grid { columns: COARSE.0, rows: COARSE.1, ..*grid };
    let one = |at: Point| -> f64 {
        let receptor = ball(at);
        let given = |(index, patch): (usize, &Patch)| {
            let given = from(index, patch, &receptor);
            if given > 0.0 && !stopped(&solids, patch.at, at) { given } else { 0.0 }
        };
        patches.iter().enumerate().map(given).sum()
    };
    let came: Vec<f64> = coarse.points(z).map(one).collect();
    for row in 0..grid.rows {
        for column in 0..grid.columns {
            let (x, y) = (between(column, grid.columns, COARSE.0), between(row, grid.rows, COARSE.1));
            let read = |i: usize, j: usize| came[j * COARSE.0 as usize + i];
            let near = read(x.0, y.0) * (1.0 - x.1) + read(x.0 + 1, y.0) * x.1;
            let far = read(x.0, y.0 + 1) * (1.0 - x.1) + read(x.0 + 1, y.0 + 1) * x.1;
            all[(row * grid.columns + column) as usize] += near * (1.0 - y.1) + far * y.1;
        }
    }
}

/// Which two points of a coarser line a point of a finer one lies between, and how far.
fn between(index: u32, of: u32, coarse: u32) -> (usize, f64) {
    let at = f64::from(index) / f64::from(of.max(2) - 1) * f64::from(coarse - 1);
    let whole = at.floor().min(f64::from(coarse - 2));
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "an index of a short line")]
    let low = whole as usize;
    (low, at - whole)
}

/// The light that is there: by a window that is drawn it falls off from there, otherwise it is alike everywhere.
fn there(stage: &Stage, lit: usize, ambient: f64, grid: &Grid, z: f64, all: &mut [f64]) {
    let windows: Vec<Glow> = stage.laid.set.openings.iter().map(crate::setup::Opening::glow).collect();
    let area = |glow: &Glow| glow.size_m().0 * glow.size_m().1;
    let from = |receptor: &Receptor| windows.iter().map(|glow| area(glow) * glow.rough_ratio(receptor)).sum::<f64>();
    let here = from(&stage.receptors[lit]);
    for (sum, at) in all.iter_mut().zip(grid.points(z)) {
        *sum += if here > 0.0 { ambient * from(&ball(at)) / here } else { ambient };
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Kit, Setup};

    const GRID: Grid = Grid { left_m: -3.0, near_m: -4.0, right_m: 3.0, far_m: 4.0, columns: 13, rows: 17 };

    fn drawn(setup: &Setup, kit: &Kit, whose: &Whose) -> Vec<Stops> {
        let prepared = Prepared::new(setup, kit).expect("a setup");
        let stage = Stage::of(setup, kit);
        map(&prepared, &Outcome::of(&prepared), &stage, whose, &GRID)
    }

    /// On the map a light gives the face what the rail says, but for the turn of the cheek.
    #[test]
    fn the_map_and_the_rail_agree() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let outcome = Outcome::of(&prepared);
        let stage = prepared.stage.clone().expect("used");
        let at = stage.receptors[prepared.lit].at;
        let grid = Grid { left_m: at.x, right_m: at.x + 1.0, near_m: at.y, far_m: at.y + 1.0, columns: 2, rows: 2 };
        let here = map(&prepared, &outcome, &stage, &Whose::Light("A".to_owned()), &grid)[0];
        let rail = outcome.regions[prepared.lit].each[0];
        assert!((here - rail).0.abs() < 0.25, "{here:?} {rail:?}");
    }

    #[test]
    fn more_light_is_nowhere_darker() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.add_light(&kit).expect("a second");
        setup.use_set();
        let one = drawn(&setup, &kit, &Whose::Light("A".to_owned()));
        let all = drawn(&setup, &kit, &Whose::Flashes);
        let together = drawn(&setup, &kit, &Whose::Together);
        assert_eq!(one.len(), 13 * 17);
        for ((one, all), together) in one.iter().zip(&all).zip(&together) {
            assert!(*one <= *all + Stops(1e-9) && *all <= *together + Stops(1e-9));
        }
        assert!(
            drawn(&setup, &kit, &Whose::Light("Q".to_owned())).iter().all(|stops| (stops.0 - DARKEST).abs() < 1e-9)
        );
    }

    #[test]
    fn a_wall_gives_light_on() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        let without = drawn(&setup, &kit, &Whose::Flashes);
        setup.add_to_set(&kit, &crate::set::Addition::WallRight).expect("room for it");
        // The dial is turned by the plan too: fixed, so that only the wall differs.
        setup.lights[0].power_stops = Some(-2.0);
        let with = drawn(&setup, &kit, &Whose::Flashes);
        assert_ne!(without, with);
        assert_eq!(between(12, 13, 17), (15, 1.0));
    }
}
