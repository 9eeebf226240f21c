//! The plan as iCalendar (RFC 5545): one event per sitting, alarms where the film gets ready.

use chrono::{DateTime, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ulvek_core::planner::{Plan, agenda};
use ulvek_core::studio::Studio;
use uuid::Uuid;

/// Writes the plan of a studio. `stamp` is now; event ids stay the same from plan to plan, so
/// that a subscribed calendar moves events instead of doubling them.
pub fn calendar(id: Uuid, studio: &Studio, plan: &Plan, stamp: DateTime<Utc>) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0"));
    calendar.append_property(("PRODID", "-//Ulvek//Ulvek 0.1//EN"));
    calendar.append_property(("CALSCALE", "GREGORIAN"));
    calendar.name(&one_line(&format!("{} - Ulvek", studio.name)));
    for sitting in agenda(studio, plan) {
        let picture = &studio.pictures[sitting.picture];
        let step = &picture.steps[sitting.step];
        let (n, of) = (sitting.n, sitting.of);
        let part = if of > 1 { format!(" ({} of {of})", n + 1) } else { String::new() };
        let uid = one_line(&format!("{id}-{}-{}-{n}@ulvek", picture.id, step.id));
        let mut event = Event::new();
        event
            .uid(&uid)
            .timestamp(stamp)
            .summary(&one_line(&format!("{}: {}{part}", picture.title, step.called())))
            .starts(sitting.from)
            .ends(sitting.to);
        let because = sitting.because.map(|why| format!("{why}."));
        let said: Vec<String> =
            because.into_iter().chain(sitting.cup).chain(sitting.beside).collect();
        if !said.is_empty() {
            event.description(&said.join("\n"));
        }
        // What rings after the work has begun, or before now, is of no use.
        let rings = |at: DateTime<Utc>| at > stamp && at <= sitting.from;
        for alarm in sitting.alarms.iter().filter(|a| a.name == "humidifier" || rings(a.at)) {
            let mut written = Alarm::display(&one_line(&alarm.said), alarm.at - sitting.from);
            event.alarm(written.uid(&format!("{}-{uid}", alarm.name)).done());
        }
        calendar.push(event.done());
    }
    calendar.to_string()
}

/// A text in which nothing begins a line of its own.
fn one_line(text: &str) -> String {
    text.chars().map(|c| if c.is_control() { ' ' } else { c }).collect()
}
