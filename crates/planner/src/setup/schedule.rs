//! What a setup and a job ask of their day.

use tolva_core::time::LocalTime;

/// What a setup asks of the day.
#[derive(Clone, Debug, PartialEq)]
pub struct Schedule {
    /// Minutes to build it. 0 to 600.
    pub build_min: u32,
    /// Minutes to shoot it. 1 to 600.
    pub shoot_min: u32,
    /// Its shooting begins then, whatever the light: somebody has said so.
    pub pinned: Option<LocalTime>,
    /// Where it stands, in a word: setups of one spot have no way between them. May be empty.
    pub spot: String,
}

impl Default for Schedule {
    /// A quarter of an hour to build, twenty minutes to shoot. Chosen.
    fn default() -> Self {
        Self { build_min: 15, shoot_min: 20, pinned: None, spot: String::new() }
    }
}

/// What a job asks of its days.
#[derive(Clone, Debug, PartialEq)]
pub struct JobDay {
    /// Nothing begins before this hour, `07:00`.
    pub begin: String,
    /// Everything is done by this hour. Where it is not after the first, it is one of the next day.
    pub end: String,
    /// Who comes when.
    pub people: Vec<Arrival>,
    /// How long ways between spots take.
    pub ways: Vec<Way>,
    /// Minutes between two spots of which nobody has said it. 0 to 600.
    pub way_min: u32,
}

impl Default for JobDay {
    /// From seven to midnight, ten minutes between spots. Chosen.
    fn default() -> Self {
        Self { begin: "07:00".into(), end: "00:00".into(), people: Vec::new(), ways: Vec::new(), way_min: 10 }
    }
}

/// Somebody who comes at an hour.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Arrival {
    /// Unique in the job.
    pub id: String,
    /// Who.
    pub name: String,
    /// When, `14:30`.
    pub at: String,
    /// The setups they are in, by their ids; empty means all.
    pub setup_ids: Vec<String>,
}

/// How long a way takes, in either direction.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Way {
    /// Unique in the job.
    pub id: String,
    /// One spot.
    pub from: String,
    /// The other.
    pub to: String,
    /// How long. 0 to 600.
    pub minutes: u32,
}

/// Frames of one kind that are to be taken. The list is in the order of taking.
#[derive(Clone, Debug, PartialEq)]
pub struct Shot {
    /// Unique among the setup's.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How it is taken.
    pub kind: ShotKind,
    /// Who is in it. May be empty.
    pub who: String,
    /// How many frames, at least; of a multiple exposure the exposures, of a stack or a bracket its frames. 1 to 1000.
    pub frames: u32,
    /// From one frame of a bracket to the next, 0.1 to 5 stops.
    pub step_stops: f64,
    /// How much of the light each exposure of a multiple one has, against the others; empty where all have the same.
    pub parts: Vec<f64>,
    /// The lights that are off for it, by their letters.
    pub lights_off: Vec<String>,
    /// Whether people leave the frame.
    pub people_out: bool,
    /// Poses, props, hazards. May be empty.
    pub notes: String,
    /// How many of its frames are taken and ticked off.
    pub taken: u32,
}

impl Shot {
    /// A picture of one frame that nobody has named.
    pub fn new(id: &str) -> Self {
        Self {
            id: id.to_owned(),
            name: String::new(),
            kind: ShotKind::Picture,
            who: String::new(),
            frames: 1,
            step_stops: 1.0,
            parts: Vec::new(),
            lights_off: Vec::new(),
            people_out: false,
            notes: String::new(),
            taken: 0,
        }
    }
}

/// How a shot is taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
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

impl ShotKind {
    /// All of them, in the order they are offered.
    pub const OFFERED: [Self; 7] = [
        Self::Picture,
        Self::CleanPlate,
        Self::HelperPair,
        Self::MultipleExposure,
        Self::Stack,
        Self::Bracket,
        Self::Panning,
    ];
}
