//! Meter constants. Source: ISO 2720.

use crate::scale::Stops;

/// What an incident meter collects its light with.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum IncidentReceptor {
    /// A flat disc, or a luxmeter: C = 250.
    #[default]
    Flat,
    /// A dome: C about 330.
    Dome,
}

impl IncidentReceptor {
    /// The incident calibration constant C, in lux · s / ISO.
    pub fn constant(self) -> f64 {
        match self {
            Self::Flat => 250.0,
            Self::Dome => 330.0,
        }
    }
}

/// The reflected calibration constant K of most meters and cameras, in cd/m² · s / ISO.
const K: f64 = 12.5;

/// How far a spot reading off an 18 % card lies over an incident one: the two constants imply a reflectance of π·K/C,
/// which is 15.7 % for a flat receptor, and log₂(0.18/0.157) is 0.20 stop.
pub fn reflected_over(receptor: IncidentReceptor) -> Stops {
    Stops::of_ratio(0.18 / (std::f64::consts::PI * K / receptor.constant()))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// physics.md §1: 0.20 over a flat receptor, 0.60 over a dome with C = 330.
    #[test]
    fn a_grey_card_reads_over_an_incident_meter() {
        assert!((reflected_over(IncidentReceptor::Flat).0 - 0.20).abs() < 0.005);
        assert!((reflected_over(IncidentReceptor::Dome).0 - 0.60).abs() < 0.005);
    }
}
