//! How certain a total is: the root of the sum of squares of what is not known, each part weighted by its share of
//! the light. Figures from common practice, no source, except the distance, which is arithmetic: 5 % is 0.14 stop.

use super::outcome::RegionOutcome;
use crate::job::{CheckedLight, FlashOutput, Known};

const READING: f64 = 0.2;
const GUESS: f64 = 1.0;
const MODEL: f64 = 0.7;
/// What following the model adds, a stop that the light has moved.
const FOLLOWED: f64 = 0.3;
const GUIDE_NUMBER: f64 = 0.3;
const MEASURED_UNIT: f64 = 0.1;
const MODIFIER: f64 = 0.3;
const DISTANCE: f64 = 0.14;
const CAMERA: f64 = 0.33;
const REACH: f64 = 0.5;

/// One standard deviation of a region's total, in stops.
pub(super) fn uncertainty(
    region: RegionOutcome,
    known: Known,
    light: Option<&CheckedLight<'_>>,
    aimed_at: bool,
) -> f64 {
    let share = region.flash_share();
    let of_ambient = match known {
        Known::Guess => GUESS,
        Known::Model => MODEL,
        Known::Read { moved, .. } => READING.hypot(FOLLOWED * moved.0),
    };
    let of_flash = light.map_or(0.0, |light| {
        let unit = match (&light.flash.output, light.modifier) {
            // A reading through this very modifier knows its loss as well.
            (FlashOutput::Measured(read), modifier) if read.modifier_id.as_ref() == modifier.map(|m| &m.id) => {
                MEASURED_UNIT
            }
            (FlashOutput::Measured(_), _) => MEASURED_UNIT.hypot(MODIFIER),
            (_, None) => GUIDE_NUMBER,
            (_, Some(_)) => GUIDE_NUMBER.hypot(MODIFIER),
        };
        let reach = if aimed_at { 0.0 } else { REACH };
        unit.hypot(DISTANCE).hypot(reach)
    });
    ((1.0 - share) * of_ambient).hypot(share * of_flash).hypot(CAMERA)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scale::Stops;

    fn read(moved: f64) -> Known {
        Known::Read { minutes: Some(20.0), moved: Stops(moved) }
    }

    #[test]
    fn ambient_alone_is_reading_and_camera() {
        let region = RegionOutcome { ambient: Stops(0.0), flash: Stops::NOTHING, together: Stops(0.0) };
        let sigma = uncertainty(region, read(0.0), None, true);
        assert!((sigma - 0.2f64.hypot(0.33)).abs() < 1e-12);
        assert!(uncertainty(region, Known::Guess, None, true) > 1.0);
    }

    #[test]
    fn a_reading_grows_stale_as_the_light_moves() {
        let region = RegionOutcome { ambient: Stops(0.0), flash: Stops::NOTHING, together: Stops(0.0) };
        let sigma = |known| uncertainty(region, known, None, true);
        assert!(sigma(read(0.0)) < sigma(read(-1.0)) && sigma(read(-1.0)) < sigma(Known::Model));
        assert!(sigma(Known::Model) < sigma(Known::Guess));
    }
}
