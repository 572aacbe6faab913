//! Noise is smoothed along surfaces and never over an edge. Source: Dammertz, Sewtz, Hanika and Lensch 2010, edge-avoiding
//! à-trous wavelets.

use rayon::prelude::*;

use super::scene::{Seen, Spot};

/// What a picture is smoothed along.
pub(super) struct Guide<'a> {
    first: &'a [Spot],
    width: usize,
}

impl<'a> Guide<'a> {
    pub fn of(seen: &'a Seen) -> Self {
        Self { first: seen.first(), width: seen.size.width as usize }
    }

    /// Whether a spot lies on the same surface as the one its pixel is smoothed by.
    pub fn alike(&self, spot: &Spot) -> bool {
        weight(&self.first[spot.pixel as usize], spot) > 0.5
    }
}

/// How much of the same surface two spots are, 0 to 1.
fn weight(a: &Spot, b: &Spot) -> f32 {
    if a.thing != b.thing {
        return 0.0;
    }
    let turned = a.normal.dot(b.normal).max(0.0);
    let turned = turned.powi(32);
    // Out of the plane of the surface, as a part of how far it is.
    let off = (b.at() - a.at()).dot(a.normal).abs() / (0.004 * a.far + 1e-4);
    turned * (-off).exp()
}

/// The binomial weights of five.
const KERNEL: [f32; 3] = [0.375, 0.25, 0.0625];

/// One number a pixel, smoothed in so many rounds, each twice as wide as the one before.
pub(super) fn smoothed(guide: &Guide<'_>, values: &[f32], rounds: u32) -> Vec<f32> {
    let width = guide.width;
    let mut values = values.to_vec();
    for round in 0..rounds {
        let step = 1_isize << round;
        // Along each direction by itself: nearly the same, and much less work.
        for along in [(step, 0), (0, step)] {
            values = one_way(guide, &values, width, along);
        }
    }
    values
}

fn one_way(guide: &Guide<'_>, values: &[f32], width: usize, (right, down): (isize, isize)) -> Vec<f32> {
    (0..values.len())
        .into_par_iter()
        .with_min_len(2048)
        .map(|pixel| {
            let here = &guide.first[pixel];
            let own = values[pixel];
            let column = pixel % width;
            let mut at = [None; 4];
            for (slot, taps) in [-2_isize, -1, 1, 2].into_iter().enumerate() {
                let x = column.checked_add_signed(taps * right).filter(|x| *x < width);
                let moved = pixel.checked_add_signed(taps * right + taps * down * width.cast_signed());
                at[slot] = x.and(moved).filter(|moved| *moved < values.len());
            }
            // Where everything around is the same there is nothing to smooth.
            if at.iter().flatten().all(|other| (values[*other] - own).abs() < 1e-4 * own.abs() + 1e-9) {
                return own;
            }
            let (mut sum, mut weights) = (own * KERNEL[0], KERNEL[0]);
            for (other, part) in at.into_iter().zip([KERNEL[2], KERNEL[1], KERNEL[1], KERNEL[2]]) {
                let Some(other) = other else { continue };
                let part = part * weight(here, &guide.first[other]);
                sum += values[other] * part;
                weights += part;
            }
            sum / weights
        })
        .collect()
}
