//! Better orders of work, found by trying: a search that can be stopped at any time.
//!
//! An order of work says whose turn it is; playing it places each step as early as hours, film and
//! floors allow, so that some order gives the best plan wherever a coat laid earlier is ready
//! earlier. The search changes one order (a turn, two turns, a picture, a shared mix) and keeps
//! what is better; now and then, less often as it cools, also what is a little worse (simulated
//! annealing, Kirkpatrick et al. 1983), each round beginning at the best order known.
//! Most orders are judged by the lags that films had so far; an order that looks better is played with
//! rough films, which teach the lags what they did not know, and if it still looks better with its films. The plan
//! that is kept was always played with them.

use super::beginnings::Beginnings;
use super::bound::bound;
use super::decode::{Order, Schedule};
use super::films::{Films, Judged};
use super::moves::{Limit, changed};
use super::parallel::in_parallel;
use super::problem::Problem;
use super::score::Score;
use super::{Objective, Plan, Request, finish::plan_of};
use crate::studio::{OrderEntry, Studio};
use chrono::{DateTime, Utc};
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;
use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

/// With more steps than this orders are only tried by lags. [practice] films of 40 steps: 20 ms
const EXACT_STEPS: usize = 40;
/// One in so many rounds is tried with films, where there are few steps. [practice]
const EXACT_ROUND: u64 = 5;
/// Orders tried in a round with films, for each step. [practice] a film takes some 1 000 times as long
/// as a lag
const EXACT_TRIES: u64 = 4;
/// Orders tried in the first round, for each step. Each round is longer by [`LONGER`]. [practice]
const FIRST_ROUND: u64 = 30;
/// Steps placed by lags for each film that the last order cost, before another is played with its films: where a
/// search still falls, most of what looks better is overtaken meanwhile. [practice] films then take about a
/// third of the time; with 700 to 2 000 a search comes to the same
const LAGS_A_FILM: u64 = 2_000;
/// The same for each rough film. [practice] it takes a fifth of the time; with 150 to 1 000 a search comes to the same
const LAGS_A_ROUGH_FILM: u64 = 400;
/// By how much an order may be worse with rough films than the best one and still be played with its films [-]:
/// what rough films of a whole studio are off by. Measured
const ROUGHLY: f64 = 0.001;
/// Growth of a round [-]. [practice]
const LONGER: f64 = 1.25;
/// Steps up to which a round begins with its whole warmth. [practice]
const MILD_STEPS: f64 = 60.0;
/// Part of the warmth that is left at the end of a round [-]. [practice]
const COLD: f64 = 0.01;

/// How far a search is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SearchProgress {
    /// Orders tried.
    pub tried: u64,
    /// Steps placed with their films computed anew: what takes the time.
    pub films: u64,
    /// The best plan so far.
    pub best: Objective,
    /// The bound, see [`Planner::bound`].
    pub bound: Objective,
}

/// Plans a studio, and goes on to better plans as long as one likes.
///
/// It always holds a whole plan. The same document, start, seed and number of tries give the same
/// plan. What was computed of films is kept from plan to plan.
///
/// ```
/// # use ulvek_core::{air::*, planner::*, studio::*};
/// # let hours = StudioHours::try_new(chrono_tz::UTC, vec![], vec![]).unwrap();
/// # let air = AirSeries::constant(Air::try_new(21.0, 0.5, 0.15).unwrap());
/// let studio = Studio::new("Room", hours, air);
/// let from = "2027-01-04T08:00:00Z".parse().unwrap();
/// let mut planner = Planner::new(Request { studio: &studio, from });
/// planner.improve(7, 1000, |_| true);
/// assert_eq!(planner.plan().objective.weighted_days_late, 0.0);
/// ```
#[derive(Debug, Clone)]
pub struct Planner<'a> {
    problem: Problem<'a>,
    films: Films,
    best: Schedule,
    order: Order,
    /// Whether it began with an order that was given, and not with what can start first.
    ordered: bool,
    /// The bound, and how many films were known when it was computed.
    bound: Option<(u64, Score)>,
    tried: u64,
    /// Steps read from lags when an order may be played with rough films again.
    due: u64,
    /// The same with its films.
    films_due: u64,
}

/// An order that looks better with rough films, and what it looks like.
struct Proven {
    order: Order,
    score: Score,
}

