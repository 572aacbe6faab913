//! The dimmers of continuous lights. They are ambient to the shutter, and a flash's power to the blend: a lift asks for so
//! much on the face against the background, whatever the camera is set to, so they are solved before it.

use tolva_core::exposure::Ev;
use tolva_core::scale::{Power, Stops};

use super::Prepared;
use crate::setup::{Blend, LightWish};

/// Iterations of the powers against each other: lights spill onto each other's regions and onto the one the camera is set for.
/// Spill is less than a light gives its own region, so they converge.
const ROUNDS: u32 = 24;

impl Prepared<'_> {
    /// The same setup under other light: one EV a region, without continuous lights, which are dimmed anew.
    pub fn under(&mut self, there: &[Ev]) {
        self.there.clear();
        self.there.extend_from_slice(there);
        for lamp in 0..self.lamps.len() {
            if self.is_solved(lamp) {
                self.lamps[lamp].power = Some(Power(Stops::ZERO));
            }
        }
        self.shine();
        self.dim();
    }

    /// What the continuous lights give at their powers, and what there is with them.
    fn shine(&mut self) {
        for (region, light) in self.light.iter_mut().enumerate() {
            light.lamps = self.lamps.iter().fold(Stops::NOTHING, |sum, lamp| sum.and(lamp.gives(region)));
            self.ambient[region] = Ev(Stops(self.there[region].0).and(light.lamps).0);
        }
    }

    /// Dims the continuous lights whose power is free to what the blend, or their own role, asks of them. Lights that are
    /// aimed at one region are dimmed alike. Where a flash is aimed at the same region, they stay at full power and are
    /// ambient to it.
    pub(super) fn dim(&mut self) {
        let free: Vec<usize> = (0..self.lamps.len()).filter(|lamp| self.is_solved(*lamp)).collect();
        if free.is_empty() {
            return;
        }
        let placed = self.setup.blend.placed(self);
        // What there is without the lights that are dimmed, in linear light.
        let fixed: Vec<f64> = (0..self.there.len())
            .map(|region| {
                let others = (0..self.lamps.len()).filter(|lamp| !free.contains(lamp));
                let others: f64 = others.map(|lamp| self.lamps[lamp].gives(region).ratio()).sum();
                Stops(self.there[region].0).ratio() + others
            })
            .collect();
        let mut regions: Vec<usize> = free.iter().map(|lamp| self.lamps[*lamp].aimed_at).collect();
        regions.sort_unstable();
        regions.dedup();
        let mut powers = vec![0.0_f64; self.lamps.len()];
        for _ in 0..ROUNDS {
            let given = |powers: &[f64], region: usize, but: Option<usize>| -> f64 {
                let lamps = free.iter().filter(|lamp| Some(self.lamps[**lamp].aimed_at) != but);
                lamps.map(|lamp| self.lamps[*lamp].full[region].ratio() * powers[*lamp]).sum()
            };
            for region in &regions {
                let of_region: Vec<usize> =
                    free.iter().copied().filter(|lamp| self.lamps[*lamp].aimed_at == *region).collect();
                let target = of_region.iter().find_map(|lamp| self.lamp_target(self.lamps[*lamp].light.wish, *region));
                let Some(target) = target else { continue };
                // In linear light, what mid grey is where the camera is set for the region it is set for.
                let grey = (fixed[placed.region] + given(&powers, placed.region, None)) / placed.place.ratio();
                let left = target.ratio() * grey - fixed[*region] - given(&powers, *region, Some(*region));
                let full: f64 = of_region.iter().map(|lamp| self.lamps[*lamp].full[*region].ratio()).sum();
                let power = if full > 0.0 { (left / full).clamp(0.0, 1.0) } else { 1.0 };
                for lamp in of_region {
                    powers[lamp] = power;
                }
            }
        }
        for lamp in free {
            let exact = Power(Stops::of_ratio(powers[lamp]));
            self.lamps[lamp].power = if powers[lamp] > 0.0 { self.lamps[lamp].on_dial(exact) } else { None };
        }
        self.shine();
    }

    /// Whether a continuous light's dimmer is solved: it is not locked, its region has a target against the one the camera is
    /// set for, and no flash lights that region.
    fn is_solved(&self, lamp: usize) -> bool {
        let lamp = &self.lamps[lamp];
        let flash = self.lights.iter().any(|light| light.aimed_at == lamp.aimed_at && self.fires(light));
        lamp.light.power_stops.is_none() && !flash && self.lamp_target(lamp.light.wish, lamp.aimed_at).is_some()
    }

    /// Where a continuous light of a role is to bring a region, in stops from mid grey; nothing where the camera is set for
    /// that region itself, so that its power changes nothing there, or where the blend asks nothing of it.
    fn lamp_target(&self, role: LightWish, region: usize) -> Option<Stops> {
        let placed = self.setup.blend.placed(self);
        if region == placed.region {
            return None;
        }
        let subject = match self.setup.blend {
            Blend::Lift { .. } => self.setup.blend.region_wish(self, self.lit),
            Blend::Silhouette { .. } => None,
            _ => Some(placed.place),
        };
        match role {
            LightWish::Key => subject,
            LightWish::Fill { ratio_stops } => subject.map(|subject| subject - Stops(ratio_stops)),
            LightWish::Rim { over_stops } => Some(subject.unwrap_or(Stops::ZERO) + Stops(over_stops)),
            LightWish::Place { stops } => Some(Stops(stops)),
        }
    }
}
