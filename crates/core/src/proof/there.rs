//! The light that is there. How much of it falls on each region is the plan's: it was read, guessed or worked out. Where
//! between those regions it falls is found here: sky with what hides it, sun with its shadows, windows.
//!
//! One layer a region: each spot belongs to regions by parts that sum to 1, so that a region's own place gets exactly what
//! the plan says, and the regions' light only weighs layers.

use glam::Vec3A;
use rayon::prelude::*;

use super::body::single;
use super::faces::{Face, Fineness, Ways};
use super::picture::Layer;
use super::samples::Samples;
use super::scene::Scene;
use super::sky::{sky_at, sun_seen};
use super::smooth::{Guide, smoothed};
use super::spot::{Seen, Spot, SurfacePoint};
use super::work::Work;
use crate::set::{Glow, Receptor};

/// A place the plan knows the light of.
#[derive(Clone, Debug, PartialEq)]
pub struct Place {
    /// Where its light is read.
    pub receptor: Receptor,
    /// The things it stands for, by their index in the scene.
    pub things: Vec<u32>,
}

/// What lies behind everything.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Beyond {
    /// The open: sky over a far line of trees and roofs.
    Open,
    /// A room that nobody has drawn: even.
    Room,
}

/// The light that is there, as it is spread.
#[derive(Clone, Debug, PartialEq)]
pub struct There {
    /// The sun: the way to it, of length 1, and what it gives straight on against what the open sky gives.
    pub sun: Option<(Vec3A, f32)>,
    /// Windows and doorways; where there are some, most of the light comes by them.
    pub windows: Vec<Glow>,
    /// The places whose light is known.
    pub places: Vec<Place>,
    /// The one of them that lies behind.
    pub behind: usize,
    /// The ones of the main subject: its lit side, and its shadow side where there is one.
    pub main: (usize, Option<usize>),
    /// What is nearer to the subject than this gets its light, what is farther off gets that of behind, in metres.
    pub depth_m: f32,
    /// What lies behind everything.
    pub beyond: Beyond,
}

/// A window or doorway as a face that gives light.
struct Window {
    face: Face,
    /// Its area over π, in square metres.
    area: f32,
}

/// Of a room's light by windows, this part comes from everywhere. Chosen; as the planner's own for a room that is not drawn.
const ROOM: f32 = 1.0 / 16.0;

impl There {
    /// How the sky, or a room, falls at a spot, by a measure of its own.
    fn sky_or_room(
        &self,
        scene: &Scene,
        SurfacePoint { at, normal }: SurfacePoint,
        samples: Samples,
        ways: Ways,
    ) -> f32 {
        sky_at(scene, normal, at, samples, ways.sky) * self.sky_part()
    }

    /// The part of the sun that arrives at a spot.
    fn sun_at(&self, scene: &Scene, SurfacePoint { at, normal }: SurfacePoint, samples: Samples, ways: Ways) -> f32 {
        let Some((to_sun, _)) = self.sun.filter(|(to_sun, _)| normal.dot(*to_sun) > 0.0) else { return 0.0 };
        sun_seen(scene, at, to_sun, samples, ways.sky) * scene.through(at, at + to_sun * 30.0)
    }

    /// How sun and windows fall at a spot, by the same measure: of the sun this part arrives, of each window that one.
    fn straight(&self, faces: &[Window], spot: &Spot, at: Vec3A, sun: f32, window: impl Fn(usize) -> f32) -> f32 {
        let by_sun = self.sun.map_or(0.0, |(to_sun, strength)| strength * spot.normal.dot(to_sun).max(0.0) * sun);
        let by_window = faces.iter().enumerate().map(|(index, Window { face, area })| {
            let open = face.open(at, spot).0;
            if open > 0.0 { area * open * window(index) } else { 0.0 }
        });
        by_sun + by_window.sum::<f32>()
    }

    /// How the light that is there falls at a spot, by a measure of its own.
    fn falls(&self, scene: &Scene, faces: &[Window], spot: &Spot, at: Vec3A, samples: Samples, ways: Ways) -> f32 {
        let here = SurfacePoint { at, normal: spot.normal };
        let sun = self.sun_at(scene, here, samples, ways);
        let window = |index: usize| faces[index].face.seen_from(scene, here, samples, ways);
        let straight = self.straight(faces, spot, at, sun, window);
        self.sky_or_room(scene, here, samples, ways) + straight
    }

