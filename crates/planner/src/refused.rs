//! Why a setup cannot be planned, or what is asked of one not be done.

use thiserror::Error;
use tolva_core::ambient::Role;
use tolva_core::time::WrongTime;

/// What is wrong, with what it is about.
#[derive(Clone, Debug, PartialEq, Error)]
pub enum Refused {
    /// The kit has no such thing.
    #[error("the kit has no {what} “{id}”")]
    NotInKit {
        /// What kind of thing: `camera`.
        what: &'static str,
        /// Its id.
        id: String,
    },
    /// The setup has no region of that id.
    #[error("there is no region “{0}”")]
    NoSuchRegion(String),
    /// The setup has no region of that part.
    #[error("no region has the part {0:?}")]
    NoRegion(Role),
    /// The setup has no such light.
    #[error("there is no light “{0}”")]
    NoSuchLight(String),
    /// The set has no such thing.
    #[error("there is no such thing on the set: {0}")]
    NoSuchThing(String),
    /// What is asked needs several people.
    #[error("there are less than two people on the set")]
    NoGroup,
    /// The set holds no more of a kind.
    #[error("the set holds {0} of these at most")]
    Full(usize),
    /// Nothing of the wish places the region: it follows the others.
    #[error("nothing of the wish places “{0}”: it follows the rest")]
    NothingPlaces(String),
    /// Every dial that would move the region is at its end.
    #[error("no dial moves “{0}” any further: see what is missing, and the ways out of it")]
    AtItsEnd(String),
    /// Wherever a flag would shade the front glass, it would be in the picture.
    #[error("A flag would be in the picture: the light is in or at the edge of the frame. Move the light out of it.")]
    FlagInFrame,
    /// There is no setup of that id.
    #[error("there is no setup “{0}”")]
    NoSuchSetup(String),
    /// The camera's electronic shutter syncs with no flash.
    #[error("“{0}” has no electronic shutter that syncs")]
    NoElectronicSync(String),
    /// The setup has no place and hour, and what is asked needs them.
    #[error("the setup has no place and hour")]
    NoScene,
    /// The setup's hour is none at its place.
    #[error(transparent)]
    Time(#[from] WrongTime),
    /// A number is out of its range.
    #[error("{value} is not allowed here: it must be from {least} to {most} {unit}")]
    OutOfRange {
        /// What it is: `stops`.
        what: &'static str,
        /// What was given.
        value: f64,
        /// The least it may be.
        least: f64,
        /// The most it may be.
        most: f64,
        /// The unit of all three.
        unit: &'static str,
    },
}

impl Refused {
    /// A number that is out of its range, or nothing where it is in it. What is not a number is out of every range.
    ///
    /// # Errors
    /// [`Refused::OutOfRange`].
    pub fn unless_within(
        value: f64,
        (least, most): (f64, f64),
        what: &'static str,
        unit: &'static str,
    ) -> Result<(), Self> {
        if (least..=most).contains(&value) { Ok(()) } else { Err(Self::OutOfRange { what, value, least, most, unit }) }
    }
}
