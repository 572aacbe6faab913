//! Frames from files.

use std::io::Cursor;

use image::{ColorType, DynamicImage, ExtendedColorType, ImageDecoder};
use tolva_core::frame::{Encoding, Extent, Photo, Raster, Samples, ToneCurve, Turned};
use zune_core::bytestream::ZCursor;
use zune_core::colorspace::ColorSpace;
use zune_core::options::DecoderOptions;
use zune_jpeg::JpegDecoder;

use crate::profile::encoding;
use crate::raw::preview;
use crate::room::needed_and_there;
use crate::settings::{Taken, of_block, of_file, orientation};
use crate::unreadable::{MOST_BYTES, Unreadable};

/// A picture of at most so many pixels is unpacked: 65 million, three bytes each.
pub const MOST_PIXELS: u64 = 65_000_000;
/// One whose parts come one after the other needs several times the room.
const MOST_PROGRESSIVE: u64 = 26_000_000;

/// What stands beside a picture's pixels, such as its colour profile, is unpacked up to so many bytes: a few hundred make a
/// packed megabyte a thousand times as large.
const MOST_BESIDE: u64 = 16 * 1024 * 1024;

/// A frame as it was read.
#[derive(Clone, Debug, PartialEq)]
pub struct Frame {
    /// The copy that is measured.
    pub photo: Photo,
    /// What the file says it was taken with.
    pub taken: Taken,
    /// The picture in the file, upright.
    pub size: Extent,
    /// It is the preview of a raw file.
    pub preview: bool,
}

/// The levels of a frame as they stand in its file, for a camera's curve.
#[derive(Clone, Debug, PartialEq)]
pub struct Levels {
    /// As they stand.
    pub raster: Raster,
    /// How they stand for light.
    pub encoding: Encoding,
    /// How it lies in the file.
    pub turned: Turned,
    /// What it was taken with.
    pub taken: Taken,
    /// It is the preview of a raw file.
    pub preview: bool,
}

/// A frame from a file: JPEG, PNG, TIFF, or the preview of a raw file. By the camera's own curve where it is known.
///
/// # Errors
/// What is wrong with the file.
pub fn read(file: &[u8], curve: Option<&ToneCurve>) -> Result<Frame, Unreadable> {
    let Levels { raster, encoding, turned, taken, preview } = levels(file, curve)?;
    let size = turned.extent(Extent { wide: raster.width, high: raster.height });
    Ok(Frame { photo: Photo::of(&raster, &encoding, turned)?, taken, size, preview })
}

/// Two frames from files, each on a processor of its own.
///
/// # Errors
/// What is wrong with the first, or with the second.
pub fn read_two(files: [&[u8]; 2], curve: Option<&ToneCurve>) -> [Result<Frame, Unreadable>; 2] {
    let [first, second] = files;
    std::thread::scope(|scope| {
        let other = scope.spawn(|| read(second, curve));
        let first = read(first, curve);
        // A decoder that fell over has found something it cannot read.
        [first, other.join().unwrap_or_else(|_| Err(Unreadable::Damaged("it cannot be unpacked".to_owned())))]
    })
}

/// The levels of a frame, as they stand in its file.
///
/// # Errors
/// What is wrong with the file.
pub fn levels(file: &[u8], curve: Option<&ToneCurve>) -> Result<Levels, Unreadable> {
    if file.is_empty() {
        return Err(Unreadable::Empty);
    }
    if file.len() > MOST_BYTES {
        return Err(Unreadable::TooLong(file.len()));
    }
    match image::guess_format(file) {
        Ok(image::ImageFormat::Jpeg) => jpeg(file, curve),
        Ok(image::ImageFormat::Png) => png(file, curve),
        Ok(image::ImageFormat::Tiff) => tiff(file, curve),
        // A raw file may have a mark of its own where TIFF has its number.
        _ => of_preview(file, curve).unwrap_or(Err(Unreadable::NoPicture)),
    }
}

fn of_preview(file: &[u8], curve: Option<&ToneCurve>) -> Option<Result<Levels, Unreadable>> {
    let inside = preview(file)?;
    Some(jpeg(inside, curve).map(|levels| {
        // The preview may say nothing of how it was taken; the raw file does.
        let whole = of_file(file);
        let outside = whole.as_ref().map(Taken::of).unwrap_or_default();
        let turned = match (levels.turned, &whole) {
            (Turned(1), Some(exif)) => Turned(orientation(exif)),
            (turned, _) => turned,
        };
        let taken = if levels.taken.settings().is_ok() { levels.taken } else { outside };
        Levels { turned, taken, preview: true, ..levels }
    }))
}

