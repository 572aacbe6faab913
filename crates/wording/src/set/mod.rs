//! The set of a setup in words and outlines: what is drawn, the list beside it, what there is to say, the map of light.

mod drawing;
mod evenness;
mod moves;
mod notes;
mod outlines;
mod report;
mod types;

pub use drawing::{DrawnAs, escaped, set_drawing};
pub(crate) use notes::called;
pub use report::set_moves;
pub(crate) use report::{set_notes, set_report};
pub use types::{
    CardCurve, EvennessSaid, FloorPart, Level, LightMap, MapAsked, OnSet, PersonLit, Reach, SetLight, SetNote,
    SetReport, SetThing, ShadowDrawn, Whose,
};
