//! The white lights a colour temperature stands for: a glowing black body, and daylight.

use super::chromaticity::{Uv, Xy, Xyz};
use super::mired::Kelvin;
use super::tables::{BANDS, FIRST_NM, S0, S1, S2, STEP_NM};

/// From here up a colour temperature is taken to be daylight's, below it a black body's. Source: CIE 015:2018 gives the
/// daylight locus from 4000 K.
pub const DAYLIGHT_FROM: Kelvin = Kelvin(4000.0);
/// The CIE gives daylight up to here.
pub const DAYLIGHT_TO: Kelvin = Kelvin(25_000.0);
/// The second radiation constant of the 2019 SI, in nm·K.
const C2_NM_K: f64 = 1.438_776_877e7;

/// The wavelength of a band, in nanometres.
pub(super) fn nanometres(band: usize) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "81 bands")]
    let steps = band as f64;
    FIRST_NM + STEP_NM * steps
}

/// The spectrum of a black body, in any unit. Source: Planck's law.
pub(super) fn planck(temperature: Kelvin) -> [f64; BANDS] {
    std::array::from_fn(|band| {
        let nm = nanometres(band);
        (nm / 560.0).powi(-5) / ((C2_NM_K / (nm * temperature.0)).exp() - 1.0)
    })
}

/// The chromaticity of a black body, by integrating its spectrum over the CIE 1931 2° observer. 500 to 200 000 K.
pub fn black_body(temperature: Kelvin) -> Xy {
    Xyz::of(&planck(temperature)).xy()
}

/// The chromaticity of CIE daylight of a colour temperature; nothing outside 4000 to 25 000 K. Source: CIE 015:2018.
///
/// ```
/// use tolva_core::colour::{Kelvin, daylight_xy};
/// let d65 = daylight_xy(Kelvin(6504.0)).expect("daylight");
/// assert!((d65.x - 0.3127).abs() < 0.0002 && (d65.y - 0.3290).abs() < 0.0002);
/// assert!(daylight_xy(Kelvin(3000.0)).is_none());
/// ```
pub fn daylight_xy(temperature: Kelvin) -> Option<Xy> {
    (DAYLIGHT_FROM..=DAYLIGHT_TO).contains(&temperature).then(|| daylight(temperature))
}

/// The same, beyond 25 000 K by the same polynomial.
fn daylight(temperature: Kelvin) -> Xy {
    let t = 1000.0 / temperature.0;
    let x = if temperature.0 <= 7000.0 {
        0.244_063 + 0.099_11 * t + 2.967_8 * t.powi(2) - 4.607_0 * t.powi(3)
    } else {
        0.237_040 + 0.247_48 * t + 1.901_8 * t.powi(2) - 2.006_4 * t.powi(3)
    };
    Xy { x, y: -3.0 * x * x + 2.870 * x - 0.275 }
}

/// The spectrum of daylight of a chromaticity. Source: CIE 015:2018.
fn daylight_spectrum(xy: Xy) -> [f64; BANDS] {
    let below = 0.0241 + 0.2562 * xy.x - 0.7341 * xy.y;
    let m1 = (-1.3515 - 1.7703 * xy.x + 5.9114 * xy.y) / below;
    let m2 = (0.0300 - 31.4424 * xy.x + 30.0717 * xy.y) / below;
    std::array::from_fn(|band| (S0[band] + m1 * S1[band] + m2 * S2[band]).max(0.0))
}

/// The white light of a colour temperature: daylight from 4000 K, a black body below.
pub fn white(temperature: Kelvin) -> Xy {
    if temperature < DAYLIGHT_FROM { black_body(temperature) } else { daylight(temperature) }
}

/// The camera's white goes from the one locus to the other between these, evenly in chromaticity. Our own choice: at
/// 4000 K daylight lies 0.0027 Duv over the black body, and a dial that is turned past there would jump in tint.
const HAND_OVER: (f64, f64) = (3800.0, 4200.0);

/// How much of a camera's white is daylight at a temperature, 0 to 1.
pub(super) fn daylight_part(temperature: Kelvin) -> f64 {
    ((temperature.0 - HAND_OVER.0) / (HAND_OVER.1 - HAND_OVER.0)).clamp(0.0, 1.0)
}

/// The white a camera's dial stands for at a colour temperature, without a jump: a black body up to 3800 K, daylight
/// from 4200 K, between the two in between (our own choice; [`white`] is the CIE's).
///
/// ```
/// use tolva_core::colour::{Kelvin, camera_white, white};
/// assert_eq!(camera_white(Kelvin(3200.0)), white(Kelvin(3200.0)));
/// assert_eq!(camera_white(Kelvin(5600.0)), white(Kelvin(5600.0)));
/// let (below, above) = (camera_white(Kelvin(3999.0)), camera_white(Kelvin(4001.0)));
/// assert!((below.y - above.y).abs() < 0.0001);
/// ```
pub fn camera_white(temperature: Kelvin) -> Xy {
    let part = daylight_part(temperature);
    if part <= 0.0 {
        return black_body(temperature);
    }
    let day = daylight(temperature);
    if part >= 1.0 {
        return day;
    }
    let body = black_body(temperature);
    Xy { x: body.x + (day.x - body.x) * part, y: body.y + (day.y - body.y) * part }
}

