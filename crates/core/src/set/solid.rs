//! What keeps light off: people, products, cards and walls as simple solids. Shadows are hard: a ray is stopped or not.
//!
//! The plan uses them in double precision, the preview in single: by the same formulas, so that the two cannot disagree.

use num_traits::{Float, One, Zero};

use super::place::{Point, Vector};
use super::space::Space;

/// A flat rectangle that stands somewhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Panel<V = Vector> {
    /// Its middle.
    pub centre: V,
    /// The way it looks, of length 1.
    pub normal: V,
    /// From its middle to its right edge, as a vector.
    pub right: V,
    /// From its middle to its upper edge, as a vector.
    pub up: V,
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

impl<V: Space> Panel<V> {
    /// Where a straight way crosses it, in parts of the way's length; nothing where it goes past it or along it.
    pub fn crossed(&self, from: V, way: V) -> Option<V::Number> {
        let along = way.dot(self.normal);
        if along.abs() < V::ALONG {
            return None;
        }
        let far = (self.centre - from).dot(self.normal) / along;
        let off = from + way * far - self.centre;
        let inside = off.dot(self.right).abs() <= self.right.square() && off.dot(self.up).abs() <= self.up.square();
        inside.then_some(far)
    }
}

/// Something that stops light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Solid<V: Space = Vector> {
    /// A head, a ball.
    Ball {
        /// Its middle.
        centre: V,
        /// Its radius, in metres.
        radius_m: V::Number,
    },
    /// A body, a bottle: an upright cylinder with its ends.
    Column {
        /// The middle of its foot.
        foot: V,
        /// Its radius, in metres.
        radius_m: V::Number,
        /// How high it is, in metres.
        height_m: V::Number,
    },
    /// A box.
    Crate {
        /// Its middle.
        centre: V,
        /// Halves of it, at right angles: to its right, ahead and up.
        halves: [V; 3],
    },
    /// A card, a wall.
    Panel(Panel<V>),
}

/// From where to where a straight way is within something, in parts of its length.
type Stretch<N> = [N; 2];

/// Where a way is between two levels that it rises along.
fn between<N: Float>(from: N, along: N, [least, most]: [N; 2]) -> Option<Stretch<N>> {
    if along.is_zero() {
        return (from >= least && from <= most).then_some([N::neg_infinity(), N::infinity()]);
    }
    let (a, b) = ((least - from) / along, (most - from) / along);
    Some([a.min(b), a.max(b)])
}

/// Where a way is nearer to a middle than a radius.
fn within<V: Space>(off: V, way: V, radius: V::Number) -> Option<Stretch<V::Number>> {
    let square = way.square();
    if square < V::ALONG {
        return (off.square() < radius * radius).then_some([V::Number::neg_infinity(), V::Number::infinity()]);
    }
    let half = off.dot(way) / square;
    let left = half * half - (off.square() - radius * radius) / square;
    (left > V::Number::zero()).then(|| [-half - left.sqrt(), -half + left.sqrt()])
}

/// Where both are.
fn both<N: Float>(one: Stretch<N>, other: Stretch<N>) -> Option<Stretch<N>> {
    let [enters, leaves] = [one[0].max(other[0]), one[1].min(other[1])];
    (enters < leaves).then_some([enters, leaves])
}

impl<V: Space> Solid<V> {
    /// Where a straight way enters it and where it leaves it, in parts of the way's length, which may lie before its
    /// beginning or after its end; nothing where it goes past.
    pub fn met(&self, from: V, way: V) -> Option<[V::Number; 2]> {
        match *self {
            Self::Ball { centre, radius_m } => within(from - centre, way, radius_m),
            Self::Column { foot, radius_m, height_m } => {
                let off = from - foot;
                let level = between(off.dot(V::UP), way.dot(V::UP), [V::Number::zero(), height_m])?;
                both(within(off.level(), way.level(), radius_m)?, level)
            }
            Self::Crate { centre, halves } => {
                let off = from - centre;
                let side = |half: V| {
                    let size = half.square();
                    between(off.dot(half), way.dot(half), [-size, size])
                };
                both(both(side(halves[0])?, side(halves[1])?)?, side(halves[2])?)
            }
            Self::Panel(panel) => panel.crossed(from, way).map(|far| [far, far]),
        }
    }

    /// The way its surface looks out at a point of it, of length 1; of a panel, the way that looks.
    pub fn out_at(&self, at: V) -> V {
        let one = V::Number::one();
        match *self {
            Self::Ball { centre, radius_m } => (at - centre) * (one / radius_m),
            Self::Column { foot, radius_m, height_m } => {
                let off = at - foot;
                let (round, up) = (off.level(), off.dot(V::UP));
                let from_round = (round.square().sqrt() - radius_m).abs();
                if from_round <= up.abs().min((up - height_m).abs()) {
                    round * (one / radius_m)
                } else if up + up > height_m {
                    V::UP
                } else {
                    -V::UP
                }
            }
            Self::Crate { centre, halves } => {
                let off = at - centre;
                let sizes = halves.map(|half| half.square().sqrt());
                let out = |side: usize| off.dot(halves[side]) / sizes[side];
                let from_side = |side: usize| (out(side).abs() - sizes[side]).abs();
                let nearest = (1..3).fold(0, |best, side| if from_side(side) < from_side(best) { side } else { best });
                halves[nearest] * (out(nearest).signum() / sizes[nearest])
            }
            Self::Panel(panel) => panel.normal,
        }
    }

    /// Its middle.
    pub fn middle(&self) -> V {
        match *self {
            Self::Ball { centre, .. } | Self::Crate { centre, .. } => centre,
            Self::Column { foot, height_m, .. } => foot + V::UP * (height_m / (V::Number::one() + V::Number::one())),
            Self::Panel(panel) => panel.centre,
        }
    }

    /// How far any of it is from its middle, in metres.
    pub fn reach_m(&self) -> V::Number {
        let two = V::Number::one() + V::Number::one();
        match *self {
            Self::Ball { radius_m, .. } => radius_m,
            Self::Column { radius_m, height_m, .. } => radius_m.hypot(height_m / two),
            Self::Crate { halves: [right, ahead, up], .. } => (right.square() + ahead.square() + up.square()).sqrt(),
            Self::Panel(panel) => (panel.right.square() + panel.up.square()).sqrt(),
        }
    }
}

/// So near its ends a way is not stopped: what glows or is lit lies on its own surface. In parts of the way's length.
const ENDS: f64 = 1e-4;

impl Solid {
    /// Whether the straight way from one point to another is stopped by its surface.
    pub fn stops(&self, from: Point, to: Point) -> bool {
        let met = self.met(from, to - from);
        met.is_some_and(|met| met.into_iter().any(|far| far > ENDS && far < 1.0 - ENDS))
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
