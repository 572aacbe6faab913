//! Frames that were taken, as they are kept: what they were taken with, where each region is in them, and the setup as it
//! stood then. Their pictures are kept beside, not in here.

use std::collections::HashSet;

use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::migrate;
use crate::problems::{Checker, ProblemCode, Problems, shortened};
use crate::read::read_json;
use crate::setup::Setup;
use crate::version::FORMAT_VERSION;

/// A frame that was taken.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakenFrame {
    /// Unique in the data file.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// The version of the format its setup is written in: as a job's.
    #[schema(minimum = 11, maximum = 11)]
    pub format_version: u32,
    /// The setup it was taken of.
    #[schema(min_length = 1, max_length = 60)]
    pub setup_id: String,
    /// Which of the setup's shots it is of; null where nobody has said it.
    #[serde(default)]
    #[schema(max_length = 60)]
    pub shot_id: Option<String>,
    /// What its file is called.
    #[schema(min_length = 1, max_length = 255)]
    pub name: String,
    /// The SHA-256 of its file, in hexadecimal.
    #[schema(min_length = 64, max_length = 64)]
    pub hash: String,
    /// When it came to Tolva, RFC 3339.
    #[schema(max_length = 40)]
    pub added_at: String,
    /// Upright, in pixels.
    pub width: u32,
    /// Upright, in pixels.
    pub height: u32,
    /// What it was taken with, as its file says and as was given for what it does not say.
    pub settings: FrameSettings,
    /// When, by the camera's clock: `2026-11-26T15:30:00`; null where it does not say.
    #[serde(default)]
    #[schema(max_length = 40)]
    pub at: Option<String>,
    /// The camera, as it names itself; null where it does not.
    #[serde(default)]
    #[schema(max_length = 200)]
    pub camera: Option<String>,
    /// What its file says that cannot be, in words.
    #[serde(default)]
    #[schema(max_items = 20)]
    pub wrong: Vec<String>,
    /// Whether it is the picture a raw file carries.
    #[serde(default)]
    pub raw_preview: bool,
    /// Whether the stand-in camera made it: it is of no real place.
    #[serde(default)]
    pub simulated: bool,
    /// Where each region is in it.
    #[serde(default)]
    #[schema(max_items = 40)]
    pub marks: Vec<FrameMark>,
    /// What came where each region is, as far as that can be told.
    #[serde(default)]
    #[schema(max_items = 40)]
    pub came: Vec<FrameCame>,
    /// How the marks came to be where they are.
    #[serde(default)]
    pub marks_by: MarksBy,
    /// What there is to say of it.
    #[serde(default)]
    #[schema(max_length = 2000)]
    pub note: String,
    /// What was changed after it, in words; empty where nothing was.
    #[serde(default)]
    #[schema(max_items = 40)]
    pub changed: Vec<String>,
    /// The setup as it stood when the frame came.
    pub setup: Setup,
}

/// What a list shows of a frame: all but its marks and the setup as it stood, which is nearly all that is kept of it. See
/// [`TakenFrame`] for what each is.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[expect(missing_docs, reason = "as in TakenFrame")]
pub struct FrameSummary {
    pub id: String,
    pub setup_id: String,
    /// What the setup was called when the frame came.
    pub setup_name: String,
    /// How many lights it had.
    pub lights: usize,
    pub shot_id: Option<String>,
    pub name: String,
    pub added_at: String,
    pub width: u32,
    pub height: u32,
    pub settings: FrameSettings,
    pub at: Option<String>,
    pub camera: Option<String>,
    pub wrong: Vec<String>,
    pub raw_preview: bool,
    pub simulated: bool,
    pub came: Vec<FrameCame>,
    pub marks_by: MarksBy,
    pub note: String,
    pub changed: Vec<String>,
}

/// How a frame was taken: what it is held to others by.
#[derive(Clone, Debug, PartialEq)]
#[expect(missing_docs, reason = "as in TakenFrame")]
pub struct FrameAsTaken {
    pub id: String,
    pub setup_id: String,
    pub shot_id: Option<String>,
    pub name: String,
    pub width: u32,
    pub height: u32,
    pub settings: FrameSettings,
}

impl FrameSummary {
    /// How it was taken.
    pub fn as_taken(&self) -> FrameAsTaken {
        FrameAsTaken {
            id: self.id.clone(),
            setup_id: self.setup_id.clone(),
            shot_id: self.shot_id.clone(),
            name: self.name.clone(),
            width: self.width,
            height: self.height,
            settings: self.settings,
        }
    }

