//! One bounce: walls, ceiling, floor and cards are cut into patches that are lit directly and then give light on, each by
//! its own manner. What is bounced twice is left out.
//!
//! A matt patch of reflectance ρ under the illuminance E has the luminance ρ·E/π to every side. Source: Lambert's law.

use std::f64::consts::PI;

use super::mirror::Mirror;
use super::place::Vector;
use super::reach::{Glow, Receptor, Weighing};
use super::solid::{Panel, Solid, stopped};
use crate::modifier::Surface;
use crate::scale::Metres;

/// In which manner a surface gives light on.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Lustre {
    /// To every side by the cosine.
    Matt,
    /// In a lobe about the mirrored way, cosⁿ wide: a silver or gold card.
    Lobe(f64),
    /// Through itself, to the other side by the cosine: a diffuser.
    Through,
    /// As a plane mirror: it is cut into no patches, see [`super::Mirror`].
    Mirror,
}

/// A surface that gives light on.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Matt {
    /// Where it is; it gives light on from the side its normal points to, or, as a diffuser, to that side.
    pub panel: Panel,
    /// The part of the light it gives on, 0 to 1.
    pub reflectance: f64,
    /// In which manner.
    pub lustre: Lustre,
}

/// A piece of a surface, small enough to be one point.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Patch {
    /// Its middle.
    pub at: Vector,
    /// The way it gives light on.
    pub normal: Vector,
    /// Its area, in square metres.
    pub area_m2: f64,
    /// The part of the light it gives on.
    pub reflectance: f64,
    /// In which manner.
    pub lustre: Lustre,
    /// Which surface it is a piece of.
    pub of: usize,
}

/// Cuts surfaces into patches of about this size, in metres; each surface into 4 × 4 at least and 24 × 24 at most. A plane
/// mirror has none.
pub fn patches(surfaces: &[Matt], size_m: f64) -> Vec<Patch> {
    let mut all = Vec::new();
    let scattering = surfaces.iter().enumerate().filter(|(_, surface)| surface.lustre != Lustre::Mirror);
    for (of, surface) in scattering {
        let Panel { centre, normal, right, up } = surface.panel;
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "between 4 and 24")]
        let pieces = |half: Vector| (2.0 * half.length() / size_m).ceil().clamp(4.0, 24.0) as u32;
        let (across, high) = (pieces(right), pieces(up));
        let area_m2 = surface.panel.area_m2() / f64::from(across * high);
        for i in 0..across {
            for j in 0..high {
                let x = (f64::from(i) + 0.5) / f64::from(across) * 2.0 - 1.0;
                let y = (f64::from(j) + 0.5) / f64::from(high) * 2.0 - 1.0;
                let at = centre + right * x + up * y;
                let Matt { reflectance, lustre, .. } = *surface;
                all.push(Patch { at, normal, area_m2, reflectance, lustre, of });
            }
        }
    }
    all
}

impl Patch {
    /// The receptor that what it is lit by falls on.
    pub fn receptor(&self) -> Receptor {
        let normal = if self.lustre == Lustre::Through { -self.normal } else { self.normal };
        Receptor { at: self.at, normal, weighing: Weighing::Flat }
    }

    /// What it gives a place under an illuminance of 1 that comes from `source`.
    pub fn given(&self, source: Vector, receptor: &Receptor) -> f64 {
        let way = receptor.at - self.at;
        let square = way.length_squared();
        if square == 0.0 {
            return 0.0;
        }
        let towards = way / square.sqrt();
        let out = self.normal.dot(towards);
        if out <= 0.0 {
            return 0.0;
        }
        let intensity = match self.lustre {
            Lustre::Matt | Lustre::Through => out / PI,
            // A plane mirror scatters nothing.
            Lustre::Mirror => 0.0,
            Lustre::Lobe(exponent) => {
                let from = (source - self.at).normalize_or_zero();
                let mirrored = self.normal * (2.0 * self.normal.dot(from)) - from;
                // As much in all as a matt surface gives, in a lobe: (n + 1)/2π of it on the axis.
                (exponent + 1.0) / (2.0 * PI) * mirrored.dot(towards).max(0.0).powf(exponent)
            }
        };
        let weight = receptor.weight(-towards);
        // Nearer than its own size a patch is no point: right before its middle, A/(π·d² + A) of a disc holds.
        let near = self.area_m2 / PI * (out * weight).powi(2);
        self.reflectance * intensity * self.area_m2 * weight / (square + near)
    }
}

