//! Mired, gels, chromaticity, and greys under a balance.

use super::{Number, Sum, Worked, done};
use crate::problem::Problems;
use tolva_core::colour::{Balanced, Kelvin, Mired, Xy, black_body, daylight_xy, white};
use tolva_wording::cast_words;

const KELVIN: (f64, f64) = (1000.0, 40_000.0);

pub(super) const SUMS: &[Sum] = &[
    Sum {
        name: "mired-shift",
        title: "What a gel does to a light",
        group: "Colour",
        says: "A gel shifts every light by the same number of mired.",
        choice: None,
        asked: &[
            Number("from_k", "Light", "K", 5600.0, KELVIN.0, KELVIN.1),
            Number("shift_mired", "Gel", "mired", 159.0, -900.0, 900.0),
        ],
        optional: &[],
        given: &[("to_k", "Becomes", "K")],
        work: |v| {
            let mired = Kelvin(v.get("from_k")).mired() + Mired(v.get("shift_mired"));
            if mired.0 <= 0.0 {
                let message = format!("{} mired is more than the light has: choose less", v.get("shift_mired"));
                return Err(Problems::one("/shift_mired", message));
            }
            done(&[mired.kelvin().0], &[format!("10⁶/K + shift = {:.1} mired", mired.0)])
        },
    },
    Sum {
        name: "gel-between",
        title: "The gel between two lights",
        group: "Colour",
        says: "In mired: positive is warm.",
        choice: None,
        asked: &[
            Number("from_k", "From", "K", 5600.0, KELVIN.0, KELVIN.1),
            Number("to_k", "To", "K", 3200.0, KELVIN.0, KELVIN.1),
        ],
        optional: &[],
        given: &[("shift_mired", "Shift", "mired")],
        work: |v| {
            let shift = Kelvin(v.get("to_k")).mired() - Kelvin(v.get("from_k")).mired();
            done(&[shift.0], &[format!("10⁶/K₂ − 10⁶/K₁ = {:+.1}", shift.0)])
        },
    },
    Sum {
        name: "chromaticity",
        title: "Chromaticity of a temperature",
        group: "Colour",
        says: "A black body over the CIE 1931 2° observer, and CIE daylight, which there is from 4000 to 25 000 K.",
        choice: None,
        asked: &[Number("kelvin", "Temperature", "K", 5600.0, KELVIN.0, KELVIN.1)],
        optional: &[],
        given: &[
            ("planck_x", "Black body, x", ""),
            ("planck_y", "Black body, y", ""),
            ("daylight_x", "Daylight, x", ""),
            ("daylight_y", "Daylight, y", ""),
        ],
        work: |v| {
            let kelvin = Kelvin(v.get("kelvin"));
            let (body, day) = (black_body(kelvin), daylight_xy(kelvin));
            let mut workings = vec![format!("∫ Planck · x̄ȳz̄: {:.4}, {:.4}", body.x, body.y)];
            workings.push(match day {
                Some(day) => format!("x by the CIE polynomial, y = −3x² + 2.870x − 0.275: {:.4}, {:.4}", day.x, day.y),
                None => "CIE daylight begins at 4000 K and ends at 25 000 K".to_owned(),
            });
            let values = vec![Some(body.x), Some(body.y), day.map(|day| day.x), day.map(|day| day.y)];
            Ok(Worked { values, workings })
        },
    },
    Sum {
        name: "colour-temperature",
        title: "Temperature of a chromaticity",
        group: "Colour",
        says: "The nearest black body, and how far off: Ohno 2013. Nothing where the colour has none.",
        choice: None,
        asked: &[Number("x", "x of 1931", "", 0.3324, 0.001, 0.8), Number("y", "y of 1931", "", 0.3474, 0.001, 0.9)],
        optional: &[],
        given: &[("kelvin", "Temperature", "K"), ("duv", "Off the black body", "Duv")],
        work: |v| {
            let (x, y) = (v.get("x"), v.get("y"));
            if x + y > 1.0 {
                return Err(Problems::one("/y", format!("x and y are {} together: they must be at most 1", x + y)));
            }
            let found = Xy { x, y }.temperature();
            let workings = vec![match found {
                Some(found) => format!("{:.0} K, {:+.4} Duv", found.kelvin.0, found.duv),
                None => "farther than 0.05 off the black body: no white light is so coloured".to_owned(),
            }];
            Ok(Worked { values: vec![found.map(|one| one.kelvin.0), found.map(|one| one.duv)], workings })
        },
    },
    Sum {
        name: "rendered-grey",
        title: "A grey under one light, balanced for another",
        group: "Colour",
        says: "Linear sRGB by Bradford adaptation to D65: 1, 1, 1 is a perfect balance.",
        choice: None,
        asked: &[
            Number("light_kelvin", "Light", "K", 2900.0, KELVIN.0, KELVIN.1),
            Number("white_balance_kelvin", "White balance", "K", 5600.0, KELVIN.0, KELVIN.1),
        ],
        optional: &[],
        given: &[("linear_r", "Red", ""), ("linear_g", "Green", ""), ("linear_b", "Blue", "")],
        work: |v| {
            let (light, balance) = (Kelvin(v.get("light_kelvin")), Kelvin(v.get("white_balance_kelvin")));
            let seen = Balanced::on(white(balance)).renders(white(light).xyz());
            let off = light.mired().0 - balance.mired().0;
            let words = cast_words(off, 0.0);
            done(&seen.0, &[format!("10⁶/K: {off:+.0} mired from the balance: {words}")])
        },
    },
];
