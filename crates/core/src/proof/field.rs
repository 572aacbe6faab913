//! Smooth bodies from simple parts: each part is a distance to a ball, an ellipsoid or a round cone, and parts run into
//! each other softly. Source of the formulas: the distance functions published by Inigo Quilez; the smooth union is his
//! polynomial one.

use glam::Vec3A;

/// What a part of a figure is of.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Stuff {
    /// Skin.
    Skin,
    /// Lips.
    Lips,
    /// Hair.
    Hair,
    /// What is worn above.
    Shirt,
    /// What is worn below.
    Trousers,
    /// Shoes.
    Shoes,
}

/// A simple shape, in heights of the figure.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Form {
    /// A ball.
    Ball {
        /// Its middle.
        centre: Vec3A,
        /// Its radius.
        radius: f32,
    },
    /// An ellipsoid along the axes.
    Ellipsoid {
        /// Its middle.
        centre: Vec3A,
        /// Half of its size along each axis.
        radii: Vec3A,
    },
    /// A rod that is round at its ends and may be thicker at one of them.
    Rod {
        /// One end.
        from: Vec3A,
        /// The other.
        to: Vec3A,
        /// How thick it is at each end.
        radii: [f32; 2],
    },
}

impl Form {
    /// How far a point is from its surface; negative inside. Of an ellipsoid a bound that is exact on its surface.
    pub fn distance(&self, at: Vec3A) -> f32 {
        match *self {
            Self::Ball { centre, radius } => at.distance(centre) - radius,
            Self::Ellipsoid { centre, radii } => {
                let scaled = (at - centre) / radii;
                let (first, second) = (scaled.length(), (scaled / radii).length());
                if second < 1e-9 { -radii.min_element() } else { first * (first - 1.0) / second }
            }
            Self::Rod { from, to, radii: [first, second] } => {
                let (way, off) = (to - from, at - from);
                let part = (off.dot(way) / way.length_squared().max(1e-12)).clamp(0.0, 1.0);
                (off - way * part).length() - (first + (second - first) * part)
            }
        }
    }
}

/// A shape with what it is of, and how softly it runs into what came before it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Part {
    /// Its shape.
    pub form: Form,
    /// What it is of.
    pub stuff: Stuff,
    /// How softly: about this wide is the seam.
    pub soft: f32,
    /// Whether it is cut out of what came before it, instead of being added.
    pub cut_out: bool,
    /// Whether it colours the surface only where it reaches it by itself, as lips do, and not the seam too.
    pub tint: bool,
}

/// The lesser of two, with a soft seam.
fn soft_least(a: f32, b: f32, soft: f32) -> f32 {
    let near = (soft - (a - b).abs()).max(0.0) / soft.max(1e-9);
    a.min(b) - near * near * soft / 4.0
}

/// How far a point is from a body of parts.
pub fn distance(parts: &[Part], at: Vec3A) -> f32 {
    let mut least = f32::INFINITY;
    for part in parts {
        let one = part.form.distance(at);
        // Far from a part nothing is smoothed.
        least = match (part.cut_out, least.is_finite()) {
            (true, true) => -soft_least(-least, one, part.soft),
            (true, false) => least,
            (false, true) => soft_least(least, one, part.soft),
            (false, false) => one,
        };
    }
    least
}

/// The way the surface looks nearest to a point, by differences.
pub fn looks(parts: &[Part], at: Vec3A) -> Vec3A {
    let step = 4e-4;
    let of = |way: Vec3A| way * distance(parts, at + way * step);
    // Four points of a tetrahedron.
    let ways = [[1.0, -1.0, -1.0], [-1.0, -1.0, 1.0], [-1.0, 1.0, -1.0], [1.0, 1.0, 1.0]].map(Vec3A::from);
    ways.into_iter().map(of).sum::<Vec3A>().normalize_or(Vec3A::Z)
}

/// So near to a part's own shape the surface is of that part, whatever lies below.
const SKIN_DEEP: f32 = 8e-4;
/// The same of a tint, whose seam is wider than it is thick.
const TINT_DEEP: f32 = 1.6e-3;

/// What the body is of at a point of its surface: of the last part that reaches there, or of the nearest.
pub fn stuff(parts: &[Part], at: Vec3A) -> Stuff {
    let solid = || parts.iter().filter(|part| !part.cut_out);
    let last = solid().rev().find(|part| part.form.distance(at) < if part.tint { TINT_DEEP } else { SKIN_DEEP });
    let nearest =
        || solid().filter(|part| !part.tint).min_by(|a, b| a.form.distance(at).total_cmp(&b.form.distance(at)));
    last.or_else(nearest).map_or(Stuff::Skin, |part| part.stuff)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const BALL: Form = Form::Ball { centre: Vec3A::ZERO, radius: 1.0 };
    const EGG: Form = Form::Ellipsoid { centre: Vec3A::ZERO, radii: Vec3A::new(1.0, 2.0, 0.5) };
    const ROD: Form = Form::Rod { from: Vec3A::ZERO, to: Vec3A::Z, radii: [0.2, 0.4] };

    #[rstest]
    #[case::out_of_a_ball(BALL, [2.0, 0.0, 0.0], 1.0)]
    #[case::inside(BALL, [0.0, 0.0, 0.0], -1.0)]
    #[case::on_an_egg(EGG, [0.0, 2.0, 0.0], 0.0)]
    #[case::on_its_flat_side(EGG, [0.0, 0.0, 0.5], 0.0)]
    #[case::in_its_middle(EGG, [0.0, 0.0, 0.0], -0.5)]
    #[case::beside_a_rod(ROD, [0.5, 0.0, 0.5], 0.2)]
    #[case::over_its_thick_end(ROD, [0.0, 0.0, 2.0], 0.6)]
    fn distances(#[case] form: Form, #[case] at: [f32; 3], #[case] away: f32) {
        assert!((form.distance(Vec3A::from(at)) - away).abs() < 1e-5);
    }

    #[test]
    fn parts_run_into_each_other_and_are_cut_out() {
        let part = |x: f32, stuff: Stuff, cut_out: bool| Part {
            form: Form::Ball { centre: Vec3A::new(x, 0.0, 0.0), radius: 1.0 },
            stuff,
            soft: 0.5,
            cut_out,
            tint: false,
        };
        let two = [part(-0.9, Stuff::Skin, false), part(0.9, Stuff::Hair, false)];
        let seam = Vec3A::new(0.0, 0.6, 0.0);
        assert!(distance(&two, seam) < two[0].form.distance(seam), "filled at the seam");
        assert_eq!(stuff(&two, Vec3A::X), Stuff::Hair);
        assert!(looks(&two, Vec3A::new(-0.9, 0.0, 1.0)).z > 0.99);
        let hollow = [part(0.0, Stuff::Skin, false), part(1.0, Stuff::Hair, true)];
        assert!(
            distance(&hollow, Vec3A::new(0.6, 0.0, 0.0)) > 0.0 && distance(&hollow, Vec3A::new(-0.6, 0.0, 0.0)) < 0.0
        );
        assert_eq!(stuff(&hollow, Vec3A::X), Stuff::Skin, "what is cut out is of nothing");
    }
}
