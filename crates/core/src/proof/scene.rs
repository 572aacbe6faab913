//! What stands before the lens, and what the lens sees of it: for every pixel a spot of a surface, through glass and by way
//! of mirrors too. Found once; lights come and go over it.

use std::ops::Range;

use glam::Vec3A;
use obvhs::ray::Ray;
use rayon::prelude::*;

use super::body::{Met, OFF_M, Thing, crosses, double, ray, sheet, single};
use super::coat::{Coat, Gloss};
use super::mesh::Around;
use super::picture::Size;
use super::spot::{Seen, Spot};
use crate::glass::{Glazing, Pane};
use crate::set::{Panel, Solid, View};

/// So far one sees, in metres.
const FAR_M: f32 = 2_000.0;

/// So many things are told apart.
const MOST_APART: usize = 127;

/// Some of what stands in a scene.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Among {
    /// Things, a bit each.
    things: u128,
    /// Whether mirrors are among it.
    mirrors: bool,
}

impl Among {
    pub fn is_empty(self) -> bool {
        self.things == 0 && !self.mirrors
    }
}

/// What stands before the lens.
#[derive(Clone, Debug, PartialEq)]
pub struct Scene {
    /// The camera.
    pub view: View,
    /// Everything that stands.
    pub things: Vec<Thing>,
    /// Glass and mirrors.
    pub panes: Vec<Pane>,
}

/// Where one looks from, and along which way of length 1.
#[derive(Clone, Copy)]
struct Sight {
    from: Vec3A,
    way: Vec3A,
}

impl Scene {
    /// What a ray meets first.
    pub(super) fn hit(&self, ray: &Ray) -> Option<(u32, Met)> {
        let mut ray = *ray;
        let mut found = None;
        for (index, thing) in (0_u32..).zip(&self.things) {
            if let Some(met) = thing.hit(&ray) {
                ray.tmax = met.far;
                found = Some((index, met));
            }
        }
        found
    }

    /// What might keep off something as large as `reach` at its end, on its way from a point.
    pub(super) fn near_way(&self, from: Vec3A, to: Vec3A, reach: f32) -> Among {
        let way = to - from;
        let square = way.length_squared().max(1e-12);
        let is_near = |Around { middle, reach: around }: Around| {
            let part = ((middle - from).dot(way) / square).clamp(0.0, 1.0);
            let near = around + reach * part + 0.01;
            (from + way * part).distance_squared(middle) < near * near
        };
        let around = |panel: Panel| {
            let solid = Solid::Panel(sheet(&panel));
            Around { middle: solid.middle(), reach: solid.reach_m() }
        };
        let mirrors = self.mirrors().any(|panel| is_near(around(panel)));
        Among { mirrors, ..self.among(is_near) }
    }

