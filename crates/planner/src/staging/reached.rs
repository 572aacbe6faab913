//! What a light of the set gives each region along its own line: worked out at a few distances where that is left to
//! Tolva, and read between them.

use tolva_core::colour::Shift;
use tolva_core::scale::{Metres, Stops};

use super::stage::Stage;

/// So many distances are worked out where it is free.
const DISTANCES: u32 = 7;
/// What does not arrive stands so low where it is read between, in stops.
const DARK: f64 = -40.0;

/// What a light gives each region, over its intensity on the axis at 1 m, along its line.
#[derive(Clone, Debug, PartialEq)]
pub struct Reached {
    /// Distances, nearest first, each with what every region gets.
    at: Vec<(f64, Vec<Stops>)>,
    /// What the way does to its colour, in the region it is aimed at.
    pub shift: Shift,
    /// The part of it that comes back from walls, ceiling, floor or cards, in the region it is aimed at.
    pub bounced_part: f64,
}

impl Reached {
    /// Between two distances, which may be the same.
    pub fn between(stage: &Stage, light: usize, own: usize, (near, far): (Metres, Metres)) -> Self {
        let steps = if (far.0 - near.0).abs() < 1e-6 { 1 } else { DISTANCES };
        let along = |step: u32| near.0 * (far.0 / near.0).powf(f64::from(step) / f64::from((steps - 1).max(1)));
        let mut shift = Shift::default();
        let mut bounced_part = 0.0;
        let at = (0..steps).map(along).map(|distance| {
            let given = stage.to_regions(light, Metres(distance));
            let here = given[own];
            (shift, bounced_part) = (here.shift, here.bounced / (here.straight + here.bounced).max(1e-12));
            (distance, given.iter().map(super::stage::Given::reach).collect())
        });
        Self { at: at.collect(), shift, bounced_part }
    }

    /// What a region gets where the light stands so far from its aim.
    pub fn on(&self, region: usize, distance: Metres) -> Stops {
        let after = self.at.partition_point(|(at, _)| *at < distance.0);
        let (Some(low), Some(high)) = (after.checked_sub(1).and_then(|i| self.at.get(i)), self.at.get(after)) else {
            let end = if after == 0 { self.at.first() } else { self.at.last() };
            // Beyond its ends the inverse square goes on: a light is never asked for far from there.
            return end.map_or(Stops::NOTHING, |(at, given)| given[region] - Stops(2.0 * (distance.0 / at).log2()));
        };
        let part = (distance.0 / low.0).ln() / (high.0 / low.0).ln();
        let (a, b) = (low.1[region], high.1[region]);
        if !a.0.is_finite() && !b.0.is_finite() {
            return Stops::NOTHING;
        }
        let read = |stops: Stops| stops.0.max(DARK);
        Stops(read(a) + (read(b) - read(a)) * part)
    }

    /// The distance between two at which a region gets so much: by halving. The nearer end gives more.
    pub fn distance_for(&self, region: usize, wanted: Stops, (near, far): (Metres, Metres)) -> Metres {
        let (mut near, mut far) = (near.0, far.0);
        for _ in 0..48 {
            let middle = (near * far).sqrt();
            if self.on(region, Metres(middle)) > wanted {
                near = middle;
            } else {
                far = middle;
            }
        }
        Metres((near * far).sqrt())
    }
}
