//! What setups and jobs ask of their days: minutes, spots, people, ways, and the shots that are taken.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

use crate::scene::LocalTime;

/// What a setup asks of the day.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Schedule {
    /// Minutes to build it, 0 to 600.
    #[schema(minimum = 0, maximum = 600, default = 15, extensions(("x-step" = json!(5))))]
    pub build_min: u32,
    /// Minutes to shoot it, 1 to 600.
    #[schema(minimum = 1, maximum = 600, default = 20, extensions(("x-step" = json!(5))))]
    pub shoot_min: u32,
    /// Its shooting begins then, whatever the light; left out where nobody has said so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pinned: Option<LocalTime>,
    /// Where it stands, in a word: setups of one spot have no way between them. May be empty.
    #[schema(max_length = 60)]
    pub spot: String,
}

impl Default for Schedule {
    fn default() -> Self {
        tolva_planner::setup::Schedule::default().into()
    }
}

/// What a job asks of its days.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct JobDay {
    /// Nothing begins before this hour: `07:00`.
    #[schema(pattern = r"^\d{2}:\d{2}$", example = "07:00")]
    pub begin: String,
    /// Everything is done by this hour: `22:00`. Where it is not after the first, it is one of the next day.
    #[schema(pattern = r"^\d{2}:\d{2}$", example = "22:00")]
    pub end: String,
    /// Who comes when. At most 60.
    #[schema(max_items = 60)]
    pub people: Vec<Arrival>,
    /// How long ways between spots take. At most 200.
    #[schema(max_items = 200)]
    pub ways: Vec<Way>,
    /// Minutes between two spots of which nobody has said it, 0 to 600.
    #[schema(minimum = 0, maximum = 600, default = 10, extensions(("x-step" = json!(5))))]
    pub way_min: u32,
}

impl Default for JobDay {
    fn default() -> Self {
        tolva_planner::setup::JobDay::default().into()
    }
}

impl JobDay {
    /// Whether nobody has said anything of it.
    pub fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

impl Schedule {
    /// Whether nobody has said anything of it.
    pub fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

/// What is ticked off of what a job takes along.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Packed {
    /// What is in the bag before leaving, by what it is ticked off by. At most 400.
    #[schema(max_items = 400)]
    pub out: Vec<String>,
    /// What is in it again before going home. At most 400.
    #[schema(max_items = 400)]
    pub home: Vec<String>,
}

impl Packed {
    /// Whether nothing is ticked off.
    pub fn is_nothing(&self) -> bool {
        self.out.is_empty() && self.home.is_empty()
    }
}

/// Somebody who comes at an hour.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Arrival {
    /// Unique in the job.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// Who. May be empty while it is written.
    #[schema(max_length = 120)]
    pub name: String,
    /// When: `14:30`.
    #[schema(pattern = r"^\d{2}:\d{2}$", example = "14:30")]
    pub at: String,
    /// The setups they are in, by their ids; empty means all. At most 60.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub setup_ids: Vec<String>,
}

/// How long a way takes, in either direction.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Way {
    /// Unique in the job.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// One spot.
    #[schema(max_length = 60)]
    pub from: String,
    /// The other.
    #[schema(max_length = 60)]
    pub to: String,
    /// How long, 0 to 600 minutes.
    #[schema(minimum = 0, maximum = 600, default = 10, extensions(("x-step" = json!(5))))]
    pub minutes: u32,
}

/// Frames of one kind that are to be taken. The list is in the order of taking.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Shot {
    /// Unique among the setup's.
    #[schema(min_length = 1, max_length = 60)]
    pub id: String,
    /// What it is called.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// How it is taken.
    #[serde(default)]
    pub kind: ShotKind,
    /// Who is in it. May be empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub who: String,
    /// How many frames, at least; of a multiple exposure its exposures, of a stack or a bracket its frames. 1 to 1000.
    #[serde(default = "one_frame")]
    #[schema(minimum = 1, maximum = 1000, default = 1)]
    pub frames: u32,
    /// From one frame of a bracket to the next, 0.1 to 5 stops.
    #[serde(default = "one_stop")]
    #[schema(minimum = 0.1, maximum = 5, default = 1, extensions(("x-step" = json!(1.0 / 3.0))))]
    pub step_stops: f64,
    /// How much of the light each exposure of a multiple one has against the others; empty where all have the same. At
    /// most 20.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub parts: Vec<f64>,
    /// The lights that are off for it, by their letters. At most 8.
    #[serde(default)]
    #[schema(max_items = 8)]
    pub lights_off: Vec<String>,
    /// Whether people leave the frame.
    #[serde(default)]
    pub people_out: bool,
    /// Poses, props, hazards. May be empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 1000)]
    pub notes: String,
    /// How many of its frames are taken and ticked off, 0 to 10 000.
    #[serde(default, skip_serializing_if = "is_none")]
    #[schema(minimum = 0, maximum = 10_000)]
    pub taken: u32,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde asks so")]
fn is_none(count: &u32) -> bool {
    *count == 0
}

fn one_frame() -> u32 {
    1
}

fn one_stop() -> f64 {
    1.0
}

/// How a shot is taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ShotKind {
    /// The picture itself.
    #[default]
    Picture,
    /// A clean plate: the same settings with something off, to take over what a reflection spoils.
    CleanPlate,
    /// Two frames at the same settings: one with a helper in the picture who holds a light, one without.
    HelperPair,
    /// Several exposures on one frame.
    MultipleExposure,
    /// Frames at several distances, laid over each other for depth.
    Stack,
    /// Frames of several exposures.
    Bracket,
    /// The camera goes along with what moves.
    Panning,
}
