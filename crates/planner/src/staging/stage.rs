//! The set as geometry to compute with: what each light gives each place, straight and by one bounce, wherever it stands
//! along its line.

use std::sync::OnceLock;

use tolva_core::colour::Shift;
use tolva_core::glass::{Glazing, Pane};
use tolva_core::optics::Sensor;
use tolva_core::scale::{Metres, Millimetres, Stops};
use tolva_core::set::{
    Direction, Glow, Lustre, Matt, Mirror, Panel, Patch, Point, Receptor, Solid, Vector, View, came_back, patches,
    sides, stopped,
};

use super::lamp::Lamp;
use super::layout::{Laid, aimed_at, over_the_lens};
use crate::setup::{FeatherTo, Head, Kit, Light, LightIndex, PaneGlazing, Person, ProductShape, Setup, indexed};

/// Walls are cut into patches of about this size, in metres.
const PATCH_M: f64 = 0.4;
/// Cards are held near a face, and cut so much finer than walls.
const CARD_FINER: f64 = 0.375;

/// A head is turned to nothing that is farther off, in metres.
const TURNED_FAR_M: f64 = 30.0;

/// One thing of the set that keeps light off.
#[derive(Clone, Debug, PartialEq)]
pub struct Standing {
    /// What.
    pub thing: Thing,
    /// As a solid.
    pub solid: Solid,
}

/// A thing of the set.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Thing {
    /// A person, by id.
    Person(String),
    /// A product.
    Product(String),
    /// The camera.
    Camera,
    /// A light.
    Light(String),
    /// A card.
    Card(String),
    /// A wall.
    Wall(String),
    /// The ceiling.
    Ceiling,
    /// The floor.
    Floor,
    /// A window or doorway.
    Opening(String),
    /// A pane or mirror.
    Pane(String),
    /// Something that can hurt.
    Hazard(String),
    /// A region.
    Region(String),
}

/// What a light gives a place, as parts of its intensity on the axis at 1 m.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Given {
    /// Straight.
    pub straight: f64,
    /// By walls, ceiling, floor and cards.
    pub bounced: f64,
    /// What the way does to its colour.
    pub shift: Shift,
}

impl Given {
    /// Both together, in stops; [`Stops::NOTHING`] where nothing arrives.
    pub fn reach(&self) -> Stops {
        let all = self.straight + self.bounced;
        if all > 0.0 { Stops::of_ratio(all) } else { Stops::NOTHING }
    }
}

/// A light of the set, but for how far it stands.
#[derive(Clone, Debug)]
pub struct OnStage {
    /// What it is aimed at.
    aim: Point,
    on_camera: bool,
    feather_deg: f64,
    lamp: Lamp,
}

indexed!(LightIndex: OnStage);

/// The set of a setup as geometry.
#[derive(Clone, Debug)]
pub struct Stage {
    /// Everything in its place.
    pub laid: Laid,
    /// The camera.
    pub view: View,
    /// Where each region is lit.
    pub receptors: Vec<Receptor>,
    /// What keeps light off.
    pub standing: Vec<Standing>,
    /// What gives light on, with what it is.
    pub surfaces: Vec<(Thing, Matt, Shift)>,
    solids: Vec<Solid>,
    /// Cut when first asked for: what only looks at where things stand needs none.
    patches: OnceLock<Vec<Patch>>,
    /// Glass that light goes through.
    clear: Vec<Pane>,
    /// The lights, in the setup's order.
    lights: Vec<OnStage>,
    camera: Point,
}

impl Stage {
    /// The set of a setup. A modifier that is not in the kit is none.
    pub fn of(setup: &Setup, kit: &Kit) -> Self {
        let laid = Laid::of(setup);
        let light = |light: &Light| OnStage {
            aim: laid.receptor(aimed_at(setup, light)).at,
            on_camera: light.on_camera,
            feather_deg: light.feather_deg,
            lamp: Lamp::of(light, kit),
        };
        let lights = setup.lights.iter().map(light).collect();
        let sensor = kit.cameras.iter().find(|camera| camera.id == setup.camera_id);
        let sensor = sensor.map_or(Sensor::FULL_FRAME, |camera| camera.sensor);
        let camera = laid.camera(setup);
        let focal = Millimetres(setup.focal_length_mm);
        let view = View::new(camera, laid.camera_aim(), focal, sensor, laid.set.camera.portrait);
        let standing = standing(&laid);
        let surfaces = surfaces(&laid);
        let clear = laid.set.panes.iter().map(crate::setup::Pane::pane).filter(|one| one.glazing != Glazing::Mirror);
        Self {
            clear: clear.collect(),
            view,
            receptors: (0..setup.regions.len()).map(|region| laid.receptor(region)).collect(),
            solids: standing.iter().map(|one| one.solid).collect(),
            standing,
            patches: OnceLock::new(),
            surfaces,
            lights,
            camera,
            laid,
        }
    }

