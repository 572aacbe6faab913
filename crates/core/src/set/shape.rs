//! Convex shapes: cut by a plane, the points of a solid that its outline goes through, the hull of points in a plane. By
//! hand because they are a few lines each; `geo` and `parry3d` would be most of the crate's building time.

use std::f64::consts::TAU;

use super::place::{Direction, Point, Vector};
use super::solid::Solid;

/// The part of a convex shape where `inside` is not negative: it grows with the distance from a plane. What is left of two
/// points is a line, of one the point. Source: Sutherland and Hodgman 1974.
pub fn cut(shape: &[Point], inside: impl Fn(Point) -> f64) -> Vec<Point> {
    if shape.len() == 1 {
        return shape.iter().copied().filter(|point| inside(*point) >= 0.0).collect();
    }
    let mut left = Vec::with_capacity(shape.len() + 1);
    for (index, here) in shape.iter().enumerate() {
        let next = shape[(index + 1) % shape.len()];
        let (a, b) = (inside(*here), inside(next));
        if a >= 0.0 {
            left.push(*here);
        }
        if (a > 0.0 && b < 0.0) || (a < 0.0 && b > 0.0) {
            left.push(*here + (next - *here) * (a / (a - b)));
        }
    }
    left
}

/// The corners of the smallest convex shape round some points, in order round it. Source: Andrew's monotone chain, 1979.
pub fn hull(mut points: Vec<[f64; 2]>) -> Vec<[f64; 2]> {
    points.sort_by(|a, b| a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])));
    points.dedup();
    if points.len() < 3 {
        return points;
    }
    let turn = |o: [f64; 2], a: [f64; 2], b: [f64; 2]| (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
    let half = |points: &mut dyn Iterator<Item = [f64; 2]>| {
        let mut chain: Vec<[f64; 2]> = Vec::new();
        for point in points {
            while chain.len() > 1 && turn(chain[chain.len() - 2], chain[chain.len() - 1], point) <= 0.0 {
                chain.pop();
            }
            chain.push(point);
        }
        chain.pop();
        chain
    };
    let lower = half(&mut points.iter().copied());
    let upper = half(&mut points.iter().rev().copied());
    lower.into_iter().chain(upper).collect()
}

/// The area within a contour, whichever way round it goes.
pub fn area_within(contour: &[[f64; 2]]) -> f64 {
    let next = contour.iter().cycle().skip(1);
    (contour.iter().zip(next).map(|(a, b)| a[0] * b[1] - a[1] * b[0]).sum::<f64>() / 2.0).abs()
}

/// A round part is drawn with so many corners.
const ROUND: u32 = 20;

fn ring(centre: Point, radius_m: f64, elevation_deg: f64) -> impl Iterator<Item = Point> {
    (0..ROUND).map(move |i| {
        let azimuth = 360.0 * f64::from(i) / f64::from(ROUND);
        centre + Direction::new(azimuth, elevation_deg).vector() * radius_m
    })
}

impl Solid {
    /// Points of its surface, enough for any outline of it.
    pub fn points(&self) -> Vec<Point> {
        match *self {
            Self::Ball { centre, radius_m } => {
                let heights = [-90.0, -60.0, -30.0, 0.0, 30.0, 60.0, 90.0];
                heights.into_iter().flat_map(|elevation| ring(centre, radius_m, elevation)).collect()
            }
            Self::Column { foot, radius_m, height_m } => {
                [0.0, height_m].into_iter().flat_map(|z| ring(foot + Vector::Z * z, radius_m, 0.0)).collect()
            }
            Self::Crate { centre, halves: [right, ahead, up] } => {
                let ends = |middle: Point, half: Vector| [middle - half, middle + half];
                let edges = ends(centre, up).into_iter().flat_map(|middle| ends(middle, ahead));
                edges.flat_map(|middle| ends(middle, right)).collect()
            }
            Self::Panel(panel) => panel.corners().into(),
        }
    }
}

/// An ellipse that stands on edge: its points, in order round it.
pub fn oval(centre: Point, across: Vector, ahead: Vector) -> Vec<Point> {
    let at = |i: u32| (TAU * f64::from(i) / f64::from(ROUND)).sin_cos();
    (0..ROUND).map(at).map(|(sin, cos)| centre + across * cos + ahead * sin).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::Panel;

    #[test]
    fn a_hull_leaves_out_what_lies_inside() {
        let found = hull(vec![[0.0, 0.0], [1.0, 0.0], [0.5, 0.5], [1.0, 1.0], [0.0, 1.0], [0.5, 0.0]]);
        assert_eq!(found.len(), 4);
        assert_eq!(hull(vec![[0.0, 0.0], [0.0, 0.0], [1.0, 1.0]]).len(), 2);
    }

    #[test]
    fn half_of_a_square_is_left() {
        let square = Panel::new(Point::ZERO, Vector::Y, 2.0, 2.0).corners();
        let left = cut(&square, |point| point.z);
        assert_eq!(left.len(), 4);
        assert!(left.iter().all(|point| point.z >= 0.0) && left.iter().filter(|point| point.z == 0.0).count() == 2);
        assert!(cut(&square, |point| point.z - 5.0).is_empty());
        assert_eq!(cut(&square, |point| point.z + 5.0), square);
        assert!(cut(&[Point::ZERO], |_| -1.0).is_empty());
    }

    #[test]
    fn points_lie_on_the_solid() {
        let ball = Solid::Ball { centre: Vector::Z, radius_m: 0.5 };
        assert!(ball.points().iter().all(|point| (point.distance(Vector::Z) - 0.5).abs() < 1e-12));
        let column = Solid::Column { foot: Point::ZERO, radius_m: 0.2, height_m: 1.0 };
        assert!(column.points().iter().all(|point| (point.x.hypot(point.y) - 0.2).abs() < 1e-12));
        let halves = [Vector::X * 0.2, Vector::Y * 0.1, Vector::Z * 0.3];
        let tin = Solid::Crate { centre: Vector::Z, halves };
        assert_eq!(tin.points().len(), 8);
        for solid in [ball, column, tin] {
            let farthest = solid.points().iter().map(|point| point.distance(solid.middle())).fold(0.0, f64::max);
            assert!((farthest - solid.reach_m()).abs() < 1e-9);
        }
        assert!((column.middle().z - 0.5).abs() < 1e-12 && ball.middle() == Vector::Z);
        assert_eq!(oval(Point::ZERO, Vector::X, Vector::Y * 0.5).len(), 20);
    }
}
