//! The plan as iCalendar (RFC 5545): one event per sitting, alarms where the film gets ready, and the day each picture is
//! due.

use chrono::{DateTime, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ulvek_core::planner::{Plan, agenda};
use ulvek_core::studio::Studio;
use uuid::Uuid;

/// Writes the plan of a studio, and what is said of the dates of some pictures. `stamp` is now; event ids stay the same
/// from plan to plan, so that a subscribed calendar moves events instead of doubling them.
pub fn calendar(
    id: Uuid,
    studio: &Studio,
    (plan, dates): (&Plan, &[(usize, String)]),
    stamp: DateTime<Utc>,
) -> String {
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
    for (p, said) in dates {
        let picture = &studio.pictures[*p];
        let Some(due) = picture.due else { continue };
        let mut event = Event::new();
        event
            .uid(&one_line(&format!("{id}-{}-due@ulvek", picture.id)))
            .timestamp(stamp)
            .summary(&one_line(&format!("{}: due", picture.title)))
            .starts(due)
            .description(said);
        calendar.push(event.done());
    }
    folded(&calendar.to_string())
}

/// Longest line [octets]; RFC 5545, 3.1.
const LINE: usize = 75;

/// Folds what the library wrote: it does not count the blank that a line goes on with.
fn folded(text: &str) -> String {
    let mut folded = String::with_capacity(text.len());
    for line in text.replace("\r\n ", "").split_terminator("\r\n") {
        let mut octets = 0;
        for letter in line.chars() {
            if octets + letter.len_utf8() > LINE {
                folded.push_str("\r\n ");
                octets = 1;
            }
            folded.push(letter);
            octets += letter.len_utf8();
        }
        folded.push_str("\r\n");
    }
    folded
}

/// A text in which nothing begins a line of its own.
fn one_line(text: &str) -> String {
    text.chars().map(|c| if c.is_control() { ' ' } else { c }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_line_is_longer_than_it_may_be_and_nothing_is_lost() {
        let long = "é".repeat(200) + &"x y ".repeat(60);
        let text = folded(&format!("BEGIN:VCALENDAR\r\nSUMMARY:{long}\r\nEND:VCALENDAR\r\n"));
        assert!(text.split("\r\n").all(|line| line.len() <= LINE), "{text}");
        assert!(
            text.split("\r\n").filter(|line| line.len() > LINE - 2).count() > 6,
            "lines are full"
        );
        assert_eq!(
            text.replace("\r\n ", ""),
            format!("BEGIN:VCALENDAR\r\nSUMMARY:{long}\r\nEND:VCALENDAR\r\n")
        );
        assert_eq!(folded(&text), text, "folded once is folded");
    }
}