    /// What keeps light off, without what it is.
    pub fn solids(&self) -> &[Solid] {
        &self.solids
    }

    /// What a light is aimed at.
    pub fn aim(&self, light: LightIndex) -> Point {
        self.lights[light].aim
    }

    /// Where a light stands, so far from its aim. One on the camera stands where that does.
    pub fn at(&self, light: LightIndex, distance: Metres) -> Point {
        if self.lights[light].on_camera {
            return over_the_lens(self.camera);
        }
        self.laid.lights[light].along(self.lights[light].aim, distance.0)
    }

    /// How far a light stands that has no choice: one on the camera.
    pub fn held_at(&self, light: LightIndex) -> Option<Metres> {
        self.lights[light].on_camera.then(|| Metres(self.at(light, Metres(1.0)).distance(self.lights[light].aim)))
    }

    /// The way a light looks where it stands at a point.
    pub fn looks(&self, light: LightIndex, from: Point) -> Vector {
        let place = self.laid.lights[light];
        if let Some(Head { azimuth_deg, elevation_deg }) = place.head {
            return Direction::new(azimuth_deg, elevation_deg).vector();
        }
        let straight = (self.lights[light].aim - from).normalize_or(Vector::Y);
        turned(straight, place.feather_to, self.lights[light].feather_deg, self.camera - from)
    }

    /// The same with a light turned off its aim by so many degrees.
    #[must_use]
    pub fn feathered(&self, light: LightIndex, feather_deg: f64) -> Self {
        let mut other = self.clone();
        other.lights[light].feather_deg = feather_deg;
        other
    }

    /// A light's face, so far from its aim.
    pub fn glow(&self, light: LightIndex, distance: Metres) -> Glow {
        let at = self.at(light, distance);
        let Lamp { surface, exponent } = self.lights[light].lamp;
        Glow::new(at, self.looks(light, at), self.laid.lights[light].roll_deg, surface, exponent)
    }

    /// What a face lights of walls, ceiling, floor and cards, patch by patch.
    pub fn lit(&self, glow: &Glow) -> Vec<f64> {
        self.lit_of(glow, self.patches())
    }

    /// The walls, ceiling, floor and cards in patches of about this size; cards finer.
    pub fn patches_of(&self, size_m: f64) -> Vec<Patch> {
        let cut = |(of, (thing, matt, _)): (usize, &(Thing, Matt, Shift))| {
            let finer = if matches!(thing, Thing::Card(_)) { CARD_FINER } else { 1.0 };
            patches(&[*matt], size_m * finer).into_iter().map(move |patch| Patch { of, ..patch })
        };
        self.surfaces.iter().enumerate().flat_map(cut).collect()
    }

    /// What a face lights of patches.
    pub fn lit_of(&self, glow: &Glow, patches: &[Patch]) -> Vec<f64> {
        let (width, height) = glow.size_m();
        let radius = width.hypot(height) / 2.0;
        let mut others: (usize, Vec<Solid>) = (usize::MAX, Vec::new());
        let lit = patches.iter().map(|patch| {
            let receptor = patch.receptor();
            let thing = &self.surfaces[patch.of].0;
            if !matches!(thing, Thing::Card(_)) {
                // Half a metre of wall is lit by the middle of what glows, or not.
                let is_dark = stopped(&self.solids, glow.centre, patch.at);
                return if is_dark { 0.0 } else { glow.rough_ratio(&receptor) };
            }
            if others.0 != patch.of {
                others = (patch.of, self.solids_but(thing));
            }
            let between = near_way(&others.1, glow.centre, patch.at, radius);
            if between.is_empty() { glow.rough_ratio(&receptor) } else { glow.ratio(&receptor, &between) }
        });
        lit.collect()
    }

