//! Hours as clocks show them at a place, and the instants they stand for. Time zones are the bundled IANA ones.

use jiff::civil::{Date, Time};
use jiff::tz::{AmbiguousOffset, TimeZone, TimeZoneDatabase};
use jiff::{Timestamp, ToSpan as _};
use std::sync::OnceLock;
use thiserror::Error;

/// A day and an hour as clocks at the place show them.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LocalTime {
    /// `2026-08-29`, from 1900 to 2199.
    pub date: String,
    /// `19:46`.
    pub time: String,
    /// Where clocks are put back and show this hour twice: whether the second one is meant.
    pub second_time: bool,
}

/// Why an hour is none.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum WrongTime {
    /// Not a day.
    #[error("“{0}” is not a day from 1900 to 2199: write 2026-08-29")]
    Date(String),
    /// Not an hour.
    #[error("“{0}” is not an hour of the day: write 19:46")]
    Time(String),
    /// Clocks are put forward over it.
    #[error("{time} does not come on {date} in {zone}: clocks are put forward, from {before} to {after}")]
    Skipped {
        /// The hour.
        time: String,
        /// The day.
        date: String,
        /// The zone.
        zone: String,
        /// What clocks show last before the gap.
        before: String,
        /// What they show then.
        after: String,
    },
    /// A name that is no time zone.
    #[error("“{0}” is not a time zone that is known: write a name such as Europe/Helsinki")]
    Zone(String),
}

impl WrongTime {
    /// The field of a [`LocalTime`] it is about; the zone for a wrong zone.
    pub fn field(&self) -> &'static str {
        match self {
            Self::Date(_) => "date",
            Self::Time(_) | Self::Skipped { .. } => "time",
            Self::Zone(_) => "time_zone",
        }
    }
}

/// The bundled time zones, read once. Never the system's, so that every machine gives the same plan.
fn zones() -> &'static TimeZoneDatabase {
    static ZONES: OnceLock<TimeZoneDatabase> = OnceLock::new();
    ZONES.get_or_init(TimeZoneDatabase::bundled)
}

/// The zone of an IANA name.
///
/// # Errors
/// [`WrongTime::Zone`] for a name that is not known.
pub fn zone(name: &str) -> Result<TimeZone, WrongTime> {
    zones().get(name).map_err(|_| WrongTime::Zone(name.to_owned()))
}

/// The two years between which days are taken.
const YEARS: std::ops::RangeInclusive<i16> = 1900..=2199;

/// The date of a text such as `2026-08-29`.
///
/// # Errors
/// A text that is no date.
pub fn date_of(text: &str) -> Result<Date, WrongTime> {
    let date = (text.len() == 10).then(|| text.parse::<Date>().ok()).flatten();
    date.filter(|date| YEARS.contains(&date.year())).ok_or_else(|| WrongTime::Date(text.to_owned()))
}

impl LocalTime {
    /// The instant meant in a zone.
    ///
    /// # Errors
    /// A day or hour that is none, or an hour that clocks are put forward over.
    ///
    /// ```
    /// use tolva_core::time::{LocalTime, zone};
    /// let hour = |time: &str| LocalTime { date: "2026-03-29".into(), time: time.into(), second_time: false };
    /// let helsinki = zone("Europe/Helsinki")?;
    /// assert_eq!(hour("02:59").instant(&helsinki)?.to_string(), "2026-03-29T00:59:00Z");
    /// assert!(hour("03:30").instant(&helsinki).unwrap_err().to_string().contains("from 03:00 to 04:00"));
    /// # Ok::<(), tolva_core::time::WrongTime>(())
    /// ```
    pub fn instant(&self, zone: &TimeZone) -> Result<Timestamp, WrongTime> {
        let date = date_of(&self.date)?;
        let time = (self.time.len() == 5).then(|| self.time.parse::<Time>().ok()).flatten();
        let time = time.ok_or_else(|| WrongTime::Time(self.time.clone()))?;
        let found = zone.to_ambiguous_timestamp(date.to_datetime(time));
        match found.offset() {
            AmbiguousOffset::Fold { .. } if self.second_time => {
                return found.later().map_err(|_| WrongTime::Date(self.date.clone()));
            }
            AmbiguousOffset::Unambiguous { .. } | AmbiguousOffset::Fold { .. } => {}
            AmbiguousOffset::Gap { .. } => {
                // The clock before the gap and after it, at the very instant it comes.
                let late = found.later().map_err(|_| WrongTime::Date(self.date.clone()))?;
                let gap = zone.preceding(late + 1.second()).next().map_or(late, |change| change.timestamp());
                let name = zone.iana_name().unwrap_or_default().to_owned();
                let just_before = gap - 1.minute();
                let shown = zone.to_datetime(just_before) + 1.minute();
                return Err(WrongTime::Skipped {
                    time: self.time.clone(),
                    date: self.date.clone(),
                    zone: name,
                    before: shown.strftime("%H:%M").to_string(),
                    after: clock(zone, gap),
                });
            }
        }
        found.earlier().map_err(|_| WrongTime::Date(self.date.clone()))
    }

