//! A job's day: each setup with its window of light, and the order they are shot in.

use jiff::Timestamp;
use jiff::tz::TimeZone;
use tolva_core::time::{LocalTime, minute_of, zone};

use super::minute::{DayMinute, Stretch};
use super::order::{Change, Day, Ordered, Stop};
use super::window::{Windows, windows_and_later};
use crate::lighting::Prepared;
use crate::refused::Refused;
use crate::setup::{JobDay, Kit, Setup};

/// A job's setups, with what it asks of its days.
#[derive(Clone, Copy, Debug)]
pub struct JobDays<'a> {
    /// Its setups, in order.
    pub setups: &'a [Setup],
    /// What they are made of.
    pub kit: &'a Kit,
    /// What it asks of its days.
    pub asks: &'a JobDay,
    /// The day that is written on it, `2026-08-29`; may be empty.
    pub date: &'a str,
}

/// What is known of the light of a setup on a day.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LaneLight {
    /// It follows from place and hour.
    Known,
    /// Nobody has said where and when: it is taken to stay as it is.
    NoScene,
}

/// A setup on its day.
#[derive(Clone, Debug)]
pub struct Lane {
    /// Which, by its place in the job.
    pub setup: usize,
    /// What is known of its light.
    pub light: LaneLight,
    /// When its wish can be had.
    pub windows: Windows,
    /// The same, for some hours after the day's end too.
    open: Vec<Stretch>,
    /// The zone its place keeps, where that is another than the day's.
    pub other_zone: Option<TimeZone>,
    /// Why it cannot be planned at all.
    pub refused: Option<Refused>,
}

/// A job's day.
#[derive(Clone, Debug)]
pub struct PlannedDay {
    /// The day, `2026-08-29`; nothing where no setup and nobody says which.
    pub date: Option<String>,
    /// All days that setups of the job are on, in order.
    pub dates: Vec<String>,
    /// The zone its clocks keep.
    pub zone: TimeZone,
    /// The midnight it begins with: minutes count from here.
    pub begin: Timestamp,
    /// How far it is looked at: to its midnight, or to where it ends after that.
    pub until: DayMinute,
    /// Its own midnight: what comes after is the next day's.
    midnight: DayMinute,
    /// Nothing begins before this minute.
    pub from: DayMinute,
    /// Everything is done by this one.
    pub to: DayMinute,
    /// The setups of the day.
    pub lanes: Vec<Lane>,
    /// Their order; places are those of lanes.
    pub ordered: Ordered,
    /// What they ask of the day, by which they were ordered.
    asked: Day,
}

