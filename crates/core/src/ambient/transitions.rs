//! What happens to the sun over a day: it comes and goes at the horizon, behind what stands in the way, and through the
//! twilights.

use jiff::{SignedDuration, Timestamp};

use super::track::when;
use super::{LightPhase, SceneLight, SunTrack};

/// What happens to the sun.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SunEvent {
    /// It comes to 18° under the horizon: the first trace of light.
    AstronomicalDawn,
    /// 12° under.
    NauticalDawn,
    /// 6° under.
    CivilDawn,
    /// Its upper edge is on a level horizon.
    Sunrise,
    /// It comes out from behind what stands in the way.
    ComesOut,
    /// It passes the meridian.
    Transit,
    /// It goes behind what stands in the way.
    GoesBehind,
    /// Its upper edge leaves a level horizon.
    Sunset,
    /// 6° under.
    CivilDusk,
    /// 12° under.
    NauticalDusk,
    /// 18° under.
    AstronomicalDusk,
}

/// A sun transition: what happens, and when.
#[derive(Clone, Debug, PartialEq)]
pub struct SunTransition {
    /// What.
    pub event: SunEvent,
    /// When.
    pub at: Timestamp,
    /// What stands in the way, by its name, which may be empty; nothing where a level horizon or no horizon is meant.
    pub hidden_by: Option<String>,
}

/// A stretch of one phase of light.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PhaseStretch {
    /// The phase.
    pub phase: LightPhase,
    /// From when on.
    pub from: Timestamp,
    /// Until when.
    pub to: Timestamp,
}

/// What happens to the sun between two instants, in order, and the phases of light between them. `steps` are instants in
/// order, near enough to each other that the sun does not come and go between two of them unseen.
pub fn sun_transitions(
    scene: &SceneLight,
    track: &SunTrack,
    (begin, end): (Timestamp, Timestamp),
    steps: &[Timestamp],
) -> (Vec<SunTransition>, Vec<PhaseStretch>) {
    use SunEvent as E;
    let mut found: Vec<SunTransition> = Vec::new();
    let mut bounds: Vec<Timestamp> = vec![begin];
    for (height, phase) in LightPhase::FROM_DEG {
        let (rises, sets) = track.crossings(height);
        bounds.extend(rises.iter().chain(&sets));
        let events = match phase {
            LightPhase::LastTrace => Some((E::AstronomicalDawn, E::AstronomicalDusk)),
            LightPhase::DeepTwilight => Some((E::NauticalDawn, E::NauticalDusk)),
            LightPhase::Twilight => Some((E::CivilDawn, E::CivilDusk)),
            LightPhase::LowSun => Some((E::Sunrise, E::Sunset)),
            LightPhase::SunUp | LightPhase::Night => None,
        };
        if let Some((up, down)) = events {
            let of = |event| move |at| SunTransition { event, at, hidden_by: None };
            found.extend(rises.into_iter().map(of(up)));
            found.extend(sets.into_iter().map(of(down)));
        }
    }
    if let Some(at) = scene.spot.times(begin, end).transit {
        found.push(SunTransition { event: E::Transit, at, hidden_by: None });
    }
    let shows: Vec<bool> = steps.iter().map(|at| scene.shows(track.sun(*at))).collect();
    for (pair, shown) in steps.windows(2).zip(shows.windows(2)) {
        let (&[from, to], &[before, after]) = (pair, shown) else { continue };
        if before == after {
            continue;
        }
        let at = when(from, to, |at| scene.shows(track.sun(at)) == before);
        // A level horizon has its own names; what stands in the way is what is left.
        let Some(name) = in_the_way(scene, track, at) else { continue };
        found.push(SunTransition { event: if after { E::ComesOut } else { E::GoesBehind }, at, hidden_by: Some(name) });
    }
    found.sort_by_key(|transition| transition.at);
    bounds.push(end);
    bounds.sort();
    bounds.dedup();
    let phases = bounds.windows(2).filter_map(|pair| {
        let &[from, to] = pair else { return None };
        let middle = from + (to - from) / 2;
        Some(PhaseStretch { phase: LightPhase::of(track.sun(middle)), from, to })
    });
    (found, phases.collect())
}

/// What the sun comes out from behind or goes behind at an instant, by its name; nothing at a level horizon.
pub(super) fn in_the_way(scene: &SceneLight, track: &SunTrack, at: Timestamp) -> Option<String> {
    let near = [at - SignedDuration::from_secs(2), at, at + SignedDuration::from_secs(2)];
    near.iter().find_map(|at| scene.skyline().at(track.sun(*at).azimuth_deg).map(|(_, name)| name.to_owned()))
}