    /// What clocks show at an instant.
    pub fn of(instant: Timestamp, zone: &TimeZone) -> Self {
        let shown = zone.to_datetime(instant);
        let twice = zone.to_ambiguous_timestamp(shown);
        let second_time =
            matches!(twice.offset(), AmbiguousOffset::Fold { .. }) && twice.later().is_ok_and(|later| later <= instant);
        let (date, time) = (shown.strftime("%Y-%m-%d").to_string(), shown.strftime("%H:%M").to_string());
        Self { date, time, second_time }
    }

    /// Whether clocks show this hour twice.
    pub fn comes_twice(&self, zone: &TimeZone) -> bool {
        let civil = date_of(&self.date).ok().zip(self.time.parse::<Time>().ok());
        civil.is_some_and(|(date, time)| {
            let found = zone.to_ambiguous_timestamp(date.to_datetime(time));
            matches!(found.offset(), AmbiguousOffset::Fold { .. })
        })
    }
}

/// The day days are counted from.
const FIRST_DAY: Date = Date::constant(1970, 1, 1);

/// A day as a number: counted from 1970-01-01, which is 0.
///
/// ```
/// use tolva_core::time::{date_of, date_of_day, day_number};
/// let day = date_of("2026-11-27")?;
/// assert_eq!((day_number(day), date_of_day(20_784)), (20_784, day));
/// # Ok::<(), tolva_core::time::WrongTime>(())
/// ```
pub fn day_number(day: Date) -> i64 {
    i64::from((day - FIRST_DAY).get_days())
}

/// The day of a number, held to what a calendar has.
pub fn date_of_day(number: i64) -> Date {
    let days = jiff::Span::new().try_days(number);
    days.and_then(|days| FIRST_DAY.checked_add(days)).unwrap_or(if number < 0 { Date::MIN } else { Date::MAX })
}

/// How many minutes after midnight a clock shows an hour: 450 for `07:30`. Nothing for what is no hour.
///
/// ```
/// use tolva_core::time::minute_of;
/// assert_eq!((minute_of("07:30"), minute_of("24:00"), minute_of("7:30")), (Some(450), None, None));
/// ```
pub fn minute_of(hour: &str) -> Option<u32> {
    let time = (hour.len() == 5).then(|| hour.parse::<Time>().ok()).flatten()?;
    Some(u32::try_from(time.hour()).ok()? * 60 + u32::try_from(time.minute()).ok()?)
}

/// What a clock shows, to the nearest minute: `19:46`.
pub fn clock(zone: &TimeZone, instant: Timestamp) -> String {
    // Half a minute on, so that what is printed is the nearest minute.
    zone.to_datetime(instant + 30.seconds()).strftime("%H:%M").to_string()
}

/// From the midnight a day begins with to the one it ends with; 23 to 25 hours apart where clocks change.
///
/// # Errors
/// A day that is none.
pub fn day(date: &str, zone: &TimeZone) -> Result<(Timestamp, Timestamp), WrongTime> {
    let midnight = |date: Date| {
        let found = zone.to_ambiguous_timestamp(date.at(0, 0, 0, 0)).compatible();
        found.map_err(|_| WrongTime::Date(date.to_string()))
    };
    let first = date_of(date)?;
    let next = first.tomorrow().map_err(|_| WrongTime::Date(date.to_string()))?;
    Ok((midnight(first)?, midnight(next)?))
}

