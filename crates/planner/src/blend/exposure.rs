//! How an exposure is judged: schools.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use tolva_core::scale::Stops;

/// How an exposure is judged. Common practice, no source.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ExposureSchool {
    /// Set by meter or target, and trusted.
    #[default]
    TrustTheMeter,
    /// The brightest ambient is kept from clipping, whatever that does to the rest.
    ProtectHighlights,
    /// A third more than the meter says: quieter shadows.
    AddALittle,
}

/// Under full white so far the brightest ambient is kept: a shirt still shows its folds. Common practice, no source.
pub(super) const KEPT_UNDER: Stops = Stops(2.0);
/// What is added.
pub(super) const A_LITTLE: Stops = Stops(1.0 / 3.0);

impl ExposureSchool {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 3] = [Self::TrustTheMeter, Self::ProtectHighlights, Self::AddALittle];

    /// What it is called.
    pub fn name(self) -> &'static str {
        match self {
            Self::TrustTheMeter => "Trust the meter",
            Self::ProtectHighlights => "Protect the highlights",
            Self::AddALittle => "Add a little",
        }
    }

    /// What it adds to every place that is wished.
    pub(super) fn shift(self) -> Stops {
        if self == Self::AddALittle { A_LITTLE } else { Stops::ZERO }
    }
}
