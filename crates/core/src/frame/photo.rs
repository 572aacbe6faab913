//! A picture's levels, and the small copy in linear light that everything is measured on.

use rayon::prelude::*;

use super::curve::ToneCurve;
use crate::proof::{Picture, Size};

/// The levels of a picture, as a file gives them.
#[derive(Clone, Debug, PartialEq)]
pub struct Raster {
    /// Pixels from left to right.
    pub width: usize,
    /// Pixels from top to bottom.
    pub height: usize,
    /// Red, green and blue of each pixel, row by row from above.
    pub samples: Samples,
}

/// Levels of 8 or of 16 bits.
#[derive(Clone, Debug, PartialEq)]
pub enum Samples {
    /// 0 to 255.
    Eight(Vec<u8>),
    /// 0 to 65 535.
    Sixteen(Vec<u16>),
}

/// How levels stand for light: a curve a channel, and the colours the channels are of.
#[derive(Clone, Debug, PartialEq)]
pub struct Encoding {
    /// Linear light, 0 to 1, at equal steps of the level; for red, green and blue. At least two values each.
    pub curves: [Vec<f32>; 3],
    /// From linear light in these colours to linear sRGB, row by row.
    pub to_srgb: [[f32; 3]; 3],
}

/// How many pixels a picture is wide and high.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Extent {
    /// From left to right.
    pub wide: usize,
    /// From top to bottom.
    pub high: usize,
}

impl From<Size> for Extent {
    fn from(size: Size) -> Self {
        Self { wide: size.width as usize, high: size.height as usize }
    }
}

impl std::fmt::Display for Extent {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "{} × {}", self.wide, self.high)
    }
}

/// How a picture lies in its file, by the number EXIF gives it (1 to 8): 1 upright, 3 upside down, 6 to be turned to the
/// right, 8 to the left; even ones but 6 and 8, and 5 and 7, are mirrored. Source: EXIF 2.32, tag 0x0112.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Turned(pub u8);

/// A picture in linear light, small enough to work with, and how much of each pixel was full.
#[derive(Clone, Debug, PartialEq)]
pub struct Photo {
    /// Linear sRGB; mid grey is 0.18.
    pub picture: Picture,
    /// Of what went into each pixel, how much was full in any channel: 0 to 255.
    pub clipped: Vec<u8>,
}

/// Why levels are no picture.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NoRaster {
    /// It has no pixels.
    #[error("the picture has no pixels")]
    Empty,
    /// Too few or too many levels.
    #[error("a picture of {width} × {height} pixels has {wanted} levels, not {found}")]
    Levels {
        /// Pixels from left to right.
        width: usize,
        /// Pixels from top to bottom.
        height: usize,
        /// Three a pixel.
        wanted: usize,
        /// What was handed in.
        found: usize,
    },
    /// A curve of fewer than two values.
    #[error("a curve has at least two values")]
    Curve,
}

/// A level so near to full has lost what it knew: the uppermost of 255.
const FULL: f64 = 254.5 / 255.0;
/// The copy that is measured has at most so many pixels. Source: frames.md.
const MOST_PIXELS: usize = 2_000_000;
/// Longer than this in a direction, a picture of the core is none.
const LONGEST: usize = 4096;

impl Encoding {
    /// sRGB, by its own curve or by a camera's.
    pub fn srgb(curve: &ToneCurve) -> Self {
        #[expect(clippy::cast_possible_truncation, reason = "a value of a picture")]
        let steps: Vec<f32> = (0..=2550).map(|step| curve.linear_at(f64::from(step) / 10.0) as f32).collect();
        let to_srgb = [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]];
        Self { curves: [steps.clone(), steps.clone(), steps], to_srgb }
    }

    /// What each of so many levels stands for.
    fn table(&self, channel: usize, levels: usize) -> Vec<f32> {
        let curve = &self.curves[channel];
        #[expect(
            clippy::cast_precision_loss,
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "levels"
        )]
        (0..levels)
            .map(|level| {
                let at = level as f64 / (levels - 1) as f64 * (curve.len() - 1) as f64;
                let below = (at.floor() as usize).min(curve.len() - 2);
                let part = (at - below as f64) as f32;
                curve[below] * (1.0 - part) + curve[below + 1] * part
            })
            .collect()
    }
}

