//! The plan as iCalendar (RFC 5545): one event per sitting, alarms where the film gets ready.

use chrono::{DateTime, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ulvek_core::picture::Need;
use ulvek_core::planner::{Plan, Wait, WaitReason, need_word};
use ulvek_core::studio::StudioDocument;

/// Writes the plan of a studio. `stamp` is now; event ids stay the same from plan to plan, so
/// that a subscribed calendar moves events instead of doubling them.
pub fn calendar(document: &StudioDocument, plan: &Plan, stamp: DateTime<Utc>) -> String {
    let mut calendar = Calendar::new();
    calendar.append_property(("PRODID", "-//Ulvek//Ulvek 0.1//EN"));
    calendar.name(&format!("{} - Ulvek", document.name));
    for planned in &plan.steps {
        let picture = &document.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        let pieces = planned.sittings.len();
        for (n, sitting) in planned.sittings.iter().enumerate() {
            let part = if pieces > 1 { format!(" ({} of {pieces})", n + 1) } else { String::new() };
            let mut event = Event::new();
            event
                .uid(&format!("{}-{}-{n}@ulvek", picture.id, step.id))
                .timestamp(stamp)
                .summary(&format!("{}: {}{part}", picture.title, step.title()))
                .starts(sitting.from)
                .ends(sitting.to);
            if let Some(wait) = planned.wait.as_ref().filter(|_| n == 0) {
                let below = picture.steps[wait.of].title();
                event.description(&format!("{}.", why(wait, below)));
                let ready = wait.film_ready.filter(|at| *at > stamp && *at <= sitting.from);
                if let (Some(at), Some(said)) = (ready, alarm_text(wait, &picture.title)) {
                    event.alarm(Alarm::display(&said, at - sitting.from));
                }
            }
            calendar.push(event.done());
        }
    }
    calendar.to_string()
}

/// Alarms ring when the film becomes paintable or ready to seal.
fn alarm_text(wait: &Wait, title: &str) -> Option<String> {
    matches!(wait.state, Need::Paintable | Need::ReadyToSeal)
        .then(|| format!("{title}: {}", need_word(wait.state)))
}

/// Why a step waits for the one called `below`, in words.
pub fn why(wait: &Wait, below: &str) -> String {
    let reason = match wait.reason {
        WaitReason::Film => {
            return format!("Waits for {below} to be {}", need_word(wait.state));
        }
        WaitReason::Order => return format!("Comes after {below}"),
        WaitReason::School => "the studio's waiting time before varnish",
        WaitReason::SlowPaint => "two weeks, because slow-drying paint is in the stack",
        WaitReason::FreshEyes => "a night, to look at it with fresh eyes",
        WaitReason::BetweenVarnish => "the gap between varnish coats",
        WaitReason::Gap => "the gap you asked for",
        WaitReason::NotBefore => "the date you set",
        WaitReason::FlatPlace => "a flat place that comes free",
    };
    format!("Waits after {below}: {reason}")
}
