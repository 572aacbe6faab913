//! Kelvin, mired and gels. Source: M = 10⁶/K, and a gel shifts every light by the same number of mired.

use rand_chacha::ChaCha8Rng;
use tolva_core::colour::{Kelvin, Mired};

use super::value::{Ladder, Value};
use super::{Asked, Drawn, Level, one_of};

/// Lights as they are met, in kelvin.
const LIGHTS_K: [f64; 12] =
    [2000.0, 2700.0, 2900.0, 3200.0, 3500.0, 4000.0, 4300.0, 5000.0, 5600.0, 6000.0, 6500.0, 7500.0];
/// What gels shift, in mired: quarter, half, three quarters and full, warm and cool (from memory).
const GELS_MIRED: [f64; 9] = [26.0, 64.0, 81.0, 109.0, 159.0, -18.0, -49.0, -78.0, -131.0];
/// A gel is the one to take where the next best leaves so many mired more.
const CLEARLY_MIRED: f64 = 15.0;

/// A light through a gel; from the second level on the shift between two lights, then which gel.
pub(super) fn gels(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let from = Kelvin(one_of(&LIGHTS_K, draw)?);
    if level == Level::First {
        let by = Mired(one_of(&GELS_MIRED, draw)?);
        let through = (from.mired() + by).kelvin();
        (1700.0..12_000.0).contains(&through.0).then_some(())?;
        return Drawn::new(Asked::Gelled { light: from, by }, Value::Kelvin(through), Ladder::Kelvin.values());
    }
    let to = Kelvin(one_of(&LIGHTS_K, draw)?);
    let shift = to.mired() - from.mired();
    if from == to || shift.0.abs() > 290.0 {
        return None;
    }
    if level == Level::Second {
        return Drawn::new(Asked::Shift { from, to }, Value::Mired(shift), Ladder::Mired.values());
    }
    let mut gels: Vec<Mired> = Vec::new();
    while gels.len() < 4 {
        let gel = Mired(one_of(&GELS_MIRED, draw)?);
        if !gels.contains(&gel) {
            gels.push(gel);
        }
    }
    gels.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut left: Vec<(f64, usize)> = gels.iter().enumerate().map(|(at, gel)| ((shift - *gel).0.abs(), at)).collect();
    left.sort_by(|a, b| a.0.total_cmp(&b.0));
    // None of them is no answer here.
    if left[1].0 - left[0].0 < CLEARLY_MIRED || left[0].0 > shift.0.abs() - CLEARLY_MIRED {
        return None;
    }
    let best = left[0].1;
    let offered = (0..gels.len()).map(Value::Gel).collect();
    Drawn::new(Asked::WhichGel { from, to, gels }, Value::Gel(best), offered)
}
