//! Pictures in linear light, and what is made of them.

use rand_chacha::ChaCha8Rng;
use rand_chacha::rand_core::SeedableRng as _;
use rand_distr::{Distribution as _, StandardNormal};
use rayon::prelude::*;

/// A picture's size in pixels.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Size {
    /// From left to right, 1 to 4096.
    pub width: u32,
    /// From top to bottom, 1 to 4096.
    pub height: u32,
}

impl Size {
    /// So wide at most in either direction, in the proportions of a frame (its width over its height).
    pub fn of_frame(longest: u32, proportion: f64) -> Self {
        let longest = longest.clamp(16, 4096);
        let other = |proportion: f64| {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "at most 4096")]
            let other = (f64::from(longest) * proportion).round().clamp(1.0, 4096.0) as u32;
            other
        };
        if proportion >= 1.0 {
            Self { width: longest, height: other(1.0 / proportion) }
        } else {
            Self { width: other(proportion), height: longest }
        }
    }

    /// How many pixels.
    pub fn count(self) -> usize {
        self.width as usize * self.height as usize
    }

    /// Pixels from left to right, to compute with.
    #[expect(clippy::cast_precision_loss, reason = "at most 4096")]
    pub fn wide(self) -> f32 {
        self.width as f32
    }

    /// Pixels from top to bottom, to compute with.
    #[expect(clippy::cast_precision_loss, reason = "at most 4096")]
    pub fn high(self) -> f32 {
        self.height as f32
    }

    /// Every pixel with its left and upper edge, row by row from above.
    pub fn pixels(self) -> impl Iterator<Item = (u32, f32, f32)> {
        #[expect(clippy::cast_precision_loss, reason = "at most 4096")]
        (0..self.width * self.height)
            .map(move |pixel| (pixel, (pixel % self.width) as f32, (pixel / self.width) as f32))
    }
}

/// What one light gives every pixel, where it gives 1 by its own measure. Linear sRGB, as if the light were neutral.
#[derive(Clone, Debug, PartialEq)]
pub struct Layer {
    /// The picture's size.
    pub size: Size,
    /// Row by row from above.
    pub pixels: Vec<[f32; 3]>,
}

/// How bright a linear sRGB colour is. Source: IEC 61966-2-1 (the weights of Rec. 709).
pub fn luminance([red, green, blue]: [f32; 3]) -> f32 {
    0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/// Mid grey. Source: physics.md, the grey card of 18 %.
pub const MID_GREY: f32 = 0.18;

/// A picture in linear light: 1 is full.
#[derive(Clone, Debug, PartialEq)]
pub struct Picture {
    /// Its size.
    pub size: Size,
    /// Row by row from above: red, green, blue.
    pub pixels: Vec<[f32; 3]>,
}

/// How many steps the tone curve is read in.
const STEPS: usize = 1 << 14;

/// The level of 255 for a linear value. Source: IEC 61966-2-1.
fn level(linear: f32) -> f32 {
    let value = if linear <= 0.003_130_8 { 12.92 * linear } else { 1.055 * linear.powf(1.0 / 2.4) - 0.055 };
    value * 255.0
}

fn curve() -> &'static [u8] {
    static CURVE: std::sync::LazyLock<Vec<u8>> = std::sync::LazyLock::new(|| {
        #[expect(
            clippy::cast_precision_loss,
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "levels of 255"
        )]
        (0..=STEPS).map(|step| level(step as f32 / STEPS as f32).round() as u8).collect()
    });
    &CURVE
}

impl Picture {
    /// Layers weighed and summed: each with what its light comes to in red, green and blue.
    pub fn developed(size: Size, layers: &[(&Layer, [f32; 3])]) -> Self {
        let mut pixels = vec![[0.0; 3]; size.count()];
        pixels.par_chunks_mut(4096).enumerate().for_each(|(chunk, pixels)| {
            for (layer, weight) in layers.iter().filter(|(layer, _)| layer.size == size) {
                for (sum, one) in pixels.iter_mut().zip(&layer.pixels[chunk * 4096..]) {
                    for channel in 0..3 {
                        sum[channel] += one[channel] * weight[channel];
                    }
                }
            }
        });
        Self { size, pixels }
    }