/// What comes back from patches that are lit so much each, with where that comes from: in the unit they are lit in. What
/// is no light is passed over; what stands between stops it. Each patch that gives anything is told to `each`.
pub fn came_back(
    patches: &[Patch],
    lit: &[f64],
    source: Vector,
    receptor: &Receptor,
    between: &[Solid],
    mut each: impl FnMut(&Patch, f64),
) -> f64 {
    let mut sum = 0.0;
    for (patch, lux) in patches.iter().zip(lit) {
        if *lux <= 0.0 {
            continue;
        }
        let given = lux * patch.given(source, receptor);
        if given > 0.0 && (between.is_empty() || !stopped(between, patch.at, receptor.at)) {
            each(patch, given);
            sum += given;
        }
    }
    sum
}

/// A surface is cut into pieces of this size where it is looked at by itself, in metres.
const FINE_M: f64 = 0.06;

/// What a face gives a place by way of one surface, as a part of its intensity on the axis at 1 m. What stands between stops
/// it on either part of the way; the surface itself need not be among that.
///
/// ```
/// use tolva_core::{modifier::Surface, scale::Metres, set::{Glow, Lustre, Matt, Panel, Point, Receptor, Vector, Weighing}};
/// use tolva_core::set::ratio_by_way_of;
/// // A square metre of matt white, evenly lit from 6 m away, a metre before a face that looks at it.
/// let panel = Panel::new(Point::new(0.0, 1.0, 0.0), -Vector::Y, 1.0, 1.0);
/// let white = Matt { panel, reflectance: 0.9, lustre: Lustre::Matt };
/// let light = Glow::new(Point::new(0.0, -5.0, 0.0), Vector::Y, 0.0, Surface::Disc { diameter: Metres(0.3) }, 1.0);
/// let face = Receptor { at: Point::ZERO, normal: Vector::Y, weighing: Weighing::Flat };
/// // 0.9 of its light, by the form factor of 0.2395, at the inverse square of 6 m.
/// let found = ratio_by_way_of(&white, &light, &face, &[]);
/// assert!((found / (0.9 * 0.2395 / 36.0) - 1.0).abs() < 0.02);
/// ```
pub fn ratio_by_way_of(surface: &Matt, glow: &Glow, receptor: &Receptor, between: &[Solid]) -> f64 {
    if surface.lustre == Lustre::Mirror {
        return Mirror { panel: surface.panel, reflectance: surface.reflectance }.ratio(glow, receptor, between);
    }
    let own = Solid::Panel(surface.panel);
    let others: Vec<Solid> = between.iter().filter(|solid| **solid != own).copied().collect();
    let all = patches(std::slice::from_ref(surface), FINE_M);
    let lit: Vec<f64> = all.iter().map(|patch| glow.ratio(&patch.receptor(), &others)).collect();
    came_back(&all, &lit, glow.centre, receptor, &others, |_, _| {})
}

