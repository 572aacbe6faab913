//! When the sun's light ends next, or comes back.

use jiff::{SignedDuration, Timestamp};

use super::track::when;
use super::transitions::in_the_way;
use super::{LightNow, LightPhase, SceneLight, Sun, SunTrack};

/// From an instant on: when the sun's light ends next, or comes back, and what ends it.
#[derive(Clone, Debug, PartialEq)]
pub struct NextTransition {
    /// When.
    pub at: Timestamp,
    /// What it ends behind or comes out from behind, by its name, which may be empty; nothing at a level horizon.
    pub hidden_by: Option<String>,
}

const DAY: SignedDuration = SignedDuration::from_hours(24);

/// The sun's way over a scene for a day from an instant on.
pub struct Ahead<'a> {
    /// The scene.
    pub scene: &'a SceneLight,
    from: Timestamp,
    track: SunTrack,
}

impl<'a> Ahead<'a> {
    /// From an instant on.
    pub fn of(scene: &'a SceneLight, from: Timestamp) -> Self {
        Self { scene, from, track: scene.spot.track(from, from + DAY) }
    }

    /// The light at an instant of that day.
    pub fn light_at(&self, at: Timestamp) -> LightNow {
        self.scene.under(self.track.sun(at), at)
    }

    /// The next instant at which something about the sun is no longer as it is at the beginning: within a day, looked
    /// for every five minutes and then found to a tenth of a second.
    fn next_change<T: PartialEq>(&self, of: impl Fn(Sun) -> T) -> Option<Timestamp> {
        let at_first = of(self.track.sun(self.from));
        let same = |at: Timestamp| of(self.track.sun(at)) == at_first;
        let mut before = self.from;
        while before < self.from + DAY {
            let after = before + SignedDuration::from_mins(5);
            if !same(after) {
                return Some(when(before, after, same));
            }
            before = after;
        }
        None
    }

    /// When the sun that shows ceases to, or the one that does not comes.
    pub fn next_turn(&self) -> Option<NextTransition> {
        let at = self.next_change(|sun| self.scene.shows(sun))?;
        Some(NextTransition { at, hidden_by: in_the_way(self.scene, &self.track, at) })
    }

    /// The phase of light there is, and when it gives way to the next; nothing where it lasts for a day at least.
    pub fn phase(&self) -> (LightPhase, Option<Timestamp>) {
        (LightPhase::of(self.track.sun(self.from)), self.next_change(LightPhase::of))
    }
}
