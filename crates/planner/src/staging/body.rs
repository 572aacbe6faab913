//! People and products as simple solids: where their eyes are, what of them keeps light off, where light is read on them.
//! Proportions are usual ones, from memory.

use tolva_core::set::{Direction, Panel, Point, Receptor, Solid, Vector, Weighing};

use crate::setup::{Person, Product, ProductShape, Side};

/// The eyes are at so much of the height.
const EYES: f64 = 0.94;
/// Of somebody who sits, at so much.
const SEATED_EYES: f64 = 0.72;
/// The radius of a head, as a part of the height.
const HEAD: f64 = 0.065;
/// The radius of a body.
const BODY: f64 = 0.115;
/// From the eyes down to the shoulders.
const SHOULDERS: f64 = 0.13;
/// The sides of a face are turned so far from straight on, in degrees.
pub const SIDE_DEG: f64 = 45.0;
/// Lower than this a product is on the floor, in metres.
const LOWEST_TABLE_M: f64 = 0.15;
/// What is lit lies a little before its own surface, in metres.
const SKIN_M: f64 = 0.01;

impl Side {
    /// Which way it is turned from straight on, in degrees clockwise from above.
    pub fn turn_deg(self) -> f64 {
        match self {
            Self::Left => -SIDE_DEG,
            Self::Right => SIDE_DEG,
            Self::Front | Self::Top => 0.0,
        }
    }

    /// The way something that faces so looks on this side.
    fn normal(self, facing_deg: f64) -> Vector {
        if self == Self::Top { Vector::Z } else { Direction::new(facing_deg + self.turn_deg(), 0.0).vector() }
    }
}

impl Person {
    /// Between the eyes.
    pub fn eyes(&self) -> Point {
        let part = if self.seated { SEATED_EYES } else { EYES };
        Point::new(self.x_m, self.y_m, self.height_m * part)
    }

    /// The way they look.
    pub fn looks(&self) -> Vector {
        Direction::new(self.facing_deg, 0.0).vector()
    }

    /// The middle of the head and its radius.
    pub fn head(&self) -> (Point, f64) {
        let radius = self.height_m * HEAD;
        (self.eyes() - self.looks() * radius, radius)
    }

    /// The radius of the body, in metres.
    pub fn body_radius_m(&self) -> f64 {
        self.height_m * BODY
    }

    /// Head and body.
    pub fn solids(&self) -> [Solid; 2] {
        let (centre, radius_m) = self.head();
        let height_m = self.eyes().z - self.height_m * SHOULDERS;
        let foot = Point::new(centre.x, centre.y, 0.0);
        [Solid::Ball { centre, radius_m }, Solid::Column { foot, radius_m: self.body_radius_m(), height_m }]
    }

    /// A side of the face, as a place that is lit.
    pub fn receptor(&self, side: Side) -> Receptor {
        let (centre, radius) = self.head();
        let normal = side.normal(self.facing_deg);
        // Both sides are read at the eyes, so that they differ by how they look alone.
        let out = if side == Side::Top { Vector::Z } else { self.looks() };
        Receptor { at: centre + out * (radius + SKIN_M), normal, weighing: Weighing::Flat }
    }
}

impl Product {
    /// Its width, depth and height, in metres.
    pub fn size_m(&self) -> (f64, f64, f64) {
        match self.shape {
            ProductShape::Box { width_m, depth_m, height_m } => (width_m, depth_m, height_m),
            ProductShape::Cylinder { diameter_m, height_m } => (diameter_m, diameter_m, height_m),
            ProductShape::Ball { diameter_m } => (diameter_m, diameter_m, diameter_m),
        }
    }

    /// Half of the plain table it is on, at its narrower, in metres; nothing where it is on the floor.
    pub fn table(&self) -> Option<f64> {
        let (width, depth, _) = self.size_m();
        (self.table_m > LOWEST_TABLE_M).then(|| width.max(depth).max(0.4) * 0.9)
    }

    /// Its middle.
    pub fn middle(&self) -> Point {
        Point::new(self.x_m, self.y_m, self.table_m + self.size_m().2 / 2.0)
    }

