//! Bounce: the head lights a patch of ceiling or wall, which gives light on as a matt surface.
//!
//! Each small part dω of the beam brings I·dω to the patch; a matt surface of reflectance ρ gives ρ·I·dω/π of it a
//! steradian, by the cosine to either side. Source: Lambert's law; the sum over the beam is done by steps.

use crate::colour::Shift;
use crate::scale::{Metres, Stops};

/// What the head is turned to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BounceOff {
    /// The ceiling, over the camera or a little before it.
    Ceiling,
    /// A wall beside the camera, the head a little forward.
    SideWall,
    /// A wall behind the camera, the head straight at it.
    BackWall,
}

/// A bounce.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bounce {
    /// Off what.
    pub off: BounceOff,
    /// From the head to the surface, straight: 0.3 to 20 m.
    pub away_m: f64,
    /// How much of the light it gives back: 0.8 white paint, 0.5 pale wood, 0.2 dark. 0.02 to 0.95.
    pub reflectance: f64,
    /// Its colour, which the light takes on.
    pub colour: SurfaceColour,
}

/// The colour of a ceiling or wall. What each does to a light is chosen; measure it there.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum SurfaceColour {
    /// White or grey.
    #[default]
    White,
    /// Cream, aged white paint.
    Cream,
    /// Pale wood.
    Wood,
    /// Brick, red cloth.
    Brick,
    /// Green.
    Green,
    /// Blue.
    Blue,
}

impl SurfaceColour {
    /// All, in the order they are offered.
    pub const ALL: [Self; 6] = [Self::White, Self::Cream, Self::Wood, Self::Brick, Self::Green, Self::Blue];

    /// What it does to the light that comes back.
    pub fn shift(self) -> Shift {
        let (mired, tint_duv) = match self {
            Self::White => (0.0, 0.0),
            Self::Cream => (20.0, 0.001),
            Self::Wood => (60.0, 0.002),
            Self::Brick => (120.0, -0.004),
            Self::Green => (5.0, 0.025),
            Self::Blue => (-60.0, -0.004),
        };
        Shift { mired, tint_duv }
    }
}

/// What a bounce comes to at the subject.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bounced {
    /// What it costs against the head aimed straight at the subject, in stops: positive is lost.
    pub loss: Stops,
    /// The angle the patch fills from the subject, in degrees: how soft it is.
    pub angle_deg: f64,
}

/// Half the angle of a head zoomed wide, in degrees (from memory).
const HALF_BEAM_DEG: f64 = 35.0;
/// The head points so far forward of the surface's nearest point. Common practice, no source.
const FORWARD_DEG: f64 = 20.0;
const STEPS: u32 = 32;

/// What a patch of ceiling or wall gives a subject.
struct Patch {
    /// For a head of one candela, in lux.
    lux: f64,
    /// From the subject to its middle.
    away_m: f64,
    /// The radius of an even disc that spreads as it does.
    radius_m: f64,
}

impl Bounce {
    /// The way to the surface, where the head looks, and a way across that, as x towards the subject, y aside, z up (a
    /// side wall is a ceiling turned on its side).
    fn directions(self) -> [[f64; 3]; 3] {
        match self.off {
            BounceOff::Ceiling | BounceOff::SideWall => {
                let (sin, cos) = FORWARD_DEG.to_radians().sin_cos();
                [[0.0, 0.0, 1.0], [sin, 0.0, cos], [cos, 0.0, -sin]]
            }
            BounceOff::BackWall => [[-1.0, 0.0, 0.0], [-1.0, 0.0, 0.0], [0.0, 0.0, 1.0]],
        }
    }

    /// The patch that the head lights, seen from a subject that faces the camera so far away. The beam is even and round.
    fn patch(self, subject: Metres) -> Patch {
        let dot = |a: [f64; 3], b: [f64; 3]| a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
        let half = HALF_BEAM_DEG.to_radians();
        let [to_surface, axis, across] = self.directions();
        let face = [subject.0, 0.0, 0.0];
        let mut parts = Vec::with_capacity((STEPS * STEPS) as usize);
        for i in 0..STEPS {
            // Rings of the beam, and steps around each.
            let theta = half * (f64::from(i) + 0.5) / f64::from(STEPS);
            let solid = theta.sin() * (half / f64::from(STEPS)) * (std::f64::consts::TAU / f64::from(STEPS));
            for j in 0..STEPS {
                let phi = std::f64::consts::TAU * (f64::from(j) + 0.5) / f64::from(STEPS);
                let (a, b, c) = (theta.cos(), theta.sin() * phi.cos(), theta.sin() * phi.sin());
                let ray = [a * axis[0] + b * across[0], c, a * axis[2] + b * across[2]];
                let towards = dot(ray, to_surface);
                if towards <= 0.0 {
                    continue;
                }
                let spot = ray.map(|part| part * self.away_m / towards);
                let way: [f64; 3] = std::array::from_fn(|axis| face[axis] - spot[axis]);
                let square = dot(way, way);
                // The subject's face looks back along −x: only what lies before it counts.
                let cos_in = (way[0] / square.sqrt()).max(0.0);
                let cos_out = (-dot(way, to_surface) / square.sqrt()).max(0.0);
                parts.push((spot, self.reflectance * solid * cos_out * cos_in / (std::f64::consts::PI * square)));
            }
        }
        let lux: f64 = parts.iter().map(|(_, part)| part).sum();
        let mean = |of: &dyn Fn([f64; 3]) -> f64| {
            parts.iter().map(|(spot, part)| part * of(*spot)).sum::<f64>() / lux.max(1e-12)
        };
        let middle = [mean(&|spot| spot[0]), mean(&|spot| spot[1]), mean(&|spot| spot[2])];
        let apart = |a: [f64; 3], b: [f64; 3]| (0..3).map(|axis| (a[axis] - b[axis]).powi(2)).sum::<f64>();
        // An even disc has a mean square radius of half its radius squared.
        let radius_m = (2.0 * mean(&|spot| apart(spot, middle))).sqrt();
        Patch { lux, away_m: apart(face, middle).sqrt(), radius_m }
    }

