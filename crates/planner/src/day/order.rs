//! The order of a day: which setup comes when, so that each is shot in its light.
//!
//! Minutes are whole and counted from where the day begins. Whoever is there earlier can wait, so of two ways to have done
//! the same setups and to stand at the same last one, the earlier is never worse: the best order of all follows from the
//! best of each part (Held and Karp 1962, the dynamic programme for sequencing with time windows).

use super::minute::{DayMinute, Stretch};

/// So many setups are put into the best order there is. Beyond it a good one is found, and said to be no more than that.
pub const EXACT: usize = 12;
/// Up to so many, each change by itself that makes a day fit is looked for.
pub const CHANGES: usize = 10;

/// What one setup asks of the day.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Stop {
    /// Minutes to build it; that needs no light.
    pub build: u32,
    /// Minutes to shoot it; they lie within one window.
    pub shoot: u32,
    /// From which minute to which its wish can be had, in order and apart.
    pub windows: Vec<Stretch>,
    /// Before this minute not everybody is there who is in it.
    pub ready: DayMinute,
    /// Its shooting begins at this minute, whatever the light: somebody has said so.
    pub pinned: Option<DayMinute>,
}

/// A day that is to be put into an order.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Day {
    /// What is to be shot.
    pub stops: Vec<Stop>,
    /// Minutes from where one setup stands to another, by their places in the list.
    pub ways: Vec<Vec<u32>>,
    /// Nothing begins before this minute.
    pub begin: DayMinute,
    /// Everything is done by this one.
    pub end: DayMinute,
}

/// When one setup is built and shot.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Slot {
    /// Which, by its place in the list.
    pub stop: usize,
    /// When the way there begins; where its building does for the first.
    pub leaves: DayMinute,
    /// When its building begins.
    pub builds: DayMinute,
    /// When its shooting begins. Between the two, all that is not building is waiting.
    pub shoots: DayMinute,
    /// When it is done.
    pub done: DayMinute,
}

/// A single change that makes everything fit.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Change {
    /// The day begins so many minutes earlier.
    BeginEarlier(u32),
    /// The day ends so many minutes later.
    EndLater(u32),
    /// A setup takes so many minutes less to build and shoot.
    Quicker(usize, u32),
    /// A setup is shot up to so many minutes outside its light.
    OutsideItsLight(usize, u32),
}

impl Change {
    /// By how many minutes.
    pub fn minutes(self) -> u32 {
        match self {
            Self::BeginEarlier(by) | Self::EndLater(by) | Self::Quicker(_, by) | Self::OutsideItsLight(_, by) => by,
        }
    }
}

/// A day in its order.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Ordered {
    /// What is shot, in order.
    pub slots: Vec<Slot>,
    /// What does not fit beside it. As few as can be.
    pub left_out: Vec<usize>,
    /// What by itself would make everything fit, the least first. Empty where all fits, and where no single change is enough.
    pub changes: Vec<Change>,
    /// Whether no better order exists; otherwise it is a good one.
    pub proved: bool,
}

impl Stop {
    /// When its shooting begins where it cannot before a minute; nothing where it is too late.
    fn shoots(&self, from: DayMinute) -> Option<DayMinute> {
        if let Some(at) = self.pinned {
            return (from <= at).then_some(at);
        }
        let from = from.max(self.ready);
        self.windows.iter().find_map(|window| {
            let at = from.max(window.from);
            (at.later(self.shoot) <= window.to).then_some(at)
        })
    }
}

impl Day {
    fn way(&self, from: Option<usize>, to: usize) -> u32 {
        from.and_then(|from| self.ways.get(from)?.get(to)).copied().unwrap_or(0)
    }

    /// When a setup is built and shot, after another that is done at a minute.
    fn slot(&self, after: Option<usize>, done: DayMinute, stop: usize) -> Option<Slot> {
        let it = &self.stops[stop];
        let builds = done.later(self.way(after, stop));
        let shoots = it.shoots(builds.later(it.build))?;
        let done_then = shoots.later(it.shoot);
        (done_then <= self.end).then_some(Slot { stop, leaves: done, builds, shoots, done: done_then })
    }

    /// An order as it goes, each as early as it can; nothing where one is too late.
    pub fn in_order(&self, order: &[usize]) -> Option<Vec<Slot>> {
        let (mut after, mut done) = (None, self.begin);
        order
            .iter()
            .map(|stop| {
                let slot = self.slot(after, done, *stop)?;
                (after, done) = (Some(*stop), slot.done);
                Some(slot)
            })
            .collect()
    }

