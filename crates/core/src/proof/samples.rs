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

fn drawn(index: u32, set: u32, scramble: u32) -> [f32; 2] {
    let [a, b, ..] = sobol_burley::sample_4d(index, set, scramble);
    [a, b]
}

/// The points of a pixel.
#[derive(Clone, Copy)]
pub(super) struct Samples(u32);

impl Samples {
    /// Of a pixel; `again` where it is looked at a second time.
    pub fn of(pixel: u32, again: bool) -> Self {
        // Spread over all numbers: neighbours have nothing in common. The odd factor is that of Knuth's multiplicative hash.
        let mixed = (pixel ^ if again { 0x5bd1_e995 } else { 0 }).wrapping_mul(2_654_435_761);
        Self((mixed ^ (mixed >> 15)) % SCRAMBLES)
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
