//! The ways a reading is taken, and how to hold the meter for each.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::scale::Stops;

/// How a reading was taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum How {
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

/// Which way a receptor is pointed: it is drawn so.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Pointing {
    /// At face height, level, towards the horizon under the sun.
    UnderTheSun,
    /// From the subject towards the camera.
    TowardsTheCamera,
    /// From the camera at the surface.
    AtTheSurface,
}

impl How {
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

    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            Self::Unsaid => "Not said",
            Self::IncidentDome => "Incident, dome",
            Self::IncidentFlat => "Incident, flat",
            Self::Luxmeter => "Luxmeter",
            Self::SpotGrey => "Spot on grey",
            Self::SpotWhite => "Spot on white",
            Self::SpotPalm => "Spot on a palm",
            Self::SpotSkinPale => "Spot on pale skin",
            Self::SpotSkinMedium => "Spot on medium skin",
            Self::SpotSkinDark => "Spot on dark skin",
            Self::Camera => "Camera",
        }
    }

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

    /// Which way to point it: an incident meter in sun under the sun, else towards the camera. Common practice.
    pub fn pointing(self, sun_shows: bool) -> Pointing {
        match self {
            Self::IncidentDome | Self::IncidentFlat | Self::Luxmeter | Self::Unsaid if sun_shows => {
                Pointing::UnderTheSun
            }
            Self::IncidentDome | Self::IncidentFlat | Self::Luxmeter | Self::Unsaid => Pointing::TowardsTheCamera,
            _ => Pointing::AtTheSurface,
        }
    }

    /// How to take it, in words. Common practice, no source.
    pub fn instruction(self, sun_shows: bool) -> String {
        let place = match self.pointing(sun_shows) {
            Pointing::UnderTheSun => {
                "Hold it at face height, level, and point it at the horizon under the sun. Never look into the sun."
            }
            Pointing::TowardsTheCamera => "Hold it at the subject's face and point it at the camera.",
            Pointing::AtTheSurface => match self {
                Self::SpotGrey => "Hold the card at the face, turned as the face is, and read it from the camera.",
                Self::SpotWhite => "Read something white that lies in the same light, from the camera.",
                Self::SpotPalm => "Hold your palm in the subject's light, turned as the face is, and read it.",
                Self::Camera => {
                    "Fill the frame with what you read, and note the compensation that stood on the camera."
                }
                _ => "Read the cheek from the camera: a spot, no larger than the cheek.",
            },
        };
        format!("{place} Flash off, and not in your own shadow.")
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(How::IncidentDome, true, Pointing::UnderTheSun, "horizon under the sun")]
    #[case(How::IncidentDome, false, Pointing::TowardsTheCamera, "at the camera")]
    #[case(How::SpotGrey, true, Pointing::AtTheSurface, "card")]
    #[case(How::Camera, false, Pointing::AtTheSurface, "compensation")]
    fn where_to_hold_it(#[case] how: How, #[case] sun: bool, #[case] pointing: Pointing, #[case] says: &str) {
        assert_eq!(how.pointing(sun), pointing);
        let words = how.instruction(sun);
        assert!(words.contains(says) && words.contains("Flash off") && words.contains("own shadow"), "{words}");
    }

    /// A surface of reflectance ρ lies log₂(ρ/0.18) over mid grey: white of 0.9 is +2.32.
    #[test]
    fn white_is_what_its_reflectance_says() {
        assert!((How::SpotWhite.surface().0 - (0.9f64 / 0.18).log2()).abs() < 0.02);
    }
}
