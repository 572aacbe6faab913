//! Whoever photographs: behind the lens, where glass and mirrors show them. The one body that glass and preview know of.

use tolva_core::set::{Point, Vector};

/// So tall, and so far behind the lens, in metres. The height is of set.md, the rest common practice, no source.
const TALL_M: f64 = 1.75;
const BEHIND_M: f64 = 0.25;
/// Their eyes are at the lens: over it, so much of them, in metres.
const OVER_THE_LENS_M: f64 = 0.1;

/// The photographer on a set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Photographer {
    /// Between their feet, on the floor.
    pub foot: Point,
    /// The level way they look, of length 1.
    pub ahead: Vector,
    /// How tall, in metres. Whoever works from a ladder is as high as the camera all the same.
    pub tall_m: f64,
}

impl Photographer {
    /// Behind a lens that looks forward.
    pub fn behind(lens: Point, forward: Vector) -> Self {
        let ahead = (forward * Vector::new(1.0, 1.0, 0.0)).normalize_or(Vector::Y);
        let foot = lens * Vector::new(1.0, 1.0, 0.0) - ahead * BEHIND_M;
        Self { foot, ahead, tall_m: TALL_M.max(lens.z + OVER_THE_LENS_M) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn they_are_behind_the_lens_at_its_height() {
        let one = Photographer::behind(Point::new(1.0, -3.0, 1.6), Vector::Y);
        assert!((one.foot - Point::new(1.0, -3.25, 0.0)).length() < 1e-12 && (one.tall_m - 1.75).abs() < 1e-12);
        let on_a_ladder = Photographer::behind(Point::new(0.0, -3.0, 3.0), Vector::new(0.0, 0.8, -0.6));
        assert!((on_a_ladder.tall_m - 3.1).abs() < 1e-12 && (on_a_ladder.ahead - Vector::Y).length() < 1e-12);
        assert!((Photographer::behind(Point::ZERO, -Vector::Z).ahead - Vector::Y).length() < 1e-12);
    }
}
