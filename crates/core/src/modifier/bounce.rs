//! Bounce: the head lights a patch of ceiling or wall, which gives light on as a matt surface.
//!
//! Each small part dω of the beam brings I·dω to the patch; a matt surface of reflectance ρ gives ρ·I·dω/π of it a
//! steradian, by the cosine to either side. Source: Lambert's law; the sum over the beam is done by steps.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::colour::Shift;
use crate::scale::{Metres, Stops};

/// What the head is turned to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BounceOff {
    /// The ceiling, over the camera or a little before it.
    Ceiling,
    /// A wall beside or behind the camera.
    Wall,
}

/// A bounce.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bounce {
    /// Off what.
    pub off: BounceOff,
    /// From the head to the surface, straight: 0.3 to 20 m.
    #[schema(minimum = 0.3, maximum = 20)]
    pub away_m: f64,
    /// How much of the light it gives back: 0.8 white paint, 0.5 pale wood, 0.2 dark. 0.02 to 0.95.
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub reflectance: f64,
    /// Its colour, which the light takes on.
    #[serde(default)]
    pub colour: SurfaceColour,
}

/// The colour of a ceiling or wall. What each does to a light is chosen; measure it there.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
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

    /// What it is called in a sentence.
    pub fn name(self) -> &'static str {
        match self {
            Self::White => "white",
            Self::Cream => "cream",
            Self::Wood => "pale wood",
            Self::Brick => "brick",
            Self::Green => "green",
            Self::Blue => "blue",
        }
    }

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

impl Bounce {
    /// What it comes to at a subject that faces the camera so far away. The beam is even and round.
    pub fn at(self, subject: Metres) -> Bounced {
        let half = HALF_BEAM_DEG.to_radians();
        let forward = FORWARD_DEG.to_radians();
        // x towards the subject, z towards the surface, the head at the origin; a wall is the same turned on its side.
        let (axis, side) = ([forward.sin(), 0.0, forward.cos()], [forward.cos(), 0.0, -forward.sin()]);
        let (mut given, mut spread, mut middle) = (0.0, 0.0, [0.0; 2]);
        let mut patches = Vec::with_capacity((STEPS * STEPS) as usize);
        for i in 0..STEPS {
            // Rings of the beam, and steps around each.
            let theta = half * (f64::from(i) + 0.5) / f64::from(STEPS);
            let solid = theta.sin() * (half / f64::from(STEPS)) * (std::f64::consts::TAU / f64::from(STEPS));
            for j in 0..STEPS {
                let phi = std::f64::consts::TAU * (f64::from(j) + 0.5) / f64::from(STEPS);
                let (a, b, c) = (theta.cos(), theta.sin() * phi.cos(), theta.sin() * phi.sin());
                let ray = [a * axis[0] + b * side[0], c, a * axis[2] + b * side[2]];
                if ray[2] <= 0.0 {
                    continue;
                }
                let reach = self.away_m / ray[2];
                let spot = [ray[0] * reach, ray[1] * reach];
                let (dx, dy) = (subject.0 - spot[0], spot[1]);
                let square = dx * dx + dy * dy + self.away_m * self.away_m;
                // The subject's face looks back along −x: only what lies before it counts.
                let cos_in = (dx / square.sqrt()).max(0.0);
                let cos_out = self.away_m / square.sqrt();
                let part = self.reflectance * solid * cos_out * cos_in / (std::f64::consts::PI * square);
                given += part;
                middle = [middle[0] + part * spot[0], middle[1] + part * spot[1]];
                patches.push((spot, part));
            }
        }
        let middle = middle.map(|sum| sum / given.max(1e-12));
        for (spot, part) in &patches {
            spread += part * ((spot[0] - middle[0]).powi(2) + (spot[1] - middle[1]).powi(2));
        }
        // An even disc has a mean square radius of half its radius squared.
        let radius = (2.0 * spread / given.max(1e-12)).sqrt();
        let away = (subject.0 - middle[0]).hypot(self.away_m);
        let direct = 1.0 / (subject.0 * subject.0);
        Bounced {
            loss: -Stops::of_ratio(given.max(1e-9) / direct),
            angle_deg: 2.0 * (radius / away).atan().to_degrees(),
        }
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
