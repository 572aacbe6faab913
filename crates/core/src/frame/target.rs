//! A two-tone target: a light and a dark grey side by side, found by itself, and what it says of exposure and white balance.

use super::measure::{Mark, Measured, Shape, bright};
use super::photo::{Extent, Photo};
use crate::proof::Picture;
use crate::scale::Stops;

/// What a target's two halves reflect.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TwoTone {
    /// The light half: 0.5 to 1.
    pub light: f64,
    /// The dark half: over 0, at most a quarter of the light one.
    pub dark: f64,
}

impl Default for TwoTone {
    /// Source: frames.md, the target of the reference frames.
    fn default() -> Self {
        Self { light: 0.90, dark: 0.035 }
    }
}

/// A target in a frame.
#[derive(Clone, Debug, PartialEq)]
pub struct Target {
    /// Both halves.
    pub at: Mark,
    /// Where its light half is measured, well inside it.
    pub light_at: Mark,
    /// Its light half, well inside.
    pub light: Measured,
    /// Its dark half, well inside.
    pub dark: Measured,
    /// How far over the right exposure the frame is, from the difference of the halves, which stray light does not touch.
    pub off: Stops,
    /// Stray light, as a share of the light half: flare, haze, or a shine on the target.
    pub stray: f64,
    /// The light half is full: it can be told only that the frame is at least so far over.
    pub clipped: bool,
}

/// A picture so wide is looked through.
const WIDE: usize = 720;
/// In levels of 255, so far may a pixel be from what it is put together with.
const ALIKE: f32 = 7.0;
/// A half covers at least so much of the frame.
const LEAST: f64 = 0.000_8;
/// A half covers at most so much: four fifths of a target that fills the frame, and a little.
const MOST: f64 = 0.86;
/// Largest ratio of the two halves' areas, in powers of two: 80 to 20.
const MOST_UNEQUAL: f64 = 2.15;
/// Halves more unequal than this must lie closely along one edge.
const UNEQUAL: f64 = 1.0;
/// Number of places at which a box drawn round a target is tried as its edge.
const CUTS: u8 = 13;
/// The edges of a half are left out, by so much of it on each side.
const INSIDE: f64 = 0.2;

/// The target in a frame; nothing where there is none. Where several could be it, the one nearest to its contrast.
pub fn found(photo: &Photo, target: TwoTone) -> Option<Target> {
    let small = photo.smaller(WIDE);
    let areas = areas(&small);
    let mut best: Option<(f64, &Area, &Area)> = None;
    for light in &areas {
        for dark in &areas {
            if let Some(unlike) = light.beside(dark, target)
                && best.is_none_or(|(least, ..)| unlike < least)
            {
                best = Some((unlike, light, dark));
            }
        }
    }
    let (_, light, dark) = best?;
    let size = Extent::from(small.size);
    let both = light.with(dark).mark(size);
    read(photo, both, Halves { light: light.mark(size), dark: dark.mark(size) }, target)
}

impl Target {
    /// The target in a box that is drawn round it, its two halves beside or above each other; nothing where it is not two
    /// tones.
    pub fn within(photo: &Photo, at: Mark, target: TwoTone) -> Option<Self> {
        let half = |across: bool, second: bool, part: f64| {
            let part = if second { 1.0 - part } else { part };
            let (width, height) = if across { (at.width * part, at.height) } else { (at.width, at.height * part) };
            let (right, down) = if second { (at.width - width, at.height - height) } else { (0.0, 0.0) };
            Mark { left: at.left + right, top: at.top + down, width, height, shape: Shape::Box }
        };
        // From 20:80 to 80:20, the even cut among them.
        let cuts = (0..CUTS).map(|cut| 0.2 + 0.6 * f64::from(cut) / f64::from(CUTS - 1));
        let ways = cuts.flat_map(|part| {
            [true, false].into_iter().flat_map(move |across| {
                let (first, second) = (half(across, false, part), half(across, true, part));
                [Halves { light: first, dark: second }, Halves { light: second, dark: first }]
            })
        });
        let steps = ways.filter_map(|halves| read(photo, at, halves, target));
        // Where a cut is wrong, a half holds some of both: it varies, and the halves differ less.
        let clear = |one: &Self| (one.light.mean[1] - one.dark.mean[1]) / (1.0 + one.light.varies + one.dark.varies);
        steps.max_by(|a, b| clear(a).total_cmp(&clear(b)))
    }
}

