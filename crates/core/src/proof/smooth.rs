//! Noise is smoothed along surfaces and never over an edge. Source: Dammertz, Sewtz, Hanika and Lensch 2010, edge-avoiding
//! à-trous wavelets.

use rayon::prelude::*;

use super::spot::{Seen, Spot, Surface};
use super::work::Work;

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
        self.surfaces[spot.pixel as usize].alike(&Surface::of(spot)) > 0.5
    }
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
        for (right, down) in [(step, 0), (0, step)] {
            values = one_way(guide, &values, width, right, down);
        }
    }
    values
}

fn one_way(guide: &Guide<'_>, values: &[f32], width: usize, right: isize, down: isize) -> Vec<f32> {
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
                let part = part * here.alike(&guide.surfaces[other]);
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
            if guide.surfaces[pixel].alike(&guide.surfaces[other]) < 0.5 {
                return None;
            }
            (sum, count, least, most) = (sum + value, count + 1.0, least.min(*value), most.max(*value));
        }
        (count > 0.0 && most - least <= self.may_differ).then(|| sum / count)
    }
}

#[cfg(test)]
mod tests {
    use std::sync::atomic::{AtomicUsize, Ordering};

    use glam::Vec3A;

    use super::*;
    use crate::optics::Sensor;
    use crate::proof::body::{Shape, Thing};
    use crate::proof::coat::Coat;
    use crate::proof::picture::Size;
    use crate::proof::scene::Scene;
    use crate::scale::Millimetres;
    use crate::set::Solid;
    use crate::set::{Point, View};

    const SIZE: Size = Size { width: 90, height: 60 };

    /// A ball before the sky.
    fn seen() -> Seen {
        let (lens, ball) = (Point::new(0.0, -3.0, 1.0), Point::new(0.0, 0.0, 1.0));
        let view = View::new(lens, ball, Millimetres(85.0), Sensor::FULL_FRAME, false);
        let shape = Shape::Solid(Solid::Ball { centre: Vec3A::new(0.0, 0.0, 1.0), radius_m: 0.3 });
        let things = vec![Thing { shape, coat: Coat::matt([0.18; 3]), casts: true }];
        Scene { view, things, panes: Vec::new() }.seen(SIZE)
    }

    const SPARSE: Between = Between { sparse: true, may_differ: 0.3 };
    const DENSE: Between = Between { sparse: false, may_differ: 0.3 };

    /// Noise goes where a surface lies flat; what lies beside the ball is never mixed into it.
    #[test]
    fn noise_is_smoothed_and_edges_stay() {
        let seen = seen();
        let guide = Guide::of(&seen);
        let value = |(pixel, spot): (usize, &Spot)| match spot.thing {
            Some(_) if (pixel % 90 + pixel / 90).is_multiple_of(2) => 0.7,
            Some(_) => 0.3,
            None => 5.0,
        };
        let noisy: Vec<f32> = seen.first().iter().enumerate().map(value).collect();
        let smooth = smoothed(&guide, &noisy, 3);
        let middle = 30 * 90 + 45;
        assert!((smooth[middle] - 0.5).abs() < 0.03, "{}", smooth[middle]);
        for (spot, value) in seen.first().iter().zip(&smooth) {
            match spot.thing {
                Some(_) => assert!((0.29..=0.71).contains(value), "{value} on the ball"),
                None => assert!((value - 5.0).abs() < 1e-5, "{value} in the sky"),
            }
        }
        assert_eq!(smoothed(&guide, &noisy, 0), noisy);
    }

    /// What changes slowly is looked for at every fourth pixel only, and is nearly the same.
    #[test]
    fn what_changes_slowly_is_carried_over() {
        let seen = seen();
        let guide = Guide::of(&seen);
        let looked = AtomicUsize::new(0);
        let slowly = |spot: &Spot| {
            looked.fetch_add(1, Ordering::Relaxed);
            spot.at().z
        };
        let work = Work::default();
        let all = DENSE.worked_out(&guide, (&work, true), slowly).expect("nobody stops it");
        let whole = looked.swap(0, Ordering::Relaxed);
        let some = SPARSE.worked_out(&guide, (&work, true), slowly).expect("nobody stops it");
        let few = looked.into_inner();
        assert!(few * 2 < whole, "{few} of {whole}");
        assert!(all.iter().zip(&some).all(|(a, b)| (a - b).abs() < 0.01));
    }

    /// An edge of light is found to the pixel: where those around differ, each is looked for by itself.
    #[test]
    fn an_edge_is_found_to_the_pixel() {
        let seen = seen();
        let guide = Guide::of(&seen);
        let edge = |spot: &Spot| f32::from(u8::from(spot.at().x + 0.3 * spot.at().z > 0.31));
        let work = Work::default();
        let all = DENSE.worked_out(&guide, (&work, true), edge);
        assert_eq!(SPARSE.worked_out(&guide, (&work, true), edge), all);
        assert!(all.expect("nobody stops it").contains(&1.0));
    }

    /// What is stopped comes to nothing.
    #[test]
    fn what_is_stopped_is_nothing() {
        let seen = seen();
        let guide = Guide::of(&seen);
        let work = Work::default();
        work.stop();
        assert_eq!(SPARSE.worked_out(&guide, (&work, true), |_| 1.0), None);
        assert_eq!(DENSE.worked_out(&guide, (&work, false), |_| 1.0), None);
    }

    /// The same surface is one, another thing is none, and neither is what turns away.
    #[test]
    fn a_surface_is_told_from_another() {
        let seen = seen();
        let guide = Guide::of(&seen);
        let middle = seen.first()[30 * 90 + 45];
        assert!(guide.alike(&middle));
        assert!(!guide.alike(&Spot { thing: Some(7), ..middle }));
        assert!(!guide.alike(&Spot { normal: Vec3A::X, ..middle }));
        assert!(!guide.alike(&Spot { far: middle.far + 0.5, ..middle }));
    }
}
