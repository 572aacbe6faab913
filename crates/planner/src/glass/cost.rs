//! What a move costs: light, direction, softness, perspective.

use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Direction, signed_deg};

use super::moves::Move;
use super::showing::Shown;
use super::tries::Tries;
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::set::LightDistances;
use crate::setup::{LightIndex, Setup};
use crate::solver::Outcome;
use crate::staging::{Stage, aimed_at};

/// What a move costs.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Cost {
    /// What the light must give more, by power, aperture or ISO: the one that is moved, or that shows.
    pub power: Stops,
    /// How far the light comes from another side: round and up, in degrees.
    pub direction_deg: f64,
    /// The angle it fills from the subject, in degrees: before and after.
    pub softness_deg: (f64, f64),
    /// The camera's distance over what it was.
    pub perspective: f64,
    /// What is missing after it that was not before, in stops.
    pub short: Stops,
}

impl Tries<'_> {
    /// What moves cost as they come out in a plan.
    pub(super) fn cost(
        &self,
        moves: &[Move],
        what: &Shown,
        setup: &Setup,
        (prepared, plan): (&Prepared<'_>, &Plan),
        (stage, away): (&Stage, &LightDistances),
    ) -> Cost {
        let power = |prepared: &Prepared<'_>, outcome: &Outcome, light: LightIndex| {
            let at = prepared.flash_of(light)?;
            // A plan may open the aperture instead of asking more of the flash: what the light lost is both.
            let settings = outcome.settings;
            outcome.lights[at].map(|at| at.exact.0 - settings.aperture.position() + settings.iso.position())
        };
        let more = light_of(moves, what, setup).and_then(|light| {
            Some(power(prepared, &plan.outcome, light)? - power(self.prepared, self.outcome, light)?)
        });
        Cost {
            power: more.unwrap_or(Stops::ZERO),
            short: Stops((plan.missing() - self.missing).max(0.0)),
            ..self.geometric(moves, what, setup, (stage, away))
        }
    }

    /// What can be told of it without a plan: the power by what the light reaches straight.
    pub(super) fn geometric(
        &self,
        moves: &[Move],
        what: &Shown,
        setup: &Setup,
        (stage, away): (&Stage, &LightDistances),
    ) -> Cost {
        let from = |stage: &Stage, setup: &Setup, away: &LightDistances, light: LightIndex| {
            let receptor = stage.receptors[aimed_at(setup, &setup.lights[light])];
            let glow = stage.glow(light, Metres(away[light]));
            (Direction::of(glow.centre - receptor.at), glow.angle_deg(receptor.at), stage.roughly(&glow, &receptor))
        };
        let perspective = setup.camera_distance_m / self.pinned.camera_distance_m;
        let Some(light) = light_of(moves, what, setup) else {
            return Cost {
                power: Stops::ZERO,
                direction_deg: 0.0,
                softness_deg: (0.0, 0.0),
                perspective,
                short: Stops::ZERO,
            };
        };
        let (was, wide, gave) = from(&self.stage, &self.pinned, &self.away, light);
        let (is, now, gives) = from(stage, setup, away, light);
        let round = signed_deg(is.azimuth_deg - was.azimuth_deg).abs();
        let power = if gave > 0.0 && gives > 0.0 { Stops((gave / gives).log2()) } else { Stops::ZERO };
        let direction_deg = round.max((is.elevation_deg - was.elevation_deg).abs());
        Cost { power, direction_deg, softness_deg: (wide, now), perspective, short: Stops::ZERO }
    }
}

/// Which light a cost is told of: the one that is moved, or that shows, or the first.
fn light_of(moves: &[Move], what: &Shown, setup: &Setup) -> Option<LightIndex> {
    let moved = moves.iter().find_map(Move::light_id);
    let moved = moved.and_then(|id| setup.light_called(id));
    let light = moved.or(if let Shown::Light(light) = what { Some(*light) } else { None });
    light.or(Some(LightIndex(0))).filter(|light| light.0 < setup.lights.len())
}

/// How dear a move is: stops of power, another side, another softness, another perspective; chosen.
pub(super) fn dear(cost: &Cost, moves: &[Move]) -> f64 {
    let (was, is) = cost.softness_deg;
    let softness = if was > 0.1 && is > 0.1 { (is / was).log2().abs() } else { 0.0 };
    let kind: f64 = moves
        .iter()
        .map(|one| match one {
            Move::Feather { .. } | Move::Raise { .. } | Move::TiltSpectacles { .. } => 0.1,
            Move::Round { .. } | Move::Nearer { .. } | Move::TurnPane { .. } => 0.2,
            Move::CameraHeight { by_m } => 0.4 + by_m.abs(),
            Move::CameraTurn { by_deg } => 0.5 + by_deg.abs() / 10.0,
            Move::CameraRound { by_deg } | Move::TurnHead { by_deg, .. } => 0.5 + by_deg.abs() / 20.0,
            Move::LongerLens { .. } => 0.6,
            Move::StandBefore { .. } | Move::Bounce { .. } => 1.2,
            Move::RaiseAmbient { stops } => 0.8 + stops,
            Move::LowerPower { by_stops, .. } => 0.8 + by_stops,
        })
        .sum();
    kind + cost.power.0.max(0.0)
        + cost.direction_deg / 20.0
        + softness
        + 2.0 * cost.perspective.max(1e-3).log2().abs()
        + 3.0 * cost.short.0
}
