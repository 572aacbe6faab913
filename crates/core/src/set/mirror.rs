//! Plane mirrors: the image of a glowing face, cut by the mirror's edges, lights a place as the face itself would.
//!
//! Source: the law of reflection. The image of a point lies as far behind the mirror's plane as the point lies before it.

use super::place::{Point, Vector};
use super::reach::{Glow, Receptor, Weighing};
use super::shape::cut;
use super::solid::{Panel, Solid, stopped};
use super::sun::mirrored;

/// A plane mirror. Its back is dark.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Mirror {
    /// Where it is; it mirrors on the side its normal points to.
    pub panel: Panel,
    /// The part of the light it sends back, 0 to 1.
    pub reflectance: f64,
}

impl Mirror {
    /// The image of a point.
    pub fn image_of(&self, point: Point) -> Point {
        let Panel { centre, normal, .. } = self.panel;
        point - normal * (2.0 * (point - centre).dot(normal))
    }

    /// The image of a glowing face.
    pub fn image(&self, glow: &Glow) -> Glow {
        let turned = |way: Vector| mirrored(way, self.panel.normal);
        Glow {
            centre: self.image_of(glow.centre),
            axis: turned(glow.axis),
            right: turned(glow.right),
            up: turned(glow.up),
            ..*glow
        }
    }

    /// Where the straight way from a place before the mirror to a point behind it goes through the mirror; nothing where it
    /// passes beside it, or where either is on the wrong side.
    pub fn crossing(&self, from: Point, image: Point) -> Option<Point> {
        let Panel { centre, normal, right, up } = self.panel;
        let (before, behind) = ((from - centre).dot(normal), (centre - image).dot(normal));
        if before <= 0.0 || behind < 0.0 {
            return None;
        }
        let at = from + (image - from) * (before / (before + behind));
        let off = at - centre;
        let inside = off.dot(right).abs() <= right.length_squared() && off.dot(up).abs() <= up.length_squared();
        inside.then_some(at)
    }

    /// The part of the image of a face that a place sees in the mirror: the corners of a convex shape, none where it sees
    /// nothing. A bare head is its one point.
    pub fn seen(&self, image: &Glow, receptor: &Receptor) -> Vec<Point> {
        let at = receptor.at;
        let before = (at - self.panel.centre).dot(self.panel.normal);
        if before <= 0.0 || image.axis.dot(at - image.centre) <= 0.0 {
            return Vec::new();
        }
        let corners = self.panel.corners();
        let mut shape = cut(&image.contour(), |point| (self.panel.centre - point).dot(self.panel.normal));
        for (index, corner) in corners.iter().enumerate() {
            let edge = (*corner - at).cross(corners[(index + 1) % 4] - at);
            let inwards = if edge.dot(self.panel.centre - at) < 0.0 { -edge } else { edge };
            shape = cut(&shape, |point| inwards.dot(point - at));
        }
        if receptor.weighing == Weighing::Flat {
            shape = cut(&shape, |point| receptor.normal.dot(point - at));
        }
        shape
    }

    /// What a face gives a place by way of the mirror, as a part of its intensity on the axis at 1 m. What stands in either
    /// part of the way stops it.
    pub fn ratio(&self, glow: &Glow, receptor: &Receptor, between: &[Solid]) -> f64 {
        let image = self.image(glow);
        let passes = |point: Point| self.passes(receptor.at, point, &|from, to| stopped(between, from, to));
        let passes: Option<&dyn Fn(Point) -> bool> = if between.is_empty() { None } else { Some(&passes) };
        image.ratio_within(&self.seen(&image, receptor), receptor, passes) * self.reflectance
    }

