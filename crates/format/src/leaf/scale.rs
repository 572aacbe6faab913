//! Clicks of dials.

use serde::{Deserialize, Serialize};
use tolva_format_derive::Ranged;
use utoipa::ToSchema;

/// How far one click of a camera's dial goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Step {
    /// A third of a stop.
    Third,
    /// Half a stop.
    Half,
    /// A whole stop.
    Whole,
}

/// How far one click of a flash unit's power goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, Ranged, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PowerStep {
    /// A tenth of a stop.
    Tenth,
    /// A third of a stop.
    Third,
    /// Half a stop.
    Half,
    /// A whole stop.
    Whole,
}
