//! What can be answered: a setting, a power, so many stops, a distance, a colour, one of several.

use tolva_core::colour::{Kelvin, Mired};
use tolva_core::scale::{Aperture, Iso, Metres, Power, Setting, Shutter, Stops};

use crate::shots::Kept;

/// An answer.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Value {
    /// A shutter time.
    Shutter(Setting<Shutter>),
    /// An aperture.
    Aperture(Setting<Aperture>),
    /// An ISO.
    Iso(Setting<Iso>),
    /// A power.
    Power(Power),
    /// So many stops.
    Stops(Stops),
    /// A distance.
    Metres(Metres),
    /// A place to one side, in metres: to the right it is positive.
    Aside(Metres),
    /// A colour temperature.
    Kelvin(Kelvin),
    /// A shift of one.
    Mired(Mired),
    /// A time in seconds.
    Seconds(f64),
    /// A gel of those named, by its place.
    Gel(usize),
    /// What was turned; nothing for none of it.
    Turned(Option<Kept>),
    /// One of several ways, by its place.
    Way(usize),
    /// Yes or no.
    Yes(bool),
}

/// So many mired are seen as a stop is: what a mistake in a colour weighs beside others. Chosen.
pub const MIRED_A_STOP: f64 = 60.0;
/// Two answers that are no matter of degree lie so far apart.
const ANOTHER: f64 = 1.0;

impl Value {
    /// How much more light it is than another, or how much farther, longer, warmer, in stops; nothing where the two are no
    /// matter of degree.
    pub fn against(&self, other: &Self) -> Option<Stops> {
        let ratio = |a: f64, b: f64, each: f64| Some(Stops(each * (a / b).log2()));
        match (*self, *other) {
            (Self::Shutter(a), Self::Shutter(b)) => Some(b.position() - a.position()),
            (Self::Aperture(a), Self::Aperture(b)) => Some(b.position() - a.position()),
            (Self::Iso(a), Self::Iso(b)) => Some(a.position() - b.position()),
            (Self::Power(a), Self::Power(b)) => Some(a.0 - b.0),
            (Self::Stops(a), Self::Stops(b)) => Some(a - b),
            // Of a flash, twice as far is two stops.
            (Self::Metres(a), Self::Metres(b)) => ratio(a.0, b.0, 2.0),
            (Self::Seconds(a), Self::Seconds(b)) => ratio(a, b, 1.0),
            (Self::Kelvin(a), Self::Kelvin(b)) => Some(Stops((a.mired().0 - b.mired().0) / MIRED_A_STOP)),
            (Self::Mired(a), Self::Mired(b)) => Some(Stops((a.0 - b.0) / MIRED_A_STOP)),
            _ => None,
        }
    }

    /// How far two answers lie apart, for which of them is nearer.
    pub fn away(&self, other: &Self) -> f64 {
        match (self, other) {
            (Self::Aside(a), Self::Aside(b)) => (a.0 - b.0).abs(),
            _ if self == other => 0.0,
            _ => self.against(other).map_or(ANOTHER, |off| off.0.abs()),
        }
    }
}

/// Rows of answers that belong to no dial of a camera.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Ladder {
    /// −5 to +5 stops, by thirds.
    Stops,
    /// −5 to +5 whole stops.
    WholeStops,
    /// 0 to 6 stops, by halves.
    Losses,
    /// 0.5 to 16 m, by what is a third of a stop.
    Metres,
    /// 1600 to 12 500 K, 20 mired apart.
    Kelvin,
    /// −300 to 300 mired, by twenties.
    Mired,
    /// A tenth of a second to 16 s, by thirds of a stop.
    Seconds,
    /// 3 m to the left to 3 m to the right, by half metres.
    Aside,
}

impl Ladder {
    /// Its rungs, in order.
    pub fn values(self) -> Vec<Value> {
        let steps = |from: i32, to: i32, each: f64| (from..=to).map(move |step| f64::from(step) * each);
        match self {
            Self::Stops => steps(-15, 15, 1.0 / 3.0).map(|stops| Value::Stops(Stops(stops))).collect(),
            Self::WholeStops => steps(-5, 5, 1.0).map(|stops| Value::Stops(Stops(stops))).collect(),
            Self::Losses => steps(0, 12, 0.5).map(|stops| Value::Stops(Stops(stops))).collect(),
            Self::Metres => steps(-6, 24, 1.0 / 6.0).map(|power| Value::Metres(rounded(power.exp2()))).collect(),
            Self::Kelvin => steps(4, 31, 20.0).map(|mired| Value::Kelvin(Mired(mired).kelvin())).collect(),
            Self::Mired => steps(-15, 15, 20.0).map(|mired| Value::Mired(Mired(mired))).collect(),
            Self::Seconds => steps(-10, 12, 1.0 / 3.0).map(|power| Value::Seconds(power.exp2())).collect(),
            Self::Aside => steps(-6, 6, 0.5).map(|metres| Value::Aside(Metres(metres))).collect(),
        }
    }
}

/// As a tape measure is read: to five centimetres, from two metres on to ten.
fn rounded(metres: f64) -> Metres {
    let step = if metres < 2.0 { 0.05 } else { 0.1 };
    Metres((metres / step).round() * step)
}
