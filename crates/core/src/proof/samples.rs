//! Where is looked at within a face or a half sphere: Owen-scrambled Sobol points (`sobol_burley`), another scramble for
//! each pixel. The same pixel draws the same points in every picture.

use std::sync::LazyLock;

/// Pixels share so many scrambles: neighbours have different ones, and no more are told apart by an eye.
const SCRAMBLES: u32 = 256;
/// So many points of each set are kept, which is more than most pixels ask for.
const KEPT: u32 = 32;
/// Points for a face, for patches, for the sky and for the sun.
const SETS: u32 = 4;

/// The first points of every scramble and set: to look one up takes a fraction of the time it takes to draw it.
static POINTS: LazyLock<Vec<[f32; 2]>> = LazyLock::new(|| {
    let sets = |scramble: u32| (0..SETS).flat_map(move |set| (0..KEPT).map(move |index| drawn(index, set, scramble)));
    (0..SCRAMBLES).flat_map(sets).collect()
});

/// Always of Sobol's first two dimensions, which lie most evenly together; each set has a scramble of its own.
fn drawn(index: u32, set: u32, scramble: u32) -> [f32; 2] {
    let [a, b, ..] = sobol_burley::sample_4d(index, 0, scramble * SETS + set);
    [a, b]
}

/// The points of a pixel.
#[derive(Clone, Copy)]
pub(super) struct Samples(u32);

impl Samples {
    /// Of a pixel; `again` where it is looked at a second time.
    pub fn of(pixel: u32, again: bool) -> Self {
        // Spread over all numbers: neighbours have nothing in common. Source: the finaliser of MurmurHash3 (Appleby).
        let mut mixed = pixel ^ if again { 0x5bd1_e995 } else { 0 };
        for (shift, factor) in [(16, 0x85eb_ca6b), (13, 0xc2b2_ae35)] {
            mixed = (mixed ^ (mixed >> shift)).wrapping_mul(factor);
        }
        Self((mixed ^ (mixed >> 16)) % SCRAMBLES)
    }

    /// Two numbers of 0 to 1, of a set of their own.
    pub fn two(self, index: u32, set: u32) -> [f32; 2] {
        if index < KEPT && set < SETS {
            POINTS[((self.0 * SETS + set) * KEPT + index) as usize]
        } else {
            drawn(index, set, self.0)
        }
    }
}

#[cfg(test)]
mod tests {
    use std::collections::HashSet;

    use rstest::rstest;

    use super::*;

    /// Sixteen points of two of Sobol's dimensions lie one in each part, however sixteen parts are cut: 16 × 1, 8 × 2, 4 × 4
    /// and so on. Owen's scrambling keeps it. Source: Sobol 1967, Owen 1995: a (0, 4, 2)-net in base 2.
    #[rstest]
    #[case::columns(16, 1)]
    #[case::tall(8, 2)]
    #[case::squares(4, 4)]
    #[case::wide(2, 8)]
    #[case::rows(1, 16)]
    fn a_pixels_points_lie_evenly(#[case] across: u8, #[case] down: u8) {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a place in a row of sixteen")]
        let place = |part: f32, parts: u8| (part * f32::from(parts)) as u8;
        for (pixel, set) in [(0, 0), (17, 1), (640, 2), (4_711, 3), (2_000_000, 0)] {
            let samples = Samples::of(pixel, false);
            let parts: HashSet<(u8, u8)> =
                (0..16).map(|index| samples.two(index, set)).map(|[a, b]| (place(a, across), place(b, down))).collect();
            assert_eq!(parts.len(), 16, "pixel {pixel}, set {set}");
        }
    }

    /// What is kept is what would be drawn, and what goes beyond it goes on with the same points.
    #[rstest]
    fn kept_points_are_the_drawn_ones(#[values(0, 1, 2, 3)] set: u32, #[values(0, 31, 32, 500)] index: u32) {
        let samples = Samples::of(123, true);
        let bits = |points: [f32; 2]| points.map(f32::to_bits);
        assert_eq!(bits(samples.two(index, set)), bits(drawn(index, set, samples.0)));
        assert!(samples.two(index, set).iter().all(|part| (0.0..1.0).contains(part)));
    }

    /// Neighbours draw other points, and so does a second look; the same one draws the same.
    #[test]
    fn neighbours_have_nothing_in_common() {
        let first = |pixel, again| Samples::of(pixel, again).two(0, 0).map(f32::to_bits);
        let row: HashSet<[u32; 2]> = (0..32).map(|pixel| first(pixel, false)).collect();
        assert!(row.len() > 28, "{} of 32", row.len());
        let twice = (0..32).filter(|pixel| first(*pixel, false) == first(*pixel, true)).count();
        assert!(twice < 3, "{twice} of 32");
        assert_eq!(first(9, false), first(9, false));
    }
}
