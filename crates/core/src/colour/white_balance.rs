//! The camera's white balance, by school.

use super::mired::Kelvin;

/// What the camera is balanced for.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum WhiteBalance {
    /// The flash as it comes through its gels; the ambient goes its own way. Without flash, the ambient.
    #[default]
    Flash,
    /// The ambient on the lit side; flash is gelled to it.
    Ambient,
    /// Half way from the flash to the ambient, in mired.
    Between,
    /// A grey or white target on the lit side: whatever falls there comes out neutral, tint and all.
    Measured,
    /// A name on the camera's menu.
    Preset(Preset),
    /// A number.
    Kelvin {
        /// 1000 to 40 000 K.
        kelvin: f64,
        /// Against the usual white of that temperature, in Duv: positive where the light it is meant for is green. −0.05
        /// to 0.05.
        tint_duv: f64,
        /// What it is there for.
        reason: BalanceReason,
    },
}

/// Why a number of kelvin was chosen.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum BalanceReason {
    /// By hand.
    #[default]
    ByHand,
    /// The same outdoors all day.
    Fixed,
    /// Deliberately warm: a shade setting against a sunset makes it glow.
    Warm,
    /// Cooler, to save skin in hard sunset light.
    Cool,
    /// At night, under white lamps.
    Night,
    /// One look over several setups.
    Look,
}

/// The usual numbers of the schools. Common practice, no source.
pub const FIXED: Kelvin = Kelvin(5600.0);
/// A shade setting against a sunset.
pub const WARM: Kelvin = Kelvin(7500.0);
/// In strong sunset light, 3500 to 4000 K.
pub const COOL: Kelvin = Kelvin(3800.0);
/// With white lamps, 6000 to 7000 K.
pub const NIGHT: Kelvin = Kelvin(6500.0);

/// What a camera's menu says in words, with the kelvin it usually stands for. Common practice, no source: makers differ.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Preset {
    /// House lamps.
    Tungsten,
    /// Tubes.
    Fluorescent,
    /// Sun.
    Daylight,
    /// Flash.
    Flash,
    /// Cloud.
    Cloudy,
    /// Shade.
    Shade,
}

impl Preset {
    /// All, the warmest light first.
    pub const ALL: [Self; 6] =
        [Self::Tungsten, Self::Fluorescent, Self::Daylight, Self::Flash, Self::Cloudy, Self::Shade];

    /// The temperature it stands for.
    pub fn kelvin(self) -> Kelvin {
        Kelvin(match self {
            Self::Tungsten => 3200.0,
            Self::Fluorescent => 4000.0,
            Self::Daylight => 5200.0,
            Self::Flash => 5600.0,
            Self::Cloudy => 6000.0,
            Self::Shade => 7500.0,
        })
    }
}
