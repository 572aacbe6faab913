//! Readings of the light that is there, as they are given: an EV, lux, or what a meter or camera said.

use super::meter::{IncidentReceptor, reflected_over};
use super::{CameraSettings, Ev, MeteringMethod};
use crate::colour::StatedColour;
use crate::scale::{ParseError, Setting, Stops, parse_aperture, parse_iso, parse_shutter};
use crate::time::LocalTime;

/// The light that is there in one region, flash off.
#[derive(Clone, Debug, PartialEq)]
pub struct Ambient {
    /// What is assumed where nothing was read and no place and hour say more: an EV at ISO 100, −10 to 24.
    pub guess_ev100: f64,
    /// The readings taken, in order: the last one counts.
    pub readings: Vec<MeterReading>,
    /// Its colour.
    pub colour: StatedColour,
    /// Film on the window it comes through, from the kit's gels: readings are taken to be from before it was put up. At
    /// most 4.
    pub film_ids: Vec<String>,
}

/// One reading, and how, where and when it was taken.
#[derive(Clone, Debug, PartialEq)]
pub struct MeterReading {
    /// What was read.
    pub reading: Reading,
    /// How.
    pub method: MeteringMethod,
    /// How many stops brighter than mid grey the surface was that the reading was taken off: 0 for an incident
    /// reading or a grey card, about 2.3 for white cloth, about 1 for pale skin (common practice, no source). −6 to 4.
    pub surface_stops: f64,
    /// When, by the clocks of the place; left out where nobody noted it, and then the light is taken not to change.
    pub at: Option<LocalTime>,
    /// Where, in words. May be empty.
    pub place: String,
    /// With which meter of the kit, where that was said.
    pub meter_id: Option<String>,
    /// Whether a stand-in made it up and no meter took it.
    pub simulated: bool,
}

/// One reading, in the form it was taken in.
#[derive(Clone, Debug, PartialEq)]
pub enum Reading {
    /// An exposure value at ISO 100.
    Ev(EvReading),
    /// Illuminance.
    Lux(LuxReading),
    /// The settings a meter or camera gave.
    Camera(CameraReading),
}

/// An exposure value.
#[derive(Clone, Debug, PartialEq)]
pub struct EvReading {
    /// At ISO 100, −10 to 24.
    pub ev100: f64,
}

/// An illuminance.
#[derive(Clone, Debug, PartialEq)]
pub struct LuxReading {
    /// In lux, 0.001 to 200 000.
    pub illuminance_lux: f64,
    /// What collected the light.
    pub receptor: IncidentReceptor,
}

/// What a meter or camera said: three dial settings, nominal or exact.
#[derive(Clone, Debug, PartialEq)]
pub struct CameraReading {
    /// In seconds; 1/250 is 0.004.
    pub shutter_s: f64,
    /// The f-number.
    pub f_number: f64,
    /// ISO.
    pub iso: f64,
    /// The exposure compensation that stood on the camera, in stops: at +1 its meter found a stop more light than these
    /// settings are right for.
    pub compensation_stops: f64,
}

/// The ranges readings are accepted in.
pub mod ranges {
    use std::ops::RangeInclusive;
    /// Exposure values at ISO 100.
    pub const EV: RangeInclusive<f64> = -10.0..=24.0;
    /// Lux.
    pub const LUX: RangeInclusive<f64> = 0.001..=200_000.0;
    /// A surface's distance from mid grey, in stops.
    pub const SURFACE: RangeInclusive<f64> = -6.0..=4.0;
    /// A camera's compensation, in stops.
    pub const COMPENSATION: RangeInclusive<f64> = -6.0..=6.0;
}

impl CameraReading {
    /// The settings as they stand on the camera.
    pub fn settings(&self) -> CameraSettings {
        CameraSettings {
            shutter: Setting::of(self.shutter_s),
            aperture: Setting::of(self.f_number),
            iso: Setting::of(self.iso),
        }
    }
}

impl Reading {
    /// The exposure value of this reading, before any surface is taken off.
    pub fn ev100(&self) -> Ev {
        match self {
            Self::Ev(reading) => Ev(reading.ev100),
            Self::Lux(reading) => Ev::from_lux(reading.illuminance_lux, reading.receptor.constant()),
            Self::Camera(said) => said.settings().ev100() + Stops(said.compensation_stops),
        }
    }

