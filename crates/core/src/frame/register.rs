//! How far a frame has moved against another: plain shifting, found coarse to fine on what stands out from its
//! surroundings, so that a change of exposure or a flash that comes on does not matter.

use super::photo::{Extent, Photo};
use crate::proof::{Picture, luminance};

/// How far a frame has moved against another.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Moved {
    /// To the right, in frame widths.
    pub right: f64,
    /// Down, in frame heights.
    pub down: f64,
    /// How alike the two are there, up to 1: the correlation of what stands out.
    pub alike: f64,
}

impl Moved {
    /// Whether it can be trusted: less alike, the scene has changed, or one was turned. Chosen.
    pub fn is_sure(self) -> bool {
        self.alike > 0.35
    }
}

/// The first look is taken on pictures about so wide.
const COARSE: usize = 80;
/// The last on the first pictures that are at least so wide, or on the photographs themselves.
const FINE: usize = 480;
/// As far as a frame may have moved, in its width and height.
const FARTHEST: f64 = 0.25;

/// How far `now` has moved against `before`: a thing at some place of `before` is by so much farther right and down in `now`.
/// Nothing where the two are of different proportions, or show nothing that stands out.
pub fn moved(before: &Photo, now: &Photo) -> Option<Moved> {
    let proportion = |Extent { wide, high }: Extent| {
        #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
        let proportion = wide as f64 / high as f64;
        proportion
    };
    if (proportion(before.extent()) / proportion(now.extent()) - 1.0).abs() > 0.01 {
        return None;
    }
    let mut best: Option<Shift> = None;
    for wide in widths(before.extent().wide) {
        let (first, second) = (standing_out(before, wide), standing_out(now, wide));
        if first.wide != second.wide || first.high != second.high {
            return None;
        }
        let around = match best {
            None => {
                #[expect(clippy::cast_possible_truncation, clippy::cast_precision_loss, reason = "a size in pixels")]
                let far = |extent: usize| (extent as f64 * FARTHEST) as i64;
                (Pixels { right: 0, down: 0 }, far(first.wide), far(first.high))
            }
            Some(Shift { at, extent: Extent { wide: was, .. }, .. }) => {
                #[expect(clippy::cast_possible_truncation, clippy::cast_precision_loss, reason = "a size in pixels")]
                let finer = |one: i64| (one as f64 * first.wide as f64 / was as f64).round() as i64;
                (Pixels { right: finer(at.right), down: finer(at.down) }, 2, 2)
            }
        };
        let (Pixels { right, down }, across, along) = around;
        let places =
            (-across..=across).flat_map(|x| (-along..=along).map(move |y| Pixels { right: right + x, down: down + y }));
        let found = places.filter_map(|at| Some((at, first.alike(&second, at)?))).max_by(|a, b| a.1.total_cmp(&b.1));
        let (at, alike) = found?;
        best = Some(Shift { at, alike, extent: Extent { wide: first.wide, high: first.high } });
    }
    let Shift { at: Pixels { right, down }, alike, extent: Extent { wide, high } } = best?;
    #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
    let of = |one: i64, extent: usize| one as f64 / extent as f64;
    Some(Moved { right: of(right, wide), down: of(down, high), alike })
}

/// How far one small picture lies from another, in pixels.
#[derive(Clone, Copy)]
struct Pixels {
    right: i64,
    down: i64,
}

/// The best shift of a comparison.
struct Shift {
    /// How far, in its pixels.
    at: Pixels,
    /// How alike the two are there.
    alike: f64,
    /// How wide and high its pictures are.
    extent: Extent,
}

/// The widths to compare at, coarse to fine: each puts half as many pixels of the photograph together as the one before,
/// so that there is an end whatever the width.
fn widths(extent: usize) -> Vec<usize> {
    let mut all = Vec::new();
    let mut together = extent.div_ceil(COARSE).max(1);
    loop {
        let wide = extent.div_ceil(together);
        all.push(wide);
        if wide >= FINE || together == 1 {
            return all;
        }
        together = together.div_ceil(2);
    }
}

/// A small picture of how much each place stands out from its surroundings.
struct Standing {
    wide: usize,
    high: usize,
    at: Vec<f32>,
}

impl Photo {
    /// The same, about so wide: whole pixels put together.
    pub(super) fn smaller(&self, wide: usize) -> Picture {
        self.picture.together(self.extent().wide.div_ceil(wide.max(1)))
    }
}

/// Stops of luminance less their mean over nine by nine.
fn standing_out(photo: &Photo, wide: usize) -> Standing {
    let small = photo.smaller(wide);
    let (wide, high) = (small.size.width as usize, small.size.height as usize);
    let stops: Vec<f32> = small.pixels.iter().map(|pixel| luminance(*pixel).max(DARKEST).log2()).collect();
    let mean = blurred(&stops, wide, high);
    let at = stops.iter().zip(&mean).map(|(one, mean)| (one - mean).clamp(-3.0, 3.0)).collect();
    Standing { wide, high, at }
}

/// Under this, noise stands out.
const DARKEST: f32 = 0.002;
const REACH: usize = 4;

/// The mean over nine by nine, by rows and then by columns.
fn blurred(of: &[f32], wide: usize, high: usize) -> Vec<f32> {
    let along = |of: &[f32], count: usize, at: &dyn Fn(usize, usize) -> usize, lines: usize| {
        let mut out = vec![0.0; of.len()];
        for line in 0..lines {
            for place in 0..count {
                let ends = place.saturating_sub(REACH)..(place + REACH + 1).min(count);
                #[expect(clippy::cast_precision_loss, reason = "at most nine")]
                let over = ends.len() as f32;
                out[at(line, place)] = ends.map(|one| of[at(line, one)]).sum::<f32>() / over;
            }
        }
        out
    };
    let rows = along(of, wide, &|line, place| line * wide + place, high);
    along(&rows, high, &|line, place| place * wide + line, wide)
}

