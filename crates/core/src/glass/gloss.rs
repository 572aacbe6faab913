//! Gloss: what a shiny flat or cylinder mirrors towards the lens, and the card that fills it from end to end. Source: the
//! law of reflection.

use std::ops::RangeInclusive;

use crate::set::{Panel, Point, Vector, mirrored, sides};

/// A card as it would have to stand.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Card {
    /// Its middle.
    pub centre: Point,
    /// The way it looks: at what mirrors it.
    pub looks: Vector,
    /// From side to side, in metres.
    pub width_m: f64,
    /// How high, in metres.
    pub height_m: f64,
}

/// Where a way from a point meets a plane.
fn meets(from: Point, along: Vector, at: Point, normal: Vector) -> Option<Point> {
    let down = along.dot(normal);
    let t = (at - from).dot(normal) / down;
    (down.abs() > 1e-9 && t > 0.0).then(|| from + along * t)
}

/// Where a way goes on from a shiny surface, and along which way.
#[derive(Clone, Copy)]
struct GoesOn {
    from: Point,
    along: Vector,
}

/// The card that square to `out` and so far from `from` catches all of these ways.
fn catching(ways: &[GoesOn], from: Point, out: Vector, away_m: f64) -> Option<Card> {
    let at = from + out * away_m;
    let (right, up) = sides(-out, 0.0);
    let spots = ways.iter().map(|way| meets(way.from, way.along, at, out)).collect::<Option<Vec<Point>>>()?;
    let ends = |axis: Vector| {
        let along = spots.iter().map(|spot| (*spot - at).dot(axis));
        along.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), one| (low.min(one), high.max(one)))
    };
    let (x, y) = (ends(right), ends(up));
    let centre = at + right * f64::midpoint(x.0, x.1) + up * f64::midpoint(y.0, y.1);
    Some(Card { centre, looks: -out, width_m: x.1 - x.0, height_m: y.1 - y.0 })
}

/// The card that a shiny flat shows from end to end, so far from it; nothing where the lens sees its back.
///
/// ```
/// use tolva_core::glass::flat_card;
/// use tolva_core::set::{Panel, Point, Vector};
/// // Straight before a flat of 0.3 m, twice as far as the lens: the ways have spread to (1 + 2) times its width.
/// let flat = Panel::new(Point::ZERO, -Vector::Y, 0.3, 0.2);
/// let card = flat_card(Point::new(0.0, -1.0, 0.0), &flat, 2.0).unwrap();
/// assert!((card.width_m - 0.9).abs() < 1e-9 && (card.height_m - 0.6).abs() < 1e-9);
/// ```
pub fn flat_card(lens: Point, flat: &Panel, away_m: f64) -> Option<Card> {
    if (lens - flat.centre).dot(flat.normal) <= 0.0 {
        return None;
    }
    let goes_on = |spot: Point| GoesOn { from: spot, along: mirrored((spot - lens).normalize(), flat.normal) };
    let ways: Vec<GoesOn> = flat.corners().into_iter().map(goes_on).collect();
    catching(&ways, flat.centre, goes_on(flat.centre).along, away_m)
}

/// A flat card fills at most so much of a cylinder's width, from its middle to each side: there what it mirrors comes
/// square from aside, and farther out from behind. The sine of 45°.
pub fn most_of_a_cylinder() -> f64 {
    std::f64::consts::FRAC_1_SQRT_2
}

/// An upright cylinder that stands on its foot.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Cylinder {
    /// The middle of its foot.
    pub foot: Point,
    /// How wide it is, in metres.
    pub diameter_m: f64,
    /// How high, in metres.
    pub height_m: f64,
}