    /// The mirrors: no light goes through them.
    fn mirrors(&self) -> impl Iterator<Item = Panel> + '_ {
        self.panes.iter().filter(|pane| pane.glazing == Glazing::Mirror).map(|pane| pane.panel)
    }

    fn mirrors_stop(&self, ray: &Ray) -> bool {
        self.mirrors().any(|panel| crosses(ray, &panel).is_some())
    }

    /// What is nearer to a point than so many metres.
    pub(super) fn near(&self, at: Vec3A, far: f32) -> Among {
        self.among(|Around { middle, reach: around }| at.distance_squared(middle) < (around + far) * (around + far))
    }

    fn among(&self, near: impl Fn(Around) -> bool) -> Among {
        let first = self.things.iter().take(MOST_APART).enumerate();
        let found = first.filter(|(_, thing)| thing.around().is_some_and(&near));
        // Of a crowd of things the last are always looked at.
        let rest = if self.things.len() > MOST_APART { 1 << MOST_APART } else { 0 };
        Among { things: found.fold(rest, |all, (index, _)| all | 1 << index), mirrors: false }
    }

    /// Whether any of these stops a ray.
    pub(super) fn stops_among(&self, among: Among, ray: &Ray) -> bool {
        if among.mirrors && self.mirrors_stop(ray) {
            return true;
        }
        let mut left = among.things & !(1 << MOST_APART);
        while left != 0 {
            if self.things[left.trailing_zeros() as usize].stops(ray) {
                return true;
            }
            left &= left - 1;
        }
        among.things >> MOST_APART != 0 && self.things[MOST_APART..].iter().any(|thing| thing.stops(ray))
    }

    /// Whether any of these keeps light off between two points.
    pub(super) fn stops_between(&self, among: Among, from: Vec3A, to: Vec3A) -> bool {
        let way = to - from;
        let length = way.length();
        length > 2.0 * OFF_M && self.stops_among(among, &ray(from, way / length, OFF_M, length - OFF_M))
    }

    /// Whether anything keeps light off between two points.
    pub(super) fn stops(&self, from: Vec3A, to: Vec3A) -> bool {
        self.stops_between(self.near_way(from, to, 0.0), from, to)
    }

    /// Whether anything stops a ray.
    pub(super) fn stops_ray(&self, ray: &Ray) -> bool {
        self.things.iter().any(|thing| thing.stops(ray)) || self.mirrors_stop(ray)
    }

    /// What clear glass lets through from one point to another: 1 where none stands between.
    pub(super) fn through(&self, from: Vec3A, to: Vec3A) -> f32 {
        if self.panes.is_empty() {
            return 1.0;
        }
        let (from, to) = (double(from), double(to));
        let clear = self.panes.iter().filter(|pane| pane.glazing != Glazing::Mirror);
        let crossed = clear.filter(|pane| Solid::Panel(pane.panel).stops(from, to));
        let left: f64 = crossed.map(|pane| 1.0 - pane.glazing.reflectance(pane.incidence_deg(to - from))).product();
        #[expect(clippy::cast_possible_truncation, reason = "a part of 1")]
        let left = left as f32;
        left
    }

    /// The pane a ray meets first, and how far that is.
    fn glass(&self, ray: &Ray) -> Option<(f32, &Pane)> {
        let all = self.panes.iter().filter_map(|pane| Some((crosses(ray, &pane.panel)?, pane)));
        all.min_by(|a, b| a.0.total_cmp(&b.0))
    }

    /// What is seen along a way: one spot at least, told to `tell`; more where glass shows two things at once.
    fn look(&self, pixel: u32, Sight { from, way }: Sight, factor: f32, bounces: u8, tell: &mut dyn FnMut(Spot)) {
        let ray = ray(from, way, OFF_M, FAR_M);
        let met = self.hit(&ray);
        let ray = Ray { tmax: met.map_or(FAR_M, |(_, met)| met.far), ..ray };
        let spot = |far: f32, normal: Vec3A, coat: Coat, thing: Option<u32>| Spot {
            pixel,
            factor,
            from,
            way,
            far,
            normal,
            coat,
            thing,
        };
        if let Some((far, pane)) = self.glass(&ray) {
            let normal = single(pane.panel.normal);
            let facing = if way.dot(normal) > 0.0 { -normal } else { normal };
            let spot_on = from + way * far;
            let back = way - facing * (2.0 * way.dot(facing));
            let dark = pane.glazing == Glazing::Mirror && way.dot(normal) > 0.0;
            if dark || (bounces >= BOUNCES && pane.glazing == Glazing::Mirror) {
                // The back of a mirror, or what is mirrored too often, is dark.
                return tell(spot(far, facing, Coat::matt([0.03; 3]), None));
            }
            #[expect(clippy::cast_possible_truncation, reason = "a part of 1")]
            let mirrored = pane.glazing.reflectance(pane.incidence_deg(double(way))) as f32;
            if pane.glazing == Glazing::Mirror {
                return self.look(
                    pixel,
                    Sight { from: spot_on + facing * OFF_M, way: back },
                    factor * mirrored,
                    bounces + 1,
                    tell,
                );
            }
            self.look(pixel, Sight { from: spot_on + way * OFF_M, way }, factor * (1.0 - mirrored), bounces, tell);
            if bounces < BOUNCES {
                self.look(
                    pixel,
                    Sight { from: spot_on + facing * OFF_M, way: back },
                    factor * mirrored,
                    bounces + 1,
                    tell,
                );
            }
            return;
        }
        let Some((thing, met)) = met else {
            return tell(spot(FAR_M, -way, Coat::matt([0.18; 3]), None));
        };
        let facing = if way.dot(met.normal) > 0.0 { -met.normal } else { met.normal };
        tell(spot(met.far, facing, met.coat, Some(thing)));
        if let (Gloss::Mirror(part), true) = (met.coat.gloss, bounces < BOUNCES) {
            let back = way - facing * (2.0 * way.dot(facing));
            let at = from + way * met.far + facing * OFF_M;
            self.look(pixel, Sight { from: at, way: back.normalize_or(facing) }, factor * part, bounces + 1, tell);
        }
    }

    /// What the lens sees in a picture of a size.
    pub fn seen(&self, size: Size) -> Seen {
        self.seen_rows(size, 0..size.height)
    }

    /// What it sees in some rows of it.
    pub(super) fn seen_rows(&self, whole: Size, rows: Range<u32>) -> Seen {
        let first_row = rows.start;
        let size = Size { height: rows.end - first_row, ..whole };
        let along = |x: f32, y: f32| {
            let place = [f64::from(x / whole.wide()) - 0.5, 0.5 - f64::from(y / whole.high())];
            single(self.view.through(place)).normalize_or(Vec3A::Y)
        };
        let lens = single(self.view.at);
        let look = |pixel: u32, (right, down): (f32, f32), factor: f32, tell: &mut dyn FnMut(Spot)| {
            let (row, column) = (pixel / size.width, pixel % size.width);
            #[expect(clippy::cast_precision_loss, reason = "at most 4096")]
            let (x, y) = (column as f32 + right, (first_row + row) as f32 + down);
            self.look(pixel, Sight { from: lens, way: along(x, y) }, factor, 0, tell);
        };
        let in_row = |row: u32| row * size.width..(row + 1) * size.width;
        let rows: Vec<Row> = (0..size.height)
            .into_par_iter()
            .map(|row| {
                let mut all = Row::default();
                for pixel in in_row(row) {
                    let mut told = 0;
                    look(pixel, (0.5, 0.5), 1.0, &mut |spot| {
                        if told == 0 {
                            all.first.push(spot);
                        } else {
                            all.rest.push(spot);
                        }
                        told += 1;
                    });
                    all.up_to.push(all.rest.len());
                }
                all
            })
            .collect();
        let edges: Vec<Vec<bool>> = (0..rows.len()).into_par_iter().map(|row| Row::edges(&rows, row)).collect();
        let more: Vec<Vec<Spot>> = (0..size.height)
            .into_par_iter()
            .zip(&edges)
            .map(|(row, edges)| {
                let mut all = Vec::new();
                for (pixel, _) in in_row(row).zip(edges).filter(|(_, edge)| **edge) {
                    for around in AROUND {
                        look(pixel, around, PART, &mut |spot| all.push(spot));
                    }
                }
                all
            })
            .collect();
        let besides = rows.iter().map(|row| row.rest.len()).chain(more.iter().map(Vec::len)).sum::<usize>();
        let mut spots = Vec::with_capacity(size.count() + besides);
        let shared = |spot: &Spot| {
            let (row, column) = ((spot.pixel / size.width) as usize, (spot.pixel % size.width) as usize);
            let part = if edges[row][column] { PART } else { 1.0 };
            Spot { factor: spot.factor * part, ..*spot }
        };
        // Each row's room is given back as it is done with: there is a gigabyte of them where all is behind glass.
        let (mut rows, mut rest) = (rows, Vec::with_capacity(edges.len()));
        for row in &mut rows {
            spots.extend(std::mem::take(&mut row.first).iter().map(shared));
            rest.push(std::mem::take(&mut row.rest));
        }
        spots.extend(rest.into_iter().flatten().map(|spot| shared(&spot)));
        spots.extend(more.into_iter().flatten());
        Seen::of((whole, first_row), size, spots)
    }
}