    /// How far the region is off that is off most, in stops; nothing where none can be told.
    pub fn most_off_stops(&self) -> Option<f64> {
        self.came.iter().filter_map(|came| came.off_stops).map(f64::abs).reduce(f64::max)
    }
}

/// What a frame was taken with; null is not known.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameSettings {
    /// The shutter time in seconds.
    #[serde(default)]
    #[schema(minimum = 0.000_01, maximum = 3600)]
    pub shutter_s: Option<f64>,
    /// The f-number.
    #[serde(default)]
    #[schema(minimum = 0.5, maximum = 128)]
    pub f_number: Option<f64>,
    /// The ISO.
    #[serde(default)]
    #[schema(minimum = 3, maximum = 10_000_000)]
    pub iso: Option<f64>,
    /// The focal length in millimetres.
    #[serde(default)]
    #[schema(minimum = 1, maximum = 3000)]
    pub focal_length_mm: Option<f64>,
    /// Whether the flash fired.
    #[serde(default)]
    pub flash: Option<bool>,
}

/// How the marks of a frame came to be where they are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MarksBy {
    /// Somebody has put them there, or looked at them.
    #[default]
    Hand,
    /// Followed from the frame before, or proposed by the proof.
    Found,
    /// As in the frame before, from which this one could not be followed: they may lie beside what they are of.
    Lost,
}

/// What came of a region in a frame: worked out when the frame came, and whenever its marks or settings were changed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameCame {
    /// The region.
    #[schema(min_length = 1, max_length = 60)]
    pub region_id: String,
    /// What it is called.
    #[schema(max_length = 120)]
    pub name: String,
    /// Where it was to be at the settings of the frame, in stops from mid grey; null where those are not known.
    #[serde(default)]
    pub planned_stops: Option<f64>,
    /// Where it came; null where it has no mark, or is too bright or too dark to tell.
    #[serde(default)]
    pub came_stops: Option<f64>,
    /// How much brighter it came.
    #[serde(default)]
    pub off_stops: Option<f64>,
    /// How far it may be off by all that was not known, one standard deviation.
    #[serde(default)]
    pub expected_stops: Option<f64>,
    /// How much of its mark is full, in percent.
    #[serde(default)]
    pub clipped_percent: Option<f64>,
}

/// What was measured on a mark, in linear light where mid grey is 0.18.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameMeasured {
    /// The mean of its red.
    pub red: f64,
    /// The mean of its green.
    pub green: f64,
    /// The mean of its blue.
    pub blue: f64,
    /// How much of it is full, 0 to 1.
    pub clipped: f64,
    /// How much it varies: the standard deviation of its luminance over the mean.
    pub varies: f64,
    /// How many pixels of the copy.
    pub pixels: u32,
}

/// Where a region is in a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameMark {
    /// The region.
    #[schema(min_length = 1, max_length = 60)]
    pub region_id: String,
    /// From the left of the frame, as a part of its width.
    #[schema(minimum = 0, maximum = 1)]
    pub left: f64,
    /// From its top, as a part of its height.
    #[schema(minimum = 0, maximum = 1)]
    pub top: f64,
    /// As a part of the frame's width.
    #[schema(minimum = 0.005, maximum = 1)]
    pub width: f64,
    /// As a part of its height.
    #[schema(minimum = 0.005, maximum = 1)]
    pub height: f64,
    /// Round rather than a box.
    #[serde(default)]
    pub round: bool,
    /// How much brighter than mid grey what is measured is in the same light, in stops: 0 for a grey card, about 1 for pale
    /// skin (common practice, no source).
    #[serde(default)]
    #[schema(minimum = -8, maximum = 4, default = 0, extensions(("x-step" = json!(0.1))))]
    pub surface_stops: f64,
    /// That is taken from the proof, for the lights that were on: `surface_stops` is Tolva's own then, whatever is sent.
    #[serde(default)]
    pub by_proof: bool,
    /// What was measured there; Tolva's own, whatever is sent.
    #[serde(default)]
    pub measured: Option<FrameMeasured>,
}

/// What somebody may change of a frame.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrameEdit {
    /// What it was taken with.
    pub settings: FrameSettings,
    /// Where each region is in it.
    #[schema(max_items = 40)]
    pub marks: Vec<FrameMark>,
    /// What there is to say of it.
    #[serde(default)]
    #[schema(max_length = 2000)]
    pub note: String,
    /// What was changed after it, in words.
    #[serde(default)]
    #[schema(max_items = 40)]
    pub changed: Vec<String>,
    /// Which of the setup's shots it is of; null where nobody says it: then it counts as a picture.
    #[serde(default)]
    #[schema(max_length = 60)]
    pub shot_id: Option<String>,
}