impl Turned {
    /// The size of the upright picture.
    pub fn extent(self, lying: Extent) -> Extent {
        if self.0 >= 5 { Extent { wide: lying.high, high: lying.wide } } else { lying }
    }

    /// Where in the file the pixel of the upright picture lies.
    fn source(self, at: usize, lying: Extent) -> usize {
        let upright = self.extent(lying);
        let (x, y) = (at % upright.wide, at / upright.wide);
        let (right, down) = (lying.wide - 1, lying.high - 1);
        let (x, y) = match self.0 {
            2 => (right - x, y),
            3 => (right - x, down - y),
            4 => (x, down - y),
            5 => (y, x),
            6 => (y, down - x),
            7 => (right - y, down - x),
            8 => (right - y, x),
            _ => (x, y),
        };
        y * lying.wide + x
    }
}

impl Photo {
    /// The copy of a picture that everything is measured on: upright, in linear sRGB, at most two million pixels, each the
    /// mean in linear light of what it stands for.
    ///
    /// # Errors
    /// No pixels, or another number of levels than pixels.
    pub fn of(raster: &Raster, encoding: &Encoding, turned: Turned) -> Result<Self, NoRaster> {
        let Raster { width, height, ref samples } = *raster;
        let found = match samples {
            Samples::Eight(levels) => levels.len(),
            Samples::Sixteen(levels) => levels.len(),
        };
        let wanted = width.saturating_mul(height).saturating_mul(3);
        if wanted == 0 {
            return Err(NoRaster::Empty);
        }
        if wanted != found {
            return Err(NoRaster::Levels { width, height, wanted, found });
        }
        if encoding.curves.iter().any(|curve| curve.len() < 2) {
            return Err(NoRaster::Curve);
        }
        let lying = match samples {
            Samples::Eight(levels) => reduced::<_, 256>(levels, Extent { wide: width, high: height }, encoding),
            Samples::Sixteen(levels) => reduced::<_, 65_536>(levels, Extent { wide: width, high: height }, encoding),
        };
        Ok(lying.upright(turned))
    }

    fn upright(self, turned: Turned) -> Self {
        if !(2..=8).contains(&turned.0) {
            return self;
        }
        let lying = self.extent();
        let Extent { wide, high } = turned.extent(lying);
        let places = (0..wide * high).map(|at| turned.source(at, lying));
        let (pixels, clipped) = places.map(|at| (self.picture.pixels[at], self.clipped[at])).unzip();
        Self { picture: Picture { size: size(wide, high), pixels }, clipped }
    }

    /// How many pixels it is wide and high.
    pub fn extent(&self) -> Extent {
        self.picture.size.into()
    }
}

#[expect(clippy::cast_possible_truncation, reason = "at most 4096")]
pub(super) fn size(width: usize, height: usize) -> Size {
    Size { width: width as u32, height: height as u32 }
}

/// Into how many pixels each way one goes.
fn step(Extent { wide: width, high: height }: Extent) -> usize {
    let fits = |step: &usize| {
        let (wide, high) = (width.div_ceil(*step), height.div_ceil(*step));
        wide * high <= MOST_PIXELS && wide <= LONGEST && high <= LONGEST
    };
    (1..=width.max(height)).find(fits).unwrap_or(1)
}

/// Of so many kinds of level: a table is as long as there are levels, so that no look into it can miss.
struct Reducing<'a, L, const KINDS: usize> {
    levels: &'a [L],
    /// Of the picture, in pixels.
    extent: Extent,
    /// What each level stands for, of red, green and blue.
    tables: [Box<[f32; KINDS]>; 3],
    /// From this level on what it knew is lost.
    full: usize,
}

/// The sum of some pixels, and how many of them are clipped.
#[derive(Clone, Copy, Default)]
struct Sum {
    light: [f32; 3],
    clipped: u32,
}

