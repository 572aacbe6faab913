//! The gel that brings one light to another, from those there are.

use super::illuminant::{Illuminant, Shift};

/// At most so many over one light: each takes some of it.
const MOST: usize = 3;
/// A gel is worth its light only where it brings this much, in mired (chosen).
const WORTH_MIRED: f64 = 8.0;
/// So many mired weigh as much as a Duv of 0.01 (chosen: both are just plain to see).
const MIRED_A_DUV: f64 = 2500.0;
/// A stop of light lost weighs as much as so many mired left over (chosen).
const MIRED_A_STOP: f64 = 4.0;

/// Gels that were found.
#[derive(Clone, Debug, PartialEq)]
pub struct GelMatch {
    /// Which of those offered, by their place; each once.
    pub gels: Vec<usize>,
    /// The light through them.
    pub light: Illuminant,
    /// How much warmer than wanted it still is, in mired.
    pub left_mired: f64,
    /// How much greener than wanted it still is, in Duv.
    pub left_tint_duv: f64,
}

/// A gel that can be taken.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct OfferedGel {
    /// How it shifts the light.
    pub shift: Shift,
    /// The light it takes, in stops.
    pub loss_stops: f64,
}

/// The gels, three at most, that bring a light nearest to another; none where none brings anything.
///
/// ```
/// use tolva_core::colour::{Kelvin, Illuminant, OfferedGel, Shift, nearest_gels};
/// let offered = [109.0, 159.0].map(|mired| OfferedGel { shift: Shift { mired, tint_duv: 0.0 }, loss_stops: 0.7 });
/// let found = nearest_gels(Illuminant::new(Kelvin(5600.0), 0.0), Illuminant::new(Kelvin(2900.0), 0.0), &offered);
/// assert_eq!(found.gels, [1]);
/// assert!((found.left_mired - -7.3).abs() < 0.1);
/// ```
pub fn nearest_gels(from: Illuminant, to: Illuminant, offered: &[OfferedGel]) -> GelMatch {
    let left = |gels: &[usize]| {
        let shift: Shift = gels.iter().map(|gel| offered[*gel].shift).sum();
        let mired = (from.mired().0 + shift.mired).max(1.0);
        (mired - to.mired().0, from.tint_duv() + shift.tint_duv - to.tint_duv())
    };
    // Each gel costs its light, and what it must bring to be worth its place: so the best does not depend on the order
    // in which gels are offered.
    let weight = |gels: &[usize]| {
        let (mired, tint_duv) = left(gels);
        let lost: f64 = gels.iter().map(|gel| offered[*gel].loss_stops * MIRED_A_STOP + WORTH_MIRED).sum();
        mired.hypot(tint_duv * MIRED_A_DUV) + lost
    };
    let mut best = (weight(&[]), Vec::new());
    let mut sets: Vec<Vec<usize>> = vec![Vec::new()];
    for _ in 0..MOST.min(offered.len()) {
        let longer = sets.iter().flat_map(|set| {
            let next = set.last().map_or(0, |last| last + 1);
            (next..offered.len()).map(|gel| [set.as_slice(), &[gel]].concat())
        });
        sets = longer.collect();
        for set in &sets {
            let found = weight(set);
            if found < best.0 - 1e-9 {
                best = (found, set.clone());
            }
        }
    }
    let (left_mired, left_tint_duv) = left(&best.1);
    let light = from.shifted(best.1.iter().map(|gel| offered[*gel].shift).sum());
    GelMatch { gels: best.1, light, left_mired, left_tint_duv }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::colour::Kelvin;
    use proptest::prelude::*;

    fn light(kelvin: f64, tint: f64) -> Illuminant {
        Illuminant::new(Kelvin(kelvin), tint)
    }

    fn owned() -> Vec<OfferedGel> {
        [(26.0, 0.0, 0.2), (64.0, 0.0, 0.3), (109.0, 0.0, 0.5), (159.0, 0.0, 0.9), (-78.0, 0.0, 0.9), (0.0, 0.012, 0.4)]
            .map(|(mired, tint_duv, loss_stops)| OfferedGel { shift: Shift { mired, tint_duv }, loss_stops })
            .into()
    }

    #[test]
    fn two_are_stacked_where_one_is_not_enough() {
        // 5600 to 2500 K is 221 mired: a full and a quarter.
        assert_eq!(nearest_gels(light(5600.0, 0.0), light(2500.0, 0.0), &owned()).gels, [1, 3]);
    }

    #[test]
    fn green_tubes_ask_for_green() {
        let found = nearest_gels(light(5600.0, 0.0), light(4000.0, 0.010), &owned());
        assert!(found.gels.contains(&5), "{found:?}");
        assert!(found.left_tint_duv.abs() < 0.003 && found.left_mired.abs() < 20.0, "{found:?}");
    }

    /// 5600 to 2900 K is 166 mired: of 159 and 166, the nearer, whichever is offered first.
    #[test]
    fn the_nearer_of_two_whatever_their_order() {
        let offered =
            |mired: [f64; 2]| mired.map(|mired| OfferedGel { shift: Shift { mired, tint_duv: 0.0 }, loss_stops: 0.7 });
        let found = |mired| nearest_gels(light(5600.0, 0.0), light(2900.0, 0.0), &offered(mired)).gels;
        assert_eq!((found([159.0, 166.0]), found([166.0, 159.0])), (vec![1], vec![0]));
    }

    #[test]
    fn nothing_where_it_fits() {
        assert!(nearest_gels(light(5600.0, 0.0), light(5400.0, 0.0), &owned()).gels.is_empty());
        assert!(nearest_gels(light(5600.0, 0.0), light(2500.0, 0.0), &[]).gels.is_empty());
    }

    proptest! {
        /// The same gels in any order: the same are chosen, but for such as are alike.
        #[test]
        fn in_any_order(
            from in 2800.0..6500.0_f64, to in 2000.0..9000.0_f64,
            order in Just((0..6).collect::<Vec<usize>>()).prop_shuffle(),
        ) {
            let all = owned();
            let shuffled: Vec<_> = order.iter().map(|at| all[*at]).collect();
            let shifts = |found: &GelMatch, of: &[OfferedGel]| {
                let mut shifts: Vec<f64> = found.gels.iter().map(|gel| of[*gel].shift.mired).collect();
                shifts.sort_by(f64::total_cmp);
                shifts
            };
            let one = nearest_gels(light(from, 0.0), light(to, 0.0), &all);
            let other = nearest_gels(light(from, 0.0), light(to, 0.0), &shuffled);
            prop_assert_eq!(shifts(&one, &all), shifts(&other, &shuffled));
        }

        /// What was chosen is never worse than no gel at all.
        #[test]
        fn never_worse(from in 2800.0..6500.0_f64, to in 2000.0..9000.0_f64, tint in -0.01..0.015_f64) {
            let found = nearest_gels(light(from, 0.0), light(to, tint), &owned());
            let off = |mired: f64, duv: f64| mired.hypot(duv * MIRED_A_DUV);
            let bare = light(from, 0.0).mired().0 - light(to, 0.0).mired().0;
            prop_assert!(off(found.left_mired, found.left_tint_duv) <= off(bare, tint) + 1e-9);
        }
    }
}