    /// What keeps light off, but for one thing.
    pub(super) fn solids_but(&self, thing: &Thing) -> Vec<Solid> {
        self.standing.iter().filter(|one| one.thing != *thing).map(|one| one.solid).collect()
    }

    /// The plane mirrors that `counts` lets count: cards, panes and the sides of mirror-like boxes, each with the surface it
    /// is.
    pub fn mirrors(&self, counts: impl Fn(&Thing) -> bool) -> impl Iterator<Item = (usize, Mirror)> {
        let all = self.surfaces.iter().enumerate();
        all.filter(move |(_, (thing, matt, _))| matt.lustre == Lustre::Mirror && counts(thing))
            .map(|(index, (_, matt, _))| (index, Mirror { panel: matt.panel, reflectance: matt.reflectance }))
    }

    /// What a place gets by way of the surfaces that `counts` lets count, which a face lights so much each; each surface with
    /// a part of it is told to `each`, with where that part comes from.
    pub fn bounced(
        &self,
        (glow, lit): (&Glow, &[f64]),
        receptor: &Receptor,
        solids: &[Solid],
        counts: impl Fn(&Thing) -> bool,
        mut each: impl FnMut(usize, Point, f64),
    ) -> f64 {
        let counted: Vec<bool> = self.surfaces.iter().map(|(thing, ..)| counts(thing)).collect();
        let patches = self.patches().iter().zip(lit).filter(|(patch, _)| counted[patch.of]);
        let (patches, lit): (Vec<Patch>, Vec<f64>) = patches.map(|(patch, lit)| (*patch, *lit)).unzip();
        let mut sum =
            came_back(&patches, &lit, glow.centre, receptor, solids, |patch, given| each(patch.of, patch.at, given));
        for (of, mirror) in self.mirrors(counts) {
            let given = mirror.ratio(glow, receptor, solids);
            if given > 0.0 {
                let seen = mirror.seen(&mirror.image(glow), receptor);
                #[expect(clippy::cast_precision_loss, reason = "a few corners")]
                let count = seen.len() as f64;
                let middle = seen.iter().sum::<Point>() / count;
                // Half way out to its edge, as much of an even shape lies within as beyond.
                let inner = |corner: &Point| middle + (*corner - middle) * std::f64::consts::FRAC_1_SQRT_2;
                for corner in &seen {
                    each(of, inner(corner), given / count);
                }
                sum += given;
            }
        }
        sum
    }

    /// What a face gives a place.
    pub fn given(&self, glow: &Glow, lit: &[f64], receptor: &Receptor) -> Given {
        let (width, height) = glow.size_m();
        let between = near_way(&self.solids, glow.centre, receptor.at, width.hypot(height) / 2.0);
        let straight = glow.ratio(receptor, &between) * self.through(glow.centre, receptor.at);
        let mut by_surface = vec![0.0; self.surfaces.len()];
        let note = |surface: usize, _: Point, given: f64| by_surface[surface] += given;
        let bounced = self.bounced((glow, lit), receptor, &self.solids, |_| true, note);
        let all = straight + bounced;
        let shift = if all > 0.0 {
            let shares = by_surface.iter().zip(&self.surfaces);
            shares.map(|(given, (_, _, shift))| part_of(*shift, given / all)).sum()
        } else {
            Shift::default()
        };
        Given { straight, bounced, shift }
    }

    /// What a face gives a place straight, with what stands between seen from its middle: for what is tried many times.
    pub fn roughly(&self, glow: &Glow, receptor: &Receptor) -> f64 {
        if stopped(&self.solids, glow.centre, receptor.at) { 0.0 } else { glow.rough_ratio(receptor) }
    }

    /// What a light gives every region, so far from its aim.
    pub fn to_regions(&self, light: LightIndex, distance: Metres) -> Vec<Given> {
        let glow = self.glow(light, distance);
        let lit = self.lit(&glow);
        self.receptors.iter().map(|receptor| self.given(&glow, &lit, receptor)).collect()
    }

