//! Spectacles: a glass before an eye is a small convex mirror. What shows in it is where its normal halves the way between
//! the light and the lens.

use i_overlay::core::fill_rule::FillRule;
use i_overlay::core::overlay_rule::OverlayRule;
use i_overlay::float::single::SingleFloatOverlay;

use crate::set::{Point, Vector, area_within, hull, sides};

/// The front of a spectacle glass curves with about this radius, in metres: 530/5 diopters. Common practice, no source.
pub const LENS_RADIUS_M: f64 = 0.106;

/// A spectacle glass.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Eyeglass {
    /// Its middle.
    pub centre: Point,
    /// The way its middle looks, of length 1.
    pub axis: Vector,
    /// From side to side, in metres.
    pub width_m: f64,
    /// How high, in metres.
    pub height_m: f64,
    /// How it curves, in metres.
    pub radius_m: f64,
}

impl Eyeglass {
    /// Where on the glass something at a point shows to the lens, from its middle: to its right as seen from behind it,
    /// and up, in metres. It may lie beside the glass; nothing where that is behind it.
    pub fn spot(&self, lens: Point, point: Point) -> Option<[f64; 2]> {
        let half = (point - self.centre).normalize_or_zero() + (lens - self.centre).normalize_or_zero();
        let (right, up) = sides(self.axis, 0.0);
        let along = half.dot(self.axis);
        (along > 1e-6).then(|| [half.dot(right) / along * self.radius_m, half.dot(up) / along * self.radius_m])
    }

    /// The part of an outline's reflection that falls on the glass: 0 to 1. What lies behind the glass's horizon does not.
    pub fn share(&self, lens: Point, outline: &[Point]) -> f64 {
        let spots: Vec<[f64; 2]> = outline.iter().filter_map(|point| self.spot(lens, *point)).collect();
        let image = hull(spots);
        let whole = area_within(&image);
        if image.len() < 3 || whole < 1e-12 {
            return 0.0;
        }
        let (x, y) = (self.width_m / 2.0, self.height_m / 2.0);
        let glass = vec![[-x, -y], [x, -y], [x, y], [-x, y]];
        let on_it = image.overlay(&glass, OverlayRule::Intersect, FillRule::NonZero);
        on_it.iter().flatten().map(|contour| area_within(contour)).sum::<f64>() / whole
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::{Direction, Panel};

    fn glass() -> Eyeglass {
        let centre = Point::new(0.0, 0.0, 1.6);
        Eyeglass { centre, axis: -Vector::Y, width_m: 0.05, height_m: 0.04, radius_m: LENS_RADIUS_M }
    }

    /// A light beside the lens shows in the middle of the glass; raised by twice the angle of its edge it is over it.
    #[test]
    fn a_raised_light_leaves_the_glass() {
        let lens = Point::new(0.0, -3.0, 1.6);
        let at = |up_deg: f64| {
            let centre = glass().centre + Direction::new(180.0, up_deg).vector() * 3.0;
            glass().share(lens, &Panel::new(centre, glass().centre - centre, 0.1, 0.1).corners())
        };
        assert!((at(1.0) - 1.0).abs() < 1e-6);
        // tan of half the angle times the radius is half of the glass's height: 21.4° up.
        let edge = 2.0 * (0.02 / LENS_RADIUS_M).atan().to_degrees();
        assert!(at(edge - 2.0) > 0.99 && at(edge + 2.0) < 0.01, "{edge} {} {}", at(edge - 2.0), at(edge + 2.0));
        assert!((at(edge) - 0.5).abs() < 0.05);
    }

    #[test]
    fn nothing_shows_behind_it() {
        let lens = Point::new(0.0, -3.0, 1.6);
        assert_eq!(glass().spot(lens, Point::new(0.0, 40.0, 1.6)), None);
        assert!(glass().share(lens, &[Point::new(0.0, 2.0, 1.6); 3]) == 0.0);
    }
}
