//! A plan as it is sent: every number with its label, sentences, workings, in the person's units. The only crate with
//! prose; what is said comes from the planner as codes with their numbers.
//!
//! ```
//! use tolva_planner::setup::{Kit, Setup};
//! use tolva_wording::{Document, Show, plan};
//!
//! let kit = Kit::starter();
//! let setup = Setup::new("doorway", &kit);
//! let plan = plan(&setup, &kit, Show::default(), &|setup| Document::of(&setup.id))?;
//! assert!(plan.possible);
//! assert_eq!(plan.dial_card.iso.label, "ISO 100");
//! # Ok::<(), tolva_planner::refused::Refused>(())
//! ```

mod automatic;
mod card;
mod casts;
mod cautions;
mod changes;
mod colour;
mod coming;
mod conventions;
mod day;
mod deeds;
mod depth;
mod depth_lane;
mod document;
mod drills;
mod fixes;
mod frames;
mod glass;
mod job_day;
mod leaf;
mod light_card;
mod names;
mod options;
mod pace;
mod pack;
mod plan;
mod present;
mod proof;
mod run;
mod set;
mod shortfalls;
mod shots;
mod shown;
mod speed;
mod sun_report;
mod timetable;
mod words;
mod workings;

pub use card::{Paper, field_card};
pub use casts::cast_words;
pub use colour::{
    BalanceSaid, BalanceWay, ColourMark, ColourOptions, ColourPlan, GelOffer, GelStep, LookLine, MarkKind, OneLook,
    RegionColour, StripGrey, Swatch, colour_options, one_look,
};
pub use coming::{ComingJob, ComingSetup, coming_job};
pub use conventions::{ConventionMatter, ConventionWay, conventions_of};
pub use day::{DayEvent, DayTimeline, HourMark, LightPhaseStretch, ReadingOnTimeline, Stretch, day_of};
pub use deeds::deed_name;
pub use depth_lane::{DepthLane, Distance, InDepth};
pub use document::{Document, Write};
pub use drills::{
    AnswerSaid, AnsweredBy, DrillSaid, FindingSaid, HiddenSaid, LevelSaid, OnDrillRail, OnSetDial, OnSetEnd,
    OnSetFrameSaid, OnSetSaid, PaneSeen, SheetAsked, SkillProgress, SkillSaid, TaskFound, TaskSaid, WeekSaid,
    answer_said, drill_said, level_of, levels, number_of, on_set_said, sheet, skill_of, skill_progress, task_found,
    task_of, why_these,
};
pub use frames::{
    BeliefSaid, CameOf, CorrectionSaid, DialSaid, FrameOfShot, FrameRegion, FrameReport, Hidden, Lesson, MarkMeasured,
    OfKit, PlateSaid, Revealed, SameSaid, SurfaceSaid, beliefs, frame_report, frame_says, frame_settings,
    held_to_pictures, lesson, revealed,
};
pub use glass::{GlassFinding, GlassOffer, GlassRemedies, GlassReport, GlossSaid, plate_names};
pub use job_day::{
    DayChange, DayLane, DayPlan, DaySlot, HourOfDay, LeftOut, LightMoment, ScheduleThen, SlotBefore, day_plan,
    hour_on_day,
};
pub use leaf::{
    AlternativeKind, Change, Control, FallingOrder, Grip, LengthUnit, LightWish, Limit, PowerNotation, Role, SunEvent,
    Sync,
};
pub use names::{Meant, Named, instruction, number_name};
pub use options::{Alternative, Alternatives, alternatives};
pub use pack::{PackLine, PackList, pack_said};
pub use plan::{
    Caution, DialCard, Dialled, Fix, FlashMark, LightCard, Mark, Plan, Ratio, RegionOnRail, Shortfall, Working,
};
pub use present::{plan, plan_with_set};
pub use proof::{ProofReading, ProofRegion, ProofReport, ProofShare, proof_of, proof_reading};
pub use run::{
    LightThen, LookedSaid, NextSetup, RunDials, RunReading, RunRegion, RunSheet, RunStep, looked_said, run_sheet,
};
pub use set::{
    CardCurve, DrawnAs, EvennessSaid, FloorPart, Level, LightMap, MapAsked, OnSet, PersonLit, Reach, SetLight, SetNote,
    SetReport, SetThing, ShadowDrawn, Whose, escaped, set_drawing, set_moves,
};
pub use shots::{ShotList, ShotOffer, ShotSaid, shot_list};
pub use shown::{Fact, Said, Show};
pub use sun_report::SunReport;
pub use timetable::{FallingStep, LastMinute, RegionThen, Timetable, falling};