    /// Where light comes by windows, little of it comes from everywhere.
    fn sky_part(&self) -> f32 {
        if self.windows.is_empty() { 1.0 } else { ROOM }
    }

    /// Which parts of a spot belong to which place.
    fn shares(&self, spot: &Spot, at: Vec3A) -> Vec<(usize, f32)> {
        let Some(thing) = spot.thing else { return vec![(self.behind, 1.0)] };
        let own: Vec<usize> =
            (0..self.places.len()).filter(|place| self.places[*place].things.contains(&thing)).collect();
        if !own.is_empty() {
            return self.by_side(&own, spot.normal);
        }
        let (lit, shadow) = self.main;
        let main: Vec<usize> = std::iter::once(lit).chain(shadow).collect();
        let off = (at - single(self.places[lit].receptor.at)).length();
        let far = smooth_step((off / self.depth_m.max(0.5)).clamp(0.0, 1.0));
        let mut all = self.by_side(&main, spot.normal);
        for (_, part) in &mut all {
            *part *= 1.0 - far;
        }
        all.push((self.behind, far));
        all
    }

    /// Places of one thing, by the way the spot looks: each has all of it where it looks as the place does.
    fn by_side(&self, own: &[usize], normal: Vec3A) -> Vec<(usize, f32)> {
        let looks = |place: usize| single(self.places[place].receptor.normal);
        match own {
            [one] => vec![(*one, 1.0)],
            [one, other] if looks(*one).dot(looks(*other)) < 0.999 => {
                let apart = looks(*one) - looks(*other);
                let (from, to) = (looks(*other).dot(apart), looks(*one).dot(apart));
                let part = ((normal.dot(apart) - from) / (to - from)).clamp(0.0, 1.0);
                vec![(*one, part), (*other, 1.0 - part)]
            }
            _ => {
                let near = |place: &usize| {
                    let angle = normal.dot(looks(*place)).clamp(-1.0, 1.0).acos();
                    1.0 / (angle * angle + 1e-4)
                };
                let sum: f32 = own.iter().map(near).sum();
                own.iter().map(|place| (*place, near(place) / sum)).collect()
            }
        }
    }

    /// What lies behind everything along a way, against its mean.
    fn beyond(&self, way: Vec3A) -> f32 {
        match self.beyond {
            Beyond::Room => 1.0,
            Beyond::Open => {
                let azimuth = way.x.atan2(way.y);
                // A line of trees and roofs of our own, a few degrees high.
                let line = 0.030
                    + 0.016 * (azimuth * 9.0).sin()
                    + 0.010 * (azimuth * 23.0 + 1.3).sin()
                    + 0.005 * (azimuth * 61.0).sin();
                let over = (way.z - line) / 0.004;
                let sky = 1.12 - 0.35 * way.z.max(0.0);
                let trees = 0.55;
                trees + (sky - trees) * smooth_step(over.clamp(0.0, 1.0))
            }
        }
    }

