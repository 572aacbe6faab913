//! Large pictures are rendered in bands of rows, one after the other: what the lens sees takes thirty times the room of a
//! layer, several hundred megabytes for a picture of two million pixels. The picture is the same, number for number, as if it
//! was rendered at once.

use std::ops::Range;

use super::faces::{Fineness, Source, layer};
use super::picture::{Layer, Size};
use super::scene::Scene;
use super::there::There;
use super::work::Work;

/// A picture of up to so many pixels is one band; a band has no more, with its margins, unless two rows do.
const MOST: usize = 600_000;
/// So many rows above and below a band decide about its own: smoothing looks as far as 2 · (1 + 2 + 4 + 8) rows in four
/// rounds, what is carried over from pixels around looks one farther, and so do edges. Even, so that the same rows are passed
/// over.
const MARGIN: u32 = 32;

/// Some rows of a picture.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Band {
    /// Its own rows.
    pub own: Range<u32>,
    /// Those that are rendered: its own and its margins.
    pub rendered: Range<u32>,
}

impl Size {
    /// The bands that a picture of this size is rendered in: one unless it is large.
    pub fn bands(self) -> Vec<Band> {
        self.in_bands_of(MOST)
    }

    fn in_bands_of(self, most: usize) -> Vec<Band> {
        if self.count() <= most || self.width == 0 {
            return vec![Band { own: 0..self.height, rendered: 0..self.height }];
        }
        let rows = u32::try_from(most / self.width as usize).unwrap_or(u32::MAX);
        let own = (rows.saturating_sub(2 * MARGIN) & !1).max(2);
        let begins = (0..self.height).step_by(own as usize);
        let band = |begin: u32| {
            let own = begin..(begin + own).min(self.height);
            let rendered = begin.saturating_sub(MARGIN)..(own.end + MARGIN).min(self.height);
            Band { own, rendered }
        };
        begins.map(band).collect()
    }
}

impl Band {
    /// What of a picture of the rendered rows is of its own.
    fn of<'a, T>(&self, width: u32, pixels: &'a [T]) -> &'a [T] {
        let from = ((self.own.start - self.rendered.start) * width) as usize;
        &pixels[from..from + (self.own.len() * width as usize)]
    }
}

/// Every layer of some lights and of the light that is there, where that is asked for, band by band; nothing where it was
/// stopped.
pub fn layers(
    scene: &Scene,
    size: Size,
    (lights, there): (&[&Source], Option<&There>),
    fineness: Fineness,
    work: &Work,
) -> Option<(Vec<Layer>, Vec<Layer>)> {
    in_bands(&size.bands(), scene, size, (lights, there), fineness, work)
}

fn in_bands(
    bands: &[Band],
    scene: &Scene,
    size: Size,
    (lights, there): (&[&Source], Option<&There>),
    fineness: Fineness,
    work: &Work,
) -> Option<(Vec<Layer>, Vec<Layer>)> {
    let empty = || Layer { size, pixels: Vec::with_capacity(size.count()) };
    let mut of_lights: Vec<Layer> = lights.iter().map(|_| empty()).collect();
    let mut of_places: Vec<Layer> = there.iter().flat_map(|there| &there.places).map(|_| empty()).collect();
    for band in bands {
        let seen = scene.seen_band(size, band.rendered.clone());
        let add = |to: &mut Layer, one: &Layer| to.pixels.extend_from_slice(band.of(size.width, &one.pixels));
        for (whole, light) in of_lights.iter_mut().zip(lights) {
            add(whole, &layer(scene, &seen, light, fineness, work)?);
        }
        if let Some(there) = there {
            for (whole, one) in of_places.iter_mut().zip(&there.layers(scene, &seen, fineness, work)?) {
                add(whole, one);
            }
        }
    }
    Some((of_lights, of_places))
}

impl Scene {
    /// How much of each pixel sees things of which this is said, 0 to 1; nothing is the sky.
    pub fn parts(&self, size: Size, is: impl Fn(Option<u32>) -> bool) -> Vec<f32> {
        let mut parts = Vec::with_capacity(size.count());
        for band in size.bands() {
            parts.extend_from_slice(band.of(size.width, &self.seen_band(size, band.rendered.clone()).parts(&is)));
        }
        parts
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// Every row is some band's own, once; margins are as wide as they are to be, bands begin on even rows and are no larger
    /// than they may be.
    #[rstest]
    #[case::small(640, 427, 1)]
    #[case::at_its_end(1000, 600, 1)]
    #[case::large(1920, 1280, 6)]
    #[case::odd(1921, 1281, 6)]
    #[case::upright(1280, 1920, 5)]
    #[case::low(4096, 200, 3)]
    fn every_row_is_of_one_band(#[case] width: u32, #[case] height: u32, #[case] count: usize) {
        let size = Size { width, height };
        let bands = size.bands();
        assert_eq!(bands.len(), count);
        let own: Vec<u32> = bands.iter().flat_map(|band| band.own.clone()).collect();
        assert!(own.into_iter().eq(0..height));
        for band in &bands {
            assert_eq!(band.rendered.start % 2, 0);
            assert!(band.own.start - band.rendered.start == MARGIN.min(band.own.start));
            assert!(band.rendered.end - band.own.end == MARGIN.min(height - band.own.end));
            assert!(band.rendered.len() * width as usize <= MOST);
        }
    }
}
