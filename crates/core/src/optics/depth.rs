//! Depth of field, and the aperture a group asks for. Distances are from the lens (its front principal point).
//!
//! Source: the thin-lens equations as in any optics text; for a symmetrical lens and a round opening.

use crate::scale::{Metres, Millimetres};

/// What is sharp.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DepthOfField {
    /// The nearest that is.
    pub near: Metres,
    /// The farthest; none where it is sharp to the horizon.
    pub far: Option<Metres>,
    /// Focused here, everything from half of it to the horizon is.
    pub hyperfocal: Metres,
}

/// What is sharp around the distance that is focused on: H = f²/(N·c) + f, near = s(H−f)/(H+s−2f),
/// far = s(H−f)/(H−s).
///
/// ```
/// use tolva_core::{optics::depth_of_field, scale::{Metres, Millimetres}};
/// let found = depth_of_field(Millimetres(50.0), 8.0, Metres(3.0), Millimetres(0.03));
/// assert!((found.hyperfocal.0 - 10.467).abs() < 0.001);
/// ```
pub fn depth_of_field(focal: Millimetres, f_number: f64, focus: Metres, circle: Millimetres) -> DepthOfField {
    let (f, c, s) = (focal.metres().0, circle.metres().0, focus.0);
    let h = f * f / (f_number * c) + f;
    DepthOfField {
        near: Metres(s * (h - f) / (h + s - 2.0 * f)),
        far: (s < h).then(|| Metres(s * (h - f) / (h - s))),
        hyperfocal: Metres(h),
    }
}

/// What a group asks for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct GroupDepth {
    /// The f-number at which the nearest and the farthest are just sharp.
    pub f_number: f64,
    /// Where to focus.
    pub focus: Metres,
}

/// The aperture and the focus for people from the nearest to the farthest: focus at 2·Dn·Df/(Dn + Df),
/// N = f²(Df − Dn)/(c·(2·Dn·Df − f·(Dn + Df))).
///
/// ```
/// use tolva_core::{optics::group_depth, scale::{Metres, Millimetres}};
/// let found = group_depth(Millimetres(85.0), Metres(3.0), Metres(3.6), Millimetres(0.03));
/// assert!((found.f_number - 6.87).abs() < 0.005);
/// ```
pub fn group_depth(focal: Millimetres, nearest: Metres, farthest: Metres, circle: Millimetres) -> GroupDepth {
    let (f, c) = (focal.metres().0, circle.metres().0);
    let (near, far) = (nearest.0, farthest.0);
    GroupDepth {
        f_number: f * f * (far - near) / (c * (2.0 * near * far - f * (near + far))),
        focus: Metres(2.0 * near * far / (near + far)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// physics.md §6: 85 mm, f/2.8, 2.6 m, c 0.03 mm.
    #[test]
    fn one_head() {
        let found = depth_of_field(Millimetres(85.0), 2.8, Metres(2.6), Millimetres(0.03));
        assert!((found.near.0 - 2.526).abs() < 0.0005, "{found:?}");
        assert!((found.far.expect("near enough").0 - 2.678).abs() < 0.0005, "{found:?}");
    }

    #[test]
    fn beyond_the_hyperfocal_distance_there_is_no_far_end() {
        let found = depth_of_field(Millimetres(24.0), 11.0, Metres(5.0), Millimetres(0.03));
        assert!(found.far.is_none() && found.near.0 < found.hyperfocal.0);
    }

    /// A second way: rays from a point at `at` through a lens of diameter f/N, on a sensor where `focus` is sharp.
    fn blur_traced(focal: f64, f_number: f64, focus: f64, at: f64) -> f64 {
        let image = |distance: f64| 1.0 / (1.0 / focal - 1.0 / distance);
        let (sensor, point) = (image(focus), image(at));
        let diameter = focal / f_number;
        // Two rays from the rim of the lens meet at `point`; how far apart they are at the sensor, summed in steps.
        let steps = 1000;
        let slope = diameter / point;
        let apart = (0..steps).fold(diameter, |apart, _| apart - slope * sensor / f64::from(steps));
        apart.abs()
    }

    proptest! {
        #[test]
        fn at_both_ends_the_blur_is_the_circle(f in 20.0..135.0_f64, n in 1.4..16.0_f64, s in 1.0..6.0_f64) {
            let found = depth_of_field(Millimetres(f), n, Metres(s), Millimetres(0.03));
            let blur = |at: f64| blur_traced(f / 1000.0, n, s, at) * 1000.0;
            prop_assert!((blur(found.near.0) - 0.03).abs() < 1e-6);
            if let Some(far) = found.far {
                prop_assert!((blur(far.0) - 0.03).abs() < 1e-6);
            }
        }

        #[test]
        fn the_aperture_for_a_group_reaches_just_its_ends(
            f in 24.0..135.0_f64, near in 1.5..6.0_f64, deep in 0.1..2.0_f64,
        ) {
            let group = group_depth(Millimetres(f), Metres(near), Metres(near + deep), Millimetres(0.03));
            let found = depth_of_field(Millimetres(f), group.f_number, group.focus, Millimetres(0.03));
            prop_assert!((found.near.0 - near).abs() < 1e-6);
            prop_assert!((found.far.expect("an end").0 - near - deep).abs() < 1e-5);
        }
    }
}
