//! Ways to make a date: changes of the work, the room or the waiting, each planned anew and ranked by
//! what it gains for the least harm.

use super::change::{Change, DateWayKind};
use super::changes::changes;
use super::parallel::{in_parallel, threads};
use super::promise::{DateStanding, Promise, promise};
use super::{
    Aim, PictureOutcome, Plan, Planner, ReadyOutcome, Request, SEED, futures_for, odds, ready,
};
use crate::air::RoomChange;
use crate::picture::CoatFault;
use crate::studio::{OrderEntry, Studio};
use crate::time::minutes_between;
use chrono::{DateTime, Utc};
use std::sync::atomic::{AtomicUsize, Ordering};

/// Orders tried for each way of a studio of up to [`FEW_STEPS`] steps. [practice] a few tenths of a
/// second; a try takes as long as there are steps, so of more there are fewer
const TRIES: u64 = 150;
/// Orders tried for each way at least. [practice]
const LEAST_TRIES: u64 = 5;
/// Steps up to which every try is made. [practice]
const FEW_STEPS: u64 = 20;
/// A way to make a date, planned.
#[derive(Debug, Clone)]
pub struct DateWay {
    /// What is changed: one thing, or several together.
    pub kinds: Vec<DateWayKind>,
    /// The change in words, with its numbers.
    pub what: String,
    /// What is risked or lost, a sentence for each.
    pub risk: String,
    /// Harm: 1 little, 5 much; of several together the greatest and one for each further.
    pub harm: u8,
    /// What is done to the room, when that is it.
    pub room: Option<RoomChange>,
    /// The studio with the change.
    pub studio: Studio,
    /// Its plan.
    pub plan: Plan,
    /// When the picture is ready then.
    pub ready: DateTime<Utc>,
    /// Minutes by which the picture is ready earlier.
    pub gain_min: f64,
    /// Days late that are left.
    pub days_late: i64,
    /// Weighted days by which the other pictures are ready later (negative: less late).
    pub others_later: f64,
    /// What is then said of the date, by its odds.
    pub date: Promise,
    /// The order of work that the plan was played in.
    turns: Vec<OrderEntry>,
}

impl DateWay {
    /// Samples the odds of picture `p`, with the futures that the season is told by.
    fn sample(&mut self, p: usize, from: DateTime<Utc>) {
        let request = Request { studio: &self.studio, from };
        let futures = futures_for(self.plan.steps.len());
        let played = (&self.turns[..], &self.plan.held[..]);
        let sampled = odds(request, played, SEED, (futures, threads()), Aim::Ready, |_| {});
        let outcome = ReadyOutcome { at: Some(self.ready), days_late: Some(self.days_late) };
        self.date = promise(&self.studio, p, &outcome, sampled.get(p), from);
    }

    /// How near it comes to the date: 0 in time, 1 not sure, 2 late.
    const fn rank(&self) -> u8 {
        match self.date.standing {
            DateStanding::Late | DateStanding::Stuck => 2,
            DateStanding::NotSure => 1,
            DateStanding::Done | DateStanding::NoDate | DateStanding::InTime => 0,
        }
    }
}

/// Ways to have picture `p` ready earlier: those that are sure to meet its date first, then those that may, then the
/// least harmful, then those that gain most. Where no single change meets the date, several are tried together.
/// `planner` holds the present plan. `told` hears how many of how many were planned.
pub fn date_ways(
    planner: &Planner<'_>,
    p: usize,
    from: DateTime<Utc>,
    told: impl Fn(usize, usize) + Sync,
) -> Vec<DateWay> {
    let studio = planner.studio();
    let present = planner.plan();
    let Some(picture) = studio.pictures.get(p) else { return Vec::new() };
    let all = changes(studio, picture, p, &present, from);
    // Each is planned, and those that help are sampled.
    let (of, done) = (2 * all.len(), AtomicUsize::new(0));
    let threads = threads();
    let late_now = others_late(studio, &present, p);
    let Ok(late_now) = late_now else { return Vec::new() };
    let asked = Asked { planner, p, present: &present, late_now, from };
    let singles: Vec<Option<DateWay>> = in_parallel(all.len(), threads, |n| {
        let way = asked.way(&all[n]);
        told(done.fetch_add(1, Ordering::Relaxed) + 1, of);
        Some(way)
    });
    let due = picture.due.is_some();
    let met = |way: &DateWay| way.days_late == 0;
    let together = if due && !singles.iter().flatten().any(met) {
        asked.together(&all, &singles)
    } else {
        None
    };
    let mut found: Vec<DateWay> = singles.into_iter().flatten().chain(together).collect();
    for (n, way) in found.iter_mut().enumerate() {
        way.sample(p, from);
        told(all.len() + n + 1, of);
    }
    found.sort_by(|a, b| {
        a.rank()
            .cmp(&b.rank())
            .then((a.others_later > 0.0).cmp(&(b.others_later > 0.0)))
            .then(a.harm.cmp(&b.harm))
            .then(b.gain_min.total_cmp(&a.gain_min))
    });
    found
}