/// What one row of pixels sees.
#[derive(Default)]
struct Row {
    /// One spot a pixel.
    first: Vec<Spot>,
    /// What pixels see besides, from left to right.
    rest: Vec<Spot>,
    /// Where in that each pixel's end.
    up_to: Vec<usize>,
}

impl Row {
    /// What a pixel sees besides its first spot.
    fn besides(&self, column: usize) -> &[Spot] {
        let from = if column == 0 { 0 } else { self.up_to[column - 1] };
        &self.rest[from..self.up_to[column]]
    }

    fn differ(&self, column: usize, other: &Self, other_column: usize) -> bool {
        let (a, b) = (self.besides(column), other.besides(other_column));
        differ(&self.first[column], &other.first[other_column])
            || a.len() != b.len()
            || a.iter().zip(b).any(|(a, b)| a.factor.max(b.factor) > FAINT && differ(a, b))
    }

    /// Which pixels of a row lie at an edge: their neighbour sees another thing, or the same from quite another side.
    fn edges(all: &[Self], row: usize) -> Vec<bool> {
        let here = &all[row];
        let width = here.first.len();
        let over = row.checked_sub(1).map(|row| &all[row]);
        let under = all.get(row + 1);
        let edge = |column: usize| {
            column.checked_sub(1).is_some_and(|left| here.differ(left, here, column))
                || (column + 1 < width && here.differ(column, here, column + 1))
                || over.is_some_and(|over| over.differ(column, here, column))
                || under.is_some_and(|under| here.differ(column, under, column))
        };
        (0..width).map(edge).collect()
    }
}