    /// As a screen shows it: sRGB, three bytes a pixel; what is over full is white.
    ///
    /// ```
    /// use tolva_core::proof::{Picture, Size};
    /// let grey = |stops: f32| {
    ///     let one = Picture { size: Size { width: 1, height: 1 }, pixels: vec![[0.18 * stops.exp2(); 3]] };
    ///     one.srgb()[0]
    /// };
    /// // Mid grey is level 118; 2.47 stops over it is full (proof.md, worked out from IEC 61966-2-1).
    /// assert_eq!((grey(0.0), grey(2.47), grey(3.0)), (118, 255, 255));
    /// ```
    pub fn srgb(&self) -> Vec<u8> {
        let curve = curve();
        #[expect(
            clippy::cast_precision_loss,
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "a place of the curve"
        )]
        let shown = |value: f32| curve[(value.clamp(0.0, 1.0) * STEPS as f32 + 0.5) as usize];
        let mut bytes = vec![0; self.pixels.len() * 3];
        bytes.par_chunks_mut(3 * 4096).zip(self.pixels.par_chunks(4096)).for_each(|(bytes, pixels)| {
            for (bytes, pixel) in bytes.chunks_exact_mut(3).zip(pixels) {
                bytes.copy_from_slice(&pixel.map(shown));
            }
        });
        bytes
    }

    /// Which pixels are clipped: any channel over full.
    pub fn clipped(&self) -> impl Iterator<Item = bool> + '_ {
        self.pixels.iter().map(|pixel| pixel.iter().any(|part| *part >= 1.0))
    }

    /// How many pixels stand at which level, in 64 steps of four levels: luminance, red, green, blue.
    pub fn histogram(&self) -> [[u32; 64]; 4] {
        let mut counted = [[0; 64]; 4];
        for (bytes, pixel) in self.srgb().chunks_exact(3).zip(&self.pixels) {
            let grey = curve()[place(luminance(*pixel))];
            for (channel, level) in [grey, bytes[0], bytes[1], bytes[2]].into_iter().enumerate() {
                counted[channel][usize::from(level / 4)] += 1;
            }
        }
        counted
    }

    /// The mean around a place of the frame (from the left and from above, 0 to 1), over a few pixels.
    pub fn around(&self, [left, down]: [f32; 2]) -> [f32; 3] {
        mean(self.size, &self.pixels, [left, down])
    }
}

#[expect(
    clippy::cast_precision_loss,
    clippy::cast_possible_truncation,
    clippy::cast_sign_loss,
    reason = "a place of the curve"
)]
fn place(value: f32) -> usize {
    (value.clamp(0.0, 1.0) * STEPS as f32 + 0.5) as usize
}

impl Picture {
    /// The same in whole pixels put together, `step` by `step`: each the mean of what it stands for.
    #[must_use]
    pub fn together(&self, step: usize) -> Self {
        together(self.size, &self.pixels, step)
    }
}

fn together(size: Size, pixels: &[[f32; 3]], step: usize) -> Picture {
    let (width, height, step) = (size.width as usize, size.height as usize, step.max(1));
    let (across, along) = ((width / step).max(1), (height / step).max(1));
    let mut small = Vec::with_capacity(across * along);
    for row in 0..along {
        for column in 0..across {
            let mut sum = [0.0; 3];
            let mut count = 0.0;
            for y in (row * step..(row + 1) * step).take_while(|y| *y < height) {
                for x in (column * step..(column + 1) * step).take_while(|x| *x < width) {
                    for (sum, part) in sum.iter_mut().zip(pixels[y * width + x]) {
                        *sum += part;
                    }
                    count += 1.0;
                }
            }
            small.push(sum.map(|one| one / count));
        }
    }
    let number = |pixels: usize| u32::try_from(pixels).unwrap_or(u32::MAX);
    Picture { size: Size { width: number(across), height: number(along) }, pixels: small }
}

impl Layer {
    /// The same in whole pixels put together, `step` by `step`.
    #[must_use]
    pub fn together(&self, step: usize) -> Self {
        let Picture { size, pixels } = together(self.size, &self.pixels, step);
        Self { size, pixels }
    }