/// So many cells are looked at for what is clipped at once.
const TOGETHER: usize = 64;

impl<L: Copy + Ord + Into<usize> + Sync, const KINDS: usize> Reducing<'_, L, KINDS> {
    #[inline]
    fn add(&self, sum: &mut Sum, pixels: &[[L; 3]]) {
        let [reds, greens, blues] = &self.tables;
        for [red, green, blue] in pixels {
            sum.light[0] += reds[(*red).into()];
            sum.light[1] += greens[(*green).into()];
            sum.light[2] += blues[(*blue).into()];
        }
    }

    /// Adds a line of pixels to a line of cells that are so many pixels wide.
    fn add_line<const WIDE: usize>(&self, cells: &mut [Sum], line: &[[L; 3]]) {
        let (whole, rest) = line.as_chunks::<WIDE>();
        for (sum, pixels) in cells.iter_mut().zip(whole) {
            self.add(sum, pixels);
        }
        if let (Some(sum), false) = (cells.last_mut(), rest.is_empty()) {
            self.add(sum, rest);
        }
    }

    /// Counts what is clipped of a line. Most have nothing of it: the brightest level says so for many cells at once.
    fn count_clipped(&self, cells: &mut [Sum], line: &[[L; 3]], wide: usize) {
        for (cells, line) in cells.chunks_mut(TOGETHER).zip(line.chunks(TOGETHER * wide)) {
            let most = line.as_flattened().iter().fold(line[0][0], |most, level| most.max(*level));
            if most.into() < self.full {
                continue;
            }
            for (sum, pixels) in cells.iter_mut().zip(line.chunks(wide)) {
                let clipped = pixels.iter().filter(|pixel| pixel.iter().any(|level| (*level).into() >= self.full));
                sum.clipped += u32::try_from(clipped.count()).unwrap_or(u32::MAX);
            }
        }
    }

    fn reduced(&self, encoding: &Encoding) -> Photo {
        let Extent { wide: width, high: height } = self.extent;
        let step = step(self.extent);
        let (wide, high) = (width.div_ceil(step), height.div_ceil(step));
        let mut pixels = vec![[0.0f32; 3]; wide * high];
        let mut clipped = vec![0u8; wide * high];
        // Of most pictures it is known here how wide a cell is, so that nothing is counted in the innermost loop.
        let add_line = |cells: &mut [Sum], line: &[[L; 3]]| match step {
            1 => self.add_line::<1>(cells, line),
            2 => self.add_line::<2>(cells, line),
            3 => self.add_line::<3>(cells, line),
            4 => self.add_line::<4>(cells, line),
            5 => self.add_line::<5>(cells, line),
            6 => self.add_line::<6>(cells, line),
            _ => cells.iter_mut().zip(line.chunks(step)).for_each(|(sum, pixels)| self.add(sum, pixels)),
        };
        let (whole, _) = self.levels.as_chunks::<3>();
        let rows = pixels.par_chunks_mut(wide).zip(clipped.par_chunks_mut(wide)).enumerate();
        rows.for_each_init(Vec::new, |cells, (row, (pixels, clipped))| {
            cells.clear();
            cells.resize(wide, Sum::default());
            let lines = row * step..((row + 1) * step).min(height);
            let deep = lines.len();
            for line in lines {
                let line = &whole[line * width..][..width];
                add_line(cells, line);
                self.count_clipped(cells, line, step);
            }
            for (at, (cell, (pixel, clipped))) in cells.iter().zip(pixels.iter_mut().zip(clipped)).enumerate() {
                let count = deep * step.min(width - at * step);
                #[expect(clippy::cast_precision_loss, reason = "some pixels")]
                let mean = cell.light.map(|one| one / count as f32);
                *pixel = encoding.to_srgb.map(|row| row[0] * mean[0] + row[1] * mean[1] + row[2] * mean[2]);
                #[expect(clippy::cast_possible_truncation, reason = "at most 255")]
                {
                    *clipped = (cell.clipped as usize * 255).div_ceil(count) as u8;
                }
            }
        });
        Photo { picture: Picture { size: size(wide, high), pixels }, clipped }
    }
}