    /// When all of a part of the setups can be done at the earliest, for each part and each that is last in it.
    fn table(&self) -> Table {
        let count = self.stops.len();
        let mut done = vec![LATE; (1 << count) * count];
        for stop in 0..count {
            if let Some(slot) = self.slot(None, self.begin, stop) {
                done[(1 << stop) * count + stop] = slot.done;
            }
        }
        for part in 1usize..1 << count {
            for last in 0..count {
                let at = done[part * count + last];
                if at == LATE {
                    continue;
                }
                for next in (0..count).filter(|next| part & (1 << next) == 0) {
                    if let Some(slot) = self.slot(Some(last), at, next) {
                        let to = (part | 1 << next) * count + next;
                        done[to] = done[to].min(slot.done);
                    }
                }
            }
        }
        Table { count, done }
    }

    /// When everything can be done at the earliest, if it can.
    fn earliest(&self) -> Option<DayMinute> {
        let table = self.table();
        table.earliest((1 << self.stops.len()) - 1).map(|(_, done)| done)
    }

    fn begun_at(&self, begin: DayMinute) -> Self {
        Self { begin, ..self.clone() }
    }

    fn with(&self, change: Change) -> Self {
        let mut day = self.clone();
        match change {
            Change::BeginEarlier(by) => day.begin = day.begin.earlier(by),
            Change::EndLater(by) => day.end = day.end.later(by),
            Change::Quicker(stop, by) => {
                let it = &mut day.stops[stop];
                (it.build, it.shoot) = quicker(it.build, it.shoot, by);
            }
            Change::OutsideItsLight(stop, by) => {
                let wider = |one: &Stretch| Stretch { from: one.from.earlier(by), to: one.to.later(by) };
                day.stops[stop].windows = Stretch::joined(day.stops[stop].windows.iter().map(wider));
            }
        }
        day
    }

    /// When a setup is shot once a change is made; nothing where it does not fit even then.
    pub fn shot_at(&self, change: Change, stop: usize) -> Option<DayMinute> {
        let ordered = self.with(change).ordered();
        ordered.slots.iter().find(|slot| slot.stop == stop).map(|slot| slot.shoots)
    }

    /// The least of a change that makes everything fit, where so much of it can.
    fn least(&self, most: u32, of: impl Fn(u32) -> Change) -> Option<Change> {
        let fits = |by: u32| self.with(of(by)).earliest().is_some();
        if most == 0 || !fits(most) {
            return None;
        }
        let (mut short, mut enough) = (0, most);
        while enough - short > 1 {
            let between = short + (enough - short) / 2;
            if fits(between) { enough = between } else { short = between }
        }
        Some(of(enough))
    }

    /// Each single change that makes everything fit, the least first.
    fn changes(&self) -> Vec<Change> {
        let last = self.stops.iter().flat_map(|stop| &stop.windows).map(|window| window.to).max();
        let latest = last.unwrap_or(self.end).max(self.end).later(A_DAY);
        let mut found: Vec<Change> =
            [self.least(self.begin.0, Change::BeginEarlier), self.least(latest.since(self.end), Change::EndLater)]
                .into_iter()
                .flatten()
                .collect();
        for (stop, it) in self.stops.iter().enumerate() {
            // Something of it is left.
            let spare = it.build + it.shoot.saturating_sub(1);
            found.extend(self.least(spare, |by| Change::Quicker(stop, by)));
            if !it.windows.is_empty() {
                found.extend(self.least(A_DAY, |by| Change::OutsideItsLight(stop, by)));
            }
        }
        found.sort_by_key(|change| change.minutes());
        found
    }

    /// The day in its best order: everything if it fits, otherwise as many as fit; done as early as can be, and begun as late
    /// as that allows, so that nobody waits for nothing.
    pub fn ordered(&self) -> Ordered {
        let count = self.stops.len();
        if count == 0 {
            return Ordered { proved: true, ..Ordered::default() };
        }
        if count > EXACT {
            return self.nearly();
        }
        let table = self.table();
        // Where nothing fits, the part that does is empty.
        let (part, done) = table.most().unwrap_or((0, self.begin));
        let order = table.order(part, self);
        let day = self.begun_late(&order, done);
        let left_out: Vec<usize> = (0..count).filter(|stop| part & (1 << stop) == 0).collect();
        let changes = if left_out.is_empty() || count > CHANGES { Vec::new() } else { self.changes() };
        Ordered { slots: day.in_order(&order).unwrap_or_default(), left_out, changes, proved: true }
    }

