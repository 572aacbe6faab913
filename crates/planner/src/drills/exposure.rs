//! Exposures as bright as each other, what moves which light, and what bright sun with a wide aperture takes.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::exposure::CameraSettings;
use tolva_core::flash::high_speed_loss;
use tolva_core::scale::{Engraved, Metres, Setting, Stops};

use super::value::{Ladder, Value};
use super::{Asked, CameraDial, Drawn, Level, Moved, Own, Which, one_of, turn};

/// The setting so many stops along a dial, where there is one.
fn along<E: Engraved + PartialEq>(dial: &[Setting<E>], from: Setting<E>, by: Stops) -> Option<Setting<E>> {
    let wanted = from.position() + by;
    dial.iter().copied().find(|one| (one.position() - wanted).0.abs() < 1e-6)
}

/// Something on the dials, as it may stand outdoors: no ends of the shutter where nobody works.
pub(super) fn stands(own: &Own, draw: &mut ChaCha8Rng) -> Option<CameraSettings> {
    Some(CameraSettings {
        shutter: one_of(&own.shutters, draw).filter(|one| one.exact <= 0.26)?,
        aperture: one_of(&own.apertures, draw)?,
        iso: one_of(&own.isos, draw)?,
    })
}

/// One dial is turned, or two: which setting of another gives the same exposure. Source: ISO 2720, the exposure equation.
pub(super) fn equal(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let from = stands(own, draw)?;
    let mut to = from;
    let dials = [CameraDial::Shutter, CameraDial::Aperture, CameraDial::Iso];
    let find = one_of(&dials, draw)?;
    let mut others: Vec<CameraDial> = dials.into_iter().filter(|dial| *dial != find).collect();
    if level != Level::Third {
        others.remove(draw.random_range(0..2));
    }
    let mut more = Stops::ZERO;
    for dial in others {
        let by = turn(level, 3, draw);
        match dial {
            CameraDial::Shutter => to.shutter = along(&own.shutters, from.shutter, by)?,
            CameraDial::Aperture => to.aperture = along(&own.apertures, from.aperture, by)?,
            CameraDial::Iso => to.iso = along(&own.isos, from.iso, by)?,
        }
        more = if dial == CameraDial::Iso { more + by } else { more - by };
    }
    if more.0.abs() < 1e-6 {
        return None;
    }
    let (exact, offered) = match find {
        CameraDial::Shutter => {
            to.shutter = along(&own.shutters, from.shutter, more)?;
            (Value::Shutter(to.shutter), own.shutters.iter().copied().map(Value::Shutter).collect())
        }
        CameraDial::Aperture => {
            to.aperture = along(&own.apertures, from.aperture, more)?;
            (Value::Aperture(to.aperture), own.apertures.iter().copied().map(Value::Aperture).collect())
        }
        CameraDial::Iso => {
            to.iso = along(&own.isos, from.iso, -more)?;
            (Value::Iso(to.iso), own.isos.iter().copied().map(Value::Iso).collect())
        }
    };
    Drawn::new(Asked::Equal { from, to, find }, exact, offered)
}

/// Distances a flash stands at, as they are said.
pub(super) const DISTANCES_M: [f64; 10] = [0.7, 1.0, 1.4, 1.5, 2.0, 2.8, 3.0, 4.0, 5.6, 8.0];

