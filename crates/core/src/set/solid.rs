//! What keeps light off: people, products, cards and walls as simple solids. Shadows are hard: a ray is stopped or not.

use super::place::{Point, Vector};

/// A flat rectangle that stands somewhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Panel {
    /// Its middle.
    pub centre: Point,
    /// The way it looks, of length 1.
    pub normal: Vector,
    /// From its middle to its right edge, as a vector.
    pub right: Vector,
    /// From its middle to its upper edge, as a vector.
    pub up: Vector,
}

impl Panel {
    /// A panel so wide and high, looking along `normal`.
    pub fn new(centre: Point, normal: Vector, width_m: f64, height_m: f64) -> Self {
        let (right, up) = super::place::sides(normal, 0.0);
        Self { centre, normal, right: right * (width_m / 2.0), up: up * (height_m / 2.0) }
    }

    /// Its area, in square metres.
    pub fn area_m2(&self) -> f64 {
        4.0 * self.right.length() * self.up.length()
    }

    /// Its four corners, in order round it.
    pub fn corners(&self) -> [Point; 4] {
        let Self { centre, right, up, .. } = *self;
        [centre - right - up, centre + right - up, centre + right + up, centre - right + up]
    }

    /// The same panel, looking the other way.
    #[must_use]
    pub fn back(&self) -> Self {
        Self { normal: -self.normal, ..*self }
    }
}

/// Something that stops light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Solid {
    /// A head, a ball.
    Ball {
        /// Its middle.
        centre: Point,
        /// Its radius, in metres.
        radius_m: f64,
    },
    /// A body, a bottle: an upright cylinder.
    Column {
        /// The middle of its foot.
        foot: Point,
        /// Its radius, in metres.
        radius_m: f64,
        /// How high it is, in metres.
        height_m: f64,
    },
    /// A card, a wall, a box's side.
    Panel(Panel),
}

/// So near its ends a way is not stopped: what glows or is lit lies on its own surface. In parts of the way's length.
const ENDS: f64 = 1e-4;

impl Solid {
    /// Whether the straight way from one point to another is stopped.
    pub fn stops(&self, from: Point, to: Point) -> bool {
        let way = to - from;
        let within = |t: f64| t > ENDS && t < 1.0 - ENDS;
        match *self {
            Self::Ball { centre, radius_m } => {
                let nearest = ((centre - from).dot(way) / way.length_squared()).clamp(0.0, 1.0);
                within(nearest) && (from + way * nearest).distance_squared(centre) < radius_m * radius_m
            }
            Self::Column { foot, radius_m, height_m } => {
                let flat = (way.x * way.x) + (way.y * way.y);
                let off = from - foot;
                let (least, most) = if flat < 1e-12 {
                    if off.x * off.x + off.y * off.y >= radius_m * radius_m {
                        return false;
                    }
                    (0.0, 1.0)
                } else {
                    let half = -(off.x * way.x + off.y * way.y) / flat;
                    let square = half * half - (off.x * off.x + off.y * off.y - radius_m * radius_m) / flat;
                    if square <= 0.0 {
                        return false;
                    }
                    (half - square.sqrt(), half + square.sqrt())
                };
                let (least, most) = (least.max(ENDS), most.min(1.0 - ENDS));
                if least >= most {
                    return false;
                }
                let (a, b) = (off.z + way.z * least, off.z + way.z * most);
                a.max(b) > 0.0 && a.min(b) < height_m
            }
            Self::Panel(Panel { centre, normal, right, up }) => {
                let along = way.dot(normal);
                if along.abs() < 1e-12 {
                    return false;
                }
                let t = (centre - from).dot(normal) / along;
                if !within(t) {
                    return false;
                }
                let spot = from + way * t - centre;
                spot.dot(right).abs() < right.length_squared() && spot.dot(up).abs() < up.length_squared()
            }
        }
    }
}

/// Whether any of these stops the way from one point to another.
pub fn stopped(solids: &[Solid], from: Point, to: Point) -> bool {
    solids.iter().any(|solid| solid.stops(from, to))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const HEAD: Solid = Solid::Ball { centre: Point::new(0.0, 0.0, 1.6), radius_m: 0.11 };
    const BODY: Solid = Solid::Column { foot: Point::ZERO, radius_m: 0.2, height_m: 1.4 };

    #[rstest]
    #[case::through_the_head(HEAD, [-1.0, 0.0, 1.6], [1.0, 0.0, 1.6], true)]
    #[case::over_it(HEAD, [-1.0, 0.0, 1.8], [1.0, 0.0, 1.8], false)]
    #[case::from_its_face(HEAD, [-0.12, 0.0, 1.6], [-1.0, 0.0, 1.6], false)]
    #[case::through_the_body(BODY, [-1.0, 0.0, 1.0], [1.0, 0.0, 1.0], true)]
    #[case::over_the_shoulder(BODY, [-1.0, 0.0, 1.5], [1.0, 0.0, 1.5], false)]
    #[case::steeply_past_it(BODY, [-1.0, 0.0, 3.0], [0.1, 0.0, 1.5], false)]
    #[case::down_into_it(BODY, [0.0, 0.0, 3.0], [0.0, 0.0, 1.0], true)]
    #[case::beside_it(BODY, [0.0, 0.5, 3.0], [0.0, 0.5, 0.0], false)]
    fn ways_are_stopped(#[case] solid: Solid, #[case] from: [f64; 3], #[case] to: [f64; 3], #[case] is: bool) {
        let (from, to) = (Point::from(from), Point::from(to));
        assert_eq!(solid.stops(from, to), is);
        assert_eq!(solid.stops(to, from), is);
        assert_eq!(stopped(&[solid], from, to), is);
    }

    #[test]
    fn a_card_stops_what_goes_through_it() {
        let card = Panel::new(Point::new(0.0, 1.0, 1.0), Vector::Y, 0.6, 0.9);
        assert!((card.area_m2() - 0.54).abs() < 1e-12);
        let solid = Solid::Panel(card);
        let (here, there) = (Point::new(0.0, 0.0, 1.0), Point::new(0.2, 2.0, 1.0));
        assert!(solid.stops(here, there) && solid.stops(there, here));
        assert!(!solid.stops(here, Point::new(1.2, 2.0, 1.0)), "past its edge");
        assert!(!solid.stops(here, Point::new(0.0, 0.9, 1.0)), "before it");
        assert!(!solid.stops(here, Point::new(1.0, 0.0, 1.0)), "along it");
    }
}