    /// The same day begun as late as leaves its end where it is, so that nobody waits for nothing. Where there is light to
    /// spare, [`TO_SPARE`] minutes of it are left.
    fn begun_late(&self, order: &[usize], done: DayMinute) -> Self {
        let mut spared = self.clone();
        for slot in self.in_order(order).into_iter().flatten() {
            let windows = &mut spared.stops[slot.stop].windows;
            if let Some(window) = windows.iter_mut().find(|window| window.holds(slot.shoots)) {
                window.to = slot.done.max(window.to.earlier(TO_SPARE));
            }
        }
        let in_time = |begin: DayMinute| {
            let slots = spared.begun_at(begin).in_order(order);
            slots.and_then(|slots| slots.last().map(|last| last.done)).is_some_and(|at| at <= done)
        };
        let (mut latest, mut too_late) = (self.begin, done);
        while too_late.since(latest) > 1 {
            let between = latest.between(too_late);
            if in_time(between) { latest = between } else { too_late = between }
        }
        // Within that, each as early as it can.
        self.begun_at(latest)
    }

    /// A good order of more than [`EXACT`]: those whose light ends first come first, each where the day is done earliest.
    fn nearly(&self) -> Ordered {
        let closes = |stop: &usize| {
            let it = &self.stops[*stop];
            it.pinned.or_else(|| it.windows.last().map(|window| window.to)).unwrap_or(LATE)
        };
        let mut by_light: Vec<usize> = (0..self.stops.len()).collect();
        by_light.sort_by_key(closes);
        let (mut order, mut left_out): (Vec<usize>, Vec<usize>) = (Vec::new(), Vec::new());
        for stop in by_light {
            let placed = (0..=order.len()).filter_map(|place| {
                let mut tried = order.clone();
                tried.insert(place, stop);
                let done = self.in_order(&tried)?.last()?.done;
                Some((done, tried))
            });
            match placed.min_by_key(|(done, _)| *done) {
                Some((_, better)) => order = better,
                None => left_out.push(stop),
            }
        }
        left_out.sort_unstable();
        Ordered { slots: self.in_order(&order).unwrap_or_default(), left_out, changes: Vec::new(), proved: false }
    }
}

/// The minutes of building and of shooting, so many less: of building first, since what is not built takes nothing from
/// the picture that is wished.
pub fn quicker(build: u32, shoot: u32, by: u32) -> (u32, u32) {
    let of_building = by.min(build);
    (build - of_building, shoot.saturating_sub(by - of_building))
}

/// So many minutes of light are left after a setup, where that costs nothing. Chosen.
const TO_SPARE: u32 = 30;
/// Too late ever to be done.
const LATE: DayMinute = DayMinute(u32::MAX);
/// A day of minutes.
const A_DAY: u32 = 24 * 60;

struct Table {
    count: usize,
    done: Vec<DayMinute>,
}

impl Table {
    /// The last setup of a part, and when all of it can be done.
    fn earliest(&self, part: usize) -> Option<(usize, DayMinute)> {
        // Of two that are as early, the one that leaves the order of the list.
        (0..self.count)
            .rev()
            .map(|last| (last, self.done[part * self.count + last]))
            .filter(|(_, done)| *done != LATE)
            .min_by_key(|(_, done)| *done)
    }

    /// The largest part that can be done, of those the one that is done earliest.
    fn most(&self) -> Option<(usize, DayMinute)> {
        (1usize..1 << self.count)
            .filter_map(|part| Some((part, self.earliest(part)?.1)))
            .min_by_key(|(part, done)| (std::cmp::Reverse(part.count_ones()), *done))
    }

    /// The order in which a part is done earliest.
    fn order(&self, part: usize, day: &Day) -> Vec<usize> {
        let mut order = Vec::new();
        let Some((mut last, _)) = self.earliest(part) else { return order };
        let mut part = part;
        loop {
            order.push(last);
            let done = self.done[part * self.count + last];
            let before = part & !(1 << last);
            let from = (0..self.count).rev().filter(|one| before & (1 << one) != 0).find(|one| {
                let at = self.done[before * self.count + one];
                at != LATE && day.slot(Some(*one), at, last).is_some_and(|slot| slot.done == done)
            });
            let Some(from) = from else { break };
            (part, last) = (before, from);
        }
        order.reverse();
        order
    }
}

#[cfg(test)]
mod tests;
