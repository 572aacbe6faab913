//! From a reading and a wish to settings: the blend, the search over the dials, the nearest answer where the wish
//! cannot be had, how certain it is, and the workings.

mod alternatives;
mod automatic;
mod binding;
mod cautions;
mod certainty;
mod colour;
mod exposure;
mod falling;
mod gap;
mod here;
mod light_card;
mod lights;
mod outcome;
mod pace;
mod place;
mod plan;
mod preference;
mod present;
mod remedy;
mod schools;
mod search;
mod sharpness;
mod speed;
mod wedge;
mod wish;
mod words;
mod workings;

pub use alternatives::{Alternative, Alternatives, alternatives};
pub use automatic::AutomaticSchool;
pub use colour::{
    BalanceSaid, BalanceWay, ColourGrip, ColourMark, ColourPlan, ColourWays, Colouring, GelOffer, GelStep, LookLine,
    MarkKind, OneLook, RegionColour, StripGrey, colour_to, colour_ways, one_look,
};
pub use exposure::ExposureSchool;
pub use falling::{FallingOrder, FallingStep, LastMinute, RegionThen, Timetable, falling};
pub use gap::{Gap, Limit};
pub use here::{Here, at_minute, day_of};
pub use place::{Grip, Placing, place};
pub use plan::{
    Caution, DialCard, Dialled, Fact, FlashMark, LightCard, Mark, Plan, Ratio, RegionOnRail, Remedy, Said, Show,
    Working,
};
pub use preference::Preference;
pub use schools::{School, SchoolMatter, schools};
pub(crate) use speed::slowest_shutter;
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
    Ok(present::present(&checked, &outcome, remedies, kit, show))
}

#[cfg(test)]
mod tests;
