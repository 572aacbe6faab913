//! Reach: what a glowing face gives a place, by quadrature over the face.
//!
//! `1/A · ∫ cosⁿθ · w / d² dA`, against the intensity on the axis at 1 m: n is the face's directionality, w how the
//! receptor weighs what comes from aside. With n = 1, on the axis, this is the form factor of Howell's catalogue and the
//! near field of [`crate::modifier::Surface`]. Source: Lambert's law; the integral by Gauss and Legendre.

use std::cell::Cell;
use std::f64::consts::{PI, TAU};

use gauss_quad::GaussLegendre;

use super::place::{Point, Vector, sides};
use super::shape::cut;
use super::solid::{Solid, stopped};
use crate::modifier::Surface;
use crate::scale::Stops;

/// A glowing face that stands somewhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Glow {
    /// Its middle.
    pub centre: Point,
    /// The way it looks, of length 1.
    pub axis: Vector,
    /// Its right, as seen from behind it, of length 1.
    pub right: Vector,
    /// Its up, of length 1.
    pub up: Vector,
    /// Its shape and size.
    pub surface: Surface,
    /// How it falls off to its sides: the exponent of the cosine.
    pub exponent: f64,
}

/// How a receptor weighs what comes from aside.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Weighing {
    /// A flat piece of skin or wall: the cosine, and nothing from behind.
    Flat,
    /// A meter's dome: half of one and the cosine.
    Dome,
    /// A small ball: everything alike. A face turned to each light would get as much.
    Ball,
}

/// A place that is lit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Receptor {
    /// Where it is.
    pub at: Point,
    /// The way it looks, of length 1.
    pub normal: Vector,
    /// How it weighs what comes from aside.
    pub weighing: Weighing,
}

impl Receptor {
    /// How much of what comes this way counts: `towards` is of length 1 and points to where it comes from.
    pub fn weight(&self, towards: Vector) -> f64 {
        match self.weighing {
            Weighing::Flat => self.normal.dot(towards).max(0.0),
            Weighing::Dome => f64::midpoint(1.0, self.normal.dot(towards)),
            Weighing::Ball => 1.0,
        }
    }
}

/// The nodes and weights of Gauss and Legendre on −1 to 1, so many of them. Source: I. Bogaert, *Iteration-free computation of
/// Gauss–Legendre quadrature nodes and weights*, SIAM J. Sci. Comput. 36 (2014), as `gauss-quad` has it.
fn nodes(count: usize) -> &'static [(f64, f64)] {
    static BY_COUNT: std::sync::LazyLock<[Vec<(f64, f64)>; MANY + 1]> = std::sync::LazyLock::new(|| {
        let rule =
            |count| Some(GaussLegendre::new(std::num::NonZeroUsize::new(count)?).into_node_weight_pairs().into());
        std::array::from_fn(|count| rule(count).unwrap_or_default())
    });
    &BY_COUNT[count]
}

/// The most nodes.
const MANY: usize = 32;

/// From so many times its size on, a few points of the face are enough.
const FAR: f64 = 3.0;

/// How finely a face is taken apart.
#[derive(Clone, Copy)]
enum Fineness {
    /// Within a hundredth of a stop.
    Exact,
    /// Within a twentieth.
    Rough,
}

/// A disc as a shape with corners.
const DISC_CORNERS: u32 = 64;
/// Subdivisions of a triangle: the least where something may hide a part of it, and the most.
const CUTS: std::ops::RangeInclusive<u32> = 1..=4;

