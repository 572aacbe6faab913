//! What things are called on screen.

use tolva_core::ambient::{Pointing, Role, TypicalLight, pointing};
use tolva_core::colour::{BalanceReason, NamedLight, Preset, Sample};
use tolva_core::exposure::MeteringMethod;
use tolva_core::modifier::SurfaceColour;
use tolva_core::optics::{HandheldRule, Movement};
use tolva_planner::setup::{AutomaticConvention, Blend, ExposureConvention, FallingOrder, LightWish, Preference, Sync};

/// What has a name on screen.
pub trait Named {
    /// What it is called.
    fn name(self) -> &'static str;
}

/// What is explained in a sentence.
pub trait Meant {
    /// What it does.
    fn meaning(self) -> &'static str;
}

impl Named for HandheldRule {
    fn name(self) -> &'static str {
        match self {
            Self::OneOverFocal => "One over the focal length",
            Self::OneOverTwiceFocal => "One over twice the focal length",
            Self::Stabilised => "With stabilisation",
            Self::DenseSensor => "Stricter on dense sensors",
        }
    }
}

impl Named for Movement {
    fn name(self) -> &'static str {
        match self {
            Self::Still => "Nothing moves",
            Self::HeldPose => "A held pose",
            Self::Posing => "Easy posing",
            Self::Children => "Children playing",
            Self::Walking => "Walking",
            Self::Dancing => "Dancing",
            Self::Running => "Running",
            Self::Wing => "A small bird's wing",
            Self::Speed { .. } => "By its speed",
        }
    }
}

impl Named for Sync {
    fn name(self) -> &'static str {
        match self {
            Self::Ordinary => "Up to the safe sync",
            Self::HighSpeed => "High-speed sync",
            Self::Electronic => "Electronic shutter",
        }
    }
}

impl Named for SurfaceColour {
    fn name(self) -> &'static str {
        match self {
            Self::White => "white",
            Self::Cream => "cream",
            Self::Wood => "pale wood",
            Self::Brick => "brick",
            Self::Green => "green",
            Self::Blue => "blue",
        }
    }
}

impl Named for Sample {
    fn name(self) -> &'static str {
        match self {
            Self::Grey => "Neutral grey",
            Self::Shirt => "White shirt",
            Self::PaleSkin => "Pale skin",
            Self::MediumSkin => "Medium skin",
            Self::DarkSkin => "Dark skin",
        }
    }
}

impl Named for NamedLight {
    fn name(self) -> &'static str {
        match self {
            Self::Candle => "Candles or fire",
            Self::SodiumLamp => "Yellow street lamps",
            Self::HouseLamp => "House lamps",
            Self::Halogen => "Halogen lamps",
            Self::Fluorescent => "Fluorescent tubes",
            Self::WarmLed => "Warm LED",
            Self::WhiteLed => "White LED",
            Self::Daylight => "Midday sun",
            Self::Cloud => "Cloudy sky",
            Self::OpenShade => "Open shade",
            Self::Leaves => "Under green leaves",
            Self::BlueHour => "Blue hour",
        }
    }
}

impl Named for BalanceReason {
    fn name(self) -> &'static str {
        match self {
            Self::ByHand => "By hand",
            Self::Fixed => "Fixed outdoors",
            Self::Warm => "Deliberately warm",
            Self::Cool => "Cooler, to save skin",
            Self::Night => "Night with white lamps",
            Self::Look => "One look",
        }
    }
}

impl Named for Preset {
    fn name(self) -> &'static str {
        match self {
            Self::Tungsten => "Tungsten",
            Self::Fluorescent => "Fluorescent",
            Self::Daylight => "Daylight",
            Self::Flash => "Flash",
            Self::Cloudy => "Cloudy",
            Self::Shade => "Shade",
        }
    }
}

impl Named for TypicalLight {
    fn name(self) -> &'static str {
        match self {
            Self::Home => "Home in the evening",
            Self::Workplace => "Office or workshop",
            Self::SportsHall => "Sports hall",
            Self::Stage => "Stage",
            Self::ShopFronts => "Lit shop fronts",
            Self::FloodlitBuilding => "Floodlit building",
            Self::Street => "Street lamps",
            Self::Candles => "Candles, near",
        }
    }
}

impl Named for MeteringMethod {
    fn name(self) -> &'static str {
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
}

impl Named for AutomaticConvention {
    fn name(self) -> &'static str {
        match self {
            Self::Nothing => "Nothing automatic",
            Self::Shutter => "Automatic shutter",
            Self::Aperture => "Automatic aperture",
            Self::Iso => "Automatic ISO",
        }
    }
}

impl Named for Preference {
    fn name(self) -> &'static str {
        match self {
            Self::LowIso => "Low ISO",
            Self::Depth => "Depth",
            Self::Pace => "Pace",
            Self::LowPower => "Low power",
            Self::NoFilter => "No filter",
        }
    }
}

impl Named for ExposureConvention {
    fn name(self) -> &'static str {
        match self {
            Self::TrustTheMeter => "Trust the meter",
            Self::ProtectHighlights => "Protect the highlights",
            Self::AddALittle => "Add a little",
        }
    }
}