    /// As a photographer would write it: `EV 12.6`, `8000 lx`, `1/250, f/8, ISO 100`.
    pub fn label(&self) -> String {
        match self {
            Self::Ev(_) => self.ev100().label(),
            Self::Lux(reading) if reading.illuminance_lux < 10.0 => format!("{:.2} lx", reading.illuminance_lux),
            Self::Lux(reading) => format!("{:.0} lx", reading.illuminance_lux),
            Self::Camera(said) if said.compensation_stops == 0.0 => said.settings().label(),
            Self::Camera(said) => {
                format!("{} at {}", said.settings().label(), Stops(said.compensation_stops).as_given())
            }
        }
    }

    /// By how much a spot reading off an 18 % card would lie over this one, where this one is incident.
    pub fn grey_card_over(&self) -> Option<Stops> {
        match self {
            Self::Lux(reading) => Some(reflected_over(reading.receptor)),
            Self::Ev(_) | Self::Camera(_) => None,
        }
    }
}

impl MeterReading {
    /// A reading by itself: nobody said how or when.
    pub fn of(reading: Reading) -> Self {
        Self {
            reading,
            method: MeteringMethod::Unsaid,
            surface_stops: 0.0,
            at: None,
            place: String::new(),
            meter_id: None,
            simulated: false,
        }
    }

    /// The exposure value it comes to: the reading less what its surface lies over mid grey.
    pub fn ev100(&self) -> Ev {
        self.reading.ev100() - Stops(self.surface_stops)
    }
}

impl Ambient {
    /// A guess: nobody has read the light yet.
    pub fn guessed(ev100: f64) -> Self {
        Self { guess_ev100: ev100, readings: Vec::new(), colour: StatedColour::FromPlace, film_ids: Vec::new() }
    }

    /// A reading.
    pub fn read(reading: Reading) -> Self {
        let guess = reading.ev100().0.clamp(-10.0, 24.0);
        Self { readings: vec![MeterReading::of(reading)], ..Self::guessed(guess) }
    }

    /// The reading that counts: the last one.
    pub fn last(&self) -> Option<&MeterReading> {
        self.readings.last()
    }
}

/// A reading as typed, in any of its forms: `EV 12.6`, `12.6`, `8000 lx`, `1/250, f/8, ISO 100`.
///
/// # Errors
/// What was not understood, with the forms that are, and the allowed range.
///
/// ```
/// use tolva_core::exposure::parse_reading;
/// assert_eq!(parse_reading("1/250 f/8 ISO 100")?.ev100().0, 14.0);
/// assert_eq!(parse_reading("8000 lx")?.label(), "8000 lx");
/// assert!(parse_reading("bright").unwrap_err().to_string().contains("bright"));
/// # Ok::<(), tolva_core::scale::ParseError>(())
/// ```
pub fn parse_reading(typed: &str) -> Result<Reading, ParseError> {
    use crate::scale::parsing::{large_number, number, without_prefix};
    let text = typed.trim().to_lowercase();
    if let Some(bare) = text.strip_suffix("lx").or_else(|| text.strip_suffix("lux")) {
        let (bare, times) = bare.trim().strip_suffix('k').map_or((bare, 1.0), |bare| (bare, 1000.0));
        // Thousands of a thousand are written with decimals.
        let read = if times > 1.0 { number } else { large_number };
        let lux = read(&bare.replace(' ', "")).map(|lux| lux * times).filter(|lux| ranges::LUX.contains(lux));
        let reading = lux
            .map(|illuminance_lux| Reading::Lux(LuxReading { illuminance_lux, receptor: IncidentReceptor::default() }));
        return reading.ok_or_else(|| ParseError::new(typed, "an illuminance from 0.001 to 200000 lx: write 8000 lx"));
    }
    if text.contains('/') || text.contains("iso") {
        return parse_camera_said(typed, &text);
    }
    let bare = without_prefix(text.trim_end_matches("ev").trim_end(), &["ev"]);
    let ev = number(bare).filter(|ev| ranges::EV.contains(ev));
    ev.map(|ev100| Reading::Ev(EvReading { ev100 })).ok_or_else(|| {
        ParseError::new(
            typed,
            "a reading: write an EV from −10 to 24 (EV 12.6), lux (8000 lx) or settings (1/250, f/8, ISO 100)",
        )
    })
}