fn within(width: u64, height: u64, most: u64) -> Result<(), Unreadable> {
    if width.saturating_mul(height) > most { Err(Unreadable::TooLarge { width, height, most }) } else { Ok(()) }
}

fn damaged(wrong: &dyn std::fmt::Display) -> Unreadable {
    Unreadable::Damaged(wrong.to_string().chars().take(200).collect())
}

/// What an EXIF block says, and how the picture lies.
fn said(block: Option<&[u8]>) -> (Taken, Turned) {
    block
        .and_then(of_block)
        .map_or((Taken::default(), Turned(1)), |exif| (Taken::of(&exif), Turned(orientation(&exif))))
}

fn jpeg(file: &[u8], curve: Option<&ToneCurve>) -> Result<Levels, Unreadable> {
    let options = DecoderOptions::default()
        .set_strict_mode(true)
        .set_max_width(65_535)
        .set_max_height(65_535)
        .jpeg_set_out_colorspace(ColorSpace::RGB);
    let mut decoder = JpegDecoder::new_with_options(ZCursor::new(file), options);
    decoder.decode_headers().map_err(|wrong| damaged(&wrong))?;
    let info = decoder.info().ok_or_else(|| damaged(&"it has no header"))?;
    let most = if info.sof.is_sequential_dct() { MOST_PIXELS } else { MOST_PROGRESSIVE };
    within(info.width.into(), info.height.into(), most)?;
    if needed_and_there(file).is_some_and(|(needed, there)| needed > there) {
        let says = format!("it says it is {} × {} pixels, and holds too little for that", info.width, info.height);
        return Err(damaged(&says));
    }
    if matches!(decoder.input_colorspace(), Some(ColorSpace::CMYK | ColorSpace::YCCK)) {
        return Err(Unreadable::Cmyk);
    }
    let encoding = encoding(decoder.icc_profile().as_deref(), curve)?;
    let (taken, turned) = said(decoder.exif().map(Vec::as_slice));
    let samples = decoder.decode().map_err(|wrong| damaged(&wrong))?;
    let raster = Raster { width: info.width.into(), height: info.height.into(), samples: Samples::Eight(samples) };
    Ok(Levels { raster, encoding, turned, taken, preview: false })
}

fn png(file: &[u8], curve: Option<&ToneCurve>) -> Result<Levels, Unreadable> {
    let mut limits = image::Limits::no_limits();
    limits.max_alloc = Some(MOST_BESIDE);
    let decoder =
        image::codecs::png::PngDecoder::with_limits(Cursor::new(file), limits).map_err(|wrong| damaged(&wrong))?;
    if decoder.is_apng().unwrap_or(false) {
        return Err(Unreadable::Animated);
    }
    unpacked(decoder, curve)
}

fn tiff(file: &[u8], curve: Option<&ToneCurve>) -> Result<Levels, Unreadable> {
    // A raw file that passes for TIFF holds levels of its sensor, which are no picture yet: its preview is.
    if let Some(inside) = of_preview(file, curve) {
        return inside;
    }
    let decoder = image::codecs::tiff::TiffDecoder::new(Cursor::new(file)).map_err(|wrong| damaged(&wrong))?;
    if matches!(decoder.original_color_type(), ExtendedColorType::Cmyk8 | ExtendedColorType::Cmyk16) {
        return Err(Unreadable::Cmyk);
    }
    let mut levels = unpacked(decoder, curve)?;
    if let Some(exif) = of_file(file) {
        (levels.taken, levels.turned) = (Taken::of(&exif), Turned(orientation(&exif)));
    }
    Ok(levels)
}

fn unpacked(mut decoder: impl ImageDecoder, curve: Option<&ToneCurve>) -> Result<Levels, Unreadable> {
    let (width, height) = decoder.dimensions();
    // Sixteen bits take twice the room.
    let deep = decoder.color_type().bytes_per_pixel() > ColorType::Rgba8.bytes_per_pixel();
    within(width.into(), height.into(), if deep { MOST_PROGRESSIVE } else { MOST_PIXELS })?;
    let profile = decoder.icc_profile().ok().flatten();
    let (taken, turned) = said(decoder.exif_metadata().ok().flatten().as_deref());
    let encoding = encoding(profile.as_deref(), curve)?;
    let picture = DynamicImage::from_decoder(decoder).map_err(|wrong| damaged(&wrong))?;
    let samples = match picture.color() {
        ColorType::L8 | ColorType::La8 | ColorType::Rgb8 | ColorType::Rgba8 => {
            Samples::Eight(picture.into_rgb8().into_raw())
        }
        _ => Samples::Sixteen(picture.into_rgb16().into_raw()),
    };
    let raster = Raster { width: width as usize, height: height as usize, samples };
    Ok(Levels { raster, encoding, turned, taken, preview: false })
}
