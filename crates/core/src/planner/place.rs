//! The constructive planner: always place the step that can start first.

use super::calendar::{Bench, Calendar, Slot};
use super::readiness::Bed;
use super::{Blocked, Objective, PictureOutcome, Plan, PlannedStep, Request, Wait, WaitReason};
use crate::picture::Picture;
use chrono::{DateTime, Duration, Utc};

/// How far ahead hours are looked for [days]. [practice]
const HOURS_AHEAD_DAYS: i64 = 730;

/// A step that could be placed next.
struct Candidate {
    step: usize,
    slot: Slot,
    bench: Bench,
    wait: Option<Wait>,
    holds_until: Option<DateTime<Utc>>,
}

/// Plans every step that is still to do, from `request.from` on.
pub fn plan(request: Request<'_>) -> Plan {
    let document = request.document;
    let request = Request { from: whole_minute(request.from), ..request };
    let horizon = request.from + Duration::days(HOURS_AHEAD_DAYS);
    let mut calendar = Calendar::new(&document.hours, request.from, horizon, document.setup_min);
    let mut steps = Vec::new();
    let mut beds: Vec<Option<Bed<'_>>> = Vec::new();
    for (p, picture) in document.pictures.iter().enumerate() {
        match Bed::new(document, picture) {
            Ok(bed) => beds.push(Some(bed)),
            Err((step, why)) => {
                steps.push(blocked_step(p, step, why));
                beds.push(None);
            }
        }
    }
    let mut held: Vec<(DateTime<Utc>, DateTime<Utc>)> = Vec::new();
    let mut objective = Objective::default();
    let mut offers: Vec<Option<Candidate>> = beds.iter().map(|_| None).collect();
    loop {
        for p in 0..beds.len() {
            let stale = offers[p]
                .as_ref()
                .is_none_or(|c| !still_free(&calendar, document.pictures.get(p), c, request.from));
            if !stale {
                continue;
            }
            let Some(bed) = &mut beds[p] else { continue };
            offers[p] = match offer(p, bed, &calendar, &held, request) {
                Ok(found) => found,
                Err((step, why)) => {
                    steps.push(blocked_step(p, step, why));
                    beds[p] = None;
                    None
                }
            };
        }
        let next = offers
            .iter()
            .enumerate()
            .filter_map(|(p, c)| c.as_ref().map(|c| (start(c), due(document.pictures.get(p)), p)))
            .min();
        let Some((.., p)) = next else { break };
        let Some(chosen) = offers[p].take() else { break };
        calendar.take(&chosen.slot, &chosen.bench);
        objective.set_ups += chosen.slot.set_ups;
        let end = chosen.slot.sittings.last().map_or(request.from, |s| s.to);
        if let Some(until) = chosen.holds_until {
            held.push((start(&chosen), until));
        }
        if let Some(bed) = &mut beds[p]
            && let Err((step, why)) = bed.finish(chosen.step, end)
        {
            steps.push(blocked_step(p, step, why));
            beds[p] = None;
            continue;
        }
        steps.push(PlannedStep {
            picture: p,
            step: chosen.step,
            sittings: chosen.slot.sittings,
            wait: chosen.wait,
            blocked: None,
        });
    }
    finish(request, steps, objective)
}

fn start(candidate: &Candidate) -> DateTime<Utc> {
    candidate.slot.sittings.first().map_or(DateTime::<Utc>::MAX_UTC, |s| s.from)
}

fn due(picture: Option<&Picture>) -> chrono::NaiveDate {
    picture.and_then(|p| p.due).unwrap_or(chrono::NaiveDate::MAX)
}

fn blocked_step(picture: usize, step: usize, why: Blocked) -> PlannedStep {
    PlannedStep { picture, step, sittings: Vec::new(), wait: None, blocked: Some(why) }
}

/// Whether an offer made earlier would be made again: its time was not taken in between.
fn still_free(
    calendar: &Calendar,
    picture: Option<&Picture>,
    candidate: &Candidate,
    from: DateTime<Utc>,
) -> bool {
    let Some(step) = picture.and_then(|p| p.steps.get(candidate.step)) else { return false };
    if candidate.holds_until.is_some() {
        return false;
    }
    let ready = whole_minute(candidate.wait.as_ref().map_or(from, |w| w.until.max(from)));
    let again = calendar.find(ready, step.hands_on_min, step.splittable, &candidate.bench);
    again.is_ok_and(|slot| slot == candidate.slot)
}

