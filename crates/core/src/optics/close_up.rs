//! Working close up: by magnification.
//!
//! Source: thin-lens equations with the pupil ratio P (exit over entrance pupil), as in any text on close-up work.

use crate::scale::{Metres, Millimetres, Stops};

/// A lens at a magnification.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CloseUp {
    /// On the sensor over in truth: 1 is life size.
    pub magnification: f64,
    /// The lens.
    pub focal: Millimetres,
    /// Exit pupil over entrance pupil; 1 for a symmetrical lens.
    pub pupil_ratio: f64,
}

impl CloseUp {
    /// The f-number the light sees: N·(1 + m/P).
    ///
    /// ```
    /// use tolva_core::{optics::CloseUp, scale::Millimetres};
    /// let life_size = CloseUp { magnification: 1.0, focal: Millimetres(100.0), pupil_ratio: 1.0 };
    /// assert_eq!(life_size.effective_f_number(8.0), 16.0);
    /// assert_eq!(life_size.loss().0, 2.0);
    /// ```
    pub fn effective_f_number(self, f_number: f64) -> f64 {
        f_number * (1.0 + self.magnification / self.pupil_ratio)
    }

    /// What flash and ambient lose by it, in stops.
    pub fn loss(self) -> Stops {
        Stops(2.0 * (1.0 + self.magnification / self.pupil_ratio).log2())
    }

    /// From the lens (its front principal point) to the subject: f·(1 + 1/m).
    pub fn working_distance(self) -> Metres {
        Millimetres(self.focal.0 * (1.0 + 1.0 / self.magnification)).metres()
    }

    /// How deep it is sharp, with N as set: 2·N·c·(m/P + 1)/m².
    pub fn depth(self, f_number: f64, circle: Millimetres) -> Millimetres {
        let m = self.magnification;
        Millimetres(2.0 * f_number * circle.0 * (m / self.pupil_ratio + 1.0) / (m * m))
    }

    /// The f-number, as set, for a depth.
    pub fn f_number_for(self, depth: Millimetres, circle: Millimetres) -> f64 {
        depth.0 / self.depth(1.0, circle).0
    }

    /// The frames that cover a subject at an f-number, each overlapping the next by a part of it.
    pub fn stack(self, subject: Millimetres, f_number: f64, circle: Millimetres, overlap: f64) -> Stack {
        let deep = self.depth(f_number, circle);
        let step = Millimetres(deep.0 * (1.0 - overlap));
        let more = ((subject.0 - deep.0).max(0.0) / step.0 - 1e-9).ceil().max(0.0);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "held within a million")]
        let frames = 1 + more.min(1e6) as u32;
        Stack { step, frames }
    }
}

/// A stack of frames.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Stack {
    /// From one frame to the next.
    pub step: Millimetres,
    /// How many there are.
    pub frames: u32,
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::optics::{airy_diameter, depth_of_field};
    use proptest::prelude::*;

    fn at(magnification: f64) -> CloseUp {
        CloseUp { magnification, focal: Millimetres(100.0), pupil_ratio: 1.0 }
    }

    /// physics.md §6: f/8 at 1:1, c 0.015 mm: effective f/16, 0.48 mm deep.
    #[test]
    fn life_size() {
        assert!((at(1.0).effective_f_number(8.0) - 16.0).abs() < 1e-12);
        assert!((at(1.0).depth(8.0, Millimetres(0.015)).0 - 0.48).abs() < 1e-12);
        assert!((at(1.0).working_distance().0 - 0.2).abs() < 1e-12);
        assert!(airy_diameter(at(1.0).effective_f_number(16.0)).0 > airy_diameter(16.0).0);
    }

    #[test]
    fn a_stack_covers_the_subject() {
        let stack = at(1.0).stack(Millimetres(10.0), 8.0, Millimetres(0.015), 0.3);
        assert!((stack.step.0 - 0.336).abs() < 1e-12);
        assert_eq!(stack.frames, 30);
        let covered = 0.48 + stack.step.0 * f64::from(stack.frames - 1);
        assert!(covered >= 10.0 && covered - stack.step.0 < 10.0);
        assert_eq!(at(1.0).stack(Millimetres(0.1), 8.0, Millimetres(0.015), 0.3).frames, 1);
    }

    proptest! {
        /// A second way: at moderate magnification it is the difference of near and far of the general formula.
        #[test]
        fn agrees_with_the_general_depth(m in 0.05..0.5_f64, n in 2.8..11.0_f64) {
            let one = at(m);
            let c = Millimetres(0.01);
            let found = depth_of_field(one.focal, n, one.working_distance(), c);
            let deep = (found.far.expect("near").0 - found.near.0) * 1000.0;
            prop_assert!((deep / one.depth(n, c).0 - 1.0).abs() < 0.01);
        }

        #[test]
        fn the_f_number_gives_the_depth_back(m in 0.1..5.0_f64, deep in 0.1..20.0_f64) {
            let n = at(m).f_number_for(Millimetres(deep), Millimetres(0.02));
            prop_assert!((at(m).depth(n, Millimetres(0.02)).0 - deep).abs() < 1e-9);
        }
    }
}
