//! When the sun's light ends next, or comes back.

use jiff::{SignedDuration, Timestamp};

use super::super::track::when;
use super::super::{SceneLight, clock, minutes_between, span_label};
use super::{in_the_way, spell_of};

/// From an instant on: when the sun's light ends next, or comes back, and what ends it.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct NextTurn {
    pub at: Timestamp,
    /// What it ends behind or comes out from behind; nothing at a level horizon.
    pub behind: Option<String>,
}

/// When the sun that shows ceases to, or the one that does not comes: within a day, looked for every five minutes and
/// then found to a tenth of a second.
pub(crate) fn next_turn(scene: &SceneLight, from: Timestamp) -> Option<NextTurn> {
    // Six hours at a time: most turns come soon.
    let hours = SignedDuration::from_hours(6);
    let mut begin = from;
    let mut showed = None;
    for _ in 0..4 {
        let end = begin + hours;
        let track = scene.spot.track(begin, end);
        let shows = |at: Timestamp| scene.shows(track.sun(at));
        let showed = *showed.get_or_insert_with(|| shows(begin));
        let mut before = begin;
        while before < end {
            let after = before + SignedDuration::from_mins(5);
            if shows(after) != showed {
                let at = when(before, after, |at| shows(at) == showed);
                return Some(NextTurn { at, behind: in_the_way(scene, &track, at) });
            }
            before = after;
        }
        begin = end;
    }
    None
}

/// The kind of light at a scene's hour, and when it gives way to the next: `Low sun until 20:26, 1 h 00 min left`.
pub(crate) fn spell_now(scene: &SceneLight) -> String {
    let (from, hours) = (scene.at, SignedDuration::from_hours(6));
    let name = spell_of(scene.spot.sun(from));
    let mut begin = from;
    for _ in 0..4 {
        let track = scene.spot.track(begin, begin + hours);
        let same = |at: Timestamp| spell_of(track.sun(at)) == name;
        let mut before = begin;
        while before < begin + hours {
            let after = before + SignedDuration::from_mins(5);
            if !same(after) {
                let at = when(before, after, same);
                let left = span_label(minutes_between(from, at));
                return format!("{name} until {}, {left} left", clock(&scene.zone, at));
            }
            before = after;
        }
        begin += hours;
    }
    format!("{name}, for a day at least")
}
