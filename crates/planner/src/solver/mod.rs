//! The search over the dials of this camera and lens, the powers of the flashes, and what they give the frame.

mod least_squares;
mod outcome;
mod powers;
mod preference;
mod search;
mod state;
mod weights;

pub use outcome::{Outcome, RegionOutcome};
pub use powers::{DialledLight, dialled, flash_needed, in_frame};
pub use preference::Weights;
pub use search::{HALF_CLICK, fixed_or_all, half_click, rounding};
pub use state::State;