/// The card that an upright shiny cylinder shows from one place of its width to another, −1 its left edge as the lens sees
/// it and 1 its right one, over its whole height; so far from its middle. Nothing where no flat card does.
pub fn cylinder_card(
    lens: Point,
    Cylinder { foot, diameter_m, height_m }: Cylinder,
    across: RangeInclusive<f64>,
    away_m: f64,
) -> Option<Card> {
    let (from, to) = across.into_inner();
    let middle = foot + Vector::Z * (height_m / 2.0);
    let towards = ((lens - middle) * Vector::new(1.0, 1.0, 0.0)).try_normalize()?;
    // As the lens looks at it, its right.
    let right = Vector::Z.cross(towards);
    let on = |across: f64, z: f64| {
        let across = across.clamp(-0.999, 0.999);
        let normal = right * across + towards * (1.0 - across * across).sqrt();
        let spot = foot + normal * (diameter_m / 2.0) + Vector::Z * z;
        GoesOn { from: spot, along: mirrored((spot - lens).normalize_or(Vector::Y), normal) }
    };
    let ways: Vec<GoesOn> = [from, to].into_iter().flat_map(|across| [0.0, height_m].map(|z| on(across, z))).collect();
    let flat = |along: Vector| (along * Vector::new(1.0, 1.0, 0.0)).normalize_or(Vector::Y);
    let out = (flat(ways[0].along) + flat(ways[2].along)).try_normalize()?;
    // Its rise goes with it.
    let out = (out + Vector::Z * on(f64::midpoint(from, to), height_m / 2.0).along.z).normalize();
    if ways.iter().any(|way| flat(way.along).dot(out) < 0.1) {
        return None;
    }
    catching(&ways, middle, out, away_m)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const BOTTLE: Cylinder = Cylinder { foot: Point::ZERO, diameter_m: 0.08, height_m: 0.3 };

    /// Every way from the lens by the flat ends on the card, and one beside the flat's edge does not.
    #[test]
    fn the_card_is_the_least_that_does() {
        let flat = Panel::new(Point::new(0.0, 0.0, 1.0), Vector::new(-0.6, -0.8, 0.0), 0.2, 0.1);
        let lens = Point::new(0.3, -1.0, 1.3);
        let card = flat_card(lens, &flat, 0.8).expect("it is seen");
        let panel = Panel::new(card.centre, card.looks, card.width_m, card.height_m);
        let on_card = |spot: Point, wider: f64| {
            let along = mirrored((spot - lens).normalize(), flat.normal);
            let off = meets(spot, along, panel.centre, panel.normal).expect("it meets it") - panel.centre;
            off.dot(panel.right).abs() <= panel.right.length_squared() * wider
                && off.dot(panel.up).abs() <= panel.up.length_squared() * wider
        };
        assert!(flat.corners().into_iter().all(|spot| on_card(spot, 1.0 + 1e-9)));
        assert!(flat.corners().into_iter().any(|spot| !on_card(flat.centre + (spot - flat.centre) * 1.05, 1.0)));
        assert_eq!(flat_card(Point::new(1.0, 1.0, 1.0), &flat, 0.8), None, "its back");
    }

    /// From far away the middle ±s of a cylinder mirrors ±2·asin(s).
    #[test]
    fn a_cylinder_spreads_twice_the_angle() {
        let lens = Point::new(0.0, -40.0, 0.15);
        let card = cylinder_card(lens, BOTTLE, -0.3..=0.3, 10.0).expect("a card");
        let wide = 2.0 * 10.0 * (2.0 * 0.3_f64.asin()).tan();
        assert!((card.width_m / wide - 1.0).abs() < 0.02, "{} {wide}", card.width_m);
        let most = most_of_a_cylinder();
        assert_eq!(cylinder_card(lens, BOTTLE, -most..=most, 10.0), None);
        assert!(cylinder_card(lens, BOTTLE, 0.3..=0.9, 1.0).expect("at its right").centre.x > 0.5);
        assert_eq!(cylinder_card(Point::new(0.0, 0.0, 5.0), BOTTLE, 0.0..=0.1, 1.0), None);
    }

    proptest! {
        #[test]
        fn farther_off_it_must_be_larger(near in 0.2..1.0_f64, more in 0.1..1.0_f64, x in -0.8..0.8_f64) {
            let flat = Panel::new(Point::new(0.0, 0.0, 1.0), -Vector::Y, 0.2, 0.1);
            let lens = Point::new(x, -1.2, 1.2);
            let size = |away: f64| flat_card(lens, &flat, away).map_or(0.0, |card| card.width_m * card.height_m);
            prop_assert!(size(near + more) > size(near));
        }
    }
}
