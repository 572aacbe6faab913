//! Large pictures are rendered in bands of rows, one after the other: what the lens sees takes thirty times the room of a
//! layer, several hundred megabytes for a picture of two million pixels. The picture is the same, number for number, as if it
//! was rendered at once.

use std::ops::Range;

use super::faces::{Fineness, Source, layer};
use super::picture::{Layer, Size};
use super::scene::Scene;
use super::spot::Seen;
use super::there::There;
use super::work::Work;

/// The most pixels of a band, margins included. A smaller picture is one band; only one whose rows are very long has larger ones.
const MOST: usize = 600_000;
/// Rows rendered above and below a band, because its own pixels depend on them: four rounds of smoothing reach
/// 2 · (1 + 2 + 4 + 8) = 30 rows, interpolation between rendered pixels and edge detection one more each. Even, because every
/// other row is interpolated, and those must be the same rows as in the whole picture.
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
        if self.count() <= MOST || self.width == 0 {
            return vec![Band { own: 0..self.height, rendered: 0..self.height }];
        }
        let rows = u32::try_from(MOST / self.width as usize).unwrap_or(u32::MAX);
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

/// What layers are rendered of: lights, and the ambient where its layers are wanted too.
pub type Lit<'a> = (&'a [&'a Source], Option<&'a There>);

/// The layers of `lights`, and one for each place of the ambient, from what the lens sees; nothing where it was stopped.
pub fn layers_of(
    scene: &Scene,
    seen: &Seen,
    (lights, there): Lit<'_>,
    fineness: Fineness,
    work: &Work,
) -> Option<(Vec<Layer>, Vec<Layer>)> {
    let of_lights = lights.iter().map(|light| layer(scene, seen, light, fineness, work)).collect::<Option<_>>()?;
    let of_places = match there {
        Some(there) => there.layers(scene, seen, fineness, work)?,
        None => Vec::new(),
    };
    Some((of_lights, of_places))
}

/// The same for a picture of any size, rendered band by band.
pub fn layers(
    scene: &Scene,
    size: Size,
    lit: Lit<'_>,
    fineness: Fineness,
    work: &Work,
) -> Option<(Vec<Layer>, Vec<Layer>)> {
    let empty = |count: usize| -> Vec<Layer> {
        (0..count).map(|_| Layer { size, pixels: Vec::with_capacity(size.count()) }).collect()
    };
    let (lights, there) = lit;
    let (mut of_lights, mut of_places) = (empty(lights.len()), empty(there.map_or(0, |there| there.places.len())));
    for band in size.bands() {
        let seen = scene.seen_rows(size, band.rendered.clone());
        let (lights, places) = layers_of(scene, &seen, lit, fineness, work)?;
        let whole = of_lights.iter_mut().chain(&mut of_places);
        for (whole, part) in whole.zip(lights.iter().chain(&places)) {
            whole.pixels.extend_from_slice(band.of(size.width, &part.pixels));
        }
    }
    Some((of_lights, of_places))
}

impl Scene {
    /// How much of each pixel sees things of which this is said, 0 to 1; nothing is the sky.
    pub fn parts(&self, size: Size, is: impl Fn(Option<u32>) -> bool) -> Vec<f32> {
        let mut parts = Vec::with_capacity(size.count());
        for band in size.bands() {
            let seen = self.seen_rows(size, band.rendered.clone());
            parts.extend_from_slice(band.of(size.width, &seen.parts(&is)));
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