/// The integral of what points give over a triangle, nothing of those that are hidden: by seven points, exact to the fifth degree (Radon 1948; Abramowitz and
/// Stegun 25.4.62), in four smaller ones where it is near or an edge of what hides it goes through.
fn over_triangle(
    [a, b, c]: [Point; 3],
    (to, at_least): (Point, u32),
    given: &impl Fn(Point) -> Option<f64>,
    depth: u32,
) -> f64 {
    let area_m2 = (b - a).cross(c - a).length() / 2.0;
    if area_m2 <= 0.0 {
        return 0.0;
    }
    let middle = (a + b + c) / 3.0;
    let longest = a.distance(b).max(b.distance(c)).max(c.distance(a));
    let root = 15.0_f64.sqrt();
    let inner = |weight: f64| {
        let far = 1.0 - 2.0 * weight;
        [(far, weight, weight), (weight, far, weight), (weight, weight, far)].map(|(u, v, w)| a * u + b * v + c * w)
    };
    let at_middle = given(middle);
    let (near_points, far_points) = (inner((6.0 - root) / 21.0).map(given), inner((6.0 + root) / 21.0).map(given));
    let seen = std::iter::once(&at_middle).chain(&near_points).chain(&far_points).flatten().count();
    let is_parted = seen > 0 && seen < 7;
    let is_near = longest > 1.2 * middle.distance(to);
    if (depth < at_least || is_parted || is_near) && depth < *CUTS.end() {
        let (ab, bc, ca) = ((a + b) / 2.0, (b + c) / 2.0, (c + a) / 2.0);
        let quarters = [[a, ab, ca], [ab, b, bc], [ca, bc, c], [ab, bc, ca]];
        return quarters.into_iter().map(|corners| over_triangle(corners, (to, at_least), given, depth + 1)).sum();
    }
    let sum = |given: [Option<f64>; 3]| given.into_iter().flatten().sum::<f64>();
    let (near_weight, far_weight) = ((155.0 - root) / 1200.0, (155.0 + root) / 1200.0);
    area_m2
        * (9.0 / 40.0 * at_middle.unwrap_or_default() + near_weight * sum(near_points) + far_weight * sum(far_points))
}

/// A rectangle so many times larger than it is far is cut up.
const VAST: f64 = 6.0;

impl Glow {
    /// A face that looks along `axis`, turned about it by `roll_deg`.
    pub fn new(centre: Point, axis: Vector, roll_deg: f64, surface: Surface, exponent: f64) -> Self {
        let (right, up) = sides(axis, roll_deg);
        Self { centre, axis, right, up, surface, exponent }
    }

    /// How wide and how high it is, in metres; 0 for a bare head.
    pub fn size_m(&self) -> (f64, f64) {
        match self.surface {
            Surface::Bare => (0.0, 0.0),
            Surface::Disc { diameter } => (diameter.0, diameter.0),
            Surface::Rectangle { width, height } => (width.0, height.0),
        }
    }

    /// The farthest points of its edge: four corners, or eight places round a disc.
    pub fn outline(&self) -> Vec<Point> {
        let (width, height) = self.size_m();
        let at = |x: f64, y: f64| self.centre + self.right * (x * width / 2.0) + self.up * (y * height / 2.0);
        match self.surface {
            Surface::Bare => vec![self.centre],
            Surface::Disc { .. } => (0..16).map(|i| f64::from(i) / 16.0 * TAU).map(|t| at(t.cos(), t.sin())).collect(),
            Surface::Rectangle { .. } => vec![at(-1.0, -1.0), at(1.0, -1.0), at(1.0, 1.0), at(-1.0, 1.0)],
        }
    }

    /// Its edge as a convex polygon. A disc is a polygon whose area is right to 0.2%.
    pub fn contour(&self) -> Vec<Point> {
        let Surface::Disc { diameter } = self.surface else { return self.outline() };
        let corner = |i: u32| (TAU * f64::from(i) / f64::from(DISC_CORNERS)).sin_cos();
        let radius = diameter.0 / 2.0;
        (0..DISC_CORNERS)
            .map(corner)
            .map(|(sin, cos)| self.centre + self.right * (radius * cos) + self.up * (radius * sin))
            .collect()
    }