/// Where the two halves of a target are.
struct Halves {
    light: Mark,
    dark: Mark,
}

fn read(photo: &Photo, at: Mark, Halves { light, dark }: Halves, target: TwoTone) -> Option<Target> {
    let inside = |mark: Mark| Mark {
        left: mark.left + mark.width * INSIDE,
        top: mark.top + mark.height * INSIDE,
        width: mark.width * (1.0 - 2.0 * INSIDE),
        height: mark.height * (1.0 - 2.0 * INSIDE),
        shape: Shape::Box,
    };
    let light_at = inside(light);
    let (light, dark) = (photo.measured(light_at), photo.measured(inside(dark)));
    let (bright_half, dark_half) = (bright(light.mean), bright(dark.mean));
    let times = (bright_half - dark_half) / (target.light - target.dark);
    if times <= 0.0 || bright_half < 4.0 * dark_half {
        return None;
    }
    let clipped = light.is_clipped();
    let stray = (dark_half - times * target.dark) / bright_half;
    Some(Target { at, light_at, off: Stops::of_ratio(times), stray, clipped, light, dark })
}

/// Pixels that hang together and look alike.
struct Area {
    left: usize,
    top: usize,
    right: usize,
    bottom: usize,
    pixels: usize,
    mean: [f64; 3],
    whole: usize,
}

/// Every area of a picture that could be half a target, the largest first.
fn areas(picture: &Picture) -> Vec<Area> {
    let (wide, high) = (picture.size.width as usize, picture.size.height as usize);
    let bytes = picture.srgb();
    let level = |at: usize| [0, 1, 2].map(|channel| f32::from(bytes[at * 3 + channel]));
    let mut seen = vec![false; wide * high];
    let mut found = Vec::new();
    for start in 0..wide * high {
        if seen[start] {
            continue;
        }
        seen[start] = true;
        let (mut waiting, mut sum, mut levels, mut pixels) = (vec![start], [0.0f64; 3], [0.0f32; 3], 0_usize);
        let mut ends = (wide, high, 0, 0);
        while let Some(at) = waiting.pop() {
            let (x, y) = (at % wide, at / wide);
            ends = (ends.0.min(x), ends.1.min(y), ends.2.max(x + 1), ends.3.max(y + 1));
            let own = level(at);
            pixels += 1;
            for channel in 0..3 {
                sum[channel] += f64::from(picture.pixels[at][channel]);
                levels[channel] += own[channel];
            }
            #[expect(clippy::cast_precision_loss, reason = "at most a few hundred thousand pixels")]
            let mean = levels.map(|one| one / pixels as f32);
            let beside = [
                (x > 0).then(|| at - 1),
                (x + 1 < wide).then(|| at + 1),
                (y > 0).then(|| at - wide),
                (y + 1 < high).then(|| at + wide),
            ];
            for next in beside.into_iter().flatten() {
                let other = level(next);
                if !seen[next] && (0..3).all(|channel| (other[channel] - mean[channel]).abs() <= ALIKE) {
                    seen[next] = true;
                    waiting.push(next);
                }
            }
        }
        #[expect(clippy::cast_precision_loss, reason = "at most a few hundred thousand pixels")]
        let (count, whole) = (pixels as f64, (wide * high) as f64);
        let area = Area {
            left: ends.0,
            top: ends.1,
            right: ends.2,
            bottom: ends.3,
            pixels,
            mean: sum.map(|one| one / count),
            whole: wide * high,
        };
        if (LEAST..=MOST).contains(&(count / whole)) && area.full() > 0.5 {
            found.push(area);
        }
    }
    found.sort_by_key(|area| std::cmp::Reverse(area.pixels));
    found.truncate(MOST_AREAS);
    found
}