/// Weighted days that the pictures other than `p` are ready late by `plan`.
fn others_late(studio: &Studio, plan: &Plan, p: usize) -> Result<f64, CoatFault> {
    let mut late = 0.0;
    for q in (0..studio.pictures.len()).filter(|q| *q != p) {
        let days = ready(studio, plan, q)?.days_late.unwrap_or(0);
        late += studio.pictures[q].weight * days as f64;
    }
    Ok(late)
}

/// What is asked: ways for picture `p` beside the present plan.
struct Asked<'a, 'p> {
    planner: &'a Planner<'p>,
    p: usize,
    present: &'a Plan,
    /// Weighted days that the others are late by it.
    late_now: f64,
    from: DateTime<Utc>,
}

impl Asked<'_, '_> {
    /// What comes of a change; nothing when the picture is not ready on an earlier day, or another
    /// picture cannot be finished any more.
    fn way(&self, change: &Change<'_>) -> Option<DateWay> {
        let (p, present, studio) = (self.p, self.present, self.planner.studio());
        let mut changed = change.made(studio)?;
        let (plan, turns, hangs_on_it) = self.planned(&changed);
        // The order of work belongs to the way only where the gain hangs on it.
        if hangs_on_it {
            changed.order.clone_from(&turns);
        }
        let lost = |(was, is): (&PictureOutcome, &PictureOutcome)| {
            was.finish.is_some() && is.finish.is_none()
        };
        if present.pictures.iter().zip(&plan.pictures).any(lost) {
            return None;
        }
        let is = ready(&changed, &plan, p).ok()?;
        let at = is.at?;
        let was = ready(studio, present, p).ok()?.at;
        let gain_min = was.map_or(f64::INFINITY, |was| minutes_between(at, was));
        let day = |at| studio.hours.day(at);
        if was.is_some_and(|was| day(at) >= day(was)) {
            return None;
        }
        let others_later = others_late(&changed, &plan, p).ok()? - self.late_now;
        Some(DateWay {
            kinds: change.kinds(),
            what: change.said(),
            risk: change.risk(),
            harm: change.harm(),
            room: change.room(),
            plan,
            ready: at,
            gain_min,
            days_late: is.days_late.unwrap_or(0),
            others_later,
            date: promise(&changed, p, &is, None, self.from),
            turns,
            studio: changed,
        })
    }

    /// A plan of the changed studio, the order of work it was played in, and whether it was found by a search: then it
    /// hangs on that order, and else the changed studio shows it by itself.
    fn planned(&self, changed: &Studio) -> (Plan, Vec<OrderEntry>, bool) {
        let mut other = self.planner.clone().plan_anew(changed, self.from);
        let (at_once, given) = (other.plan(), other.order());
        // Nothing late is left to gain.
        if at_once.objective.weighted_days_late > 0.0 {
            let steps = (other.steps_left() as u64).max(1);
            let tries = (TRIES * FEW_STEPS / steps).clamp(LEAST_TRIES, TRIES);
            other.refine(self.p as u64, tries, |_| true);
        }
        let searched = other.plan();
        let gains = searched.objective.weighted_days_late < at_once.objective.weighted_days_late;
        if gains { (searched, other.order(), true) } else { (at_once, given, false) }
    }

    /// Several changes together, as few as meet the date, or as many as help: one after another is
    /// added, those that gain most alone first, then the least harmful; then what is not needed is
    /// left out again, the most harmful first.
    fn together(&self, all: &[Change<'_>], singles: &[Option<DateWay>]) -> Option<DateWay> {
        let mut turns: Vec<usize> = (0..all.len()).collect();
        let gain = |n: usize| singles[n].as_ref().map_or(0.0, |way| way.gain_min);
        turns.sort_by(|a, b| {
            gain(*b).total_cmp(&gain(*a)).then(all[*a].harm().cmp(&all[*b].harm()))
        });
        let first = *turns.first()?;
        let (mut change, mut best) = (all[first].clone(), singles[first].clone());
        for n in turns.into_iter().skip(1) {
            if best.as_ref().is_some_and(|way| way.days_late == 0) {
                break;
            }
            let Some(both) = change.with(&all[n]) else { continue };
            let way = self.way(&both);
            let ready = |way: &Option<DateWay>| way.as_ref().map(|w| w.ready);
            let sooner = match (ready(&way), ready(&best)) {
                (Some(new), Some(known)) => new < known,
                (new, known) => new.is_some() && known.is_none(),
            };
            if sooner {
                (change, best) = (both, way);
            }
        }
        let met = |way: &DateWay| way.days_late == 0;
        let mut harmful = change.kinds();
        harmful.sort_by_key(|kind| std::cmp::Reverse(kind.harm()));
        for kind in harmful {
            if !best.as_ref().is_some_and(met) {
                break;
            }
            let less = change.without(kind);
            if let Some(way) = self.way(&less).filter(met) {
                (change, best) = (less, Some(way));
            }
        }
        best.filter(|way| way.kinds.len() > 1)
    }
}
