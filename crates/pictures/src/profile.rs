//! What colours a file's levels are of, by its ICC profile. Source: ICC.1:2022, read by the crate `moxcms`.

use moxcms::{ColorProfile, DataColorSpace};
use tolva_core::frame::{Encoding, ToneCurve};

use crate::unreadable::Unreadable;

/// A curve is taken at so many steps.
const STEPS: usize = 4096;

/// How levels stand for light: by the profile, or by sRGB where there is none. A camera's own curve takes the place of the
/// profile's curve, its colours stay.
pub(crate) fn encoding(profile: Option<&[u8]>, own: Option<&ToneCurve>) -> Result<Encoding, Unreadable> {
    let plain = || Encoding::srgb(&own.cloned().unwrap_or_else(ToneCurve::srgb));
    let Some(bytes) = profile else { return Ok(plain()) };
    let odd = |what: &str| Unreadable::Profile(what.to_owned());
    let profile = ColorProfile::new_from_slice(bytes).map_err(|wrong| odd(&wrong.to_string()))?;
    match profile.color_space {
        DataColorSpace::Rgb => {}
        DataColorSpace::Gray => return Ok(plain()),
        other => return Err(odd(&format!("it is of {other:?}"))),
    }
    let curves = [&profile.red_trc, &profile.green_trc, &profile.blue_trc];
    let [Some(red), Some(green), Some(blue)] = curves else {
        return Err(odd("it has no curves for red, green and blue"));
    };
    let table = |curve: &moxcms::ToneReprCurve| {
        let at = curve.make_linear_evaluator().map_err(|wrong| odd(&wrong.to_string()))?;
        #[expect(clippy::cast_precision_loss, reason = "a few thousand steps")]
        let steps = (0..STEPS).map(|step| at.evaluate_value(step as f32 / (STEPS - 1) as f32).clamp(0.0, 1.0));
        Ok::<_, Unreadable>(steps.collect::<Vec<f32>>())
    };
    let matrix = profile.transform_matrix(&ColorProfile::new_srgb()).v;
    if matrix.iter().flatten().any(|part| !part.is_finite()) {
        return Err(odd("its colours are none"));
    }
    #[expect(clippy::cast_possible_truncation, reason = "parts of a matrix")]
    let to_srgb = matrix.map(|row| row.map(|part| part as f32));
    let curves = match own {
        Some(_) => plain().curves,
        None => [table(red)?, table(green)?, table(blue)?],
    };
    Ok(Encoding { curves, to_srgb })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// White is white and mid grey mid grey in every space; a red that is full in a wider space is over full in sRGB.
    #[rstest]
    #[case(ColorProfile::new_srgb(), 118, 1.0)]
    #[case(ColorProfile::new_adobe_rgb(), 117, 1.398)]
    #[case(ColorProfile::new_display_p3(), 118, 1.225)]
    fn spaces(#[case] profile: ColorProfile, #[case] grey: usize, #[case] red: f32) {
        let bytes = profile.encode().expect("a profile");
        let encoding = encoding(Some(&bytes), None).expect("known");
        for row in encoding.to_srgb {
            assert!((row.iter().sum::<f32>() - 1.0).abs() < 2e-3, "{row:?}");
        }
        // Adobe RGB (1998) of a red that is full: 1.398 in linear sRGB (from memory); Display P3: 1.225.
        assert!((encoding.to_srgb[0][0] - red).abs() < 0.005, "{:?}", encoding.to_srgb);
        let level = grey * (STEPS - 1) / 255;
        assert!((encoding.curves[1][level] - 0.18).abs() < 0.004, "{}", encoding.curves[1][level]);
    }

    #[test]
    fn what_is_no_profile() {
        let said = |bytes: &[u8]| encoding(Some(bytes), None).expect_err("none").to_string();
        assert!(said(b"nonsense").starts_with("its colour profile cannot be used"));
    }
}
