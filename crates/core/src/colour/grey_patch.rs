//! The colour of a light from a grey patch in a frame: its red, green and blue, and the white balance it was taken at.

use super::illuminant::Illuminant;
use super::mired::Kelvin;
use super::render::{light_of, linear};

/// A patch this near to full has lost what it knew.
const CLIPPED: f64 = 252.0;
/// A patch this dark is mostly noise.
const DARK: f64 = 8.0;

/// Why a patch says nothing.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NoPatch {
    /// One of its colours is full.
    #[error("the patch is clipped ({0:.0} of 255): take it at least a stop darker")]
    Clipped(f64),
    /// It is too dark.
    #[error("the patch is too dark ({0:.0} of 255): take it about mid grey")]
    Dark(f64),
    /// No white light makes a grey look so.
    #[error(
        "no light makes a grey look like {red:.0}, {green:.0}, {blue:.0}: it is not a grey, or the white balance is not the one it was taken at"
    )]
    NotGrey {
        /// 0 to 255.
        red: f64,
        /// 0 to 255.
        green: f64,
        /// 0 to 255.
        blue: f64,
    },
}

/// The light on a grey patch. Values are 8-bit sRGB, 0 to 255.
///
/// # Errors
/// A patch that is clipped, too dark, or no grey under any light that has a temperature.
///
/// ```
/// use tolva_core::colour::{Kelvin, light_on_grey};
/// // Neutral at 3200 K on the camera: the light is of 3200 K.
/// let lamp = light_on_grey([118.0, 118.0, 118.0], Kelvin(3200.0), 0.0)?;
/// assert!((lamp.kelvin().0 - 3200.0).abs() < 10.0);
/// assert!(light_on_grey([255.0, 200.0, 90.0], Kelvin(3200.0), 0.0).is_err());
/// # Ok::<(), tolva_core::colour::NoPatch>(())
/// ```
pub fn light_on_grey(rgb: [f64; 3], balance: Kelvin, tint_duv: f64) -> Result<Illuminant, NoPatch> {
    let most = rgb.iter().copied().fold(0.0, f64::max);
    let least = rgb.iter().copied().fold(255.0, f64::min);
    if most >= CLIPPED {
        return Err(NoPatch::Clipped(most));
    }
    if most < DARK || least <= 0.0 {
        return Err(NoPatch::Dark(least));
    }
    let [red, green, blue] = rgb;
    let white = Illuminant::new(balance, tint_duv).xy();
    let not_grey = NoPatch::NotGrey { red, green, blue };
    Illuminant::of_xy(light_of(linear(rgb), white)).ok_or(not_grey)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn a_warm_patch_at_daylight_is_a_lamp() {
        // A grey of 18 % lit at 2850 K and taken at 4990 K (`reference/grey_render.csv`), encoded by hand.
        let encoded = [1.652_49, 0.8524, 0.350_01].map(|one: f64| {
            let linear = one * 0.18;
            (1.055 * linear.powf(1.0 / 2.4) - 0.055) * 255.0
        });
        let found = light_on_grey(encoded, Kelvin(4990.0), 0.0).expect("a light");
        assert!((found.kelvin().0 / 2850.0 - 1.0).abs() < 0.01, "{found:?}");
    }

    #[rstest]
    #[case([255.0, 180.0, 90.0], "clipped")]
    #[case([3.0, 3.0, 2.0], "too dark")]
    #[case([20.0, 220.0, 20.0], "not a grey")]
    #[case([230.0, 30.0, 220.0], "not a grey")]
    fn what_says_nothing(#[case] rgb: [f64; 3], #[case] says: &str) {
        let wrong = light_on_grey(rgb, Kelvin(5600.0), 0.0).expect_err("nothing").to_string();
        assert!(wrong.contains(says), "{wrong}");
    }
}