impl<'a> Planner<'a> {
    /// The best of a few simple plans.
    pub fn new(request: Request<'a>) -> Self {
        let problem = Problem::new(request.studio, request.from);
        let films = Films::new(request.studio);
        let own = &request.studio.order;
        let order = (!own.is_empty()).then(|| carried(own, &problem));
        Self::begin(problem, films, order)
    }

    /// Plans another version of the studio with the same order of work, wherever the steps are
    /// the same. Films of pictures that did not change are not computed again.
    pub fn turn_to<'b>(self, studio: &'b Studio, from: DateTime<Utc>) -> Planner<'b> {
        let own = self.order();
        let Self { problem: old, mut films, .. } = self;
        films.turn_to(old.studio, studio);
        let problem = Problem::new(studio, from);
        let order = carried(&own, &problem);
        Planner::begin(problem, films, Some(order))
    }

    pub(super) fn begin(problem: Problem<'a>, mut films: Films, order: Option<Order>) -> Self {
        let mut best = Schedule::first_come(&problem, &mut films);
        let mut known = best.order(&problem);
        let mut ordered = false;
        if let Some(order) = order.filter(|o| *o != known) {
            let limit = best.score;
            let played = Schedule::play(&problem, &mut films, &order, Some(&limit));
            if let Some(schedule) = played {
                (best, known, ordered) = (schedule, order, true);
            }
        }
        Self {
            problem,
            films,
            best,
            order: known,
            ordered,
            bound: None,
            tried: 0,
            due: 0,
            films_due: 0,
        }
    }

    /// Gives back the films that it was lent.
    pub(super) fn into_films(self) -> Films {
        self.films.without_rough()
    }

    /// The best plan so far.
    pub fn plan(&self) -> Plan {
        plan_of(&self.problem, &self.best)
    }

    /// What no plan that was seen beats; see the module of the bound for what is proved of it.
    pub fn bound(&mut self) -> Objective {
        self.least().into()
    }

    /// The bound, computed again when films were computed since: a lag may have come out shorter.
    fn least(&mut self) -> Score {
        // A search that was given up may have left it at lags.
        self.films.judged = Judged::Films;
        if let Some((made, known)) = self.bound
            && made == self.films.made()
        {
            return known;
        }
        let found = bound(&self.problem, &mut self.films);
        self.bound = Some((self.films.made(), found));
        found
    }

    /// The bound as it was last computed: looked at at every try, it is not made anew for it.
    fn known_least(&mut self) -> Score {
        match self.bound {
            Some((_, known)) => known,
            None => self.least(),
        }
    }

    /// Whether the plan is at the bound: nothing that is known of could be better.
    pub fn is_at_bound(&mut self) -> bool {
        let known = self.known_least();
        self.reaches(&known) && {
            let bound = self.least();
            self.reaches(&bound)
        }
    }

    fn reaches(&self, bound: &Score) -> bool {
        let best = &self.best.score;
        best.blocked == bound.blocked
            && best.late <= bound.late
            && best.past_tubs == 0
            && best.sum <= bound.sum
            && best.set_ups <= bound.set_ups
    }

    /// Whether the plan it began with hangs on an order that was given to it.
    pub(super) const fn is_ordered(&self) -> bool {
        self.ordered
    }

    pub(super) const fn studio(&self) -> &'a Studio {
        self.problem.studio
    }

    /// The earliest finish of picture `p`: were it the only one, or in any plan that was tried.
    pub fn earliest_finish(&mut self, p: usize) -> Option<DateTime<Utc>> {
        let order = Order::by_picture(&self.problem, &[p]);
        Schedule::play(&self.problem, &mut self.films, &order, None)?;
        self.films.earliest_finish(p).map(crate::time::whole_instant)
    }

    /// Steps still to do.
    pub fn steps_left(&self) -> usize {
        self.problem.steps_left()
    }

    /// Orders tried so far.
    pub const fn tried(&self) -> u64 {
        self.tried
    }

    /// The order of work of the best plan.
    pub fn order(&self) -> Vec<OrderEntry> {
        let mut seen = vec![0_usize; self.order.inner.len()];
        let mut turns = Vec::with_capacity(self.order.turns.len());
        for p in self.order.turns.iter().map(|p| *p as usize) {
            if let Some(i) = self.order.inner[p].get(seen[p]) {
                let picture = self.problem.picture(p);
                let step = picture.steps[*i as usize].id.clone();
                turns.push(OrderEntry { picture: picture.id.clone(), step });
            }
            seen[p] += 1;
        }
        turns
    }

    /// How far the search is.
    pub fn progress(&mut self) -> SearchProgress {
        let bound = self.known_least().into();
        SearchProgress {
            tried: self.tried,
            films: self.films.made(),
            best: self.best.score.into(),
            bound,
        }
    }

    /// Tries up to `tries` more orders, as long as `go_on` says so and something could be better.
    /// `go_on` is asked before every try.
    pub fn improve(&mut self, seed: u64, tries: u64, go_on: impl FnMut(&SearchProgress) -> bool) {
        self.improve_from((seed, tries), go_on, |_| {});
    }

    /// The same, looking `around` before every round.
    fn improve_from(
        &mut self,
        (seed, tries): (u64, u64),
        go_on: impl FnMut(&SearchProgress) -> bool,
        around: impl FnMut(&mut Self),
    ) {
        if self.problem.steps_left() >= 2 {
            let last = self.tried + tries;
            self.start_well();
            self.rounds((seed, last.saturating_sub(self.tried)), go_on, around);
        }
    }

    /// The same from several seeds at once, each on a thread of its own; each begins its rounds at the best order
    /// that any of them found, and the best is kept.
    pub fn improve_beside(
        &mut self,
        seeds: &[u64],
        tries: u64,
        go_on: impl Fn(&SearchProgress) -> bool + Sync,
    ) {
        let begun = self.tried;
        let known = Mutex::new((self.best.score, self.order.clone()));
        let mut found = in_parallel(seeds.len(), seeds.len(), |n| {
            let mut beside = self.clone();
            let around = |beside: &mut Planner<'_>| beside.share(&known);
            beside.improve_from((seeds[n], tries), |progress| go_on(progress), around);
            Some(beside)
        });
        let all: u64 = found.iter().map(|beside| beside.tried - begun).sum();
        found.sort_by(|a, b| a.best.score.compare(&b.best.score));
        if let Some(best) = found.into_iter().next() {
            *self = best;
            self.tried = begun + all;
        }
    }

    /// Tells what it found if that is better than what is `known`, and else takes that over.
    fn share(&mut self, known: &Mutex<(Score, Order)>) {
        let better = {
            let mut known = known.lock().unwrap_or_else(PoisonError::into_inner);
            if self.best.score.beats(&known.0) {
                *known = (self.best.score, self.order.clone());
            }
            known.0.beats(&self.best.score).then(|| known.1.clone())
        };
        if let Some(order) = better {
            self.take_if_better(&order);
        }
    }

    /// The same from the order that is known, without trying quite other ones first: those move every
    /// film.
    pub(super) fn refine(
        &mut self,
        seed: u64,
        tries: u64,
        go_on: impl FnMut(&SearchProgress) -> bool,
    ) {
        self.rounds((seed, tries), go_on, |_| {});
    }

    fn rounds(
        &mut self,
        (seed, tries): (u64, u64),
        mut go_on: impl FnMut(&SearchProgress) -> bool,
        mut around: impl FnMut(&mut Self),
    ) {
        let steps = self.problem.steps_left();
        if steps < 2 {
            return;
        }
        let begins = self.films.read + steps as u64 * LAGS_A_ROUGH_FILM;
        self.due = self.due.max(begins);
        let last = self.tried + tries;
        let mut draw = Pcg64Mcg::seed_from_u64(seed);
        let mut round = FIRST_ROUND * steps as u64;
        let mut n = 0;
        while self.tried < last && !self.is_at_bound() {
            let exact = steps <= EXACT_STEPS && n % EXACT_ROUND == EXACT_ROUND - 1;
            let judged = if exact { Judged::Films } else { Judged::Lags };
            n += 1;
            around(self);
            // Films take long: such a round stays short.
            let tries = if exact { EXACT_TRIES * steps as u64 } else { round };
            if !self.round(&mut draw, judged, tries.min(last - self.tried), &mut go_on) {
                return;
            }
            round = (round as f64 * LONGER) as u64;
        }
    }

    /// Tries orders that are often good: by date, by the work left, by room to the date.
    fn start_well(&mut self) {
        let problem = &self.problem;
        let due = |p: usize| problem.picture(p).due.unwrap_or(chrono::NaiveDate::MAX);
        let work =
            |p: usize| -> i64 { problem.tasks[p].iter().flatten().map(|t| t.hands_on).sum() };
        let mut by_date: Vec<usize> = (0..problem.tasks.len()).collect();
        let mut by_work = by_date.clone();
        let mut by_weight = by_date.clone();
        by_date.sort_by_key(|p| (due(*p), work(*p)));
        by_work.sort_by_key(|p| work(*p));
        by_weight.sort_by(|a, b| {
            let w = |p: usize| problem.picture(p).weight / (work(p).max(1) as f64);
            w(*b).total_cmp(&w(*a))
        });
        let own = self.order.clone();
        let mut best = self.judge(&own, Judged::Lags, None).unwrap_or(self.best.score);
        let mut promising = None;
        for pictures in [by_date, by_work, by_weight] {
            let order = Order::by_picture(&self.problem, &pictures);
            self.tried += 1;
            if let Some(score) =
                self.judge(&order, Judged::Lags, Some(&best)).filter(|s| s.beats(&best))
            {
                (best, promising) = (score, Some(order));
            }
        }
        if let Some(order) = promising {
            self.take_if_better(&order);
            // Placed in its own order of time, the same plan is easier to change.
            let placed = self.best.order(&self.problem);
            if self.judge(&placed, Judged::Films, None) == Some(self.best.score) {
                self.order = placed;
            }
        }
    }

    /// One cooling; false when it was stopped.
    fn round(
        &mut self,
        draw: &mut Pcg64Mcg,
        judged: Judged,
        tries: u64,
        go_on: &mut impl FnMut(&SearchProgress) -> bool,
    ) -> bool {
        let mut current = self.order.clone();
        let mut beginnings = Beginnings::of(self.problem.steps_left());
        let mut current_score = self.judge(&current, judged, None).unwrap_or(self.best.score);
        // By lags a plan is not quite what it is: what counts is whether an order looks better
        // than the best one looks, and the best of a stretch is then played with its films.
        let mut to_beat = current_score;
        let mut promising: Option<Order> = None;
        let mut proven: Option<Proven> = None;
        let steps = self.problem.steps_left() as f64;
        // Many steps drift apart sooner.
        let mild = (MILD_STEPS / steps).powf(1.5).min(1.0);
        for try_no in 1..=tries {
            if !go_on(&self.progress()) {
                if let Some(order) = proven.map(|known| known.order).or(promising) {
                    self.take_if_better(&order);
                }
                return false;
            }
            if self.films.tidy(self.problem.studio) {
                beginnings.clear();
            }
            let warm = mild * COLD.powf(try_no as f64 / tries as f64);
            self.tried += 1;
            if let Some(next) = changed(&current, &self.problem, draw) {
                let limit = Limit::drawn(&current_score, warm, draw, self.problem.tasks.len());
                let same = next.same_turns(&current);
                let judgement = match judged {
                    Judged::Lags => self.judge_from(&mut beginnings, (&next, same), &limit.worst),
                    _ => self.judge(&next, judged, Some(&limit.worst)),
                };
                if let Some(score) = judgement.filter(|s| limit.takes(s, &current_score)) {
                    current = next;
                    beginnings.change_from(same);
                    current_score = score;
                    if score.beats(&to_beat) {
                        to_beat = score;
                        promising = Some(current.clone());
                    }
                }
            }
            let last = try_no == tries;
            let mut learned = false;
            // A search that is short does without rough films.
            let is_long = self.films.made_roughly() > 0;
            let due = self.films.read >= self.due || (last && is_long && promising.is_some());
            if judged == Judged::Lags && due {
                self.play_roughly(promising.take(), &current, &mut proven);
                learned = true;
            }
            let due = last || self.films.read >= self.films_due;
            let order = match judged {
                Judged::Films => promising.take(),
                _ if last && !is_long && proven.is_none() => promising.take(),
                _ => proven.take_if(|_| due).map(|known| known.order),
            };
            if let Some(order) = order {
                self.play_films(&order);
                if self.is_at_bound() {
                    return true;
                }
                learned = true;
            }
            if learned {
                beginnings.clear();
                // The lags moved: what the best one looks like moves too.
                let best = proven.as_ref().map_or(&self.order, |known| &known.order).clone();
                to_beat = self.judge(&best, judged, None).unwrap_or(to_beat);
                current_score = self.judge(&current, judged, None).unwrap_or(current_score);
            }
        }
        true
    }

    /// The score of an order, by lags or by films; `None` when it is worse than `limit`.
    fn judge(&mut self, order: &Order, judged: Judged, limit: Option<&Score>) -> Option<Score> {
        self.films.judged = judged;
        let played = Schedule::play(&self.problem, &mut self.films, order, limit);
        self.films.judged = Judged::Films;
        played.map(|schedule| schedule.score)
    }

    /// The same by lags, from the beginnings of an order that `order` has its turns up to `same` from.
    fn judge_from(
        &mut self,
        beginnings: &mut Beginnings,
        order: (&Order, usize),
        limit: &Score,
    ) -> Option<Score> {
        self.films.judged = Judged::Lags;
        let found = beginnings.judge(&self.problem, &mut self.films, order, limit);
        self.films.judged = Judged::Films;
        found
    }

    /// Plays an order that looks better by lags with rough films: whether it still does, beside the best one and
    /// `proven`, another that did. Without one the lags are learned anew where the search has come to.
    fn play_roughly(
        &mut self,
        promising: Option<Order>,
        current: &Order,
        proven: &mut Option<Proven>,
    ) {
        let made = self.films.made_roughly();
        if self.films.follow_roughly(self.problem.studio) {
            // Of what was played already is learned what they are off by.
            let best = self.order.clone();
            self.judge(&best, Judged::Films, None);
        }
        match promising {
            Some(order) => {
                let best = self.best.score;
                let sum = best.sum + (best.sum as f64 * ROUGHLY) as i64;
                let limit = Score { sum, set_ups: u32::MAX, ..best };
                let limit = proven.as_ref().map_or(limit, |known| known.score);
                if let Some(score) = self.judge(&order, Judged::Rough, Some(&limit)) {
                    *proven = Some(Proven { order, score });
                }
            }
            None => {
                self.judge(current, Judged::Rough, None);
            }
        }
        self.due = self.films.read + (self.films.made_roughly() - made) * LAGS_A_ROUGH_FILM;
    }

    /// Plays an order with its films and keeps it if it is better.
    fn play_films(&mut self, order: &Order) {
        let made = self.films.made();
        self.take_if_better(order);
        self.films_due = self.films.read + (self.films.made() - made) * LAGS_A_FILM;
    }

    fn take_if_better(&mut self, order: &Order) {
        let limit = self.best.score;
        let played = Schedule::play(&self.problem, &mut self.films, order, Some(&limit));
        if let Some(schedule) = played.filter(|s| s.score.beats(&limit)) {
            self.best = schedule;
            self.order = order.clone();
        }
    }
}