/// By how much something that is changed moves the light that is there, or the flash: the shutter never the flash, power and
/// distance never the ambient.
pub(super) fn moves(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let from = stands(own, draw)?;
    let slow = |setting: Setting<tolva_core::scale::Shutter>| setting.position().0 <= own.sync.position().0 + 1e-6;
    let count = if level == Level::Third { 2 } else { 1 };
    let mut moved: Vec<Moved> = Vec::new();
    while moved.len() < count {
        let by = turn(level, 3, draw);
        let next = match draw.random_range(0..6) {
            0 => {
                let to = along(&own.shutters, from.shutter, by)?;
                // Past the sync the flash is no longer whole: that is another question.
                (slow(from.shutter) && slow(to)).then_some(Moved::Shutter(from.shutter, to))
            }
            1 => Some(Moved::Aperture(from.aperture, along(&own.apertures, from.aperture, by)?)),
            2 => Some(Moved::Iso(from.iso, along(&own.isos, from.iso, by)?)),
            3 => {
                let power = one_of(&own.powers, draw)?;
                let to = own.powers.iter().copied().find(|one| (one.0 - power.0 - by).0.abs() < 1e-6)?;
                Some(Moved::Power(power, to))
            }
            4 => {
                let (near, far) = (one_of(&DISTANCES_M, draw)?, one_of(&DISTANCES_M, draw)?);
                ((near - far).abs() > 0.01).then_some(Moved::Distance(Metres(near), Metres(far)))
            }
            _ => Some(Moved::Filter(Stops(f64::from(draw.random_range(1..=4))))),
        }?;
        if moved.iter().any(|one| std::mem::discriminant(one) == std::mem::discriminant(&next)) {
            return None;
        }
        moved.push(next);
    }
    let of = if draw.random_bool(0.5) { Which::Ambient } else { Which::Flash };
    let sum = moved.iter().fold(Stops::ZERO, |sum, one| sum + one.of(of));
    let offered = if level == Level::First { Ladder::WholeStops } else { Ladder::Stops };
    (sum.0.abs() <= 5.0).then_some(())?;
    Drawn::new(Asked::Moves { moved, of }, Value::Stops(sum), offered.values())
}

impl Moved {
    /// By how much a light comes brighter.
    pub fn of(&self, which: Which) -> Stops {
        let both = match self {
            Self::Aperture(from, to) => from.position() - to.position(),
            Self::Iso(from, to) => to.position() - from.position(),
            Self::Filter(density) => -*density,
            Self::Shutter(from, to) if which == Which::Ambient => from.position() - to.position(),
            Self::Power(from, to) if which == Which::Flash => to.0 - from.0,
            Self::Distance(from, to) if which == Which::Flash => Stops(2.0 * (from.0 / to.0).log2()),
            Self::Shutter(..) | Self::Power(..) | Self::Distance(..) => Stops::ZERO,
        };
        // No minus before a nought.
        both + Stops::ZERO
    }
}

/// What a loss by high-speed sync at the sync speed may be, in stops. Common practice, no source.
const FIXED_LOSSES: [f64; 4] = [1.0, 4.0 / 3.0, 5.0 / 3.0, 2.0];

/// The filter that keeps the shutter at the sync speed, or what high-speed sync takes instead.
pub(super) fn filter_or_high_speed(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let fast = one_of(&own.shutters, draw)?;
    // One's own sync speed, or that of another camera, which is up to a stop and a third slower or a third faster.
    let other = Stops(f64::from(draw.random_range(-4..=1)) / 3.0);
    let sync = along(&own.shutters, own.sync, other)?;
    let over = fast.position() - sync.position();
    let whole = (over.0 - over.0.round()).abs() < 1e-6;
    if over.0 < 0.3 || over.0 > 6.0 || (level == Level::First && !whole) {
        return None;
    }
    let offered: Vec<Value> = (1..=24).map(|third| Value::Stops(Stops(f64::from(third) / 3.0))).collect();
    match level {
        Level::First | Level::Second if draw.random_bool(0.5) => {
            Drawn::new(Asked::FilterFor { sync, needs: fast }, Value::Stops(over), offered)
        }
        _ => {
            let fixed =
                Stops(if level == Level::First { one_of(&[1.0, 2.0], draw)? } else { one_of(&FIXED_LOSSES, draw)? });
            let loss = high_speed_loss(fast, sync, fixed)?;
            Drawn::new(Asked::HighSpeed { sync, shutter: fast, fixed }, Value::Stops(loss), offered)
        }
    }
}