fn reduced<L: Copy + Ord + Into<usize> + Sync, const KINDS: usize>(
    levels: &[L],
    extent: Extent,
    encoding: &Encoding,
) -> Photo {
    let table = |channel| -> Box<[f32; KINDS]> {
        let table = encoding.table(channel, KINDS).into_boxed_slice();
        table.try_into().unwrap_or_else(|_| Box::new([0.0; KINDS]))
    };
    #[expect(
        clippy::cast_precision_loss,
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "levels of a picture"
    )]
    let full = (FULL * (KINDS - 1) as f64).ceil() as usize;
    Reducing { levels, extent, tables: [0, 1, 2].map(table), full }.reduced(encoding)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn raster(width: usize, height: usize, of: impl Fn(usize, usize) -> u8) -> Raster {
        let samples = (0..width * height).flat_map(|at| [of(at % width, at / width); 3]).collect();
        Raster { width, height, samples: Samples::Eight(samples) }
    }

    fn photo(raster: &Raster, turned: u8) -> Photo {
        Photo::of(raster, &Encoding::srgb(&ToneCurve::srgb()), Turned(turned)).expect("a picture")
    }

    /// Three wide, two high, the upper left corner bright: where it comes to by EXIF 2.32.
    #[rstest]
    #[case(1, (3, 2), (0, 0))]
    #[case(2, (3, 2), (2, 0))]
    #[case(3, (3, 2), (2, 1))]
    #[case(4, (3, 2), (0, 1))]
    #[case(5, (2, 3), (0, 0))]
    #[case(6, (2, 3), (1, 0))]
    #[case(7, (2, 3), (1, 2))]
    #[case(8, (2, 3), (0, 2))]
    #[case(9, (3, 2), (0, 0))]
    fn every_way_up(#[case] turned: u8, #[case] extent: (usize, usize), #[case] bright: (usize, usize)) {
        let upright = photo(&raster(3, 2, |x, y| if (x, y) == (0, 0) { 200 } else { 10 }), turned);
        assert_eq!(upright.extent(), Extent { wide: extent.0, high: extent.1 });
        let at = upright.picture.pixels.iter().position(|one| one[0] > 0.5).expect("it");
        assert_eq!((at % extent.0, at / extent.0), bright);
    }

    /// Large ones are averaged in light, not in levels, and what was full is counted.
    #[test]
    fn a_large_one_is_averaged_in_light() {
        let large = photo(&raster(2400, 1200, |x, _| if x % 2 == 0 { 0 } else { 255 }), 1);
        assert_eq!(large.extent(), Extent { wide: 1200, high: 600 });
        assert!(large.picture.pixels.iter().all(|one| (one[0] - 0.5).abs() < 1e-5));
        assert!(large.clipped.iter().all(|one| *one == 128));
        let odd = photo(&raster(2401, 1201, |_, _| 118), 1);
        assert_eq!(odd.extent(), Extent { wide: 1201, high: 601 });
        assert!(odd.picture.pixels.iter().all(|one| (one[2] - 0.181_16).abs() < 1e-4), "also at the edges");
    }

    #[test]
    fn sixteen_bits_are_as_eight() {
        let levels = [118u16 * 257; 3].to_vec();
        let one = Raster { width: 1, height: 1, samples: Samples::Sixteen(levels) };
        assert!((photo(&one, 1).picture.pixels[0][1] - 0.181_16).abs() < 1e-4);
    }

    #[test]
    fn what_is_no_picture() {
        let encoding = Encoding::srgb(&ToneCurve::srgb());
        let none = Raster { width: 0, height: 4, samples: Samples::Eight(vec![]) };
        assert_eq!(Photo::of(&none, &encoding, Turned(1)), Err(NoRaster::Empty));
        let short = Raster { width: 2, height: 1, samples: Samples::Eight(vec![0; 5]) };
        let said = Photo::of(&short, &encoding, Turned(1)).expect_err("too few").to_string();
        assert_eq!(said, "a picture of 2 × 1 pixels has 6 levels, not 5");
    }
}
