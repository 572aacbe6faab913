//! The search over the dials of this camera and lens, the powers of the flashes, and what they give the frame.

mod clicks;
mod least_squares;
mod outcome;
mod powers;
mod preference;
mod search;
mod state;
mod weights;

pub use clicks::{HALF_CLICK, half_click, rounding};
pub use outcome::{Outcome, RegionOutcome};
pub use powers::{DialledLight, dialled, flash_needed, in_frame};
pub use preference::Weights;
pub use search::fixed_or_all;
pub use state::State;
