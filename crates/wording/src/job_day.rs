//! A job's day as it is sent: each setup's window of light, the order they are shot in, what does not fit and what would
//! make it.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use tolva_core::scale::Stops;
use tolva_core::time::{LocalTime, clock, span_label};
use tolva_planner::day::{self, Change, DayMinute, JobDays, Lane, LaneLight, Moment, PlannedDay, Slot, quicker};
use tolva_planner::refused::Refused;
use utoipa::ToSchema;

use crate::day::{DayEvent, HourMark, LightPhaseStretch, Stretch, day_of};
use crate::words::{in_a_row, upper_first};

/// A job's day. Minutes count from the midnight it begins with.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DayPlan {
    /// In a sentence: `3 setups from 11:10 to 20:40.`
    pub says: String,
    /// The day, as `2026-08-29`; null where nobody has said which.
    pub date: Option<String>,
    /// All days that setups of the job are on.
    pub dates: Vec<String>,
    /// The zone its clocks keep; null where no setup has a place.
    pub time_zone: Option<String>,
    /// How far it is looked at.
    pub minutes: u32,
    /// Nothing begins before this minute.
    pub from_minute: u32,
    /// Everything is done by this one.
    pub to_minute: u32,
    /// What whole hours read on the clocks of the place.
    pub hours: Vec<HourMark>,
    /// The sun in a sentence; null where no setup has a place.
    pub sun_says: Option<String>,
    /// When the sun and its light come and go, where the first setup with a place is.
    pub events: Vec<DayEvent>,
    /// The kinds of light there.
    pub phases: Vec<LightPhaseStretch>,
    /// The setups of the day, in the order of the job.
    pub lanes: Vec<DayLane>,
    /// What is shot, in order.
    pub slots: Vec<DaySlot>,
    /// What does not fit beside it.
    pub left_out: Vec<LeftOut>,
    /// What by itself would make everything fit, the least first.
    pub changes: Vec<DayChange>,
    /// What to know.
    pub notes: Vec<String>,
    /// What begins at another hour than before, where that was sent: `Cooper in the yard at 14:35, not 14:10`.
    pub moved: Vec<String>,
}

/// A setup on its day.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DayLane {
    /// The setup.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// Its windows of light in words: `14:05 to 19:50`.
    pub says: String,
    /// Its windows of light.
    pub windows: Vec<Stretch>,
    /// When it is had most easily, in words: `easiest 14:10 to 15:20: ISO 100, flash has 2 stops left`; null where it is
    /// never had, or as easily all along.
    pub easiest: Option<String>,
    /// How well, every ten minutes.
    pub moments: Vec<LightMoment>,
    /// Whether its light follows from place and hour; otherwise it is taken to stay as it is.
    pub light_known: bool,
    /// The minute its shooting is pinned to; null where it is not.
    pub pinned_minute: Option<u32>,
    /// What to know of it.
    pub note: Option<String>,
}

/// How well a wish can be had at a minute.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightMoment {
    /// When.
    pub minute: u32,
    /// Whether it can be had.
    pub can: bool,
    /// What is missing, in stops; 0 where nothing is.
    pub missing_stops: f64,
    /// How easily, 0 to 1: 0 where it cannot be had or only just.
    pub ease: f64,
    /// In words: `14:20: ISO 100, flash has 2 stops left`.
    pub says: String,
}

/// When a setup is built and shot.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DaySlot {
    /// The setup.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// When the way there begins, in minutes.
    pub leaves_minute: u32,
    /// When building begins.
    pub builds_minute: u32,
    /// When shooting begins.
    pub shoots_minute: u32,
    /// When it is done.
    pub done_minute: u32,
    /// When shooting begins, in UTC.
    pub utc: String,
    /// When it is done, in UTC.
    pub done_utc: String,
    /// When shooting begins, on the clocks of its place.
    pub at: HourOfDay,
    /// When building begins, on the clock.
    pub builds: String,
    /// When shooting begins, on the clock.
    pub shoots: String,
    /// When it is done, on the clock.
    pub done: String,
    /// In a sentence: `Build at 13:45, shoot 14:05 to 14:35.`
    pub says: String,
}

/// A day and an hour as clocks at a place show them.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct HourOfDay {
    /// `2026-08-29`.
    pub date: String,
    /// `19:46`.
    pub time: String,
    /// Where clocks are put back and show this hour twice: whether the second one is meant.
    pub second_time: bool,
}

impl From<LocalTime> for HourOfDay {
    fn from(LocalTime { date, time, second_time }: LocalTime) -> Self {
        Self { date, time, second_time }
    }
}

