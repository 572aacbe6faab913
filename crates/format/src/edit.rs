//! Changing one number of a document: typed in any notation, or stepped. The document is a setup or a kit as JSON; what a
//! number is and what is allowed is the catalogue's.

use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use tolva_core::scale::LengthUnit;
use utoipa::ToSchema;

use crate::catalogue::{Field, catalogue};
use crate::meant::{Meant, Understood};
use crate::problems::{Problem, ProblemCode, Problems};
use crate::read::read_json;

/// A change of one number.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Edit {
    /// A text was typed into it.
    Type {
        /// JSON pointer to the number.
        at: String,
        /// What was typed.
        #[schema(max_length = 200)]
        text: String,
    },
    /// It is stepped by so many of its steps.
    Nudge {
        /// JSON pointer to the number.
        at: String,
        /// How many steps; negative is less.
        by: i32,
    },
}

/// A document of a type with one number changed. A part that was not there is begun.
///
/// # Errors
/// A text that is no such number, a number that is out of its range (told in the person's unit), or a place where no number
/// stands. Pointers are those of the edit: `/text`, `/at`.
///
/// ```
/// use tolva_core::scale::LengthUnit;
/// use tolva_format::{Edit, Kit, Setup, edited};
///
/// let setup = Setup::new("one", &Kit::starter());
/// let typed = Edit::Type { at: "/lights/0/distance_m".into(), text: "2.5".into() };
/// assert_eq!(edited("Setup", &setup, &typed, LengthUnit::Metres)?.lights[0].distance_m, Some(2.5));
/// # Ok::<(), tolva_format::Problems>(())
/// ```
pub fn edited<T: Serialize + DeserializeOwned>(
    of: &str,
    document: &T,
    edit: &Edit,
    unit: LengthUnit,
) -> Result<T, Problems> {
    let (Edit::Type { at, .. } | Edit::Nudge { at, .. }) = edit;
    let (path, field) = catalogue().at(of, at).ok_or_else(|| nothing_there(at))?;
    let mut whole = serde_json::to_value(document).map_err(|error| Problems::one("", error.to_string()))?;
    let value = match edit {
        Edit::Type { text, .. } if path == "EvReading.ev100" => {
            return Err(Problems::one("/at", format!("“{text}” is a reading: it is typed as one")));
        }
        Edit::Type { text, .. } => typed(field, text, unit)?.value,
        Edit::Nudge { by, .. } => {
            let now = whole.pointer(at).and_then(Value::as_f64).or(field.default).ok_or_else(|| nothing_there(at))?;
            nudged(field, now, *by, unit)
        }
    };
    #[expect(clippy::cast_possible_truncation, reason = "within the range of its field")]
    let value = if field.whole { serde_json::json!(value.round() as i64) } else { serde_json::json!(value) };
    put(of, &mut whole, at, value).ok_or_else(|| nothing_there(at))?;
    read_json(whole.to_string().as_bytes())
}

fn nothing_there(at: &str) -> Problems {
    Problems::one("/at", format!("“{}” leads to no number", crate::problems::shortened(at)))
        .coded(ProblemCode::NotThere)
}

/// A number as it was typed, within what is allowed.
fn typed(field: &Field, text: &str, unit: LengthUnit) -> Result<Understood, Problems> {
    let wrong =
        |error: tolva_core::scale::ParseError| Problems::one("/text", error.to_string()).coded(ProblemCode::Unreadable);
    let mut understood = field.r#as.read(text, unit).map_err(wrong)?;
    if field.whole {
        understood.value = understood.value.round();
    }
    // Feet and inches are written to whole inches: the ends of a range are met by what stands there.
    let near = (field.most - field.least) * 1e-9;
    if understood.value < field.least - near || understood.value > field.most + near {
        let message = format!("“{text}” is not allowed here: it must be {}", field.allowed(unit));
        let problem = Problem::new("/text", ProblemCode::OutOfRange, message);
        return Err(Problems(vec![Problem { least: Some(field.least), most: Some(field.most), ..problem }]));
    }
    Ok(understood)
}

impl Field {
    /// The range in words, in the unit a person writes lengths in: `from 0.1 m to 50 m`.
    pub fn allowed(&self, unit: LengthUnit) -> String {
        let ends = [self.least, self.most].map(|end| match self.r#as {
            Meant::Number | Meant::Coordinate => self.r#as.label(end, unit),
            meant => meant.label(end, unit),
        });
        let unit = if matches!(self.r#as, Meant::Number | Meant::Stops | Meant::Coordinate) { self.unit } else { "" };
        format!("from {} to {} {unit}", ends[0], ends[1]).trim_end().to_owned()
    }
}

