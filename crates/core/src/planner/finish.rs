//! From a schedule to a plan that can be shown.

use super::decode::Schedule;
use super::problem::Problem;
use super::score::Score;
use super::{Blocked, Objective, PictureOutcome, Plan, PlannedStep, Sitting};
use crate::time::{MINUTE_S, whole_instant};
use chrono::{DateTime, Utc};

impl From<Score> for Objective {
    fn from(score: Score) -> Self {
        Self {
            weighted_days_late: score.late,
            sum_of_finish_min: score.sum as f64 / MINUTE_S,
            set_ups: score.set_ups,
            past_tubs: score.past_tubs,
        }
    }
}

/// The plan in instants, in order of time, with what stands on blocked steps at its end.
pub(super) fn plan_of(problem: &Problem<'_>, schedule: &Schedule) -> Plan {
    let studio = problem.studio;
    let mut steps: Vec<PlannedStep> = schedule
        .placed
        .iter()
        .map(|placed| {
            let sitting =
                |s: &(i64, i64)| Sitting { from: whole_instant(s.0), to: whole_instant(s.1) };
            let pinned = studio.pictures[placed.picture].steps[placed.step].pinned_at;
            PlannedStep {
                picture: placed.picture,
                step: placed.step,
                sittings: placed.slot.sittings.iter().map(sitting).collect(),
                wait: placed.wait.clone(),
                pin: pinned
                    .map(|_| problem.pins.stood((placed.picture, placed.step), placed.slot.from())),
                blocked: None,
            }
        })
        .collect();
    steps.sort_by_key(|s| s.sittings.first().map_or(DateTime::<Utc>::MAX_UTC, |x| x.from));
    for (p, step, why) in &schedule.blocked {
        steps.push(blocked(*p, *step, why.clone()));
    }
    let mut pictures = Vec::new();
    for (p, picture) in studio.pictures.iter().enumerate() {
        for (i, step) in picture.steps.iter().enumerate() {
            let known = steps.iter().any(|s| s.picture == p && s.step == i);
            if step.laid_at.is_none() && !known {
                steps.push(blocked(p, i, Blocked::Below));
            }
        }
        let mine = || steps.iter().filter(|s| s.picture == p);
        let whole = !picture.steps.is_empty() && mine().all(|s| s.blocked.is_none());
        let planned = mine().flat_map(|s| s.sittings.iter().map(|x| x.to)).max();
        let laid = picture.steps.iter().filter_map(|s| s.laid_at).max();
        let finish = if whole { planned.max(laid) } else { None };
        // What nothing is left to do on is ready when it was done.
        let left = problem.tasks[p].iter().any(Option::is_some);
        let ready = if left { schedule.progress[p].ready.map(whole_instant) } else { finish };
        let ready = ready.filter(|_| finish.is_some());
        let days_late = match (ready, picture.due) {
            (Some(at), Some(due)) => Some(studio.hours.days_late(at, due)),
            _ => None,
        };
        pictures.push(PictureOutcome { picture: p, finish, ready, due: picture.due, days_late });
    }
    let mut objective = Objective::from(schedule.score);
    // A picture that is done keeps the days it was late by.
    objective.weighted_days_late = pictures
        .iter()
        .map(|o| studio.pictures[o.picture].weight * o.days_late.unwrap_or(0) as f64)
        .sum();
    Plan { steps, pictures, objective, held: problem.held_back() }
}

fn blocked(picture: usize, step: usize, why: Blocked) -> PlannedStep {
    PlannedStep { picture, step, sittings: Vec::new(), wait: None, pin: None, blocked: Some(why) }
}
