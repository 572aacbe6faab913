//! A white card that fills a shadow.

use std::f64::consts::PI;

use crate::modifier::Surface;
use crate::scale::{Metres, Stops};

/// What a card gives the shadow side, against the light that falls on the card: its reflectance times its form factor
/// from there, on its axis. In stops under that light. A black card takes away as much of what came from its place.
///
/// ```
/// use tolva_core::{modifier::{Surface, card_fill}, scale::Metres};
/// let card = Surface::Rectangle { width: Metres(0.8), height: Metres(1.2) };
/// let fill = card_fill(card, 0.9, Metres(0.6));
/// assert!((-1.7..-1.2).contains(&fill.0), "{fill:?}");
/// ```
pub fn card_fill(card: Surface, reflectance: f64, distance: Metres) -> Stops {
    let area = match card {
        Surface::Bare => 0.0,
        Surface::Disc { diameter } => PI * (diameter.0 / 2.0).powi(2),
        Surface::Rectangle { width, height } => width.0 * height.0,
    };
    let point = Stops::of_ratio(area / (PI * distance.0 * distance.0));
    point + card.near_field(distance) + Stops::of_ratio(reflectance)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A disc's form factor is r²/(r² + d²) (physics.md §4): at its own radius, a half.
    #[test]
    fn a_disc_at_its_radius_is_a_half() {
        let disc = Surface::Disc { diameter: Metres(1.0) };
        assert!((card_fill(disc, 1.0, Metres(0.5)).0 - -1.0).abs() < 1e-12);
        assert_eq!(card_fill(Surface::Bare, 0.9, Metres(1.0)), Stops::NOTHING);
    }

    proptest! {
        #[test]
        fn a_card_never_gives_more_than_falls_on_it(w in 0.1..4.0_f64, h in 0.1..4.0_f64, d in 0.05..3.0_f64) {
            let card = Surface::Rectangle { width: Metres(w), height: Metres(h) };
            prop_assert!(card_fill(card, 0.95, Metres(d)).0 < 0.0);
        }
    }
}