/// A number so many steps on, held to its range. Where lengths are feet and inches, a step is whole inches.
fn nudged(field: &Field, now: f64, by: i32, unit: LengthUnit) -> f64 {
    const INCH_M: f64 = 0.0254;
    let step = match (field.r#as, unit) {
        (Meant::Length, LengthUnit::FeetAndInches) => (field.step.unwrap_or(INCH_M) / INCH_M).round().max(1.0) * INCH_M,
        _ => field.step.unwrap_or(1.0),
    };
    let steps = (now / step + f64::from(by)).round();
    // So many in one: thirds of a stop are thirds, and not sums of rounded ones.
    let in_one = (1.0 / step).round();
    let to = if in_one >= 1.0 && (step * in_one - 1.0).abs() < 1e-9 { steps / in_one } else { steps * step };
    to.clamp(field.least, field.most)
}

/// Puts a value at a pointer; a part above it that is not there is begun.
fn put(of: &str, whole: &mut Value, at: &str, value: Value) -> Option<()> {
    let (above, last) = at.rsplit_once('/')?;
    if whole.pointer(above).is_none_or(Value::is_null) {
        put(of, whole, above, catalogue().begun_at(of, above)?)?;
    }
    whole.pointer_mut(above)?.as_object_mut()?.insert(last.to_owned(), value);
    Some(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{Kit, Setup};
    use rstest::rstest;

    fn with(at: &str, text: &str, unit: LengthUnit) -> Result<Setup, Problems> {
        let edit = Edit::Type { at: at.to_owned(), text: text.to_owned() };
        edited("Setup", &Setup::new("one", &Kit::starter()), &edit, unit)
    }

    #[rstest]
    #[case("/lights/0/distance_m", "2,5", LengthUnit::Metres, 2.5)]
    #[case("/lights/0/distance_m", "8", LengthUnit::FeetAndInches, 2.4384)]
    #[case("/lights/0/units", "2", LengthUnit::Metres, 2.0)]
    #[case("/pace/burst_frames", "5", LengthUnit::Metres, 5.0)]
    #[case("/fixed/shutter_s", "1/250", LengthUnit::Metres, 0.004)]
    #[case("/blend/lift/background_stops", "-1 1/3", LengthUnit::Metres, -4.0 / 3.0)]
    fn a_number_is_typed(#[case] at: &str, #[case] text: &str, #[case] unit: LengthUnit, #[case] value: f64) {
        let setup = serde_json::to_value(with(at, text, unit).expect("it is good")).expect("JSON");
        let found = setup.pointer(at).and_then(Value::as_f64).expect("a number");
        assert!((found - value).abs() < 1e-9, "{found}");
    }

    #[rstest]
    #[case(
        "/lights/0/distance_m",
        "80",
        LengthUnit::Metres,
        "“80” is not allowed here: it must be from 0.10 m to 50.00 m"
    )]
    #[case("/lights/0/distance_m", "200", LengthUnit::FeetAndInches, "ft")]
    #[case("/lights/0/distance_m", "wide", LengthUnit::Metres, "wide")]
    #[case("/lights/0/units", "9", LengthUnit::Metres, "from 1 to 6 units")]
    #[case("/lights/9/distance_m", "2", LengthUnit::Metres, "leads to no number")]
    #[case("/name", "2", LengthUnit::Metres, "leads to no number")]
    fn what_is_wrong_is_told(#[case] at: &str, #[case] text: &str, #[case] unit: LengthUnit, #[case] says: &str) {
        let problems = with(at, text, unit).expect_err("it is wrong");
        assert!(problems.0[0].message.contains(says), "{}", problems.0[0].message);
    }

    /// Steps go by the unit that is shown, and end where the range does.
    #[rstest]
    #[case("/lights/0/distance_m", 1, LengthUnit::Metres, 1.55)]
    #[case("/lights/0/distance_m", 1, LengthUnit::FeetAndInches, 62.0 * 0.0254)]
    #[case("/lights/0/distance_m", 5000, LengthUnit::Metres, 50.0)]
    #[case("/lights/0/feather_deg", 3, LengthUnit::Metres, 15.0)]
    #[case("/blend/lift/background_stops", 1, LengthUnit::Metres, -2.0 / 3.0)]
    fn a_number_is_stepped(#[case] at: &str, #[case] by: i32, #[case] unit: LengthUnit, #[case] value: f64) {
        let edit = Edit::Nudge { at: at.to_owned(), by };
        let setup = edited("Setup", &Setup::new("one", &Kit::starter()), &edit, unit).expect("it is good");
        let found = serde_json::to_value(setup).expect("JSON").pointer(at).and_then(Value::as_f64).expect("a number");
        assert!((found - value).abs() < 1e-9, "{found}");
    }
}