/// The step of one picture that can start first, with its place.
fn offer(
    p: usize,
    bed: &mut Bed<'_>,
    calendar: &Calendar,
    held: &[(DateTime<Utc>, DateTime<Utc>)],
    request: Request<'_>,
) -> Result<Option<Candidate>, (usize, Blocked)> {
    let mut best: Option<Candidate> = None;
    for step in bed.open() {
        let (ready, wait) = bed.ready(step).map_err(|why| (step, why))?;
        let found = place(p, step, bed, calendar, held, request, (ready, wait))
            .map_err(|why| (step, why))?;
        if best.as_ref().is_none_or(|b| start(&found) < start(b)) {
            best = Some(found);
        }
    }
    Ok(best)
}

/// The first place for one step; wet sealing coats also need a flat place until touch-dry.
fn place(
    p: usize,
    step: usize,
    bed: &Bed<'_>,
    calendar: &Calendar,
    held: &[(DateTime<Utc>, DateTime<Utc>)],
    request: Request<'_>,
    (ready, mut wait): (Option<DateTime<Utc>>, Option<Wait>),
) -> Result<Candidate, Blocked> {
    let s = &bed.picture.steps[step];
    let bench =
        Bench { picture: p, mix: s.mix.iter().map(|m| (m.material.clone(), m.parts)).collect() };
    let mut not_before = whole_minute(ready.unwrap_or(request.from).max(request.from));
    let places = request.document.flat_places as usize;
    if s.kind.seals() && places == 0 {
        return Err(Blocked::NoFlatPlace);
    }
    loop {
        let slot = calendar.find(not_before, s.hands_on_min, s.splittable, &bench)?;
        let mut holds_until = None;
        if s.kind.seals() {
            let from = slot.sittings.first().map_or(not_before, |x| x.from);
            let end = slot.sittings.last().map_or(not_before, |x| x.to);
            let until = bed.touch_dry_after(step, end).unwrap_or(end);
            let mut taken: Vec<DateTime<Utc>> =
                held.iter().filter(|(a, b)| *a < until && *b > from).map(|(_, b)| *b).collect();
            taken.sort();
            if taken.len() >= places {
                // With the places all held, the one that comes free first decides.
                let free = taken[taken.len() - places];
                not_before = whole_minute(free.max(not_before + Duration::minutes(1)));
                if let Some(w) = &mut wait {
                    w.reason = WaitReason::FlatPlace;
                    w.until = not_before;
                }
                continue;
            }
            holds_until = Some(until);
        }
        return Ok(Candidate { step, slot, bench, wait, holds_until });
    }
}

/// Up to the full minute: nobody starts a coat at 18:44:17.
fn whole_minute(at: DateTime<Utc>) -> DateTime<Utc> {
    let over = at.timestamp_millis().rem_euclid(60_000);
    if over == 0 { at } else { at + Duration::milliseconds(60_000 - over) }
}

/// Adds what stands on blocked steps, and judges the whole.
fn finish(request: Request<'_>, mut steps: Vec<PlannedStep>, mut objective: Objective) -> Plan {
    let document = request.document;
    steps.sort_by_key(|s| s.sittings.first().map_or(DateTime::<Utc>::MAX_UTC, |x| x.from));
    let mut pictures = Vec::new();
    for (p, picture) in document.pictures.iter().enumerate() {
        for (i, step) in picture.steps.iter().enumerate() {
            let known = steps.iter().any(|s| s.picture == p && s.step == i);
            if step.laid_at.is_none() && !known {
                steps.push(blocked_step(p, i, Blocked::Below));
            }
        }
        let mine = || steps.iter().filter(|s| s.picture == p);
        let whole = !picture.steps.is_empty() && mine().all(|s| s.blocked.is_none());
        let planned = mine().flat_map(|s| s.sittings.iter().map(|x| x.to)).max();
        let laid = picture.steps.iter().filter_map(|s| s.laid_at).max();
        let finish = if whole { planned.max(laid) } else { None };
        let days_late = match (finish, picture.due) {
            (Some(end), Some(due)) => Some((document.hours.day(end) - due).num_days().max(0)),
            _ => None,
        };
        objective.weighted_days_late += picture.weight * days_late.unwrap_or(0) as f64;
        if let Some(end) = planned.filter(|_| whole) {
            objective.sum_of_finish_min += (end - request.from).num_seconds() as f64 / 60.0;
        }
        pictures.push(PictureOutcome { picture: p, finish, due: picture.due, days_late });
    }
    Plan { steps, pictures, objective }
}