impl TakenFrame {
    /// Reads a frame as it is kept.
    ///
    /// # Errors
    /// What cannot be read, with a JSON pointer to it.
    pub fn stored(json: &[u8]) -> Result<Self, Problems> {
        let mut frame: Value = read_json(json)?;
        let version = frame["format_version"].as_u64().and_then(|version| u32::try_from(version).ok());
        if let Some(older) = version.filter(|version| *version < FORMAT_VERSION) {
            frame["setup"].as_object_mut().into_iter().for_each(|setup| migrate::setup_up(older, setup));
            frame["format_version"] = json!(FORMAT_VERSION);
        }
        read_json(frame.to_string().as_bytes())
    }

    /// Reads a frame that comes from somewhere else: as [`Self::stored`], and every value is held to its range.
    ///
    /// # Errors
    /// What cannot be read or is not allowed, with a JSON pointer to it.
    pub fn from_elsewhere(json: &[u8]) -> Result<Self, Problems> {
        let frame = Self::stored(json)?;
        let mut c = Checker::default();
        frame.ranges(&mut c);
        c.done()?;
        Ok(frame)
    }

    /// What a list shows of it.
    pub fn summary(&self) -> FrameSummary {
        FrameSummary {
            id: self.id.clone(),
            setup_id: self.setup_id.clone(),
            setup_name: self.setup.name.clone(),
            lights: self.setup.lights.len(),
            shot_id: self.shot_id.clone(),
            name: self.name.clone(),
            added_at: self.added_at.clone(),
            width: self.width,
            height: self.height,
            settings: self.settings,
            at: self.at.clone(),
            camera: self.camera.clone(),
            wrong: self.wrong.clone(),
            raw_preview: self.raw_preview,
            simulated: self.simulated,
            came: self.came.clone(),
            marks_by: self.marks_by,
            note: self.note.clone(),
            changed: self.changed.clone(),
        }
    }

