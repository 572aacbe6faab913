//! The least of a move that clears something: looked for step by step from nothing on, then between two steps.

/// So many steps are tried up to the most, and so many halvings between two of them.
const STEPS: u32 = 10;
const HALVINGS: u32 = 6;

/// The least amount, up to the most, at which it is clear while half of it is not, on a grid of `grain` where that allows
/// it; nothing where no step is clear.
pub(super) fn least(most: f64, grain: f64, clear: impl Fn(f64) -> bool) -> Option<f64> {
    let step = |number: u32| most * f64::from(number) / f64::from(STEPS);
    let found = (1..=STEPS).find(|number| clear(step(*number)))?;
    let mut amount = between(step(found - 1), step(found), &clear);
    // What is clear and then is not and then is again: the least of all is wanted.
    while clear(amount / 2.0) {
        amount = between(0.0, amount / 2.0, &clear);
        if amount < grain / 100.0 {
            return None;
        }
    }
    let whole = (amount / grain - 1e-9).ceil() * grain;
    let fits = |amount: &f64| *amount <= most + 1e-9 && clear(*amount) && !clear(*amount / 2.0);
    Some([whole, whole + grain].into_iter().find(fits).unwrap_or(amount))
}

/// Between an amount that is not clear, or nothing, and one that is: the last that was found clear.
fn between(low: f64, high: f64, clear: &impl Fn(f64) -> bool) -> f64 {
    let (mut low, mut high) = (low, high);
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if clear(middle) { high = middle } else { low = middle }
    }
    high
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn it_is_clear_and_half_of_it_is_not(at in 0.02..1.0_f64) {
            let found = least(1.0, 0.05, |amount| amount >= at).expect("a step");
            prop_assert!(found >= at && found / 2.0 < at);
            prop_assert!(found <= at + 0.11, "{found} {at}");
        }
    }

    #[test]
    fn an_island_nearer_by_is_found_where_half_lies_in_it() {
        let clear = |amount: f64| amount > 0.55 || (0.27..0.29).contains(&amount);
        let found = least(1.0, 0.01, clear).expect("a step");
        assert!(clear(found) && !clear(found / 2.0), "{found}");
        assert_eq!(least(1.0, 0.01, |_| false), None);
    }
}
