//! `ulvek plan`: when to do each step.

use super::at_second;
use crate::formats::Moment;
use chrono::{DateTime, Utc};
use serde_json::{Value, json};
use std::time::{Duration, Instant};
use ulvek_core::planner::{
    Aim, Link, Objective, PictureOdds, Plan, Planner, Request, SEED, futures_for, holds, moderate,
    odds as sample, promise, ready, threads,
};
use ulvek_core::studio::Studio;
use ulvek_core::time::seconds;

/// How hard `ulvek plan` tries.
#[derive(Debug, Clone, Copy, Default)]
pub struct Effort {
    /// Seconds of search; without it a moderate effort that no clock decides.
    pub seconds: Option<f64>,
    /// Futures sampled for the odds; without it as many as the page samples, fewer of a large studio.
    pub sampled: Option<u32>,
}

/// Plans every step that is not laid, from `from` on.
///
/// `bound` is what no plan beats. Of a picture `ready` says when it is surely ready, `likely` when it is in half of the
/// futures, and `odds` the share of futures in which it is by its due day, never told as certain; `said` is the sentence
/// for its date. `search` says how many orders of work were tried, and whether nothing better is known of.
pub fn plan(studio: &Studio, from: DateTime<Utc>, effort: Effort) -> Value {
    let begun = Instant::now();
    let mut planner = Planner::new(Request { studio, from });
    let steps_left = planner.steps_left();
    let limit = effort.seconds.and_then(|s| Duration::try_from_secs_f64(s).ok());
    let threads = threads();
    match limit {
        // With a clock running every core looks, each from a seed of its own.
        Some(limit) => {
            let seeds: Vec<u64> = (0..threads as u64).map(|n| SEED + n).collect();
            planner.improve_beside(&seeds, u64::MAX / 2, |_| begun.elapsed() < limit);
        }
        None => {
            planner.improve(SEED, u64::MAX / 2, |progress| moderate(steps_left, progress));
        }
    }
    let made = planner.plan();
    let futures = effort.sampled.map_or_else(|| futures_for(steps_left), |n| n as usize);
    let request = Request { studio, from };
    let odds = sample(
        request,
        (&planner.order(), &planner.plan().held),
        SEED,
        (futures, threads),
        Aim::Ready,
        |_| {},
    );
    let bound = planner.bound();
    json!({
        "steps": steps(studio, &made),
        "pictures": pictures(studio, &made, &odds, from),
        "objective": objective(&made.objective),
        "bound": objective(&bound),
        "search": { "tried": planner.tried(), "at_bound": planner.is_at_bound() },
    })
}

fn objective(objective: &Objective) -> Value {
    json!({
        "weighted_days_late": objective.weighted_days_late,
        "sum_of_finish_min": objective.sum_of_finish_min,
        "set_ups": objective.set_ups,
        "past_tubs": objective.past_tubs,
    })
}

fn steps(studio: &Studio, made: &Plan) -> Vec<Value> {
    let local = |at: DateTime<Utc>| -> Moment { at_second(seconds(at), studio) };
    made.steps
        .iter()
        .map(|planned| {
            let picture = &studio.pictures[planned.picture];
            let sittings: Vec<Value> = planned
                .sittings
                .iter()
                .map(|s| json!({ "from": local(s.from), "to": local(s.to) }))
                .collect();
            let waits_for = planned.wait.as_ref().map(|wait| {
                json!({
                    "state": wait.state,
                    "of": wait.of.map(|of| &picture.steps[of].id),
                    "until": local(wait.until),
                    "lag_min": wait.lag_min.round(),
                    "because": wait.said(picture),
                })
            });
            let mut row = json!({
                "picture": picture.id,
                "step": picture.steps[planned.step].id,
                "sittings": sittings,
                "waits_for": waits_for,
            });
            if let Some(pin) = planned.pin.as_ref().and_then(|pin| pin.said(studio)) {
                row["pin"] = json!(pin);
            }
            if let Some(blocked) = &planned.blocked {
                row["cannot_be_placed"] = json!(blocked.to_string());
            }
            row
        })
        .collect()
}

fn pictures(studio: &Studio, made: &Plan, odds: &[PictureOdds], from: DateTime<Utc>) -> Vec<Value> {
    made.pictures
        .iter()
        .map(|outcome| {
            let p = outcome.picture;
            let finish = outcome.finish.map(|at| at_second(seconds(at), studio));
            let safe = ready(studio, made, p).ok();
            let sampled = odds.iter().find(|o| o.picture == p);
            let said = safe.map(|safe| promise(studio, p, &safe, sampled, from).said);
            json!({
                "id": studio.pictures[p].id,
                "finish": finish,
                "due": outcome.due,
                "days_late": outcome.finish.zip(outcome.due).map(|(at, due)| studio.hours.days_late(at, due)),
                "ready": safe.and_then(|s| s.at).map(|at| at_second(seconds(at), studio)),
                "ready_days_late": safe.and_then(|s| s.days_late),
                "likely": sampled.and_then(PictureOdds::likely).map(|at| at_second(seconds(at), studio)),
                "odds": sampled.and_then(|o| outcome.due.map(|due| o.told_by(due))),
                "said": said,
                "sure_day": sampled.and_then(PictureOdds::sure_day),
                "held_by": held_by(studio, made, p, from),
            })
        })
        .collect()
}

/// The chain of steps and waits behind the end of a picture.
fn held_by(studio: &Studio, made: &Plan, p: usize, from: DateTime<Utc>) -> Vec<Value> {
    let picture = &studio.pictures[p];
    let link = |link: &Link| {
        json!({
            "step": picture.steps[link.step].id,
            "because": link.because(picture),
            "then_waits_for": link.then(studio),
            "idle_min": link.idle_min.round(),
        })
    };
    holds(studio, made, p, from).iter().map(link).collect()
}
