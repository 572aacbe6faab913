//! Frames of 24 megapixels: unpacked, measured, taken apart; and two layers mixed anew. What counts is the ratio to
//! unpacking, in one run.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use jpeg_encoder::{ColorType, Encoder};
use tolva_core::exposure::Ev;
use tolva_core::frame::{Pair, Photo};
use tolva_core::proof::{Picture, Size};
use tolva_pictures::{levels, read, read_two, share_map};

const WIDE: u16 = 6000;
const HIGH: u16 = 4000;

/// A made-up frame of 24 megapixels: slopes, edges and grain, as photographs have.
fn frame(brighter: u32) -> Vec<u8> {
    let (wide, high) = (u32::from(WIDE), u32::from(HIGH));
    let mut grain = 1u32;
    let mut pixels = Vec::with_capacity(wide as usize * high as usize * 3);
    for y in 0..high {
        for x in 0..wide {
            grain = grain.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
            let block = ((x / 190) * 7 + (y / 140) * 13) % 90;
            let level = 30 + block + (x * 60 / wide) + brighter + (grain >> 28);
            let level = u8::try_from(level.min(250)).unwrap_or(250);
            pixels.extend([level, level, level.saturating_sub(6)]);
        }
    }
    let mut file = Vec::new();
    Encoder::new(&mut file, 92).encode(&pixels, WIDE, HIGH, ColorType::Rgb).expect("a JPEG");
    file
}

fn frames(c: &mut Criterion) {
    let (without, with) = (frame(0), frame(40));
    let mut group = c.benchmark_group("24 megapixels");
    group.sample_size(10);
    group.bench_function("unpacked", |b| b.iter(|| levels(black_box(&with), None).expect("a frame").raster.width));
    group.bench_function("measured", |b| b.iter(|| read(black_box(&with), None).expect("a frame").size));
    let unpacked = levels(&with, None).expect("a frame");
    group.bench_function("the copy of what is unpacked", |b| {
        b.iter(|| {
            Photo::of(black_box(&unpacked.raster), &unpacked.encoding, unpacked.turned).expect("a copy").extent()
        });
    });
    group.bench_function("two to the map of shares", |b| {
        b.iter(|| {
            let [without, with] = read_two([&without, &with], None).map(|frame| frame.expect("a frame"));
            let pair = Pair { without: &without.photo, without_at: Ev(8.0), with: &with.photo, with_at: Ev(8.0) };
            let apart = pair.separated().expect("alike");
            share_map(apart.size(), &apart.shares()).expect("a map").len()
        });
    });
    group.finish();
    let small = |file: &[u8]| {
        let mut frame = read(file, None).expect("a frame").photo;
        frame.picture.size = Size { width: 640, height: 427 };
        frame.picture.pixels.truncate(640 * 427);
        frame.clipped.truncate(640 * 427);
        frame
    };
    let (without, with) = (small(&without), small(&with));
    let pair = Pair { without: &without, without_at: Ev(8.0), with: &with, with_at: Ev(8.0) };
    let apart = pair.separated().expect("alike");
    c.bench_function("mixed anew at 640 wide", |b| {
        let layers = [(&apart.ambient, [0.7, 0.7, 0.6]), (&apart.flash, [1.2, 1.1, 1.0])];
        b.iter(|| Picture::developed(apart.size(), black_box(&layers)).srgb().len());
    });
}

criterion_group!(benches, frames);
criterion_main!(benches);