/// The spectrum of a camera's white.
pub(super) fn camera_spectrum(temperature: Kelvin) -> [f64; BANDS] {
    let part = daylight_part(temperature);
    if part <= 0.0 {
        return planck(temperature);
    }
    if part >= 1.0 {
        return daylight_spectrum(daylight(temperature));
    }
    let (body, day) = (planck(temperature), daylight_spectrum(daylight(temperature)));
    // Each by its brightness, so that the parts are parts of the light.
    let (bright, other) = (Xyz::of(&body).0[1], Xyz::of(&day).0[1]);
    std::array::from_fn(|band| body[band] / bright * (1.0 - part) + day[band] / other * part)
}

/// The direction in which tint goes at a temperature, of length 1: across the black body's locus, towards green.
fn across(temperature: Kelvin) -> Uv {
    let (a, b) = (black_body(Kelvin(temperature.0 * 0.995)).uv(), black_body(Kelvin(temperature.0 * 1.005)).uv());
    let length = a.apart(b);
    // Towards higher temperatures u falls: to the left of that lies green.
    Uv { u: (b.v - a.v) / length, v: (a.u - b.u) / length }
}

/// A chromaticity moved across the black body's locus by so much Duv.
pub(super) fn tinted(from: Xy, temperature: Kelvin, duv: f64) -> Xy {
    if duv == 0.0 {
        return from;
    }
    let (at, way) = (from.uv(), across(temperature));
    Uv { u: at.u + duv * way.u, v: at.v + duv * way.v }.xy()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// CIE 015:2018, table of illuminants.
    #[rstest]
    #[case(5503.0, 0.3324, 0.3474)]
    #[case(6504.0, 0.3127, 0.3290)]
    fn daylight_illuminants(#[case] kelvin: f64, #[case] x: f64, #[case] y: f64) {
        let found = white(Kelvin(kelvin));
        assert!((found.x - x).abs() < 0.0002 && (found.y - y).abs() < 0.0002, "{found:?}");
    }

    /// CIE standard illuminant A: a black body of 2856 K (2848 K by the constant it was defined with).
    #[test]
    fn the_lamp_illuminant() {
        let found = black_body(Kelvin(2856.0));
        assert!((found.x - 0.4476).abs() < 0.0005 && (found.y - 0.4074).abs() < 0.0005, "{found:?}");
    }

    /// `core/tests/data/cct_xy.csv`: colour-science 0.4.7.
    #[test]
    fn both_loci_against_a_library() {
        let mut rows = 0;
        for line in include_str!("../../tests/data/cct_xy.csv").lines().skip(1) {
            let row: Vec<f64> = line.split(',').map(|cell| cell.parse().expect("a number")).collect();
            let body = black_body(Kelvin(row[0]));
            assert!((body.x - row[1]).abs() < 0.001 && (body.y - row[2]).abs() < 0.001, "{line}: {body:?}");
            let day = daylight_xy(Kelvin(row[0]));
            assert_eq!(day.is_none(), row[3].is_nan(), "{line}");
            if let Some(day) = day {
                assert!((day.x - row[3]).abs() < 0.0005 && (day.y - row[4]).abs() < 0.0005, "{line}: {day:?}");
            }
            rows += 1;
        }
        assert!(rows > 20);
    }

    /// Turned past 4000 K, the camera's white does not jump: no step of 10 K moves it by more than a tenth of what the
    /// loci lie apart there.
    #[test]
    fn the_cameras_white_does_not_jump() {
        let duv = |kelvin: f64| camera_white(Kelvin(kelvin)).temperature().expect("a temperature").duv;
        let apart = white(Kelvin(4000.0)).temperature().expect("a temperature").duv;
        assert!(apart > 0.0025, "{apart}");
        for step in 0..120 {
            let kelvin = 3500.0 + f64::from(step) * 10.0;
            let jump = (duv(kelvin + 10.0) - duv(kelvin)).abs();
            assert!(jump < apart / 10.0, "{kelvin} K: {jump}");
        }
        assert!(
            duv(3790.0).abs() < 1e-4
                && (duv(4210.0) - white(Kelvin(4210.0)).temperature().expect("one").duv).abs() < 1e-9
        );
    }

    /// The spectrum made for a daylight has its chromaticity.
    #[rstest]
    #[case(3200.0)]
    #[case(5500.0)]
    #[case(10_000.0)]
    fn a_spectrum_has_its_chromaticity(#[case] kelvin: f64) {
        let (wanted, found) = (camera_white(Kelvin(kelvin)), Xyz::of(&camera_spectrum(Kelvin(kelvin))).xy());
        assert!((wanted.x - found.x).abs() < 0.0005 && (wanted.y - found.y).abs() < 0.0005, "{wanted:?} {found:?}");
    }
}
