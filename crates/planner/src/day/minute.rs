//! Minutes of a job's day.

use jiff::Timestamp;
use tolva_core::time::minutes_between;

/// A minute of a job's day, counted from the midnight the day begins with: 1500 is an hour after the next midnight. It is not
/// what clocks show: on a day on which clocks change the two differ.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct DayMinute(pub u32);

impl DayMinute {
    /// The whole minute nearest an instant, of a day that begins at another.
    pub fn of(begin: Timestamp, at: Timestamp) -> Self {
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "minutes of a day or two")]
        Self(minutes_between(begin, at).round().max(0.0) as u32)
    }

    /// The instant it is, of a day that begins at one.
    pub fn after(self, begin: Timestamp) -> Timestamp {
        begin + super::after(f64::from(self.0))
    }

    /// So many minutes later.
    #[must_use]
    pub fn later(self, minutes: u32) -> Self {
        Self(self.0.saturating_add(minutes))
    }

    /// So many minutes earlier, the day's begin at the earliest.
    #[must_use]
    pub fn earlier(self, minutes: u32) -> Self {
        Self(self.0.saturating_sub(minutes))
    }

    /// How many minutes after another; 0 where it is not after it.
    pub fn since(self, other: Self) -> u32 {
        self.0.saturating_sub(other.0)
    }

    /// The minute in the middle between two.
    #[must_use]
    pub fn between(self, other: Self) -> Self {
        Self(self.0.midpoint(other.0))
    }
}

/// From one minute of a day to another. The last is not part of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Stretch {
    /// Its first minute.
    pub from: DayMinute,
    /// The minute after its last.
    pub to: DayMinute,
}

impl Stretch {
    /// Whether a minute is part of it.
    pub fn holds(&self, minute: DayMinute) -> bool {
        (self.from..self.to).contains(&minute)
    }

    /// Stretches in order, those that touch made one.
    pub fn joined(stretches: impl IntoIterator<Item = Self>) -> Vec<Self> {
        let mut all: Vec<Self> = stretches.into_iter().collect();
        all.sort_unstable();
        let mut joined: Vec<Self> = Vec::new();
        for one in all {
            match joined.last_mut() {
                Some(last) if one.from <= last.to => last.to = last.to.max(one.to),
                _ => joined.push(one),
            }
        }
        joined
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn stretches_that_touch_are_one() {
        let of = |from, to| Stretch { from: DayMinute(from), to: DayMinute(to) };
        assert_eq!(Stretch::joined([of(30, 40), of(0, 10), of(10, 20), of(15, 18)]), [of(0, 20), of(30, 40)]);
        assert!(of(5, 9).holds(DayMinute(5)) && !of(5, 9).holds(DayMinute(9)));
    }

    /// Nothing is before the midnight a day begins with.
    #[test]
    fn a_day_has_a_begin() {
        assert_eq!(DayMinute(10).earlier(20), DayMinute(0));
        assert_eq!((DayMinute(10).since(DayMinute(20)), DayMinute(25).since(DayMinute(20))), (0, 5));
        assert_eq!(DayMinute(u32::MAX).later(1), DayMinute(u32::MAX));
    }
}
