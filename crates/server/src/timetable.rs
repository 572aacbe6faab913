//! A timetable of falling light as files others read: iCalendar (RFC 5545) with alarms, and CSV (RFC 4180).

use icalendar::{Alarm, Calendar, Component as _, Event, EventLike as _};
use jiff::Timestamp;
use tolva_format::as_one_line;
use tolva_wording::{FallingStep, Timetable};

/// What a step says in one line: `Shutter 1/200 to 1/125; A 1/8 to 1/16`.
fn line(step: &FallingStep) -> String {
    step.does.join("; ")
}

fn stands(step: &FallingStep) -> String {
    let flash = step.flash.as_ref().map_or_else(String::new, |flash| format!(", {flash}"));
    format!("{}, {}, {}{flash}", step.shutter, step.aperture, step.iso)
}

/// An instant as iCalendar writes it, in UTC: `20260829T164600Z`.
pub fn stamp(utc: &str) -> String {
    utc.parse::<Timestamp>().map_or_else(|_| String::new(), |at| at.strftime("%Y%m%dT%H%M%SZ").to_string())
}

/// A calendar with an event for every change and for the last minute, each with an alarm two minutes before it. `made`
/// is the instant it was made at, which the standard asks for.
pub fn calendar(table: &Timetable, title: &str, made: Timestamp) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0")).append_property(("PRODID", "-//Tolva//Falling light//EN"));
    calendar.name(&as_one_line(title));
    let marked = if table.simulated { "Simulated: " } else { "" };
    let mut add = |utc: &str, summary: String, description: String| {
        let at = stamp(utc);
        let mut event = Event::new();
        event
            .uid(&event_id(&at, &format!("{title}{summary}")))
            .summary(&format!("{marked}{summary}"))
            .description(&description)
            .add_property("DTSTAMP", made.strftime("%Y%m%dT%H%M%SZ").to_string())
            .add_property("DTSTART", &at)
            .add_property("DTEND", &at)
            .add_property("TRANSP", "TRANSPARENT");
        event.alarm(Alarm::display(&summary, -chrono::Duration::minutes(2)));
        calendar.push(event.done());
    };
    for step in &table.steps {
        let mut about = vec![stands(step), format!("Holds for {}.", step.holds)];
        about.extend(step.notes.iter().cloned());
        add(&step.utc, line(step), about.join("\n"));
    }
    if let Some(last) = &table.last {
        add(&last.utc, "Last usable minute".to_owned(), last.says.clone());
    }
    calendar.done().to_string()
}

/// The same event keeps its identity when it is exported again.
pub fn event_id(begins_with: &str, of: &str) -> String {
    format!("{begins_with}-{:016x}@tolva", fingerprint(of))
}

fn fingerprint(text: &str) -> u64 {
    text.bytes().fold(0xcbf2_9ce4_8422_2325, |sum: u64, byte| (sum ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3))
}

/// A table with a line for every change.
pub fn csv(table: &Timetable) -> String {
    let names = table.steps.first().map_or_else(Vec::new, |step| {
        step.regions
            .iter()
            .flat_map(|region| [format!("{} stops", region.name), format!("{} EV", region.name)])
            .collect()
    });
    let header = ["utc", "clock", "change", "shutter", "aperture", "iso", "flash", "holds_min"].map(str::to_owned);
    let tail = ["notes", "simulated"].map(str::to_owned);
    let steps = table.steps.iter().map(|step| {
        let mut row = vec![
            step.utc.clone(),
            step.clock.clone(),
            line(step),
            step.shutter.clone(),
            step.aperture.clone(),
            step.iso.clone(),
            step.flash.clone().unwrap_or_default(),
            format!("{:.0}", step.holds_min),
        ];
        for region in &step.regions {
            row.extend([region.together.exact.clone(), region.ev.trim_start_matches("EV ").to_owned()]);
        }
        row.extend([step.notes.join(" "), if table.simulated { "yes" } else { "no" }.to_owned()]);
        row
    });
    crate::table::csv(std::iter::once(header.into_iter().chain(names).chain(tail).collect()).chain(steps))
}
