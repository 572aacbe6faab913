//! What rounding to a dial does.

use tolva_core::scale::Step;

use crate::lighting::Prepared;

/// Half a click of a dial in thirds: what rounding alone can do.
pub const HALF_CLICK: f64 = 1.0 / 6.0 + 1e-6;

/// Half a click of a dial.
pub fn half_click(step: Step) -> f64 {
    match step {
        Step::Third => HALF_CLICK,
        Step::Half => 0.25 + 1e-6,
        Step::Whole => 0.5 + 1e-6,
    }
}

/// What rounding alone can do with the finest dial that is free to move; beyond it, a dial is at its end.
pub fn rounding(setup: &Prepared<'_>) -> f64 {
    let free = [
        setup.aperture.is_none().then_some(setup.camera.aperture_step),
        setup.iso.is_none().then_some(setup.camera.iso.step),
        setup.shutter.is_none().then_some(setup.camera.shutter.step),
    ];
    free.into_iter().flatten().map(half_click).reduce(f64::min).unwrap_or(HALF_CLICK)
}
