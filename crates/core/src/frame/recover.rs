//! A camera's own curve, from a bracket of one still scene.
//!
//! Source: P. Debevec and J. Malik, "Recovering High Dynamic Range Radiance Maps from Photographs", SIGGRAPH 1997: the
//! logarithm of the light at each level, and of the light in each place, so that the levels that came are explained best and
//! the curve bends as little as it can.

use nalgebra::{DMatrix, DVector};

use super::curve::ToneCurve;
use super::photo::{Raster, Samples};
use crate::scale::Stops;

/// One frame of a bracket: its exposure, and the levels of green at places on a grid.
#[derive(Clone, Debug, PartialEq)]
pub struct Exposed {
    /// Stops of exposure, from anywhere: the same place for all frames of the bracket.
    pub stops: f64,
    /// The mean level at each place, 0 to 255, row by row.
    pub levels: Vec<f64>,
}

/// A camera's own curve.
#[derive(Clone, Debug, PartialEq)]
pub struct Recovered {
    /// For each level from 0 to 255, stops of light from that of level 118.
    pub stops: Vec<f64>,
    /// How far, in stops, the levels that came are from what the curve says: the weighted standard deviation.
    pub off: Stops,
    /// The lowest and the highest level that came well inside the bracket; beyond, the curve is only drawn on.
    pub known: (f64, f64),
}

/// Why there is no curve.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NoBracket {
    /// Too few frames, or too many.
    #[error("a bracket has 3 to 11 frames, not {0}")]
    Frames(usize),
    /// All at one exposure.
    #[error("the frames are all exposed alike: bracket by the shutter, a stop apart")]
    Alike,
    /// Different sizes.
    #[error("the frames are of different sizes: take a bracket with one camera from a tripod")]
    Sizes,
    /// Nothing to go by.
    #[error("too little of the scene lies between black and full: take one with light and dark in it, a stop apart")]
    Flat,
}

/// The grid of places that are looked at.
const ACROSS: usize = 48;
const ALONG: usize = 32;
/// So many places are enough.
const PLACES: usize = 160;
/// How much a bend costs. Chosen: with it the reference bracket comes out within a level.
const SMOOTH: f64 = 30.0;
const LEVELS: usize = 256;

impl Exposed {
    /// The levels of a frame on a grid of places, each the mean of a few pixels.
    pub fn of(raster: &Raster, stops: f64) -> Self {
        let (wide, high) = (raster.width, raster.height);
        let level = |at: usize| match &raster.samples {
            Samples::Eight(levels) => levels.get(at * 3 + 1).map_or(0.0, |one| f64::from(*one)),
            Samples::Sixteen(levels) => levels.get(at * 3 + 1).map_or(0.0, |one| f64::from(*one) / 257.0),
        };
        let reach = (wide.min(high) / 400).clamp(1, 6);
        let mut levels = Vec::with_capacity(ACROSS * ALONG);
        for row in 0..ALONG {
            for column in 0..ACROSS {
                let (x, y) = ((2 * column + 1) * wide / (2 * ACROSS), (2 * row + 1) * high / (2 * ALONG));
                let (mut sum, mut count) = (0.0, 0.0);
                for y in y.saturating_sub(reach)..(y + reach + 1).min(high) {
                    for x in x.saturating_sub(reach)..(x + reach + 1).min(wide) {
                        sum += level(y * wide + x);
                        count += 1.0;
                    }
                }
                levels.push(if count > 0.0 { sum / count } else { 0.0 });
            }
        }
        Self { stops, levels }
    }
}

/// How much a level says: most in the middle, nothing at the ends. Source: Debevec and Malik 1997, equation 4.
fn weight(level: f64) -> f64 {
    level.min(255.0 - level).max(0.0) / 127.5
}