    /// What a part of it gives a place, as a part of the whole's intensity on the axis at 1 m: `part` is a convex shape in
    /// its plane, and only its points that `passes` lets through count; without it all do. Of a bare head the shape is its
    /// one point.
    pub fn ratio_within(&self, part: &[Point], receptor: &Receptor, passes: Option<&dyn Fn(Point) -> bool>) -> f64 {
        let passing = |from: Point| passes.is_none_or(|passes| passes(from));
        let given = |from: Point| passing(from).then(|| self.point(from, receptor));
        let (width, height) = self.size_m();
        let area_m2 = match self.surface {
            Surface::Bare => return part.first().and_then(|at| given(*at)).unwrap_or_default(),
            Surface::Disc { .. } => PI / 4.0 * width * height,
            Surface::Rectangle { .. } => width * height,
        };
        let Some((first, rest)) = part.split_first() else { return 0.0 };
        let fan = rest.windows(2).map(|two| [*first, two[0], two[1]]);
        let at_least = if passes.is_some() { *CUTS.start() } else { 0 };
        let triangle = |corners| over_triangle(corners, (receptor.at, at_least), &given, 0);
        fan.map(triangle).sum::<f64>() / area_m2
    }

    /// What one point of it gives.
    fn point(&self, from: Point, receptor: &Receptor) -> f64 {
        let way = receptor.at - from;
        let square = way.length_squared();
        let distance = square.sqrt();
        let out = self.axis.dot(way) / distance;
        if out <= 0.0 || distance == 0.0 {
            return 0.0;
        }
        let weight = receptor.weight(-way / distance);
        if weight == 0.0 {
            return 0.0;
        }
        // Diffusers are plain cosines, and powers are dear.
        let fall = if (self.exponent - 1.0).abs() < 1e-9 { out } else { out.powf(self.exponent) };
        fall * weight / square
    }

    /// Places of the face with their parts of its light, which sum to 1: sixteen or so where it is far, 64 or more where it
    /// is near. Of a bare head its middle.
    pub fn nodes(&self, near: bool) -> Vec<(Point, f64)> {
        let nodes = if near { nodes(8) } else { nodes(4) };
        let (width, height) = self.size_m();
        match self.surface {
            Surface::Bare => vec![(self.centre, 1.0)],
            Surface::Rectangle { .. } => {
                let (right, up) = (self.right * (width / 2.0), self.up * (height / 2.0));
                let at = |x: f64, y: f64| self.centre + right * x + up * y;
                let line = |(x, u): (f64, f64)| nodes.iter().map(move |(y, v)| (at(x, *y), u * v / 4.0));
                nodes.iter().copied().flat_map(line).collect()
            }
            Surface::Disc { .. } => {
                let round = u32::try_from(nodes.len()).map_or(8, |count| count * 2);
                let ring = |(x, u): (f64, f64)| {
                    let r = f64::midpoint(1.0, x).sqrt() * width / 2.0;
                    (0..round).map(move |j| {
                        let (sin, cos) = (TAU * (f64::from(j) + 0.5) / f64::from(round)).sin_cos();
                        let at = self.centre + self.right * (r * cos) + self.up * (r * sin);
                        (at, u / (2.0 * f64::from(round)))
                    })
                };
                nodes.iter().copied().flat_map(ring).collect()
            }
        }
    }

    /// What it gives a place, as a part of its intensity on the axis at 1 m. What stands between stops it.
    pub fn ratio(&self, receptor: &Receptor, between: &[Solid]) -> f64 {
        let (ratio, parted) = self.integrated(receptor, between, Fineness::Exact);
        if !parted {
            return ratio;
        }
        // Where a part of the face is hidden, its edge is followed.
        let passes = |from: Point| !stopped(between, from, receptor.at);
        let before = match receptor.weighing {
            Weighing::Flat => cut(&self.contour(), |point| receptor.normal.dot(point - receptor.at)),
            Weighing::Dome | Weighing::Ball => self.contour(),
        };
        self.ratio_within(&before, receptor, Some(&passes))
    }

