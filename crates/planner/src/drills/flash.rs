//! Flash by numbers: guide numbers, distances, powers, sums, what bounce takes, when it is ready.

use rand::Rng as _;
use rand_chacha::ChaCha8Rng;
use tolva_core::flash::{GuideNumber, Recycling, f_number_for};
use tolva_core::modifier::{Bounce, BounceOff, Surface, SurfaceColour};
use tolva_core::scale::{Metres, Power, Setting, Stops};

use super::value::{Ladder, Value};
use super::{Asked, Drawn, GuideAsks, Level, Own, one_of, turn};

/// Guide numbers of units as they are sold, in metres.
const GUIDE_NUMBERS_M: [f64; 9] = [16.0, 20.0, 24.0, 28.0, 32.0, 40.0, 45.0, 56.0, 60.0];
/// Distances from light to subject, as they are paced out.
const PACED_M: [f64; 16] = [0.5, 0.7, 0.8, 1.0, 1.2, 1.4, 1.5, 2.0, 2.5, 2.8, 3.0, 3.5, 4.0, 5.0, 5.6, 8.0];

/// Guide number, distance, aperture; from the second level on with power and ISO. Source: ISO 1230, the definition.
pub(super) fn guide_number(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let guide_number_m = one_of(&GUIDE_NUMBERS_M, draw)?;
    let hundred = Setting::of(100.0);
    let (power, iso) = if level == Level::First {
        (Power::FULL, hundred)
    } else {
        let whole = own.whole_powers(7);
        (one_of(&whole, draw)?, one_of(&own.isos, draw).filter(|iso| iso.exact <= 1700.0)?)
    };
    let unit = GuideNumber(guide_number_m);
    let asks = if level == Level::Third {
        [GuideAsks::Power, GuideAsks::Distance]
    } else {
        [GuideAsks::Aperture, GuideAsks::Distance]
    };
    let find = one_of(&asks, draw)?;
    let mut distance = Metres(one_of(&PACED_M, draw)?);
    let mut aperture = one_of(&own.apertures, draw)?;
    let mut power = power;
    let strength = |at: Metres| unit.strength(at, Surface::Bare, Stops::ZERO);
    let wanted = aperture.position() - iso.position();
    let (exact, offered): (Value, Vec<Value>) = match find {
        GuideAsks::Aperture => {
            let exact = Setting::of(f_number_for(strength(distance).at(power), iso.exact));
            let offered: Vec<Value> = own.apertures.iter().copied().map(Value::Aperture).collect();
            let near = own.apertures.iter().copied().find(|one| (one.position() - exact.position()).0.abs() < 0.12)?;
            aperture = near;
            (Value::Aperture(exact), offered)
        }
        GuideAsks::Distance => {
            let exact = unit.bare_distance(wanted, power, Stops::ZERO);
            distance = exact;
            (Value::Metres(exact), Ladder::Metres.values())
        }
        GuideAsks::Power => {
            let exact = strength(distance).power_for(wanted);
            power = exact;
            (Value::Power(exact), own.powers.iter().copied().map(Value::Power).collect())
        }
    };
    within(&exact, &offered)?;
    Drawn::new(Asked::Guide { guide_number_m, power, distance, aperture, iso, find }, exact, offered)
}

/// What is asked for lies on what is offered, and not past its ends.
pub(super) fn within(exact: &Value, offered: &[Value]) -> Option<()> {
    let (first, last) = (offered.first()?.against(exact)?.0, offered.last()?.against(exact)?.0);
    (first.signum() != last.signum() || first == 0.0 || last == 0.0).then_some(())
}

/// The inverse square: by how much a flash falls from one distance to another, or how far away it falls by so much.
pub(super) fn distance(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let from = Metres(one_of(&PACED_M, draw)?);
    if level == Level::Third {
        let by = turn(level, 3, draw);
        let to = Metres(from.0 * (-by.0 / 2.0).exp2());
        let (exact, offered) = (Value::Metres(to), Ladder::Metres.values());
        within(&exact, &offered)?;
        return Drawn::new(Asked::Farther { from, to, find_distance: true }, exact, offered);
    }
    let to = Metres(one_of(&PACED_M, draw)?);
    let change = Stops(2.0 * (from.0 / to.0).log2());
    let whole = (change.0 - change.0.round()).abs() < 0.06;
    if from == to || change.0.abs() > 5.0 || (level == Level::First && !whole) {
        return None;
    }
    let offered = if level == Level::First { Ladder::WholeStops } else { Ladder::Stops };
    Drawn::new(Asked::Farther { from, to, find_distance: false }, Value::Stops(change), offered.values())
}