    /// What it comes to at a subject that faces the camera so far away.
    pub fn at(self, subject: Metres) -> Bounced {
        let patch = self.patch(subject);
        let direct = 1.0 / (subject.0 * subject.0);
        Bounced {
            loss: -Stops::of_ratio(patch.lux.max(1e-9) / direct),
            angle_deg: 2.0 * (patch.radius_m / patch.away_m).atan().to_degrees(),
        }
    }

    /// How much more the nearest of a group gets than the farthest: from the ceiling or wall, not from the head.
    pub fn falloff(self, nearest: Metres, farthest: Metres) -> Stops {
        Stops::of_ratio(self.patch(nearest).lux / self.patch(farthest).lux.max(1e-12))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const CEILING: Bounce =
        Bounce { off: BounceOff::Ceiling, away_m: 1.2, reflectance: 0.8, colour: SurfaceColour::White };

    /// Common practice, no source: a white ceiling of an ordinary room costs two to three stops.
    #[test]
    fn a_white_ceiling_of_an_ordinary_room() {
        for metres in [2.5, 3.0, 3.5] {
            let found = CEILING.at(Metres(metres));
            assert!((1.9..3.1).contains(&found.loss.0), "{metres} m: {found:?}");
            assert!(found.angle_deg > 15.0, "{found:?}");
        }
    }

    /// A second way: all the light taken as coming from the middle of the patch.
    #[test]
    fn a_narrow_patch_far_away_is_a_point() {
        let found = Bounce { away_m: 3.0, ..CEILING }.at(Metres(6.0));
        let spot = 3.0 * FORWARD_DEG.to_radians().tan();
        let square = (6.0_f64 - spot).powi(2) + 9.0;
        let solid = std::f64::consts::TAU * (1.0 - HALF_BEAM_DEG.to_radians().cos());
        let point =
            0.8 * solid * (3.0 / square.sqrt()) * ((6.0 - spot) / square.sqrt()) / (std::f64::consts::PI * square);
        let loss = -(point * 36.0).log2();
        assert!((found.loss.0 - loss).abs() < 0.3, "{} {loss}", found.loss.0);
    }

    /// All the light taken as coming from the spot the head looks at: 0.8 of it, over 4 m, against 3 m straight.
    #[test]
    fn a_wall_behind_the_camera_is_no_ceiling() {
        let wall = Bounce { off: BounceOff::BackWall, away_m: 1.0, ..CEILING };
        let loss = wall.at(Metres(3.0)).loss.0;
        let solid = std::f64::consts::TAU * (1.0 - HALF_BEAM_DEG.to_radians().cos());
        let point = -(0.8 * solid / (std::f64::consts::PI * 16.0) * 9.0).log2();
        assert!((loss - point).abs() < 0.1 && (2.5..2.75).contains(&loss), "{loss} {point}");
        let ceiling = Bounce { off: BounceOff::Ceiling, ..wall }.at(Metres(3.0)).loss.0;
        assert!((ceiling - loss).abs() > 0.3, "{ceiling}");
        assert_eq!(Bounce { off: BounceOff::SideWall, ..wall }.at(Metres(3.0)), CEILING_1_M.at(Metres(3.0)));
    }

    const CEILING_1_M: Bounce = Bounce { away_m: 1.0, ..CEILING };

    /// From 3 to 4 m the head itself falls by 0.83 stop; a wall 1 m behind it, from 4 to 5 m, by 0.64.
    #[test]
    fn what_comes_back_falls_off_from_where_it_comes_back() {
        let wall = Bounce { off: BounceOff::BackWall, away_m: 1.0, ..CEILING };
        let found = wall.falloff(Metres(3.0), Metres(4.0)).0;
        assert!((found - 2.0 * (5.0_f64 / 4.0).log2()).abs() < 0.05, "{found}");
    }

    proptest! {
        #[test]
        fn darker_paint_costs_by_its_ratio(subject in 1.5..8.0_f64, reflectance in 0.05..0.9_f64) {
            let loss = |reflectance| Bounce { reflectance, ..CEILING }.at(Metres(subject)).loss.0;
            prop_assert!((loss(reflectance / 2.0) - loss(reflectance) - 1.0).abs() < 1e-6);
        }

        #[test]
        fn it_never_gives_more_than_the_head_aimed_straight(away in 0.5..6.0_f64, subject in 1.0..10.0_f64) {
            let loss = Bounce { away_m: away, ..CEILING }.at(Metres(subject)).loss;
            prop_assert!(loss.0 > 0.0);
        }
    }
}
