//! Distances, in metres inside, shown in metres or in feet and inches.

/// How distances are shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LengthUnit {
    /// `1.56 m`
    #[default]
    Metres,
    /// `5 ft 1 in`
    FeetAndInches,
}

/// A distance or size, in metres.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Metres(pub f64);

impl Metres {
    /// Metres in an international foot. Source: international yard and pound agreement of 1959, exact.
    pub const PER_FOOT: f64 = 0.3048;

    /// A length in feet.
    pub fn from_feet(feet: f64) -> Self {
        Self(feet * Self::PER_FOOT)
    }

    /// As shown: to the centimetre or to the inch.
    pub fn label(self, unit: LengthUnit) -> String {
        match unit {
            LengthUnit::Metres => format!("{:.2} m", self.0),
            LengthUnit::FeetAndInches => {
                let inches = (self.0 / Self::PER_FOOT * 12.0).round();
                let feet = (inches / 12.0).floor();
                match (feet, inches - feet * 12.0) {
                    (0.0, inches) => format!("{inches} in"),
                    (feet, 0.0) => format!("{feet} ft"),
                    (feet, inches) => format!("{feet} ft {inches} in"),
                }
            }
        }
    }
}

/// A small length, in millimetres: a focal length, a sensor, a circle of confusion.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Millimetres(pub f64);

impl Millimetres {
    /// The same in metres.
    pub fn metres(self) -> Metres {
        Metres(self.0 / 1000.0)
    }
}

impl Metres {
    /// The same in millimetres.
    pub fn millimetres(self) -> Millimetres {
        Millimetres(self.0 * 1000.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(1.5, LengthUnit::Metres, "1.50 m")]
    #[case(1.5, LengthUnit::FeetAndInches, "4 ft 11 in")]
    #[case(0.3048, LengthUnit::FeetAndInches, "1 ft")]
    #[case(1.8287, LengthUnit::FeetAndInches, "6 ft")]
    #[case(0.2, LengthUnit::FeetAndInches, "8 in")]
    fn shown(#[case] metres: f64, #[case] unit: LengthUnit, #[case] text: &str) {
        assert_eq!(Metres(metres).label(unit), text);
    }

    #[test]
    fn ten_feet() {
        assert!((Metres::from_feet(10.0).0 - 3.048).abs() < 1e-12);
    }
}
