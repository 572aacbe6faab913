//! Noise is smoothed along surfaces and never over an edge. Source: Dammertz, Sewtz, Hanika and Lensch 2010, edge-avoiding
//! à-trous wavelets.

use glam::Vec3;
use rayon::prelude::*;

use super::scene::{Seen, Spot};
use super::work::Work;

/// Of a spot what tells which surface it is of, close together: it is looked at for every pixel around, many times.
#[derive(Clone, Copy, Debug)]
pub(super) struct Surface {
    at: Vec3,
    far: f32,
    normal: Vec3,
    /// Its thing, counted from 1; 0 for the sky.
    thing: u32,
}

impl Surface {
    pub fn of(spot: &Spot) -> Self {
        let thing = spot.thing.map_or(0, |thing| thing.saturating_add(1));
        Self { at: spot.at().into(), far: spot.far, normal: spot.normal.into(), thing }
    }
}

/// What a picture is smoothed along.
pub(super) struct Guide<'a> {
    first: &'a [Spot],
    surfaces: &'a [Surface],
    width: usize,
}

impl<'a> Guide<'a> {
    pub fn of(seen: &'a Seen) -> Self {
        Self { first: seen.first(), surfaces: seen.surfaces(), width: seen.size.width as usize }
    }

    /// Whether a spot lies on the same surface as the one its pixel is smoothed by.
    pub fn alike(&self, spot: &Spot) -> bool {
        weight(&self.surfaces[spot.pixel as usize], &Surface::of(spot)) > 0.5
    }
}

/// How much of the same surface two spots are, 0 to 1.
fn weight(a: &Surface, b: &Surface) -> f32 {
    if a.thing != b.thing {
        return 0.0;
    }
    let turned = a.normal.dot(b.normal).max(0.0);
    let turned = turned.powi(32);
    // Out of the plane of the surface, as a part of how far it is.
    let off = (b.at - a.at).dot(a.normal).abs() / (0.004 * a.far + 1e-4);
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
            let here = &guide.surfaces[pixel];
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
                let part = part * weight(here, &guide.surfaces[other]);
                sum += values[other] * part;
                weights += part;
            }
            sum / weights
        })
        .collect()
}

/// How a number is worked out for every pixel.
#[derive(Clone, Copy)]
pub(super) struct Between {
    /// At every other pixel of every other row, and carried over to those between where they lie on the same surface: what
    /// changes slowly need not be looked for four times.
    pub sparse: bool,
    /// By so much may the pixels around differ for that; where they differ more, there is an edge of light to be found.
    pub may_differ: f32,
}

impl Between {
    /// One number a pixel; nothing where it was stopped. Each pixel counts as work once, where it is to be counted.
    pub fn worked_out(
        self,
        guide: &Guide<'_>,
        (work, counted): (&Work, bool),
        each: impl Fn(&Spot) -> f32 + Sync,
    ) -> Option<Vec<f32>> {
        let done = || if counted { work.one_more() } else { work.go_on() };
        let on_lattice =
            |pixel: usize| !self.sparse || ((pixel % guide.width) | (pixel / guide.width)).is_multiple_of(2);
        let all = || guide.first.par_iter().enumerate();
        let one = |(pixel, spot): (usize, &Spot)| {
            if !on_lattice(pixel) {
                return Some(0.0);
            }
            done()?;
            Some(if spot.thing.is_none() { 0.0 } else { each(spot) })
        };
        let known: Vec<f32> = all().map(one).collect::<Option<_>>()?;
        if !self.sparse {
            return Some(known);
        }
        let rest = |(pixel, spot): (usize, &Spot)| {
            if on_lattice(pixel) {
                return Some(known[pixel]);
            }
            done()?;
            if spot.thing.is_none() {
                return Some(0.0);
            }
            Some(self.carried(guide, &known, pixel).unwrap_or_else(|| each(spot)))
        };
        all().map(rest).collect()
    }

    /// The mean of the pixels of the lattice around, where all of them lie on the surface of this one and agree.
    fn carried(self, guide: &Guide<'_>, known: &[f32], pixel: usize) -> Option<f32> {
        let width = guide.width;
        let (column, row) = (pixel % width, pixel / width);
        let ways: &[(isize, isize)] = match (column % 2, row % 2) {
            (1, 0) => &[(-1, 0), (1, 0)],
            (0, 1) => &[(0, -1), (0, 1)],
            _ => &[(-1, -1), (1, -1), (-1, 1), (1, 1)],
        };
        let (mut sum, mut count, mut least, mut most) = (0.0, 0.0, f32::INFINITY, f32::NEG_INFINITY);
        for (right, down) in ways {
            let Some(x) = column.checked_add_signed(*right).filter(|x| *x < width) else { continue };
            let Some(other) = row.checked_add_signed(*down).map(|y| y * width + x) else { continue };
            let Some(value) = known.get(other) else { continue };
            if weight(&guide.surfaces[pixel], &guide.surfaces[other]) < 0.5 {
                return None;
            }
            (sum, count, least, most) = (sum + value, count + 1.0, least.min(*value), most.max(*value));
        }
        (count > 0.0 && most - least <= self.may_differ).then(|| sum / count)
    }
}
