//! A frame without the flash and one with it: the difference is the flash alone.
//!
//! In linear light the two lights add up. The ambient goes by shutter, aperture and sensitivity, the flash by aperture and
//! sensitivity only: the frame without flash is first brought to the exposure of the one with it.

use rayon::prelude::*;

use super::measure::{Mark, Measured, bright, measured, stops};
use super::photo::{Extent, Photo};
use crate::exposure::Ev;
use crate::proof::{Layer, Size, luminance};
use crate::scale::Stops;

/// Two frames of one place.
#[derive(Clone, Copy, Debug)]
pub struct Pair<'a> {
    /// The one without flash.
    pub without: &'a Photo,
    /// The exposure value at ISO 100 its settings are right for, as the camera says them.
    pub without_at: Ev,
    /// The one with flash.
    pub with: &'a Photo,
    /// The exposure value its settings are right for.
    pub with_at: Ev,
}

/// Why two frames cannot be taken apart.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum Unlike {
    /// They are of different sizes.
    #[error(
        "the frame without flash is {without} pixels, the one with it {with}: take both with one camera, held the same way"
    )]
    Size {
        /// Of the copies: from left to right, from top to bottom.
        without: Extent,
        /// The same of the other.
        with: Extent,
    },
}

/// Two lights apart, as they are in the frame with flash.
#[derive(Clone, Debug, PartialEq)]
pub struct Separated {
    /// The light that was there.
    pub ambient: Layer,
    /// The flash alone. Where there is none, noise may take it a little under nothing.
    pub flash: Layer,
    /// How much brighter the frame with flash takes the light that is there.
    pub scale: Stops,
    without_clipped: Vec<u8>,
    with_clipped: Vec<u8>,
}

/// What a part of a pair holds of each light, in stops from mid grey in the frame with flash.
#[derive(Clone, Debug, PartialEq)]
pub struct Parted {
    /// The light that was there; nothing where it is black.
    pub ambient: Option<Stops>,
    /// The flash; nothing where it is so small a part that it cannot be told to a tenth of a stop.
    pub flash: Option<Stops>,
    /// Both together.
    pub together: Option<Stops>,
    /// How much of the luminance is flash, 0 to 1.
    pub flash_share: f64,
    /// Too much is full in one of the frames: ambient and flash are told from what is not, and may be wrong.
    pub clipped: bool,
    /// Too dark to tell: the light that was there in either exposure, or both lights together.
    pub too_dark: bool,
}

impl Pair<'_> {
    /// The two lights, apart.
    ///
    /// # Errors
    /// Frames of different sizes.
    pub fn separated(self) -> Result<Separated, Unlike> {
        let (without, with) = (self.without.extent(), self.with.extent());
        if without != with {
            return Err(Unlike::Size { without, with });
        }
        let scale = self.without_at - self.with_at;
        #[expect(clippy::cast_possible_truncation, reason = "a ratio of exposures")]
        let times = scale.ratio() as f32;
        let size = self.with.picture.size;
        let ambient: Vec<[f32; 3]> =
            self.without.picture.pixels.par_iter().map(|pixel| pixel.map(|one| one * times)).collect();
        let flash = self.with.picture.pixels.par_iter().zip(&ambient);
        let flash = flash.map(|(both, there)| [0, 1, 2].map(|channel| both[channel] - there[channel])).collect();
        Ok(Separated {
            ambient: Layer { size, pixels: ambient },
            flash: Layer { size, pixels: flash },
            scale,
            without_clipped: self.without.clipped.clone(),
            with_clipped: self.with.clipped.clone(),
        })
    }
}

impl Separated {
    /// How big it is.
    pub fn size(&self) -> Size {
        self.ambient.size
    }

    /// What a part of the frame holds of each.
    pub fn parted(&self, mark: Mark) -> Parted {
        let extent = Extent::from(self.size());
        let part = |layer: &Layer, clipped: &[u8]| measured(extent, &layer.pixels, clipped, mark);
        let there = part(&self.ambient, &self.without_clipped);
        let flash = part(&self.flash, &self.with_clipped);
        let both = [0, 1, 2].map(|channel| there.mean[channel] + flash.mean[channel]);
        let (dim, lit, sum) = (bright(there.mean), bright(flash.mean), bright(both));
        // As each frame came, by its own exposure: that is where noise and the steps of its levels are.
        let as_taken = Measured { mean: there.mean.map(|one| one / self.scale.ratio()), ..there };
        let with = Measured { mean: both, ..flash };
        Parted {
            ambient: stops(dim),
            flash: stops(lit).filter(|_| lit > LOST * sum),
            together: stops(sum),
            flash_share: if sum > 0.0 { (lit / sum).clamp(0.0, 1.0) } else { 0.0 },
            clipped: there.is_clipped() || flash.is_clipped(),
            too_dark: there.is_dark() || as_taken.is_dark() || with.is_dark(),
        }
    }

