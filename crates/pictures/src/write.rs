//! Pictures as files.

use image::codecs::jpeg::JpegEncoder;
use image::codecs::png::{CompressionType, FilterType, PngEncoder};
use image::{ExtendedColorType, ImageEncoder as _};
use tolva_core::proof::{Picture, Size};

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

/// The same smaller, for lists: its longer side of so many pixels at most.
///
/// # Errors
/// What the encoder says.
pub fn small_jpeg(picture: &Picture, longest: u32, quality: u8) -> image::ImageResult<Vec<u8>> {
    let Size { width, height } = picture.size;
    let Some(whole) = image::RgbImage::from_raw(width, height, picture.srgb()) else {
        return jpeg(picture, quality, None);
    };
    let (wide, high) = if width.max(height) <= longest {
        (width, height)
    } else if width >= height {
        (longest, (height * longest / width).max(1))
    } else {
        ((width * longest / height).max(1), longest)
    };
    let small = image::imageops::thumbnail(&whole, wide, high);
    let mut bytes = Vec::new();
    JpegEncoder::new_with_quality(&mut bytes, quality).write_image(&small, wide, high, ExtendedColorType::Rgb8)?;
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

/// The share of flash at every place, 0 to 1: from the colour of what is there to that of flash, with a line at every quarter,
/// and nothing where it cannot be told.
///
/// # Errors
/// What the encoder says.
pub fn share_map(size: Size, shares: &[Option<f32>]) -> image::ImageResult<Vec<u8>> {
    let (wide, high) = (size.width as usize, size.height as usize);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 3")]
    let quarter = |at: usize| shares.get(at).copied().flatten().map(|share| (share * 4.0).clamp(0.0, 3.0) as u8);
    let mut pixels = Vec::with_capacity(wide * high * 4);
    for at in 0..wide * high {
        let (x, y) = (at % wide, at / wide);
        let own = quarter(at);
        let beside = [(x + 1 < wide).then(|| at + 1), (y + 1 < high).then(|| at + wide)];
        let line =
            beside.into_iter().flatten().any(|next| quarter(next).zip(own).is_some_and(|(one, other)| one != other));
        pixels.extend(match shares.get(at).copied().flatten() {
            None => [0; 4],
            Some(_) if line => LINE,
            Some(share) => {
                #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a level")]
                let between = |from: u8, to: u8| (f32::from(from) + (f32::from(to) - f32::from(from)) * share) as u8;
                [between(THERE[0], FLASH[0]), between(THERE[1], FLASH[1]), between(THERE[2], FLASH[2]), 255]
            }
        });
    }
    let mut bytes = Vec::new();
    let encoder = PngEncoder::new_with_quality(&mut bytes, CompressionType::Fast, FilterType::Sub);
    encoder.write_image(&pixels, size.width, size.height, ExtendedColorType::Rgba8)?;
    Ok(bytes)
}

/// The colours of the light that is there and of flash, as everywhere in Tolva (`web/src/app/theme.ts`, dusk), and of a line.
const THERE: [u8; 3] = [0x0b, 0x6b, 0x78];
const FLASH: [u8; 3] = [0xff, 0x8d, 0x5e];
const LINE: [u8; 4] = [0x16, 0x16, 0x16, 0xff];

#[cfg(test)]
mod tests {
    use std::io::Cursor;

    use super::*;
    use exif::{In, Tag};

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
    fn shares_have_a_line_at_every_quarter() {
        let size = Size { width: 8, height: 1 };
        let shares = [None, Some(0.0), Some(0.2), Some(0.3), Some(0.3), Some(0.8), Some(1.0), Some(1.0)];
        let seen = image::load_from_memory(&share_map(size, &shares).expect("a map")).expect("a PNG").to_rgba8();
        let at = |x: u32| seen.get_pixel(x, 0).0;
        assert_eq!((at(0)[3], at(2), at(4)), (0, LINE, LINE), "nothing, and a line before 25 and 75 %");
        assert_eq!((at(1)[..3].to_vec(), at(7)[..3].to_vec()), (THERE.to_vec(), FLASH.to_vec()));
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
