//! A setup at another hour of its day.

use tolva_core::time::{LocalTime, day, minutes_between};

use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{Kit, Setup};

/// The setup at another minute of its day, counted from midnight and held to the day: what dragging along the day strip
/// does. Without a minute it goes from its own hour.
///
/// # Errors
/// A setup without place and hour, or one that cannot be planned, and a minute that is no number.
pub fn at_minute(setup: &Setup, kit: &Kit, to: Option<f64>, by: f64) -> Result<Setup, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let scene = prepared.scene.as_ref().ok_or(Refused::NoScene)?;
    let (begin, end) = day(&scene.scene.at.date, &scene.light.zone)?;
    let long = minutes_between(begin, end);
    let minute = to.unwrap_or_else(|| minutes_between(begin, scene.light.at)) + by;
    Refused::unless_within(minute, (f64::MIN, f64::MAX), "minute", "min")?;
    #[expect(clippy::cast_possible_truncation, reason = "minutes of a day")]
    let to = begin + jiff::SignedDuration::from_mins((minute.clamp(0.0, long - 1.0)).round() as i64);
    let mut moved = setup.clone();
    if let Some(there) = &mut moved.scene {
        there.at = LocalTime::of(to, &scene.light.zone);
    }
    Ok(moved)
}
