//! Meters: a spot on skin, and where a dome or a flat receptor is pointed.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::exposure::{CameraSettings, MeteringMethod};
use tolva_core::scale::{Setting, Stops};

use super::exposure::stands;
use super::things::Pointed;
use super::value::Value;
use super::{Asked, Drawn, Level, Own, one_of};

/// A spot says what makes a surface mid grey; the shutter that puts the surface where it lies. A meter has no part in it.
pub(super) fn spot(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    use MeteringMethod::{SpotPalm, SpotSkinDark, SpotSkinMedium, SpotSkinPale, SpotWhite};
    let on = match level {
        Level::First => one_of(&[SpotPalm, SpotSkinPale], draw)?,
        Level::Second => one_of(&[SpotSkinPale, SpotSkinMedium, SpotSkinDark], draw)?,
        Level::Third => one_of(&[SpotSkinPale, SpotSkinMedium, SpotSkinDark, SpotWhite, SpotPalm], draw)?,
    };
    let says = stands(own, draw)?;
    let wanted = says.shutter.position() - on.surface();
    let right = own.shutters.iter().copied().find(|one| (one.position() - wanted).0.abs() < 1e-6)?;
    let offered = own.shutters.iter().copied().map(Value::Shutter).collect();
    Drawn::new(Asked::Spot { on, says: CameraSettings { ..says } }, Value::Shutter(right), offered)
}

/// What a meter says once it is turned away from a light it was pointed straight at.
pub(super) fn pointing(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let pointed = if draw.random_bool(0.5) { Pointed::Flat } else { Pointed::Dome };
    let angles: &[f64] = match (level, pointed) {
        (Level::First, Pointed::Flat) => &[60.0, 75.0],
        (Level::First, Pointed::Dome) => &[90.0, 120.0],
        (Level::Second, Pointed::Flat) => &[60.0, 70.0],
        (Level::Second, Pointed::Dome) => &[45.0, 60.0, 75.0, 90.0],
        (Level::Third, Pointed::Flat) => &[60.0, 70.0, 75.0],
        (Level::Third, Pointed::Dome) => &[45.0, 60.0, 75.0, 90.0, 105.0, 120.0],
    };
    let by_deg = one_of(angles, draw)?;
    let straight = one_of(&own.apertures, draw)?;
    let loss = Stops::of_ratio(pointed.collects(by_deg));
    let wanted = straight.position() + loss;
    let nearest = own
        .apertures
        .iter()
        .copied()
        .min_by(|a, b| (a.position() - wanted).0.abs().total_cmp(&(b.position() - wanted).0.abs()))?;
    ((nearest.position() - wanted).0.abs() < 0.12).then_some(())?;
    let exact = Setting::of((wanted.0 / 2.0).exp2());
    let offered = own.apertures.iter().copied().map(Value::Aperture).collect();
    Drawn::new(Asked::Turned { pointed, by_deg, straight }, Value::Aperture(exact), offered)
}