/// The order of work `turns` for `new`: steps that are still there stay in their order, others
/// come right after the step before them in their picture.
pub(super) fn carried(turns: &[OrderEntry], new: &Problem<'_>) -> Order {
    let pictures: Vec<usize> = (0..new.tasks.len()).collect();
    let fresh = Order::by_picture(new, &pictures);
    let known: HashMap<(&str, &str), usize> =
        turns.iter().enumerate().map(|(n, t)| ((t.picture.as_str(), t.step.as_str()), n)).collect();
    let rank = |p: usize, i: usize| {
        let picture = new.picture(p);
        known.get(&(picture.id.as_str(), picture.steps[i].id.as_str())).copied()
    };
    let mut ranked: Vec<(usize, u32)> = Vec::new();
    for p in pictures {
        let mut at = 0;
        for i in &fresh.inner[p] {
            at = rank(p, *i as usize).map_or(at, |r| r.max(at));
            ranked.push((at, p as u32));
        }
    }
    ranked.sort();
    Order { turns: ranked.into_iter().map(|(_, p)| p).collect(), inner: fresh.inner }
}

/// A moderate effort that no clock decides: whether a search as far as `progress` should go on.
/// Some seconds on a small computer.
pub fn moderate(steps: usize, progress: &SearchProgress) -> bool {
    /// Steps placed in all tries. [practice]
    const MOST_PLACED: u64 = 3_000_000;
    /// Films computed. [practice]
    const MOST_FILMS: u64 = 4_000;
    progress.tried * (steps as u64) < MOST_PLACED && progress.films < MOST_FILMS
}

/// The plan at once: of what can start first and the studio's own order of work, the better.
pub fn plan(request: Request<'_>) -> Plan {
    Planner::new(request).plan()
}
