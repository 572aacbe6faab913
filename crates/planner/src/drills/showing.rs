//! What must be the same of a plate, and what shows in a pane.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::scale::{Metres, Millimetres, Stops};

use super::exposure::stands;
use super::things::{Before, PlateLine};
use super::value::{Ladder, Value};
use super::{Asked, Drawn, Level, Own, one_of, turn};
use crate::setup::{Shot, ShotKind};
use crate::shots::{FrameOf, Kept, held};

/// A picture and its plate, one dial of which may have been turned.
pub(super) fn plate(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let settings = stands(own, draw)?;
    let focal = Millimetres(one_of(&[24.0, 35.0, 50.0, 85.0], draw)?);
    let picture = PlateLine { settings, focal, flash: true };
    let without_flash = level != Level::First && draw.random_bool(0.5);
    let mut plate = PlateLine { flash: !without_flash, ..picture };
    let by = turn(level, 1, draw);
    let turned = |from: Stops| from + by;
    let near = |a: Stops, b: Stops| (a - b).0.abs() < 1e-6;
    match draw.random_range(0..6) {
        0 => {
            let to = turned(settings.shutter.position());
            plate.settings.shutter = own.shutters.iter().copied().find(|one| near(one.position(), to))?;
        }
        1 => {
            let to = turned(settings.aperture.position());
            plate.settings.aperture = own.apertures.iter().copied().find(|one| near(one.position(), to))?;
        }
        2 => {
            let to = turned(settings.iso.position());
            plate.settings.iso = own.isos.iter().copied().find(|one| near(one.position(), to))?;
        }
        3 => plate.focal = Millimetres(focal.0 + if draw.random_bool(0.5) { 3.0 } else { -2.0 }),
        4 => plate.flash = !plate.flash,
        _ => {}
    }
    let lights_off = if without_flash { vec!["A".to_owned()] } else { Vec::new() };
    let shot = Shot { kind: ShotKind::CleanPlate, lights_off, ..Shot::new("plate") };
    let found = held(
        &[FrameOf { shot: None, taken: picture.as_taken() }, FrameOf { shot: Some(&shot), taken: plate.as_taken() }],
        1,
    );
    let differs = found.into_iter().nth(1)??.differs;
    let offered =
        [None, Some(Kept::Shutter), Some(Kept::Aperture), Some(Kept::Iso), Some(Kept::FocalLength), Some(Kept::Flash)];
    let exact = Value::Turned(differs.first().copied());
    Drawn::new(Asked::Plate { picture, plate, without_flash }, exact, offered.map(Value::Turned).to_vec())
}

/// So near to the pane's edge it may or may not show: such a question is not asked.
const EDGE_M: f64 = 0.15;

/// Whether a light shows in a pane the lens looks at, then where.
pub(super) fn glass(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let mut halves = |from: i32, to: i32| Metres(f64::from(draw.random_range(from..=to)) / 2.0);
    let lens = halves(2, 8);
    let light = if level == Level::First { lens } else { halves(1, 8) };
    let before = Before { lens, light, aside: halves(-8, 8), left: halves(0, 5), right: halves(0, 5) };
    let at = before.shows_at();
    if before.aside.0 == 0.0 || before.left.0 + before.right.0 < 1.0 {
        return None;
    }
    if level == Level::Third {
        (at.0.abs() <= 3.0).then_some(())?;
        return Drawn::new(Asked::ShowsAt(before), Value::Aside(at), Ladder::Aside.values());
    }
    let (to_left, to_right) = (at.0 + before.left.0, before.right.0 - at.0);
    (to_left.abs() > EDGE_M && to_right.abs() > EDGE_M).then_some(())?;
    let shows = to_left > 0.0 && to_right > 0.0;
    Drawn::new(Asked::Shows(before), Value::Yes(shows), vec![Value::Yes(true), Value::Yes(false)])
}
