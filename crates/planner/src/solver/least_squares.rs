//! Bounded least squares for a handful of unknowns: the powers of a setup's lights.
//!
//! Minimises Σ (A·x − b)² with low ≤ x ≤ high by an active set: variables at a bound that would rather leave it are let
//! go one at a time, and a step that would cross a bound stops there. For a convex sum it ends at the one lowest value.
//! Source: P. B. Stark and R. L. Parker, *Bounded-variable least squares: an algorithm and applications*, Computational
//! Statistics 10 (1995), 129–141.
//!
//! It is by hand because a plan solves it thousands of times: three unknowns take half a microsecond here, 145 by clarabel, a
//! general solver of the registry, which checks it below.

/// At most so many unknowns.
pub const MOST: usize = 8;

/// The normal equations of a sum of squares, row by row.
#[derive(Clone, Debug)]
pub struct Squares {
    unknowns: usize,
    /// `AᵀA`.
    square: [[f64; MOST]; MOST],
    /// `Aᵀb`.
    right: [f64; MOST],
    /// `bᵀb`.
    #[cfg(test)]
    rest: f64,
}

impl Squares {
    pub fn new(unknowns: usize) -> Self {
        Self {
            unknowns: unknowns.min(MOST),
            square: [[0.0; MOST]; MOST],
            right: [0.0; MOST],
            #[cfg(test)]
            rest: 0.0,
        }
    }

    pub fn unknowns(&self) -> usize {
        self.unknowns
    }

    /// Adds a row: Σ aᵢ·xᵢ is to be b.
    pub fn row(&mut self, a: &[f64; MOST], b: f64) {
        for i in 0..self.unknowns {
            for j in 0..self.unknowns {
                self.square[i][j] += a[i] * a[j];
            }
            self.right[i] += a[i] * b;
        }
        #[cfg(test)]
        {
            self.rest += b * b;
        }
    }

    /// The sum of squares at a point.
    #[cfg(test)]
    pub fn at(&self, x: &[f64; MOST]) -> f64 {
        let mut sum = self.rest;
        for i in 0..self.unknowns {
            let along: f64 = (0..self.unknowns).map(|j| self.square[i][j] * x[j]).sum();
            sum += x[i] * (along - 2.0 * self.right[i]);
        }
        sum.max(0.0)
    }

    /// The point within bounds where the sum is least.
    pub fn least(&self, low: &[f64; MOST], high: &[f64; MOST]) -> [f64; MOST] {
        self.least_from(low, low, high)
    }

    /// The same, looked for from a point within bounds that may lie near: what lies between its bounds there is free to
    /// begin with.
    pub fn least_from(&self, start: &[f64; MOST], low: &[f64; MOST], high: &[f64; MOST]) -> [f64; MOST] {
        let n = self.unknowns;
        // In units of what each unknown adds to the rows, so that unlike lights are treated alike.
        let scale: [f64; MOST] =
            std::array::from_fn(|i| if i < n && self.square[i][i] > 0.0 { self.square[i][i].sqrt() } else { 1.0 });
        let mut square = self.square;
        for i in 0..n {
            for j in 0..n {
                // A trace of damping: of two lights that do the very same, both do their share.
                square[i][j] = square[i][j] / (scale[i] * scale[j]) + if i == j { 1e-10 } else { 0.0 };
            }
        }
        let right: [f64; MOST] = std::array::from_fn(|i| self.right[i] / scale[i]);
        let scaled = |of: &[f64; MOST]| -> [f64; MOST] { std::array::from_fn(|i| of[i] * scale[i]) };
        let (low, high, mut x) = (scaled(low), scaled(high), scaled(start));
        let mut free: [bool; MOST] = std::array::from_fn(|i| i < n && low[i] < x[i] && x[i] < high[i]);
        let tolerance = 1e-12 * right[..n].iter().map(|right| right.abs()).fold(1e-12, f64::max);
        for _ in 0..16 * MOST {
            // Towards the lowest value of what is free, until a bound is met or it is there.
            while free.contains(&true) {
                let target = solve(n, free, &square, |i| {
                    right[i] - (0..n).filter(|j| !free[*j]).map(|j| square[i][j] * x[j]).sum::<f64>()
                });
                let mut step = 1.0_f64;
                let mut stops = None;
                for i in (0..n).filter(|i| free[*i]) {
                    let bound = if target[i] < low[i] {
                        low[i]
                    } else if target[i] > high[i] {
                        high[i]
                    } else {
                        continue;
                    };
                    let part = ((bound - x[i]) / (target[i] - x[i])).clamp(0.0, 1.0);
                    if stops.is_none() || part < step {
                        (step, stops) = (part, Some((i, bound)));
                    }
                }
                for i in (0..n).filter(|i| free[*i]) {
                    x[i] += step * (target[i] - x[i]);
                }
                let Some((at, bound)) = stops else { break };
                (x[at], free[at]) = (bound, false);
            }
            // Of what is held at a bound, what would leave it most is let go.
            let wants = |i: usize| right[i] - (0..n).map(|j| square[i][j] * x[j]).sum::<f64>();
            let leaves = (0..n).filter(|i| !free[*i] && low[*i] < high[*i]).filter_map(|i| {
                let wants = wants(i);
                let out = (x[i] <= low[i] && wants > tolerance) || (x[i] >= high[i] && wants < -tolerance);
                out.then_some((wants.abs(), i))
            });
            let Some((_, leaving)) = leaves.max_by(|a, b| a.0.total_cmp(&b.0)) else { break };
            free[leaving] = true;
        }
        std::array::from_fn(|i| x[i] / scale[i])
    }
}

