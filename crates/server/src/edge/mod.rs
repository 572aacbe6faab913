//! Where documents become quantities and what comes of them is worded: the one place that knows the format, the planner
//! and the wording. What the planner refuses becomes a problem with a pointer into what was sent.

use tolva_format::{Job, Kit, ProblemCode, Problems, Setup, check};
use tolva_planner::day::JobDays;
use tolva_planner::refused::Refused;
use tolva_planner::setup as domain;
use tolva_wording::{Document, PackList, pack_said};

mod command;
mod set_command;

pub use command::Command;

/// A setup and its kit as quantities, where every value is good.
///
/// # Errors
/// All that is wrong; pointers begin with `/kit` and `/setup`.
pub fn known(setup: Setup, kit: Kit) -> Result<(domain::Setup, domain::Kit), Problems> {
    check(&setup, &kit)?;
    Ok((setup.into(), kit.into()))
}

/// A job as the planner knows it.
pub struct KnownJob {
    setups: Vec<domain::Setup>,
    kit: domain::Kit,
    asks: domain::JobDay,
    date: String,
}

impl KnownJob {
    /// A job whose values are checked.
    pub fn of(job: Job) -> Result<Self, Problems> {
        job.check()?;
        let Job { setups, kit, day, date, .. } = job;
        let setups = setups.into_iter().map(Into::into).collect();
        Ok(Self { setups, kit: kit.into(), asks: day.into(), date })
    }

    /// What it takes along.
    pub fn pack(&self) -> PackList {
        pack_said(&self.setups, &self.kit)
    }

    /// What its days are planned by.
    pub fn days(&self) -> JobDays<'_> {
        JobDays { setups: &self.setups, kit: &self.kit, asks: &self.asks, date: &self.date }
    }
}

/// A setup as a document inside what is sent.
pub fn write(setup: &domain::Setup) -> Document {
    Document::of(&Setup::from(setup.clone()))
}

/// What was refused, with a pointer to what it is about.
#[expect(clippy::needless_pass_by_value, reason = "it maps errors")]
pub fn refused(refused: Refused) -> Problems {
    let pointer = match &refused {
        Refused::NoScene => return Problems::one("/setup/scene", "this needs a place and an hour: give them first"),
        Refused::OutOfRange { what: "stops", .. } => "/command/mark/stops",
        Refused::OutOfRange { what: "mired", .. } => "/command/colour_mark/mired",
        Refused::OutOfRange { what: "tint_duv", .. } => "/command/colour_mark/tint_duv",
        Refused::OutOfRange { what: "minute", .. } => "/command/minute/to",
        Refused::OutOfRange { what: "step_min", .. } => "/step_min",
        Refused::NoSuchThing(_) | Refused::Full(_) | Refused::NoGroup | Refused::FlagInFrame => "/command/set",
        Refused::NoSuchSetup(_) => "/of",
        Refused::Time(wrong) => return Problems::one(format!("/setup/scene/at/{}", wrong.field()), wrong.to_string()),
        _ => "/setup",
    };
    let code = match refused {
        Refused::OutOfRange { .. } => ProblemCode::OutOfRange,
        Refused::NoSuchSetup(_) | Refused::NoSuchRegion(_) | Refused::NoSuchLight(_) | Refused::NoSuchThing(_) => {
            ProblemCode::NotThere
        }
        Refused::Full(_) => ProblemCode::Count,
        _ => ProblemCode::NotAllowed,
    };
    Problems::one(pointer, refused.to_string()).coded(code)
}

/// What is asked of a region or a light that is not there; anything else as it is.
fn not_there(what: Refused, region: &str, light: &str) -> Problems {
    let pointer = match what {
        Refused::NoSuchRegion(_) => region,
        Refused::NoSuchLight(_) => light,
        other => return refused(other),
    };
    Problems::one(pointer, what.to_string()).coded(ProblemCode::NotThere)
}