    /// The same to within a twentieth of a stop, with nothing between: for a map of many places.
    pub fn rough_ratio(&self, receptor: &Receptor) -> f64 {
        self.integrated(receptor, &[], Fineness::Rough).0
    }

    /// What it gives, and whether what stands between hides a part of it and not all.
    fn integrated(&self, receptor: &Receptor, between: &[Solid], fineness: Fineness) -> (f64, bool) {
        let (width, height) = self.size_m();
        let size = width.max(height);
        let way = receptor.at - self.centre;
        // The face is flat: a place is before all of it or behind all of it.
        let before = self.axis.dot(way);
        if before <= 0.0 {
            return (0.0, false);
        }
        let (came, hidden) = (Cell::new(false), Cell::new(false));
        let given = |from: Point| {
            let given = self.point(from, receptor);
            if given <= 0.0 || between.is_empty() {
                return given;
            }
            let is_hidden = stopped(between, from, receptor.at);
            if is_hidden {
                hidden.set(true);
            } else {
                came.set(true);
            }
            if is_hidden { 0.0 } else { given }
        };
        if size == 0.0 {
            return (given(self.centre), false);
        }
        let radius = width.hypot(height) / 2.0;
        // About as near as it comes to the face.
        let aside = (way - self.axis * before).length();
        let near = before.hypot((aside - radius).max(0.0)) / size;
        // Where the receptor's horizon cuts through what glows, its light ends at a sharp edge.
        let edge = receptor.weighing == Weighing::Flat && receptor.normal.dot(way).abs() < radius;
        let aslant = receptor.weighing == Weighing::Ball && before > 0.2 * way.length();
        let broad = receptor.weighing == Weighing::Ball && before > 0.6 * way.length();
        let steep = self.exponent.max(1.0).sqrt();
        let nodes = match fineness {
            // A small ball that is not far round to the side: the middle of the face, or four points of it.
            Fineness::Rough if near > 2.8 * steep && broad => nodes(1),
            Fineness::Rough if near > 1.5 * steep && broad => nodes(2),
            Fineness::Rough if near > 4.0 * steep && aslant => nodes(2),
            Fineness::Rough if near > 1.0 => nodes(3),
            Fineness::Rough if near > 0.25 => nodes(6),
            Fineness::Rough => nodes(8),
            Fineness::Exact if edge => nodes(MANY),
            Fineness::Exact if near > FAR && between.is_empty() => nodes(3),
            // What stands between cuts off a part of it.
            Fineness::Exact if near > FAR => nodes(4),
            Fineness::Exact if near > 1.2 && between.is_empty() => nodes(4),
            Fineness::Exact if near > 1.2 => nodes(6),
            Fineness::Exact if near > 0.35 => nodes(8),
            Fineness::Exact => nodes(MANY),
        };
        let sum = match self.surface {
            Surface::Bare => 0.0,
            Surface::Rectangle { .. } => {
                // A wall that is much larger than it is far is taken piece by piece.
                let pieces = (size / VAST / way.length().max(size / (VAST * 16.0))).ceil().clamp(1.0, 16.0);
                let (right, up) = (self.right * (width / 2.0 / pieces), self.up * (height / 2.0 / pieces));
                let mut sum = 0.0;
                #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most sixteen")]
                let count = pieces as u32;
                for piece in 0..count * count {
                    let step = |index: u32| 2.0 * f64::from(index) + 1.0 - pieces;
                    let middle = self.centre + right * step(piece % count) + up * step(piece / count);
                    for (x, u) in nodes {
                        let line = middle + right * *x;
                        sum += u * nodes.iter().map(|(y, v)| v * given(line + up * *y)).sum::<f64>();
                    }
                }
                sum / (4.0 * pieces * pieces)
            }
            Surface::Disc { .. } => {
                // Even in the square of the radius is even over the area.
                let round = nodes.len() * 2;
                let mut sum = 0.0;
                for (x, u) in nodes {
                    let r = (f64::midpoint(1.0, *x)).sqrt() * width / 2.0;
                    for j in 0..round {
                        #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
                        let (sin, cos) = (TAU * (j as f64 + 0.5) / round as f64).sin_cos();
                        sum += u * given(self.centre + self.right * (r * cos) + self.up * (r * sin));
                    }
                }
                #[expect(clippy::cast_precision_loss, reason = "a few dozen")]
                let round = round as f64;
                sum / (2.0 * round)
            }
        };
        (sum, came.get() && hidden.get())
    }

