//! What a light of the set gives each region along its own line: worked out at a few distances where that is left to
//! Tolva, and read between them.

use std::ops::RangeInclusive;

use crate::setup::LightIndex;
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
    /// Distances, nearest first.
    at: Vec<ReachedAt>,
}

/// The same from one distance.
#[derive(Clone, Debug, PartialEq)]
struct ReachedAt {
    distance_m: f64,
    /// What every region gets.
    given: Vec<Stops>,
    /// What the way does to its colour, in the region it is aimed at.
    shift: Shift,
    /// The part of it that comes back from walls, ceiling, floor or cards, in the region it is aimed at.
    bounced_part: f64,
}

/// Two of the distances that another lies between, and how far.
enum Between<'a> {
    /// At or beyond an end.
    End(Option<&'a ReachedAt>),
    /// Between two.
    Two(&'a ReachedAt, &'a ReachedAt, f64),
}

impl Reached {
    /// Between two distances, which may be the same.
    pub fn between(stage: &Stage, light: LightIndex, own: usize, bounds: &RangeInclusive<Metres>) -> Self {
        let (near, far) = (bounds.start(), bounds.end());
        let steps = if (far.0 - near.0).abs() < 1e-6 { 1 } else { DISTANCES };
        let along = |step: u32| near.0 * (far.0 / near.0).powf(f64::from(step) / f64::from((steps - 1).max(1)));
        let at = (0..steps).map(along).map(|distance_m| {
            let given = stage.to_regions(light, Metres(distance_m));
            let here = given[own];
            let bounced_part = here.bounced / (here.straight + here.bounced).max(1e-12);
            let given = given.iter().map(super::stage::Given::reach).collect();
            ReachedAt { distance_m, given, shift: here.shift, bounced_part }
        });
        Self { at: at.collect() }
    }

    fn around(&self, distance: Metres) -> Between<'_> {
        let after = self.at.partition_point(|at| at.distance_m < distance.0);
        let (Some(low), Some(high)) = (after.checked_sub(1).and_then(|i| self.at.get(i)), self.at.get(after)) else {
            return Between::End(if after == 0 { self.at.first() } else { self.at.last() });
        };
        let part = (distance.0 / low.distance_m).ln() / (high.distance_m / low.distance_m).ln();
        Between::Two(low, high, part)
    }

    /// What the way does to its colour in the region it is aimed at, from so far.
    pub fn shift(&self, distance: Metres) -> Shift {
        match self.around(distance) {
            Between::End(end) => end.map_or_else(Shift::default, |at| at.shift),
            Between::Two(low, high, part) => Shift {
                mired: low.shift.mired + (high.shift.mired - low.shift.mired) * part,
                tint_duv: low.shift.tint_duv + (high.shift.tint_duv - low.shift.tint_duv) * part,
            },
        }
    }

    /// The part of it that comes back from walls, ceiling, floor or cards, in the region it is aimed at, from so far.
    pub fn bounced_part(&self, distance: Metres) -> f64 {
        match self.around(distance) {
            Between::End(end) => end.map_or(0.0, |at| at.bounced_part),
            Between::Two(low, high, part) => low.bounced_part + (high.bounced_part - low.bounced_part) * part,
        }
    }

    /// What a region gets where the light stands so far from its aim.
    pub fn on(&self, region: usize, distance: Metres) -> Stops {
        let (low, high, part) = match self.around(distance) {
            // Beyond its ends the inverse square goes on: a light is never asked for far from there.
            Between::End(end) => {
                let beyond = |at: &ReachedAt| at.given[region] - Stops(2.0 * (distance.0 / at.distance_m).log2());
                return end.map_or(Stops::NOTHING, beyond);
            }
            Between::Two(low, high, part) => (low, high, part),
        };
        let (a, b) = (low.given[region], high.given[region]);
        if !a.0.is_finite() && !b.0.is_finite() {
            return Stops::NOTHING;
        }
        let read = |stops: Stops| stops.0.max(DARK);
        Stops(read(a) + (read(b) - read(a)) * part)
    }

    /// The distance between two at which a region gets so much: by halving. The nearer end gives more.
    pub fn distance_for(&self, region: usize, wanted: Stops, bounds: &RangeInclusive<Metres>) -> Metres {
        let (mut near, mut far) = (bounds.start().0, bounds.end().0);
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
