//! Typical lights by name, with the temperatures they usually have. Common practice, no source.

use super::illuminant::Illuminant;
use super::mired::Kelvin;

/// A light everybody has a name for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum NamedLight {
    /// Candles, an open fire.
    Candle,
    /// Street lamps of the old yellow kind.
    SodiumLamp,
    /// Lamps in a home.
    HouseLamp,
    /// Halogen work and stage lamps.
    Halogen,
    /// Fluorescent tubes.
    Fluorescent,
    /// White LED, warm.
    WarmLed,
    /// White LED, neutral.
    WhiteLed,
    /// Noon sun and sky; flash.
    Daylight,
    /// A cloudy sky.
    Cloud,
    /// Open shade.
    OpenShade,
    /// Under green leaves.
    Leaves,
    /// After the sun has gone.
    BlueHour,
}

impl NamedLight {
    /// All, the warmest first.
    pub const ALL: [Self; 12] = [
        Self::Candle,
        Self::SodiumLamp,
        Self::HouseLamp,
        Self::WarmLed,
        Self::Halogen,
        Self::Fluorescent,
        Self::Daylight,
        Self::WhiteLed,
        Self::Leaves,
        Self::Cloud,
        Self::OpenShade,
        Self::BlueHour,
    ];

    /// From where to where its temperature usually lies.
    pub fn range(self) -> (Kelvin, Kelvin) {
        let (low, high) = match self {
            Self::Candle => (1800.0, 2000.0),
            Self::SodiumLamp => (1900.0, 2200.0),
            Self::HouseLamp => (2500.0, 3200.0),
            Self::Halogen => (3000.0, 3400.0),
            Self::Fluorescent => (3500.0, 4500.0),
            Self::WarmLed => (2700.0, 3200.0),
            Self::WhiteLed => (4000.0, 10_000.0),
            Self::Daylight => (5000.0, 5600.0),
            Self::Cloud => (6000.0, 6500.0),
            Self::OpenShade => (7000.0, 8000.0),
            Self::Leaves => (5500.0, 6500.0),
            Self::BlueHour => (9000.0, 12_000.0),
        };
        (Kelvin(low), Kelvin(high))
    }

    /// The light as it is taken to be: the middle of its range in mired, or where most of them lie.
    pub fn light(self) -> Illuminant {
        let (low, high) = self.range();
        let kelvin = match self {
            // Most that are sold are of 5000 to 6000 K.
            Self::WhiteLed => Kelvin(5500.0),
            _ => super::mired::Mired(f64::midpoint(low.mired().0, high.mired().0)).kelvin(),
        };
        let tint = match self {
            Self::Fluorescent => 0.008,
            Self::Leaves => 0.010,
            _ => 0.0,
        };
        Illuminant::new(kelvin, tint)
    }

    /// How well it renders colours, 0 to 100 (Ra, from memory); none where nothing is missing from it.
    pub fn rendering(self) -> Option<f64> {
        match self {
            Self::SodiumLamp => Some(25.0),
            Self::Fluorescent => Some(75.0),
            Self::WarmLed | Self::WhiteLed => Some(80.0),
            _ => None,
        }
    }

    /// Whether it flickers with the mains.
    pub fn flickers(self) -> bool {
        matches!(
            self,
            Self::SodiumLamp | Self::HouseLamp | Self::Halogen | Self::Fluorescent | Self::WarmLed | Self::WhiteLed
        )
    }

    /// Whether it is a lamp, and no light of the sky.
    pub fn is_lamp(self) -> bool {
        self.flickers() || self == Self::Candle
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn they_stand_in_order_within_their_ranges() {
        let all: Vec<f64> = NamedLight::ALL.iter().map(|light| light.light().kelvin().0).collect();
        assert!(all.is_sorted(), "{all:?}");
        for light in NamedLight::ALL {
            let (low, high) = light.range();
            assert!((low..=high).contains(&light.light().kelvin()), "{light:?}");
        }
    }
}
