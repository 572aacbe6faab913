//! The sums of numbers, by what they belong to.

mod colour;
mod exposure;
mod flash;
mod lens;
mod light;
mod set;

use super::table::{Number, Sum, Worked};
use crate::problem::Problems;

const SHUTTER: Number = Number("shutter_s", "Shutter", "s", 0.005, 0.000_01, 3600.0);
const F_NUMBER: Number = Number("f_number", "f-number", "", 8.0, 0.5, 128.0);
const ISO: Number = Number("iso", "ISO", "", 100.0, 3.0, 1e7);
const DISTANCE: Number = Number("distance_m", "Distance", "m", 2.0, 0.05, 100.0);

#[expect(clippy::unnecessary_wraps, reason = "what every sum gives back: some can go wrong")]
fn done(values: &[f64], workings: &[String]) -> Result<Worked, Problems> {
    Ok(Worked { values: values.iter().copied().map(Some).collect(), workings: workings.to_vec() })
}

/// All, in the order they are offered.
pub(super) fn all() -> impl Iterator<Item = &'static Sum> {
    [exposure::SUMS, flash::SUMS, light::SUMS, lens::SUMS, colour::SUMS, set::SUMS].into_iter().flatten()
}