/// The camera's curve from a bracket.
///
/// # Errors
/// Fewer than three frames or more than eleven, one exposure, too little between black and full.
pub fn recovered(bracket: &[Exposed]) -> Result<Recovered, NoBracket> {
    if !(3..=11).contains(&bracket.len()) {
        return Err(NoBracket::Frames(bracket.len()));
    }
    let ends = |of: &dyn Fn(f64, f64) -> f64, start: f64| bracket.iter().map(|one| one.stops).fold(start, of);
    if ends(&f64::max, f64::MIN) - ends(&f64::min, f64::MAX) < 1.0 {
        return Err(NoBracket::Alike);
    }
    if bracket.iter().any(|one| one.levels.len() != bracket[0].levels.len()) {
        return Err(NoBracket::Sizes);
    }
    let places = places(bracket);
    if places.len() < 12 {
        return Err(NoBracket::Flat);
    }
    let unknown = LEVELS + places.len();
    let (mut matrix, mut right) = (DMatrix::<f64>::zeros(unknown, unknown), DVector::<f64>::zeros(unknown));
    // Least squares by its normal equations: each row adds itself times itself.
    let mut row = |parts: &[(usize, f64)], says: f64| {
        for (one, of) in parts {
            for (other, by) in parts {
                matrix[(*one, *other)] += of * by;
            }
            right[*one] += of * says;
        }
    };
    for (index, place) in places.iter().enumerate() {
        for frame in bracket {
            let level = frame.levels[*place];
            let weight = weight(level);
            if weight > 0.0 {
                let (below, part) = between(level);
                row(
                    &[(below, weight * (1.0 - part)), (below + 1, weight * part), (LEVELS + index, -weight)],
                    weight * frame.stops,
                );
            }
        }
    }
    for level in 1..LEVELS - 1 {
        #[expect(clippy::cast_precision_loss, reason = "a level")]
        let bends = SMOOTH.sqrt() * weight(level as f64).max(0.02);
        row(&[(level - 1, bends), (level, -2.0 * bends), (level + 1, bends)], 0.0);
    }
    row(&[(MIDDLE, 1.0)], 0.0);
    let solved = matrix.cholesky().ok_or(NoBracket::Flat)?.solve(&right);
    let mut stops: Vec<f64> = (0..LEVELS).map(|level| solved[level]).collect();
    // Noise may make it fall a little at its ends, and a camera's does not.
    for level in (0..MIDDLE).rev() {
        stops[level] = stops[level].min(stops[level + 1]);
    }
    for level in MIDDLE + 1..LEVELS {
        stops[level] = stops[level].max(stops[level - 1]);
    }
    let (mut squares, mut weights, mut known) = (0.0, 0.0, (255.0f64, 0.0f64));
    for (index, place) in places.iter().enumerate() {
        for frame in bracket {
            let level = frame.levels[*place];
            let weight = weight(level);
            let (below, part) = between(level);
            let said = stops[below] * (1.0 - part) + stops[below + 1] * part;
            squares += weight * (said - solved[LEVELS + index] - frame.stops).powi(2);
            weights += weight;
            if weight > 0.02 {
                known = (known.0.min(level), known.1.max(level));
            }
        }
    }
    Ok(Recovered { stops, off: Stops((squares / weights).sqrt()), known })
}

const MIDDLE: usize = 118;

#[expect(
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    clippy::cast_precision_loss,
    reason = "a level of 255"
)]
fn between(level: f64) -> (usize, f64) {
    let below = (level.clamp(0.0, 255.0).floor() as usize).min(LEVELS - 2);
    (below, level - below as f64)
}

/// Places that say most: well between black and full in many frames, spread over their levels.
fn places(bracket: &[Exposed]) -> Vec<usize> {
    let says = |place: usize| bracket.iter().map(|frame| weight(frame.levels[place])).sum::<f64>();
    let mut all: Vec<usize> = (0..bracket[0].levels.len()).filter(|place| says(*place) > 0.5).collect();
    let mean = |place: usize| bracket.iter().map(|frame| frame.levels[place]).sum::<f64>();
    all.sort_by(|a, b| mean(*a).total_cmp(&mean(*b)));
    let step = all.len().div_ceil(PLACES).max(1);
    all.into_iter().step_by(step).collect()
}

impl Recovered {
    /// As a curve whose level 118 is mid grey: a bracket does not know how bright its scene was.
    pub fn curve(&self) -> ToneCurve {
        let linear = self.stops.iter().map(|stops| 0.18 * stops.exp2()).collect();
        ToneCurve::of(linear).unwrap_or_else(|_| ToneCurve::srgb())
    }
}

#[cfg(test)]
#[expect(clippy::cast_precision_loss, reason = "places of a grid")]
mod tests {
    use super::*;
    use rstest::rstest;

    /// A camera that works by sRGB: its bracket gives sRGB back.
    #[test]
    fn a_known_curve_comes_back() {
        let srgb = ToneCurve::srgb();
        let bracket: Vec<Exposed> = (-3..=3)
            .map(|stops| {
                let levels = (0..ACROSS * ALONG).map(|place| {
                    let light = -6.0 + 8.0 * place as f64 / (ACROSS * ALONG) as f64;
                    srgb.level_at(Stops(light + f64::from(stops))).round()
                });
                Exposed { stops: f64::from(stops), levels: levels.collect() }
            })
            .collect();
        let found = recovered(&bracket).expect("a curve");
        assert!(found.off.0 < 0.05, "{:?}", found.off);
        let curve = found.curve();
        let anchor = (srgb.linear_at(118.0) / 0.18).log2();
        for stops in [-3.0, -1.5, 0.0, 1.0, 2.0] {
            let (came, wanted) = (curve.level_at(Stops(stops)), srgb.level_at(Stops(stops + anchor)));
            assert!((came - wanted).abs() < 1.5, "{stops}: {came} for {wanted}");
        }
    }

    fn flat(stops: f64, level: f64) -> Exposed {
        Exposed { stops, levels: vec![level; ACROSS * ALONG] }
    }

    #[rstest]
    #[case(vec![flat(0.0, 90.0), flat(1.0, 130.0)], NoBracket::Frames(2))]
    #[case(vec![flat(0.0, 90.0), flat(0.1, 92.0), flat(0.2, 95.0)], NoBracket::Alike)]
    #[case(vec![flat(0.0, 0.0), flat(1.0, 0.0), flat(2.0, 0.0)], NoBracket::Flat)]
    #[case(vec![flat(0.0, 90.0), flat(1.0, 130.0), Exposed { stops: 2.0, levels: vec![] }], NoBracket::Sizes)]
    fn what_is_no_bracket(#[case] frames: Vec<Exposed>, #[case] wrong: NoBracket) {
        assert_eq!(recovered(&frames), Err(wrong));
    }
}