    /// The mean around a place of the frame.
    pub fn around(&self, at: [f32; 2]) -> [f32; 3] {
        mean(self.size, &self.pixels, at)
    }
}

/// A photosite holds so many electrons where ISO 100 is full, and reads them with so much noise. Typical, from memory.
const FULL_AT_100: f32 = 50_000.0;
const READ_NOISE: f32 = 3.0;

impl Picture {
    /// With the grain of a sensitivity, as one sees it where every pixel of the camera is one of the screen: what is counted
    /// is scattered by the root of it (Poisson), and reading adds a little. The same seed scatters alike.
    #[must_use]
    pub fn grained(mut self, iso: f32, seed: u32) -> Self {
        let full = FULL_AT_100 * 100.0 / iso.max(1.0);
        let wide = (self.size.width as usize).max(1);
        self.pixels.par_chunks_mut(wide).enumerate().for_each(|(row, pixels)| {
            // Each row draws by itself, so that the grain is the same however rows are shared among processors.
            let mut dice = ChaCha8Rng::seed_from_u64(u64::from(seed) << 32 | row as u64);
            for part in pixels.iter_mut().flatten() {
                let counted = (*part * full).max(0.0);
                let scatter: f32 = StandardNormal.sample(&mut dice);
                *part += scatter * (counted + READ_NOISE * READ_NOISE).sqrt() / full;
            }
        });
        self
    }
}

impl Layer {
    /// Smeared sideways over so many pixels, as what moves while the shutter is open.
    #[must_use]
    pub fn moved(&self, pixels: f32) -> Self {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few hundred pixels")]
        let half = (pixels.clamp(0.0, self.size.wide() / 2.0) / 2.0).round() as usize;
        if half == 0 {
            return self.clone();
        }
        let width = self.size.width as usize;
        let mut moved = self.pixels.clone();
        moved.par_chunks_mut(width).zip(self.pixels.par_chunks(width)).for_each(|(line, from)| {
            for (x, pixel) in line.iter_mut().enumerate() {
                let (first, last) = (x.saturating_sub(half), (x + half).min(width - 1));
                let mut sum = [0.0_f32; 3];
                from[first..=last].iter().for_each(|one| sum.iter_mut().zip(one).for_each(|(sum, part)| *sum += part));
                #[expect(clippy::cast_precision_loss, reason = "a few hundred pixels")]
                let count = (last - first + 1) as f32;
                *pixel = sum.map(|part| part / count);
            }
        });
        Self { size: self.size, pixels: moved }
    }
}

/// Over three by three pixels.
fn mean(size: Size, pixels: &[[f32; 3]], [left, down]: [f32; 2]) -> [f32; 3] {
    #[expect(clippy::cast_possible_truncation, reason = "a pixel")]
    let pixel = |part: f32, count: f32| (part.clamp(0.0, 1.0) * count - 0.5).round() as i64;
    let (x, y) = (pixel(left, size.wide()), pixel(down, size.high()));
    let mut sum = [0.0_f32; 3];
    let mut count = 0.0;
    for (x, y) in (-1..=1).flat_map(|right| (-1..=1).map(move |below| (x + right, y + below))) {
        let inside = (0..i64::from(size.width)).contains(&x) && (0..i64::from(size.height)).contains(&y);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "inside")]
        let index = (y * i64::from(size.width) + x) as usize;
        if inside {
            count += 1.0;
            sum.iter_mut().zip(pixels[index]).for_each(|(sum, part)| *sum += part);
        }
    }
    sum.map(|part| part / f32::max(count, 1.0))
}

#[cfg(test)]
mod tests {
    use super::*;

    const SIZE: Size = Size { width: 4, height: 2 };

    fn layer(value: f32) -> Layer {
        Layer { size: SIZE, pixels: vec![[value, value / 2.0, 0.0]; SIZE.count()] }
    }