const MOST_AREAS: usize = 300;

impl Area {
    /// How much of its box it fills.
    fn full(&self) -> f64 {
        #[expect(clippy::cast_precision_loss, reason = "pixels of a small picture")]
        let full = self.pixels as f64 / ((self.right - self.left) * (self.bottom - self.top)) as f64;
        full
    }

    fn with(&self, other: &Self) -> Self {
        Self {
            left: self.left.min(other.left),
            top: self.top.min(other.top),
            right: self.right.max(other.right),
            bottom: self.bottom.max(other.bottom),
            pixels: self.pixels + other.pixels,
            mean: self.mean,
            whole: self.whole,
        }
    }

    /// How badly this and another make the light and the dark half of a target; nothing where they do not.
    fn beside(&self, dark: &Self, target: TwoTone) -> Option<f64> {
        let (light, dim) = (bright(self.mean), bright(dark.mean));
        if dim <= 0.0 || light < 4.0 * dim {
            return None;
        }
        // Stray light takes from the contrast; nothing adds to it.
        let contrast = (light / dim).log2() - (target.light / target.dark).log2();
        if !(-1.6..=0.5).contains(&contrast) {
            return None;
        }
        #[expect(clippy::cast_precision_loss, reason = "pixels of a small picture")]
        let apart = (self.pixels as f64 / dark.pixels as f64).log2().abs();
        // Both are grey: what light there is colours them alike.
        let tint = |mean: [f64; 3]| [mean[0] / mean[1].max(1e-9), mean[2] / mean[1].max(1e-9)];
        let (ours, theirs) = (tint(self.mean), tint(dark.mean));
        let coloured = (0..2).map(|one| (ours[one] / theirs[one].max(1e-9)).log2().abs()).fold(0.0, f64::max);
        // Beside each other along a whole edge: the box of both is little more than the two boxes.
        let box_of = |area: &Self| (area.right - area.left) * (area.bottom - area.top);
        #[expect(clippy::cast_precision_loss, reason = "pixels of a small picture")]
        let gap = box_of(&self.with(dark)) as f64 / (box_of(self) + box_of(dark)) as f64 - 1.0;
        let most_gap = if apart > UNEQUAL { 0.12 } else { 0.35 };
        (apart < MOST_UNEQUAL && coloured < 0.45 && gap.abs() < most_gap)
            .then(|| contrast.abs() + apart + coloured + gap.abs() * 2.0)
    }

    fn mark(&self, picture: Extent) -> Mark {
        #[expect(clippy::cast_precision_loss, reason = "pixels of a small picture")]
        let of = |pixels: usize| pixels as f64;
        Mark::of_pixels([of(self.left), of(self.top), of(self.right - self.left), of(self.bottom - self.top)], picture)
    }
}

#[cfg(test)]
#[expect(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "pixels of a small picture")]
mod tests {
    use super::*;
    use crate::frame::photo::size;
    use rstest::rstest;

    /// A target on a made-up ground, so far over, with stray light, its halves beside or above each other.
    fn scene(over: f64, stray: f32, across: bool, tint: [f32; 3]) -> Photo {
        let (wide, high) = (360_usize, 240_usize);
        let times = over.exp2() as f32;
        let pixels = (0..wide * high).map(|at| {
            let (x, y) = (at % wide, at / wide);
            let reflects = if (100..160).contains(&x) && (80..140).contains(&y) {
                let first = if across { x < 130 } else { y < 110 };
                if first { 0.90 } else { 0.035 }
            } else {
                0.10 + ((x / 9 * 5 + y / 9 * 3) % 7) as f32 * 0.03
            };
            tint.map(|one| (reflects * times * one + stray).min(1.0))
        });
        let pixels: Vec<[f32; 3]> = pixels.collect();
        let clipped = pixels.iter().map(|one| if one.iter().any(|one| *one >= 1.0) { 255 } else { 0 }).collect();
        Photo { picture: Picture { size: size(wide, high), pixels }, clipped }
    }

