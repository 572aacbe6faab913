//! How numbers and single lines are shown.

use std::collections::BTreeMap;

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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Fact {
    /// Its code: stable.
    pub code: &'static str,
    /// Its numbers, by name, with the unit in each name.
    pub numbers: BTreeMap<&'static str, f64>,
    /// What it is about: `Focus`.
    pub about: String,
    /// What it is, with its units: `at 3.27 m`.
    pub says: String,
}

impl Fact {
    /// One line.
    pub(crate) fn new(code: &'static str, about: impl Into<String>, says: impl Into<String>) -> Self {
        Self { code, numbers: BTreeMap::new(), about: about.into(), says: says.into() }
    }

    /// The same with one of its numbers. What has no end is no number.
    pub(crate) fn with(mut self, name: &'static str, number: f64) -> Self {
        if number.is_finite() {
            self.numbers.insert(name, number);
        }
        self
    }
}