impl JobDays<'_> {
    /// All days that setups are on, in order.
    fn dates(&self) -> Vec<String> {
        let scenes = self.setups.iter().filter_map(|setup| setup.scene.as_ref());
        let mut dates: Vec<String> = scenes.map(|scene| scene.at.date.clone()).collect();
        dates.sort();
        dates.dedup();
        dates
    }

    /// A day of the job: the one that is asked for, else the one that is written on it, else the first that a setup is on.
    ///
    /// # Errors
    /// A day that is none, a zone that nobody knows.
    pub fn planned(&self, date: Option<&str>) -> Result<PlannedDay, Refused> {
        let (mut day, on) = self.looked_at(date)?;
        day.lanes = on.iter().map(|at| self.lane(*at, &day)).collect();
        let stops: Vec<Stop> = day.lanes.iter().map(|lane| self.stop(lane, &day)).collect();
        let spots: Vec<&str> = on.iter().map(|at| self.setups[*at].schedule.spot.trim()).collect();
        let ways = spots.iter().map(|from| spots.iter().map(|to| self.way(from, to)).collect()).collect();
        day.asked = Day { stops, ways, begin: day.from, end: day.to };
        day.ordered = day.asked.ordered();
        Ok(day)
    }

    /// What clocks at a setup's place show at a minute of a day, held to the day: what it is pinned to when it is dragged
    /// there.
    ///
    /// # Errors
    /// A day that is none, a setup that is not on it.
    pub fn hour(&self, date: Option<&str>, setup_id: &str, minute: DayMinute) -> Result<LocalTime, Refused> {
        let (day, on) = self.looked_at(date)?;
        let setup = on.into_iter().find(|at| self.setups[*at].id == setup_id);
        let setup = setup.ok_or_else(|| Refused::NoSuchSetup(setup_id.to_owned()))?;
        Ok(day.clock(self.other_zone(setup, &day).as_ref(), minute.min(day.until)))
    }

    /// A day before its light and its order are worked out, and the setups that are on it.
    fn looked_at(&self, date: Option<&str>) -> Result<(PlannedDay, Vec<usize>), Refused> {
        let dates = self.dates();
        let written = Some(self.date).filter(|date| dates.iter().any(|one| one == date));
        let first = || dates.first().map(String::as_str).or(Some(self.date).filter(|date| !date.is_empty()));
        let date = date.or(written).or_else(first).map(str::to_owned);
        let of_day = |setup: &Setup| match (&setup.scene, &date) {
            (Some(scene), Some(date)) => &scene.at.date == date,
            // What has no place and hour of its own is of the day that is written on the job, or of the first.
            (None, Some(date)) => {
                let own = if self.date.is_empty() { dates.first().map(String::as_str) } else { Some(self.date) };
                own.is_none_or(|own| own == date) || dates.is_empty()
            }
            (_, None) => true,
        };
        let on: Vec<usize> = (0..self.setups.len()).filter(|at| of_day(&self.setups[*at])).collect();
        let first_scene = on.iter().find_map(|at| self.setups[*at].scene.as_ref());
        let zone = first_scene.map_or(Ok(TimeZone::UTC), |scene| zone(&scene.site.time_zone))?;
        // A day that nobody has named is as long as any other.
        let (begin, midnight) = tolva_core::time::day(date.as_deref().unwrap_or(ANY_DAY), &zone)?;
        let until = DayMinute::of(begin, midnight);
        let (lanes, ordered) = (Vec::new(), Ordered::default());
        let asked = Day::default();
        let whole_day = PlannedDay {
            date,
            dates,
            zone,
            begin,
            until,
            midnight: until,
            from: DayMinute(0),
            to: DayMinute(0),
            lanes,
            ordered,
            asked,
        };
        let mut day = whole_day;
        day.from = day.minute(&self.asks.begin);
        day.to = match day.minute(&self.asks.end) {
            to if to > day.from => to,
            _ => day.minute_after_midnight(&self.asks.end),
        };
        day.until = until.max(day.to);
        Ok((day, on))
    }

    /// The zone a setup's place keeps, where that is another than the day's.
    fn other_zone(&self, setup: usize, day: &PlannedDay) -> Option<TimeZone> {
        let scene = self.setups[setup].scene.as_ref()?;
        zone(&scene.site.time_zone).ok().filter(|own| *own != day.zone)
    }

    fn lane(&self, at: usize, day: &PlannedDay) -> Lane {
        let setup = &self.setups[at];
        let light = if setup.scene.is_some() { LaneLight::Known } else { LaneLight::NoScene };
        let windows = Windows::default();
        let lane = Lane { setup: at, light, windows, open: Vec::new(), other_zone: None, refused: None };
        match Prepared::new(setup, self.kit) {
            Ok(prepared) => {
                // Later than the day is looked at too: what makes it fit may be to end later.
                let looked_at = day.until.max(day.to.later(LATER_MIN));
                let (windows, open) = windows_and_later(&prepared, day.begin, (day.until, looked_at));
                Lane { windows, open, other_zone: self.other_zone(at, day), ..lane }
            }
            Err(refused) => Lane { refused: Some(refused), ..lane },
        }
    }

    fn stop(&self, lane: &Lane, day: &PlannedDay) -> Stop {
        let setup = &self.setups[lane.setup];
        let own = lane.other_zone.as_ref().unwrap_or(&day.zone);
        let minute = |at: &LocalTime| {
            let at = at.instant(own).ok()?;
            (at >= day.begin).then(|| DayMinute::of(day.begin, at))
        };
        let of_it = |ids: &[String]| ids.is_empty() || ids.contains(&setup.id);
        let arrivals = self.asks.people.iter().filter(|one| of_it(&one.setup_ids));
        Stop {
            build: setup.schedule.build_min,
            shoot: setup.schedule.shoot_min,
            windows: lane.open.clone(),
            ready: arrivals.map(|one| day.arrival(&one.at)).max().unwrap_or_default(),
            pinned: setup.schedule.pinned.as_ref().and_then(minute),
        }
    }

    /// Minutes from one spot to another.
    fn way(&self, from: &str, to: &str) -> u32 {
        if from == to {
            return 0;
        }
        let joins = |one: &str, other: &str| (one.trim(), other.trim()) == (from, to);
        let said = self.asks.ways.iter().find(|way| joins(&way.from, &way.to) || joins(&way.to, &way.from));
        said.map_or(self.asks.way_min, |way| way.minutes)
    }
}

