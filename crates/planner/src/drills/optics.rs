//! The aperture a group asks for, and the slowest shutter by hand and for what moves.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::optics::{
    CircleOfConfusion, HandheldRule, Movement, blur_px, group_depth, magnification, shake_floor_s,
};
use tolva_core::scale::{Metres, Millimetres, Setting, Stops};

use super::value::Value;
use super::{Asked, Drawn, Level, Own, one_of};

const LENSES_MM: [f64; 8] = [24.0, 35.0, 50.0, 70.0, 85.0, 105.0, 135.0, 200.0];
/// What lies nearer than that to a click, in stops, may be either: such a question is not asked.
const ON_THE_EDGE: f64 = 0.06;

/// The widest aperture at which the nearest and the farthest are sharp: the first click that is small enough.
pub(super) fn depth(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let lenses = if level == Level::First { &LENSES_MM[1..6] } else { &LENSES_MM[..] };
    let focal = Millimetres(one_of(lenses, draw)?);
    let nearest = Metres(f64::from(draw.random_range(3..=16)) / 2.0);
    let rows: &[f64] = match level {
        Level::First => &[0.4, 0.5, 0.6, 0.8, 1.0],
        Level::Second => &[0.3, 0.5, 0.6, 0.9, 1.2, 1.5],
        Level::Third => &[0.2, 0.3, 0.4, 0.5, 0.7, 0.9, 1.1, 1.4, 1.8, 2.5],
    };
    let farthest = Metres(nearest.0 + one_of(rows, draw)?);
    let kind = match level {
        Level::Third => CircleOfConfusion::TwoPixels,
        _ => CircleOfConfusion::SensorDiagonal,
    };
    let circle = own.sensor.circle(kind);
    let wanted = 2.0 * group_depth(focal, nearest, farthest, circle).f_number.log2();
    let enough = own.apertures.iter().copied().find(|one| one.position().0 >= wanted - 1e-9)?;
    let before = own.apertures.iter().rfind(|one| one.position().0 < enough.position().0)?;
    let clear = enough.position().0 - wanted > ON_THE_EDGE && wanted - before.position().0 > ON_THE_EDGE;
    clear.then_some(())?;
    let offered = own.apertures.iter().copied().map(Value::Aperture).collect();
    Drawn::new(Asked::Group { focal, nearest, farthest, circle }, Value::Aperture(enough), offered)
}

/// The slowest shutter that still holds: by a rule for the hand, or by how far a movement goes on the sensor.
pub(super) fn shutters(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let focal = Millimetres(one_of(&LENSES_MM, draw)?);
    let (asked, floor_s) = if level == Level::First || draw.random_bool(0.4) {
        let schools = [HandheldRule::OneOverFocal, HandheldRule::OneOverTwiceFocal, HandheldRule::Stabilised];
        let school = one_of(if level == Level::First { &schools[..2] } else { &schools[..] }, draw)?;
        let by_school = if school == HandheldRule::Stabilised { f64::from(draw.random_range(2..=5)) } else { 0.0 };
        let focal = Millimetres(focal.0 + f64::from(draw.random_range(-2..=6)) * 5.0);
        (focal.0 >= 14.0).then_some(())?;
        let floor = shake_floor_s(focal, own.sensor, school, by_school);
        (Asked::ByHand { focal, school, stabilisation: Stops(by_school), sensor: own.sensor }, floor)
    } else {
        let moves = [Movement::Posing, Movement::Children, Movement::Walking, Movement::Dancing, Movement::Running];
        let movement = one_of(&moves, draw)?;
        let distance = Metres(f64::from(draw.random_range(3..=20)) / 2.0);
        let pixels = if level == Level::Third { f64::from(draw.random_range(1..=4)) * 2.0 } else { 4.0 };
        let a_second = blur_px(movement, 1.0, magnification(focal, distance), own.sensor);
        (Asked::Frozen { movement, focal, distance, pixels, sensor: own.sensor }, pixels / a_second)
    };
    let floor = -floor_s.log2();
    // The slowest click that is quick enough.
    let quick = own.shutters.iter().copied().find(|one| one.position().0 >= floor - 1e-9)?;
    let before = own.shutters.iter().rfind(|one| one.position().0 < quick.position().0)?;
    // 1/125 is engraved for 1/128: a rule that asks for 1/125 means it.
    let said = Setting::<tolva_core::scale::Shutter>::of(floor_s);
    let by_name = (said.position() - quick.position()).0.abs() < 1e-6;
    let clear = by_name || (quick.position().0 - floor > ON_THE_EDGE && floor - before.position().0 > ON_THE_EDGE);
    clear.then_some(())?;
    let offered = own.shutters.iter().copied().map(Value::Shutter).collect();
    Drawn::new(asked, Value::Shutter(quick), offered)
}
