//! Where is looked at within a face or a half sphere: Owen-scrambled Sobol points (`sobol_burley`), another scramble for
//! each pixel. The same pixel draws the same points in every picture.

/// The points of a pixel.
#[derive(Clone, Copy)]
pub(super) struct Samples(u32);

impl Samples {
    /// Of a pixel; `again` where it is looked at a second time.
    pub fn of(pixel: u32, again: bool) -> Self {
        // Spread over all numbers: neighbours have nothing in common. The odd factor is that of Knuth's multiplicative hash.
        let mixed = (pixel ^ if again { 0x5bd1_e995 } else { 0 }).wrapping_mul(2_654_435_761);
        Self(mixed ^ (mixed >> 15))
    }

    /// Two numbers of 0 to 1, of a set of their own.
    pub fn two(self, index: u32, set: u32) -> [f32; 2] {
        let [a, b, ..] = sobol_burley::sample_4d(index, set, self.0);
        [a, b]
    }
}
