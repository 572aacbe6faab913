//! What a surface gives close by, on its axis, against what the inverse square would say.
//!
//! Source: form factors between a point and a parallel disc or rectangle, Howell's catalogue of radiation
//! configuration factors, cases B-4 (rectangle, four corners) and B-13 (disc) (numbering from memory).

use std::f64::consts::PI;

use crate::scale::{Metres, Stops};

/// The glowing surface of a light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Surface {
    /// A bare head or reflector: small enough to be a point.
    Bare,
    /// A round surface (an octagon counts as one).
    Disc {
        /// From edge to edge.
        diameter: Metres,
    },
    /// A rectangular one.
    Rectangle {
        /// One side.
        width: Metres,
        /// The other.
        height: Metres,
    },
}

impl Surface {
    /// The correction to the inverse square on the axis at a distance: 0 far away, negative close by.
    ///
    /// ```
    /// use tolva_core::{modifier::Surface, scale::Metres};
    /// let octagon = Surface::Disc { diameter: Metres(0.9) };
    /// assert_eq!(octagon.near_field(Metres(0.45)).0, -1.0);
    /// ```
    pub fn near_field(self, distance: Metres) -> Stops {
        let d = distance.0;
        match self {
            Self::Bare => Stops::ZERO,
            Self::Disc { diameter } => Stops(-(1.0 + (diameter.0 / 2.0 / d).powi(2)).log2()),
            Self::Rectangle { width, height } => {
                let (x, y) = (width.0 / 2.0 / d, height.0 / 2.0 / d);
                let (x_root, y_root) = ((1.0 + x * x).sqrt(), (1.0 + y * y).sqrt());
                let factor = 2.0 / PI * (x / x_root * (y / x_root).atan() + y / y_root * (x / y_root).atan());
                let point = width.0 * height.0 / (PI * d * d);
                // At a great distance the two cancel to within rounding: a correction is never positive.
                Stops(Stops::of_ratio(factor / point).0.min(0.0))
            }
        }
    }

    /// The longest dimension; 0 for a bare head.
    pub fn largest(self) -> Metres {
        match self {
            Self::Bare => Metres(0.0),
            Self::Disc { diameter } => diameter,
            Self::Rectangle { width, height } => Metres(width.0.max(height.0)),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics.md §4, to three decimals.
    #[rstest]
    #[case(0.45, -1.000)]
    #[case(0.9, -0.322)]
    #[case(1.5, -0.124)]
    fn disc_of_nought_point_nine(#[case] distance: f64, #[case] stops: f64) {
        let disc = Surface::Disc { diameter: Metres(0.9) };
        assert!((disc.near_field(Metres(distance)).0 - stops).abs() < 0.0005);
    }

    /// physics.md §4, to three decimals.
    #[rstest]
    #[case(0.6, 0.6, 0.5, -0.558)]
    #[case(0.9, 0.9, 0.9, -0.411)]
    #[case(1.5, 1.5, 1.0, -0.795)]
    #[case(0.3, 1.2, 0.6, -0.687)]
    fn rectangles(#[case] width: f64, #[case] height: f64, #[case] distance: f64, #[case] stops: f64) {
        let rectangle = Surface::Rectangle { width: Metres(width), height: Metres(height) };
        assert!((rectangle.near_field(Metres(distance)).0 - stops).abs() < 0.0005);
    }

    /// The same by summing the surface piece by piece: each piece gives cos⁴θ/d² of its area (Lambert).
    fn summed(width: f64, height: f64, d: f64, inside: impl Fn(f64, f64) -> bool) -> f64 {
        let n = 400;
        let (mut given, mut area) = (0.0, 0.0);
        for i in 0..n {
            for j in 0..n {
                let x = (f64::from(i) + 0.5) / f64::from(n) * width - width / 2.0;
                let y = (f64::from(j) + 0.5) / f64::from(n) * height - height / 2.0;
                if inside(x, y) {
                    given += (d * d / (x * x + y * y + d * d)).powi(2);
                    area += 1.0;
                }
            }
        }
        (given / area).log2()
    }

    #[rstest]
    #[case(0.5, 0.9)]
    #[case(1.5, 0.4)]
    #[case(0.2, 3.0)]
    fn closed_forms_agree_with_numeric_integration(#[case] distance: f64, #[case] size: f64) {
        let d = Metres(distance);
        let disc = Surface::Disc { diameter: Metres(size) }.near_field(d).0;
        assert!((disc - summed(size, size, distance, |x, y| x.hypot(y) < size / 2.0)).abs() < 0.01);
        let tall = Surface::Rectangle { width: Metres(size), height: Metres(size * 2.0) }.near_field(d).0;
        assert!((tall - summed(size, size * 2.0, distance, |_, _| true)).abs() < 0.005);
    }

    proptest! {
        #[test]
        fn far_away_the_inverse_square_holds(size in 0.05..2.0_f64) {
            for surface in [
                Surface::Disc { diameter: Metres(size) },
                Surface::Rectangle { width: Metres(size), height: Metres(size) },
            ] {
                prop_assert!(surface.near_field(Metres(size * 30.0)).0.abs() < 0.002);
            }
        }

        #[test]
        fn nearer_is_always_brighter(size in 0.05..3.0_f64, d in 0.05..5.0_f64, nearer in 0.3..0.99_f64) {
            let surface = Surface::Rectangle { width: Metres(size), height: Metres(size * 0.6) };
            let total = |d: f64| surface.near_field(Metres(d)).0 - 2.0 * d.log2();
            prop_assert!(total(d * nearer) > total(d));
        }
    }
}
