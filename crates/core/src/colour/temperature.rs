//! From a chromaticity to the colour temperature nearest to it, and how far off it lies.
//!
//! Source: Y. Ohno, *Practical use and calculation of CCT and Duv*, Leukos 10 (2014), 47–55: a table of the black body's
//! locus, then a triangle near it and a parabola farther off.

use std::sync::LazyLock;

use super::chromaticity::{Uv, Xy};
use super::locus::black_body;
use super::mired::Kelvin;

/// A correlated colour temperature, and the distance from the black body's locus.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Temperature {
    /// The temperature of the nearest black body.
    pub kelvin: Kelvin,
    /// How far off it lies in u, v of 1960: positive is green, negative magenta.
    pub duv: f64,
}

const FROM_K: f64 = 1000.0;
const TO_K: f64 = 100_000.0;
/// From one line of the table to the next.
const RATIO: f64 = 1.01;
/// Beyond this a colour has no temperature to speak of. Source: CIE 015:2018.
const MOST_DUV: f64 = 0.05;
/// Nearer than this the triangle is the better one.
const NEAR: f64 = 0.002;

/// The black body's locus, from one step under the least temperature to one over the highest.
static TABLE: LazyLock<Vec<(f64, Uv)>> = LazyLock::new(|| {
    let mut table = Vec::new();
    let mut kelvin = FROM_K / RATIO;
    while kelvin < TO_K * RATIO * RATIO {
        table.push((kelvin, black_body(Kelvin(kelvin)).uv()));
        kelvin *= RATIO;
    }
    table
});

/// Lines of the table that are skipped at a first look.
const STRIDE: usize = 20;

/// The line of the table nearest to a colour, but for its ends: about where it lies, then by halves, since the locus
/// bends too little for the distance to have two lowest values there.
fn nearest(at: Uv) -> usize {
    let squared = |index: usize| {
        let line = TABLE[index].1;
        (at.u - line.u).powi(2) + (at.v - line.v).powi(2)
    };
    let last = TABLE.len() - 2;
    let mut about = (f64::INFINITY, 1);
    for index in (1..=last).step_by(STRIDE) {
        let here = squared(index);
        if here < about.0 {
            about = (here, index);
        }
    }
    let (mut low, mut high) = (about.1.saturating_sub(STRIDE).max(1), (about.1 + STRIDE).min(last));
    while low < high {
        let middle = usize::midpoint(low, high);
        if squared(middle) <= squared(middle + 1) { high = middle } else { low = middle + 1 }
    }
    low
}

impl Xy {
    /// The colour temperature, where it has one: from 1000 to 100 000 K, no farther than 0.05 off the locus.
    ///
    /// ```
    /// use tolva_core::colour::Xy;
    /// let d65 = Xy { x: 0.3127, y: 0.3290 }.temperature().expect("a temperature");
    /// assert!((d65.kelvin.0 - 6503.0).abs() < 6.0 && (d65.duv - 0.0032).abs() < 0.0002);
    /// assert!(Xy { x: 0.2, y: 0.7 }.temperature().is_none(), "a strong green has none");
    /// ```
    pub fn temperature(self) -> Option<Temperature> {
        let at = self.uv();
        let distance = |index: usize| at.apart(TABLE[index].1);
        let near = nearest(at);
        let (t, p) = (|index: usize| TABLE[index].0, |index: usize| TABLE[index].1);
        let (before, after) = (near - 1, near + 1);
        let (d0, d1, d2) = (distance(before), distance(near), distance(after));
        // The triangle between the neighbours and the colour.
        let base = p(before).apart(p(after));
        let along = (d0 * d0 - d2 * d2 + base * base) / (2.0 * base);
        let foot = p(before).v + (p(after).v - p(before).v) * along / base;
        let sign = if at.v >= foot { 1.0 } else { -1.0 };
        let triangle = Temperature {
            kelvin: Kelvin(t(before) + (t(after) - t(before)) * along / base),
            duv: sign * (d0 * d0 - along * along).max(0.0).sqrt(),
        };
        let found = if triangle.duv.abs() < NEAR {
            triangle
        } else {
            // The parabola through the three distances.
            let (a, b, c) = (t(before), t(near), t(after));
            let x = (c - b) * (a - c) * (b - a);
            let second = (a * (d2 - d1) + b * (d0 - d2) + c * (d1 - d0)) / x;
            let first = -(a * a * (d2 - d1) + b * b * (d0 - d2) + c * c * (d1 - d0)) / x;
            let zeroth = -(d0 * (c - b) * b * c + d1 * (a - c) * a * c + d2 * (b - a) * a * b) / x;
            let kelvin = -first / (2.0 * second);
            Temperature { kelvin: Kelvin(kelvin), duv: sign * (second * kelvin * kelvin + first * kelvin + zeroth) }
        };
        ((FROM_K..=TO_K).contains(&found.kelvin.0) && found.duv.abs() <= MOST_DUV).then_some(found)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::colour::locus::tinted;
    use proptest::prelude::*;

    /// `core/tests/data/xy_cct_duv.csv`: colour-science 0.4.7, Ohno (2013).
    #[test]
    fn against_a_library() {
        let mut rows = 0;
        for line in include_str!("../../tests/data/xy_cct_duv.csv").lines().skip(1) {
            let row: Vec<f64> = line.split(',').map(|cell| cell.parse().expect("a number")).collect();
            let found = Xy { x: row[0], y: row[1] }.temperature().expect("a temperature");
            assert!((found.duv - row[3]).abs() < 0.0005, "{line}: {found:?}");
            if row[3].abs() <= 0.01 {
                assert!((found.kelvin.0 / row[2] - 1.0).abs() < 0.005, "{line}: {found:?}");
            }
            rows += 1;
        }
        assert!(rows > 15);
    }

    proptest! {
        /// A black body and a tint are found again.
        #[test]
        fn what_was_put_in_is_found(kelvin in 1200.0..30_000.0_f64, duv in -0.02..0.02_f64) {
            let at = tinted(black_body(Kelvin(kelvin)), Kelvin(kelvin), duv);
            let found = at.temperature().expect("a temperature");
            prop_assert!((found.kelvin.0 / kelvin - 1.0).abs() < 0.003, "{found:?}");
            prop_assert!((found.duv - duv).abs() < 0.0002, "{found:?}");
        }
    }
}
