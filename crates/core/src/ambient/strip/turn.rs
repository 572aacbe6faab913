//! When the sun's light ends next, or comes back.

use jiff::{SignedDuration, Timestamp};

use super::super::track::when;
use super::super::{SceneLight, Sun, SunTrack, clock, minutes_between, span_label};
use super::{in_the_way, spell_of};

/// From an instant on: when the sun's light ends next, or comes back, and what ends it.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct NextTurn {
    pub at: Timestamp,
    /// What it ends behind or comes out from behind; nothing at a level horizon.
    pub behind: Option<String>,
}

/// The next instant at which something about the sun is no longer as it is at the beginning: within a day, looked for
/// every five minutes and then found to a tenth of a second. Six hours at a time, since most changes come soon.
fn next_change<T: PartialEq>(
    scene: &SceneLight,
    from: Timestamp,
    of: impl Fn(Sun) -> T,
) -> Option<(Timestamp, SunTrack)> {
    let hours = SignedDuration::from_hours(6);
    let mut begin = from;
    let mut at_first = None;
    for _ in 0..4 {
        let end = begin + hours;
        let track = scene.spot.track(begin, end);
        let at_first = at_first.get_or_insert_with(|| of(track.sun(begin)));
        let same = |at: Timestamp| of(track.sun(at)) == *at_first;
        let mut before = begin;
        while before < end {
            let after = before + SignedDuration::from_mins(5);
            if !same(after) {
                return Some((when(before, after, same), track));
            }
            before = after;
        }
        begin = end;
    }
    None
}

/// When the sun that shows ceases to, or the one that does not comes.
pub(crate) fn next_turn(scene: &SceneLight, from: Timestamp) -> Option<NextTurn> {
    let (at, track) = next_change(scene, from, |sun| scene.shows(sun))?;
    Some(NextTurn { at, behind: in_the_way(scene, &track, at) })
}

/// The kind of light at a scene's hour, and when it gives way to the next: `Low sun until 20:26, 1 h 00 min left`.
pub(crate) fn spell_now(scene: &SceneLight) -> String {
    let name = spell_of(scene.spot.sun(scene.at));
    match next_change(scene, scene.at, spell_of) {
        Some((at, _)) => {
            let left = span_label(minutes_between(scene.at, at));
            format!("{name} until {}, {left} left", clock(&scene.zone, at))
        }
        None => format!("{name}, for a day at least"),
    }
}