    /// The same in stops; [`Stops::NOTHING`] where no light arrives.
    ///
    /// ```
    /// use tolva_core::{modifier::Surface, scale::Metres, set::{Glow, Point, Receptor, Vector, Weighing}};
    /// let octagon = Surface::Disc { diameter: Metres(0.9) };
    /// let glow = Glow::new(Point::new(0.0, -0.9, 1.5), Vector::Y, 0.0, octagon, 1.0);
    /// let face = Receptor { at: Point::new(0.0, 0.0, 1.5), normal: -Vector::Y, weighing: Weighing::Flat };
    /// let inverse_square = -2.0 * 0.9_f64.log2();
    /// assert!((glow.reach(&face, &[]).0 - inverse_square - -0.322).abs() < 0.0005);
    /// ```
    pub fn reach(&self, receptor: &Receptor, between: &[Solid]) -> Stops {
        let ratio = self.ratio(receptor, between);
        if ratio > 0.0 { Stops::of_ratio(ratio) } else { Stops::NOTHING }
    }

    /// The angle it fills as seen from a place, in degrees, along its longer side as it is seen from there: how soft it
    /// is. 0 for a bare head.
    pub fn angle_deg(&self, from: Point) -> f64 {
        let outline = self.outline();
        let mut widest: f64 = 0.0;
        for (index, a) in outline.iter().enumerate() {
            for b in &outline[index + 1..] {
                widest = widest.max(super::place::between_deg(*a - from, *b - from));
            }
        }
        widest
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scale::Metres;
    use crate::set::place::Direction;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics.md §4, to three decimals: what a face gives on its axis, against the inverse square.
    #[rstest]
    #[case(Surface::Disc { diameter: Metres(0.9) }, 0.45, -1.000)]
    #[case(Surface::Disc { diameter: Metres(0.9) }, 1.5, -0.124)]
    #[case(Surface::Rectangle { width: Metres(0.6), height: Metres(0.6) }, 0.5, -0.558)]
    #[case(Surface::Rectangle { width: Metres(1.5), height: Metres(1.5) }, 1.0, -0.795)]
    #[case(Surface::Rectangle { width: Metres(0.3), height: Metres(1.2) }, 0.6, -0.687)]
    fn near_fields(#[case] surface: Surface, #[case] distance: f64, #[case] stops: f64) {
        let glow = Glow::new(Point::ZERO, Vector::Y, 0.0, surface, 1.0);
        let face = Receptor { at: Vector::Y * distance, normal: -Vector::Y, weighing: Weighing::Flat };
        let found = glow.reach(&face, &[]).0 + 2.0 * distance.log2();
        assert!((found - stops).abs() < 0.0006, "{found}");
    }

    proptest! {
        #[test]
        fn far_away_the_inverse_square_holds(azimuth in 0.0..360.0_f64, size in 0.1..1.5_f64) {
            let surface = Surface::Rectangle { width: Metres(size), height: Metres(size / 2.0) };
            let towards = Direction::new(azimuth, 20.0).vector();
            let glow = Glow::new(-towards * (size * 40.0), towards, 0.0, surface, 2.0);
            let face = Receptor { at: Point::ZERO, normal: -towards, weighing: Weighing::Flat };
            let point = Stops::of_ratio(1.0 / (size * 40.0).powi(2));
            prop_assert!((glow.reach(&face, &[]) - point).0.abs() < 0.002);
        }

        /// A wall between is as good as no light; half a wall leaves some of it.
        #[test]
        fn what_stands_between_keeps_it_off(width in 0.2..1.5_f64, distance in 0.8..4.0_f64) {
            let surface = Surface::Rectangle { width: Metres(width), height: Metres(0.5) };
            let glow = Glow::new(Point::new(0.0, -distance, 1.5), Vector::Y, 0.0, surface, 1.0);
            let face = Receptor { at: Point::new(0.0, 0.0, 1.5), normal: -Vector::Y, weighing: Weighing::Flat };
            let wall = |x: f64| {
                let panel = crate::set::Panel::new(Point::new(x, -distance / 2.0, 1.5), Vector::Y, 6.0, 6.0);
                [Solid::Panel(panel)]
            };
            let open = glow.ratio(&face, &[]);
            prop_assert!(glow.ratio(&face, &wall(0.0)) == 0.0);
            let half = glow.ratio(&face, &wall(3.0));
            prop_assert!((half / open - 0.5).abs() < 0.03, "{}", half / open);
        }
    }

    proptest! {
        /// What is drawn many times is as good as what is reckoned with, to a twentieth of a stop.
        #[test]
        fn rough_is_near_enough(
            azimuth in 0.0..360.0_f64, away in 0.3..6.0_f64, size in 0.1..1.5_f64, n in 1.0..6.0_f64, round in any::<bool>(),
        ) {
            let surface = if round {
                Surface::Disc { diameter: Metres(size) }
            } else {
                Surface::Rectangle { width: Metres(size), height: Metres(size * 0.6) }
            };
            let glow = Glow::new(Point::ZERO, Vector::Y, 0.0, surface, n);
            let at = Direction::new(azimuth, 10.0).vector() * (away + size / 2.0);
            let ball = Receptor { at, normal: Vector::Z, weighing: Weighing::Ball };
            let (exact, rough) = (glow.ratio(&ball, &[]), glow.rough_ratio(&ball));
            prop_assert!(exact.max(rough) <= 0.0 || (exact / rough).log2().abs() < 0.05, "{} {}", exact, rough);
        }
    }

    #[rstest]
    #[case(Surface::Disc { diameter: Metres(0.9) }, 0.1)]
    #[case(Surface::Rectangle { width: Metres(0.6), height: Metres(1.2) }, 0.11)]
    #[case(Surface::Bare, 1.0)]
    fn nodes_are_the_whole_face(#[case] surface: Surface, #[case] most: f64) {
        let glow = Glow::new(Point::ZERO, Vector::Y, 10.0, surface, 1.0);
        for near in [false, true] {
            let nodes = glow.nodes(near);
            assert!((nodes.iter().map(|(_, part)| part).sum::<f64>() - 1.0).abs() < 1e-12);
            assert!(nodes.iter().all(|(at, part)| at.y.abs() < 1e-12 && *part <= most));
        }
    }

    #[test]
    fn softness_is_the_angle_it_fills() {
        let square = Surface::Rectangle { width: Metres(1.0), height: Metres(1.0) };
        let glow = Glow::new(Vector::Y, -Vector::Y, 0.0, square, 1.0);
        // Corner to corner: √2 wide from 1 m.
        let diagonal = 2.0 * (2.0_f64.sqrt() / 2.0).atan().to_degrees();
        assert!((glow.angle_deg(Point::ZERO) - diagonal).abs() < 1e-9);
        assert!(Glow::new(Vector::Y, -Vector::Y, 0.0, Surface::Bare, 1.0).angle_deg(Point::ZERO).abs() < 1e-12);
    }
}
