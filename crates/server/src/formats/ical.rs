//! The plan as iCalendar (RFC 5545): one event per sitting, alarms where the film gets ready.

use chrono::{DateTime, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ulvek_core::cup::amounts;
use ulvek_core::picture::{Need, Picture, Step};
use ulvek_core::planner::{Plan, PlannedStep, Wait, WaitReason, need_word, wet_session};
use ulvek_core::studio::{StudioDocument, taken_ml};
use uuid::Uuid;

/// Writes the plan of a studio. `stamp` is now; event ids stay the same from plan to plan, so
/// that a subscribed calendar moves events instead of doubling them.
pub fn calendar(
    studio: Uuid,
    document: &StudioDocument,
    plan: &Plan,
    stamp: DateTime<Utc>,
) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0"));
    calendar.append_property(("PRODID", "-//Ulvek//Ulvek 0.1//EN"));
    calendar.append_property(("CALSCALE", "GREGORIAN"));
    calendar.name(&one_line(&format!("{} - Ulvek", document.name)));
    for planned in &plan.steps {
        let picture = &document.pictures[planned.picture];
        let step = &picture.steps[planned.step];
        let pieces = planned.sittings.len();
        for (n, sitting) in planned.sittings.iter().enumerate() {
            let part = if pieces > 1 { format!(" ({} of {pieces})", n + 1) } else { String::new() };
            let uid = one_line(&format!("{studio}-{}-{}-{n}@ulvek", picture.id, step.id));
            let mut event = Event::new();
            event
                .uid(&uid)
                .timestamp(stamp)
                .summary(&one_line(&format!("{}: {}{part}", picture.title, step.title())))
                .starts(sitting.from)
                .ends(sitting.to);
            let cup = cup_line(document, picture, step).filter(|_| n == 0);
            let wait = planned.wait.as_ref().filter(|_| n == 0);
            let because = wait.map(|w| format!("{}.", why(w, picture.steps[w.of].title())));
            let aside = if n == 0 { beside(document, planned) } else { Vec::new() };
            let said: Vec<String> = because.into_iter().chain(cup).chain(aside).collect();
            if !said.is_empty() {
                event.description(&said.join("\n"));
            }
            if let Some(wet) = wet_session(document, planned).filter(|_| n == 0) {
                let ahead = wet.humidifier_on - sitting.from;
                let mut alarm = Alarm::display("Humidifier on", ahead);
                event.alarm(alarm.uid(&format!("humidifier-{uid}")).done());
            }
            if let Some(wait) = wait {
                let ready = wait.film_ready.filter(|at| *at > stamp && *at <= sitting.from);
                if let (Some(at), Some(said)) = (ready, alarm_text(wait, &picture.title)) {
                    let mut alarm = Alarm::display(&one_line(&said), at - sitting.from);
                    event.alarm(alarm.uid(&format!("ready-{uid}")).done());
                }
            }
            calendar.push(event.done());
        }
    }
    calendar.to_string()
}

/// A text in which nothing begins a line of its own.
fn one_line(text: &str) -> String {
    text.chars().map(|c| if c.is_control() { ' ' } else { c }).collect()
}

/// What to do before and during a long wet session, each in a sentence.
pub fn beside(document: &StudioDocument, planned: &PlannedStep) -> Vec<String> {
    let Some(wet) = wet_session(document, planned) else { return Vec::new() };
    let on = wet.humidifier_on.with_timezone(&document.hours.zone());
    vec![
        format!("Humidifier on from {}.", on.format("%H:%M")),
        format!("Mist the palette, not the picture, every {} min.", wet.mist_every.num_minutes()),
    ]
}

/// What to mix for a step, in a line: "Mix 9.4 ml: 8.5 ml Glazing liquid + 0.9 ml Ultramarine PB29."
/// `None` when nothing is mixed for it.
pub fn cup_line(document: &StudioDocument, picture: &Picture, step: &Step) -> Option<String> {
    let total = taken_ml(picture, step)?;
    if let Some(tub) = step.tub.as_deref().and_then(|id| document.tub(id)) {
        return Some(format!("Take {total:.1} ml from the tub {}.", tub.name));
    }
    let parts = amounts(&step.mix, total, &document.materials).ok()?;
    let name = |id: &str| document.material(id).map_or_else(|| id.to_owned(), |m| m.name.clone());
    if let [only] = parts.as_slice() {
        return Some(format!("Take {total:.1} ml {}.", name(&only.material)));
    }
    let said: Vec<String> =
        parts.iter().map(|a| format!("{:.1} ml {}", a.ml, name(&a.material))).collect();
    Some(format!("Mix {total:.1} ml: {}.", said.join(" + ")))
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
        WaitReason::Retarder => "longer than usual, because retarder is in the stack",
        WaitReason::SolventOverWater => "three days before solvent varnish over a water-borne coat",
        WaitReason::FreshEyes => "a night, to look at it with fresh eyes",
        WaitReason::BetweenVarnish => "the gap between varnish coats",
        WaitReason::Gap => "the gap you asked for",
        WaitReason::NotBefore => "the date you set",
        WaitReason::FlatPlace => "a flat place that comes free",
        WaitReason::Pinned => "the time you pinned it to",
    };
    format!("Waits after {below}: {reason}")
}