fn parse_camera_said(typed: &str, text: &str) -> Result<Reading, ParseError> {
    let wrong = |what: &str| ParseError::new(typed, format!("a whole reading: {what}. Write 1/250, f/8, ISO 100"));
    let joined = text.replace("iso ", "iso").replace("f/ ", "f/").replace("f ", "f").replace(" s", "s");
    let parts: Vec<&str> =
        joined.split([' ', ';']).map(|part| part.trim_matches(',')).filter(|part| !part.is_empty()).collect();
    let [shutter, aperture, iso] = parts.as_slice() else {
        return Err(wrong("it needs a shutter time, an aperture and an ISO, three in all"));
    };
    let aperture_given = aperture.trim_start_matches(['f', 'ƒ']);
    if aperture_given.len() == aperture.len() && aperture.contains('/') {
        return Err(wrong("the aperture comes second"));
    }
    Ok(Reading::Camera(CameraReading {
        shutter_s: parse_shutter(shutter)?.nominal,
        f_number: parse_aperture(aperture)?.nominal,
        iso: parse_iso(iso)?.nominal,
        compensation_stops: 0.0,
    }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    #[rstest]
    #[case("12.6", 12.6)]
    #[case("EV 12.6", 12.6)]
    #[case("ev12,6", 12.6)]
    #[case("−2 EV", -2.0)]
    #[case("1/250, f/8, ISO 100", 14.0)]
    #[case("1/250 8 100", 14.0)]
    #[case("1/60 f5.6 iso 400", 9.0)]
    #[case("0.8s f/2.8 ISO 100", 3.0 + 1.0 / 3.0)]
    #[case("81920 lx", 15.0)]
    #[case("81.92 klx", 15.0)]
    #[case("10 000 lux", 11.9658)]
    #[case("8,000 lx", 11.643_856)]
    #[case("1/1,000, f/5,6, ISO 12,800", 8.0)]
    fn understood(#[case] typed: &str, #[case] ev: f64) {
        let reading = parse_reading(typed).expect("a reading");
        assert!((reading.ev100().0 - ev).abs() < 0.0005, "{reading:?}");
    }

    #[rstest]
    #[case("", "EV 12.6")]
    #[case("25", "−10 to 24")]
    #[case("0 lx", "0.001 to 200000")]
    #[case("1/250 f/8", "three in all")]
    #[case("f/8 1/250 ISO 100", "second")]
    #[case("1/250, f/8, ISO 0", "ISO 640")]
    #[case("dark", "dark")]
    fn refused_with_what_is_allowed(#[case] typed: &str, #[case] hint: &str) {
        let said = parse_reading(typed).expect_err("not a reading").to_string();
        assert!(said.contains(hint), "{said}");
    }

    #[test]
    fn a_surface_is_taken_off() {
        let white_wall =
            MeterReading { surface_stops: 2.3, ..MeterReading::of(Reading::Ev(EvReading { ev100: 13.0 })) };
        assert!((white_wall.ev100().0 - 10.7).abs() < 1e-9);
    }

    /// At +1 the camera gives a stop more than its meter asked for: the light it found is a stop over its settings.
    #[test]
    fn compensation_is_added() {
        let said = CameraReading { shutter_s: 1.0 / 250.0, f_number: 8.0, iso: 100.0, compensation_stops: 1.0 };
        let reading = Reading::Camera(said);
        assert!((reading.ev100().0 - 15.0).abs() < 1e-9);
        assert_eq!(reading.label(), "1/250, f/8, ISO 100 at +1");
    }

    proptest! {
        #[test]
        fn never_panics(typed in "\\PC{0,24}") {
            let _ = parse_reading(&typed);
        }

        #[test]
        fn a_label_is_read_back(ev in -9.9..23.9_f64) {
            let reading = Reading::Ev(EvReading { ev100: ev });
            let again = parse_reading(&reading.label()).expect("its own label");
            prop_assert!((again.ev100().0 - ev).abs() <= 0.0501);
        }
    }
}