/// Whether two spots that lie side by side are no one surface.
fn differ(a: &Spot, b: &Spot) -> bool {
    a.thing != b.thing
        || (a.thing.is_some()
            && (a.normal.dot(b.normal) < 0.85
                || (a.far - b.far).abs() > 0.03 * a.far.min(b.far) + 0.01
                || a.coat.albedo.iter().zip(b.coat.albedo).any(|(a, b)| (a - b).abs() > 0.02 + 0.1 * b)))
}

/// A pixel of which something else is mirrored is looked at more closely only from this part of its light on: the edges of
/// what clear glass mirrors are not seen.
const FAINT: f32 = 0.1;
/// So often a way is mirrored.
const BOUNCES: u8 = 2;
/// Where a pixel sees several things, it is looked at so many times more, here within it.
const AROUND: [(f32, f32); 4] = [(0.125, 0.375), (0.375, 0.875), (0.875, 0.625), (0.625, 0.125)];
const PART: f32 = 0.2;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::optics::Sensor;
    use crate::proof::body::Shape;
    use crate::scale::Millimetres;
    use crate::set::{Point, Vector};

    fn scene(panes: Vec<Pane>) -> Scene {
        let view = View::new(
            Point::new(0.0, -3.0, 1.0),
            Point::new(0.0, 0.0, 1.0),
            Millimetres(50.0),
            Sensor::FULL_FRAME,
            false,
        );
        let ball = Shape::Solid(Solid::Ball { centre: Vec3A::new(0.0, 0.0, 1.0), radius_m: 0.3 });
        Scene { view, things: vec![Thing { shape: ball, coat: Coat::matt([0.18; 3]), casts: true }], panes }
    }

    const SIZE: Size = Size { width: 90, height: 60 };

    #[test]
    fn every_pixel_is_seen_whole() {
        let seen = scene(Vec::new()).seen(SIZE);
        let mut parts = vec![0.0_f32; SIZE.count()];
        seen.spots.iter().for_each(|spot| parts[spot.pixel as usize] += spot.factor);
        assert!(parts.iter().all(|part| (part - 1.0).abs() < 1e-5));
        assert!(seen.first().iter().zip(0_u32..).all(|(spot, pixel)| spot.pixel == pixel));
        assert!(
            seen.spots.len() > SIZE.count() && seen.spots.len() < 2 * SIZE.count(),
            "edges are looked at more often"
        );
        // The ball is as large as the lens's own perspective has it.
        let ball = seen.spots.iter().filter(|spot| spot.thing.is_some()).map(|spot| spot.factor).sum::<f32>();
        let radius = (0.3_f32 / (9.0_f32 - 0.09).sqrt()) * 50.0 / 36.0 * 90.0;
        assert!((ball / (std::f32::consts::PI * radius * radius) - 1.0).abs() < 0.02, "{ball} {radius}");
    }

    #[test]
    fn a_mirror_shows_what_stands_before_it_and_glass_shows_both() {
        let pane = |glazing| {
            let panel = Panel::new(Point::new(0.0, 1.0, 1.0), -Vector::Y, 6.0, 6.0);
            vec![Pane { panel, glazing }]
        };
        let corner = |panes| scene(panes).seen(SIZE).first()[0];
        let mirrored = corner(pane(Glazing::Mirror));
        assert!(mirrored.way.y < 0.0 && mirrored.thing.is_none(), "{mirrored:?}");
        let two = scene(pane(Glazing::Double)).seen(SIZE);
        let at_corner: Vec<&Spot> = two.spots.iter().filter(|spot| spot.pixel == 0).collect();
        assert_eq!(at_corner.len(), 2);
        assert!((at_corner.iter().map(|spot| spot.factor).sum::<f32>() - 1.0).abs() < 1e-5);
        assert!(at_corner[0].way.y > 0.0 && at_corner[1].way.y < 0.0);
        let glass = scene(pane(Glazing::Double));
        let left = glass.through(Vec3A::new(0.0, 2.0, 1.0), Vec3A::new(0.0, 0.5, 1.0));
        assert!((left - (1.0 - 0.1506)).abs() < 0.01, "{left}");
        assert!(glass.stops(Vec3A::new(0.0, -1.0, 1.0), Vec3A::new(0.0, 1.0, 1.0)));
    }
}