/// How long after the day's end its light is computed, in minutes: the latest end that is proposed. Chosen.
const LATER_MIN: u32 = 180;
/// A day that nobody has named.
const ANY_DAY: &str = "2000-01-01";

impl PlannedDay {
    /// Minutes from where the day begins to when clocks show an hour. One that is skipped counts as if it were not.
    fn minute(&self, hour: &str) -> DayMinute {
        let date = self.date.as_deref().unwrap_or(ANY_DAY).to_owned();
        let at = LocalTime { date, time: hour.to_owned(), second_time: false };
        let shown = || DayMinute(minute_of(hour).unwrap_or(0));
        at.instant(&self.zone).map_or_else(|_| shown(), |at| DayMinute::of(self.begin, at))
    }

    /// The same on the day after.
    fn minute_after_midnight(&self, hour: &str) -> DayMinute {
        let date = self.date.as_deref().unwrap_or(ANY_DAY);
        let next = date.parse::<jiff::civil::Date>().and_then(jiff::civil::Date::tomorrow).map(|date| date.to_string());
        let at = next.ok().map(|date| LocalTime { date, time: hour.to_owned(), second_time: false });
        let shown = || self.midnight.later(minute_of(hour).unwrap_or(0));
        at.and_then(|at| at.instant(&self.zone).ok()).map_or_else(shown, |at| DayMinute::of(self.begin, at))
    }

    /// The minute of an arrival. In a day that goes past midnight, a time after midnight is the next day's; one between the
    /// day's end and its begin belongs to whichever is nearer.
    fn arrival(&self, hour: &str) -> DayMinute {
        let minute = self.minute(hour);
        if self.to <= self.midnight || minute >= self.from {
            return minute;
        }
        let next_day = self.minute_after_midnight(hour);
        if next_day.since(self.to) < self.from.since(minute) { next_day } else { minute }
    }

    /// When the setup of a lane is shot once a change is made; nothing where it does not fit even then.
    pub fn shot_at(&self, change: Change, lane: usize) -> Option<DayMinute> {
        self.asked.shot_at(change, lane)
    }

    /// A minute of the day on the clocks of a lane's place.
    pub fn hour(&self, lane: &Lane, minute: DayMinute) -> LocalTime {
        self.clock(lane.other_zone.as_ref(), minute)
    }

