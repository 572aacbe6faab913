//! The ways a reading is taken.

use crate::scale::Stops;

/// How a reading was taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum MeteringMethod {
    /// It was not said.
    #[default]
    Unsaid,
    /// An incident meter with its dome.
    IncidentDome,
    /// An incident meter with a flat receptor.
    IncidentFlat,
    /// A luxmeter.
    Luxmeter,
    /// A spot off a grey card.
    SpotGrey,
    /// A spot off something white.
    SpotWhite,
    /// A spot off one's own palm.
    SpotPalm,
    /// A spot off pale skin.
    SpotSkinPale,
    /// A spot off skin of medium depth.
    SpotSkinMedium,
    /// A spot off dark skin.
    SpotSkinDark,
    /// What the camera says.
    Camera,
}

impl MeteringMethod {
    /// All that are offered.
    pub const OFFERED: [Self; 10] = [
        Self::IncidentDome,
        Self::IncidentFlat,
        Self::Luxmeter,
        Self::SpotGrey,
        Self::SpotWhite,
        Self::SpotPalm,
        Self::SpotSkinPale,
        Self::SpotSkinMedium,
        Self::SpotSkinDark,
        Self::Camera,
    ];

    /// How far its usual surface lies over mid grey. White cloth or paper about +2⅓ and a palm +1; skin +1 pale, +⅓
    /// medium, −⅔ dark (common practice, no source); a grey card and incident meters 0 by definition.
    pub fn surface(self) -> Stops {
        Stops(match self {
            Self::SpotWhite => 7.0 / 3.0,
            Self::SpotPalm | Self::SpotSkinPale => 1.0,
            Self::SpotSkinMedium => 1.0 / 3.0,
            Self::SpotSkinDark => -2.0 / 3.0,
            _ => 0.0,
        })
    }

    /// Whether it collects what falls on it, instead of looking at a surface.
    pub fn is_incident(self) -> bool {
        matches!(self, Self::IncidentDome | Self::IncidentFlat | Self::Luxmeter | Self::Unsaid)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A surface of reflectance ρ lies log₂(ρ/0.18) over mid grey: white of 0.9 is +2.32.
    #[test]
    fn white_is_what_its_reflectance_says() {
        assert!((MeteringMethod::SpotWhite.surface().0 - (0.9f64 / 0.18).log2()).abs() < 0.02);
    }
}