    /// Whether nothing stands in the way between a place and the thing whose image lies at a point: from the place to the
    /// mirror and on from there.
    pub fn passes(&self, from: Point, image: Point, stops: &dyn Fn(Point, Point) -> bool) -> bool {
        self.crossing(from, image).is_some_and(|at| !stops(from, at) && !stops(at, self.image_of(image)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::modifier::Surface;
    use crate::scale::Metres;
    use proptest::prelude::*;

    fn glow(centre: Point, aim: Point, surface: Surface) -> Glow {
        Glow::new(centre, (aim - centre).normalize(), 0.0, surface, 1.0)
    }

    fn receptor(at: Point, normal: Vector) -> Receptor {
        Receptor { at, normal, weighing: Weighing::Flat }
    }

    /// A mirror that shows all of a light gives what the light would give from where its image is.
    #[test]
    fn a_large_mirror_is_the_light_from_its_image() {
        let mirror = Mirror { panel: Panel::new(Point::ZERO, Vector::Y, 20.0, 20.0), reflectance: 0.9 };
        for surface in [
            Surface::Bare,
            Surface::Disc { diameter: Metres(0.9) },
            Surface::Rectangle { width: Metres(0.6), height: Metres(0.9) },
        ] {
            let light = glow(Point::new(1.0, 1.5, 0.4), Point::new(0.3, 0.0, 0.0), surface);
            let face = receptor(Point::new(-0.4, 2.0, 0.1), -Vector::Y);
            let alone = mirror.image(&light).ratio(&face, &[]);
            assert!((mirror.ratio(&light, &face, &[]) / (0.9 * alone) - 1.0).abs() < 0.003, "{surface:?}");
        }
    }

    /// Half of the image beside the mirror: half of the light. Nothing from behind, and nothing with a card in either way.
    #[test]
    fn a_mirror_cuts_what_it_shows() {
        let disc = Surface::Disc { diameter: Metres(0.2) };
        let light = glow(Point::new(0.0, 6.0, 0.0), Point::ZERO, disc);
        let face = receptor(Point::new(0.0, 6.0, 0.3), -Vector::Y);
        let of = |x: f64| Mirror { panel: Panel::new(Point::new(x, 0.0, 0.0), Vector::Y, 2.0, 2.0), reflectance: 1.0 };
        let (whole, half) = (of(0.0).ratio(&light, &face, &[]), of(1.0).ratio(&light, &face, &[]));
        assert!((half / whole - 0.5).abs() < 0.005, "{half} {whole}");
        assert!(of(2.5).ratio(&light, &face, &[]).abs() < 1e-12);
        let turned = Mirror { panel: Panel::new(Point::ZERO, -Vector::Y, 2.0, 2.0), reflectance: 1.0 };
        assert!(turned.ratio(&light, &face, &[]).abs() < 1e-12);
        let card = |y: f64, z: f64| Solid::Panel(Panel::new(Point::new(0.0, y, z), Vector::Y, 0.4, 0.1));
        assert!(of(0.0).ratio(&light, &face, &[card(5.0, 0.275)]) < 0.02 * whole, "before the face");
        let before_the_light = Solid::Panel(Panel::new(Point::new(0.0, 5.8, 0.0), Vector::Y, 0.4, 0.4));
        assert!(of(0.0).ratio(&light, &face, &[before_the_light]).abs() < 1e-12);
        assert!((of(0.0).ratio(&light, &face, &[card(2.0, 2.0)]) - whole).abs() < 1e-12, "beside both");
    }

    proptest! {
        /// A mirror never gives more than its image would, and none gives more by being smaller.
        #[test]
        fn a_mirror_gives_no_more_than_its_image(
            x in -1.5..1.5_f64, y in 0.2..3.0_f64, turn in -60.0..60.0_f64,
            wide in 0.05..2.0_f64, fx in -1.5..1.5_f64, fy in 0.1..3.0_f64,
        ) {
            let light = glow(
                Point::new(x, y, 0.3), Point::new(turn / 60.0, 0.0, 0.0),
                Surface::Rectangle { width: Metres(0.7), height: Metres(0.5) },
            );
            let of = |wide: f64| Mirror { panel: Panel::new(Point::ZERO, Vector::Y, wide, 1.0), reflectance: 1.0 };
            let face = receptor(Point::new(fx, fy, -0.2), Vector::new(turn.to_radians().sin(), -turn.to_radians().cos(), 0.0));
            let alone = of(1.0).image(&light).ratio(&face, &[]);
            let (small, large) = (of(wide).ratio(&light, &face, &[]), of(wide * 1.5).ratio(&light, &face, &[]));
            prop_assert!(small.is_finite() && small >= 0.0);
            prop_assert!(small <= large * 1.001 + 1e-9 && large <= alone * 1.02 + 1e-9, "{small} {large} {alone}");
        }
    }
}