impl Named for FallingOrder {
    fn name(self) -> &'static str {
        match self {
            Self::ShutterFirst => "Shutter first",
            Self::IsoFirst => "ISO first",
            Self::ApertureFirst => "Aperture first",
        }
    }
}

impl Named for LightWish {
    fn name(self) -> &'static str {
        match self {
            Self::Key => "key",
            Self::Fill { .. } => "fill",
            Self::Rim { .. } => "rim",
            Self::Place { .. } => "background",
        }
    }
}

impl Named for Blend {
    fn name(self) -> &'static str {
        match self {
            Self::Fill { .. } => "Fill",
            Self::HalfAndHalf { .. } => "Half and half",
            Self::Lift { .. } => "Lift",
            Self::Overpower { .. } => "Overpower",
            Self::Silhouette { .. } => "Silhouette",
            Self::AmbientOnly { .. } => "Ambient only",
        }
    }
}

impl Meant for FallingOrder {
    fn meaning(self) -> &'static str {
        match self {
            Self::ShutterFirst => "The shutter slows to its floor, then ISO rises and the flash goes down as much.",
            Self::IsoFirst => "ISO rises and the flash goes down as much, then the shutter slows to its floor.",
            Self::ApertureFirst => "The aperture opens and the flash goes down as much, then the shutter, then ISO.",
        }
    }
}

impl Meant for Blend {
    fn meaning(self) -> &'static str {
        match self {
            Self::Fill { .. } => "The light that is there makes the picture; the flash opens its shadows.",
            Self::HalfAndHalf { .. } => "Flash and ambient share the subject evenly, so that it looks unlit.",
            Self::Lift { .. } => "What lies behind gets its place, and the flash lifts the subject to its own.",
            Self::Overpower { .. } => "The ambient goes well under, and the flash is the key.",
            Self::Silhouette { .. } => "What lies behind is right, and the subject goes dark against it. No flash.",
            Self::AmbientOnly { .. } => "The light that is there, placed well. No flash.",
        }
    }
}

/// How to take it of a part of the picture, in words. Common practice, no source.
pub fn instruction(how: MeteringMethod, part: Role, sun_shows: bool) -> String {
    let place = match pointing(how, part, sun_shows) {
        Pointing::UnderTheSun => {
            "Hold it at the face, level, and point it at the horizon under the sun. Never look into the sun."
        }
        Pointing::TowardsTheCamera => "Hold it at the subject's face and point it at the camera.",
        Pointing::AwayFromTheLight => {
            "Hold it at the shadow cheek and turn it away from the light, so that none of it falls on the dome."
        }
        Pointing::BehindTheSubject => {
            "Go to what lies behind, or to where the same light falls, and point it at the camera."
        }
        Pointing::AtWhatLiesBehind => match how {
            MeteringMethod::SpotGrey => "Have the card held where it lies behind, facing you, and read it.",
            MeteringMethod::SpotWhite => "Read something white among what lies behind, from the camera.",
            MeteringMethod::Camera => {
                "Fill the frame with what lies behind, and note the compensation that stood on the camera."
            }
            _ => "Read a middle tone of what lies behind, past the subject, from the camera.",
        },
        Pointing::AtTheSurface => match how {
            MeteringMethod::SpotGrey => {
                "Hold the card at the face, turned as this side of it is, and read it from the camera."
            }
            MeteringMethod::SpotWhite => "Read something white that lies in the same light, from the camera.",
            MeteringMethod::SpotPalm => {
                "Hold your palm in this light, turned as this side of the face is, and read it."
            }
            MeteringMethod::Camera => {
                "Fill the frame with what you read, and note the compensation that stood on the camera."
            }
            _ => "Read this cheek from the camera: a spot, no larger than the cheek.",
        },
    };
    format!("{place} Flash off, and not in your own shadow.")
}

/// What a number of a blend is called.
pub fn number_name(blend: Blend, field: &str) -> &'static str {
    match (blend, field) {
        (Blend::Fill { .. } | Blend::Overpower { .. }, "ambient_stops") => "Ambient on the subject",
        (_, "fill_stops") => "Flash against the ambient",
        (_, "background_stops") => "Behind",
        _ => "Subject",
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(MeteringMethod::IncidentDome, Role::LitSide, true, "horizon under the sun")]
    #[case(MeteringMethod::IncidentDome, Role::LitSide, false, "at the camera")]
    #[case(MeteringMethod::IncidentDome, Role::ShadowSide, true, "turn it away from the light")]
    #[case(MeteringMethod::IncidentDome, Role::Background, true, "Go to what lies behind")]
    #[case(MeteringMethod::SpotGrey, Role::LitSide, true, "card")]
    #[case(MeteringMethod::SpotSkinDark, Role::Background, true, "past the subject")]
    #[case(MeteringMethod::Camera, Role::Background, false, "compensation")]
    fn how_to_hold_the_meter(#[case] how: MeteringMethod, #[case] part: Role, #[case] sun: bool, #[case] says: &str) {
        let words = instruction(how, part, sun);
        assert!(words.contains(says) && words.contains("Flash off") && words.contains("own shadow"), "{words}");
    }
}