    /// A layer for each place, in their order; nothing where it was stopped.
    pub fn layers(&self, scene: &Scene, seen: &Seen, fineness: Fineness, work: &Work) -> Option<Vec<Layer>> {
        let ways = Ways::of(fineness, seen.whole.count());
        let faces = self.faces();
        let at_places = self.at_places(scene, &faces);
        let (count, guide) = (seen.size.count(), Guide::of(seen));
        let first = |spot: &Spot| seen.samples(spot, false);
        let sky = ways
            .slowly()
            .worked_out(&guide, (work, true), |spot| self.sky_or_room(scene, spot.lit_point(), first(spot), ways))?;
        let sky = smoothed(&guide, &sky, 3);
        let edges = |part: &(dyn Fn(&Spot) -> f32 + Sync)| {
            Some(smoothed(&guide, &ways.with_edges().worked_out(&guide, (work, false), part)?, 1))
        };
        let sun = match self.sun {
            Some(_) => edges(&|spot| self.sun_at(scene, spot.lit_point(), first(spot), ways))?,
            None => Vec::new(),
        };
        let by_window = |Window { face, .. }: &Window| {
            edges(&|spot| {
                let lit = face.open(spot.lit_at(), spot).0 > 0.0;
                if lit { face.seen_from(scene, spot.lit_point(), first(spot), ways) } else { 0.0 }
            })
        };
        let windows: Vec<Vec<f32>> = faces.iter().map(by_window).collect::<Option<_>>()?;
        // A second look at a pixel that met another surface goes its own way; on the same one it finds what the first did.
        let per_spot = |(index, spot): (usize, &Spot)| {
            let pixel = spot.pixel as usize;
            if spot.thing.is_none() {
                return Some(self.beyond(spot.way));
            }
            if index >= count && !guide.alike(spot) {
                work.one_more()?;
                return Some(self.falls(scene, &faces, spot, spot.lit_at(), seen.samples(spot, true), ways));
            }
            let sun = sun.get(pixel).copied().unwrap_or_default();
            Some(sky[pixel] + self.straight(&faces, spot, spot.lit_at(), sun, |window| windows[window][pixel]))
        };
        let fallen: Vec<f32> = seen.spots.par_iter().enumerate().map(per_spot).collect::<Option<_>>()?;
        // What each place gives each spot, spot by spot; then one layer beside the other.
        let many = self.places.len();
        let mut given = vec![0.0_f32; seen.spots.len() * many];
        given.par_chunks_mut(many).zip(&seen.spots).zip(&fallen).for_each(|((given, spot), falls)| {
            for (place, part) in self.shares(spot, spot.at()) {
                let against = if spot.thing.is_some() { at_places[place] } else { 1.0 };
                given[place] += falls / against * part * spot.factor;
            }
        });
        let of_place = |place: usize| {
            let mut pixels = vec![[0.0_f32; 3]; count];
            for (spot, given) in seen.spots.iter().zip(given.chunks(many)) {
                let sum = &mut pixels[spot.pixel as usize];
                sum.iter_mut().zip(spot.coat.albedo).for_each(|(sum, albedo)| *sum += albedo * given[place]);
            }
            Layer { size: seen.size, pixels }
        };
        let mut layers: Vec<Layer> = (0..many).into_par_iter().map(of_place).collect();
        // A window that the lens sees is as bright as what lies before it.
        let place = self.main.0;
        let bright = |spot: &Spot| {
            let of = |Window { face, area }: &Window| Some(face.bright(spot.from, spot.way, spot.far)? * area);
            faces.iter().find_map(of).map(|bright| bright / at_places[place] * spot.factor)
        };
        for (spot, glows) in seen.spots.iter().filter_map(|spot| Some((spot, bright(spot)?))) {
            layers[place].pixels[spot.pixel as usize].iter_mut().for_each(|sum| *sum += glows);
        }
        Some(layers)
    }

    fn faces(&self) -> Vec<Window> {
        #[expect(clippy::cast_possible_truncation, reason = "a few square metres")]
        let area = |glow: &Glow| (glow.size_m().0 * glow.size_m().1) as f32;
        // By the measure of the sky: a window that fills everything gives as much as that.
        let window = |glow: &Glow| Window { face: Face::of(glow), area: area(glow) / std::f32::consts::PI };
        self.windows.iter().map(window).collect()
    }

    /// How it falls where each place is read.
    fn at_places(&self, scene: &Scene, faces: &[Window]) -> Vec<f32> {
        let each = |place: &Place| self.at_place(scene, faces, place).max(1e-4);
        self.places.par_iter().map(each).collect()
    }

    fn at_place(&self, scene: &Scene, faces: &[Window], place: &Place) -> f32 {
        let spot = Spot::card(&place.receptor);
        let samples = Samples::of(11, true);
        self.falls(scene, faces, &spot, spot.at(), samples, Ways { sky: 128, ..Ways::of(Fineness::Fine, 1) })
    }

    /// What a flat card of grey at a place would get of each place's light, as parts of 1 that sum to about 1 where the
    /// card stands where a place is read: to compare with the plan.
    pub fn at_card(&self, scene: &Scene, receptor: &Receptor, thing: Option<u32>) -> Vec<(usize, f32)> {
        let faces = self.faces();
        let at_places = self.at_places(scene, &faces);
        let place = Place { receptor: *receptor, things: Vec::new() };
        let here = self.at_place(scene, &faces, &place);
        let spot = Spot { thing: thing.or(Some(u32::MAX)), ..Spot::card(receptor) };
        self.shares(&spot, spot.at()).into_iter().map(|(place, part)| (place, here / at_places[place] * part)).collect()
    }
}

fn smooth_step(part: f32) -> f32 {
    part * part * (3.0 - 2.0 * part)
}