impl Standing {
    /// The correlation with another that is moved so many pixels; nothing where one has nothing in it.
    fn alike(&self, other: &Self, Pixels { right, down }: Pixels) -> Option<f64> {
        let ends = |by: i64, extent: usize| {
            let extent = i64::try_from(extent).unwrap_or(i64::MAX);
            (0.max(-by), extent.min(extent - by))
        };
        let ((left, last), (top, bottom)) = (ends(right, self.wide), ends(down, self.high));
        let (mut both, mut ours, mut theirs) = (0.0f64, 0.0f64, 0.0f64);
        for y in top..bottom {
            let (row, moved) = (usize::try_from(y).ok()?, usize::try_from(y + down).ok()?);
            for x in left..last {
                let (column, along) = (usize::try_from(x).ok()?, usize::try_from(x + right).ok()?);
                let one = f64::from(self.at[row * self.wide + column]);
                let other = f64::from(other.at[moved * self.wide + along]);
                both += one * other;
                ours += one * one;
                theirs += other * other;
            }
        }
        let whole = (ours * theirs).sqrt();
        (whole > 1e-9).then(|| both / whole)
    }
}

#[cfg(test)]
#[expect(
    clippy::cast_precision_loss,
    clippy::cast_possible_wrap,
    clippy::cast_possible_truncation,
    reason = "pixels of a small picture"
)]
mod tests {
    use super::*;
    use crate::frame::photo::size;
    use proptest::prelude::*;
    use rstest::rstest;

    /// A made-up scene: some blocks of different brightness on a slope of light.
    fn scene(right: i64, down: i64, gain: f32) -> Photo {
        sized(320, 200, Pixels { right, down }, gain)
    }

    fn sized(wide: usize, high: usize, Pixels { right, down }: Pixels, gain: f32) -> Photo {
        let pixels = (0..wide * high).map(|at| {
            let (x, y) = ((at % wide) as i64 - right, (at / wide) as i64 - down);
            let (column, row) = (x.div_euclid(23), y.div_euclid(17));
            let block = (column * column * 7 + row * row * 5 + column * row * 3).rem_euclid(23);
            let slope = 1.0 + (at % wide) as f32 / wide as f32;
            [(0.03 + block as f32 * 0.01) * slope * gain; 3]
        });
        Photo { picture: Picture { size: size(wide, high), pixels: pixels.collect() }, clipped: vec![0; wide * high] }
    }

    #[rstest]
    #[case(0, 0)]
    #[case(14, -9)]
    #[case(-37, 22)]
    fn a_moved_frame_is_found_at_another_exposure(#[case] right: i64, #[case] down: i64) {
        let found = moved(&scene(0, 0, 1.0), &scene(right, down, 0.4)).expect("it moved");
        assert!((found.right - right as f64 / 320.0).abs() < 0.004, "{found:?}");
        assert!((found.down - down as f64 / 200.0).abs() < 0.006, "{found:?}");
        assert!(found.is_sure());
    }

    /// The least and the most that a picture can be, every width between, and widths that halve oddly: the comparison gets
    /// finer at each step and ends.
    #[test]
    fn every_width_has_an_end() {
        for extent in 1..=4096 {
            let widths = widths(extent);
            assert!(widths.windows(2).all(|pair| pair[0] < pair[1]), "{extent}: {widths:?}");
            assert!(widths.len() <= 8 && *widths.last().expect("one") >= FINE.min(extent), "{extent}: {widths:?}");
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]

        /// Photographs of any size, odd ones too, are registered in a moment; where there is room for it, rightly.
        #[test]
        fn every_size_is_registered(wide in 1_usize..1300, high in 1_usize..900, part in -0.1..0.1_f64) {
            let shift = (part * wide as f64) as i64;
            let found = moved(&sized(wide, high, Pixels { right: 0, down: 0 }, 1.0), &sized(wide, high, Pixels { right: shift, down: 0 }, 0.5));
            if wide > 200 && high > 120 {
                let found = found.expect("it shows something");
                prop_assert!((found.right - shift as f64 / wide as f64).abs() < 0.008, "{found:?} {shift}");
                prop_assert!(found.down.abs() < 0.012, "{found:?}");
            }
        }
    }

    /// 1023 × 683 once went on for ever.
    #[test]
    fn an_odd_width_is_registered() {
        let found = moved(
            &sized(1023, 683, Pixels { right: 0, down: 0 }, 1.0),
            &sized(1023, 683, Pixels { right: 31, down: -12 }, 0.4),
        )
        .expect("it moved");
        assert!((found.right - 31.0 / 1023.0).abs() < 0.003 && (found.down + 12.0 / 683.0).abs() < 0.004, "{found:?}");
    }

    #[test]
    fn another_scene_is_not_trusted() {
        let flat = Photo {
            picture: Picture { size: size(320, 200), pixels: vec![[0.2; 3]; 64_000] },
            clipped: vec![0; 64_000],
        };
        assert_eq!(moved(&scene(0, 0, 1.0), &flat), None);
        let tall =
            Photo { picture: Picture { size: size(200, 320), ..flat.picture.clone() }, clipped: flat.clipped.clone() };
        assert_eq!(moved(&flat, &tall), None);
    }
}
