//! From a reading and a wish to settings: the blend, the search over the dials, the nearest answer where the wish
//! cannot be had, how certain it is, and the workings.

pub(crate) mod alternatives;
mod automatic;
mod binding;
mod cautions;
mod certainty;
pub(crate) mod change;
mod colour;
mod exposure;
mod falling;
pub(crate) mod fixes;
mod gap;
mod here;
mod least_squares;
mod light_card;
mod lights;
mod outcome;
mod pace;
mod place;
mod plan;
mod preference;
mod present;
mod schools;
mod search;
mod sharpness;
pub(crate) mod solved;
mod speed;
mod wedge;
mod weights;
mod wish;
pub(crate) mod words;
mod workings;

pub use crate::wording::options::{Alternative, Alternatives};
pub use alternatives::AlternativeKind;
pub use automatic::AutomaticSchool;
pub use change::Change;
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
    let names = crate::wording::changes::Names { setup, kit, show };
    let fixes = fixes::fixes(&checked, &outcome, kit).into_iter();
    let remedies = fixes.map(|fix| crate::wording::fixes::remedy(fix, names)).collect();
    Ok(present::present(&checked, &outcome, remedies, kit, show))
}

/// The alternatives to a setup's wish, the best first.
///
/// # Errors
/// Everything that is wrong with the kit or the setup, with pointers that begin with `/kit` and `/setup`.
pub fn alternatives(setup: &Setup, kit: &Kit, show: Show) -> Result<Alternatives, Problems> {
    let checked = CheckedSetup::new(setup, kit)?;
    let outcome = outcome::Outcome::of(&checked);
    let found = alternatives::options(&checked, &outcome, kit);
    let names = crate::wording::changes::Names { setup, kit, show };
    Ok(crate::wording::options::alternatives(found, binding::binds(&checked, &outcome), names))
}

#[cfg(test)]
mod tests;