/// A span as people say it: `1 h 06 min`, `24 min`.
pub fn span_label(minutes: f64) -> String {
    #[expect(clippy::cast_possible_truncation, reason = "a day has 1440 minutes")]
    let minutes = minutes.abs().round() as i64;
    if minutes >= 60 { format!("{} h {:02} min", minutes / 60, minutes % 60) } else { format!("{minutes} min") }
}

/// Minutes from one instant to another.
pub fn minutes_between(from: Timestamp, to: Timestamp) -> f64 {
    (to - from).as_secs_f64() / 60.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn at(date: &str, time: &str, second_time: bool) -> LocalTime {
        LocalTime { date: date.to_owned(), time: time.to_owned(), second_time }
    }

    /// Rules of the IANA time zone database: zones that are not whole hours, the date line, summer time of half an hour.
    #[rstest]
    #[case("Asia/Kathmandu", "2026-06-01", "12:00", "2026-06-01T06:15:00Z")]
    #[case("Australia/Lord_Howe", "2026-01-15", "12:00", "2026-01-15T01:00:00Z")]
    #[case("Australia/Lord_Howe", "2026-07-15", "12:00", "2026-07-15T01:30:00Z")]
    #[case("Pacific/Kiritimati", "2026-06-01", "12:00", "2026-05-31T22:00:00Z")]
    #[case("Pacific/Pago_Pago", "2026-06-01", "12:00", "2026-06-01T23:00:00Z")]
    #[case("Europe/Helsinki", "2026-08-29", "19:46", "2026-08-29T16:46:00Z")]
    fn hours_of_the_world(#[case] name: &str, #[case] date: &str, #[case] time: &str, #[case] utc: &str) {
        let zone = zone(name).expect("a zone");
        let instant = at(date, time, false).instant(&zone).expect("an instant");
        assert_eq!(instant.to_string(), utc);
        assert_eq!(LocalTime::of(instant, &zone), at(date, time, false));
    }

    #[test]
    fn an_hour_that_comes_twice() {
        let zone = zone("Europe/Helsinki").expect("a zone");
        let (first, second) = (at("2026-10-25", "03:30", false), at("2026-10-25", "03:30", true));
        assert!(first.comes_twice(&zone) && !at("2026-10-25", "05:30", false).comes_twice(&zone));
        let (one, two) = (first.instant(&zone).expect("one"), second.instant(&zone).expect("two"));
        assert!((minutes_between(one, two) - 60.0).abs() < 1e-9);
        assert_eq!(LocalTime::of(one, &zone), first);
        assert_eq!(LocalTime::of(two, &zone), second);
        let (begin, end) = day("2026-10-25", &zone).expect("a day");
        assert!((minutes_between(begin, end) - 25.0 * 60.0).abs() < 1e-9);
    }

    #[rstest]
    #[case("2026-02-30", "12:00", "2026-02-30", "date")]
    #[case("29.8.2026", "12:00", "2026-08-29", "date")]
    #[case("1850-01-01", "12:00", "1900", "date")]
    #[case("2026-08-29", "25:00", "19:46", "time")]
    #[case("2026-08-29", "7", "19:46", "time")]
    #[case("2026-03-29", "03:10", "from 03:00 to 04:00", "time")]
    fn refused(#[case] date: &str, #[case] time: &str, #[case] says: &str, #[case] field: &str) {
        let zone = zone("Europe/Helsinki").expect("a zone");
        let wrong = at(date, time, false).instant(&zone).expect_err("wrong");
        assert!(wrong.to_string().contains(says), "{wrong}");
        assert_eq!(wrong.field(), field);
    }

    /// A day that a place by the date line left out (IANA: Pacific/Apia, 30 December 2011): no panic, and no hours.
    #[test]
    fn a_day_that_never_was() {
        let zone = zone("Pacific/Apia").expect("a zone");
        let (begin, end) = day("2011-12-30", &zone).expect("its ends");
        assert!(minutes_between(begin, end).abs() < 1e-9);
        assert!(at("2011-12-30", "12:00", false).instant(&zone).is_err());
    }

    #[test]
    fn spans() {
        assert_eq!(span_label(66.4), "1 h 06 min");
        assert_eq!(span_label(24.0), "24 min");
    }
}
