//! What a frame was taken with, as EXIF says it.

use std::fmt::Write;
use std::io::Cursor;

use exif::experimental::Writer;
use exif::{Exif, Field, In, Rational, Tag, Value};
use jiff::civil::DateTime;
use tolva_core::exposure::{CameraSettings, Ev};
use tolva_core::scale::Setting;

/// What a file says a picture was taken with. What it does not say, or cannot be, is left out.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Taken {
    /// Exposure time, in seconds.
    pub shutter_s: Option<f64>,
    /// F-number.
    pub f_number: Option<f64>,
    /// ISO.
    pub iso: Option<f64>,
    /// Focal length, in millimetres.
    pub focal_length_mm: Option<f64>,
    /// Whether the flash fired.
    pub flash: Option<bool>,
    /// When, by the camera's clock.
    pub at: Option<DateTime>,
    /// Which camera, by its own name.
    pub camera: Option<String>,
    /// Whether a stand-in made it and no camera.
    pub simulated: bool,
    /// What stands in the file and cannot be, as it stands there: `ExposureTime 1/0`.
    pub wrong: Vec<String>,
}

/// A setting a frame is measured by, and the file does not say.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Lacking {
    /// The exposure time.
    Shutter,
    /// The f-number.
    Aperture,
    /// The sensitivity.
    Iso,
}

/// What the stand-in camera writes for the program that made a picture.
const STAND_IN: &str = "Tolva stand-in camera";

impl Taken {
    /// The exposure value at ISO 100 its settings are right for, by the numbers as the file has them: a camera that says
    /// 1/30 and 1/125 is taken at its word.
    ///
    /// # Errors
    /// What the file does not say.
    pub fn ev100(&self) -> Result<Ev, Vec<Lacking>> {
        self.settings()?;
        let value = |said: Option<f64>| said.unwrap_or(1.0);
        Ok(Ev::of_values(value(self.shutter_s), value(self.f_number), value(self.iso)))
    }

    /// The settings of the exposure, on the dials.
    ///
    /// # Errors
    /// What the file does not say.
    pub fn settings(&self) -> Result<CameraSettings, Vec<Lacking>> {
        if let (Some(shutter), Some(aperture), Some(iso)) = (self.shutter_s, self.f_number, self.iso) {
            return Ok(CameraSettings {
                shutter: Setting::of(shutter),
                aperture: Setting::of(aperture),
                iso: Setting::of(iso),
            });
        }
        let lacks = [(self.shutter_s, Lacking::Shutter), (self.f_number, Lacking::Aperture), (self.iso, Lacking::Iso)];
        Err(lacks.into_iter().filter(|(said, _)| said.is_none()).map(|(_, lacking)| lacking).collect())
    }

    pub(crate) fn of(exif: &Exif) -> Self {
        let mut wrong = Vec::new();
        let field = |tag| exif.get_field(tag, In::PRIMARY);
        let mut number = |tag: Tag, least: f64, most: f64| {
            let field = field(tag)?;
            let value = match &field.value {
                Value::Rational(all) => all.first().map(Rational::to_f64),
                other => other.get_uint(0).map(f64::from),
            };
            let good = value.filter(|value| (least..=most).contains(value));
            if good.is_none() {
                wrong.push(format!("{tag} {}", shown(field)));
            }
            good
        };
        let shutter_s = number(Tag::ExposureTime, 1e-6, 86_400.0);
        let f_number = number(Tag::FNumber, 0.5, 128.0);
        let iso = number(Tag::PhotographicSensitivity, 1.0, 10_000_000.0);
        let focal_length_mm = number(Tag::FocalLength, 0.1, 10_000.0);
        let text = |tag| match &field(tag)?.value {
            Value::Ascii(all) => {
                let said = String::from_utf8_lossy(all.first()?);
                let plain = said.trim_matches(['\0', ' ']).chars().filter(|one| !one.is_control());
                let text = plain.take(80).collect();
                Some(text).filter(|text: &String| !text.is_empty())
            }
            _ => None,
        };
        let at = text(Tag::DateTimeOriginal).and_then(|text| {
            let good = exif::DateTime::from_ascii(text.as_bytes()).ok().and_then(|at| {
                let [month, day, hour, minute, second] =
                    [at.month, at.day, at.hour, at.minute, at.second].map(|one| i8::try_from(one).unwrap_or(-1));
                DateTime::new(i16::try_from(at.year).ok()?, month, day, hour, minute, second, 0).ok()
            });
            if good.is_none() {
                wrong.push(format!("{} {text}", Tag::DateTimeOriginal));
            }
            good
        });
        let camera = match (text(Tag::Make), text(Tag::Model)) {
            (Some(make), Some(model)) if !model.starts_with(&make) => Some(format!("{make} {model}")),
            (make, model) => model.or(make),
        };
        let flash = field(Tag::Flash).and_then(|field| field.value.get_uint(0)).map(|bits| bits & 1 == 1);
        let simulated = text(Tag::Software).is_some_and(|by| by == STAND_IN);
        Self { shutter_s, f_number, iso, focal_length_mm, flash, at, camera, simulated, wrong }
    }
}

