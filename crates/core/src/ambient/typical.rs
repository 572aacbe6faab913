//! Typical lights indoors and at night, from handbook exposure values, and their flicker.

use crate::exposure::Ev;
use crate::scale::{Setting, Shutter};

/// A kind of light where there is no daylight.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TypicalLight {
    /// A home in the evening.
    Home,
    /// An office or a workshop.
    Workplace,
    /// A hall for sports.
    SportsHall,
    /// A stage.
    Stage,
    /// Before lit shop fronts.
    ShopFronts,
    /// A floodlit building.
    FloodlitBuilding,
    /// A street under lamps.
    Street,
    /// Candles near the face.
    Candles,
}

impl TypicalLight {
    /// All, the brightest first.
    pub const ALL: [Self; 8] = [
        Self::SportsHall,
        Self::Workplace,
        Self::ShopFronts,
        Self::Stage,
        Self::Home,
        Self::FloodlitBuilding,
        Self::Candles,
        Self::Street,
    ];

    /// The range of exposure values at ISO 100. Source: ANSI PH2.7 (from memory).
    pub fn ev_range(self) -> (Ev, Ev) {
        let (low, high) = match self {
            Self::Home | Self::Stage => (5.0, 7.0),
            Self::Workplace | Self::ShopFronts => (7.0, 8.0),
            Self::SportsHall => (8.0, 9.0),
            Self::FloodlitBuilding => (3.0, 5.0),
            Self::Street => (2.0, 4.0),
            Self::Candles => (3.0, 4.0),
        };
        (Ev(low), Ev(high))
    }

    /// The middle of its range.
    pub fn ev(self) -> Ev {
        let (low, high) = self.ev_range();
        Ev(f64::midpoint(low.0, high.0))
    }

    /// Whether it flickers with the mains: all lamps may, candles do not.
    pub fn flickers(self) -> bool {
        self != Self::Candles
    }
}

/// Whether a shutter time is shorter than half a period of the mains, so that lamps flicker in it: some frames darker,
/// some with bands, some of another colour.
///
/// ```
/// use tolva_core::ambient::flicker_shows;
/// use tolva_core::scale::Setting;
/// assert!(flicker_shows(Setting::of(1.0 / 250.0), 50.0));
/// assert!(!flicker_shows(Setting::of(1.0 / 100.0), 50.0));
/// ```
pub fn flicker_shows(shutter: Setting<Shutter>, mains_hz: f64) -> bool {
    // 1/125 is the dial's half period of 60 Hz (1/120): a twentieth short shows nothing.
    shutter.nominal < 0.5 / mains_hz * 0.95
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn the_table_is_in_order() {
        let all: Vec<f64> = TypicalLight::ALL.iter().map(|light| light.ev().0).collect();
        assert!(all.is_sorted_by(|a, b| a >= b), "{all:?}");
        assert!(TypicalLight::ALL.iter().all(|light| light.ev_range().0 <= light.ev_range().1));
    }

    #[rstest]
    #[case(1.0 / 125.0, 50.0, true)]
    #[case(1.0 / 125.0, 60.0, false)]
    #[case(1.0 / 160.0, 60.0, true)]
    #[case(1.0 / 50.0, 50.0, false)]
    fn flicker(#[case] shutter: f64, #[case] mains: f64, #[case] shows: bool) {
        assert_eq!(flicker_shows(Setting::of(shutter), mains), shows);
    }
}
