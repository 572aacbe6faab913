//! What is sent of frames.

use serde::Serialize;
use tolva_core::exposure::CameraSettings;
use tolva_core::frame::Measured;
use tolva_core::scale::Stops;
use tolva_planner::setup::Unknown;
use utoipa::ToSchema;

use crate::document::Document;
use crate::shown::Said;

/// What was measured where a region is.
#[derive(Clone, Copy, Debug)]
pub struct MarkMeasured {
    /// The region, by its index in the setup.
    pub region: usize,
    /// What came there.
    pub measured: Measured,
    /// How much brighter than mid grey what lies there is in the same light.
    pub surface: Stops,
}

/// What came, and what it was taken with.
#[derive(Clone, Copy, Debug)]
pub struct CameOf<'a> {
    /// The dials; nothing where its file does not say and nobody has.
    pub settings: Option<CameraSettings>,
    /// Whether the flash fired; nothing where it is not known: then it is taken to have.
    pub flash: Option<bool>,
    /// What was measured, of the regions that have a mark.
    pub marks: &'a [MarkMeasured],
}

/// A frame against the plan it was taken by.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FrameReport {
    /// In a sentence: `Face ⅔ too bright, behind as planned`.
    pub says: String,
    /// What it was taken with, in a line: `1/125 s · f/4 · ISO 100 · flash`.
    pub settings: String,
    /// What its file does not say, to be asked once: `shutter`, `aperture`, `iso`, `flash`.
    pub lacking: Vec<&'static str>,
    /// Each region, as the setup lists them.
    pub regions: Vec<FrameRegion>,
    /// What one frame cannot tell, and why.
    pub notes: Vec<String>,
    /// Whether anything can be learnt from it.
    pub teaches: bool,
    /// What may lie under a mark.
    pub surfaces: Vec<SurfaceSaid>,
}

/// Something that may lie under a mark.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SurfaceSaid {
    /// Its code.
    pub code: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// How much brighter than mid grey it is in the same light, in stops.
    pub stops: f64,
}

/// A region of a frame.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FrameRegion {
    /// Its id.
    pub region_id: String,
    /// What it is called.
    pub name: String,
    /// Where it was to be, by what was known then, at the settings of the frame; null where those are not known.
    pub planned: Option<Said>,
    /// Where it came: what a grey card there would have; null where that cannot be told.
    pub came: Option<Said>,
    /// How much brighter it came.
    pub off: Option<Said>,
    /// How far it may be off by all that was not known, one standard deviation: `±0.4`.
    pub expected: Option<String>,
    /// The same in stops.
    pub expected_stops: Option<f64>,
    /// In words: `⅔ brighter than planned`.
    pub says: String,
    /// What the picture shows there, in stops from mid grey, whatever lies there; null without a mark, or where it is black.
    pub shows: Option<Said>,
    /// How much of it is full, in percent; null without a mark.
    pub clipped_percent: Option<f64>,
    /// The colour of the patch: `red 1.12 × green, blue 0.86 × green`; null without a mark, or where it is black.
    pub balance: Option<String>,
}

/// What a frame teaches, and what to turn after it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Lesson {
    /// In a sentence.
    pub says: String,
    /// Whether Tolva has learnt from it already.
    pub learnt: bool,
    /// What is believed of each thing nobody knows, before and after; those that it moves first.
    pub beliefs: Vec<BeliefSaid>,
    /// What to turn: the least that does it first.
    pub offers: Vec<CorrectionSaid>,
    /// The setup with what was learnt, and nothing turned.
    pub setup: Document,
}

/// What is believed of something.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BeliefSaid {
    /// A code of its kind: `camera`, `ambient`, `light`, `spill`.
    pub kind: &'static str,
    /// What it is called.
    pub name: String,
    /// How much more of it there is than its figures say, before.
    pub before: Said,
    /// How surely: `±0.33`.
    pub before_sure: String,
    /// And now.
    pub now: Said,
    /// How surely.
    pub now_sure: String,
    /// One standard deviation now, in stops.
    pub now_sure_stops: f64,
    /// Whether the frame has moved it, or made it surer, by more than a trifle.
    pub moved: bool,
    /// What of the kit it is about, where it can be kept there.
    pub of_kit: Option<OfKit>,
}

/// What of the kit something is learnt about.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OfKit {
    /// A camera with a lens.
    Camera {
        /// The camera.
        camera_id: String,
        /// The lens.
        lens_id: String,
    },
    /// A meter.
    Meter {
        /// The meter.
        meter_id: String,
    },
    /// A unit through a modifier.
    Flash {
        /// The unit.
        flash_id: String,
        /// The modifier; null for the bare unit.
        modifier_id: Option<String>,
    },
}

/// What to turn.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CorrectionSaid {
    /// In a line: `A from 1/4 to 1/8 −⅓`.
    pub does: String,
    /// Each dial.
    pub dials: Vec<DialSaid>,
    /// What comes of it: `Lit side 0, behind −1⅓`.
    pub comes: String,
    /// Whether every dial was free; otherwise the camera stays as far as it can.
    pub free: bool,
    /// The setup with it done.
    pub setup: Document,
}

/// A dial that is turned.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DialSaid {
    /// What: `Shutter`, `Power of A`.
    pub name: String,
    /// What stood there.
    pub from: String,
    /// What is to stand there.
    pub to: String,
}

/// Something the stand-in camera has hidden.
#[derive(Clone, Debug)]
pub struct Hidden {
    /// What.
    pub what: Unknown,
    /// How much more of it there is than its figures say.
    pub more: Stops,
}

/// What the stand-in camera has hidden, and how near one came.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Revealed {
    /// What it is called.
    pub name: String,
    /// How much more of it there really is.
    pub really: Said,
    /// What was learnt of it; null where nothing was.
    pub learnt: Option<Said>,
    /// In words: `within a tenth`.
    pub says: String,
}
