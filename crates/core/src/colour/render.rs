//! What a camera balanced for one white makes of a colour: Bradford adaptation to D65, then linear sRGB. Adaptation and
//! sRGB are those of the crate `palette`. Source: CIE 015:2018, IEC 61966-2-1.

use palette::chromatic_adaptation::adaptation_matrix;
use palette::convert::{Convert as _, FromColorUnclamped as _};
use palette::lms::matrix::Bradford;
use palette::white_point::D65;
use palette::{LinSrgb, Srgb};

use super::chromaticity::{Xy, Xyz};

/// Three numbers of X, Y and Z. The crate wants a white with them; where there is another, it is given by itself.
type Carried = palette::Xyz<D65, f64>;

fn carried(xyz: Xyz) -> Carried {
    Carried::new(xyz.0[0], xyz.0[1], xyz.0[2])
}

/// Colours seen under one white, as they would be under another. Source: Bradford adaptation.
pub(super) fn adapted<const N: usize>(colours: [Xyz; N], from: Xy, to: Xy) -> [Xyz; N] {
    let matrix = adaptation_matrix::<f64, D65, D65, Bradford>(Some(carried(from.xyz())), Some(carried(to.xyz())));
    colours.map(|colour| {
        let seen: Carried = matrix.convert(carried(colour));
        Xyz([seen.x, seen.y, seen.z])
    })
}

/// A colour in linear sRGB: 1 is full; under 0 or over 1 it is out of what a screen shows.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct LinearRgb(pub [f64; 3]);

/// A camera's balance: what it takes for white.
#[derive(Clone)]
pub struct Balanced {
    to_d65: palette::convert::Matrix3<Carried, Carried>,
}

impl Balanced {
    /// Balanced for a white.
    pub fn on(white: Xy) -> Self {
        Self { to_d65: adaptation_matrix::<f64, D65, D65, Bradford>(Some(carried(white.xyz())), None) }
    }

    /// A colour as the camera gives it.
    ///
    /// ```
    /// use tolva_core::colour::{Balanced, Kelvin, white};
    /// // A lamp-lit grey where the camera stands at 5600 K.
    /// let seen = Balanced::on(white(Kelvin(5600.0))).renders(white(Kelvin(2900.0)).xyz());
    /// assert!(seen.0[0] > 1.7 && seen.0[2] < 0.35);
    /// ```
    pub fn renders(&self, colour: Xyz) -> LinearRgb {
        let rgb = LinSrgb::from_color_unclamped(self.to_d65.convert(carried(colour)));
        LinearRgb([rgb.red, rgb.green, rgb.blue])
    }

    /// How far a light's grey comes out from grey: Δu′v′.
    pub fn off_grey(&self, light: Xy) -> f64 {
        let seen = self.to_d65.convert(carried(light.xyz()));
        let d65 = Carried::from_color_unclamped(LinSrgb::new(1.0, 1.0, 1.0));
        Xyz([seen.x, seen.y, seen.z]).xy().apart(Xyz([d65.x, d65.y, d65.z]).xy())
    }
}

/// A colour to paint on a screen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Painted {
    /// In sRGB, `#d3c9b8`; what a screen cannot show is held at its end.
    pub hex: String,
    /// Whether a screen shows it as it is.
    pub shown_true: bool,
}

impl LinearRgb {
    /// As levels of sRGB, 0 to 255, not rounded. Source: IEC 61966-2-1, by palette.
    pub fn levels(self) -> [f64; 3] {
        let [red, green, blue] = self.0;
        let levels = Srgb::<f64>::from_linear(LinSrgb::new(red, green, blue));
        [levels.red, levels.green, levels.blue].map(|one| one.clamp(0.0, 1.0) * 255.0)
    }

    /// As a colour to paint. Source: IEC 61966-2-1 (sRGB), by palette.
    pub fn painted(self) -> Painted {
        let slack = 0.002;
        let [red, green, blue] = self.0;
        // What is under nothing or over full is held at its end.
        let bytes = Srgb::<u8>::from_linear(LinSrgb::new(red, green, blue));
        Painted {
            hex: format!("#{bytes:x}"),
            shown_true: self.0.iter().all(|one| (-slack..=1.0 + slack).contains(one)),
        }
    }
}

/// What a surface of linear sRGB looks like under a light.
pub(super) fn surface(rgb: [f64; 3], light: Xy) -> Xyz {
    let [red, green, blue] = rgb;
    let under_d65 = Carried::from_color_unclamped(LinSrgb::new(red, green, blue));
    let seen: Carried =
        adaptation_matrix::<f64, D65, D65, Bradford>(None, Some(carried(light.xyz()))).convert(under_d65);
    Xyz([seen.x, seen.y, seen.z])
}

/// What an 8-bit sRGB value is in linear light, 0 to 1.
pub(super) fn linear(rgb: [f64; 3]) -> LinearRgb {
    let [red, green, blue] = rgb.map(|one| one / 255.0);
    let linear: LinSrgb<f64> = Srgb::new(red, green, blue).into_linear();
    LinearRgb([linear.red, linear.green, linear.blue])
}

/// The light a grey must have been in, to come out in these linear values under a balance: the way back.
pub(super) fn light_of(grey: LinearRgb, balance: Xy) -> Xy {
    surface(grey.0, balance).xy()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::colour::{Kelvin, white};
    use proptest::prelude::*;

    /// `core/tests/data/grey_render.csv`: colour-science 0.4.7.
    #[test]
    fn greys_against_a_library() {
        let mut rows = 0;
        for line in include_str!("../../tests/data/grey_render.csv").lines().skip(1) {
            let row: Vec<f64> = line.split(',').map(|cell| cell.parse().expect("a number")).collect();
            let seen = Balanced::on(white(Kelvin(row[1]))).renders(white(Kelvin(row[0])).xyz());
            for (found, wanted) in seen.0.iter().zip(&row[2..]) {
                assert!((found - wanted).abs() < 0.003, "{line}: {seen:?}");
            }
            rows += 1;
        }
        assert!(rows > 15);
    }

    #[test]
    fn the_white_it_is_balanced_for_is_white() {
        let lamp = white(Kelvin(2900.0));
        let swatch = Balanced::on(lamp).renders(lamp.xyz()).painted();
        assert_eq!((swatch.hex.as_str(), swatch.shown_true), ("#ffffff", true));
        assert!(Balanced::on(lamp).off_grey(lamp) < 1e-6);
        let out = Balanced::on(white(Kelvin(2000.0))).renders(white(Kelvin(12_000.0)).xyz()).painted();
        assert!(!out.shown_true);
    }

    proptest! {
        /// A patch as it came out says in what light it was.
        #[test]
        fn there_and_back(light in 2200.0..9000.0_f64, balance in 2800.0..7500.0_f64) {
            let (light, balance) = (white(Kelvin(light)), white(Kelvin(balance)));
            let found = light_of(Balanced::on(balance).renders(light.xyz().times(0.18)), balance);
            prop_assert!(found.apart(light) < 1e-6);
        }
    }
}
