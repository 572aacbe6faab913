//! A job's day as files others read: iCalendar (RFC 5545) with alarms, and CSV (RFC 4180).

use icalendar::{Alarm, Calendar, Component as _, Event, EventLike as _};
use jiff::Timestamp;
use tolva_format::as_one_line;
use tolva_wording::{DayPlan, PackList};

use crate::table;
use crate::timetable::{event_id, stamp};

/// A calendar with an event for each setup, from building to done, with an alarm a quarter of an hour before it. `made` is
/// the instant it was made at, which the standard asks for.
pub fn calendar(day: &DayPlan, title: &str, made: Timestamp) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0")).append_property(("PRODID", "-//Tolva//Day plan//EN"));
    calendar.name(&as_one_line(title));
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
    let head = ["setup", "builds", "shoots", "done", "shoots_utc", "done_utc", "says"];
    let slots = day.slots.iter().map(|slot| {
        [&slot.name, &slot.builds, &slot.shoots, &slot.done, &slot.utc, &slot.done_utc, &slot.says].map(String::as_str)
    });
    let left_out = day.left_out.iter().map(|one| [&one.name, "", "", "", "", "", &one.says]);
    table::csv(std::iter::once(head).chain(slots).chain(left_out))
}

/// A table with a line for each thing that is carried.
pub fn pack_csv(list: &PackList) -> String {
    let head = ["kind", "name", "count", "weight_kg", "says"].map(str::to_owned);
    let rows = list.items.iter().map(|item| {
        let weight = item.weight_kg.map_or_else(String::new, |weight| format!("{weight:.1}"));
        [item.heading.to_owned(), item.name.clone(), item.number.to_string(), weight, item.says.clone()]
    });
    table::csv(std::iter::once(head).chain(rows))
}