    /// The frame with what somebody has changed of it.
    ///
    /// # Errors
    /// Values out of range, marks that reach out of the frame, are of no region of its setup, or are there twice.
    pub fn edited(mut self, edit: FrameEdit) -> Result<Self, Problems> {
        let mut c = Checker::default();
        edit.ranges(&mut c);
        let mut seen = HashSet::new();
        c.each("marks", &edit.marks, |c, mark| {
            if !self.setup.regions.iter().any(|region| region.id == mark.region_id) {
                c.coded(
                    "region_id",
                    ProblemCode::NotThere,
                    format!("there is no region “{}”", shortened(&mark.region_id)),
                );
            } else if !seen.insert(mark.region_id.as_str()) {
                c.coded("region_id", ProblemCode::Twice, format!("“{}” has two marks: each has one", mark.region_id));
            }
            // A part of a pixel is no matter.
            if mark.left + mark.width > 1.001 {
                c.wrong("width", "the mark reaches out of the frame on the right");
            }
            if mark.top + mark.height > 1.001 {
                c.wrong("height", "the mark reaches out of the frame below");
            }
        });
        c.done()?;
        let FrameEdit { settings, marks, note, changed, shot_id } = edit;
        let places = |marks: &[FrameMark]| -> Vec<FrameMark> {
            marks.iter().map(|mark| FrameMark { measured: None, surface_stops: 0.0, ..mark.clone() }).collect()
        };
        if places(&marks) != places(&self.marks) {
            self.marks_by = MarksBy::Hand;
        }
        Ok(Self { shot_id, settings, marks, note, changed, ..self })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Job;
    use rstest::rstest;

    fn frame() -> TakenFrame {
        let setup = Job::new("Doorway").setups.remove(0);
        TakenFrame {
            shot_id: None,
            id: "a".to_owned(),
            format_version: crate::FORMAT_VERSION,
            setup_id: setup.id.clone(),
            name: "one.jpg".to_owned(),
            hash: "0".repeat(64),
            added_at: "2026-11-26T15:30:00Z".to_owned(),
            width: 6000,
            height: 4000,
            settings: FrameSettings { shutter_s: Some(0.005), f_number: Some(4.0), ..FrameSettings::default() },
            at: None,
            camera: None,
            wrong: Vec::new(),
            raw_preview: false,
            simulated: false,
            marks: Vec::new(),
            came: Vec::new(),
            marks_by: MarksBy::Found,
            note: String::new(),
            changed: Vec::new(),
            setup,
        }
    }

    fn mark(region: &str) -> FrameMark {
        let region_id = region.to_owned();
        FrameMark {
            region_id,
            left: 0.4,
            top: 0.2,
            width: 0.1,
            height: 0.1,
            round: true,
            surface_stops: 0.9,
            by_proof: false,
            measured: None,
        }
    }

    fn edit(marks: Vec<FrameMark>) -> FrameEdit {
        FrameEdit {
            settings: FrameSettings { iso: Some(100.0), ..frame().settings },
            marks,
            note: "Wind".to_owned(),
            changed: Vec::new(),
            shot_id: Some("plate".to_owned()),
        }
    }

    #[test]
    fn what_is_given_is_taken() {
        let done = frame().edited(edit(vec![mark("lit"), mark("behind")])).expect("good");
        assert_eq!((done.marks.len(), done.marks_by, done.settings.iso), (2, MarksBy::Hand, Some(100.0)));
        assert_eq!((done.note.as_str(), done.settings.f_number), ("Wind", Some(4.0)));
        assert_eq!(done.shot_id.as_deref(), Some("plate"));
        let same = TakenFrame { marks: done.marks.clone(), marks_by: MarksBy::Found, ..done };
        let again = same.clone().edited(edit(same.marks)).expect("good");
        assert_eq!(again.marks_by, MarksBy::Found, "nobody has touched them");
    }

    #[rstest]
    #[case::of_nothing(vec![mark("moon")], "/marks/0/region_id")]
    #[case::twice(vec![mark("lit"), mark("lit")], "/marks/1/region_id")]
    #[case::out(vec![FrameMark { left: 0.95, ..mark("lit") }], "/marks/0/width")]
    #[case::below(vec![FrameMark { top: 0.95, ..mark("lit") }], "/marks/0/height")]
    #[case::far_out(vec![FrameMark { left: 7.0, ..mark("lit") }], "/marks/0/left")]
    #[case::no_number(vec![FrameMark { surface_stops: f64::NAN, ..mark("lit") }], "/marks/0/surface_stops")]
    fn what_is_wrong_is_named(#[case] marks: Vec<FrameMark>, #[case] pointer: &str) {
        let wrong = frame().edited(edit(marks)).expect_err("wrong");
        assert_eq!(wrong.0[0].pointer, pointer);
    }

    #[test]
    fn a_time_of_nothing_is_refused() {
        let settings = FrameSettings { shutter_s: Some(0.0), ..frame().settings };
        let wrong = frame().edited(FrameEdit { settings, ..edit(Vec::new()) }).expect_err("wrong");
        assert_eq!(wrong.0[0].pointer, "/settings/shutter_s");
    }

    /// A frame from somewhere else is held to its ranges, one that is kept here was held to them when it came.
    #[rstest]
    #[case::as_it_is("", json!(null), None)]
    #[case::no_hash("/hash", json!("0"), Some("/hash"))]
    #[case::no_name("/name", json!(""), Some("/name"))]
    #[case::no_such_iso("/settings/iso", json!(0.0), Some("/settings/iso"))]
    #[case::no_such_shutter("/settings/shutter_s", json!(-1.0), Some("/settings/shutter_s"))]
    #[case::too_long_a_note("/note", json!("x".repeat(2001)), Some("/note"))]
    #[case::too_much_changed("/changed", json!(vec!["ISO"; 41]), Some("/changed"))]
    #[case::of_its_setup("/setup/camera_distance_m", json!(-2.0), Some("/setup/camera_distance_m"))]
    fn what_comes_from_elsewhere_is_held_to_its_ranges(
        #[case] at: &str,
        #[case] value: Value,
        #[case] wrong: Option<&str>,
    ) {
        let mut frame = serde_json::to_value(frame()).expect("JSON");
        if let Some(place) = frame.pointer_mut(at).filter(|_| !at.is_empty()) {
            *place = value;
        }
        let read = TakenFrame::from_elsewhere(frame.to_string().as_bytes());
        let pointers = read.err().map(|problems| problems.0.into_iter().map(|one| one.pointer).collect::<Vec<_>>());
        assert_eq!(pointers, wrong.map(|pointer| vec![pointer.to_owned()]));
    }
}