    #[test]
    fn layers_add_up_by_their_weights() {
        let (one, two) = (layer(0.2), layer(0.4));
        let picture = Picture::developed(SIZE, &[(&one, [1.0; 3]), (&two, [0.5, 1.0, 1.0])]);
        assert!(
            picture.pixels.iter().all(|[red, green, blue]| {
                (red - 0.4).abs() < 1e-6 && (green - 0.3).abs() < 1e-6 && blue.abs() < 1e-9
            })
        );
        let around = picture.around([0.0, 0.0]);
        assert!((around[0] - 0.4).abs() < 1e-6, "{around:?}");
        let odd = Layer { size: Size { width: 1, height: 1 }, pixels: vec![[1.0; 3]] };
        assert_eq!(
            Picture::developed(SIZE, &[(&one, [1.0; 3]), (&odd, [1.0; 3])]).pixels,
            one.pixels,
            "of another size"
        );
    }

    #[test]
    fn what_is_over_full_is_clipped_and_counted() {
        let picture = Picture { size: SIZE, pixels: [vec![[1.2, 0.1, 0.1]; 2], vec![[0.18; 3]; 6]].concat() };
        assert_eq!(picture.clipped().filter(|clipped| *clipped).count(), 2);
        let [grey, red, ..] = picture.histogram();
        assert_eq!((red[63], red[118 / 4], grey.iter().sum::<u32>()), (2, 6, 8));
    }

    /// Shot noise: at mid grey of ISO 1600, 562 electrons are counted, which scatter by 23.7.
    #[test]
    fn grain_is_the_root_of_what_is_counted() {
        let size = Size { width: 200, height: 200 };
        let even = Picture { size, pixels: vec![[MID_GREY; 3]; size.count()] };
        let grained = even.clone().grained(1600.0, 3);
        #[expect(clippy::cast_precision_loss, reason = "forty thousand")]
        let count = size.count() as f32;
        let mean = grained.pixels.iter().map(|pixel| pixel[1]).sum::<f32>() / count;
        let scatter = (grained.pixels.iter().map(|pixel| (pixel[1] - mean).powi(2)).sum::<f32>() / count).sqrt();
        let full = 50_000.0 / 16.0;
        let expected = ((MID_GREY * full) + 9.0_f32).sqrt() / full;
        assert!(
            (mean - MID_GREY).abs() < 2e-4 && (scatter / expected - 1.0).abs() < 0.03,
            "{mean} {scatter} {expected}"
        );
        // No channel knows of another.
        let off = |channel: usize| grained.pixels.iter().map(move |pixel| pixel[channel] - mean).collect::<Vec<f32>>();
        let (red, green, blue) = (off(0), off(1), off(2));
        let correlation = |one: &[f32], other: &[f32]| {
            let sum = |a: &[f32], b: &[f32]| a.iter().zip(b).map(|(a, b)| f64::from(a * b)).sum::<f64>();
            sum(one, other) / (sum(one, one) * sum(other, other)).sqrt()
        };
        for (one, other) in [(&red, &green), (&green, &blue), (&red, &blue)] {
            assert!(correlation(one, other).abs() < 0.05, "{}", correlation(one, other));
        }
        assert_eq!(grained, even.grained(1600.0, 3), "the same seed, the same grain");
    }

    #[test]
    fn what_moves_is_smeared_and_nothing_is_lost() {
        let size = Size { width: 9, height: 1 };
        let mut pixels = vec![[0.0; 3]; 9];
        pixels[4] = [0.9; 3];
        let still = Layer { size, pixels };
        let moved = still.moved(4.0);
        assert!((moved.pixels[2..=6].iter().map(|pixel| pixel[0]).sum::<f32>() - 0.9).abs() < 1e-6);
        assert!((moved.pixels[4][0] - 0.18).abs() < 1e-6 && moved.pixels[1][0].abs() < 1e-9);
        assert_eq!(still.moved(0.3), still);
    }

    #[test]
    fn sizes_keep_the_frame() {
        assert_eq!(Size::of_frame(640, 1.5), Size { width: 640, height: 427 });
        assert_eq!(Size::of_frame(640, 1.0 / 1.5), Size { width: 427, height: 640 });
        assert_eq!(Size::of_frame(99_999, 1.0).width, 4096);
    }
}