/// Lights add as light does, not as stops do; a ratio is that of the side with both to the side with one.
pub(super) fn sum(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let mut place = |most: i32| {
        let each = if level == Level::First { 1.0 } else { 1.0 / 3.0 };
        Stops(f64::from(draw.random_range(-most..=most)) * each)
    };
    let most = if level == Level::First { 3 } else { 8 };
    let (one, other, third) = (place(most), place(most), place(most));
    let offered = Ladder::Stops.values();
    if draw.random_bool(0.5) {
        let lights = if level == Level::Third { vec![one, other, third] } else { vec![one, other] };
        let sum = lights.iter().fold(Stops(f64::NEG_INFINITY), |sum, light| sum.and(*light));
        return Drawn::new(Asked::Together { lights }, Value::Stops(sum), offered);
    }
    let (key, fill) = if one > other { (one, other) } else { (other, one) };
    let ratio = key.and(fill) - fill;
    Drawn::new(Asked::Ratio { key, fill }, Value::Stops(ratio), offered)
}

/// What the flash is to give where the ambient stands so far under a wish. Half and half is one stop under it each.
pub(super) fn half_and_half(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let each = if level == Level::First { 1.0 } else { 1.0 / 3.0 };
    let (most, under) = if level == Level::First { (5, 6) } else { (9, 9) };
    let wish = Stops(f64::from(draw.random_range(-most..=most)) * each);
    let under = Stops(f64::from(draw.random_range(1..=under)) * each);
    let ambient = wish - under;
    let missing = ambient.missing_to(wish)?;
    (missing.0 >= -5.0).then_some(())?;
    Drawn::new(Asked::Missing { ambient, wish }, Value::Stops(missing), Ladder::Stops.values())
}

/// The fractions of a power dial: so many stops from one, or between two.
pub(super) fn powers(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let whole = own.whole_powers(usize::MAX);
    let from = one_of(if level == Level::First { &whole } else { &own.powers }, draw)?;
    let by = turn(level, 4, draw);
    let to = own.powers.iter().copied().find(|one| (one.0 - from.0 - by).0.abs() < 1e-6)?;
    if level == Level::Third || draw.random_bool(0.5) {
        let offered = if level == Level::First { Ladder::WholeStops } else { Ladder::Stops };
        Drawn::new(Asked::PowerBetween { from, to }, Value::Stops(to.0 - from.0), offered.values())
    } else {
        let offered = own.powers.iter().copied().map(Value::Power).collect();
        Drawn::new(Asked::PowerBy { from, by }, Value::Power(to), offered)
    }
}

/// What comes back from rooms: half metres from head to surface, paints as they are.
pub(super) fn bounce(level: Level, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let off = match level {
        Level::First => BounceOff::Ceiling,
        Level::Second => one_of(&[BounceOff::Ceiling, BounceOff::BackWall], draw)?,
        Level::Third => one_of(&[BounceOff::Ceiling, BounceOff::SideWall, BounceOff::BackWall], draw)?,
    };
    let paints: &[f64] = if level == Level::First { &[0.8] } else { &[0.8, 0.6, 0.5, 0.3, 0.2] };
    let bounce = Bounce {
        off,
        away_m: f64::from(draw.random_range(4..=16)) / 4.0,
        reflectance: one_of(paints, draw)?,
        colour: SurfaceColour::White,
    };
    let subject = Metres(f64::from(draw.random_range(4..=12)) / 2.0);
    let loss = bounce.at(subject).loss;
    (loss.0 > 0.0 && loss.0 < 6.0).then_some(())?;
    Drawn::new(Asked::Bounced { bounce, subject }, Value::Stops(loss), Ladder::Losses.values())
}

/// When a unit is ready again, and with how much power it keeps up. A pop takes its energy, which comes back steadily.
pub(super) fn recycling(level: Level, own: &Own, draw: &mut ChaCha8Rng) -> Option<Drawn> {
    let full_s = one_of(&[1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0], draw)?;
    let unit = Recycling { full_s, ..Recycling::MAINS };
    let whole = own.whole_powers(6);
    if level != Level::Third && draw.random_bool(0.5) {
        let powers = if level == Level::First { &whole } else { &own.powers };
        let power = one_of(powers, draw)?;
        let (exact, offered) = (Value::Seconds(unit.time_s(power)), Ladder::Seconds.values());
        within(&exact, &offered)?;
        return Drawn::new(Asked::Ready { full_s, power }, exact, offered);
    }
    let every_s = one_of(&[0.1, 0.2, 0.25, 0.3, 0.5, 0.75, 1.0, 1.5, 2.0, 3.0], draw)?;
    let dial = if level == Level::First { &whole } else { &own.powers };
    // The strongest that is ready in time: what lies between two clicks is the weaker one.
    let strongest = dial.iter().copied().rfind(|power| unit.time_s(*power) <= every_s + 1e-9)?;
    if strongest == Power::FULL {
        return None;
    }
    let offered = dial.iter().copied().map(Value::Power).collect();
    Drawn::new(Asked::ReadyEvery { full_s, every_s }, Value::Power(strongest), offered)
}
