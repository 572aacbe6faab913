//! Files that are odd, wrong or hostile: each gives words, and none more work than it is worth.

use std::io::Cursor;

use image::{DynamicImage, ExtendedColorType, ImageBuffer, ImageEncoder as _, ImageFormat, Rgb};
use jpeg_encoder::{ColorType, Encoder};
use proptest::prelude::*;
use rstest::rstest;
use tolva_pictures::{Taken, Unreadable, jpeg, read};

use tolva_core::proof::{Picture, Size};

const WIDE: u16 = 64;
const HIGH: u16 = 40;

/// A picture that is bright at its left and dark at its right, as levels.
fn levels(channels: usize) -> Vec<u8> {
    let (wide, high) = (usize::from(WIDE), usize::from(HIGH));
    (0..wide * high).flat_map(|at| vec![if at % wide < wide / 2 { 200 } else { 30 }; channels]).collect()
}

fn encoded(progressive: bool, color: ColorType, channels: usize) -> Vec<u8> {
    let mut bytes = Vec::new();
    let mut encoder = Encoder::new(&mut bytes, 90);
    encoder.set_progressive(progressive);
    encoder.encode(&levels(channels), WIDE, HIGH, color).expect("a JPEG");
    bytes
}

fn written(format: ImageFormat, sixteen: bool) -> Vec<u8> {
    let mut bytes = Cursor::new(Vec::new());
    let eight = ImageBuffer::<Rgb<u8>, _>::from_raw(WIDE.into(), HIGH.into(), levels(3)).expect("a picture");
    let picture = DynamicImage::ImageRgb8(eight);
    let picture = if sixteen { DynamicImage::ImageRgb16(picture.into_rgb16()) } else { picture };
    picture.write_to(&mut bytes, format).expect("written");
    bytes.into_inner()
}

/// Every format that is read gives the same light.
#[rstest]
#[case(encoded(false, ColorType::Rgb, 3))]
#[case(encoded(true, ColorType::Rgb, 3))]
#[case(encoded(false, ColorType::Luma, 1))]
#[case(written(ImageFormat::Png, false))]
#[case(written(ImageFormat::Png, true))]
#[case(written(ImageFormat::Tiff, false))]
#[case(written(ImageFormat::Tiff, true))]
fn every_format(#[case] file: Vec<u8>) {
    let frame = read(&file, None).expect("a frame");
    assert_eq!((frame.size.wide, frame.size.high), (64, 40));
    let at = |x: usize| frame.photo.picture.pixels[20 * 64 + x];
    // Level 200 is 0.578 and 30 is 0.013 (IEC 61966-2-1).
    assert!((at(10)[1] - 0.578).abs() < 0.02 && (at(50)[1] - 0.013).abs() < 0.002, "{:?} {:?}", at(10), at(50));
    assert_eq!(frame.taken, Taken::default(), "it says nothing");
}

fn truncated(mut file: Vec<u8>, part: usize) -> Vec<u8> {
    file.truncate(file.len() * part / 10);
    file
}

/// The header says another size than the picture has.
fn with_size(mut file: Vec<u8>, at: usize, size: &[u8]) -> Vec<u8> {
    file[at..at + size.len()].copy_from_slice(size);
    file
}

fn bomb_jpeg() -> Vec<u8> {
    let file = encoded(false, ColorType::Rgb, 3);
    let frame = file.windows(2).position(|pair| pair == [0xFF, 0xC0]).expect("its header");
    with_size(file, frame + 5, &[0x75, 0x30, 0x75, 0x30])
}

/// A frame for tests, whose header says another size.
fn sized(wide: u16, high: u16) -> Vec<u8> {
    let file = include_bytes!("data/hall-with.jpg").to_vec();
    let frame = file.windows(2).position(|pair| pair == [0xFF, 0xC0]).expect("its header");
    with_size(file, frame + 5, &[high.to_be_bytes(), wide.to_be_bytes()].concat())
}

/// A colour profile of so many megabytes of nothing, packed to a thousandth.
fn profile_png(megabytes: usize) -> Vec<u8> {
    let mut packed = flate2::write::ZlibEncoder::new(Vec::new(), flate2::Compression::best());
    for _ in 0..megabytes {
        std::io::Write::write_all(&mut packed, &vec![0; 1 << 20]).expect("packed");
    }
    let body = [b"iCCPzeros\0\0".as_slice(), &packed.finish().expect("packed")].concat();
    let mut chunk = u32::try_from(body.len() - 4).expect("short").to_be_bytes().to_vec();
    chunk.extend(&body);
    chunk.extend(crc32(&body).to_be_bytes());
    let mut file = written(ImageFormat::Png, false);
    // After the header.
    file.splice(33..33, chunk);
    file
}

/// What stands beside the pixels is unpacked only so far (eight gigabytes of nothing took as much of memory): the picture is
/// read as one that has no profile. One that is as small as a profile is looked at, and is none.
#[test]
fn a_profile_is_unpacked_only_so_far() {
    let file = profile_png(64);
    assert!(file.len() < 100_000, "{}", file.len());
    assert_eq!(read(&file, None).expect("a picture"), read(&written(ImageFormat::Png, false), None).expect("the same"));
    assert!(read(&profile_png(1), None).is_err(), "a profile that is none");
}

