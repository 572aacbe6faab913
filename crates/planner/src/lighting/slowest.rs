//! The slowest shutter: from the hand and from what moves, weighed by how much of the subject the ambient makes, since
//! the flash freezes its part (common practice, no source).

use super::{FlashWish, Prepared};
use crate::setup::Depth;
use tolva_core::optics::{blur_px, magnification, shake_floor_s};
use tolva_core::scale::{Metres, Millimetres, Setting, Shutter};

/// However little of the subject the ambient makes, it counts for so much: what lies behind is the ambient's alone.
const LEAST_SHARE: f64 = 1.0 / 32.0;
/// A part of the ambient this large shows as a ghost when it blurs.
pub const GHOST_SHARE: f64 = 0.1;
/// Slower than this, rear curtain. Common practice, no source.
pub const REAR_CURTAIN_S: f64 = 1.0 / 60.0;

/// The floors of a setup, in seconds.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Floors {
    /// By the hand; none on a tripod.
    pub shake_s: Option<f64>,
    /// By what moves; none where nothing does.
    pub movement_s: Option<f64>,
    /// The part of the subject that is ambient, as it is wished: 0 to 1.
    pub share: f64,
}

impl Floors {
    /// The floors of a setup.
    pub fn of(setup: &Prepared<'_>) -> Self {
        let speed = setup.setup.speed;
        let sensor = setup.camera.sensor;
        let focal = Millimetres(setup.setup.focal_length_mm);
        let stabilised = setup.camera.stabilisation_stops.max(setup.lens.stabilisation_stops);
        let at_a_second = blur_px(speed.movement, 1.0, on_sensor(setup), sensor);
        Self {
            shake_s: (!speed.tripod).then(|| shake_floor_s(focal, sensor, speed.school, stabilised)),
            movement_s: (at_a_second > 0.0).then(|| speed.blur_px / at_a_second),
            share: ambient_share(setup),
        }
    }

    /// The two together, slower by as much as the ambient is the smaller part. None where nothing asks for one.
    pub fn slowest_s(self) -> Option<f64> {
        let quickest = [self.shake_s, self.movement_s].into_iter().flatten().reduce(f64::min);
        quickest.map(|floor| floor / self.share)
    }
}

/// The magnification the setup works at.
pub fn on_sensor(setup: &Prepared<'_>) -> f64 {
    match setup.setup.depth {
        Depth::CloseUp { magnification, .. } => magnification,
        _ => magnification(Millimetres(setup.setup.focal_length_mm), Metres(setup.setup.camera_distance_m)),
    }
}

/// The part of the lit side that the ambient makes where the camera is set as it is wished.
fn ambient_share(setup: &Prepared<'_>) -> f64 {
    let blend = setup.setup.blend;
    if setup.lights.is_empty() {
        return 1.0;
    }
    let ambient = setup.ambient[setup.lit] - blend.camera_ev(setup);
    match blend.flash_wish(setup, setup.lit, ambient) {
        FlashWish::Wanted(flash) => (ambient - ambient.and(flash)).ratio().max(LEAST_SHARE),
        FlashWish::Unused | FlashWish::AmbientOver(_) => 1.0,
    }
}

/// The slowest shutter of a setup: as somebody said it, or as its floors say.
pub fn slowest_shutter(setup: &Prepared<'_>) -> Setting<Shutter> {
    let floor = setup.setup.speed.slowest_shutter_s.or_else(|| Floors::of(setup).slowest_s());
    let end = setup.camera.shutter.slowest_s.max(setup.camera.shutter.fastest_s);
    // Rounded to faster: a dial that keeps the floor.
    setup.shutters.not_under(floor.unwrap_or(f64::INFINITY).min(end))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Kit, Setup};
    use proptest::prelude::*;
    use tolva_core::scale::Step;

    proptest! {
        /// Whatever floor is set, on whatever dial: the slowest setting that may be chosen is not slower than the floor,
        /// unless the dial has none that fast; and the next slower one is.
        #[test]
        fn the_slowest_setting_keeps_the_floor(stops in -4.0..13.0_f64, step in 0_usize..3) {
            let floor_s = (-stops).exp2();
            let mut kit = Kit::starter();
            kit.cameras[0].shutter.step = [Step::Third, Step::Half, Step::Whole][step];
            let mut setup = Setup::new("a", &kit);
            setup.speed.slowest_shutter_s = Some(floor_s);
            let prepared = Prepared::new(&setup, &kit).expect("a setup");
            let keeps = |setting: Setting<Shutter>| setting.nominal.min(setting.exact) <= floor_s * (1.0 + 1e-5);
            let fastest = prepared.shutters.settings().last().expect("one");
            prop_assert!(keeps(prepared.slowest) || prepared.slowest == fastest, "{:?}", prepared.slowest);
            let slower = prepared.shutters.settings().rfind(|one| one.position() < prepared.slowest.position());
            prop_assert!(slower.is_none_or(|slower| !keeps(slower)), "{slower:?} would do for {floor_s}");
        }
    }
}