/// A text that takes so many letters and then no more: whoever writes into it stops there.
struct Short(String);

/// So many letters of a value that cannot be are shown: a field may hold millions.
const MOST_SHOWN: usize = 60;

impl Write for Short {
    fn write_str(&mut self, more: &str) -> std::fmt::Result {
        let room = MOST_SHOWN - self.0.chars().count();
        self.0.extend(more.chars().map(|one| if one.is_control() { ' ' } else { one }).take(room));
        if more.chars().count() > room { Err(std::fmt::Error) } else { Ok(()) }
    }
}

/// A value that cannot be, as it stands in the file, cut short.
fn shown(field: &Field) -> String {
    let mut short = Short(String::new());
    // It fails where it is full.
    let _ = write!(short, "{}", field.display_value());
    short.0
}

/// A block of EXIF, as far as it can be read: what is broken in it does not take the rest with it.
pub(crate) fn of_block(block: &[u8]) -> Option<Exif> {
    let read = exif::Reader::new().continue_on_error(true).read_raw(block.to_vec());
    read.or_else(|wrong| wrong.distill_partial_result(|_| ())).ok()
}

/// The EXIF of a file that is TIFF inside, as far as it can be read.
pub(crate) fn of_file(file: &[u8]) -> Option<Exif> {
    let read = exif::Reader::new().continue_on_error(true).read_from_container(&mut Cursor::new(file));
    read.or_else(|wrong| wrong.distill_partial_result(|_| ())).ok()
}

/// How a picture lies in its file; upright where nothing is said.
pub(crate) fn orientation(exif: &Exif) -> u8 {
    let said = exif.get_field(Tag::Orientation, In::PRIMARY).and_then(|field| field.value.get_uint(0));
    said.and_then(|way| u8::try_from(way).ok()).filter(|way| (1..=8).contains(way)).unwrap_or(1)
}