/// The form factor of a panel from a flat place: the part of what the place gets that comes from there, if everything
/// around it is alike.
///
/// ```
/// use tolva_core::set::{Panel, Point, Receptor, Vector, Weighing, form_factor};
/// let card = Panel::new(Vector::Y, -Vector::Y, 1.0, 1.0);
/// let face = Receptor { at: Point::ZERO, normal: Vector::Y, weighing: Weighing::Flat };
/// // A square a metre wide, a metre away: 0.2395 (Howell's catalogue, a point and a parallel rectangle).
/// assert!((form_factor(&card, &face, &[]) - 0.2395).abs() < 0.0005);
/// ```
pub fn form_factor(panel: &Panel, receptor: &Receptor, between: &[Solid]) -> f64 {
    let surface =
        Surface::Rectangle { width: Metres(2.0 * panel.right.length()), height: Metres(2.0 * panel.up.length()) };
    let (right, up) = (panel.right.normalize_or_zero(), panel.up.normalize_or_zero());
    let glow = Glow { centre: panel.centre, axis: panel.normal, right, up, surface, exponent: 1.0 };
    glow.ratio(receptor, between) * panel.area_m2() / PI
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::set::Point;
    use proptest::prelude::*;
    use rstest::rstest;

    /// physics, set: an infinitely large matt wall of reflectance ρ lit evenly with E gives ρ·E/2 on an upright face that
    /// looks along it, and ρ·E on one that looks at it.
    #[rstest]
    #[case(Vector::Y, 0.25)]
    #[case(Vector::X, 0.5)]
    fn a_very_large_wall(#[case] looks: Vector, #[case] part: f64) {
        let wall = Matt {
            panel: Panel::new(Point::new(1.0, 0.0, 0.0), -Vector::X, 80.0, 80.0),
            reflectance: 0.5,
            lustre: Lustre::Matt,
        };
        let receptor = Receptor { at: Point::ZERO, normal: looks, weighing: Weighing::Flat };
        let exact = 0.5 * form_factor(&wall.panel, &receptor, &[]);
        assert!((exact - part).abs() < 0.01, "{exact}");
        let small = Matt { panel: Panel::new(Point::new(1.0, 0.0, 0.0), -Vector::X, 12.0, 12.0), ..wall };
        let all = patches(&[small], 0.5);
        let found = came_back(&all, &vec![1.0; all.len()], Vector::ZERO, &receptor, &[], |_, _| {});
        let exact = 0.5 * form_factor(&small.panel, &receptor, &[]);
        assert!((found / exact - 1.0).abs() < 0.03, "{found} {exact}");
    }

    /// Howell's catalogue, a point and a rectangle that stands square to its plane, its foot at the rectangle's edge
    /// (numbering from memory): 1/2π · (atan(1/Y) − Y/√(X²+Y²) · atan(1/√(X²+Y²))), X = a/b, Y = c/b, doubled for the
    /// two halves about its middle.
    #[rstest]
    #[case(1.0, 0.5, 0.6)]
    #[case(0.8, 1.2, 1.0)]
    #[case(2.0, 2.0, 0.3)]
    fn a_rectangle_square_to_the_face(#[case] height: f64, #[case] half_width: f64, #[case] away: f64) {
        let (x, y) = (height / half_width, away / half_width);
        let root = x.hypot(y);
        let exact = 2.0 / (2.0 * PI) * ((1.0 / y).atan() - y / root * (1.0 / root).atan());
        let card = Panel::new(Point::new(0.0, away, height / 2.0), -Vector::Y, 2.0 * half_width, height);
        let receptor = Receptor { at: Point::ZERO, normal: Vector::Z, weighing: Weighing::Flat };
        let found = form_factor(&card, &receptor, &[]);
        assert!((found - exact).abs() < 0.002, "{found} {exact}");
    }

    #[test]
    fn a_silver_card_throws_it_the_mirrored_way() {
        let card = |lustre| Matt {
            panel: Panel::new(Point::new(0.0, 1.0, 0.0), -Vector::Y, 0.6, 0.6),
            reflectance: 0.85,
            lustre,
        };
        let source = Point::new(1.0, 0.0, 0.0);
        let given = |lustre, x: f64| {
            let all = patches(&[card(lustre)], 0.1);
            let face = Receptor { at: Point::new(x, 0.0, 0.0), normal: Vector::Y, weighing: Weighing::Flat };
            came_back(&all, &vec![1.0; all.len()], source, &face, &[], |_, _| {})
        };
        assert!(given(Lustre::Lobe(6.0), -1.0) > 1.5 * given(Lustre::Matt, -1.0));
        assert!(given(Lustre::Lobe(6.0), 1.0) < given(Lustre::Matt, 1.0));
    }

    #[test]
    fn a_diffuser_gives_it_on_to_the_other_side() {
        let sheet = Matt {
            panel: Panel::new(Point::new(0.0, 1.0, 0.0), -Vector::Y, 1.0, 1.0),
            reflectance: 0.5,
            lustre: Lustre::Through,
        };
        let piece = patches(&[sheet], 0.25)[0];
        assert!(piece.receptor().normal.dot(Vector::Y) > 0.0);
        let face = Receptor { at: Point::ZERO, normal: Vector::Y, weighing: Weighing::Flat };
        assert!(piece.given(Vector::Y * 3.0, &face) > 0.0);
    }

    proptest! {
        /// Patches and the closed integral agree, and nothing gives more than it gets.
        #[test]
        fn patches_add_up(w in 0.3..2.0_f64, h in 0.3..2.0_f64, d in 0.6..4.0_f64, aside in -1.0..1.0_f64) {
            let card = Matt {
                panel: Panel::new(Point::new(aside, d, 0.2), -Vector::Y, w, h), reflectance: 0.9, lustre: Lustre::Matt,
            };
            let face = Receptor { at: Point::ZERO, normal: Vector::Y, weighing: Weighing::Flat };
            let all = patches(&[card], 0.1);
            let found = came_back(&all, &vec![1.0; all.len()], Vector::ZERO, &face, &[], |_, _| {});
            let exact = 0.9 * form_factor(&card.panel, &face, &[]);
            prop_assert!((found / exact - 1.0).abs() < 0.02, "{} {}", found, exact);
            prop_assert!(found < 0.9);
        }
    }
}