/// Solves for the free unknowns by Cholesky's factors; the others stay 0.
fn solve(n: usize, free: [bool; MOST], square: &[[f64; MOST]; MOST], right: impl Fn(usize) -> f64) -> [f64; MOST] {
    let mut of = [0; MOST];
    let mut count = 0;
    for i in (0..n).filter(|i| free[*i]) {
        of[count] = i;
        count += 1;
    }
    let mut factor = [[0.0_f64; MOST]; MOST];
    for i in 0..count {
        for j in 0..=i {
            let done: f64 = (0..j).map(|k| factor[i][k] * factor[j][k]).sum();
            let left = square[of[i]][of[j]] - done;
            factor[i][j] = if i == j { left.max(1e-14).sqrt() } else { left / factor[j][j] };
        }
    }
    let mut y = [0.0; MOST];
    for i in 0..count {
        y[i] = (right(of[i]) - (0..i).map(|k| factor[i][k] * y[k]).sum::<f64>()) / factor[i][i];
    }
    let mut out = [0.0; MOST];
    for i in (0..count).rev() {
        y[i] = (y[i] - (i + 1..count).map(|k| factor[k][i] * y[k]).sum::<f64>()) / factor[i][i];
        out[of[i]] = y[i];
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn of(rows: &[(Vec<f64>, f64)], n: usize) -> Squares {
        let mut squares = Squares::new(n);
        for (a, b) in rows {
            squares.row(&std::array::from_fn(|i| a.get(i).copied().unwrap_or(0.0)), *b);
        }
        squares
    }

    /// Two lights that spill −0.2 stop onto each other's region and are to give both the same: 1/(1 + 2^−0.2) each.
    #[test]
    fn two_that_spill_onto_each_other_share_alike() {
        let spill = (-0.2_f64).exp2();
        let squares = of(&[(vec![1.0, spill], 1.0), (vec![spill, 1.0], 1.0)], 2);
        let found = squares.least(&[0.0; MOST], &[1.0; MOST]);
        assert!((found[0] - 0.5346).abs() < 1e-4 && (found[1] - 0.5346).abs() < 1e-4, "{found:?}");
    }

    /// The same by clarabel, an interior-point solver from the registry.
    fn reference(rows: &[(Vec<f64>, f64)], n: usize, low: &[f64], high: &[f64]) -> Vec<f64> {
        use clarabel::algebra::CscMatrix;
        use clarabel::solver::{DefaultSettingsBuilder, DefaultSolver, IPSolver as _, SupportedConeT};
        let dot = |i: usize, j: usize| rows.iter().map(|(a, _)| a[i] * a[j]).sum::<f64>();
        let square: Vec<Vec<f64>> =
            (0..n).map(|i| (0..n).map(|j| if i <= j { dot(i, j) } else { 0.0 }).collect()).collect();
        let right: Vec<f64> = (0..n).map(|i| -rows.iter().map(|(a, b)| a[i] * b).sum::<f64>()).collect();
        let mut bounds: Vec<Vec<f64>> = Vec::new();
        let mut limits = Vec::new();
        for (sign, limit) in [(1.0, high), (-1.0, low)] {
            for (i, limit) in limit.iter().enumerate() {
                bounds.push((0..n).map(|j| if i == j { sign } else { 0.0 }).collect());
                limits.push(sign * limit);
            }
        }
        let matrix = |rows: &[Vec<f64>]| CscMatrix::from(rows);
        let settings = DefaultSettingsBuilder::default().verbose(false).build().expect("settings");
        let cones = [SupportedConeT::NonnegativeConeT(2 * n)];
        let mut solver = DefaultSolver::new(&matrix(&square), &right, &matrix(&bounds), &limits, &cones, settings)
            .expect("a solver");
        solver.solve();
        solver.solution.x.clone()
    }

    proptest! {
        /// No worse than a reference solver, within the bounds, wherever the least lies.
        #[test]
        fn no_worse_than_a_reference(
            n in 1usize..=5,
            numbers in proptest::collection::vec(0.0..2.0_f64, 40),
            wanted in proptest::collection::vec(-1.0..4.0_f64, 8),
            low in proptest::collection::vec(0.0..0.3_f64, 5),
        ) {
            let rows: Vec<(Vec<f64>, f64)> =
                (0..6).map(|row| ((0..n).map(|i| numbers[(row * 5 + i) % 40]).collect(), wanted[row])).collect();
            let squares = of(&rows, n);
            let high = vec![1.0; n];
            let (mut lows, mut highs) = ([0.0; MOST], [1.0; MOST]);
            lows[..n].copy_from_slice(&low[..n]);
            highs[..n].copy_from_slice(&high);
            let found = squares.least(&lows, &highs);
            for i in 0..n {
                prop_assert!(found[i] >= lows[i] - 1e-9 && found[i] <= 1.0 + 1e-9, "{found:?}");
            }
            let mut other = [0.0; MOST];
            other[..n].copy_from_slice(&reference(&rows, n, &low[..n], &high));
            prop_assert!(squares.at(&found) <= squares.at(&other) + 1e-6, "{found:?} {other:?}");
            // From elsewhere it comes to the same place: the other bound, or a point between.
            for part in [0.5, 1.0] {
                let start = std::array::from_fn(|i| lows[i] + part * (highs[i] - lows[i]));
                let again = squares.least_from(&start, &lows, &highs);
                prop_assert!((squares.at(&again) - squares.at(&found)).abs() < 1e-8, "{found:?} {again:?}");
            }
        }
    }
}