/// EXIF 2.32: what it was taken with, and a caption.
pub(crate) fn as_exif(taken: &Taken, caption: &str) -> Vec<u8> {
    let rational = |value: f64, over: u32| {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a setting of a camera")]
        let num = (value * f64::from(over)).round().max(0.0) as u32;
        Value::Rational(vec![Rational { num, denom: over }])
    };
    let time = |shutter_s: f64| {
        if shutter_s > 0.0 && shutter_s < 0.5 {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a shutter time")]
            Value::Rational(vec![Rational { num: 1, denom: (1.0 / shutter_s).round() as u32 }])
        } else {
            rational(shutter_s, 10)
        }
    };
    let text = |said: &str| Value::Ascii(vec![ascii(said)]);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "an ISO number")]
    let iso = |iso: f64| Value::Short(vec![iso.round().clamp(0.0, 65_535.0) as u16]);
    let at = taken.at.map(|at| text(&at.strftime("%Y:%m:%d %H:%M:%S").to_string()));
    // EXIF keeps ASCII here; what is not stands as a question mark.
    let fields = [
        (Tag::ImageDescription, Some(text(caption))),
        (Tag::Model, taken.camera.as_deref().map(text)),
        (Tag::Software, Some(text(if taken.simulated { STAND_IN } else { "Tolva" }))),
        (Tag::ExposureTime, taken.shutter_s.map(time)),
        (Tag::FNumber, taken.f_number.map(|f_number| rational(f_number, 10))),
        (Tag::PhotographicSensitivity, taken.iso.map(iso)),
        (Tag::DateTimeOriginal, at),
        (Tag::Flash, taken.flash.map(|fired| Value::Short(vec![u16::from(fired)]))),
        (Tag::FocalLength, taken.focal_length_mm.map(|length| rational(length, 10))),
    ];
    let fields: Vec<Field> = fields
        .into_iter()
        .filter_map(|(tag, value)| Some(Field { tag, ifd_num: In::PRIMARY, value: value? }))
        .collect();
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

    /// A field of six million numbers that cannot be is shown by its first few: what is kept of a frame stays small.
    #[test]
    fn what_cannot_be_is_cut_short() {
        let values = [
            Value::Ascii(vec![vec![b'\x07'; 6_000_000]]),
            Value::Byte(vec![0; 6_000_000]),
            Value::Rational(vec![Rational { num: 1, denom: 0 }; 600_000]),
            Value::SShort(vec![-1; 600_000]),
            Value::Double(vec![f64::NAN; 600_000]),
        ];
        for value in values {
            let said = shown(&Field { tag: Tag::ExposureTime, ifd_num: In::PRIMARY, value });
            assert!(!said.is_empty() && said.chars().count() <= MOST_SHOWN, "{said:?}");
            assert!(!said.chars().any(char::is_control), "{said:?}");
        }
    }

    #[test]
    fn there_and_back() {
        let taken = Taken {
            shutter_s: Some(1.0 / 160.0),
            f_number: Some(4.0),
            iso: Some(400.0),
            focal_length_mm: Some(50.0),
            flash: Some(true),
            at: DateTime::new(2026, 6, 3, 19, 40, 5, 0).ok(),
            camera: Some("Stand-in".to_owned()),
            simulated: true,
            wrong: vec![],
        };
        assert_eq!(Taken::of(&of_block(&as_exif(&taken, "Frame")).expect("EXIF")), taken);
        assert_eq!(taken.settings().expect("all of it").label(), "1/160, f/4, ISO 400");
    }

    /// A camera that writes 1/0 s, an aperture of nothing, a date that is none.
    #[test]
    fn what_cannot_be_is_left_out_and_named() {
        let field = |tag, value| Field { tag, ifd_num: In::PRIMARY, value };
        let nothing = |num| Value::Rational(vec![Rational { num, denom: 0 }]);
        let fields = [
            field(Tag::ExposureTime, nothing(1)),
            field(Tag::FNumber, Value::Rational(vec![Rational { num: 0, denom: 10 }])),
            field(Tag::DateTimeOriginal, Value::Ascii(vec![b"0000:00:00 00:00:00".to_vec()])),
            field(Tag::PhotographicSensitivity, Value::Short(vec![200])),
        ];
        let mut writer = Writer::new();
        for field in &fields {
            writer.push_field(field);
        }
        let mut bytes = Cursor::new(Vec::new());
        writer.write(&mut bytes, false).expect("written");
        let taken = Taken::of(&of_block(&bytes.into_inner()).expect("EXIF"));
        assert_eq!((taken.shutter_s, taken.f_number, taken.iso, taken.at), (None, None, Some(200.0), None));
        assert_eq!(taken.settings(), Err(vec![Lacking::Shutter, Lacking::Aperture]));
        assert_eq!(taken.wrong.len(), 3, "{:?}", taken.wrong);
        assert!(taken.wrong[0].starts_with("ExposureTime"), "{:?}", taken.wrong);
        assert!(of_block(b"nonsense").is_none());
    }
}
