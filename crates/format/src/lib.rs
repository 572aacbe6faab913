//! The open format: one JSON document a job. The same types are the body of the API, the stored document, the file
//! that is exported and the input of the command line. They carry ranges and defaults, are checked with the path to each
//! wrong field, and become the quantities of [`tolva_planner::setup`] by [`Into`].
//!
//! ```
//! use tolva_format::{Job, check};
//!
//! let job = Job::new("Doorway");
//! check(&job.setups[0], &job.kit)?;
//! let setup: tolva_planner::setup::Setup = job.setups[0].clone().into();
//! assert_eq!(setup.lights[0].id, "A");
//! # Ok::<(), tolva_format::Problems>(())
//! ```

mod again;
mod blend;
mod catalogue;
mod check;
mod class_file;
mod convert;
mod deeds;
mod edit;
mod field_names;
mod glass;
mod job;
mod kit;
mod kit_apart;
mod kit_file;
mod kit_merge;
mod leaf;
mod learnt;
mod meant;
mod migrate;
mod new;
mod places;
mod problems;
mod ranged;
mod read;
mod scene;
mod schedule;
mod set;
mod setup;
mod strict;
mod table;
mod taken;
mod unit;
mod version;

pub use blend::Blend;
pub use catalogue::{Catalogue, Field, catalogue};
pub use check::check;
pub use class_file::{ClassDrill, ClassFile, MOST_SEED};
pub use deeds::{Deed, DeedKind};
pub use edit::{Edit, edited};
pub use glass::{Pane, PaneGlazing, Spectacles};
pub use job::{Job, json_schema};
pub use kit::{
    Backdrop, BareSurface, Board, Boom, Camera, ContinuousOutput, DiscSurface, Duty, Filter, Flash, FlashOutput, Gel,
    GuideNumberFeet, GuideNumberMetres, GuideNumberZoom, IsoRange, Kit, Lens, MeasuredOutput, Meter, Modifier,
    ModifierSurface, PowerRange, RectangleSurface, ShutterRange, Stand, Trigger, TunedLens, TunedThrough,
};
pub use kit_file::KitFile;
pub use kit_merge::OwnedKit;
pub use leaf::{
    Ambient, AutomaticConvention, BalanceReason, Bounce, BounceOff, CameraReading, CircleOfConfusion, Duration,
    EvReading, ExposureConvention, FallingOrder, HandheldRule, IncidentReceptor, LuxReading, MeterReading,
    MeteringMethod, Movement, NamedLight, PowerStep, Preference, Preset, Reading, Sensor, StatedColour, Step,
    SurfaceColour, WhiteBalance, ZoomGuideNumber,
};
pub use learnt::{Believed, Learnt, Unknown};
pub use meant::{Meant, Understood};
pub use migrate::renew_part_of_a_setup;
pub use places::{FeatherTo, Head, LightPlace, RegionPlace, Side, Support};
pub use problems::{Problem, ProblemCode, Problems, as_one_line, is_one_line, shortened};
pub use read::read_json;
pub use scene::{
    AngleHeight, Artificial, Background, BackgroundKind, CloudHour, ForecastCloud, LocalTime, Obstacle, ObstacleHeight,
    OpenShade, Role, Scene, Site, SizeHeight, SteadyCloud, Surroundings, TypicalLight, Weather,
};
pub use schedule::{Arrival, JobDay, Packed, Schedule, Shot, ShotKind, Way};
pub use set::{
    CameraAim, CameraPlace, Card, CardKind, Ceiling, Clothes, Finish, Floor, Hazard, HazardKind, Opening, Person,
    Product, ProductShape, Set, Skin, Wall,
};
pub use setup::{Control, Depth, Fixed, Light, LightWish, Pace, Region, Setup, Speed, Spill, Sync};
pub use table::harmless;
pub use taken::{
    FrameAsTaken, FrameCame, FrameEdit, FrameMark, FrameMeasured, FrameSettings, FrameSummary, MarksBy, TakenFrame,
};
pub use version::{FORMAT, FORMAT_VERSION};

#[cfg(test)]
mod tests;
