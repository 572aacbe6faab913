//! The conventions a setup may follow, and what is kept first.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// What may be automatic on the camera: schools.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AutomaticConvention {
    /// Nothing: with flash, all three by hand.
    #[default]
    Nothing,
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
}

/// How an exposure is judged. Common practice, no source.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ExposureConvention {
    /// Set by meter or target, and trusted.
    #[default]
    TrustTheMeter,
    /// The brightest ambient is kept from clipping, whatever that does to the rest.
    ProtectHighlights,
    /// A third more than the meter says: quieter shadows.
    AddALittle,
}

/// What gives way first as the light falls.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FallingOrder {
    /// The shutter down to its floor; then ISO up and the flash down by as much.
    #[default]
    ShutterFirst,
    /// ISO up and the flash down by as much; then the shutter down to its floor. For what moves.
    IsoFirst,
    /// The aperture open and the flash down by as much; then the shutter, then ISO. For one head, or a tripod in wind.
    ApertureFirst,
}

/// Something worth keeping.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Preference {
    /// A low ISO: little noise.
    LowIso,
    /// The depth that was wished.
    Depth,
    /// Quick recycling.
    Pace,
    /// Low power: a long-lived battery.
    LowPower,
    /// Nothing on the lens.
    NoFilter,
}
