//! Pictures as files.

use image::codecs::jpeg::JpegEncoder;
use image::codecs::png::{CompressionType, FilterType, PngEncoder};
use image::{ExtendedColorType, ImageEncoder as _};
use tolva_core::proof::Picture;

use crate::settings::{Taken, as_exif};

/// As JPEG; with its settings and caption in EXIF where they are given.
///
/// # Errors
/// What the encoder says.
pub fn jpeg(picture: &Picture, quality: u8, exif: Option<(&Taken, &str)>) -> image::ImageResult<Vec<u8>> {
    let mut bytes = Vec::new();
    let mut encoder = JpegEncoder::new_with_quality(&mut bytes, quality);
    if let Some((taken, caption)) = exif {
        // A picture without its settings is still a picture.
        let _ = encoder.set_exif_metadata(as_exif(taken, caption));
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

#[cfg(test)]
mod tests {
    use std::io::Cursor;

    use super::*;
    use exif::{In, Tag};
    use tolva_core::proof::Size;

    fn two() -> Picture {
        let size = Size { width: 32, height: 16 };
        let mut pixels = vec![[0.18; 3]; size.count()];
        pixels[..16].fill([1.4; 3]);
        Picture { size, pixels }
    }

    #[test]
    fn a_jpeg_says_what_it_was_taken_with() {
        let taken = Taken {
            shutter_s: Some(1.0 / 200.0),
            f_number: Some(5.6),
            iso: Some(100.0),
            focal_length_mm: Some(85.0),
            ..Taken::default()
        };
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