    /// Which surface a light's head is turned to, where it is not at its aim: the first its axis meets.
    pub fn turned_to(&self, light: LightIndex, distance: Metres) -> Option<&Thing> {
        self.laid.lights[light].head?;
        let glow = self.glow(light, distance);
        let met =
            |matt: &Matt| matt.panel.crossed(glow.centre, glow.axis).filter(|far| (0.0..TURNED_FAR_M).contains(far));
        let all = self.surfaces.iter().filter_map(|(thing, matt, _)| Some((met(matt)?, thing)));
        all.min_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, thing)| thing)
    }

    /// The angle that what comes back fills from a region, in degrees: an even disc that spreads as it does.
    pub fn bounced_angle_deg(&self, light: LightIndex, distance: Metres, region: usize) -> f64 {
        let glow = self.glow(light, distance);
        let receptor = &self.receptors[region];
        let (mut sum, mut parts) = (0.0, Vec::new());
        let note = |_: usize, at: Point, given: f64| {
            sum += given;
            parts.push((at, given));
        };
        self.bounced((&glow, &self.lit(&glow)), receptor, &self.solids, |_| true, note);
        if sum <= 0.0 {
            return 0.0;
        }
        let middle: Point = parts.iter().map(|(at, given)| *at * (given / sum)).sum();
        let square: f64 = parts.iter().map(|(at, given)| at.distance_squared(middle) * given / sum).sum();
        // An even disc has a mean square radius of half its radius squared.
        2.0 * ((2.0 * square).sqrt() / receptor.at.distance(middle).max(1e-6)).atan().to_degrees()
    }

    /// The patches that give light on.
    pub fn patches(&self) -> &[Patch] {
        self.patches.get_or_init(|| self.patches_of(PATCH_M))
    }

    /// What glass lets through of light from one point to another: 1 where none stands between.
    fn through(&self, from: Point, to: Point) -> f64 {
        let between = self.clear.iter().filter(|pane| Solid::Panel(pane.panel).stops(from, to));
        between.map(|pane| 1.0 - pane.glazing.reflectance(pane.incidence_deg(to - from))).product()
    }

    /// What the glass between the lens and the subject takes of everything.
    pub fn lens_loss(&self) -> Stops {
        Stops(-self.through(self.camera, self.laid.anchor()).log2())
    }

    /// Where the camera stands.
    pub fn camera(&self) -> Point {
        self.camera
    }
}

/// A way turned off by so many degrees: level towards the camera or away from it, or up or down. It is turned in the plane of
/// the way itself, so that the angle between the two is as many degrees at any elevation.
fn turned(straight: Vector, to: FeatherTo, by_deg: f64, camera: Vector) -> Vector {
    if by_deg == 0.0 {
        return straight;
    }
    let (right, up) = sides(straight, 0.0);
    // Which way round leads to the camera.
    let camera_right = if right.dot(camera) < 0.0 { -right } else { right };
    let towards = match to {
        FeatherTo::Camera => camera_right,
        FeatherTo::Away => -camera_right,
        FeatherTo::Up => up,
        FeatherTo::Down => -up,
    };
    let (sin, cos) = by_deg.to_radians().sin_cos();
    straight * cos + towards * sin
}

/// A part of what a surface does to a colour.
fn part_of(shift: Shift, part: f64) -> Shift {
    Shift { mired: shift.mired * part, tint_duv: shift.tint_duv * part }
}

/// What could keep off something on its way, with what is as large as the radius at its beginning.
fn near_way(solids: &[Solid], from: Point, to: Point, radius: f64) -> Vec<Solid> {
    let way = to - from;
    let near = |solid: &&Solid| {
        let (centre, around) = (solid.middle(), solid.reach_m());
        let t = ((centre - from).dot(way) / way.length_squared().max(1e-12)).clamp(0.0, 1.0);
        (from + way * t).distance(centre) < around + radius * (1.0 - t) + 0.02
    };
    solids.iter().filter(near).copied().collect()
}

