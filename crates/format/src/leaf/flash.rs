//! What the tables of a flash are made of.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// One line of a unit's table: at this power, so long.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Duration {
    /// The power in stops under full: −12 to 0.
    #[schema(minimum = -12, maximum = 0, default = 0)]
    pub power_stops: f64,
    /// t₀.₁, the time over a tenth of the peak, in seconds: a millionth to a tenth.
    #[schema(minimum = 0.000_001, maximum = 0.1, default = 0.004)]
    pub t01_s: f64,
}

/// One line of a unit's table: at this zoom, this guide number.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ZoomGuideNumber {
    /// The zoom of the head, as a focal length on a full frame: 8 to 400 mm.
    #[schema(minimum = 8, maximum = 400, default = 35)]
    pub zoom_mm: f64,
    /// The guide number there, in metres at ISO 100.
    #[schema(minimum = 1, maximum = 1000, default = 36)]
    pub guide_number_m: f64,
}
