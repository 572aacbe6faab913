//! A job's day as files others read: iCalendar (RFC 5545) with alarms, and CSV (RFC 4180).

use icalendar::{Alarm, Calendar, Component as _, Event, EventLike as _};
use jiff::Timestamp;
use tolva_format::harmless;
use tolva_wording::DayPlan;

use crate::timetable::{event_id, stamp};

/// A calendar with an event for each setup, from building to done, with an alarm a quarter of an hour before it. `made` is
/// the instant it was made at, which the standard asks for.
pub fn calendar(day: &DayPlan, title: &str, made: Timestamp) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0")).append_property(("PRODID", "-//Tolva//Day plan//EN"));
    calendar.name(title);
    for slot in &day.slots {
        let mut event = Event::new();
        event
            .uid(&event_id(&slot.setup_id, title))
            .summary(&slot.name)
            .description(&slot.says)
            .add_property("DTSTAMP", made.strftime("%Y%m%dT%H%M%SZ").to_string())
            .add_property("DTSTART", stamp(&slot.utc))
            .add_property("DTEND", stamp(&slot.done_utc));
        event.alarm(Alarm::display(&slot.says, -chrono::Duration::minutes(15)));
        calendar.push(event.done());
    }
    calendar.done().to_string()
}

/// A table with a line for each setup, in the order they are shot; those that do not fit come last, without hours.
pub fn csv(day: &DayPlan) -> String {
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    let mut write = |row: [&str; 7]| {
        // Writing to memory cannot fail.
        let _ = writer.write_record(row.iter().map(|cell| harmless(cell).into_owned()));
    };
    write(["setup", "builds", "shoots", "done", "shoots_utc", "done_utc", "says"]);
    for slot in &day.slots {
        write([&slot.name, &slot.builds, &slot.shoots, &slot.done, &slot.utc, &slot.done_utc, &slot.says]);
    }
    for one in &day.left_out {
        write([&one.name, "", "", "", "", "", &one.says]);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}
