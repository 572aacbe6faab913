//! How numbers and single lines are shown.

use serde::{Deserialize, Serialize};
use tolva_core::scale::Stops;
use utoipa::ToSchema;

use crate::leaf::{LengthUnit, PowerNotation};

/// How a person wants numbers shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Show {
    /// Distances.
    #[serde(default)]
    pub length: LengthUnit,
    /// Flash power.
    #[serde(default)]
    pub power: PowerNotation,
}

/// A number of stops as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Said {
    /// The exact number; null where there is no light.
    pub stops: Option<f64>,
    /// In thirds: `−1⅓`.
    pub label: String,
    /// In hundredths: `−1.32`.
    pub exact: String,
}

impl Show {
    /// The unit of distances.
    pub(crate) fn metres(self) -> tolva_core::scale::LengthUnit {
        self.length.into()
    }

    /// How power is written.
    pub(crate) fn power(self) -> tolva_core::scale::PowerNotation {
        self.power.into()
    }
}

impl From<Stops> for Said {
    fn from(stops: Stops) -> Self {
        Self { stops: stops.finite(), label: stops.thirds(), exact: stops.decimals() }
    }
}

/// One line of an answer: what it is about, and what it is.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fact {
    /// What it is about: `Focus`.
    pub about: String,
    /// What it is, with its units: `at 3.27 m`.
    pub says: String,
}

impl Fact {
    /// One line.
    pub(crate) fn new(about: impl Into<String>, says: impl Into<String>) -> Self {
        Self { about: about.into(), says: says.into() }
    }
}
