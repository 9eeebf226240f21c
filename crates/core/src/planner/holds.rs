//! What holds a picture: the chain of steps and waits that fixes its end.

use super::{Plan, PlannedStep};
use crate::readiness::Wait;
use crate::studio::Studio;
use crate::time::minutes_between;
use chrono::{DateTime, Utc};

/// Why a step is not done earlier, when its own wait is over.
#[derive(Debug, Clone, PartialEq)]
pub enum Held {
    /// It starts as soon as its wait is over.
    Wait,
    /// The wait is over outside the painter's hours: the next hours decide.
    Hours,
    /// The painter is at another step then: picture and step.
    Work(usize, usize),
}

/// One link of the chain.
#[derive(Debug, Clone, PartialEq)]
pub struct Link {
    /// Index of the step in the picture.
    pub step: usize,
    /// When it begins.
    pub from: DateTime<Utc>,
    /// When it is done.
    pub to: DateTime<Utc>,
    /// What it waits for; `None` when it stands on nothing.
    pub wait: Option<Wait>,
    /// What keeps it after that.
    pub held: Held,
    /// Minutes between the end of the wait and the beginning.
    pub idle_min: f64,
}

/// The chain behind the end of picture `p`, from its first planned step to its last: each link
/// stands on the one before it.
pub fn holds(studio: &Studio, plan: &Plan, p: usize, from: DateTime<Utc>) -> Vec<Link> {
    let mine: Vec<&PlannedStep> =
        plan.steps.iter().filter(|s| s.picture == p && !s.sittings.is_empty()).collect();
    let mut chain = Vec::new();
    let mut at = mine.iter().max_by_key(|s| s.sittings.last().map(|x| x.to)).copied();
    while let Some(step) = at {
        let (Some(first), Some(last)) = (step.sittings.first(), step.sittings.last()) else {
            break;
        };
        let ready = step.wait.as_ref().map_or(from, |w| w.until.max(from));
        let work = plan
            .steps
            .iter()
            .filter(|s| (s.picture, s.step) != (step.picture, step.step))
            .flat_map(|s| s.sittings.iter().map(move |x| (x, s)))
            .filter(|(x, _)| x.to > ready && x.from < first.from)
            .max_by_key(|(x, _)| x.to);
        let idle_min = minutes_between(ready, first.from);
        let held = match work {
            // A set-up is work, not a wait.
            _ if idle_min <= studio.setup_min + 1.0 => Held::Wait,
            Some((_, other)) => Held::Work(other.picture, other.step),
            None => Held::Hours,
        };
        chain.push(Link {
            step: step.step,
            from: first.from,
            to: last.to,
            wait: step.wait.clone(),
            held,
            idle_min,
        });
        let of = step.wait.as_ref().and_then(|w| w.of);
        at = mine.iter().copied().find(|s| Some(s.step) == of && s.step != step.step);
    }
    chain.reverse();
    chain
}