    fn clock(&self, other_zone: Option<&TimeZone>, minute: DayMinute) -> LocalTime {
        LocalTime::of(minute.after(self.begin), other_zone.unwrap_or(&self.zone))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::setup::{Arrival, Blend, Schedule, Way};
    use rstest::rstest;
    use tolva_core::ambient::{Scene, Site};

    fn scene(date: &str, time_zone: &str) -> Scene {
        let site = Site {
            name: "Quay".into(),
            latitude_deg: 60.17,
            longitude_deg: 24.95,
            elevation_m: 0.0,
            time_zone: time_zone.into(),
        };
        let at = LocalTime { date: date.into(), time: "18:00".into(), second_time: false };
        Scene { facing_deg: 270.0, ..Scene::new(site, at) }
    }

    fn setups(count: usize) -> Vec<Setup> {
        let kit = Kit::starter();
        (0..count).map(|at| Setup::new(&format!("setup-{at}"), &kit)).collect()
    }

    fn planned(setups: &[Setup], asks: &JobDay, date: &str) -> PlannedDay {
        let kit = Kit::starter();
        JobDays { setups, kit: &kit, asks, date }.planned(None).expect("a day")
    }

    fn in_turn(day: &PlannedDay) -> Vec<usize> {
        day.ordered.slots.iter().map(|slot| day.lanes[slot.stop].setup).collect()
    }

    #[test]
    fn without_place_and_date_all_of_it_fits_from_the_morning_on() {
        let day = planned(&setups(3), &JobDay::default(), "");
        assert_eq!((day.date.as_deref(), day.dates.len(), day.until.0), (None, 0, 1440));
        assert!(day.lanes.iter().all(|lane| lane.light == LaneLight::NoScene));
        assert_eq!((day.ordered.slots.len(), day.ordered.slots[0].builds.0), (3, 7 * 60));
    }

    /// A silhouette against the sky has its window at dusk, hard sun by day: the order follows, whatever the job's is.
    #[test]
    fn each_is_shot_in_its_light() {
        let mut all = setups(2);
        for setup in &mut all {
            setup.scene = Some(scene("2026-08-29", "Europe/Helsinki"));
        }
        all[0].blend = Blend::Silhouette { background_stops: 0.0 };
        all[1].blend = Blend::AmbientOnly { subject_stops: 0.0 };
        all[1].fixed.iso = Some(100.0);
        let day = planned(&all, &JobDay::default(), "2026-08-29");
        for lane in &day.lanes {
            let open = &lane.windows.open;
            assert!(open.windows(2).all(|two| two[0].to < two[1].from), "in order and apart: {open:?}");
            // To the minute: inside it can be had, a minute before it cannot.
            for moment in &lane.windows.moments {
                let inside = open.iter().any(|one| one.holds(moment.minute));
                let at_midnight = moment.minute == DayMinute(1440);
                assert_eq!(moment.can(), inside || open.iter().any(|one| at_midnight && one.to == moment.minute));
            }
        }
        let by_day = &day.lanes[1].windows.open;
        assert_eq!(by_day.len(), 1, "{by_day:?}");
        assert!(by_day[0].from.0 > 5 * 60 && by_day[0].to.0 < 22 * 60, "the hand needs light: {by_day:?}");
        for slot in &day.ordered.slots {
            let inside = |one: &Stretch| one.from <= slot.shoots && slot.done <= one.to;
            assert!(day.lanes[slot.stop].windows.open.iter().any(inside), "{slot:?}");
        }
    }

    #[test]
    fn ways_count_between_spots_and_people_are_waited_for() {
        let mut all = setups(3);
        for (setup, spot) in all.iter_mut().zip(["Yard", "Hall", "Yard"]) {
            setup.schedule = Schedule { build_min: 10, shoot_min: 20, spot: spot.into(), ..Schedule::default() };
        }
        let way = Way { id: "a".into(), from: "Hall".into(), to: " Yard".into(), minutes: 25 };
        let arrival =
            Arrival { id: "a".into(), name: "The band".into(), at: "07:20".into(), setup_ids: vec!["setup-1".into()] };
        let asks = JobDay { ways: vec![way], people: vec![arrival], ..JobDay::default() };
        let day = planned(&all, &asks, "");
        // Both in the yard first: one way instead of two, and the band comes later.
        assert_eq!((in_turn(&day), day.ordered.slots[2].builds.0), (vec![0, 2, 1], 7 * 60 + 60 + 25));
    }

    /// A job over three days has each setup on its own; what has no hour is on the day that is written on the job.
    #[test]
    fn each_day_has_its_own() {
        let mut all = setups(4);
        for (setup, date) in all.iter_mut().zip(["2026-08-29", "2026-08-30", "2026-08-31"]) {
            setup.scene = Some(scene(date, "Europe/Helsinki"));
        }
        let on = |date: Option<&str>| {
            let (kit, asks) = (Kit::starter(), JobDay::default());
            let days = JobDays { setups: &all, kit: &kit, asks: &asks, date: "2026-08-30" };
            let day = days.planned(date).expect("a day");
            (day.dates.len(), day.lanes.iter().map(|lane| lane.setup).collect::<Vec<_>>())
        };
        assert_eq!(on(None), (3, vec![1, 3]));
        assert_eq!(on(Some("2026-08-31")), (3, vec![2]));
    }

    /// An evening that goes past midnight, a day on which clocks change, a setup in another zone.
    #[rstest]
    #[case::past_midnight("2026-08-29", "20:00", "02:00", 1440, (20 * 60, 26 * 60))]
    #[case::clocks_go_back("2026-10-25", "07:00", "22:00", 1500, (8 * 60, 23 * 60))]
    #[case::clocks_go_on("2026-03-29", "07:00", "22:00", 1380, (6 * 60, 21 * 60))]
    fn clocks_are_those_of_the_place(
        #[case] date: &str,
        #[case] begin: &str,
        #[case] end: &str,
        #[case] long: u32,
        #[case] stretch: (u32, u32),
    ) {
        let mut all = setups(2);
        all[0].scene = Some(scene(date, "Europe/Helsinki"));
        all[1].scene = Some(scene(date, "Europe/Stockholm"));
        let asks = JobDay { begin: begin.into(), end: end.into(), ..JobDay::default() };
        let day = planned(&all, &asks, date);
        assert_eq!((day.from.0, day.to.0), stretch);
        assert_eq!(day.until.0, long.max(stretch.1));
        assert!(day.lanes[0].other_zone.is_none() && day.lanes[1].other_zone.is_some());
    }

    /// From 18:00 to 02:00: who comes at 00:30 comes on the next day, and is waited for.
    #[rstest]
    #[case::before_it_begins("17:00", 17 * 60)]
    #[case::as_it_begins("18:00", 18 * 60)]
    #[case::before_midnight("23:59", 24 * 60 - 1)]
    #[case::at_midnight("00:00", 24 * 60)]
    #[case::after_midnight("00:30", 24 * 60 + 30)]
    #[case::as_it_ends("02:00", 26 * 60)]
    #[case::after_its_end("03:00", 27 * 60)]
    fn arrivals_after_midnight(#[case] at: &str, #[case] minute: u32) {
        let mut all = setups(1);
        all[0].schedule = Schedule { build_min: 0, shoot_min: 20, ..Schedule::default() };
        let people = vec![Arrival { id: "a".into(), name: "Band".into(), at: at.into(), setup_ids: Vec::new() }];
        let asks = JobDay { begin: "18:00".into(), end: "02:00".into(), people, ..JobDay::default() };
        let day = planned(&all, &asks, "");
        assert_eq!(day.asked.stops[0].ready, DayMinute(minute));
        let fits = minute + 20 <= 26 * 60;
        assert_eq!(day.ordered.slots.first().map(|slot| slot.shoots.0), fits.then_some(minute.max(18 * 60)));
    }

    /// The night the clocks change: 03:30 after the clocks have gone on is two and a half hours after midnight.
    #[test]
    fn a_day_that_ends_after_the_clocks_changed() {
        let mut all = setups(1);
        all[0].scene = Some(scene("2026-03-28", "Europe/Stockholm"));
        let asks = JobDay { begin: "20:00".into(), end: "03:30".into(), ..JobDay::default() };
        assert_eq!(planned(&all, &asks, "2026-03-28").to.0, 24 * 60 + 150);
    }

    /// A day that ends at or near midnight can be made to end later: its light goes on.
    #[rstest]
    #[case("23:50")]
    #[case("00:00")]
    fn an_end_at_midnight_can_be_later(#[case] end: &str) {
        let mut all = setups(1);
        all[0].schedule = Schedule { build_min: 10, shoot_min: 30, ..Schedule::default() };
        let asks = JobDay { begin: "23:30".into(), end: end.into(), ..JobDay::default() };
        let day = planned(&all, &asks, "");
        assert!(day.ordered.slots.is_empty());
        let later = 40 - day.to.since(day.from);
        assert!(day.ordered.changes.contains(&Change::EndLater(later)), "{:?}", day.ordered.changes);
        assert!(day.lanes[0].windows.open.iter().all(|one| one.to <= day.until));
    }

    #[test]
    fn what_is_pinned_begins_at_its_hour() {
        let mut all = setups(2);
        for setup in &mut all {
            setup.scene = Some(scene("2026-08-29", "Europe/Helsinki"));
        }
        let pin = LocalTime { date: "2026-08-29".into(), time: "15:10".into(), second_time: false };
        all[1].schedule.pinned = Some(pin.clone());
        let day = planned(&all, &JobDay::default(), "");
        let slot = day.ordered.slots.iter().find(|slot| day.lanes[slot.stop].setup == 1).expect("it fits");
        assert_eq!((slot.shoots.0, day.hour(&day.lanes[1], slot.shoots)), (15 * 60 + 10, pin));
    }

    #[test]
    fn one_that_cannot_be_planned_leaves_the_others() {
        let mut all = setups(2);
        all[0].camera_id = "gone".into();
        let day = planned(&all, &JobDay::default(), "");
        assert!(day.lanes[0].refused.is_some());
        assert_eq!((in_turn(&day), day.ordered.left_out), (vec![1], vec![0]));
    }
}