    /// Its four upright sides, where it is a box: front, right, back and left.
    pub fn sides(&self) -> [Panel; 4] {
        let (width, depth, height) = self.size_m();
        [0.0, 90.0, 180.0, 270.0].map(|turn: f64| {
            let normal = Direction::new(self.facing_deg + turn, 0.0).vector();
            let (across, out) = if turn.rem_euclid(180.0) < 1.0 { (width, depth) } else { (depth, width) };
            Panel::new(self.middle() + normal * (out / 2.0), normal, across, height)
        })
    }

    /// What of it keeps light off.
    pub fn solid(&self) -> Solid {
        let foot = Point::new(self.x_m, self.y_m, self.table_m);
        match self.shape {
            ProductShape::Box { height_m, .. } => {
                let [front, right, ..] = self.sides();
                let out = |side: &Panel| side.centre - self.middle();
                let halves = [out(&right), out(&front), Vector::Z * (height_m / 2.0)];
                Solid::Crate { centre: self.middle(), halves }
            }
            ProductShape::Cylinder { diameter_m, height_m } => {
                Solid::Column { foot, radius_m: diameter_m / 2.0, height_m }
            }
            ProductShape::Ball { diameter_m } => Solid::Ball { centre: self.middle(), radius_m: diameter_m / 2.0 },
        }
    }

    /// A side of it, as a place that is lit: as on a face, left and right are turned 45° from the front.
    pub fn receptor(&self, side: Side) -> Receptor {
        let (_, depth, height) = self.size_m();
        let normal = side.normal(self.facing_deg);
        let out = if side == Side::Top { Vector::Z * (height / 2.0 + SKIN_M) } else { normal * (depth / 2.0 + SKIN_M) };
        // Before a box's corner rather than inside of it.
        let out = if side == Side::Top { out } else { out * std::f64::consts::SQRT_2 };
        Receptor { at: self.middle() + out, normal, weighing: Weighing::Flat }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn person() -> Person {
        Person {
            id: "one".to_owned(),
            name: "One".to_owned(),
            x_m: 0.0,
            y_m: 0.0,
            height_m: 1.7,
            seated: false,
            facing_deg: 180.0,
            spectacles: None,
            skin: crate::setup::Skin::default(),
            clothes: crate::setup::Clothes::default(),
        }
    }

    #[test]
    fn the_eyes_stand_over_the_origin_and_the_head_behind_them() {
        let one = person();
        assert!((one.eyes() - Point::new(0.0, 0.0, 1.598)).length() < 1e-9);
        assert!(one.head().0.y > 0.1, "it looks to −y");
        // Somebody who looks at the camera has their right on the camera's left.
        assert!(one.receptor(Side::Right).normal.x < -0.7 && one.receptor(Side::Left).normal.x > 0.7);
        assert!(Person { seated: true, ..person() }.eyes().z < 1.3);
    }

    #[test]
    fn nobody_keeps_the_light_off_their_own_front() {
        let one = person();
        for side in [Side::Left, Side::Right, Side::Front, Side::Top] {
            let lit = one.receptor(side);
            let from = lit.at + lit.normal * 2.0;
            assert!(one.solids().iter().all(|solid| !solid.stops(from, lit.at)), "{side:?}");
        }
        let behind = Point::new(0.0, 3.0, 1.6);
        assert!(one.solids().iter().any(|solid| solid.stops(behind, one.receptor(Side::Front).at)));
    }

    #[test]
    fn a_box_has_four_sides_and_is_lit_on_each() {
        let shape = ProductShape::Box { width_m: 0.4, depth_m: 0.2, height_m: 0.3 };
        let (id, name) = ("tin".to_owned(), "Tin".to_owned());
        let finish = crate::setup::Finish::Matt;
        let tin = Product { id, name, x_m: 1.0, y_m: 0.0, table_m: 0.75, shape, facing_deg: 180.0, finish };
        assert!((tin.sides()[0].centre.y + 0.1).abs() < 1e-9 && (tin.sides()[1].centre.x - 0.8).abs() < 1e-9);
        for side in [Side::Left, Side::Right, Side::Front, Side::Top] {
            let lit = tin.receptor(side);
            let from = lit.at + lit.normal * 2.0;
            assert!(!tin.solid().stops(from, lit.at), "{side:?}");
        }
    }
}
