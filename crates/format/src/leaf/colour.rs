//! Colours as they are said, and what a camera is balanced for.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// What the camera is balanced for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
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
        #[schema(minimum = 1000, maximum = 40_000, extensions(("x-step" = json!(100))))]
        kelvin: f64,
        /// Against the usual white of that temperature, in Duv: positive where the light it is meant for is green. −0.05
        /// to 0.05.
        #[serde(default)]
        #[schema(minimum = -0.05, maximum = 0.05, extensions(("x-step" = json!(0.001))))]
        tint_duv: f64,
        /// What it is there for.
        #[serde(default)]
        reason: BalanceReason,
    },
}

/// Why a number of kelvin was chosen.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
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

/// What a camera's menu says in words, with the kelvin it usually stands for. Common practice, no source: makers differ.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
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

/// A light everybody has a name for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
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

/// The colour of the light that is there.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum StatedColour {
    /// From place, hour, weather and shade; midday sun where they are not known.
    #[default]
    FromPlace,
    /// A typical light.
    Named(NamedLight),
    /// By hand.
    Kelvin {
        /// 1000 to 40 000 K.
        #[schema(minimum = 1000, maximum = 40_000)]
        kelvin: f64,
        /// Against the usual white of that temperature, in Duv: positive is green. −0.05 to 0.05.
        #[serde(default)]
        #[schema(minimum = -0.05, maximum = 0.05)]
        tint_duv: f64,
    },
    /// What a colour meter said.
    Meter {
        /// 1000 to 40 000 K.
        #[schema(minimum = 1000, maximum = 40_000)]
        kelvin: f64,
        /// From the black body's locus, as meters give it. −0.05 to 0.05.
        #[serde(default)]
        #[schema(minimum = -0.05, maximum = 0.05)]
        duv: f64,
    },
    /// A grey patch in a frame.
    GreyPatch {
        /// 8-bit sRGB, 0 to 255.
        #[schema(minimum = 0, maximum = 255, default = 118)]
        red: f64,
        /// 8-bit sRGB, 0 to 255.
        #[schema(minimum = 0, maximum = 255, default = 118)]
        green: f64,
        /// 8-bit sRGB, 0 to 255.
        #[schema(minimum = 0, maximum = 255, default = 118)]
        blue: f64,
        /// The white balance it was taken at, 1000 to 40 000 K.
        #[schema(minimum = 1000, maximum = 40_000)]
        kelvin: f64,
        /// The tint that stood on the camera, in Duv. −0.05 to 0.05.
        #[serde(default)]
        #[schema(minimum = -0.05, maximum = 0.05)]
        tint_duv: f64,
    },
}
