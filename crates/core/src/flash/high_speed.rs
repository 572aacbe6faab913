//! High-speed sync: a train of small pulses while the slit of the shutter passes.

use crate::scale::{Setting, Shutter, Stops};

/// What a unit loses in high-speed sync against its ordinary flash: a fixed loss at the sync speed (about 1⅓ stops,
/// set in the kit; common practice, no source), then a stop for every stop the shutter is faster, since light that
/// burns on counts like the ambient. Nothing at the sync speed or slower.
///
/// ```
/// use tolva_core::{flash::high_speed_loss, scale::{Setting, Stops}};
/// let at = |seconds: f64| high_speed_loss(Setting::of(seconds), Setting::of(1.0 / 200.0), Stops(4.0 / 3.0));
/// assert_eq!(at(1.0 / 200.0), None);
/// assert!((at(1.0 / 1600.0).unwrap().0 - (4.0 / 3.0 + 3.0)).abs() < 1e-9);
/// ```
pub fn high_speed_loss(shutter: Setting<Shutter>, sync: Setting<Shutter>, fixed: Stops) -> Option<Stops> {
    let faster = shutter.position() - sync.position();
    (faster.0 > 1e-6).then(|| fixed + faster)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The issue's worked example: right at sync is f/8; f/2.8 is wanted, three stops wider on the dials.
    #[test]
    fn against_a_filter() {
        let gain = 3.0;
        // A filter of three stops takes three from the flash, f/2.8 gives three: the power stays.
        let with_filter = 3.0 - gain;
        assert!(f64::abs(with_filter) < 1e-12);
        let loss = high_speed_loss(Setting::of(1.0 / 1600.0), Setting::of(1.0 / 200.0), Stops(4.0 / 3.0));
        assert!((loss.expect("faster").0 - gain - 4.0 / 3.0).abs() < 1e-9, "1⅓ more power than at f/8");
    }
}
