//! What came in a part of a frame: stops from mid grey, what is clipped, the white balance.

use super::photo::{Extent, Photo};
use crate::colour::LinearRgb;
use crate::proof::{MID_GREY, Picture, Size, luminance};
use crate::scale::Stops;

/// What a mark looks like.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Shape {
    /// All of its box.
    Box,
    /// The ellipse that touches its box.
    Ellipse,
}

/// A part of a frame, in shares of its width and height from its upper left corner.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Mark {
    /// Its left edge, 0 to 1.
    pub left: f64,
    /// Its upper edge, 0 to 1.
    pub top: f64,
    /// Its width, over 0 to 1.
    pub width: f64,
    /// Its height, over 0 to 1.
    pub height: f64,
    /// What it looks like.
    pub shape: Shape,
}

/// What came in a part of a frame.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Measured {
    /// The mean in linear sRGB.
    pub mean: [f64; 3],
    /// How much of it was full in any channel, 0 to 1.
    pub clipped: f64,
    /// How much it varies: the standard deviation of the luminance over its mean.
    pub varies: f64,
    /// How many pixels of the copy were measured.
    pub pixels: usize,
}

/// With more than this clipped a part says only that it is at least so bright. Chosen.
const MOST_CLIPPED: f64 = 0.02;
/// Darker than this, noise and the steps of 8 bits are a tenth of a stop. Chosen; 5½ stops under mid grey is level 10.
const DARKEST: Stops = Stops(-5.5);

impl Mark {
    /// A box in pixels of a frame of this size.
    pub fn of_pixels([left, top, width, height]: [f64; 4], of: Extent) -> Self {
        #[expect(clippy::cast_precision_loss, reason = "a size in pixels")]
        let (wide, high) = (of.wide as f64, of.high as f64);
        Self { left: left / wide, top: top / high, width: width / wide, height: height / high, shape: Shape::Box }
    }

    /// The same, moved by shares of the frame's width and height, as far as the frame goes.
    #[must_use]
    pub fn moved(self, right: f64, down: f64) -> Self {
        let within = |at: f64, extent: f64| at.clamp(0.0, (1.0 - extent).max(0.0));
        Self { left: within(self.left + right, self.width), top: within(self.top + down, self.height), ..self }
    }

    /// The pixels of a frame of this size whose middles lie in it.
    pub fn pixels(self, Extent { wide, high }: Extent) -> impl Iterator<Item = usize> {
        #[expect(
            clippy::cast_precision_loss,
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "pixels of a picture"
        )]
        let ends = move |start: f64, extent: f64, count: usize| {
            let first = (start * count as f64).round().clamp(0.0, count as f64 - 1.0) as usize;
            let last = ((start + extent) * count as f64).round().clamp(0.0, count as f64) as usize;
            (first, last.max(first + 1))
        };
        let ((left, right), (top, bottom)) = (ends(self.left, self.width, wide), ends(self.top, self.height, high));
        #[expect(clippy::cast_precision_loss, reason = "pixels of a picture")]
        let inside = move |x: usize, y: usize| {
            let part = |at: usize, first: usize, last: usize| (at - first) as f64 + 0.5 - (last - first) as f64 / 2.0;
            let (across, along) = (part(x, left, right), part(y, top, bottom));
            let (half, tall) = ((right - left) as f64 / 2.0, (bottom - top) as f64 / 2.0);
            self.shape == Shape::Box || (across / half).powi(2) + (along / tall).powi(2) <= 1.0
        };
        (top..bottom)
            .flat_map(move |y| (left..right).map(move |x| (x, y)))
            .filter(move |(x, y)| inside(*x, *y))
            .map(move |(x, y)| y * wide + x)
    }
}

impl Photo {
    /// A part of the frame by itself, its pixels in a row: to count what stands in it.
    ///
    /// ```
    /// use tolva_core::frame::{Mark, Photo, Shape};
    /// use tolva_core::proof::{Picture, Size};
    /// let size = Size { width: 4, height: 2 };
    /// let photo = Photo { picture: Picture { size, pixels: vec![[0.18; 3]; 8] }, clipped: vec![0; 8] };
    /// let left = Mark { left: 0.0, top: 0.0, width: 0.5, height: 1.0, shape: Shape::Box };
    /// assert_eq!(photo.part(left).histogram()[0].iter().sum::<u32>(), 4);
    /// ```
    pub fn part(&self, mark: Mark) -> Picture {
        let pixels: Vec<[f32; 3]> = mark.pixels(self.extent()).map(|at| self.picture.pixels[at]).collect();
        Picture { size: Size { width: u32::try_from(pixels.len()).unwrap_or(u32::MAX), height: 1 }, pixels }
    }

    /// What came in a part of the frame.
    pub fn measured(&self, mark: Mark) -> Measured {
        measured(self.extent(), &self.picture.pixels, &self.clipped, mark)
    }
}

/// What stands in a part of a picture of this size, and how much of it was full.
pub(super) fn measured(extent: Extent, pixels: &[[f32; 3]], clipped: &[u8], mark: Mark) -> Measured {
    let (mut sum, mut squares, mut full, mut count) = ([0.0; 3], 0.0, 0.0, 0_usize);
    for at in mark.pixels(extent) {
        for (sum, part) in sum.iter_mut().zip(pixels[at]) {
            *sum += f64::from(part);
        }
        squares += f64::from(luminance(pixels[at])).powi(2);
        full += f64::from(clipped[at]) / 255.0;
        count += 1;
    }
    #[expect(clippy::cast_precision_loss, reason = "at most two million pixels")]
    let over = count.max(1) as f64;
    let mean = sum.map(|one| one / over);
    let light = bright(mean);
    let varies = if light > 0.0 { (squares / over - light * light).max(0.0).sqrt() / light } else { 0.0 };
    Measured { mean, clipped: full / over, varies, pixels: count }
}

/// Luminance. Source: IEC 61966-2-1 (the weights of Rec. 709).
pub(super) fn bright([red, green, blue]: [f64; 3]) -> f64 {
    0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/// Stops from mid grey; nothing where there is no light.
pub(super) fn stops(light: f64) -> Option<Stops> {
    (light > 0.0).then(|| Stops((light / f64::from(MID_GREY)).log2()))
}

impl Measured {
    /// Stops from mid grey; nothing where it is black.
    pub fn stops(&self) -> Option<Stops> {
        stops(bright(self.mean))
    }

    /// Too much is full to tell how bright it is.
    pub fn is_clipped(&self) -> bool {
        self.clipped > MOST_CLIPPED
    }

    /// Too dark to tell how dark.
    pub fn is_dark(&self) -> bool {
        self.stops().is_none_or(|stops| stops < DARKEST)
    }

    /// Red over green in linear light; nothing where green is black.
    pub fn red_over_green(&self) -> Option<f64> {
        (self.mean[1] > 0.0).then(|| self.mean[0] / self.mean[1])
    }

    /// Blue over green in linear light; nothing where green is black.
    pub fn blue_over_green(&self) -> Option<f64> {
        (self.mean[1] > 0.0).then(|| self.mean[2] / self.mean[1])
    }

    /// The mean as levels of sRGB, 0 to 255, as a patch that is typed in.
    pub fn levels(&self) -> [f64; 3] {
        LinearRgb(self.mean).levels()
    }
}