    #[rstest]
    #[case(-1.4, 0.0, true, [1.0; 3])]
    #[case(0.0, 0.0, false, [1.0; 3])]
    #[case(-0.5, 0.01, true, [1.1, 1.0, 0.6])]
    #[case(-2.5, 0.0, true, [0.8, 1.0, 1.2])]
    fn it_is_found_by_itself(#[case] over: f64, #[case] stray: f32, #[case] across: bool, #[case] tint: [f32; 3]) {
        let photo = scene(over, stray, across, tint);
        let target = found(&photo, TwoTone::default()).expect("a target");
        let lum = f64::from(0.2126 * tint[0] + 0.7152 * tint[1] + 0.0722 * tint[2]);
        assert!((target.off.0 - over - lum.log2()).abs() < 0.02, "{target:?}");
        assert!((target.at.left - 100.0 / 360.0).abs() < 0.01 && (target.at.height - 0.25).abs() < 0.01);
        assert!(
            (target.stray * f64::from(0.9 * over.exp2() as f32 + stray) - f64::from(stray)).abs() < 0.003,
            "{target:?}"
        );
        let by_hand = Target::within(&photo, target.at, TwoTone::default()).expect("the same");
        assert!((by_hand.off.0 - target.off.0).abs() < 0.01 && !by_hand.clipped);
    }

    /// A target that fills the frame, and halves as unequal as 80 to 20, either way round and either way up: found, and read
    /// the same within a box drawn round it.
    #[rstest]
    fn it_fills_the_frame(
        #[values(0.2, 0.35, 0.5, 0.65, 0.8)] part: f64,
        #[values(true, false)] across: bool,
        #[values(true, false)] light_first: bool,
        #[values(0.0, 0.08)] border: f64,
    ) {
        let (wide, high) = (360_usize, 240_usize);
        let over = -0.7_f64;
        let inner = |at: usize, extent: usize| (at as f64 + 0.5) / extent as f64;
        let pixels = (0..wide * high).map(|at| {
            let (x, y) = (inner(at % wide, wide), inner(at / wide, high));
            let within = |one: f64| (border..1.0 - border).contains(&one);
            let along = ((if across { x } else { y }) - border) / (1.0 - 2.0 * border);
            let light = (along < part) == light_first;
            let ground = 0.10 + ((at % wide / 9 * 5 + at / wide / 9 * 3) % 7) as f32 * 0.03;
            let reflects = if !(within(x) && within(y)) {
                ground
            } else if light {
                0.90
            } else {
                0.035
            };
            [reflects * over.exp2() as f32; 3]
        });
        let photo = Photo {
            picture: Picture { size: size(wide, high), pixels: pixels.collect() },
            clipped: vec![0; wide * high],
        };
        let target = found(&photo, TwoTone::default()).expect("a target");
        assert!((target.off.0 - over).abs() < 0.03, "{target:?}");
        let by_hand = Target::within(&photo, target.at, TwoTone::default()).expect("the same");
        assert!((by_hand.off.0 - over).abs() < 0.05, "{by_hand:?}");
    }

    #[test]
    fn no_target_and_a_full_one() {
        let mut none = scene(0.0, 0.0, true, [1.0; 3]);
        none.picture.pixels.iter_mut().for_each(|one| *one = [0.2; 3]);
        assert_eq!(found(&none, TwoTone::default()), None);
        let whole = Mark { left: 0.0, top: 0.0, width: 1.0, height: 1.0, shape: Shape::Box };
        assert_eq!(Target::within(&none, whole, TwoTone::default()), None);
        let over = found(&scene(0.6, 0.0, true, [1.0; 3]), TwoTone::default()).expect("a target");
        assert!(over.clipped && over.off.0 < 0.6, "at least so far: {over:?}");
    }
}
