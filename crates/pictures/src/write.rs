//! Proofs as files.

use std::io::Cursor;

use exif::experimental::Writer;
use exif::{Field, In, Rational, Tag, Value};
use image::codecs::jpeg::JpegEncoder;
use image::codecs::png::{CompressionType, FilterType, PngEncoder};
use image::{ExtendedColorType, ImageEncoder as _};
use tolva_core::proof::Picture;
use tolva_planner::proof::Proof;
use tolva_planner::setup::Setup;

/// What a file says a picture was taken with.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Taken {
    /// Exposure time, in seconds.
    pub shutter_s: f64,
    /// F-number.
    pub f_number: f64,
    /// ISO.
    pub iso: f64,
    /// Focal length, in millimetres.
    pub focal_length_mm: f64,
}

impl Taken {
    /// As a proof would be taken.
    pub fn of(proof: &Proof, setup: &Setup) -> Self {
        let Proof { shutter_s, f_number, iso, .. } = *proof;
        Self { shutter_s, f_number, iso, focal_length_mm: setup.focal_length_mm }
    }
}

/// As JPEG; with its settings and caption in EXIF where they are given.
///
/// # Errors
/// What the encoder says.
pub fn jpeg(picture: &Picture, quality: u8, exif: Option<(&Taken, &str)>) -> image::ImageResult<Vec<u8>> {
    let mut bytes = Vec::new();
    let mut encoder = JpegEncoder::new_with_quality(&mut bytes, quality);
    if let Some((taken, caption)) = exif {
        // A picture without its settings is still a picture.
        let _ = encoder.set_exif_metadata(settings(taken, caption));
    }
    encoder.write_image(&picture.srgb(), picture.size.width, picture.size.height, ExtendedColorType::Rgb8)?;
    Ok(bytes)
}

/// As PNG.
///
/// # Errors
/// What the encoder says.
pub fn png(picture: &Picture) -> image::ImageResult<Vec<u8>> {
    let mut bytes = Vec::new();
    let encoder = PngEncoder::new_with_quality(&mut bytes, CompressionType::Default, FilterType::Adaptive);
    encoder.write_image(&picture.srgb(), picture.size.width, picture.size.height, ExtendedColorType::Rgb8)?;
    Ok(bytes)
}

/// What is clipped, hatched, on nothing: to lay over the picture.
///
/// # Errors
/// What the encoder says.
pub fn clipped(picture: &Picture) -> image::ImageResult<Vec<u8>> {
    let width = picture.size.width.max(1) as usize;
    let mut pixels = Vec::with_capacity(picture.pixels.len() * 4);
    for (index, clipped) in picture.clipped().enumerate() {
        let stripe = (index % width + index / width) % 8 < 4;
        pixels.extend(match (clipped, stripe) {
            (false, _) => [0; 4],
            (true, true) => [20, 20, 20, 255],
            (true, false) => [255, 255, 255, 255],
        });
    }
    let mut bytes = Vec::new();
    let encoder = PngEncoder::new_with_quality(&mut bytes, CompressionType::Fast, FilterType::NoFilter);
    encoder.write_image(&pixels, picture.size.width, picture.size.height, ExtendedColorType::Rgba8)?;
    Ok(bytes)
}

/// EXIF 2.32: what it was taken with, and a caption.
fn settings(taken: &Taken, caption: &str) -> Vec<u8> {
    let rational = |value: f64, over: u32| {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a setting of a camera")]
        let num = (value * f64::from(over)).round().max(0.0) as u32;
        Value::Rational(vec![Rational { num, denom: over }])
    };
    let time = if taken.shutter_s > 0.0 && taken.shutter_s < 0.5 {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a shutter time")]
        Value::Rational(vec![Rational { num: 1, denom: (1.0 / taken.shutter_s).round() as u32 }])
    } else {
        rational(taken.shutter_s, 10)
    };
    let field = |tag: Tag, value: Value| Field { tag, ifd_num: In::PRIMARY, value };
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "an ISO number")]
    let iso = taken.iso.round().clamp(0.0, 65_535.0) as u16;
    let fields = [
        // EXIF keeps ASCII here; what is not stands as a question mark.
        field(Tag::ImageDescription, Value::Ascii(vec![ascii(caption)])),
        field(Tag::Software, Value::Ascii(vec![b"Tolva".to_vec()])),
        field(Tag::ExposureTime, time),
        field(Tag::FNumber, rational(taken.f_number, 10)),
        field(Tag::PhotographicSensitivity, Value::Short(vec![iso])),
        field(Tag::FocalLength, rational(taken.focal_length_mm, 10)),
    ];
    let mut writer = Writer::new();
    for field in &fields {
        writer.push_field(field);
    }
    let mut bytes = Cursor::new(Vec::new());
    // In memory: nothing can fail but a field that is none of EXIF.
    if writer.write(&mut bytes, false).is_err() {
        return Vec::new();
    }
    bytes.into_inner()
}

/// Dots between, dashes and fractions have their plain twins.
fn ascii(text: &str) -> Vec<u8> {
    let plain = text.replace(['·', '−'], "-").replace('⅓', " 1/3").replace('⅔', " 2/3").replace('’', "'");
    plain.chars().map(|letter| u8::try_from(letter).ok().filter(u8::is_ascii).unwrap_or(b'?')).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use tolva_core::proof::Size;

    fn two() -> Picture {
        let size = Size { width: 32, height: 16 };
        let mut pixels = vec![[0.18; 3]; size.count()];
        pixels[..16].fill([1.4; 3]);
        Picture { size, pixels }
    }

    #[test]
    fn a_jpeg_says_what_it_was_taken_with() {
        let taken = Taken { shutter_s: 1.0 / 200.0, f_number: 5.6, iso: 100.0, focal_length_mm: 85.0 };
        let bytes = jpeg(&two(), 92, Some((&taken, "Doorway · +⅓"))).expect("a picture");
        let read = exif::Reader::new().read_from_container(&mut Cursor::new(&bytes)).expect("EXIF");
        let shown = |tag| read.get_field(tag, In::PRIMARY).expect("it").display_value().to_string();
        assert_eq!(shown(Tag::ExposureTime), "1/200");
        assert_eq!((shown(Tag::FNumber), shown(Tag::PhotographicSensitivity)), ("5.6".to_owned(), "100".to_owned()));
        assert_eq!(shown(Tag::ImageDescription), "\"Doorway - + 1/3\"");
        let size = image::load_from_memory(&bytes).expect("a JPEG");
        assert_eq!((size.width(), size.height()), (32, 16));
    }

    #[test]
    fn what_is_clipped_is_hatched_and_the_rest_is_nothing() {
        let bytes = clipped(&two()).expect("a picture");
        let seen = image::load_from_memory(&bytes).expect("a PNG").to_rgba8();
        assert_eq!((seen.get_pixel(0, 0).0[3], seen.get_pixel(20, 0).0[3], seen.get_pixel(0, 1).0[3]), (255, 0, 0));
        assert_ne!(seen.get_pixel(0, 0), seen.get_pixel(4, 0));
        let whole = image::load_from_memory(&png(&two()).expect("a picture")).expect("a PNG").to_rgb8();
        assert_eq!(whole.get_pixel(31, 15).0, [118; 3], "mid grey is 118 (proof.md)");
    }
}
