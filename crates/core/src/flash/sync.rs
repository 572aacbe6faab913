//! The sync speed of a focal-plane shutter.

use crate::scale::{Setting, Shutter};

/// The part of the frame that stays without flash when the shutter is faster than the sync speed: about
/// `1 − t/t_sync` (common practice, no source). `None` at the sync speed or slower.
pub fn dark_band(shutter: Setting<Shutter>, sync: Setting<Shutter>) -> Option<f64> {
    let open = shutter.exact / sync.exact;
    (open < 1.0 - 1e-9).then_some(1.0 - open)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_third_too_fast_darkens_a_fifth() {
        let at = |seconds: f64| dark_band(Setting::of(seconds), Setting::of(1.0 / 250.0));
        assert_eq!(at(1.0 / 250.0), None);
        assert_eq!(at(1.0 / 160.0), None);
        assert!((at(1.0 / 320.0).expect("a band") - 0.206).abs() < 0.001);
        assert!((at(1.0 / 500.0).expect("a band") - 0.5).abs() < 1e-9);
    }
}