/// What keeps light off.
fn standing(laid: &Laid) -> Vec<Standing> {
    let set = &laid.set;
    let mut all = Vec::new();
    let mut add = |thing: Thing, solid: Solid| all.push(Standing { thing, solid });
    for person in &set.people {
        for solid in Person::solids(person) {
            add(Thing::Person(person.id.clone()), solid);
        }
    }
    for product in &set.products {
        add(Thing::Product(product.id.clone()), product.solid());
    }
    for card in &set.cards {
        add(Thing::Card(card.id.clone()), Solid::Panel(card.panel()));
    }
    for wall in &set.walls {
        add(Thing::Wall(wall.id.clone()), Solid::Panel(wall.panel(laid.anchor())));
    }
    // Light goes through glass, and not through a mirror.
    for pane in set.panes.iter().filter(|pane| pane.glazing == PaneGlazing::Mirror) {
        add(Thing::Pane(pane.id.clone()), Solid::Panel(pane.panel()));
    }
    all
}

/// What gives light on.
fn surfaces(laid: &Laid) -> Vec<(Thing, Matt, Shift)> {
    let (set, anchor) = (&laid.set, laid.anchor());
    let cards = set.cards.iter().flat_map(|card| {
        let (thing, matt) = (Thing::Card(card.id.clone()), card.matt());
        // A diffuser has no front: lit on either side, it gives light on from the other.
        let turned = Matt { panel: matt.panel.back(), ..matt };
        let back = (matt.lustre == Lustre::Through).then(|| (thing.clone(), turned, card.kind.shift()));
        std::iter::once((thing, matt, card.kind.shift())).chain(back)
    });
    let walls = set.walls.iter().map(|wall| (Thing::Wall(wall.id.clone()), wall.matt(anchor), wall.colour.shift()));
    let ceiling = set.ceiling.iter().map(|one| (Thing::Ceiling, one.matt(anchor), one.colour.shift()));
    let floor = set.floor.iter().map(|one| (Thing::Floor, one.matt(anchor), one.colour.shift()));
    let products = set.products.iter().flat_map(|one| {
        let sides = one.sides();
        let (lustre, reflectance) = one.finish.shine().unwrap_or((Lustre::Matt, 0.0));
        // A curved mirror spreads its reflection so widely that nothing worth counting is left.
        let shown = match (lustre, one.shape) {
            (Lustre::Mirror, ProductShape::Box { .. }) => sides.len(),
            (Lustre::Matt | Lustre::Mirror, _) => 0,
            _ => 1,
        };
        let side = move |panel: &Panel| Matt { panel: *panel, reflectance, lustre };
        let sides: Vec<Matt> = sides[..shown].iter().map(side).collect();
        sides.into_iter().map(|matt| (Thing::Product(one.id.clone()), matt, Shift::default()))
    });
    let mirrors = set.panes.iter().filter(|pane| pane.glazing == PaneGlazing::Mirror).map(|pane| {
        let (panel, lustre) = (pane.panel(), Lustre::Mirror);
        let reflectance = Glazing::Mirror.reflectance(0.0);
        (Thing::Pane(pane.id.clone()), Matt { panel, reflectance, lustre }, Shift::default())
    });
    cards.chain(walls).chain(ceiling).chain(floor).chain(products).chain(mirrors).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use tolva_core::set::between_deg;

    proptest! {
        /// Feathered by so many degrees, a light looks that many degrees off its aim, at any elevation; to the camera it
        /// comes nearer to the camera than away from it, and up is not under down.
        #[test]
        fn a_feather_is_the_angle_off_the_aim(
            azimuth in 0.0..360.0_f64, elevation in -90.0..=90.0_f64, by_deg in 0.0..90.0_f64,
            x in -3.0..3.0_f64, y in -3.0..3.0_f64,
        ) {
            let straight = Direction::new(azimuth, elevation).vector();
            let camera = Vector::new(x, y, 0.1);
            let of = |to| turned(straight, to, by_deg, camera);
            for to in [FeatherTo::Camera, FeatherTo::Away, FeatherTo::Up, FeatherTo::Down] {
                prop_assert!((between_deg(straight, of(to)) - by_deg).abs() < 1e-4);
            }
            prop_assert!(between_deg(of(FeatherTo::Camera), camera) <= between_deg(of(FeatherTo::Away), camera) + 1e-6);
            prop_assert!(of(FeatherTo::Up).z >= of(FeatherTo::Down).z - 1e-9);
        }
    }
}
