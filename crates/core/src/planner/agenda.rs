//! The plan as painters are told it: sitting by sitting, with what to mix, what to do beside it, and
//! when the film below gets ready.

use super::holds::{Held, Link};
use super::remind::{MIST_EVERY, wet_session};
use super::{Plan, PlannedStep, Sitting};
use crate::cup::{amounts, ml_said};
use crate::mix::find;
use crate::picture::{Need, Picture, Step};
use crate::studio::{Shortage, Studio, taken_ml};
use chrono::{DateTime, Utc};

/// One sitting, with what is said of it. What belongs to the beginning of a step stands at its first
/// sitting alone.
#[derive(Debug, Clone, PartialEq)]
pub struct AgendaEntry {
    /// Index of the picture.
    pub picture: usize,
    /// Index of the step in the picture.
    pub step: usize,
    /// Which of its sittings it is, from 0.
    pub n: usize,
    /// How many there are.
    pub of: usize,
    /// Start of hands-on work.
    pub from: DateTime<Utc>,
    /// End.
    pub to: DateTime<Utc>,
    /// Why not before, as a sentence without its end.
    pub because: Option<String>,
    /// What to mix, in a line.
    pub cup: Option<String>,
    /// What to do beside it.
    pub beside: Vec<String>,
    /// What rings, and when.
    pub alarms: Vec<Alarm>,
}

/// Something that rings.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Alarm {
    /// What it is, in a word: stays the same from plan to plan.
    pub name: &'static str,
    /// When.
    pub at: DateTime<Utc>,
    /// What is said.
    pub said: String,
}

/// Every sitting of `plan`, in its order.
pub fn agenda(studio: &Studio, plan: &Plan) -> Vec<AgendaEntry> {
    plan.steps.iter().flat_map(|planned| sittings(studio, plan, planned)).collect()
}

fn sittings(studio: &Studio, plan: &Plan, planned: &PlannedStep) -> Vec<AgendaEntry> {
    let picture = &studio.pictures[planned.picture];
    let step = &picture.steps[planned.step];
    let of = planned.sittings.len();
    let one = |(n, sitting): (usize, &Sitting)| {
        let first = n == 0;
        let wait = planned.wait.as_ref().filter(|_| first);
        AgendaEntry {
            picture: planned.picture,
            step: planned.step,
            n,
            of,
            from: sitting.from,
            to: sitting.to,
            because: wait.map(|w| w.said(picture)),
            cup: cup_line(studio, picture, step).filter(|_| first),
            beside: if first { beside(studio, plan, planned) } else { Vec::new() },
            alarms: if first { alarms(studio, plan, planned) } else { Vec::new() },
        }
    };
    planned.sittings.iter().enumerate().map(one).collect()
}

/// What to do before and during a long wet session, each in a sentence.
fn beside(studio: &Studio, plan: &Plan, planned: &PlannedStep) -> Vec<String> {
    let Some(wet) = wet_session(studio, plan, planned) else { return Vec::new() };
    let on = wet.humidifier_on.with_timezone(&studio.hours.zone());
    vec![
        format!("Humidifier on from {}.", on.format("%H:%M")),
        format!("Mist the palette, not the picture, every {} min.", MIST_EVERY.num_minutes()),
    ]
}

/// Alarms ring for the humidifier, and when the film becomes paintable or ready to seal.
fn alarms(studio: &Studio, plan: &Plan, planned: &PlannedStep) -> Vec<Alarm> {
    let mut found = Vec::new();
    if let Some(wet) = wet_session(studio, plan, planned) {
        let said = "Humidifier on".to_owned();
        found.push(Alarm { name: "humidifier", at: wet.humidifier_on, said });
    }
    let Some(wait) = &planned.wait else { return found };
    let rings = matches!(wait.state, Need::Paintable | Need::ReadyToSeal);
    if let Some(at) = wait.film_ready.filter(|_| rings) {
        let title = &studio.pictures[planned.picture].title;
        found.push(Alarm { name: "ready", at, said: format!("{title}: {}", wait.state.word()) });
    }
    found
}

/// What to mix for a step, in a line: "Mix 9.4 ml: 8.5 ml Glazing liquid + 0.94 ml Ultramarine PB29,
/// 19 drops."
/// `None` when nothing is mixed for it.
fn cup_line(studio: &Studio, picture: &Picture, step: &Step) -> Option<String> {
    let total = taken_ml(picture, step)?;
    if let Some(tub) = step.tub.as_deref().and_then(|id| studio.tub(id)) {
        return Some(format!("Take {} from the tub {}.", ml_said(total), tub.name));
    }
    let parts = amounts(&step.mix, total, &studio.materials).ok()?;
    let name = |id: &str| find(&studio.materials, id).map_or(id, |m| m.name.as_str()).to_owned();
    if let [only] = parts.as_slice() {
        return Some(format!("Take {}.", only.said(&name(&only.material))));
    }
    let said: Vec<String> = parts.iter().map(|a| a.said(&name(&a.material))).collect();
    Some(format!("Mix {}: {}.", ml_said(total), said.join(" + ")))
}

/// What `plan` runs short of, each with the sitting at which it does.
pub fn shortages(studio: &Studio, plan: &Plan) -> Vec<(Shortage, Option<DateTime<Utc>>)> {
    let starts = |s: &PlannedStep| s.sittings.first().map(|x| x.from);
    let mut work: Vec<_> =
        plan.steps.iter().filter_map(|s| Some((starts(s)?, (s.picture, s.step)))).collect();
    work.sort_unstable();
    let order: Vec<_> = work.iter().map(|(_, at)| *at).collect();
    let begins = |at: (usize, usize)| work.iter().find(|(_, of)| *of == at).map(|(from, _)| *from);
    studio
        .shortages(&order)
        .into_iter()
        .map(|short| (begins(short.at), short))
        .map(|(at, short)| (short, at))
        .collect()
}

impl Link {
    /// Why the step does not begin with the end of the one before, as a sentence without its end.
    pub fn because(&self, picture: &Picture) -> Option<String> {
        self.wait.as_ref().map(|w| w.said(picture))
    }

    /// What keeps the step when its own wait is over: the painter's hours, or other work.
    pub fn then(&self, studio: &Studio) -> Option<String> {
        match self.held {
            Held::Wait => None,
            Held::Hours => Some("your next hours".to_owned()),
            Held::Work(q, i) => {
                let other = &studio.pictures[q];
                Some(format!("{} of {}", other.steps[i].called(), other.title))
            }
        }
    }
}