fn bomb_png() -> Vec<u8> {
    let mut file = with_size(written(ImageFormat::Png, false), 16, &[0, 0, 0x75, 0x30, 0, 0, 0x75, 0x30]);
    // The check sum over the header, so that it passes for whole.
    let sum = crc32(&file[12..29]);
    file[29..33].copy_from_slice(&sum.to_be_bytes());
    file
}

/// Source: ISO 3309, as PNG uses it.
fn crc32(bytes: &[u8]) -> u32 {
    !bytes.iter().fold(!0u32, |sum, byte| {
        (0..8).fold(sum ^ u32::from(*byte), |sum, _| if sum & 1 == 1 { (sum >> 1) ^ 0xEDB8_8320 } else { sum >> 1 })
    })
}

#[rstest]
#[case::nothing(vec![], "empty")]
#[case::a_text(b"this is no picture, whatever its name".to_vec(), "no JPEG, PNG or TIFF")]
#[case::a_gif(b"GIF89a\x01\0\x01\0\0\0\0;".to_vec(), "no JPEG, PNG or TIFF")]
#[case::cmyk(encoded(false, ColorType::Cmyk, 4), "CMYK")]
#[case::a_bomb(bomb_jpeg(), "30000 × 30000")]
#[case::another_bomb(bomb_png(), "30000 × 30000")]
#[case::a_small_one_that_says_it_is_large(sized(8000, 8000), "8000 × 8000 pixels, and holds too little for that")]
#[case::one_that_says_it_is_high(sized(300, 65_000), "300 × 65000 pixels, and holds too little for that")]
#[case::half_a_jpeg(truncated(encoded(false, ColorType::Rgb, 3), 6), "breaks off")]
#[case::half_a_progressive_one(truncated(encoded(true, ColorType::Rgb, 3), 6), "breaks off")]
#[case::half_a_png(truncated(written(ImageFormat::Png, false), 6), "breaks off")]
#[case::half_a_tiff(truncated(written(ImageFormat::Tiff, false), 6), "breaks off")]
fn what_is_refused(#[case] file: Vec<u8>, #[case] says: &str) {
    let wrong = read(&file, None).expect_err("refused").to_string();
    assert!(wrong.contains(says), "{wrong}");
}

#[test]
fn an_animation_is_refused() {
    // acTL before the picture makes a PNG an animation (PNG, third edition).
    let file = written(ImageFormat::Png, false);
    let mut chunk = b"acTL\0\0\0\x02\0\0\0\0".to_vec();
    let sum = crc32(&chunk);
    chunk.extend(sum.to_be_bytes());
    let animated = [&file[..33], &[0, 0, 0, 8], &chunk, &file[33..]].concat();
    assert_eq!(read(&animated, None), Err(Unreadable::Animated));
}

#[test]
fn an_odd_profile_is_refused() {
    let mut file = Vec::new();
    let mut encoder = image::codecs::png::PngEncoder::new(&mut file);
    encoder.set_icc_profile(b"no profile".to_vec()).expect("taken");
    encoder.write_image(&levels(3), WIDE.into(), HIGH.into(), ExtendedColorType::Rgb8).expect("written");
    let wrong = read(&file, None).expect_err("refused").to_string();
    assert!(wrong.starts_with("its colour profile cannot be used"), "{wrong}");
}

/// What Tolva writes, Tolva reads: the light and the settings.
#[test]
fn there_and_back() {
    let size = Size { width: 30, height: 20 };
    let taken = Taken { shutter_s: Some(1.0 / 250.0), f_number: Some(8.0), iso: Some(200.0), ..Taken::default() };
    let file =
        jpeg(&Picture { size, pixels: vec![[0.18; 3]; size.count()] }, 95, Some((&taken, "grey"))).expect("a JPEG");
    let frame = read(&file, None).expect("a frame");
    assert!((frame.photo.picture.pixels[99][0] - 0.18).abs() < 0.003);
    assert_eq!(frame.taken.ev100(), taken.ev100());
}

proptest! {
    /// Nothing that is changed in a file makes anything fall over.
    #[test]
    fn nothing_falls_over(which in 0..4usize, at in 0..1000usize, to: u8, also in 0..100usize, cut in 300..1000usize) {
        let mut file = match which {
            0 => encoded(false, ColorType::Rgb, 3),
            1 => encoded(true, ColorType::Rgb, 3),
            2 => written(ImageFormat::Png, true),
            _ => written(ImageFormat::Tiff, false),
        };
        // In thousandths of the file.
        let place = |part: usize, of: usize| of * part / 1000;
        let length = file.len();
        file[place(at, length)] = to;
        file[place(also, length)] ^= to;
        file.truncate(place(cut, length).max(1));
        let _ = read(&file, None);
    }
}