/// A setup that does not fit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LeftOut {
    /// The setup.
    pub setup_id: String,
    /// What it is called.
    pub name: String,
    /// Why, as far as one setup by itself can say.
    pub says: String,
}

/// A change that makes everything fit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DayChange {
    /// What kind: `begin_earlier`, `end_later`, `quicker`, `outside_its_light`.
    pub code: &'static str,
    /// The setup it is about.
    pub setup_id: Option<String>,
    /// By how many minutes.
    pub minutes: u32,
    /// The hour the day begins or ends at then, where that is the change: `06:35`.
    pub hour: Option<String>,
    /// What the setup's schedule says then, where that is the change.
    pub schedule: Option<ScheduleThen>,
    /// In words: `Begin 25 min earlier, at 06:35.`
    pub says: String,
}

/// What a setup's schedule says once a change is made.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ScheduleThen {
    /// Minutes to build it.
    pub build_min: u32,
    /// Minutes to shoot it.
    pub shoot_min: u32,
    /// What its shooting is pinned to; null where it is not.
    pub pinned: Option<HourOfDay>,
}

/// When the shooting of a setup began in the plan that is being looked at.
#[derive(Clone, Debug, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SlotBefore {
    /// The setup.
    pub setup_id: String,
    /// When, in UTC.
    pub utc: String,
}

/// A day of a job in words. `before` is the plan that is looked at now: what moved against it is told.
///
/// # Errors
/// A day that is none, a zone that nobody knows.
pub fn day_plan(of: JobDays<'_>, date: Option<&str>, before: &[SlotBefore]) -> Result<DayPlan, Refused> {
    let planned = of.planned(date)?;
    let words = Words { of, planned: &planned };
    let sun = planned.lanes.iter().find_map(|lane| day_of(&of.setups[lane.setup], of.kit, SUN_STEP_MIN).ok());
    let slots: Vec<DaySlot> = planned.ordered.slots.iter().map(|slot| words.slot(slot)).collect();
    let (sun_says, events, phases) = sun.map_or_else(Default::default, |sun| (Some(sun.says), sun.events, sun.phases));
    Ok(DayPlan {
        says: words.says(&slots),
        date: planned.date.clone(),
        dates: planned.dates.clone(),
        time_zone: sun_says.as_ref().and_then(|_| planned.zone.iana_name().map(str::to_owned)),
        minutes: planned.until.0,
        from_minute: planned.from.0,
        to_minute: planned.to.0,
        hours: words.hours(),
        sun_says,
        events,
        phases,
        lanes: planned.lanes.iter().map(|lane| words.lane(lane)).collect(),
        left_out: planned.ordered.left_out.iter().map(|lane| words.left_out(&planned.lanes[*lane])).collect(),
        changes: planned.ordered.changes.iter().take(MOST_CHANGES).map(|change| words.change(*change)).collect(),
        notes: words.notes(),
        moved: slots.iter().filter_map(|slot| words.moved(slot, before)).collect(),
        slots,
    })
}

/// A minute of a job's day on the clocks of a setup's place: what something is pinned to. The minute is held to the day.
///
/// # Errors
/// A day that is none, a setup that is not on it.
pub fn hour_on_day(of: JobDays<'_>, date: Option<&str>, setup_id: &str, minute: u32) -> Result<HourOfDay, Refused> {
    Ok(of.hour(date, setup_id, DayMinute(minute))?.into())
}

/// From one look at the sun to the next.
const SUN_STEP_MIN: f64 = 5.0;
/// More ways out than that are no help.
const MOST_CHANGES: usize = 4;

struct Words<'a> {
    of: JobDays<'a>,
    planned: &'a PlannedDay,
}