    /// The share of flash at every pixel, 0 to 1; nothing where it is too dark or too bright in one of the frames to tell.
    pub fn shares(&self) -> Vec<Option<f32>> {
        #[expect(clippy::cast_possible_truncation, reason = "a ratio of exposures")]
        let as_taken = self.scale.ratio() as f32;
        // Where there is next to no ambient the flash's share is known all the same: by what black may hide at most.
        let told =
            |there: f32, both: f32| both > BLACK && (there / as_taken > BLACK || BLACK * as_taken < HIDDEN * both);
        self.ambient
            .pixels
            .par_iter()
            .zip(&self.flash.pixels)
            .zip(self.without_clipped.par_iter().zip(&self.with_clipped))
            .map(|((there, flash), (before, after))| {
                let (there, flash) = (luminance(*there), luminance(*flash));
                let both = there + flash;
                (*before < 128 && *after < 128 && told(there, both)).then(|| (flash / both).clamp(0.0, 1.0))
            })
            .collect()
    }
}

/// Under such a part of the whole, a flash is not known to a tenth of a stop: 8 bits and JPEG keep the mean of a patch to
/// about a hundredth (seen on the reference frames).
const LOST: f64 = 0.07;
/// So much of the light may be hidden in a black frame without flash, and the flash's share still be told.
const HIDDEN: f32 = 0.05;
/// Linear light 7 stops under mid grey, where sRGB has levels of four: a single pixel says nothing there. Chosen.
const BLACK: f32 = 0.001_4;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::Shape;
    use crate::proof::Picture;
    use rstest::rstest;

    fn at(shutter_s: f64, f_number: f64, iso: f64) -> Ev {
        Ev::of_values(shutter_s, f_number, iso)
    }

    fn flat(light: f32, clipped: u8) -> Photo {
        let size = Size { width: 8, height: 6 };
        Photo {
            picture: Picture { size, pixels: vec![[light; 3]; size.count()] },
            clipped: vec![clipped; size.count()],
        }
    }

    const WHOLE: Mark = Mark { left: 0.0, top: 0.0, width: 1.0, height: 1.0, shape: Shape::Ellipse };

    /// Ambient 0.1 and flash 0.2 of the frame with flash, whatever the frame without was taken at.
    /// A black frame without flash and a good one with it: all of it is flash, and that is told. Where both are black nothing
    /// is.
    #[test]
    fn a_black_room_is_all_flash() {
        let apart = |without: f32, with: f32| {
            let (without, with) = (flat(without, 0), flat(with, 0));
            let exposure = at(0.005, 4.0, 100.0);
            let pair = Pair { without: &without, without_at: exposure, with: &with, with_at: exposure };
            pair.separated().expect("alike").shares()
        };
        assert!(apart(0.0, 0.18).iter().all(|share| share.is_some_and(|share| share > 0.95)));
        assert!(apart(0.0, 0.001).iter().all(Option::is_none));
        assert!(apart(0.0009, 0.004).iter().all(Option::is_none), "too much may be hidden in black");
    }

    #[rstest]
    #[case(at(0.01, 4.0, 100.0), 0.1)]
    #[case(at(0.04, 4.0, 100.0), 0.4)]
    #[case(at(0.01, 8.0, 100.0), 0.025)]
    #[case(at(0.01, 4.0, 400.0), 0.4)]
    fn exposures_may_differ(#[case] without_at: Ev, #[case] without: f32) {
        let (without, with) = (flat(without, 0), flat(0.3, 0));
        let pair = Pair { without: &without, without_at, with: &with, with_at: at(0.01, 4.0, 100.0) };
        let parted = pair.separated().expect("alike").parted(WHOLE);
        assert!((parted.flash_share - 2.0 / 3.0).abs() < 1e-5, "{parted:?}");
        assert!((parted.ambient.expect("some").0 - (0.1f64 / 0.18).log2()).abs() < 1e-5);
        assert!((parted.flash.expect("some").0 - (0.2f64 / 0.18).log2()).abs() < 1e-5);
        assert!(!parted.clipped && !parted.too_dark);
    }

    #[test]
    fn what_cannot_be_told_is_said() {
        let same = at(0.01, 4.0, 100.0);
        let of = |without: Photo, with: Photo| {
            let separated = Pair { without: &without, without_at: same, with: &with, with_at: same }.separated();
            let separated = separated.expect("alike");
            (separated.parted(WHOLE), separated.shares()[0])
        };
        let (clipped, share) = of(flat(0.1, 0), flat(1.0, 255));
        assert!(clipped.clipped && share.is_none());
        let (dark, share) = of(flat(0.000_5, 0), flat(0.005, 0));
        assert!(dark.too_dark && share.is_none());
        let (dark, share) = of(flat(0.000_5, 0), flat(0.3, 0));
        assert!(dark.too_dark && share.is_some_and(|share| share > 0.99), "how dark it is, not how much is flash");
        let (none, share) = of(flat(0.2, 0), flat(0.2, 0));
        assert_eq!((none.flash, none.flash_share, share), (None, 0.0, Some(0.0)));
        let narrow =
            Photo { picture: Picture { size: Size { width: 1, height: 1 }, pixels: vec![[0.1; 3]] }, clipped: vec![0] };
        let wide = flat(0.1, 0);
        let unlike = Pair { without: &narrow, without_at: same, with: &wide, with_at: same }.separated();
        assert_eq!(
            unlike,
            Err(Unlike::Size { without: Extent { wide: 1, high: 1 }, with: Extent { wide: 8, high: 6 } })
        );
    }
}
