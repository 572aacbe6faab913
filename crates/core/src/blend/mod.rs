//! From a reading and a wish to settings: the blend, the search over the dials, the nearest answer where the wish
//! cannot be had, how certain it is, and the workings.

mod cautions;
mod certainty;
mod falling;
mod gap;
mod here;
mod outcome;
mod place;
mod plan;
mod present;
mod remedy;
mod search;
mod wedge;
mod wish;
mod workings;

pub use falling::{FallingOrder, FallingStep, LastMinute, RegionThen, Timetable, falling};
pub use gap::{Gap, Limit};
pub use here::{Here, at_minute, day_of};
pub use place::{Grip, Placing, place};
pub use plan::{
    Caution, DialCard, Dialled, FlashMark, LightCard, Mark, Plan, Ratio, RegionOnRail, Remedy, Said, Show, Working,
};
pub use wedge::{FULL_WHITE, Grey, wedge};

use crate::job::{CheckedSetup, Kit, Problems, Setup};

/// The plan of a setup: what to set, what it gives, how sure that is, what is missing and what would close it.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, with pointers that begin with `/kit` and `/setup`.
pub fn plan(setup: &Setup, kit: &Kit, show: Show) -> Result<Plan, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let outcome = outcome::Outcome::of(&checked);
    let remedies = remedy::remedies(&checked, &outcome, kit, show);
    Ok(present::present(&checked, &outcome, remedies, show))
}

#[cfg(test)]
mod tests;