impl Words<'_> {
    fn instant(&self, minute: DayMinute) -> Timestamp {
        minute.after(self.planned.begin)
    }

    fn clock(&self, minute: DayMinute) -> String {
        clock(&self.planned.zone, self.instant(minute))
    }

    fn name(&self, lane: &Lane) -> &str {
        &self.of.setups[lane.setup].name
    }

    fn says(&self, slots: &[DaySlot]) -> String {
        let count = |number: usize| if number == 1 { "1 setup".to_owned() } else { format!("{number} setups") };
        let all = self.planned.lanes.len();
        match (slots.first(), slots.last()) {
            (Some(first), Some(last)) if slots.len() == all => {
                format!("{} from {} to {}.", count(all), first.builds, last.done)
            }
            (Some(first), Some(last)) => {
                format!("{} of {all} fit, from {} to {}.", slots.len(), first.builds, last.done)
            }
            _ if all == 0 => "No setup is on this day.".to_owned(),
            _ => format!("None of {} fits.", count(all)),
        }
    }

    fn hours(&self) -> Vec<HourMark> {
        let marks = (0..=self.planned.until.0 / HOURS_APART).map(|mark| mark * HOURS_APART);
        marks.map(|minute| HourMark { minute: f64::from(minute), clock: self.clock(DayMinute(minute)) }).collect()
    }

    fn stretch(&self, day::Stretch { from, to }: day::Stretch) -> Stretch {
        let says = if to.since(from) >= self.planned.until.0 {
            "all day".to_owned()
        } else {
            format!("{} to {}", self.clock(from), self.clock(to))
        };
        Stretch { from_minute: f64::from(from.0), to_minute: f64::from(to.0), says }
    }

    fn lane(&self, lane: &Lane) -> DayLane {
        let setup = &self.of.setups[lane.setup];
        let windows: Vec<Stretch> = lane.windows.open.iter().map(|open| self.stretch(*open)).collect();
        let says = match (&lane.refused, windows.is_empty()) {
            (Some(refused), _) => format!("It cannot be planned: {refused}."),
            (None, true) => "Its wish cannot be had on this day.".to_owned(),
            (None, false) => in_a_row(windows.iter().map(|window| window.says.clone())),
        };
        let note = match (&lane.other_zone, lane.light) {
            (Some(zone), _) => {
                let own = zone.iana_name().unwrap_or("another zone");
                Some(format!("Its clocks keep {own}; hours here are those of the day."))
            }
            (None, LaneLight::NoScene) => Some("No place and hour: its light is taken to stay as it is.".to_owned()),
            (None, LaneLight::Known) => None,
        };
        let pinned = setup.schedule.pinned.is_some();
        let slot = self.planned.ordered.slots.iter().find(|slot| self.planned.lanes[slot.stop].setup == lane.setup);
        DayLane {
            setup_id: setup.id.clone(),
            name: setup.name.clone(),
            says,
            windows,
            easiest: lane.windows.easiest().map(|(from, to)| {
                let span = format!("{} to {}", self.clock(from.minute), self.clock(to.minute));
                let when = if from.minute == to.minute { self.clock(from.minute) } else { span };
                format!("easiest {when}: {}", taken_by(from))
            }),
            moments: lane.windows.moments.iter().map(|moment| self.moment(moment)).collect(),
            light_known: lane.light == LaneLight::Known,
            pinned_minute: slot.filter(|_| pinned).map(|slot| slot.shoots.0),
            note,
        }
    }

    fn moment(&self, moment: &Moment) -> LightMoment {
        let at = self.clock(moment.minute);
        let says = format!("{at}: {}", taken_by(moment));
        let missing_stops = moment.missing.map_or(0.0, |missing| (missing.0 * 100.0).round() / 100.0);
        let ease = (moment.ease() * 100.0).round() / 100.0;
        LightMoment { minute: moment.minute.0, can: moment.can(), missing_stops, ease, says }
    }

    fn slot(&self, slot: &Slot) -> DaySlot {
        let lane = &self.planned.lanes[slot.stop];
        let [builds, shoots, done] = [slot.builds, slot.shoots, slot.done].map(|minute| self.clock(minute));
        let built = slot.builds.later(self.of.setups[lane.setup].schedule.build_min);
        let way = slot.builds.since(slot.leaves);
        let mut parts = Vec::new();
        if way > 0 {
            parts.push(format!("{} on the way", span_label(f64::from(way))));
        }
        parts.push(if built > slot.builds { format!("build at {builds}") } else { format!("be there at {builds}") });
        if slot.shoots > built {
            parts.push(format!("wait {}", span_label(f64::from(slot.shoots.since(built)))));
        }
        parts.push(format!("shoot {shoots} to {done}"));
        let says = format!("{}.", parts.join(", "));
        DaySlot {
            setup_id: self.of.setups[lane.setup].id.clone(),
            name: self.name(lane).to_owned(),
            leaves_minute: slot.leaves.0,
            builds_minute: slot.builds.0,
            shoots_minute: slot.shoots.0,
            done_minute: slot.done.0,
            utc: self.instant(slot.shoots).to_string(),
            done_utc: self.instant(slot.done).to_string(),
            at: self.planned.hour(lane, slot.shoots).into(),
            builds,
            shoots,
            done,
            says: upper_first(&says),
        }
    }

    fn left_out(&self, lane: &Lane) -> LeftOut {
        let setup = &self.of.setups[lane.setup];
        let longest = lane.windows.open.iter().map(|one| one.to.since(one.from)).max();
        let says = match (&lane.refused, longest) {
            (Some(refused), _) => format!("it cannot be planned: {refused}"),
            _ if setup.schedule.pinned.is_some() => "not at the hour it is pinned to, beside the others".to_owned(),
            (None, None) => "there is no light for it on this day".to_owned(),
            (None, Some(longest)) if longest < setup.schedule.shoot_min => format!(
                "its light lasts {} at most, shooting takes {}",
                span_label(f64::from(longest)),
                span_label(f64::from(setup.schedule.shoot_min))
            ),
            (None, Some(_)) => "its light is there, but not beside the others".to_owned(),
        };
        LeftOut { setup_id: setup.id.clone(), name: setup.name.clone(), says }
    }

    fn change(&self, change: Change) -> DayChange {
        let minutes = change.minutes();
        let by = span_label(f64::from(minutes));
        let of = |at: usize, does: &str| {
            let lane = &self.planned.lanes[at];
            let setup = &self.of.setups[lane.setup];
            let asked = &setup.schedule;
            let (build_min, shoot_min) = match change {
                Change::Quicker(_, by) => quicker(asked.build_min, asked.shoot_min, by),
                _ => (asked.build_min, asked.shoot_min),
            };
            let outside = matches!(change, Change::OutsideItsLight(..));
            let pinned = if outside {
                self.planned.shot_at(change, at).map(|minute| self.planned.hour(lane, minute))
            } else {
                asked.pinned.clone()
            };
            let pinned = pinned.map(Into::into);
            let schedule = Some(ScheduleThen { build_min, shoot_min, pinned });
            (Some(setup.id.clone()), None, schedule, format!("{}: {does}.", setup.name))
        };
        let (code, (setup_id, hour, schedule, says)) = match change {
            Change::BeginEarlier(minutes) => {
                let at = self.clock(self.planned.from.earlier(minutes));
                ("begin_earlier", (None, Some(at.clone()), None, format!("Begin {by} earlier, at {at}.")))
            }
            Change::EndLater(minutes) => {
                let at = self.clock(self.planned.to.later(minutes));
                ("end_later", (None, Some(at.clone()), None, format!("End {by} later, at {at}.")))
            }
            Change::Quicker(lane, _) => ("quicker", of(lane, &format!("take {by} less to build and shoot"))),
            Change::OutsideItsLight(lane, _) => {
                ("outside_its_light", of(lane, &format!("shoot up to {by} outside its light")))
            }
        };
        DayChange { code, setup_id, minutes, hour, schedule, says }
    }

    fn notes(&self) -> Vec<String> {
        let mut notes = Vec::new();
        if !self.planned.ordered.proved {
            notes.push("So many setups that not every order was looked at: this is a good one.".to_owned());
        }
        if self.planned.lanes.iter().any(|lane| lane.other_zone.is_some()) {
            notes.push("Places in two time zones: hours are those of the first.".to_owned());
        }
        let outside = self.planned.ordered.slots.iter().filter(|slot| {
            let lane = &self.planned.lanes[slot.stop];
            !lane.windows.open.iter().any(|one| one.from <= slot.shoots && slot.done <= one.to)
        });
        let outside: Vec<String> = outside.map(|slot| self.name(&self.planned.lanes[slot.stop]).to_owned()).collect();
        if !outside.is_empty() {
            notes.push(format!("Pinned outside its light: {}.", in_a_row(outside)));
        }
        notes
    }

    fn moved(&self, slot: &DaySlot, before: &[SlotBefore]) -> Option<String> {
        let was = before.iter().find(|one| one.setup_id == slot.setup_id && one.utc != slot.utc)?;
        let was = clock(&self.planned.zone, was.utc.parse().ok()?);
        Some(format!("{} at {}, not {was}", slot.name, slot.shoots))
    }
}

/// From one hour on the axis to the next.
const HOURS_APART: u32 = 180;

/// What a wish takes at a moment: `ISO 100, flash has 2 stops left`; `⅔ stop missing`.
fn taken_by(moment: &Moment) -> String {
    match (moment.missing, moment.power_left) {
        (Some(missing), _) => format!("{} missing", stops(missing)),
        (None, Some(left)) if left.0 < 0.05 => format!("{}, flash at full power", moment.iso.label()),
        (None, Some(left)) => format!("{}, flash has {} left", moment.iso.label(), stops(left)),
        (None, None) => moment.iso.label(),
    }
}

/// So many stops: `2 stops`, `⅓ stop`.
fn stops(of: Stops) -> String {
    let thirds = of.thirds();
    let number = thirds.trim_start_matches('+');
    if of.0.abs() < 1.17 { format!("{number} stop") } else { format!("{number} stops") }
}
